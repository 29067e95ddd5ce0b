package engine

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"metronix/core/measure"
)

// The most that a sheet tells of working on the engine (from memory: no engine comes near).
const (
	MaxSigns      = 24
	MaxStripSteps = 60
	MaxRounds     = 6
	maxMinutes    = 7 * 24 * 60
	maxTorqueNm   = 500
)

// checkWork checks what a sheet tells of working on the engine. Nothing of it changes which valve may be set
// where: a fault here is one that would send a mechanic looking for a bolt or a mark that is not there, or
// leave a text that nobody can read at arm's length.
func checkWork(s *Sheet, r *Report) {
	if s.CheckTurns != 0 && s.CheckTurns != UsualCheckTurns && s.CheckTurns != LongCheckTurns {
		r.problem("check_turns",
			"%d turns of the crank before the check: %d, or %d for two turns of the cam.",
			s.CheckTurns, UsualCheckTurns, LongCheckTurns)
	}
	checkSigns(s.Signs, r)
	if n := len(s.StripList); n > MaxStripSteps {
		r.problem("strip_list", "%d steps: at most %d are kept.", n, MaxStripSteps)
	}
	for i, step := range s.StripList {
		at := fmt.Sprintf("strip_list[%d]", i)
		said(r, at+".text", step.Text, MaxNameLength)
		checkSocket(at+".socket_mm", step.SocketMM, r)
	}
	checkClosing(s.Closing, r)
}

// said asks for a text that is neither empty nor too long.
func said(r *Report, at, text string, most int) {
	switch n := len([]rune(text)); {
	case strings.TrimSpace(text) == "":
		r.problem(at, "Nothing is said here. Say it in a few words, or leave the entry out.")
	case n > most:
		r.problem(at, "%d characters: at most %d.", n, most)
	}
}

// checkSigns checks the signs by which the crank's place can be told.
//
// A sign is seen again every turn of the crank, or every turn of the cam, which is two of the crank: 360° and
// 720°, and nothing between. Where it is said to be seen lies within one such period, so that it is not
// counted twice, and at least one place is named: a sign without a place tells nothing. Two signs of one name
// could not be told apart in what was seen of them.
func checkSigns(signs []Sign, r *Report) {
	if n := len(signs); n > MaxSigns {
		r.problem("signs", "%d signs: at most %d are kept.", n, MaxSigns)
	}
	for i, s := range signs {
		at := fmt.Sprintf("signs[%d]", i)
		said(r, at+".id", s.ID, 40)
		said(r, at+".where", s.Where, MaxNameLength)
		said(r, at+".text", s.Text, MaxNameLength)
		if slices.ContainsFunc(signs[:i], func(o Sign) bool { return o.ID == s.ID }) {
			r.problem(at+".id", "Another sign is called %q already.", s.ID)
		}
		if s.Period != measure.Turn && s.Period != measure.Cycle {
			r.problem(at+".period_deg",
				"A sign comes round every 360° with the crank, or every 720° with the cam.")
			continue
		}
		if len(s.At) == 0 {
			r.problem(at+".at_deg", "Say at which degrees of the crank it is seen.")
		}
		for k, a := range s.At {
			place := fmt.Sprintf("%s.at_deg[%d]", at, k)
			switch {
			case a < 0 || a >= s.Period:
				r.problem(place, "%s: a sign is seen at 0 to below %s.", a, s.Period)
			case slices.Contains(s.At[:k], a):
				r.problem(place, "%s stands there twice.", a)
			}
		}
	}
}

// checkClosing checks how the engine is closed. Times are in minutes, at most a week: sealants skin over in
// minutes and cure in hours or a day (common practice), and a figure beyond is minutes mixed up with seconds.
// Rounds of tightening are two or three (common practice); MaxRounds leaves room for an angle stage.
func checkClosing(c *Closing, r *Report) {
	if c == nil {
		return
	}
	if c.Pattern != "" {
		oneOf(r, "closing.pattern", c.Pattern, MiddleOut, Crosswise, Numbered)
	}
	if c.Gasket != "" {
		oneOf(r, "closing.gasket", c.Gasket, Dry, StuckFirst)
	}
	if c.Rounds < 0 || c.Rounds > MaxRounds {
		r.problem("closing.rounds", "%d rounds of tightening: 1 to %d.", c.Rounds, MaxRounds)
	}
	if c.Bolts < 0 || c.Bolts > MaxBolts {
		r.problem("closing.bolts", "A cover of %d bolts: 1 to %d.", c.Bolts, MaxBolts)
	}
	checkTorque("closing.torque", c.Torque, r)
	for _, m := range []struct {
		at      string
		minutes float64
	}{{"closing.open_minutes", c.OpenMinutes}, {"closing.cure_minutes", c.CureMinutes}} {
		if math.IsNaN(m.minutes) || m.minutes < 0 || m.minutes > maxMinutes {
			r.problem(m.at, "%v minutes: 0 to %d, which is a week.", m.minutes, maxMinutes)
		}
	}
	for i, p := range c.SealantPoints {
		said(r, fmt.Sprintf("closing.sealant_points[%d]", i), p, MaxNameLength)
	}
}

// torquesAgree is how far a torque in pound-feet may be rounded from the one in newton-metres.
const torquesAgree = 0.5

// checkTorque checks a torque whose fields begin with at.
func checkTorque(at string, t Torque, r *Report) {
	nm, lbfft := at+"_nm", at+"_lbf_ft"
	if math.IsNaN(t.Nm) || t.Nm < 0 || t.Nm > maxTorqueNm {
		r.problem(nm, "A torque of %v N·m: at most %d is taken.", t.Nm, maxTorqueNm)
		return
	}
	if most := measure.PoundFeet(maxTorqueNm); math.IsNaN(t.LbfFt) || t.LbfFt < 0 || t.LbfFt > most {
		r.problem(lbfft, "A torque of %v lbf·ft: at most %.0f is taken.", t.LbfFt, most)
		return
	}
	if in := measure.PoundFeet(t.Nm); t.Nm > 0 && t.LbfFt > 0 && math.Abs(in-t.LbfFt) > torquesAgree {
		r.problem(lbfft, "%v N·m is %.1f lbf·ft, and %v lbf·ft stands beside it. Which "+
			"one does the source say?",
			t.Nm, in, t.LbfFt)
	}
}

// checkSocket checks a size across flats in millimetres; 0: not said. 100 mm is beyond any nut that turns an
// engine by hand (from memory: the largest are about 46 mm).
func checkSocket(at string, mm float64, r *Report) {
	if math.IsNaN(mm) || mm < 0 || mm > 100 {
		r.problem(at, "A socket of %v mm: give its size across flats, up to 100.", mm)
	}
}
