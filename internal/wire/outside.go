package wire

import (
	"encoding/json"
	"fmt"
	"slices"
	"time"

	"metronix/core/clearance"
	"metronix/core/measure"
	"metronix/core/record"
)

// OutsideVisit is a visit to another shop, from its sheet.
type OutsideVisit struct {
	On     string         `json:"on"                    format:"date"`
	KM     int            `json:"odometer_km,omitempty"               minimum:"0" maximum:"9999999" doc:"0 or absent: the sheet does not tell it, and wear is not reckoned from it"`
	Hours  int            `json:"hours,omitempty"                     minimum:"0" maximum:"9999999" doc:"running hours, of a vehicle that counts them, in place of odometer_km"`
	State  string         `json:"state"                                                                                                                                             enum:"cold,hot"`
	Shop   string         `json:"shop"                                                                                                                                                              minLength:"1" maxLength:"100"`
	Valves []OutsideValve `json:"valves"                                                                                                                                                                                          minItems:"1" maxItems:"96"`
}

// OutsideValve is one valve on that sheet.
type OutsideValve struct {
	Valve   string `json:"valve"              minLength:"1" maxLength:"20"`
	FoundMM *MM    `json:"found_mm,omitempty"                              doc:"absent: the sheet does not tell it"`
	LeftMM  *MM    `json:"left_mm,omitempty"`
}

// CoreOutside are such visits as the core knows them; it errs where a day is none, a counter is not the
// vehicle's, a gap cannot be meant, or a valve stands twice or without a figure.
func CoreOutside(list []OutsideVisit, by measure.Counter) (out []record.Outside, err error) {
	for i, v := range list {
		if slices.ContainsFunc(list[:i], func(x OutsideVisit) bool { return x.On == v.On && x.Shop == v.Shop }) {
			return nil, fmt.Errorf("the sheet of %s of %s stands there twice", v.Shop, v.On)
		}
		o := record.Outside{State: clearance.State(v.State), Shop: v.Shop}
		if o.On, err = time.Parse(time.DateOnly, v.On); err != nil {
			return nil, fmt.Errorf("the visit to %s was on %q, which is no day", v.Shop, v.On)
		}
		if o.Meter, _, err = (Counted{v.KM, v.Hours}).Shown(by); err != nil {
			return nil, fmt.Errorf("the visit to %s on %s: %w", v.Shop, v.On, err)
		}
		seen := map[string]bool{}
		for _, x := range v.Valves {
			at := fmt.Sprintf("the sheet of %s of %s", v.Shop, v.On)
			switch {
			case seen[x.Valve]:
				return nil, fmt.Errorf("%s has %s twice", at, x.Valve)
			case x.FoundMM == nil && x.LeftMM == nil:
				return nil, fmt.Errorf("%s has no gap of %s: leave the valve out", at, x.Valve)
			}
			seen[x.Valve] = true
			for _, gap := range []*MM{x.FoundMM, x.LeftMM} {
				if gap != nil && (*gap < 0 || measure.Length(*gap) > clearance.MaxUpper) {
					return nil, fmt.Errorf(
						"%s has %s mm at %s: a gap is 0 to %s mm",
						at,
						measure.Length(*gap).Decimal(),
						x.Valve,
						clearance.MaxUpper.Decimal(),
					)
				}
			}
			o.Valves = append(
				o.Valves,
				record.OutsideValve{
					Valve: x.Valve,
					Found: (*measure.Length)(x.FoundMM),
					Left:  (*measure.Length)(x.LeftMM),
				},
			)
		}
		out = append(out, o)
	}
	return out, nil
}

// OutsideOf is the other way; the list is never null.
func OutsideOf(list []record.Outside, by measure.Counter) []OutsideVisit {
	out := []OutsideVisit{}
	for _, o := range list {
		shown := CountedOf(by, o.Meter)
		v := OutsideVisit{On: o.On.Format(time.DateOnly), KM: shown.OdometerKM, Hours: shown.Hours,
			State: string(o.State), Shop: o.Shop, Valves: []OutsideValve{}}
		for _, x := range o.Valves {
			v.Valves = append(v.Valves, OutsideValve{x.Valve, (*MM)(x.Found), (*MM)(x.Left)})
		}
		out = append(out, v)
	}
	return out
}

// WriteOutside keeps them; none are an empty text.
func WriteOutside(list []record.Outside, by measure.Counter) (string, error) {
	if len(list) == 0 {
		return "", nil
	}
	data, err := json.Marshal(OutsideOf(list, by))
	return string(data), err
}

// ReadOutside reads what WriteOutside kept.
func ReadOutside(text string, by measure.Counter) ([]record.Outside, error) {
	if text == "" {
		return nil, nil
	}
	n, err := Parse([]byte(text))
	if err != nil {
		return nil, err
	}
	list, faults := Decode[[]OutsideVisit](n)
	if len(faults) > 0 {
		return nil, fmt.Errorf("%s: %s", faults[0].Location, faults[0].Message)
	}
	return CoreOutside(list, by)
}
