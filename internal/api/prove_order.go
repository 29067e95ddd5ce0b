package api

import (
	"context"
	"fmt"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/engine"
	"metronix/core/order"
	"metronix/core/sequence"
	"metronix/internal/wire"
)

// OrderBody is an order as somebody wrote it down, a line a stop.
type OrderBody struct {
	Text      string `json:"text"                maxLength:"4000" doc:"a line a stop: 4 rocks: I1 E1"`
	Direction string `json:"direction,omitempty"                  doc:"absent: running"               enum:"running,back"`
}

// ProvenOrder is that order held against the engine's sheet, valve by valve.
type ProvenOrder struct {
	Right    bool         `json:"right"               doc:"every valve is set once, where it is clear enough"`
	Says     string       `json:"says"                doc:"what came of it, in a sentence"`
	Required wire.Deg     `json:"required_margin_deg"`
	Turn     wire.Deg     `json:"turn_deg"            doc:"from the first stop to the last"`
	Stops    []ProvenStop `json:"stops"`
	Forgot   []string     `json:"forgot"              doc:"valves that no stop sets"`
	Twice    []string     `json:"twice"               doc:"valves that more than one stop sets"`
	Slips    []OrderSlip  `json:"slips"               doc:"lines that cannot be read: with any, nothing is proved"`
}

// ProvenStop is one line of it.
type ProvenStop struct {
	Line   int           `json:"line"      doc:"of the text, from 1"`
	Place  string        `json:"place"     doc:"where the crank stands, in words"`
	Crank  wire.Deg      `json:"crank_deg"`
	Turn   wire.Deg      `json:"turn_deg"  doc:"from the stop before"`
	Valves []ProvenValve `json:"valves"`
}

// ProvenValve is one valve at its stop.
type ProvenValve struct {
	Valve  string   `json:"valve"`
	Margin wire.Deg `json:"margin_deg" doc:"negative: it is open"`
	Short  wire.Deg `json:"short_deg"  doc:"0: it is clear enough"`
	Says   string   `json:"says"       doc:"what is wrong; empty: nothing"`
}

// OrderSlip is a line that cannot be read.
type OrderSlip struct {
	Line int    `json:"line"`
	Says string `json:"says"`
}

// orderOfEngine and orderOfJob ask for the sheet of the library or for a job's own.
type orderOfEngine struct {
	EngineID
	Body OrderBody
}

type orderOfJob struct {
	JobID
	Body OrderBody
}

func (s *server) orderRoutes(a huma.API) {
	huma.Post(
		a,
		"/api/v1/engines/{id}/prove-order",
		s.proveOfEngine,
		summary(
			"prove-order",
			"Whether an order, printed, circulated or remembered, is right for an engine; nothing "+
				"is stored",
		),
	)
	huma.Post(a, "/api/v1/jobs/{id}/prove-order", s.proveOfJob,
		summary("prove-job-order", "The same against the sheet that a job has"))
}

func (s *server) proveOfEngine(ctx context.Context, in *orderOfEngine) (*bodyOf[ProvenOrder], error) {
	e, err := s.store.With(ctx).Engine(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	return &bodyOf[ProvenOrder]{proven(e.Sheet, in.Body)}, nil
}

func (s *server) proveOfJob(ctx context.Context, in *orderOfJob) (out *bodyOf[ProvenOrder], err error) {
	err = s.desk.with(ctx, in.ID, func(o *openJob) error {
		out = &bodyOf[ProvenOrder]{proven(o.record.Sheet, in.Body)}
		return nil
	})
	if err != nil {
		return nil, fault(err)
	}
	return out, nil
}

// proven asks core/sequence, and words what came of it.
func proven(sheet *engine.Sheet, body OrderBody) ProvenOrder {
	p, slips := order.Prove(sheet, body.Text, sequence.Direction(body.Direction), nil)
	out := ProvenOrder{Right: p.Right(), Required: wire.Deg(p.Required), Turn: wire.Deg(p.Turn),
		Stops: []ProvenStop{}, Forgot: wire.List(p.Forgot), Twice: wire.List(p.Twice), Slips: []OrderSlip{}}
	for _, f := range slips {
		out.Slips = append(out.Slips, OrderSlip{f.Line, wire.Sentence(fmt.Errorf("%s", f.Says))})
	}
	short := 0
	for _, st := range p.Stops {
		stop := ProvenStop{Line: st.Line, Place: st.Place.Standing(), Crank: wire.Deg(st.Crank),
			Turn: wire.Deg(st.Turn), Valves: []ProvenValve{}}
		for _, v := range st.Valves {
			stop.Valves = append(
				stop.Valves,
				ProvenValve{v.Valve, wire.Deg(v.Margin), wire.Deg(v.Short), v.Says()},
			)
			if v.Short > 0 {
				short++
			}
		}
		out.Stops = append(out.Stops, stop)
	}
	out.Says = orderSays(p, len(slips), short)
	return out
}

// orderSays is what came of an order, the gravest first.
func orderSays(p order.Proof, slips, short int) string {
	var says []string
	switch {
	case slips > 0:
		return fmt.Sprintf("%s cannot be read.", counted(slips, "line"))
	case len(p.Stops) == 0:
		return "No stop is written yet."
	case p.Right():
		return fmt.Sprintf(
			"This order is right for this engine: every valve is set once, clear by at least %s.",
			p.Required,
		)
	}
	if short > 0 {
		says = append(says, counted(short, "valve")+map[bool]string{true: " is not clear where it is set",
			false: " are not clear where they are set"}[short == 1])
	}
	if len(p.Forgot) > 0 {
		says = append(says, "none of its stops sets "+strings.Join(p.Forgot, ", "))
	}
	if len(p.Twice) > 0 {
		says = append(says, strings.Join(p.Twice, ", ")+" set more than once")
	}
	return "This order is not right for this engine: " + strings.Join(says, "; ") + "."
}
