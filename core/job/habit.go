package job

import (
	"metronix/core/measure"
	"metronix/core/sequence"
)

// This file is what a mechanic does again in the next job as he did it in this one (common practice: one
// school for one engine, one round, one way with the nut).

// Again is the sequence and the round of a job as its mechanic goes about the next one on the same engine by
// the same card. ok is false where no sequence was chosen, or it does not apply there any more.
//
// Not repeated is what belongs to one job: which valves it was about, a reason to turn back, and turning back
// where the engine does not allow it. Nor is going without a check, where the valves settle after a new cam
// or a rebuild or where all were freed, then or now: the usual check is proposed there.
func (j *Job) Again(next *Job) (w WayChosen, ok bool) {
	if j.Way.School == "" {
		return w, false
	}
	w = WayChosen{Way: j.Way, Round: j.Round}
	w.Scope, w.Locking, w.OwnShift = nil, "", nil
	w.Check = j.Checks()
	if w.Direction == sequence.Back && !next.Sheet.MayTurnBack {
		w.Direction = sequence.Running
	}
	if w.Check == CheckNone && w.Going != ReadOnly {
		switch {
		case w.Going == FreeFirst || j.NewCam:
			w.Check = CheckSetOnes
		case next.NewCam:
			w.Check = next.UsualCheck()
		}
	}
	return w, w.sound(next) == nil
}

// NutAgain is what a mechanic says of the lock nut, in how many stages it is tightened and which way it takes
// the gap, for an engine with the same kind of adjuster and the same thread; ok is false where it has another
// one.
func (j *Job) NutAgain(next *Job) (l Locking, shift *measure.Length, ok bool) {
	a, b := j.Sheet.Adjuster, next.Sheet.Adjuster
	if j.Way.School == "" || a == nil || b == nil || !next.Sheet.HasLockNut() ||
		a.Kind != b.Kind || a.Pitch != b.Pitch || a.Thread != b.Thread {
		return "", nil, false
	}
	return j.Locking, j.OwnShift, true
}

// OneLeafServes says that the leaves owned decide by drags alone at some valve: by the workshop rule one side
// of its limits is proved by no leaf or stack of them, though there is one for the aim. One leaf is the rule
// then (common practice). Where there are shims a figure is wanted, and it does not serve.
func (j *Job) OneLeafServes() bool {
	return !j.Sheet.Shimmed() && j.find(func(v *ValveState) bool { return j.Yardstick(v).OnlySides() }) != nil
}
