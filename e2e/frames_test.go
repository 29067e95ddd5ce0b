package e2e

import (
	"encoding/json"
	"math"
	"os"
	"slices"
	"sync"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"
)

// traced is one event of a trace (the trace event format of Chromium).
type traced struct {
	Name     string
	Ph       string
	Pid, Tid int
	Ts, Dur  float64 // µs
}

// frames are how long the page's main thread worked in each frame while something was done, ms: script,
// style, layout and paint, by trace.
func (p *tab) frames(do func()) []float64 {
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

// perFrame adds up the tasks of the thread that lays the page out, from one frame to the next; a frame ends
// with its layers made.
func perFrame(events []traced) (list []float64) {
	tasks, ends := map[[2]int][]traced{}, map[[2]int][]float64{}
	for _, e := range events {
		switch key := [2]int{e.Pid, e.Tid}; e.Name {
		case "Layerize":
			ends[key] = append(ends[key], e.Ts+e.Dur)
		case "RunTask":
			if e.Ph == "X" {
				tasks[key] = append(tasks[key], e)
			}
		}
	}
	for key, at := range ends {
		slices.Sort(at)
		sums := make([]float64, len(at))
		for _, task := range tasks[key] {
			if i, _ := slices.BinarySearch(at, task.Ts); i < len(sums) {
				sums[i] += task.Dur / 1000
			}
		}
		if len(sums) > len(list) {
			list = sums
		}
	}
	return list
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
				var all []float64
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
				slices.Sort(all)
				b.ReportMetric(all[len(all)/2], "ms-frame-p50")
				b.ReportMetric(all[len(all)*95/100], "ms-frame-p95")
				b.ReportMetric(all[len(all)-1], "ms-frame-most")
				b.ReportMetric(float64(len(all)), "frames")
				b.ReportMetric(0, "ns/op")
				require.NoError(b, p.Close())
			})
		}
	}
}
