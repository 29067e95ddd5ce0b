package api

import (
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
	"metronix/internal/compute"
)

// Happening is something the mechanic did. Which fields a kind has is said in fieldsOf: the others are refused.
type Happening struct {
	ID            string     `json:"id" minLength:"8" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$" doc:"made by the client; sending it twice stores it once"`
	Kind          string     `json:"kind" enum:"way_chosen,prepared,turned,located,doubted,picked,reading,dial,withdrawn,sized,kept,adjusted,locked,left_as_is,barred_over,undone,signed,temperature,went_hot"`
	Seen          *Seen      `json:"seen,omitempty" doc:"for located: what is seen on the engine; for every other kind: the id of the newest happening that its screen knew, absent for the newest there is"`
	DoneAt        *time.Time `json:"done_at,omitempty" doc:"when it was done, where it waited to be sent, by the program's clock"`
	Valve         string     `json:"valve,omitempty" maxLength:"8"`
	LeavesMM      []float64  `json:"leaves_mm,omitempty" maxItems:"3"`
	Angled        []bool     `json:"angled,omitempty" maxItems:"3" doc:"which of the leaves is an angled one, in their order; absent: none"`
	Feel          string     `json:"feel,omitempty" maxLength:"16"`
	MadeThere     bool       `json:"made_there,omitempty" doc:"the reading was made where the crank stood at seen, and counts for that place"`
	Stop          *int       `json:"stop,omitempty"`
	School        string     `json:"school,omitempty" maxLength:"32"`
	Order         string     `json:"order,omitempty" enum:",turning,numerical"`
	Direction     string     `json:"direction,omitempty" enum:",running,back"`
	Positions     string     `json:"positions,omitempty" enum:",any,marks"`
	StopCount     int        `json:"stop_count,omitempty" minimum:"0" maximum:"80"`
	EngineC       *float64   `json:"engine_c,omitempty"`
	AmbientC      *float64   `json:"ambient_c,omitempty"`
	GapMM         *float64   `json:"gap_mm,omitempty"`
	UncertaintyMM float64    `json:"uncertainty_mm,omitempty"`
	Index         *int       `json:"index,omitempty"`
	ShimMM        float64    `json:"shim_mm,omitempty"`
	From          string     `json:"from,omitempty" maxLength:"8" doc:"the valve a shim came from"`
	CamsOut       bool       `json:"cams_out,omitempty" doc:"the camshafts are out, so that every shim can be reached"`
	Reason        string     `json:"reason,omitempty" maxLength:"200"`
	Target        string     `json:"target,omitempty" maxLength:"64"`
	By            string     `json:"by,omitempty" maxLength:"100"`
	ToolsOut      bool       `json:"tools_out,omitempty"`
}

// Seen is the id of the newest happening that a screen knew, or what is seen on the engine.
type Seen struct {
	ID        string
	Sightings []Sighting
}

// MarshalJSON writes the list where there is one, else the id.
func (s Seen) MarshalJSON() ([]byte, error) {
	if s.Sightings != nil {
		return json.Marshal(s.Sightings)
	}
	return json.Marshal(s.ID)
}

// UnmarshalJSON reads either.
func (s *Seen) UnmarshalJSON(data []byte) error {
	if len(data) > 0 && data[0] == '"' {
		return json.Unmarshal(data, &s.ID)
	}
	s.Sightings = []Sighting{}
	return json.Unmarshal(data, &s.Sightings)
}

// Schema says that it is either.
func (Seen) Schema(r huma.Registry) *huma.Schema {
	most, longest := 100, 64
	return &huma.Schema{OneOf: []*huma.Schema{
		{Type: huma.TypeString, MaxLength: &longest},
		{Type: huma.TypeArray, MaxItems: &most, Items: huma.SchemaFromType(r, typeOfSighting)},
	}}
}

// fieldsOf lists what a kind has besides id, kind, done_at and, but for located, the id that its screen knew.
var fieldsOf = map[job.Kind][]string{
	job.WayChosen:  {"school", "order", "direction", "positions", "stop_count"},
	job.Thermal:    {"engine_c", "ambient_c"},
	job.Prepared:   {"engine_c", "ambient_c", "reason"},
	job.Turned:     {"stop"},
	job.Located:    {},
	job.Doubted:    {},
	job.Picked:     {"valve"},
	job.ReadingHad: {"valve", "leaves_mm", "angled", "feel", "made_there"},
	job.DialRead:   {"valve", "gap_mm", "uncertainty_mm", "made_there"},
	job.Withdrawn:  {"valve", "index"},
	job.Sized:      {"valve", "shim_mm"},
	job.Kept:       {"valve"},
	job.Adjusted:   {"valve", "leaves_mm", "angled", "shim_mm", "from", "cams_out"},
	job.Locked:     {"valve"},
	job.LeftAsIs:   {"valve", "reason"},
	job.BarredOver: {},
	job.Undone:     {"target"},
	job.Signed:     {"by", "tools_out"},
	job.WentHot:    {},
}

