package store

import (
	"errors"
	"fmt"
	"os"
	"syscall"
)

// This file is the one place through which names in a folder are changed: a file appears under its name only
// when it is whole and on disk, and nothing is ever written over that was not meant to be. A program that
// ends between two changes leaves either the old or the new, never a part of one.

// atName is told before and after each change of a name; tests end the program there.
var atName = func(string) {}

// partOf is the name that a file has while it is being written.
func partOf(path string) string { return path + ".part" }

// begin makes or empties the file that will be called path when it is whole, and holds it: a part that a
// program left when it ended is begun anew, one that another program is writing is ErrInUse. ErrThere where
// path is taken.
func begin(path string) (*os.File, error) {
	if _, err := os.Lstat(path); err == nil {
		return nil, fmt.Errorf("%s: %w", path, ErrThere)
	}
	return own(partOf(path))
}

// own makes or empties a file of this program's own and holds it; ErrInUse where another one holds it.
func own(path string) (*os.File, error) {
	f, err := os.OpenFile(path, os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return nil, fmt.Errorf("%s: %w: %w", path, ErrUnwritable, err)
	}
	if err := takeFile(f, true); err != nil {
		return nil, errors.Join(fmt.Errorf("%s: %w", path, ErrInUse), f.Close())
	}
	if err := f.Truncate(0); err != nil {
		return nil, errors.Join(fmt.Errorf("%s: %w: %w", path, ErrUnwritable, err), f.Close())
	}
	return f, nil
}

// finish puts what begin began on disk and gives it its name, if that is still free: ErrThere where it is
// not.
func finish(f *os.File, path string) error {
	defer f.Close()
	if err := f.Sync(); err != nil {
		return fmt.Errorf("%s: %w: %w", f.Name(), ErrFull, err)
	}
	if !openFilesAreNamed {
		_ = f.Close() // it is on disk
	}
	return rename(f.Name(), path, false)
}

// giveUp takes away what begin began.
func giveUp(f *os.File) error {
	return errors.Join(f.Close(), os.Remove(f.Name()))
}

// rename changes a file's name and makes that lasting. Where nothing may be written over it is ErrThere if
// the new name is taken: the new name is given first and the old one taken away then, so that the file has
// one of them at any time.
func rename(from, to string, over bool) error {
	if over {
		if err := atFolder("rename "+to, func() error { return os.Rename(from, to) }); err != nil {
			return fmt.Errorf("%s: %w: %w", to, ErrUnwritable, err)
		}
		return syncFolder(to)
	}
	if err := link(from, to); err != nil {
		return err
	}
	return remove(from)
}

// link gives a file a second name; ErrThere if it is taken. On a file system without second names the file
// loses its first one.
func link(from, to string) error {
	err := atFolder("link "+to, func() error { return os.Link(from, to) })
	if errors.Is(err, errors.ErrUnsupported) || errors.Is(err, syscall.EPERM) {
		if _, there := os.Lstat(to); there == nil {
			err = os.ErrExist
		} else {
			err = atFolder("rename "+to, func() error { return os.Rename(from, to) })
		}
	}
	switch {
	case errors.Is(err, os.ErrExist):
		return fmt.Errorf("%s: %w", to, ErrThere)
	case err != nil:
		return fmt.Errorf("%s: %w: %w", to, ErrUnwritable, err)
	}
	return syncFolder(to)
}

// remove takes a name away, if it is there.
func remove(path string) error {
	err := atFolder("remove "+path, func() error { return os.Remove(path) })
	if err != nil && !errors.Is(err, os.ErrNotExist) {
		return fmt.Errorf("%s: %w: %w", path, ErrUnwritable, err)
	}
	return syncFolder(path)
}

// atFolder marks a change of names in a folder before and after, so that a test can end the program at
// either.
func atFolder(what string, change func() error) error {
	atName("before " + what)
	err := change()
	atName("after " + what)
	return err
}

// free is the first name that is not taken of one that is wanted: wanted, wanted-2, wanted-3 and so on. take
// is tried on each until it does not say ErrThere.
func free(wanted string, take func(name string) error) (name string, err error) {
	for n := 1; ; n++ {
		name = wanted
		if n > 1 {
			name = fmt.Sprintf("%s-%d", wanted, n)
		}
		if err = take(name); !errors.Is(err, ErrThere) {
			return name, err
		}
	}
}

// Filled makes a data file with something in it from the beginning, where there is none yet. It is filled
// under another name first, so that a program killed meanwhile leaves no half of it. ErrHalf where a restore
// of it was cut off.
func Filled(path string, fill func(*Store) error) error {
	if err := halfRestored(path); err != nil {
		return err
	}
	if info, err := os.Stat(path); err == nil && info.Size() > 0 {
		return nil
	}
	loading := path + ".loading"
	for _, part := range []string{loading, logOf(loading), sharedOf(loading)} { // of one that was killed
		if err := os.Remove(part); err != nil && !errors.Is(err, os.ErrNotExist) {
			return err
		}
	}
	st, err := Open(loading)
	if err != nil {
		return err
	}
	err = fill(st)
	st.Close()
	if err != nil {
		return err
	}
	return rename(loading, path, true)
}

// Publish writes a file that appears under its name only when it is whole and on disk. ErrThere where the
// name is taken: nothing is written over.
func Publish(path string, write func(*os.File) error) error {
	f, err := begin(path)
	if err != nil {
		return err
	}
	if err := write(f); err != nil {
		return errors.Join(err, giveUp(f))
	}
	return finish(f, path)
}
