package api

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// NewJob is a job to start.
type NewJob struct {
	ID string `json:"id" minLength:"8" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$" doc:"made by the client; starting it twice starts it once"`
	JobStart
}

// JobStart is what a job starts from.
type JobStart struct {
	VehicleID  string   `json:"vehicle_id" minLength:"1" maxLength:"64"`
	GaugeSetID string   `json:"gauge_set_id" minLength:"1" maxLength:"64"`
	Card       int      `json:"card" minimum:"0" maximum:"99" doc:"index of the clearance card on the engine's sheet"`
	HotCard    *int     `json:"hot_card,omitempty" minimum:"0" maximum:"99" doc:"card of the hot pass, where the first one is only a cold start"`
	CardReason string   `json:"card_reason,omitempty" maxLength:"200" doc:"why this card"`
	Aim        string   `json:"aim,omitempty" enum:",nominal,loose,upper"`
	AimReason  string   `json:"aim_reason,omitempty" maxLength:"200"`
	Rule       string   `json:"rule,omitempty" enum:",workshop,guarded,one_leaf"`
	FeelMM     *wire.MM `json:"feel_mm,omitempty" doc:"this mechanic's uncertainty of feel; absent: 0.005"`
	Variant    string   `json:"variant,omitempty" maxLength:"120" doc:"of the engine, where its sheet names some; empty: as the sheet says"`
	LeavesAre  string   `json:"leaves_are,omitempty" enum:",dry,oiled" doc:"how the leaves are felt; empty: not said"`
	Mechanic   string   `json:"mechanic" minLength:"1" maxLength:"100"`
	Reason     string   `json:"reason" maxLength:"200"`
	wire.CountedBody
	// a new instrument, or a slip the last time
	OdometerWhy string `json:"odometer_why,omitempty" maxLength:"200" doc:"why the counter shows less than it did before"`
}

// sameStart says whether a stored job was started by the same request.
func sameStart(a, b store.Job) bool {
	return a.Vehicle.ID == b.Vehicle.ID && a.Card == b.Card && a.HotCard == b.HotCard &&
		a.GaugeName == b.GaugeName && a.Mechanic == b.Mechanic &&
		a.Reason == b.Reason && a.Meter == b.Meter && a.Aim == b.Aim && a.Rule == b.Rule &&
		a.Feel == b.Feel && a.LeavesAre == b.LeavesAre && a.Sheet.Variant == b.Sheet.Variant
}

// sheetOf is the sheet that a job of a vehicle keeps: its engine's as it stands, with the vehicle's own cards
// after the sheet's.
func sheetOf(e store.Engine, v store.Vehicle) *engine.Sheet {
	sheet := *e.Sheet
	sheet.Clearances = slices.Concat(sheet.Clearances, v.Cards)
	return &sheet
}

// variantOf is the sheet of a variant that was chosen; of none, the sheet.
func variantOf(sheet *engine.Sheet, name string) (*engine.Sheet, error) {
	if name == "" {
		return sheet, nil
	}
	if as, ok := sheet.As(name); ok {
		return as, nil
	}
	message := fmt.Sprintf("%s has no variant %q. Choose one of its sheet, or none.", sheet.Name, name)
	return nil, located(http.StatusUnprocessableEntity, message,
		wire.Fault{Location: "body.variant", Value: name, Message: message})
}

// feelFaults is what is wrong with an uncertainty of feel.
func feelFaults(feel measure.Length) (faults wire.Faults) {
	if feel < 0 || feel > clearance.MaxUncertainty {
		faults.Add("body.feel_mm", wire.MM(feel), "The uncertainty of feel is 0 to 0.1 mm, commonly 0.005.")
	}
	return faults
}

// backwards refuses a counter that shows less than the vehicle's did before, where nobody says why. One of 0
// was not read.
func backwards(r store.Job, speaks measure.Units) error {
	v := r.Vehicle
	if r.Meter == 0 || r.Meter >= v.Meter || r.OdometerWhy != "" {
		return nil
	}
	return showsLess(v, r.Meter, speaks)
}

