package job

import (
	"cmp"
	"fmt"
	"slices"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/measure"
)

// This file is what is read in a gap: by leaf or dial, taken back, kept.

func (j *Job) soundReading(h Happening) error {
	if err := j.soundValve(h); err != nil {
		return err
	}
	if !slices.Contains([]clearance.Feel{clearance.Free, clearance.Drag, clearance.WontGo}, h.Feel) {
		return refuse("feel", fmt.Sprintf("%q is no feel: free, drag or wont_go.", h.Feel))
	}
	if len(h.Leaves) < 1 || len(h.Leaves) > gauge.MaxStack {
		return refuse("leaves_mm", fmt.Sprintf("%d leaves: one to %d go into a gap.", len(h.Leaves), gauge.MaxStack))
	}
	for _, l := range h.Leaves {
		if l.Marked <= 0 || l.Marked > gauge.MaxStoredLeaf {
			return refuse("leaves_mm", fmt.Sprintf("%s is not the thickness of a feeler leaf.", l.Marked))
		}
	}
	return nil
}

// mostReadings bounds the readings of one round: more tell nothing more, and each costs time to weigh.
const mostReadings = 200

// mayRead holds for leaves and dials alike.
func (j *Job) mayRead(h Happening) error {
	v := j.valve(h)
	if len(v.Round) >= mostReadings {
		return refuse("valve", fmt.Sprintf("%s has %d readings already. Keep them, or take some back.", v.Name, len(v.Round)))
	}
	if !h.MadeThere {
		return j.inHand(v)
	}
	if err := j.working(); err != nil {
		return err
	}
	margin, ok := j.clearThere(v, h.Since)
	if !ok {
		return refuse("valve", fmt.Sprintf("%s was not known to be clear of its lobe where this reading was made (%s). Read it again.", v.Name, margin))
	}
	return j.alone(v)
}

func (j *Job) read(h Happening) {
	j.addReading(h, clearance.Reading{Stack: j.Owned.Pick(h.Leaves), Feel: h.Feel})
}

func (j *Job) addReading(h Happening, r clearance.Reading) {
	v := j.valve(h)
	v.reading(append(v.Round, r))
	v.readAt, v.readDoubt = j.now, j.doubtful
	v.readThere = h.MadeThere
	j.picked = v.Name
}

// MaxGap is the widest gap that a dial indicator may show here (from memory: the widest clearance in the trade is below 0.7 mm, and an
// adjuster let right out leaves a few millimetres).
const MaxGap = 5 * measure.Millimetre

func (j *Job) soundDial(h Happening) error {
	if err := j.soundValve(h); err != nil {
		return err
	}
	if h.Gap == nil {
		return refuse("gap_mm", "Say what the dial reads.")
	}
	if *h.Gap < 0 || *h.Gap > MaxGap {
		return refuse("gap_mm", fmt.Sprintf("%s is not a valve clearance: 0 to %s. Is the unit right?", *h.Gap, MaxGap))
	}
	if h.Uncertainty < 0 || h.Uncertainty > clearance.MaxUncertainty {
		return refuse("uncertainty_mm", fmt.Sprintf("%s is not the uncertainty of a dial indicator: above 0, at most %s.", h.Uncertainty, clearance.MaxUncertainty))
	}
	return nil
}

func (j *Job) readDial(h Happening) {
	doubt := cmp.Or(h.Uncertainty, clearance.DialUncertainty)
	j.addReading(h, clearance.Reading{Dial: &clearance.Dial{Gap: *h.Gap, Uncertainty: doubt}})
}

func (j *Job) soundIndex(h Happening) error {
	if err := j.soundValve(h); err != nil {
		return err
	}
	if v := j.valve(h); h.Index == nil || *h.Index < 0 || *h.Index >= len(v.Round) {
		n := 0
		if h.Index != nil {
			n = *h.Index
		}
		return refuse("index", fmt.Sprintf("%s has no reading %d to take back.", v.Name, n+1))
	}
	return nil
}

func (j *Job) mayWithdraw(h Happening) error { return j.alone(j.valve(h)) }

// withdraw takes back one reading of the round, whichever is trusted least.
func (j *Job) withdraw(h Happening) {
	v := j.valve(h)
	v.reading(slices.Delete(slices.Clone(v.Round), *h.Index, *h.Index+1))
}

func (j *Job) mayKeep(h Happening) error {
	v := j.valve(h)
	switch {
	case v.Stage == NutLoose:
		return refuse("valve", fmt.Sprintf("The lock nut of %s is slack. Lock it, then check again.", v.Name))
	case len(v.Round) == 0:
		return refuse("valve", fmt.Sprintf("%s has no reading to keep.", v.Name))
	case j.Judge(v).Conflict != "":
		return refuse("valve", j.Judge(v).Conflict)
	}
	return nil
}

func (j *Job) keep(h Happening) {
	v := j.valve(h)
	judgement := j.Judge(v)
	result := &Result{Judgement: judgement, Readings: v.Round, At: v.readAt, Stale: j.stale(v.readAt), TimeDoubtful: v.readDoubt}
	j.learn(v, judgement)
	if v.Adjustments == 0 && !j.checked {
		v.AsFound = result
	}
	if v.Shim > 0 {
		v.readWith = v.Shim
	}
	v.reading(nil)
	v.Last, v.Stage, v.Left, j.picked = result, Untouched, "", ""
	v.Verified = j.barred && judgement.Verdict == clearance.In && !result.Stale
	if result.Stale {
		j.shut("The last reading came later than the hot figures hold. Run the engine warm again.")
	}
}
