package job

import (
	"fmt"
	"slices"
	"time"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// Setup is what a job starts from and never changes.
type Setup struct {
	Sheet *engine.Sheet // checked
	Card  clearance.Card
	Hot   *clearance.Card // the card of the hot pass where Card is only a cold start; nil: there is none
	Aim   clearance.Aim
	Rule  clearance.Rule
	Owned gauge.Set
	Feel  measure.Length
}

// Phase is how far the job is.
type Phase string

// The phases, in order. Adjust is passed over when every valve is in, Verify when nothing was adjusted.
const (
	ChooseWay Phase = "choose_way"
	Prepare   Phase = "prepare"
	AsFound   Phase = "as_found"
	Adjust    Phase = "adjust"
	Verify    Phase = "verify"
	Sign      Phase = "sign"
	AwaitHot  Phase = "await_hot" // signed cold, provisionally; not finished before the hot pass is signed
	Done      Phase = "done"
)

// Result is a valve's readings kept with their judgement.
type Result struct {
	Judgement clearance.Judgement
	Readings  []clearance.Reading
	At        time.Time // when the last of them was made
	Stale     bool      // a hot reading taken too long after the engine was shut off
	// TimeDoubtful says that the client's word for when it was made cannot be right: At is when it arrived.
	TimeDoubtful bool
}

// Stage is how far the work on one valve's adjuster is.
type Stage string

// Untouched since the last kept reading, adjusted with the nut still loose, or locked and to be read again.
const (
	Untouched Stage = ""
	NutLoose  Stage = "nut_loose"
	NutTight  Stage = "nut_tight"
)

// ValveState is one valve in the job.
type ValveState struct {
	engine.Valve
	Limits      clearance.Limits
	Round       []clearance.Reading // readings not kept yet
	Stage       Stage
	AsFound     *Result // the last kept before this valve was adjusted and before the check pass
	Last        *Result // the last kept
	Adjustments int
	Verified    bool           // read in its limits after two turns since the last adjustment
	Left        string         // the reason why it stays out of limits
	Shim        measure.Length // fitted; 0: not known
	Out         bool           // its shim was taken out for another valve
	ColdFound   *Result        // of the cold pass, once the hot pass began
	ColdLeft    *Result
	ColdReason  string // why it was left out of limits in the cold pass

	readAt    time.Time // when the last reading of Round was made
	readDoubt bool
	readThere bool // it was made at a place where the crank stands no more

	before   measure.Length // the gap set with the nut loose; 0: not known
	readWith measure.Length // the shim with which the last kept gap was measured; 0: not known

	judged *clearance.Judgement // of Round; nil: not judged yet
}

// reading replaces the readings not kept yet.
func (v *ValveState) reading(round []clearance.Reading) { v.Round, v.judged = round, nil }

// unread says that the valve has no reading that counts.
func (v *ValveState) unread() bool { return v.Last == nil || v.Last.Stale }

// Needs says that the valve is read and not in, and nobody decided to leave it so; or that its shim lies elsewhere.
func (v *ValveState) Needs() bool {
	return v.Out || v.Last != nil && v.Last.Judgement.Verdict != clearance.In && v.Left == ""
}

// LockPair is what locking did to one valve's gap.
type LockPair struct {
	Valve string
	adjust.Pair
}

// Temperature is one reading of the engine's and its surroundings' temperature, °C.
type Temperature struct {
	At                time.Time
	EngineC, AmbientC float64
}

// Override is a temperature gate that was passed all the same, and why.
type Override struct {
	Reason  string
	EngineC float64
	Hot     bool // in the hot pass
	At      time.Time
}

// Signature is who signed, and when.
type Signature struct {
	By string
	At time.Time
}

// Job is the computed state.
type Job struct {
	Setup
	Cycle  *cycle.Cycle
	Way    sequence.Way
	Plan   sequence.Plan
	Valves []*ValveState

	CrankKnown   bool
	Crank        measure.Angle
	Place        sequence.Range // where it may stand: Crank alone at a stop, wider where it was found from what is seen
	Stop         int            // index of the stop the crank stands at; −1: none
	Prepared     bool
	PreparedAt   time.Time
	EngineC      float64
	AmbientC     float64
	Override     string     // why the temperature gate stands passed all the same; empty: it does not
	Overrides    []Override // every time it was, in all passes
	Closed       string     // why the gate has to be passed again; empty: it was not passed yet, or stands passed
	Temperatures []Temperature
	SignedBy     string
	SignedAt     time.Time
	Cold         *Signature // of the cold pass, once the hot pass began
	LockPairs    []LockPair
	Bench        []measure.Length // shims taken out and not in the engine
	FromShop     []ShopShim       // shims that went in and came neither from a valve nor from the bench

	barred    bool // two turns were made since the last adjustment
	checked   bool // two turns were made in this pass: what is read now is no longer as found
	picked    string
	required  measure.Angle
	begun     Setup       // as the job began: the hot pass changes the card
	effective []Happening // what stands, undone ones left out
	log       log

	now, last time.Time // of the happening being taken, and of the one before
	doubtful  bool      // now is when it arrived, because the client's word for it cannot be right
	putBack   bool      // the clock was put back since the engine's temperature was taken
	pause     pause
}

// New is a job before anything happened. The card must resolve; the error says which figure does not.
func New(setup Setup) (*Job, error) {
	if setup.Sheet.IsHydraulic() {
		return nil, refuse("engine", engine.HydraulicReason)
	}
	j := &Job{Setup: setup, begun: setup, Cycle: cycle.New(setup.Sheet), Stop: -1, required: setup.Sheet.EffectiveMargin()}
	if setup.Hot != nil {
		if setup.Card.State != clearance.Cold || setup.Hot.State != clearance.Hot {
			return nil, refuse("hot_card", "A provisional start is cold, and its second pass is hot.")
		}
		if _, err := limitsOf(*setup.Hot); err != nil {
			return nil, err
		}
	}
	limits, err := limitsOf(setup.Card)
	if err != nil {
		return nil, err
	}
	for _, v := range j.Cycle.Valves {
		j.Valves = append(j.Valves, &ValveState{Valve: v, Limits: limits[v.Kind]})
	}
	return j, nil
}

func limitsOf(card clearance.Card) (map[engine.Kind]clearance.Limits, error) {
	limits := map[engine.Kind]clearance.Limits{}
	for kind, c := range map[engine.Kind]clearance.Clearance{engine.Intake: card.Intake, engine.Exhaust: card.Exhaust} {
		l, faults := c.Limits()
		if len(faults) > 0 {
			return nil, refuse("card", fmt.Sprintf("The %s clearance cannot be used: %s", kind, faults[0].Message))
		}
		limits[kind] = l
	}
	return limits, nil
}

// Provisional says that a hot pass still has to follow.
func (j *Job) Provisional() bool { return j.Hot != nil && j.Cold == nil }

// AimOf is the gap to set a valve to.
func (j *Job) AimOf(v *ValveState) measure.Length { return v.Limits.At(j.Aim) }

// Replay computes the state from a whole stored list. It errs where New does, and where the list does not fit together: a happening
// names what is not there, or takes back what is not the last one standing.
func Replay(setup Setup, list []Happening) (*Job, error) {
	standing := map[string]bool{}
	var order []string
	for _, h := range list {
		if h.Kind != Undone {
			order = append(order, h.ID)
			standing[h.ID] = true
			continue
		}
		if n := len(order); n == 0 || order[n-1] != h.Target {
			return nil, refuse("target", fmt.Sprintf("Happening %s takes back %s, which is not the last one standing.", h.ID, h.Target))
		}
		delete(standing, order[len(order)-1])
		order = order[:len(order)-1]
	}
	j, err := New(setup)
	if err != nil {
		return nil, err
	}
	for _, h := range list {
		if err := j.again(h, standing[h.ID]); err != nil {
			return nil, fmt.Errorf("happening %s: %w", h.ID, err)
		}
	}
	j.upgrade()
	return j, nil
}

// again takes a stored happening: into the state where it stands, otherwise into the log alone.
func (j *Job) again(h Happening, stands bool) error {
	switch {
	case h.Kind == Undone:
		j.log.back(h.ID, h.Target)
	case !stands:
		j.log.note(h, j)
		j.log.entries[len(j.log.entries)-1].known = false
	default:
		j.upgradeBefore(h)
		return j.apply(h, true)
	}
	return nil
}

// upgradeBefore and upgrade make the crank unknown where a job goes on under newer rules than those it was begun under: earlier ones
// let it stand where it had not been found.
func (j *Job) upgradeBefore(h Happening) {
	if h.todays() {
		j.upgrade()
	}
}

func (j *Job) upgrade() {
	if n := len(j.effective); n > 0 && j.SignedBy == "" && !j.effective[n-1].todays() {
		j.lose()
	}
}

// todays says that a happening was taken by today's rules.
func (h Happening) todays() bool { return h.Rules == 0 || h.Rules == Rules }

// Take gives the state after one more happening; j is not to be used afterwards. A *Refusal leaves the job as it was.
func (j *Job) Take(h Happening) (*Job, error) {
	if h.Kind == Undone {
		return j.undo(h)
	}
	return j, j.apply(h, false)
}

// CanUndo is the id of the happening that would be taken back next, empty where none can be.
func (j *Job) CanUndo() string {
	if n := len(j.effective); n > 0 && j.SignedBy == "" {
		return j.effective[n-1].ID
	}
	return ""
}

func (j *Job) undo(h Happening) (*Job, error) {
	switch last := j.CanUndo(); {
	case j.SignedBy != "":
		return j, refuse("target", "The job is signed. What is signed is not taken back: start a new job.")
	case last == "":
		return j, refuse("target", "There is nothing to take back.")
	case last != h.Target:
		return j, refuse("target", "Something else happened since. Only the last thing done can be taken back: look again.")
	}
	return j.without(h)
}

// without is the job with its last happening taken back by h.
func (j *Job) without(h Happening) (*Job, error) {
	n := len(j.effective) - 1
	before, err := New(j.begun)
	if err != nil {
		return j, err
	}
	for _, h := range j.effective[:n] {
		if err := before.again(h, true); err != nil {
			return j, err
		}
	}
	before.upgrade()
	before.log = j.log
	before.log.back(h.ID, h.Target)
	return before, nil
}

// Valve finds a valve by name.
func (j *Job) Valve(name string) (*ValveState, bool) {
	i := slices.IndexFunc(j.Valves, func(v *ValveState) bool { return v.Name == name })
	if i < 0 {
		return nil, false
	}
	return j.Valves[i], true
}

// Phase is how far the job is.
func (j *Job) Phase() Phase {
	has := func(f func(*ValveState) bool) bool { return slices.ContainsFunc(j.Valves, f) }
	switch {
	case j.Provisional() && j.SignedBy != "":
		return AwaitHot
	case j.SignedBy != "":
		return Done
	case j.Way.School == "":
		return ChooseWay
	case !j.Prepared:
		return Prepare
	case has((*ValveState).unread):
		return AsFound
	case has((*ValveState).Needs):
		return Adjust
	case j.anyAdjusted() && has(j.unverified):
		return Verify
	}
	return Sign
}

func (j *Job) anyAdjusted() bool {
	return slices.ContainsFunc(j.Valves, func(v *ValveState) bool { return v.Adjustments > 0 })
}

func (j *Job) unverified(v *ValveState) bool { return !v.Verified && v.Left == "" }

// Pending says whether a valve still waits in the present phase.
func (j *Job) Pending(v *ValveState) bool {
	switch j.Phase() {
	case AsFound:
		return v.unread()
	case Adjust:
		return v.Needs() || v.Stage != Untouched
	case Verify:
		return j.unverified(v)
	}
	return false
}

// Known says whether the crank's place is known and need not be confirmed.
func (j *Job) Known() bool { return j.CrankKnown && !j.pause.confirm }

// Settable says whether a valve may be worked on wherever the crank may stand now.
func (j *Job) Settable(v *ValveState) bool {
	return j.Known() && (j.Margin(v) >= j.required || j.byMaker(v, j.Place))
}

// ByMaker says that a valve is worked on here because the maker's printed order has it so, though the geometry does not.
func (j *Job) ByMaker(v *ValveState) bool {
	return j.Known() && j.Margin(v) < j.required && j.byMaker(v, j.Place)
}

// Caution is what to mind before a valve is worked on here; empty: nothing. The maker's printed order wins over the geometry, and is worked
// to its end, but not without a word.
func (j *Job) Caution(v *ValveState) string {
	if !j.ByMaker(v) {
		return ""
	}
	where := fmt.Sprintf("%s stands only %s from its opening or closing here", v.Name, j.Margin(v).Against(j.required))
	if margin := j.Margin(v); margin < 0 {
		where = fmt.Sprintf("%s is still open here, %s inside its lift", v.Name, -margin)
	}
	return fmt.Sprintf("By this sheet %s. The maker's printed order sets it here: check the order and the cam card first.", where)
}

// byMaker says whether the maker's order, where it is the way round, sets a valve at a place.
func (j *Job) byMaker(v *ValveState, at sequence.Range) bool {
	return j.Way.School == sequence.Own && slices.ContainsFunc(j.Plan.Stops, func(s sequence.Stop) bool {
		return at.Holds(s.Crank) && at.Length() <= sequence.Narrow && s.Sets(v.Name)
	})
}

// Margin is a valve's smallest margin wherever the crank may stand now. The crank's place must be known.
func (j *Job) Margin(v *ValveState) measure.Angle {
	return sequence.LeastMargin(j.Cycle, v.Valve, j.Place)
}

// Judge is the judgement of a valve's readings that are not kept yet.
func (j *Job) Judge(v *ValveState) clearance.Judgement {
	if v.judged == nil {
		judged := clearance.Judge(v.Limits, v.Round, j.Owned, j.Rule, j.Feel)
		j.wantFigure(v, &judged)
		v.judged = &judged
	}
	return *v.judged
}

// HasReadings says whether anything was read that still stands: from then on what the job started from is not changed.
func (j *Job) HasReadings() bool {
	return slices.ContainsFunc(j.effective, func(h Happening) bool { return h.Kind == ReadingHad || h.Kind == DialRead || h.Kind == Sized })
}

// ReadThere says that the readings not kept yet were made where the crank stands no more.
func (v *ValveState) ReadThere() bool { return v.readThere && len(v.Round) > 0 }
