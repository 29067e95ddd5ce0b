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

// Stone cold takes a night, and hot figures no judgement.
func TestWhatCannotBeJudgedByHand(t *testing.T) {
	set := setup()
	set.Card.StoneCold = true
	d := start(t, set)
	d.do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	d.refused(job.Happening{Act: job.JudgedCold{By: job.ByHand}}, "stand overnight, or measure it")
	d.do(job.Happening{Act: job.JudgedCold{By: job.ByNight}})
	set.Card.StoneCold, set.Card.State = false, clearance.Hot
	hot := start(t, set)
	hot.do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	hot.refused(job.Happening{Act: job.JudgedCold{By: job.ByNight}},
		"need the engine's temperature and a clock")
}
