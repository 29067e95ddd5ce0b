//go:build !windows

package store

import (
	"errors"
	"os"
	"path/filepath"
	"syscall"
)

// errHeld says that another program holds a file.
var errHeld = errors.New("held by another program")

// An open file's name may be changed, and a file's time is exact as soon as it was written to.
const (
	openFilesAreNamed = true
	timesAreExact     = true
)

// takeFile locks a whole file (flock), shared or alone, as long as it is open; errHeld where another program
// has it. It is an advisory lock, so that a backup or another reader may read the file.
func takeFile(f *os.File, alone bool) error {
	how := syscall.LOCK_SH
	if alone {
		how = syscall.LOCK_EX
	}
	err := syscall.Flock(int(f.Fd()), how|syscall.LOCK_NB)
	if errors.Is(err, syscall.EWOULDBLOCK) {
		return errHeld
	}
	return err
}

// syncFolder makes the names in a file's folder lasting.
func syncFolder(path string) error {
	d, err := os.Open(filepath.Dir(path))
	if err != nil {
		return err
	}
	defer d.Close()
	return d.Sync()
}

// noRoom says that a write failed for want of room: on the disk, in a quota, or in how large a file may be.
func noRoom(e syscall.Errno) bool {
	return e == syscall.ENOSPC || e == syscall.EDQUOT || e == syscall.EFBIG
}
