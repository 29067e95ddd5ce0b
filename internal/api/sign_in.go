package api

import (
	"context"
	"errors"
	"fmt"
	"math"
	"net/http"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/people"
	"metronix/internal/secret"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// Session is who is at a screen.
type Session struct {
	SetUp       bool          `json:"set_up"                doc:"nobody is set up: the first foreman is, with the code that the program said at its start"`
	Open        bool          `json:"open"                  doc:"nobody is set up: whoever opens the program may do everything"`
	Person      *PersonName   `json:"person,omitempty"      doc:"who is signed in; absent: nobody"`
	May         []people.Deed `json:"may"                   doc:"what may be done here"`
	People      []PersonName  `json:"people"                doc:"who may sign in"`
	OutAfterMin int           `json:"out_after_min"         doc:"after so many minutes without a touch one is signed out"`
	Places      []Gathered    `json:"places"                doc:"the workshops that this one was gathered from, which is looked at only; none: it is a workshop's own"`
}

// PersonName is somebody, as far as everybody may know.
type PersonName struct {
	ID   string      `json:"id"`
	Name string      `json:"name"`
	Role people.Role `json:"role" enum:"reader,learner,mechanic,tutor,foreman"`
}

// SignIn is who somebody says he is, and by what he is known: a PIN, or a tag whose number a reader types.
type SignIn struct {
	Person string `json:"person_id,omitempty" maxLength:"64" doc:"whose PIN it is"`
	PIN    string `json:"pin,omitempty"       maxLength:"12"`
	Tag    string `json:"tag,omitempty"       maxLength:"64" doc:"instead of both: a tag's number"`
}

// NewPIN is a change of one's own PIN.
type NewPIN struct {
	PIN string `json:"pin" maxLength:"12" doc:"the one there is"`
	New string `json:"new" maxLength:"12" doc:"the one there shall be: 4 to 12 digits"`
}

// signInRoutes are how somebody comes and goes.
func (s *server) signInRoutes(a huma.API) {
	huma.Get(
		a,
		"/api/v1/session",
		s.session,
		summary("get-session", "Who is signed in here, and who may sign in"),
	)
	huma.Post(
		a,
		"/api/v1/session",
		s.signIn,
		summary("sign-in", "Sign in with a PIN or a tag"),
		strictly[SignIn](a),
	)
	huma.Delete(a, "/api/v1/session", s.signOut, summary("sign-out", "Sign out"))
	huma.Put(
		a,
		"/api/v1/session/pin",
		s.changePIN,
		summary("change-pin", "Change one's own PIN"),
		strictly[NewPIN](a),
	)
}

// sessionOutput sets the cookie of a session, or takes it away.
type sessionOutput struct {
	Cookie string `header:"Set-Cookie"`
	Body   Session
}

// session is who is here.
func (s *server) session(ctx context.Context, _ *struct{}) (*bodyOf[Session], error) {
	view, err := s.sessionView(ctx, visitorOf(ctx))
	if err != nil {
		return nil, fault(err)
	}
	return &bodyOf[Session]{view}, nil
}

func (s *server) sessionView(ctx context.Context, v visitor) (Session, error) {
	out := Session{Open: v.open, SetUp: !v.open && s.nobody(), May: []people.Deed{}, People: []PersonName{}, Places: s.places.views()}
	st := s.store.With(ctx)
	list, err := st.People()
	if err != nil {
		return out, err
	}
	for _, p := range list {
		if p.Here() && (p.HasPIN || p.HasTag) {
			out.People = append(out.People, nameOf(p))
		}
	}
	switch {
	case v.open:
		out.May = s.places.only(people.Deeds())
	case v.person != nil:
		name := nameOf(*v.person)
		out.Person, out.May = &name, s.places.only(v.person.Role.MayDo())
	}
	idle, err := st.OutAfter()
	out.OutAfterMin = int(idle / time.Minute)
	return out, err
}

func nameOf(p store.Person) PersonName { return PersonName{p.ID, p.Name, p.Role} }

// signIn lets somebody in. What is wrong is told alike whether the person, the PIN or the tag is; each wrong
// guess counts, and after a few of them nobody guesses for a while.
func (s *server) signIn(ctx context.Context, in *rawInput) (*sessionOutput, error) {
	ask, faults := wire.Read[SignIn](in.RawBody)
	if len(faults) > 0 { // which would say the PIN again
		return nil, located(
			http.StatusUnprocessableEntity,
			"A person and a PIN, or a tag's number, are expected here.",
		)
	}
	v := visitorOf(ctx)
	if v.open {
		return nil, located(http.StatusConflict, "Nobody is set up here: there is nothing to sign in to.")
	}
	who, err := s.recognised(ctx, ask)
	if err != nil {
		return nil, err
	}
	now, token := s.clock(), secret.Token()
	st := s.store.With(ctx)
	before := v.kept
	v.person, v.kept = &who, secret.Kept(token)
	if err := st.Begin(v.kept, who.ID, v.from, now, v.noted(now, "signed_in", "")); err != nil {
		return nil, fault(err)
	}
	if before != "" { // whoever was here before is so no more
		if err := st.End(before, now.Add(-longestSession), store.Noted{}); err != nil {
			return nil, fault(err)
		}
	}
	view, err := s.sessionView(ctx, v)
	if err != nil {
		return nil, fault(err)
	}
	return &sessionOutput{cookieOf(ctx, token), view}, nil
}

// longestSession is after how long an unused session is swept out.
const longestSession = 48 * time.Hour

// recognised is who somebody is.
func (s *server) recognised(ctx context.Context, ask SignIn) (who store.Person, err error) {
	st, now, v := s.store.With(ctx), s.clock(), visitorOf(ctx)
	wrong := func(about string) error {
		if err := st.Note(v.noted(now, "sign_in_refused", about)); err != nil {
			return fault(err)
		}
		m := problemModel(
			http.StatusUnauthorized,
			"That is not right. Try again, or ask a foreman for a new PIN.",
		)
		m.Type = "urn:metronix:wrong"
		return m
	}
	if ask.Tag != "" {
		key, err := st.TagKey()
		if err != nil {
			return who, fault(err)
		}
		who, wait, err := st.GuessTag(secret.Tagged(key, ask.Tag), now)
		switch {
		case errors.Is(err, store.ErrNotFound):
			return who, wrong("a tag")
		case err != nil:
			return who, fault(err)
		case wait > 0:
			return who, tooMany(wait)
		}
		return who, nil
	}
	pin, wait, err := st.Guess(ask.Person, now)
	switch {
	case errors.Is(err, store.ErrNotFound):
		return who, wrong("nobody")
	case err != nil:
		return who, fault(err)
	case wait > 0:
		return who, tooMany(wait)
	}
	list, err := st.People()
	if err != nil {
		return who, fault(err)
	}
	for _, p := range list {
		if p.ID == ask.Person {
			who = p
		}
	}
	if !secret.Matches(pin, ask.PIN) {
		return who, wrong(who.Name)
	}
	return who, nil
}

// tooMany says how long nobody may guess again.
func tooMany(wait time.Duration) error {
	seconds := int(math.Ceil(wait.Seconds()))
	m := problemModel(http.StatusTooManyRequests,
		fmt.Sprintf("Too many wrong ones: try again in %d s. Another person may sign in meanwhile.", seconds))
	m.Type = "urn:metronix:wait"
	return huma.ErrorWithHeaders(m, http.Header{"Retry-After": {strconv.Itoa(seconds)}})
}

// cookieOf is the cookie that keeps a token, or takes it away where that is empty. No script reads it, and no
// other site's page sends it.
func cookieOf(ctx context.Context, token string) string {
	r, _ := ctx.Value(requestKey{}).(*http.Request)
	c := &http.Cookie{Name: sessionCookie(r), Value: token, Path: "/", HttpOnly: true, Secure: r.TLS != nil,
		SameSite: http.SameSiteStrictMode}
	if token == "" {
		c.MaxAge = -1
	}
	return c.String()
}

// signOut ends the session; without one nothing is done.
func (s *server) signOut(ctx context.Context, _ *struct{}) (*sessionOutput, error) {
	v, now := visitorOf(ctx), s.clock()
	if v.kept != "" {
		note := store.Noted{}
		if v.person != nil {
			note = v.noted(now, "signed_out", "")
		}
		if err := s.store.With(ctx).End(v.kept, now.Add(-longestSession), note); err != nil {
			return nil, fault(err)
		}
	}
	view, err := s.sessionView(ctx, visitor{open: v.open})
	if err != nil {
		return nil, fault(err)
	}
	return &sessionOutput{cookieOf(ctx, ""), view}, nil
}

// changePIN changes one's own, for whoever knows the one there is.
func (s *server) changePIN(ctx context.Context, in *rawInput) (*sessionOutput, error) {
	ask, faults := wire.Read[NewPIN](in.RawBody)
	if len(faults) > 0 {
		return nil, located(
			http.StatusUnprocessableEntity,
			"The PIN there is and the one there shall be are expected here.",
		)
	}
	v := visitorOf(ctx)
	if v.person == nil {
		return nil, located(http.StatusConflict, "Nobody is set up here: there is no PIN.")
	}
	if say := secret.SoundPIN(ask.New); say != "" {
		return nil, located(
			http.StatusUnprocessableEntity,
			say,
			wire.Fault{Location: "body.new", Message: say},
		)
	}
	who, err := s.recognised(ctx, SignIn{Person: v.person.ID, PIN: ask.PIN})
	if err != nil {
		return nil, err
	}
	hash, now, token := secret.HashPIN(ask.New), s.clock(), secret.Token()
	st := s.store.With(ctx)
	if err := st.ChangePerson(who, store.Known{PIN: &hash}, v.noted(now, "change-pin", who.Name)); err != nil {
		return nil, fault(err)
	}
	v.kept = secret.Kept(token) // that ended every session of his, this one too
	if err := st.Begin(v.kept, who.ID, v.from, now, store.Noted{}); err != nil {
		return nil, fault(err)
	}
	view, err := s.sessionView(ctx, v)
	if err != nil {
		return nil, fault(err)
	}
	return &sessionOutput{cookieOf(ctx, token), view}, nil
}
