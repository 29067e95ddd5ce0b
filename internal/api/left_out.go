package api

import (
	"context"
	"fmt"
	"strings"

	"github.com/danielgtaylor/huma/v2"
)

// leftOutRoutes are how it is noted that somebody leaves out what another did and the program did not take:
// it is in no job's list, so that the audit list is the one place that says so.
func (s *server) leftOutRoutes(a huma.API) {
	huma.Post(a, "/api/v1/jobs/{id}/left-out", s.noteLeftOut,
		summary("note-left-out", "Note that what another did at a job, and was not taken, is left out"))
}

// LeftOut is what is left out of a job's list before it was in it.
type LeftOut struct {
	Entries []LeftOutEntry `json:"entries" minItems:"1" maxItems:"500"`
}

// LeftOutEntry is one thing that was done.
type LeftOutEntry struct {
	ID     string `json:"id"              maxLength:"64"`
	Kind   string `json:"kind"            maxLength:"40" pattern:"^[a-z_]+$" doc:"of happening"`
	Valve  string `json:"valve,omitempty" maxLength:"20"`
	Author string `json:"author"          maxLength:"64"                     doc:"name of who did it"`
}

// mostSaid is how many of them the line of the audit list names one by one.
const mostSaid = 20

// noteLeftOut notes it, before the screen lets go of anything.
func (s *server) noteLeftOut(ctx context.Context, in *struct {
	JobID
	Body LeftOut
}) (*struct{}, error) {
	st := s.store.With(ctx)
	if _, err := st.Job(in.ID); err != nil {
		return nil, fault(err)
	}
	for _, e := range in.Body.Entries {
		if err := s.belongs(ctx, e.Author); err != nil {
			return nil, err
		}
	}
	about := in.ID + ": " + saidOfLeftOut(in.Body.Entries)
	if err := st.Note(visitorOf(ctx).noted(s.clock(), "note-left-out", about)); err != nil {
		return nil, fault(err)
	}
	return nil, nil
}

// saidOfLeftOut says what was left out of whom.
func saidOfLeftOut(entries []LeftOutEntry) string {
	of := map[string][]string{}
	var authors []string
	for _, e := range entries {
		if of[e.Author] == nil {
			authors = append(authors, e.Author)
		}
		what := strings.ReplaceAll(e.Kind, "_", " ") + " " + e.Valve
		of[e.Author] = append(of[e.Author], strings.TrimSpace(what))
	}
	parts := make([]string, len(authors))
	for i, name := range authors {
		list := of[name]
		if len(list) > mostSaid {
			list = append(list[:mostSaid:mostSaid], fmt.Sprintf("and %d more", len(list)-mostSaid))
		}
		parts[i] = "of " + name + ": " + strings.Join(list, ", ")
	}
	return strings.Join(parts, "; ")
}
