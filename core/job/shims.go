package job

import (
	"fmt"
	"slices"
	"time"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/measure"
)

// MaxShim is the thickest shim, or bucket by its crown, that is taken (from memory: shims lie between 1 and 5
// mm).
const MaxShim = 20 * measure.Millimetre

// notAShim says why a thickness is none of a shim's.
func notAShim(l measure.Length) string {
	return fmt.Sprintf("%s is not the thickness of a shim: above 0, at most %s.", l, MaxShim)
}

// ShopShim is a shim that went from the shop into the engine, and when.
type ShopShim struct {
	Shim measure.Length
	At   time.Time
}

// Shop is what a workshop has of shims: the sizes that can be bought, in any number, and the pieces that lie
// there. It is no part of a job; what is next follows from it where shims are changed.
type Shop struct {
	Sizes []measure.Length
	Stock []adjust.Count
}

// Supply says what the workshop has of shims now.
func (j *Job) Supply(s Shop) { j.shop, j.chosen = s, nil }

// Shop is what the workshop has of shims, as it was said last.
func (j *Job) Shop() Shop { return j.shop }

// chosenShims is the choice of shims that the job is worked by, and the valves it waits for.
type chosenShims struct {
	plan    adjust.ShimPlan
	missing []string
}

// choice is the choice of shims that this job is worked by: after what was chosen for it, from what the
// workshop has.
func (j *Job) choice() chosenShims {
	if j.chosen == nil {
		c := chosenShims{}
		c.plan, c.missing = j.ChooseShims(j.shop.Sizes, j.shop.Stock, j.Prefer)
		j.chosen = &c
	}
	return *j.chosen
}

// ShimFor is what the choice of shims puts under a valve; ok is false where it has nothing that serves it.
func (j *Job) ShimFor(valve string) (fit adjust.Fit, ok bool) {
	fits := j.choice().plan.Fit
	i := slices.IndexFunc(fits, func(f adjust.Fit) bool { return f.Valve == valve })
	if i < 0 {
		return fit, false
	}
	return fits[i], true
}

// ShimToTry is a shim to hand that may serve a valve that none surely serves, and may be tried under it; 0:
// there is none.
func (j *Job) ShimToTry(valve string) measure.Length { return j.lacking(valve).Try }

// ShimToOrder is the size that may serve a valve that none surely serves, and has to be bought to be tried;
// 0: there is none, or one is to hand.
func (j *Job) ShimToOrder(valve string) measure.Length { return j.lacking(valve).Order }

// lacking is what is said of a valve that no shim surely serves; nothing of any other.
func (j *Job) lacking(valve string) (none adjust.Lacking) {
	for _, l := range j.choice().plan.Impossible {
		if l.Valve == valve {
			return l
		}
	}
	return none
}

// ChooseShims works the whole engine over at once, once every valve is read as found: what is still to be
// done, with the shims that lie on the bench counted as stock. Stock is what the shop has now. Missing names
// the valves that need another shim and whose fitted size, or whose gap as a figure, is not known yet. A
// valve that is in and whose size is not known keeps its shim, and is left out.
//
// Another shim must leave a gap surely in its limits, by as much as its figure is uncertain. One that was
// found in keeps its own, however close, unless the plan moves it, and for the aim's sake it is moved only
// where it gains more than its figure is uncertain. One that was fitted in this job and found in stays.
func (j *Job) ChooseShims(
	sizes []measure.Length,
	stock []adjust.Count,
	prefer adjust.Prefer,
) (plan adjust.ShimPlan,
	missing []string) {
	var valves []adjust.ShimValve
	for _, v := range j.Valves {
		gap, doubt, ok := gapOf(v)
		switch {
		case v.Stage != Untouched || v.LeaveReason != "": // done, and waiting to be read again; or left
		case ok && v.readWith > 0:
			in := v.Last.Judgement.Verdict == clearance.In
			one := adjust.ShimValve{Valve: v.Name, Fitted: v.readWith, Measured: gap,
				Window: v.Limits.Window, Aim: j.AimOf(v), Out: v.Out || v.StandIn, Uncertainty: doubt,
				Tried: v.hadUnder, Keeps: in, Stays: in && v.Adjustments > 0 && !v.Out && !v.StandIn}
			if in {
				one.LeastGain = doubt
			}
			valves = append(valves, one)
		case v.Needs():
			missing = append(missing, v.Name)
		}
	}
	here := slices.Clone(stock)
	for _, shim := range j.LooseShims {
		here = append(here, adjust.Count{Shim: shim, N: 1})
	}
	return adjust.ChooseShims(valves, sizes, here, prefer), missing
}

