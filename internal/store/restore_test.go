package store

import (
	"errors"
	"fmt"
	"os"
	"os/exec"
	"os/signal"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// whole is the store's part of the full check.
func whole(s *Store) (Findings, error) { return s.Check(), nil }

// entriesOf is how many entries a data file's one job has, as whoever opens it finds them.
func entriesOf(t *testing.T, path string) int {
	t.Helper()
	s, err := Open(path)
	require.NoError(t, err, path)
	defer s.Close()
	list, err := s.Happenings("j")
	require.NoError(t, err, path)
	require.Empty(t, s.Check().Troubles, path)
	return len(list.Happenings)
}

// namesIn lists what lies in a data file's folder.
func namesIn(t *testing.T, path string) (names []string) {
	t.Helper()
	list, err := os.ReadDir(filepath.Dir(path))
	require.NoError(t, err)
	for _, e := range list {
		names = append(names, e.Name())
	}
	return names
}

// A restored copy is exactly the copy, though the file it replaces was left with a log by a crash; what was
// there is kept aside with all that its log held, whatever lies aside already. The copy may have a log too,
// as a file that was kept aside by another program, or left by a crash, has.
func TestRestore(t *testing.T) {
	path := filled(t, 3)
	copied := filepath.Join(t.TempDir(), "copy.db")
	_, err := Backup(path, copied, whole)
	require.NoError(t, err)
	crash(t, path, "append", 3, 40)
	info, err := os.Stat(path + "-wal")
	require.NoError(t, err)
	require.Positive(t, info.Size(), "the crash left a log")
	now := time.Now()
	done, err := Restore(path, copied, now, false, whole)
	require.NoError(t, err)
	assert.Equal(t, 3, done.Entries)
	assert.Equal(t, 3, entriesOf(t, path))
	assert.Equal(t, 40, entriesOf(t, done.Aside))

	// once more within the second, from a file with a log: nothing that was kept aside is written over
	crashed := filled(t, 2)
	crash(t, crashed, "append", 2, 30)
	again, err := Restore(path, crashed, now, false, whole)
	require.NoError(t, err)
	assert.Equal(t, 30, again.Entries)
	assert.Equal(t, 30, entriesOf(t, path), "with what its log held")
	assert.NotEqual(t, done.Aside, again.Aside)
	assert.Equal(t, 40, entriesOf(t, done.Aside))
	assert.Equal(t, 3, entriesOf(t, again.Aside))

	s, err := Open(path)
	require.NoError(t, err)
	_, err = Restore(path, copied, now, false, whole)
	assert.ErrorIs(t, err, ErrInUse)
	s.Close()
	_, err = Restore(path, filepath.Join(t.TempDir(), "none.db"), now, false, whole)
	assert.Error(t, err)
	torn := filepath.Join(t.TempDir(), "torn.db")
	data, err := os.ReadFile(copied)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(torn, data[:len(data)/2], 0o600))
	_, err = Restore(path, torn, now, false, whole)
	assert.Error(t, err, "half a copy is not put in place")
	assert.Equal(t, 30, entriesOf(t, path))
	assert.NotContains(t, strings.Join(namesIn(t, path), " "), "restoring")
}

// A copy in which the check finds something is taken only by whoever wants it anyway.
func TestADamagedCopyIsRefused(t *testing.T) {
	path, copied := filled(t, 3), filled(t, 5)
	spoilFile(t, copied, `UPDATE happenings SET body = replace(body, '18', '19') WHERE place = 4`)
	done, err := Restore(path, copied, time.Now(), false, whole)
	require.ErrorIs(t, err, ErrCopy)
	require.Len(t, done.Troubles, 1)
	assert.Equal(t, 3, entriesOf(t, path))
	done, err = Restore(path, copied, time.Now(), true, whole)
	require.NoError(t, err)
	assert.Len(t, done.Troubles, 1)
	assert.Equal(t, 3, entriesOf(t, done.Aside))

	// a backup of it says so, and is there
	to := filepath.Join(t.TempDir(), "copy.db")
	found, err := Backup(path, to, whole)
	require.NoError(t, err)
	assert.Len(t, found.Troubles, 1)
	assert.FileExists(t, to)
}

