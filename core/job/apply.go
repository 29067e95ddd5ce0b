package job

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// apply checks one happening against the state and takes it in. On a refusal nothing is changed.
func (j *Job) apply(h Happening) error {
	if j.SignedBy != "" && !(h.Kind == WentHot && j.Provisional()) {
		return refuse("kind", "The job is signed. What is signed stays as it is: start a new job.")
	}
	takers := map[Kind]func(Happening) error{
		WayChosen: j.chooseWay, Thermal: j.noteTemperature, Prepared: j.prepare, WentHot: j.goHot, DialRead: j.readDial, Withdrawn: j.withdraw, Sized: j.size, Turned: j.turn, Located: j.locate, Picked: j.pick, ReadingHad: j.read, Kept: j.keep,
		Adjusted: j.adjust, Locked: j.lock, LeftAsIs: j.leave, BarredOver: j.barOver, Signed: j.sign,
	}
	take, ok := takers[h.Kind]
	if !ok {
		return refuse("kind", fmt.Sprintf("%q is nothing that happens in a job.", h.Kind))
	}
	if err := take(h); err != nil {
		return err
	}
	j.effective = append(j.effective, h)
	return nil
}

func (j *Job) chooseWay(h Happening) error {
	plan, err := sequence.Make(j.Sheet, sequence.Request{Way: h.Way})
	if err != nil {
		return refuse("school", err.Error())
	}
	if !plan.Applies {
		return refuse("school", plan.Reason)
	}
	if v := j.loose(); v != nil {
		return refuse("school", fmt.Sprintf("The lock nut of %s is loose. Lock it before changing the way round.", v.Name))
	}
	j.Way, j.Plan = h.Way, plan
	j.Stop = j.stopHere()
	return nil
}

func (j *Job) turn(h Happening) error {
	if err := j.working(); err != nil {
		return err
	}
	if h.Stop < 0 || h.Stop >= len(j.Plan.Stops) {
		return refuse("stop", fmt.Sprintf("There is no stop %d: this way round has stops 0 to %d.", h.Stop, len(j.Plan.Stops)-1))
	}
	if err := j.nothingInHand("stop"); err != nil {
		return err
	}
	j.stand(sequence.Exactly(j.Plan.Stops[h.Stop].Crank))
	j.Stop = h.Stop
	return nil
}

