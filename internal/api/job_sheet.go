package api

import (
	"context"
	"slices"
	"strings"

	"metronix/core/record"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// SheetView is a job as it is handed over: composed once, and printed, shown and written to files alike.
type SheetView struct {
	Title   string      `json:"title"`
	Seal    string      `json:"seal" doc:"who signed and when, or that nobody has"`
	Signed  bool        `json:"signed" doc:"for good"`
	Facts   []SheetFact `json:"facts"`
	Found   string      `json:"found"`
	Unit    string      `json:"unit"`
	Cold    bool        `json:"cold" doc:"there was a provisional cold pass"`
	Rows    []SheetRow  `json:"rows"`
	Lists   []SheetList `json:"lists"`
	Caution string      `json:"caution"`
	Proof   *SheetProof `json:"proof,omitempty" doc:"the workshop's seal on it; only where it is signed"`
}

// SheetFact is one line of what a job was done by.
type SheetFact struct {
	Label string `json:"label"`
	Text  string `json:"text"`
}

// SheetRow is one valve.
type SheetRow struct {
	Valve  string     `json:"valve"`
	Kind   string     `json:"kind" enum:"intake,exhaust"`
	Limits string     `json:"limits"`
	Cold   *SheetCell `json:"cold,omitempty" doc:"as the cold pass left it"`
	Found  *SheetCell `json:"found,omitempty"`
	Left   *SheetCell `json:"left,omitempty"`
	Done   string     `json:"done" doc:"what was done to it"`
}

// SheetCell is what is known of one gap.
type SheetCell struct {
	Figure  string   `json:"figure"`
	Other   string   `json:"other" doc:"the same in the other unit; empty: it is no single figure"`
	Said    string   `json:"said" doc:"in words"`
	Verdict string   `json:"verdict" enum:"in,tight,loose,undecided"`
	Close   bool     `json:"close" doc:"a limit lies within the uncertainty of leaf and feel"`
	Notes   []string `json:"notes"`
}

// SheetList is what is listed under a title.
type SheetList struct {
	Title string      `json:"title"`
	Items []SheetItem `json:"items"`
}

// SheetItem is one thing of a list.
type SheetItem struct {
	Text  string `json:"text"`
	Photo string `json:"photo,omitempty" doc:"its hash"`
	Sound string `json:"sound,omitempty" doc:"its hash"`
}

// JobFile is a job as it leaves the program: as its screens read it, and as it is handed over.
type JobFile struct {
	JobView
	Sheet SheetView `json:"sheet"`
}

// jobSheet is the sheet in words, composed by core/record: the screen only lays it out.
func (s *server) jobSheet(ctx context.Context, in *JobID) (*bodyOf[SheetView], error) {
	view, err := s.sheetOf(ctx, in.ID)
	if err != nil {
		return nil, fault(err)
	}
	return &bodyOf[SheetView]{view}, nil
}

// sheetOf composes the sheet of a job, with when its vehicle is due by all of its jobs.
func (s *server) sheetOf(ctx context.Context, id string) (view SheetView, err error) {
	err = s.desk.with(ctx, id, func(o *openJob) error {
		due, err := s.dueSaid(ctx, o.record.Vehicle.ID)
		r := record.Of(o.state).Report(recordOfReport(o.record, due))
		view = sheetView(r)
		view.Proof = s.proofView(s.proofText(o, r))
		return err
	})
	return view, err
}

// recordOfReport is what is known of a job besides its list.
func recordOfReport(r store.Job, due string) record.Record {
	return record.Record{
		ID:          r.ID,
		Vehicle:     r.Vehicle.Name,
		Plate:       r.Vehicle.Plate,
		Mechanic:    r.Mechanic,
		Reason:      r.Reason,
		Gauges:      strings.Join(slices.DeleteFunc([]string{r.GaugeName, r.LeavesAre}, blank), ", "),
		CardReason:  r.CardReason,
		AimReason:   r.AimReason,
		Meter:       r.Meter,
		Counter:     r.Vehicle.Counter,
		OdometerWhy: r.OdometerWhy,
		CreatedAt:   r.CreatedAt,
		Due:         due,
	}
}

// sheetView is the composed sheet as it is sent, field by field.
func sheetView(r record.Report) SheetView {
	v := SheetView{
		Title:   r.Title,
		Seal:    r.Seal,
		Signed:  r.Signed,
		Facts:   []SheetFact{},
		Found:   r.Found,
		Unit:    r.Unit,
		Cold:    r.Cold,
		Rows:    []SheetRow{},
		Lists:   []SheetList{},
		Caution: r.Caution,
	}
	for _, f := range r.Facts {
		v.Facts = append(v.Facts, SheetFact(f))
	}
	for _, x := range r.Rows {
		v.Rows = append(
			v.Rows,
			SheetRow{x.Valve, x.Kind, x.Limits, cellView(x.Cold), cellView(x.Found), cellView(x.Left),
				x.Done},
		)
	}
	for _, l := range r.Lists {
		list := SheetList{Title: l.Title}
		for _, i := range l.Items {
			list.Items = append(list.Items, SheetItem(i))
		}
		v.Lists = append(v.Lists, list)
	}
	return v
}

// cellView is one figure of the sheet; nil: nothing was read.
func cellView(c *record.Cell) *SheetCell {
	if c == nil {
		return nil
	}
	return &SheetCell{c.Figure, c.Other, c.Said, string(c.Verdict), c.Close, wire.List(c.Notes)}
}