// gapOf is a valve's gap over the shim it was read with as one figure, and how uncertain that is, either way.
//
// Shim and gap together are one quantity of a valve, whichever shim is in (by geometry): every reading of it
// in this pass, with whichever shim, narrows it. Where they do not meet, the last one counts: a seat was
// cleaned, or a size was written down wrongly.
func gapOf(v *ValveState) (gap, doubt measure.Length, ok bool) {
	if v.Last == nil || v.Last.Judgement.High == nil {
		return 0, 0, false
	}
	judged := v.Last.Judgement
	known := measure.Window{Lower: judged.Low, Upper: *judged.High}
	if sum := v.sum; sum != nil && v.readWith > 0 {
		before := measure.Window{Lower: sum.Lower - v.readWith, Upper: sum.Upper - v.readWith}
		if both, meet := known.Both(before); meet {
			known = both
		}
	}
	gap = known.Middle()
	if judged.Estimate != nil {
		gap = min(max(*judged.Estimate, known.Lower), known.Upper)
	}
	return gap, max(gap-known.Lower, known.Upper-gap), true
}

// remember keeps what is known of shim and gap together before another shim goes in.
func (v *ValveState) remember() {
	gap, doubt, ok := gapOf(v)
	if !ok || v.readWith == 0 {
		return
	}
	middle := v.readWith + gap
	v.sum = &measure.Window{Lower: middle - doubt, Upper: middle + doubt}
}

// wantFigure sends a valve of a shimmed engine that is out of its limits, or that no leaf decides, on to the
// leaf that drags, because its shim is reckoned from the gap as a figure.
func (j *Job) wantFigure(v *ValveState, judged *clearance.Judgement) {
	undecided := judged.Verdict == clearance.Undecided && judged.TryNext == nil && judged.Conflict == "" &&
		len(v.Round) > 0
	if !j.Sheet.Shimmed() ||
		(judged.Verdict != clearance.Tight && judged.Verdict != clearance.Loose && !undecided) {
		return
	}
	if pin := clearance.PinDown(v.Round, j.Owned); pin != nil {
		judged.TryNext, judged.PinDown = pin, pin
	}
}

// lacksFigure says that a valve of a shimmed engine was kept out of its limits without a figure that a leaf
// could still give.
func (j *Job) lacksFigure(v *ValveState) bool {
	if !j.Sheet.Shimmed() || v.Stage != Untouched || v.Out || v.StandIn || !v.Needs() {
		return false
	}
	return v.Last.Judgement.Estimate == nil && clearance.PinDown(v.Last.Readings, j.Owned) != nil
}

// ShimSource is where a shim of a plan is to be had.
type ShimSource string

// The sources: it stays where it is, another valve has it, it lies on the bench or in the shop, or it is to
// be bought.
const (
	Stays     ShimSource = "stays"
	FromValve ShimSource = "valve"
	FromBench ShimSource = "bench"
	InShop    ShimSource = "shop"
	ToBuy     ShimSource = "buy"
)

// Source says where a shim of a plan is to be had.
func (j *Job) Source(f adjust.Fit) ShimSource {
	switch {
	case f.From == f.Valve:
		return Stays
	case f.From != adjust.FromStock:
		return FromValve
	case f.Bought:
		return ToBuy
	case slices.Contains(j.LooseShims, f.Shim):
		return FromBench
	}
	return InShop
}

// GiverClear says whether the valve that gives a shim is clear of its lobe here, so that it can be taken out
// with the cams in.
func (j *Job) GiverClear(f adjust.Fit) bool {
	giver, ok := j.Valve(f.From)
	return ok && j.Settable(giver)
}
