package e2e

import (
	"io"
	"net/http"
	"path/filepath"
	"regexp"
	"strings"
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

// firstView opens the board as a new browser does and weighs what it needed: bytes of script and style,
// compressed, the page's own and the board's chunk with all that it imports.
func firstView(t testing.TB, r *running) (p *tab, bytes int) {
	p = open(t, r, "/", 1280, 800)
	p.see(".strip")
	names := p.MustEval(`() => performance.getEntriesByType('resource').map(e => new ` +
		`URL(e.name).pathname).join(' ')`).Str()
	for _, name := range regexp.MustCompile(`/[^ ]+\.(?:js|css)`).FindAllString(names, -1) {
		bytes += compressed(t, r.base+name)
	}
	return p, bytes
}

// The board needs at most 130 kB of script and style: what other pages' controls weigh is in their own
// chunks.
func TestTheFirstViewIsLight(t *testing.T) {
	t.Parallel()
	_, bytes := firstView(t, demo(t))
	assert.Less(t, bytes, 130_000)
	assert.Greater(t, bytes, 50_000, "what was weighed is not the board")
}

// BenchmarkFirstView tells the same weight, and how long the board takes to be seen again.
func BenchmarkFirstView(b *testing.B) {
	r := demo(b)
	p, total := firstView(b, r)
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
