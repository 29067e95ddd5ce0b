package demo

import (
	"bytes"
	"fmt"
	"net/http"
	"time"

	"metronix/core/around"
	"metronix/core/job"
	"metronix/internal/api"
	"metronix/internal/seen"
	"metronix/internal/wire"
)

// acts does some acts one after the other.
func (l *loader) acts(j demoJob, part string, state *seen.JobState, acts ...job.Act) error {
	for i, act := range acts {
		h := wire.Happening{Happening: job.Happening{ID: fmt.Sprintf("%s-%s-%03d", j.id, part, i), Act: act}}
		if err := l.send(http.MethodPost, "/api/v1/jobs/"+j.id+"/happenings", h, state); err != nil {
			return err
		}
	}
	return nil
}

// steps tick the steps of a part of a job off.
func steps(state *seen.JobState, part around.Part) (acts []job.Act) {
	for _, t := range state.Tasks {
		if t.Part == string(part) && !t.Marked && t.ID != around.NutsStep {
			acts = append(acts, job.TaskMarked{Task: t.ID})
		}
	}
	return acts
}

// around takes the vehicle in and ticks off what is done before the valves.
func (l *loader) around(j demoJob, state *seen.JobState) error {
	if !j.around {
		return nil
	}
	gasket := around.Finding{
		ID:    j.id + "-f2",
		Place: "gasket",
		What:  "hard or split",
		Part:  "BR 16-204",
		Later: !j.whole,
	}
	if j.whole {
		picture, err := l.picture(j)
		if err != nil {
			return err
		}
		gasket.Part, gasket.Price, gasket.Photo = "HG 20-118", "14.60", picture
	}
	acts := []job.Act{
		job.TakenIn{Complaints: []around.Complaint{around.RoughIdle}, Note: "since the last hill",
			Sound: "uneven when warm"},
		job.ToolMoved{Tool: "turning"},
		job.ToolMoved{Tool: "leaves"},
		job.FindingNoted{Finding: around.Finding{ID: j.id + "-f1", Place: "breather", What: "blocked",
			Test: "no draught felt"}},
		job.FindingNoted{Finding: gasket},
	}
	return l.acts(j, "around", state, append(acts, steps(state, around.OpenUp)...)...)
}

// picture keeps the drawn photograph, and gives its hash.
func (l *loader) picture(j demoJob) (hash string, err error) {
	drawn, err := splitGasket()
	if err != nil {
		return "", err
	}
	request, err := http.NewRequest(
		http.MethodPost,
		"http://localhost/api/v1/jobs/"+j.id+"/photos",
		bytes.NewReader(drawn),
	)
	if err != nil {
		return "", err
	}
	request.Header.Set("Content-Type", "image/jpeg")
	var kept api.PhotoKept
	err = l.carry(request, &kept)
	return kept.Hash, err
}

// closed counts the tools back and ticks off what is done up to the engine that runs again, where a job does
// that.
func (l *loader) closed(j demoJob, state *seen.JobState) error {
	if !j.whole {
		return nil
	}
	acts := []job.Act{job.ToolMoved{Tool: "turning", Back: true}, job.ToolMoved{Tool: "leaves", Back: true}}
	for _, v := range state.Valves {
		acts = append(acts, job.NutFelt{Valve: v.Name})
	}
	if err := l.acts(j, "closed", state, append(acts, steps(state, around.CloseUp)...)...); err != nil {
		return err
	}
	l.clock = l.clock.Add(5 * time.Hour) // until its sealant has cured
	return l.acts(j, "started", state, steps(state, around.StartUp)...)
}

// putOff puts a job off for its parts, where the demo has it so.
func (l *loader) putOff(j demoJob, state *seen.JobState) error {
	if j.waits == "" {
		return nil
	}
	return l.acts(j, "after", state, job.Signed{By: j.mechanic, ToolsOut: true,
		Deferred: job.Deferral{Waits: job.WaitsForParts, Until: j.waits}})
}
