package store

import (
	"encoding/json"
	"strings"
	"time"

	"gorm.io/gorm/clause"

	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/core/practice"
)

// GaugeStudy is a study with real leaves at real gaps.
type GaugeStudy struct {
	ID         string
	Made       time.Time
	Ended      time.Time // zero: it goes on
	MeasuredBy string
	With       string // micrometer or dial
	LeavesAre  string // dry or oiled
	Readers    []string
	Sets       []StudiedSet
	Study      practice.BenchStudy
}

// StudiedSet is a leaf set as it was when the study began.
type StudiedSet struct {
	Name   string
	Leaves gauge.Set
}

type gaugeStudyRow struct {
	ID      string    `gorm:"primaryKey"`
	MadeAt  time.Time `gorm:"not null"`
	EndedAt *time.Time
	Body    string `gorm:"not null"` // a GaugeStudy, JSON
}

func (gaugeStudyRow) TableName() string { return "gauge_studies" }

func (r gaugeStudyRow) study() (s GaugeStudy, err error) {
	err = json.Unmarshal([]byte(r.Body), &s)
	return s, err
}

// PutGaugeStudy keeps a study as it stands.
func (s *Store) PutGaugeStudy(of GaugeStudy) error {
	body, err := json.Marshal(of)
	if err != nil {
		return err
	}
	row := gaugeStudyRow{ID: of.ID, MadeAt: of.Made.UTC(), Body: string(body)}
	if !of.Ended.IsZero() {
		row.EndedAt = new(of.Ended.UTC())
	}
	return s.acknowledge(translate(s.write.Clauses(clause.OnConflict{UpdateAll: true}).Create(&row).Error))
}

// GaugeStudy is one of them.
func (s *Store) GaugeStudy(id string) (GaugeStudy, error) {
	var r gaugeStudyRow
	if err := s.read.Where("id = ?", id).Take(&r).Error; err != nil {
		return GaugeStudy{}, translate(err)
	}
	return r.study()
}

// GaugeStudies are all of them, the newest first.
func (s *Store) GaugeStudies() ([]GaugeStudy, error) {
	const most = 100
	var rows []gaugeStudyRow
	if err := s.read.Order("made_at DESC, id").Limit(most).Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	list := make([]GaugeStudy, len(rows))
	for i, r := range rows {
		var err error
		if list[i], err = r.study(); err != nil {
			return nil, err
		}
	}
	return list, nil
}

// ownFeel and a mechanic's name in lower case name his measured feel.
const ownFeel = "feel:"

// MeasuredFeel is a figure of a study that somebody may go by in real jobs.
type MeasuredFeel struct {
	Feel      measure.Length
	Study     string
	On        time.Time // when the study ended
	LeavesAre string    // dry or oiled
	AgreedBy  string
	AgreedAt  time.Time
}

// MeasuredFeel is a mechanic's, by his name; the zero value where none was agreed.
func (s *Store) MeasuredFeel(mechanic string) (f MeasuredFeel, err error) {
	err = s.ownJSON(ownFeel+strings.ToLower(strings.TrimSpace(mechanic)), &f)
	return f, err
}

// PutMeasuredFeel keeps it; the zero value takes it back.
func (s *Store) PutMeasuredFeel(mechanic string, f MeasuredFeel) error {
	return s.putOwnJSON(ownFeel+strings.ToLower(strings.TrimSpace(mechanic)), f)
}