// showsLess refuses a counter that shows less than before, and says what to do.
func showsLess(v store.Vehicle, shown int, speaks measure.Units) error {
	counter, place := "odometer", "body.odometer_km"
	if v.Counter == measure.HourMeter {
		counter, place = "hour meter", "body.hours"
	}
	message := fmt.Sprintf("The %s of %s stood at %s last time, and this is %s. "+
		"Correct the slip, or say why "+
		"it shows less: a new instrument, or a slip the last time.", counter, v.Name,
		speaks.Run(v.Counter, float64(v.Meter)), speaks.Run(v.Counter, float64(shown)))
	return located(http.StatusUnprocessableEntity, message,
		wire.Fault{Location: place, Value: shown, Message: message})
}

// correctInput is the whole start of a job once more, put right.
type correctInput struct {
	JobID
	RawBody []byte `contentType:"application/json"`
}

// addJob starts a job. The same start sent again, because its answer was lost, is answered with the job there
// is.
func (s *server) addJob(ctx context.Context, in *rawInput) (*bodyOf[JobView], error) {
	body, err := readBody[NewJob](in.RawBody)
	if err != nil {
		return nil, err
	}
	record, err := s.recordOf(ctx, body)
	if err != nil {
		return nil, err
	}
	if err := backwards(record, speaksTo(ctx)); err != nil {
		return nil, err
	}
	if err := s.startJob(record, s.store.With(ctx).AddJob); err != nil {
		if errors.Is(err, store.ErrExists) {
			if there, err := s.store.With(ctx).Job(record.ID); err == nil && sameStart(there, record) {
				return s.viewOf(ctx, record.ID)
			}
		}
		return nil, fault(err)
	}
	s.desk.news.tell(change{job: record.ID})
	if err := s.noteMeter(ctx, record); err != nil {
		return nil, fault(err)
	}
	return s.viewOf(ctx, record.ID)
}

// startJob works a job out from what it starts with before that is stored, so that none is ever stored which
// could not be opened.
func (s *server) startJob(record store.Job, put func(store.Job, store.Derived) error) error {
	setup, err := startOf(record).Setup()
	if err != nil {
		return err
	}
	j, err := job.New(setup)
	if err != nil {
		return err
	}
	return put(record, derivedOf(record, j, record.CreatedAt))
}

// recordOf checks what a job starts from.
func (s *server) recordOf(ctx context.Context, n NewJob) (store.Job, error) {
	st := s.store.With(ctx)
	vehicle, err := st.Vehicle(n.VehicleID)
	if err != nil {
		return store.Job{}, missing(err, "vehicle_id", "This vehicle is not stored.")
	}
	set, err := st.GaugeSet(n.GaugeSetID)
	if err != nil {
		return store.Job{}, missing(err, "gauge_set_id", "This gauge set is not stored.")
	}
	if vehicle.Damaged != "" {
		return store.Job{}, located(http.StatusConflict, vehicle.Name+": "+vehicle.Damaged,
			wire.Fault{Location: "body.vehicle_id", Value: vehicle.ID, Message: vehicle.Damaged})
	}
	if faults := setFaults(set); len(faults) > 0 {
		return store.Job{}, located(http.StatusUnprocessableEntity, "This gauge set cannot be used: "+
			"correct it first.", faults...)
	}
	stored, err := st.Engine(vehicle.EngineID)
	if err != nil {
		return store.Job{}, fault(err)
	}
	sheet, err := variantOf(sheetOf(stored, vehicle), n.Variant)
	if err != nil {
		return store.Job{}, err
	}
	hot := -1
	if n.HotCard != nil {
		hot = *n.HotCard
	}
	if max(n.Card, hot) >= len(sheet.Clearances) {
		return store.Job{}, located(http.StatusUnprocessableEntity, "There is no such clearance card.",
			wire.Fault{Location: "body.card", Value: n.Card,
				Message: fmt.Sprintf("This engine's sheet has %s. Add one to the sheet first.",
					counted(len(sheet.Clearances), "clearance card"))})
	}
	for _, i := range []int{n.Card, hot} {
		if i < 0 || sheet.Clearances[i].Distrusted == "" {
			continue
		}
		message := fmt.Sprintf("The figures of %s are not to be used: %s. Choose another card.",
			sheet.Clearances[i].Source, sheet.Clearances[i].Distrusted)
		return store.Job{}, located(http.StatusUnprocessableEntity, message,
			wire.Fault{Location: "body.card", Value: i, Message: message})
	}
	feel := clearance.DefaultFeel
	if n.FeelMM != nil {
		feel = measure.Length(*n.FeelMM)
	}
	if faults := feelFaults(feel); len(faults) > 0 {
		return store.Job{}, located(http.StatusUnprocessableEntity, "This cannot be a feel.", faults...)
	}
	shown, err := meterOf(n.CountedBody, vehicle.Counter)
	if err != nil {
		return store.Job{}, err
	}
	return store.Job{ID: n.ID, Vehicle: vehicle, Sheet: sheet, Card: n.Card, HotCard: hot,
		CardReason: strings.TrimSpace(n.CardReason),
		Aim:        clearance.Aim(n.Aim), AimReason: strings.TrimSpace(n.AimReason),
		Rule: clearance.Rule(n.Rule), Feel: feel,
		GaugeName: set.Name, Leaves: gauge.Owned(set.Items), LeavesAre: n.LeavesAre,
		Mechanic: strings.TrimSpace(n.Mechanic), Reason: strings.TrimSpace(n.Reason),
		Meter: shown, OdometerWhy: strings.TrimSpace(n.OdometerWhy), CreatedAt: s.clock()}, nil
}

