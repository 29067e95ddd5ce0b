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
	At        time.Time
	Stale     bool // a hot reading taken too long after the engine was shut off
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
	Crank        float64        // crank degrees
	Place        sequence.Range // where it may stand: Crank alone at a stop, wider where it was found from what is seen
	Stop         int            // index of the stop the crank stands at; −1: none
	Prepared     bool
	PreparedAt   time.Time
	EngineC      float64
	AmbientC     float64
	Override     string // why the temperature gate was passed all the same; empty: it was not
	Temperatures []Temperature
	SignedBy     string
	SignedAt     time.Time
	Cold         *Signature // of the cold pass, once the hot pass began
	LockPairs    []LockPair
	Bench        []measure.Length // shims taken out and not in the engine

	barred    bool // two turns were made since the last adjustment
	picked    string
	required  float64
	effective []Happening // what stands, undone ones left out
}

// New is a job before anything happened. The card must resolve; the error says which figure does not.
func New(setup Setup) (*Job, error) {
	if setup.Sheet.IsHydraulic() {
		return nil, refuse("engine", engine.HydraulicReason)
	}
	j := &Job{Setup: setup, Cycle: cycle.New(setup.Sheet), Stop: -1, required: setup.Sheet.EffectiveMargin()}
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

// Replay computes the state from a whole list. It errs where New does, or where the list holds a happening that could not
// have been taken.
func Replay(setup Setup, list []Happening) (*Job, error) {
	var standing []Happening
	for _, h := range list {
		if h.Kind != Undone {
			standing = append(standing, h)
			continue
		}
		if n := len(standing); n == 0 || standing[n-1].ID != h.Target {
			return nil, refuse("target", fmt.Sprintf("Happening %s takes back %s, which is not the last one standing.", h.ID, h.Target))
		}
		standing = standing[:len(standing)-1]
	}
	j, err := New(setup)
	if err != nil {
		return nil, err
	}
	for _, h := range standing {
		if err := j.apply(h); err != nil {
			return nil, fmt.Errorf("happening %s: %w", h.ID, err)
		}
	}
	return j, nil
}

// Take gives the state after one more happening; j is not to be used afterwards. A *Refusal leaves the job as it was.
func (j *Job) Take(h Happening) (*Job, error) {
	if h.Kind == Undone {
		return j.undo(h)
	}
	if err := j.apply(h); err != nil {
		return j, err
	}
	return j, nil
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
	return Replay(j.Setup, j.effective[:len(j.effective)-1])
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

// Settable says whether a valve may be worked on wherever the crank may stand now.
func (j *Job) Settable(v *ValveState) bool {
	return j.CrankKnown && measure.AtLeast(j.Margin(v), j.required)
}

// Margin is a valve's smallest margin wherever the crank may stand now, crank degrees. The crank's place must be known.
func (j *Job) Margin(v *ValveState) float64 { return sequence.LeastMargin(j.Cycle, v.Valve, j.Place) }

// Judge is the judgement of a valve's readings that are not kept yet.
func (j *Job) Judge(v *ValveState) clearance.Judgement {
	if v.judged == nil {
		judged := clearance.Judge(v.Limits, v.Round, j.Owned, j.Rule, j.Feel)
		j.wantFigure(v, &judged)
		v.judged = &judged
	}
	return *v.judged
}
