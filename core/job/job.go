package job

import (
	"errors"
	"fmt"
	"slices"
	"time"

	"metronix/core/adjust"
	"metronix/core/around"
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
	// NewCam says that a cam was changed or rebuilt: its valves settle, and are worth a check by turning
	NewCam bool
}

// Start is what a job is begun with: a setup, its cards by their places on the sheet.
type Start struct {
	Sheet   *engine.Sheet // checked
	Card    int           // index of the card that is worked by first
	HotCard int           // of the card of the hot pass; −1: there is none
	Aim     clearance.Aim
	Rule    clearance.Rule
	Owned   gauge.Set
	Feel    measure.Length
	NewCam  bool // the work follows on a new cam or a rebuild
}

// Setup takes the cards from the sheet. A hot card that is begun with before its own hot pass is used cold.
// It errs where the sheet has no such card.
func (s Start) Setup() (Setup, error) {
	cards := s.Sheet.Clearances
	if s.Card < 0 || s.Card >= len(cards) || s.HotCard >= len(cards) {
		return Setup{}, errors.New("it names a clearance card that its sheet does not have")
	}
	setup := Setup{
		Sheet: s.Sheet,
		Card:  cards[s.Card],
		Aim:   s.Aim,
		Rule:  s.Rule,
		Owned: s.Owned,
		Feel:  s.Feel,

		NewCam: s.NewCam,
	}
	if s.HotCard >= 0 {
		setup.Hot = &cards[s.HotCard]
	}
	if s.HotCard == s.Card {
		setup.Card = setup.Card.UsedCold()
	}
	return setup, nil
}

// LockPair is what locking did to one valve's gap.
type LockPair struct {
	Valve string
	adjust.Pair
	By string // in whose hands; empty: of whoever began the job
}

// Temperature is one reading of the engine's and its surroundings' temperature, °C.
type Temperature struct {
	At                time.Time
	EngineC, AmbientC float64
}

// Override is a temperature gate that was passed all the same, and why.
type Override struct {
	Reason  string
	EngineC *float64 // nil: nobody measured it
	Hot     bool     // in the hot pass
	At      time.Time
}

// Job is the computed state.
type Job struct {
	Setup
	Cycle       *cycle.Cycle
	Way         sequence.Way
	Plan        sequence.Plan
	Valves      []*ValveState
	Round       // how the engine is gone round
	around.Book // what was written down around the bench

	// Speaks is how quantities are said to whoever asks now; no happening, and nothing follows from it but
	// words
	Speaks measure.Units

	Crank              // where the crank stands
	Heat               // how warm the engine is taken to be, and until when
	Shims              // where the shims of a shimmed engine are
	Signing            // who signed, and what was added since
	Waits     Deferral // what the open vehicle waits for; zero: nothing
	Hands     []Hand   // who went on with it, after whoever began it
	LockPairs []LockPair

	checked    bool   // full turns were made in this pass: what is read now is no longer as found
	picked     string // the valve that was taken in hand last
	hands      hands
	others     []string    // whose screens are at it beside the one that it is shown on
	leafInHand gauge.Stack // that was felt last; nil: none was
	lastRead   string      // the valve that a leaf was put into last: the leaf is in hand still; empty: none
	required   measure.Angle
	begun      Setup       // as the job began: the hot pass changes the card
	effective  []Happening // what stands, undone ones left out
	list       []Happening // all of it, in the order in which it was taken
	log        log
	screen     string // on which what is being taken was entered
	taking     string // what is being taken

	now, last  time.Time // of the happening being taken, and of the one before
	keepsClose bool      // the happening being taken is of rules by which a drag of the aim's leaf keeps itself
	doubtful   bool      // now is when it arrived, because the client's word for it cannot be right
}

// Crank is where the crank is taken to stand.
type Crank struct {
	Known bool          // it was found, and not lost since
	At    measure.Angle // 0 ≤ a < 720°
	// where it may stand: At alone at a stop, wider where it was found from what is seen
	Place     sequence.Range
	Stop      int       // index of the stop it stands at; −1: none
	StopSince time.Time // when it came to the stop where it stands; zero: it stands at none
	// why it is turned back though the sheet does not allow it; empty: it is not
	BackReason string

	pause  pause
	travel measure.Angle // how far it was turned the one way, net, since the job began
}

