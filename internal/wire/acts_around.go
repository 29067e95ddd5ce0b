package wire

import (
	"metronix/core/around"
	"metronix/core/engine"
	"metronix/core/job"
)

// This file is the acts around the bench: taking a vehicle in, what is ticked off, tools, findings, and what
// is added to a signed job.

// takenIn is what the owner complains of, before anything is touched.
type takenIn struct {
	Complaints []string `json:"complaints,omitempty" maxItems:"12" nullable:"false" enum:"ticks,rough_idle,back_fires,smokes,hard_start,low_compression,misfires,no_power,fuel_use,oil_smell,ticks_by_nature,none"`
	Note       string   `json:"note,omitempty" maxLength:"400"`
	Sound      string   `json:"sound,omitempty" maxLength:"400" doc:"how it sounded before the work"`
}

func (w takenIn) act(*Faults) job.Act {
	return job.TakenIn{Complaints: Words[around.Complaint](w.Complaints), Note: w.Note, Sound: w.Sound}
}

// sound is how the engine sounds, in words or as a recording, before or after.
type sound struct {
	After bool   `json:"after,omitempty" doc:"with the valves set; left out: as it came in"`
	Note  string `json:"note,omitempty" maxLength:"400"`
	File  string `json:"file,omitempty" maxLength:"64" doc:"the hash of a recording"`
}

func (w sound) act(*Faults) job.Act {
	return job.SoundNoted{After: w.After, Heard: around.Heard{Note: w.Note, File: w.File}}
}

// task ticks a step around the bench off, passes it over, or lets it wait again.
type task struct {
	Task   string   `json:"task" maxLength:"40" doc:"its id"`
	With   []string `json:"with,omitempty" maxItems:"60" doc:"the other steps of its group that are ticked with it"`
	Skip   bool     `json:"skip,omitempty" doc:"it is passed over, with its reason"`
	Back   bool     `json:"back,omitempty" doc:"it waits again"`
	Reason string   `json:"reason,omitempty" maxLength:"200" doc:"why it is passed over, or done all the same"`
}

func (w task) act(*Faults) job.Act {
	return job.TaskMarked{Task: w.Task, With: w.With, Skip: w.Skip, Back: w.Back, Reason: w.Reason}
}

// turningBy says by what the engine is turned.
type turningBy struct {
	By string `json:"by" enum:",pulley,fan,wheel,push" doc:"empty: the tool that the sheet names"`
}

func (w turningBy) act(*Faults) job.Act { return job.TurningBy{Means: around.Means(w.By)} }

// strip writes down what came off to reach the valves, for this engine's next visit.
type strip struct {
	Step string `json:"step" maxLength:"20" doc:"its id"`
	StripStep
}

func (w strip) act(*Faults) job.Act {
	return job.Stripped{Step: w.Step, StripStep: engine.StripStep{Text: w.Text, Fastener: w.Fastener,
		SocketMM: w.Socket, Note: w.Note}}
}

// nutFelt ticks one lock nut off.
type nutFelt struct {
	Valve string `json:"valve"`
	Back  bool   `json:"back,omitempty" doc:"it waits again"`
}

func (w nutFelt) act(*Faults) job.Act { return job.NutFelt{Valve: w.Valve, Back: w.Back} }

// waiting is what the open vehicle waits for; nothing ends it.
type waiting struct {
	Waits string `json:"waits_for,omitempty" enum:"date,odometer,parts,cams" doc:"left out: it waits no more"`
	Until string `json:"until,omitempty" maxLength:"120" doc:"until when, or what is on order"`
}

func (w waiting) act(*Faults) job.Act {
	return job.Waiting{Deferral: job.Deferral{Waits: job.WaitsFor(w.Waits), Until: w.Until}}
}

// handedOver says who goes on.
type handedOver struct {
	To   string `json:"to" minLength:"1" maxLength:"100"`
	Note string `json:"note,omitempty" maxLength:"400" doc:"what the next one has to know"`
}

func (w handedOver) act(*Faults) job.Act { return job.HandedOver{To: w.To, Note: w.Note} }

// tool is a tool taken out or brought back.
type tool struct {
	Tool string `json:"tool" maxLength:"40" doc:"its id"`
	Back bool   `json:"back,omitempty" doc:"it is back; left out: it is taken out"`
}

func (w tool) act(*Faults) job.Act { return job.ToolMoved{Tool: w.Tool, Back: w.Back} }

// Finding is something seen besides the clearances.
type Finding struct {
	ID    string `json:"finding" maxLength:"64" doc:"its id; the same one again replaces it"`
	Place string `json:"place" maxLength:"120" doc:"a valve, a cylinder, the cover, a hose, a plug"`
	What  string `json:"what" maxLength:"120"`
	Test  string `json:"test,omitempty" maxLength:"120" doc:"the test made"`
	Part  string `json:"part,omitempty" maxLength:"120" doc:"part number"`
	Price string `json:"price,omitempty" maxLength:"120"`
	Photo string `json:"photo,omitempty" maxLength:"64" doc:"the hash of its photograph"`
	Later bool   `json:"later,omitempty" doc:"it is left for later, and comes back at the next job"`
}

// FindingOf writes a finding.
func FindingOf(f around.Finding) Finding {
	return Finding{f.ID, f.Place, f.What, f.Test, f.Part, f.Price, f.Photo, f.Later}
}

// finding is something seen, wherever on the vehicle.
type finding struct{ Finding }

func (w finding) act(*Faults) job.Act {
	return job.FindingNoted{Finding: around.Finding{ID: w.ID, Place: w.Place, What: w.What, Test: w.Test,
		Part:  w.Part,
		Price: w.Price, Photo: w.Photo, Later: w.Later}}
}

// amended adds a correction to a signed job, which changes nothing of it.
type amended struct {
	Text string `json:"text" maxLength:"400" doc:"what is to be corrected"`
	By   string `json:"by" maxLength:"100"`
}

func (w amended) act(*Faults) job.Act { return job.Amended{Text: w.Text, By: w.By} }

// countersigned is a second pair of eyes.
type countersigned struct {
	By string `json:"by" maxLength:"100" doc:"another person than the one who signed"`
}

func (w countersigned) act(*Faults) job.Act { return job.Countersigned{By: w.By} }
