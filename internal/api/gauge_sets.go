package api

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/gauge"
	"metronix/internal/report"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// GaugeSet is a set of leaves.
type GaugeSet struct {
	ID      string      `json:"id"`
	Name    string      `json:"name"`
	Checked string      `json:"checked" doc:"date of the last check; empty: never"`
	Leaves  int         `json:"leaves" doc:"those that are there"`
	Items   wire.Leaves `json:"items"`
	Version string      `json:"version" doc:"of what is stored; send it back as replaces to change the set"`
	Damaged string      `json:"damaged" doc:"why its leaves cannot be read; empty: they can"`
}

// NewGaugeSet is a set of leaves to store.
type NewGaugeSet struct {
	ID string `json:"id" minLength:"8" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
	GaugeSetBody
}

// GaugeSetBody is what a set holds.
type GaugeSetBody struct {
	Name    string      `json:"name" minLength:"1" maxLength:"100"`
	Checked string      `json:"checked,omitempty" maxLength:"10" doc:"date of the last check, 2026-03-31"`
	Leaves  wire.Leaves `json:"leaves" minItems:"1" maxItems:"120"`
}

// GaugeID is the path of a gauge set.
type GaugeID struct {
	ID string `path:"id" minLength:"1" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
}

// putGaugeInput carries the set as sent; its faults are placed leaf by leaf.
type putGaugeInput struct {
	GaugeID
	Replaces string `query:"replaces" maxLength:"64" doc:"the version that this one replaces; absent: whatever there is"`
	RawBody  []byte `contentType:"application/json"`
}

