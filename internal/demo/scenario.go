package demo

import (
	"embed"

	"metronix/core/measure"
)

//go:embed engines/*.engine.json
var engines embed.FS

// valveGaps are the hidden clearances of a demo engine's valves in millimetres; a valve not named stands at
// its nominal.
type valveGaps map[string]float64

// vehicle is one of the made-up workshop's.
type vehicle struct {
	id, name, plate, engine string
	counter                 measure.Counter
	meter                   int // what that shows; 0: nobody has read it
}

// demoJob is one of its jobs: what is true of its engine, and how far it has come.
type demoJob struct {
	id, vehicle, gauge, mechanic, reason string
	school, order                        string
	ageHours                             float64
	gaps                                 valveGaps
	card                                 int
	hotCard                              int // number of the card of the hot pass, from 1; 0: none
	cardReason                           string
	// engine temperatures, ten minutes apart, written down while it cools, °C
	cooling []float64
	shims   valveGaps // fitted, millimetres
	// by a dial, so that every gap is a figure; worn is how far the valves that are not named stand below
	// their nominal, millimetres; meter is what its counter showed then, 0: as the vehicle's
	dial   bool
	worn   float64
	meter  int
	around bool   // it is taken in, and the steps before the valves are ticked off
	whole  bool   // so are those after them, and what was found has a picture
	hot    bool   // it is shut off hot when it begins, judged by its fan
	waits  string // the parts for which it is put off once until is reached; empty: it is not
	first  string // the valve that is read first at its stop; empty: as the bench says
	until  string // phase or "as_found:N" (N valves kept) or "feel:N" (one feel more) to stop at
}

// vehicles stand in a made-up valley; no name, make or place is a real one.
var vehicles = []vehicle{
	{"demo-tipper-7", "Quarry tipper 7", "LM 407", "brindlow-1600", measure.Odometer, 182_400},
	{"demo-post-bus", "Post bus 12", "LM 112", "holmgarth-2000", measure.Odometer, 96_150},
	{"demo-pump-set", "Harbour pump set", "set 3", "estervane-2400", measure.HourMeter, 3_412},
	{"demo-round-van", "Bakery round van", "LM 233", "holmgarth-950", measure.Odometer, 61_020},
	{"demo-winch", "Ferry winch", "dock 2", "culverholt-5000", measure.HourMeter, 8_260},
	{"demo-fire-cart", "Fire pump cart", "LM 018", "ostrane-1300", measure.Odometer, 44_870},
	{"demo-minibus", "School minibus", "LM 355", "pellmark-1400", measure.Odometer, 128_300},
	{"demo-snow", "Piste groomer", "LM 076", "pellmark-2500", measure.HourMeter, 0},
	{"demo-crane", "Timber crane", "yard 4", "pellmark-2500", measure.HourMeter, 1_240},
	{"demo-sawmill", "Sawmill drive", "bench B", "brindlow-1600", measure.HourMeter, 5_040},
}

// gaugeSets are three as workshops have them: one checked by micrometer, one in inches, one from a drawer.
var gaugeSets = []struct {
	id, name string
	checked  string
	thou     bool         // marked in inches
	leaves   [][2]float64 // marked, measured in millimetres (0: never measured)
}{
	{"demo-set-oskar", "Oskar's set, checked", "2026-09-14", false, [][2]float64{
		{0.05, 0.05}, {0.10, 0.099}, {0.12, 0.121}, {0.15, 0.15}, {0.18, 0.18}, {0.20, 0.2}, {0.22,
			0.221}, {0.24, 0.24}, {0.25, 0.251},
		{
			0.27,
			0.27,
		}, {0.28, 0.279}, {0.30, 0.3}, {0.32, 0.32}, {0.33, 0.33}, {0.35, 0.351}, {0.40, 0.4}, {0.45,
			0.45}, {0.50, 0.5}}},
	{"demo-set-inch", "June's inch set", "2026-03-02", true, [][2]float64{
		{0.002, 0}, {0.003, 0}, {0.004, 0}, {0.006, 0}, {0.008, 0.203}, {0.009, 0.229}, {0.010,
			0.254}, {0.011, 0}, {0.012, 0.304}, {0.013, 0},
		{0.014, 0}, {0.015, 0}, {0.016, 0}, {0.018, 0}, {0.020, 0}}},
	{"demo-set-bench", "Bench drawer set", "", false, [][2]float64{
		{0.05, 0}, {0.10, 0}, {0.15, 0}, {0.20, 0}, {0.25, 0}, {0.30, 0}, {0.35, 0}, {0.40, 0}, {0.45,
			0}, {0.50, 0}}},
}

// outsideGaps are what the bakery van's sheet of another shop tells.
var outsideGaps = []map[string]any{
	{"valve": "E1", "found_mm": 0.21, "left_mm": 0.25}, {"valve": "I1", "found_mm": 0.18, "left_mm": 0.18},
	{"valve": "E2", "found_mm": 0.25, "left_mm": 0.25}, {"valve": "I2", "found_mm": 0.16, "left_mm": 0.18},
	{"valve": "E3", "found_mm": 0.20, "left_mm": 0.25}, {"valve": "I3", "found_mm": 0.18, "left_mm": 0.18},
}

