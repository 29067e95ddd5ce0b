package e2e

import (
	"fmt"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
)

// readingsOf is what was felt of a valve when it was kept last.
func readingsOf(t *testing.T, r *running, job, valve string) (felt []string) {
	t.Helper()
	var view struct {
		State struct {
			Valves []struct {
				Name string
				Last *struct {
					Readings []struct{ Name, Feel string }
				}
			}
		}
	}
	get(t, r.base+"/api/v1/jobs/"+job, &view)
	for _, v := range view.State.Valves {
		if v.Name == valve && v.Last != nil {
			for _, x := range v.Last.Readings {
				felt = append(felt, x.Name+" "+x.Feel)
			}
		}
	}
	return felt
}

// A drag may be proved by the leaves beside it, on the strip that still names the valve; a stack is laid by
// hand; a drag is graded where that is wanted.
func TestWhatHandsFeel(t *testing.T) {
	t.Parallel()
	r := demo(t)
	const id = "demo-job-tipper"
	p := open(t, r, "/jobs/"+id, 1280, 800)
	p.press("Undo") // the one feel of E3
	p.says("Read E3")
	p.press("0.27 drag")
	p.says("Read I3")
	p.press("Cross-check 0.25 / 0.30")
	p.says("E3 is in")
	p.shows("To prove it: 0.25 falls through, 0.30 will not go.")
	p.press("0.25 free")
	p.press("0.30 won’t go")
	p.press("Keep")
	p.says("Read I3")
	assert.Equal(t, []string{"0.27 drag", "0.25 free", "0.30 wont_go"}, readingsOf(t, r, id, "E3"))

	p.press("Stack…")
	p.press("0.12 in the stack")
	p.press("0.10 in the stack")
	p.waits(`() => document.querySelector('.stacked .thick')?.textContent.startsWith("0.22")`, "their sum")
	p.press("0.12 + 0.10 drag")
	p.says("until")
	assert.Equal(t, []string{"0.12 + 0.10 drag"}, readingsOf(t, r, id, "I3"))
	p.press("Undo")
	p.says("Read I3")
	p.press("Grade the drag")
	p.press("0.22 firm drag")
	p.says("until")
	assert.Equal(t, []string{"0.22 drag_firm"}, readingsOf(t, r, id, "I3"))
	p.clean()
}

// The ten minutes count from one tap when the engine was shut off; each stop has its share; a second warm-up
// begins them anew, and the crank is found again.
func TestAHotPassByTheClock(t *testing.T) {
	t.Parallel()
	r := demo(t)
	c := played{engine: "pellmark-2500", school: "one_cylinder", round: map[string]any{"round": "read_only"}}
	job := c.stored(t, r)
	c.choose(t, r, job)
	p := open(t, r, "/jobs/"+job, 1280, 800)
	p.says("temperature")
	p.press("Engine stopped now")
	p.shows("Shut off at")
	p.keys(input.Digit8, input.Digit5, input.Enter, input.Digit2, input.Digit0,
		input.Enter)
	p.press("Made safe")
	p.says("until")
	p.waits(`() => /[89]:\d\d left.*a stop/.test(document.querySelector('.hot')?.textContent ?? '')`,
		"a share for each stop")
	p.press("Cylinder 1")
	p.says("Read E1")
	p.waits(`() => /here 0:\d\d, 1:\d\d a stop/.test(document.querySelector('.hot')?.textContent ?? '')`,
		"the time at this stop, and a fifth of ten minutes")
	p.press("left")
	p.shows("counts from when the engine was shut off")
	p.press("Engine ran again: stopped now")
	p.says("temperature")
	p.press("Needle in its place")
	p.fill("Minutes it ran", "12")
	p.press("Judged hot – go on")
	p.press("Made safe") // its key was in again
	p.says("until")
	assert.Nil(t, crankOf(t, r, job), "where it stopped nobody knows")
	p.waits(`() => /[89]:5\d left/.test(document.querySelector('.hot')?.textContent ?? '')`,
		"ten minutes anew")
	p.way("Sheet")
	p.shows("judged hot: the needle stood in its place, ran 12 min")
	p.clean()
}

// The mechanic's own word about the nut is told from the first valve on; a mark is painted where the pulley
// has none for the half turns.
func TestTheNutAndTheMark(t *testing.T) {
	t.Parallel()
	r := demo(t)
	const id = "demo-job-van"
	p := open(t, r, "/jobs/"+id, 1280, 800)
	p.says("Choose the sequence")
	p.press("No check, both kinds")
	p.press("Gap closes: set it slightly wide")
	p.fill("By how much, until it is learned", "0,03")
	p.press("Use this sequence")
	p.says("temperature")
	p.press("Stood overnight")
	p.press("Made safe")
	p.says("until")
	p.press(capitalised(stateOf(t, r.base, id).State.Now.Instruction.Until))
	p.says("Read")
	first := stateOf(t, r.base, id)
	leaf, _, _ := first.leafFor(map[string]float64{})
	p.press(leaf + " won’t go")
	p.press(fmt.Sprintf("Set %s now", first.State.Now.Valve))
	p.shows("Back it off a hair first: set")
	p.shows("0.03")
	p.clean()
}

func TestTheMarkOpposite(t *testing.T) {
	t.Parallel()
	r := demo(t)
	c := played{engine: "pellmark-1400", school: "one_cylinder", round: map[string]any{"round": "read_only"}}
	job := c.begun(t, r)
	p := open(t, r, "/jobs/"+job, 1280, 800)
	for stateOf(t, r.base, job).State.Now.Action == "read" {
		s := stateOf(t, r.base, job)
		leaf, feel, _ := s.leafFor(map[string]float64{})
		p.press(leaf + " " + feel)
		waitFor(t, p, r, job, s.State.Happenings)
	}
	p.shows("Paint a mark on the pulley opposite its zero mark")
	p.press("Painted")
	p.shows("The painted mark comes to the pointer there.")
	p.clean()
}
