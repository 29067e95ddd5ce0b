package api

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"log/slog"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/record"
	"metronix/internal/report"
)

// A job leaves the program as a PDF made here, as CSV for a spreadsheet, and as the JSON that its screens
// read.

// paperInput is on what paper a sheet is printed.
type paperInput struct {
	JobID
	Paper string `query:"paper" enum:"a4,letter" default:"a4"`
}

// reportRoutes are a job as it leaves the program: in words, as PDF, as CSV and as JSON.
func (s *server) reportRoutes(a huma.API) {
	huma.Get(
		a,
		"/api/v1/jobs/{id}/sheet",
		s.jobSheet,
		summary(
			"job-sheet",
			"A job as it is handed over, in words: what its PDF, its files and its screen show",
		),
	)
	huma.Get(a, "/api/v1/seal", s.sealKeys, summary("get-seal", "The keys by which the workshop seals its sheets"))
	huma.Get(a, "/api/v1/jobs/{id}/report.pdf", s.jobPDF,
		summary("job-pdf", "A job's sheet as a PDF, A4 or letter"))
	huma.Get(a, "/api/v1/jobs/{id}/report.csv", s.jobCSV,
		summary("job-csv", "A job's valves as a CSV file, a line each"))
	huma.Get(a, "/api/v1/jobs/{id}/report.json", s.jobJSON,
		summary("job-json", "A job as its screens read it, as a file"))
}

// reported gathers what is reported of a job and writes it; the job is not changed meanwhile.
func (s *server) reported(ctx context.Context, id string,
	write func(report.Job, *bytes.Buffer) error) ([]byte, error) {
	var out bytes.Buffer
	err := s.desk.with(ctx, id, func(o *openJob) error {
		r := o.record
		due, err := s.dueSaid(ctx, r.Vehicle.ID)
		if err != nil {
			return err
		}
		photos := map[string][]byte{}
		for _, f := range o.state.Findings {
			if f.Photo == "" {
				continue
			}
			if photos[f.Photo], err = s.store.With(ctx).Photo(f.Photo); err != nil {
				delete(photos, f.Photo) // the report goes without it
			}
		}
		j := report.Job{Record: recordOfReport(r, due), State: o.state, Photos: photos}
		if j.Proof = s.proofText(o, record.Of(o.state).Report(j.Record)); j.Proof != "" {
			j.Fingerprint = s.seal.Fingerprint()
		}
		err = write(j, &out)
		if err != nil { // what is stored is as it was
			slog.Error("a sheet cannot be made", "job", id, "error", err)
			return huma.Error500InternalServerError("This sheet cannot be made: " + err.Error() +
				". The job itself is stored as it was. Its CSV and JSON files have the same.")
		}
		return nil
	})
	if err != nil {
		return nil, fault(err)
	}
	return out.Bytes(), nil
}

// dueSaid is when a vehicle is due next, in words; empty: nobody knows.
func (s *server) dueSaid(ctx context.Context, vehicleID string) (string, error) {
	due, err := s.store.With(ctx).DueOf(vehicleID)
	var says []string
	if day, err := time.Parse(time.DateOnly, due.DueOn); err == nil {
		says = append(says, day.Format("2 Jan 2006"))
	}
	if due.DueAt > 0 {
		says = append(says, "about "+speaksTo(ctx).Run(due.Cause.By, float64(due.DueAt)))
	}
	return strings.Join(says, ", "), err
}

// named makes a browser keep an answer under the job's id.
func named(id, ending string) string { return fmt.Sprintf("attachment; filename=%q", id+ending) }

// jobPDF is the sheet on paper; browsers show it in place.
func (s *server) jobPDF(ctx context.Context, in *paperInput) (*file, error) {
	paper := report.A4
	if in.Paper == "letter" {
		paper = report.Letter
	}
	body, err := s.reported(ctx, in.ID, func(j report.Job, out *bytes.Buffer) error {
		return report.WriteJobPDF(out, j, paper, s.clock())
	})
	if err != nil {
		return nil, err
	}
	return &file{"application/pdf", fmt.Sprintf("inline; filename=%q", in.ID+".pdf"), body}, nil
}

// jobCSV is the valves, a line each, for a spreadsheet.
func (s *server) jobCSV(ctx context.Context, in *JobID) (*file, error) {
	body, err := s.reported(ctx, in.ID, func(j report.Job, out *bytes.Buffer) error {
		return report.WriteJobCSV(out, j)
	})
	if err != nil {
		return nil, err
	}
	return &file{"text/csv; charset=utf-8", named(in.ID, ".csv"), body}, nil
}

// jobJSON is both what the bench shows and what the sheet says, in one file.
func (s *server) jobJSON(ctx context.Context, in *JobID) (*file, error) {
	view, err := s.viewOf(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	sheet, err := s.sheetOf(ctx, in.ID)
	if err != nil {
		return nil, fault(err)
	}
	body, err := json.MarshalIndent(JobFile{view.Body, sheet}, "", "  ")
	if err != nil {
		return nil, fault(err)
	}
	return &file{"application/json", named(in.ID, ".json"), body}, nil
}
