//go:build !race

package api_test

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"time"

	"metronix/core/job"
	"metronix/internal/seen"
)

// simEntry is something done on a screen that the program has not said it has.
type simEntry struct {
	body    map[string]any
	at      time.Time // by the screen's idea of the program's clock
	refused bool
	moves   bool // the crank was moved with it, or said to be
}

// simScreen is one browser with its queue, as web/src/shared/useQueue.ts and useJob.ts work.
type simScreen struct {
	sim     *simulated
	name    string
	who     string // is signed in there; empty: nobody, or nobody is set up
	cookie  string
	line    bool          // it reaches the program
	skew    time.Duration // of its clock
	ahead   time.Duration // of the program's clock before its own, as far as it knows
	queue   []*simEntry
	at      seen.At // what it knows, with what waits
	knows   string  // the newest happening that it shows
	sure    string  // the newest one that the program has told it
	stale   bool    // it has to read the job again
	sending int     // counts up with each attempt; an answer to an earlier one is not heard
	busy    bool
	since   time.Time // when it began to send
	retry   time.Time
}

// taps is a mechanic's next act at a screen: mostly what it says.
func (c *simScreen) taps() {
	s := c.sim
	if c.stale || s.crewed && c.who == "" || slices.ContainsFunc(c.queue, c.anothers) || slices.ContainsFunc(c.queue, func(e *simEntry) bool { return e.refused }) {
		return
	}
	c.at.Now = c.clock()
	state := seen.StateOf(c.at)
	body := c.act(state)
	if body["kind"] == "undone" && state.Undo == "" {
		return
	}
	s.names++
	id := fmt.Sprintf("act-%s-%05d", c.name, s.names)
	body["id"], body["screen"] = id, c.name
	body["seen"] = c.sure
	if c.who != "" {
		body["author"], s.authors[id] = c.who, c.who
	}
	text, err := json.Marshal(body)
	if err != nil {
		s.wrong("%v", err)
	}
	stop, before := -1, c.at
	if n, ok := body["stop"].(int); ok {
		stop = n
	}
	if err := c.at.Take(text, c.at.Now); err != nil {
		c.at = before
		var refusal *job.Refusal
		if !errors.As(err, &refusal) {
			s.wrong("%s: %v", text, err)
		}
		return // told at once, and nothing is done
	}
	kind := body["kind"].(string)
	moves := slices.Contains(crankMovers, kind) ||
		kind == "undone" && slices.Contains(crankMovers, state.UndoKind)
	s.says("%s taps %s", c.name, text)
	if stop >= 0 {
		s.crank = float64(state.Plan.Stops[stop].Crank)
	}
	if kind == "reading" {
		s.readAt[id] = s.crank
	}
	c.queue = append(c.queue, &simEntry{body: body, at: c.at.Now, moves: moves})
	c.knows = id
	c.sends()
}

// crankMovers are the kinds of happenings that say where the crank is.
var crankMovers = []string{"turned", "barred_over", "located", "doubted"}

// act is what a mechanic does next: what the bench says, or now and then something else. An act that takes
// back one that moved the crank would put the engine's crank back too, which nobody does: it is doubted then.
func (c *simScreen) act(state seen.JobState) map[string]any {
	chance := c.sim.chance
	valve := state.Valves[chance.IntN(len(state.Valves))].Name
	switch chance.IntN(12) {
	case 0:
		if slices.Contains(crankMovers, state.UndoKind) {
			return map[string]any{"kind": "doubted"}
		}
		return map[string]any{"kind": "undone", "target": state.Undo}
	case 1:
		return map[string]any{"kind": "doubted"}
	case 2:
		return map[string]any{"kind": "picked", "valve": valve}
	case 3:
		return map[string]any{"kind": "left_as_is", "valve": valve, "reason": "seized"}
	}
	now := state.Now
	switch now.Action {
	case "turn", "bar_over":
		kind := map[string]string{"turn": "turned", "bar_over": "barred_over"}[now.Action]
		return map[string]any{"kind": kind, "stop": now.Stop}
	case "read":
		if len(now.Ladder) > 0 {
			r := now.Ladder[chance.IntN(len(now.Ladder))]
			feel := []string{"free", "drag", "wont_go"}[chance.IntN(3)]
			return map[string]any{
				"kind":      "reading",
				"valve":     now.Valve,
				"leaves_mm": r.LeavesMM,
				"angled":    r.Angled,
				"feel":      feel,
			}
		}
	case "adjust":
		return map[string]any{"kind": "adjusted", "valve": now.Valve}
	case "lock":
		return map[string]any{"kind": "locked", "valve": now.Valve}
	}
	return map[string]any{"kind": "kept", "valve": now.Valve}
}

// clock is the program's time as the screen reckons it.
func (c *simScreen) clock() time.Time { return c.sim.now.Add(c.skew).Add(c.ahead) }

// waits is the first that may be sent; nil: none.
func (c *simScreen) waits() *simEntry {
	if len(c.queue) == 0 || c.queue[0].refused || c.anothers(c.queue[0]) {
		return nil
	}
	return c.queue[0]
}

