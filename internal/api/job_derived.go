package api

import (
	"bytes"
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"time"

	"metronix/core/job"
	"metronix/core/measure"
	"metronix/internal/store"
)

// What follows from a job's list is stored beside it in small rows, written in the same transaction as the
// happening, so that board and learning read no list. Nothing is believed of it that the list does not say:
// it can be made anew at any time, and compared.

// derivedOf is what is stored of a job beside its list.
func derivedOf(r store.Job, j *job.Job, touched time.Time) (store.Derived, error) {
	plain := *j // what is stored does not depend on who asked
	plain.Speaks = measure.Units{}
	j = &plain
	short, err := json.Marshal(jobShort(r, j, touched))
	if err != nil {
		return store.Derived{}, err
	}
	d := store.Derived{TouchedAt: touched.UTC(), Open: j.Phase() != job.Done, Short: short, Used: j.FromShop}
	if d.Visit, err = visitOf(r, j); err != nil {
		return d, err
	}
	if r.Sheet.Adjuster != nil && r.Sheet.HasLockNut() {
		d.Adjuster = string(r.Sheet.Adjuster.Kind)
		for _, p := range j.LockPairs {
			p.By = strings.ToLower(cmp.Or(p.By, r.Mechanic))
			d.Pairs = append(d.Pairs, p)
		}
	}
	return d, nil
}

// derived is what follows from the job as it stands.
func (o *openJob) derived() (store.Derived, error) {
	touched := o.record.CreatedAt
	if n := len(o.list.Happenings); n > 0 {
		touched = o.list.Happenings[n-1].At
	}
	return derivedOf(o.record, o.state, cmp.Or(touched, o.record.CreatedAt))
}

// catchUp derives what is missing beside the lists, of a file of an earlier version, and looks into every job
// that is open, so that one which cannot be opened is said to be so on the board from the beginning.
func (d *desk) catchUp(ctx context.Context) error {
	underived, err := d.store.Underived()
	if err != nil {
		return err
	}
	open, err := d.store.OpenJobs()
	if err != nil {
		return err
	}
	_, err = d.look(ctx, slices.Concat(underived, open), func(id string, _ *openJob) (bool, error) {
		return slices.Contains(underived, id), nil
	})
	return err
}

// look opens jobs one after the other and stores what follows from each that is wanted. A job that cannot be opened is
// noted as such and hinders no other.
func (d *desk) look(ctx context.Context, ids []string, wanted func(id string, o *openJob) (bool, error)) (n int, err error) {
	for _, id := range ids {
		switch err := d.with(ctx, id, func(o *openJob) error {
			if yes, err := wanted(id, o); err != nil || !yes {
				return err
			}
			derived, err := o.derived()
			if err != nil {
				return err
			}
			return d.store.With(ctx).PutDerived(id, derived)
		}); {
		case err == nil:
			n++
		case !errors.Is(err, errUnreadable):
			return n, err
		}
	}
	return n, nil
}

// renamed reads the jobs of a vehicle anew, and what follows from them, because what they show of it changed.
func (d *desk) renamed(ctx context.Context, vehicleID string) error {
	ids, err := d.store.With(ctx).JobsOf(vehicleID)
	if err != nil {
		return err
	}
	_, err = d.look(ctx, ids, func(id string, o *openJob) (bool, error) { return true, d.load(ctx, id, o) })
	return err
}

// shimsChanged derives anew what the board shows of the open jobs on shims, because what is next in them follows from
// what the workshop has.
func (d *desk) shimsChanged(ctx context.Context) error {
	ids, err := d.store.With(ctx).OpenJobs()
	if err != nil {
		return err
	}
	_, err = d.look(ctx, ids, func(_ string, o *openJob) (bool, error) { return o.record.Sheet.Shimmed(), nil })
	return err
}

// Rebuild makes anew what is stored beside the lists of all jobs, and says of how many. A job that cannot be
// opened is noted as such and hinders no other.
func Rebuild(ctx context.Context, st *store.Store) (jobs int, err error) {
	ids, err := st.JobIDs()
	if err != nil {
		return 0, err
	}
	return newDesk(st).look(ctx, ids, func(string, *openJob) (bool, error) { return true, nil })
}

// Compare says of which jobs something else is stored beside the list than follows from it. Jobs that cannot
// be opened are left out: the store's own check names them.
func Compare(ctx context.Context, st *store.Store) (troubles []store.Trouble, err error) {
	ids, err := st.JobIDs()
	if err != nil {
		return nil, err
	}
	d := newDesk(st)
	for _, id := range ids {
		err := d.with(ctx, id, func(o *openJob) error {
			what, err := d.differs(ctx, id, o)
			if what != "" {
				troubles = append(troubles,
					store.Trouble{JobID: id, What: fmt.Sprintf("job %s: %s is not what "+
						"follows from its list", id, what)})
			}
			return err
		})
		if err != nil && !errors.Is(err, errUnreadable) {
			return troubles, err
		}
	}
	return troubles, nil
}

// differs names the first thing stored of a job that does not follow from its list; empty: there is none.
func (d *desk) differs(ctx context.Context, id string, o *openJob) (string, error) {
	is, err := d.store.With(ctx).DerivedOf(id)
	if err != nil {
		return "", err
	}
	want, err := o.derived()
	switch {
	case err != nil:
		return "", err
	case !is.TouchedAt.Equal(want.TouchedAt) || is.Open != want.Open || !bytes.Equal(is.Short, want.Short):
		return "what the board shows", nil
	case !bytes.Equal(is.Visit, want.Visit):
		return "what is known of its wear", nil
	case len(is.Pairs)+len(want.Pairs) > 0 && is.Adjuster != want.Adjuster,
		!slices.EqualFunc(is.Pairs, want.Pairs,
			func(a, b job.LockPair) bool { return reflect.DeepEqual(a.Pair, b.Pair) && a.By == b.By }):
		return "what was learned of locking", nil
	case !slices.EqualFunc(is.Used, want.Used, sameShim):
		return "what was taken from the shop's shims", nil
	}
	return "", nil
}

func sameShim(a, b job.ShopShim) bool { return a.Shim == b.Shim && a.At.Equal(b.At) }