// Where there is no room for the copy nothing is changed, and it is said.
func TestRestoreOntoAFullDisk(t *testing.T) {
	path, copied := filled(t, 3), filled(t, 300)
	before := namesIn(t, path)
	out := crash(t, path, "restore-full", 0, 0, "STORE_FROM_FILE="+copied)
	assert.Contains(t, out, ErrFull.Error())
	assert.Equal(t, before, namesIn(t, path))
	assert.Equal(t, 3, entriesOf(t, path))
}

// Whatever changes names is whole when it ends before or after any one of them: what was there is there,
// whole, or the new is; where neither may be used as it is, that is said, and doing it again mends it.
// Nothing that was kept aside is lost, and nothing unfinished has a finished file's name.
func TestEndedAtEveryChangeOfAName(t *testing.T) {
	for _, what := range []string{"restore", "restore-anew", "restore-damaged", "backup", "upgrade"} {
		t.Run(what, func(t *testing.T) {
			ends := 0
			for at := 1; ; at++ {
				path, copied := filled(t, 3), filled(t, 7)
				switch what {
				case "restore":
					crash(t, path, "append", 3, 20)
				case "restore-anew":
					path = filepath.Join(t.TempDir(), "new", "w.db")
				case "restore-damaged": // so that its log cannot be folded in
					crash(t, path, "append", 3, 20)
					head, err := os.OpenFile(path, os.O_WRONLY, 0)
					require.NoError(t, err)
					_, err = head.WriteAt([]byte("this is no database"), 0)
					require.NoError(t, errors.Join(err, head.Close()))
				}
				out := crash(t, path, what, 0, 0, "STORE_FROM_FILE="+copied, fmt.Sprintf("STORE_END=%d", at))
				if strings.Contains(out, "came to its end") {
					require.Greater(t, at, 2, out)
					t.Logf("ended at %d places", ends)
					return
				}
				ends++
				afterTheEnd(t, what, path, copied, out)
			}
		})
	}
}

func afterTheEnd(t *testing.T, what, path, copied, out string) {
	t.Helper()
	switch what {
	case "backup":
		if _, err := os.Lstat(path + ".copy"); err == nil {
			assert.Equal(t, 3, entriesOf(t, path+".copy"), out)
			return
		}
		_, err := Backup(path, path+".copy", whole) // the next one is not kept back by what was left
		require.NoError(t, err, out)
		assert.Equal(t, 3, entriesOf(t, path+".copy"))
	case "upgrade":
		for _, name := range namesIn(t, path) {
			if strings.Contains(name, ".version-1") && !strings.HasSuffix(name, ".part") {
				assert.Equal(t, 3, entriesOf(t, filepath.Join(filepath.Dir(path), name)), out)
			}
		}
	case "restore-anew":
		if s, err := Open(path); err == nil {
			s.Close()
			assert.Equal(t, 7, entriesOf(t, path), out)
			return
		}
		restoredAgain(t, path, copied, out)
	default:
		s, err := Open(path)
		switch {
		case err == nil:
			s.Close()
			assert.Contains(t, []int{7, 20}, entriesOf(t, path), out)
		case errors.Is(err, ErrHalf):
			assert.Contains(t, err.Error(), "metronix restore", out)
		default: // the damaged one as it was
			assert.Equal(t, "restore-damaged", what, "%s: %v", out, err)
		}
		restoredAgain(t, path, copied, out)
		if what == "restore" {
			kept := 0
			for _, name := range namesIn(t, path) {
				if strings.Contains(name, ".replaced-") &&
					entriesOf(t, filepath.Join(filepath.Dir(path), name)) == 20 {
					kept++
				}
			}
			assert.Positive(t, kept, "what was there is kept with its log: %s", out)
		}
	}
}

