package api

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"log/slog"
	"reflect"
	"strconv"
	"strings"
	"sync"
	"time"

	lru "github.com/hashicorp/golang-lru/v2"

	"metronix/core/adjust"
	"metronix/core/job"
	"metronix/internal/seen"
	"metronix/internal/store"
)

// desk keeps the jobs at hand computed, so that a reading costs one insert and no replay. What it holds is
// always what the stored list says: an entry is dropped whenever storing fails, and read again. A job that
// somebody is at is held as long as that; of the others, those used last.
type desk struct {
	store *store.Store
	news  *news
	here  *presences
	mu    sync.Mutex
	inUse map[string]*openJob
	idle  *lru.Cache[string, *openJob]

	shifts map[hands]adjust.Shift // as far as they were asked for, and no pair came since
	pairs  int                    // counts up whenever pairs come or go
}

// hands is one mechanic at one kind of adjuster.
type hands struct{ mechanic, adjuster string }

// openJob is one job at hand; its lock is held while it is read or changed.
type openJob struct {
	mu     sync.Mutex
	record store.Job
	list   *store.List
	places map[string]int // of each happening's id in the list
	state  *job.Job       // nil: to be read again

	users int // under the desk's lock: how many are at it now
}

// newest is the id of the newest happening; empty: there is none.
func (o *openJob) newest() string {
	if n := len(o.list.Happenings); n > 0 {
		return o.list.Happenings[n-1].ID
	}
	return ""
}

// seenAt is what the job is looked at with.
func (o *openJob) seenAt(shift adjust.Shift, now time.Time) seen.At {
	return seen.At{ID: o.record.ID, Job: o.state, List: o.list.Happenings, Shift: shift, Now: now}
}

// seenOn is what it is looked at with on a screen, beside which others may be at it.
func (d *desk) seenOn(screen string, o *openJob, shift adjust.Shift, now time.Time) seen.At {
	at := o.seenAt(shift, now)
	at.Screen, at.Others = screen, d.here.beside(o.record.ID, screen)
	return at
}

// roomy is how many jobs that nobody is at are kept at hand.
const roomy = 200

// errReused: this id was used for another happening. errUnreadable: the job does not load, and its wrapped
// text says why.
var (
	errReused     = errors.New("this id was used for another happening")
	errUnreadable = errors.New("this job cannot be opened")
)

// newDesk is a desk with no job on it.
func newDesk(st *store.Store) *desk {
	idle, err := lru.New[string, *openJob](roomy)
	if err != nil {
		panic(err) // roomy is above 0
	}
	told := newNews()
	return &desk{store: st, news: told, here: newPresences(told.tell), inUse: map[string]*openJob{}, idle: idle,
		shifts: map[hands]adjust.Shift{}}
}

// with runs f on the job with its lock held, read from the store first where needed.
func (d *desk) with(ctx context.Context, id string, f func(*openJob) error) error {
	o := d.take(id)
	defer d.leave(id, o)
	o.mu.Lock()
	defer o.mu.Unlock()
	if err := ctx.Err(); err != nil {
		return err // it waited too long for its turn
	}
	if o.state == nil {
		if err := d.load(ctx, id, o); err != nil {
			return err
		}
	}
	o.state.Speaks = speaksTo(ctx)
	if _, err := d.supply(ctx, o); err != nil {
		return err
	}
	return f(o)
}

// take gets a job's entry and counts its user.
func (d *desk) take(id string) *openJob {
	d.mu.Lock()
	defer d.mu.Unlock()
	o, ok := d.inUse[id]
	if !ok {
		if o, ok = d.idle.Peek(id); !ok {
			o = &openJob{}
		}
		d.idle.Remove(id)
		d.inUse[id] = o
	}
	o.users++
	return o
}

// leave counts a user out. An entry that did not load is not kept.
func (d *desk) leave(id string, o *openJob) {
	d.mu.Lock()
	defer d.mu.Unlock()
	if o.users--; o.users > 0 {
		return
	}
	delete(d.inUse, id)
	if o.state != nil {
		d.idle.Add(id, o)
	}
}

// load reads a job and plays it through. It is marked as damaged where its list does not read or does not
// play, with the place, and every other job goes on.
func (d *desk) load(ctx context.Context, id string, o *openJob) error {
	st := d.store.With(ctx)
	record, err := st.Job(id)
	if err != nil {
		return d.unreadable(ctx, id, err)
	}
	list, err := st.Happenings(id)
	if err != nil {
		return d.unreadable(ctx, id, err)
	}
	state, err := played(&record, list.Happenings, job.Replay)
	if err != nil {
		return d.unreadable(ctx, id, err)
	}
	state.Speaks = speaksTo(ctx)
	o.record, o.list, o.state, o.places = record, list, state, map[string]int{}
	for i, h := range list.Happenings {
		o.places[h.ID] = i
	}
	return nil
}

// unreadable notes on the board that a job cannot be opened, and why; what is merely absent or slow is no
// damage.
func (d *desk) unreadable(ctx context.Context, id string, err error) error {
	for _, passing := range []error{store.ErrNotFound, store.ErrBusy, store.ErrGone, context.Canceled,
		context.DeadlineExceeded} {
		if errors.Is(err, passing) {
			return err
		}
	}
	slog.Error("a job cannot be opened", "job", id, "error", err)
	if err := d.store.With(ctx).PutDamaged(id, err.Error(), time.Now()); err != nil {
		slog.Error("that could not be noted on the board", "job", id, "error", err)
	}
	return fmt.Errorf("%w: %w", errUnreadable, err)
}

// newCam is what a reason says where the work follows on a cam that was changed.
const newCam = "new cam"

