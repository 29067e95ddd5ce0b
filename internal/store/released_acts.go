package store

import (
	"encoding/json"
	"errors"
	"fmt"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// This file reads the bodies of happenings, and the leaves of sets, as earlier versions stored them. Nothing
// here is changed.

// releasedBody is one bag of fields for every kind, lengths in nanometres.
type releasedBody struct {
	Valve         string         `json:"valve"`
	LeavesNM      []int64        `json:"leaves_nm"`
	Angled        []bool         `json:"angled"` // of the leaves, in their order; absent: none is
	Feel          string         `json:"feel"`
	Stop          *int           `json:"stop"`
	School        string         `json:"school"`
	Order         string         `json:"order"`
	Direction     string         `json:"direction"`
	Positions     string         `json:"positions"`
	StopCount     int            `json:"stop_count"`
	Seen          []releasedSeen `json:"seen"`
	EngineC       *float64       `json:"engine_c"`
	AmbientC      *float64       `json:"ambient_c"`
	GapNM         *int64         `json:"gap_nm"`
	UncertaintyNM int64          `json:"uncertainty_nm"`
	Index         *int           `json:"index"`
	From          string         `json:"from"`
	ShimNM        int64          `json:"shim_nm"`
	CamsOut       bool           `json:"cams_out"`
	MadeThere     bool           `json:"made_there"`
	Reason        string         `json:"reason"`
	Target        string         `json:"target"`
	By            string         `json:"by"`
	ToolsOut      bool           `json:"tools_out"`
}

// releasedSeen is a thing seen as versions before 6 stored it.
type releasedSeen struct {
	What     string  `json:"what"`
	Cylinder int     `json:"cylinder"`
	Valve    string  `json:"valve"`
	Mark     float64 `json:"mark_deg"`
}

// errAbsent is a stored act without a figure that it cannot do without.
var errAbsent = errors.New("a figure is missing")

// releasedAct reads such a body. The first rules left zeros out where they were meant, later ones did not.
func releasedAct(kind job.Kind, rules int, text []byte) (job.Act, error) {
	var b releasedBody
	if err := json.Unmarshal(text, &b); err != nil {
		return nil, err
	}
	read, ok := releasedKinds[kind]
	if !ok {
		return nil, fmt.Errorf("%q is nothing that happens in a job", kind)
	}
	if rules == 1 {
		b.zeros()
	}
	act := read(b)
	if act == nil {
		return nil, errAbsent
	}
	return act, nil
}

// zeros puts back what was left out because it was zero.
func (b *releasedBody) zeros() {
	set[float64](&b.EngineC)
	set[float64](&b.AmbientC)
	set[int](&b.Stop)
	set[int](&b.Index)
	set[int64](&b.GapNM)
}

// set makes a part that is about to be filled.
func set[T any](p **T) {
	if *p == nil {
		*p = new(T)
	}
}

// releasedKinds gives the act of each kind; nil where a figure that it needs is absent.
var releasedKinds = map[job.Kind]func(releasedBody) job.Act{
	"way_chosen": func(b releasedBody) job.Act {
		return job.WayChosen{Way: sequence.Way{School: sequence.School(b.School),
			Order:     sequence.Order(b.Order),
			Direction: sequence.Direction(b.Direction), Positions: sequence.Positions(b.Positions),
			StopCount: b.StopCount}}
	},
	"temperature": func(b releasedBody) job.Act {
		if b.EngineC == nil || b.AmbientC == nil {
			return nil
		}
		return job.TemperatureNoted{EngineC: *b.EngineC, AmbientC: *b.AmbientC}
	},
	"prepared": func(b releasedBody) job.Act {
		if b.EngineC == nil || b.AmbientC == nil {
			return nil
		}
		return job.Prepared{EngineC: *b.EngineC, AmbientC: *b.AmbientC, Reason: b.Reason}
	},
	"turned": func(b releasedBody) job.Act {
		if b.Stop == nil {
			return nil
		}
		return job.Turned{Stop: *b.Stop}
	},
	"located": func(b releasedBody) job.Act {
		seen := []sequence.Sighting{}
		for _, w := range b.Seen {
			seen = append(seen, sequence.Sighting{What: sequence.What(w.What), Cylinder: w.Cylinder,
				Valve: w.Valve,
				Mark:  measure.FromDegrees(w.Mark)})
		}
		return job.Located{Seen: seen}
	},
	"doubted": func(releasedBody) job.Act { return job.Doubted{} },
	"picked":  func(b releasedBody) job.Act { return job.Picked{Valve: b.Valve} },
	"reading": func(b releasedBody) job.Act {
		return job.ReadingTaken{Valve: b.Valve, Leaves: b.leaves(), Feel: clearance.Feel(b.Feel),
			MadeThere: b.MadeThere}
	},
	"dial": func(b releasedBody) job.Act {
		if b.GapNM == nil {
			return nil
		}
		return job.DialRead{Valve: b.Valve, Gap: measure.Length(*b.GapNM),
			Uncertainty: measure.Length(b.UncertaintyNM),
			MadeThere:   b.MadeThere}
	},
	"withdrawn": func(b releasedBody) job.Act {
		if b.Index == nil {
			return nil
		}
		return job.Withdrawn{Valve: b.Valve, Index: *b.Index}
	},
	"sized": func(b releasedBody) job.Act {
		return job.Sized{Valve: b.Valve,
			Shim: measure.Length(b.ShimNM)}
	},
	"kept": func(b releasedBody) job.Act { return job.Kept{Valve: b.Valve} },
	"adjusted": func(b releasedBody) job.Act {
		return job.Adjusted{Valve: b.Valve, Leaves: b.leaves(), Shim: measure.Length(b.ShimNM), From: b.From,
			CamsOut: b.CamsOut}
	},
	"locked":      func(b releasedBody) job.Act { return job.Locked{Valve: b.Valve} },
	"left_as_is":  func(b releasedBody) job.Act { return job.LeftAsIs{Valve: b.Valve, Reason: b.Reason} },
	"barred_over": func(releasedBody) job.Act { return job.BarredOver{} },
	"undone":      func(b releasedBody) job.Act { return job.Undone{Target: b.Target} },
	"signed":      func(b releasedBody) job.Act { return job.Signed{By: b.By, ToolsOut: b.ToolsOut} },
	"went_hot":    func(releasedBody) job.Act { return job.WentHot{} },
}

// leaves puts the two parallel lists of that day together: thicknesses, and which of them are angled.
func (b releasedBody) leaves() (list []gauge.ID) {
	for i, l := range b.LeavesNM {
		list = append(list, gauge.ID{Marked: measure.Length(l), Angled: i < len(b.Angled) && b.Angled[i]})
	}
	return list
}

// releasedLeaf is a leaf in nanometres.
type releasedLeaf struct {
	Marked   int64 `json:"marked_nm"`
	Measured int64 `json:"measured_nm"`
	Thou     bool  `json:"thou"`
	Angled   bool  `json:"angled"`
	Missing  bool  `json:"missing"`
}

// releasedItems reads a set of leaves as versions before 6 stored it, in nanometres.
func releasedItems(text string) ([]gauge.Item, error) {
	var bodies []releasedLeaf
	if err := json.Unmarshal([]byte(text), &bodies); err != nil {
		return nil, err
	}
	items := make([]gauge.Item, len(bodies))
	for i, b := range bodies {
		leaf := gauge.Leaf{ID: gauge.ID{Marked: measure.Length(b.Marked), Angled: b.Angled},
			Measured: measure.Length(b.Measured), Thou: b.Thou}
		items[i] = gauge.Item{Leaf: leaf, Missing: b.Missing}
	}
	return items, nil
}