var everyKind = []string{"id", "kind", "done_at", "seen"}

type happenInput struct {
	ID      string `path:"id" minLength:"1" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
	Body    Happening
	RawBody []byte
}

// foreign names the fields of a happening that its kind does not have.
func foreign(raw []byte, kind string) []compute.Fault {
	var given map[string]json.RawMessage
	if err := json.Unmarshal(raw, &given); err != nil {
		return []compute.Fault{{Location: "body", Message: "This is no happening."}}
	}
	var faults []compute.Fault
	for field := range given {
		if !slices.Contains(everyKind, field) && !slices.Contains(fieldsOf[job.Kind(kind)], field) {
			faults = append(faults, compute.Fault{Location: "body." + field, Message: fmt.Sprintf("A happening of kind %q has no field of this name.", kind)})
		}
	}
	slices.SortFunc(faults, func(a, b compute.Fault) int { return strings.Compare(a.Location, b.Location) })
	return faults
}

// happeningOf reads a happening that arrived at a time.
func happeningOf(b Happening, at time.Time) (job.Happening, []compute.Fault) {
	h := job.Happening{ID: b.ID, Kind: job.Kind(b.Kind), At: at.UTC(), Valve: b.Valve, Stop: b.Stop, EngineC: b.EngineC, AmbientC: b.AmbientC,
		Index: b.Index, From: b.From, CamsOut: b.CamsOut, MadeThere: b.MadeThere, Reason: b.Reason, Target: b.Target, By: b.By, ToolsOut: b.ToolsOut}
	h.Way = sequence.Way{School: sequence.School(b.School), Order: sequence.Order(b.Order), Direction: sequence.Direction(b.Direction),
		Positions: sequence.Positions(b.Positions), StopCount: b.StopCount}
	if b.DoneAt != nil {
		h.DoneAt = b.DoneAt.UTC()
	}
	var faults []compute.Fault
	if b.Seen != nil {
		h.Since, h.Seen = b.Seen.ID, seenOf(b.Seen.Sightings)
		if located := h.Kind == job.Located; located != (b.Seen.Sightings != nil) {
			faults = append(faults, compute.Fault{Location: "body.seen", Message: "For located this is a list of what is seen on the engine; for every other kind the id of the newest happening that its screen knew."})
		}
	}
	if len(b.Angled) > len(b.LeavesMM) {
		faults = append(faults, compute.Fault{Location: "body.angled", Message: "There are fewer leaves than this."})
	}
	for i, mm := range b.LeavesMM {
		l := leafLength(mm, fmt.Sprintf("body.leaves_mm[%d]", i), &faults)
		h.Leaves = append(h.Leaves, gauge.ID{Marked: l, Angled: i < len(b.Angled) && b.Angled[i]})
	}
	read := func(field string, mm float64) measure.Length {
		l, err := length(mm)
		if err != nil {
			faults = append(faults, compute.Fault{Location: "body." + field, Value: mm, Message: fmt.Sprintf("%v mm cannot be read: at most six decimal places.", mm)})
		}
		return l
	}
	if b.GapMM != nil {
		h.Gap = new(read("gap_mm", *b.GapMM))
	}
	h.Uncertainty, h.Shim = read("uncertainty_mm", b.UncertaintyMM), read("shim_mm", b.ShimMM)
	if b.Feel != "" {
		feel, ok := compute.ParseFeel(b.Feel)
		if !ok {
			feel = clearance.Feel(b.Feel) // refused by the core in its words
		}
		h.Feel = feel
	}
	return h, faults
}

func (in happenInput) read(at time.Time) (job.Happening, error) {
	faults := foreign(in.RawBody, in.Body.Kind)
	h, more := happeningOf(in.Body, at)
	if faults = append(faults, more...); len(faults) > 0 {
		return h, located(http.StatusUnprocessableEntity, faults[0].Message, faults...)
	}
	return h, nil
}
