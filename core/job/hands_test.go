package job_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// felt is a leaf, µm, in a valve on a screen that knew a happening.
func felt(screen, since, valve string, leaf measure.Length, feel clearance.Feel) job.Happening {
	return job.Happening{Screen: screen, Since: since,
		Act: job.ReadingTaken{Valve: valve, Leaves: []gauge.ID{{Marked: leaf * 1000}}, Feel: feel}}
}

// newest is the id of the newest happening.
func newest(d *jobtest.Driver) string { return d.List[len(d.List)-1].ID }

// twoScreens is a job at its first stop, cylinder 1 to be worked on.
func twoScreens(t *testing.T) *jobtest.Driver {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}, Screen: "tablet"})
	return d
}

// A valve that one sets and another reads again and keeps is done for both: it is not asked of the one who set it.
func TestWhatAnotherHasKeptIsInNoHand(t *testing.T) {
	d := outAt(t, nil) // E1 was read, and is too tight
	on := func(screen, other string) job.Next { return d.Job.SeenFrom(screen, []string{other}).Next() }
	by := func(screen string, act job.Act) { d.Do(job.Happening{Act: act, Screen: screen}) }
	by("tablet", job.Adjusted{Valve: "E1"})
	by("tablet", job.Locked{Valve: "E1"})
	require.Equal(t, "E1", on("tablet", "phone").Valve, "it is to be read again")
	d.Do(felt("phone", "", "E1", 300, clearance.Drag))
	by("phone", job.Kept{Valve: "E1"})
	assert.NotEqual(t, "E1", on("tablet", "phone").Valve)
	assert.NotEqual(t, "E1", on("phone", "tablet").Valve)
}

// Two people at two valves of one cylinder do not disturb each other: what one has in hand is not the other's
// next, and neither is told to finish it first. The crank is one for both: who would turn it is told who is
// not done.
func TestTwoPeopleAtTwoValves(t *testing.T) {
	d := twoScreens(t)
	both := []string{"phone", "tablet"}
	on := func(screen string) *job.Job {
		for i, other := range both {
			if other == screen {
				return d.Job.SeenFrom(screen, []string{both[1-i]})
			}
		}
		return nil
	}
	first := on("tablet").Next().Valve
	assert.Equal(t, first, on("phone").Next().Valve, "nobody has begun")
	d.Do(felt("tablet", "", first, 220, clearance.Free))
	require.Equal(t, first, on("tablet").Next().Valve)
	second := on("phone").Next()
	require.NotEqual(t, first, second.Valve)
	require.Equal(t, job.DoRead, second.Action)
	d.Do(felt("phone", "", second.Valve, 240, clearance.Free))
	assert.Equal(t, first, on("tablet").Next().Valve, "what the phone did moves nothing here")
	assert.Empty(t, on("tablet").CanUndo(), "and is not taken back here")
	assert.Equal(t, newest(d), on("phone").CanUndo())
	assert.Equal(t, first, d.Job.Next().Valve, "one who is alone has all of it: the first in engine order")

	d.Do(job.Happening{Act: job.Kept{Valve: second.Valve}, Screen: "phone"})
	turn := on("phone").Next()
	require.Equal(t, job.DoTurn, turn.Action, "all that is left here is in the tablet's hands")
	assert.Contains(t, on("phone").WaitsFor(turn), first+" is in somebody else’s hands")
	d.Refused(
		job.Happening{Act: job.Turned{Stop: turn.Stop}, Screen: "phone"},
		first+" has a reading that is not kept",
	)
	d.Do(job.Happening{Act: job.Kept{Valve: first}, Screen: "tablet"})
	assert.Empty(t, on("phone").WaitsFor(on("phone").Next()))
	assert.Equal(t, on("phone").Next(), on("tablet").Next())
}

// Who did not know that the crank was moved elsewhere neither turns it nor reads where it stood, however many
// harmless things he has entered since; his own turns are no news to him.
func TestWhatAScreenDidNotKnow(t *testing.T) {
	d := twoScreens(t)
	knew := newest(d)
	d.Do(job.Happening{Act: job.Turned{Stop: 1}, Screen: "phone"})
	d.Do(job.Happening{Act: job.TaskMarked{Task: "safe"}, Screen: "tablet", Since: knew})
	d.Refused(
		job.Happening{Act: job.Turned{Stop: 2}, Screen: "tablet", Since: knew},
		"The crank was moved since",
	)
	d.Refused(
		job.Happening{Act: job.Located{Seen: []sequence.Sighting{{What: sequence.TDCFiring, Cylinder: 1}}},
			Screen: "tablet", Since: knew},
		"The crank was moved since",
	)
	valve := d.Job.Next().Valve
	d.Refused(felt("tablet", knew, valve, 240, clearance.Free), "The crank was moved after")

	d = twoScreens(t)
	knew = newest(d)
	d.Do(job.Happening{Act: job.Turned{Stop: 1}, Screen: "tablet", Since: knew})
	d.Do(felt("tablet", knew, d.Job.Next().Valve, 240, clearance.Drag))
	d.Do(job.Happening{Act: job.Doubted{}, Screen: "phone"})
	d.Refused(
		job.Happening{Act: job.Turned{Stop: 2}, Screen: "tablet", Since: knew},
		"The crank was moved since",
	)
}

