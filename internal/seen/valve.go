package seen

import (
	"time"

	"metronix/core/bench"
	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/internal/wire"
)

// Limits is what a gap must lie in.
type Limits struct {
	LowerMM     wire.MM `json:"lower_mm"`
	UpperMM     wire.MM `json:"upper_mm"`
	NominalMM   wire.MM `json:"nominal_mm"`
	NominalOnly bool    `json:"nominal_only"`
	InThou      bool    `json:"in_thou" doc:"the source states it in inches alone: it is spoken of in thousandths"`
}

// Instruction is how to turn the crank, and until what is seen.
type Instruction struct {
	How   string `json:"how"`
	Until string `json:"until"`
}

// Judgement is a verdict and what it came from.
type Judgement struct {
	wire.Judged
	TryNext  []wire.MM `json:"try_next_mm" doc:"empty: settled, or no owned leaf settles it"`
	TryName  string    `json:"try_next" doc:"the same as stamped on the leaves"`
	Figure   Figure    `json:"figure" doc:"what is known of the gap, for showing"`
	Why      string    `json:"why"`
	Conflict string    `json:"conflict"`
}

// Figure is what is known of a gap: at a figure, above or below one, or between two; nothing where nothing is
// known.
type Figure struct {
	Kind string   `json:"kind" enum:",at,above,below,between,looser,tighter"`
	MM   *wire.MM `json:"mm,omitempty"`
	ToMM *wire.MM `json:"to_mm,omitempty" doc:"the upper end of between"`
}

// Reading is one leaf or stack tried.
type Reading struct {
	wire.Laid
	Feel          string   `json:"feel" enum:",free,drag,drag_light,drag_firm,wont_go"`
	DialMM        *wire.MM `json:"dial_mm,omitempty"`
	UncertaintyMM *wire.MM `json:"uncertainty_mm,omitempty" doc:"of a dial reading"`
}

// Result is readings that were kept.
type Result struct {
	Judgement Judgement `json:"judgement"`
	Readings  []Reading `json:"readings"`
	At        time.Time `json:"at"`
	Told      bool      `json:"told,omitempty" doc:"it was told in one with the setting and the locking"`
	Stale     bool      `json:"stale" doc:"a hot reading taken too late"`
	Void      string    `json:"void,omitempty" doc:"why it does not count: a hot reading came too late, or the crank had been moved by then"`
	OffAim    bool      `json:"off_aim" doc:"it is in, and the aim lies outside what its gap may be"`
	Doubtful  bool      `json:"time_doubtful" doc:"the time it was made at could not be right, and is when it arrived"`
}

// EyeSign is something that may be seen, with its words: "cylinder 2 is rocking".
type EyeSign struct {
	wire.Sighting
	Says string `json:"says"`
}

