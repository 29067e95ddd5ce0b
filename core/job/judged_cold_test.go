package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

// Many judge cold without a thermometer (common practice): it is taken and told as what it is, with no
// invented figure.
func TestJudgedCold(t *testing.T) {
	chosen := job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}}
	d := jobtest.Start(t, jobtest.Setup())
	d.Refused(job.Happening{Act: job.JudgedCold{By: job.ByNight}}, "Choose the sequence first")
	d.Do(chosen)
	d.Refused(job.Happening{Act: job.JudgedCold{By: "luck"}}, "no way to judge")
	d.Refused(job.Happening{Act: job.JudgedCold{By: job.ByHours}}, "how many hours")
	d.Refused(job.Happening{Act: job.JudgedCold{By: job.ByHand, Hours: 3}}, "how many hours")
	d.Refused(job.Happening{Act: job.JudgedCold{By: job.ByHand, Helped: []string{"ice"}}},
		"is not known here")
	d.Refused(job.Happening{Act: job.JudgedCold{By: job.ByHand, AmbientC: new(900.0)}}, "°C")
	d.Do(job.Happening{Act: job.JudgedCold{By: job.ByHours, Hours: 3.5,
		Helped:   []string{job.HelpFan, job.HelpCover},
		AmbientC: new(18.0)}})
	assert.Equal(t, "stood 3.5 h, fan running, cover off", d.Job.Judged.String())
	assert.Equal(t, job.AsFound, d.Job.Phase())
	assert.Empty(t, d.Job.Temperatures, "no figure is invented")
	d.Do(job.Happening{Act: job.Prepared{EngineC: 19, AmbientC: 18}})
	assert.Nil(t, d.Job.Judged, "it was measured after all")
}

// Stone cold takes a night or hours of standing, by the mechanic's word, and no hand; with a reason it is
// passed all the same, without a figure.
func TestWhatCannotBeJudgedByHand(t *testing.T) {
	set := jobtest.Setup()
	set.Card.StoneCold = true
	stone := func() *jobtest.Driver {
		d := jobtest.Start(t, set)
		d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
		d.Refused(job.Happening{Act: job.JudgedCold{By: job.ByHand}}, "does not tell five degrees")
		return d
	}
	stone().Do(job.Happening{Act: job.JudgedCold{By: job.ByNight}})
	d := stone()
	d.Do(job.Happening{Act: job.JudgedCold{By: job.ByHours, Hours: 4, Helped: []string{job.HelpFan,
		job.HelpCover}}})
	assert.Equal(t, job.AsFound, d.Job.Phase())
	assert.Empty(t, d.Job.Overrides, "his word is no override")
	d = stone()
	d.Do(job.Happening{Act: job.JudgedCold{By: job.ByHand, Reason: "the owner waits"}})
	assert.Equal(t, "the owner waits", d.Job.Override)
	assert.Nil(t, d.Job.Overrides[0].EngineC, "nobody measured it")

	set.Card.StoneCold, set.Card.State = false, clearance.Hot
	hot := jobtest.Start(t, set)
	hot.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	hot.Refused(job.Happening{Act: job.JudgedCold{By: job.ByNight}}, "These are hot figures")
}

// What was warm minutes ago did not stand overnight, nor for more hours than went by.
func TestAWarmEngineDidNotStandOvernight(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	d.Refused(job.Happening{At: at(2), Act: job.JudgedCold{By: job.ByNight}}, "warm 2 min ago")
	d.Refused(
		job.Happening{At: at(60), Act: job.JudgedCold{By: job.ByHours, Hours: 3}},
		"did not stand for 3 h",
	)
	d.Do(job.Happening{At: at(60), Act: job.TemperatureNoted{EngineC: 55, AmbientC: 20}})
	d.Refused(job.Happening{At: at(200), Act: job.JudgedCold{By: job.ByHours, Hours: 3}}, "warm 2.3 h ago")
	d.Do(job.Happening{At: at(240), Act: job.JudgedCold{By: job.ByHours, Hours: 3}})
	d.Do(job.Happening{At: at(300), Act: job.EngineStopped{}})
	d.Do(job.Happening{At: at(300 + 7*60), Act: job.JudgedCold{By: job.ByNight}})
	assert.True(t, d.Job.GateOpen())
}
