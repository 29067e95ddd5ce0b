package job_test

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// truth is an engine as it really is, beside the job that is told about it by a mechanic who says only what
// he sees: where the crank really stands, how wide each gap really is, which shim really lies where. What the
// job believes is compared with it after every step.
type truth struct {
	t     *rapid.T
	d     *driver
	c     *cycle.Cycle
	crank measure.Angle
	gaps  map[string]measure.Length // with the valve shut
	shims map[string]measure.Length // 0: taken out
	now   time.Time
	// readAt is what the gap truly was when a valve was read last, as found or after, warmth how warm the engine
	// was when one was.
	readAt map[string]measure.Length
	warmth map[time.Time]warmth
	bare   map[string]measure.Length // shim and gap together, of a valve that is bare
	ran    time.Time                 // when the engine was truly shut off last; zero: it did not run
}

// warmth is how warm the engine truly is, and for how long it has been shut off.
type warmth struct {
	c    float64
	shut time.Duration
}

// is is the engine's warmth now: 90 °C when it is shut off, half of the way to 20 °C in 45 minutes.
func (w *truth) is() warmth {
	if w.ran.IsZero() {
		return warmth{c: 20, shut: 24 * time.Hour}
	}
	shut := w.now.Sub(w.ran)
	return warmth{20 + 70*math.Exp2(-shut.Minutes()/45), shut}
}

// run is the engine having run up to now.
func (w *truth) run() { w.spin(); w.ran = w.now }

func newTruth(t *rapid.T, s job.Setup) *truth {
	w := &truth{t: t, d: start(t, s), c: cycle.New(s.Sheet), now: noon, gaps: map[string]measure.Length{},
		shims: map[string]measure.Length{}, readAt: map[string]measure.Length{}, warmth: map[time.Time]warmth{},
		bare: map[string]measure.Length{}}
	w.d.job.Supply(shimShop())
	for _, v := range w.c.Valves {
		w.gaps[v.Name] = nominal(v.Name)*um + measure.Length(rapid.IntRange(-6, 6).Draw(t, "off"))*10*um
		w.shims[v.Name] = 2500*um + measure.Length(rapid.IntRange(0, 10).Draw(t, "shim"))*50*um
	}
	w.spin()
	return w
}

// spin is the engine having run, or somebody having turned it: it stands anywhere.
func (w *truth) spin() {
	w.crank = measure.Angle(w.draw("crank", 0, 719)) * measure.Degree
}

func (w *truth) draw(what string, from, to int) int { return rapid.IntRange(from, to).Draw(w.t, what) }

func (w *truth) say(h job.Happening) error {
	h.At = w.now
	err := w.d.try(h)
	w.check()
	return err
}

func (w *truth) must(h job.Happening) { require.NoError(w.t, w.say(h), "%+v", h) }

// check compares belief and truth: nothing may be worked on that is not really clear of its lobe, no valve
// has a shim that it has not.
func (w *truth) check() {
	j := w.d.job.AsOf(w.now)
	for _, v := range j.Valves {
		if j.SignedBy == "" && j.Settable(v) && !j.ByMaker(v) { // once it is signed nothing is read
			require.GreaterOrEqual(w.t, w.c.Margin(v.Valve, w.crank), j.Sheet.EffectiveMargin(),
				"%s is believed clear at %v", v.Name, w.crank)
		}
		if v.Last != nil && !v.Last.Stale {
			w.rightlyWarm(j, v)
		}
		if v.Shim > 0 {
			require.Equal(w.t, w.shims[v.Name], v.Shim, "the shim under %s", v.Name)
		}
		if v.Last != nil && !v.Last.Stale && v.Stage == job.Untouched && !v.Out &&
			v.Last.Judgement.Estimate != nil {
			off := *v.Last.Judgement.Estimate - w.readAt[v.Name]
			require.LessOrEqual(w.t, off.Abs(), 5*um, "%s is believed to have a gap it had not", v.Name)
		}
	}
}

// rightlyWarm asserts that a figure that counts was read on an engine as warm as its card wants it.
func (w *truth) rightlyWarm(j *job.Job, v *job.ValveState) {
	was, ok := w.warmth[v.Last.At]
	require.True(w.t, ok, "%s was read at %v", v.Name, v.Last.At)
	if j.Card.State == clearance.Hot {
		require.LessOrEqual(w.t, was.shut, 10*time.Minute, "%s counts as read hot", v.Name)
		return
	}
	require.LessOrEqual(w.t, was.c, j.Card.ColdLimitC(), "%s counts as read cold", v.Name)
}

