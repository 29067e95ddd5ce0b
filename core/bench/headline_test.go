package bench_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/adjust"
	"metronix/core/around"
	"metronix/core/bench"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

const um = measure.Micrometre

// says is the one instruction of a job as it stands.
func says(d *jobtest.Driver) bench.Headline {
	return bench.Advise(d.Job, adjust.Shift{}).Headline(d.Job.Next())
}

// going begins the plain job as one goes, up to the first stop.
func going(t *testing.T, change func(*job.Setup, *job.Round)) *jobtest.Driver {
	t.Helper()
	s, round := jobtest.Setup(), job.Round{Going: job.SetAsYouGo}
	sheet := *s.Sheet
	sheet.Adjuster = &engine.Adjuster{
		Kind:    gear.ScrewValveEnd,
		Pitch:   measure.Millimetre,
		Locknut: engine.Torque{Nm: 14},
	}
	s.Sheet = &sheet
	if change != nil {
		change(&s, &round)
	}
	d := jobtest.Start(t, s)
	assert.Equal(t, "Choose the sequence.", says(d).String())
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}, Round: round}})
	assert.Equal(t, "Take the engine’s temperature.", says(d).String())
	d.Do(job.Happening{Act: job.Prepared{EngineC: 19, AmbientC: 18}})
	assert.Equal(t, "Make the vehicle safe.", says(d).String())
	d.Do(job.Happening{Act: job.TaskMarked{Task: around.SafeStep}})
	if round.Going == job.FreeFirst {
		return d
	}
	assert.Equal(t, "Turn the crank until cylinder 4 rocks.", says(d).String())
	d.Do(job.Happening{At: jobtest.Noon, Act: job.Turned{Stop: 0}})
	return d
}

// A valve from the first leaf to the signature, word for word: 0.10 mm at a screw of 1 mm pitch are 36
// degrees (360 × change / pitch, geometry).
func TestTheOneInstruction(t *testing.T) {
	d := going(t, nil)
	assert.Equal(t, "Cylinder 4 is rocking. Read E1.", says(d).String())
	d.Feel("E1", 330, clearance.WontGo)
	assert.Equal(t, "E1: try 0.28.", says(d).String())
	d.Do(job.Happening{Act: job.Undone{Target: d.Job.CanUndo()}})
	d.Feel("E1", 400, clearance.Drag)
	assert.Equal(t, bench.Headline{Strong: "Screw E1 in 36°, clockwise.",
		Sub: "Slacken the lock nut, turn the screw until 0.30 drags."}, says(d))
	a := bench.Advise(d.Job, adjust.Shift{})
	read := d.Job.Next()
	read.Action = job.DoRead
	assert.Equal(t, "Cylinder 4 is rocking. Read E1.", a.Headline(read).String(), "what may be done instead")

	d.Do(job.Happening{Act: job.Adjusted{Valve: "E1", Leaves: gauge.Straight(300 * um)}})
	assert.Equal(t, bench.Headline{Before: "Lock ", Strong: "E1", After: ", then check again.",
		Sub: "Lock nut 14 N·m (10.3 lbf·ft). Hold the screw still."}, says(d))
	d.Do(job.Happening{Act: job.Locked{Valve: "E1"}})
	assert.Equal(t, "Locked. Read E1 again.", says(d).String())
	d.Feel("E1", 300, clearance.Drag)
	assert.Equal(
		t,
		bench.Headline{
			Before: "E1 is ",
			Strong: "in.",
			Sub:    "To prove it: 0.28 falls through, 0.32 will not go.",
		},
		says(d),
	)
	d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
	d.Feel("I1", 220, clearance.Free)
	d.Feel("I1", 210, clearance.WontGo)
	assert.Equal(t, bench.Headline{Before: "I1: the readings ", Strong: "disagree.",
		Sub: "Take back the one you trust least."}, says(d))
	d.Do(job.Happening{Act: job.Undone{Target: d.Job.CanUndo()}})
	d.Do(job.Happening{Act: job.Undone{Target: d.Job.CanUndo()}})
	assert.Equal(t, "Change leaf: 0.22. Read I1.", says(d).String(), "0.30 is in hand")
	d.Feel("I1", 220, clearance.Drag)
	for d.Job.Next().Valve == "I1" {
		d.Do(job.Happening{Act: job.Kept{Valve: "I1"}})
	}
	d.Do(job.Happening{Act: job.Turned{Stop: d.Job.Next().Stop}})
	assert.Equal(t, "Cylinder 2 is rocking. Read I3.", says(d).String(), "the leaf in hand is used first")
	d.Work(jobtest.Nominal)
	assert.Equal(t, "Account for all tools and leaves, then sign.", says(d).String())
	d.Do(job.Happening{Act: job.Signed{By: "Ilse", ToolsOut: true}})
	assert.Equal(t, "Signed by Ilse.", says(d).String())
}

