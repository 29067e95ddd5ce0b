package store

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// The board and one job of a workshop with ten jobs and with ten thousand, in one run: what the board shows
// is one page of small rows, and a job is read by itself, so that neither grows with the number of jobs.
func BenchmarkBoardByJobs(b *testing.B) {
	for _, n := range []int{10, 10_000} {
		s, _ := opened(b)
		withJob(b, s)
		base, err := s.Job("j")
		require.NoError(b, err)
		row, err := rowOf(base)
		require.NoError(b, err)
		var jobs []jobRow
		var states []stateRow
		for i := range n {
			row.ID = fmt.Sprintf("job-%05d", i)
			jobs = append(jobs, row)
			states = append(states, rowOfGlance(row.ID, glanced(base.CreatedAt.Add(
				time.Duration(i)*time.Minute), i%20 == 0)))
		}
		require.NoError(b, s.write.CreateInBatches(jobs, 500).Error)
		require.NoError(b, s.write.CreateInBatches(states, 500).Error)
		b.Run(fmt.Sprintf("board/%d", n), func(b *testing.B) {
			for b.Loop() {
				if _, _, err := s.Board(BoardQuery{Limit: 200}); err != nil {
					b.Fatal(err)
				}
			}
		})
		b.Run(fmt.Sprintf("open/%d", n), func(b *testing.B) {
			for b.Loop() {
				if _, err := s.Job("job-00003"); err != nil {
					b.Fatal(err)
				}
				if _, err := s.Happenings("job-00003"); err != nil {
					b.Fatal(err)
				}
				if _, err := s.LockPairs("tess", "screw_valve_end"); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