// ValveState is one valve in the job.
type ValveState struct {
	Name       string     `json:"name"`
	Called     string     `json:"called" doc:"how it is spoken of: by its number in the row too, where the sequence counts by it"`
	Limits     Limits     `json:"limits"`
	Settable   bool       `json:"settable"`
	Play       string     `json:"play" enum:",none,some,much" doc:"felt by hand before it was read; empty: nobody felt"`
	MayFeel    bool       `json:"may_feel" doc:"its play may be felt by hand: it is clear here and not read yet"`
	ClearInDeg *wire.Deg  `json:"clear_in_deg" nullable:"true" doc:"how far the crank is turned until it is clear; null: not known"`
	TakenBy    []EyeSign  `json:"taken_by" doc:"what of it or of a cylinder lets it be taken out of turn, each seen alone"`
	MarginDeg  *wire.Deg  `json:"margin_deg" nullable:"true" doc:"null where the crank's place is not known"`
	Pending    bool       `json:"pending" doc:"waits in the present phase"`
	Stage      string     `json:"stage" enum:",nut_loose,nut_tight"`
	Round      []Reading  `json:"round"`
	Judgement  *Judgement `json:"judgement,omitempty" doc:"of the readings not kept yet; absent where there are none"`
	AsFound    *Result    `json:"as_found,omitempty"`
	Last       *Result    `json:"last,omitempty"`
	Adjusted   int        `json:"adjusted"`
	Verified   bool       `json:"verified"`
	Done       string     `json:"done" doc:"what was done to it in this job, in words"`
	Left       string     `json:"left" doc:"why it stays out of limits; empty: it does not"`
	Needs      bool       `json:"needs" doc:"read, and not in"`
	MaySet     bool       `json:"may_set" doc:"setting may follow on what was found of it, here and now"`
	MayThough  bool       `json:"may_set_though" doc:"it is in, and may be set here and now for a reason"`
	AimMM      wire.MM    `json:"aim_mm" doc:"the gap to set"`
	PreLockMM  *wire.MM   `json:"pre_lock_mm,omitempty" doc:"the gap to set with the nut loose, where this mechanic's shift is known"`
	SetByMM    []wire.MM  `json:"set_by_mm" doc:"the leaf or stack to set by, with the nut loose; only for a valve that needs it or may be set"`
	SetAngled  []bool     `json:"set_by_angled"`
	SetBy      string     `json:"set_by" doc:"the same as stamped on the leaves; the gap to set where none is owned"`
	WithNut    string     `json:"with_nut" doc:"what locking does to its gap in these hands, and what to set for that; empty: it is not known"`
	NutSays    string     `json:"nut_says" doc:"what is known of its lock nut, and what to do about it; empty: nothing, or it is allowed for"`
	Caution    string     `json:"caution" doc:"what to mind before it is worked on here; empty: nothing"`
	Nipped     bool       `json:"nipped" doc:"its nut is nipped, and still to be tightened to its torque"`
	LockedBy   string     `json:"locked_by" enum:",torque,feel" doc:"how its nut was tightened last; empty: not said"`
	SetFor     string     `json:"set_for" doc:"why it was set though it was in; empty: it was not"`
	Freed      bool       `json:"freed" doc:"its adjuster was slackened before any was set: nothing was found"`
	Outside    bool       `json:"outside" doc:"it is not of this job"`
	Out        bool       `json:"out" doc:"its shim was taken out for another valve"`
	MadeThere  bool       `json:"made_there" doc:"its readings were made where the crank stands no more"`
	Cross      *Cross     `json:"cross_check,omitempty" doc:"the leaves that would prove a drag; absent where there is nothing to prove, or no such leaves"`
	Screw      *Screw     `json:"screw,omitempty" doc:"how to turn the adjuster to the aim; absent where it cannot be said"`
	ShimMM     wire.MM    `json:"shim_mm" doc:"the shim that is fitted; 0: not known"`
	StampedMM  wire.MM    `json:"shim_stamped_mm" doc:"what stands on it, where a micrometer says another; 0: not said"`
	ColdFound  *Result    `json:"cold_found,omitempty" doc:"of the provisional cold pass"`
	ColdLeft   *Result    `json:"cold_left,omitempty"`
	ColdWhy    string     `json:"cold_reason" doc:"why it was left out of limits in the cold pass; empty: it was not"`
}

// Screw is how far to turn an adjuster.
type Screw struct {
	TurnDeg   *float64 `json:"turn_deg" doc:"of the screw or nut; null: by feel"`
	Direction string   `json:"direction" enum:"close,open"`
	Rotation  string   `json:"rotation" enum:",clockwise,anticlockwise" doc:"seen from the driver's end; empty: by feel"`
	Travel    string   `json:"travel" enum:",in,out" doc:"which way the screw or nut goes"`
	ByFeel    bool     `json:"by_feel"`
	Why       string   `json:"why"`
}

// Rung is one leaf of the ladder.
type Rung struct {
	wire.Laid
	ThicknessMM wire.MM `json:"thickness_mm"`
	Near        bool    `json:"near" doc:"about the limits, tried, advised, or to set by: shown first"`
	InWindow    bool    `json:"in_window"`
	Nominal     bool    `json:"nominal" doc:"the leaf to set by"`
	First       bool    `json:"first" doc:"the one to begin with: it settles most valves at once"`
	Other       string  `json:"other" enum:",intake,exhaust" doc:"a leaf of the other kind of valve: in that one's limits and not in this one's"`
}

func LimitsOf(l clearance.Limits) Limits {
	return Limits{wire.MM(l.Window.Lower), wire.MM(l.Window.Upper), wire.MM(l.Nominal), l.NominalOnly,
		l.InThou}
}

// CardOf resolves a card that belongs to a checked sheet.
func CardOf(c clearance.Card, speaks measure.Units) Card {
	intake, _ := c.Intake.Limits()
	exhaust, _ := c.Exhaust.Limits()
	return Card{Source: c.Source, State: string(c.State), Date: c.Date, Remark: c.Remark,
		StoneCold: c.StoneCold, Holds: c.Holds(speaks), Distrusted: c.Distrusted,
		Intake: LimitsOf(intake.In(speaks.Length)), Exhaust: LimitsOf(exhaust.In(speaks.Length)),
		Differences: []CardDifference{}}
}

func judgementOf(j clearance.Judgement, readings []clearance.Reading, unit measure.LengthUnit) Judgement {
	known := j.Known()
	figure := Figure{Kind: string(known.Kind)}
	if known.Kind != clearance.Unknown {
		figure.MM = (*wire.MM)(&known.At)
	}
	if known.Kind == clearance.Between {
		figure.ToMM = (*wire.MM)(&known.To)
	}
	next := wire.Millimetres(j.TryNext.Marked())
	return Judgement{wire.JudgedOf(j), next, j.TryNext.String(), figure, j.Why(readings, unit), j.Conflict}
}