func TestTheInstructionByCircumstance(t *testing.T) {
	free := going(t, func(_ *job.Setup, r *job.Round) { r.Going = job.FreeFirst })
	assert.Equal(t, "Slacken E1.", says(free).String())

	twice := going(t, func(_ *job.Setup, r *job.Round) { r.Locking = job.InTwoGoes })
	twice.Feel("E1", 400, clearance.Drag)
	twice.Do(job.Happening{Act: job.Adjusted{Valve: "E1", Leaves: gauge.Straight(300 * um)}})
	assert.Equal(t, "Nip the nut of E1.", says(twice).String())
	twice.Do(job.Happening{Act: job.Nipped{Valve: "E1"}})
	assert.Equal(t, "Torque E1, then read it again.", says(twice).String())

	plain := going(t, func(s *job.Setup, _ *job.Round) {
		sheet := *s.Sheet
		sheet.Adjuster = &engine.Adjuster{Kind: gear.ScrewValveEnd}
		s.Sheet = &sheet
	})
	plain.Feel("E1", 400, clearance.Drag)
	assert.Equal(t, "Set E1 to 0.30.", says(plain).String(), "without a pitch nobody knows how far")
	plain.Do(job.Happening{Act: job.Adjusted{Valve: "E1", Leaves: gauge.Straight(300 * um)}})
	assert.Equal(
		t,
		"No torque is printed: by hand feel, short of straining the thread. Hold the screw still.",
		says(plain).Sub,
	)

	over := jobtest.Start(t, jobtest.Setup())
	over.Do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo, Check: job.CheckSetOnes}}})
	over.Begin(sequence.RockingPairs)
	over.WorkUntil(job.DoBarOver, func(valve string) measure.Length {
		if v, _ := over.Job.Valve(valve); valve == "E2" && v.Adjustments == 0 {
			return 400
		}
		return jobtest.Nominal(valve)
	})
	assert.Equal(t, "Turn the crank two full turns until cylinder 3 rocks.", says(over).String(),
		"its nut was made tight at this very stop")
	assert.Equal(t, "Then each valve that was set is read again, and every lock nut felt.", says(over).Sub)
	stop := over.Job.Next().Stop
	over.Do(job.Happening{Act: job.BarredOver{Stop: &stop}})
	assert.Equal(t, "Cylinder 3 is rocking. Check E2.", says(over).String())

	night := going(t, nil)
	night.Job = night.Job.AsOf(jobtest.Noon.Add(job.ConfirmAfter + time.Second))
	assert.Equal(t, bench.Headline{Before: "Confirm that ", Strong: "cylinder 4 rocks.",
		Sub: "Nothing was entered for hours: somebody may have turned the crank."}, says(night))

	hot := jobtest.Setup()
	second := jobtest.Card(clearance.Hot, 240, 320)
	hot.Hot = &second
	d := jobtest.Start(t, hot)
	d.Begin(sequence.RockingPairs)
	d.Work(jobtest.Nominal)
	d.Do(job.Happening{Act: job.Signed{By: "Ilse", ToolsOut: true}})
	assert.Equal(t, "Warm it up for the hot pass.", says(d).String())

	many := jobtest.Start(t, jobtest.Setup())
	many.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	many.Do(job.Happening{At: jobtest.Noon, Act: job.TemperatureNoted{EngineC: 60, AmbientC: 18}})
	assert.Equal(t, "Take the temperature.", says(many).String())

	counted := jobtest.Start(t, jobtest.Setup())
	counted.Begin(sequence.SumRule)
	counted.Do(job.Happening{Act: job.TaskMarked{Task: around.SafeStep}})
	n := counted.Job.Next()
	counted.Do(job.Happening{Act: job.Turned{Stop: n.Stop}})
	assert.Contains(t, says(counted).String(), "Read valve 5 (E3).")
}

