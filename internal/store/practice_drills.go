package store

import (
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"metronix/core/practice"
)

// Question is one question that somebody was asked in a drill, with its answer: it is the program's until it
// is answered.
type Question struct {
	ID       string
	Person   string
	Item     practice.Item
	Body     string // JSON
	Asked    time.Time
	Answered time.Time // zero: not yet
	Choice   int       // −1: none yet
	Right    bool
}

// Drilled is how somebody stands with one item.
type Drilled struct {
	Person string
	Item   practice.Item
	practice.Repetition
	Due          time.Time
	Asked, Right int
}

// Skill is one that was signed off.
type Skill struct {
	Person string
	Skill  string
	By     string
	At     time.Time
}

type practiceQuestionRow struct {
	ID         string    `gorm:"primaryKey"`
	Person     string    `gorm:"not null"`
	Item       string    `gorm:"not null"`
	Body       string    `gorm:"not null"`
	AskedAt    time.Time `gorm:"not null"`
	AnsweredAt *time.Time
	Choice     int  `gorm:"not null"`
	RightOne   bool `gorm:"not null"`
}

type practiceItemRow struct {
	Person     string    `gorm:"primaryKey"`
	Item       string    `gorm:"primaryKey"`
	Repetition int       `gorm:"not null"`
	Ease       float64   `gorm:"not null"`
	Days       int       `gorm:"not null"`
	DueAt      time.Time `gorm:"not null"`
	Asked      int       `gorm:"not null"`
	WasRight   int       `gorm:"not null"`
}

type practiceSkillRow struct {
	Person   string    `gorm:"primaryKey"`
	Skill    string    `gorm:"primaryKey"`
	SignedBy string    `gorm:"not null"`
	SignedAt time.Time `gorm:"not null"`
}

func (practiceQuestionRow) TableName() string { return "practice_questions" }
func (practiceItemRow) TableName() string     { return "practice_items" }
func (practiceSkillRow) TableName() string    { return "practice_skills" }

// AddQuestion keeps a question that is asked. It errs with ErrExists where there is one of that id.
func (s *Store) AddQuestion(q Question) error {
	return s.acknowledge(
		translate(
			s.write.Create(
				&practiceQuestionRow{ID: q.ID, Person: q.Person, Item: string(q.Item), Body: q.Body,
					AskedAt: q.Asked.UTC(), Choice: -1},
			).Error,
		),
	)
}

// Question is one of them.
func (s *Store) Question(id string) (Question, error) {
	var r practiceQuestionRow
	if err := s.read.Where("id = ?", id).Take(&r).Error; err != nil {
		return Question{}, translate(err)
	}
	q := Question{
		ID:     r.ID,
		Person: r.Person,
		Item:   practice.Item(r.Item),
		Body:   r.Body,
		Asked:  r.AskedAt,
		Choice: r.Choice,
		Right:  r.RightOne,
	}
	if r.AnsweredAt != nil {
		q.Answered = *r.AnsweredAt
	}
	return q, nil
}

// Answer keeps the answer of a question with how its person stands from here on, together. It errs with
// ErrExists where it was answered already.
func (s *Store) Answer(q Question, d Drilled) error {
	return s.acknowledge(translate(s.write.Transaction(func(tx *gorm.DB) error {
		done := tx.Model(&practiceQuestionRow{}).Where("id = ? AND answered_at IS NULL", q.ID).
			Updates(map[string]any{"answered_at": q.Answered.UTC(), "choice": q.Choice, "right_one": q.Right})
		if done.Error != nil {
			return done.Error
		}
		if done.RowsAffected == 0 {
			return ErrExists
		}
		return tx.Clauses(clause.OnConflict{UpdateAll: true}).
			Create(&practiceItemRow{d.Person, string(d.Item), d.N, d.Ease, d.Days,
				d.Due.UTC(), d.Asked, d.Right}).
			Error
	})))
}

// Drills are how somebody, or everybody, stands with each item that he was asked.
func (s *Store) Drills(person string, everybody bool) ([]Drilled, error) {
	q := s.read.Order("person, item")
	if !everybody {
		q = q.Where("person = ?", person)
	}
	var rows []practiceItemRow
	if err := q.Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	list := make([]Drilled, len(rows))
	for i, r := range rows {
		list[i] = Drilled{
			Person: r.Person,
			Item:   practice.Item(r.Item),
			Repetition: practice.Repetition{N: r.Repetition, Ease: r.Ease,
				Days: r.Days},
			Due:   r.DueAt,
			Asked: r.Asked,
			Right: r.WasRight,
		}
	}
	return list, nil
}

// Skills are those that were signed off of somebody, or of everybody.
func (s *Store) Skills(person string, everybody bool) ([]Skill, error) {
	q := s.read.Order("person, signed_at, skill")
	if !everybody {
		q = q.Where("person = ?", person)
	}
	var rows []practiceSkillRow
	if err := q.Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	list := make([]Skill, len(rows))
	for i, r := range rows {
		list[i] = Skill{r.Person, r.Skill, r.SignedBy, r.SignedAt}
	}
	return list, nil
}

// PutSkill signs a skill off, or takes that back where by is empty; the audit list says so with it.
func (s *Store) PutSkill(k Skill, note Noted) error {
	return s.noting(note, func(tx *gorm.DB) error {
		err := tx.Where("person = ? AND skill = ?", k.Person, k.Skill).Delete(&practiceSkillRow{}).Error
		if err != nil || k.By == "" {
			return err
		}
		return tx.Create(&practiceSkillRow{k.Person, k.Skill, k.By, k.At.UTC()}).Error
	})
}