func readingsOf(list []clearance.Reading) []Reading {
	out := make([]Reading, len(list))
	for i, r := range list {
		out[i] = Reading{Laid: wire.LaidOf(r.Stack), Feel: string(r.Feel)}
		if r.Dial != nil {
			out[i].DialMM, out[i].UncertaintyMM = (*wire.MM)(&r.Dial.Gap), (*wire.MM)(&r.Dial.Uncertainty)
		}
	}
	return out
}

func resultOf(r *job.Result, unit measure.LengthUnit) *Result {
	if r == nil {
		return nil
	}
	return &Result{judgementOf(r.Judgement, r.Readings, unit),
		readingsOf(r.Readings), r.At, r.Told, r.Stale, r.Void(), r.OffAim,
		r.TimeDoubtful}
}

func valveOf(j *job.Job, v *job.ValveState, advice *bench.Advice) ValveState {
	unit := j.Speaks.Length
	out := ValveState{
		Name:      v.Name,
		Called:    advice.Called(v),
		Limits:    LimitsOf(v.Limits.In(unit)),
		Settable:  j.Settable(v),
		Pending:   j.Pending(v),
		Stage:     string(v.Stage),
		Round:     readingsOf(v.Round),
		AsFound:   resultOf(v.AsFound, unit),
		Last:      resultOf(v.Last, unit),
		Adjusted:  v.Adjustments,
		Verified:  v.Verified,
		Done:      record.Of(j).Done(v),
		Left:      v.LeaveReason,
		Needs:     v.Needs(),
		MaySet:    j.MaySet(v),
		MayThough: j.MaySetThough(v),
		AimMM:     wire.MM(j.AimOf(v)),
		SetByMM:   []wire.MM{},
		TakenBy:   []EyeSign{},
		SetAngled: []bool{},
		Nipped:    v.Nipped,
		LockedBy:  string(v.LockedBy),
		SetFor:    v.SetFor,
		Freed:     v.Freed,
		Outside:   v.Outside,
		Play:      string(v.Play),
		MayFeel:   j.MayFeel(v),
		Out:       v.Out,
		MadeThere: v.ReadThere(),
		ColdWhy:   v.ColdReason,
		ShimMM:    wire.MM(v.Shim),
		StampedMM: wire.MM(v.Stamped),
		Caution:   j.Caution(v),
		ColdFound: resultOf(v.ColdFound, unit),
		ColdLeft:  resultOf(v.ColdLeft, unit),
	}
	if pre, ok := advice.PreLock(v); ok {
		out.PreLockMM = (*wire.MM)(&pre)
	}
	if in, ok := j.ClearIn(v); ok {
		out.ClearInDeg = (*wire.Deg)(&in)
	}
	for _, s := range j.TakenBy(v) {
		out.TakenBy = append(out.TakenBy, EyeSign{wire.SightingOf(s), s.Standing()})
	}
	if j.Known() {
		out.MarginDeg = new(wire.Deg(j.Margin(v)))
	}
	if len(v.Round) > 0 {
		out.Judgement = new(judgementOf(j.Judge(v), v.Round, unit))
	}
	if down, up, ok := advice.CrossCheck(v); ok {
		out.Cross = &Cross{down.String(), up.String()}
	}
	if out.Needs || out.MaySet || v.Freed || v.Stage != job.Untouched {
		by := wire.LaidOf(advice.SetBy(v))
		out.SetByMM, out.SetAngled, out.SetBy = by.LeavesMM, by.Angled, advice.LeafSaid(v)
		out.NutSays, out.WithNut = advice.NutSays(v), advice.WithNut(v)
	}
	if out.Needs || out.MaySet {
		out.Screw = screwOf(j, v)
	}
	return out
}

func screwOf(j *job.Job, v *job.ValveState) *Screw {
	turn, ok := bench.Screw(j, v)
	if !ok {
		return nil
	}
	s := &Screw{Direction: string(turn.Direction), Rotation: string(turn.Rotation), Travel: string(turn.Way),
		ByFeel: turn.ByFeel, Why: turn.Why}
	if !turn.ByFeel {
		s.TurnDeg = &turn.Degrees
	}
	return s
}

func ladderOf(rungs []bench.Rung) []Rung {
	out := []Rung{}
	for _, r := range rungs {
		rung := Rung{
			Laid:        wire.LaidOf(r.Stack),
			ThicknessMM: wire.MM(r.Stack.Thickness()),
			Near:        r.Near,
			InWindow:    r.InWindow,
			Nominal:     r.SetBy,
			First:       r.First,
		}
		if r.Other != nil {
			rung.Other = r.Other.String()
		}
		out = append(out, rung)
	}
	return out
}