// noteMeter keeps with the vehicle what its counter showed at the start of a job: how far it has gone,
// or, where it shows less for a reason, that.
func (s *server) noteMeter(ctx context.Context, r store.Job) error {
	if r.OdometerWhy != "" && r.Meter > 0 {
		return s.store.With(ctx).SetMeter(r.Vehicle.ID, r.Meter)
	}
	return s.store.With(ctx).RaiseMeter(r.Vehicle.ID, r.Meter)
}

// correctJob changes what a job started from, before anything was read in it.
func (s *server) correctJob(ctx context.Context, in *correctInput) (*bodyOf[JobView], error) {
	body, err := readBody[JobStart](in.RawBody)
	if err != nil {
		return nil, err
	}
	record, err := s.recordOf(ctx, NewJob{ID: in.ID, JobStart: body})
	if err != nil {
		return nil, err
	}
	own := false
	err = s.desk.with(ctx, in.ID, func(o *openJob) error {
		if o.state.HasReadings() {
			return &job.Refusal{Field: "id",
				Message: "Something was read in this job. What it was read by is not changed any more: " +
					"start a new job."}
		}
		record.CreatedAt, record.OffBoard = o.record.CreatedAt, o.record.OffBoard
		// what this job's own start said may be a slip; what was known before it counts
		if own = o.record.Vehicle.ID == record.Vehicle.ID &&
			o.record.Meter == record.Vehicle.Meter; !own {
			if err := backwards(record, speaksTo(ctx)); err != nil {
				return err
			}
		}
		setup, err := startOf(record).Setup()
		if err != nil {
			return err
		}
		state, err := job.Replay(setup, o.list.Happenings)
		if err != nil {
			return &job.Refusal{Field: "vehicle_id",
				Message: "What was done in this job so far does not fit this: " + err.Error() +
					" Take it back first."}
		}
		derived := (&openJob{record: record, list: o.list, state: state}).derived()
		o.state = nil // to be read again, with its checksums
		s.desk.forget()
		return s.store.With(ctx).CorrectJob(record, derived)
	})
	if err != nil {
		return nil, fault(err)
	}
	s.desk.news.tell(change{job: in.ID})
	if own && record.Meter > 0 {
		err = s.store.With(ctx).SetMeter(record.Vehicle.ID, record.Meter)
	} else {
		err = s.noteMeter(ctx, record)
	}
	if err != nil {
		return nil, fault(err)
	}
	return s.viewOf(ctx, in.ID)
}
