package api

import (
	"context"
	"log/slog"
	"reflect"
	"slices"
	"strings"
	"time"

	"metronix/core/around"
	"metronix/core/engine"
	"metronix/core/job"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// JobBefore is a vehicle's last finished job before another one, on one glance.
type JobBefore struct {
	ID string    `json:"id"`
	At time.Time `json:"at"`
	wire.Counted
	By      string   `json:"by"`
	Outcome string   `json:"outcome"`
	Tight   int      `json:"tight"`
	Loose   int      `json:"loose"`
	Later   []string `json:"later"   doc:"findings left for later, and what the job was put off for"`
}

// jobBefore is the last finished job of the vehicle that was begun before this one; nil where there is none.
func (s *server) jobBefore(ctx context.Context, r store.Job) (*JobBefore, error) {
	visits, err := s.visits(ctx, r.Vehicle.ID)
	if err != nil {
		return nil, err
	}
	for _, v := range slices.Backward(visits) {
		if v.JobID != r.ID && !v.At.After(r.CreatedAt) {
			shown := visitView(v, r.Vehicle.Counter)
			return &JobBefore{
				v.JobID,
				v.At,
				shown.Counted,
				v.By,
				shown.Outcome,
				v.Tight,
				v.Loose,
				shown.Later,
			}, nil
		}
	}
	return nil, nil
}

// teaches says that an act tells something of the engine that its next job should know.
func teaches(act job.Act) bool {
	switch a := act.(type) {
	case job.Stripped:
		return true
	case job.TaskMarked:
		return a.Task == around.KindsStep && !a.Skip && !a.Back
	}
	return false
}

// teach takes over into its engine's sheet in the library what a job found out, for the next job: what came
// off, and that the kinds of its valves were confirmed. The job does not depend on it: where the sheet is
// another one by now, or changes at this moment, it is left as it is.
func (s *server) teach(ctx context.Context, vehicleID string, sheet *engine.Sheet, act job.Act) {
	st := s.store.With(ctx)
	v, err := st.Vehicle(vehicleID)
	if err != nil {
		return
	}
	e, err := st.Engine(v.EngineID)
	if err != nil || e.Sheet.Name != sheet.Name {
		return
	}
	taught := *e.Sheet
	switch a := act.(type) {
	case job.Stripped:
		known := func(s engine.StripStep) bool { return strings.EqualFold(s.Text, strings.TrimSpace(a.Text)) }
		if slices.ContainsFunc(e.Sheet.StripList, known) {
			return
		}
		a.StripStep.Text = strings.TrimSpace(a.Text)
		taught.StripList = append(slices.Clone(taught.StripList), a.StripStep)
	case job.TaskMarked:
		if !e.Sheet.KindsToConfirm || !reflect.DeepEqual(e.Sheet.Banks, sheet.Banks) {
			return
		}
		taught.KindsToConfirm = false
	}
	if len(engine.Check(&taught).Problems) > 0 {
		return // its list is as long as it may be
	}
	before := e.Sheet
	e.Sheet = &taught
	if err := st.ReplaceEngine(e, before); err != nil {
		slog.Warn("the engine's sheet did not take what was learned", "engine", e.ID, "error", err)
	}
}