// One screen was off the network when the crank was turned there; another went on reading where it believed
// the crank to stand. When the turn is told, what was read after it does not count where the valve is not
// clear at the new stop, and is read again.
func TestATurnThatIsToldLate(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	knew, at := newest(d), d.List[len(d.List)-1].At
	after := func(s int) time.Time { return at.Add(time.Duration(s) * time.Second) }
	read := func(valve string, s int) {
		h := felt("B", "", valve, jobtest.Nominal(valve), clearance.Drag)
		h.At = after(s)
		d.Do(h)
		d.Do(job.Happening{Screen: "B", At: after(s), Act: job.Kept{Valve: valve}})
	}
	void := func(valve string) string {
		v, _ := d.Job.Valve(valve)
		return v.Last.Void()
	}
	read("I1", 5)
	read("E1", 25)
	d.Do(job.Happening{Screen: "A", Since: knew, DoneAt: after(20), At: after(40), Act: job.Turned{Stop: 1}})
	assert.Empty(t, void("I1"), "read before it")
	assert.Equal(t, "crank moved", void("E1"))
	for n := d.Job.Next(); n.Valve != "E1"; n = d.Job.Next() {
		if n.Action == job.DoTurn {
			d.Do(job.Happening{Screen: "B", At: after(60), Act: job.Turned{Stop: n.Stop}})
		} else {
			read(n.Valve, 60)
		}
	}
	read("E1", 60)
	assert.Empty(t, void("E1"))

	// told so late that the time given is believed no more, what its screen knew says what was read after it:
	// not what that screen had read itself
	d = jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	knew, at = newest(d), d.List[len(d.List)-1].At
	own := felt("A", "", "I1", jobtest.Nominal("I1"), clearance.Drag)
	own.At = after(5)
	d.Do(own)
	d.Do(job.Happening{Screen: "A", At: after(6), Act: job.Kept{Valve: "I1"}})
	read("E1", 25)
	week := 7 * 24 * 3600
	d.Do(job.Happening{Screen: "A", Since: knew, DoneAt: after(20), At: after(week), Act: job.Turned{Stop: 1}})
	assert.Empty(t, void("I1"), "its own, before it")
	assert.Equal(t, "crank moved", void("E1"))

	// told at once, and yet after what another had read meanwhile: what its screen did not know of was
	// perhaps read after it
	for ago, counts := range map[int]bool{2: false, 300: true} {
		d = jobtest.Start(t, jobtest.Setup())
		d.Begin(sequence.RockingPairs)
		d.Do(job.Happening{Act: job.Turned{Stop: 0}})
		knew, at = newest(d), d.List[len(d.List)-1].At
		read("E1", 25)
		d.Do(job.Happening{Screen: "A", Since: knew, At: after(25 + ago), Act: job.Turned{Stop: 1}})
		assert.Equal(t, counts, void("E1") == "", "%d s before", ago)
	}

	// told later, and done so shortly after another had read that two clocks cannot tell which was first
	for ago, counts := range map[int]bool{3: false, 12: true} {
		d = jobtest.Start(t, jobtest.Setup())
		d.Begin(sequence.RockingPairs)
		d.Do(job.Happening{Act: job.Turned{Stop: 0}})
		knew, at = newest(d), d.List[len(d.List)-1].At
		read("E1", 25)
		d.Do(job.Happening{Screen: "A", Since: knew, DoneAt: after(25 + ago), At: after(60), Act: job.Turned{Stop: 1}})
		assert.Equal(t, counts, void("E1") == "", "%d s before", ago)
	}

	// of a valve that is clear at both stops the reading counts
	d = jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	knew, at = newest(d), d.List[len(d.List)-1].At
	for _, v := range d.Job.Valves {
		if d.Job.Settable(v) {
			read(v.Name, 25)
		}
	}
	d.Do(job.Happening{Screen: "A", Since: knew, DoneAt: after(20), At: after(40), Act: job.Turned{Stop: 1}})
	for _, v := range d.Job.Valves {
		if v.Last != nil {
			assert.Equal(t, d.Job.Settable(v), v.Last.Void() == "", v.Name)
		}
	}
}
