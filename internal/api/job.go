package api

import (
	"cmp"
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/job"
	"metronix/internal/seen"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// JobID is the path of a job.
type JobID struct {
	ID string `path:"id" minLength:"1" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
}

// jobRoutes are one job from its start to its signature: the board, starting and correcting, the state, and
// each thing that happens.
func (s *server) jobRoutes(a huma.API) {
	huma.Get(a, "/api/v1/jobs", s.jobs,
		summary("list-jobs", "Jobs as the board shows them, the last touched first"))
	huma.Put(a, "/api/v1/jobs/{id}/start", s.correctJob,
		summary("correct-job", "Correct what a job started from, before anything was read in it"),
		strictly[JobStart](a))
	huma.Put(a, "/api/v1/jobs/{id}/on-board", s.putOnBoard,
		summary("put-job-on-board", "Take a job off the board, or bring it back; nothing of it is lost"))
	huma.Post(a, "/api/v1/jobs", s.addJob, summary("start-job", "Start a job"), strictly[NewJob](a))
	huma.Get(a, "/api/v1/jobs/{id}", s.job, summary("get-job", "One job"))
	huma.Get(
		a,
		"/api/v1/jobs/{id}/opening",
		s.jobOpening,
		summary(
			"open-job",
			"All that a job's state follows from but the time, for a bench that judges without the program",
		),
	)
	huma.Post(a, "/api/v1/jobs/{id}/find", s.find,
		summary("find-crank", "Where the crank may stand from what is seen, and what to do from there; "+
			"nothing is stored"), strictly[FindQuestion](a))
	huma.Post(a, "/api/v1/jobs/{id}/happenings", s.happen,
		summary("add-happening", "Add what the mechanic did; answered when it is on disk"),
		strictly[wire.Happening](a))
}

// missing turns "not found" of what a request names into a fault at that place of the request.
func missing(err error, field, message string) error {
	if err == store.ErrNotFound {
		return located(http.StatusUnprocessableEntity, message,
			wire.Fault{Location: "body." + field, Message: message})
	}
	return fault(err)
}

// lookInput may say on which screen a job is looked at.
type lookInput struct {
	JobID
	OnScreen
}

// OnScreen is the screen that asks.
type OnScreen struct {
	Screen string `query:"screen" maxLength:"80" doc:"on which it is shown: what others have in hand on theirs is not what is next on it"`
}

// job is one job, whole.
func (s *server) job(ctx context.Context, in *lookInput) (*bodyOf[JobView], error) {
	return s.viewOn(ctx, in.Screen, in.ID)
}

// viewOf is what a job looks like on no screen in particular.
func (s *server) viewOf(ctx context.Context, id string) (*bodyOf[JobView], error) {
	return s.viewOn(ctx, "", id)
}

// viewOn puts together what the bench shows: the job's state as of now, what was learned of the hand that is
// at it, and what the vehicle's last finished job found.
func (s *server) viewOn(ctx context.Context, screen, id string) (*bodyOf[JobView], error) {
	out := &bodyOf[JobView]{}
	err := s.desk.with(ctx, id, func(o *openJob) error {
		shift, err := s.desk.learned(ctx, o)
		if err != nil {
			return err
		}
		r, j := o.record, o.state
		before, err := s.jobBefore(ctx, r)
		if err != nil {
			return err
		}
		out.Body = JobView{
			Vehicle:  vehicleView(r.Vehicle, j.Speaks),
			Counted:  wire.CountedOf(r.Vehicle.Counter, r.Meter),
			Mechanic: r.Mechanic, Reason: r.Reason,
			GaugeName: r.GaugeName, LeavesAre: r.LeavesAre, Variant: r.Sheet.Variant, Card: seen.CardOf(j.Card, j.Speaks), CardIndex: r.Card, HotCard: r.HotCard,
			CardReason: r.CardReason, OdometerWhy: r.OdometerWhy,
			Aim: string(cmp.Or(r.Aim, clearance.AimNominal)), AimReason: r.AimReason,
			Rule: string(cmp.Or(r.Rule, clearance.Workshop)), FeelMM: wire.MM(r.Feel),
			LockShift: seen.LockShiftOf(shift),
			CreatedAt: r.CreatedAt, OnBoard: !r.OffBoard, Correctable: !j.HasReadings(),
			Before: before, Engine: engineView(r.Sheet), State: seen.StateOf(s.desk.seenOn(screen, o, shift, s.clock())),
			Screens: s.desk.here.others(id, screen), Clear: s.desk.here.clearAt(id, o.newest(), s.clock()),
		}
		return nil
	})
	if err != nil {
		return nil, fault(err)
	}
	return out, nil
}

// happenInput is a happening, read by package wire.
type happenInput struct {
	JobID
	Changes bool   `query:"changes" doc:"answer with what changed only, where the screen knew the newest happening"`
	RawBody []byte `                                                                                                contentType:"application/json"`
}

// happen takes one thing that happened. A client that knows the newest state may ask for the changes alone,
// and gets the fields that differ; one that does not know it gets the state whole, never a part.
func (s *server) happen(ctx context.Context, in *happenInput) (*bodyOf[stateAnswer], error) {
	h, faults := wire.HappeningFrom(parsed(ctx), s.clock())
	if len(faults) > 0 {
		return nil, unreadable(faults)
	}
	h, err := s.entered(ctx, h)
	if err != nil {
		return nil, err
	}
	out := &bodyOf[stateAnswer]{}
	vehicle, finished := "", false
	var sheet *engine.Sheet
	err = s.desk.with(ctx, in.ID, func(o *openJob) error {
		var before *sent // taken before the act, which changes what views point to
		if in.Changes && h.Since == o.newest() {
			shift, err := s.desk.learned(ctx, o)
			if err != nil {
				return err
			}
			if before, err = sentOf(seen.StateOf(s.desk.seenOn(h.Screen, o, shift, o.touched()))); err != nil {
				return err
			}
		}
		if err := s.mayTurn(o, h); err != nil {
			return err
		}
		was := o.state.Crank
		if err := s.desk.happen(ctx, o, h); err != nil {
			return err
		}
		s.placed(o, was, h)
		shift, err := s.desk.learned(ctx, o)
		if err != nil {
			return err
		}
		out.Body.JobState = seen.StateOf(s.desk.seenOn(h.Screen, o, shift, s.clock()))
		if before != nil && o.newest() == h.ID {
			after, err := sentOf(out.Body.JobState)
			if err != nil {
				return err
			}
			if out.Body.changed, err = before.changes(after); err != nil {
				return err
			}
		}
		finished = o.state.Phase() == job.Done
		vehicle, sheet = o.record.Vehicle.ID, o.record.Sheet
		return nil
	})
	if teaches(h.Act) && err == nil {
		s.teach(ctx, vehicle, sheet, h.Act)
	}
	if err == nil && finished {
		err = s.remember(ctx, vehicle)
	}
	if err != nil {
		return nil, fault(err)
	}
	return out, nil
}
