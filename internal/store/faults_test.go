package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/job"
	"metronix/internal/deep"
)

func happened(n int) job.Happening {
	return job.Happening{ID: fmt.Sprintf("happening-%d", n), At: time.Date(2026, 11, 1, 9, n, 0, 0, time.UTC),
		Act: job.TemperatureNoted{EngineC: 20.0, AmbientC: 18.0}}
}

// filled is a file with a job of n happenings, closed.
func filled(t *testing.T, n int) string {
	t.Helper()
	s, path := opened(t)
	withJob(t, s)
	l := listOf(t, s)
	for i := range n {
		require.NoError(t, s.Append("j", l, happened(i), derived()))
	}
	s.Close()
	return path
}

// spoilFile changes a closed data file as a fault of the disk would.
func spoilFile(t *testing.T, path, statement string) {
	t.Helper()
	db, err := sql.Open("sqlite3", "file:"+path)
	require.NoError(t, err)
	_, err = db.Exec(statement)
	require.NoError(t, err, statement)
	require.NoError(t, db.Close())
}

// A second program on the file is refused; whoever only reads is let in.
func TestASecondProgramIsRefused(t *testing.T) {
	s, path := opened(t)
	withJob(t, s)
	_, err := Open(path)
	assert.ErrorIs(t, err, ErrInUse)
	db, err := sql.Open("sqlite3", lookDSN(path))
	require.NoError(t, err)
	defer db.Close()
	var n int
	require.NoError(t, db.QueryRow("SELECT count(*) FROM jobs").Scan(&n))
	assert.Equal(t, 1, n)
}

// Every single bit of what a happening holds that is turned over on the disk is found, and so is an entry
// that is missing or put in.
func TestAFlippedBitIsFound(t *testing.T) {
	path := filled(t, 3)
	for name, spoil := range map[string]string{
		"body":    `UPDATE happenings SET body = replace(body, '20', '21') WHERE place = 1`,
		"kind":    `UPDATE happenings SET kind = 'prepared' WHERE place = 1`,
		"time":    `UPDATE happenings SET at = replace(at, '09:01', '09:02') WHERE place = 1`,
		"id":      `UPDATE happenings SET client_id = 'happening-9' WHERE place = 1`,
		"sum":     `UPDATE happenings SET sum = replace(sum, substr(sum, 1, 1), 'g') WHERE place = 1`,
		"missing": `DELETE FROM happenings WHERE place = 1`,
		"last":    `UPDATE happenings SET body = replace(body, '18', '19') WHERE place = 2`,
		"sheet":   `UPDATE jobs SET sheet = replace(sheet, 'clockwise', 'anticlockwise')`,
		"leaves":  `UPDATE jobs SET leaves = replace(leaves, '0.201', '0.211')`,
	} {
		copied := filepath.Join(t.TempDir(), "spoiled.db")
		data, err := os.ReadFile(path)
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(copied, data, 0o600))
		spoilFile(t, copied, spoil)
		s, err := Open(copied)
		require.NoError(t, err, name)
		_, err = s.Happenings("j")
		assert.ErrorIs(t, err, ErrDamaged, name)
		troubles := s.Check().Troubles
		require.Len(t, troubles, 1, name)
		assert.Equal(t, "j", troubles[0].JobID)
		s.Close()
	}
}

// Pages that were wiped are found at the start.
func TestWipedPagesAreFoundAtTheStart(t *testing.T) {
	path := filled(t, 400)
	data, err := os.ReadFile(path)
	require.NoError(t, err)
	for i := len(data) / 2; i < len(data)/2+4*4096 && i < len(data); i++ {
		data[i] = 0
	}
	require.NoError(t, os.WriteFile(path, data, 0o600))
	_, err = Open(path)
	assert.ErrorIs(t, err, ErrDamaged)
}

// A file, or its log, that is removed or replaced while the program runs is noticed before anything is
// acknowledged.
func TestAFileThatIsGoneIsNoticed(t *testing.T) {
	for name, remove := range map[string]func(path string) error{
		"copied over": func(path string) error { // as people do to restore, the same file underneath
			other := filepath.Join(filepath.Dir(path), "other.db")
			s, err := Open(other)
			if err != nil {
				return err
			}
			s.Close()
			data, err := os.ReadFile(other)
			return errors.Join(err, os.WriteFile(path, data, 0o600))
		},
		"cut":         func(path string) error { return os.Truncate(path, 0) },
		"log cut":     func(path string) error { return os.Truncate(path+"-wal", 0) },
		"removed":     os.Remove,
		"log removed": func(path string) error { return os.Remove(path + "-wal") },
		"replaced": func(path string) error {
			return errors.Join(os.Rename(path, path+".old"),
				os.WriteFile(path, []byte("something else"), 0o600))
		},
	} {
		s, path := opened(t)
		withJob(t, s)
		l := listOf(t, s)
		require.NoError(t, s.Append("j", l, happened(0), derived()), name)
		require.NoError(t, remove(path))
		assert.ErrorIs(t, s.Append("j", l, happened(1), derived()), ErrGone, name)
		assert.ErrorIs(t, s.Still(), ErrGone, name)
	}
}

