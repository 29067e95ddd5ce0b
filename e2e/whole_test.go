package e2e

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
)

// Cold is judged without a thermometer, a job is put off with what it waits for, and both stand where they
// are looked for: on the bench, the sheet and the board.
func TestJudgedColdAndPutOff(t *testing.T) {
	t.Parallel()
	r := demo(t)
	const id = "demo-job-van"
	p := open(t, r, "/jobs/"+id, 1280, 800)
	p.press("Use this sequence")
	p.says("temperature")
	p.press("Stood for hours")
	p.fill("Hours it stood", "5,5")
	p.press("Fan running")
	p.press("Judged cold – go on")
	p.says("Make the vehicle safe")
	p.press("Made safe")
	p.says("until")
	p.shows("Judged cold")
	assert.Equal(t, "turn", stateOf(t, r.base, id).State.Now.Action)
	p.press("Cylinder 1 is at firing TDC")
	p.says("Read E1")
	p.way("Sheet")
	p.shows("judged cold: stood 5.5 h, fan running")
	p.press("Put the job off")
	p.press("Parts")
	p.fill("Which parts", "head gasket")
	p.press("All tools and leaves accounted for")
	p.press("Sign as put off")
	p.shows("put off: waits for parts, head gasket")
	p.visit("/")
	p.shows("put off: waits for parts, head gasket")
	p.clean()
}

// A valve that is in may be set for a reason, which the sheet shows; and all may be brought to the aim.
func TestAValveThatIsInIsSet(t *testing.T) {
	t.Parallel()
	r := demo(t)
	const id = "demo-job-tipper"
	p := open(t, r, "/jobs/"+id, 1280, 800)
	p.press("Undo") // the one feel of E3
	p.says("Read E3")
	p.press("0.27 drag")
	p.says("Read I3")
	p.press("Rocking pairs")
	p.press("Set as you go")
	before := stateOf(t, r.base, id).State.Happenings
	p.press("Use this sequence")
	waitFor(t, p, r, id, before) // what is done next is not taken before this is on disk
	p.says("Read I3")
	p.tap(`[data-valve="E3"] .hit`)
	p.press("Set E3 though it is in")
	p.press("To bring it to the aim")
	p.says("Lock E3")
	p.press("Nut locked")
	p.says("Locked. Read E3 again")
	p.press("0.27 drag")
	p.says("Read I3")
	p.way("Sheet")
	p.shows("set though in (To bring it to the aim)")
	p.clean()
}

// The rule of nine is told by the numbers of the row, and why a stop is where it is for those who want to
// know.
func TestRowNumbersAndWhyHere(t *testing.T) {
	t.Parallel()
	r := demo(t)
	c := played{engine: "brindlow-1600", school: "sum_rule",
		round: map[string]any{"round": "set_as_you_go", "check": "none"}}
	job := c.begun(t, r)
	p := open(t, r, "/jobs/"+job, 1280, 800)
	p.says("Valve 4 (E2) is fully down. Read valve 5 (E3)")
	p.waits(`() => document.querySelectorAll('.valve .number').length === 8`, "eight numbers on the head")
	p.press("0.27 drag")
	p.says("until valve 7 (I4) is fully down")
	p.shows("9 − 7 = 2")
	p.press("I know")
	p.waits(`() => !document.body.innerText.includes('9 − 7 = 2')`, "the line to go")
	p.visit("/jobs/" + job)
	p.says("until valve 7")
	assert.NotContains(t, p.text(), "9 − 7 = 2", "put away for good")
	p.press("Why here?")
	p.shows("9 − 7 = 2")
	p.clean()
}

// Where the sheet forbids turning back, a mechanic with a reason turns back all the same, for this job; the
// sheet of the job shows the reason.
func TestTurnedBackForAReason(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/jobs/demo-job-van/ways", 1280, 800)
	p.press("Turn back all the same")
	p.press("No tensioner: gears")
	p.press("Cautions and what is assumed")
	p.shows("does not allow turning back")
	p.press("Use")
	p.waits(`() => location.pathname === '/jobs/demo-job-van'`, "the bench")
	assert.Equal(t, "prepare", stateOf(t, r.base, "demo-job-van").State.Now.Action)
	post(t, "POST", r.base+"/api/v1/jobs/demo-job-van/happenings", map[string]any{"id": "cold-0001",
		"kind": "judged_cold", "by": "overnight"}, nil)
	p.visit("/jobs/demo-job-van/sheet")
	p.shows("turned back against the sheet: No tensioner: gears")
	p.clean()
}