// restoredAgain does it once more, to its end.
func restoredAgain(t *testing.T, path, copied, out string) {
	t.Helper()
	_, err := Restore(path, copied, time.Now(), false, whole)
	require.NoError(t, err, out)
	assert.Equal(t, 7, entriesOf(t, path), out)
}

// crash does something with a data file in a process of its own, which is killed on the way or comes to its
// end, and gives what it printed.
func crash(t *testing.T, path, what string, from, to int, more ...string) string {
	t.Helper()
	self, err := os.Executable()
	require.NoError(t, err)
	cmd := exec.Command(self, "-test.run=^TestChildThatIsKilled$", "-test.v")
	cmd.Env = append(
		append(os.Environ(), "STORE_CHILD="+path, "STORE_DOES="+what, fmt.Sprintf("STORE_FROM=%d", from),
			fmt.Sprintf("STORE_TO=%d", to)),
		more...)
	out, err := cmd.CombinedOutput()
	if !strings.Contains(string(out), "came to its end") {
		require.Error(t, err, "it is killed: %s", out)
		require.Contains(t, string(out), "ready to be killed", string(out))
	}
	return string(out)
}

// TestChildThatIsKilled is the process that crash starts. It kills itself, as a power cut would.
func TestChildThatIsKilled(t *testing.T) {
	path := os.Getenv("STORE_CHILD")
	if path == "" {
		return
	}
	die := func(at string) {
		fmt.Println("ready to be killed", at)
		_ = syscall.Kill(os.Getpid(), syscall.SIGKILL)
		select {}
	}
	var from, to, end int
	_, _ = fmt.Sscan(os.Getenv("STORE_FROM"), &from)
	_, _ = fmt.Sscan(os.Getenv("STORE_TO"), &to)
	if _, err := fmt.Sscan(os.Getenv("STORE_END"), &end); err == nil {
		n := 0
		atName = func(change string) {
			if n++; n == end {
				die(change)
			}
		}
	}
	other := os.Getenv("STORE_FROM_FILE")
	var err error
	switch does := os.Getenv("STORE_DOES"); does {
	case "append":
		s, err := Open(path)
		require.NoError(t, err)
		l := listOf(t, s)
		for i := from; i < to; i++ {
			require.NoError(t, s.Append("j", l, happened(i), derived()))
		}
		die("after appending")
	case "backup":
		_, err = Backup(path, path+".copy", whole)
	case "upgrade":
		_, err = copyBefore(path, 1)
	case "restore-full":
		signal.Ignore(syscall.SIGXFSZ) // a write past the limit errs then, as one on a full disk does
		limit := syscall.Rlimit{Cur: 64 << 10, Max: 64 << 10}
		require.NoError(t, syscall.Setrlimit(syscall.RLIMIT_FSIZE, &limit))
		_, err = Restore(path, other, time.Now(), false, whole)
	default:
		_, err = Restore(path, other, time.Now(), false, whole)
	}
	fmt.Println("came to its end", err)
}

// Where a restore was cut off nothing is begun: what is to be done is said first, truly where there was
// nothing too.
func TestNothingIsFilledWhereARestoreWasCutOff(t *testing.T) {
	path := filepath.Join(t.TempDir(), "demo.db")
	require.NoError(t, os.WriteFile(restoringOf(path), []byte("half"), 0o600))
	calls := 0
	fill := func(*Store) error { calls++; return nil }
	err := Filled(path, fill)
	require.ErrorIs(t, err, ErrHalf)
	assert.Contains(t, err.Error(), "begin anew: there was nothing before it")
	assert.Zero(t, calls)
	assert.NoFileExists(t, path)
	require.NoError(t, os.Remove(restoringOf(path)))
	require.NoError(t, Filled(path, fill))
	require.NoError(t, Filled(path, fill))
	assert.Equal(t, 1, calls, "what is there is not filled again")
	require.NoError(t, os.WriteFile(restoringOf(path), []byte("half"), 0o600))
	assert.Contains(t, Filled(path, fill).Error(), "go on with what is there")
}
