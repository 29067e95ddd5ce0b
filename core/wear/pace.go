package wear

import (
	"cmp"
	"math"
	"slices"
	"time"

	"metronix/core/measure"
)

// PerDay is how far the vehicle goes in a day, km or running hours, from the first visit to the last; NaN
// where fewer than two visits or no day lie between.
func PerDay(visits []Visit) float64 {
	if len(visits) < 2 {
		return math.NaN()
	}
	first, last := visits[0], visits[len(visits)-1]
	days := last.Date.Sub(first.Date).Hours() / 24
	if days < 1 {
		return math.NaN()
	}
	return (last.Meter - first.Meter) / days
}

// On is the day, to the nearest, on which a counter is reached at a pace a day, from a visit; the zero
// time where the pace is not known or does not move.
func On(last Visit, meter, perDay float64) time.Time {
	if math.IsNaN(meter) || math.IsNaN(perDay) || perDay <= 0 {
		return time.Time{}
	}
	days := math.Max(0, (meter-last.Meter)/perDay)
	const most = 100 * 365 // beyond a century nothing is due
	if days > most {
		return time.Time{}
	}
	return last.Date.AddDate(0, 0, int(math.Round(days)))
}

// oddBy is how many times the usual spread a rate must lie from its neighbours' to be worth a warning, and
// the least difference that counts, mm per 1000 km (from memory: less is the scatter of two hands). hourly is
// how far an engine drives in an hour of running (from memory: makers' tables put 50 km beside an hour).
const (
	oddBy    = 3.0
	leastOdd = 0.0003
	hourly   = 50
)

// Odd names the valves that wear unlike their neighbours: those whose rate lies further from the median of
// their kind than three times the median deviation (common practice of robust statistics), and by no trifle.
// kind tells valves apart. Fewer than four rates of a kind have no usual.
func Odd(valves []Valve, by measure.Counter, kind func(valve string) string) (odd []string) {
	least := leastOdd
	if by == measure.HourMeter {
		least *= hourly
	}
	byKind := map[string][]Valve{}
	for _, v := range valves {
		if !math.IsNaN(v.Rate) {
			byKind[kind(v.Valve)] = append(byKind[kind(v.Valve)], v)
		}
	}
	for _, list := range byKind {
		if len(list) < 4 {
			continue
		}
		var rates, off []float64
		for _, v := range list {
			rates = append(rates, v.Rate)
		}
		mid := median(rates)
		for _, v := range list {
			off = append(off, math.Abs(v.Rate-mid))
		}
		spread := median(slices.Clone(off))
		for i, v := range list {
			if off[i] > math.Max(oddBy*spread, least) {
				odd = append(odd, v.Valve)
			}
		}
	}
	slices.SortFunc(odd, cmp.Compare[string])
	return odd
}

func median(list []float64) float64 {
	sorted := slices.Sorted(slices.Values(list))
	n := len(sorted)
	if n%2 == 1 {
		return sorted[n/2]
	}
	return (sorted[n/2-1] + sorted[n/2]) / 2
}
