package wear

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"time"

	"gonum.org/v1/gonum/stat/distuv"

	"metronix/core/measure"
)

// Found is one valve at one visit: the gap as found, as left, and its window. A gap is nil where it is not
// known as a figure: only a side was told, or nothing was found because the adjuster was freed first.
type Found struct {
	Valve       string
	Found, Left *measure.Length
	// FoundU and LeftU are the standard uncertainties of the two (JCGM 100 2.3.1), 0 or more; nil: UsualU
	FoundU, LeftU *measure.Length
	Window        measure.Window
	LeftOut       Side // it was left out of its window, by a side alone too; None: by no more than Left says
}

// UsualU is the standard uncertainty of a gap where it is not said (from memory: an unchecked leaf and the
// feel of a hand, ± 0.007, are 0.007/√3).
const UsualU = 4 * measure.Micrometre

// u is a standard uncertainty, mm.
func u(said *measure.Length) float64 {
	if said == nil {
		return UsualU.Millimetres()
	}
	return said.Millimetres()
}

// Visit is one valve job, in the order of running.
type Visit struct {
	Meter  float64 // what the counter showed: km, or running hours; the same for all visits
	Date   time.Time
	Valves []Found
}

// Side is which limit a valve is moving towards.
type Side string

// The sides; None is a valve that stands still.
const (
	None  Side = ""
	Tight Side = "tight"
	Loose Side = "loose"
)

// Valve is how one valve wears.
type Valve struct {
	Valve string
	// millimetres per 1000 km or per 1000 hours, negative when tightening; NaN where fewer than two visits
	// know it
	Rate  float64
	RateU float64 // its standard uncertainty; NaN where there is no rate
	// Differs says that the rate is more than readings of a valve that stands still would show: an engine
	// without wear is called in early in at most 5 of 100
	Differs bool
	// what the counter shows when it leaves its window, where its rate differs or it was left outside; NaN:
	// never, or not known
	Leaves float64
	Side   Side // which limit that is; None where it does not leave
	Out    bool // it was left outside its window
	// the earliest and the latest at which it leaves, at either end of the rate's 90 % interval;
	// NaN: never. Nil: there is no rate, or nobody knows how it was left
	Range *[2]float64
}

// Every is after how far or how long an engine is due again.
type Every struct {
	Run    float64 // km or running hours; 0: none
	Months int     // 0: none
	By     measure.Counter
}

// Forecast is the whole engine.
type Forecast struct {
	Valves []Valve
	Due    Due
}

// ErrVisits is what is wrong with a list of visits; the wrapped text says where.
var ErrVisits = errors.New("the visits are not in order")

// ninety is how many standard uncertainties either way hold nine of ten (standard normal quantile of 0.95).
const ninety = 1.645

// tell says which rates differ from none, and where those valves leave their windows.
//
// A rate differs where it is at least z times its uncertainty, z being the standard normal quantile of 1 −
// 0.025/n with n valves that have one: two-sided at 5 of 100 for the whole engine (Bonferroni), so that an
// engine of many valves is not called in early by the reading of one.
func (f *Forecast) tell(visits []Visit) {
	n := 0
	for _, v := range f.Valves {
		if !math.IsNaN(v.Rate) {
			n++
		}
	}
	for i := range f.Valves {
		v := &f.Valves[i]
		at, from := lastOf(visits, v.Valve)
		switch {
		case math.IsNaN(v.Rate):
		case v.Out:
			v.Range = &[2]float64{v.Leaves, v.Leaves}
			fallthrough
		default:
			z := distuv.UnitNormal.Quantile(1 - 0.025/float64(n))
			v.Differs = v.Rate != 0 && math.Abs(v.Rate) >= z*v.RateU
			if v.Out || at.Left == nil {
				continue
			}
			v.Range = between(at, v.Rate, v.RateU, from)
			if v.Differs {
				v.Leaves, v.Side = leaves(at, v.Rate/1000, from)
			}
		}
	}
}

// between is the earliest and the latest leaving at either end of a rate's 90 % interval, mm per 1000
// of its counter. Where that interval holds a rate of none there is no latest.
func between(at Found, rate, u, from float64) *[2]float64 {
	slow, fast := rate-ninety*u, rate+ninety*u
	a, _ := leaves(at, slow/1000, from)
	b, _ := leaves(at, fast/1000, from)
	r := &[2]float64{math.NaN(), math.NaN()}
	for _, at := range []float64{a, b} {
		if !math.IsNaN(at) && !(at >= r[0]) {
			r[0] = at
		}
	}
	if slow > 0 || fast < 0 {
		r[1] = math.Max(a, b)
	}
	return r
}

// lastOf is what a valve was at the last visit that had it, and what the counter showed then.
func lastOf(visits []Visit, valve string) (at Found, from float64) {
	for i := len(visits) - 1; i >= 0; i-- {
		if found := find(visits[i], valve); found != nil {
			return *found, visits[i].Meter
		}
	}
	return at, math.NaN()
}