// Stayed says that nothing moved, lost or confirmed the crank's place between one and the other.
func (c Crank) Stayed(since Crank) bool {
	c.pause, since.pause = pause{}, pause{}
	c.BackReason, since.BackReason = "", ""
	return c == since
}

// Shims is where the shims of a shimmed engine are, beside those under its valves.
type Shims struct {
	LooseShims []measure.Length // taken out and not in the engine
	FromShop   []ShopShim       // that went in and came neither from a valve nor from the loose ones
	Prefer     adjust.Prefer    // what the choice of shims is after first
	CamsOut    bool             // every shim can be reached, wherever the crank stands

	shop   Shop
	chosen *chosenShims // by shop and valves as they are; nil: not reckoned yet
}

// New is a job before anything happened. The card must resolve; the error says which figure does not.
func New(setup Setup) (*Job, error) {
	if why := setup.Sheet.Gear().NotSet; why != "" {
		return nil, refuse("engine", why)
	}
	j := &Job{Setup: setup, begun: setup, Cycle: cycle.New(setup.Sheet), Crank: Crank{Stop: -1},
		required: setup.Sheet.EffectiveMargin(), Heat: cold}
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

// limitsOf are the limits of a card for both kinds of valve; it errs with the figure that does not resolve.
func limitsOf(card clearance.Card) (map[engine.Kind]clearance.Limits, error) {
	limits := map[engine.Kind]clearance.Limits{}
	for kind, c := range map[engine.Kind]clearance.Clearance{engine.Intake: card.Intake,
		engine.Exhaust: card.Exhaust} {
		l, faults := c.Limits()
		if len(faults) > 0 {
			return nil, refuse("card",
				fmt.Sprintf("The %s clearance cannot be used: %s", kind, faults[0].Message))
		}
		limits[kind] = l
	}
	return limits, nil
}

// Provisional says that a hot pass still has to follow.
func (j *Job) Provisional() bool { return j.Hot != nil && j.Cold == nil }

// AimOf is the gap to set a valve to.
func (j *Job) AimOf(v *ValveState) measure.Length { return v.Limits.At(j.Aim) }

// AimOfNamed is AimOf by name; 0 for what is no valve.
func (j *Job) AimOfNamed(valve string) measure.Length {
	if v, ok := j.Valve(valve); ok {
		return j.AimOf(v)
	}
	return 0
}

// Valve finds a valve by name.
func (j *Job) Valve(name string) (*ValveState, bool) {
	i := slices.IndexFunc(j.Valves, func(v *ValveState) bool { return v.Name == name })
	if i < 0 {
		return nil, false
	}
	return j.Valves[i], true
}

// InHand is the leaf or stack that was felt last, and is in the hand still; nil: none was.
func (j *Job) InHand() gauge.Stack { return j.leafInHand }

// Judge is the judgement of a valve's readings that are not kept yet.
func (j *Job) Judge(v *ValveState) clearance.Judgement {
	if v.judged == nil {
		judged := j.Yardstick(v).Judge(v.Round)
		j.wantFigure(v, &judged)
		v.judged = &judged
	}
	return *v.judged
}

// Yardstick is what a valve's readings are judged by: limits, leaves, rule, feel and aim of this job.
func (j *Job) Yardstick(v *ValveState) clearance.Yardstick {
	return clearance.Yardstick{Limits: v.Limits, Owned: j.Owned, Rule: j.Rule, Feel: j.Feel, Aim: j.AimOf(v)}
}

// Found is what is known of a valve's gap: by the readings that are not kept yet, else as it was kept; the
// zero judgement where it was never read.
func (j *Job) Found(v *ValveState) clearance.Judgement {
	switch {
	case len(v.Round) > 0:
		return j.Judge(v)
	case v.Last != nil:
		return v.Last.Judgement
	}
	return clearance.Judgement{}
}

// Around is what stands around the bench: steps, tools and clocks as they stand now.
func (j *Job) Around() around.Work {
	names := make([]string, len(j.Valves))
	for i, v := range j.Valves {
		names[i] = v.Name
	}
	return around.Work{
		Book: &j.Book,
		Engine: around.Engine{Sheet: j.Sheet, Hot: j.Card.State == clearance.Hot, Valves: names,
			Leaves: len(j.Owned), Speaks: j.Speaks},
	}
}
