package seen

import (
	"cmp"
	"slices"
	"time"

	"metronix/core/adjust"
	"metronix/core/bench"
	"metronix/core/job"
	"metronix/core/rehearse"
	"metronix/internal/wire"
)

// JobState is a job computed from its happenings.
type JobState struct {
	ID            string        `json:"id"`
	Phase         string        `json:"phase" enum:"choose_way,prepare,as_found,adjust,verify,sign,await_hot,done"`
	Now           Now           `json:"now"`
	Plan          *PlanView     `json:"plan,omitempty"`
	Round         string        `json:"round" enum:"set_as_you_go,read_first,read_only,free_first" doc:"how the engine is gone round"`
	Check         string        `json:"check" enum:"all,set_ones,none" doc:"which valves are checked after two turns"`
	KindFirst     string        `json:"one_kind_first" enum:"both,exhaust,intake"`
	CheckTurns    int           `json:"check_turns" doc:"turns of the crank before the check round"`
	Scope         []string      `json:"scope,omitempty" doc:"the valves of this job; absent: all"`
	Locking       string        `json:"locking" enum:"one_go,nip_then_torque"`
	Aiming        string        `json:"aiming" enum:"leave_in,all_to_aim"`
	BackReason    string        `json:"back_reason" doc:"why the crank is turned back though the sheet does not allow it; empty: it is not"`
	ColdBy        string        `json:"cold_by" doc:"how it was judged cold without a thermometer; empty: it was not"`
	Prefer        string        `json:"shims_prefer" enum:"fewest_bought,nearest_aim" doc:"what the choice of shims is after first"`
	CamsOut       bool          `json:"cams_out" doc:"every shim can be reached, wherever the crank stands"`
	HotBy         string        `json:"hot_by" doc:"how it was judged hot without a thermometer; empty: it was not"`
	ColdWasBy     string        `json:"cold_pass_by" doc:"how the provisional cold pass was judged cold without one"`
	Outcome       string        `json:"outcome" doc:"what a signed job came to: what it was put off for, or that nothing was set; empty: something was"`
	Rounds        []string      `json:"rounds" enum:"set_as_you_go,read_first,read_only,free_first" doc:"those of this engine, the usual one first"`
	UsualCheck    string        `json:"usual_check" enum:"all,set_ones,none"`
	CrankDeg      *wire.Deg     `json:"crank_deg" nullable:"true"`
	Place         *wire.Arc     `json:"place,omitempty" doc:"where the crank may stand; absent where it is not known"`
	Stop          int           `json:"stop"`
	CrankBy       string        `json:"crank_by" doc:"the screen on which the crank was moved last; empty: it did not say, or it was not moved"`
	MayTake       bool          `json:"may_take" doc:"any valve may be taken up now, whether it stands clear or not"`
	Valves        []ValveState  `json:"valves"`
	Partial       bool          `json:"partial,omitempty" doc:"changes were asked for: fields and valves that did not change are left out"`
	Gone          []string      `json:"gone,omitempty" doc:"with partial: the fields that are there no more"`
	Done          int           `json:"done"`
	Total         int           `json:"total"`
	Finished      []int         `json:"finished" doc:"the stops at which nothing waits any more"`
	Undo          string        `json:"undo" doc:"the happening that can be taken back; empty: none"`
	UndoKind      string        `json:"undo_kind" doc:"what that was"`
	UndoValve     string        `json:"undo_valve"`
	Newest        string        `json:"newest" doc:"the id of the newest happening, to be sent back as seen"`
	Clock         time.Time     `json:"clock" doc:"the program's clock"`
	QuietSince    *time.Time    `json:"quiet_since,omitempty" doc:"since when nothing was entered, where the crank has to be confirmed because of it"`
	WorthChecking []string      `json:"worth_checking" doc:"valves that fell back twice while locked, where no check by turning was chosen"`
	Unanswered    []string      `json:"unanswered" doc:"valves found out of their limits that nobody has decided about: signing asks for each"`
	Closed        string        `json:"closed" doc:"why the temperature has to be taken again; empty: it has not"`
	Overrides     []Override    `json:"overrides" doc:"every time the temperature gate was passed all the same"`
	Happenings    int           `json:"happenings"`
	EngineC       *wire.Celsius `json:"engine_c" nullable:"true"`
	AmbientC      *wire.Celsius `json:"ambient_c" nullable:"true"`
	Override      string        `json:"override" doc:"why the temperature gate was passed all the same; empty: it was not"`
	HotAhead      string        `json:"hot_forecast" doc:"when the last valve of the hot pass ahead comes, at this mechanic's pace; empty: none is ahead"`
	HotUntil      *time.Time    `json:"hot_until,omitempty" doc:"until when hot readings hold"`
	StoppedAt     *time.Time    `json:"stopped_at,omitempty" doc:"when the engine was shut off, of a hot pass; absent: not said"`
	HotClock      *HotClock     `json:"hot_clock,omitempty" doc:"the same, with the stops ahead"`
	OwnShiftMM    wire.MM       `json:"own_shift_mm" doc:"what locking does to a gap by the mechanic's own word; 0: the screw is held still"`
	Readings      []HeatReading `json:"temperatures"`
	Cooling       *Cooling      `json:"cooling,omitempty" doc:"absent with fewer than two falling readings, and for a hot card"`
	GateC         *wire.Celsius `json:"gate_c,omitempty" doc:"the temperature a cold card waits for; absent for a hot one"`
	Card          Card          `json:"card" doc:"of the present pass"`
	Cold          *Signed       `json:"cold,omitempty" doc:"who signed the provisional cold pass"`
	SignedBy      string        `json:"signed_by"`
	SignedAt      *time.Time    `json:"signed_at"`
	Around
}

