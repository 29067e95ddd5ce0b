package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/sequence"
)

// Many judge cold without a thermometer (common practice): it is taken and told as what it is, with no
// invented figure.
func TestJudgedCold(t *testing.T) {
	chosen := job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}}
	d := start(t, setup())
	d.refused(job.Happening{Act: job.JudgedCold{By: job.ByNight}}, "Choose the sequence first")
	d.do(chosen)
	d.refused(job.Happening{Act: job.JudgedCold{By: "luck"}}, "no way to judge")
	d.refused(job.Happening{Act: job.JudgedCold{By: job.ByHours}}, "how many hours")
	d.refused(job.Happening{Act: job.JudgedCold{By: job.ByHand, Hours: 3}}, "how many hours")
	d.refused(job.Happening{Act: job.JudgedCold{By: job.ByHand, Helped: []string{"ice"}}},
		"is not known here")
	d.refused(job.Happening{Act: job.JudgedCold{By: job.ByHand, AmbientC: new(900.0)}}, "°C")
	d.do(job.Happening{Act: job.JudgedCold{By: job.ByHours, Hours: 3.5,
		Helped:   []string{job.HelpFan, job.HelpCover},
		AmbientC: new(18.0)}})
	assert.Equal(t, "stood 3.5 h, fan running, cover off", d.job.Judged.String())
	assert.Equal(t, job.AsFound, d.job.Phase())
	assert.Empty(t, d.job.Temperatures, "no figure is invented")
	d.do(job.Happening{Act: job.Prepared{EngineC: 19, AmbientC: 18}})
	assert.Nil(t, d.job.Judged, "it was measured after all")
}

// Stone cold takes a night or hours of standing, by the mechanic's word, and no hand; with a reason it is
// passed all the same, without a figure.
func TestWhatCannotBeJudgedByHand(t *testing.T) {
	set := setup()
	set.Card.StoneCold = true
	stone := func() *driver {
		d := start(t, set)
		d.do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
		d.refused(job.Happening{Act: job.JudgedCold{By: job.ByHand}}, "does not tell five degrees")
		return d
	}
	stone().do(job.Happening{Act: job.JudgedCold{By: job.ByNight}})
	d := stone()
	d.do(job.Happening{Act: job.JudgedCold{By: job.ByHours, Hours: 4, Helped: []string{job.HelpFan,
		job.HelpCover}}})
	assert.Equal(t, job.AsFound, d.job.Phase())
	assert.Empty(t, d.job.Overrides, "his word is no override")
	d = stone()
	d.do(job.Happening{Act: job.JudgedCold{By: job.ByHand, Reason: "the owner waits"}})
	assert.Equal(t, "the owner waits", d.job.Override)
	assert.Nil(t, d.job.Overrides[0].EngineC, "nobody measured it")

	set.Card.StoneCold, set.Card.State = false, clearance.Hot
	hot := start(t, set)
	hot.do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	hot.refused(job.Happening{Act: job.JudgedCold{By: job.ByNight}}, "These are hot figures")
}

// What was warm minutes ago did not stand overnight, nor for more hours than went by.
func TestAWarmEngineDidNotStandOvernight(t *testing.T) {
	d := start(t, setup())
	d.begin(sequence.RockingPairs)
	d.do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	d.refused(job.Happening{At: at(2), Act: job.JudgedCold{By: job.ByNight}}, "warm 2 min ago")
	d.refused(job.Happening{At: at(60), Act: job.JudgedCold{By: job.ByHours, Hours: 3}}, "did not stand for 3 h")
	d.do(job.Happening{At: at(60), Act: job.TemperatureNoted{EngineC: 55, AmbientC: 20}})
	d.refused(job.Happening{At: at(200), Act: job.JudgedCold{By: job.ByHours, Hours: 3}}, "warm 2.3 h ago")
	d.do(job.Happening{At: at(240), Act: job.JudgedCold{By: job.ByHours, Hours: 3}})
	d.do(job.Happening{At: at(300), Act: job.EngineStopped{}})
	d.do(job.Happening{At: at(300 + 7*60), Act: job.JudgedCold{By: job.ByNight}})
	assert.True(t, d.job.GateOpen())
}
