package job

import (
	"time"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/measure"
)

// Result is a valve's readings kept with their judgement.
type Result struct {
	Judgement clearance.Judgement
	Readings  []clearance.Reading
	At        time.Time // when the last of them was made
	OffAim    bool      // it is in, and the aim lies outside what its gap may be
	Told      bool      // it was told in one with the setting and the locking
	Stale     bool      // a hot reading taken too long after the engine was shut off
	// Elsewhere says that the crank had been moved by then, which was told later: the valve was read
	// somewhere else than was believed, and was not known to be clear there.
	Elsewhere bool
	// TimeDoubtful says that the client's word for when it was made cannot be right: At is when it arrived.
	TimeDoubtful bool

	reading string // the happening by which the last of them came
}

// Void is why a result does not count, in two words; empty: it does.
func (r *Result) Void() string {
	switch {
	case r.Elsewhere:
		return "crank moved"
	case r.Stale:
		return "too late"
	}
	return ""
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
	tightAt     measure.Angle  // the crank's travel when its nut was made tight, or it was read and left alone
	Verified    bool           // read in its limits after two turns since the last adjustment
	LeaveReason string         // why it stays out of limits; empty: it was not left
	PutOff      Deferral       // what setting it was put off for; zero: it was not
	Shim        measure.Length // fitted; 0: not known
	Stamped     measure.Length // what stands on it, where a micrometer says another; 0: not said
	Out         bool           // its shim was taken out for another valve
	StandIn     bool           // a shim stands in for its own, which was taken out for another valve
	Nipped      bool           // its nut was nipped, and is still to be tightened to its torque
	LockedBy    LockedBy       // how its nut was tightened last; empty: not said
	SetFor      string         // why it was set though it was in; empty: it was not
	// its adjuster was slackened and found free before any was set: nothing was found
	Freed      bool
	Outside    bool    // it is not in the scope of this job
	Play       Play    // felt by hand before it was read; empty: nobody felt
	ColdFound  *Result // of the cold pass, once the hot pass began
	ColdLeft   *Result
	ColdReason string // why it was left out of limits in the cold pass

	toAim     bool      // a gap that is in and off the aim is to be set too
	readAt    time.Time // when the last reading of Round was made
	readDoubt bool
	readBy    string // the happening by which it came
	readThere bool   // it was made at a place where the crank stands no more

	CameBack int               // how often it came back out on the same side once its nut was tight
	FellBack int               // the most that it did, whatever came after
	BackAs   clearance.Verdict // that side
	lent     bool              // the shim that stands in is the shop's
	before   measure.Length    // the gap set with the nut loose; 0: not known
	hadUnder []measure.Length  // shims that were under it in this pass before the present one, stand-ins left out
	stoodIn  bool              // a shim stood in for its own in this pass
	sum      *measure.Window   // shim and gap together, from readings with earlier shims; nil: nothing is known
	readWith measure.Length    // the shim with which the last kept gap was measured; 0: not known

	judged *clearance.Judgement // of Round; nil: not judged yet
	by     string               // the screen on which something was done at it last
}

// reading replaces the readings not kept yet.
func (v *ValveState) reading(round []clearance.Reading) { v.Round, v.judged = round, nil }

// unread says that the valve has no reading that counts.
func (v *ValveState) unread() bool { return v.Last == nil || v.Last.Void() != "" }

// toRead says that the valve waits to be read: it has no reading that counts, nobody decided to leave it so,
// and it is of this job.
func (v *ValveState) toRead() bool { return v.unread() && v.LeaveReason == "" && !v.Outside }

// toFree says that the valve's adjuster waits to be slackened, where all are before any is set.
func (v *ValveState) toFree() bool { return v.toRead() && v.Last == nil && !v.Freed && !v.begun() }

// slackened says that the valve's adjuster was slackened and not set since.
func (v *ValveState) slackened() bool { return v.Freed && v.Last == nil && v.Stage == Untouched }

// Needs says that the valve is read and not in, and nobody decided to leave it so; or that its shim lies
// elsewhere, with or without one that stands in. Where all are to come to the aim, one that is in and off it
// needs setting too.
func (v *ValveState) Needs() bool {
	if v.Out || v.StandIn {
		return true
	}
	return v.Last != nil && v.LeaveReason == "" && !v.Outside &&
		(v.Last.Judgement.Verdict != clearance.In || v.toAim && v.Last.OffAim)
}

// IsOut says that the valve was found out of its limits when it was read last, by figure or by side.
func (v *ValveState) IsOut() bool {
	return v.Last != nil && (v.Last.Judgement.Verdict == clearance.Tight ||
		v.Last.Judgement.Verdict == clearance.Loose)
}

// ownShim is the shim that is under a valve, or was until it was taken out for another; 0: not known.
func (v *ValveState) ownShim() measure.Length {
	if v.Shim == 0 {
		return v.readWith
	}
	return v.Shim
}

// toKeep says that the valve has readings that count and are not kept yet.
func (v *ValveState) toKeep() bool { return len(v.Round) > 0 && v.Stage != NutLoose }

// ReadThere says that the readings not kept yet were made where the crank stands no more.
func (v *ValveState) ReadThere() bool { return v.readThere && len(v.Round) > 0 }

// LockedBy is how tight a lock nut was made. On some engines it cannot be torqued while the screw is held,
// and then by feel is the honest record (common practice).
type LockedBy string

// To its torque with the wrench, or by feel.
const (
	ByTorque LockedBy = "torque"
	ByFeel   LockedBy = "feel"
)
