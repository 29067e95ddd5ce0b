package store

import (
	"errors"
	"fmt"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gorm.io/gorm"

	"metronix/core/job"
)

// jobsOf stores so many jobs beside the one there is.
func jobsOf(t testing.TB, s *Store, n int) (ids []string) {
	t.Helper()
	base, err := s.Job("j")
	require.NoError(t, err)
	for i := range n {
		base.ID = fmt.Sprintf("job-%03d", i)
		require.NoError(t, s.AddJob(base, derived()))
		ids = append(ids, base.ID)
	}
	return ids
}

// noted is the n-th note of a job.
func noted(n int) job.Happening {
	return job.Happening{ID: fmt.Sprintf("note-%05d", n), Rules: job.Rules,
		At: time.Date(2026, 11, 1, 9, 0, n, 0, time.UTC), Act: job.Doubted{}}
}

// What many write at the same time shares syncs of the disk, and each is there in the end, in its order.
func TestWhatComesTogetherIsWrittenTogether(t *testing.T) {
	s, _ := opened(t)
	withJob(t, s)
	ids := jobsOf(t, s, 20)
	const each = 15
	before := s.group.syncs.Load()
	var all sync.WaitGroup
	for _, id := range ids {
		all.Go(func() {
			l, err := s.Happenings(id)
			assert.NoError(t, err)
			for n := range each {
				assert.NoError(t, s.Append(id, l, noted(n), derived()))
			}
		})
	}
	all.Wait()
	syncs := s.group.syncs.Load() - before
	assert.Less(t, syncs, int64(len(ids)*each)/2)
	for _, id := range ids {
		list, err := s.Happenings(id)
		require.NoError(t, err)
		require.Len(t, list.Happenings, each)
		for n, h := range list.Happenings {
			assert.Equal(t, noted(n).ID, h.ID)
		}
	}
	assert.Empty(t, s.Check().Troubles)
}

// One of a group that is refused, because its place or its id is taken or its job is not there, hinders no
// other; and where one fails in any other way, or in our own code, all are tried by themselves.
func TestOneOfAGroupHindersNoOther(t *testing.T) {
	s, _ := opened(t)
	withJob(t, s)
	put := func(id string) func(*gorm.DB) error {
		return func(tx *gorm.DB) error {
			return tx.Create(&settingRow{Name: id, Value: "1"}).Error
		}
	}
	broken := errors.New("the disk is on fire")
	written := []*grouped{}
	for _, do := range []func(*gorm.DB) error{put("a"), put("a"), put("b"),
		func(tx *gorm.DB) error { return errors.Join(put("lost")(tx), broken) },
		func(tx *gorm.DB) error { _ = put("lost too")(tx); panic("a slip of ours") }, put("c")} {
		written = append(written, &grouped{do, make(chan error, 1)})
	}
	said := func(i int) error { return <-written[i].done }
	s.group.commit(written[:3])
	assert.NoError(t, said(0))
	assert.ErrorIs(t, translate(said(1)), ErrExists)
	assert.NoError(t, said(2))
	s.group.commit(written[3:])
	assert.ErrorIs(t, said(3), broken)
	assert.ErrorContains(t, said(4), "a slip of ours")
	assert.NoError(t, said(5))
	var names []string
	require.NoError(t, s.read.Model(&settingRow{}).Order("name").Pluck("name", &names).Error)
	assert.Subset(t, names, []string{"a", "b", "c"})
	assert.NotContains(t, names, "lost")
	assert.NotContains(t, names, "lost too")
}

// Happenings of 1, 10 and 50 writers, each at a job of its own, against bare inserts of one row by as many
// writers with the same durability, in one run. What comes together shares syncs of the disk.
func BenchmarkAppendByWriters(b *testing.B) {
	for _, writers := range []int{1, 10, 50} {
		b.Run(fmt.Sprint(writers), func(b *testing.B) {
			s, _ := opened(b)
			withJob(b, s)
			ids := jobsOf(b, s, writers)
			lists := make([]*List, writers)
			for w, id := range ids {
				var err error
				lists[w], err = s.Happenings(id)
				require.NoError(b, err)
			}
			var appends, inserts time.Duration
			timed := func(took *time.Duration, do func(w int)) {
				began := time.Now()
				var all sync.WaitGroup
				for w := range writers {
					all.Go(func() { do(w) })
				}
				all.Wait()
				*took += time.Since(began)
			}
			require.NoError(
				b,
				s.write.Exec(
					"CREATE TABLE bare (job text, n integer, body text, PRIMARY KEY (job, n))",
				).Error,
			)
			body, err := bodyOf(noted(0))
			require.NoError(b, err)
			n, before := 0, s.group.syncs.Load()
			for b.Loop() {
				timed(&appends, func(w int) {
					if err := s.Append(ids[w], lists[w], noted(n), derived()); err != nil {
						b.Error(err)
					}
				})
				timed(&inserts, func(w int) {
					if err := s.write.Exec("INSERT INTO bare VALUES (?, ?, ?)", ids[w], n, body).Error; err != nil {
						b.Error(err)
					}
				})
				n++
			}
			b.ReportMetric(float64(appends)/float64(n*writers)/1e3, "µs-append")
			b.ReportMetric(float64(inserts)/float64(n*writers)/1e3, "µs-bare-insert")
			b.ReportMetric(float64(appends)/float64(inserts), "append/bare")
			b.ReportMetric(float64(n*writers)/float64(s.group.syncs.Load()-before), "appends/sync")
			b.ReportMetric(0, "ns/op")
		})
	}
}
