package keeping

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"sync"
	"time"

	"metronix/internal/store"
)

// Plan is what backups are made of, where, and how often.
type Plan struct {
	Data     string
	Folder   string
	Workshop string // whose copies they are
	Every    time.Duration
	Check    store.Checking
	Clock    func() time.Time // nil: time.Now
}

// State is how backups stand.
type State struct {
	Folder  string
	Every   time.Duration
	Last    time.Time // the newest sound copy holds all up to then; the zero time: there is none
	Trouble string    // what went wrong at the last try, a sentence; empty: nothing
	Old     bool      // the newest is older than it should be by now
	Copies  int       // how many are kept, doubtful ones too
	Bytes   int64     // what they take
	Making  bool      // one is being made
}

// Keeper makes backups while a program serves.
type Keeper struct {
	plan  Plan
	asked chan struct{}

	mu      sync.Mutex
	began   time.Time
	last    time.Time
	failed  bool // the last try made no sound one
	trouble string
	making  bool
}

// again is after how long one that failed is tried again, at most.
const again = 10 * time.Minute

// New is a keeper by a plan.
func New(p Plan) *Keeper {
	if p.Clock == nil {
		p.Clock = time.Now
	}
	k := &Keeper{plan: p, began: p.Clock(), asked: make(chan struct{}, 1)}
	if owner(p.Folder) == p.Workshop {
		if newest, err := Newest(p.Folder); err == nil && !newest.At.After(k.began) {
			k.last = newest.At
		}
	}
	return k
}

// Run makes backups until the context ends: the first as soon as one is due.
func (k *Keeper) Run(ctx context.Context) {
	for {
		if wait := k.wait(); wait > 0 {
			select {
			case <-ctx.Done():
				return
			case <-time.After(wait):
			case <-k.asked:
			}
		}
		if ctx.Err() != nil {
			return
		}
		if err := k.Now(); err != nil {
			slog.Error("a backup failed", "error", err)
		}
	}
}

// Ask has one made as soon as can be, and does not wait for it.
func (k *Keeper) Ask() {
	select {
	case k.asked <- struct{}{}:
	default: // it was asked for already
	}
}

// wait is how long until the next one is due.
func (k *Keeper) wait() time.Duration {
	k.mu.Lock()
	defer k.mu.Unlock()
	if k.failed {
		return min(k.plan.Every, again)
	}
	return k.plan.Every - k.plan.Clock().Sub(k.last)
}

// Now makes one, and lets go of what is surplus beside it. What was found in it is an error; such a copy is
// kept, and nothing goes.
func (k *Keeper) Now() (err error) {
	k.mu.Lock()
	if k.making {
		k.mu.Unlock()
		return errors.New("a backup is being made already")
	}
	k.making = true
	k.mu.Unlock()
	made, found, err := Make(k.plan.Data, k.plan.Folder, k.plan.Workshop, k.plan.Clock().Truncate(time.Second), k.plan.Check)
	if err == nil && !made.Sound {
		err = fmt.Errorf("the data file is damaged: %s", found.Troubles[0].What)
	}
	trouble := ""
	if err != nil {
		trouble = fmt.Sprintf("The last try failed: %v.", err)
	}
	sound := err == nil
	if sound {
		if _, err = Rotate(k.plan.Folder, made); err != nil {
			trouble = fmt.Sprintf("Older ones could not be let go of: %v.", err)
		}
	}
	k.mu.Lock()
	defer k.mu.Unlock()
	if k.making, k.failed, k.trouble = false, !sound, trouble; sound {
		k.last = made.At
	}
	return err
}

// late is how many times the distance between two the newest may be old before it is called so: one may be
// under way, and one may have failed.
const late = 2

// State is how they stand now.
func (k *Keeper) State() State {
	k.mu.Lock()
	s := State{Folder: k.plan.Folder, Every: k.plan.Every, Last: k.last, Trouble: k.trouble, Making: k.making}
	since := k.last
	k.mu.Unlock()
	if since.IsZero() {
		since = k.began
	}
	s.Old = k.plan.Clock().Sub(since) > late*k.plan.Every+again
	list, err := List(k.plan.Folder)
	if err == nil {
		s.Copies = len(list)
		for _, c := range list {
			s.Bytes += c.Bytes
		}
	}
	return s
}
