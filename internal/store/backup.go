package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"time"
)

// Why a copy is not made or not taken back.
var (
	ErrThere = errors.New("a file of this name is there already")
	ErrCopy  = errors.New("this is no sound copy of a data file of this program")
)

// Backup writes a copy of a data file, also while a program writes to it, and checks the copy. The copy holds
// whatever was acknowledged before it began. It gives how many happenings the copy holds. ErrThere: nothing
// is written over.
func Backup(path, to string) (happenings int, err error) {
	version, err := look(path)
	if err != nil {
		return 0, err
	}
	if version == 0 {
		return 0, fmt.Errorf("%s: %w: there is nothing in it", path, ErrCopy)
	}
	if err := copyInto(path, to); err != nil {
		return 0, err
	}
	if happenings, err = sound(to); err != nil {
		return 0, errors.Join(err, os.Remove(to))
	}
	return happenings, nil
}

// copyBefore copies a file of an earlier version beside it, before it is brought up to date.
func copyBefore(path string, version int) (to string, err error) {
	for n := 0; ; n++ {
		to = fmt.Sprintf("%s.version-%d", path, version)
		if n > 0 {
			to = fmt.Sprintf("%s.version-%d-%d", path, version, n+1)
		}
		if err = copyInto(path, to); !errors.Is(err, ErrThere) {
			return to, err
		}
	}
}

// copyInto writes a copy that is whole and on disk, or none.
func copyInto(path, to string) error {
	made, err := os.OpenFile(to, os.O_CREATE|os.O_EXCL|os.O_RDWR, 0o600)
	if err != nil {
		if errors.Is(err, os.ErrExist) {
			return fmt.Errorf("%s: %w", to, ErrThere)
		}
		return fmt.Errorf("%s: %w: %w", to, ErrUnwritable, err)
	}
	defer made.Close()
	db, err := sql.Open("sqlite3", lookDSN(path))
	if err != nil {
		return errors.Join(explain(path, err), os.Remove(to))
	}
	defer db.Close()
	if _, err := db.ExecContext(context.Background(), "VACUUM INTO ?", to); err != nil {
		return errors.Join(explain(path, ofSQLite(err)), os.Remove(to))
	}
	return errors.Join(made.Sync(), syncFolder(to))
}

// syncFolder makes a new name in a folder lasting.
func syncFolder(path string) error {
	d, err := os.Open(filepath.Dir(path))
	if err != nil {
		return err
	}
	defer d.Close()
	return d.Sync()
}

// sound checks a copy from end to end, for reading alone, and counts its happenings.
func sound(path string) (happenings int, err error) {
	version, err := look(path)
	if err != nil {
		return 0, err
	}
	if version == 0 {
		return 0, fmt.Errorf("%s: %w: there is nothing in it", path, ErrCopy)
	}
	db, err := sql.Open("sqlite3", lookDSN(path))
	if err != nil {
		return 0, explain(path, err)
	}
	defer db.Close()
	var answer string
	if err := db.QueryRow("PRAGMA integrity_check(1)").Scan(&answer); err != nil || answer != "ok" {
		return 0, fmt.Errorf("%s: %w: %s", path, ErrCopy, answer)
	}
	if err := db.QueryRow("SELECT count(*) FROM happenings").Scan(&happenings); err != nil {
		return 0, explain(path, err)
	}
	return happenings, nil
}

// Restore puts a copy in a data file's place. What was there is kept aside, its log with it, so that no old
// log is ever replayed over the copy; aside is where it lies, empty where there was nothing. ErrInUse while a
// program has the file.
func Restore(path, from string, now time.Time) (happenings int, aside string, err error) {
	if happenings, err = sound(from); err != nil {
		return 0, "", err
	}
	fresh := path + ".restoring"
	_ = os.Remove(fresh) // of a try that was cut off
	if _, err := os.Stat(path); err == nil {
		h, err := hold(path)
		if err != nil {
			return 0, "", err
		}
		defer h.letGo()
		aside = fmt.Sprintf("%s.replaced-%s", path, now.Format("20060102-150405"))
	} else if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return 0, "", fmt.Errorf("%s: %w: %w", path, ErrUnwritable, err)
	}
	if err := copyFile(from, fresh); err != nil {
		return 0, "", err
	}
	if aside != "" {
		// the log first: a cut between leaves the file with its log, or without one to replay
		for _, part := range []string{"-wal", "-shm", ""} {
			if err := os.Rename(path+part, aside+part); err != nil && !errors.Is(err, os.ErrNotExist) {
				return 0, "", fmt.Errorf("%s: %w: %w", path, ErrUnwritable, err)
			}
		}
	} else {
		for _, part := range []string{"-wal", "-shm"} { // the log of a file that is gone
			if err := os.Rename(path+part, path+".orphan"+part); err != nil &&
				!errors.Is(err, os.ErrNotExist) {
				return 0, "", fmt.Errorf("%s: %w: %w", path, ErrUnwritable, err)
			}
		}
	}
	if err := os.Rename(fresh, path); err != nil {
		return 0, "", fmt.Errorf("%s: %w: %w", path, ErrUnwritable, err)
	}
	return happenings, aside, syncFolder(path)
}

// copyFile copies a file's bytes onto the disk. The copy has no log: a backup is written without one.
func copyFile(from, to string) error {
	in, err := os.Open(from)
	if err != nil {
		return fmt.Errorf("%s: %w", from, err)
	}
	defer in.Close()
	out, err := os.OpenFile(to, os.O_CREATE|os.O_EXCL|os.O_WRONLY, 0o600)
	if err != nil {
		return fmt.Errorf("%s: %w: %w", to, ErrUnwritable, err)
	}
	defer out.Close()
	if _, err := io.Copy(out, in); err != nil {
		return fmt.Errorf("%s: %w: %w", to, ErrFull, err)
	}
	return out.Sync()
}