// jobs are chosen so that every screen has something on it: jobs at each phase, finished ones years apart,
// one cooling, one with shims.
var jobs = []demoJob{
	{id: "demo-job-bus-1", vehicle: "demo-post-bus", gauge: "demo-set-oskar", mechanic: "Tess Ardal",
		reason: "Distance interval", school: "one_cylinder", ageHours: 24 * 760, dial: true,
		worn: 0.012, meter: 48_150,
		gaps: valveGaps{"E2a": 0.27, "E4b": 0.274}, until: "done"},
	{id: "demo-job-bus-2", vehicle: "demo-post-bus", gauge: "demo-set-oskar", mechanic: "June Halloway",
		reason: "Distance interval", school: "one_cylinder", ageHours: 24 * 390, dial: true,
		worn: 0.01, meter: 72_150,
		gaps: valveGaps{"E2a": 0.284, "E4b": 0.262, "I2a": 0.195}, until: "done"},
	{id: "demo-job-bus", vehicle: "demo-post-bus", gauge: "demo-set-oskar", mechanic: "Tess Ardal",
		reason: "Distance interval", school: "one_cylinder", around: true, whole: true,
		ageHours: 50, gaps: valveGaps{"E2a": 0.27, "I3b": 0.26, "E4b": 0.26}, until: "done"},
	{id: "demo-job-pump-0", vehicle: "demo-pump-set", gauge: "demo-set-bench", mechanic: "Oskar Venn",
		reason: "Hours interval", school: "rocking_pairs", ageHours: 24 * 480, dial: true,
		meter: 2_420, gaps: valveGaps{"E3": 0.42}, until: "done"},
	{id: "demo-job-pump-1", vehicle: "demo-pump-set", gauge: "demo-set-bench", mechanic: "Oskar Venn",
		reason: "Hours interval", school: "rocking_pairs", ageHours: 24 * 210, dial: true,
		worn: 0.01, meter: 2_930, gaps: valveGaps{"I5": 0.18}, until: "done"},
	{id: "demo-job-cart", vehicle: "demo-fire-cart", gauge: "demo-set-bench", mechanic: "Oskar Venn",
		reason: "Oil seen at the cover", school: "rocking_pairs", ageHours: 29, waits: "rocker shaft", until: "as_found:3"},
	{id: "demo-job-crane", vehicle: "demo-crane", gauge: "demo-set-oskar", mechanic: "Oskar Venn",
		reason: "Before the season", school: "one_cylinder", ageHours: 0.06, hot: true, until: "feel:1"},
	{id: "demo-job-pump", vehicle: "demo-pump-set", gauge: "demo-set-bench", mechanic: "Oskar Venn",
		reason: "Ticking when warm", school: "rocking_pairs",
		ageHours: 27, gaps: valveGaps{"E2": 0.45, "I5": 0.15, "E6": 0.40}, until: "adjust"},
	{id: "demo-job-saw", vehicle: "demo-sawmill", gauge: "demo-set-oskar", mechanic: "June Halloway",
		reason: "After a new cam has run in", school: "sum_rule", order: "turning",
		ageHours: 5, gaps: valveGaps{"I1": 0.27}, until: "verify"},
	{id: "demo-job-van", vehicle: "demo-round-van", gauge: "demo-set-bench", mechanic: "June Halloway",
		reason: "Rough idle", ageHours: 2, until: "choose_way"},
	{id: "demo-job-minibus", vehicle: "demo-minibus", gauge: "demo-set-oskar", mechanic: "Oskar Venn",
		reason: "Distance interval", school: "two_stop",
		ageHours: 4, gaps: valveGaps{"I1a": 0.12, "I3b": 0.28, "E2a": 0.22, "E4b": 0.40}, until: "adjust",
		shims: valveGaps{"I1a": 2.65, "I1b": 2.55, "I2a": 2.6, "I2b": 2.55, "I3a": 2.6, "I3b": 2.55,
			"I4a": 2.55, "I4b": 2.6,
			"E1a": 2.7, "E1b": 2.75, "E2a": 2.8, "E2b": 2.7, "E3a": 2.75, "E3b": 2.7, "E4a": 2.75,
			"E4b": 2.68}},
	{id: "demo-job-winch", vehicle: "demo-winch", gauge: "demo-set-inch", mechanic: "Oskar Venn",
		reason: "After a new cam has run in", school: "exhaust_open",
		ageHours: 0.42, card: 1, hotCard: 1, cardReason: "Cold start for the new cam", cooling: []float64{78,
			61}, until: "cooling"},
	{id: "demo-job-tipper", vehicle: "demo-tipper-7", gauge: "demo-set-oskar", mechanic: "Tess Ardal",
		reason: "Distance interval", school: "rocking_pairs",
		ageHours: 1, gaps: valveGaps{"E3": 0.22, "I4": 0.28}, around: true, first: "I1", until: "feel:2"},
}
