package api

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"reflect"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/internal/seen"
	"metronix/internal/store"
)

// Times of a stream of events.
const (
	stillThere = 10 * time.Second // after so long without an event its client is told that the line holds
	oneWrite   = 10 * time.Second // a client that takes longer to read is let go: it comes back by itself
	comeBack   = time.Second      // after which a client calls again
)

// mostStreams is how many clients may watch at once.
const mostStreams = 1000

// liveRoutes are the streams of events.
func (s *server) liveRoutes(a huma.API) {
	huma.Get(a, "/api/v1/events", s.boardEvents, summary("board-events",
		"Live: each job that changes, as the board shows it"), streams(a, BoardEvent{}))
	huma.Get(a, "/api/v1/jobs/{id}/events", s.jobEvents, summary("job-events",
		"Live: a job's state, and after that what changes in it"), streams(a, stateAnswer{}))
}

// streams documents an operation as a stream of events "changed", the data of each of one kind.
func streams(a huma.API, data any) func(*huma.Operation) {
	of := a.OpenAPI().Components.Schemas.Schema(reflect.TypeOf(data), true, "")
	return func(o *huma.Operation) {
		o.Description = "Server-sent events named \"changed\". The id of each is the newest happening, and Last-Event-ID resumes " +
			"after it; without one, and after one that is not known, the first event holds everything. An event \"alive\" " +
			"says that the line holds."
		o.Responses = map[string]*huma.Response{"200": {Description: "The data of each event \"changed\"",
			Content: map[string]*huma.MediaType{"text/event-stream": {Schema: of}}}}
	}
}

// Watching is what a client says that comes to a stream.
type Watching struct {
	LastEventID string `header:"Last-Event-ID" maxLength:"128" doc:"the id of the last event that was received"`
}

// WatchingJob is that for a job.
type WatchingJob struct {
	JobID
	OnScreen
	Watching
}

// BoardEvent is what changed on the board.
type BoardEvent struct {
	All  bool          `json:"all"  doc:"these are all jobs; else those that changed"`
	Jobs []BoardChange `json:"jobs"`
}

// BoardChange is a job that changed.
type BoardChange struct {
	ID     string    `json:"id"`
	Newest string    `json:"newest"         doc:"its newest happening; empty: something else of it changed"`
	Here   string    `json:"here,omitempty" doc:"only that this screen came to it, left it or took another valve in hand there"`
	Row    *JobShort `json:"row,omitempty"  doc:"as the board shows it; absent: it stands there no more"`
}

// errSignedOut ends the stream of somebody who may be here no more.
var errSignedOut = errors.New("signed out")

// stream is one client that watches.
type stream struct {
	to    http.ResponseWriter
	lines *http.ResponseController
	done  <-chan struct{}
	who   visitor
	asked time.Time // when it was looked at last whether he may still be here
}

// mayStay says whether a client that watches may still be here: signed out, or left, he sees no more.
func (st *stream) mayStay(s *server) bool {
	if time.Since(st.asked) < stillThere {
		return true
	}
	st.asked = time.Now()
	if st.who.open {
		anybody, err := s.roster.anybody(s.store)
		return err != nil || !anybody
	}
	_, err := s.signedIn(s.store, st.who.kept, false)
	return !errors.Is(err, store.ErrNotFound)
}

// watch answers with a stream that run writes to until its client is gone.
func (s *server) watch(run func(*stream) error) (*huma.StreamResponse, error) {
	if s.streams.Add(1) > mostStreams {
		s.streams.Add(-1)
		return nil, huma.ErrorWithHeaders(huma.Error503ServiceUnavailable(
			"Too many screens watch at once. Close some, or ask again in a moment.",
		), http.Header{"Retry-After": {"5"}})
	}
	return &huma.StreamResponse{Body: func(ctx huma.Context) {
		defer s.streams.Add(-1)
		ctx.SetHeader("Content-Type", "text/event-stream")
		ctx.SetHeader("Cache-Control", "no-store")
		ctx.SetHeader("X-Accel-Buffering", "no")
		to, ok := ctx.BodyWriter().(http.ResponseWriter)
		if !ok {
			panic("the framework's writer is not the server's") // it always is
		}
		lines := http.NewResponseController(to)
		_ = lines.SetReadDeadline(time.Time{}) // a stream lasts
		st := &stream{to, lines, ctx.Context().Done(), visitorOf(ctx.Context()), time.Now()}
		if err := st.write(fmt.Sprintf("retry: %d\n\n", comeBack.Milliseconds())); err == nil {
			_ = run(st) // its client is gone: nobody is left to be told
		}
	}}, nil
}

// write sends a text at once.
func (st *stream) write(text string) error {
	if err := st.lines.SetWriteDeadline(time.Now().Add(oneWrite)); err != nil {
		return err
	}
	if _, err := st.to.Write([]byte(text)); err != nil {
		return err
	}
	return st.lines.Flush()
}

// changed sends what is otherwise now.
func (st *stream) changed(newest string, body any) error {
	data, err := json.Marshal(body)
	if err != nil {
		return err
	}
	head := ""
	if newest != "" {
		head = "id: " + newest + "\n"
	}
	return st.write(head + "event: changed\ndata: " + string(data) + "\n\n")
}

