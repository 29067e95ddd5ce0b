package e2e

import (
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// ticked presses Done until a step with this text is next, or until the part is done for an empty text.
func ticked(t *testing.T, p *tab, until string) {
	t.Helper()
	for range 40 {
		now := p.see(".around .next h2").MustText()
		if until != "" && strings.Contains(now, until) || strings.Contains(now, "all done") {
			return
		}
		p.tap(".around .next .go")
		p.waits(`() => document.querySelector('.around .next h2')?.innerText !== `+quoted(now),
			"the step after "+now)
	}
	t.Fatalf("%q does not come; the page shows: %s", until, p.text())
}

// A whole cold job: taken in, opened step by step, tools counted out, the valves, closed with sealant that
// cures over a restart, a tool on the crank asked back by its name, started with a reason, signed with an
// exception, corrected and countersigned; the vehicle is due again.
func TestAColdJobFromTakeInToTheNextDueDate(t *testing.T) {
	t.Parallel()
	r := demo(t)
	c := played{engine: "brindlow-1600", school: "rocking_pairs", out: []string{"E3"},
		round: map[string]any{"round": "set_as_you_go", "check": "none"}}
	job := c.stored(t, r)
	c.choose(t, r, job)
	p := open(t, r, "/jobs/"+job+"/steps", 1024, 768)
	p.press("Ticks")
	p.fill("How it sounds before the work", "ticks at idle")
	p.press("Taken in")
	p.shows("Neutral or park")
	p.pressIn(".around .next", "Done")
	p.shows("What comes off.")
	p.press("One by one")
	p.shows("Blow or rinse")
	p.press("Skip")
	p.press("Not needed this time")
	p.shows("coil connectors")
	ticked(t, p, "")
	p.press("Tools")
	p.press("A wheel in gear")
	p.shows("the other wheels chocked, plugs out")
	p.press("Its own tool")
	p.press("19 mm socket (3/4 in) and bar for the crank pulley bolt: take out")
	p.shows("1 out")
	p.press("Findings")
	p.press("breather")
	p.press("blocked")
	p.press("no draught felt")
	p.pressIn(".findings", "Done now")
	p.shows("breather: blocked")
	p.press("gasket")
	p.press("hard or split")
	p.fill("Part number", "BR 16-204")
	p.press("Leave for later")
	p.shows("for later")

	post(t, "POST", r.base+"/api/v1/jobs/"+job+"/happenings",
		map[string]any{"id": "prepared-0001", "kind": "prepared",
			"engine_c": 19, "ambient_c": 18}, nil)
	p.visit("/jobs/" + job)
	c.drive(t, p, r, job)

	p.press("steps still to do")
	p.see(".around")
	ticked(t, p, "Count the tools")
	p.pressIn(".around .next", "Done")
	p.shows("Still out: 19 mm socket (3/4 in) and bar for the crank pulley bolt.")
	p.press("Tools")
	p.press("19 mm socket (3/4 in) and bar for the crank pulley bolt: back")
	p.shows("Nothing is out")
	p.press("Close up")
	ticked(t, p, "Cover on, bolts")
	p.waits(`() => /Cover on within [78]:\d\d/.test(document.body.innerText)`, "the sealant's clock")
	r.killedAndStarted(t)
	p.visit("/jobs/" + job + "/steps")
	p.waits(`() => /Cover on within [78]:\d\d/.test(document.body.innerText)`, "the clock after a restart")
	ticked(t, p, "Start it and listen")
	p.shows("Do not start before")
	p.visit("/")
	p.shows("Do not start before")
	p.visit("/jobs/" + job + "/steps")
	p.shows("Start it and listen")
	p.pressIn(".around .next", "Done")
	p.shows("The sealant cures for 4 h")
	p.press("Start anyway")
	p.press("The sealant’s own sheet allows it")
	p.shows("After the start.")
	assert.Nil(t, crankOf(t, r, job), "where it stopped nobody knows")

	p.visit("/jobs/" + job)
	p.shows("2 steps still to do")
	p.see(".signing")
	p.keys(input.Digit1, input.Digit2, input.Digit3, input.Enter)
	p.shows("Road test; Then points, ignition timing")
	p.press("Engine is not run here")
	p.says("Signed by")
	p.press("See and print the sheet")
	for _, says := range []string{"Before: ticks at idle",
		"gasket: hard or split, BR 16-204 (later)",
		"skipped, Not needed this time", "done anyway, The sealant’s own sheet allows it",
		"Signed with steps left: Engine is not run here"} {
		p.shows(says)
	}
	p.press("Add a correction")
	p.fill("What is to be corrected", "E3 was read by lamp light")
	p.fill("By", "Tess Ardal")
	p.press("Add it")
	p.shows("E3 was read by lamp light")
	p.press("Countersign")
	p.fill("By", "June Halloway")
	p.pressIn(".v-dialog", "Countersign")
	p.shows("Countersigned by June Halloway")

	p.visit("/vehicles/vehicle-round")
	p.press("Intervals")
	p.fill("or every", "12")
	p.press("Keep")
	p.shows("The interval of 12 months")
	p.shows("later: gasket: hard or split")
	p.visit("/vehicles")
	p.fill("Name, plate or engine", "bench st")
	p.shows("1 found") // not clean: two refusals were meant, and the program was killed
}

// A vehicle on a phone: when it is due, what decides, every valve, and its jobs.
func TestAVehicleOnAPhone(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/vehicles/demo-post-bus", 360, 740)
	p.shows("Next due")
	p.shows("E4b goes tight first")
	p.shows("wear unlike the rest")
	p.waits(`() => document.documentElement.scrollWidth <= 360`, "no sideways scrolling")
	p.press("Every valve")
	p.shows("per 1,000 km, µm")
	p.visit("/")
	p.press("Post bus 12")
	p.shows("Signed by")
	p.clean()
}

// Everything goes out of one workshop and into another: by the page, and by the command line.
func TestEverythingMovesToAnotherWorkshop(t *testing.T) {
	t.Parallel()
	from := demo(t)
	p := open(t, from, "/shop", 1280, 800)
	p.shows("Export the record")
	link := p.see(`a[href="/api/v1/archive.zip"]`).MustProperty("href").String()
	answer, err := http.Get(link)
	require.NoError(t, err)
	defer answer.Body.Close()
	archive := filepath.Join(t.TempDir(), "all.zip")
	data, err := io.ReadAll(answer.Body)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(archive, data, 0o600))

	to := started(t, "serve", filepath.Join(t.TempDir(), "other.db"))
	q := open(t, to, "/shop", 1280, 800)
	q.see(`input[type=file]`).MustSetFiles(archive)
	q.shows("Taken in: 14 engines, 3 feeler sets, 10 vehicles, 13 jobs")
	q.visit("/vehicles/demo-post-bus")
	q.shows("E4b goes tight first")
	q.visit("/")
	q.shows("Quarry tipper 7")
	q.clean()

	to.kill()
	code, _, errs := told(t, "", "export", "--data", to.data, archive)
	assert.Equal(t, 4, code)
	assert.Contains(t, errs, "nothing is written over")
	again := filepath.Join(t.TempDir(), "again.zip")
	code, out, errs := told(t, "", "export", "--data", to.data, again)
	require.Equal(t, 0, code, errs)
	assert.Contains(t, out, "holds the record")
	fresh := filepath.Join(t.TempDir(), "fresh.db")
	code, out, errs = told(t, "", "import", "--data", fresh, again)
	require.Equal(t, 0, code, errs)
	assert.Contains(t, out, "14 engines, 3 gauge sets, 10 vehicles, 13 jobs; 0 were here already")
	code, _, errs = told(t, "", "check", "--data", fresh)
	assert.Equal(t, 0, code, errs)
	require.NoError(t, os.WriteFile(archive, data[:len(data)/2], 0o600))
	code, _, errs = told(t, "", "import", "--data", fresh, archive)
	assert.Equal(t, 4, code)
	assert.Contains(t, errs, "no zip file, or not all of one")
}
