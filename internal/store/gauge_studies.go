package store

import (
	"encoding/json"
	"errors"
	"strconv"
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
	Body    string `gorm:"not null"` // a gaugeStudyBody, JSON
}

// gaugeStudyBody is what is stored of a study, lengths in nanometres.
type gaugeStudyBody struct {
	MeasuredBy string           `json:"measured_by"`
	With       string           `json:"with"`
	LeavesAre  string           `json:"leaves_are"`
	Readers    []string         `json:"readers"`
	Sets       []studiedSetBody `json:"sets"`
	Gaps       [][2]int64       `json:"gaps"` // true, and its standard uncertainty
	Times      int              `json:"times"`
	Seed       string           `json:"seed"` // hexadecimal
	Read       []int64          `json:"read"`
}

// studiedSetBody is one of its leaf sets, its leaves as a job's are stored.
type studiedSetBody struct {
	Name   string `json:"name"`
	Leaves string `json:"leaves"`
}

func (gaugeStudyRow) TableName() string { return "gauge_studies" }

// study reads it; ErrDamaged where it does not read.
func (r gaugeStudyRow) study() (s GaugeStudy, err error) {
	var body gaugeStudyBody
	if err := json.Unmarshal([]byte(r.Body), &body); err != nil {
		return s, errors.Join(ErrDamaged, err)
	}
	s = GaugeStudy{ID: r.ID, Made: r.MadeAt, MeasuredBy: body.MeasuredBy, With: body.With, LeavesAre: body.LeavesAre, Readers: body.Readers}
	if r.EndedAt != nil {
		s.Ended = *r.EndedAt
	}
	for _, set := range body.Sets {
		leaves, err := readLeaves(set.Leaves)
		if err != nil {
			return s, err
		}
		s.Sets = append(s.Sets, StudiedSet{set.Name, leaves})
	}
	s.Study = practice.BenchStudy{Readers: len(s.Readers), Sets: len(s.Sets), Times: body.Times}
	if s.Study.Seed, err = strconv.ParseUint(body.Seed, 16, 64); err != nil {
		return s, errors.Join(ErrDamaged, err)
	}
	for _, g := range body.Gaps {
		s.Study.Gaps = append(s.Study.Gaps, practice.MeasuredGap{True: measure.Length(g[0]), Doubt: measure.Length(g[1])})
	}
	for _, l := range body.Read {
		s.Study.Read = append(s.Study.Read, measure.Length(l))
	}
	return s, nil
}

// body is a study as it is stored.
func (s GaugeStudy) body() (string, error) {
	body := gaugeStudyBody{MeasuredBy: s.MeasuredBy, With: s.With, LeavesAre: s.LeavesAre, Readers: s.Readers, Times: s.Study.Times,
		Seed: strconv.FormatUint(s.Study.Seed, 16)}
	for _, set := range s.Sets {
		leaves, err := writeLeaves(set.Leaves)
		if err != nil {
			return "", err
		}
		body.Sets = append(body.Sets, studiedSetBody{set.Name, leaves})
	}
	for _, g := range s.Study.Gaps {
		body.Gaps = append(body.Gaps, [2]int64{int64(g.True), int64(g.Doubt)})
	}
	for _, l := range s.Study.Read {
		body.Read = append(body.Read, int64(l))
	}
	text, err := json.Marshal(body)
	return string(text), err
}

// PutGaugeStudy keeps a study as it stands.
func (s *Store) PutGaugeStudy(of GaugeStudy) error {
	body, err := of.body()
	if err != nil {
		return err
	}
	row := gaugeStudyRow{ID: of.ID, MadeAt: of.Made.UTC(), Body: body}
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

// measuredFeelBody is it as it is stored, its length in nanometres.
type measuredFeelBody struct {
	Feel      int64     `json:"feel"`
	Study     string    `json:"study"`
	On        time.Time `json:"on"`
	LeavesAre string    `json:"leaves_are"`
	AgreedBy  string    `json:"agreed_by"`
	AgreedAt  time.Time `json:"agreed_at"`
}

// feelOf names it.
func feelOf(mechanic string) string { return ownFeel + strings.ToLower(strings.TrimSpace(mechanic)) }

// MeasuredFeel is a mechanic's, by his name; the zero value where none was agreed.
func (s *Store) MeasuredFeel(mechanic string) (MeasuredFeel, error) {
	var b measuredFeelBody
	err := s.ownJSON(feelOf(mechanic), &b)
	return MeasuredFeel{measure.Length(b.Feel), b.Study, b.On, b.LeavesAre, b.AgreedBy, b.AgreedAt}, err
}

// PutMeasuredFeel keeps it; the zero value takes it back.
func (s *Store) PutMeasuredFeel(mechanic string, f MeasuredFeel) error {
	return s.putOwnJSON(feelOf(mechanic), measuredFeelBody{int64(f.Feel), f.Study, f.On, f.LeavesAre, f.AgreedBy, f.AgreedAt})
}
