package store

import (
	"encoding/json"
	"fmt"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// happeningBody is what a happening carries besides its id, kind and time.
type happeningBody struct {
	Valve         string     `json:"valve,omitempty"`
	LeavesNM      []int64    `json:"leaves_nm,omitempty"`
	Feel          string     `json:"feel,omitempty"`
	Stop          int        `json:"stop,omitempty"`
	School        string     `json:"school,omitempty"`
	Order         string     `json:"order,omitempty"`
	Direction     string     `json:"direction,omitempty"`
	Positions     string     `json:"positions,omitempty"`
	StopCount     int        `json:"stop_count,omitempty"`
	Seen          []seenBody `json:"seen,omitempty"`
	EngineC       float64    `json:"engine_c,omitempty"`
	AmbientC      float64    `json:"ambient_c,omitempty"`
	GapNM         int64      `json:"gap_nm,omitempty"`
	UncertaintyNM int64      `json:"uncertainty_nm,omitempty"`
	Index         int        `json:"index,omitempty"`
	From          string     `json:"from,omitempty"`
	ShimNM        int64      `json:"shim_nm,omitempty"`
	Reason        string     `json:"reason,omitempty"`
	Target        string     `json:"target,omitempty"`
	By            string     `json:"by,omitempty"`
	ToolsOut      bool       `json:"tools_out,omitempty"`
}

// seenBody is a sighting.
type seenBody struct {
	What     string  `json:"what"`
	Cylinder int     `json:"cylinder,omitempty"`
	Valve    string  `json:"valve,omitempty"`
	Mark     float64 `json:"mark_deg,omitempty"`
}

// Append stores one happening as the place-th of its job. When it returns nil the happening is on disk. ErrExists: that
// place or the happening's id is taken already; ErrMissing: there is no such job.
func (s *Store) Append(jobID string, place int, h job.Happening) error {
	body := happeningBody{Valve: h.Valve, Feel: string(h.Feel), Stop: h.Stop, School: string(h.School), Order: string(h.Order),
		Direction: string(h.Direction), Positions: string(h.Positions), StopCount: h.StopCount,
		EngineC: h.EngineC, AmbientC: h.AmbientC, GapNM: int64(h.Gap), UncertaintyNM: int64(h.Uncertainty), Index: h.Index, From: h.From, ShimNM: int64(h.Shim), Reason: h.Reason, Target: h.Target, By: h.By, ToolsOut: h.ToolsOut}
	for _, l := range h.Leaves {
		body.LeavesNM = append(body.LeavesNM, int64(l))
	}
	for _, w := range h.Seen {
		body.Seen = append(body.Seen, seenBody{string(w.What), w.Cylinder, w.Valve, w.Mark})
	}
	data, err := json.Marshal(body)
	if err != nil {
		return err
	}
	return translate(s.write.Create(&happeningRow{JobID: jobID, Place: place, ClientID: h.ID, Kind: string(h.Kind), Body: string(data), At: h.At}).Error)
}

// Happenings reads a job's whole list in order.
func (s *Store) Happenings(jobID string) ([]job.Happening, error) {
	var rows []happeningRow
	if err := s.read.Where("job_id = ?", jobID).Order("place").Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	list := make([]job.Happening, len(rows))
	for i, row := range rows {
		var b happeningBody
		if err := json.Unmarshal([]byte(row.Body), &b); err != nil {
			return nil, fmt.Errorf("happening %s of job %s does not read: %w", row.ClientID, jobID, err)
		}
		list[i] = job.Happening{ID: row.ClientID, Kind: job.Kind(row.Kind), At: row.At, Valve: b.Valve, Feel: clearance.Feel(b.Feel),
			Stop: b.Stop, Way: sequence.Way{School: sequence.School(b.School), Order: sequence.Order(b.Order),
				Direction: sequence.Direction(b.Direction), Positions: sequence.Positions(b.Positions), StopCount: b.StopCount}, EngineC: b.EngineC, AmbientC: b.AmbientC,
			Gap: measure.Length(b.GapNM), Uncertainty: measure.Length(b.UncertaintyNM), Index: b.Index, From: b.From, Shim: measure.Length(b.ShimNM),
			Reason: b.Reason, Target: b.Target, By: b.By, ToolsOut: b.ToolsOut}
		for _, w := range b.Seen {
			list[i].Seen = append(list[i].Seen, sequence.Sighting{What: sequence.What(w.What), Cylinder: w.Cylinder, Valve: w.Valve, Mark: w.Mark})
		}
		for _, l := range b.LeavesNM {
			list[i].Leaves = append(list[i].Leaves, measure.Length(l))
		}
	}
	return list, nil
}
