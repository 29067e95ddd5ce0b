package api

import (
	"encoding/json"
	"net"
	"net/http"
	"slices"
	"strings"
	"sync/atomic"

	"github.com/gin-gonic/gin"

	"metronix/internal/wire"
)

// contentPolicy lets the page load only what ships inside the program. Styles set by scripts on elements go
// through the object model and need no exception; the one style sheet that the theme writes is named by the
// index's nonce (see indexPage).
const contentPolicy = "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; worker-src 'self'; style-src 'self'; img-src 'self' data:; " +
	"font-src 'self'; media-src 'self'; " +
	"connect-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"

// guard refuses what no page of ours would send: a foreign Host (a rebound name), a cross-origin write, an
// oversized body.
func guard(next http.Handler, hosts func() []string) http.Handler {
	known := knownHosts(hosts)
	origin := http.NewCrossOriginProtection()
	origin.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		writeProblem(w, http.StatusForbidden,
			"This request comes from another site. Open the program's own page.")
	}))
	checked := origin.Handler(strict(next))
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("Content-Security-Policy", contentPolicy)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "no-referrer")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		if !known(r.Host) {
			writeProblem(w, http.StatusMisdirectedRequest,
				"This program is not served under the name "+r.Host+
					". Open it by an address it printed at its start, or start it with this name.")
			return
		}
		if r.Header.Get("Sec-Fetch-Site") == "cross-site" && strings.HasPrefix(r.URL.Path, "/api/") {
			writeProblem(w, http.StatusForbidden, // an <img> of a foreign page could have work done
				"This request comes from another site. Open the program's own page.")
			return
		}
		checked.ServeHTTP(w, r)
	})
}

// knownHosts says whether a request was sent to a name that this program answers to. Any other is a page
// elsewhere whose name was made to point at this machine (DNS rebinding); the loopback addresses are always
// known. By which names it is called is asked anew where one is not known: a machine's addresses change.
func knownHosts(called func() []string) func(hostport string) bool {
	var last atomic.Pointer[[]string]
	last.Store(&[]string{})
	return func(hostport string) bool {
		host, _, err := net.SplitHostPort(hostport)
		if err != nil {
			host = hostport
		}
		host = strings.ToLower(strings.Trim(host, "[]"))
		if ip := net.ParseIP(host); host == "localhost" || ip != nil && ip.IsLoopback() || slices.Contains(*last.Load(), host) {
			return true
		}
		if called == nil {
			return false
		}
		now := called()
		last.Store(&now)
		return slices.Contains(now, host)
	}
}

// problem answers with a problem, and nothing further is done with the request.
func problem(c *gin.Context, status int, detail string) {
	writeProblem(c.Writer, status, detail)
	c.Abort()
}

// writeProblem is the same without a place at which something was wrong.
func writeProblem(w http.ResponseWriter, status int, detail string) {
	writeFaults(w, status, detail, wire.Faults{})
}

// writeFaults writes a problem where the framework is not reached: a refusal at the door looks like any
// other.
func writeFaults(w http.ResponseWriter, status int, detail string, faults wire.Faults) {
	data, err := json.Marshal(wire.Problem{Type: "about:blank", Title: http.StatusText(status),
		Status: status, Detail: detail, Errors: faults})
	if err != nil {
		panic(err) // a Problem of plain strings always encodes
	}
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(status)
	_, _ = w.Write(data) // the client is gone, if anything
}
