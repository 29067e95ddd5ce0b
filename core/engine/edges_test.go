package engine_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/gear"
	"metronix/core/measure"
	"metronix/internal/golden"
)

// whole is a sheet that says everything.
func whole() *engine.Sheet {
	s := enginetest.Four()
	s.Timing = enginetest.Timing(12, 52, 52, 12)
	s.Adjuster = &engine.Adjuster{Kind: gear.ScrewPushrodEnd, Pitch: measure.Millimetre, Ratio: 1.5}
	s.Closing = &engine.Closing{Rounds: 2, Bolts: 8}
	s.Clearances = []clearance.Card{{Source: "a book", State: clearance.Cold,
		Intake:  clearance.Clearance{Nominal: mm(200), Tolerance: mm(20)},
		Exhaust: clearance.Clearance{Nominal: mm(280), Tolerance: mm(20)}}}
	return s
}

// Of everything that is bounded the last that is taken is taken, and the first beyond is refused at its
// place.
func TestTheEdgesOfASheet(t *testing.T) {
	deg := func(d float64) measure.Angle { return measure.FromDegrees(d) }
	mil := measure.Micrometre
	step := func(x float64) float64 { return math.Nextafter(x, 1e9) }
	below := func(x float64) float64 { return math.Nextafter(x, -1e9) }
	few := func(n int) []engine.StripStep {
		var list []engine.StripStep
		for i := range n {
			list = append(list, engine.StripStep{Text: fmt.Sprintf("part %d", i)})
		}
		return list
	}
	signs := func(n int) []engine.Sign {
		var list []engine.Sign
		for i := range n {
			list = append(
				list,
				engine.Sign{
					ID:     fmt.Sprintf("s%d", i),
					Where:  "cam",
					Text:   "mark",
					At:     []measure.Angle{0},
					Period: measure.Cycle,
				},
			)
		}
		return list
	}
	for at, c := range map[string]struct {
		set          func(s *engine.Sheet, to float64)
		taken, first []float64
	}{
		"closing.bolts": {func(s *engine.Sheet, to float64) { s.Closing.Bolts = int(to) }, []float64{0, 1, engine.MaxBolts},
			[]float64{-1, engine.MaxBolts + 1}},
		"closing.rounds": {func(s *engine.Sheet, to float64) { s.Closing.Rounds = int(to) }, []float64{0, engine.MaxRounds},
			[]float64{-1, engine.MaxRounds + 1}},
		"closing.open_minutes": {func(s *engine.Sheet, to float64) { s.Closing.OpenMinutes = to }, []float64{0, 7 * 24 * 60},
			[]float64{below(0), step(7 * 24 * 60), math.NaN()}},
		"closing.cure_minutes": {func(s *engine.Sheet, to float64) { s.Closing.CureMinutes = to }, []float64{0, 7 * 24 * 60},
			[]float64{below(0), step(7 * 24 * 60)}},
		"closing.torque_nm": {func(s *engine.Sheet, to float64) { s.Closing.Torque.Nm = to }, []float64{0, 500},
			[]float64{below(0), step(500), math.NaN()}},
		"closing.torque_lbf_ft": {func(s *engine.Sheet, to float64) { s.Closing.Torque = engine.Torque{LbfFt: to} },
			[]float64{0, measure.PoundFeet(500)}, []float64{below(0), step(measure.PoundFeet(500))}},
		"adjuster.locknut_torque_lbf_ft": {func(s *engine.Sheet, to float64) {
			s.Adjuster.Locknut = engine.Torque{Nm: 20, LbfFt: measure.PoundFeet(20) + to}
		}, []float64{0, 0.4999, -0.4999}, []float64{0.5001, -0.5001}},
		"banks[0].angle_deg": {func(s *engine.Sheet, to float64) { s.Banks[0].Angle = deg(to) }, []float64{-180, 180},
			[]float64{-180.001, 180.001}},
		"adjuster.pitch_mm": {func(s *engine.Sheet, to float64) { s.Adjuster.Pitch = measure.Length(to) * mil },
			[]float64{0, 200, 5000}, []float64{-1, 1, 199, 5001}},
		"adjuster.ratio": {func(s *engine.Sheet, to float64) { s.Adjuster.Ratio = to }, []float64{0.3, 5},
			[]float64{below(0), 0.01, below(0.3), step(5), math.NaN()}},
		"adjuster.eccentricity_mm": {func(s *engine.Sheet, to float64) {
			s.Adjuster = &engine.Adjuster{Kind: gear.Eccentric, Eccentricity: measure.Length(to) * mil}
		}, []float64{0, 10_000}, []float64{-1, 10_001}},
		"valve_timing.at_lift_mm": {func(s *engine.Sheet, to float64) { s.Timing.AtLiftMM = to }, []float64{0, 5},
			[]float64{below(0), step(5), math.NaN()}},
		"valve_timing.ivo_btdc_deg": {func(s *engine.Sheet, to float64) { s.Timing.IVO = deg(to) }, []float64{-60, 150},
			[]float64{-60.001, 150.001}},
		"valve_timing.evc_atdc_deg": {func(s *engine.Sheet, to float64) { s.Timing.EVC = deg(to) }, []float64{-60, 150},
			[]float64{-60.001, 150.001}},
		// the intake is open from 348 to 592, the exhaust from 128 to 372 (12/52/52/12)
		"valve_timing.intake_centre_atdc_deg": {func(s *engine.Sheet, to float64) { s.Timing.IntakeCentre = new(deg(to)) },
			[]float64{-11.999, 110, 231.999}, []float64{-12, 232, 300}},
		"valve_timing.exhaust_centre_btdc_deg": {func(s *engine.Sheet, to float64) { s.Timing.ExhaustCentre = new(deg(to)) },
			[]float64{-11.999, 110, 231.999}, []float64{-12, 232, 300}},
		// in the middle of its base circle a valve of this cam stands (720 − 244)/2 from its lobe
		"required_margin_deg": {func(s *engine.Sheet, to float64) { s.RequiredMargin = new(deg(to)) }, []float64{0, 238},
			[]float64{-0.001, 238.001, 300, 300.001}},
		"clearances[0].max_engine_c": {func(s *engine.Sheet, to float64) { s.Clearances[0].MaxEngineC = new(to) },
			[]float64{-40, 200}, []float64{below(-40), step(200), math.NaN()}},
		"clearances[0].remark": {func(s *engine.Sheet, to float64) { s.Clearances[0].Remark = strings.Repeat("ä", int(to)) },
			[]float64{0, engine.MaxRemarkLength}, []float64{engine.MaxRemarkLength + 1}},
		"strip_list": {func(s *engine.Sheet, to float64) { s.StripList = few(int(to)) }, []float64{0, engine.MaxStripSteps},
			[]float64{engine.MaxStripSteps + 1}},
		"signs": {func(s *engine.Sheet, to float64) { s.Signs = signs(int(to)) }, []float64{0, engine.MaxSigns},
			[]float64{engine.MaxSigns + 1}},
		"turning_point.where": {func(s *engine.Sheet, to float64) {
			s.TurningPoint = &engine.TurningPoint{Where: strings.Repeat("ä", int(to))}
		}, []float64{0, engine.MaxNameLength}, []float64{engine.MaxNameLength + 1}},
		"turning_point.socket_mm": {func(s *engine.Sheet, to float64) {
			s.TurningPoint = &engine.TurningPoint{Where: "pulley", SocketMM: to}
		}, []float64{0, 100},
			[]float64{below(0), step(100)}},
		"own_sequence[0].crank_deg": {func(s *engine.Sheet, to float64) {
			s.OwnSequence = []engine.OwnStop{{Crank: deg(to), Set: []string{"E1", "I1", "E2", "I2", "E3", "I3", "E4", "I4"}}}
		}, []float64{0, 719.999}, []float64{-0.001, 720}},
		"firing_angles_deg[1]": {func(s *engine.Sheet, to float64) { s.FiringAngles = enginetest.Degrees(0, to, 719, 719.5) },
			[]float64{0.001, 718.999}, []float64{0, -0.001}},
	} {
		problems := func(to float64) (here bool) {
			s := whole()
			c.set(s, to)
			for _, p := range engine.Check(s).Problems {
				here = here || p.Location == at
			}
			return here
		}
		for _, to := range c.taken {
			assert.False(t, problems(to), "%s %v is taken", at, to)
		}
		for _, to := range c.first {
			assert.True(t, problems(to), "%s %v is refused", at, to)
		}
	}
}

