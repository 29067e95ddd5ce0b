package engine

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"metronix/core/clearance"
	"metronix/core/measure"
)

// Finding is one thing to say about a sheet: where (a path within the sheet, such as firing_order[2]) and
// what.
type Finding struct{ Location, Message string }

// Report is what Check finds. Problems make the sheet unusable, Warnings are odd but possible, Assumed lists
// what the sheet leaves out and what is taken instead.
type Report struct {
	Problems, Warnings []Finding
	Assumed            []string
}

// OK says whether the sheet can be used.
func (r *Report) OK() bool { return len(r.Problems) == 0 }

// problem is a fault that makes the sheet of no use.
func (r *Report) problem(location, format string, args ...any) {
	r.Problems = append(r.Problems, Finding{location, fmt.Sprintf(format, args...)})
}

// warn is what may be right and most often is not.
func (r *Report) warn(location, format string, args ...any) {
	r.Warnings = append(r.Warnings, Finding{location, fmt.Sprintf(format, args...)})
}

// Check examines a whole sheet and reports everything at once. It never panics, whatever the sheet holds.
//
// Its faults are sentences for whoever typed the sheet: where (a path into the sheet), what is wrong, and,
// where a slip is likely, what was probably meant. What is odd and still possible is a warning: exhausts
// narrower than intakes, cylinders that differ.
//
// Everything after it relies on it: the rest of the core takes a checked sheet and asks nothing again.
func Check(s *Sheet) *Report {
	r := &Report{}
	checkBasics(s, r)
	checkFiring(s, r)
	checkBanks(s, r)
	checkTiming(s.Timing, r)
	checkMargin(s, r)
	checkMarks(s.Marks, r)
	checkAdjuster(s.Adjuster, r)
	checkTurningPoint(s.TurningPoint, r)
	for i, c := range s.Clearances {
		checkCard(c, fmt.Sprintf("clearances[%d]", i), r)
	}
	checkOwnSequence(s, r)
	checkWork(s, r)
	checkTorques(s, r)
	checkVariants(s, r)
	r.Assumed = Assumed(s)
	return r
}

// checkBasics checks what every engine has: a name, cylinders, a direction.
func checkBasics(s *Sheet, r *Report) {
	switch name := strings.TrimSpace(s.Name); {
	case name == "":
		r.problem("name", "The engine has no name. Give it one that the workshop will know it by.")
	case len([]rune(name)) > MaxNameLength:
		r.problem("name", "The name is longer than %d characters.", MaxNameLength)
	}
	if s.Cylinders < 1 || s.Cylinders > MaxCylinders {
		r.problem("cylinders", "%d cylinders: an engine sheet holds 1 to %d.", s.Cylinders, MaxCylinders)
	}
	oneOf(r, "rotation", s.Rotation, Clockwise, Anticlockwise)
	oneOf(r, "layout", s.Layout, Inline, Vee, Flat, Other)
}

func oneOf[T ~string](r *Report, location string, got T, allowed ...T) {
	if slices.Contains(allowed, got) {
		return
	}
	words := make([]string, len(allowed))
	for i, a := range allowed {
		words[i] = string(a)
	}
	r.problem(location, "%q is not one of: %s.", string(got), strings.Join(words, ", "))
}

// checkFiring: every cylinder fires once in a cycle. A number that comes twice usually stands in the place
// of the one that is missing, so both are named together.
func checkFiring(s *Sheet, r *Report) {
	seen := map[int]bool{}
	for i, c := range s.FiringOrder {
		at := fmt.Sprintf("firing_order[%d]", i)
		switch {
		case c < 1 || c > s.Cylinders:
			r.problem(at, "Cylinder %d: this engine has cylinders 1 to %d.", c, s.Cylinders)
		case seen[c]:
			r.problem(at, "Cylinder %d fires twice in this order.", c)
		}
		seen[c] = true
	}
	if s.Cylinders >= 1 && s.Cylinders <= MaxCylinders {
		for c := 1; c <= s.Cylinders; c++ {
			if !seen[c] {
				r.problem("firing_order", "Cylinder %d is missing from the firing order.", c)
			}
		}
	}
	checkFiringAngles(s, r)
}

// checkFiringAngles: they rise from 0, the first cylinder of the order, and stay below 720; they are for
// odd-fire engines, where 720 divided by the cylinders would put every stop in the wrong place.
func checkFiringAngles(s *Sheet, r *Report) {
	if s.FiringAngles == nil {
		return
	}
	if len(s.FiringAngles) != len(s.FiringOrder) {
		r.problem("firing_angles_deg",
			"%d firing angles for %d cylinders in the order: give one each, or leave them out for even "+
				"firing.",
			len(s.FiringAngles), len(s.FiringOrder))
	}
	for i, a := range s.FiringAngles {
		at := fmt.Sprintf("firing_angles_deg[%d]", i)
		switch {
		case a < 0 || a >= measure.Cycle:
			r.problem(at, "%v is outside the cycle: firing angles lie from 0 to below 720.", a)
		case i == 0 && a != 0:
			r.problem(at, "The first firing angle is %v, but angles are counted from the first cylinder's "+
				"firing: it must be 0.", a)
		case i > 0 && a <= s.FiringAngles[i-1]:
			r.problem(at, "%v does not lie after %v: firing angles rise along the order.", a,
				s.FiringAngles[i-1])
		}
	}
}