// Reckon gives each valve's rate, pooled over visits as the sum of changes (found at a visit − left at the
// one before) over the sum of distances, and where it leaves its window from the gap it was left with last. A
// valve left outside its window leaves it there: it is due now. every is the maker's interval. It errs with
// ErrVisits where counters or dates do not rise, or a visit has a valve twice.
//
// Distance is what the counter says, km or running hours: the sums are the same.
//
// A visit that does not know a valve's gap as found and as left ends no interval for it; the next one begins
// where a gap was left as a figure again.
//
// A valve left at 0.30 and found at 0.29 after 20,000 km closes by 0.0005 mm per 1,000 km; from 0.30 it
// reaches a limit of 0.28 after another 40,000. Clearances that close are the valve sinking into its seat,
// and burn it when they are gone; those that open are wear of the gear between cam and valve, and tick.
//
// Rates are pooled rather than averaged, because an interval of 500 km says little about wear and much
// about the feel of two hands.
func Reckon(visits []Visit, every Every) (Forecast, error) {
	for i, v := range visits {
		if i > 0 && (v.Meter <= visits[i-1].Meter || v.Date.Before(visits[i-1].Date)) {
			return Forecast{}, fmt.Errorf("%w: visit %d does not lie after the one before", ErrVisits, i+1)
		}
		for n, f := range v.Valves {
			if find(Visit{Valves: v.Valves[:n]}, f.Valve) != nil {
				return Forecast{}, fmt.Errorf("%w: visit %d has %s twice", ErrVisits, i+1, f.Valve)
			}
		}
	}
	var f Forecast
	if len(visits) == 0 {
		f.Due = Due{Meter: math.NaN()}
		return f, nil
	}
	last := visits[len(visits)-1]
	for i := len(visits) - 1; i >= 0; i-- {
		for _, at := range visits[i].Valves {
			if !slices.ContainsFunc(f.Valves, func(v Valve) bool { return v.Valve == at.Valve }) {
				f.Valves = append(f.Valves, valveOf(visits[:i+1], at))
			}
		}
	}
	f.tell(visits)
	f.Due = due(f.Valves, last, every)
	return f, nil
}

func valveOf(visits []Visit, at Found) Valve {
	v := Valve{Valve: at.Valve, Leaves: math.NaN()}
	from := visits[len(visits)-1].Meter
	if side := at.leftOut(); side != None { // out already: due now, whatever the rate
		v.Leaves, v.Side, v.Out = from, side, true
	}
	v.Rate, v.RateU = rate(visits, at.Valve)
	return v
}

// rate pools what a valve did between visits, and how certain that is, mm per 1000 of the counter; NaN
// where nothing is known.
//
// Each end of an interval is a reading with its own error. At a visit between two intervals whose gap was
// left as it was found there is one reading, which ends the one and begins the other: its error cancels (JCGM
// 100 5.2, correlated inputs), and so it is left out.
func rate(visits []Visit, valve string) (perThousand, uncertainty float64) {
	type end struct {
		u    float64
		same bool // found and left are one reading
	}
	var change, distance, squares float64
	var before *Found // at the last visit that had the valve: one in between that did not lets the wear go on
	beforeAt := 0.0
	var open *end // the end of the interval before, at the visit where the next one begins
	for i := range visits {
		now := find(visits[i], valve)
		if now == nil {
			continue
		}
		used := before != nil && before.Left != nil && now.Found != nil && now.Left != nil
		if used {
			change += (*now.Found - *before.Left).Millimetres()
			distance += visits[i].Meter - beforeAt
			begins := u(before.LeftU)
			if open != nil && open.same {
				squares, begins = squares-open.u*open.u, 0
			}
			ends := u(now.FoundU)
			squares += begins*begins + ends*ends
			open = &end{ends, *now.Found == *now.Left}
		} else {
			open = nil
		}
		before, beforeAt = now, visits[i].Meter
	}
	if distance == 0 {
		return math.NaN(), math.NaN()
	}
	return change / distance * 1000, math.Sqrt(math.Max(squares, 0)) / distance * 1000
}

// leftOut is the side on which a valve was left outside its window; None: it was not.
func (f Found) leftOut() Side {
	switch {
	case f.Left == nil || f.Window.Contains(*f.Left):
		return f.LeftOut
	case *f.Left < f.Window.Lower:
		return Tight
	}
	return Loose
}

// leaves is what the counter shows when a gap that changes by rate, mm per km or hour, passes its limit.
//
// A gap that stands still reaches no limit: the answer is NaN and the side None, and the due date follows
// from the intervals alone.
func leaves(at Found, rate, from float64) (float64, Side) {
	switch {
	case rate < 0:
		return from + math.Max(0, (*at.Left-at.Window.Lower).Millimetres())/-rate, Tight
	case rate > 0:
		return from + math.Max(0, (at.Window.Upper-*at.Left).Millimetres())/rate, Loose
	}
	return math.NaN(), None
}

func find(v Visit, name string) *Found {
	for i := range v.Valves {
		if v.Valves[i].Valve == name {
			return &v.Valves[i]
		}
	}
	return nil
}

// MonthsOn is the same day so many calendar months later, or that month's last day where it has no such day:
// six months from 31 August is 28 February.
func MonthsOn(from time.Time, months int) time.Time {
	first := time.Date(from.Year(), from.Month(), 1, from.Hour(), from.Minute(), from.Second(),
		from.Nanosecond(), from.Location()).AddDate(0, months, 0)
	last := first.AddDate(0, 1, -1).Day()
	return first.AddDate(0, 0, min(from.Day(), last)-1)
}
