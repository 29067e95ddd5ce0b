package job

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"metronix/core/measure"
	"metronix/core/sequence"
)

// act is what a kind of happening needs to make sense at all (asked of stored ones too, because its effect cannot do without), when
// today's rules refuse it, and what it does.
type act struct {
	sound func(*Job, Happening) error
	may   func(*Job, Happening) error
	do    func(*Job, Happening)
}

// acts is every kind but Undone, which makes the list itself shorter.
var acts = map[Kind]act{
	WayChosen:  {(*Job).soundWay, (*Job).mayChooseWay, (*Job).chooseWay},
	Thermal:    {soundTemperature, nil, (*Job).noteTemperature},
	Prepared:   {soundTemperature, (*Job).mayPrepare, (*Job).prepare},
	Turned:     {(*Job).soundStop, (*Job).mayTurn, (*Job).turn},
	Located:    {(*Job).soundSeen, (*Job).mayLocate, (*Job).locate},
	Doubted:    {nil, (*Job).mayDoubt, (*Job).doubt},
	Picked:     {(*Job).soundValve, (*Job).mayPick, (*Job).pick},
	ReadingHad: {(*Job).soundReading, (*Job).mayRead, (*Job).read},
	DialRead:   {(*Job).soundDial, (*Job).mayRead, (*Job).readDial},
	Withdrawn:  {(*Job).soundIndex, (*Job).mayWithdraw, (*Job).withdraw},
	Sized:      {(*Job).soundShim, (*Job).maySize, (*Job).size},
	Kept:       {(*Job).soundValve, (*Job).mayKeep, (*Job).keep},
	Adjusted:   {(*Job).soundValve, (*Job).mayAdjust, (*Job).adjust},
	Locked:     {(*Job).soundValve, (*Job).mayLock, (*Job).lock},
	LeftAsIs:   {(*Job).soundValve, (*Job).mayLeave, (*Job).leave},
	BarredOver: {nil, (*Job).mayBarOver, (*Job).barOver},
	Signed:     {nil, (*Job).maySign, (*Job).sign},
	WentHot:    {nil, (*Job).mayGoHot, (*Job).goHot},
}

// apply takes one happening in; where it was accepted before, only what makes no sense at all is refused. On a refusal nothing is
// changed.
func (j *Job) apply(h Happening, accepted bool) error {
	a, ok := acts[h.Kind]
	if !ok {
		return refuse("kind", fmt.Sprintf("%q is nothing that happens in a job.", h.Kind))
	}
	if a.sound != nil {
		if err := a.sound(j, h); err != nil {
			return err
		}
	}
	at, doubt := j.when(h)
	before := j.pause
	j.rest(at)
	if !accepted {
		if err := j.may(a, h); err != nil {
			j.pause = before
			return err
		}
	}
	j.now, j.doubtful = at, doubt
	j.putBack = j.putBack || at.Before(j.last.Add(-clockSlack))
	a.do(j, h)
	j.last = at
	j.effective = append(j.effective, h)
	j.log.note(h, j)
	return nil
}

func (j *Job) may(a act, h Happening) error {
	if j.SignedBy != "" && !(h.Kind == WentHot && j.Provisional()) {
		return refuse("kind", "The job is signed. What is signed stays as it is: start a new job.")
	}
	if err := j.outdated(h); err != nil {
		return err
	}
	if a.may == nil {
		return nil
	}
	return a.may(j, h)
}

// How far a client's word for when something was done is believed (from memory): not later than it arrived, nor before what is in the
// list already by more than a clock's difference, nor more than two days old.
const (
	clockSlack = time.Minute
	oldest     = 48 * time.Hour
)

// when is the time at which a happening counts, and whether that is in doubt because the client's word for it cannot be right.
func (j *Job) when(h Happening) (at time.Time, doubt bool) {
	switch {
	case h.At.IsZero():
		return j.last, false
	case h.DoneAt.IsZero():
		return h.At, false
	case h.DoneAt.After(h.At.Add(clockSlack)), h.DoneAt.Before(j.last.Add(-clockSlack)), h.At.Sub(h.DoneAt) > oldest:
		return h.At, true
	case h.DoneAt.After(h.At):
		return h.At, false
	}
	return h.DoneAt, false
}

// valve finds the valve of a happening that is sound.
func (j *Job) valve(h Happening) *ValveState {
	v, _ := j.Valve(h.Valve)
	return v
}

func (j *Job) soundValve(h Happening) error {
	if _, ok := j.Valve(h.Valve); !ok {
		return refuse("valve", fmt.Sprintf("%q is no valve of this engine.", h.Valve))
	}
	return nil
}

// planOf is the plan of a way round. One that was accepted when angles were compared less exactly is planned a hair laxer.
func (j *Job) planOf(way sequence.Way) (sequence.Plan, error) {
	plan, err := sequence.Make(j.Sheet, sequence.Request{Way: way})
	if err != nil || plan.Applies {
		return plan, err
	}
	laxer := j.required - 10*measure.SameAngle
	if again, err := sequence.Make(j.Sheet, sequence.Request{Way: way, RequiredMargin: &laxer}); err == nil && again.Applies {
		return again, nil
	}
	return plan, nil
}

