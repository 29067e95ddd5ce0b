package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
)

// The handbook opens where the bench says why, at the very place, and leads back; its engine is turned by
// hand, and each page ends in its drill.
func TestTheHandbookFromTheBench(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/jobs/demo-job-pump", 1280, 800)
	p.see(".then")
	p.shows("Why here?")
	p.press("See it turn")
	p.shows("Cylinder 2 is rocking") // the job's engine, at the stop that the bench turns to
	p.shows("Where cylinder 2 rocks")
	p.MustElement("[role=slider].ring").MustFocus()
	p.keys(input.ArrowUp)
	p.shows("° on, ")
	p.press("Turn on until cylinder")
	p.shows("is rocking")
	p.press("Bench")
	p.see(".then")

	post(t, "POST", r.base+"/api/v1/practice", map[string]any{"id": "read-of-one", "engine_id": "pellmark-1400", "card": 0}, nil)
	p.visit("/practice/read-of-one")
	p.press("Rocking pairs")
	p.press("Stood overnight")
	p.press("Made safe")
	p.press("See it turn")
	p.shows("Pellmark 1400, ")
	p.press("Practice")
	p.shows("Pellmark 1400")

	p.visit("/jobs/demo-job-tipper")
	p.press("0.24 won’t go")
	p.says("E3 is tight")
	p.pressIn(".strip", "Why?")
	p.shows("What it comes to, limits")
	p.waits(`() => location.hash === '#tight'`, "the place where a tight one is told")
	p.press("Each adjuster in the hand")
	p.press("Eccentric at the valve end")
	p.shows("Slacken the clamp nut, turn the eccentric until the leaf drags.")
	p.press("Which way, how far")
	p.shows("Which way, how far")
	p.see(".drill .choice")
	p.clean()
}
