//go:build !race

package api_test

import (
	"bytes"
	"encoding/json"
	"time"

	"metronix/core/measure"
	"metronix/core/sequence"
	"metronix/internal/seen"
)

// holds says what is so after every step: what was acknowledged is stored once, and what the program says of
// the job, and tells who watches, is what its list says.
func (s *simulated) holds() {
	if s.handler == nil || s.away {
		return
	}
	list, err := s.st.Happenings(simJob)
	if err != nil {
		s.wrong("%v", err)
	}
	if n := len(list.Happenings); n == s.held && s.heldBy == s.st && !s.ackedMore {
		return // nothing came since this was looked at
	}
	s.held, s.heldBy, s.ackedMore = len(list.Happenings), s.st, false
	times := map[string]int{}
	for _, h := range list.Happenings {
		times[h.ID]++
		if times[h.ID] > 1 {
			s.wrong("%s is stored twice", h.ID)
		}
	}
	for id := range s.acked {
		if times[id] != 1 {
			s.wrong("%s was acknowledged and is not stored", id)
		}
	}
	s.authored(list.Happenings)
	text := s.lookedAt("/api/v1/jobs/" + simJob + "/opening")
	at, err := seen.Open(text)
	if err != nil {
		s.wrong("%v", err)
	}
	var view struct{ State json.RawMessage }
	text = s.lookedAt("/api/v1/jobs/" + simJob)
	if err := json.Unmarshal(text, &view); err != nil {
		s.wrong("%v", err)
	}
	at.Now = s.now
	replayed, err := json.Marshal(seen.StateOf(at))
	if err != nil {
		s.wrong("%v", err)
	}
	if !bytes.Equal(replayed, view.State) {
		s.wrong("the program shows\n%s\nand its list says\n%s", view.State, replayed)
	}
	s.stream.hasToldOf(s, list.Happenings[len(list.Happenings)-1].ID, at)
}

// heal makes all well: lines, disk and program; and mechanics answer what is asked.
func (s *simulated) heal() {
	if s.away {
		s.disk(true)
	}
	if s.handler == nil {
		s.start()
	}
	for _, c := range s.screens {
		c.line = true
	}
	for range 400 {
		s.passes(3 * time.Second)
		idle := len(s.network) == 0
		for _, c := range s.screens {
			c.settles()
			c.decides()
			idle = idle && len(c.queue) == 0 && !c.stale
		}
		if idle {
			return
		}
	}
	s.wrong("it does not come to rest")
}

// rests says what is so when nothing waits any more: every screen knows what the program does, and the crank
// stands where it is believed to, or nobody says that he knows.
func (s *simulated) rests() {
	for _, c := range s.screens {
		c.settles()
		c.refresh()
	}
	at := s.screens[0].at
	at.Now = s.now
	state := seen.StateOf(at)
	if state.Place != nil && !inArc(s.crank, float64(state.Place.From), float64(state.Place.To)) {
		s.wrong("the crank stands at %v and is believed at %+v", s.crank, *state.Place)
	}
	for _, v := range at.Job.Valves {
		if where, ok := s.readAtTime(at.List, v); ok && v.Last.Void() == "" {
			there := sequence.Exactly(measure.Angle(where))
			if margin := sequence.LeastMargin(at.Job.Cycle, v.Valve, there); margin < 0 {
				s.wrong("the reading of %s counts, and was made %v off its base circle", v.Name, -margin)
			}
		}
	}
	for _, c := range s.screens[1:] {
		if c.knows != s.screens[0].knows {
			s.wrong("%s knows %s, and %s %s", c.name, c.knows, s.screens[0].name, s.screens[0].knows)
		}
	}
	if troubles := s.st.Check().Troubles; len(troubles) > 0 {
		s.wrong("the data file: %v", troubles)
	}
}

// inArc says whether an angle lies in a range that may pass 720.
func inArc(at, from, to float64) bool {
	const slack = 1e-6
	for _, turn := range []float64{0, 720, -720} {
		if at+turn >= from-slack && at+turn <= to+slack {
			return true
		}
	}
	return false
}
