package record

import (
	"math"
	"slices"
	"time"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/measure"
	"metronix/core/wear"
)

// Outside is a visit to another shop, as the sheet that came with the vehicle tells it. What its gaps were
// felt with nobody here knows.
type Outside struct {
	On     time.Time // the day
	Meter  int       // what the counter showed, as the vehicle counts; 0: it is not on the sheet
	State  clearance.State
	Shop   string
	Valves []OutsideValve
}

// OutsideValve is one valve on such a sheet; a gap is nil where the sheet does not tell it.
type OutsideValve struct {
	Valve       string
	Found, Left *measure.Length
}

// What a figure on another shop's sheet may be out by, each way, all of it being equally likely (common
// practice): half a step of the usual leaves, as which it was read; two people's sets, which differ by a
// hundredth; two people's feel.
const (
	outsideStep = 25 * measure.Micrometre
	outsideSets = 10 * measure.Micrometre
	outsideFeel = 10 * measure.Micrometre
)

// OutsideU is the standard uncertainty of such a gap, 0.0166 mm: the root of the summed squares of the three,
// each over √3 (JCGM 100 4.3.7 and 5.1.2). It is four times what is usual here.
func OutsideU() measure.Length {
	sum := 0.0
	for _, half := range []measure.Length{outsideStep, outsideSets, outsideFeel} {
		sum += half.Millimetres() * half.Millimetres() / 3
	}
	return measure.FromMillimetres(math.Sqrt(sum))
}

// Visit is what such a sheet tells, judged by the limits that hold here; a valve without limits is left out.
func (o Outside) Visit(limits map[string]measure.Window) Visit {
	v := Visit{At: o.On, Meter: o.Meter, State: o.State, By: o.Shop}
	for _, x := range o.Valves {
		window, known := limits[x.Valve]
		if !known {
			continue
		}
		found := wear.Found{Valve: x.Valve, Found: x.Found, Left: x.Left, Window: window}
		if x.Found != nil {
			found.FoundU = new(OutsideU())
			v.Tight += one(*x.Found < window.Lower)
			v.Loose += one(*x.Found > window.Upper)
		}
		if x.Left != nil {
			found.LeftU = new(OutsideU())
		}
		v.Valves = append(v.Valves, found)
	}
	return v
}

// OutsideLimits are the limits by which gaps found elsewhere are judged, by valve: of the vehicle's own card
// of that thermal state, else of its engine's first that may be used; empty where there is none.
func OutsideLimits(
	sheet *engine.Sheet,
	own []clearance.Card,
	state clearance.State,
) map[string]measure.Window {
	out := map[string]measure.Window{}
	for _, c := range slices.Concat(own, sheet.Clearances) {
		if c.State != state || c.Distrusted != "" {
			continue
		}
		for kind, stated := range map[engine.Kind]clearance.Clearance{engine.Intake: c.Intake, engine.Exhaust: c.Exhaust} {
			limits, faults := stated.Limits()
			for _, v := range sheet.Valves() {
				if v.Kind == kind && len(faults) == 0 {
					out[v.Name] = limits.Window
				}
			}
		}
		break
	}
	return out
}

// one counts what is so.
func one(is bool) int {
	if is {
		return 1
	}
	return 0
}

// Among puts each of some visits among others by its day, before the first of them that was later.
func Among[T any](visits, outside []T, day func(T) time.Time) []T {
	out := slices.Clone(visits)
	for _, o := range outside {
		at := slices.IndexFunc(out, func(v T) bool { return day(v).After(day(o)) })
		if at < 0 {
			at = len(out)
		}
		out = slices.Insert(out, at, o)
	}
	return out
}

// Fits says between which of the visits a counter would have to stand on a day, where it does not: less than
// the visit before it showed, or more than the one after. ok is true where it fits, or nothing was read.
func Fits(visits []Visit, on time.Time, meter int) (against Visit, ok bool) {
	if meter == 0 {
		return against, true
	}
	var before, after *Visit
	for i, v := range visits {
		switch {
		case v.Meter == 0:
		case v.At.After(on):
			if after == nil || v.At.Before(after.At) {
				after = &visits[i]
			}
		case before == nil || !v.At.Before(before.At):
			before = &visits[i]
		}
	}
	switch {
	case before != nil && meter <= before.Meter:
		return *before, false
	case after != nil && meter >= after.Meter:
		return *after, false
	}
	return against, true
}
