package api

import (
	"context"
	"errors"
	"math"
	"math/rand/v2"
	"net/http"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/measure"
	"metronix/core/practice"
	"metronix/internal/exercise"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// studyRoutes are gauge studies of one's own feel on the practice engine. Their gaps are hidden until every
// reading was made.
func (s *server) studyRoutes(a huma.API) {
	huma.Get(
		a,
		"/api/v1/studies",
		s.studies,
		summary("list-studies", "One's own studies of feel, the newest first"),
	)
	huma.Post(
		a,
		"/api/v1/studies",
		s.startStudy,
		summary("start-study", "Begin a study of feel, with gaps that are hidden"),
	)
	huma.Get(
		a,
		"/api/v1/studies/{id}",
		s.study,
		summary("get-study", "A study as it stands; what it came to, once it has ended"),
	)
	huma.Post(
		a,
		"/api/v1/studies/{id}/slide",
		s.slideStudy,
		summary("slide-study", "Slide a leaf into the gap that is to be read"),
	)
	huma.Post(
		a,
		"/api/v1/studies/{id}/readings",
		s.readStudy,
		summary("read-study", "Say that a leaf drags as it should: the next gap comes"),
	)
}

// StudyView is a study as it stands.
type StudyView struct {
	ID       string     `json:"id"`
	Began    time.Time  `json:"began"`
	Ended    *time.Time `json:"ended,omitempty" doc:"absent: it goes on"`
	Readings int        `json:"readings" doc:"that there are to be"`
	Done     int        `json:"done"`
	LeavesMM []wire.MM  `json:"leaves_mm"`
	Came     *FeelCame  `json:"came,omitempty" doc:"absent until it has ended"`
}

// FeelCame is what a study came to. It is of simulated leaves: no job takes a figure of it.
type FeelCame struct {
	BiasMM   wire.MM       `json:"bias_mm" doc:"readings less true gaps, in the mean"`
	RepeatMM float64       `json:"repeat_mm" doc:"standard deviation of the readings of one gap, by the range method"`
	Gaps     []StudiedView `json:"gaps,omitempty" doc:"absent in a list"`
}

// StudiedView is one gap, and what was read of it.
type StudiedView struct {
	TrueMM wire.MM   `json:"true_mm"`
	ReadMM []wire.MM `json:"read_mm"`
}

func studyView(k store.Study, s *practice.Study) StudyView {
	v := StudyView{
		ID:       k.ID,
		Began:    k.Began,
		Ended:    given(k.Ended),
		Readings: practice.StudyGaps * practice.StudyTimes,
		Done:     len(k.Read),
		LeavesMM: []wire.MM{},
	}
	for _, l := range exercise.UsualLeaves() {
		v.LeavesMM = append(v.LeavesMM, wire.MM(l.True()))
	}
	if k.Ended.IsZero() {
		return v
	}
	v.Came = &FeelCame{BiasMM: wire.MM(k.Bias), RepeatMM: math.Round(k.Repeat) / float64(measure.Millimetre)}
	if s == nil {
		return v
	}
	if f, ok := s.Feel(); ok {
		for _, g := range f.Gaps {
			one := StudiedView{TrueMM: wire.MM(g.True)}
			for _, r := range g.Read {
				one.ReadMM = append(one.ReadMM, wire.MM(r))
			}
			v.Came.Gaps = append(v.Came.Gaps, one)
		}
	}
	return v
}

// StudyID names a study.
type StudyID struct {
	ID string `path:"id" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
}

// studyOf is one's own study, played as far as it came. s.practising is held.
func (s *server) studyOf(ctx context.Context, id string) (store.Study, *practice.Study, error) {
	kept, err := s.store.With(ctx).Study(id)
	if err == nil && kept.Person != visitorOf(ctx).id() {
		err = store.ErrNotFound
	}
	if err != nil {
		return kept, nil, fault(err)
	}
	seed, err := strconv.ParseUint(kept.Seed, 16, 64)
	if err != nil {
		return kept, nil, fault(store.ErrDamaged)
	}
	played, err := practice.Again(seed, exercise.UsualLeaves(), kept.Read, kept.Slid)
	if err != nil {
		return kept, nil, fault(errors.Join(store.ErrDamaged, err))
	}
	return kept, played, nil
}

func (s *server) studies(ctx context.Context, _ *struct{}) (*bodyOf[[]StudyView], error) {
	kept, err := s.store.With(ctx).Studies(visitorOf(ctx).id())
	if err != nil {
		return nil, fault(err)
	}
	list := []StudyView{}
	for _, k := range kept {
		list = append(list, studyView(k, nil))
	}
	return &bodyOf[[]StudyView]{list}, nil
}

// startStudy begins one. Sent again under the same id it is the same study.
func (s *server) startStudy(ctx context.Context, in *bodyOf[struct {
	ID string `json:"id" minLength:"8" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
}]) (*bodyOf[StudyView], error) {
	s.practising.Lock()
	defer s.practising.Unlock()
	if _, err := s.store.With(ctx).Study(in.Body.ID); !errors.Is(err, store.ErrNotFound) {
		kept, played, err := s.studyOf(ctx, in.Body.ID)
		return &bodyOf[StudyView]{studyView(kept, played)}, err
	}
	kept := store.Study{
		ID:     in.Body.ID,
		Person: visitorOf(ctx).id(),
		Seed:   strconv.FormatUint(rand.Uint64(), 16),
		Began:  s.clock(),
	}
	if err := s.store.With(ctx).PutStudy(kept); err != nil {
		return nil, fault(err)
	}
	return &bodyOf[StudyView]{studyView(kept, nil)}, nil
}

