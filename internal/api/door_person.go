package api

import (
	"cmp"
	"context"
	"crypto/subtle"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"metronix/core/people"
	"metronix/internal/secret"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// deeds are what each operation is, by which its person may do it or not: one table, and an operation that stands
// in no row nobody may do once people are set up. What is done in a job is looked at once more, by what it says.
var deeds = map[people.Deed][]string{
	people.Look: {"board-events", "compute", "due-calendar", "due-list", "engine-schema", "find-crank", "gauge-set-csv", "get-engine",
		"get-engine-ways", "get-reach", "get-job", "get-job-shims", "get-photo", "get-probe", "get-shop", "get-sound", "get-ways", "job-csv",
		"job-events", "job-json", "job-pdf", "job-sheet", "list-engines", "list-gauge-sets", "list-gears", "list-jobs", "list-vehicles",
		"look-at-sheet", "my-way", "open-demo", "open-job", "prove-order", "prove-job-order", "put-screen", "delete-screen", "read-gauge-csv", "sheet-start",
		"usual-engines", "vehicle-calendar", "vehicle-history", "change-pin"},
	people.Work: {"add-happening", "add-photo", "add-sound", "correct-job", "delete-hands-clear", "put-hands-clear", "start-job"},
	people.Keep: {"add-gauge-set", "add-vehicle", "put-engine", "put-gauge-set", "put-intervals", "put-job-on-board",
		"put-outside-visits", "put-own-cards", "put-shop", "put-vehicle", "put-vehicle-on-board", "remove-engine", "remove-gauge-set"},
	people.Run: {"add-person", "change-person", "export-archive", "import-archive", "list-audit", "list-people", "put-sign-out"},
}

// anybodys are the operations by which somebody signs in: they need nobody to be.
var anybodys = []string{"get-session", "sign-in", "sign-out"}

// deedOf is the deed that an operation is; ok is false where it stands in no row.
func deedOf(operation string) (d people.Deed, ok bool) {
	if strings.HasPrefix(operation, "compute-") {
		return people.Look, true
	}
	for d, list := range deeds {
		if slices.Contains(list, operation) {
			return d, true
		}
	}
	return "", false
}

// visitor is who sent a request.
type visitor struct {
	open   bool // nobody is set up: whoever is here may do everything
	person *store.Person
	kept   string // of the session's token; empty: there is none
	from   string // the address it came from
}

// visitorKey is under which a request carries its visitor.
type visitorKey struct{}

// visitorOf is who sent a request.
func visitorOf(ctx context.Context) visitor {
	v, _ := ctx.Value(visitorKey{}).(visitor)
	return v
}

// name is as who he is signed in; empty: as nobody.
func (v visitor) name() string {
	if v.person == nil {
		return ""
	}
	return v.person.Name
}

// noted is what the audit list says of something that he does.
func (v visitor) noted(now time.Time, what, about string) store.Noted {
	n := store.Noted{At: now, Name: v.name(), From: v.from, What: what, About: about}
	if v.person != nil {
		n.Person = v.person.ID
	}
	return n
}

// roster remembers whether anybody is set up, which every request is asked.
type roster struct {
	mu    sync.Mutex
	known bool
	any   bool
}

// anybody says whether somebody is set up.
func (r *roster) anybody(st *store.Store) (bool, error) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.known {
		return r.any, nil
	}
	nobody, err := st.Nobody()
	if err != nil {
		return false, err
	}
	r.any, r.known = !nobody, true
	return r.any, nil
}

// forget has it looked for anew.
func (r *roster) forget() {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.known = false
}

// sessionCookie names the cookie that holds a session's token. Cookies know no ports, and a machine may serve two workshops;
// over TLS its name binds it to this host.
func sessionCookie(r *http.Request) string {
	name := "metronix_session"
	if _, port, err := net.SplitHostPort(r.Host); err == nil {
		name += "_" + port
	}
	if r.TLS != nil {
		name = "__Host-" + name
	}
	return name
}

// touchAfter is how often at most it is noted that a session is in use.
const touchAfter = time.Minute

// whois finds out who sent a request. A session that nobody used for too long is none.
func (s *server) whois(c *gin.Context) {
	if !strings.HasPrefix(c.Request.URL.Path, "/api/") {
		return
	}
	ctx := c.Request.Context()
	v, err := s.visitor(ctx, c.Request)
	if err != nil {
		slog.Error("who is there could not be read", "error", err)
		problem(c, http.StatusServiceUnavailable, "Who is signed in could not be read. Try again in a moment.")
		return
	}
	ctx = context.WithValue(ctx, visitorKey{}, v)
	c.Request = c.Request.WithContext(context.WithValue(ctx, requestKey{}, c.Request))
}

// requestKey is under which a request is carried for those few who set cookies.
type requestKey struct{}

func (s *server) visitor(ctx context.Context, r *http.Request) (v visitor, err error) {
	v.from, _, _ = net.SplitHostPort(r.RemoteAddr)
	st := s.store.With(ctx)
	anybody, err := s.roster.anybody(st)
	if err != nil || !anybody {
		// whoever is at this machine itself needs no code
		v.open = err == nil && (s.setUp == "" || net.ParseIP(v.from).IsLoopback())
		return v, err
	}
	cookie, err := r.Cookie(sessionCookie(r))
	if err != nil {
		return v, nil // nobody
	}
	v.kept = secret.Kept(cookie.Value)
	person, err := s.signedIn(st, v.kept, touches(r))
	if errors.Is(err, store.ErrNotFound) {
		return v, nil
	}
	v.person = person
	return v, err
}

