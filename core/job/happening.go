package job

import (
	"time"
)

// Rules is the version of the rules by which happenings are taken now. A job that was open when the rules
// changed has its crank unknown, because earlier ones let it stand where it had not been found. 2: the crank
// is known only where it was seen. 3: figures count by the heat they were read at, and a signature answers
// for each valve that is out. 4: a drag of the aim's own leaf keeps itself. 5: what was read after the crank
// was moved, where that was told late, does not count unless it is clear where the crank then stood. 6: where
// the time told cannot be right, what the screen knew says what was read after it. 7: so it does where no
// time was told.
const (
	Rules      = 7
	crankRules = 3 // since when rules say the same of where the crank stands
	closeRules = 4
	lateRules  = 5
	knewRules  = 6
	soonRules  = 7
)

// Happening is one entry of a job's list: an act, and when and by whose view of the job it was done. ID is
// made by the client, so that the same happening sent twice is known.
type Happening struct {
	ID     string
	Rules  int       // the version of the rules it was taken by; 0: today's
	At     time.Time // when it arrived; zero: with the one before
	DoneAt time.Time // when it was done, where it waited to be sent; zero: as it arrived
	Since  string    // the newest happening that its screen knew; empty: the newest there was
	Author string    // who entered it; empty: nobody said
	Screen string    // on which screen it was entered; empty: it did not say
	SentBy string    // who sent it in the author's place, who could not; empty: the author
	Act    Act
}

// by says that a happening was taken by rules of a version at least.
func (h Happening) by(rules int) bool { return h.Rules == 0 || h.Rules >= rules }

// todays says that a happening was taken by today's rules.
func (h Happening) todays() bool { return h.Rules == 0 || h.Rules == Rules }

// The codes of refusals that a screen answers with a choice.
const (
	CrankMoved = "crank_moved" // somebody else moved the crank since this screen was drawn
	KeptSince  = "kept_since"  // the valve's readings were kept since this one was made
	EngineRan  = "engine_ran"  // the engine ran since this reading was made
	SoSoon     = "so_soon"     // it can hardly have been done since: asked back, it is taken
)

// Refusal says why a happening cannot be taken: the field at fault (empty: the happening as a whole) and a
// sentence.
type Refusal struct {
	Field, Message string
	Code           string // empty: nothing but the sentence
}

func (r *Refusal) Error() string { return r.Message }

// refuse is a refusal at a field.
func refuse(field, message string) error { return &Refusal{Field: field, Message: message} }

// refuseIf refuses where something holds.
func refuseIf(holds bool, field, message string) error {
	if !holds {
		return nil
	}
	return refuse(field, message)
}

// How far a client's word for when something was done is believed (from memory): not later than it arrived,
// nor before what is in the list already by more than a clock's difference, nor more than two days old.
const (
	clockSlack = time.Minute
	oldest     = 48 * time.Hour
)

// believable says that a client's word for when something was done can be right, by when it arrived.
func (h Happening) believable() bool {
	return !h.DoneAt.After(h.At.Add(clockSlack)) && h.At.Sub(h.DoneAt) <= oldest
}

// How long words of one's own may be, in characters: a note, and a word of a finding.
const (
	mostNote        = 400
	mostFindingWord = 120
)
