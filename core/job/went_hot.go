package job

import "time"

// WentHot begins the hot pass of a job signed provisionally: the hot card, every valve to be read anew, the
// engine to be warmed first and its crank to be found again. What was found and left cold stays, with its
// reasons.
//
// A hot figure is never reckoned from a cold one. The engine is run, shut off and read within ten minutes
// against its own hot card; that it ran also means that nobody knows where its crank stands.
type WentHot struct{ plain }

// Kind is "went_hot".
func (WentHot) Kind() Kind { return "went_hot" }

func (WentHot) may(j *Job, _ string) error {
	if j.Phase() != AwaitHot {
		return refuse("kind", "The hot pass comes after the cold start is signed.")
	}
	return nil
}

// do begins the second pass on the hot card: every valve is read again, and nothing of the cold pass is lost
// from the sheet.
func (WentHot) do(j *Job) {
	if j.Hot == nil {
		return
	}
	limits, err := limitsOf(*j.Hot)
	if err != nil {
		return // New refused such a card
	}
	j.Cold = &Signature{j.SignedBy, j.SignedAt}
	j.Card = *j.Hot
	j.ColdHeat = j.Heat
	j.Judged, j.JudgedHot, j.Override, j.Prepared, j.passedIn = nil, nil, "", false, -1
	j.ran(time.Time{})
	j.Closed = ""
	j.Check = ""
	if j.Going == FreeFirst { // it ends with the first pass
		j.Going = SetAsYouGo
	}
	j.Around().CloseAgain()
	j.SignedBy, j.SignedAt, j.Seal = "", time.Time{}, Seal{}
	j.checked, j.picked, j.hands = false, "", nil
	for _, v := range j.Valves {
		v.ColdFound, v.ColdLeft, v.ColdReason = v.AsFound, v.Last, v.LeaveReason
		v.Limits = limits[v.Kind]
		v.AsFound, v.Last, v.Verified, v.LeaveReason, v.Adjustments, v.Stage = nil, nil, false, "", 0,
			Untouched
		v.sum, v.hadUnder, v.stoodIn, v.CameBack, v.FellBack, v.BackAs = nil, nil, false, 0, 0, ""
		v.Freed, v.SetFor, v.LockedBy, v.PutOff = false, "", "", Deferral{}
	}
}

func (WentHot) moves() bool { return true }
