package store

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"sync/atomic"
	"time"

	"gorm.io/gorm"
)

// group writes what comes at the same time in one transaction, so that all of it waits for one sync of the
// disk: while one is under way the next ones gather. Each is told its own outcome, and none before the disk
// has it. What cannot be written hinders no other.
type group struct {
	db      *gorm.DB
	mu      sync.Mutex
	gathers []*grouped
	writes  bool
	syncs   atomic.Int64 // how often the disk was waited for
}

// grouped is one that waits for its turn.
type grouped struct {
	do   func(*gorm.DB) error
	done chan error
}

// Bounds of a group: how many are written together, and how long they may take, which is less than a request
// may.
const (
	mostTogether = 64
	groupTime    = 8 * time.Second
)

// errApart says that one of a group failed in a way that may have undone the others.
var errApart = errors.New("to be written one by one")

// write has something written, and comes back when it is on disk or known not to be.
func (g *group) write(do func(*gorm.DB) error) error {
	mine := &grouped{do, make(chan error, 1)}
	g.mu.Lock()
	g.gathers = append(g.gathers, mine)
	if !g.writes {
		g.writes = true
		go g.run()
	}
	g.mu.Unlock()
	return <-mine.done
}

// run writes until nothing waits.
func (g *group) run() {
	for {
		g.mu.Lock()
		n := min(len(g.gathers), mostTogether)
		list := g.gathers[:n:n]
		g.gathers = g.gathers[n:]
		g.writes = n > 0
		g.mu.Unlock()
		if n == 0 {
			return
		}
		g.commit(list)
	}
}

// commit writes some, all in one transaction.
func (g *group) commit(list []*grouped) {
	if len(list) == 1 {
		list[0].done <- g.once(list[0].do)
		return
	}
	outcomes := make([]error, len(list))
	err := g.once(func(tx *gorm.DB) error {
		for i, one := range list {
			outcomes[i] = tx.Transaction(one.do) // a savepoint: what it refuses undoes nothing else
			if err := translate(outcomes[i]); err != nil && !errors.Is(err, ErrExists) &&
				!errors.Is(err, ErrMissing) {
				return errApart
			}
		}
		return nil
	})
	for i, one := range list {
		switch {
		case errors.Is(err, errApart):
			one.done <- g.once(one.do)
		case err != nil:
			one.done <- err
		default:
			one.done <- outcomes[i]
		}
	}
}

// once writes in a transaction of its own. What fails in our code fails this alone.
func (g *group) once(do func(*gorm.DB) error) (err error) {
	defer func() {
		if fault := recover(); fault != nil {
			err = fmt.Errorf("writing failed: %v", fault)
		}
	}()
	g.syncs.Add(1)
	ctx, cancel := context.WithTimeout(context.Background(), groupTime)
	defer cancel()
	return g.db.WithContext(ctx).Transaction(do)
}
