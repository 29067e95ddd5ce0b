package e2e

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// offline cuts the page off from the program, or lets it through again.
func (p *tab) offline(on bool) {
	p.t.Helper()
	require.NoError(p.t, proto.NetworkEnable{}.Call(p))
	require.NoError(p.t, proto.NetworkEmulateNetworkConditions{Offline: on, DownloadThroughput: -1,
		UploadThroughput: -1}.Call(p))
}

// A job as it goes when nothing goes straight on: a valve skipped, a reading made without the program, the
// crank doubted from the helper's phone and found again, both turning at once, the program killed, one valve
// set and one left with its reason. What is believed of the crank is compared with where it is, and the job
// is signed with every reading on it.
func TestAWanderingJob(t *testing.T) {
	t.Parallel()
	r := demo(t)
	ways := waysOf(t, r, "estervane-2400")
	at := slices.IndexFunc(ways,
		func(w way) bool { return w.School == "rocking_pairs" && w.Order == "turning" })
	d := driven(t, r, "estervane-2400", ways[at])
	require.True(t, d.until("read"))
	tablet := open(t, r, "/jobs/"+d.job, 1024, 768)
	phone := open(t, r, "/jobs/"+d.job, 360, 740)
	feel := func(p *tab) {
		s := d.now()
		p.waits(fmt.Sprintf(`() => document.querySelector('.tab.on b')?.textContent === %q && `+
			`document.querySelector('.rung.cursor')`, s.State.Now.Valve), "the valve "+s.State.Now.Valve)
		label, says, _ := s.leafFor(d.gaps(s))
		p.press(label + " " + says)
		waitFor(t, p, r, d.job, s.State.Happenings)
	}
	goes := func(p *tab) {
		before := d.now().State.Happenings
		goOn(t, p, true)
		waitFor(t, p, r, d.job, before)
	}

	// The second valve of the stop is read before the first.
	first, second := d.now().State.Now.Here[0], d.now().State.Now.Here[1]
	before := d.now().State.Happenings
	tablet.pressIn(".tabs", second)
	waitFor(t, tablet, r, d.job, before)
	for d.now().State.Now.Valve == second {
		if d.now().State.Now.Action == "keep" {
			goes(tablet)
		} else {
			feel(tablet)
		}
	}
	require.Equal(t, first, d.now().State.Now.Valve, "what was skipped comes next")

	// Without the program a reading waits, is seen to wait, and is there afterwards.
	tablet.offline(true)
	s := d.now()
	label, says, _ := s.leafFor(d.gaps(s))
	tablet.press(label + " " + says)
	tablet.waits(`() => document.querySelector('.now').textContent.includes('1 entry waits')`,
		"the reading to wait")
	require.Equal(t, s.State.Happenings, d.now().State.Happenings)
	tablet.offline(false)
	waitFor(t, tablet, r, d.job, s.State.Happenings)

	// The helper's phone says that the crank may have been turned: the tablet does not go on reading there.
	for d.now().State.Now.Action != "turn" && d.now().State.Now.Action != "keep" {
		feel(tablet)
	}
	if d.now().State.Now.Action == "keep" {
		goes(tablet)
	}
	stop := d.now().State.Now.Stop
	goes(tablet)
	before = d.now().State.Happenings
	phone.press("Crank moved?")
	waitFor(t, phone, r, d.job, before)
	tablet.says("Turn the crank until")
	assert.Nil(t, crankOf(t, r, d.job), "the place is not known any more")

	// It stands where it stood: the helper says which cylinder rocks, and on which stop that is.
	phone.press("Where am I?")
	phone.see(".find")
	for _, w := range watchOf(t, r, d.job, stop) {
		if w.What == "rocking" {
			phone.pressIn(".which", fmt.Sprintf("Cylinder %d", w.Cylinder))
		}
	}
	before = d.now().State.Happenings
	phone.press("Go on from here")
	waitFor(t, phone, r, d.job, before)
	assert.InDelta(t, stopDeg(t, r, d.job, stop), *crankOf(t, r, d.job), 1e-6, "found where it is")

	// Both turn on at once: the second is told, and the crank is where it was turned to once.
	for d.now().State.Now.Action != "turn" {
		if d.now().State.Now.Action == "keep" {
			goes(tablet)
		} else {
			feel(tablet)
		}
	}
	next := d.now().State.Now.Stop
	tablet.says("Turn a further")
	phone.says("Turn a further")
	phone.offline(true) // so that it does not see what the tablet does
	goOn(t, phone, true)
	phone.waits(`() => document.querySelector('.now').textContent.includes('1 entry waits')`,
		"the helper's turn to wait")
	goes(tablet)
	phone.offline(false)
	phone.waits(`() => document.querySelector('.refused')`, "the helper to be told")
	assert.InDelta(t, stopDeg(t, r, d.job, next), *crankOf(t, r, d.job), 1e-6, "turned once")
	phone.pressIn(".refused", "Remove")
	phone.waits(`() => !document.querySelector('.refused')`, "what was told to be put away")
	// with two at one crank nobody knows where it stands before somebody has looked
	phone.says("Turn the crank until")
	assert.Nil(t, crankOf(t, r, d.job))
	phone.press("Where am I?")
	phone.see(".find")
	for _, w := range watchOf(t, r, d.job, next) {
		if w.What == "rocking" {
			phone.pressIn(".which", fmt.Sprintf("Cylinder %d", w.Cylinder))
		}
	}
	before = d.now().State.Happenings
	phone.press("Go on from here")
	waitFor(t, phone, r, d.job, before)
	phone.says("Read ")
	tablet.says("Read ")

	// The program is killed and begins again; the tablet goes on at the same valve.
	headline := tablet.see(".now h2").MustText()
	r.kill()
	*r = *startedOn(t, "demo", r.data, strings.TrimPrefix(r.base, "http://"))
	tablet.MustReload()
	tablet.says(headline)

	// To the end: the valve that is out is left with its reason; the rest by keys.
	left := false
	for range 400 {
		s := d.now()
		now := s.State.Now
		before := s.State.Happenings
		switch now.Action {
		case "read":
			feel(tablet)
			continue
		case "adjust":
			left = true
			tablet.press("Leave " + now.Valve + " as it is")
			tablet.press("Part on order")
		case "sign":
			tablet.see(".signing")
			tablet.keys(input.Digit1, input.Digit2, input.Digit3, input.Enter)
		case "done":
			tablet.says("Signed by")
			assert.True(t, left)
			tablet.press("See and print the sheet")
			tablet.shows("left as it is: Part on order")
			for _, v := range s.State.Valves {
				assert.NotNil(t, v.AsFound, v.Name)
			}
			return
		default:
			goOn(t, tablet, false)
		}
		waitFor(t, tablet, r, d.job, before)
	}
	t.Fatalf("the job does not come to an end: %+v", d.now().State.Now)
}

type placed struct {
	State struct {
		Crank *float64 `json:"crank_deg"`
		Plan  struct {
			Direction string
			Stops     []struct {
				Crank float64 `json:"crank_deg"`
				Watch []struct {
					What     string
					Cylinder int
				}
			}
		}
	}
}

func placeOf(t *testing.T, r *running, job string) placed {
	t.Helper()
	var p placed
	require.Equal(t, 200, get(t, r.base+"/api/v1/jobs/"+job, &p))
	return p
}

func crankOf(t *testing.T, r *running, job string) *float64 { return placeOf(t, r, job).State.Crank }
func stopDeg(t *testing.T, r *running, job string, stop int) float64 {
	return placeOf(t, r, job).State.Plan.Stops[stop].Crank
}
func watchOf(t *testing.T, r *running, job string, stop int) []struct {
	What     string
	Cylinder int
} {
	return placeOf(t, r, job).State.Plan.Stops[stop].Watch
}
