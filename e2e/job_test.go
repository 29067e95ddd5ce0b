package e2e

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/go-rod/rod/lib/utils"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/deep"
)

// The whole job by clicks, once round: choose the way, temperature, at each stop read and, where it is out,
// set, lock and read again, then check those that were set, sign, sheet. The crank is turned as far as the
// school does by hand and no further before the check. On the way the page is loaded again and the program
// killed: each time it stands at the same valve.
func TestWholeJobByClicks(t *testing.T) {
	if !deep.On { // by keys, and with a reload and a kill, other whole jobs go
		t.Skip("make deep does this one")
	}
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/", 1280, 800)
	p.press("Bakery round van")
	p.says("sequence")
	checkSigned(
		t,
		p,
		driveByClicks(t, p, r, "demo-job-van", map[string]float64{"E3": 0.15, "I2": 0.25}),
		true,
	)
}

// driveByClicks does that in a browser, whichever it is, and gives the state of the signed job.
func driveByClicks(t *testing.T, p hand, r *running, id string, gaps map[string]float64) state {
	t.Helper()
	reloaded, killed, checked, turned := false, false, 0.0, 0.0
	for range 200 {
		s := stateOf(t, r.base, id)
		before := s.State.Happenings
		switch s.State.Now.Action {
		case "choose_way":
			p.press("No check, both kinds")
			p.press("Check those set")
			p.press("Use this sequence")
		case "prepare":
			for _, k := range "19" {
				p.pressIn(".pad", string(k))
			}
			p.press("Next")
			for _, k := range "17" {
				p.pressIn(".pad", string(k))
			}
			p.press("Go on")
			p.press("Made safe")
		case "turn":
			if s.State.Phase == "verify" {
				checked += s.State.Now.TurnDeg
			} else {
				turned += s.State.Now.TurnDeg
			}
			p.press("is at firing TDC")
		case "read":
			if s.State.Phase == "as_found" && !reloaded && s.State.Happenings > 6 {
				reloaded = true
				headline := p.headline()
				p.again()
				p.says(headline)
			}
			leaf, feel, _ := s.leafFor(gaps)
			p.press(leaf + " " + feel)
		case "keep":
			p.press("Keep")
		case "adjust":
			p.press(" is set")
		case "lock":
			if !killed {
				killed = true
				headline := p.headline()
				r.kill()
				*r = *startedOn(t, "demo", r.data, strings.TrimPrefix(r.base, "http://"))
				p.visit("/jobs/" + id)
				p.says(headline)
			}
			p.press("Nut locked")
		case "sign":
			for _, check := range []string{"All tools and leaves", "Socket or handle", "Faces clean"} {
				p.press(check)
			}
			p.press("Sign the job")
		case "done":
			assert.True(t, reloaded && killed, "the job was neither reloaded nor killed on the way")
			assert.Equal(t, 480.0, turned, "a three by one cylinder at a time: 720° less one interval")
			assert.Positive(t, checked)
			assert.LessOrEqual(t, checked, 720.0, "once more round gives each nut its two turns")
			return s
		}
		waitFor(t, p, r, id, before)
	}
	t.Fatalf("the job does not come to an end: %+v", stateOf(t, r.base, id).State)
	return state{}
}

// waitFor waits until the program has taken what was done.
func waitFor(t *testing.T, p hand, r *running, id string, before int) {
	t.Helper()
	waitSeen(t, p, func() state { return stateOf(t, r.base, id) }, before)
}

// waitSeen waits until it is seen that something was done.
func waitSeen(t *testing.T, p hand, sees func() state, before int) {
	t.Helper()
	ctx, cancel := context.WithTimeout(t.Context(), limit)
	defer cancel()
	err := utils.Retry(ctx, soon(), func() (bool, error) {
		return sees().State.Happenings > before, nil
	})
	require.NoError(t, err, "nothing happened; the page shows: %s", p.text())
	p.waits(`() => !document.querySelector('.now')?.hasAttribute('aria-busy') &&
		!document.querySelector('.now [aria-disabled=true]')`, "the page to follow")
}

