package api

import (
	"bytes"
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/people"
	"metronix/core/practice"
	"metronix/internal/report"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// learnerRoutes are how learners come on: one's own, and for a tutor everybody's.
func (s *server) learnerRoutes(a huma.API) {
	huma.Get(
		a,
		"/api/v1/learners",
		s.learners,
		summary("list-learners", "How everybody who practises comes on"),
	)
	huma.Get(
		a,
		"/api/v1/learners.csv",
		s.learnersCSV,
		summary("learners-csv", "The same as a CSV file, a line each"),
		gives("text/csv"),
	)
	huma.Get(a, "/api/v1/progress", s.progress, summary("get-progress", "How one comes on oneself"))
	huma.Put(a, "/api/v1/learners/{person}/skills/{skill}", s.putSkill,
		summary("put-skill", "Sign a skill off, or take that back"))
}

// Progress is how somebody comes on.
type Progress struct {
	Person  string      `json:"person"`
	Name    string      `json:"name" doc:"empty: nobody is set up"`
	Role    string      `json:"role"`
	Runs    int         `json:"runs" doc:"that have ended"`
	Correct int         `json:"correct" doc:"valves that ended right"`
	Valves  int         `json:"valves"`
	Clean   int         `json:"clean" doc:"runs with nothing to talk about"`
	Last    *time.Time  `json:"last,omitempty" doc:"when a run was begun last"`
	Asked   int         `json:"asked" doc:"questions answered in drills"`
	Right   int         `json:"right"`
	Due     int         `json:"due" doc:"items that are due or were never asked"`
	Skills  []SkillView `json:"skills"`
}

// SkillView is a skill, and who signed it off.
type SkillView struct {
	Skill string     `json:"skill"`
	Title string     `json:"title"`
	By    string     `json:"by" doc:"empty: nobody yet"`
	At    *time.Time `json:"at,omitempty"`
}

// comesOn reckons progress: of one person, or of everybody who practises.
func (s *server) comesOn(ctx context.Context, person string, everybody bool) ([]Progress, error) {
	const most = 10_000 // runs that are looked at
	st := s.store.With(ctx)
	runs, err := st.Practices(person, everybody, most)
	if err != nil {
		return nil, fault(err)
	}
	drills, err := st.Drills(person, everybody)
	if err != nil {
		return nil, fault(err)
	}
	skills, err := st.Skills(person, everybody)
	if err != nil {
		return nil, fault(err)
	}
	all, err := st.People()
	if err != nil {
		return nil, fault(err)
	}
	by := map[string]*Progress{}
	var order []string
	of := func(id string) *Progress {
		if by[id] == nil {
			p := &Progress{Person: id, Due: len(practice.Items())}
			for _, k := range practice.Skills() {
				p.Skills = append(p.Skills, SkillView{Skill: string(k), Title: k.Title()})
			}
			by[id], order = p, append(order, id)
		}
		return by[id]
	}
	for _, p := range all {
		if everybody && p.Here() && p.Role.May(people.Work) || p.ID == person {
			who := of(p.ID)
			who.Name, who.Role = p.Name, string(p.Role)
		}
	}
	if !everybody {
		of(person)
	}
	for _, r := range runs {
		p := of(r.Person)
		if p.Last == nil {
			p.Last = &r.Began
		}
		if r.Ended.IsZero() {
			continue
		}
		p.Runs++
		p.Correct += r.Came.Correct
		p.Valves += r.Came.Valves
		if r.Came.Faults == 0 {
			p.Clean++
		}
	}
	for _, d := range drills {
		p := of(d.Person)
		p.Asked += d.Asked
		p.Right += d.Right
		if d.Due.After(s.clock()) {
			p.Due--
		}
	}
	for _, k := range skills {
		for i := range of(k.Person).Skills {
			if v := &of(k.Person).Skills[i]; v.Skill == k.Skill {
				v.By, v.At = k.By, &k.At
			}
		}
	}
	list := []Progress{}
	for _, id := range order {
		list = append(list, *by[id])
	}
	return list, nil
}

func (s *server) learners(ctx context.Context, _ *struct{}) (*bodyOf[[]Progress], error) {
	list, err := s.comesOn(ctx, "", true)
	return &bodyOf[[]Progress]{list}, err
}

func (s *server) progress(ctx context.Context, _ *struct{}) (*bodyOf[Progress], error) {
	list, err := s.comesOn(ctx, visitorOf(ctx).id(), false)
	if err != nil {
		return nil, err
	}
	return &bodyOf[Progress]{list[0]}, nil
}

// learnersCSV is the class as a table.
func (s *server) learnersCSV(ctx context.Context, _ *struct{}) (*file, error) {
	list, err := s.comesOn(ctx, "", true)
	if err != nil {
		return nil, err
	}
	lines := make([]report.Learner, len(list))
	for i, p := range list {
		lines[i] = report.Learner{
			Name:        p.Name,
			Role:        p.Role,
			Runs:        p.Runs,
			Correct:     p.Correct,
			Valves:      p.Valves,
			Clean:       p.Clean,
			DrillsRight: p.Right,
			DrillsAsked: p.Asked,
			ItemsDue:    p.Due,
			SignedBy:    map[practice.Skill]string{},
		}
		for _, k := range p.Skills {
			lines[i].SignedBy[practice.Skill(k.Skill)] = k.By
		}
	}
	var text bytes.Buffer
	if err := report.WriteLearnersCSV(&text, lines); err != nil {
		return nil, fault(err)
	}
	return &file{"text/csv; charset=utf-8", "learners.csv", text.Bytes()}, nil
}

// putSkill signs a skill off.
func (s *server) putSkill(ctx context.Context, in *struct {
	Person string `path:"person" maxLength:"64"`
	Skill  string `path:"skill" maxLength:"20"`
	Body   struct {
		Signed bool `json:"signed" doc:"false: take it back"`
	}
}) (*bodyOf[Progress], error) {
	skill := practice.Skill(in.Skill)
	if !skill.Known() {
		return nil, fault(store.ErrNotFound)
	}
	v := visitorOf(ctx)
	if v.person != nil && v.person.ID == in.Person {
		say := "Nobody signs his own skill off: let another tutor do it."
		return nil, located(http.StatusConflict, say, wire.Fault{Location: "path.person", Message: say})
	}
	all, err := s.store.With(ctx).People()
	if err != nil {
		return nil, fault(err)
	}
	name := ""
	for _, p := range all {
		if p.ID == in.Person {
			name = p.Name
		}
	}
	if name == "" {
		return nil, fault(store.ErrNotFound)
	}
	now := s.clock()
	k := store.Skill{Person: in.Person, Skill: in.Skill, At: now}
	if in.Body.Signed {
		k.By = v.name()
	}
	if k.By == "" && in.Body.Signed {
		return nil, huma.Error409Conflict("A skill is signed off by somebody: set people up first.")
	}
	about := name + ": " + skill.Title()
	if !in.Body.Signed {
		about += ", taken back"
	}
	if err := s.store.With(ctx).PutSkill(k, v.noted(now, "put-skill", about)); err != nil {
		return nil, fault(err)
	}
	list, err := s.comesOn(ctx, in.Person, false)
	if err != nil {
		return nil, err
	}
	return &bodyOf[Progress]{list[0]}, nil
}