// next waits for a change after so many. While there is none it tells its client that the line holds.
func (st *stream) next(s *server, at int) (list []change, now int, ok bool, err error) {
	for {
		if !st.mayStay(s) {
			return nil, 0, false, errSignedOut
		}
		list, now, more, ok := s.desk.news.after(at)
		if !ok || len(list) > 0 {
			return list, now, ok, nil
		}
		alive := time.NewTimer(stillThere)
		select {
		case <-more:
			alive.Stop()
		case <-alive.C:
			if err := st.write("event: alive\ndata:\n\n"); err != nil {
				return nil, 0, false, err
			}
		case <-st.done:
			alive.Stop()
			return nil, 0, false, context.Canceled
		case <-s.ends:
			alive.Stop()
			return nil, 0, false, http.ErrServerClosed
		}
	}
}

// boardEvents tells each job that changes, as the board shows it.
func (s *server) boardEvents(_ context.Context, in *Watching) (*huma.StreamResponse, error) {
	return s.watch(func(st *stream) error {
		at, known := s.desk.news.placeOf(in.LastEventID)
		if !known {
			at = s.desk.news.now()
			if err := s.wholeBoard(st); err != nil {
				return err
			}
		}
		for {
			list, now, ok, err := st.next(s, at)
			if err != nil {
				return err
			}
			at = now
			if !ok {
				if err := s.wholeBoard(st); err != nil {
					return err
				}
				continue
			}
			if err := s.tellBoard(st, list); err != nil {
				return err
			}
		}
	})
}

// wholeBoard sends everything that stands on the board.
func (s *server) wholeBoard(st *stream) error {
	newest := s.desk.news.newest()
	rows, _, err := s.store.Board(store.BoardQuery{Limit: 500})
	if err != nil {
		return err
	}
	event := BoardEvent{All: true, Jobs: []BoardChange{}}
	for _, on := range rows {
		event.Jobs = append(event.Jobs, BoardChange{ID: on.ID, Row: new(onBoard(on, s.clock()))})
	}
	return st.changed(newest, event)
}

// tellBoard sends the jobs of some changes, each once.
func (s *server) tellBoard(st *stream, list []change) error {
	newest, at, ids := "", map[string]int{}, []string{}
	event := BoardEvent{Jobs: []BoardChange{}}
	for _, c := range list {
		if c.job == "" {
			return s.wholeBoard(st)
		}
		i, known := at[c.job]
		if !known {
			i = len(event.Jobs)
			at[c.job] = i
			ids = append(ids, c.job)
			event.Jobs = append(event.Jobs, BoardChange{ID: c.job, Here: c.here})
		} else if event.Jobs[i].Here != c.here {
			event.Jobs[i].Here = ""
		}
		if c.newest != "" {
			newest, event.Jobs[i].Newest = c.newest, c.newest
		}
	}
	rows, _, err := s.store.Board(store.BoardQuery{IDs: ids, Limit: len(ids)})
	if err != nil {
		return err
	}
	for _, on := range rows {
		event.Jobs[at[on.ID]].Row = new(onBoard(on, s.clock()))
	}
	return st.changed(newest, event)
}

// jobEvents tells a job's state, and after that what changes in it.
func (s *server) jobEvents(ctx context.Context, in *WatchingJob) (*huma.StreamResponse, error) {
	if err := s.desk.with(ctx, in.ID, func(*openJob) error { return nil }); err != nil {
		return nil, fault(err)
	}
	return s.watch(func(st *stream) error {
		at := s.desk.news.now()
		said, newest := (*sent)(nil), in.LastEventID
		tell := func() error {
			body, is, err := s.newsOf(ctx, in, newest, said)
			if err != nil || body == nil {
				return err
			}
			if said != nil && newest == body.Newest && body.changed.nothing() {
				return nil
			}
			said, newest = is, body.Newest
			return st.changed(newest, body)
		}
		if err := tell(); err != nil {
			return err
		}
		for {
			list, now, ok, err := st.next(s, at)
			if err != nil {
				return err
			}
			at = now
			mine := !ok
			for _, c := range list {
				mine = mine || c.job == "" || c.job == in.ID
			}
			if !mine {
				continue
			}
			if err := tell(); err != nil {
				return err
			}
		}
	})
}

// newsOf is what a screen is told that knows a job up to a happening and was told so much of it: nothing
// where it knows the newest and was told nothing yet, what differs, or the whole.
func (s *server) newsOf(
	ctx context.Context,
	in *WatchingJob,
	knows string,
	said *sent,
) (body *stateAnswer, is *sent, err error) {
	ctx = context.WithoutCancel(ctx) // the time that a request has is over, and the stream goes on
	err = s.desk.with(ctx, in.ID, func(o *openJob) error {
		if said == nil && knows != "" && o.newest() == knows {
			return nil
		}
		shift, err := s.desk.learned(ctx, o)
		if err != nil {
			return err
		}
		state := seen.StateOf(s.desk.seenOn(in.Screen, o, shift, s.clock()))
		if is, err = sentOf(state); err != nil {
			return err
		}
		body = &stateAnswer{JobState: state}
		if said != nil {
			body.changed, err = said.changes(is)
		}
		return err
	})
	return body, is, err
}

// isStream says that an answer lasts.
func isStream(path string) bool { return strings.HasSuffix(path, "/events") }
