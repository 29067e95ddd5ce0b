//go:build !race

package api_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"testing"

	"metronix/core/job"
)

// simCrew is who works at the screens, in every other run: a foreman and two mechanics, each with a tag. In
// the other runs nobody is set up.
var simCrew = []string{"June", "Tess", "Ivo"}

// setUpCrew sets them up in a template.
func setUpCrew(t *testing.T, d *door) {
	t.Helper()
	june := func(*http.Request) {}
	for i, name := range simCrew {
		role := "mechanic"
		if i == 0 {
			role = "foreman"
		}
		status, text := d.send("POST", "/api/v1/people",
			fmt.Sprintf(`{"id":%q,"name":%q,"role":%q,"tag":"tag of %s"}`, name, name, role, name), june)
		if status != http.StatusOK {
			t.Fatal(text)
		}
		if i == 0 {
			cookie := (&simulated{t: t, handler: d.http}).signedIn(name)
			june = func(r *http.Request) { r.Header.Set("Cookie", cookie) }
		}
	}
}

// signedIn signs somebody in, and gives what a browser of his sends along; empty: the program does not
// answer.
func (s *simulated) signedIn(name string) (cookie string) {
	_, _, header := s.request("POST", "/api/v1/session", []byte(`{"tag":"tag of `+name+`"}`), "")
	cookies := (&http.Response{Header: header}).Cookies()
	if len(cookies) == 0 {
		return ""
	}
	return cookies[0].Name + "=" + cookies[0].Value
}

// signs has somebody come to a screen, or leave it; whoever comes sees what others did there and have not
// sent.
func (c *simScreen) signs() {
	s := c.sim
	if !s.crewed || !c.line || s.handler == nil || s.away {
		return
	}
	if c.who != "" && s.chance.IntN(2) == 0 {
		s.says("%s: %s signs out", c.name, c.who)
		s.asked("DELETE", "/api/v1/session", nil, c.cookie)
		c.who, c.cookie = "", ""
		return
	}
	c.comes(simCrew[s.chance.IntN(len(simCrew))])
}

// comes signs somebody in at a screen.
func (c *simScreen) comes(name string) {
	if cookie := c.sim.signedIn(name); cookie != "" {
		c.sim.says("%s: %s comes", c.name, name)
		c.who, c.cookie, c.stale = name, cookie, true
	}
}

// anothers says that an entry was done by somebody else than who is there, and is not sent in his place.
func (c *simScreen) anothers(e *simEntry) bool {
	return c.sim.crewed && e.body["author"] != c.who && e.body["sent_by"] != c.who
}

// settles gets what another's entry waits for: its author comes, or a foreman takes it over.
func (c *simScreen) settles() {
	s := c.sim
	if !s.crewed || s.handler == nil {
		return
	}
	switch {
	case c.who == "":
		c.comes(simCrew[s.chance.IntN(len(simCrew))])
	case len(c.queue) == 0 || !c.anothers(c.queue[0]):
	case c.who == simCrew[0]:
		for _, e := range c.queue {
			if c.anothers(e) {
				e.body["sent_by"] = c.who
			}
		}
	case s.chance.IntN(2) == 0:
		c.comes(simCrew[0])
	default:
		c.comes(fmt.Sprint(c.queue[0].body["author"]))
	}
}

// authored says what is so of every entry: it is by who was signed in where it was done, and nobody but the
// foreman sent it for him.
func (s *simulated) authored(list []job.Happening) {
	if !s.crewed {
		return
	}
	for _, h := range list {
		if author, ours := s.authors[h.ID]; ours && (h.Author != author || h.SentBy != "" && h.SentBy != simCrew[0]) {
			s.wrong("%s was done by %s, and is stored as by %s, sent by %s", h.ID, author, h.Author, h.SentBy)
		}
	}
}

// lookedAt is a request of whoever holds the run together, as the foreman where there is one.
func (s *simulated) lookedAt(path string) []byte {
	status, text := s.asked("GET", path, nil, s.cookie)
	if status == http.StatusUnauthorized {
		s.cookie = s.signedIn(simCrew[0])
		_, text = s.asked("GET", path, nil, s.cookie)
	}
	if !json.Valid(text) || !slices.Contains([]int{http.StatusOK, http.StatusUnauthorized}, status) {
		s.wrong("%s is answered with %d: %s", path, status, text)
	}
	return text
}
