package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Any drawn valve is taken at any time: with the crank known it is said how far to turn; turned by eye it is one
// tap on what is seen there, and the next stop is then told by its sign.
func TestAnyValveIsTakenByEye(t *testing.T) {
	t.Parallel()
	r := demo(t)
	const id = "demo-job-tipper"
	p := open(t, r, "/jobs/"+id, 1280, 800)
	p.press("Undo") // the one feel of E3
	p.says("Read E3")
	p.tap(`[data-valve="E2"] .hit`)
	p.shows("E2 is not clear here")
	p.shows("E2 is clear from there")
	p.press("The lobe of E2 points straight away")
	p.says("Read E2")
	assert.Nil(t, crankOf(t, r, id), "the place is wide: no degrees")
	p.press("0.27 drag")
	p.says("Turn the crank until")
	p.tap(`[data-valve="I1"] .hit`)
	p.press("Go back")
	p.press(capitalised(stateOf(t, r.base, id).State.Now.Instruction.Until))
	p.says("Read")
	assert.NotNil(t, crankOf(t, r, id))
	p.clean()
}
