package api_test

import (
	"encoding/json"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/http/httptest"
	"os"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
)

// load is a workshop in which many tablets are at a few jobs, each a tap after the other and each watching
// its job, beside clients that never read what they are told and such as are gone.
type load struct {
	tablets, jobs int
	every, lasts  time.Duration
	deaf          int // clients that never read
}

// tap is one act of a tablet.
type tap struct {
	id, job      string
	reading      bool
	sent, stored time.Time
}

// glimpse is that a screen was told of a job up to a happening.
type glimpse struct {
	newest string
	at     time.Time
}

// figures are what came of it.
type figures struct {
	taps                   []tap
	seen                   map[string][][]glimpse // by job, those of each of its screens
	heap                   uint64                 // bytes in use afterwards
	acknowledged, readings []time.Duration
	shown                  []time.Duration // from tap to each of the other screens
}

// under has a workshop work.
func (l load) under(t testing.TB) (d *door, f figures) {
	t.Helper()
	d = withJob(t)
	until := make(chan struct{})
	server := d.served(api.Options{Until: until})
	jobs := []string{}
	for n := range l.jobs {
		id := fmt.Sprintf("load-%04d", n)
		jobs = append(jobs, id)
		d.ok(
			"POST",
			"/api/v1/jobs",
			fmt.Sprintf(`{"id":%q,"vehicle_id":"vehicle-01","gauge_set_id":"gauges-01","card":0,`+
				`"mechanic":"Tess","reason":"","odometer_km":10}`, id),
		)
		for i, act := range []string{`"kind":"way_chosen","school":"rocking_pairs"`,
			`"kind":"prepared","engine_c":19,"ambient_c":18`, `"kind":"turned","stop":0`} {
			d.ok("POST", "/api/v1/jobs/"+id+"/happenings", fmt.Sprintf(`{"id":"begun-%04d",%s}`, i, act))
		}
	}
	for n := range l.deaf {
		conn, err := net.Dial("tcp", server.Listener.Addr().String())
		require.NoError(t, err)
		t.Cleanup(func() { conn.Close() })
		_, err = fmt.Fprintf(
			conn,
			"GET /api/v1/jobs/%s/events HTTP/1.1\r\nHost: localhost\r\n\r\n",
			jobs[n%l.jobs],
		)
		require.NoError(t, err)
	}
	f.seen = map[string][][]glimpse{}
	var mu sync.Mutex
	var work, watch sync.WaitGroup
	for n := range l.tablets {
		job := jobs[n%l.jobs]
		events := watched(t, server, "/api/v1/jobs/"+job+"/events", "")
		next(t, events)
		watch.Go(func() {
			var mine []glimpse
			for e := range events {
				mine = append(mine, glimpse{e.id, time.Now()})
			}
			mu.Lock()
			f.seen[job] = append(f.seen[job], mine)
			mu.Unlock()
		})
		work.Go(func() {
			mine := l.tablet(t, server, job, n)
			mu.Lock()
			f.taps = append(f.taps, mine...)
			mu.Unlock()
		})
	}
	work.Wait()
	time.Sleep(time.Second) // what is on its way arrives
	close(until)
	watch.Wait()
	runtime.GC()
	var memory runtime.MemStats
	runtime.ReadMemStats(&memory)
	f.heap = memory.HeapInuse
	f.reckon()
	return d, f
}

// tablet taps for as long as the load lasts: the first at each job reads a valve and withdraws it again, the
// others note what they hear.
func (l load) tablet(t testing.TB, server *httptest.Server, job string, n int) (done []tap) {
	client := &http.Client{Transport: &http.Transport{}}
	defer client.CloseIdleConnections()
	time.Sleep(l.every * time.Duration(n) / time.Duration(l.tablets)) // people do not tap in step
	beat := time.NewTicker(l.every)
	defer beat.Stop()
	for i, end := 0, time.Now().Add(l.lasts); time.Now().Before(end); i++ {
		does := tap{id: fmt.Sprintf("tablet-%03d-%05d", n, i), job: job, reading: n < l.jobs && i%2 == 0}
		act := fmt.Sprintf(`"kind":"sound","note":"%d"`, i)
		if n < l.jobs {
			act = `"kind":"withdrawn","valve":"E1","index":0`
		}
		if does.reading {
			act = reading
		}
		does.sent = time.Now()
		answer, err := client.Post(
			server.URL+"/api/v1/jobs/"+job+"/happenings?changes=true",
			"application/json",
			strings.NewReader(fmt.Sprintf(`{"id":%q,%s}`, does.id, act)),
		)
		if !assert.NoError(t, err) {
			return done
		}
		text, err := io.ReadAll(answer.Body)
		answer.Body.Close()
		does.stored = time.Now()
		var state struct{ Happenings int }
		if !assert.NoError(t, err) || !assert.Equal(t, 200, answer.StatusCode, string(text)) ||
			!assert.NoError(t, json.Unmarshal(text, &state)) {
			return done
		}
		done = append(done, does)
		<-beat.C
	}
	return done
}

