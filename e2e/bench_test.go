package e2e

import (
	"fmt"
	"io"
	"net/http"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// From the start of the process, with the demo data in its file, to the first answer over HTTP.
func BenchmarkStartToFirstAnswer(b *testing.B) {
	data := filepath.Join(b.TempDir(), "demo.db")
	started(b, "demo", data).kill()
	for b.Loop() {
		r := started(b, "demo", data)
		answer, err := http.Get(r.base + "/api/v1/jobs")
		require.NoError(b, err)
		answer.Body.Close()
		b.StopTimer()
		r.kill()
		b.StartTimer()
	}
}

// firstView opens a page as a new browser does and weighs what its first view needed: bytes of script and
// style, compressed, and how many requests there were until it was seen.
func firstView(t testing.TB, r *running, path, selector string) (p *tab, bytes, requests int) {
	p = blank(t, r, 1280, 800)
	p.MustEvalOnNewDocument(fmt.Sprintf(`const look = () => {
		if (!document.querySelector(%q)) return requestAnimationFrame(look)
		window.needed = performance.getEntriesByType('resource').map(e => new URL(e.name).pathname)
	}
	look()`, selector))
	p.visit(path)
	p.waits(`() => window.needed`, "the first view")
	names := strings.Fields(p.MustEval(`() => window.needed.join(' ')`).Str())
	for _, name := range names {
		if strings.HasSuffix(name, ".js") || strings.HasSuffix(name, ".css") {
			bytes += compressed(t, r.base+name)
		}
	}
	return p, bytes, len(names) + 1 // and the page itself
}

// The board needs at most 150 kB of script and style in a dozen requests, the bench 200 kB in fifteen: what
// other pages' controls weigh is in their own pieces, and what a visit does not begin with comes after the
// first view.
func TestFirstViewsAreFewAndLight(t *testing.T) {
	t.Parallel()
	r := demo(t)
	for _, c := range []struct {
		path, sees           string
		mostBytes, mostAsked int
	}{
		{"/", ".strip", 150_000, 12},
		{"/jobs/demo-job-tipper", ".now h2", 200_000, 15},
	} {
		_, bytes, requests := firstView(t, r, c.path, c.sees)
		assert.Less(t, bytes, c.mostBytes, c.path)
		assert.Greater(t, bytes, 100_000, "what was weighed is not the page")
		assert.LessOrEqual(t, requests, c.mostAsked, c.path)
		t.Logf("%s: %d bytes of script and style, %d requests", c.path, bytes, requests)
	}
}

// BenchmarkFirstView tells the same weight, and how long the board takes to be seen again.
func BenchmarkFirstView(b *testing.B) {
	r := demo(b)
	p, total, _ := firstView(b, r, "/", ".strip")
	began := time.Now()
	for b.Loop() {
		p.visit("/")
		p.see(".strip")
	}
	b.ReportMetric(float64(total)/1000, "kB-script-and-style")
	b.ReportMetric(float64(time.Since(began).Milliseconds())/float64(b.N), "ms/view")
	b.ReportMetric(0, "ns/op")
}

func compressed(b testing.TB, address string) int {
	request, err := http.NewRequest(http.MethodGet, address, nil)
	require.NoError(b, err)
	request.Header.Set("Accept-Encoding", "gzip")
	answer, err := (&http.Transport{DisableCompression: true}).RoundTrip(request)
	require.NoError(b, err)
	defer answer.Body.Close()
	require.True(b, strings.HasPrefix(answer.Header.Get("Content-Encoding"), "gzip") ||
		answer.ContentLength < 1000, address)
	n, err := io.Copy(io.Discard, answer.Body)
	require.NoError(b, err)
	return int(n)
}

// BenchmarkScreenAmongFifty is how long it takes from a reading's being sent until another tablet's browser
// shows it on the head, while fifty clients tap once a second each at the open jobs of the demo.
func BenchmarkScreenAmongFifty(b *testing.B) {
	r := demo(b)
	sends := func(job, id, act string) {
		answer, err := http.Post(r.base+"/api/v1/jobs/"+job+"/happenings?changes=true", "application/json",
			strings.NewReader(fmt.Sprintf(`{"id":%q,%s}`, id, act)))
		if assert.NoError(b, err) {
			text, _ := io.ReadAll(answer.Body)
			answer.Body.Close()
			assert.Equal(b, 200, answer.StatusCode, string(text))
		}
	}
	jobs := []string{"tipper", "pump", "saw", "winch", "minibus"}
	done := make(chan struct{})
	var clients sync.WaitGroup
	for n := range 50 {
		clients.Go(func() {
			time.Sleep(time.Duration(n) * 20 * time.Millisecond)
			for i := 0; ; i++ {
				select {
				case <-done:
					return
				case <-time.After(time.Second):
					sends("demo-job-"+jobs[n%len(jobs)], fmt.Sprintf("client-%02d-%05d", n, i),
						fmt.Sprintf(`"kind":"sound","note":"%d"`, i))
				}
			}
		})
	}
	p := open(b, r, "/jobs/demo-job-tipper", 1280, 800)
	p.see("[data-valve=E3]")
	p.MustEval(`() => {
		const says = () => document.querySelector('[data-valve=E3]').textContent
		window.shown = []
		let before = says()
		new MutationObserver(() => { if (says() !== before) { before = says(); window.shown.push(Date.now()) } })
			.observe(document.querySelector('.drawing'), { subtree: true, childList: true, characterData: true, attributes: true })
	}`)
	time.Sleep(3 * time.Second) // the stream begins after the first view
	var took []float64
	for i := range 100 {
		act := `"kind":"reading","valve":"E3","leaves_mm":[0.24],"feel":"wont_go"`
		if i%2 == 1 {
			act = `"kind":"withdrawn","valve":"E3","index":1`
		}
		sent := time.Now()
		sends("demo-job-tipper", fmt.Sprintf("reading-%05d", i), act)
		p.waits(fmt.Sprintf(`() => window.shown.length > %d`, i), "it to be shown")
		took = append(took, p.MustEval(`() => window.shown.at(-1)`).Num()-float64(sent.UnixMilli()))
		time.Sleep(300 * time.Millisecond)
	}
	close(done)
	clients.Wait()
	slices.Sort(took)
	b.ReportMetric(took[50], "ms-shown-p50")
	b.ReportMetric(took[98], "ms-shown-p99")
	b.ReportMetric(0, "ns/op")
}
