package store

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"time"
)

// Why a copy is not made or not taken back.
var (
	ErrThere = errors.New("a file of this name is there already")
	ErrCopy  = errors.New("this is no sound copy of a data file of this program")
	ErrHalf  = errors.New("a restore of this data file was cut off")
)

// Checking is the full check of an open data file: see Inspect.
type Checking func(*Store) (Findings, error)

// Findings are what a full check found.
type Findings struct {
	Entries  int       // in the jobs' lists
	Troubles []Trouble // what is stored and is not as it was; empty: nothing
}

// Backup writes a copy of a data file, also while a program writes to it, and has the copy checked before it
// appears under its name. The copy holds whatever was acknowledged before it began. What the check finds in
// it is told, and the copy is there all the same: a damaged one may be all that is left. ErrThere: nothing is
// written over; ErrCopy: it is not even a database that can be read.
func Backup(path, to string, check Checking) (found Findings, err error) {
	if err := halfRestored(path); err != nil {
		return found, err
	}
	version, err := look(path)
	if err != nil {
		return found, err
	}
	if version == 0 {
		return found, fmt.Errorf("%s: %w: there is nothing in it", path, ErrCopy)
	}
	return found, Publish(to, func(f *os.File) error {
		if err := copyInto(path, f); err != nil {
			return err
		}
		found, err = inspect(f.Name(), check)
		return err
	})
}

// copyBefore copies a file of an earlier version beside it, before it is brought up to date.
func copyBefore(path string, version int) (to string, err error) {
	return free(fmt.Sprintf("%s.version-%d", path, version), func(name string) error {
		return Publish(name, func(f *os.File) error { return copyInto(path, f) })
	})
}

// restoringOf is what a copy is called while it is being put in a data file's place. While it lies there the
// file is not opened.
func restoringOf(path string) string { return path + ".restoring" }

// halfRestored says that a restore of a data file was cut off, and what is to be done; nil where none was.
func halfRestored(path string) error {
	if _, err := os.Lstat(restoringOf(path)); err != nil {
		return nil
	}
	if kept := gaveWay(path); kept != "" {
		return fmt.Errorf(
			"%s: %w. Run metronix restore again with the copy that is wanted, or with %s to go "+
				"back to what was there",
			path,
			ErrHalf,
			kept,
		)
	}
	goOn := "go on with what is there"
	if _, err := os.Lstat(path); err != nil {
		goOn = "begin anew: there was nothing before it"
	}
	return fmt.Errorf(
		"%s: %w before anything was changed. Run metronix restore again, or remove %s to %s",
		path,
		ErrHalf,
		restoringOf(path),
		goOn,
	)
}

// gaveWay is where a data file lies whole now, of which a restore that was cut off had taken the name or the
// log away already; empty: it had not.
func gaveWay(path string) string {
	live, gone := os.Lstat(path)
	_, noLog := os.Lstat(logOf(path))
	list, _ := filepath.Glob(path + ".replaced-*") // a pattern of ours is none that is malformed
	for _, name := range slices.Backward(list) {
		if isBeside(name) {
			continue
		}
		if gone != nil {
			return name
		}
		_, noLogThere := os.Lstat(logOf(name))
		if its, err := os.Lstat(name); err == nil && os.SameFile(its, live) && noLog != nil &&
			noLogThere == nil {
			return name
		}
	}
	return ""
}

// Restored is what a restore did.
type Restored struct {
	Findings
	Aside string // where what was there lies now; empty: there was nothing
}

// Restore puts a copy in a data file's place: through its log, if it has one, and checked in its new place
// before what was there gives way. That is kept aside with all that it holds, under a name that was free. A
// restore that is cut off leaves the old file or the new one, and ErrHalf for whoever opens it. anyway takes
// a copy in which the check finds trouble: without it, such a copy is refused with ErrCopy and the findings,
// unless all of it can be made anew. ErrInUse while a program has the file.
func Restore(path, from string, now time.Time, anyway bool, check Checking) (r Restored, err error) {
	if version, err := look(from); err != nil {
		return r, err
	} else if version == 0 {
		return r, fmt.Errorf("%s: %w: there is nothing in it", from, ErrCopy)
	}
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return r, fmt.Errorf("%s: %w: %w", path, ErrUnwritable, err)
	}
	_, absent := os.Lstat(path)
	var taken *held
	if absent == nil {
		if taken, err = hold(path); err != nil {
			return r, err
		}
		defer taken.letGo()
	}
	cutOff := halfRestored(path) != nil
	fresh, err := own(restoringOf(path))
	if err != nil {
		return r, err
	}
	defer fresh.Close()
	giveUp := func(err error) (Restored, error) {
		if !cutOff { // what is there is whole
			err = errors.Join(err, remove(fresh.Name()))
		}
		return r, err
	}
	if err := copyInto(from, fresh); err != nil {
		return giveUp(err)
	}
	if r.Findings, err = inspect(fresh.Name(), check); err != nil {
		return giveUp(err)
	}
	lost := slices.ContainsFunc(
		r.Troubles,
		func(t Trouble) bool { return !t.Beside },
	) // the rest is made anew
	if lost && !anyway {
		return giveUp(fmt.Errorf("%s: %w", from, ErrCopy))
	}
	if err := fresh.Sync(); err != nil {
		return giveUp(fmt.Errorf("%s: %w: %w", fresh.Name(), ErrFull, err))
	}
	if !openFilesAreNamed {
		_ = fresh.Close() // it is on disk
		if taken != nil {
			taken.letGo()
		}
	}
	if r.Aside, err = keptAside(path, absent == nil, now); err != nil {
		return r, err
	}
	return r, rename(fresh.Name(), path, true)
}

// keptAside gives a data file, and a log that cannot be folded into it, a name under which it stays. From
// here on until the copy has the file's name, the copy's own name says that a restore is under way.
func keptAside(path string, there bool, now time.Time) (aside string, err error) {
	log := logOf(path)
	if there {
		foldAll(path) // a file too damaged for that keeps its log, which goes aside with it
	}
	_, noLog := os.Lstat(log)
	if !there && noLog != nil {
		return "", nil
	}
	return free(path+".replaced-"+now.Format("20060102-150405"), func(name string) error {
		if there {
			if err := link(path, name); err != nil {
				return err
			}
		} else if _, err := os.Lstat(name); err == nil {
			return ErrThere
		}
		if noLog == nil { // an old log is never replayed over another file
			if err := rename(log, logOf(name), false); err != nil {
				return err
			}
		}
		return remove(sharedOf(path))
	})
}
