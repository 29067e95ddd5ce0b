package api

import (
	"context"
	"crypto/subtle"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"

	"metronix/internal/secret"
	"metronix/internal/store"
	"metronix/internal/wire"
)

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

// id is as who he is signed in; empty: as nobody.
func (v visitor) id() string {
	if v.person == nil {
		return ""
	}
	return v.person.ID
}

// noted is what the audit list says of something that he does.
func (v visitor) noted(now time.Time, what, about string) store.Noted {
	return store.Noted{At: now, Person: v.id(), Name: v.name(), From: v.from, What: what, About: about}
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

// sessionCookie names the cookie that holds a session's token. Cookies know no ports, and a machine may serve
// two workshops; over TLS its name binds it to this host.
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
		problem(
			c,
			http.StatusServiceUnavailable,
			"Who is signed in could not be read. Try again in a moment.",
		)
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

// touches says that a request is a person's doing: our pages say so of each, because they ask by themselves
// too.
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

// nobody says that nobody is set up.
func (s *server) nobody() bool {
	anybody, err := s.roster.anybody(s.store)
	return err == nil && !anybody
}

// mayFound lets the first foreman be set up from another machine by whoever reads the code that the program
// said at its start.
func (s *server) mayFound(ctx context.Context) huma.StatusError {
	wait, err := s.store.With(ctx).GuessSetUp(s.clock())
	if err != nil {
		return huma.Error503ServiceUnavailable("The data file did not answer. Try again in a moment.")
	}
	if wait > 0 {
		return huma.NewError(
			http.StatusTooManyRequests,
			fmt.Sprintf("Too many wrong codes: try again in %.0f s.", wait.Seconds()+1),
		)
	}
	if code := wire.TextAt(parsed(ctx), "set_up_code"); subtle.ConstantTimeCompare(
		[]byte(code),
		[]byte(s.setUp),
	) != 1 {
		return huma.Error401Unauthorized(
			"That is not the code that the program said at its start, in its window or its log.",
		)
	}
	return nil
}
