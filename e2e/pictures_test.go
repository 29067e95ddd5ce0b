package e2e

import (
	"bytes"
	"flag"
	"image"
	"image/draw"
	"image/png"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"

	"metronix/internal/deep"
)

var pictures = flag.String("pictures", "",
	"the folder to write pictures of the main views into; make pictures")

// TestPictures looks at each main view of the demo and, where a folder is given, writes its picture there.
func TestPictures(t *testing.T) {
	t.Parallel()
	r := demo(t)
	joined := map[string][][]byte{} // two views of one name stand side by side
	for i, v := range []struct {
		name, path, theme, ready string
		width, height            int
		do                       func(*tab)
	}{
		{"board-night", "/", "night", ".strip", 1280, 800, nil},
		{"bench-choose-way-day", "/jobs/demo-job-van", "day", ".order.on", 1280, 800, nil},
		{"bench-turn-day", "/jobs/demo-job-pump", "day", ".then", 1280, 800, nil},
		{"find-cooling-night", "/jobs/demo-job-pump", "night", ".then", 1280, 800, func(p *tab) {
			p.press("Where am I?")
			p.press("TDC mark at the pointer")
			p.waits(`() => document.querySelector('.find h2')?.textContent.includes('2 places')`,
				"two places")
		}},
		{"bench-read-night", "/jobs/demo-job-tipper", "night", ".rung.cursor", 1280, 800, func(p *tab) {
			p.press("0.24 won’t go")
			p.says("E3 is tight")
			p.press("0.22 drag")
			p.waits(`() => document.querySelector('.why')?.textContent.includes('0.22 drags')`, "the verdict")
		}},
		{"bench-adjust-day", "/jobs/demo-job-pump", "day", ".then", 1280, 800, func(p *tab) {
			p.keys(input.Enter)
			p.says("Screw I5 out")
		}},
		{"sheet-day", "/jobs/demo-job-bus/sheet", "day", "table", 1280, 1700, nil},
		{"start-night", "/start", "night", ".tile", 1280, 960,
			func(p *tab) {
				p.MustEval(`() => localStorage.setItem('metronix.mechanic', 'Tess Ardal')`)
				p.visit("/start")
				p.press("Post bus 12")
				p.shows("As you did it last")
			}},
		{"engines-night", "/engines", "night", ".engine", 1280, 800, nil},
		{"engine-vee-night", "/engines/culverholt-5000", "night", ".sound", 1280, 800, nil},
		{"ways-flat-day", "/engines/ostrane-1300/ways", "day", ".on .way", 1280, 800, nil},
		{"gauges-night", "/gauges", "night", ".reach svg", 1280, 900,
			func(p *tab) { p.press("Oskar's set"); p.shows("16 sizes") }},
		{"find-cooling-night", "/jobs/demo-job-winch", "night", ".plot", 1280, 800, nil},
		{"shims-day", "/jobs/demo-job-minibus", "day", ".moves", 1280, 800, nil},
		{"steps-day", "/jobs/demo-job-tipper/steps", "day", ".around", 1280, 800, func(p *tab) {
			p.press("Close up")
			p.shows("Feel all 8 lock nuts")
		}},
		{"vehicle-night", "/vehicles/demo-post-bus", "night", ".visit", 1280, 1500, nil},
		{"card-two-rows-day", "/jobs/demo-job-bus/card", "day", ".map", 1280, 1100, nil},
	} {
		if *pictures == "" && !deep.On && i%3 > 0 {
			continue // other tests come by these pages too
		}
		p := themed(t, r, v.theme, v.path, v.width, v.height)
		p.see(v.ready)
		if v.do != nil {
			v.do(p)
		}
		joined[v.name] = append(joined[v.name], p.pictured())
		keep(t, v.name, beside(t, joined[v.name]))
		p.clean()
		require.NoError(t, p.Close()) // nobody is at the same job in the next one
	}
	if *pictures != "" || deep.On {
		phones(t)
		signingIn(t)
		practising(t)
	}
}

// practising is a watched run on a tablet, an examination on a phone, its score, and a drill.
func practising(t *testing.T) {
	r := demo(t)
	post(t, "POST", r.base+"/api/v1/practice", map[string]any{"id": "pictured-1", "exercise_id": "ours-3-one-turn-out"}, nil)
	tablet := themed(t, r, "day", "/practice/pictured-1", 1280, 780)
	tablet.tap(`[data-valve="E2"] .hit`)
	tablet.press("Slide it into E2")
	tablet.waits(`() => !document.querySelector('.dialog') || document.querySelector('.dialog').textContent.includes('lobe')`, "the answer")
	row := [][]byte{tablet.pictured()}
	post(t, "POST", r.base+"/api/v1/practice", map[string]any{"id": "pictured-2", "exercise_id": "ours-2-four-some-right", "aid": "examination"}, nil)
	for i, h := range []map[string]any{{"turn_deg": 120}, {"slide": map[string]any{"valve": "E1", "leaves_mm": []float64{0.27}}},
		{"claim": map[string]any{"valve": "E1", "is": "in"}}, {"claim": map[string]any{"valve": "E4", "is": "loose"}}} {
		h["id"] = "pictured-" + count(i)
		post(t, "POST", r.base+"/api/v1/practice/pictured-2/hands", h, nil)
	}
	phone := themed(t, r, "night", "/practice/pictured-2", 360, 780)
	phone.tap(`[data-valve="E2"] .hit`)
	phone.see(".hands").MustEval(`() => { this.scrollIntoView(); scrollBy(0, -260) }`)
	row = append(row, phone.pictured())
	post(t, "POST", r.base+"/api/v1/practice/pictured-2/end", map[string]any{}, nil)
	phone.visit("/practice/pictured-2/score")
	phone.shows("As it truly is")
	row = append(row, phone.pictured())
	phone.visit("/practice/drills")
	phone.see(".choices")
	row = append(row, phone.pictured())
	phone.visit("/handbook/schools")
	phone.press("Rule of nine")
	phone.see(".says")
	row = append(row, phone.pictured())
	keep(t, "practice", beside(t, row))
}

