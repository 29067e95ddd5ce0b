package engine

import (
	"fmt"
	"math"
	"strings"

	"metronix/core/gear"
	"metronix/core/measure"
)

// checkBanks: every cylinder stands in one bank, and a bank has one row of valves or two.
func checkBanks(s *Sheet, r *Report) {
	if len(s.Banks) == 0 {
		r.problem("banks", "No bank is given: a sheet needs at least one head with a row of valves.")
		return
	}
	owner := map[int]int{}
	for b, bank := range s.Banks {
		at := fmt.Sprintf("banks[%d]", b)
		if bank.Angle < -180*measure.Degree || bank.Angle > 180*measure.Degree {
			r.problem(at+".angle_deg", "A lean of %v: give −180 to 180 from upright.", bank.Angle)
		}
		if bank.IntakePorts != "" {
			oneOf(r, at+".intake_ports", bank.IntakePorts, Left, Right)
		}
		checkBankCylinders(s, bank, b, owner, r)
		checkRows(bank, at, r)
	}
	for c := 1; c <= s.Cylinders && c <= MaxCylinders; c++ {
		if _, ok := owner[c]; !ok {
			r.problem("banks", "Cylinder %d is in no bank.", c)
		}
	}
	warnUnlike(s, r)
}

// checkBankCylinders: a cylinder that stands in two banks is named with both.
func checkBankCylinders(s *Sheet, bank Bank, b int, owner map[int]int, r *Report) {
	at := fmt.Sprintf("banks[%d].cylinders", b)
	if len(bank.Cylinders) == 0 {
		r.problem(at, "The bank has no cylinders.")
	}
	for i, c := range bank.Cylinders {
		where := fmt.Sprintf("%s[%d]", at, i)
		if c < 1 || c > s.Cylinders {
			r.problem(where, "Cylinder %d: this engine has cylinders 1 to %d.", c, s.Cylinders)
			continue
		}
		if other, ok := owner[c]; ok {
			r.problem(where, "Cylinder %d is already in bank %d.", c, other+1)
			continue
		}
		owner[c] = b
	}
}

// checkRows: two rows lie on different sides.
func checkRows(bank Bank, at string, r *Report) {
	if len(bank.Rows) < 1 || len(bank.Rows) > 2 {
		r.problem(at+".rows", "%d rows: a bank has one row of valves, or two (left and right).",
			len(bank.Rows))
		return
	}
	sound := true
	for i, row := range bank.Rows {
		where := fmt.Sprintf("%s.rows[%d]", at, i)
		oneOf(r, where+".side", row.Side, Left, Right)
		if i > 0 && row.Side == bank.Rows[0].Side {
			r.problem(where+".side", "Both rows are on the %s: one is the other side.", row.Side)
		}
		sound = checkLetters(bank, row, where, r) && sound
	}
	if sound {
		checkEachCylinder(bank, at, r)
	}
}

// checkLetters: letters are I and E, and as many as divide evenly among the bank’s cylinders; what else
// was typed is shown.
func checkLetters(bank Bank, row Row, where string, r *Report) bool {
	if i := strings.IndexFunc(row.Valves, func(c rune) bool { return c != 'I' && c != 'E' }); i >= 0 {
		r.problem(where+".valves", "Letter %d of %q is neither I (intake) nor E (exhaust).",
			len([]rune(row.Valves[:i]))+1, clip(row.Valves))
		return false
	}
	if row.Valves == "" {
		r.problem(where+".valves", "The row has no valves.")
		return false
	}
	if n := len(bank.Cylinders); n > 0 && len(row.Valves)%n != 0 {
		r.problem(where+".valves",
			"%d valves do not divide among %d cylinders: each needs equally many in a row.", len(row.Valves),
			n)
		return false
	}
	return len(bank.Cylinders) > 0
}

// clip keeps a mistyped list from filling the screen with itself.
func clip(s string) string {
	if len(s) > 90 {
		return s[:90] + "…"
	}
	return s
}