// What an engine of each layout begins with, and what is said of sheets that are spoiled in many ways, stay
// as they were.
func TestSheetsStay(t *testing.T) {
	var lines []string
	for _, layout := range []engine.Layout{engine.Inline, engine.Vee, engine.Flat, engine.Other} {
		for cylinders := range 18 {
			for _, valves := range []int{2, 3, 4, 5} {
				s, err := engine.Start(layout, cylinders, valves)
				if err != nil {
					lines = append(lines, fmt.Sprintf("%s %d %d: %v", layout, cylinders, valves, err))
					continue
				}
				lines = append(
					lines,
					fmt.Sprintf("%s %d %d: %v %v %v", layout, cylinders, valves, s.FiringOrder, s.Banks,
						s.Rotation),
				)
			}
		}
	}
	for i := range 40 {
		s := whole()
		spoil(s, i)
		r := engine.Check(s)
		lines = append(lines, fmt.Sprintf("spoiled %d: %v; %v; %v", i, r.Problems, r.Warnings, r.Assumed))
		for _, v := range s.Valves() {
			if i%20 > 0 {
				break
			}
			lines = append(lines, fmt.Sprintf("%+v", v))
		}
	}
	golden.Hold(t, "sheets", lines)
}

// spoil changes a sheet in the i-th way.
func spoil(s *engine.Sheet, i int) {
	row := &s.Banks[0].Rows[0]
	switch i % 20 {
	case 1:
		s.Cylinders = 0
	case 2:
		s.Cylinders = engine.MaxCylinders + 1
	case 3:
		s.FiringOrder = []int{1, 1, 5, 0}
	case 4:
		row.Valves = "EIIEEII"
	case 5:
		row.Valves = strings.Repeat("EI", 60)
	case 6:
		s.Banks = append(s.Banks, engine.Bank{Name: "other", Cylinders: []int{4, 5}})
	case 7:
		s.Marks = []measure.Angle{}
	case 8:
		s.Marks = enginetest.Degrees(0, 0, 400)
	case 9:
		s.Clearances[0].StoneCold, s.Clearances[0].State = true, clearance.Hot
	case 10:
		s.Clearances[0].Exhaust = s.Clearances[0].Intake
	case 11:
		s.Clearances[0].Intake.Nominal = mm(300)
	case 12:
		s.Adjuster.Ratio = 0
	case 13:
		s.Adjuster.Kind = gear.Hydraulic
	case 14:
		s.OwnSequence = []engine.OwnStop{{Set: []string{"E1", "E1", "X9"}}}
	case 15:
		s.FiringAngles = enginetest.Degrees(10, 5, 900)
	case 16:
		s.Timing.AtLiftMM = 1
	case 17:
		s.Banks[0].Cylinders = nil
	case 18:
		s.Clearances[0].Intake.Tolerance = mm(400)
	case 19:
		s.Timing, s.Adjuster, s.Clearances = nil, nil, nil
	}
	if i >= 20 {
		s.Banks[0].Rows = append(s.Banks[0].Rows, engine.Row{Side: engine.Right, Valves: "EEEE"})
	}
}