// checkFound looks at the verdicts of the signed job; those that were set are checked, or the round has no
// check.
func checkFound(t *testing.T, s state, checked bool) {
	t.Helper()
	verdicts := map[string]string{}
	for _, v := range s.State.Valves {
		verdicts[v.Name] = v.AsFound.Judgement.Verdict
		assert.Equal(t, checked && v.Adjusted > 0, v.Verified, "%s: those that were set are checked", v.Name)
		assert.Equal(
			t,
			v.AsFound.Judgement.Verdict != "in",
			v.Adjusted > 0,
			"%s: only what is out is set",
			v.Name,
		)
	}
	assert.Equal(t, "tight", verdicts["E3"])
	assert.Equal(t, "loose", verdicts["I2"])
}

// checkSigned looks at that, and at its sheet.
func checkSigned(t *testing.T, p *tab, s state, checked bool) {
	t.Helper()
	checkFound(t, s, checked)
	p.press("See and print the sheet")
	p.waits(`() => document.body.innerText.includes('Signed by June Halloway')`, "the signature on the sheet")
	table := p.see("table").MustText()
	assert.Equal(t, checked, strings.Contains(table, "set, checked"))
	assert.Contains(t, table, "left alone")
	p.shows("set as you go, " + map[bool]string{true: "check those set", false: "no check"}[checked])
	pdf, err := p.PDF(&proto.PagePrintToPDF{PrintBackground: true})
	require.NoError(t, err)
	head := make([]byte, 5)
	_, err = pdf.Read(head)
	require.NoError(t, err)
	assert.Equal(t, "%PDF-", string(head), "the sheet prints")
	p.clean()
}

// The round is changed in the middle of a job that is read first: what was read stays, and the valve that is
// out is set at once. Changed to reading only, nothing is set and the sheet says so.
func TestTheRoundIsChangedOnTheBench(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/jobs/demo-job-tipper", 1280, 800)
	p.press("0.24 won’t go")
	p.says("E3 is tight")
	p.press("Keep")
	p.says("Read I3")
	p.press("Rocking pairs")
	p.press("Set as you go")
	p.press("Use this sequence")
	p.waits(`() => document.querySelector('.now .by')`, "what E3 is set by")
	assert.Equal(t, "E3", stateOf(t, r.base, "demo-job-tipper").State.Now.Valve)
	p.press("Rocking pairs")
	p.press("Read only")
	p.press("Use this sequence")
	p.says("Read I3")
	p.way("Sheet")
	p.shows("as the crank turns; read only")
	p.clean()
}

// The same job by number keys, Enter and arrows alone.
func TestWholeJobByKeys(t *testing.T) {
	t.Parallel()
	r := demo(t)
	id := "demo-job-van"
	p := open(t, r, "/jobs/"+id, 1280, 800)
	gaps := map[string]float64{"E3": 0.15, "I2": 0.25}
	key := func(keys ...input.Key) { p.keys(keys...) }
	p.see(".order.on")
	for range 200 {
		s := stateOf(t, r.base, id)
		before := s.State.Happenings
		switch s.State.Now.Action {
		case "choose_way":
			key(input.ArrowDown, input.ArrowUp, input.Enter)
		case "prepare":
			p.says("temperature")
			key(input.Digit1, input.Digit9, input.Enter, input.Digit1, input.Digit7, input.Enter)
		case "read":
			leaf, _, feel := s.leafFor(gaps)
			p.waits(fmt.Sprintf(`() => document.querySelector('.tab.on b')?.textContent === %q && `+
				`document.querySelector('.rung.cursor')`, s.State.Now.Valve), "the valve "+s.State.Now.Valve)
			climb(t, p, leaf)
			key(feel)
		case "sign":
			p.see(".signing")
			key(input.Digit1, input.Digit2, input.Digit3, input.Enter)
		case "done":
			p.says("Signed by")
			checkSigned(t, p, s, false)
			return
		default:
			p.see(".go.v-btn:not([aria-disabled=true])")
			key(input.Enter)
		}
		waitFor(t, p, r, id, before)
	}
	t.Fatalf("the job does not come to an end: %+v", stateOf(t, r.base, id).State)
}

