package job_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/around"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/gauge"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/core/rehearse"
	"metronix/core/sequence"
)

// What an act may say has its bounds, and the bounds themselves are taken: the last that is, and the first
// that is not.
func TestTheBoundsOfWhatIsSaid(t *testing.T) {
	at := func(act job.Act) error {
		d := jobtest.Start(t, jobtest.Setup())
		d.Begin(sequence.OneCylinder)
		d.Do(job.Happening{Act: job.Turned{Stop: 0}})
		return d.Try(job.Happening{Act: act})
	}
	long := func(n int) string { return strings.Repeat("é", n) }
	finding := func(f around.Finding) job.Act {
		f.ID = "finding-1"
		return job.FindingNoted{Finding: f}
	}
	read := func(leaves ...gauge.ID) job.Act {
		return job.ReadingTaken{Valve: "E1", Leaves: leaves, Feel: clearance.Free}
	}
	leaf := gauge.ID{Marked: 50 * um}
	shift := func(l measure.Length) job.Act { return job.RoundChosen{Round: job.Round{OwnShift: &l}} }
	for name, c := range map[string][2]job.Act{
		"dial, gap":   {job.DialRead{Valve: "E1", Gap: job.MaxGap}, job.DialRead{Valve: "E1", Gap: job.MaxGap + 1}},
		"dial, least": {job.DialRead{Valve: "E1"}, job.DialRead{Valve: "E1", Gap: -1}},
		"dial, uncertainty": {job.DialRead{Valve: "E1", Gap: 300 * um, Uncertainty: clearance.MaxUncertainty},
			job.DialRead{Valve: "E1", Gap: 300 * um, Uncertainty: clearance.MaxUncertainty + 1}},
		"finding":       {finding(around.Finding{Place: long(120), What: "w"}), finding(around.Finding{Place: long(121), What: "w"})},
		"finding, what": {finding(around.Finding{Place: "p", What: long(120)}), finding(around.Finding{Place: "p", What: long(121)})},
		"note":          {job.HandedOver{To: "June", Note: long(400)}, job.HandedOver{To: "June", Note: long(401)}},
		"leaves":        {read(leaf, leaf, leaf), read()},
		"leaf":          {read(gauge.ID{Marked: gauge.MaxStoredLeaf}), read(gauge.ID{Marked: gauge.MaxStoredLeaf + 1})},
		"thin":          {read(gauge.ID{Marked: 1}), read(gauge.ID{})},
		"shift":         {shift(200 * um), shift(200*um + 1)},
		"closing shift": {shift(-200 * um), shift(-200*um - 1)},
	} {
		if name == "leaves" {
			c[0] = read(slicesOf(leaf, gauge.MaxStack)...)
			assert.Error(t, at(read(slicesOf(leaf, gauge.MaxStack+1)...)), name)
		}
		assert.NoError(t, at(c[0]), name)
		assert.Error(t, at(c[1]), name)
	}
	hours := func(h float64) error {
		d := jobtest.Start(t, jobtest.Setup())
		d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder}}})
		return d.Try(job.Happening{Act: job.JudgedCold{By: job.ByHours, Hours: h, Reason: "r"}})
	}
	assert.NoError(t, hours(job.MostHours))
	assert.Error(t, hours(job.MostHours+0.1))
	assert.Error(t, hours(0))
}

func slicesOf(id gauge.ID, n int) (list []gauge.ID) {
	for range n {
		list = append(list, id)
	}
	return list
}

// A job holds so many findings, and so many readings of one valve; what is there may still be changed.
func TestHowMuchAJobHolds(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	note := func(n int) error {
		return d.Try(
			job.Happening{
				Act: job.FindingNoted{Finding: around.Finding{ID: fmt.Sprint("f", n), Place: "p", What: "w"}},
			},
		)
	}
	for n := range 60 {
		require.NoError(t, note(n))
	}
	assert.Error(t, note(60))
	assert.NoError(t, note(3), "one that is there is changed")
	d.Begin(sequence.OneCylinder)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	for range 200 {
		d.Feel("E1", 100, "free")
	}
	d.Refused(
		job.Happening{Act: job.ReadingTaken{Valve: "E1", Leaves: gauge.Straight(100 * um), Feel: "free"}},
		"has 200 readings already",
	)
}

// An engine that was just as warm as its gate was not warm, a degree more was: hours count from there.
func TestWhenAnEngineWasWarm(t *testing.T) {
	for engineC, refused := range map[float64]bool{38: false, 39: true} {
		d := jobtest.Start(t, jobtest.Setup())
		d.Do(job.Happening{At: at(0), Act: job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder}}})
		d.Do(job.Happening{At: at(1), Act: job.TemperatureNoted{EngineC: engineC, AmbientC: 20}})
		err := d.Try(job.Happening{At: at(60), Act: job.JudgedCold{By: job.ByHours, Hours: 8}})
		assert.Equal(t, refused, err != nil, engineC)
	}
}