// felt is what a leaf does in a valve's gap where the crank really stands: an open valve lets nothing in.
func (w *truth) felt(valve string, leaf measure.Length) clearance.Feel {
	v, _ := w.c.Valve(valve)
	gap := w.gaps[valve]
	if w.c.Margin(v, w.crank) < 0 {
		gap = 0
	}
	switch {
	case leaf < gap-5*um:
		return clearance.Free
	case leaf > gap+5*um:
		return clearance.WontGo
	}
	return clearance.Drag
}

// seen is something that can truly be seen, cam signs among it, so that it tells the place to within a
// rocking.
func (w *truth) seen() []sequence.Sighting {
	var list []sequence.Sighting
	for _, v := range w.c.Valves {
		what := sequence.Loose
		if w.c.Margin(v, w.crank) < 0 {
			what = sequence.Pressed
		}
		list = append(list, sequence.Sighting{What: what, Valve: v.Name})
	}
	return list
}

// step does the next thing, or one of the things that happen in a workshop.
func (w *truth) step() {
	w.now = w.now.Add(time.Duration(w.draw("seconds", 5, 90)) * time.Second)
	switch w.draw("what happens", 0, 45) {
	case 0:
		w.spin() // a helper turned it, and somebody says so
		if rapid.Bool().Draw(w.t, "it was run") {
			w.ran = w.now
			_ = w.say(job.Happening{Act: job.EngineStopped{}})
			return
		}
		_ = w.say(job.Happening{Act: job.Doubted{}})
		return
	case 1:
		w.now = w.now.Add(time.Duration(w.draw("hours", 6, 30)) * time.Hour).Add(time.Second)
		w.spin() // a night, in which nobody knows what happened
		w.check()
		return
	case 2:
		_ = w.say(job.Happening{Act: job.Located{Seen: w.seen()}})
		return
	case 3:
		if target := w.d.job.CanUndo(); target != "" && w.takesBackNoTruth() {
			_ = w.say(job.Happening{Act: job.Undone{Target: target}})
		}
		return
	case 4:
		school := rapid.SampledFrom([]sequence.School{sequence.OneCylinder, sequence.TwoStop,
			sequence.ExhaustOpen, sequence.OneLobe}).Draw(w.t, "school")
		going := rapid.SampledFrom([]job.Going{"", job.ReadFirst, job.SetAsYouGo, job.FreeFirst}).Draw(w.t,
			"round")
		kind := rapid.SampledFrom([]job.KindFirst{"", job.BothKinds, job.ExhaustFirst,
			job.IntakeFirst}).Draw(w.t,
			"kind first")
		check := rapid.SampledFrom([]job.Check{"", job.CheckAll, job.CheckSetOnes, job.CheckNone}).Draw(w.t,
			"check")
		_ = w.say(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: school},
			Round: job.Round{Going: going, Check: check, KindFirst: kind}}})
		return
	case 5:
		_ = w.say(job.Happening{Act: job.TemperatureNoted{EngineC: w.is().c, AmbientC: 20.0}})
		return
	case 6:
		valve := rapid.SampledFrom(w.c.Valves).Draw(w.t, "picked").Name
		_ = w.say(job.Happening{Act: job.Picked{Valve: valve}})
		return
	}
	w.follow()
}

// takesBackNoTruth says that the last happening changed nothing of the engine itself, so that a true mechanic
// may take it back: a screw that was turned stays turned, and a crank too.
func (w *truth) takesBackNoTruth() bool {
	switch w.d.list[len(w.d.list)-1].Act.(type) {
	case job.ReadingTaken, job.Picked, job.TemperatureNoted, job.Kept, job.LeftAsIs:
		return true
	}
	return false
}