// signingIn is how people come in: the code to scan, who is there, a PIN, and the audit list of it, in both
// themes.
func signingIn(t *testing.T) {
	o := toTheNetwork(t, filepath.Join(t.TempDir(), "shop.db"))
	tablet := addressOf(o.page)
	home := t.TempDir()
	der, _ := fetched(t, http.DefaultClient, o.page+"authority.crt")
	trust(t, home, []byte(der))
	p := tabOf(t, tabletIn(t, home, tablet), strings.Replace(o.base, "127.0.0.1", tablet, 1), 360, 780)
	looks := func(theme, path string) {
		p.MustEval(`t => localStorage.setItem('metronix.theme', t)`, theme)
		p.visit(path)
	}
	p.visit("/")
	p.shows("The first foreman")
	p.fill("Code", o.code)
	p.fill("Name, as it stands on sheets", "June Abara")
	p.fill("PIN, 4 to 12 digits", "7319")
	p.press("Set up")
	p.in("June Abara", "7319")
	for _, who := range []string{`{"id":"tess","name":"Tess Ardal","role":"mechanic","pin":"4711"}`,
		`{"id":"ivo","name":"Ivo Lund","role":"learner","pin":"2580"}`} {
		p.MustEval(`async body => (await fetch('/api/v1/people', { method: 'POST', body, headers: { 'Content-Type': 'application/json' } })).status`, who)
	}
	var row [][]byte
	looks("night", "/shop")
	p.see(".code").MustEval(`() => { this.closest("section").scrollIntoView(); scrollBy(0, -230) }`)
	row = append(row, p.pictured())
	p.out("June Abara")
	p.shows("Who is there?") // the session has ended before the next page asks for it
	looks("day", "/")
	p.shows("Who is there?")
	row = append(row, p.pictured())
	looks("night", "/")
	p.press("Tess Ardal")
	for range 3 {
		p.press("4")
	}
	row = append(row, p.pictured())
	looks("day", "/")
	p.in("June Abara", "7319")
	p.visit("/people")
	p.shows("signed in")
	p.MustElementR("h2", "Audit list").MustEval(`() => { this.scrollIntoView(); scrollBy(0, -150) }`)
	row = append(row, p.pictured())
	keep(t, "people-phones", beside(t, row))
}

// phones are the bench, what a helper at the crank sees, and what stands where another hand was faster, each
// on a phone, beside one another.
func phones(t *testing.T) {
	r := demo(t)
	const job = "/jobs/demo-job-tipper"
	l, by := lineTo(t, r)
	bench := themed(t, by, "night", job, 360, 780)
	bench.see(".rung.cursor")
	row := [][]byte{bench.pictured()}
	bench.judges()
	l.becomes(cut)
	bench.press("0.24 won’t go")
	bench.says("E3 is tight")
	bench.press("Keep")
	bench.says("Read I3")
	keptElsewhere(t, r, "demo-job-tipper", "E3", 0.22)
	row = append(row, bench.pictured())
	l.becomes(through)
	bench.shows("was not taken")
	row = append(row, bench.pictured())
	helper := themed(t, r, "night", "/jobs/demo-job-pump/crank", 360, 780)
	helper.shows("Hands are not clear yet")
	row = append(row, helper.pictured())
	mechanic := open(t, r, "/jobs/demo-job-pump", 1280, 800)
	mechanic.press("Hands clear")
	helper.see(".there")
	row = append(row, helper.pictured())

	keep(t, "phones-night", beside(t, row))
}

// beside puts pictures side by side.
func beside(t *testing.T, row [][]byte) []byte {
	t.Helper()
	const apart = 12
	var list []image.Image
	wide, high := -apart, 0
	for _, one := range row {
		picture, err := png.Decode(bytes.NewReader(one))
		require.NoError(t, err)
		list = append(list, picture)
		wide, high = wide+apart+picture.Bounds().Dx(), max(high, picture.Bounds().Dy())
	}
	all := image.NewRGBA(image.Rect(0, 0, wide, high))
	at := 0
	for _, picture := range list {
		draw.Draw(all, picture.Bounds().Add(image.Pt(at, 0)), picture, image.Point{}, draw.Src)
		at += picture.Bounds().Dx() + apart
	}
	var out bytes.Buffer
	require.NoError(t, png.Encode(&out, all))
	return out.Bytes()
}

// themed opens a page in a theme.
func themed(t *testing.T, r *running, theme, path string, width, height int) *tab {
	p := open(t, r, "/", width, height)
	p.MustEval(`t => localStorage.setItem('metronix.theme', t)`, theme)
	p.visit(path)
	return p
}

// pictured is what is seen of a page.
func (p *tab) pictured() []byte {
	p.waits(`() => document.fonts.status === 'loaded'`, "the fonts")
	picture, err := p.Screenshot(false,
		&proto.PageCaptureScreenshot{Format: proto.PageCaptureScreenshotFormatPng})
	require.NoError(p.t, err)
	return picture
}

// keep writes a picture where a folder is given.
func keep(t *testing.T, name string, picture []byte) {
	require.Greater(t, len(picture), 15_000, "%s looks empty", name)
	if *pictures != "" {
		require.NoError(t, os.MkdirAll(*pictures, 0o755))
		require.NoError(t, os.WriteFile(filepath.Join(*pictures, name+".png"), picture, 0o644))
	}
}