// A list that lost its end is no shorter list: the signature that was taken away is missed, by whoever opens
// the job and by the check, and what is derived is not made anew from what is left.
func TestAListThatLostItsEndIsMissed(t *testing.T) {
	s, _ := opened(t)
	withJob(t, s)
	l := listOf(t, s)
	for n := range 5 {
		require.NoError(t, s.Append("j", l, happened(n), derived()))
	}
	for _, gone := range []int{1, 3, 5} {
		require.NoError(
			t,
			s.write.Exec("DELETE FROM happenings WHERE job_id = 'j' AND place >= ?", 5-gone).Error,
		)
		_, err := s.Happenings("j")
		require.ErrorIs(t, err, ErrDamaged)
		assert.Contains(t, err.Error(), fmt.Sprintf("job j is short: %d of its 5 entries", 5-gone))
		troubles := s.Check().Troubles
		require.Len(t, troubles, 1)
		assert.Equal(t, "j", troubles[0].JobID)
	}
}

// The program itself folds its log in now and then, and knows its file again afterwards.
func TestTheLogIsFoldedIn(t *testing.T) {
	s, path := opened(t)
	withJob(t, s)
	before, err := os.Stat(path)
	require.NoError(t, err)
	l := listOf(t, s)
	for n := range 3 * foldEvery {
		require.NoError(t, s.Append("j", l, happened(n), derived()), n)
	}
	require.NoError(t, s.Still())
	after, err := os.Stat(path)
	require.NoError(t, err)
	assert.Greater(t, after.Size(), before.Size(), "what was written stands in the file by now")
	log, err := os.Stat(path + "-wal")
	require.NoError(t, err)
	assert.Less(t, log.Size(), int64(32<<20), "and the log does not grow for ever")

	// what follows from the jobs is written in thousands where a file is brought up to date
	large := derived()
	large.Plate = strings.Repeat("x", 20_000)
	for range 3 * foldEvery {
		large.Plate = large.Plate[1:] + "y"
		require.NoError(t, s.PutDerived("j", large))
	}
	log, err = os.Stat(path + "-wal")
	require.NoError(t, err)
	assert.Less(t, log.Size(), int64(3*foldEvery*20_000), "it is folded in on the way")
}

// Data is its owner's alone; a folder that was there is left as it is.
func TestFilesAreTheirOwnersAlone(t *testing.T) {
	dir := t.TempDir()
	require.NoError(t, os.Chmod(dir, 0o755))
	s, err := Open(filepath.Join(dir, "made", "w.db"))
	require.NoError(t, err)
	defer s.Close()
	mode := func(path string) os.FileMode {
		info, err := os.Stat(path)
		require.NoError(t, err)
		return info.Mode().Perm()
	}
	assert.Equal(t, os.FileMode(0o700), mode(filepath.Join(dir, "made")))
	assert.Equal(t, os.FileMode(0o755), mode(dir))
	for _, f := range []string{"w.db", "w.db-wal"} {
		assert.Equal(t, os.FileMode(0o600), mode(filepath.Join(dir, "made", f)), f)
	}
}

// The copy taken while another program writes holds whatever was acknowledged before it began; a name that is
// taken is not written over.
func TestBackupUnderLoad(t *testing.T) {
	s, path := opened(t)
	withJob(t, s)
	l := listOf(t, s)
	stop, done := make(chan struct{}), make(chan int)
	go func() {
		n := 0
		defer func() { done <- n }()
		for ; ; n++ {
			select {
			case <-stop:
				return
			default:
			}
			if err := s.Append("j", l, happened(n), derived()); err != nil {
				t.Error(err)
				return
			}
		}
	}()
	for round := range deep.Rounds(8, 40) {
		var before int64
		require.NoError(t, s.read.Model(&happeningRow{}).Count(&before).Error)
		copied := filepath.Join(t.TempDir(), fmt.Sprintf("copy-%d.db", round))
		found, err := Backup(path, copied, whole)
		require.NoError(t, err)
		require.Empty(t, found.Troubles)
		n := found.Entries
		assert.GreaterOrEqual(t, int64(n), before)
		_, err = Backup(path, copied, whole)
		assert.ErrorIs(t, err, ErrThere)
		back, err := Open(copied)
		require.NoError(t, err)
		list, err := back.Happenings("j")
		require.NoError(t, err)
		assert.Len(t, list.Happenings, n)
		back.Close()
	}
	close(stop)
	require.Positive(t, <-done)
}

