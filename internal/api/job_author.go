package api

import (
	"context"
	"net/http"
	"slices"
	"strings"

	"metronix/core/job"
	"metronix/core/people"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// The types of refusals about whose an entry is, which a screen answers: it waits until its author signs in,
// or somebody who may sends it in his place.
const (
	notAllowedType = "not_allowed"
	anothersType   = "another_person"
)

// entered is a happening with who entered it. Where people are set up that is who is signed in: an entry in
// another's name is not taken, but from somebody who may send it in his place, and then says so. A signature
// is everybody's own.
func (s *server) entered(ctx context.Context, h job.Happening) (job.Happening, error) {
	v := visitorOf(ctx)
	if v.open {
		h.SentBy = ""
		return h, nil
	}
	me := *v.person
	deed := people.OfAct(h.Act)
	if !me.Role.May(deed) {
		return h, forbidden(notAllowedType, notAllowed(me.Role))
	}
	switch {
	case h.Author == "", h.Author == me.Name:
		h.Author, h.SentBy = me.Name, ""
	case h.SentBy != me.Name || !me.Role.May(people.TakeOver):
		return h, forbidden(
			anothersType,
			"This was done by "+h.Author+", and "+me.Name+" is signed in: it waits until "+h.Author+
				" signs in here, or a foreman takes it over.",
		)
	case deed != people.Work:
		return h, forbidden(
			anothersType,
			"A signature is nobody else's: "+h.Author+" has to sign in and sign.",
		)
	default:
		if err := s.belongs(ctx, h.Author); err != nil {
			return h, err
		}
	}
	if name, named := people.NameOn(h.Act); named && strings.TrimSpace(name) != h.Author {
		say := "You are signed in as " + h.Author + ": a sheet is signed with one's own name."
		return h, forbidden(notAllowedType, say, wire.Fault{Location: "by", Message: say})
	}
	return h, nil
}

// belongs errs where nobody of the workshop has, or had, a name.
func (s *server) belongs(ctx context.Context, name string) error {
	list, err := s.store.With(ctx).People()
	if err != nil {
		return fault(err)
	}
	if slices.ContainsFunc(list, func(p store.Person) bool { return p.Name == name }) {
		return nil
	}
	say := "Nobody of this workshop is called " + name + "."
	return located(http.StatusUnprocessableEntity, say, wire.Fault{Location: "author", Message: say})
}
