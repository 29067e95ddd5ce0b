//go:build !race

package api_test

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"net/http"
	"net/http/httptest"
	"reflect"
	"strings"
	"sync"
	"time"

	"metronix/internal/seen"
)

// simStream is somebody who watches the job all the time.
type simStream struct {
	mu    sync.Mutex
	text  bytes.Buffer
	state map[string]any
	head  http.Header
	end   func()
	begun chan bool // closed with the first that is told
	once  sync.Once
}

func (w *simStream) Header() http.Header              { return w.head }
func (w *simStream) WriteHeader(int)                  {}
func (w *simStream) FlushError() error                { return w.read() }
func (w *simStream) Flush()                           { _ = w.read() }
func (w *simStream) SetReadDeadline(time.Time) error  { return nil }
func (w *simStream) SetWriteDeadline(time.Time) error { return nil }

func (w *simStream) Write(p []byte) (int, error) {
	w.once.Do(func() { close(w.begun) })
	w.mu.Lock()
	defer w.mu.Unlock()
	return w.text.Write(p)
}

// read takes what was told into the state that is known.
func (w *simStream) read() error {
	w.mu.Lock()
	defer w.mu.Unlock()
	for {
		text := w.text.String()
		one, _, whole := strings.Cut(text, "\n\n")
		if !whole {
			return nil
		}
		w.text.Next(len(one) + 2)
		_, data, _ := strings.Cut(one, "data: ")
		var told map[string]any
		if data == "" || json.Unmarshal([]byte(data), &told) != nil {
			continue
		}
		if told["partial"] != true {
			w.state = told
			continue
		}
		if w.state == nil {
			return errors.New("a part came before the whole")
		}
		(&known{state: w.state}).takes(told)
	}
}

// hasToldOf waits until a happening was told, and then compares what was told in all with what the job's list
// says of the time when it was told.
func (w *simStream) hasToldOf(s *simulated, newest string, at seen.At) {
	for range 5000 {
		w.mu.Lock()
		state := w.state
		w.mu.Unlock()
		if state["newest"] == newest {
			clock, err := time.Parse(time.RFC3339Nano, state["clock"].(string))
			if err != nil {
				s.wrong("%v", err)
			}
			at.Now = clock
			text, err := json.Marshal(seen.StateOf(at))
			if err != nil {
				s.wrong("%v", err)
			}
			whole := parsedAs(s.t, string(text))
			for _, field := range []string{"valves", "now", "phase", "crank_deg", "undo", "happenings"} {
				if !reflect.DeepEqual(whole[field], state[field]) {
					s.wrong("who watches was told of %s: %v, and the list says %v", field, state[field], whole[field])
				}
			}
			return
		}
		time.Sleep(time.Millisecond)
	}
	s.wrong("who watches was not told of %s", newest)
}

// watch opens a stream.
func (s *simulated) watch() *simStream {
	w := &simStream{head: http.Header{}, begun: make(chan bool)}
	ctx, cancel := context.WithCancel(context.Background())
	r := httptest.NewRequest("GET", "http://localhost/api/v1/jobs/"+simJob+"/events", nil).WithContext(ctx)
	if s.cookie != "" {
		r.Header.Set("Cookie", s.cookie)
	}
	over := make(chan bool)
	go func(handler http.Handler) {
		defer close(over)
		handler.ServeHTTP(w, r)
	}(s.handler)
	w.end = func() { cancel(); <-over }
	select { // who is let in is decided now, and not by a clock that has gone on
	case <-w.begun:
	case <-over:
	}
	return w
}
