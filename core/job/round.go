package job

import (
	"cmp"
	"fmt"
	"slices"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/measure"
)

// Round is how an engine is gone round. The zero value reads every valve first, both kinds at each stop, and
// checks all.
type Round struct {
	Going     Going
	Check     Check
	KindFirst KindFirst
	// CheckTurns is how many turns of the crank come before the check round, 2 or 4; 0: as many as the sheet
	// says
	CheckTurns int
	Scope      []string // the valves of this job; nil: every valve
	Locking    Locking  // in how many stages a nut is tightened; empty: InOneGo
	// OwnShift is what locking does to a gap by this mechanic's own word, after − before, until enough pairs
	// have taught it: the school that backs the screw off a hair first. 0: the screw is held still; nil: as
	// before
	OwnShift *measure.Length
	ToAim    Aiming // whether a valve that is in and off the aim is set too; empty: it is left alone
}

// MostOwnShift is the most that a lock nut is believed to shift a gap, either way (from memory: more is a nut
// that drags its screw round, or a mistyped figure).
const MostOwnShift = 200 * measure.Micrometre

// Locking is in how many stages a lock nut is tightened. The zero value is InOneGo.
type Locking string

// Tightened in one go, or nipped first and then tightened to its torque (both common practice).
const (
	InOneGo   Locking = "one_go"
	InTwoGoes Locking = "nip_then_torque"
)

// Aiming is what becomes of a valve that is in its limits and not at its aim. The zero value is LeaveIn.
type Aiming string

// If it is in, leave it alone; or bring all to the aim, as some will have it (both common practice).
const (
	LeaveIn  Aiming = "leave_in"
	AllToAim Aiming = "all_to_aim"
)

// KindFirst is which kind of valve is gone round first, so that its leaf stays in the hand (common practice).
// The zero value is BothKinds.
type KindFirst string

// All exhausts with one leaf and then all intakes, the other way about, or both kinds at each stop, which
// turns the crank less.
const (
	ExhaustFirst KindFirst = "exhaust"
	IntakeFirst  KindFirst = "intake"
	BothKinds    KindFirst = "both"
)

// UsualCheckTurns are those before a check round where neither job nor sheet say: two turns of the crank are
// one of the cam (common practice).
const UsualCheckTurns = engine.UsualCheckTurns

// Going is how the engine is gone round. What must come first is the as-found reading of a valve before its
// own adjuster is touched, not that of the whole engine: the rounds differ in what is done at a stop.
type Going string

// The rounds (common practice). The zero value is ReadFirst.
const (
	// ReadFirst reads the whole engine as found and touches nothing; then those that are out are set, again
	// by stops. It is for whoever is unsure whether any needs it, and always with shims, whose swaps need
	// every figure.
	ReadFirst Going = "read_first"
	// SetAsYouGo reads a valve, leaves it if it is in, else sets, locks and reads it again, and goes on to
	// the next: once round the engine, which is how most mechanics go.
	SetAsYouGo Going = "set_as_you_go"
	// ReadOnly reads and sets nothing: an inspection, a second opinion.
	ReadOnly Going = "read_only"
	// FreeFirst slackens every adjuster and finds it free, then goes round as SetAsYouGo does: after a
	// rebuild or a new cam, or where screws are seized. Nothing is found then, so there is no as-found
	// figure.
	FreeFirst Going = "free_first"
)

// Check is which valves are read once more after two turns of the crank. The zero value is CheckAll.
type Check string

// The check rounds (common practice): every valve, only those that were set, or none, where reading each
// again with its nut tight is enough.
const (
	CheckAll     Check = "all"
	CheckSetOnes Check = "set_ones"
	CheckNone    Check = "none"
)

// Rounds are those that an engine may be gone round by, the usual one first: most mechanics set as they go,
// and shims are chosen over the whole engine (common practice).
func (j *Job) Rounds() []Going {
	if j.Sheet.Shimmed() {
		return []Going{ReadFirst, ReadOnly}
	}
	return []Going{SetAsYouGo, ReadFirst, ReadOnly, FreeFirst}
}

// UsualCheck is the check round that goes with the usual round. None where each valve that was set was felt
// again with its nut tight, which is the check; those that were set after a new cam, and where a thread holds
// by itself; with shims, that have oil under them, every valve; in a hot pass none, for time is short (common
// practice, all of it).
func (j *Job) UsualCheck() Check {
	switch {
	case j.Card.State == clearance.Hot:
		return CheckNone
	case j.Sheet.Shimmed():
		return CheckAll
	case j.NewCam || j.Sheet.Gear().Creeps:
		return CheckSetOnes
	}
	return CheckNone
}

// Checks is which valves the check round reads: as chosen, else all, and in a hot pass none.
func (j *Job) Checks() Check {
	if j.Check == "" && j.Card.State == clearance.Hot {
		return CheckNone
	}
	return cmp.Or(j.Check, CheckAll)
}

// asYouGo says whether a valve may be set while others are still to be read.
func (j *Job) asYouGo() bool { return j.Going == SetAsYouGo || j.Going == FreeFirst }

// TurnsToCheck is how many turns of the crank come before the check round: as chosen for the job, else as the
// sheet has it.
func (j *Job) TurnsToCheck() int { return cmp.Or(j.CheckTurns, j.Sheet.CheckTurns, UsualCheckTurns) }