// prepare passes the gate truly: a hot engine is run first, unless it was shut off just now, and not everybody says
// when; a cold one is waited for.
func (w *truth) prepare(j *job.Job) {
	if j.Card.State == clearance.Cold {
		for w.is().c > j.Card.ColdLimitC() {
			w.now = w.now.Add(time.Hour)
		}
		w.must(job.Happening{Act: job.Prepared{EngineC: w.is().c, AmbientC: 20.0}})
		return
	}
	said := !j.StoppedAt.IsZero()
	if !said || w.is().shut > 9*time.Minute {
		w.run()
		if said = said || rapid.Bool().Draw(w.t, "the stop is said"); said {
			w.must(job.Happening{Act: job.EngineStopped{}})
			w.now = w.now.Add(time.Duration(w.draw("seconds to the thermometer", 0, 500)) * time.Second)
		}
	}
	if said && rapid.Bool().Draw(w.t, "by the fan") {
		w.must(job.Happening{Act: job.JudgedHot{How: job.ByFan, RanMin: 20}})
		return
	}
	w.must(job.Happening{Act: job.Prepared{EngineC: w.is().c, AmbientC: 20.0}})
}

// follow does what the job says.
func (w *truth) follow() {
	j := w.d.job.AsOf(w.now)
	n := j.Next()
	switch n.Action {
	case job.DoChooseWay:
		w.must(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder}}})
	case job.DoPrepare:
		w.prepare(j)
	case job.DoTurn: // to what is to be seen there, so that the crank truly stands there
		w.crank = j.Plan.Stops[n.Stop].Crank
		w.must(job.Happening{Act: job.Turned{Stop: n.Stop}})
	case job.DoRead:
		v, _ := j.Valve(n.Valve)
		leaf := w.gaps[n.Valve] / (10 * um) * (10 * um)
		if next := j.Judge(v).TryNext; next != nil && len(v.Round) < 8 {
			leaf = next.Thickness()
		}
		w.readAt[n.Valve], w.warmth[w.now] = w.gaps[n.Valve], w.is()
		w.must(job.Happening{Act: job.ReadingTaken{Valve: n.Valve, Leaves: gauge.Straight(leaf),
			Feel: w.felt(n.Valve, leaf), KeepSure: w.draw("kept by itself", 0, 1) == 1}})
	case job.DoFree:
		w.gaps[n.Valve] += 200 * um
		w.must(job.Happening{Act: job.Freed{Valve: n.Valve}})
	case job.DoKeep:
		w.must(job.Happening{Act: job.Kept{Valve: n.Valve}})
	case job.DoAdjust:
		w.set(j, n.Valve)
	case job.DoLock:
		w.gaps[n.Valve] -= measure.Length(w.draw("locking closes", 0, 2)) * 10 * um
		w.must(job.Happening{Act: job.Locked{Valve: n.Valve}})
	case job.DoBarOver:
		over := job.BarredOver{}
		if n.Stop >= 0 && j.Known() && w.draw("and on to the first stop", 0, 1) == 1 {
			w.crank, over.Stop = j.Plan.Stops[n.Stop].Crank, &n.Stop
		}
		w.must(job.Happening{Act: over})
	case job.DoSign:
		w.signed(j)
		w.must(job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true}})
	case job.DoGoHot:
		w.spin()
		w.must(job.Happening{Act: job.WentHot{}})
	}
}

func (w *truth) set(j *job.Job, valve string) {
	v, _ := j.Valve(valve)
	if v.Stage == job.Untouched && !v.Out && !v.StandIn && !(v.Freed && j.Found(v).Verdict == "") && w.draw("leave it", 0,
		9) == 0 {
		w.must(job.Happening{Act: job.LeftAsIs{Valve: valve, Reason: "seized"}})
		return
	}
	if !j.Sheet.Shimmed() {
		w.gaps[valve] = nominal(valve) * um
		w.must(job.Happening{Act: job.Adjusted{Valve: valve, Leaves: gauge.Straight(nominal(valve) * um)}})
		return
	}
	switch step := j.Next().Shim; {
	case v.Shim == 0 && !v.Out:
		w.must(job.Happening{Act: job.Sized{Valve: valve, Shim: w.shims[valve]}})
	case step == nil:
		w.must(job.Happening{Act: job.LeftAsIs{Valve: valve, Reason: "no shim serves it"}})
	default:
		w.fit(j, *step)
	}
}

