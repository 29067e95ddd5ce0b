package store

import (
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// happeningBody is what a happening carries besides its id, kind and time. What may be absent or zero is a pointer.
type happeningBody struct {
	Since         string     `json:"since,omitempty"`
	Valve         string     `json:"valve,omitempty"`
	LeavesNM      []int64    `json:"leaves_nm,omitempty"`
	Angled        []bool     `json:"angled,omitempty"` // of the leaves, in their order; absent: none is
	Feel          string     `json:"feel,omitempty"`
	Stop          *int       `json:"stop,omitempty"`
	School        string     `json:"school,omitempty"`
	Order         string     `json:"order,omitempty"`
	Direction     string     `json:"direction,omitempty"`
	Positions     string     `json:"positions,omitempty"`
	StopCount     int        `json:"stop_count,omitempty"`
	Seen          []seenBody `json:"seen,omitempty"`
	EngineC       *float64   `json:"engine_c,omitempty"`
	AmbientC      *float64   `json:"ambient_c,omitempty"`
	GapNM         *int64     `json:"gap_nm,omitempty"`
	UncertaintyNM int64      `json:"uncertainty_nm,omitempty"`
	Index         *int       `json:"index,omitempty"`
	From          string     `json:"from,omitempty"`
	ShimNM        int64      `json:"shim_nm,omitempty"`
	CamsOut       bool       `json:"cams_out,omitempty"`
	MadeThere     bool       `json:"made_there,omitempty"`
	Reason        string     `json:"reason,omitempty"`
	Target        string     `json:"target,omitempty"`
	By            string     `json:"by,omitempty"`
	ToolsOut      bool       `json:"tools_out,omitempty"`
}

// seenBody is a sighting.
type seenBody struct {
	What     string  `json:"what"`
	Cylinder int     `json:"cylinder,omitempty"`
	Valve    string  `json:"valve,omitempty"`
	Mark     float64 `json:"mark_deg,omitempty"`
}

func bodyOf(h job.Happening) ([]byte, error) {
	body := happeningBody{Since: h.Since, Valve: h.Valve, Feel: string(h.Feel), Stop: h.Stop, School: string(h.School), Order: string(h.Order),
		Direction: string(h.Direction), Positions: string(h.Positions), StopCount: h.StopCount, EngineC: h.EngineC, AmbientC: h.AmbientC,
		GapNM: (*int64)(h.Gap), UncertaintyNM: int64(h.Uncertainty), Index: h.Index, From: h.From, ShimNM: int64(h.Shim), CamsOut: h.CamsOut,
		MadeThere: h.MadeThere, Reason: h.Reason, Target: h.Target, By: h.By, ToolsOut: h.ToolsOut}
	for i, l := range h.Leaves {
		body.LeavesNM = append(body.LeavesNM, int64(l.Marked))
		if l.Angled && body.Angled == nil {
			body.Angled = make([]bool, len(h.Leaves))
		}
		if l.Angled {
			body.Angled[i] = true
		}
	}
	for _, w := range h.Seen {
		body.Seen = append(body.Seen, seenBody{string(w.What), w.Cylinder, w.Valve, w.Mark.Degrees()})
	}
	return json.Marshal(body)
}

// toHappening reads a stored happening. The first version left zeros out where they were meant.
func (r happeningRow) toHappening() (job.Happening, error) {
	var b happeningBody
	if err := json.Unmarshal([]byte(r.Body), &b); err != nil {
		return job.Happening{}, fmt.Errorf("%w: entry %d of job %s does not read: %w", ErrDamaged, r.Place+1, r.JobID, err)
	}
	h := job.Happening{ID: r.ClientID, Kind: job.Kind(r.Kind), Rules: r.Rules, At: r.At, DoneAt: r.DoneAt, Since: b.Since, Valve: b.Valve, Feel: clearance.Feel(b.Feel),
		Stop: b.Stop, Way: sequence.Way{School: sequence.School(b.School), Order: sequence.Order(b.Order),
			Direction: sequence.Direction(b.Direction), Positions: sequence.Positions(b.Positions), StopCount: b.StopCount},
		EngineC: b.EngineC, AmbientC: b.AmbientC, Gap: (*measure.Length)(b.GapNM), Uncertainty: measure.Length(b.UncertaintyNM), Index: b.Index,
		From: b.From, Shim: measure.Length(b.ShimNM), CamsOut: b.CamsOut, MadeThere: b.MadeThere, Reason: b.Reason, Target: b.Target, By: b.By, ToolsOut: b.ToolsOut}
	for _, w := range b.Seen {
		h.Seen = append(h.Seen, sequence.Sighting{What: sequence.What(w.What), Cylinder: w.Cylinder, Valve: w.Valve, Mark: measure.FromDegrees(w.Mark)})
	}
	for i, l := range b.LeavesNM {
		h.Leaves = append(h.Leaves, gauge.ID{Marked: measure.Length(l), Angled: i < len(b.Angled) && b.Angled[i]})
	}
	if r.Rules == 1 {
		zerosOfTheFirst(&h)
	}
	return h, nil
}

// zerosOfTheFirst puts back what the first version left out because it was zero.
func zerosOfTheFirst(h *job.Happening) {
	set := func(p **float64) {
		if *p == nil {
			*p = new(float64)
		}
	}
	switch h.Kind {
	case job.Thermal, job.Prepared:
		set(&h.EngineC)
		set(&h.AmbientC)
	case job.Turned:
		if h.Stop == nil {
			h.Stop = new(int)
		}
	case job.Withdrawn:
		if h.Index == nil {
			h.Index = new(int)
		}
	case job.DialRead:
		if h.Gap == nil {
			h.Gap = new(measure.Length)
		}
	}
}

// Derived is what is kept of a job beside its list, written with each happening so that board and learning need read no list. It follows from
// the list, and is made anew where it is not there.
type Derived struct {
	TouchedAt time.Time
	Open      bool   // not signed for good
	Short     []byte // JSON, as the board sends it
	Mechanic  string // lower case
	Adjuster  string // empty: nothing is learned of it
	Pairs     []job.LockPair
	Used      []job.ShopShim
}

// List is a job's happenings as they are stored, and where the chain of checksums ends.
type List struct {
	Happenings []job.Happening
	last       string
}

// Append stores one happening at the end of its job's list, with what follows from it. When it returns nil the happening is on disk, in the
// file that is at its place. ErrPlaceTaken: another one was stored there meanwhile; ErrExists: its id is taken; ErrMissing: there is no such
// job; ErrGone: the file was removed or replaced, and the happening is not stored.
func (s *Store) Append(jobID string, l *List, h job.Happening, d Derived) error {
	data, err := bodyOf(h)
	if err != nil {
		return err
	}
	row := happeningRow{JobID: jobID, Place: len(l.Happenings), ClientID: h.ID, Kind: string(h.Kind), Body: string(data), At: h.At.UTC(), DoneAt: h.DoneAt.UTC(), Rules: job.Rules}
	if h.DoneAt.IsZero() {
		row.DoneAt = time.Time{}
	}
	row.Sum = row.sumAfter(l.last)
	err = s.write.Transaction(func(tx *gorm.DB) error {
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		return derive(tx, jobID, d)
	})
	if err := s.stored(jobID, h.ID, err); err != nil {
		return err
	}
	h.Rules = job.Rules
	l.Happenings, l.last = append(l.Happenings, h), row.Sum
	return nil
}

// stored says whether a happening was stored, and if not why.
func (s *Store) stored(jobID, id string, err error) error {
	if err == nil {
		return s.file.still()
	}
	err = translate(err)
	if !errors.Is(err, ErrExists) {
		return err
	}
	var n int64
	if err := s.read.Model(&happeningRow{}).Where("job_id = ? AND client_id = ?", jobID, id).Count(&n).Error; err != nil {
		return translate(err)
	}
	if n == 0 {
		return ErrPlaceTaken
	}
	return ErrExists
}

// derivedAnew writes what is derived over what was; whether a job is on the board is not derived.
var derivedAnew = clause.OnConflict{Columns: []clause.Column{{Name: "job_id"}}, DoUpdates: clause.AssignmentColumns([]string{"touched_at", "open", "short", "damaged"})}

// derive writes the rows that follow from a job's list.
func derive(tx *gorm.DB, jobID string, d Derived) error {
	row := stateRow{JobID: jobID, TouchedAt: d.TouchedAt, Open: d.Open, Short: string(d.Short)}
	if err := tx.Clauses(derivedAnew).Create(&row).Error; err != nil {
		return err
	}
	if err := rewrite(tx, jobID, len(d.Pairs), func(n int) pairRow {
		p := d.Pairs[n]
		return pairRow{jobID, n, d.Mechanic, d.Adjuster, int64(p.Before), int64(p.After)}
	}); err != nil {
		return err
	}
	return rewrite(tx, jobID, len(d.Used), func(n int) usedRow {
		return usedRow{jobID, n, int64(d.Used[n].Shim), d.Used[n].At}
	})
}

// rewrite puts a job's n rows of a kind in place of those there are, where their number changed: they only ever grow and, on undo, shrink at
// the end.
func rewrite[Row any](tx *gorm.DB, jobID string, n int, row func(n int) Row) error {
	var have int64
	if err := tx.Model(new(Row)).Where("job_id = ?", jobID).Count(&have).Error; err != nil || int(have) == n {
		return err
	}
	if int(have) > n {
		return tx.Where("job_id = ? AND n >= ?", jobID, n).Delete(new(Row)).Error
	}
	var rows []Row
	for i := int(have); i < n; i++ {
		rows = append(rows, row(i))
	}
	return tx.Create(&rows).Error
}

// PutDerived stores what follows from a job's list, where it was missing.
func (s *Store) PutDerived(jobID string, d Derived) error {
	return translate(s.write.Transaction(func(tx *gorm.DB) error { return derive(tx, jobID, d) }))
}

// Underived lists the jobs of which nothing derived is stored.
func (s *Store) Underived() (ids []string, err error) {
	err = s.read.Raw("SELECT id FROM jobs WHERE id NOT IN (SELECT job_id FROM job_states) ORDER BY id").Scan(&ids).Error
	return ids, translate(err)
}

// PutDamaged notes that a job cannot be opened, and why.
func (s *Store) PutDamaged(jobID, why string, now time.Time) error {
	row := stateRow{JobID: jobID, TouchedAt: now, Open: true}
	var had []stateRow
	if err := s.read.Where("job_id = ?", jobID).Find(&had).Error; err == nil && len(had) > 0 {
		row = had[0] // its time and words stay
	}
	row.Damaged = why
	return translate(s.write.Clauses(derivedAnew).Create(&row).Error)
}

// Happenings reads a job's whole list in order and follows its checksums: ErrDamaged where an entry is missing or not as it was stored.
func (s *Store) Happenings(jobID string) (*List, error) {
	var of jobRow
	if err := s.read.Where("id = ?", jobID).Take(&of).Error; err != nil {
		return nil, translate(err)
	}
	var rows []happeningRow
	if err := s.read.Where("job_id = ?", jobID).Order("place").Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	last, err := verify(of, rows)
	if err != nil {
		return nil, err
	}
	l := &List{Happenings: make([]job.Happening, len(rows)), last: last}
	for i, row := range rows {
		if l.Happenings[i], err = row.toHappening(); err != nil {
			return nil, err
		}
	}
	return l, nil
}
