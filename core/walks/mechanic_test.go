package walks_test

import (
	"time"

	"github.com/stretchr/testify/require"

	"metronix/core/adjust"
	"metronix/core/bench"
	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// mechanic is who does the job: always by the same rule, round and words.
type mechanic struct {
	*world
	round    job.Round
	way      sequence.Way
	keeps    bool // lets a sure verdict keep itself
	byHand   bool // judges heat without a thermometer
	stops    bool // says when the engine was shut off
	aimLeaf  bool // lays the leaf of the aim first
	tells    bool // says setting, locking and reading again in one, where that is offered
	patience int  // how often a valve is set before it is left
}

// mechanics are three with habits: one who is careful, one with a single leaf, one who trusts nothing but the
// guarded rule.
var mechanics = map[string]func(w *world) *mechanic{
	"careful": func(w *world) *mechanic {
		return &mechanic{world: w, keeps: true, stops: true, patience: 6,
			round: job.Round{Going: job.ReadFirst, Check: job.CheckAll}}
	},
	"one leaf": func(w *world) *mechanic {
		return &mechanic{world: w, keeps: true, byHand: true, tells: true, patience: 6,
			round: job.Round{Going: job.SetAsYouGo, Check: job.CheckNone}}
	},
	"guarded": func(w *world) *mechanic {
		return &mechanic{
			world:    w,
			keeps:    true,
			aimLeaf:  true,
			patience: 6,
			round: job.Round{Going: job.FreeFirst, Check: job.CheckSetOnes,
				Locking: job.InTwoGoes},
		}
	},
	"looks only": func(w *world) *mechanic {
		return &mechanic{world: w, keeps: true, byHand: true, stops: true, patience: 6,
			round: job.Round{Going: job.ReadOnly}}
	},
}

// rules are the verdict rules that the mechanics go by.
var rules = map[string]clearance.Rule{"careful": clearance.Workshop, "one leaf": clearance.OneLeaf,
	"guarded": clearance.Guarded, "looks only": clearance.Workshop}

// acts does what the job says is next, once; false: there is nothing left to do.
func (m *mechanic) acts() bool {
	j := m.job.AsOf(m.now)
	n := j.Next()
	v, _ := j.Valve(n.Valve)
	switch n.Action {
	case job.DoChooseWay:
		m.must(job.WayChosen{Way: m.way, Round: m.round})
	case job.DoPrepare:
		m.prepares(j)
	case job.DoTurn: // to what is to be seen there, so that the crank truly stands there
		to := j.Plan.Stops[n.Stop].Crank
		m.turns += sequence.TurnBetween(m.crank, to, m.way.Direction)
		m.crank = to
		m.must(job.Turned{Stop: n.Stop})
	case job.DoBarOver:
		m.turns += n.Turn // it is led only where the crank's place is known
		m.crank = j.Plan.Stops[n.Stop].Crank
		m.must(job.BarredOver{Stop: &n.Stop})
	case job.DoFree:
		m.gaps[n.Valve] += 200 * um
		m.must(job.Freed{Valve: n.Valve})
	case job.DoRead:
		m.reads(j, v)
	case job.DoKeep:
		m.must(job.Kept{Valve: n.Valve})
	case job.DoAdjust:
		m.sets(j, n, v)
	case job.DoLock:
		m.locks(j, v)
	case job.DoSign:
		m.signs(j)
	case job.DoGoHot:
		m.spin()
		m.must(job.WentHot{})
	default:
		return false
	}
	return true
}

// prepares passes the gate truly: a hot engine is run first, unless it was shut off just now; a cold one is
// waited for.
func (m *mechanic) prepares(j *job.Job) {
	if j.Card.State == clearance.Cold {
		for m.is().c > j.Card.ColdLimitC() || j.Card.StoneCold && m.is().c > 22 {
			m.now = m.now.Add(time.Hour)
		}
		if m.byHand && m.ran.IsZero() {
			m.must(job.JudgedCold{By: job.ByNight})
			return
		}
		m.must(job.Prepared{EngineC: m.is().c, AmbientC: 20})
		return
	}
	said := !j.StoppedAt.IsZero()
	if !said || m.is().shut > 9*time.Minute {
		if j.HasReadings() {
			m.disturbed++ // its ten minutes were over
		}
		m.run()
		if said = said || m.stops || m.byHand; said {
			m.must(job.EngineStopped{})
			m.now = m.now.Add(time.Duration(m.draw("seconds to the thermometer", 0, 200)) * time.Second)
		}
	}
	if said && m.byHand {
		m.must(job.JudgedHot{How: job.ByFan, RanMin: 20})
		return
	}
	m.must(job.Prepared{EngineC: m.is().c, AmbientC: 20})
}

// reads lays one leaf or stack: the one advised, else, and first of all by whoever is used to it, the nearest
// to the aim.
func (m *mechanic) reads(j *job.Job, v *job.ValveState) {
	leaf := j.Judge(v).TryNext
	if leaf == nil || m.aimLeaf && len(v.Round) == 0 {
		choice, _ := j.Owned.Choose(j.AimOf(v), nil, gauge.MaxStack)
		leaf = choice.Stack
	}
	require.NotNil(m.t, leaf, "no leaf to read %s with", v.Name)
	m.readAt[v.Name], m.warmth[m.now] = m.gaps[v.Name], m.is()
	m.must(job.ReadingTaken{Valve: v.Name, Leaves: ids(leaf), Feel: m.felt(v.Name, leaf), KeepSure: m.keeps})
}

func ids(st gauge.Stack) (out []gauge.ID) {
	for _, l := range st {
		out = append(out, l.ID)
	}
	return out
}

// learned is what the program has learned of these hands in this job.
func (m *mechanic) learned() adjust.Shift {
	var pairs []adjust.Pair
	for _, p := range m.job.LockPairs {
		pairs = append(pairs, p.Pair)
	}
	return adjust.LearnShift(pairs, 0)
}

func (m *mechanic) sets(j *job.Job, n job.Next, v *job.ValveState) {
	if v.Stage != job.NutLoose && !v.Out && !v.StandIn && v.Adjustments >= m.patience {
		m.must(job.LeftAsIs{Valve: v.Name, Reason: "the nut will not have it"})
		return
	}
	if j.Sheet.Shimmed() {
		m.changes(j, n, v)
		return
	}
	if leaf, ok := j.Telling(v); ok && m.tells {
		m.gaps[v.Name] = leaf.Thickness()
		m.tight[v.Name], m.readAt[v.Name], m.warmth[m.now] = m.turns, m.gaps[v.Name], m.is()
		m.must(job.SetTold{Valve: v.Name, Leaves: ids(leaf), Asked: true})
		return
	}
	by := bench.Advise(j, m.learned()).SetBy(v)
	if by == nil {
		m.gaps[v.Name] = v.Limits.Nominal
		m.must(job.Adjusted{Valve: v.Name})
		return
	}
	m.gaps[v.Name] = by.Thickness() + measure.Length(m.draw("hand", -2, 2))*um
	m.must(job.Adjusted{Valve: v.Name, Leaves: ids(by)})
}

func (m *mechanic) locks(j *job.Job, v *job.ValveState) {
	if j.Locking == job.InTwoGoes && !v.Nipped {
		m.must(job.Nipped{Valve: v.Name})
		return
	}
	m.gaps[v.Name] = max(10*um, m.gaps[v.Name]+m.nut+measure.Length(m.draw("nut", -1, 1))*m.nutBy)
	m.tight[v.Name] = m.turns
	m.must(job.Locked{Valve: v.Name})
}

// changes does a step of the work on shims: the size is said, or a shim goes in, from another valve that is
// open, from the bench or from the shop.
func (m *mechanic) changes(j *job.Job, n job.Next, v *job.ValveState) {
	step := n.Shim
	switch {
	case v.Shim == 0 && !v.Out:
		m.must(job.Sized{Valve: v.Name, Shim: m.shims[v.Name]})
		return
	case step == nil:
		m.must(job.LeftAsIs{Valve: v.Name, Reason: "no shim serves it"})
		return
	}
	shim := step.Shim
	if shim == 0 {
		shim = step.Most - 100*um // one that somebody finds
	}
	if shut, _ := m.c.Valve(step.Valve); !v.Out { // a bare one is open already, wherever somebody turned the crank
		require.GreaterOrEqual(
			m.t,
			m.c.Margin(shut, m.crank),
			measure.Angle(0),
			"%s is opened under its lobe",
			step.Valve,
		)
	}
	sum := m.gaps[step.Valve] + m.shims[step.Valve] // of a bare one the gap is the whole
	if step.From != "" {
		m.gaps[step.From], m.shims[step.From] = m.gaps[step.From]+m.shims[step.From], 0
	}
	m.gaps[step.Valve], m.shims[step.Valve] = sum-shim, shim
	m.must(job.Adjusted{Valve: step.Valve, Shim: shim, From: step.From, StandIn: step.Do == job.FitStandIn})
	if step.From != "" {
		require.Error(m.t, m.say(job.Turned{Stop: 0}), "the crank is turned with a shim missing")
	}
}

// signs answers for each valve that is out, and signs.
func (m *mechanic) signs(j *job.Job) {
	if out := j.Unanswered(); len(out) > 0 {
		m.must(job.LeftAsIs{Valve: out[0].Name, Reason: "another day"})
		return
	}
	m.signed()
	m.must(job.Signed{By: "Tess", ToolsOut: true})
}

// disturbs is something that comes between.
func (m *mechanic) disturbs() {
	m.disturbed++
	switch m.draw("what comes between", 0, 8) {
	case 0: // a helper turned it, and somebody says so
		m.spin()
		_ = m.say(job.Doubted{})
	case 1: // it was run
		m.run()
		_ = m.say(job.EngineStopped{})
	case 2: // a night, in which nobody knows what happened
		m.now = m.now.Add(time.Duration(m.draw("hours", 6, 30))*time.Hour + time.Second)
		m.spin()
		m.check()
	case 3:
		_ = m.say(job.Located{Seen: m.sees()})
	case 4:
		if target := m.job.CanUndo(); target != "" && m.takesBackNoTruth() {
			_ = m.say(job.Undone{Target: target})
		}
	case 5:
		m.way = pick(m.world, "another way", ways(m.setup)...)
		_ = m.say(job.WayChosen{Way: m.way, Round: m.round})
	case 6:
		_ = m.say(job.TemperatureNoted{EngineC: m.is().c, AmbientC: 20})
	case 7:
		_ = m.say(job.Picked{Valve: pick(m.world, "picked", m.job.Valves...).Name})
	case 8:
		m.restart()
	}
}

// sees is something that can truly be seen, cam signs among it, so that it tells the place to within a
// rocking.
func (m *mechanic) sees() (list []sequence.Sighting) {
	for _, v := range m.c.Valves {
		what := sequence.Loose
		if m.c.Margin(v, m.crank) < 0 {
			what = sequence.Pressed
		}
		list = append(list, sequence.Sighting{What: what, Valve: v.Name})
	}
	return list
}

// takesBackNoTruth says that the last happening changed nothing of the engine itself, so that a true mechanic
// may take it back: a screw that was turned stays turned, and a crank too.
func (m *mechanic) takesBackNoTruth() bool {
	switch m.list[len(m.list)-1].Act.(type) {
	case job.ReadingTaken, job.Picked, job.TemperatureNoted, job.Kept, job.LeftAsIs:
		return true
	}
	return false
}

// ways are the sequences that apply to an engine.
func ways(setup job.Setup) (list []sequence.Way) {
	for _, school := range []sequence.School{sequence.OneCylinder, sequence.RockingPairs, sequence.TwoStop,
		sequence.ExhaustOpen, sequence.OneLobe} {
		j, err := job.New(setup)
		if err != nil {
			return nil
		}
		if _, err := j.Take(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: school}}}); err == nil {
			list = append(list, sequence.Way{School: school})
		}
	}
	return list
}
