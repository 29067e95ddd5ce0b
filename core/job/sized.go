package job

import (
	"fmt"

	"metronix/core/measure"
)

// Sized writes down, or corrects, the shim found under a valve. Where nothing was changed since its gap was
// measured, it was measured with this shim.
//
// The size stands on the shim, if it is still to be read there; a micrometer settles it. Choosing shims
// for a whole engine needs the sizes of the valves that are out and of those that might give theirs.
type Sized struct {
	plain
	Valve string
	Shim  measure.Length // that is reckoned with: by micrometer, else as stamped; above 0, at most MaxShim
	// Stamped is the size that stands on it, where a micrometer says another; 0: not said
	Stamped measure.Length
}

// mostWorn is how far a micrometer and the stamp may lie apart (from memory: a shim wears by hundredths; more
// is a mistyped figure).
const mostWorn = measure.Millimetre / 10

// Kind is "sized".
func (Sized) Kind() Kind { return "sized" }

// On is its valve.
func (a Sized) On() string { return a.Valve }

// sound holds the micrometer against the stamp: a shim wears by hundredths and not by tenths.
func (a Sized) sound(j *Job) error {
	if err := j.has(a.Valve); err != nil {
		return err
	}
	if a.Shim <= 0 || a.Shim > MaxShim {
		return refuse("shim_mm", notAShim(a.Shim))
	}
	if a.Stamped < 0 || a.Stamped > MaxShim {
		return refuse("stamped_mm", notAShim(a.Stamped))
	}
	if a.Stamped > 0 && (a.Stamped-a.Shim).Abs() > mostWorn {
		return refuse("stamped_mm",
			fmt.Sprintf("%s by micrometer and %s stamped lie more than %s apart: one of them is "+
				"mistyped.", a.Shim, a.Stamped, mostWorn))
	}
	return nil
}

func (a Sized) may(j *Job, _ string) error {
	switch v := j.valve(a.Valve); {
	case !j.Sheet.Shimmed():
		return refuse("valve", "This engine has no shims: its sheet names another adjuster.")
	case v.Out:
		return refuse("valve", fmt.Sprintf("The shim of %s was taken out for another valve. Say which one "+
			"goes in.", v.Name))
	}
	return nil
}

// do takes the size as the one that its readings were made with.
func (a Sized) do(j *Job) {
	v := j.valve(a.Valve)
	v.Shim, v.Stamped = a.Shim, a.Stamped
	if v.Stage == Untouched {
		v.readWith = a.Shim
	}
	j.outOfHand(v.Name) // what it was taken for is done
}