func (s *server) study(ctx context.Context, in *StudyID) (*bodyOf[StudyView], error) {
	s.practising.Lock()
	defer s.practising.Unlock()
	kept, played, err := s.studyOf(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	return &bodyOf[StudyView]{studyView(kept, played)}, nil
}

// StudyLeaf is a leaf.
type StudyLeaf struct {
	LeafMM wire.MM `json:"leaf_mm"`
}

func badLeaf(leaf wire.MM, err error) error {
	return located(http.StatusUnprocessableEntity, wire.Sentence(err),
		wire.Fault{Location: "body.leaf_mm", Value: leaf, Message: wire.Sentence(err)})
}

// slideStudy slides a leaf in. That it was is kept, so that the next hand is another.
func (s *server) slideStudy(ctx context.Context, in *struct {
	StudyID
	Body StudyLeaf
}) (*bodyOf[FeltView], error) {
	s.practising.Lock()
	defer s.practising.Unlock()
	kept, played, err := s.studyOf(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	felt, err := played.Slide(measure.Length(in.Body.LeafMM))
	if err != nil {
		return nil, badLeaf(in.Body.LeafMM, err)
	}
	kept.Slid = played.Slid()
	if err := s.store.With(ctx).PutStudy(kept); err != nil {
		return nil, fault(err)
	}
	return &bodyOf[FeltView]{FeltView{Pull: felt.Pull}}, nil
}

// StudyReading is a reading, by its place: sent twice it counts once.
type StudyReading struct {
	N int `json:"n" minimum:"0" maximum:"100" doc:"how many readings were made before it"`
	StudyLeaf
}

func (s *server) readStudy(ctx context.Context, in *struct {
	StudyID
	Body StudyReading
}) (*bodyOf[StudyView], error) {
	s.practising.Lock()
	defer s.practising.Unlock()
	kept, played, err := s.studyOf(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	if in.Body.N < len(kept.Read) {
		return &bodyOf[StudyView]{studyView(kept, played)}, nil
	}
	if err := played.Read(measure.Length(in.Body.LeafMM)); err != nil {
		return nil, badLeaf(in.Body.LeafMM, err)
	}
	kept.Read = append(kept.Read, measure.Length(in.Body.LeafMM))
	if f, ok := played.Feel(); ok {
		kept.Ended, kept.Bias, kept.Repeat = s.clock(), f.Bias, f.Repeat
	}
	if err := s.store.With(ctx).PutStudy(kept); err != nil {
		return nil, fault(err)
	}
	return &bodyOf[StudyView]{studyView(kept, played)}, nil
}