// reckon works the figures out.
func (f *figures) reckon() {
	byID := map[string]int{}
	for i, does := range f.taps {
		byID[does.id] = i
		f.acknowledged = append(f.acknowledged, does.stored.Sub(does.sent))
		if does.reading {
			f.readings = append(f.readings, does.stored.Sub(does.sent))
		}
	}
	for _, screens := range f.seen {
		for _, glimpses := range screens {
			f.shown = append(f.shown, f.toScreen(byID, glimpses)...)
		}
	}
	for _, list := range [][]time.Duration{f.acknowledged, f.readings, f.shown} {
		slices.Sort(list)
	}
}

// toScreen is how long each tap took until a screen was told of it, or of a later one.
func (f *figures) toScreen(byID map[string]int, glimpses []glimpse) (took []time.Duration) {
	for _, g := range glimpses {
		if i, known := byID[g.newest]; known {
			took = append(took, g.at.Sub(f.taps[i].sent))
		}
	}
	return took
}

// quantile is that of a sorted list, ms.
func quantile(list []time.Duration, q float64) float64 {
	if len(list) == 0 {
		return -1
	}
	return float64(list[min(len(list)-1, int(q*float64(len(list))))]) / float64(time.Millisecond)
}

// each says that every tap that was acknowledged is in its job's list once, and nothing else.
func (f *figures) each(t testing.TB, d *door, l load) {
	t.Helper()
	times := map[string]int{}
	total := 0
	for n := range l.jobs {
		list, err := d.st.Happenings(fmt.Sprintf("load-%04d", n))
		require.NoError(t, err)
		for _, h := range list.Happenings {
			times[h.ID]++
		}
		total += len(list.Happenings) - 3
	}
	for _, does := range f.taps {
		require.Equal(t, 1, times[does.id], does.id)
	}
	require.Equal(t, len(f.taps), total, "and nothing else")
}

// Fifty tablets on ten jobs, beside clients that never read: each tap that was acknowledged is stored once,
// and every screen is told.
func TestFiftyTabletsLoseNothing(t *testing.T) {
	l := load{tablets: 50, jobs: 10, every: 500 * time.Millisecond, lasts: time.Second, deaf: 5}
	d, f := l.under(t)
	f.each(t, d, l)
	require.GreaterOrEqual(t, len(f.taps), l.tablets, "each has tapped")
	for job, screens := range f.seen {
		assert.Len(t, screens, 5, job)
		for _, glimpses := range screens {
			assert.NotEmpty(t, glimpses, job)
		}
	}
}

// Fifty tablets on ten jobs, a tap a second each, for a minute; METRONIX_LOAD_S says for how many seconds
// instead.
func BenchmarkFiftyTablets(b *testing.B) {
	seconds, err := strconv.Atoi(os.Getenv("METRONIX_LOAD_S"))
	if err != nil {
		seconds = 60
	}
	l := load{tablets: 50, jobs: 10, every: time.Second, lasts: time.Duration(seconds) * time.Second, deaf: 5}
	d, f := l.under(b)
	f.each(b, d, l)
	b.ReportMetric(quantile(f.readings, 0.5), "ms-reading-p50")
	b.ReportMetric(quantile(f.readings, 0.99), "ms-reading-p99")
	b.ReportMetric(quantile(f.acknowledged, 0.99), "ms-any-p99")
	b.ReportMetric(quantile(f.shown, 0.5), "ms-other-screen-p50")
	b.ReportMetric(quantile(f.shown, 0.99), "ms-other-screen-p99")
	b.ReportMetric(float64(f.heap)/1e6, "MB-heap")
	b.ReportMetric(float64(len(f.taps)), "taps")
	b.ReportMetric(0, "ns/op")
}
