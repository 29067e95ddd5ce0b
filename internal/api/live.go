package api

import (
	"slices"
	"sync"
)

// change is that something is otherwise than before: a job, by its newest happening where one was added.
type change struct {
	job    string // empty: of more than one job
	newest string // empty: no happening was added
	here   string // a screen came, went or took another valve in hand, and nothing else; empty: something else
}

// lately is how many changes are remembered: a screen that was away for longer gets everything anew.
const lately = 4096

// news tells every screen that watches what has changed. It keeps nothing for any of them but the latest
// changes, the same for all, so that one that does not read holds nobody and costs nothing.
type news struct {
	mu    sync.Mutex
	list  []change      // the latest, the oldest first
	begun int           // how many there were before those
	more  chan struct{} // closed with the next change
}

func newNews() *news { return &news{more: make(chan struct{})} }

// tell says that something has changed.
func (n *news) tell(c change) {
	n.mu.Lock()
	defer n.mu.Unlock()
	if len(n.list) >= 2*lately {
		n.begun += lately
		n.list = slices.Clone(n.list[lately:])
	}
	n.list = append(n.list, c)
	close(n.more)
	n.more = make(chan struct{})
}

// now is how many changes there were.
func (n *news) now() int {
	n.mu.Lock()
	defer n.mu.Unlock()
	return n.begun + len(n.list)
}

// after gives the changes since there were so many, and how many there are now; ok is false where some of
// them are remembered no more. More is closed with the next one.
func (n *news) after(at int) (list []change, now int, more <-chan struct{}, ok bool) {
	n.mu.Lock()
	defer n.mu.Unlock()
	now = n.begun + len(n.list)
	if at < n.begun {
		return nil, now, n.more, false
	}
	return slices.Clone(n.list[at-n.begun:]), now, n.more, true
}

// placeOf is how many changes there were when a happening was told; ok is false where it is remembered no
// more, or was never told.
func (n *news) placeOf(newest string) (at int, ok bool) {
	n.mu.Lock()
	defer n.mu.Unlock()
	for i := len(n.list) - 1; i >= 0 && newest != ""; i-- {
		if n.list[i].newest == newest {
			return n.begun + i + 1, true
		}
	}
	return 0, false
}

// newest is the newest happening that was told; empty: none.
func (n *news) newest() string {
	n.mu.Lock()
	defer n.mu.Unlock()
	for _, c := range slices.Backward(n.list) {
		if c.newest != "" {
			return c.newest
		}
	}
	return ""
}
