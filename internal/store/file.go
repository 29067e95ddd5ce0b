package store

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"sync"
	"sync/atomic"
)

// held is the data file as a file: no second program writes to it, and that it is removed or replaced is
// noticed. The lock is an advisory one of the whole file (flock), so that a backup or
// another reader may still read it.
type held struct {
	path string
	file *os.File
	log  os.FileInfo // of the write-ahead log; nil: not looked at yet

	mu      sync.RWMutex // held while this program itself changes the file
	left    os.FileInfo  // the file as this program left it, when it wrote to it itself last; nil: not looked at yet
	looking sync.Mutex
	grown   int64 // how long the log was when it was looked at last: it never gets shorter

	writes atomic.Int64          // since the program started
	found  atomic.Pointer[error] // that its pages are damaged; nil: nothing of that kind
}

// damage notes that the file's pages are damaged: from here on nothing is written to it.
func (h *held) damage(err error) { h.found.Store(&err) }

// hold makes the file where it is absent, for its owner alone, and takes it. A folder that is absent is made
// for its owner alone; one that is there is left as it is.
func hold(path string) (*held, error) {
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return nil, fmt.Errorf("%s: %w: %w", path, ErrUnwritable, err)
	}
	f, err := os.OpenFile(path, os.O_RDWR|os.O_CREATE, 0o600)
	if err != nil {
		return nil, fmt.Errorf("%s: %w: %w", path, ErrUnwritable, err)
	}
	h := &held{path: path, file: f}
	if info, err := f.Stat(); err != nil || !info.Mode().IsRegular() {
		h.letGo()
		return nil, fmt.Errorf("%s: %w: it is no ordinary file", path, ErrUnwritable)
	}
	if err := takeFile(f, true); err != nil {
		h.letGo()
		if errors.Is(err, errHeld) {
			return nil, fmt.Errorf("%s: %w", path, ErrInUse)
		}
		return nil, fmt.Errorf("%s: %w: %w", path, ErrUnwritable, err)
	}
	for _, beside := range []string{path, logOf(path), sharedOf(path)} {
		// of an earlier version: readable by all; where that cannot be changed it is somebody else's file
		_ = os.Chmod(beside, 0o600)
	}
	return h, nil
}

// remember notes the log as it is now, to know it again.
func (h *held) remember() error {
	info, err := os.Stat(logOf(h.path))
	if err != nil {
		return fmt.Errorf("%s: %w: its log is not there: %w", h.path, ErrUnwritable, err)
	}
	there, err := os.Stat(h.path)
	if err != nil {
		return fmt.Errorf("%s: %w: %w", h.path, ErrGone, err)
	}
	h.log, h.left = info, there
	h.grown = 0
	return nil
}

// fold has the log folded into the file, and knows the file again afterwards.
func (h *held) fold(checkpoint func()) error {
	h.mu.Lock()
	defer h.mu.Unlock()
	if err := h.untouched(); err != nil {
		return err
	}
	checkpoint()
	there, err := os.Stat(h.path)
	if err != nil {
		return fmt.Errorf("%s: %w: %w", h.path, ErrGone, err)
	}
	h.left = there
	return nil
}

// still says whether file and log are where they were and as they were: what is written to a file that was
// removed or replaced goes nowhere, and what was copied over or cut while the program ran is not what it
// wrote. It costs two looks at the folder, microseconds.
func (h *held) still() error {
	h.mu.RLock()
	defer h.mu.RUnlock()
	return h.untouched()
}

// untouched is still, with the lock held.
func (h *held) untouched() error {
	if found := h.found.Load(); found != nil {
		return *found
	}
	mine, err := h.file.Stat()
	if err != nil {
		return fmt.Errorf("%s: %w: %w", h.path, ErrGone, err)
	}
	there, err := os.Stat(h.path)
	if err != nil || !os.SameFile(mine, there) {
		return fmt.Errorf("%s: %w", h.path, ErrGone)
	}
	// nothing writes to the file itself but fold: a copy over it, or a cut, shows in its size or its time
	if h.left != nil && (there.Size() != h.left.Size() || timesAreExact && !there.ModTime().Equal(h.left.ModTime())) {
		return fmt.Errorf("%s: %w: somebody wrote to it", h.path, ErrGone)
	}
	if h.log == nil {
		return nil
	}
	h.looking.Lock() // so that no older look is compared with a newer one
	defer h.looking.Unlock()
	log, err := os.Stat(logOf(h.path))
	if err != nil || !os.SameFile(h.log, log) {
		return fmt.Errorf("%s: %w", logOf(h.path), ErrGone)
	}
	if log.Size() < h.grown {
		return fmt.Errorf("%s: %w: it was cut", logOf(h.path), ErrGone)
	}
	h.grown = log.Size()
	return nil
}

// letGo gives the lock back; closing the file does it.
func (h *held) letGo() { _ = h.file.Close() }

// Still says whether the data file is where it was; ErrGone where it is not.
func (s *Store) Still() error { return s.file.still() }
