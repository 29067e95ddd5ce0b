package e2e

import (
	"bytes"
	"crypto/tls"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/http/httputil"
	"net/url"
	"path/filepath"
	"strconv"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/authority"
)

// front stands between a tablet and the program: a machine's own address under a certificate that the tablet
// trusts, which can be cut, and behind which the program can become a newer one.
type front struct {
	base    string
	address string
	der     []byte
	cut     atomic.Bool
	newer   atomic.Bool
}

// ownAddress is an address of this machine that is not the loopback: a browser keeps no pages of that one
// here.
func ownAddress(t *testing.T) string {
	t.Helper()
	places, err := net.InterfaceAddrs()
	require.NoError(t, err)
	for _, place := range places {
		if n, ok := place.(*net.IPNet); ok && !n.IP.IsLoopback() && n.IP.To4() != nil {
			return n.IP.String()
		}
	}
	t.Skip("this machine has no address but its loopback")
	return ""
}

// inFrontOf puts one before a program, under the authority in a folder.
func inFrontOf(t *testing.T, r *running, folder string) *front {
	t.Helper()
	f := &front{address: ownAddress(t)}
	a, err := authority.Open(folder, []string{f.address}, time.Now())
	require.NoError(t, err)
	f.der = a.DER()
	behind, err := url.Parse(r.base)
	require.NoError(t, err)
	proxy := &httputil.ReverseProxy{
		Rewrite: func(p *httputil.ProxyRequest) {
			p.SetURL(behind)
			if p.In.URL.Path == "/shell.js" { // it is changed on its way
				p.Out.Header.Del("Accept-Encoding")
				p.Out.Header.Del("If-None-Match")
			}
			p.Out.Header.Del("Origin") // the program is at another address than the tablet believes
		},
		ModifyResponse: func(answer *http.Response) error {
			if answer.Request.URL.Path != "/shell.js" || !f.newer.Load() {
				return nil
			}
			text, err := io.ReadAll(answer.Body)
			text = append(text, "\n// a newer version\n"...)
			answer.Body, answer.ContentLength = io.NopCloser(bytes.NewReader(text)), int64(len(text))
			answer.Header.Set("Content-Length", strconv.Itoa(len(text)))
			answer.Header.Del("Etag")
			return err
		},
		ErrorHandler: func(http.ResponseWriter, *http.Request, error) { panic(http.ErrAbortHandler) },
	}
	listener, err := net.Listen("tcp", net.JoinHostPort(f.address, "0"))
	require.NoError(t, err)
	server := &http.Server{
		Handler: http.HandlerFunc(func(w http.ResponseWriter, asked *http.Request) {
			if f.cut.Load() {
				panic(http.ErrAbortHandler)
			}
			proxy.ServeHTTP(w, asked)
		}),
		TLSConfig: a.Config(func() []string { return []string{f.address} }, time.Now),
	}
	go func() { _ = server.Serve(tls.NewListener(listener, server.TLSConfig)) }()
	t.Cleanup(func() { _ = server.Close() })
	f.base = "https://" + listener.Addr().String()
	return f
}

// promised waits until what a page promises is so.
func (p *tab) promised(js, what string, args ...any) {
	p.t.Helper()
	require.NoError(p.t, p.Timeout(limit).Wait(rod.Eval(js, args...).ByPromise()),
		"waiting for %s; the page shows: %s", what, p.text())
}

// fromStore asks one of the page's own databases: the request that a line makes of its store.
const fromStore = `of => async (name, table) => {
	if (!(await indexedDB.databases()).some(d => d.name === name)) return undefined // to open it would make it
	return new Promise(done => {
		const asked = indexedDB.open(name)
		asked.onsuccess = () => {
			const got = of(asked.result.transaction(table).objectStore(table))
			got.onsuccess = () => { asked.result.close(); done(got.result) }
			got.onerror = () => { asked.result.close(); done(undefined) }
		}
		asked.onerror = () => done(undefined)
	})
}`

