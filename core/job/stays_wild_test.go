package job_test

import (
	"fmt"
	"hash/fnv"
	"math/rand/v2"
	"testing"
	"time"

	"metronix/core/adjust"
	"metronix/core/bench"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/core/rehearse"
	"metronix/core/sequence"
	"metronix/internal/golden"
)

// Jobs at which two are at work with slow clocks and a bad line, with few leaves and stacks of them, by the
// maker's own order too: what is queued comes late and knows little, the crank is found between stops, parts
// of the engine are gone round by themselves. A line is a job, and its sum is over all that every act was
// answered with and all that was then said.
func TestWildJobsStay(t *testing.T) {
	t.Parallel()
	var lines []string
	for i := range 36 {
		c := &wild{
			chanced{t: t, chance: rand.New(rand.NewPCG(uint64(i), 4711)), gaps: map[string]measure.Length{}},
		}
		lines = append(lines, fmt.Sprintf("job %d: %s", i, c.job(i)))
	}
	golden.Hold(t, "wild", lines)
}

type wild struct{ chanced }

func (c *wild) setup(i int) job.Setup {
	s := c.chanced.setup(i)
	if i%3 != 0 { // few leaves: much is a stack
		s.Owned = nil
		for _, m := range []measure.Length{40, 50, 80, 100, 150, 200, 250, 300, 400}[i%3:] {
			s.Owned = append(s.Owned, gauge.Leaf{ID: gauge.ID{Marked: m * um, Angled: m == 80}})
		}
	}
	if i%4 == 0 {
		names := []string{}
		for _, v := range s.Sheet.Valves() {
			names = append(names, v.Name)
		}
		s.Sheet.OwnSequence = nil
		for n := 0; n < len(names); n += 2 {
			s.Sheet.OwnSequence = append(
				s.Sheet.OwnSequence,
				engine.OwnStop{Crank: measure.Angle(n*85) * measure.Degree,
					Set: names[n:min(n+2, len(names))]},
			)
		}
	}
	return s
}

func (c *wild) job(i int) string {
	c.d, c.now = jobtest.Start(c.t, c.setup(i)), noon
	shop := job.Shop{}
	for size := 2000 * um; size <= 3200*um; size += 50 * um {
		shop.Sizes, shop.Stock = append(
			shop.Sizes,
			size,
		), append(
			shop.Stock,
			adjust.Count{Shim: size, N: i % 3},
		)
	}
	c.d.Job.Supply(shop)
	for _, v := range c.d.Job.Valves {
		c.gaps[v.Name] = max(10*um, v.Limits.Nominal+measure.Length(c.chance.IntN(15)-7)*10*um)
	}
	h := fnv.New64a()
	for n := 0; n < 110 && c.d.Job.Phase() != job.Done; n++ {
		c.now = c.now.Add(time.Duration(1+c.chance.IntN(90)) * time.Second)
		act := c.next()
		switch c.chance.IntN(12) {
		case 0, 1:
			act = c.other()
		case 2, 3:
			act = c.odd()
		}
		entry := job.Happening{At: c.now, Act: act}
		if len(c.d.List) > 0 && c.chance.IntN(6) == 0 { // it waited to be sent
			entry.Since = c.d.List[c.chance.IntN(len(c.d.List))].ID
			entry.DoneAt = c.now.Add(-time.Duration(c.chance.IntN(400)) * time.Second)
		}
		if c.chance.IntN(40) == 0 {
			c.now = c.now.Add(time.Duration(4+c.chance.IntN(5)) * time.Hour)
		}
		err := c.d.Try(entry)
		next := c.d.Job.Next()
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
		)
		if next.Shim != nil {
			fmt.Fprintln(h, *next.Shim)
		}
		if n%9 == 0 {
			fmt.Fprintln(h, c.sum(), c.more())
		}
	}
	return fmt.Sprintf("%d acts, %s, %x", len(c.d.List), c.d.Job.Phase(), h.Sum64())
}

