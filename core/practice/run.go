package practice

import (
	"time"

	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
)

// Hand is something that is done to the hidden engine: one kind of the five below.
type Hand interface {
	do(e *Engine) (*Felt, error)
}

// The kinds of hand.
type (
	// Turned turns the crank, forwards or (below 0) back.
	Turned struct{ By measure.Angle }
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
)

func (h Turned) do(e *Engine) (*Felt, error) { return nil, e.Turn(h.By) }
func (h Slid) do(e *Engine) (*Felt, error) {
	f, err := e.Slide(h.Valve, h.Leaves)
	if err != nil {
		return nil, err
	}
	return &f, nil
}
func (h Loosened) do(e *Engine) (*Felt, error)  { return nil, e.Loosen(h.Valve) }
func (h Screwed) do(e *Engine) (*Felt, error)   { return nil, e.Screw(h.Valve, h.By) }
func (h Tightened) do(e *Engine) (*Felt, error) { return nil, e.Lock(h.Valve) }

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
	Job    *job.Job
	List   []Entry

	seen seen
}

// Begin begins a run. It errs with ErrKind, or where the exercise contradicts its sheet.
func Begin(x Exercise) (*Run, error) {
	e, err := New(x)
	if err != nil {
		return nil, err
	}
	j, err := job.New(x.Setup)
	if err != nil {
		return nil, err
	}
	return &Run{Engine: e, Job: j, seen: seen{round: map[string]*felt{},
		locked: map[string]bool{}, set: map[string]bool{}}}, nil
}

// Do does the next thing. What it errs with was not done, and leaves the run as it was: a refusal of the job, or why a
// hand cannot do that. A leaf that was slid says what was felt.
func (r *Run) Do(n Entry) (*Felt, error) {
	var f *Felt
	if n.Hand != nil {
		said, err := n.Hand.do(r.Engine)
		if err != nil {
			return nil, err
		}
		f = said
		r.touched(n.Hand, f)
	} else {
		j, err := r.Job.Take(n.Said)
		if err != nil {
			return nil, err
		}
		r.Job = j
		r.told(n.Said)
	}
	r.List = append(r.List, n)
	return f, nil
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
