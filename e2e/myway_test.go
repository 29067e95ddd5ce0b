package e2e

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

// ownWay is how the mechanic of these jobs goes about a four: rocking pairs, set as you go, one leaf, no
// check.
var ownWay = played{engine: "brindlow-1600", school: "rocking_pairs",
	round: map[string]any{"round": "set_as_you_go", "check": "none"}}

// startedAsLastTime begins a job of the vehicle of an earlier one from the board, and gives its id.
func startedAsLastTime(t *testing.T, p *tab) (job string) {
	t.Helper()
	p.press("Start a job")
	p.shows("Another vehicle")
	p.press("Bench stand")
	p.shows("As you did it last: Rocking pairs, as the crank turns; set as you go, no check, one leaf")
	p.press("Start as last time")
	p.says("temperature")
	return strings.TrimPrefix(p.MustEval(`() => location.pathname`).Str(), "/jobs/")
}

// asTess opens the board on a tablet where Tess started the last job.
func asTess(t *testing.T, r *running, width, height int) *tab {
	t.Helper()
	p := open(t, r, "/", width, height)
	p.MustEval(`() => localStorage.setItem('metronix.mechanic', 'Tess Ardal')`)
	p.visit("/")
	return p
}

// A known vehicle is begun as it was done last: vehicle, "as last time", the temperature's answer and "made
// safe" lead to the first instruction. What is never learned is asked, and the rest is as it was.
func TestFourTapsToTheFirstInstruction(t *testing.T) {
	t.Parallel()
	r := demo(t)
	ownWay.choose(t, r, ownWay.stored(t, r))
	p := asTess(t, r, 360, 740)
	job := startedAsLastTime(t, p)
	firstInstruction(t, p)
	s := stateOf(t, r.base, job)
	assert.Equal(t, "turn", s.State.Now.Action)
	p.visit("/jobs/" + job)
	p.says("until") // it is not asked again
	p.clean()
}

// firstInstruction goes on from there to the first turn of the crank, and counts.
func firstInstruction(t *testing.T, p *tab) {
	t.Helper()
	p.press("Stood overnight")
	p.says("Make the vehicle safe")
	p.press("Made safe")
	p.says("until")
	assert.Equal(t, 4, p.taps-1, "the first tap is the way to the page of starting")
}

// A whole four with all in, from the board to the signature, taken in and closed up step by step, takes no
// more gestures than forty-five.
func TestAWholeFourFromBoardToSignature(t *testing.T) {
	t.Parallel()
	r := demo(t)
	ownWay.choose(t, r, ownWay.stored(t, r))
	p := asTess(t, r, 1280, 800)
	job := startedAsLastTime(t, p)
	firstInstruction(t, p)
	p.way("Steps")
	p.press("Ticks")
	p.press("Taken in")
	ticked(t, p, "")
	p.press("On to the valves")
	p.says("until")
	got := ownWay.drive(t, p, r, job)
	assert.Equal(t, 12, got.Gestures, "eleven from the first stop on, and the one that is turned to it")
	p.press("steps still to do")
	ticked(t, p, "Start it and listen")
	p.visit("/jobs/" + job) // it cures: the engine is started later
	p.see(".signing")
	p.press("All tools and leaves")
	p.press("Socket or handle")
	p.press("Faces clean")
	p.press("Sign")
	p.press("Engine is not run here")
	p.says("Signed by")
	assert.LessOrEqual(t, p.taps, 45)
	t.Logf("%d gestures", p.taps)

	// the tag for the key says from when it may be started, and what comes then is added to what was signed
	p.press("A tag for the key")
	p.shows("Do not start before")
	p.visit("/jobs/" + job + "/sheet")
	p.shows("the sealant cures")
	p.clean() // a start that is refused is said in the console
	p.visit("/jobs/" + job + "/steps")
	p.shows("Start it and listen")
	p.pressIn(".around .next", "Done")
	p.shows("The sealant cures for 4 h")
	p.press("Start anyway")
	p.press("The sealant’s own sheet allows it")
	p.shows("After the start.")
	before := stateOf(t, r.base, job).State.Happenings
	p.fill("How it sounds now", "even")
	waitFor(t, p, r, job, before)
	p.visit("/jobs/" + job + "/sheet")
	p.shows("Added after signing")
	p.shows("How it sounds: even")
}
