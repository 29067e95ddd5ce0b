package api

import (
	"errors"
	"reflect"
	"strings"
	"sync"

	"metronix/core/adjust"
	"metronix/core/job"
	"metronix/internal/store"
)

// desk keeps the jobs at hand computed, so that a reading costs one insert and no replay. What it holds is always what the
// stored list says: an entry is dropped whenever storing fails, and read again.
type desk struct {
	store *store.Store
	mu    sync.Mutex
	open  map[string]*openJob
}

// openJob is one job at hand; its lock is held while it is read or changed.
type openJob struct {
	mu     sync.Mutex
	record store.Job
	list   []job.Happening
	places map[string]int // of each happening's id in the list
	state  *job.Job       // nil: to be read again
	shift  adjust.Shift   // of this job's mechanic on this kind of adjuster, as it stood when the job was opened last
}

// roomy bounds how many jobs are kept at hand.
const roomy = 500

var errReused = errors.New("this id was used for another happening")

func newDesk(st *store.Store) *desk { return &desk{store: st, open: map[string]*openJob{}} }

// with runs f on the job with its lock held, read from the store first where needed.
func (d *desk) with(id string, f func(*openJob) error) error {
	o := d.entry(id)
	o.mu.Lock()
	defer o.mu.Unlock()
	if o.state == nil {
		if err := d.load(id, o); err != nil {
			d.forget(id)
			return err
		}
	}
	return f(o)
}

func (d *desk) entry(id string) *openJob {
	d.mu.Lock()
	defer d.mu.Unlock()
	if o, ok := d.open[id]; ok {
		return o
	}
	if len(d.open) >= roomy {
		d.open = map[string]*openJob{} // those in use are read again; the place numbers keep their lists whole
	}
	o := &openJob{}
	d.open[id] = o
	return o
}

func (d *desk) forget(id string) {
	d.mu.Lock()
	defer d.mu.Unlock()
	delete(d.open, id)
}

func (d *desk) load(id string, o *openJob) error {
	record, err := d.store.Job(id)
	if err != nil {
		return err
	}
	list, err := d.store.Happenings(id)
	if err != nil {
		return err
	}
	state, err := job.Replay(setupOf(record), list)
	if err != nil {
		return err
	}
	o.record, o.list, o.state, o.places = record, list, state, map[string]int{}
	for i, h := range list {
		o.places[h.ID] = i
	}
	return nil
}

func setupOf(r store.Job) job.Setup {
	s := job.Setup{Sheet: r.Sheet, Card: r.Sheet.Clearances[r.Card], Owned: r.Leaves, Feel: r.Feel, Aim: r.Aim, Rule: r.Rule}
	if r.HotCard >= 0 && r.HotCard < len(r.Sheet.Clearances) {
		s.Hot = &r.Sheet.Clearances[r.HotCard]
	}
	return s
}

// happen takes one happening: checked by the core, stored, and only then part of the job. The same happening sent again
// changes nothing and is no error. Where the core refuses or the store finds its place taken, another program may have
// written to the same file: the list is read again, and if it has grown the happening is tried once more.
func (d *desk) happen(o *openJob, h job.Happening) error {
	had := len(o.list)
	err := d.try(o, h)
	if err == nil {
		return nil
	}
	if loadErr := d.load(o.record.ID, o); loadErr != nil {
		o.state = nil
		return loadErr
	}
	if len(o.list) == had {
		return err
	}
	return d.try(o, h)
}

func (d *desk) try(o *openJob, h job.Happening) error {
	if known, err := o.holds(h); known || err != nil {
		return err
	}
	state, err := o.state.Take(h)
	if err != nil {
		return err
	}
	if err := d.store.Append(o.record.ID, len(o.list), h); err != nil {
		return err
	}
	o.places[h.ID] = len(o.list)
	o.state, o.list = state, append(o.list, h)
	return nil
}

// holds says whether a happening of this id is in the list; errReused where it was another one.
func (o *openJob) holds(h job.Happening) (bool, error) {
	place, known := o.places[h.ID]
	if !known {
		return false, nil
	}
	before := o.list[place]
	before.At = h.At
	if !reflect.DeepEqual(before, h) {
		return true, errReused
	}
	return true, nil
}

// learned pools what locking did in all jobs of one mechanic on one kind of adjuster.
func (d *desk) learned(of store.Job) (adjust.Shift, error) {
	if of.Sheet.Adjuster == nil || !of.Sheet.HasLockNut() {
		return adjust.Shift{}, nil
	}
	records, err := d.store.Jobs()
	if err != nil {
		return adjust.Shift{}, err
	}
	var pairs []adjust.Pair
	for _, r := range records {
		if !strings.EqualFold(r.Mechanic, of.Mechanic) || r.Sheet.Adjuster == nil || r.Sheet.Adjuster.Kind != of.Sheet.Adjuster.Kind {
			continue
		}
		if err := d.with(r.ID, func(o *openJob) error {
			for _, p := range o.state.LockPairs {
				pairs = append(pairs, p.Pair)
			}
			return nil
		}); err != nil {
			return adjust.Shift{}, err
		}
	}
	return adjust.LearnShift(pairs), nil
}
