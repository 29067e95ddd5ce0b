package compute

import (
	"fmt"

	"metronix/core/adjust"
	"metronix/core/job"
	"metronix/core/measure"
)

type shimValve struct {
	Valve    string `json:"valve"`
	Fitted   MM     `json:"fitted_mm"`
	Measured MM     `json:"measured_mm"`
	Lower    MM     `json:"lower_mm"`
	Upper    MM     `json:"upper_mm"`
	Aim      MM     `json:"aim_mm"`
}

type shimCount struct {
	Shim  MM  `json:"shim_mm"`
	Count int `json:"count"`
}

type shimsRequest struct {
	Valves []shimValve `json:"valves"`
	Sizes  []MM        `json:"sizes_mm"`
	Stock  []shimCount `json:"stock,omitempty"`
}

type shimFit struct {
	Valve string `json:"valve"`
	Shim  MM     `json:"shim_mm"`
	From  string `json:"from"`
	Gap   MM     `json:"gap_mm"`
}

type lacking struct {
	Valve  string `json:"valve"`
	Reason string `json:"reason"`
}

type shimsResponse struct {
	Fit        []shimFit   `json:"fit"`
	Buy        []shimCount `json:"buy"`
	Spare      []MM        `json:"spare_mm"`
	Impossible []lacking   `json:"impossible"`
}

// The most that one question holds, so that it is answered in well under a tenth of a second.
const (
	mostShimValves = 48
	mostShimSizes  = 200
)

func shims(q shimsRequest) (shimsResponse, *Problem) {
	var faults []Fault
	valves := readShimValves(q.Valves, &faults)
	var sizes []measure.Length
	if len(q.Sizes) > mostShimSizes || len(q.Stock) > mostShimSizes {
		return shimsResponse{}, refused(Fault{Location: "sizes_mm", Message: fmt.Sprintf("At most %d sizes are taken.", mostShimSizes)})
	}
	for i, s := range q.Sizes {
		shimFault(fmt.Sprintf("sizes_mm[%d]", i), s, &faults)
		sizes = append(sizes, measure.Length(s))
	}
	var stock []adjust.Count
	for i, s := range q.Stock {
		shimFault(fmt.Sprintf("stock[%d].shim_mm", i), s.Shim, &faults)
		if s.Count < 0 || s.Count > 10_000 {
			faults = append(faults, Fault{Location: fmt.Sprintf("stock[%d].count", i), Value: s.Count, Message: "A stock holds 0 to 10 000 of a size."})
		}
		stock = append(stock, adjust.Count{Shim: measure.Length(s.Shim), N: s.Count})
	}
	if len(faults) > 0 {
		return shimsResponse{}, refused(faults...)
	}
	return shimsAnswer(adjust.ChooseShims(valves, sizes, stock)), nil
}

func readShimValves(in []shimValve, faults *[]Fault) []adjust.ShimValve {
	if len(in) > mostShimValves {
		*faults = append(*faults, Fault{Location: "valves", Message: fmt.Sprintf("%d valves: at most %d are worked out at once.", len(in), mostShimValves)})
		return nil
	}
	var valves []adjust.ShimValve
	seen := map[string]bool{}
	for i, v := range in {
		at := fmt.Sprintf("valves[%d]", i)
		switch {
		case v.Valve == "" || v.Valve == adjust.FromStock:
			*faults = append(*faults, Fault{Location: at + ".valve", Value: echo(v.Valve), Message: "Name the valve."})
		case seen[v.Valve]:
			*faults = append(*faults, Fault{Location: at + ".valve", Value: echo(v.Valve), Message: "This valve is listed twice."})
		}
		seen[v.Valve] = true
		shimFault(at+".fitted_mm", v.Fitted, faults)
		gapFault(at+".measured_mm", v.Measured, faults)
		gapFault(at+".lower_mm", v.Lower, faults)
		gapFault(at+".upper_mm", v.Upper, faults)
		switch {
		case v.Lower > v.Upper:
			*faults = append(*faults, Fault{Location: at + ".lower_mm", Value: v.Lower, Message: "The lower limit is above the upper one. Are they swapped?"})
		case v.Upper-v.Lower > MM(measure.Millimetre):
			*faults = append(*faults, Fault{Location: at + ".upper_mm", Value: v.Upper, Message: "The limits lie more than a millimetre apart. Is the unit right?"})
		case v.Aim < v.Lower || v.Aim > v.Upper:
			*faults = append(*faults, Fault{Location: at + ".aim_mm", Value: v.Aim, Message: "The aim lies outside the limits."})
		}
		valves = append(valves, adjust.ShimValve{Valve: v.Valve, Fitted: measure.Length(v.Fitted), Measured: measure.Length(v.Measured),
			Window: measure.Window{Lower: measure.Length(v.Lower), Upper: measure.Length(v.Upper)}, Aim: measure.Length(v.Aim)})
	}
	return valves
}

func shimFault(at string, s MM, faults *[]Fault) {
	if l := measure.Length(s); l <= 0 || l > job.MaxShim {
		*faults = append(*faults, Fault{Location: at, Value: s, Message: fmt.Sprintf("%s is not the thickness of a shim: above 0, at most %s.", l, job.MaxShim)})
	}
}

func shimsAnswer(p adjust.ShimPlan) shimsResponse {
	r := shimsResponse{Fit: []shimFit{}, Buy: []shimCount{}, Spare: millimetres(p.Spare), Impossible: []lacking{}}
	for _, f := range p.Fit {
		r.Fit = append(r.Fit, shimFit{f.Valve, MM(f.Shim), f.From, MM(f.Gap)})
	}
	for _, b := range p.Buy {
		r.Buy = append(r.Buy, shimCount{MM(b.Shim), b.N})
	}
	for _, l := range p.Impossible {
		r.Impossible = append(r.Impossible, lacking(l))
	}
	return r
}
