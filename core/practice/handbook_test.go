package practice

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Every item that drills ask ends one page of the handbook, and one only.
func TestEachDrillEndsAPage(t *testing.T) {
	var all []Item
	for _, p := range Pages() {
		assert.NotEmpty(t, p.Drills, p.ID)
		all = append(all, p.Drills...)
	}
	assert.ElementsMatch(t, Items(), all)
}

// Every slip is said, and what can be seen coming is warned of by name.
func TestEverySlipIsSaid(t *testing.T) {
	for _, s := range Slips() {
		assert.NotEqual(t, string(s), Fault{Slip: s, Valve: "E1"}.String())
		if w := s.Warning("E1"); w != "" && s != TooLate && s != ToolLeft {
			assert.Contains(t, w, "E1", s)
		}
	}
	assert.Equal(t, "The nut of E1 is loose: tighten it before the crank is turned.", NutLoose.Warning("E1"))
	assert.Equal(t, "Its 10 minutes are over: it is not hot any more.", TooLate.Warning(""))
}