// Override is a temperature gate that was passed all the same.
type Override struct {
	Reason  string        `json:"reason"`
	EngineC *wire.Celsius `json:"engine_c" nullable:"true" doc:"null: nobody measured it"`
	Hot     bool          `json:"hot" doc:"in the hot pass"`
	At      time.Time     `json:"at"`
}

// At is what a job is looked at with: all that its state follows from.
type At struct {
	ID    string
	Job   *job.Job
	List  []job.Happening // that the job is played from
	Shift adjust.Shift    // what was learned of the hands that are at it
	Now   time.Time

	Screen string   // on which it is looked at; empty: it does not say
	Others []string // the screens on which others are at it
}

// StateOf is a job as it stands at a time.
func StateOf(at At) JobState {
	now := at.Now
	j := at.Job.AsOf(now).SeenFrom(at.Screen, at.Others)
	advice := bench.Advise(j, at.Shift)
	s := JobState{
		ID:            at.ID,
		Phase:         string(j.Phase()),
		Stop:          j.Stop,
		CrankBy:       j.MovedOn(),
		MayTake:       j.MayTake(),
		Valves:        []ValveState{},
		Undo:          j.CanUndo(),
		Happenings:    len(at.List),
		SignedBy:      j.SignedBy,
		Override:      j.Override,
		Overrides:     []Override{},
		Cooling:       coolingOf(j),
		Readings:      []HeatReading{},
		Card:          CardOf(j.Card, j.Speaks),
		Clock:         now.UTC(),
		Closed:        j.Closed,
		Prefer:        string(cmp.Or(j.Prefer, adjust.FewestBought)),
		CamsOut:       j.CamsOut,
		WorthChecking: names(j.WorthChecking()),
		Unanswered:    names(j.Unanswered()),
		Round:         string(cmp.Or(j.Going, job.ReadFirst)),
		Check:         string(j.Checks()),
		KindFirst:     string(cmp.Or(j.KindFirst, job.BothKinds)),
		CheckTurns:    j.TurnsToCheck(),
		Scope:         j.Scope,
		Locking:       string(cmp.Or(j.Locking, job.InOneGo)),
		Aiming: string(
			cmp.Or(j.ToAim, job.LeaveIn),
		),
		Outcome:    j.Outcome().String(),
		BackReason: j.BackReason,
		HotClock:   hotClockOf(j),
		Around:     aroundOf(j, now),
		Rounds:     wire.Names(j.Rounds()),
		UsualCheck: string(j.UsualCheck()),
	}
	if !j.StoppedAt.IsZero() {
		s.StoppedAt = &j.StoppedAt
	}
	if j.OwnShift != nil {
		s.OwnShiftMM = wire.MM(*j.OwnShift)
	}
	if n := len(at.List); n > 0 {
		s.Newest = at.List[n-1].ID
	}
	if i := slices.IndexFunc(at.List, func(h job.Happening) bool { return h.ID == s.Undo }); i >= 0 {
		s.UndoKind, s.UndoValve = string(at.List[i].Act.Kind()), at.List[i].Act.On()
	}
	if since, ok := j.ToConfirm(); ok {
		s.QuietSince = &since
	}
	for _, v := range j.Overrides {
		s.Overrides = append(s.Overrides, Override{v.Reason, (*wire.Celsius)(v.EngineC), v.Hot, v.At})
	}
	s.Done, s.Total = j.Progress()
	s.Finished = wire.List(j.Finished())
	s.Now = nowOf(j, advice, s.UndoValve)
	for _, t := range j.Temperatures {
		s.Readings = append(s.Readings, HeatReading{t.At, wire.Celsius(t.EngineC), wire.Celsius(t.AmbientC)})
		if gate, ok := j.GateC(t.AmbientC); ok {
			s.GateC = (*wire.Celsius)(&gate)
		}
	}
	if f, ok := rehearse.Forecast(j); ok {
		s.HotAhead = f.String()
	}
	if until, ok := j.HotUntil(); ok {
		s.HotUntil = &until
	}
	if j.Cold != nil {
		s.Cold = &Signed{j.Cold.By, j.Cold.At}
	}
	if j.Way.School != "" {
		s.Plan = new(PlanOf(j.Plan, j.Sheet))
	}
	if j.Known() {
		s.Place = new(wire.ArcOf(j.Place))
	}
	if j.Sure() {
		s.CrankDeg = (*wire.Deg)(&j.Crank.At)
	}
	if j.Cold != nil && j.ColdHeat.Judged != nil {
		s.ColdWasBy = j.ColdHeat.Judged.String()
	}
	switch {
	case j.Judged != nil:
		s.ColdBy, s.AmbientC = j.Judged.String(), (*wire.Celsius)(j.Judged.AmbientC)
	case j.JudgedHot != nil:
		s.HotBy = j.JudgedHot.String()
	case j.Prepared:
		s.EngineC, s.AmbientC = (*wire.Celsius)(&j.EngineC), (*wire.Celsius)(&j.AmbientC)
	}
	if j.SignedBy != "" {
		s.SignedAt = &j.SignedAt
	}
	for _, v := range j.Valves {
		s.Valves = append(s.Valves, valveOf(j, v, advice))
	}
	return s
}

// names are those of valves.
func names(list []*job.ValveState) []string {
	out := []string{}
	for _, v := range list {
		out = append(out, v.Name)
	}
	return out
}
