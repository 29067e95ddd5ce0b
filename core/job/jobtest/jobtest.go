// Package jobtest plays jobs for tests: a plain setup, and a driver that sends what is done and keeps the
// list.
package jobtest

import (
	"errors"
	"fmt"
	"reflect"
	"strings"
	"time"

	"metronix/core/clearance"
	"metronix/core/engine/enginetest"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

const um = measure.Micrometre

// Setup is the plain four, cold, 0.22 and 0.30 ± 0.02 mm, with leaves of 0.10 to 0.40 mm by hundredths.
func Setup() job.Setup {
	owned := gauge.Set{}
	for m := measure.Length(100); m <= 400; m += 10 {
		owned = append(owned, Owning(m)...)
	}
	return job.Setup{Sheet: enginetest.Four(), Owned: owned, Feel: clearance.DefaultFeel,
		Card: Card(clearance.Cold, 220, 300)}
}

// Card is a card of nominal gaps in micrometres, each ± 20.
func Card(state clearance.State, intake, exhaust measure.Length) clearance.Card {
	figure := func(l measure.Length) clearance.Figure { return clearance.Figure{Metric: &l} }
	stated := func(nominal measure.Length) clearance.Clearance {
		return clearance.Clearance{Nominal: figure(nominal * um), Tolerance: figure(20 * um)}
	}
	return clearance.Card{Source: "test card", State: state, Intake: stated(intake), Exhaust: stated(exhaust)}
}

// Owning is a gauge set of plain leaves, in micrometres.
func Owning(leaves ...measure.Length) (set gauge.Set) {
	for _, m := range leaves {
		set = append(set, gauge.Leaf{ID: gauge.ID{Marked: m * um}})
	}
	return set
}

// T is what a driver needs of a test.
type T interface {
	Errorf(format string, args ...any)
	FailNow()
}

// Driver sends happenings with ids of their own and keeps the list.
type Driver struct {
	t    T
	Job  *job.Job
	List []job.Happening
}

// Start begins a job.
func Start(t T, s job.Setup) *Driver {
	j, err := job.New(s)
	if err != nil {
		t.Errorf("the job does not begin: %v", err)
		t.FailNow()
	}
	return &Driver{t: t, Job: j}
}

// Try sends a happening that may be refused.
func (d *Driver) Try(h job.Happening) error {
	h.ID = fmt.Sprintf("h%d", len(d.List))
	j, err := d.Job.Take(h)
	if err == nil {
		d.Job, d.List = j, append(d.List, h)
	}
	return err
}

// Do sends a happening, which is taken.
func (d *Driver) Do(h job.Happening) {
	if err := d.Try(h); err != nil {
		d.t.Errorf("%s is refused: %v", h.Act.Kind(), err)
		d.t.FailNow()
	}
}

// Refused sends a happening, which is refused with a message that holds a text, and changes nothing.
func (d *Driver) Refused(h job.Happening, says string) {
	before := d.Job.Next()
	var r *job.Refusal
	if err := d.Try(h); !errors.As(err, &r) {
		d.t.Errorf("%s is not refused: %v", h.Act.Kind(), err)
		d.t.FailNow()
	}
	if !strings.Contains(r.Message, says) {
		d.t.Errorf("%q does not say %q", r.Message, says)
	}
	if after := d.Job.Next(); !reflect.DeepEqual(after, before) {
		d.t.Errorf("a refusal changes what is next: %+v, not %+v", after, before)
	}
}

// Begin chooses a sequence and takes the temperature of a cold engine.
func (d *Driver) Begin(school sequence.School) {
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: school}}})
	d.Do(job.Happening{Act: job.Prepared{EngineC: 19.0, AmbientC: 18.0}})
}

// Feel is how a leaf feels under a valve, in micrometres.
func (d *Driver) Feel(valve string, leaf measure.Length, feel clearance.Feel) {
	d.Do(job.Happening{Act: job.ReadingTaken{Valve: valve, Leaves: gauge.Straight(leaf * um), Feel: feel}})
}

// ReadUntil reads, keeps and turns until an action is asked for.
func (d *Driver) ReadUntil(until job.Action, feel func(valve string) (measure.Length, clearance.Feel)) {
	for range 200 {
		switch n := d.Job.Next(); n.Action {
		case until:
			return
		case job.DoTurn:
			d.Do(job.Happening{Act: job.Turned{Stop: n.Stop}})
		case job.DoRead:
			leaf, f := feel(n.Valve)
			d.Feel(n.Valve, leaf, f)
		case job.DoKeep:
			d.Do(job.Happening{Act: job.Kept{Valve: n.Valve}})
		}
	}
	d.t.Errorf("%s is never asked for: %+v", until, d.Job.Next())
	d.t.FailNow()
}

// Work follows what is next until it is time to sign; gap gives the dragging leaf of each valve when it is
// read. It counts the turning and each action.
func (d *Driver) Work(
	gap func(valve string) measure.Length,
) (turns measure.Angle, actions map[job.Action]int) {
	return d.WorkUntil("", gap)
}

// WorkUntil does the same until an action is next; none: to the end.
func (d *Driver) WorkUntil(until job.Action,
	gap func(valve string) measure.Length,
) (turns measure.Angle, actions map[job.Action]int) {
	actions = map[job.Action]int{}
	for range 300 {
		n := d.Job.Next()
		if n.Action == until {
			return turns, actions
		}
		actions[n.Action]++
		switch n.Action {
		case job.DoTurn:
			turns += n.Turn
			d.Do(job.Happening{Act: job.Turned{Stop: n.Stop}})
		case job.DoRead:
			d.Feel(n.Valve, gap(n.Valve), clearance.Drag)
		case job.DoKeep:
			d.Do(job.Happening{Act: job.Kept{Valve: n.Valve}})
		case job.DoAdjust:
			d.Do(job.Happening{Act: job.Adjusted{Valve: n.Valve}})
		case job.DoLock:
			d.Do(job.Happening{Act: job.Locked{Valve: n.Valve}})
		case job.DoBarOver:
			d.Do(job.Happening{Act: job.BarredOver{}})
		default:
			return turns, actions
		}
	}
	d.t.Errorf("the job never comes to an end: %+v", d.Job.Next())
	return turns, actions
}

// Nominal is the nominal gap of a valve of the plain setup, in micrometres.
func Nominal(valve string) measure.Length {
	if valve[0] == 'I' {
		return 220
	}
	return 300
}

// SlackAt reads the plain four as found, with one valve 60 µm tight, and slackens its nut to set it.
func SlackAt(t T, valve string) *Driver {
	d := Start(t, Setup())
	d.Begin(sequence.RockingPairs)
	d.ReadUntil(job.DoAdjust, func(v string) (measure.Length, clearance.Feel) {
		if v == valve {
			return Nominal(v) - 60, clearance.Drag
		}
		return Nominal(v), clearance.Drag
	})
	if at := d.Job.Next().Valve; at != valve {
		t.Errorf("%s is set, not %s", at, valve)
		t.FailNow()
	}
	d.Do(job.Happening{Act: job.Adjusted{Valve: valve}})
	return d
}

// Noon is when jobs of tests are worked on, where it matters.
var Noon = time.Date(2026, 5, 4, 12, 0, 0, 0, time.UTC)

// At is some minutes after noon.
func At(minute float64) time.Time { return Noon.Add(time.Duration(minute * float64(time.Minute))) }