// Another program that holds the write lock: reading goes on, writing is said to be busy, and a request that
// ran out of time is said to be so.
func TestBusyIsSaidAsBusy(t *testing.T) {
	s, path := opened(t)
	withJob(t, s)
	db, err := sql.Open("sqlite3", "file:"+path+"?_txlock=immediate")
	require.NoError(t, err)
	defer db.Close()
	tx, err := db.Begin()
	require.NoError(t, err)
	defer func() { _ = tx.Rollback() }()
	l := listOf(t, s)
	began := time.Now()
	assert.ErrorIs(t, s.Append("j", l, happened(0), derived()), ErrBusy)
	assert.Less(t, time.Since(began), 10*time.Second)
	_, _, err = s.Board(BoardQuery{Limit: 10})
	assert.NoError(t, err, "the board is read while the writer waits")
	ctx, cancel := context.WithCancel(context.Background())
	cancel()
	_, _, err = s.With(ctx).Board(BoardQuery{Limit: 10})
	assert.ErrorIs(t, err, context.Canceled)
}

// The board is one query over small rows, the last touched first, and pages.
func TestBoardPages(t *testing.T) {
	s, _ := opened(t)
	withJob(t, s)
	base, err := s.Job("j")
	require.NoError(t, err)
	for i := range 7 {
		next := base
		next.ID = fmt.Sprintf("job-%d", i)
		d := derived()
		d.TouchedAt, d.Open = d.TouchedAt.Add(time.Duration(i+1)*time.Hour), i%2 == 0
		require.NoError(t, s.AddJob(next, d))
	}
	list, total, err := s.Board(BoardQuery{Limit: 3, Offset: 1})
	require.NoError(t, err)
	assert.Equal(t, int64(8), total)
	var ids []string
	for _, j := range list {
		ids = append(ids, j.ID)
	}
	assert.Equal(t, "job-5 job-4 job-3", strings.Join(ids, " "))
	_, total, err = s.Board(BoardQuery{Limit: 3, Open: new(true)})
	require.NoError(t, err)
	assert.Equal(t, int64(5), total)
	require.NoError(t, s.PutOffBoard("job-5", true))
	_, total, err = s.Board(BoardQuery{Limit: 3, OffBoard: true})
	require.NoError(t, err)
	assert.Equal(t, int64(1), total)
}

// A disk that is full at whatever point: the entry that does not fit is said not to be stored because of it,
// everything acknowledged before is there and whole, the board is still read, and with room again the work
// goes on. (SQLite's own limit of pages stands for the disk's: "The max_page_count pragma", sqlite.org; a
// write past it fails as one on a full disk does.)
func TestAFullDisk(t *testing.T) {
	for round := range deep.Rounds(12, 200) {
		s, path := opened(t)
		withJob(t, s)
		var pages int
		require.NoError(t, s.write.Raw("PRAGMA page_count").Scan(&pages).Error)
		require.NoError(t, s.write.Exec(fmt.Sprintf("PRAGMA max_page_count = %d", pages+round)).Error)
		l, stored := listOf(t, s), 0
		for {
			h := happened(stored)
			h.Act = job.LeftAsIs{Valve: "E1", Reason: strings.Repeat("x", 40*(round%7))}
			err := s.Append("j", l, h, derived())
			if err != nil {
				require.ErrorIs(t, err, ErrFull, "round %d after %d", round, stored)
				break
			}
			stored++
			require.Less(t, stored, 10_000, "the limit holds nothing back")
		}
		require.Len(t, l.Happenings, stored, "what was not stored is not believed")
		_, _, err := s.Board(BoardQuery{Limit: 10})
		require.NoError(t, err)
		s.Close()
		again, err := Open(path)
		require.NoError(t, err)
		l = listOf(t, again)
		require.Len(t, l.Happenings, stored, "round %d", round)
		require.NoError(t, again.Append("j", l, happened(stored), derived()))
		require.Empty(t, again.Check().Troubles)
		again.Close()
	}
}
