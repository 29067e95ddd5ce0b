package job_test

import (
	"fmt"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"metronix/core/adjust"
	"metronix/core/bench"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/gauge"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/core/sequence"
)

// chanced is somebody who does what is next, or something else.
type chanced struct {
	t      *testing.T
	chance *rand.Rand
	d      *jobtest.Driver
	gaps   map[string]measure.Length
	now    time.Time
}

func (c *chanced) setup(i int) job.Setup {
	s := jobtest.Setup()
	switch i % 6 {
	case 1:
		s.Sheet = enginetest.Crossflow([]int{1, 3, 4, 2}, "IIIIIIII", "EEEEEEEE")
	case 2:
		s.Sheet = enginetest.Inline([]int{1, 2}, "EIEI")
		s.Sheet.FiringAngles = enginetest.Degrees(0, 270)
	case 3:
		s.Sheet = enginetest.Inline([]int{1, 2, 4, 5, 3}, "EIEIEIEIEI")
		s.Sheet.OwnSequence = []engine.OwnStop{{Crank: 0, Set: []string{"E1", "I1"}}}
	case 4:
		s.Sheet = enginetest.Inline([]int{1, 3, 2}, "EIEIEI")
	}
	s.Sheet.Adjuster = []*engine.Adjuster{{Kind: gear.ScrewValveEnd, Pitch: measure.Millimetre}, {Kind: gear.Shim},
		{Kind: gear.Eccentric, Eccentricity: measure.Millimetre}, nil, {Kind: gear.Shim}}[i%5]
	s.Sheet.Closing = &engine.Closing{
		Bolts:         8,
		Rounds:        2,
		OpenMinutes:   8,
		CureMinutes:   240,
		SealantPoints: []string{"cap"},
	}
	s.Sheet.StripList = []engine.StripStep{{Text: "connector"}, {Text: "hose", SocketMM: 10}}
	s.Rule = []clearance.Rule{"", clearance.Guarded, clearance.OneLeaf}[i%3]
	s.Aim = []clearance.Aim{"", clearance.AimLoose}[i%2]
	hot := jobtest.Card(clearance.Hot, 230, 310)
	switch i % 4 {
	case 1:
		s.Card = hot
	case 2:
		s.Hot = &hot
	case 3:
		s.Card.StoneCold = true
	}
	return s
}

func (c *chanced) job(i int) (lines []string) {
	c.d, c.now = jobtest.Start(c.t, c.setup(i)), noon
	shop := job.Shop{}
	for size := 2000 * um; size <= 3200*um; size += 50 * um {
		shop.Sizes, shop.Stock = append(shop.Sizes, size), append(shop.Stock, adjust.Count{Shim: size, N: 1})
	}
	c.d.Job.Supply(shop)
	for _, v := range c.d.Job.Valves {
		c.gaps[v.Name] = v.Limits.Nominal + measure.Length(c.chance.IntN(15)-7)*10*um
	}
	for n := 0; n < 60 && c.d.Job.Phase() != job.Done; n++ {
		c.now = c.now.Add(time.Duration(5+c.chance.IntN(60)) * time.Second)
		act := c.next()
		if c.chance.IntN(7) == 0 {
			act = c.other()
		}
		err := c.d.Try(job.Happening{At: c.now, Act: act})
		after := c.d.Job.Next()
		lines = append(
			lines,
			fmt.Sprintf("%s %s: %v; %s %s %d %v, %x", act.Kind(), act.On(), err, after.Action, after.Valve,
				after.Stop, after.Turn, c.sum()),
		)
	}
	j, err := job.Replay(c.setup(i), c.d.List)
	require.NoError(c.t, err)
	found, ok := record.Of(j).Visit()
	tight, loose := record.Of(j).FoundOut()
	return append(
		lines,
		fmt.Sprintf("%v %s %d tight %d loose %v", ok, j.Outcome(), tight, loose, len(found.Valves)),
	)
}

// next is what is next, as whoever does it truly would.
func (c *chanced) next() job.Act {
	j := c.d.Job.AsOf(c.now)
	n := j.Next()
	v, _ := j.Valve(n.Valve)
	switch n.Action {
	case job.DoChooseWay:
		return c.choose()
	case job.DoPrepare:
		return c.prepare(j)
	case job.DoTurn:
		return job.Turned{Stop: n.Stop}
	case job.DoFree:
		return job.Freed{Valve: n.Valve}
	case job.DoRead:
		leaf := j.Judge(v).TryNext
		if leaf == nil {
			leaf = gauge.Stack{gauge.Plain(j.AimOf(v))}
		}
		var ids []gauge.ID
		for _, l := range leaf {
			ids = append(ids, l.ID)
		}
		return job.ReadingTaken{
			Valve:    v.Name,
			Leaves:   ids,
			Feel:     c.felt(v.Name, leaf.Thickness()),
			KeepSure: c.chance.IntN(2) == 0,
		}
	case job.DoKeep:
		return job.Kept{Valve: n.Valve}
	case job.DoAdjust:
		return c.adjust(n, v)
	case job.DoLock:
		c.gaps[v.Name] += measure.Length(c.chance.IntN(5)-3) * 5 * um
		if j.Locking == job.InTwoGoes && !v.Nipped {
			return job.Nipped{Valve: n.Valve}
		}
		return job.Locked{Valve: n.Valve}
	case job.DoBarOver:
		return job.BarredOver{Stop: &n.Stop}
	case job.DoSign:
		if out := j.Unanswered(); len(out) > 0 {
			return job.LeftAsIs{Valve: out[0].Name, Reason: "another day"}
		}
		return job.Signed{By: "Tess", ToolsOut: true, Exceptions: "none"}
	case job.DoGoHot:
		return job.WentHot{}
	}
	return job.Doubted{}
}

