package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// A number off a dial indicator decides like a drag; contradicting readings are pointed out, and the least
// trusted one withdrawn.
func TestDialAndWithdrawing(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Feel("E1", 350, clearance.Free)
	d.Do(job.Happening{Act: job.DialRead{Valve: "E1", Gap: 300 * um}})
	e1, _ := d.Job.Valve("E1")
	assert.NotEmpty(t, d.Job.Judge(e1).Conflict)
	d.Refused(job.Happening{Act: job.Kept{Valve: "E1"}}, "cannot all be true")
	d.Refused(job.Happening{Act: job.Withdrawn{Valve: "E1", Index: 2}}, "no reading 3")
	d.Do(job.Happening{Act: job.Withdrawn{Valve: "E1", Index: 0}})
	judged := d.Job.Judge(e1)
	assert.Equal(t, clearance.In, judged.Verdict)
	assert.Equal(t, 310*um, *judged.High, "± 10 µm where the dial's uncertainty is not stated")
	d.Refused(job.Happening{Act: job.DialRead{Valve: "E1", Gap: 12 * measure.Millimetre}},
		"Is the unit right?")
}

// The gap before and after the lock nut: by the leaf it was set by, or better by a reading with the nut
// loose.
func TestLockingIsLearned(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.ReadUntil(job.DoAdjust, func(valve string) (measure.Length, clearance.Feel) {
		if valve[0] == 'I' {
			return 220, clearance.Drag
		}
		return 250, clearance.Drag
	})
	set := func(by measure.Length, loose, locked measure.Length) {
		valve := d.Job.Next().Valve
		d.Do(job.Happening{Act: job.Adjusted{Valve: valve, Leaves: gauge.Straight(by * um)}})
		if loose > 0 {
			d.Feel(valve, loose, clearance.Drag)
		}
		d.Do(job.Happening{Act: job.Locked{Valve: valve}})
		d.Feel(valve, locked, clearance.Drag)
		d.Do(job.Happening{Act: job.Kept{Valve: valve}})
		if n := d.Job.Next(); n.Action == job.DoTurn {
			d.Do(job.Happening{Act: job.Turned{Stop: n.Stop}})
		}
	}
	set(300, 0, 290)
	d.Do(job.Happening{Act: job.HandedOver{To: "June"}})
	set(310, 320, 300)
	assert.Equal(t, []adjust.Pair{{Before: 300 * um, After: 290 * um}, {Before: 320 * um, After: 300 * um}},
		[]adjust.Pair{d.Job.LockPairs[0].Pair, d.Job.LockPairs[1].Pair})
	assert.Empty(t, d.Job.LockPairs[0].By, "by whoever began the job")
	assert.Equal(t, "June", d.Job.LockPairs[1].By)
}

// A shimmed engine: sizes written down, the whole engine worked over at once, good valves disturbed only by
// the plan.
func TestShimmedEngine(t *testing.T) {
	s := jobtest.Setup()
	s.Sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	d := jobtest.Start(t, s)
	d.Begin(sequence.OneCylinder)
	d.ReadUntil(job.DoAdjust, func(valve string) (measure.Length, clearance.Feel) {
		switch {
		case valve == "E1":
			return 200, clearance.Drag // 0.10 tight
		case valve == "E4":
			return 400, clearance.Drag // 0.10 loose
		case valve[0] == 'I':
			return 220, clearance.Drag
		}
		return 300, clearance.Drag
	})
	_, missing := d.Job.ChooseShims(nil, nil, adjust.FewestBought)
	assert.Equal(t, []string{"E1", "E4"}, missing, "only of the valves that are out must the size be known")
	d.Refused(job.Happening{Act: job.Sized{Valve: "E1", Shim: 0}}, "not the thickness of a shim")
	for _, v := range d.Job.Valves {
		size := measure.Length(2600)
		switch v.Name {
		case "E1":
			size = 2700
		case "E4":
			size = 2600
		}
		d.Do(job.Happening{Act: job.Sized{Valve: v.Name, Shim: size * um}})
	}
	plan, missing := d.Job.ChooseShims(nil, nil, adjust.FewestBought)
	assert.Empty(t, missing)
	assert.Empty(t, plan.Buy)
	from := map[string]string{}
	for _, f := range plan.Fit {
		from[f.Valve] = f.From
	}
	assert.Equal(t, "E1", from["E4"], "the thick one of E1 goes under E4")
	require.NotEqual(t, "E1", from["E1"])
	d.Do(job.Happening{Act: job.Turned{Stop: 2}})
	assert.Equal(t, "E4", d.Job.Next().Valve)
	d.Refused(job.Happening{Act: job.Adjusted{Valve: "E4"}}, "Say which shim")
	d.Refused(job.Happening{Act: job.Adjusted{Valve: "E4", Shim: 2700 * um, From: "I1"}},
		"I1 does not have a shim of 2.70 mm to give")
	d.Refused(job.Happening{Act: job.Adjusted{Valve: "E4", Shim: 2700 * um, From: "E1"}},
		"E1 is not clear of its lobe here")
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E4", Shim: 2700 * um, From: "E1", CamsOut: true}})
	d.Refused(job.Happening{Act: job.Turned{Stop: 0}}, "E1 has no shim")
	d.Refused(job.Happening{Act: job.Sized{Valve: "E1", Shim: 2600 * um}}, "taken out for another valve")
	next := d.Job.Next()
	assert.Equal(t, 2600*um, next.Shim.Shim)
	next.Shim = nil
	assert.Equal(t, job.Next{Action: job.DoAdjust, Valve: "E1", Stop: 2}, next,
		"the crank is not turned with a shim missing")
	assert.Equal(t, []measure.Length{2600 * um}, d.Job.LooseShims)
	plan, _ = d.Job.ChooseShims(nil, nil, adjust.FewestBought)
	for _, f := range plan.Fit {
		if f.Valve == "E1" {
			assert.Equal(t, adjust.Fit{Valve: "E1", Shim: 2600 * um, From: adjust.FromStock, Gap: 300 * um},
				f, "the one on the bench")
		} else {
			assert.Equal(t, f.Valve, f.From, "nothing else moves")
		}
	}
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E1", Shim: 2600 * um, CamsOut: true}})
	assert.Empty(t, d.Job.LooseShims)
	assert.Empty(t, d.Job.FromShop)
	for range 2 {
		next := d.Job.Next()
		if next.Action == job.DoTurn {
			d.Do(job.Happening{Act: job.Turned{Stop: next.Stop}})
			next = d.Job.Next()
		}
		require.Equal(t, job.DoRead, next.Action, "no nut to lock: read it again")
		d.Feel(next.Valve, 300, clearance.Drag)
		d.Do(job.Happening{Act: job.Kept{Valve: next.Valve}})
	}
	assert.Equal(t, job.Verify, d.Job.Phase())
	assert.Equal(t, job.DoRead, d.Job.Next().Action, "those that kept their shims were turned over twice")
}

