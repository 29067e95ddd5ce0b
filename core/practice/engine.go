package practice

import (
	"cmp"
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"time"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/measure"
)

const um = measure.Micrometre

// How the hidden engine is made up (our own figures; nothing of it is a fact of the trade).
const (
	farthestOff = 90 * um               // a gap that is out is out by so much at most
	nearestOff  = 25 * um               // beyond its limits, so that leaves can tell
	noise       = 1500                  // standard deviation of a hand's feel, nm
	drags       = clearance.DefaultFeel // a leaf drags where the gap is so near to it
	backedOff   = 120 * um              // what a nut takes up when it is loosened: the screw comes free
	usualPitch  = measure.Millimetre    // of a screw whose sheet does not say
)

// truth is one valve as it truly is.
type truth struct {
	gap   measure.Length // as a leaf finds it with the valve shut, nanometres
	found measure.Length // what it was in the beginning
	loose bool           // its nut is not tight
	dip   measure.Length // in its tip: the gap runs by so much wider than a leaf finds it
	lift  float64        // of what its cam lifts, 0 < lift ≤ 1
	worn  Wear           // empty: it is not
	nut   NutTrouble     // empty: none

	shim, stamped measure.Length // as it truly is, and as it is marked; 0: it has none
	bare          bool           // its shim is out
	changed       bool           // the one that was laid in last is another than was taken out
}

// Engine is the hidden engine as it stands. The zero value is none; make one by New.
type Engine struct {
	exercise Exercise
	cycle    *cycle.Cycle
	crank    measure.Angle // 0 ≤ crank < 720°
	valves   map[string]*truth
	nut      measure.Length // what tightening a nut adds to its gap; below 0 it closes
	nutBy    measure.Length // and by how much that varies, either way
	acts     uint64         // done so far: each hand is a little different

	thinnest measure.Length // leaf of the set

	started measure.Angle    // where the crank stood in the beginning
	turned  measure.Angle    // of the crank, whichever way
	carried string           // the leaf in the hand
	changes int              // of leaves in the hand
	tool    bool             // it is on the crank
	tray    []measure.Length // shims that were taken out, the thinnest first
	now     time.Time        // of the run
}

// New makes the engine of an exercise. It errs with ErrKind, and with a Contradiction where the exercise
// contradicts its sheet or leaves a gap that no leaf can read.
func New(x Exercise) (*Engine, error) {
	if !x.Setup.Sheet.Shimmed() && !x.Setup.Sheet.HasLockNut() {
		return nil, ErrKind
	}
	if err := x.Check(); err != nil {
		return nil, err
	}
	j, err := job.New(x.Setup)
	if err != nil {
		return nil, err
	}
	e := &Engine{exercise: x, cycle: cycle.New(x.Setup.Sheet), valves: map[string]*truth{}, now: x.Began}
	e.thinnest, _ = reach(x.Setup.Owned)
	chance := rand.New(rand.NewPCG(x.Seed, 0))
	between := func(from, to measure.Length) measure.Length {
		return from + measure.Length(chance.Int64N(int64(to-from)+1))
	}
	windows := map[string]measure.Window{}
	for _, v := range j.Valves {
		w := v.Limits.Window
		windows[v.Name] = w
		rim := (w.Upper - w.Lower) / 5
		gap := between(w.Lower+rim, w.Upper-rim)
		switch chance.IntN(5) {
		case 0:
			gap = w.Upper + between(nearestOff, farthestOff)
		case 1:
			gap = max(e.thinnest, w.Lower-between(nearestOff, farthestOff))
		}
		if given, ok := x.Gaps[v.Name]; ok {
			gap = given
		}
		e.valves[v.Name] = &truth{gap: gap, lift: 1}
	}
	e.nut = between(-25*um, 5*um)
	e.nutBy = between(0, 4*um)
	e.crank = measure.FromDegrees(chance.Float64() * 720).Wrap()
	if x.Crank != nil {
		e.crank = *x.Crank
	}
	e.wears(chance, windows)
	if e.Shimmed() {
		e.shims(chance)
	}
	for _, v := range e.valves {
		v.found = v.gap
	}
	e.started = e.crank
	return e, e.readable()
}

// Loose says whether a valve's nut is not tight: it is seen and felt.
func (e *Engine) Loose(valve string) bool { v, ok := e.valves[valve]; return ok && v.loose }

// chance is that of the next hand.
func (e *Engine) chance() *rand.Rand {
	e.acts++
	return rand.New(rand.NewPCG(e.exercise.Seed, e.acts))
}

// How a hot engine cools, and what that does to its gaps (Newton's law of cooling; the figures are our own).
const (
	cooling  = 25 * time.Minute // in which all but 1/e of the way to its surroundings is gone
	coldGaps = 60 * um          // wider than hot, when it is cold
)

// cooled is by how much a gap is wider than it was hot.
func (e *Engine) cooled() measure.Length {
	since := e.now.Sub(e.exercise.Began)
	if !e.exercise.Hot || since <= 0 {
		return 0
	}
	return measure.Length(math.Round(float64(coldGaps) * (1 - math.Exp(-float64(since)/float64(cooling)))))
}

