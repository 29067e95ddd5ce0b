package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is typed on the start page stays over back and forward; a job started by mistake is corrected before
// its first reading, taken off the board and brought back; so is a vehicle. An odometer that ran backwards is
// pointed out.
func TestAJobStartedByMistake(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/start", 1280, 800)
	p.press("Bakery round van")
	p.shows("Say who does the job.")
	p.fill("Mechanic", "Oskar Venn")
	p.press("Rough idle")
	p.press("On the go")
	p.see(".strip")
	p.MustEval(`() => history.back()`)
	p.waits(`() => [...document.querySelectorAll('input')].some(i => i.value === 'Oskar Venn') && `+
		`[...document.querySelectorAll('.pick .on')].some(b => b.textContent.includes('Rough idle'))`,
		"what was typed to be there again")
	p.press("Start the job")
	p.says("sequence")
	job := strings.TrimPrefix(p.MustInfo().URL, r.base+"/jobs/")

	p.way("Correct details")
	p.shows("Save the correction")
	p.press("Quarry tipper 7")
	p.shows("job on the go")
	p.fill("Odometer", "5")
	p.shows("last time. A slip is corrected above; else say why it shows less.")
	p.press("Last time was a slip")
	p.press("Bench drawer set")
	p.press("Save the correction")
	p.says("sequence")
	var view struct {
		Vehicle    struct{ Name string }
		GaugeName  string `json:"gauge_name"`
		OdometerKM int    `json:"odometer_km"`
		Mechanic   string
	}
	require.Equal(t, 200, get(t, r.base+"/api/v1/jobs/"+job, &view))
	assert.Equal(t, "Quarry tipper 7 Bench drawer set 5 Oskar Venn",
		fmt.Sprint(view.Vehicle.Name, " ", view.GaugeName, " ", view.OdometerKM, " ", view.Mechanic))

	p.visit("/")
	p.see(".strip")
	p.press("Take off")
	p.shows("None. A job started by mistake")
	p.MustEval(`j => document.querySelector('a.strip[href="/jobs/' + j + `+
		`'"]').parentElement.querySelector('button').setAttribute('aria-label', 'Take the wrong one off')`,
		job)
	p.press("Take the wrong one off")
	p.shows("Quarry tipper 7 is off the board. Nothing of its job is lost.")
	p.waits(fmt.Sprintf(`() => document.querySelector('[aria-label="Taken off the board"] `+
		`a')?.getAttribute('href') === '/jobs/%s'`, job), "the job among those taken off")
	p.press("Restore")
	p.waits(fmt.Sprintf(`() => document.querySelector('[aria-label="Jobs on the go"] a[href="/jobs/%s"]')`,
		job), "the job on the board again")

	// A vehicle with a job on the board stays; one without can be taken off the list and brought back, and a
	// second of its plate is pointed out.
	p.visit("/start")
	p.see(".tile")
	p.press("Another vehicle")
	p.fill("Name in the workshop", "Tipper, the old one")
	p.fill("Plate or number", "lm 407")
	p.shows("is on the list already. Is it another one?")
	p.press("Add the vehicle")
	p.see(`.tile.on`)
	p.press("Correct Tipper, the old one")
	p.fill("Plate or number", "LM 408")
	p.press("Save the vehicle")
	p.waits(`() => document.querySelector('.tile.on')?.textContent.includes('LM 408')`, "the corrected plate")
	p.press("Correct Tipper, the old one")
	p.press("Remove it from the list")
	p.shows("Taken off the list: 1")
	p.tap(".v-expansion-panel-title")
	p.press("Restore Tipper, the old one")
	p.waits(`() => document.querySelector('.tile.on')?.textContent.includes('LM 408')`,
		"the vehicle back on the list")
	p.clean()
	p.press("Quarry tipper 7")
	p.press("Correct Quarry tipper 7")
	p.press("Remove it from the list")
	p.shows("has a job on the board")
}

// The start page by keyboard: one Tab for each group, arrow keys within it; after a change of page the focus
// is on the title.
func TestStartingByKeyboard(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/", 1280, 800)
	p.see(".strip")
	p.press("Start a job")
	p.see(".tile")
	p.waits(`() => document.activeElement?.tagName === 'H1'`, "the focus on the title")
	tabs := 0
	for ; tabs < 6; tabs++ {
		p.keys(input.Tab)
		if p.MustEval(`() => document.activeElement.matches('.tile')`).Bool() {
			break
		}
	}
	assert.Less(t, tabs, 6, "the vehicles are near the title")
	for range 10 {
		p.keys(input.ArrowDown)
		if p.see(`.tile.on b`).MustText() == "Fire pump cart" { // of which she knows no way
			break
		}
	}
	require.Equal(t, "Fire pump cart", p.see(`.tile.on b`).MustText())
	assert.Equal(t, 1, p.MustEval(
		`() => [...document.querySelectorAll('[aria-label=Vehicle] [role=radio]')].filter(e => `+
			`e.tabIndex === 0).length`).Int())
	for range 20 {
		if p.MustEval(`() => document.activeElement.getAttribute('type') === 'text' && ` +
			`document.activeElement.closest('.v-field')?.textContent.includes('Mechanic')`).Bool() {
			break
		}
		p.keys(input.Tab)
		tabs++
	}
	require.NoError(t, p.InsertText("Tess Ardal"))
	for range 8 {
		p.keys(input.Tab)
		tabs++
		if p.MustEval(`() => document.activeElement.matches('.go')`).Bool() {
			break
		}
	}
	p.keys(input.Enter)
	p.says("sequence")
	assert.Less(t, tabs, 25)
	p.waits(`() => document.activeElement?.tagName === 'H1'`, "the focus on the title of the bench")
	p.way("Keys")
	p.see("dl")
	p.keys(input.Escape)
	p.waits(`() => document.activeElement?.classList.contains('more')`,
		"the focus back on what opened the list of keys")
	p.clean()
}

// Without the program a page that is not fetched yet says that it cannot be opened, and the one that is open
// works on.
func TestAPageThatCannotBeFetched(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/jobs/demo-job-tipper", 1280, 800)
	p.see(".rung.cursor")
	r.kill()
	p.way("Sheet")
	p.waits(`() => document.querySelector('.not-opened')?.textContent.includes('cannot be opened')`,
		"why the sheet is not opened")
	p.press("drag")
	p.waits(`() => document.querySelector('.now').textContent.includes('wait')`, "the reading to wait")
}

// A way that does not fit is not replaced by another without a word.
func TestACardOfNoWay(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/engines/brindlow-1600/card?school=nonsense", 1280, 800)
	p.shows("No sequence called “nonsense”")
	assert.False(t, p.MustHas(".map"))
}

// A count that is none is refused beside its line, and nothing of the workshop is changed.
func TestACountThatIsNone(t *testing.T) {
	t.Parallel()
	r := demo(t)
	var before, after map[string]any
	require.Equal(t, 200, get(t, r.base+"/api/v1/shop", &before))
	p := open(t, r, "/shop", 1280, 800)
	p.press("Another size")
	p.fill("Size", "2.5")
	p.fill("How many", "abc")
	p.press("Save")
	p.shows("“abc” is no count")
	p.shows("Nothing was saved.")
	require.Equal(t, 200, get(t, r.base+"/api/v1/shop", &after))
	assert.Equal(t, before, after)
	p.clean()
}
