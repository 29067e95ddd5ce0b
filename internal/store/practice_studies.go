package store

import (
	"encoding/json"
	"time"

	"gorm.io/gorm/clause"

	"metronix/core/measure"
)

// Study is a gauge study of somebody's feel on the practice engine: its gaps follow from its seed.
type Study struct {
	ID     string
	Person string
	Seed   string           // hexadecimal
	Read   []measure.Length // so far
	Slid   uint64           // how often a leaf was slid in
	Began  time.Time
	Ended  time.Time // zero: it goes on
	Bias   measure.Length
	Repeat float64 // standard deviation, nm
}

type practiceStudyRow struct {
	ID       string    `gorm:"primaryKey"`
	Person   string    `gorm:"not null"`
	Seed     string    `gorm:"not null"`
	ReadMM   string    `gorm:"not null"` // nanometres, JSON
	Slid     int64     `gorm:"not null"`
	BeganAt  time.Time `gorm:"not null"`
	EndedAt  *time.Time
	BiasNM   int64   `gorm:"not null"`
	RepeatNM float64 `gorm:"not null"`
}

func (practiceStudyRow) TableName() string { return "practice_studies" }

func (r practiceStudyRow) study() (Study, error) {
	s := Study{
		ID:     r.ID,
		Person: r.Person,
		Seed:   r.Seed,
		Slid:   uint64(r.Slid),
		Began:  r.BeganAt,
		Bias:   measure.Length(r.BiasNM),
		Repeat: r.RepeatNM,
	}
	if r.EndedAt != nil {
		s.Ended = *r.EndedAt
	}
	return s, json.Unmarshal([]byte(r.ReadMM), &s.Read)
}

// PutStudy keeps a study as it stands.
func (s *Store) PutStudy(of Study) error {
	if of.Read == nil {
		of.Read = []measure.Length{}
	}
	read, err := json.Marshal(of.Read)
	if err != nil {
		return err
	}
	row := practiceStudyRow{
		ID:       of.ID,
		Person:   of.Person,
		Seed:     of.Seed,
		ReadMM:   string(read),
		Slid:     int64(of.Slid),
		BeganAt:  of.Began.UTC(),
		BiasNM:   int64(of.Bias),
		RepeatNM: of.Repeat,
	}
	if !of.Ended.IsZero() {
		at := of.Ended.UTC()
		row.EndedAt = &at
	}
	return s.acknowledge(translate(s.write.Clauses(clause.OnConflict{UpdateAll: true}).Create(&row).Error))
}

// Study is one of them.
func (s *Store) Study(id string) (Study, error) {
	var r practiceStudyRow
	if err := s.read.Where("id = ?", id).Take(&r).Error; err != nil {
		return Study{}, translate(err)
	}
	return r.study()
}

// Studies are somebody's, the newest first.
func (s *Store) Studies(person string) ([]Study, error) {
	const most = 100
	var rows []practiceStudyRow
	if err := s.read.Where("person = ?", person).Order("began_at DESC, id").Limit(most).Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	list := make([]Study, len(rows))
	for i, r := range rows {
		var err error
		if list[i], err = r.study(); err != nil {
			return nil, err
		}
	}
	return list, nil
}