// startOf is what a stored job starts from, for the rules.
func startOf(r store.Job) job.Start {
	return job.Start{
		Sheet:   r.Sheet,
		Card:    r.Card,
		HotCard: r.HotCard,
		Aim:     r.Aim,
		Rule:    r.Rule,
		Owned:   r.Leaves,
		Feel:    r.Feel,
		NewCam:  strings.Contains(strings.ToLower(r.Reason), newCam),
	}
}

// patience is how often a happening is tried again because another one took its place in the list.
const patience = 5

// happen takes one happening: checked by the core, stored, and only then part of the job. The same happening
// sent again changes nothing and is no error. Where the store finds its place taken the list is read again,
// and it is tried once more.
func (d *desk) happen(ctx context.Context, o *openJob, h job.Happening) error {
	for range patience {
		err := d.try(ctx, o, h)
		if !errors.Is(err, store.ErrPlaceTaken) {
			return err
		}
		if err := d.load(ctx, o.record.ID, o); err != nil {
			o.state = nil
			return err
		}
	}
	return store.ErrBusy
}

// try takes one more happening: by the rules first, then onto the disk with all that follows from it in one
// transaction, and only then is it so. Where the disk refuses, what was reckoned is thrown away and read
// anew. The same happening sent again is known by its id and taken once.
func (d *desk) try(ctx context.Context, o *openJob, h job.Happening) error {
	h = o.sealed(h)
	if known, err := o.holds(h); known || err != nil {
		return err
	}
	pairs := len(o.state.LockPairs)
	state, err := o.state.Take(h)
	if err != nil {
		return err // nothing was changed
	}
	o.state = state
	if err := d.store.With(ctx).Append(o.record.ID, o.list, h, derivedOf(o.record, state, h.At)); err != nil {
		o.state = nil // it holds what is not stored
		return err
	}
	o.places[h.ID] = len(o.list.Happenings) - 1
	d.news.tell(change{job: o.record.ID, newest: h.ID})
	if len(state.LockPairs) != pairs {
		d.forget()
	}
	return nil
}

// sealed writes into a signature what its sheet shows of what lies outside the list; into one that is stored
// already, what was written then.
func (o *openJob) sealed(h job.Happening) job.Happening {
	a, ok := h.Act.(job.Signed)
	if !ok {
		return h
	}
	a.Seal = job.Seal{Vehicle: o.record.Vehicle.Name, Plate: o.record.Vehicle.Plate, Facts: factsOf(o.record)}
	if place, known := o.places[h.ID]; known {
		if was, ok := o.list.Happenings[place].Act.(job.Signed); ok {
			a.Seal = was.Seal
		}
	}
	h.Act = a
	return h
}

// factsOf is a checksum of what a job was started from and its list does not say.
func factsOf(r store.Job) string {
	parts := []string{"facts", strconv.Itoa(r.Meter), r.OdometerWhy, r.Reason, r.CardReason, r.AimReason,
		r.GaugeName}
	if r.LeavesAre != "" { // where it is not said the sum is what it was before it could be
		parts = append(parts, r.LeavesAre)
	}
	return store.Sum(parts...)
}

// asSigned shows a signed job's vehicle as it was called then; it errs where what the job was started from is
// not what was signed.
func asSigned(r *store.Job, j *job.Job) error {
	if j.SignedBy == "" || j.Seal == (job.Seal{}) {
		return nil
	}
	if j.Seal.Facts != factsOf(*r) {
		return fmt.Errorf("%w: what job %s was started from is not what was signed", store.ErrDamaged, r.ID)
	}
	r.Vehicle.Name, r.Vehicle.Plate = j.Seal.Vehicle, j.Seal.Plate
	return nil
}

// holds says whether a happening of this id is in the list; errReused where it was another one.
func (o *openJob) holds(h job.Happening) (bool, error) {
	place, known := o.places[h.ID]
	if !known {
		return false, nil
	}
	before := o.list.Happenings[place]
	before.At, before.DoneAt, before.Rules, before.Since = h.At, h.DoneAt, h.Rules, h.Since
	before.Author, before.Screen, before.SentBy = h.Author, h.Screen, h.SentBy
	if !reflect.DeepEqual(before, h) {
		return true, errReused
	}
	return true, nil
}

// hand is who is at a job: whoever it was handed over to last, else who began it. Names are told apart
// without regard to capitals.
func hand(r store.Job, j *job.Job) string { return strings.ToLower(cmp.Or(j.Hand(), r.Mechanic)) }

// learned pools what locking did in all jobs in the hands of who is at this one, on its kind of adjuster; the
// zero shift where there is no nut to lock.
func (d *desk) learned(ctx context.Context, o *openJob) (adjust.Shift, error) {
	sheet := o.record.Sheet
	if sheet.Adjuster == nil || !sheet.HasLockNut() {
		return adjust.Shift{}, nil
	}
	key := hands{hand(o.record, o.state), string(sheet.Adjuster.Kind)}
	d.mu.Lock()
	shift, known := d.shifts[key]
	asOf := d.pairs
	d.mu.Unlock()
	if known {
		return shift, nil
	}
	pairs, err := d.store.With(ctx).LockPairs(key.mechanic, key.adjuster)
	if err != nil {
		return adjust.Shift{}, err
	}
	shift = adjust.LearnShift(pairs, 0)
	d.mu.Lock()
	defer d.mu.Unlock()
	if d.pairs == asOf {
		d.shifts[key] = shift
	}
	return shift, nil
}

// forget drops what was learned of everybody's hands, because some job's pairs changed.
func (d *desk) forget() {
	d.mu.Lock()
	defer d.mu.Unlock()
	clear(d.shifts)
	d.pairs++
}
