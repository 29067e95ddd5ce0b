package job_test

import (
	"fmt"
	"hash/fnv"
	"math/rand/v2"
	"testing"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/core/sequence"
	"metronix/internal/golden"
)

// Engines with shims, worn by chance, their valves read by leaf and dial, worked on as it is led with what
// the shop has: little, or none; some valves are looked at out of turn, sized anew, or fitted as somebody
// pleases. What is chosen, in which steps, what is next and what is known of each seat stay as they were.
func TestShimJobsStay(t *testing.T) {
	t.Parallel()
	var lines []string
	for i := range 60 {
		c := &shimmer{
			wild{
				chanced{
					t:      t,
					chance: rand.New(rand.NewPCG(uint64(i), 99)),
					gaps:   map[string]measure.Length{},
				},
			},
		}
		lines = append(lines, fmt.Sprintf("job %d: %s", i, c.job(i)))
	}
	golden.Hold(t, "shims", lines)
}

type shimmer struct{ wild }

// seat is shim and gap together, as they truly are.
type seat map[string]measure.Length

// begun is the job before anything is read, and the seats as they truly are.
func (c *shimmer) begun(i int) (job.Shop, seat) {
	s := c.chanced.setup(4 * i)
	s.Card, s.Hot = jobtest.Setup().Card, nil
	s.Sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	c.d = jobtest.Start(c.t, s)
	shop := job.Shop{}
	for size := 2400 * um; size <= 3000*um; size += 50 * um {
		shop.Sizes = append(shop.Sizes, size)
		if n := c.chance.IntN(3); i%4 > 0 && n > 0 {
			shop.Stock = append(shop.Stock, adjust.Count{Shim: size, N: n})
		}
	}
	c.d.Job.Supply(shop)
	seats := seat{}
	c.d.Begin([]sequence.School{sequence.OneCylinder, sequence.FewestStops, sequence.TwoStop}[i%3])
	for _, v := range c.d.Job.Valves {
		size := measure.Length(2500+50*c.chance.IntN(9)) * um
		seats[v.Name] = size + v.Limits.Nominal + measure.Length(c.chance.IntN(17)-8)*10*um
		if c.chance.IntN(8) > 0 {
			c.d.Do(job.Happening{Act: job.Sized{Valve: v.Name, Shim: size}})
		}
		c.gaps[v.Name] = size
	}
	return shop, seats
}

func (c *shimmer) job(i int) string {
	shop, seats := c.begun(i)
	h := fnv.New64a()
	for n := 0; n < 140 && c.d.Job.Phase() != job.Done; n++ {
		act := c.led(seats)
		if c.chance.IntN(9) == 0 {
			act = c.pleased()
		}
		err := c.d.Try(job.Happening{Act: act})
		if a, ok := act.(job.Adjusted); ok && err == nil && a.Shim > 0 {
			c.gaps[a.Valve] = a.Shim
		}
		j := c.d.Job
		next := j.Next()
		fmt.Fprintln(
			h,
			act.Kind(),
			act.On(),
			err,
			next.Action,
			next.Valve,
			next.Stop,
			next.Turn,
			next.Confirm,
			j.Phase(),
		)
		if next.Shim != nil {
			fmt.Fprintln(h, *next.Shim)
		}
		fmt.Fprintln(h, j.Steps(), j.CountsOn(), j.LooseShims, j.FromShop, len(j.Unanswered()))
		for _, prefer := range []adjust.Prefer{adjust.FewestBought, adjust.NearestAim} {
			p, err := j.ChooseShims(shop.Sizes, shop.Stock, prefer)
			fmt.Fprintf(h, "%+v %v\n", p, err)
		}
		for _, v := range j.Valves {
			fmt.Fprintln(
				h,
				v.Name,
				v.Shim,
				v.Out,
				v.StandIn,
				v.Verified,
				j.Found(v).Verdict,
				j.Judge(v).TryNext,
				record.Of(j).Done(v),
			)
		}
	}
	return fmt.Sprintf("%d acts, %s, %x", len(c.d.List), c.d.Job.Phase(), h.Sum64())
}

// led is what is next, truly done.
func (c *shimmer) led(seats seat) job.Act {
	n := c.d.Job.Next()
	gap := max(0, seats[n.Valve]-c.gaps[n.Valve])
	switch n.Action {
	case job.DoRead:
		v, _ := c.d.Job.Valve(n.Valve)
		if leaf := c.d.Job.Judge(v).TryNext; leaf != nil && c.chance.IntN(2) == 0 {
			feel := clearance.Drag
			if d := gap - leaf.Thickness(); d > 5*um {
				feel = clearance.Free
			} else if d < -5*um {
				feel = clearance.WontGo
			}
			var ids []gauge.ID
			for _, l := range leaf {
				ids = append(ids, l.ID)
			}
			return job.ReadingTaken{Valve: n.Valve, Leaves: ids, Feel: feel, KeepSure: c.chance.IntN(2) == 0}
		}
		return job.DialRead{Valve: n.Valve, Gap: gap, Uncertainty: measure.Length(1+c.chance.IntN(20)) * um}
	case job.DoAdjust:
		switch {
		case n.Shim == nil && c.known(n.Valve):
			return job.LeftAsIs{Valve: n.Valve, Reason: "none serves"}
		case n.Shim == nil:
			return job.Sized{Valve: n.Valve, Shim: c.gaps[n.Valve]}
		}
		shim := n.Shim.Shim
		if shim == 0 {
			shim = n.Shim.Most - measure.Length(c.chance.IntN(3))*50*um
		}
		return job.Adjusted{
			Valve:   n.Shim.Valve,
			Shim:    shim,
			From:    n.Shim.From,
			StandIn: n.Shim.Do == job.FitStandIn,
		}
	}
	return c.next()
}

func (c *shimmer) known(valve string) bool {
	v, ok := c.d.Job.Valve(valve)
	return ok && v.Shim > 0
}

// pleased is what somebody does who knows better.
func (c *shimmer) pleased() job.Act {
	valves := c.d.Job.Valves
	v := valves[c.chance.IntN(len(valves))]
	size := measure.Length(2400+50*c.chance.IntN(12)) * um
	switch c.chance.IntN(9) {
	case 0:
		return job.Picked{Valve: v.Name}
	case 1:
		return job.Sized{Valve: v.Name, Shim: size, Stamped: size + 10*um}
	case 2:
		return job.ShimsChosen{Prefer: adjust.NearestAim, CamsOut: c.chance.IntN(3) == 0}
	case 3:
		return job.Undone{Target: c.d.Job.CanUndo()}
	case 4:
		return job.Adjusted{Valve: v.Name, Shim: c.gaps[v.Name]}
	case 5:
		return job.Adjusted{Valve: v.Name, Shim: size, From: valves[0].Name}
	case 6:
		return job.Doubted{}
	case 7:
		return job.Turned{Stop: c.chance.IntN(4)}
	}
	return job.Adjusted{Valve: v.Name, Shim: size, StandIn: true}
}
