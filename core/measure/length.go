package measure

import (
	"errors"
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Length is a signed length in whole nanometres, as time.Duration counts nanoseconds.
// The zero value is no length. Its range is about ±9.2 million kilometres; parsing keeps within ±MaxLength.
type Length int64

// The units a length is counted in. The inch is exact: international yard and pound agreement, 1959.
const (
	Nanometre  Length = 1
	Micrometre        = 1000 * Nanometre
	Millimetre        = 1000 * Micrometre
	Inch              = 25_400_000 * Nanometre
	Thou              = Inch / 1000
)

// MaxLength bounds what ParseMillimetres and ParseInches take, in either sign: ten metres.
const MaxLength = 10_000 * Millimetre

// What a length that cannot be read is: errors.Is tells which.
var (
	ErrNotANumber    = errors.New("not a decimal number")
	ErrTooFine       = errors.New("finer than a nanometre")
	ErrLengthTooLong = errors.New("longer than ten metres")
)

// ParseMillimetres reads a decimal number of millimetres exactly. More than six decimal places (a part of a
// nanometre) give ErrTooFine, anything that is no decimal ErrNotANumber, more than ten metres
// ErrLengthTooLong.
func ParseMillimetres(s string) (Length, error) { return parse(s, Millimetre) }

// ParseInches reads a decimal number of inches exactly: 0.004 is 101 600 nm. A value that is not a whole
// number of nanometres (finer than 0.000 005 in) gives ErrTooFine; the other errors are those of
// ParseMillimetres.
func ParseInches(s string) (Length, error) { return parse(s, Inch) }

// parse works in whole numbers alone: an inch in nanometres takes up six powers of ten, so that a figure that
// is a whole number of nanometres and at most ten metres has at most eleven digits.
func parse(text string, unit Length) (Length, error) {
	s := strings.TrimSpace(text)
	refused := func(err error) (Length, error) { return 0, fmt.Errorf("%q: %w", s, err) }
	n, ok := readDecimal(s)
	switch {
	case !ok || len(s) > 40:
		return refused(ErrNotANumber)
	case len(n.digits)+n.power > 5: // a hundred thousand units
		return refused(ErrLengthTooLong)
	case n.power < -6:
		return refused(ErrTooFine)
	}
	l := unit
	for range n.power {
		l *= 10
	}
	l *= n.whole()
	for range -n.power {
		if l%10 != 0 {
			return refused(ErrTooFine)
		}
		l /= 10
	}
	if l > MaxLength {
		return refused(ErrLengthTooLong)
	}
	if n.negative {
		l = -l
	}
	return l, nil
}

// decimal is a number as it is written: digits with no zero at either end, times a power of ten. No digits
// are 0.
type decimal struct {
	negative bool
	digits   string
	power    int
}

// readDecimal takes what stands for a number apart: a sign, digits with a point before, among or after them,
// and an exponent of at most two digits, all but the digits optional.
func readDecimal(s string) (n decimal, ok bool) {
	s, n.negative = cutSign(s)
	if at := strings.IndexAny(s, "eE"); at >= 0 {
		exponent, minus := cutSign(s[at+1:])
		if !isDigits(exponent) || len(exponent) > 2 {
			return n, false
		}
		n.power, _ = strconv.Atoi(exponent)
		if minus {
			n.power = -n.power
		}
		s = s[:at]
	}
	whole, part, _ := strings.Cut(s, ".")
	all := whole + part
	if !isDigits(all) {
		return n, false
	}
	n.digits = strings.TrimRight(all, "0")
	n.power += len(all) - len(n.digits) - len(part)
	if n.digits = strings.TrimLeft(n.digits, "0"); n.digits == "" {
		return decimal{}, true
	}
	return n, true
}

// whole is the digits alone; there are at most eleven of them.
func (n decimal) whole() (l Length) {
	for _, c := range []byte(n.digits) {
		l = l*10 + Length(c-'0')
	}
	return l
}

// cutSign takes a sign off a number as typed.
func cutSign(s string) (rest string, minus bool) {
	if s != "" && (s[0] == '-' || s[0] == '+') {
		return s[1:], s[0] == '-'
	}
	return s, false
}

// isDigits says that a text is figures only; an empty one is not.
func isDigits(s string) bool {
	return s != "" && strings.IndexFunc(s, func(r rune) bool { return r < '0' || r > '9' }) < 0
}

// FromMillimetres rounds a computed number of millimetres to the nearest nanometre, halves away from zero.
// It is the exit of a formula, never the way in for a stated figure. NaN and figures beyond ±MaxLength panic:
// they can only come from a fault in the formula.
func FromMillimetres(mm float64) Length {
	if math.IsNaN(mm) || math.Abs(mm) > float64(MaxLength/Millimetre) {
		panic(fmt.Sprintf("measure: %v mm is no length", mm))
	}
	return Length(math.Round(mm * float64(Millimetre)))
}

// Millimetres gives the length as a float, for display and formulas only.
func (l Length) Millimetres() float64 { return float64(l) / float64(Millimetre) }

// Thousandths gives the length in thousandths of an inch, for display and formulas only.
func (l Length) Thousandths() float64 { return float64(l) / float64(Thou) }

// Abs is the length without its sign.
func (l Length) Abs() Length { return max(l, -l) }

// Decimal writes the exact number of millimetres with no more places than it needs: 0.22, 0.1016, -1, 0.
func (l Length) Decimal() string {
	sign, n := "", l
	if n < 0 {
		sign, n = "-", -n
	}
	s := fmt.Sprintf("%s%d.%06d", sign, n/Millimetre, n%Millimetre)
	return strings.TrimSuffix(strings.TrimRight(s, "0"), ".")
}

// DecimalInches writes the exact number of inches where it has at most six places, else the nearest with six:
// 0.012, 0.015748.
func (l Length) DecimalInches() string {
	return strings.TrimSuffix(strings.TrimRight(strconv.FormatFloat(float64(l)/float64(Inch), 'f', 6, 64),
		"0"), ".")
}

// String writes millimetres for people: at least two places, more only when they are there: "0.30 mm",
// "0.2286 mm".
func (l Length) String() string {
	s := l.Decimal()
	whole, frac, _ := strings.Cut(s, ".")
	for len(frac) < 2 {
		frac += "0"
	}
	return whole + "." + frac + " mm"
}

// Thou writes thousandths of an inch for people, to a tenth: "8.7 thou".
func (l Length) Thou() string {
	return strconv.FormatFloat(math.Round(l.Thousandths()*10)/10, 'f', -1, 64) + " thou"
}
