package walks_test

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/cycle"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
)

const um = measure.Micrometre

// feel is how much wider or tighter than its leaf a gap may be and still drag.
const feel = 5 * um

var noon = time.Date(2026, 5, 4, 12, 0, 0, 0, time.UTC)

// world is an engine as it truly is, beside the job that is told about it: where the crank really stands, how
// wide each gap really is, which shim really lies where and how thick it is, how warm the engine is, and what
// a lock nut does in the hands of the mechanic.
type world struct {
	t     *rapid.T
	setup job.Setup
	job   *job.Job
	list  []job.Happening
	c     *cycle.Cycle

	now   time.Time
	turns measure.Angle            // of the crank since it was spun, the one way
	tight map[string]measure.Angle // by valve: what turns was when its nut was made tight
	crank measure.Angle
	// which valves counted as checked before
	verified map[string]bool
	gaps     map[string]measure.Length // with the valve shut; of a bare one: with no shim in
	shims    map[string]measure.Length // 0: taken out
	ran      time.Time                 // when the engine was truly shut off last; zero: it did not run
	nut      measure.Length            // what tightening adds to a gap, but for nutBy either way
	nutBy    measure.Length

	// what the gap truly was when a valve was read last, and how warm the engine was when one was
	readAt map[string]measure.Length
	warmth map[time.Time]warmth

	disturbed int // how often something came between
}

// warmth is how warm the engine truly is, and for how long it has been shut off.
type warmth struct {
	c    float64
	shut time.Duration
}

// is is the engine's warmth now: 90 °C when it is shut off, half of the way to 20 °C in 45 minutes.
func (w *world) is() warmth {
	if w.ran.IsZero() {
		return warmth{c: 20, shut: 24 * time.Hour}
	}
	shut := w.now.Sub(w.ran)
	return warmth{20 + 70*math.Exp2(-shut.Minutes()/45), shut}
}

func newWorld(t *rapid.T, s job.Setup) *world {
	w := &world{t: t, setup: s, c: cycle.New(s.Sheet), now: noon, gaps: map[string]measure.Length{},
		shims: map[string]measure.Length{}, readAt: map[string]measure.Length{}, warmth: map[time.Time]warmth{},
		tight: map[string]measure.Angle{}, verified: map[string]bool{}}
	j, err := job.New(s)
	require.NoError(t, err)
	w.job = j
	w.job.Supply(shop())
	w.nut = measure.Length(w.draw("nut", -3, 1)) * 10 * um
	w.nutBy = measure.Length(w.draw("nut by", 0, 2)) * um
	for _, v := range w.job.Valves {
		gap := v.Limits.Nominal
		if w.draw("is out", 0, 2) == 0 {
			gap += measure.Length(w.draw("off", -9, 9)) * 10 * um
		}
		w.gaps[v.Name] = max(20*um, gap)
		w.shims[v.Name] = 2500*um + measure.Length(w.draw("shim", 0, 20))*25*um
	}
	w.spin()
	return w
}

// shop is a workshop with every other size to hand, and the others to be bought.
func shop() (s job.Shop) {
	for size := 2000 * um; size <= 3300*um; size += 25 * um {
		s.Sizes = append(s.Sizes, size)
		if size%(50*um) == 0 {
			s.Stock = append(s.Stock, adjust.Count{Shim: size, N: 9})
		}
	}
	return s
}

func (w *world) draw(what string, from, to int) int { return rapid.IntRange(from, to).Draw(w.t, what) }

func pick[T any](w *world, what string, of ...T) T { return rapid.SampledFrom(of).Draw(w.t, what) }

// spin is the engine having run, or somebody having turned it: it stands anywhere.
func (w *world) spin() {
	w.turns = 0 // nobody knows how far, and which way
	clear(w.tight)
	w.crank = measure.Angle(w.draw("crank", 0, 719)) * measure.Degree
}

// run is the engine having run up to now.
func (w *world) run() { w.spin(); w.ran = w.now }

// say tells the job what was done, and compares afterwards.
func (w *world) say(a job.Act) error {
	h := job.Happening{ID: fmt.Sprintf("h%d", len(w.list)), At: w.now, Act: a}
	j, err := w.job.Take(h)
	if err == nil {
		w.job, w.list = j, append(w.list, h)
	}
	w.check()
	return err
}

func (w *world) must(a job.Act) { require.NoError(w.t, w.say(a), "%T %+v", a, a) }

// restart is the program having been stopped and started: it knows what is in the list.
func (w *world) restart() {
	j, err := job.Replay(w.setup, w.list)
	require.NoError(w.t, err)
	j.Supply(shop())
	require.Equal(w.t, summary(w.job), summary(j))
	w.job = j
	w.check()
}

// summary is what must be the same however a job came about.
func summary(j *job.Job) (said string) {
	said = fmt.Sprintf(
		"%s %s %v stop %d known %v gate %v\n",
		j.Phase(),
		j.SignedBy,
		j.Next().Action,
		j.Stop,
		j.Known(),
		j.GateOpen(),
	)
	for _, v := range j.Valves {
		said += fmt.Sprintf(
			"%s %s %d %v %v %s %v\n",
			v.Name,
			v.Stage,
			v.Adjustments,
			v.Shim,
			len(v.Round),
			v.LeaveReason,
			v.Last != nil,
		)
	}
	return said + fmt.Sprint(len(j.LockPairs), j.LooseShims, j.FromShop)
}