// gaugeCSV is a set as a file.
type gaugeCSV struct {
	ContentType string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

// gaugeRoutes are the sets of feeler leaves: kept, changed, taken out, and as CSV out and in.
func (s *server) gaugeRoutes(a huma.API) {
	huma.Get(a, "/api/v1/gauge-sets", s.gaugeSets, summary("list-gauge-sets", "All gauge sets"))
	huma.Post(a, "/api/v1/gauge-sets", s.addGaugeSet, summary("add-gauge-set", "Store a gauge set"),
		strictly[NewGaugeSet](a))
	huma.Put(a, "/api/v1/gauge-sets/{id}", s.putGaugeSet,
		summary("put-gauge-set", "Change a gauge set; jobs keep the leaves they began with"),
		strictly[GaugeSetBody](a))
	huma.Delete(a, "/api/v1/gauge-sets/{id}", s.removeGaugeSet,
		summary("remove-gauge-set", "Take a gauge set out"))
	huma.Get(a, "/api/v1/gauge-sets/{id}/csv", s.gaugeSetCSV,
		summary("gauge-set-csv", "A gauge set as a CSV file"))
	huma.Register(a, huma.Operation{OperationID: "read-gauge-csv", Method: http.MethodPost,
		Path: "/api/v1/read-gauge-csv", MaxBodyBytes: maxBody,
		Summary: "Read the leaves of a CSV file; nothing is stored",
		Errors:  []int{http.StatusUnprocessableEntity}, SkipValidateBody: true,
		RequestBody: &huma.RequestBody{Required: true,
			Content: map[string]*huma.MediaType{"text/csv": {Schema: &huma.Schema{Type: huma.TypeString}}}},
	}, readGaugeCSV)
}

// gaugeSets lists them, those too whose leaves do not read.
func (s *server) gaugeSets(ctx context.Context, _ *struct{}) (*listOf[GaugeSet], error) {
	stored, err := s.store.With(ctx).GaugeSets()
	if err != nil {
		return nil, fault(err)
	}
	out := &listOf[GaugeSet]{Body: []GaugeSet{}}
	for _, g := range stored {
		out.Body = append(out.Body, gaugeView(g))
	}
	return out, nil
}

// gaugeView is a set as screens have it; it counts the leaves that are there, missing ones left out.
func gaugeView(g store.GaugeSet) GaugeSet {
	return GaugeSet{g.ID, g.Name, g.Checked, len(gauge.Owned(g.Items)), wire.LeavesOf(g.Items), g.Version,
		g.Damaged}
}

// gaugeRecord checks a set before it is stored.
func (s *server) gaugeRecord(id string, b GaugeSetBody) (store.GaugeSet, error) {
	if faults := gaugeFaults(b, s.clock()); len(faults) > 0 {
		return store.GaugeSet{},
			located(http.StatusUnprocessableEntity,
				"These leaves cannot be stored: "+counted(len(faults), "fault")+".", faults...)
	}
	return store.GaugeSet{ID: id, Name: strings.TrimSpace(b.Name), Items: b.Leaves.Core(), Checked: b.Checked,
		CreatedAt: s.clock()}, nil
}

// gaugeFaults is what is wrong with a set, on a day.
func gaugeFaults(b GaugeSetBody, now time.Time) (faults wire.Faults) {
	b.Leaves.Faults("body.leaves", &faults)
	if strings.TrimSpace(b.Name) == "" {
		faults = append(faults, wire.Fault{Location: "body.name", Message: "Give the set a name that the " +
			"workshop knows it by."})
	}
	if b.Checked != "" {
		if day, err := time.Parse(time.DateOnly, b.Checked); err != nil {
			faults = append(faults, wire.Fault{Location: "body.checked", Value: b.Checked,
				Message: "A date is written 2026-03-31."})
		} else if day.After(now.AddDate(0, 0, 1)) {
			faults = append(faults, wire.Fault{Location: "body.checked", Value: b.Checked,
				Message: "This day has not come yet."})
		}
	}
	return faults
}

// addGaugeSet stores a new set.
func (s *server) addGaugeSet(ctx context.Context, in *rawInput) (*bodyOf[GaugeSet], error) {
	body, err := readBody[NewGaugeSet](in.RawBody)
	if err != nil {
		return nil, err
	}
	return s.storeGaugeSet(ctx, body.ID, body.GaugeSetBody, s.store.With(ctx).AddGaugeSet)
}

// putGaugeSet replaces one; a job goes on with the leaves that it began with.
func (s *server) putGaugeSet(ctx context.Context, in *putGaugeInput) (*bodyOf[GaugeSet], error) {
	body, err := readBody[GaugeSetBody](in.RawBody)
	if err != nil {
		return nil, err
	}
	return s.storeGaugeSet(ctx, in.ID, body,
		func(g store.GaugeSet) error { return s.store.With(ctx).ReplaceGaugeSet(g, in.Replaces) })
}

// storeGaugeSet is what both do: read strictly, stored, read back.
func (s *server) storeGaugeSet(ctx context.Context, id string, body GaugeSetBody,
	put func(store.GaugeSet) error) (*bodyOf[GaugeSet], error) {
	record, err := s.gaugeRecord(id, body)
	if err != nil {
		return nil, err
	}
	if err := put(record); err != nil {
		return nil, fault(err)
	}
	stored, err := s.store.With(ctx).GaugeSet(id)
	if err != nil {
		return nil, fault(err)
	}
	return &bodyOf[GaugeSet]{gaugeView(stored)}, nil
}

// removeGaugeSet takes a set out. No job is touched by it: each holds its leaves itself.
func (s *server) removeGaugeSet(ctx context.Context, in *GaugeID) (*struct{}, error) {
	if err := s.store.With(ctx).RemoveGaugeSet(in.ID); err != nil {
		return nil, fault(err)
	}
	return nil, nil
}

// gaugeSetCSV gives a set as the file that can be read in again. One that does not read is refused and not
// given half.
func (s *server) gaugeSetCSV(ctx context.Context, in *GaugeID) (*gaugeCSV, error) {
	g, err := s.store.With(ctx).GaugeSet(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	if faults := setFaults(g); g.Damaged != "" {
		return nil, located(http.StatusConflict, "The leaves of this set cannot be read.", faults...)
	}
	var out bytes.Buffer
	if err := report.WriteGaugeCSV(&out, g.Items); err != nil {
		return nil, fault(err)
	}
	return &gaugeCSV{"text/csv; charset=utf-8", fmt.Sprintf("attachment; filename=%q", in.ID+".csv"),
		out.Bytes()}, nil
}

// csvInput is a file of leaves as it was picked.
type csvInput struct {
	RawBody []byte `contentType:"text/csv"`
}

// readGaugeCSV reads a file of leaves into the form on the screen; nothing is stored before that is saved.
func readGaugeCSV(_ context.Context, in *csvInput) (*listOf[wire.Leaf], error) {
	items, faults := report.ReadGaugeCSV(bytes.NewReader(in.RawBody))
	if len(faults) > 0 {
		return nil, located(http.StatusUnprocessableEntity,
			"These leaves cannot be read: "+counted(len(faults), "fault")+".", faults...)
	}
	return &listOf[wire.Leaf]{wire.LeavesOf(items)}, nil
}

// setFaults is what is wrong with a stored set: one of an earlier version may hold what is not taken any
// more.
func setFaults(set store.GaugeSet) (faults wire.Faults) {
	if set.Damaged != "" {
		faults.Add("body.gauge_set_id", set.ID, "%s: %s", set.Name, set.Damaged)
	}
	for _, f := range gauge.Check(set.Items) {
		faults.Add("body.gauge_set_id", set.ID, "%s: %s", set.Name, f.Message)
	}
	return faults
}
