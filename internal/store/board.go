package store

import (
	"fmt"
	"time"

	"gorm.io/gorm"

	"metronix/core/job"
	"metronix/core/record"
	"metronix/core/sequence"
)

// rowOfGlance is what the board shows of a job, as it is stored.
func rowOfGlance(jobID string, d Derived) stateRow {
	g := d.Glance
	return stateRow{
		JobID:      jobID,
		TouchedAt:  d.TouchedAt,
		Open:       d.Open,
		DerivedBy:  derivedBy,
		Vehicle:    d.Vehicle,
		Plate:      d.Plate,
		Engine:     d.Engine,
		Phase:      string(g.Phase),
		Next:       codesOfBrief(g.Next),
		Quiet:      codesOfBrief(g.Quiet),
		CrankKnown: g.CrankKnown,
		Done:       g.Done,
		Total:      g.Total,
		Stops:      g.Stops,
		School:     string(g.School),
		Direction: string(
			g.Direction,
		),
		WaitsFor:   string(g.Waits.Waits),
		WaitsUntil: g.Waits.Until,
		Hand:       g.Hand,
		SignedBy:   g.SignedBy,
		ReadyAt:    orNil(g.ReadyAt),
		CoverBy:    orNil(g.CoverBy),
		StartFrom:  orNil(g.StartFrom),
		Valves:     codesOfDots(g.Valves),
	}
}

// glance reads what the board shows of a job; it errs with ErrDamaged where that does not read.
func (r stateRow) glance() (g record.Glance, err error) {
	g = record.Glance{
		Phase:      job.Phase(r.Phase),
		CrankKnown: r.CrankKnown,
		Done:       r.Done,
		Total:      r.Total,
		Stops:      r.Stops,
		School:     sequence.School(r.School),
		Direction:  sequence.Direction(r.Direction),
		Waits: job.Deferral{
			Waits: job.WaitsFor(r.WaitsFor),
			Until: r.WaitsUntil,
		},
		Hand:     r.Hand,
		SignedBy: r.SignedBy,
		ReadyAt: orZero(
			r.ReadyAt,
		),
		CoverBy:   orZero(r.CoverBy),
		StartFrom: orZero(r.StartFrom),
		Valves:    dotsOf(r.Valves),
	}
	for _, b := range []struct {
		to   *job.Brief
		text string
	}{{&g.Next, r.Next}, {&g.Quiet, r.Quiet}} {
		if *b.to, err = briefOf(b.text); err != nil {
			return g, fmt.Errorf("%w: what is next in job %s does not read: %w", ErrDamaged, r.JobID, err)
		}
	}
	return g, nil
}

// orNil stores the zero time as NULL, which sorts and compares as nothing.
func orNil(t time.Time) *time.Time {
	if t.IsZero() {
		return nil
	}
	return &t
}

// orZero is the way back.
func orZero(t *time.Time) time.Time {
	if t == nil {
		return time.Time{}
	}
	return t.UTC()
}

// BoardQuery narrows what the board shows.
type BoardQuery struct {
	OffBoard      bool // those taken off it instead
	Open          *bool
	IDs           []string // nil: all
	Limit, Offset int
}

// OnBoard is a job on the board: what was derived of it last. Damaged is why it cannot be opened, or what the
// board knew of it be read.
type OnBoard struct {
	ID        string
	CreatedAt time.Time
	Mechanic  string // who began it
	Reason    string
	Derived   Derived // without visit, pairs and used
	Damaged   string
}

// boardRow is a row of the board with what it takes from the job's own.
type boardRow struct {
	State     stateRow `gorm:"embedded"`
	CreatedAt time.Time
	Mechanic  string
	Reason    string
}

// Board lists jobs as the board shows them, the last touched first, and says how many there are in all. It
// reads no list of happenings.
func (s *Store) Board(q BoardQuery) (list []OnBoard, total int64, err error) {
	db := s.read.Table("job_states").Where("job_states.off_board = ?", q.OffBoard)
	if q.Open != nil {
		db = db.Where("open = ?", *q.Open)
	}
	if q.IDs != nil {
		db = db.Where("job_id IN ?", q.IDs)
	}
	if err := db.Session(&gorm.Session{}).Count(&total).Error; err != nil {
		return nil, 0, translate(err)
	}
	var rows []boardRow
	err = db.Session(&gorm.Session{}).Select("job_states.*, jobs.created_at, jobs.mechanic, jobs.reason").
		Joins("JOIN jobs ON jobs.id = job_id").
		Order("touched_at DESC, job_id").Limit(q.Limit).Offset(q.Offset).
		Scan(&rows).Error
	for _, row := range rows {
		r := row.State
		on := OnBoard{
			ID:        r.JobID,
			CreatedAt: row.CreatedAt,
			Mechanic:  row.Mechanic,
			Reason:    row.Reason,
			Damaged:   r.Damaged,
			Derived: Derived{
				TouchedAt: r.TouchedAt,
				Open:      r.Open,
				Vehicle:   r.Vehicle,
				Plate:     r.Plate,
				Engine:    r.Engine,
			},
		}
		var unread error
		if on.Derived.Glance, unread = r.glance(); unread != nil && on.Damaged == "" {
			on.Damaged = unread.Error()
		}
		list = append(list, on)
	}
	return list, total, translate(err)
}
