package measure

import (
	"errors"
	"fmt"
	"math"
	"math/big"
	"regexp"
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

var decimal = regexp.MustCompile(`^[+-]?(\d+(\.\d*)?|\.\d+)([eE][+-]?\d{1,2})?$`)

// ParseMillimetres reads a decimal number of millimetres exactly. More than six decimal places (a part of a
// nanometre) give ErrTooFine, anything that is no decimal ErrNotANumber, more than ten metres
// ErrLengthTooLong.
func ParseMillimetres(s string) (Length, error) { return parse(s, Millimetre) }

// ParseInches reads a decimal number of inches exactly: 0.004 is 101 600 nm. A value that is not a whole
// number of nanometres (finer than 0.000 005 in) gives ErrTooFine; the other errors are those of
// ParseMillimetres.
func ParseInches(s string) (Length, error) { return parse(s, Inch) }

func parse(s string, unit Length) (Length, error) {
	s = strings.TrimSpace(s)
	if l, ok := short(s, unit); ok {
		return l, nil
	}
	if len(s) > 40 || !decimal.MatchString(s) {
		return 0, fmt.Errorf("%q: %w", s, ErrNotANumber)
	}
	r, ok := new(big.Rat).SetString(s)
	if !ok {
		return 0, fmt.Errorf("%q: %w", s, ErrNotANumber)
	}
	r.Mul(r, new(big.Rat).SetInt64(int64(unit)))
	limit := new(big.Rat).SetInt64(int64(MaxLength))
	if new(big.Rat).Abs(r).Cmp(limit) > 0 {
		return 0, fmt.Errorf("%q: %w", s, ErrLengthTooLong)
	}
	if !r.IsInt() {
		return 0, fmt.Errorf("%q: %w", s, ErrTooFine)
	}
	return Length(r.Num().Int64()), nil
}

// short reads what nearly every figure is, up to ten digits with a point among them, by whole numbers alone:
// 9,999,999,999 inches in nanometres still fit. It says false for all else, which is then read at length.
func short(s string, unit Length) (Length, bool) {
	negative := strings.HasPrefix(s, "-")
	s = strings.TrimPrefix(s, "-")
	var n, digits, scale Length = 0, 0, 1
	point := false
	for _, c := range []byte(s) {
		switch {
		case c >= '0' && c <= '9':
			n = n*10 + Length(c-'0')
			if digits++; point {
				scale *= 10
			}
		case c == '.' && !point:
			point = true
		default:
			return 0, false
		}
	}
	if digits == 0 || digits > 10 {
		return 0, false
	}
	n *= unit
	if n%scale != 0 || n/scale > MaxLength {
		return 0, false
	}
	if n /= scale; negative {
		n = -n
	}
	return n, true
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
