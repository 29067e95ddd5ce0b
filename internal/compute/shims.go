package compute

import (
	"fmt"

	"metronix/core/adjust"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/internal/wire"
)

// shimValve is one valve of a shimmed engine: the shim in it, the gap over it, its limits and where it is
// aimed.
type shimValve struct {
	Valve    string  `json:"valve"`
	Fitted   wire.MM `json:"fitted_mm"`
	Measured wire.MM `json:"measured_mm"`
	Lower    wire.MM `json:"lower_mm"`
	Upper    wire.MM `json:"upper_mm"`
	Aim      wire.MM `json:"aim_mm"`

	Uncertainty wire.MM `json:"uncertainty_mm,omitempty" doc:"of the measured gap, either way; a gap must lie inside its limits by so much"`
}

// shimCount is a size and how many.
type shimCount struct {
	Shim  wire.MM `json:"shim_mm"`
	Count int     `json:"count"`
}

// shimsRequest is a whole engine at once: what is fitted, which sizes can be bought, and what the shop has.
type shimsRequest struct {
	Valves []shimValve `json:"valves"`
	Sizes  []wire.MM   `json:"sizes_mm"`
	Stock  []shimCount `json:"stock,omitempty"`
	Prefer string      `json:"prefer,omitempty" enum:",fewest_bought,nearest_aim"`
}

// shimFit is which shim goes under a valve, where it comes from, and what gap that leaves by subtraction.
type shimFit struct {
	Valve string  `json:"valve"`
	Shim  wire.MM `json:"shim_mm"`
	From  string  `json:"from"`
	Gap   wire.MM `json:"gap_mm"`
}

// lacking is a valve that nothing serves, and why.
type lacking struct {
	Valve  string `json:"valve"`
	Reason string `json:"reason"`

	Try wire.MM `json:"try_mm,omitempty" doc:"a shim in stock that may serve it, and may be tried; absent: there is none"`
}

// shimsResponse is the best deal of all shims over all valves, not valve by valve: what goes where, what to
// buy, what is over.
type shimsResponse struct {
	Fit        []shimFit   `json:"fit"`
	Buy        []shimCount `json:"buy"`
	Spare      []wire.MM   `json:"spare_mm"`
	Impossible []lacking   `json:"impossible"`
	Frontier   []shimCost  `json:"frontier" doc:"bought rising, worst falling, each the best possible"`
}

// shimCost is a point of the frontier: bought so many, the worst gap lies so far from its aim.
type shimCost struct {
	Bought int     `json:"bought"`
	Worst  wire.MM `json:"worst_from_aim_mm"`
}

// The most that one question holds, so that it is answered in well under a tenth of a second.
const (
	mostShimValves = 48
	mostShimSizes  = 200
)

// shims deals them out by core/adjust, which solves it as an assignment: exact, and the same every time.
func shims(q shimsRequest) (shimsResponse, *wire.Problem) {
	var faults wire.Faults
	valves := readShimValves(q.Valves, &faults)
	wire.OneOf(&faults, "prefer", q.Prefer, "", adjust.FewestBought, adjust.NearestAim)
	var sizes []measure.Length
	if len(q.Sizes) > mostShimSizes || len(q.Stock) > mostShimSizes {
		return shimsResponse{}, wire.Refused(wire.Fault{Location: "sizes_mm",
			Message: fmt.Sprintf("At most %d sizes are taken.", mostShimSizes)})
	}
	for i, s := range q.Sizes {
		shimFault(fmt.Sprintf("sizes_mm[%d]", i), s, &faults)
		sizes = append(sizes, measure.Length(s))
	}
	var stock []adjust.Count
	for i, s := range q.Stock {
		shimFault(fmt.Sprintf("stock[%d].shim_mm", i), s.Shim, &faults)
		if s.Count < 0 || s.Count > 10_000 {
			faults.Add(fmt.Sprintf("stock[%d].count", i), s.Count, "A stock holds 0 to 10 000 of a size.")
		}
		stock = append(stock, adjust.Count{Shim: measure.Length(s.Shim), N: s.Count})
	}
	if len(faults) > 0 {
		return shimsResponse{}, wire.Refused(faults...)
	}
	return shimsAnswer(adjust.ChooseShims(valves, sizes, stock, adjust.Prefer(q.Prefer))), nil
}

// readShimValves reads the valves; each is named once.
func readShimValves(in []shimValve, f *wire.Faults) []adjust.ShimValve {
	if len(in) > mostShimValves {
		f.Add("valves", nil, "%d valves: at most %d are worked out at once.", len(in), mostShimValves)
		return nil
	}
	var valves []adjust.ShimValve
	seen := map[string]bool{}
	for i, v := range in {
		at := fmt.Sprintf("valves[%d]", i)
		switch {
		case v.Valve == "" || v.Valve == adjust.FromStock:
			f.Add(at+".valve", v.Valve, "Name the valve.")
		case seen[v.Valve]:
			f.Add(at+".valve", v.Valve, "This valve is listed twice.")
		}
		seen[v.Valve] = true
		shimFault(at+".fitted_mm", v.Fitted, f)
		gapFault(at+".measured_mm", v.Measured, f)
		gapFault(at+".lower_mm", v.Lower, f)
		gapFault(at+".upper_mm", v.Upper, f)
		switch {
		case v.Lower > v.Upper:
			f.Add(at+".lower_mm", v.Lower, "The lower limit is above the upper one. Are they swapped?")
		case v.Upper-v.Lower > wire.MM(measure.Millimetre):
			f.Add(at+".upper_mm", v.Upper, "The limits lie more than a millimetre apart. Is the unit right?")
		case v.Aim < v.Lower || v.Aim > v.Upper:
			f.Add(at+".aim_mm", v.Aim, "The aim lies outside the limits.")
		}
		gapFault(at+".uncertainty_mm", v.Uncertainty, f)
		valves = append(valves, adjust.ShimValve{Valve: v.Valve, Fitted: measure.Length(v.Fitted),
			Measured: measure.Length(v.Measured),
			Window: measure.Window{Lower: measure.Length(v.Lower),
				Upper: measure.Length(v.Upper)}, Aim: measure.Length(v.Aim),
			Uncertainty: measure.Length(v.Uncertainty)})
	}
	return valves
}

// shimFault refuses what is no thickness of a shim.
func shimFault(at string, s wire.MM, f *wire.Faults) {
	if l := measure.Length(s); l <= 0 || l > job.MaxShim {
		f.Add(at, s, "%s is not the thickness of a shim: above 0, at most %s.", l, job.MaxShim)
	}
}

// shimsAnswer is the deal as it is sent.
func shimsAnswer(p adjust.ShimPlan) shimsResponse {
	r := shimsResponse{Fit: []shimFit{}, Buy: []shimCount{}, Spare: wire.Millimetres(p.Spare),
		Impossible: []lacking{}, Frontier: []shimCost{}}
	for _, c := range p.Frontier {
		r.Frontier = append(r.Frontier, shimCost{c.Bought, wire.MM(c.Worst)})
	}
	for _, f := range p.Fit {
		r.Fit = append(r.Fit, shimFit{f.Valve, wire.MM(f.Shim), f.From, wire.MM(f.Gap)})
	}
	for _, b := range p.Buy {
		r.Buy = append(r.Buy, shimCount{wire.MM(b.Shim), b.N})
	}
	for _, l := range p.Impossible {
		r.Impossible = append(r.Impossible, lacking{l.Valve, l.Reason, wire.MM(l.Try)})
	}
	return r
}
