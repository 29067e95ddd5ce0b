package job_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

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

// shimsRead is a shimmed four, read by a dial over the whole engine: the sizes under its valves and the gaps
// over them, in micrometres; a valve that is not named has 2.70 and is at its aim.
func shimsRead(
	t require.TestingT,
	school sequence.School,
	sizes, gaps map[string]measure.Length,
) *jobtest.Driver {
	s := jobtest.Setup()
	sheet := *s.Sheet
	sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	s.Sheet = &sheet
	d := jobtest.Start(t, s)
	d.Begin(school)
	for _, v := range d.Job.Valves {
		size, ok := sizes[v.Name]
		if !ok {
			size = 2700
		}
		d.Do(job.Happening{Act: job.Sized{Valve: v.Name, Shim: size * um}})
	}
	for range 100 {
		if d.Job.Phase() == job.Adjust {
			return d
		}
		switch n := d.Job.Next(); n.Action {
		case job.DoTurn:
			d.Do(job.Happening{Act: job.Turned{Stop: n.Stop}})
		case job.DoKeep:
			d.Do(job.Happening{Act: job.Kept{Valve: n.Valve}})
		case job.DoRead:
			gap, ok := gaps[n.Valve]
			if !ok {
				gap = jobtest.Nominal(n.Valve)
			}
			d.Do(job.Happening{Act: job.DialRead{Valve: n.Valve, Gap: gap * um, Uncertainty: 1 * um}})
		default:
			return d
		}
	}
	return d
}

func says(steps []job.ShimStep) (list []string) {
	for _, s := range steps {
		switch s.Do {
		case job.TurnOn:
			list = append(list, fmt.Sprintf("turn %s", s.Turn))
		default:
			list = append(list, fmt.Sprintf("%s %s %s %s%s", s.Do, s.Valve, s.Shim, s.Source, s.From))
		}
	}
	return list
}

func plan(d *jobtest.Driver, shop ...measure.Length) ([]job.ShimStep, []adjust.Count) {
	var stock []adjust.Count
	for _, s := range shop {
		stock = append(stock, adjust.Count{Shim: s * um, N: 1})
	}
	p, _ := d.Job.ChooseShims(nil, stock, adjust.FewestBought)
	return d.Job.ShimSteps(p, stock, false), stock
}

// Two valves whose shims change places: clear together they are opened together; clear at different stops a
// shim stands in, so that the crank is never turned with one missing (common practice). E1 and I1 stand clear
// at the stop of cylinder 1, I1 and I4 at no stop together; the last stop is cylinder 2's, where I4 is at its
// own 180° and shut. By hand: I1 has 2.70 and is 0.05 loose, so it wants 2.75; the other has 2.75 and is 0.05
// tight, so it wants 2.70.
func TestShimsThatChangePlaces(t *testing.T) {
	together := shimsRead(t, sequence.OneCylinder, map[string]measure.Length{"E1": 2750},
		map[string]measure.Length{"I1": 270, "E1": 250})
	steps, _ := plan(together)
	assert.Equal(t, []string{"turn 180°", "fit E1 2.70 mm valveI1", "fit I1 2.75 mm bench"}, says(steps))

	apart := shimsRead(t, sequence.OneCylinder, map[string]measure.Length{"I4": 2750},
		map[string]measure.Length{"I1": 270, "I4": 170})
	steps, _ = plan(apart)
	assert.Equal(t, []string{"stand_in I4 0.00 mm ", "turn 180°", "fit I1 2.75 mm bench", "turn 360°",
		"fit I4 2.70 mm bench"}, says(steps))
	steps, _ = plan(apart, 2650, 2900)
	assert.Equal(t, 2650*um, steps[0].Shim, "one of the shop's that is not thicker")

	// a chain that begins on the bench needs neither
	chain := shimsRead(t, sequence.OneCylinder, map[string]measure.Length{"I4": 2750},
		map[string]measure.Length{"I1": 270, "I4": 120})
	steps, _ = plan(chain, 2650)
	assert.Equal(t, []string{"fit I4 2.65 mm shop", "turn 180°", "fit I1 2.75 mm bench"}, says(steps))
}

