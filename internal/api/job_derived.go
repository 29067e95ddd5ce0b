package api

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"time"

	"metronix/core/job"
	"metronix/core/record"
	"metronix/internal/store"
)

// What follows from a job's list is stored beside it in small rows, written in the same transaction as the
// happening, so that board and learning read no list. Nothing is believed of it that the list does not say:
// it can be made anew at any time, and compared.

// derivedOf is what is stored of a job beside its list.
func derivedOf(r store.Job, j *job.Job, touched time.Time) store.Derived {
	d := store.Derived{TouchedAt: touched.UTC(), Open: j.Phase() != job.Done, Vehicle: r.Vehicle.Name,
		Plate: r.Vehicle.Plate, Engine: r.Sheet.Called(), Glance: record.Of(j).Glance(touched), Visit: visitOf(r, j), Used: j.FromShop}
	if r.Sheet.Adjuster != nil && r.Sheet.HasLockNut() {
		d.Adjuster = string(r.Sheet.Adjuster.Kind)
		for _, p := range j.LockPairs {
			p.By = strings.ToLower(cmp.Or(p.By, r.Mechanic))
			d.Pairs = append(d.Pairs, p)
		}
	}
	return d
}

// derived is what follows from the job as it stands.
func (o *openJob) derived() store.Derived { return derivedOf(o.record, o.state, o.touched()) }

// touched is when the newest happening arrived; of none, when the job was begun.
func (o *openJob) touched() time.Time {
	if n := len(o.list.Happenings); n > 0 {
		return cmp.Or(o.list.Happenings[n-1].At, o.record.CreatedAt)
	}
	return o.record.CreatedAt
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
	missing := map[string]bool{}
	for _, id := range underived {
		missing[id] = true
	}
	_, err = d.look(ctx, slices.Concat(underived, open), func(id string, _ *openJob) (bool, error) {
		return missing[id], nil
	})
	return err
}

