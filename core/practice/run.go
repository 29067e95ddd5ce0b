package practice

import (
	"errors"
	"fmt"
	"slices"
	"time"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
)

// Hand is something that is done to the hidden engine, or written down of it: one kind of those below.
type Hand interface {
	do(e *Engine) (Answer, error)
	On() string // the valve it is about; empty: none
}

// Answer is what a hand and an eye know once something was done.
type Answer struct {
	Felt   *Felt           // nil: no leaf was slid
	Moved  measure.Angle   // of a screw: by how much, which is not always what was wanted
	Kicked measure.Angle   // of the crank: it was thrown back by so much
	Shim   *FoundShim      // that was taken out; nil: none was
	Dial   *measure.Length // what the dial showed; nil: none was read
	Play   *float64        // of what was rocked, 0 (none) to 1; nil: nothing was
}

// The kinds of hand.
type (
	// Turned turns the crank, forwards or (below 0) back.
	Turned struct{ By measure.Angle }
	// TookOff takes the tool off the crank.
	TookOff struct{}
	// Slid slides a leaf or stack in.
	Slid struct {
		Valve  string
		Leaves []gauge.ID
	}
	// Loosened loosens a nut.
	Loosened struct{ Valve string }
	// Screwed turns a screw, clockwise or (below 0) back.
	Screwed struct {
		Valve string
		By    measure.Angle
	}
	// Tightened tightens a nut.
	Tightened struct{ Valve string }
	// Rocked rocks a rocker, finger or bucket by hand: its play is heard and seen.
	Rocked struct{ Valve string }
	// Dialled reads a valve's gap off a dial indicator at its tip.
	Dialled struct{ Valve string }
	// TookShim takes a shim out.
	TookShim struct{ Valve string }
	// FittedShim lays one in, of a size.
	FittedShim struct {
		Valve string
		Size  measure.Length
	}
	// Claimed writes down what is held of a valve as it is now, where no bench judges: what is said last
	// counts.
	Claimed struct {
		Valve string
		Is    clearance.Verdict // In, Tight or Loose
		Worn  bool              // something is worn at it
		Left  string            // why it is left as it is; empty: it is not
	}
)

// On is the valve that a hand is about; empty: none.
func (Turned) On() string      { return "" }
func (TookOff) On() string     { return "" }
func (h Slid) On() string      { return h.Valve }
func (h Loosened) On() string  { return h.Valve }
func (h Screwed) On() string   { return h.Valve }
func (h Tightened) On() string { return h.Valve }
func (h Claimed) On() string   { return h.Valve }

// On is the valve that a hand is about.
func (h TookShim) On() string   { return h.Valve }
func (h FittedShim) On() string { return h.Valve }

func (h Rocked) On() string { return h.Valve }

func (h Dialled) On() string { return h.Valve }

func (h Dialled) do(e *Engine) (Answer, error) {
	shows, err := e.Dial(h.Valve)
	if err != nil {
		return Answer{}, err
	}
	return Answer{Dial: &shows}, nil
}

func (h Rocked) do(e *Engine) (Answer, error) {
	play, err := e.Rock(h.Valve)
	if err != nil {
		return Answer{}, err
	}
	return Answer{Play: &play}, nil
}

func (h TookShim) do(e *Engine) (Answer, error) {
	f, err := e.TakeShim(h.Valve)
	if err != nil {
		return Answer{}, err
	}
	return Answer{Shim: &f}, nil
}
func (h FittedShim) do(e *Engine) (Answer, error) { return Answer{}, e.FitShim(h.Valve, h.Size) }

func (h Turned) do(e *Engine) (Answer, error) {
	if err := e.Turn(h.By); err != nil {
		return Answer{}, err
	}
	return Answer{Kicked: e.kick(h.By)}, nil
}

func (TookOff) do(e *Engine) (Answer, error) {
	e.TakeOff()
	return Answer{}, nil
}

func (h Slid) do(e *Engine) (Answer, error) {
	f, err := e.Slide(h.Valve, h.Leaves)
	if err != nil {
		return Answer{}, err
	}
	return Answer{Felt: &f}, nil
}
func (h Loosened) do(e *Engine) (Answer, error) { return Answer{}, e.Loosen(h.Valve) }
func (h Screwed) do(e *Engine) (Answer, error) {
	moved, err := e.Screw(h.Valve, h.By)
	return Answer{Moved: moved}, err
}
func (h Tightened) do(e *Engine) (Answer, error) { return Answer{}, e.Lock(h.Valve) }

// mostReason bounds why a valve is left, in characters.
const mostReason = 200

func (h Claimed) do(e *Engine) (Answer, error) {
	_, err := e.valve(h.Valve)
	switch {
	case err != nil:
		return Answer{}, err
	case h.Is != clearance.In && h.Is != clearance.Tight && h.Is != clearance.Loose:
		return Answer{}, errors.New("a valve is in, tight or loose")
	case len([]rune(h.Left)) > mostReason:
		return Answer{}, fmt.Errorf("why it is left takes at most %d characters", mostReason)
	}
	e.acts++
	return Answer{}, nil
}

