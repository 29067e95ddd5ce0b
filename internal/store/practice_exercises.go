package store

import (
	"time"

	"gorm.io/gorm/clause"
)

// Exercise is one that a tutor keeps, as a file.
type Exercise struct {
	ID    string
	Body  string // JSON, with what is hidden
	By    string
	Added time.Time
}

// practiceExerciseRow is an exercise; one that was removed stays, for runs name it.
type practiceExerciseRow struct {
	ID        string    `gorm:"primaryKey"`
	Body      string    `gorm:"not null"`
	AddedBy   string    `gorm:"not null"`
	AddedAt   time.Time `gorm:"not null"`
	RemovedAt *time.Time
}

func (practiceExerciseRow) TableName() string { return "practice_exercises" }

// AddExercise keeps one; the same once more is kept once, and one that was removed is back.
func (s *Store) AddExercise(x Exercise) error {
	row := practiceExerciseRow{ID: x.ID, Body: x.Body, AddedBy: x.By, AddedAt: x.Added.UTC()}
	return s.acknowledge(translate(s.write.Clauses(clause.OnConflict{
		Columns:   []clause.Column{{Name: "id"}},
		DoUpdates: clause.Assignments(map[string]any{"removed_at": nil}),
	}).Create(&row).Error))
}

// Exercises are those that were not removed, the newest last.
func (s *Store) Exercises() ([]Exercise, error) {
	var rows []practiceExerciseRow
	if err := s.read.Where("removed_at IS NULL").Order("added_at, id").Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	list := make([]Exercise, len(rows))
	for i, r := range rows {
		list[i] = Exercise{r.ID, r.Body, r.AddedBy, r.AddedAt}
	}
	return list, nil
}

// Exercise is one of them. It errs with ErrNotFound for one that was removed too.
func (s *Store) Exercise(id string) (Exercise, error) {
	var r practiceExerciseRow
	err := s.read.Where("id = ? AND removed_at IS NULL", id).Take(&r).Error
	return Exercise{r.ID, r.Body, r.AddedBy, r.AddedAt}, translate(err)
}

// RemoveExercise takes one off the list. It errs with ErrNotFound where it is not on it.
func (s *Store) RemoveExercise(id string, now time.Time) error {
	done := s.write.Model(&practiceExerciseRow{}).
		Where("id = ? AND removed_at IS NULL", id).
		Update("removed_at", now.UTC())
	if done.Error == nil && done.RowsAffected == 0 {
		return ErrNotFound
	}
	return s.acknowledge(translate(done.Error))
}