// climb moves the cursor of the ladder to a leaf with the arrows.
func climb(t *testing.T, p *tab, leaf string) {
	t.Helper()
	for range 40 {
		at := p.see(".rung.cursor .thick").MustText()
		if at == leaf {
			return
		}
		if at < leaf {
			p.keys(input.ArrowUp)
		} else {
			p.keys(input.ArrowDown)
		}
	}
	t.Fatalf("leaf %s is not on the ladder: %s", leaf, p.text())
}

// At 360 px nothing runs off the page and the job can be taken on with a thumb.
func TestSmallScreen(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/", 360, 740)
	fits := `() => document.documentElement.scrollWidth <= 360`
	p.waits(`() => document.querySelector('.strip')`, "the board")
	p.waits(fits, "the board to fit")
	p.press("Quarry tipper 7")
	p.says("E3")
	p.waits(fits, "the bench to fit")
	p.waits(`() => [...document.querySelectorAll('.feel')].every(b => b.getBoundingClientRect().height >= `+
		`56 && b.getBoundingClientRect().width >= 48)`, "controls large enough for a thumb")
	p.press("0.24 won’t go")
	p.says("E3 is tight")
	p.press("Keep")
	p.says("I3")
	for _, path := range []string{"/start", "/jobs/demo-job-van", "/jobs/demo-job-pump", "/jobs/demo-job-saw",
		"/jobs/demo-job-bus/sheet",
		"/engines", "/engines/culverholt-5000", "/engines/culverholt-5000/ways", "/jobs/demo-job-tipper/card",
		"/gauges", "/sums/judge", "/shop", "/jobs/demo-job-winch", "/jobs/demo-job-minibus"} {
		p.visit(path)
		p.waits(`() => document.querySelector('.now, table, .tile, .engine, .sound, .on .way, .map, `+
			`.large, .reach svg, .stock')`, path)
		p.waits(fits, path+" to fit")
	}
	p.clean()
}

// A valve that is out may be left with a reason, and the last step can be taken back.
func TestUndoAndLeavingAValve(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/jobs/demo-job-pump", 1280, 800)
	p.says("until")
	p.press("Cylinder 2 rocks")
	p.says("Screw I5 out")
	p.press(" is set")
	p.says("Lock I5")
	p.press("Undo")
	p.says("Screw I5 out")
	p.press("Leave I5 as it is")
	p.press("Adjuster seized")
	p.says("until")
	p.visit("/jobs/demo-job-pump/sheet")
	p.waits(`() => document.querySelector('table')?.innerText.includes('left as it is: Adjuster seized')`,
		"the reason on the sheet")
	p.clean()
}

// While the program cannot be reached, a reading waits in the browser and is sent when it can.
func TestReadingWaitsForTheProgram(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/jobs/demo-job-tipper", 1280, 800)
	p.says("E3")
	port := strings.TrimPrefix(r.base, "http://")
	r.kill()
	p.press("0.24 won’t go")
	p.waits(`() => document.body.innerText.includes('1 entry waits here')`, "the waiting reading to be told")
	p.waits(`() => [...document.querySelectorAll('.rung')].some(r => r.innerText.trim().startsWith('0.24') &&
		r.querySelector('.felt')?.textContent.trim() === 'won’t go')`, "the waiting reading on the ladder")
	again := startedOn(t, "demo", r.data, port)
	p.says("E3 is tight")
	s := stateOf(t, again.base, "demo-job-tipper")
	assert.Equal(t, "keep", s.State.Now.Action)
	p.waits(`() => !document.body.innerText.includes('waits here')`, "the note to go")
}

// An open valve is refused in words at the place where it was tapped, and a warm engine on cold figures is
// too.
func TestRefusalsAreTold(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/jobs/demo-job-van", 1280, 800)
	p.see(".order.on")
	assert.Contains(t, p.see(".shut").MustText(), "no companion", "a school that does not fit says why")
	p.press("Use this sequence")
	p.says("temperature")
	p.keys(input.Digit8, input.Digit5, input.Enter, input.Digit1, input.Digit7,
		input.Enter)
	p.waits(`() => document.querySelector('.refusal')?.textContent.includes('cold figures, good up to 38')`,
		"the refusal")
	p.visit("/jobs/no-such-job")
	p.waits(`() => document.body.innerText.includes('This job could not be opened')`,
		"the missing job to be told")
}