// checkEachCylinder wants an intake and an exhaust on every cylinder, and no more than five valves.
func checkEachCylinder(bank Bank, at string, r *Report) {
	for i, c := range bank.Cylinders {
		letters := cylinderLetters(bank, i)
		where := at + ".rows"
		if len(bank.Rows) == 1 {
			where += "[0].valves"
		}
		switch {
		case len(letters) > MaxValvesPerCylinder:
			r.problem(where, "%d valves on cylinder %d: a sheet holds up to %d each.", len(letters), c,
				MaxValvesPerCylinder)
			return
		case !strings.Contains(letters, "I"):
			r.problem(where, "Cylinder %d has no intake valve (its letters are %s).", c, letters)
		case !strings.Contains(letters, "E"):
			r.problem(where, "Cylinder %d has no exhaust valve (its letters are %s).", c, letters)
		}
	}
}

// cylinderLetters is all letters of the i-th cylinder of a bank, row after row.
func cylinderLetters(bank Bank, i int) string {
	var b strings.Builder
	for _, row := range bank.Rows {
		if per := perCylinder(bank, row); per > 0 {
			b.WriteString(row.Valves[i*per : (i+1)*per])
		}
	}
	return b.String()
}

// warnUnlike: cylinders that differ in their valves are possible and odd: most often a letter was
// mistyped.
func warnUnlike(s *Sheet, r *Report) {
	if !r.OK() {
		return
	}
	first := ""
	for b, bank := range s.Banks {
		for i, c := range bank.Cylinders {
			letters := cylinderLetters(bank, i)
			count := fmt.Sprintf("%d intake and %d exhaust", strings.Count(letters, "I"),
				strings.Count(letters, "E"))
			if first == "" {
				first = count
			}
			if count != first {
				r.warn(fmt.Sprintf("banks[%d].rows", b),
					"Cylinder %d has %s valves, the first cylinder %s. Is a letter mistyped?", c, count,
					first)
				return
			}
		}
	}
}

// The least ratio and pitch that are taken (from memory: no rocker gears down by more than two, no adjusting
// screw is finer than M2).
const (
	minRatio = 0.3
	minPitch = 200 * measure.Micrometre
)

// CheckAdjuster examines an adjuster by itself and gives what is wrong with it, located as on a sheet.
func CheckAdjuster(a *Adjuster) []Finding {
	r := &Report{}
	checkAdjuster(a, r)
	return r.Problems
}

// checkAdjuster: a kind that is known, a pitch and a ratio that a screw and a lever can have, and only
// what its kind uses. What is left out only keeps the turn of the screw from being told.
func checkAdjuster(a *Adjuster, r *Report) {
	if a == nil {
		return
	}
	oneOf(r, "adjuster.kind", a.Kind, gear.Kinds()...)
	of, _ := gear.Of(a.Kind)
	if a.Thread != "" {
		oneOf(r, "adjuster.thread", a.Thread, RightHand, LeftHand)
	}
	if a.Closes != "" {
		oneOf(r, "adjuster.closes", a.Closes, gear.In, gear.Out)
	}
	if of.NotSet != "" {
		r.warn("adjuster.kind", "%s", of.NotSet)
	}
	if a.Pitch < 0 || a.Pitch > 5*measure.Millimetre || (a.Pitch > 0 && a.Pitch < minPitch) {
		r.problem("adjuster.pitch_mm", "A thread pitch of %s: adjusting screws have %s to 5 mm.", a.Pitch,
			minPitch)
	}
	if math.IsNaN(a.Ratio) || a.Ratio < 0 || a.Ratio > 5 || (a.Ratio > 0 && a.Ratio < minRatio) {
		r.problem("adjuster.ratio", "A ratio of %v: rockers have about 1 to 2, and %v to 5 is taken.",
			a.Ratio, minRatio)
	}
	if of.Ratio != gear.NoRatio && a.Ratio == 0 {
		r.warn("adjuster.ratio", "No ratio is given: the turn of the screw cannot be reckoned without it.")
	}
	if a.Eccentricity < 0 || a.Eccentricity > 10*measure.Millimetre {
		r.problem("adjuster.eccentricity_mm", "An eccentricity of %s: at most 10 mm is taken.",
			a.Eccentricity)
	}
	checkTorque("adjuster.locknut_torque", a.Locknut, r)
}