// Shims: which is asked for, where it comes from, and that one to be ordered is no shim that serves nothing.
func TestTheInstructionOnShims(t *testing.T) {
	s := jobtest.Setup()
	sheet := *s.Sheet
	sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	s.Sheet = &sheet
	d := jobtest.Start(t, s)
	d.Begin(sequence.OneCylinder)
	loose := func(v string) (measure.Length, clearance.Feel) {
		if v == "E1" {
			return 400, clearance.Drag
		}
		return jobtest.Nominal(v), clearance.Drag
	}
	d.ReadUntil(job.DoAdjust, loose)
	assert.Equal(
		t,
		bench.Headline{Before: "Which shim is under ", Strong: "E1?", Sub: "Read it off, or measure it."},
		says(d),
	)
	d.Do(job.Happening{Act: job.Sized{Valve: "E1", Shim: 2500 * um}})
	d.Job.Supply(job.Shop{})
	assert.Equal(t, bench.Headline{Before: "No shim serves ", Strong: "E1.",
		Sub: "Leave it with a reason, or wait for another size."}, says(d))
	d.Job.Supply(job.Shop{Sizes: []measure.Length{2600 * um}})
	assert.Equal(t, bench.Headline{Before: "E1 waits for a shim of ", Strong: "2.60 mm.",
		Sub: "Order it and wait, or leave the valve with a reason."}, says(d))
	d.Job.Supply(job.Shop{Stock: []adjust.Count{{Shim: 2600 * um, N: 1}}})
	assert.Equal(
		t,
		bench.Headline{Before: "Fit ", Strong: "2.60 under E1.", Sub: "It comes from the shop."},
		says(d),
	)
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E1", Shim: 2600 * um}})
	assert.Equal(t, "Fitted. Read E1 again.", says(d).String())
}

// Each step of a ring of shims is a line of its own, and says where its shim comes from and how far is turned
// to it. A stand-in that is still to be found is said by how thick it may be.
func TestEveryStepOfShimsIsSaid(t *testing.T) {
	stop := sequence.Stop{Watch: []sequence.Sighting{{What: sequence.Rocking, Cylinder: 3}}}
	for said, s := range map[string]job.ShimStep{
		"Fit 2.60 (from the shop) under E1":                                 {Do: job.FitShim, Valve: "E1", Shim: 2600 * um, Source: job.InShop},
		"Fit 2.60 (from E3) under E1":                                       {Do: job.FitShim, Valve: "E1", Shim: 2600 * um, Source: job.FromValve, From: "E3"},
		"Fit 2.60 (from the loose shims) under E1":                          {Do: job.FitShim, Valve: "E1", Shim: 2600 * um, Source: job.FromBench},
		"The shim that stands in, 2.60, stays under E1":                     {Do: job.FitShim, Valve: "E1", Shim: 2600 * um, Source: job.Stays},
		"E1 gets a stand-in, 2.50; its own comes onto the bench":            {Do: job.FitStandIn, Valve: "E1", Shim: 2500 * um, Most: 2600 * um},
		"E1 gets a stand-in, 2.60 or thinner; its own comes onto the bench": {Do: job.FitStandIn, Valve: "E1", Most: 2600 * um},
		"Turn a further 180° until " + stop.Until():                         {Do: job.TurnOn, Turn: 180 * measure.Degree},
		"Turn the crank until " + stop.Until():                              {Do: job.TurnOn},
	} {
		assert.Equal(t, said, bench.ShimStep(s, stop))
	}
	assert.Contains(t, stop.Until(), "cylinder 3")
	assert.Equal(t, "to order", bench.ShimFrom(job.ToBuy, ""))
}

// What the hands do to the gap is said once it is known, by their own word before; in thousandths where the
// card is.
func TestWhatTheNutDoesIsSaid(t *testing.T) {
	d := going(t, nil)
	v, _ := d.Job.Valve("E1")
	assert.Empty(t, bench.Advise(d.Job, adjust.Shift{}).WithNut(v))
	known := adjust.Shift{Enough: true, Count: 6, Median: -20 * um, Spread: 5 * um}
	assert.Equal(
		t,
		"Your lock nut usually closes the gap by 0.02 mm (6 times, spread 0.005 mm): set 0.32 mm for 0.30 mm.",
		bench.Advise(d.Job, known).WithNut(v),
	)
	own := 20 * um
	told := going(t, func(_ *job.Setup, r *job.Round) { r.OwnShift = &own })
	assert.Equal(
		t,
		"Leave it a hair tight: set 0.28 mm for 0.30 mm, as you say your nut opens it by 0.02 mm (2 of 5 times "+
			"learned).",
		bench.Advise(told.Job, adjust.Shift{Count: 2}).WithNut(v),
	)
	told.Job.Speaks.Length = measure.Thousandths
	minus := -own
	told.Job.OwnShift = &minus
	assert.Equal(
		t,
		"Back it off a hair first: set 12.6 thou for 11.8 thou, as you say your nut closes it by 0.8 thou (0 of 5 "+
			"times learned).",
		bench.Advise(told.Job, adjust.Shift{}).WithNut(v),
	)
}