// What the thermometer shows of a practice engine, °C (our own figures).
const (
	workshopC = 20.0
	stoppedC  = 88.0 // of a hot one as it was stopped
)

// Heat is what a thermometer shows of the engine and beside it, °C: a cold one is as warm as the workshop, a
// hot one cools as its gaps do.
func (e *Engine) Heat(now time.Time) (engineC, ambientC float64) {
	if !e.exercise.Hot {
		return workshopC, workshopC
	}
	since := max(0, now.Sub(e.exercise.Began))
	return workshopC + (stoppedC-workshopC)*math.Exp(-float64(since)/float64(cooling)), workshopC
}

// Late says that a hot engine was stopped too long ago for its figures.
func (e *Engine) Late() bool { return e.exercise.Hot && e.now.Sub(e.exercise.Began) > job.HotFor }

// Open is by how much the valves that stand open do so, of the lift of their cams: what eyes see where the
// crank stands.
func (e *Engine) Open() map[string]float64 {
	open := map[string]float64{}
	for name, t := range e.valves {
		v, _ := e.cycle.Valve(name)
		if f := e.cycle.OpenFraction(v, e.crank) * t.lift; f > 0 {
			open[name] = f
		}
	}
	return open
}

// at is a valve's gap where the crank stands: none while its lobe lifts it.
func (e *Engine) at(v *truth, name string) measure.Length {
	if e.margin(name) < 0 {
		return 0
	}
	return v.gap + e.cooled()
}

func (e *Engine) margin(name string) measure.Angle {
	v, _ := e.cycle.Valve(name)
	return e.cycle.Margin(v, e.crank)
}

func (e *Engine) valve(name string) (*truth, error) {
	if v, ok := e.valves[name]; ok {
		return v, nil
	}
	return nil, fmt.Errorf("this engine has no valve %q", name)
}

// Loosen loosens a valve's nut; a screw whose nut is loose already stays as it is.
func (e *Engine) Loosen(valve string) error {
	v, err := e.valve(valve)
	switch {
	case err != nil:
		return err
	case e.Shimmed():
		return errors.New("this engine has shims and no nut: take the shim out")
	case v.nut == Seized:
		return fmt.Errorf("the nut of %s is seized: it does not come loose", valve)
	}
	e.acts++
	v.loose = true
	return nil
}

// Screw turns a valve's screw or nut by degrees, clockwise as it is seen from where the driver sits, or back
// (below 0). It errs where the nut is tight, and for more than three turns in one go. A gap does not close
// further than to nothing: the screw then holds the valve open. A stiff screw sticks, then jumps: by how much
// it moved is seen.
func (e *Engine) Screw(valve string, by measure.Angle) (moved measure.Angle, err error) {
	v, err := e.valve(valve)
	switch {
	case err != nil:
		return 0, err
	case !v.loose:
		return 0, fmt.Errorf("the nut of %s is tight: loosen it first", valve)
	case by == 0 || by > 3*measure.Turn || by < -3*measure.Turn:
		return 0, errors.New("turn the screw by up to three turns either way")
	}
	moved = by
	if chance := e.chance(); v.nut == Stiff {
		moved += measure.FromDegrees(jumps * (2*chance.Float64() - 1))
		if max(by, -by) < sticks {
			moved = 0
		}
	}
	v.gap = max(0, v.gap+measure.Length(math.Round(moved.Degrees()*e.perDegree())))
	return moved, nil
}

// How a stiff screw moves (our own figures).
const (
	sticks = 6 * measure.Degree // by less it does not move
	jumps  = 4.0                // degrees too far or too short, at most
)

// adjusterOf is a sheet's adjuster, with a usual pitch where it says none.
func adjusterOf(s *engine.Sheet) engine.Adjuster {
	a := engine.Adjuster{Kind: s.Gear().Kind}
	if s.Adjuster != nil {
		a = *s.Adjuster
	}
	a.Pitch = cmp.Or(a.Pitch, usualPitch)
	return a
}

// perDegree is by how many nanometres a degree clockwise opens a gap; below 0 it closes it (geometry of the
// lever, as adjust.Reckon has it).
func (e *Engine) perDegree() float64 {
	a := adjusterOf(e.exercise.Setup.Sheet)
	gain, err := gear.Gain(a.Kind, a.Ratio)
	if err != nil || gain <= 0 { // one without a gain of its own is turned as if it had none to speak of
		gain = 1
	}
	per := float64(a.Pitch) * gain / 360
	if t, err := adjust.Towards(a, adjust.Close); err != nil ||
		t.Rotation != adjust.Anticlockwise {
		return -per
	}
	return per
}

// Lock tightens a valve's nut, which moves the gap by its own habit.
func (e *Engine) Lock(valve string) error {
	v, err := e.valve(valve)
	if err != nil {
		return err
	}
	chance := e.chance()
	if v.loose {
		v.gap = max(0, v.gap+e.nut+measure.Length(chance.Int64N(int64(2*e.nutBy)+1))-e.nutBy)
		v.loose = false
	}
	return nil
}