// shimShop is a workshop with every other size to hand, and the others to be bought.
func shimShop() (s job.Shop) {
	for size := 2000 * um; size <= 3200*um; size += 25 * um {
		s.Sizes = append(s.Sizes, size)
		if size%(50*um) == 0 {
			s.Stock = append(s.Stock, adjust.Count{Shim: size, N: 9})
		}
	}
	return s
}

// fit does a step: the shim comes from another valve that is open, from the bench or from the shop.
func (w *truth) fit(j *job.Job, step job.ShimStep) {
	shim := step.Shim
	if shim == 0 {
		shim = step.Most - 100*um // one that somebody finds
	}
	v, _ := j.Valve(step.Valve)
	if shut, _ := w.c.Valve(step.Valve); !v.Out { // a bare one is open already, wherever somebody turned the crank
		require.GreaterOrEqual(w.t, w.c.Margin(shut, w.crank), measure.Angle(0), "%s is opened under its lobe",
			step.Valve)
	}
	w.gaps[step.Valve] += w.shims[step.Valve] - shim
	if v.Out { // its own lies elsewhere, and what it had is known
		w.gaps[step.Valve] = w.bare[step.Valve] - shim
	}
	if step.From != "" {
		giver, _ := j.Valve(step.From)
		w.bare[step.From] = w.gaps[step.From] + giver.Shim
		w.shims[step.From] = 0
	}
	w.shims[step.Valve] = shim
	w.must(job.Happening{Act: job.Adjusted{Valve: step.Valve, Shim: shim, From: step.From,
		StandIn: step.Do == job.FitStandIn}})
	if step.From != "" {
		require.Error(w.t, w.say(job.Happening{Act: job.Turned{Stop: 0}}),
			"the crank is turned with a shim missing")
	}
}

// signed is what a signature must stand for: every valve read as it is now, by a reading that holds.
func (w *truth) signed(j *job.Job) {
	for _, v := range j.Valves {
		require.NotNil(w.t, v.Last, v.Name)
		require.Equal(w.t, w.gaps[v.Name], w.readAt[v.Name], "%s was moved since it was read", v.Name)
		require.False(w.t, v.Last.Stale, v.Name)
		require.Empty(w.t, v.Round, v.Name)
		if v.LeaveReason == "" {
			require.Equal(w.t, clearance.In, v.Last.Judgement.Verdict, v.Name)
		}
	}
}

// engines that the machine was not built with, cold, hot and provisional, screws and shims.
func drawSetup(t *rapid.T) job.Setup {
	s := setup()
	switch rapid.IntRange(0, 3).Draw(t, "engine") {
	case 1:
		s.Sheet = enginetest.Crossflow([]int{1, 3, 4, 2}, "IIIIIIII", "EEEEEEEE")
	case 2:
		s.Sheet = enginetest.Inline([]int{1, 2}, "EIEI")
		s.Sheet.FiringAngles = enginetest.Degrees(0, 270) // fires unevenly
	case 3:
		s.Sheet = enginetest.Inline([]int{1, 2, 4, 5, 3}, "EIEIEIEIEI")
	}
	s.Rule = rapid.SampledFrom([]clearance.Rule{"", clearance.Guarded, clearance.OneLeaf}).Draw(t, "rule")
	if rapid.Bool().Draw(t, "shims") {
		s.Sheet.Adjuster = &engine.Adjuster{Kind: engine.Shim}
	}
	switch hot := card(clearance.Hot, 220, 300); rapid.IntRange(0, 2).Draw(t, "state") {
	case 1:
		s.Card = hot
	case 2:
		s.Hot = &hot
	}
	return s
}

// Whatever happens in the workshop, the job believes nothing of crank, gaps and shims that is not so, replays
// to the same state, and is signed only over readings that hold.
func TestBeliefAgainstTruth(t *testing.T) {
	signedJobs := 0
	rapid.Check(t, func(t *rapid.T) {
		s := drawSetup(t)
		w := newTruth(t, s)
		w.follow()
		for range 250 {
			w.step()
			if w.d.job.Phase() == job.Done {
				signedJobs++
				break
			}
		}
		replayed, err := job.Replay(s, w.d.list)
		require.NoError(t, err)
		replayed.Supply(shimShop())
		require.Equal(t, summary(w.d.job), summary(replayed))
	})
	require.Positive(t, signedJobs, "no job ever came to its end")
	t.Logf("%d jobs signed", signedJobs)
}
