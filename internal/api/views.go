package api

import (
	"cmp"
	"reflect"
	"time"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// liftStep is the spacing of the lift curves sent for drawing, crank degrees.
const liftStep = 5 * measure.Degree

// EngineView is what a drawing of the engine needs; it does not change during a job.
type EngineView struct {
	Name         string      `json:"name"`
	Layout       string      `json:"layout"`
	Rotation     string      `json:"rotation" enum:"clockwise,anticlockwise"`
	FiringOrder  []int       `json:"firing_order"`
	Banks        []BankView  `json:"banks"`
	Valves       []ValveView `json:"valves"`
	MarksDeg     []float64   `json:"marks_deg"`
	TurningPoint string      `json:"turning_point"`
	LocknutNm    float64     `json:"locknut_torque_nm" doc:"0: not stated"`
	LocknutLbft  float64     `json:"locknut_torque_lbft" doc:"0: not stated"`
	HasLockNut   bool        `json:"has_lock_nut"`
	Adjuster     string      `json:"adjuster" doc:"its kind; empty: not stated"`
	SocketMM     float64     `json:"socket_mm" doc:"0: not stated"`
	MayTurnBack  bool        `json:"may_turn_back"`
}

// BankView is one head.
type BankView struct {
	Name        string    `json:"name"`
	AngleDeg    float64   `json:"angle_deg"`
	Cylinders   []int     `json:"cylinders"`
	IntakePorts string    `json:"intake_ports" doc:"left, right, or empty where not said"`
	Rows        []RowView `json:"rows"`
}

// RowView is one line of valves, front to rear.
type RowView struct {
	Side   string   `json:"side" enum:"left,right"`
	Valves []string `json:"valves"`
}

// ValveView is one valve as it is drawn.
type ValveView struct {
	Name      string    `json:"name"`
	Kind      string    `json:"kind" enum:"intake,exhaust"`
	Cylinder  int       `json:"cylinder"`
	RowNumber int       `json:"row_number" doc:"0 where the engine has more than one row"`
	Lift      []float64 `json:"lift" doc:"open fraction at crank 0, 5, 10 … 720"`
	MaySet    []Arc     `json:"may_set" doc:"crank positions with the required margin"`
}

// Arc is a range of crank positions; from greater than to wraps through 0.
type Arc struct {
	FromDeg float64 `json:"from_deg"`
	ToDeg   float64 `json:"to_deg"`
}

// Limits is what a gap must lie in.
type Limits struct {
	LowerMM     float64 `json:"lower_mm"`
	UpperMM     float64 `json:"upper_mm"`
	NominalMM   float64 `json:"nominal_mm"`
	NominalOnly bool    `json:"nominal_only"`
	InThou      bool    `json:"in_thou" doc:"the source states it in inches alone: it is spoken of in thousandths"`
}

// PlanView is the way round.
type PlanView struct {
	School            string     `json:"school"`
	Order             string     `json:"order" enum:"turning,numerical"`
	Direction         string     `json:"direction" enum:"running,back"`
	Positions         string     `json:"positions" enum:"any,marks"`
	StopCount         int        `json:"stop_count" doc:"asked for; 0: the fewest that reach the required margin"`
	Applies           bool       `json:"applies"`
	Reason            string     `json:"reason"`
	Stops             []StopView `json:"stops"`
	TotalTurnDeg      float64    `json:"total_turn_deg"`
	SmallestMarginDeg float64    `json:"smallest_margin_deg"`
	MarksDeg          []float64  `json:"marks_deg" doc:"where the pulley must be seen to stand, after a TDC mark"`
	UnmarkedDeg       []float64  `json:"unmarked_deg" doc:"those of them that this pulley has no mark for"`
	Cautions          []string   `json:"cautions"`
	Assumed           []string   `json:"assumed"`
}

// StopView is one stop of the way round.
type StopView struct {
	CrankDeg   float64    `json:"crank_deg"`
	TurnDeg    float64    `json:"turn_deg"`
	Watch      []Sighting `json:"watch"`
	Valves     []string   `json:"valves"`
	MarginsDeg []float64  `json:"margins_deg" doc:"of the valves, in their order"`
}

// Sighting is something seen on the engine.
type Sighting struct {
	What     string  `json:"what" enum:"tdc_firing,rocking,full_lift,opening,closing,mark,loose,pressed,degrees"`
	Cylinder int     `json:"cylinder" minimum:"0" maximum:"16" doc:"0: none"`
	Valve    string  `json:"valve" maxLength:"8" doc:"empty: none"`
	MarkDeg  float64 `json:"mark_deg"`
}

var typeOfSighting = reflect.TypeFor[Sighting]()

// Judgement is a verdict and what it came from.
type Judgement struct {
	Verdict    string    `json:"verdict" enum:"in,tight,loose,undecided"`
	Sure       bool      `json:"sure"`
	EstimateMM *float64  `json:"estimate_mm"`
	LowMM      float64   `json:"gap_low_mm"`
	HighMM     *float64  `json:"gap_high_mm"`
	TryNext    []float64 `json:"try_next_mm" doc:"empty: settled, or no owned leaf settles it"`
	TryName    string    `json:"try_next" doc:"the same as stamped on the leaves"`
	Figure     Figure    `json:"figure" doc:"what is known of the gap, for showing"`
	Why        string    `json:"why"`
	Conflict   string    `json:"conflict"`
}

// Figure is what is known of a gap: at a figure, above or below one, or between two; nothing where nothing is known.
type Figure struct {
	Kind string   `json:"kind" enum:",at,above,below,between"`
	MM   *float64 `json:"mm,omitempty"`
	ToMM *float64 `json:"to_mm,omitempty" doc:"the upper end of between"`
}

// Reading is one leaf or stack tried.
type Reading struct {
	LeavesMM      []float64 `json:"leaves_mm" doc:"empty for a dial reading"`
	Angled        []bool    `json:"angled" doc:"which of them is angled"`
	Name          string    `json:"name" doc:"what is stamped on them"`
	Feel          string    `json:"feel" enum:",free,drag,wont_go"`
	DialMM        *float64  `json:"dial_mm,omitempty"`
	UncertaintyMM *float64  `json:"uncertainty_mm,omitempty" doc:"of a dial reading"`
}

// Result is readings that were kept.
type Result struct {
	Judgement Judgement `json:"judgement"`
	Readings  []Reading `json:"readings"`
	At        time.Time `json:"at"`
	Stale     bool      `json:"stale" doc:"a hot reading taken too late"`
	Doubtful  bool      `json:"time_doubtful" doc:"the time it was made at could not be right, and is when it arrived"`
}

// ValveState is one valve in the job.
type ValveState struct {
	Name      string     `json:"name"`
	Limits    Limits     `json:"limits"`
	Settable  bool       `json:"settable"`
	MarginDeg *float64   `json:"margin_deg" doc:"null where the crank's place is not known"`
	Pending   bool       `json:"pending" doc:"waits in the present phase"`
	Stage     string     `json:"stage" enum:",nut_loose,nut_tight"`
	Round     []Reading  `json:"round"`
	Judgement *Judgement `json:"judgement,omitempty" doc:"of the readings not kept yet; absent where there are none"`
	AsFound   *Result    `json:"as_found,omitempty"`
	Last      *Result    `json:"last,omitempty"`
	Adjusted  int        `json:"adjusted"`
	Verified  bool       `json:"verified"`
	Left      string     `json:"left" doc:"why it stays out of limits; empty: it does not"`
	Needs     bool       `json:"needs" doc:"read, and not in"`
	AimMM     float64    `json:"aim_mm" doc:"the gap to set"`
	PreLockMM *float64   `json:"pre_lock_mm,omitempty" doc:"the gap to set with the nut loose, where this mechanic's shift is known"`
	SetByMM   []float64  `json:"set_by_mm" doc:"the leaf or stack to set by, with the nut loose; only for a valve that needs it"`
	SetAngled []bool     `json:"set_by_angled"`
	SetBy     string     `json:"set_by" doc:"the same as stamped on the leaves"`
	Caution   string     `json:"caution" doc:"what to mind before it is worked on here; empty: nothing"`
	Out       bool       `json:"out" doc:"its shim was taken out for another valve"`
	MadeThere bool       `json:"made_there" doc:"its readings were made where the crank stands no more"`
	Screw     *Screw     `json:"screw,omitempty" doc:"how to turn the adjuster to the aim; absent where it cannot be said"`
	ShimMM    float64    `json:"shim_mm" doc:"the shim that is fitted; 0: not known"`
	ColdFound *Result    `json:"cold_found,omitempty" doc:"of the provisional cold pass"`
	ColdLeft  *Result    `json:"cold_left,omitempty"`
	ColdWhy   string     `json:"cold_reason" doc:"why it was left out of limits in the cold pass; empty: it was not"`
}

// Screw is how far to turn an adjuster.
type Screw struct {
	TurnDeg   *float64 `json:"turn_deg" doc:"null: by feel"`
	Direction string   `json:"direction" enum:"close,open"`
	Rotation  string   `json:"rotation" enum:",clockwise,anticlockwise" doc:"seen from the driver's end; empty: by feel"`
	Travel    string   `json:"travel" enum:",in,out" doc:"which way the screw or nut goes"`
	ByFeel    bool     `json:"by_feel"`
	Why       string   `json:"why"`
}

// Rung is one leaf of the ladder.
type Rung struct {
	LeavesMM    []float64 `json:"leaves_mm"`
	Angled      []bool    `json:"angled" doc:"which of them is angled"`
	Name        string    `json:"name" doc:"what is stamped on them"`
	ThicknessMM float64   `json:"thickness_mm"`
	Near        bool      `json:"near" doc:"about the limits, tried, advised, or to set by: shown first"`
	InWindow    bool      `json:"in_window"`
	Nominal     bool      `json:"nominal" doc:"the leaf to set by"`
	Other       string    `json:"other" enum:",intake,exhaust" doc:"a leaf of the other kind of valve: in that one's limits and not in this one's"`
}

// Now is the one thing to do.
type Now struct {
	Action  string   `json:"action" enum:"choose_way,prepare,turn,read,keep,adjust,lock,bar_over,sign,go_hot,done"`
	Valve   string   `json:"valve"`
	Stop    int      `json:"stop" doc:"to go to for turn, else where the crank stands; -1: nowhere yet"`
	TurnDeg float64  `json:"turn_deg"`
	Confirm bool     `json:"confirm" doc:"the crank is believed to stand at this stop, and that has to be confirmed"`
	Ladder  []Rung   `json:"ladder" doc:"the leaves for the valve, thinnest first"`
	Here    []string `json:"here" doc:"the valves waiting at the present stop"`
}

// JobState is a job computed from its happenings.
type JobState struct {
	ID         string        `json:"id"`
	Phase      string        `json:"phase" enum:"choose_way,prepare,as_found,adjust,verify,sign,await_hot,done"`
	Now        Now           `json:"now"`
	Plan       *PlanView     `json:"plan,omitempty"`
	CrankDeg   *float64      `json:"crank_deg"`
	Place      *Arc          `json:"place,omitempty" doc:"where the crank may stand; absent where it is not known"`
	Stop       int           `json:"stop"`
	Valves     []ValveState  `json:"valves"`
	Done       int           `json:"done"`
	Total      int           `json:"total"`
	Undo       string        `json:"undo" doc:"the happening that can be taken back; empty: none"`
	UndoKind   string        `json:"undo_kind" doc:"what that was"`
	UndoValve  string        `json:"undo_valve"`
	Newest     string        `json:"newest" doc:"the id of the newest happening, to be sent back as seen"`
	Clock      time.Time     `json:"clock" doc:"the program's clock"`
	QuietSince *time.Time    `json:"quiet_since,omitempty" doc:"since when nothing was entered, where the crank has to be confirmed because of it"`
	Closed     string        `json:"closed" doc:"why the temperature has to be taken again; empty: it has not"`
	Overrides  []Override    `json:"overrides" doc:"every time the temperature gate was passed all the same"`
	Happenings int           `json:"happenings"`
	EngineC    *float64      `json:"engine_c"`
	AmbientC   *float64      `json:"ambient_c"`
	Override   string        `json:"override" doc:"why the temperature gate was passed all the same; empty: it was not"`
	HotUntil   *time.Time    `json:"hot_until,omitempty" doc:"until when hot readings hold"`
	Readings   []HeatReading `json:"temperatures"`
	Cooling    *Cooling      `json:"cooling,omitempty" doc:"absent with fewer than two falling readings, and for a hot card"`
	GateC      *float64      `json:"gate_c,omitempty" doc:"the temperature a cold card waits for; absent for a hot one"`
	Card       Card          `json:"card" doc:"of the present pass"`
	Cold       *Signed       `json:"cold,omitempty" doc:"who signed the provisional cold pass"`
	SignedBy   string        `json:"signed_by"`
	SignedAt   *time.Time    `json:"signed_at"`
}

// Override is a temperature gate that was passed all the same.
type Override struct {
	Reason  string    `json:"reason"`
	EngineC float64   `json:"engine_c"`
	Hot     bool      `json:"hot" doc:"in the hot pass"`
	At      time.Time `json:"at"`
}

// JobView is a job as its screens need it.
type JobView struct {
	Vehicle     Vehicle    `json:"vehicle"`
	OdometerKM  int        `json:"odometer_km"`
	Mechanic    string     `json:"mechanic"`
	Reason      string     `json:"reason"`
	GaugeName   string     `json:"gauge_name"`
	Card        Card       `json:"card"`
	CardReason  string     `json:"card_reason"`
	Aim         string     `json:"aim" enum:"nominal,loose"`
	AimReason   string     `json:"aim_reason"`
	Rule        string     `json:"rule" enum:"workshop,guarded"`
	FeelMM      float64    `json:"feel_mm"`
	LockShift   LockShift  `json:"lock_shift"`
	CreatedAt   time.Time  `json:"created_at"`
	CardIndex   int        `json:"card_index"`
	HotCard     int        `json:"hot_card" doc:"index of the hot pass's card; -1: none"`
	OnBoard     bool       `json:"on_board"`
	Correctable bool       `json:"correctable" doc:"nothing was read yet: what it started from may be corrected"`
	Engine      EngineView `json:"engine"`
	State       JobState   `json:"state"`
}

func limitsView(l clearance.Limits) Limits {
	return Limits{l.Window.Lower.Millimetres(), l.Window.Upper.Millimetres(), l.Nominal.Millimetres(), l.NominalOnly, l.InThou}
}

// cardShort resolves a card that belongs to a checked sheet.
func cardShort(c clearance.Card) Card {
	intake, _ := c.Intake.Limits()
	exhaust, _ := c.Exhaust.Limits()
	return Card{Source: c.Source, State: string(c.State), Date: c.Date, Remark: c.Remark, StoneCold: c.StoneCold, Holds: c.Holds(),
		Intake: limitsView(intake), Exhaust: limitsView(exhaust), Differences: []CardDifference{}}
}

func planView(p sequence.Plan, s *engine.Sheet) PlanView {
	v := PlanView{School: string(p.School), Order: string(cmp.Or(p.Order, sequence.Turning)), Direction: string(cmp.Or(p.Direction, sequence.Running)),
		Positions: string(cmp.Or(p.Positions, sequence.AnyPosition)), StopCount: p.StopCount, Applies: p.Applies, Reason: p.Reason, Stops: []StopView{},
		TotalTurnDeg: p.TotalTurn.Degrees(), SmallestMarginDeg: p.SmallestMargin.Degrees(), MarksDeg: degrees(p.MarksNeeded()), UnmarkedDeg: []float64{},
		Cautions: listed(p.Cautions), Assumed: listed(p.Assumed)}
	for _, m := range p.MarksNeeded() {
		if !sequence.Marked(s, m) {
			v.UnmarkedDeg = append(v.UnmarkedDeg, m.Degrees())
		}
	}
	for _, st := range p.Stops {
		stop := StopView{st.Crank.Degrees(), st.Turn.Degrees(), sightings(st.Watch), []string{}, []float64{}}
		for _, set := range st.Set {
			stop.Valves, stop.MarginsDeg = append(stop.Valves, set.Valve), append(stop.MarginsDeg, set.Margin.Degrees())
		}
		v.Stops = append(v.Stops, stop)
	}
	return v
}

// degrees writes angles for the wire.
func degrees(list []measure.Angle) []float64 {
	out := make([]float64, len(list))
	for i, a := range list {
		out[i] = a.Degrees()
	}
	return out
}

func sightings(list []sequence.Sighting) []Sighting {
	out := []Sighting{}
	for _, w := range list {
		out = append(out, Sighting{string(w.What), w.Cylinder, w.Valve, w.Mark.Degrees()})
	}
	return out
}

func judgementView(j clearance.Judgement) Judgement {
	v := Judgement{Verdict: string(j.Verdict), Sure: j.Sure, LowMM: j.Low.Millimetres(), TryNext: marked(j.TryNext), TryName: j.TryNext.String(), Figure: figureView(j), Why: j.Why, Conflict: j.Conflict}
	if j.Estimate != nil {
		estimate := j.Estimate.Millimetres()
		v.EstimateMM = &estimate
	}
	if j.High != nil {
		high := j.High.Millimetres()
		v.HighMM = &high
	}
	return v
}

// figureView is what is known of a gap, uncertainty included where it is bounded.
func figureView(j clearance.Judgement) Figure {
	low := j.Low.Millimetres()
	switch {
	case j.Estimate != nil:
		return Figure{Kind: "at", MM: new(j.Estimate.Millimetres())}
	case j.High != nil && j.Low > 0:
		return Figure{Kind: "between", MM: &low, ToMM: new(j.High.Millimetres())}
	case j.High != nil:
		return Figure{Kind: "below", MM: new(j.High.Millimetres())}
	case j.Low > 0:
		return Figure{Kind: "above", MM: &low}
	}
	return Figure{}
}

// marked and angled write the leaves of a stack for the wire, in one order.
func marked(st gauge.Stack) []float64 {
	out := []float64{}
	for _, id := range st.IDs() {
		out = append(out, id.Marked.Millimetres())
	}
	return out
}

func angled(st gauge.Stack) []bool {
	out := []bool{}
	for _, id := range st.IDs() {
		out = append(out, id.Angled)
	}
	return out
}

func readingsView(list []clearance.Reading) []Reading {
	out := make([]Reading, len(list))
	for i, r := range list {
		out[i] = Reading{LeavesMM: marked(r.Stack), Angled: angled(r.Stack), Name: r.Stack.String(), Feel: string(r.Feel)}
		if r.Dial != nil {
			gap, doubt := r.Dial.Gap.Millimetres(), r.Dial.Uncertainty.Millimetres()
			out[i].DialMM, out[i].UncertaintyMM = &gap, &doubt
		}
	}
	return out
}

func resultView(r *job.Result) *Result {
	if r == nil {
		return nil
	}
	return &Result{judgementView(r.Judgement), readingsView(r.Readings), r.At, r.Stale, r.TimeDoubtful}
}

func valveState(j *job.Job, v *job.ValveState, setting *settings) ValveState {
	out := ValveState{Name: v.Name, Limits: limitsView(v.Limits), Settable: j.Settable(v), Pending: j.Pending(v), Stage: string(v.Stage),
		Round: readingsView(v.Round), AsFound: resultView(v.AsFound), Last: resultView(v.Last), Adjusted: v.Adjustments,
		Verified: v.Verified, Left: v.Left, Needs: v.Needs(), AimMM: j.AimOf(v).Millimetres(), SetByMM: []float64{}, SetAngled: []bool{}, Out: v.Out, MadeThere: v.ReadThere(), ColdWhy: v.ColdReason,
		ShimMM: v.Shim.Millimetres(), ColdFound: resultView(v.ColdFound), ColdLeft: resultView(v.ColdLeft)}
	if pre, ok := setting.shift.PreLockAim(j.AimOf(v)); ok && j.Sheet.HasLockNut() {
		mm := pre.Millimetres()
		out.PreLockMM = &mm
	}
	if j.Known() {
		out.MarginDeg = new(j.Margin(v).Degrees())
	}
	out.Caution = j.Caution(v)
	if len(v.Round) > 0 {
		judged := judgementView(j.Judge(v))
		out.Judgement = &judged
	}
	if out.Needs || v.Stage != job.Untouched {
		by := setting.leaf(j, v)
		out.SetByMM, out.SetAngled, out.SetBy = marked(by), angled(by), by.String()
	}
	if out.Needs {
		out.Screw = screwView(j, v)
	}
	return out
}

// stateView is a job as it stands at a time.
func stateView(id string, o *openJob, shift adjust.Shift, now time.Time) JobState {
	j := o.state.AsOf(now)
	setting := &settings{shift: shift}
	s := JobState{ID: id, Phase: string(j.Phase()), Stop: j.Stop, Valves: []ValveState{}, Undo: j.CanUndo(), Happenings: len(o.list.Happenings), SignedBy: j.SignedBy,
		Override: j.Override, Overrides: []Override{}, Cooling: coolingView(j), Readings: []HeatReading{}, Card: cardShort(j.Card), Clock: now.UTC(), Closed: j.Closed}
	if n := len(o.list.Happenings); n > 0 {
		s.Newest = o.list.Happenings[n-1].ID
	}
	if at, ok := o.places[s.Undo]; ok {
		s.UndoKind, s.UndoValve = string(o.list.Happenings[at].Kind), o.list.Happenings[at].Valve
	}
	if since, ok := j.ToConfirm(); ok {
		s.QuietSince = &since
	}
	for _, v := range j.Overrides {
		s.Overrides = append(s.Overrides, Override{v.Reason, v.EngineC, v.Hot, v.At})
	}
	s.Done, s.Total = j.Progress()
	s.Now = nowView(j)
	if v, ok := j.Valve(s.Now.Valve); ok {
		s.Now.Ladder = ladder(j, v, setting)
	}
	for _, t := range j.Temperatures {
		s.Readings = append(s.Readings, HeatReading{t.At, t.EngineC, t.AmbientC})
		if gate, ok := j.GateC(t.AmbientC); ok {
			s.GateC = &gate
		}
	}
	if until, ok := j.HotUntil(); ok {
		s.HotUntil = &until
	}
	if j.Cold != nil {
		s.Cold = &Signed{j.Cold.By, j.Cold.At}
	}
	if j.Way.School != "" {
		plan := planView(j.Plan, j.Sheet)
		s.Plan = &plan
	}
	if j.Known() {
		s.CrankDeg, s.Place = new(j.Crank.Degrees()), &Arc{j.Place.From.Degrees(), j.Place.To.Degrees()}
	}
	if j.Prepared {
		s.EngineC, s.AmbientC = &j.EngineC, &j.AmbientC
	}
	if j.SignedBy != "" {
		s.SignedAt = &j.SignedAt
	}
	for _, v := range j.Valves {
		s.Valves = append(s.Valves, valveState(j, v, setting))
	}
	return s
}

func nowView(j *job.Job) Now {
	next := j.Next()
	return Now{Action: string(next.Action), Valve: next.Valve, Stop: next.Stop, TurnDeg: next.Turn.Degrees(), Confirm: next.Confirm, Ladder: []Rung{}, Here: listed(j.Here())}
}

// listed makes an absent list an empty one.
func listed(texts []string) []string {
	if texts == nil {
		return []string{}
	}
	return texts
}
