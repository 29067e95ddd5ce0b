package api

import (
	"context"
	"errors"
	"net/http"
	"strings"
	"time"
	"unicode"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/people"
	"metronix/internal/secret"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// PersonView is somebody of the workshop, as whoever looks after people sees him.
type PersonView struct {
	PersonName
	HasPIN bool       `json:"has_pin"`
	HasTag bool       `json:"has_tag"`
	Since  time.Time  `json:"since"`
	LeftAt *time.Time `json:"left_at,omitempty" doc:"absent: is there"`
}

// PersonBody is what is said of somebody. A PIN or a tag that is left out stays as it is.
type PersonBody struct {
	Name string      `json:"name"           minLength:"1" maxLength:"80"`
	Role people.Role `json:"role"                                        enum:"reader,learner,mechanic,tutor,foreman"`
	PIN  *string     `json:"pin,omitempty"                maxLength:"12" doc:"4 to 12 digits; empty: none any more"`
	Tag  *string     `json:"tag,omitempty"                maxLength:"64" doc:"a tag's number as a reader types it; empty: none any more"`
	Left bool        `json:"left,omitempty"                              doc:"has left: can sign in no more; what he entered stays his"`
}

// NewPerson is somebody who comes to the workshop.
type NewPerson struct {
	ID string `json:"id" minLength:"1" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$" doc:"made by the client; sending it twice stores it once"`
	PersonBody
	SetUpCode string `json:"set_up_code,omitempty" maxLength:"12" doc:"of the first foreman, who is set up from another machine: the code that the program said at its start"`
}

// SignOutAfter is after how long without a touch one is signed out.
type SignOutAfter struct {
	Minutes int `json:"minutes" minimum:"1" maximum:"720"`
}

// NotedView is one line of the audit list.
type NotedView struct {
	N     int       `json:"n"      doc:"counts up; to be asked on from"`
	At    time.Time `json:"at"`
	Name  string    `json:"name"   doc:"who, as he was called then; empty: nobody was signed in"`
	From  string    `json:"from"   doc:"the address it came from"`
	What  string    `json:"what"   doc:"signed_in, signed_out, sign_in_refused, or the operation"`
	About string    `json:"about"  doc:"of what or whom"`
}

// AuditView is a part of the audit list, the newest line first.
type AuditView struct {
	Lines []NotedView `json:"lines"`
	More  bool        `json:"more"`
}

// peopleRoutes are who belongs to the workshop, and what was done besides jobs.
func (s *server) peopleRoutes(a huma.API) {
	huma.Get(a, "/api/v1/people", s.people, summary("list-people", "Everybody of the workshop"))
	huma.Post(
		a,
		"/api/v1/people",
		s.addPerson,
		summary("add-person", "Somebody comes to the workshop"),
		strictly[NewPerson](a),
	)
	huma.Put(
		a,
		"/api/v1/people/{id}",
		s.changePerson,
		summary(
			"change-person",
			"Change what somebody is called, may do and is known by; he has to sign in anew",
		),
		strictly[PersonBody](a),
	)
	huma.Put(
		a,
		"/api/v1/sign-out",
		s.putSignOut,
		summary(
			"put-sign-out",
			"After how long without a touch somebody is signed out",
		),
		strictly[SignOutAfter](a),
	)
	huma.Get(
		a,
		"/api/v1/audit",
		s.audit,
		summary("list-audit", "Who did what, when and from where, besides what stands in the jobs"),
	)
}

// people lists everybody.
func (s *server) people(ctx context.Context, _ *struct{}) (*bodyOf[[]PersonView], error) {
	list, err := s.store.With(ctx).People()
	if err != nil {
		return nil, fault(err)
	}
	out := &bodyOf[[]PersonView]{[]PersonView{}}
	for _, p := range list {
		out.Body = append(out.Body, personView(p))
	}
	return out, nil
}

func personView(p store.Person) PersonView {
	v := PersonView{PersonName: nameOf(p), HasPIN: p.HasPIN, HasTag: p.HasTag, Since: p.Since}
	if !p.Here() {
		v.LeftAt = &p.Left
	}
	return v
}

// known is how somebody is to be known, ready to be stored.
func (s *server) known(ctx context.Context, b PersonBody) (k store.Known, err error) {
	if b.PIN != nil && *b.PIN != "" {
		if say := secret.SoundPIN(*b.PIN); say != "" {
			return k, located(
				http.StatusUnprocessableEntity,
				say,
				wire.Fault{Location: "body.pin", Message: say},
			)
		}
		hash := secret.HashPIN(*b.PIN)
		k.PIN = &hash
	} else {
		k.PIN = b.PIN
	}
	if k.Tag = b.Tag; b.Tag != nil && *b.Tag != "" {
		key, err := s.store.With(ctx).TagKey()
		if err != nil {
			return k, fault(err)
		}
		tagged := secret.Tagged(key, *b.Tag)
		k.Tag = &tagged
	}
	return k, nil
}

// named says what is wrong with a name; nil: nothing.
func (b PersonBody) named() error {
	name := strings.TrimSpace(b.Name)
	if name == "" || name != b.Name || strings.ContainsFunc(name, unicode.IsControl) {
		const say = "A name is expected, without blanks around it."
		return located(http.StatusUnprocessableEntity, say, wire.Fault{Location: "body.name", Message: say})
	}
	return nil
}

// addPerson stores somebody. The first one has to be able to look after the others.
func (s *server) addPerson(ctx context.Context, in *rawInput) (*bodyOf[PersonView], error) {
	body, faults := wire.Read[NewPerson](in.RawBody)
	if len(faults) > 0 {
		return nil, unreadable(withoutSecrets(faults))
	}
	if err := body.named(); err != nil {
		return nil, err
	}
	k, err := s.known(ctx, body.PersonBody)
	if err != nil {
		return nil, err
	}
	now := s.clock()
	p := store.Person{ID: body.ID, Name: body.Name, Role: body.Role, Since: now.UTC()}
	err = s.store.With(ctx).AddPerson(p, k, visitorOf(ctx).noted(now, "add-person", saidOf(p)))
	return s.personStored(ctx, body.ID, err)
}

// changePerson changes somebody. Whoever is signed in as him has to sign in anew.
func (s *server) changePerson(ctx context.Context, in *personInput) (*bodyOf[PersonView], error) {
	body, faults := wire.Read[PersonBody](in.RawBody)
	if len(faults) > 0 {
		return nil, unreadable(withoutSecrets(faults))
	}
	if err := body.named(); err != nil {
		return nil, err
	}
	k, err := s.known(ctx, body)
	if err != nil {
		return nil, err
	}
	now := s.clock()
	p := store.Person{ID: in.ID, Name: body.Name, Role: body.Role}
	if body.Left {
		p.Left = now.UTC()
	}
	err = s.store.With(ctx).ChangePerson(p, k, visitorOf(ctx).noted(now, "change-person", saidOf(p)))
	return s.personStored(ctx, in.ID, err)
}

// personInput is what is said of somebody who is there.
type personInput struct {
	JobID
	RawBody []byte `contentType:"application/json"`
}

// withoutSecrets takes what was typed out of faults: a PIN is said nowhere again.
func withoutSecrets(faults wire.Faults) wire.Faults {
	for i := range faults {
		faults[i].Value = nil
	}
	return faults
}

// saidOf is what the audit list says of somebody.
func saidOf(p store.Person) string {
	said := p.Name + ", " + string(p.Role)
	if !p.Here() {
		said += ", has left"
	}
	return said
}

// personStored answers with somebody as he is stored now, or says why he is not.
func (s *server) personStored(ctx context.Context, id string, err error) (*bodyOf[PersonView], error) {
	switch {
	case errors.Is(err, store.ErrNoForeman):
		return nil, located(
			http.StatusConflict,
			"Somebody has to look after people: a foreman with a PIN or a tag. Add one first, or "+
				"make another one a foreman.",
			wire.Fault{Location: "body.role", Message: "A foreman who can sign in is needed."},
		)
	case errors.Is(err, store.ErrExists):
		return nil, located(
			http.StatusConflict,
			"There is somebody of this name, or with this tag, already; whoever left counts too.",
			wire.Fault{Location: "body.name", Message: "Take a name and a tag that nobody has."},
		)
	case err != nil:
		return nil, fault(err)
	}
	s.roster.forget()
	list, err := s.store.With(ctx).People()
	if err != nil {
		return nil, fault(err)
	}
	for _, p := range list {
		if p.ID == id {
			return &bodyOf[PersonView]{personView(p)}, nil
		}
	}
	return nil, fault(store.ErrNotFound)
}

// putSignOut changes after how long somebody is signed out.
func (s *server) putSignOut(ctx context.Context, in *rawInput) (*bodyOf[SignOutAfter], error) {
	body, err := readBody[SignOutAfter](in.RawBody)
	if err != nil {
		return nil, err
	}
	now := s.clock()
	idle := time.Duration(body.Minutes) * time.Minute
	if err := s.store.With(ctx).PutOutAfter(idle, visitorOf(ctx).noted(now, "put-sign-out", idle.String())); err != nil {
		return nil, fault(err)
	}
	return &bodyOf[SignOutAfter]{body}, nil
}

// auditInput is from where on the audit list is asked for.
type auditInput struct {
	Before int `query:"before" minimum:"0" doc:"lines before this one; 0: the newest"`
}

// mostLines is how many lines of the audit list are given at once.
const mostLines = 100

// audit gives a part of the audit list.
func (s *server) audit(ctx context.Context, in *auditInput) (*bodyOf[AuditView], error) {
	list, err := s.store.With(ctx).Audit(in.Before, mostLines+1)
	if err != nil {
		return nil, fault(err)
	}
	out := AuditView{Lines: []NotedView{}, More: len(list) > mostLines}
	for _, n := range list[:min(len(list), mostLines)] {
		out.Lines = append(out.Lines, NotedView{n.N, n.At, n.Name, n.From, n.What, n.About})
	}
	return &bodyOf[AuditView]{out}, nil
}
