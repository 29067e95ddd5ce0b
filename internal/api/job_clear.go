package api

import (
	"context"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/job"
)

// clearFor is how long hands are taken to be clear after it was said.
const clearFor = time.Minute

// Clear is that whoever works at the valves has said that hands are clear: until then, and as long as nothing
// else happens and his screen is there, a helper may turn the crank.
type Clear struct {
	Screen string    `json:"screen" doc:"on which it was said"`
	Newest string    `json:"newest" doc:"the newest happening when it was said"`
	Until  time.Time `json:"until"`
}

// clears notes that hands are clear at a job, and tells whoever watches; it ends by itself.
func (p *presences) clears(job string, is Clear) {
	p.mu.Lock()
	p.clear[job] = is
	p.mu.Unlock()
	p.tell(change{job: job, here: is.Screen})
	time.AfterFunc(clearFor, func() { p.unclears(job, is) })
}

// unclears takes back what a screen has said.
func (p *presences) unclears(job string, was Clear) {
	p.mu.Lock()
	is, known := p.clear[job]
	known = known && is.Screen == was.Screen && (was.Until.IsZero() || is == was)
	if known {
		delete(p.clear, job)
	}
	p.mu.Unlock()
	if known {
		p.tell(change{job: job, here: was.Screen})
	}
}

// clearAt is what holds at a job whose newest happening is known, at a time; nil: hands are not clear.
func (p *presences) clearAt(job, newest string, now time.Time) *Clear {
	p.mu.Lock()
	defer p.mu.Unlock()
	is, said := p.clear[job]
	_, there := p.list[job][is.Screen]
	if !said || !there || is.Newest != newest || now.After(is.Until) {
		return nil
	}
	return &is
}

// helping is what a screen at the crank is doing.
const helping = "helper"

// helps says that a screen is that of a helper at the crank.
func (p *presences) helps(job, screen string) bool {
	p.mu.Lock()
	defer p.mu.Unlock()
	is, there := p.list[job][screen]
	return there && is.Doing == helping
}

// mayTurn refuses that a helper turns the crank while hands are not clear.
func (s *server) mayTurn(o *openJob, h job.Happening) error {
	switch h.Act.(type) {
	case job.Turned, job.BarredOver:
	default:
		return nil
	}
	_, known := o.places[h.ID] // sent again
	if known || !s.desk.here.helps(o.record.ID, h.Screen) ||
		s.desk.here.clearAt(o.record.ID, o.newest(), s.clock()) != nil {
		return nil
	}
	return &job.Refusal{
		Field:   "kind",
		Message: "Wait: hands are not clear. Do not turn the crank before that is said.",
	}
}

// clearRoutes are how a helper is told that he may turn.
func (s *server) clearRoutes(a huma.API) {
	huma.Put(a, "/api/v1/jobs/{id}/screens/{screen}/clear", s.handsClear,
		summary("put-hands-clear", "Say that hands are clear, so that a helper may turn the crank"))
	huma.Delete(a, "/api/v1/jobs/{id}/screens/{screen}/clear", s.handsBack,
		summary("delete-hands-clear", "Say that hands are not clear any more"))
}

// clearInput says by which view of the job hands are clear.
type clearInput struct {
	ScreenID
	Body struct {
		Newest string `json:"newest" maxLength:"64" doc:"the newest happening that the screen shows"`
	}
}

// handsClear takes it where the screen shows the job as it is: what it shows is what is turned.
func (s *server) handsClear(ctx context.Context, in *clearInput) (*bodyOf[Clear], error) {
	is := Clear{in.Screen, in.Body.Newest, s.clock().Add(clearFor)}
	err := s.desk.with(ctx, in.ID, func(o *openJob) error {
		if o.newest() != in.Body.Newest {
			return &job.Refusal{
				Field: "newest",
				Message: "Something else happened since this screen was drawn. Look again " +
					"before you say that hands are clear.",
			}
		}
		return nil
	})
	if err != nil {
		return nil, fault(err)
	}
	s.desk.here.clears(in.ID, is)
	return &bodyOf[Clear]{is}, nil
}

func (s *server) handsBack(_ context.Context, in *ScreenID) (*struct{}, error) {
	s.desk.here.unclears(in.ID, Clear{Screen: in.Screen})
	return nil, nil
}
