package wire

import (
	"encoding/json"
	"fmt"
	"strconv"
	"strings"

	"metronix/core/measure"
)

// MM is a length in decimal millimetres, exact to the nanometre: at most six decimal places.
type MM measure.Length

// MarshalJSON writes a plain decimal.
func (l MM) MarshalJSON() ([]byte, error) { return []byte(measure.Length(l).Decimal()), nil }

// UnmarshalJSON reads a decimal exactly; it errs where it is finer than a nanometre.
func (l *MM) UnmarshalJSON(text []byte) error {
	read, err := measure.ParseMillimetres(string(text))
	*l = MM(read)
	return err
}

// IN is a length in decimal inches.
type IN measure.Length

// MarshalJSON writes the shortest decimal that reads back as the same length.
func (l IN) MarshalJSON() ([]byte, error) {
	inches := float64(l) / float64(measure.Inch)
	for places := 1; places < 12; places++ {
		text := strconv.FormatFloat(inches, 'f', places, 64)
		if back, err := measure.ParseInches(text); err == nil && back == measure.Length(l) {
			return []byte(text), nil
		}
	}
	return nil, fmt.Errorf("%d nm is no decimal number of inches", int64(l))
}

// UnmarshalJSON reads a decimal exactly; it errs where it is no whole number of nanometres.
func (l *IN) UnmarshalJSON(text []byte) error {
	read, err := measure.ParseInches(string(text))
	*l = IN(read)
	return err
}

// Deg is an angle in degrees, of the crank where nothing else is said, rounded to the nearest micro-degree as
// it comes in.
type Deg measure.Angle

// MarshalJSON writes the shortest decimal that reads back as the same angle.
func (a Deg) MarshalJSON() ([]byte, error) {
	return strconv.AppendFloat(nil, measure.Angle(a).Degrees(), 'f', -1, 64), nil
}

// UnmarshalJSON reads a number of degrees.
func (a *Deg) UnmarshalJSON(text []byte) error {
	var degrees float64
	err := json.Unmarshal(text, &degrees)
	*a = Deg(measure.FromDegrees(degrees))
	return err
}

// Celsius is a temperature, °C.
type Celsius float64

// Nm is a torque in newton-metres, LbfFt one in pound-force feet.
type (
	Nm    float64
	LbfFt float64
)

// Millimetres writes a list of lengths; it is never null.
func Millimetres(lengths []measure.Length) []MM {
	out := make([]MM, len(lengths))
	for i, l := range lengths {
		out[i] = MM(l)
	}
	return out
}

// Degrees writes a list of angles; it is never null.
func Degrees(angles []measure.Angle) []Deg {
	out := make([]Deg, len(angles))
	for i, a := range angles {
		out[i] = Deg(a)
	}
	return out
}

// List makes an absent list an empty one: no list is ever null on the wire.
func List[T any](l []T) []T {
	if l == nil {
		return []T{}
	}
	return l
}

// Sentence writes an error as a sentence.
func Sentence(err error) string {
	text := err.Error()
	return strings.ToUpper(text[:1]) + text[1:] + "."
}

// Words reads a list of words.
func Words[T ~string](names []string) []T {
	var out []T
	for _, n := range names {
		out = append(out, T(n))
	}
	return out
}

// Names writes a list of words; it is never null.
func Names[T ~string](words []T) []string {
	out := make([]string, len(words))
	for i, w := range words {
		out[i] = string(w)
	}
	return out
}

// ReadUnits reads a person's units as they are kept in a browser: words apart by points, "thou.lbfft.f.mi". A
// word that is none is passed over, so that a later version's choice does no harm.
func ReadUnits(text string) measure.Units {
	var u measure.Units
	for word := range strings.SplitSeq(text, ".") {
		switch word {
		case "mm", "thou":
			u.Length = measure.LengthUnit(word)
		case "lbfft":
			u.PoundFeet = true
		case "f":
			u.Fahrenheit = true
		case "mi":
			u.Miles = true
		}
	}
	return u
}

// UnitsText writes a person's units as ReadUnits reads them.
func UnitsText(u measure.Units) string {
	words := []string{}
	if u.Length != "" {
		words = append(words, string(u.Length))
	}
	for _, w := range []struct {
		said bool
		word string
	}{{u.PoundFeet, "lbfft"}, {u.Fahrenheit, "f"}, {u.Miles, "mi"}} {
		if w.said {
			words = append(words, w.word)
		}
	}
	return strings.Join(words, ".")
}
