package instrument

import (
	"errors"
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"
	"sync/atomic"
	"time"

	"metronix/internal/line"
)

// Kind is a kind of instrument.
type Kind string

// The kinds.
const (
	Crank  Kind = "crank"
	Dial   Kind = "dial"
	Wrench Kind = "wrench"
	Pull   Kind = "pull"
)

// Kinds are all of them, as they are listed.
func Kinds() []Kind { return []Kind{Crank, Dial, Wrench, Pull} }

// Trait is what a kind of instrument is like.
type Trait struct {
	Name   string  // in words
	Unit   string  // of its values
	Lowest float64 // value that can be
	Most   float64
	Takes  bool // it has a button or a click of its own
	Places int  // decimals that it is told and shown with
}

// traits are those of every kind. The bounds are what such devices can show at an engine at all (from
// memory).
var traits = map[Kind]Trait{
	Crank:  {"crank encoder", "°", -1e6, 1e6, false, 1},
	Dial:   {"dial indicator", "mm", -20, 20, true, 3},
	Wrench: {"torque wrench", "N·m", 0, 500, true, 1},
	Pull:   {"pull scale", "N", 0, 200, true, 2},
}

// Trait is what this kind is like; the zero Trait where there is no such kind.
func (k Kind) Trait() Trait { return traits[k] }

// Greeting is the first line that an instrument of this kind sends.
func (k Kind) Greeting() string { return "METRONIX-INSTRUMENT 1 " + string(k) }

// silence is how long an instrument may say nothing before it counts as lost.
const silence = 3 * time.Second

// What a crank turned by hand can do.
const (
	// stillness is how little an encoder may move while the crank stands, degrees: its own play and the
	// flexing of an engine on its mounts (from memory).
	stillness = 0.5
	// settled is how long it stands before it counts as standing.
	settled = 700 * time.Millisecond
	// fastest is how fast a crank is turned by hand at most, degrees a second: two turns (from memory).
	fastest = 720
	// slack is how far beyond that it may be between two lines, degrees: they may come in a bunch.
	slack = 45
)

// Reading is what an instrument told.
type Reading struct {
	Value float64 // the latest
	// Run counts anew with each connection, and with each jump of an encoder: within one Run its count is of
	// one piece. 0: none yet. No two connections have the same one.
	Run    int64
	Jumped float64 // by how much it jumped last in this connection, degrees; 0: it did not

	Taken   float64 // the figure that its button or click took last
	Takes   int     // how many were taken in this connection; 0: none
	TakenAt time.Time

	from  float64   // where it stood when it was seen to move last
	since time.Time // when that was
	stood time.Time // when it stood last; when it was reached, where it never did
	at    time.Time // of the latest value
}

// Still says that it has not moved for a while.
func (r Reading) Still() bool { return !r.since.IsZero() && r.at.Sub(r.since) >= settled }

// restless is after how long without standing an encoder is not taken at its word: no hand turns a crank so
// long in one go (from memory).
const restless = time.Minute

// Restless says that it has not stood still for so long that it cannot be a crank that is turned.
func (r Reading) Restless() bool { return !r.stood.IsZero() && r.at.Sub(r.stood) >= restless }

// runs counts the runs of all instruments.
var runs atomic.Int64

// NewReader is a reader of such an instrument that listens to none yet.
func NewReader(k Kind) *line.Reader[Reading] {
	return &line.Reader[Reading]{Protocol: line.Protocol[Reading]{
		What: string(k.Trait().Name), Greeting: k.Greeting(), Silence: silence,
		Lost: func(r *Reading) { *r = Reading{Value: r.Value, Taken: r.Taken, TakenAt: r.TakenAt} },
		Take: func(r *Reading, said string, at time.Time) error { return r.take(k, said, at) },
	}}
}

// figure is a value as an instrument sends it: no exponent, no hexadecimal figures.
var figure = regexp.MustCompile(`^-?\d{1,7}(\.\d{1,6})?$`)

// take reads a line: "V value", what it shows; "P value", what its button or click took; "E text", a fault.
func (r *Reading) take(k Kind, said string, at time.Time) error {
	fields := strings.Fields(said)
	switch {
	case len(fields) > 0 && fields[0] == "E":
		return errors.New("it says that it has no reading")
	case len(fields) != 2 || (fields[0] != "V" && fields[0] != "P"):
		return errors.New("it sent something that is no value")
	}
	t := k.Trait()
	value, err := strconv.ParseFloat(fields[1], 64)
	if err != nil || !figure.MatchString(fields[1]) || !(value >= t.Lowest && value <= t.Most) {
		return fmt.Errorf("it sent a value that no %s shows", t.Name)
	}
	if fields[0] == "P" {
		if !t.Takes {
			return fmt.Errorf("it sent a press, and a %s has no button", t.Name)
		}
		r.Taken, r.TakenAt = value, at
		r.Takes++
		return nil
	}
	r.moved(k, value, at)
	return nil
}

// moved goes on to a value. An encoder that goes farther than a hand can have turned the crank begins a run
// anew: its zero is not known any more.
func (r *Reading) moved(k Kind, value float64, at time.Time) {
	first := r.Run == 0
	by := value - r.Value
	jumped := k == Crank && !first && math.Abs(by) > slack+fastest*at.Sub(r.at).Seconds()
	if jumped {
		r.Jumped = by
	}
	if first || jumped {
		r.Run = runs.Add(1)
	}
	if first || jumped || math.Abs(value-r.from) > stillness {
		r.from, r.since = value, at
	}
	r.Value, r.at = value, at
	if first || r.Still() {
		r.stood = at
	}
}