// The loose end lies a feel and an unchecked leaf below the upper limit, so that a valve set there reads in
// for sure.
func TestLooseEnd(t *testing.T) {
	s := jobtest.Setup()
	s.Aim = clearance.AimLoose
	d := jobtest.Start(t, s)
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, 310*um, d.Job.AimOf(e1))
}

// A shim is reckoned from a figure: a valve that is out is read on until a leaf drags, or none lies between
// any more.
func TestShimmedEngineIsReadToAFigure(t *testing.T) {
	s := jobtest.Setup()
	s.Sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	d := jobtest.Start(t, s)
	d.Begin(sequence.OneCylinder)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Feel("E1", 280, clearance.WontGo)
	e1, _ := d.Job.Valve("E1")
	judged := d.Job.Judge(e1)
	assert.Equal(t, clearance.Tight, judged.Verdict)
	require.NotNil(t, judged.TryNext)
	assert.Equal(t, job.DoRead, d.Job.Next().Action)
	// a hidden gap of 0.155, between two leaves
	for d.Job.Next().Action == job.DoRead && d.Job.Next().Valve == "E1" {
		leaf := d.Job.Judge(e1).TryNext.Thickness() / um
		feel := clearance.Free
		if leaf > 155 {
			feel = clearance.WontGo
		}
		d.Feel("E1", leaf, feel)
		require.Less(t, len(e1.Round), 8)
	}
	assert.Equal(t, job.DoKeep, d.Job.Next().Action)
	judged = d.Job.Judge(e1)
	assert.Equal(t, 145*um, judged.Low)
	assert.Equal(t, 165*um, *judged.High)
}

// A size that was written down wrong is corrected, and the shim wanted is reckoned with the right one: 2.80 +
// 0.42 − 0.30 = 2.92, by hand.
func TestACorrectedSizeCounts(t *testing.T) {
	d := shimmedWith(t, "E1", 420, nil)
	d.Do(job.Happening{Act: job.Sized{Valve: "E1", Shim: 2600 * um}})
	d.Do(job.Happening{Act: job.Sized{Valve: "E1", Shim: 2800 * um}})
	plan, missing := d.Job.ChooseShims(
		[]measure.Length{2700 * um, 2900 * um, 2920 * um},
		nil,
		adjust.FewestBought,
	)
	require.Empty(t, missing)
	assert.Equal(t, adjust.Fit{Valve: "E1", Shim: 2920 * um, From: adjust.FromStock, Gap: 300 * um,
		Bought: true}, plan.Fit[0])
}

// A shim of the size that is fitted already is that shim: none comes onto the bench, none from the shop.
func TestNoPhantomShim(t *testing.T) {
	d := shimmedWith(t, "E1", 420, nil)
	d.Do(job.Happening{Act: job.Sized{Valve: "E1", Shim: 2600 * um}})
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E1", Shim: 2600 * um}})
	assert.Empty(t, d.Job.LooseShims)
	assert.Empty(t, d.Job.FromShop)
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E1", Shim: 2700 * um}})
	assert.Equal(t, []measure.Length{2600 * um}, d.Job.LooseShims)
	assert.Equal(t, []job.ShopShim{{Shim: 2700 * um}}, d.Job.FromShop)
}

