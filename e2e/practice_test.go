package e2e

import (
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// practised is a run as anybody sees it.
type practised struct {
	View state
	Eyes struct {
		Crank float64 `json:"crank_deg"`
	}
}

// A run on a practice engine, with pointer and keys: its crank is turned until what is to be seen is seen,
// the leaf is slid in and what was felt is said; after a reload it stands where it stood; at the end what was
// hidden is told. Nothing of it is a job of the workshop.
func TestPracticeFromTheFirstLeafToTheScore(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/practice", 1280, 800)
	p.press("On an engine of the library")
	p.see(".engine")
	p.MustElementR(".engine", "Brindlow 1600").MustClick()
	p.shows("How do you go round it?")
	path := p.MustEval(`() => location.pathname`).Str()
	now := func() (s practised) {
		answer, err := http.Get(r.base + "/api/v1" + path)
		require.NoError(t, err)
		defer answer.Body.Close()
		require.NoError(t, json.NewDecoder(answer.Body).Decode(&s))
		return s
	}
	p.press("Rocking pairs")
	p.press("Stood overnight")
	p.press("Made safe")
	p.says("until cylinder")
	toStop := func() {
		t.Helper()
		s := now()
		require.Equal(t, "turn", s.View.State.Now.Action)
		left := math.Mod(s.stop()-s.Eyes.Crank+720, 720)
		p.see(".ring").MustFocus()
		for ; left > 8; left = math.Mod(s.stop()-now().Eyes.Crank+720, 720) {
			if left > 715 {
				break
			}
			before := now().Eyes.Crank
			if left >= 30 {
				p.keys(input.ArrowUp)
			} else {
				p.keys(input.ArrowRight)
			}
			require.Eventually(
				t,
				func() bool { return now().Eyes.Crank != before },
				limit,
				50*time.Millisecond,
			)
		}
		p.pressIn(".now .foot", "rocks")
		require.Eventually(
			t,
			func() bool { return now().View.State.Now.Action == "read" },
			limit,
			50*time.Millisecond,
		)
	}
	toStop()
	p.MustEval(
		`() => { const asks = window.fetch; window.fetch = async (...of) => { const got = await asks(...of)
		if (of[0].url?.includes('/hands')) window.felt = (await got.clone().json()).felt?.pull
		return got } }`,
	)
	reads := func() {
		t.Helper()
		valve := now().View.State.Now.Valve
		for try := 0; now().View.State.Now.Action == "read" && now().View.State.Now.Valve == valve; try++ {
			require.Less(t, try, 8, "it is decided in a few leaves")
			said := now().View.State.Happenings
			p.MustEval(`() => { window.felt = undefined }`)
			p.press("Slide it into " + valve)
			p.waits(`() => window.felt !== undefined`, "the leaf to be felt")
			pull := p.MustEval(`() => window.felt`).Num()
			feel := "drag"
			if pull <= 0 {
				feel = "free"
			} else if pull >= 1 {
				feel = "won’t go"
			}
			leaf := strings.TrimSpace(p.see(`[aria-label="The leaf in your hand"] b`).MustText())
			p.press(fmt.Sprintf("%s %s", leaf, feel))
			require.Eventually(
				t,
				func() bool { return now().View.State.Happenings > said },
				limit,
				50*time.Millisecond,
			)
		}
	}
	first := now().View.State.Now.Valve
	reads()
	said := now()
	require.NotEqual(t, first+"read", said.View.State.Now.Valve+said.View.State.Now.Action)
	p.visit(path)
	p.shows("End the run")
	assert.Equal(t, said, now(), "after a reload it stands where it stood")
	p.clean()

	p.press("End the run")
	p.press("End it and show what was right")
	p.shows("of 8 valves ended right")
	p.shows("were never read")
	text := p.text()
	for _, slip := range []string{"lobe was not clear", "otherwise than it was felt", "without that leaf", "whole turn out", "stood"} {
		assert.NotContains(t, text, slip)
	}
	p.press("Practise again")
	p.shows("to talk about")
	p.visit("/")
	p.shows("Quarry tipper 7")
	assert.NotContains(t, p.text(), "Practice engine")
}

// examined is an examination that is done in the browser, by keys or by pointer.
type examined struct {
	*tab
	r      *running
	path   string
	byKeys bool
	leaf   int // in the hand, hundredths
}

// does waits until the program has taken what was just done, and gives by how much a leaf pulled.
func (x *examined) does(what func()) float64 {
	x.t.Helper()
	x.MustEval(`() => { window.answered = undefined }`)
	what()
	x.waits(`() => window.answered !== undefined`, "what was done to be taken")
	return x.MustEval(`() => window.answered.felt?.pull ?? -1`).Num()
}

func (x *examined) crank() float64 {
	var s practised
	require.Equal(x.t, 200, get(x.t, x.r.base+"/api/v1"+x.path, &s))
	return s.Eyes.Crank
}

// turnsTo turns the crank on until it stands within 8° of a place: by keys in steps, or by hand along its
// pulley and by its buttons.
func (x *examined) turnsTo(to float64) {
	x.t.Helper()
	for range 80 {
		left := math.Mod(to-x.crank()+720, 720)
		switch {
		case left < 8 || left > 712:
			return
		case x.byKeys && left >= 30:
			x.does(func() { x.keys(input.ArrowUp) })
		case x.byKeys:
			x.does(func() { x.keys(input.ArrowRight) })
		case left >= 40:
			x.does(func() { x.rolls(40) })
		default:
			x.does(func() { x.press("Turn the crank by 5 degrees") })
		}
	}
	x.t.Fatalf("the crank does not come to %v°", to)
}

// rolls drags the pulley round by so many degrees.
func (x *examined) rolls(deg float64) {
	box := x.see(".ring").MustShape().Box()
	cx, cy, r := box.X+box.Width/2, box.Y+box.Height/2, box.Width/2-12
	at := func(a float64) proto.Point {
		return proto.Point{X: cx + r*math.Cos(a*math.Pi/180), Y: cy + r*math.Sin(a*math.Pi/180)}
	}
	x.Mouse.MustMoveTo(at(0).X, at(0).Y)
	x.Mouse.MustDown(proto.InputMouseButtonLeft)
	for a := 5.0; a <= deg; a += 5 {
		x.Mouse.MustMoveTo(at(a).X, at(a).Y)
	}
	x.Mouse.MustUp(proto.InputMouseButtonLeft)
}

// slides slides a leaf in, so many hundredths thick.
func (x *examined) slides(valve string, hundredths int) float64 {
	x.t.Helper()
	for x.leaf != hundredths {
		key, name, by := input.Key('+'), "A thicker leaf", 1
		if hundredths < x.leaf {
			key, name, by = input.Key('-'), "A thinner leaf", -1
		}
		if x.byKeys {
			x.keys(key)
		} else {
			x.press(name)
		}
		x.leaf += by
	}
	if x.byKeys {
		return x.does(func() { x.keys(input.KeyL) })
	}
	return x.does(func() { x.press("Slide it into " + valve) })
}

// taps does what a key and a button do alike.
func (x *examined) taps(key input.Key, button string) {
	x.t.Helper()
	x.does(func() {
		if x.byKeys {
			x.keys(key)
		} else {
			x.press(button)
		}
	})
}

// An examination wholly by pointer, and one wholly by keys: two valves of which one is tight, nothing told;
// both are felt, the tight one is set, locked and felt again, and what is held of each is written down.
// Nothing is to be held against it.
func TestAnExaminationByPointerAndByKeys(t *testing.T) {
	t.Parallel()
	for how, size := range map[string][2]int{"by pointer": {1280, 800}, "by keys": {1024, 768}} {
		t.Run(how, func(t *testing.T) {
			t.Parallel()
			r := demo(t)
			post(
				t,
				"POST",
				r.base+"/api/v1/practice",
				map[string]any{
					"id":          "exam-00001",
					"exercise_id": "ours-1-first-leaf",
					"aid":         "examination",
				},
				nil,
			)
			x := &examined{
				open(t, r, "/practice/exam-00001", size[0], size[1]),
				r,
				"/practice/exam-00001",
				how == "by keys",
				0,
			}
			x.see(".paper")
			x.MustEval(
				`() => { const asks = window.fetch; window.fetch = async (...of) => { const got = await asks(...of)
			if (of[0].url?.includes('/hands')) window.answered = await got.clone().json()
			return got } }`,
			)
			takes := func(valve string, leaf int) {
				if x.byKeys {
					x.keys(input.KeyN)
				} else {
					x.tap(`[data-valve="` + valve + `"] .hit`)
				}
				x.waits(`() => document.querySelector('.paper h2').textContent === '`+valve+`'`, valve)
				x.leaf = leaf // the one nearest to the middle of the limits comes to hand
			}
			order := []string{"E1", "I1"}
			if x.byKeys {
				order = []string{"I1", "E1"} // as they stand in the row
			}
			for _, valve := range order {
				lower, upper, middle := 7, 12, 10
				if valve == "E1" {
					lower, upper, middle = 11, 16, 14
				}
				takes(valve, middle)
				x.turnsTo(0)
				in := func() bool {
					return x.slides(valve, lower) < 1 && x.slides(valve, upper+1) > 0.5
				}
				for try := 0; !in(); try++ {
					require.Less(t, try, 5, "it does not come right")
					x.taps(input.KeyU, "Loosen the nut")
					for n := 0; ; n++ {
						require.Less(t, n, 60)
						pull := x.slides(valve, middle)
						if pull > 0.2 && pull < 0.8 {
							break
						}
						switch {
						case pull >= 0.5:
							x.taps(input.Key(','), "Turn the screw 5 degrees anticlockwise")
						default:
							x.taps(input.Key('.'), "Turn the screw 5 degrees clockwise")
						}
					}
					x.taps(input.KeyU, "Tighten the nut")
				}
				x.taps(input.Key('1'), "In")
			}
			x.taps(input.KeyX, "Take the tool off")
			if x.byKeys {
				x.keys(input.KeyE)
				x.waits(`() => document.querySelector('.dialog')`, "to be asked")
				for range 6 {
					if x.MustEval(`() => document.activeElement.matches('button') && document.activeElement.textContent.includes('End it')`).
						Bool() {
						break
					}
					x.keys(input.Tab)
				}
				x.see(".dialog")
				x.keys(input.Enter)
			} else {
				x.press("End the run")
				x.press("End it and show what was right")
			}
			x.shows("2 of 2 valves ended right")
			x.shows("Nothing to hold against it")
			x.shows("As it is rehearsed")
			x.press("Act by act")
			x.see(".drawn")
			x.keys(input.ArrowRight)
			x.waits(`() => /2\/\d+/.test(document.body.innerText)`, "the second act")
			x.clean()
		})
	}
}

// Where somebody looks on, what would go wrong is told before it is done; a drill is asked, answered and
// explained.
func TestWatchedAndDrilled(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/practice", 360, 740)
	p.press("One turn out")
	p.shows("A note hangs on the engine")
	p.tap(`[data-valve="E2"] .hit`)
	p.press("In")
	p.shows("No leaf was in E2 since.")
	p.press("Leave it")
	p.waits(`() => !document.querySelector('.dialog')`, "the question to go")
	p.press("In")
	p.press("Do it all the same")
	p.shows("1/6")
	p.press("End the run")
	p.press("End it and show what was right")
	p.shows("Nothing is written down of")
	p.press("Do it all the same")
	p.shows("was said without that leaf having been in")
	p.visit("/practice/drills")
	p.see(".choices")
	p.keys(input.Key('1'))
	p.shows("Next question")
	p.waits(`() => /[01] of 1\b/.test(document.body.innerText)`, "how one stands with it") // by what was asked it was right or not
}

// stop is where the crank is to stand.
func (s practised) stop() float64 { return s.View.State.Plan.Stops[s.View.State.Now.Stop].Crank }
