package e2e

import (
	"io"
	"net/http"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"

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

// Bytes of script and style, compressed, for the first view: the page, what it names, and the chunk of the
// board with all that it imports.
func BenchmarkFirstView(b *testing.B) {
	r := demo(b)
	p := open(b, r, "/", 1280, 800)
	p.see(".strip")
	names := p.MustEval(`() => JSON.stringify(performance.getEntriesByType('resource').map(e => new URL(e.name).pathname).filter(n => /\.(js|css)$/.test(n)))`).Str()
	total := 0
	for _, name := range regexp.MustCompile(`/[^"]+\.(?:js|css)`).FindAllString(names, -1) {
		total += compressed(b, r.base+name)
	}
	began := time.Now()
	for b.Loop() {
		p.visit("/")
		p.see(".strip")
	}
	b.ReportMetric(float64(total)/1000, "kB-script-and-style")
	b.ReportMetric(float64(time.Since(began).Milliseconds())/float64(b.N), "ms/view")
	b.ReportMetric(0, "ns/op")
}

func compressed(b *testing.B, address string) int {
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
