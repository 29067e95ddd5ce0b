package job

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"metronix/core/around"
)

// Signature is who signed, and when.
type Signature struct {
	By string
	At time.Time
}

// Signing is who signed the job, and what was added after that.
type Signing struct {
	SignedBy      string // empty: it is open
	SignedAt      time.Time
	Seal          Seal         // of that signature
	Deferred      Deferral     // what it was put off for when it was signed
	Exceptions    string       // why it was signed with steps that were not done; empty: none was left
	StepsLeft     []string     // those, in words, as they were when it was signed
	HeardLater    around.Heard // how it sounded when it was started after the signature; zero: nobody said
	Cold          *Signature   // of the cold pass, once the hot pass began
	ColdHeat      Heat         // of that pass
	Amendments    []Amendment
	Countersigned *Signature // nil: it is not
}

// Seal is what a signed sheet shows of what lies outside its job's list: it stays so, whatever becomes of the
// vehicle. The zero value is of a signature that was made before seals were.
type Seal struct {
	Vehicle, Plate string
	Facts          string // a checksum of what the job was started from
}

// Deferral is what a job was put off for, and until when. The zero value is that nothing was.
type Deferral struct {
	Waits WaitsFor
	Until string // in the mechanic's words or as a date: "2027-03-01", "120000 km", "the other cams"
}

// WaitsFor is what a deferred job waits for.
type WaitsFor string

// A date, an odometer, parts on order, or other cams.
const (
	WaitsForDate     WaitsFor = "date"
	WaitsForOdometer WaitsFor = "odometer"
	WaitsForParts    WaitsFor = "parts"
	WaitsForCams     WaitsFor = "cams"
)

// String says it in words: "put off until 2027-03-01", "put off: waits for parts, on order".
func (d Deferral) String() string {
	until := strings.TrimSpace(d.Until)
	switch d.Waits {
	case WaitsForDate, WaitsForOdometer:
		return "put off until " + until
	}
	says := map[WaitsFor]string{WaitsForParts: "put off: waits for parts",
		WaitsForCams: "put off: waits for other cams"}[d.Waits]
	if until != "" {
		says += ", " + until
	}
	return says
}

// mostUntil bounds what is said of a deferral, in characters.
const mostUntil = 120

// sound wants a date or an odometer to be said; parts and cams may come when they come.
func (d Deferral) sound() error {
	switch {
	case d == Deferral{}:
		return nil
	case !slices.Contains([]WaitsFor{WaitsForDate, WaitsForOdometer, WaitsForParts, WaitsForCams}, d.Waits):
		return refuse("deferred.waits_for",
			fmt.Sprintf("%q is nothing to wait for: %s, %s, %s or %s.", d.Waits,
				WaitsForDate, WaitsForOdometer, WaitsForParts, WaitsForCams))
	case len([]rune(d.Until)) > mostUntil:
		return refuse("deferred.until", fmt.Sprintf("At most %d characters.", mostUntil))
	case strings.TrimSpace(d.Until) == "" && (d.Waits == WaitsForDate || d.Waits == WaitsForOdometer):
		return refuse("deferred.until", "Say until when it is put off.")
	}
	return nil
}

// Amendment is a correction added to a signed job: it is shown beside what was signed, and overwrites
// nothing.
type Amendment struct {
	Text, By string
	At       time.Time
}

// Hand is who was at the job from when on, after whoever began it.
type Hand struct {
	Name, Note string
	From       time.Time
}

// Hand is who is at the job now; empty: whoever began it.
func (j *Job) Hand() string {
	if n := len(j.Hands); n > 0 {
		return j.Hands[n-1].Name
	}
	return ""
}
