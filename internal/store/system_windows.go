package store

import (
	"errors"
	"os"
	"syscall"

	"golang.org/x/sys/windows"
)

// errHeld says that another program holds a file.
var errHeld = errors.New("held by another program")

// An open file's name may not be changed, and a file's time follows some seconds after it was written to.
const (
	openFilesAreNamed = false
	timesAreExact     = false
)

// behind is where in a file the lock lies, one byte far behind all that is ever written: here a lock keeps
// others from what it lies on.
const behind = 1 << 30

// takeFile locks a file, shared or alone, as long as it is open; errHeld where another program has it.
func takeFile(f *os.File, alone bool) error {
	flags := uint32(windows.LOCKFILE_FAIL_IMMEDIATELY)
	if alone {
		flags |= windows.LOCKFILE_EXCLUSIVE_LOCK
	}
	err := windows.LockFileEx(windows.Handle(f.Fd()), flags, 0, 1, 0, &windows.Overlapped{OffsetHigh: behind})
	if errors.Is(err, windows.ERROR_LOCK_VIOLATION) || errors.Is(err, windows.ERROR_IO_PENDING) {
		return errHeld
	}
	return err
}

// syncFolder does nothing: the file system keeps a journal of its names.
func syncFolder(string) error { return nil }

// noRoom says that a write failed for want of room.
func noRoom(e syscall.Errno) bool {
	return e == windows.ERROR_DISK_FULL || e == windows.ERROR_HANDLE_DISK_FULL || e == windows.ERROR_DISK_QUOTA_EXCEEDED
}
