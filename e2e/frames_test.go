package e2e

import (
	"cmp"
	"encoding/json"
	"math"
	"os"
	"slices"
	"sync"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// traced is one event of a trace (the trace event format of Chromium).
type traced struct {
	Name     string
	Ph       string
	Pid, Tid int
	Ts, Dur  float64 // µs
}

// frames are how long the page's main thread worked in each frame while something was done, by trace.
func (p *tab) frames(do func()) []worked {
	p.t.Helper()
	var mu sync.Mutex
	var events []traced
	done := make(chan struct{})
	go p.Browser().EachEvent(func(e *proto.TracingDataCollected) {
		mu.Lock()
		defer mu.Unlock()
		for _, one := range e.Value {
			text, err := json.Marshal(one)
			if err != nil {
				continue
			}
			var t traced
			if json.Unmarshal(text, &t) == nil {
				events = append(events, t)
			}
		}
	}, func(*proto.TracingTracingComplete) bool {
		close(done)
		return true
	})()
	require.NoError(p.t, proto.TracingStart{TraceConfig: &proto.TracingTraceConfig{
		IncludedCategories: []string{
			"toplevel",
			"disabled-by-default-devtools.timeline",
			"devtools.timeline",
		}},
		TransferMode: proto.TracingStartTransferModeReportEvents}.Call(p.Browser()))
	do()
	require.NoError(p.t, proto.TracingEnd{}.Call(p.Browser()))
	select {
	case <-done:
	case <-time.After(limit):
		p.t.Fatal("the trace does not end")
	}
	mu.Lock()
	defer mu.Unlock()
	return perFrame(events)
}

// drawn are the events of a trace that are script, style, layout or paint, garbage that script made among them; each may lie in
// another.
var drawn = []string{"EventDispatch", "FunctionCall", "TimerFire", "FireAnimationFrame", "RunMicrotasks",
	"EvaluateScript", "v8.callFunction", "MinorGC", "MajorGC", "V8.GC_SCAVENGER", "HitTest", "ScheduleStyleRecalculation",
	"UpdateLayoutTree", "Layout", "PrePaint", "Paint", "Layerize"}

// worked is how long a frame took, ms.
type worked struct {
	drawn float64 // script, style, layout and paint
	all   float64 // everything that the page's main thread did, what the trace itself costs among it
}

// perFrame adds up the work of the thread that lays the page out, from one frame to the next; a frame ends with its
// layers made.
func perFrame(events []traced) (list []worked) {
	by, ends := map[[2]int][]traced{}, map[[2]int][]float64{}
	for _, e := range events {
		key := [2]int{e.Pid, e.Tid}
		if e.Name == "Layerize" {
			ends[key] = append(ends[key], e.Ts+e.Dur)
		}
		if e.Ph == "X" && (e.Name == "RunTask" || slices.Contains(drawn, e.Name)) {
			by[key] = append(by[key], e)
		}
	}
	for key, at := range ends {
		slices.Sort(at)
		sums := make([]worked, len(at))
		slices.SortFunc(by[key], func(a, b traced) int { return cmp.Or(cmp.Compare(a.Ts, b.Ts), cmp.Compare(b.Dur, a.Dur)) })
		over := 0.0 // to where the last of what is drawn reaches: what lies in it is counted with it
		for _, e := range by[key] {
			i, _ := slices.BinarySearch(at, e.Ts)
			switch {
			case i == len(sums):
			case e.Name == "RunTask":
				sums[i].all += e.Dur / 1000
			case e.Ts >= over:
				sums[i].drawn += e.Dur / 1000
				over = e.Ts + e.Dur
			}
		}
		if len(sums) > len(list) {
			list = sums
		}
	}
	return list
}

// What lies in something else counts once, and what is neither script nor drawing counts in the whole alone.
func TestAFrameByItsTrace(t *testing.T) {
	one := func(name string, from, to float64) traced {
		return traced{Name: name, Ph: "X", Pid: 1, Tid: 2, Ts: from * 1000, Dur: (to - from) * 1000}
	}
	got := perFrame([]traced{one("RunTask", 0, 10), one("Commit", 8, 9), one("Layout", 2, 3), one("FunctionCall", 1, 4),
		one("Paint", 5, 6), one("Layerize", 6, 7), one("RunTask", 12, 14), one("Layerize", 13, 14),
		{Name: "Paint", Ph: "X", Pid: 9, Tid: 9, Ts: 1000, Dur: 9000}})
	assert.Equal(t, []worked{{drawn: 5, all: 10}, {drawn: 1, all: 2}}, got)
	assert.Equal(t, 5.0, share(got, 1, func(w worked) float64 { return w.drawn }))
}

// share is how long a part of the frames took at most, ms: 0.5 half of them.
func share(frames []worked, of float64, took func(worked) float64) float64 {
	all := make([]float64, len(frames))
	for i, f := range frames {
		all[i] = took(f)
	}
	slices.Sort(all)
	return all[min(len(all)-1, int(float64(len(all))*of))]
}

// twelveWithScrews is the twelve with screws in place of its shims, so that it can be practised on.
func twelveWithScrews(t testing.TB, r *running) string {
	t.Helper()
	text, err := os.ReadFile("../internal/demo/engines/brindlow-6000.engine.json")
	require.NoError(t, err)
	var sheet map[string]any
	require.NoError(t, json.Unmarshal(text, &sheet))
	sheet["name"], sheet["adjuster"] = "Brindlow 6000 with screws", map[string]any{
		"kind":     "screw_valve_end",
		"pitch_mm": 1,
	}
	post(t, "PUT", r.base+"/api/v1/engines/twelve-with-screws", sheet, nil)
	return "twelve-with-screws"
}

// BenchmarkCrankInHand is how long the page works a frame while the crank of a practice engine is dragged
// round, all lobes, rockers and springs moving with it: on a four and on a twelve with 48 valves, as it is
// and with the processor four times slower.
func BenchmarkCrankInHand(b *testing.B) {
	r := demo(b)
	for name, engine := range map[string]string{"four": "brindlow-1600", "twelve": twelveWithScrews(b, r)} {
		post(
			b,
			"POST",
			r.base+"/api/v1/practice",
			map[string]any{"id": "frames-" + name, "engine_id": engine, "aid": "examination"},
			nil,
		)
		for how, rate := range map[string]float64{"as it is": 1, "four times slower": 4} {
			b.Run(name+", "+how, func(b *testing.B) {
				p := open(b, r, "/practice/frames-"+name, 1280, 800)
				p.see(".paper")
				p.tap(`[data-valve] .hit`)
				require.NoError(b, proto.EmulationSetCPUThrottlingRate{Rate: rate}.Call(p))
				box := p.see(".ring").MustShape().Box()
				cx, cy, at := box.X+box.Width/2, box.Y+box.Height/2, box.Width/2-12
				moves := func(deg float64) {
					p.Mouse.MustMoveTo(cx+at*math.Cos(deg*math.Pi/180), cy+at*math.Sin(deg*math.Pi/180))
				}
				moves(0)
				var all []worked
				for b.Loop() {
					p.Mouse.MustDown(proto.InputMouseButtonLeft)
					all = append(all, p.frames(func() {
						for deg := 2.0; deg <= 240; deg += 2 {
							moves(deg)
							time.Sleep(8 * time.Millisecond)
						}
					})...)
					p.Mouse.MustUp(proto.InputMouseButtonLeft)
				}
				require.NotEmpty(b, all)
				paints := func(w worked) float64 { return w.drawn }
				b.ReportMetric(share(all, 0.5, paints), "ms-frame-p50")
				b.ReportMetric(share(all, 0.95, paints), "ms-frame-p95")
				b.ReportMetric(share(all, 1, paints), "ms-frame-most")
				b.ReportMetric(share(all, 0.95, func(w worked) float64 { return w.all }), "ms-thread-p95")
				b.ReportMetric(float64(len(all)), "frames")
				b.ReportMetric(0, "ns/op")
				require.NoError(b, p.Close())
			})
		}
	}
}