// What the mechanic's own hands took counts up to five minutes.
func TestWhichTimesArePace(t *testing.T) {
	for span, own := range map[time.Duration]bool{5 * time.Minute: true, 5*time.Minute + 1: false, time.Second: true} {
		d := jobtest.Start(t, jobtest.Setup())
		now := noon
		do := func(after time.Duration, act job.Act) {
			now = now.Add(after)
			d.Do(job.Happening{At: now, Act: act})
		}
		do(0, job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder}})
		do(time.Second, job.Prepared{EngineC: 19, AmbientC: 18})
		do(6*time.Minute, job.Turned{Stop: 0})
		for range 3 {
			do(span, job.ReadingTaken{Valve: "E1", Leaves: gauge.Straight(100 * um), Feel: "free"})
		}
		p, is := rehearse.PaceOf(d.Job)
		assert.Equal(t, own, is, span)
		if own {
			assert.Equal(t, span, p.Read)
		}
	}
}

// Nothing is said of running where nobody said how long.
func TestHowLongItRan(t *testing.T) {
	assert.Equal(t, "the fan had cut in", job.JudgedHot{How: job.ByFan}.String())
	assert.Equal(t, "the fan had cut in, ran 12 min", job.JudgedHot{How: job.ByFan, RanMin: 12}.String())
}

// Where the crank is found within just 60° it is known.
func TestWhereTheCrankIsJustKnown(t *testing.T) {
	s := jobtest.Setup()
	s.Sheet.Timing = enginetest.Timing(30, 50, 50, 30)
	d := jobtest.Start(t, s)
	d.Begin(sequence.OneCylinder)
	f, err := d.Job.Find([]sequence.Sighting{{What: sequence.Rocking, Cylinder: 1}})
	require.NoError(t, err)
	require.Equal(t, sequence.Narrow, f.Positions[0].Length())
	assert.True(t, f.Known)
	s.Sheet.Timing = enginetest.Timing(31, 50, 50, 30)
	f, err = jobtest.Start(t, s).Job.Find([]sequence.Sighting{{What: sequence.Rocking, Cylinder: 1}})
	require.NoError(t, err)
	assert.False(t, f.Known)
}

// A doubtful sign is told to be checked, a sure one and another sighting are not.
func TestWhichSignIsInDoubt(t *testing.T) {
	s := jobtest.Setup()
	s.Sheet.Signs = []engine.Sign{
		{
			ID:       "rotor",
			Where:    "distributor",
			Text:     "at the tower",
			At:       []measure.Angle{0},
			Period:   measure.Cycle,
			Doubtful: "the lead",
		},
		{ID: "dot", Where: "sprocket", Text: "up", At: []measure.Angle{0}, Period: measure.Cycle}}
	d := jobtest.Start(t, s)
	for id, doubts := range map[string]int{"rotor": 1, "dot": 0} {
		f, err := d.Job.Find([]sequence.Sighting{{What: sequence.Signed, Sign: id}})
		require.NoError(t, err)
		assert.Len(t, f.Doubts, doubts, id)
	}
	f, err := d.Job.Find([]sequence.Sighting{{What: sequence.Mark, Sign: "rotor"}})
	if err == nil {
		assert.Empty(t, f.Doubts)
	}
}

// A valve is slackened in a round that frees first alone, when everything is ready, and not while another is
// in hand.
func TestWhatKeepsFromSlackening(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Do(
		job.Happening{
			Act: job.WayChosen{
				Way:   sequence.Way{School: sequence.OneCylinder},
				Round: job.Round{Going: job.FreeFirst},
			},
		},
	)
	d.Refused(job.Happening{Act: job.Freed{Valve: "E1"}}, "temperature")
	d.Do(job.Happening{Act: job.Prepared{EngineC: 19, AmbientC: 18}})
	d.Do(job.Happening{Act: job.Freed{Valve: "E1"}})
	d.Refused(job.Happening{Act: job.Freed{Valve: "E1"}}, "past being slackened")
	plain := jobtest.Start(t, jobtest.Setup())
	plain.Begin(sequence.OneCylinder)
	plain.Do(job.Happening{Act: job.Turned{Stop: 0}})
	plain.Refused(job.Happening{Act: job.Freed{Valve: "E1"}}, "Only a round that frees")
	plain.Feel("E1", 100, "free")
	plain.Refused(job.Happening{Act: job.Freed{Valve: "I1"}}, "Finish E1 first")
	// what can fall out of the head is slackened at its own stop only
	fingers := jobtest.Setup()
	fingers.Sheet.Adjuster = &engine.Adjuster{
		Kind:  gear.FingerPivotAtValve,
		Pitch: measure.Millimetre,
		Ratio: 1.5,
	}
	falls := jobtest.Start(t, fingers)
	assert.Equal(t, -1, falls.Job.Stop, "at no stop before there is a plan")
	falls.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder},
		Round: job.Round{Going: job.FreeFirst}}})
	falls.Do(job.Happening{Act: job.Prepared{EngineC: 19, AmbientC: 18}})
	falls.Do(job.Happening{Act: job.Turned{Stop: 0}})
	falls.Refused(job.Happening{Act: job.Freed{Valve: "E4"}}, "E4")
	falls.Do(job.Happening{Act: job.Freed{Valve: "E1"}})
}

