package job

import (
	"fmt"

	"metronix/core/adjust"
)

// ShimsChosen says what the choice of shims is after first, and whether the cams are out, so that every
// screen is led by the same choice. It may be said again at any time.
type ShimsChosen struct {
	plain
	Prefer  adjust.Prefer // empty: adjust.FewestBought
	CamsOut bool
}

// Kind is "shims_chosen".
func (ShimsChosen) Kind() Kind { return "shims_chosen" }

func (a ShimsChosen) sound(*Job) error {
	switch a.Prefer {
	case "", adjust.FewestBought, adjust.NearestAim:
		return nil
	}
	return refuse("prefer", fmt.Sprintf("%q: %s or %s.", a.Prefer, adjust.FewestBought, adjust.NearestAim))
}

// may is for shimmed engines.
func (a ShimsChosen) may(j *Job, _ string) error {
	if !j.Sheet.Shimmed() {
		return refuse("kind", "This engine has no shims: its sheet names another adjuster.")
	}
	return nil
}

func (a ShimsChosen) do(j *Job) { j.Prefer, j.CamsOut = a.Prefer, a.CamsOut }
