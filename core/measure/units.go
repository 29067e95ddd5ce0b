package measure

import (
	"math"
	"strconv"
)

// Units is how quantities are spoken of to one person: that person's unit first, the other beside it. The
// zero value speaks as the sources do: a gap in the unit that its card states it in, all else in the units of
// the SI and kilometres.
//
// Units change words alone. What is stored, compared and reckoned with stays in nanometres, newton-metres,
// degrees Celsius and kilometres, so that a person who changes units changes no verdict.
type Units struct {
	Length     LengthUnit
	PoundFeet  bool // torque in pound-force feet
	Fahrenheit bool
	Miles      bool
}

// LengthUnit is the unit that gaps are spoken of in.
type LengthUnit string

// The units of a gap; the zero value is that of its source.
const (
	BySource    LengthUnit = ""
	Millimetres LengthUnit = "mm"
	Thousandths LengthUnit = "thou" // of an inch
)

// InThou says whether a gap is spoken of in thousandths of an inch, where its source states it so or not.
func (u LengthUnit) InThou(source bool) bool {
	return u == Thousandths || u == BySource && source
}

// Mile is one mile in kilometres: 5,280 exact feet of 0.3048 m (international yard and pound agreement of
// 1959).
const Mile = 1.609344

// Miles turns kilometres into miles.
func Miles(km float64) float64 { return km / Mile }

// Kilometres turns miles into kilometres.
//
// An odometer is kept in whole kilometres. A whole number of miles comes back as it was typed all the same:
// rounding to the kilometre moves it by 0.32 miles at most, which rounds away.
func Kilometres(miles float64) float64 { return miles * Mile }

// Fahrenheit turns degrees Celsius into degrees Fahrenheit: 9/5 C + 32 (NIST SP 811, appendix B.8).
func Fahrenheit(celsius float64) float64 { return celsius*9/5 + 32 }

// Celsius turns degrees Fahrenheit into degrees Celsius, to a millionth, so that 100.4 °F is 38 °C and not a
// bit above it.
func Celsius(fahrenheit float64) float64 { return math.Round((fahrenheit-32)*5/9*1e6) / 1e6 }

// Torque writes newton-metres in both units: "17 N·m (13 lbf·ft)". Both are rounded to three figures, halves
// away from zero, which stays within what a torque spanner holds: ± 4 % (ISO 6789-1).
func (u Units) Torque(newtonMetres float64) string {
	nm, lbfft := figures(newtonMetres, 3)+" N·m", figures(PoundFeet(newtonMetres), 3)+" lbf·ft"
	return pair(nm, lbfft, u.PoundFeet)
}

// Temperature writes degrees Celsius in both units, each to a tenth: "38 °C (100.4 °F)".
func (u Units) Temperature(celsius float64) string {
	return pair(tenth(celsius)+" °C", tenth(Fahrenheit(celsius))+" °F", u.Fahrenheit)
}

// TemperatureStep writes a difference of temperatures, where 5 °C are 9 °F: "5 °C (9 °F)".
func (u Units) TemperatureStep(celsius float64) string {
	return pair(tenth(celsius)+" °C", tenth(celsius*9/5)+" °F", u.Fahrenheit)
}

// Distance writes kilometres in both units, each whole: "20,000 km (12,427 miles)".
func (u Units) Distance(km float64) string {
	return pair(Grouped(km)+" km", Grouped(Miles(km))+" miles", u.Miles)
}

// Counter is what counts how far an engine has run.
type Counter string

// The counters; the zero value is an odometer, in kilometres.
const (
	Odometer  Counter = ""
	HourMeter Counter = "h" // running hours, of machines that do not drive: pumps, winches, generators
)

// Run writes how far an engine runs by its counter: "20,000 km (12,427 miles)", "1,250 h".
func (u Units) Run(by Counter, run float64) string {
	if by == HourMeter {
		return Grouped(run) + " h"
	}
	return u.Distance(run)
}

// Grouped writes a whole number with a comma between groups of three figures, as English readers write it:
// "12,427". Halves are rounded away from zero.
func Grouped(x float64) string {
	text := strconv.FormatFloat(math.Abs(math.Round(x)), 'f', 0, 64)
	for i := len(text) - 3; i > 0; i -= 3 {
		text = text[:i] + "," + text[i:]
	}
	if math.Round(x) < 0 {
		text = "−" + text
	}
	return text
}

// pair puts the person's own unit first.
func pair(metric, other string, otherFirst bool) string {
	if otherFirst {
		metric, other = other, metric
	}
	return metric + " (" + other + ")"
}

// tenth rounds to a tenth, halves away from zero, and writes no needless place.
func tenth(x float64) string {
	return strconv.FormatFloat(math.Round(x*10)/10+0, 'f', -1, 64)
}

// figures rounds to so many significant figures, halves away from zero.
func figures(x float64, n int) string {
	if x == 0 {
		return "0"
	}
	// Scaled by a power of ten both ways round, so that a half that is one in decimals stays a half.
	place := math.Pow10(n - 1 - int(math.Floor(math.Log10(math.Abs(x)))))
	return strconv.FormatFloat(math.Round(x*place)/place, 'f', -1, 64)
}
