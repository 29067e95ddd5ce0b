package job

import (
	"maps"
	"slices"
)

// hands are which valve each screen has in hand: several people may be at one engine, each with a screen. A
// screen that does not say which it is is one for all such.
type hands map[string]string

// pick takes a valve in hand on the screen where this is entered; none where it is empty.
func (j *Job) pick(valve string) {
	j.picked = valve
	j.hands = maps.Clone(j.hands) // a view may share it
	if j.hands == nil {
		j.hands = hands{}
	}
	j.hands[j.screen] = valve
}

// letGo takes those valves out of every hand of which something does not hold.
func (j *Job) letGo(stays func(*ValveState) bool) {
	gone := func(name string) bool {
		v, ok := j.Valve(name)
		return !ok || !stays(v)
	}
	if gone(j.picked) {
		j.picked = ""
	}
	j.hands = maps.Clone(j.hands)
	maps.DeleteFunc(j.hands, func(_, valve string) bool { return gone(valve) })
}

// putDown ends the work at a valve: nobody has it in hand any more, on whatever screen it was taken up or set,
// and the screen where this is entered has none.
func (j *Job) putDown(valve string) {
	j.pick("")
	j.outOfHand(valve)
}

// outOfHand takes a valve out of every hand.
func (j *Job) outOfHand(valve string) {
	j.letGo(func(v *ValveState) bool { return v.Name != valve })
}

// SeenFrom is the job as it is shown on a screen while others are at it on screens of their own: what they
// have in hand or have begun is theirs, and what they did last is not taken back here. Without others it is j
// itself. The copy is for looking at only.
func (j *Job) SeenFrom(screen string, others []string) *Job {
	if screen == "" || len(others) == 0 {
		return j
	}
	there := *j
	there.others = others
	there.picked = j.hands[screen]
	return &there
}

// elsewhere says that a valve is in somebody else's hands.
func (j *Job) elsewhere(v *ValveState) bool {
	return len(j.others) > 0 && slices.ContainsFunc(j.others, func(screen string) bool {
		return j.hands[screen] == v.Name || v.begun() && v.by == screen
	})
}

// here says that it is not.
func (j *Job) here(v *ValveState) bool { return !j.elsewhere(v) }

// apart says that a valve was begun on another screen than the one where something is entered now.
func (j *Job) apart(v *ValveState) bool { return j.screen != "" && v.by != "" && v.by != j.screen }

// MovedOn is the screen on which the crank was said to have been moved last; empty: it did not say which it
// is, or the crank was not moved.
func (j *Job) MovedOn() string {
	for _, e := range slices.Backward(j.log.entries) {
		if e.moves {
			return e.screen
		}
	}
	return ""
}
