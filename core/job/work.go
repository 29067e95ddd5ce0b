package job

import (
	"fmt"
	"slices"
)

// This file is what several acts ask before they are taken: whether there is such a valve, whether it may be
// worked on here and now, and whether something else must be finished first.

// has refuses a name that is no valve's.
func (j *Job) has(valve string) error {
	if _, ok := j.Valve(valve); !ok {
		return refuse("valve", fmt.Sprintf("%q is no valve of this engine.", valve))
	}
	return nil
}

// valve finds the valve of an act that is sound.
func (j *Job) valve(name string) *ValveState {
	v, _ := j.Valve(name)
	return v
}

// working refuses bench work before the job is prepared.
func (j *Job) working() error {
	switch {
	case j.Way.School == "":
		return refuse("kind", "Choose the sequence first.")
	case !j.GateOpen():
		return refuse("kind", "Take the engine's temperature first.")
	}
	return nil
}

// nutLoose is the valve whose nut is not locked, unkept the one with readings not kept, bare the one whose
// shim lies elsewhere.
func (j *Job) nutLoose() *ValveState {
	return j.find(func(v *ValveState) bool { return v.Stage == NutLoose })
}

// unkept is a valve with readings that are not kept; nil: none.
func (j *Job) unkept() *ValveState {
	return j.find(func(v *ValveState) bool { return len(v.Round) > 0 })
}

// bare is a valve whose shim lies elsewhere; nil: none.
func (j *Job) bare() *ValveState {
	return j.find(func(v *ValveState) bool { return v.Out })
}

// find is the first valve of which something holds, in engine order; nil: none.
func (j *Job) find(f func(*ValveState) bool) *ValveState {
	if i := slices.IndexFunc(j.Valves, f); i >= 0 {
		return j.Valves[i]
	}
	return nil
}

// clear refuses a valve that does not stand on its base circle here.
func (j *Job) clear(v *ValveState) error {
	switch {
	case !j.Crank.Known:
		return refuse("valve", "Find the first stop before a valve is read.")
	case j.pause.confirm:
		return refuse("valve", fmt.Sprintf("Nothing was entered for more than %v hours. "+
			"Confirm where the crank stands before a valve is read.", ConfirmAfter.Hours()))
	case j.Settable(v):
		return nil
	}
	if m := j.Margin(v); m >= 0 {
		return refuse("valve", fmt.Sprintf("%s stands only %s from opening or closing here; %s is required. "+
			"Turn to its stop first.", v.Name, m.Against(j.required), j.required))
	}
	return refuse("valve", fmt.Sprintf(
		"%s is open here: it would read far too tight. Turn to its stop first.", v.Name))
}

// alone refuses work on a valve while another one is in hand. One that only waits to be read again, at
// another stop or once all shims are in, is not.
func (j *Job) alone(v *ValveState) error {
	other := j.find(func(o *ValveState) bool {
		return o != v && !j.apart(o) && (o.held() || o.Stage == NutTight && j.Settable(o) && !j.Sheet.Shimmed())
	})
	if other == nil {
		return nil
	}
	return refuse("valve", fmt.Sprintf("Finish %s first: %s.", other.Name, other.unfinished()))
}

// held says that the valve must not be left as it is: a reading is not kept, its nut is slack, or it has no
// shim.
func (v *ValveState) held() bool { return len(v.Round) > 0 || v.Stage == NutLoose || v.Out }

// begun says that something about the valve is not finished.
func (v *ValveState) begun() bool { return v.held() || v.StandIn || v.Stage != Untouched }

// unfinished says in words what is not finished about a valve.
func (v *ValveState) unfinished() string {
	switch {
	case v.Out:
		return "its shim was taken out for another valve"
	case v.StandIn:
		return "a shim stands in for its own"
	case v.Stage == NutLoose:
		return "its lock nut is slack"
	case len(v.Round) > 0:
		return "its reading is not kept"
	case v.slackened():
		return "its adjuster was slackened and is not set"
	}
	return "it was set and has to be read again"
}

// inHand refuses work on a valve that is not clear here, or while another one is in hand.
func (j *Job) inHand(v *ValveState) error {
	if err := j.working(); err != nil {
		return err
	}
	if err := j.clear(v); err != nil {
		return err
	}
	return j.alone(v)
}

// nothingBegun refuses what comes after the work on a valve while one is not finished.
func (j *Job) nothingBegun(before string) error {
	if v := j.find((*ValveState).begun); v != nil {
		return refuse("kind", fmt.Sprintf("Finish %s before %s: %s.", v.Name, before, v.unfinished()))
	}
	return nil
}