// Entry is one thing that was done in a run: by hand at the engine, or said to the job.
type Entry struct {
	ID   string
	At   time.Time
	Hand Hand          // nil: something was said
	Said job.Happening // of the same id and time
}

// Run is an engine that is practised on, and what is believed of it.
type Run struct {
	Engine *Engine
	Job    *job.Job // what is entered as at a real engine; nothing is, where the exercise is done on paper
	List   []Entry

	seen  seen
	paper paper
}

// Begin begins a run. It errs as New does.
func Begin(x Exercise) (*Run, error) {
	e, err := New(x)
	if err != nil {
		return nil, err
	}
	j, err := job.New(x.Setup)
	if err != nil {
		return nil, err
	}
	if e.Shimmed() {
		j.Supply(supply(len(e.valves)))
	}
	return &Run{Engine: e, Job: j,
		seen:  seen{round: map[string]*felt{}, locked: map[string]bool{}, set: map[string]bool{}},
		paper: paper{claims: map[string]Claimed{}, slips: map[string]Fault{}, known: map[string]*evidence{}}}, nil
}

// Exercise is what is practised.
func (r *Run) Exercise() Exercise { return r.Engine.exercise }

// errBench and errPaper are that something is done in the wrong kind of run.
var (
	errBench = errors.New("here the bench judges: say what you felt there")
	errPaper = errors.New("here nothing is entered: write down valve by valve what you hold of it")
)

// Do does the next thing. What it errs with was not done, and leaves the run as it was: a refusal of the job,
// or why a hand cannot do that. A leaf that was slid says what was felt.
func (r *Run) Do(n Entry) (Answer, error) {
	before := r.Engine.now
	r.Engine.now = n.At
	a, err := r.does(n)
	if err != nil {
		r.Engine.now = before
		return Answer{}, err
	}
	r.List = append(r.List, n)
	return a, nil
}

func (r *Run) does(n Entry) (a Answer, err error) {
	if n.Hand == nil {
		if r.Exercise().Paper() {
			return a, errPaper
		}
		j, err := r.Job.Take(n.Said)
		if err != nil {
			return a, err
		}
		r.Job = j
		r.told(n.Said)
		return a, nil
	}
	if _, claims := n.Hand.(Claimed); claims && !r.Exercise().Paper() {
		return a, errBench
	}
	if a, err = n.Hand.do(r.Engine); err != nil {
		return a, err
	}
	r.touched(n.Hand, a)
	return a, nil
}

// Replay is a run as far as it came.
func Replay(x Exercise, list []Entry) (*Run, error) {
	r, err := Begin(x)
	if err != nil {
		return nil, err
	}
	for _, n := range list {
		if _, err := r.Do(n); err != nil {
			return nil, err
		}
	}
	return r, nil
}

// Happenings are what was said to the job, the undone included.
func (r *Run) Happenings() (list []job.Happening) {
	for _, n := range r.List {
		if n.Hand == nil {
			list = append(list, n.Said)
		}
	}
	return list
}

// Done is one thing that was done, as it is looked at afterwards.
type Done struct {
	Entry
	Answer
	After  time.Duration  // since the first
	Crank  measure.Angle  // where it stood then
	Gap    measure.Length // of the valve that it is about, truly, once it was done; 0 where it is about none
	Clear  bool           // that valve's lobe was clear
	Faults []Fault        // that it was
}

// Trace plays a run once more and tells it act by act, with what was hidden: it is for when the run has
// ended.
func Trace(x Exercise, list []Entry) ([]Done, error) {
	r, err := Begin(x)
	if err != nil {
		return nil, err
	}
	out := make([]Done, len(list))
	for i, n := range list {
		faults := len(r.seen.faults)
		a, err := r.Do(n)
		if err != nil {
			return nil, err
		}
		d := Done{
			Entry:  n,
			Answer: a,
			After:  max(0, n.At.Sub(list[0].At)),
			Crank:  r.Engine.crank,
			Faults: r.seen.faults[faults:],
		}
		if valve := n.On(); valve != "" {
			if t, ok := r.Engine.valves[valve]; ok {
				d.Gap, d.Clear = t.gap, r.Engine.clear(valve)
			}
		}
		if _, claims := n.Hand.(Claimed); claims {
			if f, is := r.paper.slips[n.On()]; is {
				d.Faults = append(slices.Clone(d.Faults), f)
			}
		}
		out[i] = d
	}
	return out, nil
}

// On is the valve that an entry is about; empty: none.
func (n Entry) On() string {
	if n.Hand != nil {
		return n.Hand.On()
	}
	return n.Said.Act.On()
}