func (c *chanced) choose() job.Act {
	goings := c.d.Job.Rounds()
	return job.WayChosen{
		Way: sequence.Way{
			School: []sequence.School{sequence.OneCylinder, sequence.RockingPairs, sequence.TwoStop,
				sequence.ExhaustOpen, sequence.OneLobe, sequence.SumRule}[c.chance.IntN(6)],
		},
		Round: job.Round{Going: goings[c.chance.IntN(len(goings))],
			Check:     []job.Check{"", job.CheckAll, job.CheckSetOnes, job.CheckNone}[c.chance.IntN(4)],
			KindFirst: []job.KindFirst{"", job.ExhaustFirst, job.IntakeFirst}[c.chance.IntN(3)],
			Locking:   []job.Locking{"", job.InTwoGoes}[c.chance.IntN(2)],
			ToAim:     []job.Aiming{"", job.AllToAim}[c.chance.IntN(2)]}}
}

func (c *chanced) prepare(j *job.Job) job.Act {
	if j.Card.State == clearance.Hot {
		return []job.Act{job.EngineStopped{}, job.Prepared{EngineC: 85, AmbientC: 20},
			job.JudgedHot{How: job.ByFan, RanMin: 15}}[c.chance.IntN(3)]
	}
	return []job.Act{job.Prepared{EngineC: 20, AmbientC: 19}, job.JudgedCold{By: job.ByNight},
		job.TemperatureNoted{EngineC: 60 - float64(c.chance.IntN(40)), AmbientC: 19},
		job.JudgedCold{By: job.ByHours, Hours: float64(1 + c.chance.IntN(9))}}[c.chance.IntN(4)]
}

func (c *chanced) felt(valve string, leaf measure.Length) clearance.Feel {
	switch off := c.gaps[valve] - leaf; {
	case off > 5*um:
		return clearance.Free
	case off < -5*um:
		return clearance.WontGo
	case c.chance.IntN(3) == 0:
		return clearance.DragLight
	}
	return clearance.Drag
}

func (c *chanced) adjust(n job.Next, v *job.ValveState) job.Act {
	j := c.d.Job
	switch {
	case !j.Sheet.Shimmed():
		c.gaps[v.Name] = j.AimOf(v)
		if by := bench.Advise(j, adjust.Shift{}).SetBy(v); by != nil {
			c.gaps[v.Name] = by.Thickness()
		}
		return job.Adjusted{Valve: v.Name, Leaves: gauge.Straight(j.AimOf(v))}
	case n.Shim == nil && v.Shim == 0 && !v.Out:
		return job.Sized{Valve: v.Name, Shim: measure.Length(2400+50*c.chance.IntN(10)) * um}
	case n.Shim == nil:
		return job.LeftAsIs{Valve: v.Name, Reason: "none serves"}
	}
	shim := n.Shim.Shim
	if shim == 0 {
		shim = n.Shim.Most - 100*um
	}
	c.gaps[n.Shim.Valve] = j.AimOf(v) + measure.Length(c.chance.IntN(5)-2)*10*um
	return job.Adjusted{
		Valve:   n.Shim.Valve,
		Shim:    shim,
		From:    n.Shim.From,
		StandIn: n.Shim.Do == job.FitStandIn,
	}
}

// other is something that is not next, and may be refused.
func (c *chanced) other() job.Act {
	valves := c.d.Job.Valves
	valve := valves[c.chance.IntN(len(valves))].Name
	switch c.chance.IntN(18) {
	case 0:
		return job.Doubted{}
	case 1:
		return job.EngineStopped{}
	case 2:
		return job.Undone{Target: c.d.Job.CanUndo()}
	case 3:
		return job.Picked{Valve: valve}
	case 4:
		c.now = c.now.Add(7 * time.Hour)
		return job.TemperatureNoted{EngineC: float64(15 + c.chance.IntN(80)), AmbientC: 20}
	case 5:
		return job.Located{Seen: []sequence.Sighting{{What: sequence.TDCFiring, Cylinder: 1}}}
	case 6:
		return job.Turned{Stop: c.chance.IntN(4)}
	case 7:
		return job.Adjusted{Valve: valve, Reason: "to the aim"}
	case 8:
		return job.DialRead{Valve: valve, Gap: c.gaps[valve], Uncertainty: 5 * um}
	case 9:
		return c.choose()
	case 10:
		return job.LeftAsIs{Valve: valve, Reason: "seized"}
	case 11:
		return job.TaskMarked{Task: c.task()}
	case 12:
		return job.Waiting{Deferral: job.Deferral{Waits: job.WaitsForParts, Until: "on order"}}
	case 13:
		return job.NutFelt{Valve: valve}
	case 14:
		return job.ShimsChosen{Prefer: adjust.NearestAim, CamsOut: c.chance.IntN(2) == 0}
	case 15:
		return job.HandedOver{To: "June"}
	case 16:
		return job.Withdrawn{Valve: valve}
	}
	return job.Locked{Valve: valve}
}

func (c *chanced) task() string {
	tasks := c.d.Job.Around().Tasks()
	return tasks[c.chance.IntN(len(tasks))].ID
}
