package e2e

import (
	"bufio"
	"encoding/json"
	"fmt"
	"io"
	"os/exec"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/deep"
)

// engine is another browser than the one of all other tests, led from outside by a person's means.
type engine interface {
	goTo(address string) error
	// eval gives what a function of no arguments answers in the page.
	eval(js string) (json.RawMessage, error)
	tapAt(x, y float64) error
	// complaints are what it wrote of faults in the page.
	complaints() []string
}

// otherTab is a page in such a browser.
type otherTab struct {
	engine
	t    *testing.T
	base string
}

func (o otherTab) visit(path string) {
	o.t.Helper()
	require.NoError(o.t, o.goTo(o.base+path))
	o.waits(`() => document.querySelector('main')`, path)
}

func (o otherTab) again() {
	o.t.Helper()
	o.visit(o.told(`() => location.pathname`))
}

// told is a text that a function answers in the page.
func (o otherTab) told(js string) (text string) {
	o.t.Helper()
	answer, err := o.eval(js)
	require.NoError(o.t, err, js)
	require.NoError(o.t, json.Unmarshal(answer, &text), "%s answers %s", js, answer)
	return text
}

func (o otherTab) waits(js, what string) {
	o.t.Helper()
	begun := time.Now()
	for {
		answer, err := o.eval(`() => Boolean((` + js + `)())`)
		if err == nil && string(answer) == "true" {
			return
		}
		if time.Since(begun) > limit {
			require.NoError(o.t, err)
			o.t.Fatalf("waiting for %s; the page shows: %s", what, o.text())
		}
		time.Sleep(20 * time.Millisecond)
	}
}

func (o otherTab) says(text string) {
	o.t.Helper()
	o.waits(headlined(text), "the headline to say "+text)
}

func (o otherTab) headline() string {
	o.t.Helper()
	return o.told(`() => document.querySelector('.now h2').innerText`)
}

func (o otherTab) text() string { return o.told(`() => document.body.innerText.slice(0, 1500)`) }

func (o otherTab) press(text string) {
	o.t.Helper()
	o.pressIn("body", text)
}

// pressIn taps the middle of a control, once it holds still and nothing lies over it; again where the page
// took nothing just then.
func (o otherTab) pressIn(part, text string) {
	o.t.Helper()
	find := fmt.Sprintf(named, part, text)
	for range 5 {
		o.waits(`() => `+takesAnswers+` && `+find, "a control "+text)
		o.tapMiddle(find, text)
		for range 20 {
			if answer, err := o.eval(`() => window.took !== false`); err == nil && string(answer) == "true" {
				return
			}
			time.Sleep(20 * time.Millisecond)
		}
	}
	o.t.Fatalf("%s takes no tap; the page shows: %s", text, o.text())
}

// tapMiddle taps what an expression finds, and has the page note in window.took that it was.
func (o otherTab) tapMiddle(find, what string) {
	o.t.Helper()
	var at, before struct{ X, Y float64 }
	for range 50 {
		answer, err := o.eval(`() => {
			const e = ` + find + `
			if (!e) return null
			e.scrollIntoView({ block: 'center' })
			const b = e.getBoundingClientRect(), x = b.x + b.width / 2, y = b.y + b.height / 2
			const top = document.elementFromPoint(x, y)
			if (!top || !(e.contains(top) || top.contains(e))) return null
			window.took = false
			e.addEventListener('click', () => { window.took = true }, { once: true, capture: true })
			return { x, y }
		}`)
		require.NoError(o.t, err)
		before, at = at, struct{ X, Y float64 }{}
		require.NoError(o.t, json.Unmarshal(answer, &at))
		if at.X > 0 && at == before {
			require.NoError(o.t, o.tapAt(at.X, at.Y))
			return
		}
	}
	o.t.Fatalf("%s cannot be tapped; the page shows: %s", what, o.text())
}

// ended starts a program that is ended with the test, and gives what it says where asked.
func ended(t *testing.T, cmd *exec.Cmd, said func(line string)) {
	t.Helper()
	read, write := io.Pipe()
	cmd.Stdout, cmd.Stderr = write, write
	require.NoError(t, cmd.Start(), "%s is not installed; make deep installs it", cmd.Path)
	t.Cleanup(func() {
		_ = cmd.Process.Kill()
		_ = cmd.Wait()
		_ = write.Close()
	})
	go func() {
		lines := bufio.NewScanner(read)
		for lines.Scan() {
			said(lines.Text())
		}
		_, _ = io.Copy(io.Discard, read)
	}()
}

// The other browser engines that Debian can lead load every page without a fault, and the main job is done in
// them by taps alone, with a reload and a killed program on the way.
func TestOtherBrowserEngines(t *testing.T) {
	if !deep.On {
		t.Skip("make deep does the main job in the other browser engines")
	}
	for name, start := range map[string]func(*testing.T) engine{"gecko": gecko, "webkit": webkit} {
		t.Run(name, func(t *testing.T) {
			r := demo(t)
			o := otherTab{start(t), t, r.base}
			for _, s := range screens {
				o.visit(s.path)
				o.waits(fmt.Sprintf(`() => document.querySelector(%q)`, s.ready), s.name)
			}
			o.visit("/")
			o.press("Bakery round van")
			o.says("sequence")
			checkFound(
				t,
				driveByClicks(t, o, r, "demo-job-van", map[string]float64{"E3": 0.15, "I2": 0.25}),
				true,
			)
			o.press("See and print the sheet")
			o.waits(
				`() => document.body.innerText.includes('Signed by June Halloway')`,
				"the signature on the sheet",
			)
			assert.Empty(t, o.complaints())
			_, err := o.eval(`() => { console.error('a fault of the test') }`)
			require.NoError(t, err)
			require.Eventually(t, func() bool { return len(o.complaints()) == 1 }, limit, 20*time.Millisecond,
				"a fault would not have been told")
		})
	}
}
