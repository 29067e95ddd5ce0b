package api

import (
	"cmp"
	"context"
	"slices"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
)

// stays is for how long a screen is taken to be at a job after it said so last.
const stays = 15 * time.Second

// Presence is a screen on which somebody is at a job.
type Presence struct {
	Screen string `json:"screen"`
	Name   string `json:"name"   doc:"what it is called: a phone, a tablet"`
	Valve  string `json:"valve"  doc:"that is in hand there; empty: none"`
	Doing  string `json:"doing"  doc:"the action that is shown there"`
}

// Others are the screens at a job beside one.
type Others struct {
	Others []Presence `json:"others"`
}

// presences are who is at which job. They are no record: with the program they are gone.
type presences struct {
	mu    sync.Mutex
	list  map[string]map[string]*present
	clear map[string]Clear // by job
	tell  func(change)
}

// present is a presence, and what ends it.
type present struct {
	Presence
	ends *time.Timer
}

func newPresences(tell func(change)) *presences {
	return &presences{list: map[string]map[string]*present{}, clear: map[string]Clear{}, tell: tell}
}

// comes notes that a screen is at a job, for a while. Whoever watches the job is told where that is news.
func (p *presences) comes(job string, is Presence) {
	p.mu.Lock()
	at := p.list[job]
	if at == nil {
		at = map[string]*present{}
		p.list[job] = at
	}
	was, known := at[is.Screen]
	if known {
		was.ends.Stop()
	}
	at[is.Screen] = &present{is, time.AfterFunc(stays, func() { p.goes(job, is.Screen) })}
	p.mu.Unlock()
	if !known || was.Presence != is {
		p.tell(change{job: job, here: is.Screen})
	}
}

// goes notes that a screen has left.
func (p *presences) goes(job, screen string) {
	p.mu.Lock()
	was, known := p.list[job][screen]
	if known {
		was.ends.Stop()
		delete(p.list[job], screen)
	}
	if p.clear[job].Screen == screen { // a line that is lost clears nobody’s hands
		delete(p.clear, job)
	}
	if len(p.list[job]) == 0 {
		delete(p.list, job)
	}
	p.mu.Unlock()
	if known {
		p.tell(change{job: job, here: screen})
	}
}

// others are the screens at a job beside one, by their ids.
func (p *presences) others(job, screen string) []Presence {
	p.mu.Lock()
	defer p.mu.Unlock()
	list := []Presence{}
	for _, is := range p.list[job] {
		if is.Screen != screen {
			list = append(list, is.Presence)
		}
	}
	slices.SortFunc(list, func(a, b Presence) int { return cmp.Compare(a.Screen, b.Screen) })
	return list
}

// beside are the ids of those that are at the valves.
func (p *presences) beside(job, screen string) []string {
	var ids []string
	for _, is := range p.others(job, screen) {
		if is.Doing != helping {
			ids = append(ids, is.Screen)
		}
	}
	return ids
}

// screenRoutes are who is at a job.
func (s *server) screenRoutes(a huma.API) {
	huma.Put(a, "/api/v1/jobs/{id}/screens/{screen}", s.screenComes,
		summary("put-screen", "Say that a screen is at a job; it is forgotten a little later"))
	huma.Delete(a, "/api/v1/jobs/{id}/screens/{screen}", s.screenGoes,
		summary("delete-screen", "Say that a screen has left a job"))
}

// ScreenID is the path of a screen at a job.
type ScreenID struct {
	JobID
	Screen string `path:"screen" minLength:"1" maxLength:"80" pattern:"^[A-Za-z0-9_-]+$"`
}

// screenInput says where a screen is.
type screenInput struct {
	ScreenID
	Body struct {
		Name  string `json:"name" maxLength:"40"`
		Valve string `json:"valve" maxLength:"16"`
		Doing string `json:"doing" maxLength:"16"`
	}
}

func (s *server) screenComes(ctx context.Context, in *screenInput) (*bodyOf[Others], error) {
	if err := s.desk.with(ctx, in.ID, func(*openJob) error { return nil }); err != nil {
		return nil, fault(err)
	}
	s.desk.here.comes(in.ID, Presence{in.Screen, in.Body.Name, in.Body.Valve, in.Body.Doing})
	return &bodyOf[Others]{Others{s.desk.here.others(in.ID, in.Screen)}}, nil
}

func (s *server) screenGoes(_ context.Context, in *ScreenID) (*struct{}, error) {
	s.desk.here.goes(in.ID, in.Screen)
	return nil, nil
}