// A nut is nipped, then tightened to its torque or, where that cannot be done while the screw is held, by
// feel; the valve is read again, and the sheet says how.
func TestLockedInTwoStagesOnTheBench(t *testing.T) {
	t.Parallel()
	r := demo(t)
	c := played{engine: "brindlow-1600", school: "rocking_pairs",
		round: map[string]any{"round": "set_as_you_go", "check": "none", "locking": "nip_then_torque"}}
	job := c.begun(t, r)
	p := open(t, r, "/jobs/"+job, 360, 740)
	for _, tight := range []string{"Nut torqued", "Cannot be torqued while the screw is held"} {
		s := stateOf(t, r.base, job)
		p.says("Read " + s.State.Now.Valve)
		leaf, _, _ := s.leafFor(nil)
		p.press(leaf + " free")
		p.waits(`() => document.querySelector('.now .by')`, "what it is set by")
		p.press(" is set")
		p.says("Nip the nut of " + s.State.Now.Valve)
		p.press("Nut nipped")
		p.says("Torque " + s.State.Now.Valve)
		p.press(tight)
		p.says("Locked. Read " + s.State.Now.Valve + " again")
		before := stateOf(t, r.base, job).State.Happenings
		p.press(leaf + " drag")
		waitFor(t, p, r, job, before)
	}
	p.way("Sheet")
	p.waits(`() => /nut to its torque[^]*nut by feel/.test(document.querySelector('table')?.innerText ?? '')`,
		"how the nuts were tightened")
	p.clean()
}

// Each gear is set in its own words, with its own tools and picture: an eccentric by feel, two thin spanners
// on a tappet. Common practice.
func TestEachGearHasItsWords(t *testing.T) {
	t.Parallel()
	for _, c := range []struct {
		engine, turn, tools, picture string
		leaf                         string
	}{
		{"sarnmoor-500", "turn the eccentric", "hooked rod in the hole", ".dial .rod", "0.20"},
		{"marrowby-3000", "turn the tappet’s head", "Two thin spanners", ".dial path.screw", "0.25"},
	} {
		t.Run(c.engine, func(t *testing.T) {
			t.Parallel()
			r := demo(t)
			job := played{engine: c.engine, school: "one_cylinder",
				round: map[string]any{"round": "set_as_you_go", "check": "none"}}.begun(t, r)
			s := stateOf(t, r.base, job)
			p := open(t, r, "/jobs/"+job, 1280, 800)
			p.says("Read " + s.State.Now.Valve)
			p.press("All leaves")
			p.press("0.35 free")
			p.waits(`() => document.querySelector('.now .by')`, "what it is set by")
			p.shows(c.turn)
			p.shows(c.tools)
			p.see(c.picture)
			p.press(" is set")
			p.says("Lock " + s.State.Now.Valve)
			p.clean()
		})
	}
}

// The free walk: at any place a valve that stands clear is tapped and worked on, whatever its stop; the bench
// then goes on with what is left.
func TestFreeWalk(t *testing.T) {
	t.Parallel()
	r := demo(t)
	c := played{engine: "brindlow-1600", school: "one_cylinder",
		round: map[string]any{"round": "set_as_you_go", "check": "none"}}
	job := c.begun(t, r)
	p := open(t, r, "/jobs/"+job, 1280, 800)
	p.says("Read E1")
	for _, valve := range []string{"I2", "E3"} { // clear at firing TDC of cylinder 1, and of other stops
		before := stateOf(t, r.base, job).State.Happenings
		p.tap(fmt.Sprintf(`[data-valve=%q] .hit`, valve))
		p.says("Read " + valve)
		waitFor(t, p, r, job, before)
		s := stateOf(t, r.base, job)
		leaf, _, _ := s.leafFor(nil)
		p.press(leaf + " drag")
		waitFor(t, p, r, job, s.State.Happenings)
	}
	p.says("Read E1")
	done := c.drive(t, p, r, job)
	assert.LessOrEqual(t, done.Turn, 540.0, "no further than without")
	assert.Equal(t, 6+3, done.Gestures, "six valves are left, and three stops")
	p.clean()
}

// The sheet of another shop is typed off on the vehicle's page: what is missing is said, a slip is told where
// it is made, and what was taken out comes back.
func TestTheSheetOfAnotherShop(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/vehicles/demo-post-bus", 1280, 800)
	p.press("A sheet of another shop")
	p.shows("Its day is missing.")
	p.fill("Day on the sheet", "2021-03-08")
	p.fill("odometer, if told", "990000")
	p.fill("Whose sheet", "Lane end garage")
	p.shows("Cold or hot is not said yet.")
	p.press("Cold")
	p.shows("No gap is typed yet.")
	p.fill("E1a as found", "0,31")
	p.fill("E1a as left", "0.33")
	p.press("Keep the sheet")
	p.shows("Correct the slip")
	p.fill("odometer, if told", "12000")
	p.press("Keep the sheet")
	p.shows("another shop · Lane end garage")
	p.press("Take out")
	p.shows("The sheet was taken out.")
	assert.NotContains(t, p.text(), "Lane end garage")
	p.press("Undo")
	p.shows("another shop · Lane end garage")
	p.press("Correct…")
	p.waits(
		`() => [...document.querySelectorAll('.sheet input')].some(i => i.value === '0.31')`,
		"what was typed",
	)
}