// A check round's full turns need a crank whose place is known where they end at a stop.
func TestFullTurnsToAStopNeedAKnownCrank(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder},
		Round: job.Round{Going: job.ReadFirst, Check: job.CheckAll}}})
	d.Do(job.Happening{Act: job.Prepared{EngineC: 19, AmbientC: 18}})
	d.ReadUntil(job.DoAdjust, func(v string) (measure.Length, clearance.Feel) {
		if v == "E1" {
			return jobtest.Nominal(v) - 60, "drag"
		}
		return jobtest.Nominal(v), "drag"
	})
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E1"}})
	d.Do(job.Happening{Act: job.Locked{Valve: "E1"}})
	for d.Job.Phase() != job.Verify {
		d.Feel("E1", 300, "drag")
		d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
	}
	d.Do(job.Happening{Act: job.Doubted{}})
	stop := 0
	d.Refused(job.Happening{Act: job.BarredOver{Stop: &stop}}, "Nobody knows where the crank stands")
	assert.NoError(t, d.Try(job.Happening{Act: job.BarredOver{}}), "turned without a stop to end at")
}

// The bounds of what is said of shims, of what comes off, and of why a vehicle came in.
func TestTheBoundsAroundTheBench(t *testing.T) {
	shims := jobtest.Setup()
	sheet := *shims.Sheet
	sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	shims.Sheet = &sheet
	long := func(n int) string { return strings.Repeat("é", n) }
	size := func(shim, stamped measure.Length) job.Act {
		return job.Sized{Valve: "E1", Shim: shim, Stamped: stamped}
	}
	strip := func(text string, socket float64) job.Act {
		return job.Stripped{Step: "step-1", StripStep: engine.StripStep{Text: text, SocketMM: socket}}
	}
	for name, c := range map[string][2]job.Act{
		"shim":        {size(job.MaxShim, 0), size(job.MaxShim+1, 0)},
		"least shim":  {size(1, 0), size(0, 0)},
		"stamped":     {size(job.MaxShim, job.MaxShim), size(job.MaxShim, job.MaxShim+1)},
		"not stamped": {size(2700*um, 0), size(2700*um, -1)},
		"worn":        {size(2700*um, 2800*um), size(2700*um, 2800*um+1)},
		"text":        {strip(long(120), 0), strip(long(121), 0)},
		"socket":      {strip("hose", 100), strip("hose", 100.1)},
		"no socket":   {strip("hose", 0), strip("hose", -0.1)},
		"note":        {job.TakenIn{Note: long(400)}, job.TakenIn{Note: long(401)}},
	} {
		d := jobtest.Start(t, shims)
		d.Begin(sequence.OneCylinder)
		assert.NoError(t, d.Try(job.Happening{Act: c[0]}), name)
		assert.Error(t, d.Try(job.Happening{Act: c[1]}), name)
	}
}

// What is told of a job at its bounds: a scope of all is none, a bar without a socket is a bar, and 120
// minutes are two hours.
func TestWhatIsToldAtItsBounds(t *testing.T) {
	s := jobtest.Setup()
	sheet := *s.Sheet
	sheet.TurningPoint = &engine.TurningPoint{Where: "crank pulley bolt"}
	s.Sheet = &sheet
	d := jobtest.Start(t, s)
	all := job.Round{Going: job.SetAsYouGo}
	for _, v := range d.Job.Valves {
		all.Scope = append(all.Scope, v.Name)
	}
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder}, Round: all}})
	assert.NotContains(t, record.Of(d.Job).Walk(), "valves")
	assert.Equal(t, "Bar for the crank pulley bolt", d.Job.Around().Tools()[0].Text)
	sealed := guided(t, engine.Closing{CureMinutes: 120, SealantPoints: []string{"cap joints"}})
	tick(sealed, 0, "crank_free", "sealant", "cover_on")
	sealed.Refused(
		job.Happening{At: at(1), Act: job.TaskMarked{Task: "start"}},
		"cures for 2 h; 119 min are left",
	)

	cold := jobtest.Start(t, jobtest.Setup())
	cold.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder}}})
	cold.Refused(
		job.Happening{Act: job.Prepared{EngineC: 20, AmbientC: -60.1}},
		"is not a temperature of this job",
	)
	cold.Do(job.Happening{Act: job.Prepared{EngineC: -59, AmbientC: -60}})
}

// A crank that is found at the first stop stands at that stop, not in the middle of where it may be.
func TestFoundAtTheFirstStop(t *testing.T) {
	s := jobtest.Setup()
	s.Sheet.Timing = enginetest.Timing(10, 50, 50, 30)
	d := jobtest.Start(t, s)
	d.Begin(sequence.OneCylinder)
	d.Do(job.Happening{Act: job.Located{Seen: []sequence.Sighting{{What: sequence.Rocking, Cylinder: 4}}}})
	require.Zero(t, d.Job.Stop)
	require.NotEqual(t, d.Job.Place.Middle(), d.Job.Plan.Stops[0].Crank)
	assert.Equal(t, d.Job.Plan.Stops[0].Crank, d.Job.Crank.At)
}
