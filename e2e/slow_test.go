package e2e

import (
	"fmt"
	"slices"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"
)

// A cheap tablet on a slow mobile line: 1.6 Mbit/s both ways and 150 ms there and back, its processor four
// times slower than this machine's.
const (
	slowBytes   = 1.6e6 / 8
	slowLatency = 150
	slowerCPU   = 4
)

// slowed makes a tab as slow as that.
func (p *tab) slowed(line bool) {
	require.NoError(p.t, proto.EmulationSetCPUThrottlingRate{Rate: slowerCPU}.Call(p))
	if line {
		require.NoError(p.t, proto.NetworkEnable{}.Call(p))
		require.NoError(p.t, proto.NetworkEmulateNetworkConditions{Latency: slowLatency,
			DownloadThroughput: slowBytes, UploadThroughput: slowBytes}.Call(p))
	}
}

// median is the middle of an odd number of figures.
func median(list []float64) float64 {
	slices.Sort(list)
	return list[len(list)/2]
}

// paintedOnce does something once what is looked for has been painted: what is posted within a frame comes
// after it.
const paintedOnce = `const paintedOnce = (there, then) => {
	if (!there()) return requestAnimationFrame(() => paintedOnce(there, then))
	const painted = new MessageChannel()
	painted.port1.onmessage = then
	painted.port2.postMessage(0)
}`

// firstSeen is how long after the way to a page was taken something of it was painted, in seconds, in a
// browser that was never there before.
func firstSeen(t testing.TB, r *running, path, selector string) float64 {
	p := blank(t, r, 1280, 800)
	p.slowed(true)
	p.MustEvalOnNewDocument(fmt.Sprintf(paintedOnce+`
	paintedOnce(() => document.querySelector(%q), () => { window.firstSeen = performance.now() })`, selector))
	require.NoError(t, p.Navigate(r.base+path))
	p.waits(`() => window.firstSeen`, "a first useful screen")
	seen := p.MustEval(`() => window.firstSeen`).Num() / 1000
	require.NoError(t, p.Close()) // what it fetches afterwards does not slow the next one
	return seen
}

// BenchmarkFirstUsefulScreen tells how long a new browser takes on a slow line with a slow processor until
// board and bench say what is next: the median of five, the server idle.
func BenchmarkFirstUsefulScreen(b *testing.B) {
	r := demo(b)
	for _, page := range [][3]string{{"board", "/", ".strip"}, {"bench", "/jobs/demo-job-tipper", ".now h2"}} {
		b.Run(page[0], func(b *testing.B) {
			for b.Loop() {
				var took []float64
				for range 5 {
					took = append(took, firstSeen(b, r, page[1], page[2]))
				}
				b.ReportMetric(median(took), "s/first-useful-screen")
			}
			b.ReportMetric(0, "ns/op")
		})
	}
}

// keyToVerdict is how long after a key the bench has painted what follows from it, in milliseconds: the
// headline of the next valve. The key is taken from when the browser had it.
func keyToVerdict(p *tab, key input.Key) float64 {
	p.waits(`() => `+takesAnswers, "the bench to take answers")
	p.MustEval(`() => {
		` + paintedOnce + `
		const said = () => document.querySelector('.now h2').textContent
		const before = said()
		window.painted = 0
		addEventListener('keydown', (e) => {
			paintedOnce(() => said() !== before, () => { window.painted = performance.now() - e.timeStamp })
		}, { once: true, capture: true })
	}`)
	require.NoError(p.t, p.Keyboard.Type(key))
	p.waits(`() => window.painted`, "what follows to be painted")
	return p.MustEval(`() => window.painted`).Num()
}

// BenchmarkKeyToVerdict tells how long a reading by a key takes until what follows is painted, with a
// processor four times slower: the median over the valves of a four, all in, and over the first of a twelve.
func BenchmarkKeyToVerdict(b *testing.B) {
	for _, engine := range []string{"brindlow-1600", "brindlow-6000"} {
		b.Run(engine, func(b *testing.B) {
			for b.Loop() {
				r := demo(b)
				job := played{engine: engine, school: "rocking_pairs"}.begun(b, r)
				p := open(b, r, "/jobs/"+job, 1280, 800)
				p.slowed(false)
				var took []float64
				for len(took) < 7 {
					if stateOf(b, r.base, job).State.Now.Action == "read" {
						took = append(took, keyToVerdict(p, input.Digit2))
					} else {
						keyToVerdict(p, input.Enter)
					}
				}
				b.ReportMetric(median(took), "ms/key-to-painted-verdict")
			}
			b.ReportMetric(0, "ns/op")
		})
	}
}