// checkTiming: events are given as a cam card gives them, before and after the dead centres. A card whose
// exhaust and intake would be open for longer than a valve of the trade is, or hardly at all, has its
// columns swapped or is quoted at a lift.
func checkTiming(t *ValveTiming, r *Report) {
	if t == nil {
		return
	}
	sound := true
	for _, e := range []struct {
		field string
		at    measure.Angle
	}{{"ivo_btdc_deg", t.IVO}, {"ivc_abdc_deg", t.IVC}, {"evo_bbdc_deg", t.EVO}, {"evc_atdc_deg", t.EVC}} {
		if e.at < -60*measure.Degree || e.at > 150*measure.Degree {
			r.problem("valve_timing."+e.field, "%v is not a cam timing: each event lies from −60 to 150.",
				e.at)
			sound = false
		}
	}
	if math.IsNaN(t.AtLiftMM) || t.AtLiftMM < 0 || t.AtLiftMM > 5 {
		r.problem("valve_timing.at_lift_mm", "%v mm is not a lift that a cam card is quoted at: 0 to 5.",
			t.AtLiftMM)
	}
	if !sound {
		return
	}
	intake, exhaust := t.Open()
	inside := func(field string, stated, peak *measure.Angle, open Interval) {
		if stated != nil && !(open.From < *peak && *peak < open.To) {
			r.problem("valve_timing."+field, "A lobe centre of %v lies outside the time its valve is open.",
				*stated)
		}
	}
	inside("intake_centre_atdc_deg", t.IntakeCentre, plus(measure.Turn, t.IntakeCentre, 1), intake)
	inside("exhaust_centre_btdc_deg", t.ExhaustCentre, plus(measure.Turn, t.ExhaustCentre, -1), exhaust)
}

// plus adds a stated angle to a base with a sign; nil where none is stated.
func plus(base measure.Angle, stated *measure.Angle, sign measure.Angle) *measure.Angle {
	if stated == nil {
		return nil
	}
	sum := base + sign**stated
	return &sum
}

// maxMargin is the largest required margin that is taken from a sheet: beyond it no cam of the trade has a
// base circle left (from memory).
const maxMargin = 300 * measure.Degree

// checkMargin wants a margin that this cam can give in the middle of its valves' base circles.
func checkMargin(s *Sheet, r *Report) {
	if s.RequiredMargin == nil {
		return
	}
	m := *s.RequiredMargin
	if m < 0 || m > maxMargin {
		r.problem(marginField, "A required margin of %v cannot be met: give 0 to 300, commonly 20.", m)
		return
	}
	timing := s.EffectiveTiming()
	intake, exhaust := timing.Open()
	deepest := (measure.Cycle - max(intake.To-intake.From, exhaust.To-exhaust.From)) / 2
	if m > deepest {
		r.problem(marginField, "A required margin of %v cannot be met: with this cam a valve stands at "+
			"most %v from its opening and closing. Commonly it is 20.",
			m, deepest.Against(m))
	}
}

// StricterSince says whether the check of a place on a sheet became stricter than it was for sheets that are
// stored already.
func StricterSince(location string) bool {
	return location == marginField || location == "adjuster.ratio" || location == "adjuster.pitch_mm"
}

// marginField is where a sheet holds its required margin.
const marginField = "required_margin_deg"

// checkMarks: a mark repeats every turn, so it lies within one. Two at the same place are one mark written
// twice.
func checkMarks(marks []measure.Angle, r *Report) {
	if marks != nil && len(marks) == 0 {
		r.problem("marks_deg", "The list of marks is empty. Leave it out where the pulley has only its TDC "+
			"mark.")
	}
	for i, m := range marks {
		at := fmt.Sprintf("marks_deg[%d]", i)
		switch {
		case m < 0 || m >= measure.Turn:
			r.problem(at, "%v is not a place on the pulley: marks lie from 0 to below 360.", m)
		case slices.Contains(marks[:i], m):
			r.problem(at, "The mark at %v is given twice.", m)
		}
	}
}

// checkTurningPoint checks where the crank is turned, and with what.
func checkTurningPoint(t *TurningPoint, r *Report) {
	if t == nil {
		return
	}
	checkSocket("turning_point.socket_mm", t.SocketMM, r)
	if len([]rune(t.Where)) > MaxNameLength {
		r.problem("turning_point.where", "The text is longer than %d characters.", MaxNameLength)
	}
}