// The pages open where the program cannot be reached: the bench goes on from what this tablet kept of its
// job, also after it was loaded anew with something waiting; the board offers the jobs that are kept; and
// what waited is sent once, when the line is back. A newer version takes the older one's place with the next
// change of page, and loses nothing that waits.
func TestThePagesOpenWithoutTheProgram(t *testing.T) {
	t.Parallel()
	r := demo(t)
	folder := filepath.Join(t.TempDir(), "authority")
	f := inFrontOf(t, r, folder)
	home := t.TempDir()
	trust(t, home, f.der)
	const job = "demo-job-tipper"
	p := tabOf(t, tabletIn(t, home, f.address), f.base, 1280, 800)
	p.visit("/jobs/" + job)
	p.see(".now h2")
	p.waits(
		`() => navigator.serviceWorker.controller && document.documentElement.hasAttribute('data-judges')`,
		"the pages to be kept, and the bench to judge by itself",
	)
	before := stateOf(t, r.base, job).State
	p.promised(`async (job, newest) => (await (`+fromStore+`)(s => s.get(job))('metronix-jobs', 'jobs'))
		?.opening.happenings.at(-1).happening.id === newest`, "the job to be kept as it is", job, before.Newest)
	headline := p.see(".now h2").MustText()

	f.cut.Store(true)
	p.visit("/handbook/wrong")
	p.shows("The nut of E3 was left loose.")
	p.visit("/jobs/" + job)
	assert.Equal(t, headline, p.see(".now h2").MustText())
	p.shows("The program cannot be reached. This is the job as it was today")
	p.waits(`() => document.documentElement.hasAttribute('data-judges')`, "the bench to judge what it kept")
	p.visit("/")
	p.shows("Kept on this tablet")
	time.Sleep(4 * time.Second) // the board was the first page, and what comes later was fetched
	p.press("Quarry tipper 7")
	p.see(".now h2")
	p.waits(`() => document.documentElement.hasAttribute('data-judges')`, "the bench to judge what it kept")
	p.tap(".rung.cursor button")
	p.shows("1 entry waits here to be sent")
	after := p.see(".now h2").MustText()
	waits := func(n int) {
		t.Helper()
		p.promised(
			"async n => await ("+fromStore+")(s => s.count())('metronix', 'waits') === n",
			fmt.Sprint(n, " to wait"),
			n,
		)
	}
	waits(1)
	p.visit("/jobs/" + job)
	p.shows("1 entry waits here to be sent")
	p.promised(
		`async h => document.querySelector('.now h2')?.innerText === h`,
		"what was done before to be shown again",
		after,
	)

	// another machine goes on under another address: what waits is handed over to it, and taken over there
	// when that is said
	other := inFrontOf(t, r, folder)
	p.visit("/")
	p.shows("1 entry not yet on the workshop’s disk.")
	p.press("Another machine took over…")
	p.fill("Its address", f.base)
	p.press("Hand over")
	p.shows("This is the address that cannot be reached.")
	p.fill("Its address", strings.TrimPrefix(other.base, "https://"))
	p.press("Hand over")
	p.shows("1 entry waited on this tablet")
	p.shows("Quarry tipper 7: 1 entry")
	assert.Equal(
		t,
		before.Happenings,
		stateOf(t, r.base, job).State.Happenings,
		"nothing is taken over unasked",
	)
	p.press("Take over 1 entry")
	p.shows("1 entry taken over")
	waits(0)
	assert.Equal(t, before.Happenings+1, stateOf(t, r.base, job).State.Happenings)
	p.visit("/jobs/" + job)

	f.newer.Store(true)
	f.cut.Store(false)
	waits(0)
	assert.Equal(t, before.Happenings+1, stateOf(t, r.base, job).State.Happenings, "the same entry, once")
	p.MustEval(
		`() => { window.older = true; return navigator.serviceWorker.getRegistration().then(r => r.update()).then(() => true) }`,
	)
	p.promised(
		`async () => { const r = await navigator.serviceWorker.getRegistration(); return !r.installing && !r.waiting }`,
		"the newer version to be kept",
	)
	f.cut.Store(true)
	p.tap(".rung.cursor button")
	waits(1)
	f.cut.Store(false)
	waits(0)
	p.press("On the go")
	p.waits(`() => !window.older`, "the next page to be of the newer version")
	assert.Equal(t, before.Happenings+2, stateOf(t, r.base, job).State.Happenings)

	// where nothing is kept the program's own page is asked for, and an answer of the interface is never
	// taken from here
	assert.True(
		t,
		strings.HasPrefix(p.MustEval(`() => fetch('/api/v1/jobs').then(r => r.text())`).Str(), "["),
	)
	f.cut.Store(true)
	assert.True(t, p.MustEval(`() => fetch('/api/v1/jobs').then(() => false, () => true)`).Bool())
}