// What is written under the cylinders, and which valve is drawn from the side with which leaf.
func TestThePictureOfTheBench(t *testing.T) {
	s := jobtest.Setup()
	d := jobtest.Start(t, s)
	picture := func(lastOn string) ([]bench.Note, bench.Side) {
		a, n := bench.Advise(d.Job, adjust.Shift{}), d.Job.Next()
		return a.Notes(n), a.Side(n, lastOn)
	}
	notes, side := picture("")
	assert.Empty(t, notes)
	assert.Equal(t, bench.Side{Valve: "E1"}, side)
	d.Begin(sequence.RockingPairs)
	notes, side = picture("I2")
	assert.Equal(t, []bench.Note{{Cylinder: 1, Text: "next"}, {Cylinder: 4, Text: "watch it rock"}}, notes)
	assert.Equal(t, bench.Side{Valve: "E1"}, side, "the first that waits there")
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	notes, side = picture("")
	assert.Equal(
		t,
		[]bench.Note{{Cylinder: 1, Text: "read here", Strong: true}, {Cylinder: 4, Text: "rocking"}},
		notes,
	)
	assert.Equal(t, bench.Side{Valve: "E1", Leaf: "0.30"}, side)
	d.Feel("E1", 330, clearance.WontGo)
	_, side = picture("")
	assert.Equal(t, "0.28", side.Leaf, "the one to try")
	d.Do(job.Happening{Act: job.Undone{Target: d.Job.CanUndo()}})
	d.Feel("E1", 310, clearance.Drag)
	_, side = picture("")
	assert.Equal(t, "0.31", side.Leaf, "the one tried")

	deep := jobtest.Start(t, s)
	deep.Begin(sequence.ExhaustOpen)
	turn := deep.Job.Next()
	a := bench.Advise(deep.Job, adjust.Shift{})
	require.Equal(t, job.DoTurn, turn.Action)
	assert.Contains(t, a.Notes(turn), bench.Note{Cylinder: 2, Text: "watch E2"})
	deep.Do(job.Happening{Act: job.Turned{Stop: turn.Stop}})
	a = bench.Advise(deep.Job, adjust.Shift{})
	assert.Contains(t, a.Notes(deep.Job.Next()), bench.Note{Cylinder: 2, Text: "E2 is down"})
}

// Where no leaf is owned the gap to set is said, in the unit of its card: 0.3048 mm are 12 thou (1 in = 25.4
// mm exactly, international yard and pound agreement, 1959).
func TestTheGapToSetWithoutALeaf(t *testing.T) {
	d := going(t, func(s *job.Setup, _ *job.Round) { s.Owned = nil })
	v, _ := d.Job.Valve("E1")
	v.Limits.Nominal = 304800
	a := bench.Advise(d.Job, adjust.Shift{})
	assert.Equal(t, "0.3048 mm", a.LeafSaid(v))
	d.Job.Speaks.Length = measure.Thousandths
	assert.Equal(t, "12 thou", a.LeafSaid(v))
}

// A valve whose shim comes from another that has to wait for its own waits with it, and is not said to be
// served by nothing. By subtraction: E1 wants 2.50 + 0.40 − 0.30 = 2.60, which is under E2; E2 wants 2.60 +
// 0.23 − 0.30 = 2.53, which is to buy.
func TestAValveThatWaitsForAnothersShim(t *testing.T) {
	s := jobtest.Setup()
	sheet := *s.Sheet
	sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	s.Sheet = &sheet
	d := jobtest.Start(t, s)
	d.Begin(sequence.OneCylinder)
	d.ReadUntil(job.DoAdjust, func(v string) (measure.Length, clearance.Feel) {
		gap, out := map[string]measure.Length{"E1": 400, "E2": 230}[v]
		if !out {
			gap = jobtest.Nominal(v)
		}
		return gap, clearance.Drag
	})
	shop := job.Shop{Sizes: []measure.Length{2530 * um}}
	for valve, shim := range map[string]measure.Length{"E1": 2500 * um, "E2": 2600 * um} {
		d.Do(job.Happening{Act: job.Sized{Valve: valve, Shim: shim}})
	}
	d.Job.Supply(shop)
	a := bench.Advise(d.Job, adjust.Shift{})
	at := job.Next{Action: job.DoAdjust, Valve: "E1"}
	assert.Equal(t, "E1 waits for the shim of E2.", a.Headline(at).String())
	at.Valve = "E2"
	assert.Equal(t, "E2 waits for a shim of 2.53 mm.", a.Headline(at).String())
}