// seenWithin is how far a place that was seen may lie from where the crank is: a sign is seen to five degrees
// at either end of a turn.
const seenWithin = 10 * measure.Degree

// check compares belief and truth: nothing may be worked on that is not really clear of its lobe, no figure
// counts that was read on an engine too warm or too cool, no valve has a shim or a gap that it has not.
func (w *world) check() {
	j := w.job.AsOf(w.now)
	for _, v := range j.Valves {
		if j.SignedBy == "" && j.Settable(v) && !j.ByMaker(v) { // once it is signed nothing is read
			require.GreaterOrEqual(w.t, w.c.Margin(v.Valve, w.crank), j.Sheet.EffectiveMargin(),
				"%s is believed clear at %v", v.Name, w.crank)
		}
		if v.Shim > 0 {
			require.Equal(w.t, w.shims[v.Name], v.Shim, "the shim under %s", v.Name)
		}
		if was := w.verified[v.Name]; v.Verified && !was { // a valve that was left alone was read later than its nut was tight, at the earliest
			require.GreaterOrEqual(w.t, w.turns-w.tight[v.Name]+seenWithin,
				measure.Turn*measure.Angle(j.TurnsToCheck()),
				"%s counts as checked", v.Name)
		}
		w.verified[v.Name] = v.Verified
		if v.Last == nil || v.Last.Stale {
			continue
		}
		w.rightlyWarm(j, v)
		if v.Stage == job.Untouched && !v.Out && v.Last.Judgement.Estimate != nil {
			off := *v.Last.Judgement.Estimate - w.readAt[v.Name]
			require.LessOrEqual(w.t, off.Abs(), feel, "%s is believed to have a gap it had not", v.Name)
		}
	}
}

// rightlyWarm asserts that a figure that counts was read on an engine as warm as its card wants it.
func (w *world) rightlyWarm(j *job.Job, v *job.ValveState) {
	was, ok := w.warmth[v.Last.At]
	require.True(w.t, ok, "%s was read at %v", v.Name, v.Last.At)
	if j.Card.State == clearance.Hot {
		require.LessOrEqual(w.t, was.shut, 10*time.Minute, "%s counts as read hot", v.Name)
		return
	}
	require.LessOrEqual(w.t, was.c, j.Card.ColdLimitC(), "%s counts as read cold", v.Name)
}

// felt is what a leaf or stack does in a valve's gap where the crank really stands: an open valve lets
// nothing in.
func (w *world) felt(valve string, leaf gauge.Stack) clearance.Feel {
	v, _ := w.c.Valve(valve)
	gap := w.gaps[valve]
	if w.c.Margin(v, w.crank) < 0 {
		gap = 0
	}
	return feltIn(gap, leaf.Thickness())
}

// feltIn is what a leaf does in a gap.
func feltIn(gap, t measure.Length) clearance.Feel {
	switch {
	case t < gap-feel:
		return clearance.Free
	case t > gap+feel:
		return clearance.WontGo
	}
	return clearance.Drag
}

// signed is what a signature must stand for: every valve read as it is now, by a reading that holds.
func (w *world) signed() {
	for _, v := range w.job.Valves {
		if v.Outside {
			continue
		}
		require.NotNil(w.t, v.Last, v.Name)
		require.Equal(w.t, w.gaps[v.Name], w.readAt[v.Name], "%s was moved since it was read", v.Name)
		require.False(w.t, v.Last.Stale, v.Name)
		require.Empty(w.t, v.Round, v.Name)
		if v.LeaveReason == "" && w.job.Going != job.ReadOnly {
			require.Equal(w.t, clearance.In, v.Last.Judgement.Verdict, v.Name)
		}
	}
}

// outOf are the valves that whoever reads them will not find in, with the leaves there are.
func (w *world) outOf() (out []string) {
	for _, v := range w.job.Valves {
		y := clearance.Yardstick{
			Limits: v.Limits,
			Owned:  w.setup.Owned,
			Feel:   w.setup.Feel,
			Rule:   w.setup.Rule,
		}
		var readings []clearance.Reading
		for judged := y.Judge(nil); judged.TryNext != nil; judged = y.Judge(readings) {
			gap, t := w.gaps[v.Name], judged.TryNext.Thickness()
			readings = append(readings, clearance.Reading{Stack: judged.TryNext, Feel: feltIn(gap, t)})
		}
		if y.Judge(readings).Verdict != clearance.In {
			out = append(out, v.Name)
		}
	}
	return out
}

func keys[V any](m map[string]V) []string { return slices.Sorted(maps.Keys(m)) }

// told is what was done so far, a line each.
func (w *world) told() (said string) {
	for _, h := range w.list {
		said += fmt.Sprintf("\n%s %s %+v", h.At.Format(time.TimeOnly), h.Act.Kind(), h.Act)
	}
	return said
}