// odd is what does not happen in most jobs.
func (c *wild) odd() job.Act {
	valves := c.d.Job.Valves
	v := valves[c.chance.IntN(len(valves))]
	crank := measure.Angle(c.chance.IntN(720)) * measure.Degree
	switch c.chance.IntN(16) {
	case 0:
		return job.Located{
			Seen: []sequence.Sighting{{What: sequence.Loose, Valve: v.Name}, {What: sequence.Mark}},
		}
	case 1:
		return job.Located{
			Seen: []sequence.Sighting{{What: []sequence.What{sequence.FullLift, sequence.Opening,
				sequence.Closing, sequence.Pressed, sequence.LobeAway}[c.chance.IntN(5)], Valve: v.Name}},
		}
	case 2:
		return job.Located{Seen: []sequence.Sighting{{What: sequence.Rocking, Cylinder: v.Cylinder}}}
	case 3:
		return job.Located{Seen: []sequence.Sighting{{What: sequence.Degrees, Mark: crank % measure.Turn},
			{What: sequence.Loose, Valve: v.Name}}}
	case 4:
		return job.ReadingTaken{
			Valve:     v.Name,
			Leaves:    gauge.Straight(200*um, 100*um),
			MadeThere: c.chance.IntN(2) == 0,
			Feel:      c.felt(v.Name, 300*um),
		}
	case 5:
		leaf := c.gaps[v.Name] + measure.Length(c.chance.IntN(7)-3)*10*um
		return job.ReadingTaken{
			Valve:    v.Name,
			Leaves:   gauge.Straight(leaf),
			Feel:     c.felt(v.Name, leaf),
			KeepSure: true,
		}
	case 6:
		return job.RoundChosen{
			Round: job.Round{Going: job.SetAsYouGo, CheckTurns: 4, Scope: []string{v.Name, valves[0].Name},
				OwnShift: new(measure.Length(c.chance.IntN(7)-3) * 10 * um)},
		}
	case 7:
		return job.Freed{Valve: v.Name}
	case 8:
		return job.Sized{Valve: v.Name, Shim: measure.Length(2400+50*c.chance.IntN(10)) * um}
	case 9:
		return job.BarredOver{}
	case 10:
		return job.Adjusted{
			Valve:   v.Name,
			Shim:    measure.Length(2400+50*c.chance.IntN(10)) * um,
			StandIn: c.chance.IntN(2) == 0,
		}
	case 11:
		return job.WayChosen{Way: sequence.Way{School: sequence.Own}, Round: job.Round{Going: job.ReadFirst}}
	case 12:
		return job.RoundChosen{Round: job.Round{Going: job.FreeFirst}}
	case 13:
		return job.Kept{Valve: v.Name}
	case 14:
		return job.LeftAsIs{
			Valve:    v.Name,
			Deferred: job.Deferral{Waits: job.WaitsForDate, Until: "2027-03-01"},
		}
	}
	return job.Withdrawn{Valve: v.Name, Index: c.chance.IntN(3)}
}

// more is a checksum over what is said besides: in hands of several habits, of what is seen, and of each
// valve.
func (c *wild) more() uint64 {
	j := c.d.Job.AsOf(c.now)
	h := fnv.New64a()
	for _, shift := range []adjust.Shift{{}, {Way: adjust.Closes}, {Enough: true, Median: -20 * um, Spread: 10 * um},
		{Enough: true, Median: 20 * um, Spread: 60 * um}} {
		a := bench.Advise(j, shift)
		for _, v := range j.Valves {
			pre, ok := a.PreLock(v)
			down, up, proved := a.CrossCheck(v)
			fmt.Fprintln(h, v.Name, pre, ok, a.SetBy(v), a.NutSays(v), down, up, proved)
			for _, r := range a.Ladder(v) {
				fmt.Fprintln(h, r.Stack, r.Near, r.InWindow, r.SetBy, r.First, r.Other != nil)
			}
		}
	}
	for _, v := range j.Valves {
		turn, ok := bench.Screw(j, v)
		fmt.Fprintln(
			h,
			j.MaySet(v),
			j.MaySetThough(v),
			j.Caution(v),
			j.Settable(v),
			j.ByMaker(v),
			j.Pending(v),
			record.Of(j).Done(v),
			turn,
			ok,
			j.Judge(v).Why(v.Round, ""),
			v.Shim,
			v.Out,
			v.Verified,
			v.AsFound != nil,
			v.Last != nil,
		)
		if j.Known() {
			fmt.Fprintln(h, j.Margin(v))
		}
		if v.Cylinder == 1 {
			f, err := j.Find([]sequence.Sighting{{What: sequence.FullLift, Valve: v.Name}})
			fmt.Fprintln(
				h,
				f.OneTurnOut,
				f.Doubts,
				f.Known,
				f.Crank,
				f.Next.Action,
				f.Next.Valve,
				f.Next.Stop,
				f.Turn,
				err,
			)
		}
	}
	r := record.Of(j).Report(record.Record{Vehicle: "Tipper", CreatedAt: noon})
	fmt.Fprintln(h, r.Found, len(r.Facts), len(r.Lists))
	for _, row := range r.Rows {
		fmt.Fprintln(h, row.Done, said(row.Cold), said(row.Found), said(row.Left))
	}
	if clearance.Hot == j.Card.State {
		f, ok := rehearse.Forecast(j)
		fmt.Fprintln(h, f, ok)
	}
	return h.Sum64()
}

func said(c *record.Cell) string {
	if c == nil {
		return ""
	}
	return fmt.Sprintf("%+v", *c)
}
