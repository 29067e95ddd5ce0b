package api

import (
	"context"
	"encoding/json"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"metronix/internal/exercise"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// exerciseRoutes are the exercises: those that come with the program, and a tutor's own. What a file hides is
// in it, so that whoever is to do it is told its name and no more.
func (s *server) exerciseRoutes(a huma.API) {
	huma.Get(a, "/api/v1/exercises", s.exercises,
		summary("list-exercises", "Exercises on the practice engine, without what they hide"))
	huma.Post(a, "/api/v1/exercises", s.addExercise,
		summary("add-exercise", "Keep an exercise, metronix.exercise/1"), strictly[exercise.File](a))
	huma.Post(
		a,
		"/api/v1/exercises/from-job",
		s.exerciseFromJob,
		summary(
			"exercise-from-job",
			"Make an exercise of a signed job: its engine, with the gaps as they were found",
		),
	)
	huma.Get(a, "/api/v1/exercises/{id}", s.exerciseFile,
		summary("get-exercise", "An exercise as a file, with what it hides"))
	huma.Delete(a, "/api/v1/exercises/{id}", s.removeExercise,
		summary("remove-exercise", "Take an exercise off the list; runs on it stay"))
	huma.Get(a, "/api/v1/schemas/exercise", exerciseSchema,
		summary("exercise-schema", "The JSON Schema of an exercise"))
}

// ExerciseShort is an exercise in a list.
type ExerciseShort struct {
	ID      string `json:"id"`
	Name    string `json:"name"`
	Says    string `json:"says"`
	Engine  string `json:"engine"`
	Valves  int    `json:"valves"`
	State   string `json:"state" enum:"cold,hot"`
	Aid     string `json:"aid" enum:"guided,watched,examination"`
	Minutes int    `json:"minutes" doc:"0: as long as it takes"`
	Ours    bool   `json:"ours" doc:"it comes with the program"`
	By      string `json:"by" doc:"who added it"`
}

// exerciseShort is what anybody is told of an exercise.
func exerciseShort(id string, x exercise.Exercise, by string) (ExerciseShort, error) {
	sheet, faults := wire.ReadStoredSheet(x.Sheet)
	if len(faults) > 0 {
		return ExerciseShort{}, fault(store.ErrDamaged)
	}
	return ExerciseShort{ID: id, Name: x.Name, Says: x.Says, Engine: sheet.Name, Valves: len(sheet.Valves()),
		State: string(sheet.Clearances[x.Card].State), Aid: x.Aid, Minutes: x.Minutes, By: by}, nil
}

// exercises lists them: those of the program first, in the order in which they are learned by.
func (s *server) exercises(ctx context.Context, _ *struct{}) (*bodyOf[[]ExerciseShort], error) {
	list := []ExerciseShort{}
	ids, ours, err := exercise.Ours()
	if err != nil {
		return nil, fault(err)
	}
	for _, id := range ids {
		short, err := exerciseShort(id, ours[id], "")
		if err != nil {
			return nil, err
		}
		short.Ours = true
		list = append(list, short)
	}
	kept, err := s.store.With(ctx).Exercises()
	if err != nil {
		return nil, fault(err)
	}
	for _, k := range kept {
		var x exercise.Exercise
		if err := json.Unmarshal([]byte(k.Body), &x); err != nil {
			return nil, fault(err)
		}
		short, err := exerciseShort(k.ID, x, k.By)
		if err != nil {
			return nil, err
		}
		list = append(list, short)
	}
	return &bodyOf[[]ExerciseShort]{list}, nil
}

// exercise is one of them.
func (s *server) exercise(ctx context.Context, id string) (x exercise.Exercise, err error) {
	_, ours, err := exercise.Ours()
	if err != nil {
		return x, fault(err)
	}
	if x, is := ours[id]; is {
		return x, nil
	}
	kept, err := s.store.With(ctx).Exercise(id)
	if err != nil {
		return x, fault(err)
	}
	if err := json.Unmarshal([]byte(kept.Body), &x); err != nil {
		return x, fault(err)
	}
	return x, nil
}

// keepExercise keeps one and gives it as it stands in the list.
func (s *server) keepExercise(
	ctx context.Context,
	id string,
	x exercise.Exercise,
) (*bodyOf[ExerciseShort], error) {
	text, err := json.Marshal(x)
	if err != nil {
		return nil, fault(err)
	}
	by := visitorOf(ctx).name()
	if err := s.store.With(ctx).AddExercise(store.Exercise{ID: id, Body: string(text), By: by, Added: s.clock()}); err != nil {
		return nil, fault(err)
	}
	short, err := exerciseShort(id, x, by)
	return &bodyOf[ExerciseShort]{short}, err
}

// addExercise keeps a file; the same file once more is the same exercise.
func (s *server) addExercise(ctx context.Context, in *rawInput) (*bodyOf[ExerciseShort], error) {
	x, faults := exercise.Read(in.RawBody)
	if err := unreadable(faults); err != nil {
		return nil, err
	}
	return s.keepExercise(ctx, exercise.IDOf(x), x)
}

// FromJob says of which job an exercise is made, and how it is done.
type FromJob struct {
	JobID   string `json:"job_id" maxLength:"64"`
	Name    string `json:"name" minLength:"1" maxLength:"80"`
	Says    string `json:"says,omitempty" maxLength:"400"`
	Aid     string `json:"aid" enum:"guided,watched,examination"`
	Minutes int    `json:"minutes,omitempty" minimum:"1" maximum:"480"`
}

// exerciseFromJob makes one of what a signed job found. A valve of which no figure was kept follows from the
// seed.
func (s *server) exerciseFromJob(ctx context.Context, in *bodyOf[FromJob]) (*bodyOf[ExerciseShort], error) {
	var x exercise.Exercise
	err := s.desk.with(ctx, in.Body.JobID, func(o *openJob) error {
		if o.state.SignedBy == "" {
			return located(
				http.StatusConflict,
				"Only a signed job is made an exercise of: its figures are final.",
				wire.Fault{Location: "body.job_id", Message: "This job is not signed yet."},
			)
		}
		sheet, err := wire.WriteSheet(o.state.Sheet)
		if err != nil {
			return err
		}
		x = exercise.Exercise{
			Sheet: sheet,
			Told: exercise.Told{Format: exercise.Format, Name: in.Body.Name, Says: in.Body.Says,
				Aid: in.Body.Aid, Minutes: in.Body.Minutes, Card: o.record.Card},
		}
		for _, v := range o.state.Valves {
			if v.AsFound != nil && v.AsFound.Judgement.Estimate != nil {
				x.Gaps = append(
					x.Gaps,
					exercise.Gap{Valve: v.Name, GapMM: wire.MM(*v.AsFound.Judgement.Estimate)},
				)
			}
		}
		return nil
	})
	if err != nil {
		return nil, fault(err)
	}
	if len(x.Gaps) == 0 {
		return nil, located(
			http.StatusConflict,
			"No gap was found as a figure in this job: there is nothing to practise.",
			wire.Fault{Location: "body.job_id", Message: "Sides alone were felt."},
		)
	}
	seed := int(x.SeedOf() % 1_000_000_000)
	x.Seed = &seed
	text, err := json.Marshal(x)
	if err != nil {
		return nil, fault(err)
	}
	read, faults := exercise.Read(text)
	if err := unreadable(faults); err != nil {
		return nil, err
	}
	return s.keepExercise(ctx, exercise.IDOf(read), read)
}

// ExerciseID names one.
type ExerciseID struct {
	ID string `path:"id" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
}

// exerciseFile gives an exercise with what it hides.
func (s *server) exerciseFile(ctx context.Context, in *ExerciseID) (*bodyOf[json.RawMessage], error) {
	x, err := s.exercise(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	text, err := json.MarshalIndent(x, "", "  ")
	if err != nil {
		return nil, fault(err)
	}
	return &bodyOf[json.RawMessage]{text}, nil
}

func (s *server) removeExercise(ctx context.Context, in *ExerciseID) (*struct{}, error) {
	if err := s.store.With(ctx).RemoveExercise(in.ID, s.clock()); err != nil {
		return nil, fault(err)
	}
	return nil, nil
}

// exerciseSchema is the published schema of the format.
func exerciseSchema(context.Context, *struct{}) (*bodyOf[json.RawMessage], error) {
	return &bodyOf[json.RawMessage]{exercise.Schema()}, nil
}