// sends sends the first that waits, where nothing is on its way and it is time to.
func (c *simScreen) sends() {
	s, now := c.sim, c.sim.now
	if c.busy && now.Sub(c.since) > 8*time.Second { // given up: it is sent again
		c.busy, c.retry = false, now.Add(2*time.Second)
		c.sending++
	}
	if c.busy || now.Before(c.retry) {
		return
	}
	e := c.waits()
	if e == nil {
		if c.stale {
			c.refresh()
		}
		return
	}
	c.busy, c.since = true, now
	c.sending++
	attempt := c.sending
	if !c.line {
		c.failed()
		return
	}
	body := map[string]any{}
	for k, v := range e.body {
		body[k] = v
	}
	if c.clock().Sub(e.at) > 3*time.Second {
		body["done_at"] = e.at.Format(time.RFC3339Nano)
	}
	text, err := json.Marshal(body)
	if err != nil {
		s.wrong("%v", err)
	}
	cookie := c.cookie
	arrives := func() {
		status, answer := s.asked("POST", "/api/v1/jobs/"+simJob+"/happenings", text, cookie)
		s.says("  %s asks %s: %d", c.name, e.body["id"], status)
		if status == http.StatusOK {
			s.acked[e.body["id"].(string)], s.ackedMore = false, true // whether the screen hears of it is another thing
		}
		if s.chance.IntN(10) > 0 && status > 0 {
			s.later(func() { c.hears(e, attempt, status, answer) })
		} else if status == 0 {
			s.later(func() { c.hears(e, attempt, 0, nil) })
		}
	}
	if s.chance.IntN(10) > 0 {
		s.later(arrives)
	}
	if s.chance.IntN(10) == 0 { // the network doubles it
		s.later(func() { s.asked("POST", "/api/v1/jobs/"+simJob+"/happenings", text, cookie) })
	}
}

// failed tries again in a while.
func (c *simScreen) failed() { c.busy, c.retry = false, c.sim.now.Add(2*time.Second) }

// hears takes an answer in.
func (c *simScreen) hears(e *simEntry, attempt, status int, answer []byte) {
	s := c.sim
	if attempt != c.sending || !c.line {
		return
	}
	c.busy = false
	switch {
	case status == http.StatusOK:
		s.acked[e.body["id"].(string)], s.ackedMore = true, true
		c.queue = slices.DeleteFunc(c.queue, func(x *simEntry) bool { return x == e })
		var state struct {
			Newest string
			Clock  time.Time
		}
		if err := json.Unmarshal(answer, &state); err != nil {
			s.wrong("%v", err)
		}
		c.sure = state.Newest
		c.ahead = state.Clock.Sub(s.now.Add(c.skew))
		c.stale = c.stale || state.Newest != e.body["id"]
	case status == http.StatusConflict || status == http.StatusUnprocessableEntity:
		late := c.clock().Sub(e.at) > 3*time.Second
		followed := len(c.queue) > 1
		c.stale = true
		if late || followed || e.moves || bytes.Contains(answer, []byte("urn:metronix:")) {
			e.refused = true
			s.says("  %s is refused %s: %s", c.name, e.body["id"], answer)
			c.refresh()
			return
		}
		c.queue = slices.DeleteFunc(c.queue, func(x *simEntry) bool { return x == e })
	case status == http.StatusUnauthorized:
		s.says("%s: %s is signed out", c.name, c.who)
		c.who, c.cookie = "", ""
		c.failed()
	default:
		c.failed()
	}
}

// decides is the mechanic's answer to what was refused: it is left out, or all from there on. Where the crank
// was moved with what is left out, it is said that nobody knows where it stands.
func (c *simScreen) decides() {
	s := c.sim
	if len(c.queue) == 0 || !c.queue[0].refused || s.crewed && c.who == "" {
		return
	}
	n := 1
	if s.chance.IntN(2) == 0 {
		n = len(c.queue)
	}
	left, rest := c.queue[:n], c.queue[n:]
	s.says("%s leaves out %d, %d stay", c.name, n, len(rest))
	c.queue = rest
	if i := slices.IndexFunc(left, func(e *simEntry) bool { return e.moves }); i >= 0 {
		s.names++
		id := fmt.Sprintf("act-%s-%05d", c.name, s.names)
		body := map[string]any{"id": id, "kind": "doubted", "seen": left[i].body["seen"], "screen": c.name}
		if c.who != "" {
			body["author"], s.authors[id] = c.who, c.who
		}
		c.queue = append([]*simEntry{{body: body, at: left[i].at, moves: true}}, rest...)
	}
	c.stale = true
}

// refresh reads the job anew, where that can be done.
func (c *simScreen) refresh() {
	if !c.line {
		return
	}
	status, text := c.sim.asked("GET", "/api/v1/jobs/"+simJob+"/opening", nil, c.cookie)
	if status == http.StatusUnauthorized {
		c.who, c.cookie = "", ""
		if c.settles(); c.who != "" {
			c.refresh()
		}
		return
	}
	if status != http.StatusOK {
		return
	}
	at, err := seen.Open(text)
	if err != nil {
		c.sim.wrong("the job does not open: %v", err)
	}
	c.at, c.stale = at, len(c.queue) > 0
	c.sure = at.List[len(at.List)-1].ID
	c.ahead = -c.skew // the job says the program's time too
	c.knows = ""
	if n := len(at.List); n > 0 {
		c.knows = at.List[n-1].ID
	}
}

// readAtTime is where the crank stood in truth when a valve was read that was kept.
func (s *simulated) readAtTime(list []job.Happening, v *job.ValveState) (where float64, ok bool) {
	if v.Last == nil {
		return 0, false
	}
	for _, h := range list {
		made := h.At
		if !h.DoneAt.IsZero() {
			made = h.DoneAt
		}
		at, read := s.readAt[h.ID]
		if read && h.Act.On() == v.Name && made.Equal(v.Last.At) {
			where, ok = at, true
		}
	}
	return where, ok
}