// A valve that no leaf decides keeps its shim by the plan: it is left with a reason, or gets another shim all
// the same.
func TestAnUndecidedShimmedValveHasAWayOn(t *testing.T) {
	owned := gauge.Set{gauge.Plain(220 * um), gauge.Plain(240 * um), gauge.Plain(260 * um),
		gauge.Plain(310 * um), gauge.Plain(400 * um)}
	d := shimmedWith(t, "E1", 0, owned) // free at 0.26, won't go at 0.31: between, 0.28 to 0.32 is undecided
	assert.Equal(t, job.Next{Action: job.DoAdjust, Valve: "E1", Stop: 0}, d.Job.Next())
	d.Do(job.Happening{Act: job.Sized{Valve: "E1", Shim: 2600 * um}})
	plan, _ := d.Job.ChooseShims([]measure.Length{2600 * um}, nil, adjust.FewestBought)
	require.Len(t, plan.Impossible, 1)
	assert.Contains(t, plan.Impossible[0].Reason, "known to ±",
		"no shim leaves what is known so little surely in")
	other := *d
	other.Do(job.Happening{Act: job.LeftAsIs{Valve: "E1", Reason: "no leaf between"}})
	assert.Equal(t, job.DoSign, other.Job.Next().Action)
}

// By the guarded rule the leaves that were tried are not asked for again and again: the round goes on to the
// leaf that drags.
func TestGuardedShimmedReadingComesToAnEnd(t *testing.T) {
	s := jobtest.Setup()
	s.Sheet.Adjuster, s.Rule = &engine.Adjuster{Kind: gear.Shim}, clearance.Guarded
	d := jobtest.Start(t, s)
	d.Begin(sequence.OneCylinder)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	steps := 0
	// a hidden gap of 0.322, a hair over 0.32
	for d.Job.Next().Valve == "E1" && d.Job.Next().Action != job.DoAdjust {
		require.Less(t, steps, 12, "the same leaves for ever")
		steps++
		if d.Job.Next().Action == job.DoKeep {
			d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
			continue
		}
		e1, _ := d.Job.Valve("E1")
		leaf := d.Job.Judge(e1).TryNext
		require.NotNil(t, leaf)
		switch t := leaf.Thickness() / um; {
		case t < 317:
			d.Feel("E1", t, clearance.Free)
		case t > 327:
			d.Feel("E1", t, clearance.WontGo)
		default:
			d.Feel("E1", t, clearance.Drag)
		}
	}
	e1, _ := d.Job.Valve("E1")
	require.NotNil(t, e1.Last)
	assert.NotNil(t, e1.Last.Judgement.Estimate)
}

// shimmedWith is a shimmed four whose valve reads a gap (0: free at the leaf below, stopped by the one
// above), all others being in.
func shimmedWith(t *testing.T, out string, gap measure.Length, owned gauge.Set) *jobtest.Driver {
	t.Helper()
	s := jobtest.Setup()
	s.Sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	if owned != nil {
		s.Owned = owned
	}
	d := jobtest.Start(t, s)
	d.Begin(sequence.OneCylinder)
	for range 200 {
		n := d.Job.Next()
		switch n.Action {
		case job.DoTurn:
			d.Do(job.Happening{Act: job.Turned{Stop: n.Stop}})
		case job.DoKeep:
			d.Do(job.Happening{Act: job.Kept{Valve: n.Valve}})
		case job.DoRead:
			if n.Valve == out && gap == 0 {
				v, _ := d.Job.Valve(n.Valve)
				leaf := d.Job.Judge(v).TryNext.Thickness() / um
				d.Feel(n.Valve, leaf, map[bool]clearance.Feel{true: clearance.Free,
					false: clearance.WontGo}[leaf < 300])
				continue
			}
			d.Feel(
				n.Valve,
				map[bool]measure.Length{true: gap, false: jobtest.Nominal(n.Valve)}[n.Valve == out],
				clearance.Drag,
			)
		default:
			if n.Action == job.DoAdjust && d.Job.Stop != 0 && out == "E1" {
				d.Do(job.Happening{Act: job.Turned{Stop: 0}})
			}
			return d
		}
	}
	t.Fatal("never read")
	return nil
}

// A number with the nut slack that no leaf gave teaches nothing: the gap before locking is not known.
func TestADeniedGapTeachesNoShift(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.ReadUntil(job.DoAdjust, func(valve string) (measure.Length, clearance.Feel) {
		return map[bool]measure.Length{true: 250, false: jobtest.Nominal(valve)}[valve == "E1"], clearance.Drag
	})
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E1", Leaves: gauge.Straight(300 * um)}})
	d.Feel("E1", 300, clearance.Free) // it is wider than what it was set by
	d.Do(job.Happening{Act: job.Locked{Valve: "E1"}})
	d.Feel("E1", 300, clearance.Drag)
	d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
	assert.Empty(t, d.Job.LockPairs)
}
