package job

// Going is how the engine is gone round. What must come first is the as-found reading of a valve before its
// own adjuster is touched, not that of the whole engine: the rounds differ in what is done at a stop.
type Going string

// The rounds (common practice). The zero value is ReadFirst.
const (
	// ReadFirst reads the whole engine as found and touches nothing; then those that are out are set, again by
	// stops. It is for whoever is unsure whether any needs it, and always with shims, whose swaps need every
	// figure.
	ReadFirst Going = "read_first"
	// SetAsYouGo reads a valve, leaves it if it is in, else sets, locks and reads it again, and goes on to the
	// next: once round the engine, which is how most mechanics go.
	SetAsYouGo Going = "set_as_you_go"
	// ReadOnly reads and sets nothing: an inspection, a second opinion.
	ReadOnly Going = "read_only"
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

// Rounds are those that an engine may be gone round by, the usual one first: most mechanics set as they go, and
// shims are chosen over the whole engine (common practice).
func (j *Job) Rounds() []Going {
	if j.Sheet.Shimmed() {
		return []Going{ReadFirst, ReadOnly}
	}
	return []Going{SetAsYouGo, ReadFirst, ReadOnly}
}

// UsualCheck is the check round that goes with the usual round: those that were set, where each was read again
// with its nut tight; with shims every valve.
func (j *Job) UsualCheck() Check {
	if j.Sheet.Shimmed() {
		return CheckAll
	}
	return CheckSetOnes
}

// asYouGo says whether a valve may be set while others are still to be read.
func (j *Job) asYouGo() bool { return j.Going == SetAsYouGo }

// maySetNow says whether setting has its time: as one goes, or after the whole engine was read.
func (j *Job) maySetNow() bool {
	return j.asYouGo() || j.Phase() == Adjust
}

// toCheck says whether a valve is among those that the check round reads, and was not read there yet.
func (j *Job) toCheck(v *ValveState) bool {
	switch {
	case v.Verified || v.LeaveReason != "" || j.Check == CheckNone:
		return false
	case j.Check == CheckSetOnes:
		return v.Adjustments > 0
	}
	return true
}