// checkCard: intake and exhaust must each resolve to limits; the state says at which engine they hold, and
// a cold card may carry its own temperature.
func checkCard(c clearance.Card, at string, r *Report) {
	if strings.TrimSpace(c.Source) == "" {
		r.problem(at+".source", "The card does not say where its figures come from, for example the "+
			"maker's book.")
	}
	oneOf(r, at+".state", c.State, clearance.Cold, clearance.Hot)
	if t := c.MaxEngineC; t != nil && (math.IsNaN(*t) || *t < -40 || *t > 200) {
		r.problem(at+".max_engine_c", "%v °C is not an engine temperature: −40 to 200.", *t)
	}
	if c.StoneCold && c.State == clearance.Hot {
		r.problem(at+".stone_cold", "A hot card cannot ask for a stone cold engine. Is it a cold one?")
	}
	if len([]rune(c.Date)) > MaxNameLength || len([]rune(c.Remark)) > MaxRemarkLength {
		r.problem(at+".remark", "A date has at most %d characters, a remark at most %d.", MaxNameLength,
			MaxRemarkLength)
	}
	if len([]rune(c.Distrusted)) > MaxRemarkLength/2 {
		r.problem(at+".distrusted", "Why figures are not to be used has at most %d characters.", MaxRemarkLength/2)
	}
	in, faultsIn := c.Intake.Limits()
	ex, faultsEx := c.Exhaust.Limits()
	for _, kind := range []struct {
		name   string
		faults []clearance.Fault
	}{{"intake", faultsIn}, {"exhaust", faultsEx}} {
		for _, f := range kind.faults {
			where := at + "." + kind.name
			if f.Figure != "" {
				where += "." + f.Figure + "_mm"
			}
			r.problem(where, "%s", f.Message)
		}
	}
	if len(faultsIn)+len(faultsEx) == 0 && ex.Nominal < in.Nominal {
		r.warn(at+".exhaust", "Exhaust %s is narrower than intake %s. That is rare: check that they are "+
			"not swapped.", ex.Nominal, in.Nominal)
	}
}

// checkOwnSequence: the maker’s order may leave no valve out and set none twice, and names valves as the
// rows do. Where it disagrees with the geometry is for the plan to say, since the maker’s book wins.
func checkOwnSequence(s *Sheet, r *Report) {
	if s.OwnSequence == nil {
		return
	}
	known := map[string]bool{}
	for _, v := range s.Valves() {
		known[v.Name] = true
	}
	seen := map[string]bool{}
	for i, stop := range s.OwnSequence {
		at := fmt.Sprintf("own_sequence[%d]", i)
		if stop.Crank < 0 || stop.Crank >= measure.Cycle {
			r.problem(at+".crank_deg", "%v is outside the cycle: 0 to below 720.", stop.Crank)
		}
		for j, name := range stop.Set {
			switch where := fmt.Sprintf("%s.set[%d]", at, j); {
			case !known[name]:
				r.problem(where, "%q is no valve of this engine.", name)
			case seen[name]:
				r.problem(where, "%s is set twice in this order.", name)
			}
			seen[name] = true
		}
	}
	for _, v := range s.Valves() {
		if !seen[v.Name] {
			r.problem("own_sequence", "%s is never set in this order.", v.Name)
		}
	}
}

// Assumed lists what a sheet leaves out and what is taken instead.
func Assumed(s *Sheet) []string {
	var list []string
	add := func(missing bool, text string) {
		if missing {
			list = append(list, text)
		}
	}
	add(s.FiringAngles == nil, "Even firing: no firing angles are given.")
	add(s.Timing == nil, "A typical road cam (intake opens 12° before TDC, closes 52° after BDC; exhaust "+
		"opens 52° before BDC, closes 12° after TDC): no cam card is given.")
	if s.RequiredMargin == nil {
		if s.Timing != nil && s.Timing.AtLiftMM > 0 {
			list = append(list, fmt.Sprintf("A required margin of %v, because the cam card is quoted at %v "+
				"mm lift and hides the ramps.", LiftCardMargin, s.Timing.AtLiftMM))
		} else {
			list = append(list, fmt.Sprintf("A required margin of %v, the usual ramp allowance.",
				DefaultMargin))
		}
	}
	add(s.Marks == nil, "Only the TDC mark can be seen on the pulley: no marks are given.")
	add(s.Adjuster == nil, "Mechanical gear of unknown adjuster: screw turns are not reckoned.")
	add(s.TurningPoint == nil,
		"The crank can be turned by hand at its pulley bolt: no turning point is given.")
	add(s.KindsToConfirm, "The kinds of the valves follow a common pattern: they are confirmed at the ports before "+
		"the first verdict.")
	add(len(s.Clearances) == 0, "No clearances are given: they must be entered before a job.")
	return list
}