// nothingInHand refuses a change of the crank's place while a nut is loose or a reading is not kept.
func (j *Job) nothingInHand(field string) error {
	if v := j.loose(); v != nil {
		return refuse(field, fmt.Sprintf("The lock nut of %s is loose. Lock it before the crank is turned.", v.Name))
	}
	if v := j.open(); v != nil {
		return refuse(field, fmt.Sprintf("%s has a reading that is not kept. Keep it or take it back before the crank is turned.", v.Name))
	}
	return nil
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

// loose is the valve whose nut is not locked, open the one with readings not kept.
func (j *Job) loose() *ValveState {
	return j.find(func(v *ValveState) bool { return v.Stage == NutLoose })
}

func (j *Job) open() *ValveState {
	return j.find(func(v *ValveState) bool { return len(v.Round) > 0 })
}

func (j *Job) find(f func(*ValveState) bool) *ValveState {
	if i := slices.IndexFunc(j.Valves, f); i >= 0 {
		return j.Valves[i]
	}
	return nil
}

// atValve finds the valve of a happening and refuses one that does not stand on its base circle here.
func (j *Job) atValve(h Happening) (*ValveState, error) {
	if err := j.working(); err != nil {
		return nil, err
	}
	v, ok := j.Valve(h.Valve)
	if !ok {
		return nil, refuse("valve", fmt.Sprintf("%q is no valve of this engine.", h.Valve))
	}
	if !j.CrankKnown {
		return nil, refuse("valve", "Find the first stop before a valve is read.")
	}
	if !j.Settable(v) {
		m := j.Margin(v)
		if m < 0 {
			return nil, refuse("valve", fmt.Sprintf("%s is open here: it would read far too tight. Turn to its stop first.", v.Name))
		}
		return nil, refuse("valve", fmt.Sprintf("%s stands only %s from opening or closing here; %s is required. Turn to its stop first.",
			v.Name, measure.FormatAngle(m), measure.FormatAngle(j.required)))
	}
	return v, nil
}

func (j *Job) pick(h Happening) error {
	v, err := j.inHandOf(h)
	if err != nil {
		return err
	}
	j.picked = v.Name
	return nil
}

// busy is another valve that is in hand.
func (j *Job) busy(v *ValveState) *ValveState {
	return j.find(func(o *ValveState) bool { return o != v && (len(o.Round) > 0 || o.Stage != Untouched) })
}

func (j *Job) read(h Happening) error {
	v, err := j.inHandOf(h)
	if err != nil {
		return err
	}
	if !slices.Contains([]clearance.Feel{clearance.Free, clearance.Drag, clearance.WontGo}, h.Feel) {
		return refuse("feel", fmt.Sprintf("%q is no feel: free, drag or wont_go.", h.Feel))
	}
	if len(h.Leaves) < 1 || len(h.Leaves) > gauge.MaxStack {
		return refuse("leaves_mm", fmt.Sprintf("%d leaves: one to %d go into a gap.", len(h.Leaves), gauge.MaxStack))
	}
	for _, l := range h.Leaves {
		if l <= 0 || l > gauge.MaxLeaf {
			return refuse("leaves_mm", fmt.Sprintf("%s is not the thickness of a feeler leaf.", l))
		}
	}
	v.reading(append(v.Round, clearance.Reading{Stack: j.Owned.Pick(h.Leaves), Feel: h.Feel}))
	j.picked = v.Name
	return nil
}

// inHandOf is the valve of a happening, refused while another one is in hand.
func (j *Job) inHandOf(h Happening) (*ValveState, error) {
	v, err := j.atValve(h)
	if err != nil {
		return nil, err
	}
	if other := j.busy(v); other != nil {
		return nil, refuse("valve", fmt.Sprintf("Finish %s first: its reading is not kept or its nut is loose.", other.Name))
	}
	return v, nil
}

// maxGap is the widest gap that a dial indicator may show here.
const maxGap = 5 * measure.Millimetre

func (j *Job) readDial(h Happening) error {
	v, err := j.inHandOf(h)
	if err != nil {
		return err
	}
	if h.Gap < 0 || h.Gap > maxGap {
		return refuse("gap_mm", fmt.Sprintf("%s is not a valve clearance: 0 to %s. Is the unit right?", h.Gap, maxGap))
	}
	doubt := cmp.Or(h.Uncertainty, clearance.DialUncertainty)
	if doubt < 0 || doubt > measure.Millimetre/10 {
		return refuse("uncertainty_mm", fmt.Sprintf("%s is not the uncertainty of a dial indicator: above 0, at most 0.1 mm.", h.Uncertainty))
	}
	v.reading(append(v.Round, clearance.Reading{Dial: &clearance.Dial{Gap: h.Gap, Uncertainty: doubt}}))
	j.picked = v.Name
	return nil
}

// withdraw takes back one reading of the round, whichever is trusted least.
func (j *Job) withdraw(h Happening) error {
	v, err := j.inHandOf(h)
	if err != nil {
		return err
	}
	if h.Index < 0 || h.Index >= len(v.Round) {
		return refuse("index", fmt.Sprintf("%s has no reading %d to take back.", v.Name, h.Index+1))
	}
	v.reading(slices.Delete(slices.Clone(v.Round), h.Index, h.Index+1))
	return nil
}

func (j *Job) keep(h Happening) error {
	v, err := j.atValve(h)
	if err != nil {
		return err
	}
	switch {
	case v.Stage == NutLoose:
		return refuse("valve", fmt.Sprintf("The lock nut of %s is loose. Lock it, then check again.", v.Name))
	case len(v.Round) == 0:
		return refuse("valve", fmt.Sprintf("%s has no reading to keep.", v.Name))
	}
	judgement := j.Judge(v)
	if judgement.Conflict != "" {
		return refuse("valve", judgement.Conflict)
	}
	result := &Result{Judgement: judgement, Readings: v.Round, At: h.At, Stale: j.stale(h.At)}
	j.learn(v, judgement)
	if v.Adjustments == 0 && !j.barred {
		v.AsFound = result
	}
	if v.Shim > 0 {
		v.readWith = v.Shim
	}
	v.reading(nil)
	v.Last, v.Stage, v.Left, j.picked = result, Untouched, "", ""
	v.Verified = j.barred && judgement.Verdict == clearance.In && !result.Stale
	j.Prepared = j.Prepared && !result.Stale // too late: warm it up again
	return nil
}

func (j *Job) adjust(h Happening) error {
	v, err := j.inHandOf(h)
	if err != nil {
		return err
	}
	switch {
	case j.Phase() == AsFound:
		return refuse("valve", "Read every valve as found before any is touched.")
	case j.Sheet.Shimmed() && h.Shim == 0 && v.Shim > 0:
		return refuse("shim_mm", fmt.Sprintf("Say which shim went under %s.", v.Name))
	case h.Shim < 0 || h.Shim > MaxShim:
		return refuse("shim_mm", fmt.Sprintf("%s is not the thickness of a shim: above 0, at most %s.", h.Shim, MaxShim))
	case j.noGiver(v, h) != "":
		return refuse("from", j.noGiver(v, h))
	case j.swapped(v, h): // a good valve gets another shim where the choice over the whole engine wants it
	case !v.Needs() && v.Stage == Untouched:
		return refuse("valve", fmt.Sprintf("%s is in. Leave it alone: disturbing a good valve is a risk.", v.Name))
	}
	v.Adjustments++
	v.reading(nil)
	v.Verified, v.Left, v.before = false, "", j.Owned.Pick(h.Leaves).Thickness()
	if h.Shim > 0 {
		j.fit(v, h)
	}
	v.Stage = NutLoose
	if !j.Sheet.HasLockNut() {
		v.Stage = NutTight
	}
	j.barred, j.picked = false, v.Name
	return nil
}

func (j *Job) lock(h Happening) error {
	v, err := j.atValve(h)
	if err != nil {
		return err
	}
	if v.Stage != NutLoose {
		return refuse("valve", fmt.Sprintf("The lock nut of %s was not loosened.", v.Name))
	}
	if estimate := j.Judge(v).Estimate; estimate != nil {
		v.before = *estimate
	}
	v.Stage = NutTight
	v.reading(nil)
	return nil
}

func (j *Job) leave(h Happening) error {
	v, err := j.atValve(h)
	if err != nil {
		return err
	}
	switch {
	case strings.TrimSpace(h.Reason) == "":
		return refuse("reason", "Say why the valve is left: the sheet will show it.")
	case v.Stage == NutLoose:
		return refuse("valve", fmt.Sprintf("The lock nut of %s is loose. Lock it first.", v.Name))
	case !v.Needs():
		return refuse("valve", fmt.Sprintf("%s is not out of its limits: there is nothing to leave.", v.Name))
	}
	v.reading(nil)
	v.Left, v.Stage, j.picked = strings.TrimSpace(h.Reason), Untouched, ""
	return nil
}

func (j *Job) barOver(Happening) error {
	if j.Phase() != Verify {
		return refuse("kind", "The two turns come after every valve is adjusted and locked.")
	}
	j.barred = true
	return nil
}

func (j *Job) sign(h Happening) error {
	switch {
	case j.Phase() != Sign:
		return refuse("kind", "The job is not finished: valves are waiting to be read, adjusted or checked.")
	case strings.TrimSpace(h.By) == "":
		return refuse("by", "Say who signs.")
	case !h.ToolsOut:
		return refuse("tools_out", "Count tools and leaves out, and take the socket off the crank, before signing.")
	}
	j.SignedBy, j.SignedAt = strings.TrimSpace(h.By), h.At
	return nil
}
