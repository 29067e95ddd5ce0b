package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Any drawn valve is taken at any time: with the crank known it is said how far to turn; turned by eye it is
// one tap on what is seen there, and the next stop is then told by its sign.
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

// An order from a card or from memory is typed or tapped, and proved valve by valve; what falls short is told
// with by how much, and what was typed is there after another page.
func TestIsThisOrderRight(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/engines/brindlow-1600/ways", 1280, 800)
	p.press("Is this order right?")
	p.shows("No stop is written yet.")
	p.fill("The order, a line a stop", "4 rocks: 1\n2 rocks: 3\n1 rocks: 4\n3 rocks: 2")
	p.shows("This order is right for this engine")
	p.fill("The order, a line a stop", "4 rocks: 1\nsideways: 3")
	p.shows("Line 2: ")
	p.shows("is no place of the crank that is known here")
	p.fill("The order, a line a stop", "1 rocks: 1")
	p.shows("inside its lift")
	p.press("Sequences")
	p.press("Is this order right?")
	p.shows("inside its lift")
	p.clean()
}

// Where the engine may be turned back its half turns backwards stand among the schools, with their caution.
func TestBackwardHalfTurnsAreOffered(t *testing.T) {
	t.Parallel()
	r := demo(t)
	job := played{engine: "ostrane-1300"}.stored(t, r)
	p := open(t, r, "/jobs/"+job, 1280, 800)
	p.says("Choose the sequence")
	p.press("as the crank turns, turned back")
	p.press("Use this sequence")
	p.says("temperature")
	assert.Equal(t, "back", placeOf(t, r, job).State.Plan.Direction)
	p.clean()
}

// Play felt by hand at the valves that are clear tells where to begin: none first; every valve is read all
// the same.
func TestPlayByHandOnTheBench(t *testing.T) {
	t.Parallel()
	r := demo(t)
	job := ownWay.begun(t, r)
	p := open(t, r, "/jobs/"+job, 1280, 800)
	p.says("Read")
	here := stateOf(t, r.base, job).State.Now.Here
	last := here[len(here)-1]
	p.way("Play by hand")
	p.tap(`[aria-label="Play of ` + last + `"] button`)
	p.press("Back to the leaves")
	p.says("Read " + last)
	p.shows(last + " had no play by hand")
	p.clean()
}