// touches says that a request is a person's doing: our pages say so of each, because they ask by themselves too.
func touches(r *http.Request) bool { return r.Header.Get("Touched") != "no" && !isStream(r.URL.Path) }

// signedIn is who is signed in under a token that is still good, and notes that it is used.
func (s *server) signedIn(st *store.Store, kept string, touched bool) (*store.Person, error) {
	session, err := st.Session(kept)
	if err != nil {
		return nil, err
	}
	idle, err := st.OutAfter()
	if err != nil {
		return nil, err
	}
	now := s.clock()
	switch unused := now.Sub(session.Used); {
	case unused > idle:
		return nil, store.ErrNotFound
	case touched && unused > touchAfter:
		if err := st.Used(kept, now); err != nil {
			return nil, err
		}
	}
	return &session.Person, nil
}

// mayDo lets an operation be done by whoever may do it, and notes what was changed in the audit list.
func (s *server) mayDo(ctx huma.Context, next func(huma.Context)) {
	operation := ctx.Operation().OperationID
	deed, known := deedOf(operation)
	v := visitorOf(ctx.Context())
	switch {
	case slices.Contains(anybodys, operation), v.open:
	case operation == "add-person" && s.nobody():
		if err := s.mayFound(ctx.Context()); err != nil {
			refuseVisitor(ctx, err.GetStatus(), "sign_in", err.Error())
			return
		}
	case v.person == nil:
		refuseVisitor(ctx, http.StatusUnauthorized, "sign_in", "Nobody is signed in here, or not any more. Sign in; nothing is lost.")
		return
	case !known, !v.person.Role.May(deed):
		refuseVisitor(ctx, http.StatusForbidden, notAllowedType, notAllowed(v.person.Role))
		return
	}
	next(ctx)
	changes := deed == people.Keep || deed == people.Run && !slices.Contains([]string{"list-audit", "list-people"}, operation) ||
		operation == "start-job" || operation == "correct-job"
	if changes && ctx.Status() < 300 && !slices.Contains(notesItself, operation) {
		if err := s.store.Note(v.noted(s.clock(), operation, aboutOf(ctx))); err != nil {
			slog.Error("what was done could not be noted in the audit list", "operation", operation, "error", err)
		}
	}
}

// describeSecurity writes into the document by what each operation is let in.
func describeSecurity(doc *huma.OpenAPI) {
	for _, item := range doc.Paths {
		for _, o := range []*huma.Operation{item.Get, item.Put, item.Post, item.Delete, item.Patch} {
			switch {
			case o == nil:
			case slices.Contains(anybodys, o.OperationID):
				o.Security = []map[string][]string{}
			default:
				o.Security = []map[string][]string{{"session": {}}}
			}
		}
	}
}

// nobody says that nobody is set up.
func (s *server) nobody() bool {
	anybody, err := s.roster.anybody(s.store)
	return err == nil && !anybody
}

// mayFound lets the first foreman be set up from another machine by whoever reads the code that the program said at its start.
func (s *server) mayFound(ctx context.Context) huma.StatusError {
	wait, err := s.store.With(ctx).GuessSetUp(s.clock())
	if err != nil {
		return huma.Error503ServiceUnavailable("The data file did not answer. Try again in a moment.")
	}
	if wait > 0 {
		return huma.NewError(http.StatusTooManyRequests, fmt.Sprintf("Too many wrong codes: try again in %.0f s.", wait.Seconds()+1))
	}
	if code := wire.TextAt(parsed(ctx), "set_up_code"); subtle.ConstantTimeCompare([]byte(code), []byte(s.setUp)) != 1 {
		return huma.Error401Unauthorized("That is not the code that the program said at its start, in its window or its log.")
	}
	return nil
}

// notesItself are the operations that are noted together with what they store.
var notesItself = []string{"add-person", "change-person", "put-sign-out"}

// notAllowed says that a role may not do something, and who may.
func notAllowed(role people.Role) string {
	return "This is not for a " + string(role) + " to do. Ask a foreman, or let somebody sign in who may."
}

// aboutOf is what an operation is about: the id in its address, else in its body.
func aboutOf(ctx huma.Context) string {
	body := parsed(ctx.Context())
	return cmp.Or(ctx.Param("id"), wire.TextAt(body, "id"), wire.TextAt(body, "name"))
}

// refuseVisitor answers with a problem that a screen knows by its type.
func refuseVisitor(ctx huma.Context, status int, code, say string) {
	m := problemModel(status, say)
	m.Type = "urn:metronix:" + code
	ctx.SetHeader("Content-Type", "application/problem+json")
	ctx.SetStatus(status)
	data, err := json.Marshal(m)
	if err != nil {
		panic(err) // a problem of plain strings always encodes
	}
	_, _ = ctx.BodyWriter().Write(data)
}

// forbidden is a refusal that a screen knows by its type.
func forbidden(code, say string, faults ...wire.Fault) error {
	m := problemModel(http.StatusForbidden, say, faults...)
	m.Type = "urn:metronix:" + code
	return m
}