func (j *Job) soundWay(h Happening) error {
	plan, err := j.planOf(h.Way)
	switch {
	case err != nil:
		return refuse("school", err.Error())
	case !plan.Applies:
		return refuse("school", plan.Reason)
	}
	return nil
}

func (j *Job) mayChooseWay(h Happening) error {
	if plan, err := sequence.Make(j.Sheet, sequence.Request{Way: h.Way}); err != nil || !plan.Applies {
		return refuse("school", plan.Reason)
	}
	if v := j.nutLoose(); v != nil {
		return refuse("school", fmt.Sprintf("The lock nut of %s is slack. Lock it before changing the way round.", v.Name))
	}
	return nil
}

func (j *Job) chooseWay(h Happening) {
	plan, _ := j.planOf(h.Way)
	j.Way, j.Plan = h.Way, plan
	j.Stop = j.stopHere()
}

// working refuses bench work before the job is prepared.
func (j *Job) working() error {
	switch {
	case j.Way.School == "":
		return refuse("kind", "Choose the way round first.")
	case !j.Prepared:
		return refuse("kind", "Take the engine's temperature first.")
	}
	return nil
}

// nutLoose is the valve whose nut is not locked, unkept the one with readings not kept, bare the one whose shim lies elsewhere.
func (j *Job) nutLoose() *ValveState {
	return j.find(func(v *ValveState) bool { return v.Stage == NutLoose })
}

func (j *Job) unkept() *ValveState {
	return j.find(func(v *ValveState) bool { return len(v.Round) > 0 })
}

func (j *Job) bare() *ValveState {
	return j.find(func(v *ValveState) bool { return v.Out })
}

func (j *Job) find(f func(*ValveState) bool) *ValveState {
	if i := slices.IndexFunc(j.Valves, f); i >= 0 {
		return j.Valves[i]
	}
	return nil
}

// clear refuses a valve that does not stand on its base circle here.
func (j *Job) clear(v *ValveState) error {
	switch {
	case !j.CrankKnown:
		return refuse("valve", "Find the first stop before a valve is read.")
	case j.pause.confirm:
		return refuse("valve", fmt.Sprintf("Nothing was entered for more than %v hours. Confirm where the crank stands before a valve is read.", ConfirmAfter.Hours()))
	case j.Settable(v):
		return nil
	}
	if m := j.Margin(v); m >= 0 {
		return refuse("valve", fmt.Sprintf("%s stands only %s from opening or closing here; %s is required. Turn to its stop first.",
			v.Name, m.Against(j.required), j.required))
	}
	return refuse("valve", fmt.Sprintf("%s is open here: it would read far too tight. Turn to its stop first.", v.Name))
}

// alone refuses work on a valve while another one is in hand. One that only waits to be read again, at another stop or once all shims are
// in, is not.
func (j *Job) alone(v *ValveState) error {
	other := j.find(func(o *ValveState) bool {
		return o != v && (o.held() || o.Stage == NutTight && j.Settable(o) && !j.Sheet.Shimmed())
	})
	if other == nil {
		return nil
	}
	return refuse("valve", fmt.Sprintf("Finish %s first: %s.", other.Name, other.unfinished()))
}

// held says that the valve must not be left as it is: a reading is not kept, its nut is slack, or it has no shim.
func (v *ValveState) held() bool { return len(v.Round) > 0 || v.Stage == NutLoose || v.Out }

// begun says that something about the valve is not finished.
func (v *ValveState) begun() bool { return v.held() || v.Stage != Untouched }

// unfinished says in words what is not finished about a valve.
func (v *ValveState) unfinished() string {
	switch {
	case v.Out:
		return "its shim was taken out for another valve"
	case v.Stage == NutLoose:
		return "its lock nut is slack"
	case len(v.Round) > 0:
		return "its reading is not kept"
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

func (j *Job) mayPick(h Happening) error {
	if err := j.working(); err != nil {
		return err
	}
	return j.alone(j.valve(h))
}

func (j *Job) pick(h Happening) { j.picked = h.Valve }

func (j *Job) mayBarOver(Happening) error {
	if j.Phase() != Verify {
		return refuse("kind", "The two turns come after every valve is adjusted and locked.")
	}
	return j.nothingBegun("the two turns")
}

// nothingBegun refuses what comes after the work on a valve while one is not finished.
func (j *Job) nothingBegun(before string) error {
	if v := j.find((*ValveState).begun); v != nil {
		return refuse("kind", fmt.Sprintf("Finish %s before %s: %s.", v.Name, before, v.unfinished()))
	}
	return nil
}

func (j *Job) barOver(Happening) { j.barred, j.checked = true, true }

func (j *Job) maySign(h Happening) error {
	if err := j.nothingBegun("signing"); err != nil {
		return err
	}
	switch {
	case j.Phase() != Sign:
		return refuse("kind", "The job is not finished: valves are waiting to be read, adjusted or checked.")
	case strings.TrimSpace(h.By) == "":
		return refuse("by", "Say who signs.")
	case !h.ToolsOut:
		return refuse("tools_out", "Count tools and leaves out, and take the socket off the crank, before signing.")
	}
	return nil
}

func (j *Job) sign(h Happening) {
	j.SignedBy, j.SignedAt = strings.TrimSpace(h.By), j.now
}