// look opens jobs one after the other and stores what follows from each that is wanted. A job that cannot be
// opened is noted as such and hinders no other.
func (d *desk) look(
	ctx context.Context,
	ids []string,
	wanted func(id string, o *openJob) (bool, error),
) (n int, err error) {
	for _, id := range ids {
		switch err := d.with(ctx, id, func(o *openJob) error {
			if yes, err := wanted(id, o); err != nil || !yes {
				return err
			}
			return d.store.With(ctx).PutDerived(id, o.derived())
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
	defer d.news.tell(change{})
	_, err = d.look(ctx, ids, func(id string, o *openJob) (bool, error) { return true, d.load(ctx, id, o) })
	return err
}

// shimsChanged derives anew what the board shows of the open jobs on shims, because what is next in them
// follows from what the workshop has.
func (d *desk) shimsChanged(ctx context.Context) error {
	ids, err := d.store.With(ctx).OpenJobs()
	if err != nil {
		return err
	}
	defer d.news.tell(change{})
	_, err = d.look(
		ctx,
		ids,
		func(_ string, o *openJob) (bool, error) { return o.record.Sheet.Shimmed(), nil },
	)
	return err
}

// Rebuild makes anew what is stored beside the lists of all jobs, and when each vehicle is due, and says of
// how many jobs. A job that cannot be opened is noted as such and hinders no other.
func Rebuild(ctx context.Context, st *store.Store) (jobs int, err error) {
	ids, err := st.JobIDs()
	if err != nil {
		return 0, err
	}
	s := &server{store: st, desk: newDesk(st), clock: time.Now}
	if jobs, err = s.desk.look(ctx, ids, func(string, *openJob) (bool, error) { return true, nil }); err != nil {
		return jobs, err
	}
	vehicles, err := st.Vehicles()
	if err != nil {
		return jobs, err
	}
	for _, v := range vehicles {
		if _, due, err := st.StoredDue(v.ID); err != nil || !due {
			if err != nil {
				return jobs, err
			}
			continue
		}
		if err := s.remember(ctx, v.ID); err != nil {
			return jobs, err
		}
	}
	return jobs, s.catchUp(ctx)
}

// Check is the one full check of a data file, for reading alone: the store's own, every job played through,
// and that what is stored beside the jobs' lists and of the vehicles follows from them. It serves metronix
// check, and whatever makes or takes back a copy.
func Check(ctx context.Context) store.Checking {
	return func(st *store.Store) (store.Findings, error) {
		s := &server{store: st, desk: newDesk(st), clock: time.Now}
		f := st.Check()
		told := map[string]bool{}
		for _, t := range f.Troubles {
			told[t.JobID] = true
		}
		jobs, err := s.desk.compare(ctx, told)
		if err != nil {
			return f, err
		}
		vehicles, err := s.compareDues(ctx)
		f.Troubles = slices.Concat(f.Troubles, jobs, vehicles)
		return f, err
	}
}

// compare opens every job: it tells of those that cannot be, unless that was told already, and of those of
// which something else is stored beside the list than follows from it.
func (d *desk) compare(ctx context.Context, told map[string]bool) (troubles []store.Trouble, err error) {
	ids, err := d.store.JobIDs()
	if err != nil {
		return nil, err
	}
	for _, id := range ids {
		err := d.with(ctx, id, func(o *openJob) error {
			what, err := d.differs(ctx, id, o)
			if what != "" {
				troubles = append(troubles, store.Trouble{JobID: id, Beside: true,
					What: fmt.Sprintf("job %s: %s is not what follows from its list", id, what)})
			}
			return err
		})
		switch {
		case err == nil:
		case !errors.Is(err, errUnreadable):
			return troubles, err
		case !told[id]:
			troubles = append(troubles, store.Trouble{JobID: id, What: fmt.Sprintf("job %s: %v", id, err)})
		}
	}
	return troubles, nil
}

// compareDues tells of vehicles that are stored to be due at another time than follows from their finished
// jobs.
func (s *server) compareDues(ctx context.Context) (troubles []store.Trouble, err error) {
	list, err := s.store.Vehicles()
	if err != nil {
		return nil, err
	}
	for _, v := range list {
		_, f, _, err := s.reckoned(ctx, v)
		if err != nil {
			return troubles, err
		}
		want := dueOf(v, f.Due)
		is, stored, err := s.store.StoredDue(v.ID)
		if err != nil {
			return troubles, err
		}
		if stored &&
			(is.DueOn != want.DueOn || is.DueAt != want.DueAt || !reflect.DeepEqual(is.Cause, want.Cause)) {
			troubles = append(
				troubles,
				store.Trouble{Beside: true, What: fmt.Sprintf("vehicle %s (%s): when it is due is "+
					"not what follows from its jobs", v.ID, v.Name)},
			)
		}
	}
	return troubles, nil
}

// differs names the first thing stored of a job that does not follow from its list; empty: there is none.
func (d *desk) differs(ctx context.Context, id string, o *openJob) (string, error) {
	is, ok, err := d.store.With(ctx).DerivedOf(id)
	want := o.derived()
	switch {
	case errors.Is(err, store.ErrDamaged):
		return "what is stored beside it", nil
	case err != nil:
		return "", err
	case !ok:
		return "", nil // of an earlier version: it is made at the next start
	case !is.TouchedAt.Equal(want.TouchedAt) || is.Open != want.Open || is.Vehicle != want.Vehicle ||
		is.Plate != want.Plate || is.Engine != want.Engine || !reflect.DeepEqual(is.Glance, want.Glance):
		return "what the board shows", nil
	case !reflect.DeepEqual(is.Visit, want.Visit):
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

// sameShim says that two shims out of the shop are one: the same size at the same moment.
func sameShim(a, b job.ShopShim) bool { return a.Shim == b.Shim && a.At.Equal(b.At) }
