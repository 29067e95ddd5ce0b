package api

import (
	"context"
	"encoding/json"
	"errors"
	"math/rand/v2"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/engine"
	"metronix/core/practice"
	"metronix/internal/exercise"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// drillRoutes are questions of a minute: asked, answered, and asked again when they are due.
func (s *server) drillRoutes(a huma.API) {
	huma.Get(
		a,
		"/api/v1/drills",
		s.drills,
		summary("list-drills", "What drills ask, and how one stands with each"),
	)
	huma.Post(
		a,
		"/api/v1/drills",
		s.askDrill,
		summary("ask-drill", "Be asked one question: of an item, or of what is due first"),
	)
	huma.Post(
		a,
		"/api/v1/drills/{id}/answer",
		s.answerDrill,
		summary("answer-drill", "Answer a question; then its right answer is told"),
	)
}

// DrillView is one item, and how somebody stands with it.
type DrillView struct {
	Item  string     `json:"item"`
	Title string     `json:"title"`
	Due   *time.Time `json:"due,omitempty" doc:"absent: it was never asked"`
	Days  int        `json:"days" doc:"from its last answer to when it is due; 0: the same day"`
	Asked int        `json:"asked"`
	Right int        `json:"right"`
}

// drilled are all items as somebody stands with them, in the order in which they are learned.
func (s *server) drilled(ctx context.Context) (map[practice.Item]store.Drilled, error) {
	list, err := s.store.With(ctx).Drills(visitorOf(ctx).id(), false)
	if err != nil {
		return nil, fault(err)
	}
	known := map[practice.Item]store.Drilled{}
	for _, d := range list {
		known[d.Item] = d
	}
	return known, nil
}

func drillView(item practice.Item, d store.Drilled) DrillView {
	v := DrillView{Item: string(item), Title: item.Title(), Days: d.Days, Asked: d.Asked, Right: d.Right}
	if d.Asked > 0 {
		v.Due = &d.Due
	}
	return v
}

func (s *server) drills(ctx context.Context, _ *struct{}) (*bodyOf[[]DrillView], error) {
	known, err := s.drilled(ctx)
	if err != nil {
		return nil, err
	}
	list := []DrillView{}
	for _, item := range practice.Items() {
		list = append(list, drillView(item, known[item]))
	}
	return &bodyOf[[]DrillView]{list}, nil
}

// AskDrill asks for a question.
type AskDrill struct {
	ID   string `json:"id" minLength:"8" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
	Item string `json:"item,omitempty" maxLength:"20" doc:"empty: what is due first"`
}

// DrillQuestion is a question as it is asked.
type DrillQuestion struct {
	ID       string      `json:"id"`
	Item     string      `json:"item"`
	Title    string      `json:"title"`
	Says     string      `json:"says"`
	Choices  []string    `json:"choices"`
	CrankDeg *wire.Deg   `json:"crank_deg,omitempty" doc:"where the engine stands that is drawn beside it"`
	Valve    string      `json:"valve" doc:"that is pointed at; empty: none"`
	Pull     *float64    `json:"pull,omitempty" doc:"of the leaf that is slid in, as a hand feels it"`
	Drawn    *EngineView `json:"drawn,omitempty" doc:"the engine; absent: none is drawn"`
}

// keptQuestion is what is stored of a question: all of it, with its engine.
type keptQuestion struct {
	practice.Question
	Sheet json.RawMessage
}

func questionView(id string, k keptQuestion) (DrillQuestion, error) {
	q := DrillQuestion{
		ID:      id,
		Item:    string(k.Item),
		Title:   k.Item.Title(),
		Says:    k.Says,
		Choices: k.Choices,
		Valve:   k.Valve,
		Pull:    k.Pull,
	}
	if k.Crank != nil {
		sheet, faults := wire.ReadStoredSheet(k.Sheet)
		if len(faults) > 0 {
			return q, fault(store.ErrDamaged)
		}
		at, drawn := wire.Deg(*k.Crank), engineView(sheet)
		q.CrankDeg, q.Drawn = &at, &drawn
	}
	return q, nil
}

// dueFirst is the item that is asked next: what was due first, else what was never asked, in the order in
// which they are learned.
func dueFirst(known map[practice.Item]store.Drilled, now time.Time) practice.Item {
	items := practice.Items()
	first := slices.MinFunc(items, func(a, b practice.Item) int {
		at := func(i practice.Item) time.Time {
			switch d := known[i]; {
			case d.Asked == 0:
				return now // never asked: after what is overdue, before what is not due
			default:
				return d.Due
			}
		}
		return at(a).Compare(at(b))
	})
	return first
}

// askDrill asks. Sent again under the same id it is the same question.
func (s *server) askDrill(ctx context.Context, in *bodyOf[AskDrill]) (*bodyOf[DrillQuestion], error) {
	st, who := s.store.With(ctx), visitorOf(ctx).id()
	if q, err := st.Question(in.Body.ID); err == nil && q.Person == who {
		return asked(q)
	}
	known, err := s.drilled(ctx)
	if err != nil {
		return nil, err
	}
	item := practice.Item(in.Body.Item)
	if item == "" {
		item = dueFirst(known, s.clock())
	}
	if item.Title() == "" {
		say := "There is no such drill."
		return nil, located(
			http.StatusUnprocessableEntity,
			say,
			wire.Fault{Location: "body.item", Value: in.Body.Item, Message: say},
		)
	}
	kept, err := s.question(ctx, item, rand.Uint64())
	if err != nil {
		return nil, err
	}
	body, err := json.Marshal(kept)
	if err != nil {
		return nil, fault(err)
	}
	q := store.Question{
		ID:     in.Body.ID,
		Person: who,
		Item:   item,
		Body:   string(body),
		Asked:  s.clock(),
		Choice: -1,
	}
	if err := st.AddQuestion(q); err != nil {
		return nil, fault(err)
	}
	return asked(q)
}

func asked(q store.Question) (*bodyOf[DrillQuestion], error) {
	var kept keptQuestion
	if err := json.Unmarshal([]byte(q.Body), &kept); err != nil {
		return nil, fault(err)
	}
	v, err := questionView(q.ID, kept)
	return &bodyOf[DrillQuestion]{v}, err
}

// mostDrawn is how many valves are drawn beside a question: more cannot be told apart on a phone.
const mostDrawn = 16

// question makes one about an engine of the library of which the item asks something, or about the program's
// own four.
func (s *server) question(ctx context.Context, item practice.Item, seed uint64) (k keptQuestion, err error) {
	stored, _, err := s.store.With(ctx).Engines()
	if err != nil {
		return k, fault(err)
	}
	var sheets []*engine.Sheet
	for _, e := range stored {
		sheets = append(sheets, e.Sheet)
	}
	_, ours, err := exercise.Ours()
	if err != nil {
		return k, fault(err)
	}
	for _, x := range ours {
		if sheet, faults := wire.ReadStoredSheet(x.Sheet); len(faults) == 0 {
			sheets = append(sheets, sheet)
		}
	}
	for _, i := range rand.Perm(len(sheets)) {
		q, err := practice.Ask(item, sheets[i], seed)
		if errors.Is(err, practice.ErrNoQuestion) || q.Crank != nil && len(sheets[i].Valves()) > mostDrawn {
			continue
		}
		text, err := wire.WriteSheet(sheets[i])
		if err != nil {
			return k, fault(err)
		}
		return keptQuestion{q, text}, nil
	}
	return k, fault(practice.ErrNoQuestion)
}

// DrillAnswer is a choice.
type DrillAnswer struct {
	Choice int `json:"choice" minimum:"0" maximum:"20"`
}

// DrillAnswered is what was right, and when it is asked again.
type DrillAnswered struct {
	Right  bool      `json:"right"`
	Choice int       `json:"choice" doc:"the one that was made"`
	Answer int       `json:"answer" doc:"the right one"`
	Why    string    `json:"why"`
	Stands DrillView `json:"stands"`
}

// answerDrill takes an answer, once: sent again it is told what was told.
func (s *server) answerDrill(ctx context.Context, in *struct {
	DrillID
	Body DrillAnswer
}) (*bodyOf[DrillAnswered], error) {
	st, who := s.store.With(ctx), visitorOf(ctx).id()
	q, err := st.Question(in.ID)
	if err == nil && q.Person != who {
		err = store.ErrNotFound
	}
	if err != nil {
		return nil, fault(err)
	}
	var kept keptQuestion
	if err := json.Unmarshal([]byte(q.Body), &kept); err != nil {
		return nil, fault(err)
	}
	if in.Body.Choice >= len(kept.Choices) {
		say := "There is no such choice."
		return nil, located(
			http.StatusUnprocessableEntity,
			say,
			wire.Fault{Location: "body.choice", Value: in.Body.Choice, Message: say},
		)
	}
	known, err := s.drilled(ctx)
	if err != nil {
		return nil, err
	}
	d := known[q.Item]
	if q.Answered.IsZero() {
		q.Answered, q.Choice = s.clock(), in.Body.Choice
		q.Right = q.Choice == kept.Right
		quality := practice.Quality(q.Right, q.Answered.Sub(q.Asked))
		d.Person, d.Item = who, q.Item
		d.Repetition = d.After(quality)
		d.Due = d.AskAgain(quality, q.Answered)
		if d.Asked++; q.Right {
			d.Right++
		}
		if err := st.Answer(q, d); err != nil {
			return nil, fault(err)
		}
	}
	return &bodyOf[DrillAnswered]{
		DrillAnswered{q.Right, q.Choice, kept.Right, kept.Why, drillView(q.Item, d)},
	}, nil
}

// DrillID names a question.
type DrillID struct {
	ID string `path:"id" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
}