// Whatever is worn, following the steps one by one is never refused, never turns the crank with a shim
// missing, and ends with everything done that is to be had.
func TestShimStepsLeadToTheEnd(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		sizes, gaps := map[string]measure.Length{}, map[string]measure.Length{}
		for _, name := range []string{"E1", "I1", "I2", "E2", "E3", "I3", "I4", "E4"} {
			sizes[name] = measure.Length(rapid.IntRange(52, 58).Draw(t, "size")) * 50
			gaps[name] = jobtest.Nominal(name) + measure.Length(rapid.SampledFrom([]int{0, 0, 0, 50, -50, 100,
				-100}).Draw(t, "off"))
		}
		d := shimsRead(t, rapid.SampledFrom([]sequence.School{sequence.OneCylinder, sequence.TwoStop,
			sequence.OneLobe}).Draw(t, "school"), sizes, gaps)
		shop := []measure.Length{2400, 2650, 2800}
		for range 80 {
			stock := shop
			for _, s := range d.Job.FromShop {
				for i, has := range stock {
					if has*um == s.Shim {
						stock = append(append([]measure.Length{}, stock[:i]...), stock[i+1:]...)
						break
					}
				}
			}
			steps, counts := plan(d, stock...)
			if len(steps) == 0 {
				p, _ := d.Job.ChooseShims(nil, counts, adjust.FewestBought)
				for _, f := range p.Fit {
					assert.Equal(t, f.Valve, f.From, "%s is left undone", f.Valve)
				}
				for _, v := range d.Job.Valves {
					assert.False(t, v.Out, v.Name)
					served := slices.ContainsFunc(p.Fit, func(f adjust.Fit) bool { return f.Valve == v.Name })
					assert.False(t, v.StandIn && served, "%s has a stand-in, and its shim is to hand", v.Name)
				}
				return
			}
			switch s := steps[0]; s.Do {
			case job.TurnOn:
				d.Do(job.Happening{Act: job.Turned{Stop: s.Stop}})
			default:
				require.Positive(t, s.Shim, "2.40 serves as a stand-in for all")
				d.Do(job.Happening{Act: job.Adjusted{Valve: s.Valve, Shim: s.Shim, From: s.From,
					StandIn: s.Do == job.FitStandIn}})
			}
		}
		t.Fatalf("the work does not come to an end")
	})
}

func TestAStandInIsNoSetting(t *testing.T) {
	d := shimsRead(t, sequence.OneCylinder, map[string]measure.Length{"I4": 2750},
		map[string]measure.Length{"I1": 270, "I4": 170})
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Refused(job.Happening{Act: job.Adjusted{Valve: "I1", Shim: 2750 * um, StandIn: true}},
		"is thicker than")
	d.Do(job.Happening{Act: job.Adjusted{Valve: "I1", Shim: 2600 * um, StandIn: true}})
	i1, _ := d.Job.Valve("I1")
	assert.True(t, i1.Needs())
	assert.Zero(t, i1.Adjustments)
	assert.Equal(t, []measure.Length{2700 * um}, d.Job.LooseShims)
	assert.Len(t, d.Job.FromShop, 1)
	d.Refused(job.Happening{Act: job.LeftAsIs{Valve: "I1", Reason: "tired"}}, "Fit the one that stays first")
	d.Do(job.Happening{Act: job.Adjusted{Valve: "I1", Shim: 2700 * um}})
	i1, _ = d.Job.Valve("I1")
	assert.False(t, i1.StandIn)
	assert.Empty(t, d.Job.LooseShims)
	assert.Empty(t, d.Job.FromShop, "it went back to the shop")

	screws := jobtest.Start(t, jobtest.Setup())
	screws.Begin(sequence.OneCylinder)
	screws.Do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo}}})
	screws.Do(job.Happening{Act: job.Turned{Stop: 0}})
	screws.Feel("E1", 250, clearance.Drag)
	screws.Refused(job.Happening{Act: job.Adjusted{Valve: "E1", Leaves: gauge.Straight(300 * um),
		StandIn: true}},
		"Only where a known shim")
}
