package rehearse

import (
	"cmp"
	"fmt"
	"slices"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// Rehearsing is a job to be played through before it is begun.
type Rehearsing struct {
	Sheet *engine.Sheet // checked
	Way   sequence.Way
	Round job.Round
	Card  *clearance.Card // of the sheet; nil: one leaf a kind is taken, two different ones
	// BackAllowed lets the crank be turned back though the sheet does not allow it
	BackAllowed bool
	Out         []string // the valves that will be found out of their limits; every other one is in
}

// Step is one thing done in a rehearsal.
type Step struct {
	Do    Doing
	Valve string        // empty: it is about none
	Stop  int           // index of the stop it is done at, or is turned to
	Turn  measure.Angle // for DoingTurn and DoingCheckTurn
}

// Doing is what a step does.
type Doing string

// What is done. A reading is one step, however many leaves.
const (
	DoingTurn      Doing = "turn"
	DoingFree      Doing = "free"
	DoingRead      Doing = "read"
	DoingSet       Doing = "set"
	DoingLock      Doing = "lock"
	DoingCheckTurn Doing = "check_turn"
)

// Rehearsal is what a job takes, from the crank standing at the first stop to the offer to sign.
type Rehearsal struct {
	Assumed     []string
	Steps       []Step
	Turn        measure.Angle // up to the last stop before the check round
	CheckTurn   measure.Angle // after that
	LeafChanges int           // how often the leaf to pick up differs from the one before
	Gestures    int           // taps or keys
}

// mostSteps is more than any job takes: each valve freed, read, set, locked, and read twice more, a stop a
// valve.
const mostSteps = 16 * engine.MaxCylinders * engine.MaxValvesPerCylinder

// rehearsed are the gaps that are taken where no card says any: any two will do, as long as they differ.
var rehearsed = map[engine.Kind]measure.Length{
	engine.Intake: 200 * measure.Micrometre, engine.Exhaust: 300 * measure.Micrometre,
}

// Play plays a job through the same rules that lead a real one, and counts. The leaf of the wanted gap is
// used at every valve: it drags at one that is in, and shows the side at one that is out, which then is set
// to it. It errs with a *Refusal where the engine is not gone round so, and where no such valve is to be
// found out.
func Play(r Rehearsing) (Rehearsal, error) {
	j, assumed, err := r.job()
	if err != nil {
		return Rehearsal{}, err
	}
	if r.Sheet.Shimmed() {
		real := *j
		real.Sheet = r.Sheet
		if err := r.Round.Sound(&real); err != nil {
			return Rehearsal{}, err
		}
		r.Round.Going = cmp.Or(r.Round.Going, job.ReadFirst)
	}
	out := Rehearsal{Assumed: assumed}
	isOut := map[string]bool{}
	for i, name := range r.Out {
		if _, ok := j.Valve(name); !ok {
			return Rehearsal{}, &job.Refusal{Field: fmt.Sprintf("out[%d]", i),
				Message: fmt.Sprintf("%q is no valve of this engine.", name)}
		}
		isOut[name] = true
	}
	way := job.WayChosen{Way: r.Way, Round: r.Round}
	if r.BackAllowed {
		way.BackReason = "rehearsed"
	}
	for _, act := range []job.Act{way,
		job.Prepared{EngineC: 20, AmbientC: 20, Reason: "rehearsed"}, job.Turned{Stop: 0}} {
		if j, err = j.Take(job.Happening{Act: act}); err != nil {
			return Rehearsal{}, err
		}
	}
	var leaf gauge.Stack // in hand
	for range mostSteps {
		n := j.Next()
		if n.Action == job.DoSign {
			return out, nil
		}
		checking := j.Phase() == job.Verify
		act, steps := rehearsedAct(j, n, isOut, r.Sheet.Shimmed())
		if act == nil {
			break
		}
		if j, err = j.Take(job.Happening{Act: act}); err != nil {
			return Rehearsal{}, fmt.Errorf("rehearsing %v: %w", n, err)
		}
		if len(steps) == 1 && steps[0].Do == DoingLock && r.Sheet.Shimmed() {
			continue // there is no nut
		}
		out.Gestures++
		for _, step := range steps {
			out.add(step, checking)
		}
		if felt := j.InHand(); len(felt) > 0 && !felt.Same(leaf) {
			if leaf != nil {
				out.LeafChanges++
			}
			leaf = felt
		}
	}
	return Rehearsal{}, fmt.Errorf("rehearsing %s comes to no end", r.Way.School)
}

// add notes a step, and what was turned for it: before the check round, or in it.
func (out *Rehearsal) add(step Step, checking bool) {
	if checking && step.Do == DoingTurn {
		step.Do = DoingCheckTurn
	}
	out.Steps = append(out.Steps, step)
	if checking {
		out.CheckTurn += step.Turn
	} else {
		out.Turn += step.Turn
	}
}

// rehearsedAct is what is done about the one next thing, and the steps that it stands for; none: it is a
// gesture and nothing more. What was out is in once it is set. Setting, locking and reading again are told in
// one where they may be.
func rehearsedAct(j *job.Job, n job.Next, isOut map[string]bool, shimmed bool) (job.Act, []Step) {
	at := func(do Doing) Step { return Step{Do: do, Valve: n.Valve, Stop: n.Stop, Turn: n.Turn} }
	v, _ := j.Valve(n.Valve)
	switch n.Action {
	case job.DoTurn:
		return job.Turned{Stop: n.Stop}, []Step{at(DoingTurn)}
	case job.DoFree:
		return job.Freed{Valve: n.Valve}, []Step{at(DoingFree)}
	case job.DoRead:
		feel := clearance.Drag
		if isOut[n.Valve] {
			feel = clearance.Free
		}
		aim := gauge.ID{Marked: j.AimOf(v)}
		return job.ReadingTaken{Valve: n.Valve, Leaves: []gauge.ID{aim}, Feel: feel,
			KeepSure: true}, []Step{at(DoingRead)}
	case job.DoKeep:
		return job.Kept{Valve: n.Valve}, nil
	case job.DoAdjust:
		isOut[n.Valve] = false
		if leaf, ok := j.Telling(v); ok && !shimmed {
			told := job.SetTold{Valve: n.Valve, Leaves: leaf.IDs()}
			if j.Locking == job.InTwoGoes {
				told.By = job.ByTorque
			}
			return told, []Step{at(DoingSet), at(DoingLock), at(DoingRead)}
		}
		return job.Adjusted{Valve: n.Valve}, []Step{at(DoingSet)}
	case job.DoLock:
		return job.Locked{Valve: n.Valve}, []Step{at(DoingLock)}
	case job.DoBarOver:
		return job.BarredOver{Stop: &n.Stop}, []Step{at(DoingCheckTurn)}
	}
	return nil, nil
}

// job is the job to be played, and what was assumed for it.
func (r Rehearsing) job() (*job.Job, []string, error) {
	var assumed []string
	sheet, card := *r.Sheet, r.Card
	if sheet.Shimmed() { // which sizes will be needed nobody knows: a shim is changed as a screw is set, with no nut
		sheet.Adjuster = &engine.Adjuster{Kind: gear.ThreadedTappet}
	}
	if sheet.Adjuster == nil {
		sheet.Adjuster = &engine.Adjuster{Kind: gear.ScrewValveEnd}
		assumed = append(assumed, "No adjuster is stated: a screw with a lock nut is taken.")
	}
	if card == nil {
		gap := func(k engine.Kind) clearance.Clearance {
			nominal, tolerance := rehearsed[k], 20*measure.Micrometre
			return clearance.Clearance{Nominal: clearance.Figure{Metric: &nominal},
				Tolerance: clearance.Figure{Metric: &tolerance}}
		}
		card = &clearance.Card{State: clearance.Cold, Intake: gap(engine.Intake),
			Exhaust: gap(engine.Exhaust)}
		assumed = append(assumed, "No clearances are stated: one leaf a kind is taken, two different ones.")
	}
	j, err := job.New(
		job.Setup{Sheet: &sheet, Card: *card, Rule: clearance.OneLeaf, Feel: clearance.DefaultFeel},
	)
	if err != nil {
		return nil, nil, err
	}
	for _, v := range j.Valves {
		if leaf := (gauge.Leaf{ID: gauge.ID{Marked: j.AimOf(v)},
			Measured: j.AimOf(v)}); !slices.Contains(j.Owned, leaf) {
			j.Owned = append(j.Owned, leaf)
		}
	}
	return j, assumed, nil
}
