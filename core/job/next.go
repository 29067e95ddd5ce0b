package job

import (
	"slices"

	"metronix/core/clearance"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// Action is the one thing to do now.
type Action string

// The actions.
const (
	DoChooseWay Action = "choose_way"
	DoPrepare   Action = "prepare"
	DoTurn      Action = "turn"     // to Stop, by Turn degrees
	DoFree      Action = "free"     // Valve: its adjuster is slackened and found free
	DoRead      Action = "read"     // Valve
	DoKeep      Action = "keep"     // Valve: its readings settle it
	DoAdjust    Action = "adjust"   // Valve
	DoLock      Action = "lock"     // Valve
	DoBarOver   Action = "bar_over" // full turns before the check round, and on to Stop: Turn degrees in all
	DoSign      Action = "sign"
	DoGoHot     Action = "go_hot" // the cold start is signed: the hot pass follows
	DoNothing   Action = "done"
)

// Next is the one thing to do now.
type Next struct {
	Action Action
	Valve  string // for read, keep, adjust, lock
	// for turn and bar_over: index of the stop to go to; otherwise where the crank stands, −1: nowhere yet
	Stop int
	// for turn and bar_over: how far in the direction of the way round; 0 where the crank's place is not
	// known
	Turn measure.Angle
	// for turn: the crank is believed to stand at the stop already, and this is to be confirmed
	Confirm bool
	Shim    *ShimStep // for adjust, where shims are changed: what goes in; nil: nothing to be had does
}

// Next says what to do now.
func (j *Job) Next() Next {
	phase := j.Phase()
	switch phase {
	case ChooseWay:
		return Next{Action: DoChooseWay, Stop: -1}
	case Prepare:
		return Next{Action: DoPrepare, Stop: -1}
	case AwaitHot:
		return Next{Action: DoGoHot, Stop: j.Stop}
	case Done:
		return Next{Action: DoNothing, Stop: j.Stop}
	}
	if j.shimsDue() {
		return j.nextShim()
	}
	// Whatever was begun is finished before anything else: a slack nut, an open ring of shims or a reading
	// that is not kept must not be left behind by a turn of the crank.
	if v := j.unfinished(); v != nil {
		return j.workAt(v)
	}
	if v, ok := j.Valve(j.picked); ok {
		return j.workAt(v)
	}
	if phase == AsFound && j.freeing() {
		if v := j.nextToFree(); v != nil {
			return Next{Action: DoFree, Valve: v.Name, Stop: j.Stop}
		}
		return j.turnOn() // the last is in somebody else's hands
	}
	switch {
	case phase == Sign:
		return Next{Action: DoSign, Stop: j.Stop}
	case !j.Sure():
		if v := j.clearAnywhere(phase); v != nil {
			return j.workAt(v)
		}
		return j.findAgain()
	case phase == Verify:
		return j.toCheckNext()
	}
	// All that can be done here is done before the crank is turned: turning is what tires, and on the hand
	// method each stop is visited once.
	if v := j.atHand(); v != nil {
		return j.workAt(v)
	}
	return j.turnOn()
}

// unfinished is the valve to finish first: one that must not be left as it is, then one waiting to be read
// again here, then elsewhere.
func (j *Job) unfinished() *ValveState {
	if v := j.find(func(v *ValveState) bool { return v.held() && j.here(v) }); v != nil {
		return v
	}
	if v, ok := j.Valve(j.picked); ok && v.begun() && j.Settable(v) {
		return v
	}
	if v := j.find(func(v *ValveState) bool { return v.begun() && j.Settable(v) && j.here(v) }); v != nil {
		return v
	}
	return j.find(func(v *ValveState) bool { return v.begun() && j.here(v) })
}

// workAt is what to do about one valve: at its stop where the crank is elsewhere, or not known. A reading
// made where the crank stood before, and a shim that lies outside, need no turning.
func (j *Job) workAt(v *ValveState) Next {
	switch {
	case j.Settable(v) || v.Out:
		return Next{Action: j.actionAt(v), Valve: v.Name, Stop: j.Stop}
	// it was made before the crank was moved, or came into doubt
	case len(v.Round) > 0 && (v.readThere || j.actionAt(v) == DoKeep):
		return Next{Action: DoKeep, Valve: v.Name, Stop: j.Stop}
	}
	at := j.stopFor(v)
	if at < 0 { // no stop serves it: go on, and it is come to where the crank is found
		return j.turnOn()
	}
	next := Next{Action: DoTurn, Stop: at}
	if j.Sure() {
		next.Turn = j.turnTo(at)
	} else {
		next.Confirm = j.Crank.Known && at == j.Stop
	}
	return next
}

// clearAnywhere is a valve that waits and is clear wherever in a wide place the crank stands; nil: none.
func (j *Job) clearAnywhere(phase Phase) *ValveState {
	return j.find(func(v *ValveState) bool { return j.Settable(v) && j.ripe(v, phase) && j.Pending(v) && j.here(v) })
}

// findAgain leads to a stop where the crank is not known, or not narrowly: the one where it is believed to
// stand, where anything is waiting there, else the first one after it that has a valve waiting.
func (j *Job) findAgain() Next {
	if j.Crank.Known && j.Stop >= 0 && j.waitsAt(j.Plan.Stops[j.Stop]) {
		return Next{Action: DoTurn, Stop: j.Stop, Confirm: true}
	}
	next := j.turnOn()
	next.Turn = 0
	return next
}

// atHand is the valve to work on at the present position: the first of the stop that is waiting.
func (j *Job) atHand() *ValveState {
	if j.Stop < 0 {
		return nil
	}
	return j.firstPending(j.Plan.Stops[j.Stop])
}

// firstPending is the first valve of a stop that waits to be worked on there; nil: none.
func (j *Job) firstPending(stop sequence.Stop) *ValveState {
	phase := j.Phase()
	for _, v := range j.inHandOrder(stop) {
		if j.ripe(v, phase) && j.Pending(v) && j.here(v) {
			return v
		}
	}
	return nil
}

// waitsAt says that a valve of a stop waits in the present phase, there and now or after more turns.
func (j *Job) waitsAt(stop sequence.Stop) bool {
	return slices.ContainsFunc(stop.Set, func(set sequence.SetValve) bool {
		v, ok := j.Valve(set.Valve)
		return ok && j.Pending(v)
	})
}

// inHandOrder is the valves of a stop: those that had no play by hand, and were not read yet, then those
// whose kind the leaf in hand was last used at: it is used up before another one is picked up (common
// practice). Within a kind it is the plan's order.
func (j *Job) inHandOrder(stop sequence.Stop) []*ValveState {
	last, inHand := j.Valve(j.lastRead)
	list := make([]*ValveState, 0, len(stop.Set))
	var none, others []*ValveState
	for _, set := range stop.Set {
		v, ok := j.Valve(set.Valve)
		switch {
		case !ok:
		case v.Play == NoPlay && v.AsFound == nil:
			none = append(none, v)
		case inHand && v.Kind != last.Kind:
			others = append(others, v)
		default:
			list = append(list, v)
		}
	}
	return slices.Concat(none, list, others)
}

// atValve are the choices of what to do about a valve where the crank serves it: the first that fits; else it
// is read.
var atValve = []struct {
	fits func(*Job, *ValveState) bool
	do   Action
}{
	{(*Job).shimOut, DoAdjust},
	{(*Job).readOn, DoRead},
	{(*Job).settled, DoAdjust}, // which keeps the readings
	{(*Job).toBeKept, DoKeep},
	{(*Job).nutSlack, DoLock},
	{(*Job).freedFirst, DoFree},
	{(*Job).begunToSet, DoAdjust},
	{(*Job).lacksFigure, DoRead},
	{(*Job).foundOut, DoAdjust},
}

// actionAt is what is done with a valve, by the first condition of the list that fits.
func (j *Job) actionAt(v *ValveState) Action {
	for _, c := range atValve {
		if c.fits(j, v) {
			return c.do
		}
	}
	return DoRead
}

// shimOut: its shim lies outside.
func (j *Job) shimOut(v *ValveState) bool { return v.Out }

// readOn: its readings are not kept, and another leaf decides, or one of them is to be taken back.
func (j *Job) readOn(v *ValveState) bool {
	if !v.toKeep() {
		return false
	}
	judged := j.Judge(v)
	return judged.TryNext != nil || judged.Conflict != ""
}

// settled: its readings show surely that it is to be set, here and now.
func (j *Job) settled(v *ValveState) bool {
	if !v.toKeep() {
		return false
	}
	judged := j.Judge(v)
	return j.MaySet(v) && (judged.Sure || j.Rule == clearance.OneLeaf) &&
		judged.Verdict != clearance.Undecided
}

func (j *Job) toBeKept(v *ValveState) bool { return v.toKeep() }

func (j *Job) nutSlack(v *ValveState) bool { return v.Stage == NutLoose }

func (j *Job) freedFirst(v *ValveState) bool { return j.Going == FreeFirst && v.toFree() }

func (j *Job) begunToSet(v *ValveState) bool { return v.slackened() }

// foundOut: it was kept out of its limits, setting has its time, and no other leaf would decide it first.
func (j *Job) foundOut(v *ValveState) bool {
	return v.Stage == Untouched && j.maySetNow() && !v.unread() && v.Needs() &&
		!settlesByReading(v.Last.Judgement)
}

// MaySet says that setting a valve may follow on what was found of it here and now: it is read, not in, and
// the round has it set. One leaf that shows the side is enough.
func (j *Job) MaySet(v *ValveState) bool {
	judged, wants := j.Found(v), v.Needs()
	if len(v.Round) > 0 {
		wants = judged.Verdict != clearance.In
	}
	return wants && j.Settable(v) && j.Going != ReadOnly && !j.Sheet.Shimmed() && v.Stage != NutLoose &&
		j.maySetNow() && judged.Conflict == "" &&
		!(v.toKeep() && j.stale(v.readAt))
}

// MaySetThough says that a valve that is in may be set here and now for a reason.
func (j *Job) MaySetThough(v *ValveState) bool {
	return v.Last != nil && len(v.Round) == 0 && v.Last.Judgement.Verdict == clearance.In && !v.Needs() &&
		v.Stage == Untouched && j.Settable(v) && j.Sheet.HasLockNut() && j.Going != ReadOnly &&
		(j.asYouGo() || j.Phase() != AsFound)
}

// settlesByReading says that another leaf would decide what was kept undecided. Where none would, the valve
// is set by a leaf that is owned, or left with a reason.
func settlesByReading(judged clearance.Judgement) bool {
	return judged.Verdict == clearance.Undecided && judged.TryNext != nil
}

// turnOn goes to the next stop of the plan, after the present one, that has a valve waiting; from between two
// stops to the nearest one in the direction of turning.
func (j *Job) turnOn() Next {
	if j.Stop < 0 && j.Sure() {
		return j.nearest()
	}
	n := len(j.Plan.Stops)
	for i := 1; i <= n; i++ {
		at := (j.Stop + i) % n
		if j.Stop < 0 {
			at = i - 1
		}
		if !j.waitsAt(j.Plan.Stops[at]) {
			continue
		}
		next := Next{Action: DoTurn, Stop: at}
		if j.Sure() {
			next.Turn = j.turnTo(at)
		}
		return next
	}
	return Next{Action: DoNothing, Stop: j.Stop}
}

// turnTo is how far the crank goes to a stop, in the direction of the way.
func (j *Job) turnTo(stop int) measure.Angle {
	return sequence.TurnBetween(j.Crank.At, j.Plan.Stops[stop].Crank, j.Way.Direction)
}

// nearest is the stop with work that is reached with the least turning.
func (j *Job) nearest() Next {
	best := Next{Action: DoNothing, Stop: j.Stop}
	for at, stop := range j.Plan.Stops {
		if turn := j.turnTo(at); j.waitsAt(stop) &&
			(best.Action == DoNothing || turn < best.Turn) {
			best = Next{Action: DoTurn, Stop: at, Turn: turn}
		}
	}
	return best
}

// Here lists the valves waiting at the present place: those of its stop, or between stops whichever are
// clear.
func (j *Job) Here() []string {
	var list []string
	phase := j.Phase()
	if j.Stop >= 0 && j.Known() {
		for _, v := range j.inHandOrder(j.Plan.Stops[j.Stop]) {
			if j.ripe(v, phase) && j.Pending(v) {
				list = append(list, v.Name)
			}
		}
		return list
	}
	for _, v := range j.Valves {
		if j.Settable(v) && j.ripe(v, phase) && j.Pending(v) {
			list = append(list, v.Name)
		}
	}
	return list
}

// Then is the valve that keeping the present one goes on to at this stop; empty: none waits here.
func (j *Job) Then(n Next) string {
	here := slices.DeleteFunc(j.Here(), func(v string) bool { return v == n.Valve })
	if n.Action != DoKeep || len(here) == 0 {
		return ""
	}
	return here[0]
}

// SetsNext says that keeping the present valve's readings is followed by setting it, here and now.
func (j *Job) SetsNext(n Next) bool {
	v, ok := j.Valve(n.Valve)
	return ok && n.Action == DoKeep && j.MaySet(v)
}

// Progress is how many valves of how many are settled in the present phase.
func (j *Job) Progress() (done, total int) {
	switch phase := j.Phase(); phase {
	case AsFound, Verify:
		for _, v := range j.Valves {
			if !j.Pending(v) {
				done++
			}
		}
		return done, len(j.Valves)
	case Adjust:
		for _, v := range j.Valves {
			switch {
			case j.Pending(v):
				total++
			case v.Adjustments > 0 || v.LeaveReason != "":
				done, total = done+1, total+1
			}
		}
		return done, total
	case Sign, AwaitHot, Done:
		return len(j.Valves), len(j.Valves)
	}
	return 0, len(j.Valves)
}

// Finished lists the stops of the plan at which nothing waits any more in the present phase.
func (j *Job) Finished() (stops []int) {
	switch j.Phase() {
	case ChooseWay, Prepare, AwaitHot:
		return nil
	}
	for at, stop := range j.Plan.Stops {
		if !j.waitsAt(stop) {
			stops = append(stops, at)
		}
	}
	return stops
}