// freesAtOnce says that every adjuster is slackened before any is set, where the engine stands: nothing is
// read then. Where a follower or an eccentric can fall out, each is slackened at its own stop as it is set.
func (j *Job) freesAtOnce() bool {
	return j.Going == FreeFirst && !j.Sheet.Gear().FallsOut
}

// freeing says that adjusters are still being slackened, before any is set.
func (j *Job) freeing() bool {
	return j.freesAtOnce() && slices.ContainsFunc(j.Valves, (*ValveState).toFree)
}

// nextToFree is the valve to slacken next: in the order of the sequence, all where the engine stands.
func (j *Job) nextToFree() *ValveState {
	for _, stop := range j.Plan.Stops {
		for _, set := range stop.Set {
			if v, ok := j.Valve(set.Valve); ok && v.toFree() && j.here(v) {
				return v
			}
		}
	}
	return j.find(func(v *ValveState) bool { return v.toFree() && j.here(v) })
}

// secondKind says that a valve waits until all of the other kind are done.
func (j *Job) secondKind(v *ValveState) bool {
	switch j.KindFirst {
	case ExhaustFirst, IntakeFirst:
		return KindFirst(v.Kind.String()) != j.KindFirst
	}
	return false
}

// Sound refuses a round that this engine is not gone round by.
func (r Round) Sound(j *Job) error {
	switch may := slices.Contains(j.Rounds(), r.Going); {
	case r.Going == "", may:
	case r.Going == SetAsYouGo || r.Going == FreeFirst:
		return refuse("round", "Shims are chosen over the whole engine, so every valve is read first.")
	default:
		return refuse("round",
			fmt.Sprintf("%q is no round: %s, %s, %s or %s.", r.Going, SetAsYouGo, ReadFirst,
				ReadOnly, FreeFirst))
	}
	switch r.Check {
	case "", CheckAll, CheckSetOnes, CheckNone:
	default:
		return refuse("check",
			fmt.Sprintf("%q is no check round: %s, %s or %s.", r.Check, CheckAll, CheckSetOnes, CheckNone))
	}
	switch r.KindFirst {
	case "", BothKinds, ExhaustFirst, IntakeFirst:
	default:
		return refuse("one_kind_first",
			fmt.Sprintf("%q is no kind: %s, %s or %s.", r.KindFirst, ExhaustFirst, IntakeFirst, BothKinds))
	}
	if !slices.Contains([]int{0, UsualCheckTurns, engine.LongCheckTurns}, r.CheckTurns) {
		return refuse("check_turns",
			fmt.Sprintf("%d turns before the check: %d, or %d for two turns of the cam.",
				r.CheckTurns, UsualCheckTurns, engine.LongCheckTurns))
	}
	switch r.Locking {
	case "", InOneGo, InTwoGoes:
	default:
		return refuse("locking", fmt.Sprintf("%q: %s or %s.", r.Locking, InOneGo, InTwoGoes))
	}
	switch r.ToAim {
	case "", LeaveIn, AllToAim:
	default:
		return refuse("aiming", fmt.Sprintf("%q: %s or %s.", r.ToAim, LeaveIn, AllToAim))
	}
	if r.OwnShift != nil && r.OwnShift.Abs() > MostOwnShift {
		return refuse("own_shift_mm",
			fmt.Sprintf("A lock nut that shifts the gap by %s: up to %s, minus where "+
				"it closes.", r.OwnShift, MostOwnShift))
	}
	if r.Scope != nil && len(r.Scope) == 0 {
		return refuse("scope", "A job is about one valve at least.")
	}
	for i, name := range r.Scope {
		if _, ok := j.Valve(name); !ok {
			return refuse(fmt.Sprintf("scope[%d]", i), fmt.Sprintf("%q is no valve of this engine.", name))
		}
	}
	return nil
}

// may refuses a round by which something begun would be left as it is.
func (r Round) may(j *Job) error {
	for _, v := range j.Valves {
		begun := v.Stage != Untouched || v.Out || v.slackened()
		if begun && (r.Going == ReadOnly || r.leavesOut(v.Name)) {
			return refuse("round", fmt.Sprintf("Finish %s first: %s.", v.Name, v.unfinished()))
		}
	}
	return nil
}

// leavesOut says that a valve is not of this job.
func (r Round) leavesOut(valve string) bool {
	return r.Scope != nil && !slices.Contains(r.Scope, valve)
}

// goRound takes a round up: what is not in its scope waits for nothing.
func (j *Job) goRound(r Round) {
	j.Round = r
	for _, v := range j.Valves {
		v.Outside, v.toAim = r.leavesOut(v.Name), r.ToAim == AllToAim
	}
}

// toCheck says whether a valve is among those that the check round reads, and was not read there yet.
func (j *Job) toCheck(v *ValveState) bool {
	switch {
	case v.Verified || v.LeaveReason != "" || v.Outside || j.Checks() == CheckNone:
		return false
	case j.Checks() == CheckSetOnes:
		return v.Adjustments > 0
	}
	return true
}

// FullTurns says how often the crank is turned right round: "two full turns".
func FullTurns(n int) string {
	if n == engine.LongCheckTurns {
		return "four full turns"
	}
	return "two full turns"
}
