package api

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/core/practice"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// gaugeStudyRoutes are studies with real leaves at real gaps that somebody else has set and measured. What
// the gaps are is told to nobody before every reading was made.
func (s *server) gaugeStudyRoutes(a huma.API) {
	huma.Get(a, "/api/v1/gauge-studies", s.gaugeStudies,
		summary("list-gauge-studies", "The studies with real leaves, the newest first"))
	huma.Post(a, "/api/v1/gauge-studies", s.startGaugeStudy,
		summary("start-gauge-study", "Begin a study with real leaves at gaps that were measured"))
	huma.Get(a, "/api/v1/gauge-studies/{id}", s.gaugeStudy,
		summary("get-gauge-study", "A study as it stands; what it came to, once it has ended"))
	huma.Post(a, "/api/v1/gauge-studies/{id}/readings", s.readGaugeStudy,
		summary("read-gauge-study", "Which leaves dragged as they should in the gap that is to be read"))
	huma.Put(a, "/api/v1/gauge-studies/{id}/feel", s.agreeFeel,
		summary("agree-feel", "Agree that a reader goes by his figure in real jobs, or take that back"))
}

// NewGaugeStudy is what a study begins with.
type NewGaugeStudy struct {
	ID         string            `json:"id" minLength:"8" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
	Gaps       []MeasuredGapView `json:"gaps" minItems:"1" maxItems:"10" doc:"A, B, C: as they were measured"`
	With       string            `json:"with" enum:"micrometer,dial"`
	MeasuredBy string            `json:"measured_by" minLength:"1" maxLength:"100" doc:"who set and measured them: none of the readers"`
	LeavesAre  string            `json:"leaves_are" enum:"dry,oiled"`
	Readers    []string          `json:"readers" minItems:"1" maxItems:"20"`
	SetIDs     []string          `json:"gauge_set_ids" minItems:"1" maxItems:"6"`
	Times      int               `json:"times" minimum:"2" maximum:"10" doc:"that each reads each gap with each set"`
}

// MeasuredGapView is a gap as it was measured.
type MeasuredGapView struct {
	GapMM   wire.MM `json:"gap_mm"`
	DoubtMM wire.MM `json:"doubt_mm" doc:"its standard uncertainty"`
}

// GaugeStudyView is a study as it stands.
type GaugeStudyView struct {
	ID         string          `json:"id"`
	Made       time.Time       `json:"made"`
	Ended      *time.Time      `json:"ended,omitempty" doc:"absent: it goes on"`
	MeasuredBy string          `json:"measured_by"`
	With       string          `json:"with" enum:"micrometer,dial"`
	LeavesAre  string          `json:"leaves_are" enum:"dry,oiled"`
	Readers    []string        `json:"readers"`
	Sets       []string        `json:"sets"`
	Gaps       int             `json:"gaps"`
	Readings   int             `json:"readings" doc:"that there are to be"`
	Done       int             `json:"done"`
	Next       *GaugeStudyNext `json:"next,omitempty" doc:"the reading to be made; absent: all were"`
	Came       *GaugeStudyCame `json:"came,omitempty" doc:"absent until it has ended"`
}

// GaugeStudyNext is the reading to be made.
type GaugeStudyNext struct {
	Reader   string    `json:"reader"`
	Set      string    `json:"set"`
	Gap      string    `json:"gap" doc:"A, B, C"`
	LeavesMM []wire.MM `json:"leaves_mm" doc:"of that set, as marked"`
}

// GaugeStudyCame is what a study came to.
type GaugeStudyCame struct {
	Gaps    []MeasuredGapView `json:"gaps"`
	Readers []ReaderView      `json:"readers"`
	By      []EffectView      `json:"by" doc:"analysis of variance of the differences: people, leaf sets, both together, repeatability"`
}

// ReaderView is one of its readers.
type ReaderView struct {
	Name     string     `json:"name"`
	Readings int        `json:"readings"`
	BiasMM   wire.MM    `json:"bias_mm" doc:"readings less gaps, in the mean: above 0 he takes a thicker leaf"`
	ApartMM  float64    `json:"apart_mm" doc:"standard deviation of those differences"`
	FeelMM   wire.MM    `json:"feel_mm" doc:"by how much a gap may differ from the leaf that drags in his hand, either way"`
	Enough   bool       `json:"enough" doc:"so many readings that it may be gone by in real jobs"`
	AgreedBy string     `json:"agreed_by" doc:"who agreed that he goes by it; empty: nobody"`
	AgreedAt *time.Time `json:"agreed_at,omitempty"`
}

// EffectView is one line of the analysis.
type EffectView struct {
	What string   `json:"what" enum:"people,sets,both,repeatability"`
	DF   int      `json:"df" doc:"degrees of freedom; 0: there is none here"`
	F    *float64 `json:"f,omitempty"`
	P    *float64 `json:"p,omitempty"`
	SDMM float64  `json:"sd_mm" doc:"the standard deviation that it alone brings about"`
}

// gapName is what a gap is called.
func gapName(n int) string { return string(rune('A' + n)) }

// gaugeStudyView is a study as anybody may see it: until it has ended no gap and no reading of it is told.
func (s *server) gaugeStudyView(ctx context.Context, k store.GaugeStudy) (v GaugeStudyView, err error) {
	v = GaugeStudyView{
		ID:         k.ID,
		Made:       k.Made,
		Ended:      given(k.Ended),
		MeasuredBy: k.MeasuredBy,
		With:       k.With,
		LeavesAre:  k.LeavesAre,
		Readers:    k.Readers,
		Sets:       []string{},
		Gaps:       len(k.Study.Gaps),
		Readings:   len(k.Study.Order()),
		Done:       len(k.Study.Read),
	}
	for _, set := range k.Sets {
		v.Sets = append(v.Sets, set.Name)
	}
	if t, ok := k.Study.Next(); ok {
		v.Next = &GaugeStudyNext{Reader: k.Readers[t.Reader], Set: k.Sets[t.Set].Name, Gap: gapName(t.Gap), LeavesMM: []wire.MM{}}
		for _, l := range k.Sets[t.Set].Leaves {
			v.Next.LeavesMM = append(v.Next.LeavesMM, wire.MM(l.Marked))
		}
		return v, nil
	}
	readers, by, err := k.Study.Came()
	if err != nil {
		return v, err
	}
	v.Came = &GaugeStudyCame{}
	for _, g := range k.Study.Gaps {
		v.Came.Gaps = append(v.Came.Gaps, MeasuredGapView{wire.MM(g.True), wire.MM(g.Doubt)})
	}
	for i, r := range readers {
		one := ReaderView{
			Name:     k.Readers[i],
			Readings: r.Readings,
			BiasMM:   wire.MM(r.Bias),
			ApartMM:  inMM(r.Apart),
			FeelMM:   wire.MM(r.Feel),
			Enough:   r.Enough,
		}
		feel, err := s.store.With(ctx).MeasuredFeel(one.Name)
		if err != nil {
			return v, err
		}
		if feel.Study == k.ID {
			one.AgreedBy, one.AgreedAt = feel.AgreedBy, given(feel.AgreedAt)
		}
		v.Came.Readers = append(v.Came.Readers, one)
	}
	for what, e := range map[string]practice.Effect{"people": by.First, "sets": by.Second, "both": by.Both, "repeatability": by.Error} {
		v.Came.By = append(v.Came.By, EffectView{what, e.DF, finite(e.F), finite(e.P), inMM(e.SD)})
	}
	order := []string{"people", "sets", "both", "repeatability"}
	slices.SortFunc(v.Came.By, func(a, b EffectView) int { return slices.Index(order, a.What) - slices.Index(order, b.What) })
	return v, nil
}

// inMM is nanometres as millimetres, to a tenth of a micrometre.
func inMM(nm float64) float64 { return math.Round(nm/100) / 10_000 }

// finite is a figure that an answer may hold; nil where it is none.
func finite(v float64) *float64 {
	if math.IsNaN(v) || math.IsInf(v, 0) {
		return nil
	}
	return new(math.Round(v*10_000) / 10_000)
}

func (s *server) gaugeStudies(ctx context.Context, _ *struct{}) (*bodyOf[[]GaugeStudyView], error) {
	kept, err := s.store.With(ctx).GaugeStudies()
	if err != nil {
		return nil, fault(err)
	}
	list := []GaugeStudyView{}
	for _, k := range kept {
		v, err := s.gaugeStudyView(ctx, k)
		if err != nil {
			return nil, fault(err)
		}
		list = append(list, v)
	}
	return &bodyOf[[]GaugeStudyView]{list}, nil
}

func (s *server) gaugeStudy(ctx context.Context, in *StudyID) (*bodyOf[GaugeStudyView], error) {
	kept, err := s.store.With(ctx).GaugeStudy(in.ID)
	return s.seenStudy(ctx, kept, err)
}

// seenStudy answers with a study, or with what went wrong.
func (s *server) seenStudy(ctx context.Context, k store.GaugeStudy, err error) (*bodyOf[GaugeStudyView], error) {
	if err != nil {
		return nil, fault(err)
	}
	v, err := s.gaugeStudyView(ctx, k)
	if err != nil {
		return nil, fault(err)
	}
	return &bodyOf[GaugeStudyView]{v}, nil
}

// startGaugeStudy begins one. Sent again under the same id it is the same study.
func (s *server) startGaugeStudy(ctx context.Context, in *bodyOf[NewGaugeStudy]) (*bodyOf[GaugeStudyView], error) {
	s.practising.Lock()
	defer s.practising.Unlock()
	st, n := s.store.With(ctx), in.Body
	if was, err := st.GaugeStudy(n.ID); err == nil {
		return s.seenStudy(ctx, was, nil)
	}
	sets, err := st.GaugeSets()
	if err != nil {
		return nil, fault(err)
	}
	k := store.GaugeStudy{
		ID:         n.ID,
		Made:       s.clock(),
		MeasuredBy: strings.TrimSpace(n.MeasuredBy),
		With:       n.With,
		LeavesAre:  n.LeavesAre,
		Study:      practice.BenchStudy{Readers: len(n.Readers), Sets: len(n.SetIDs), Times: n.Times, Seed: rand.Uint64()},
	}
	var faults wire.Faults
	for i, name := range n.Readers {
		name = strings.TrimSpace(name)
		place := fmt.Sprintf("body.readers[%d]", i)
		switch same := func(o string) bool { return strings.EqualFold(o, name) }; {
		case name == "":
			faults.Add(place, name, "Say who reads.")
		case same(k.MeasuredBy):
			faults.Add(place, name, "Who set and measured the gaps knows them: let somebody else read, or set them.")
		case slices.ContainsFunc(k.Readers, same):
			faults.Add(place, name, "This reader is named twice.")
		}
		k.Readers = append(k.Readers, name)
	}
	for i, id := range n.SetIDs {
		at := slices.IndexFunc(sets, func(g store.GaugeSet) bool { return g.ID == id && g.Damaged == "" })
		if at < 0 {
			faults.Add(fmt.Sprintf("body.gauge_set_ids[%d]", i), id, "There is no such leaf set that reads.")
			continue
		}
		k.Sets = append(k.Sets, store.StudiedSet{Name: sets[at].Name, Leaves: gauge.Owned(sets[at].Items)})
	}
	for _, g := range n.Gaps {
		k.Study.Gaps = append(k.Study.Gaps, practice.MeasuredGap{True: measure.Length(g.GapMM), Doubt: measure.Length(g.DoubtMM)})
	}
	if err := k.Study.Check(); err != nil {
		faults = append(faults, wire.Fault{Location: "body.gaps", Message: wire.Sentence(err)})
	}
	if len(faults) > 0 {
		return nil, located(http.StatusUnprocessableEntity, "This study cannot be begun.", faults...)
	}
	return s.seenStudy(ctx, k, st.PutGaugeStudy(k))
}

// readGaugeStudy keeps one reading. Sent again it is the same one.
func (s *server) readGaugeStudy(ctx context.Context, in *struct {
	StudyID
	Body struct {
		N        int       `json:"n" minimum:"0" doc:"how many were made before"`
		LeavesMM []wire.MM `json:"leaves_mm" minItems:"1" maxItems:"3" doc:"as marked"`
	}
}) (*bodyOf[GaugeStudyView], error) {
	s.practising.Lock()
	defer s.practising.Unlock()
	k, err := s.store.With(ctx).GaugeStudy(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	t, ok := k.Study.Next()
	if !ok || in.Body.N < len(k.Study.Read) {
		return s.seenStudy(ctx, k, nil)
	}
	thickness := measure.Length(0)
	for i, marked := range in.Body.LeavesMM {
		at := slices.IndexFunc(k.Sets[t.Set].Leaves, func(l gauge.Leaf) bool { return wire.MM(l.Marked) == marked })
		if at < 0 {
			return nil, located(http.StatusUnprocessableEntity, "That is no leaf of this set.", wire.Fault{
				Location: fmt.Sprintf(
					"body.leaves_mm[%d]",
					i,
				), Value: marked, Message: "There is no such leaf in " + k.Sets[t.Set].Name + "."})
		}
		thickness += k.Sets[t.Set].Leaves[at].True()
	}
	k.Study.Read = append(k.Study.Read, thickness)
	if _, ok := k.Study.Next(); !ok {
		k.Ended = s.clock()
	}
	return s.seenStudy(ctx, k, s.store.With(ctx).PutGaugeStudy(k))
}

// agreeFeel makes a reader's figure the one that he goes by in real jobs; nobody agrees to his own.
func (s *server) agreeFeel(ctx context.Context, in *struct {
	StudyID
	Body struct {
		Reader   string `json:"reader" minLength:"1" maxLength:"100"`
		AgreedBy string `json:"agreed_by" maxLength:"100" doc:"who agrees, where nobody is signed in"`
		Back     bool   `json:"back,omitempty" doc:"that is taken back"`
	}
}) (*bodyOf[GaugeStudyView], error) {
	s.practising.Lock()
	defer s.practising.Unlock()
	st := s.store.With(ctx)
	k, err := st.GaugeStudy(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	refused := func(place, say string) error {
		return located(
			http.StatusUnprocessableEntity,
			"This cannot be agreed.",
			wire.Fault{Location: "body." + place, Message: say},
		)
	}
	at := slices.Index(k.Readers, in.Body.Reader)
	if at < 0 {
		return nil, refused("reader", "Nobody of that name reads in this study.")
	}
	readers, _, err := k.Study.Came()
	if err != nil {
		return nil, refused("reader", "The study has not ended: there is no figure yet.")
	}
	by := strings.TrimSpace(in.Body.AgreedBy)
	if v := visitorOf(ctx); v.person != nil {
		by = v.name()
	}
	feel := store.MeasuredFeel{
		Feel:      readers[at].Feel,
		Study:     k.ID,
		On:        k.Ended,
		LeavesAre: k.LeavesAre,
		AgreedBy:  by,
		AgreedAt:  s.clock(),
	}
	switch {
	case in.Body.Back:
		was, err := st.MeasuredFeel(in.Body.Reader)
		if err != nil {
			return nil, fault(err)
		}
		if feel = was; was.Study == k.ID {
			feel = store.MeasuredFeel{}
		}
	case by == "":
		return nil, refused("agreed_by", "Say who agrees.")
	case strings.EqualFold(by, in.Body.Reader):
		return nil, refused("agreed_by", "Nobody agrees to a figure of his own: ask a tutor or a foreman.")
	case !readers[at].Enough:
		return nil, refused(
			"reader",
			fmt.Sprintf("%d readings are too few for a figure in real jobs: ten at least.", readers[at].Readings),
		)
	}
	return s.seenStudy(ctx, k, st.PutMeasuredFeel(in.Body.Reader, feel))
}
