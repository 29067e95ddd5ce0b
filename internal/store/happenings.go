package store

import (
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/internal/wire"
)

// happeningBody is what is stored of a happening besides its id, kind and times: by whose view of the job it
// was done, and the fields of its kind as they stand on the wire.
type happeningBody struct {
	Since string          `json:"since,omitempty"`
	Act   json.RawMessage `json:"act"` // absent before the wire form was the stored one too
}

// bodyOf is a happening's own fields as they are stored, in the wire's form and with what its screen knew
// then.
func bodyOf(h job.Happening) (string, error) {
	act, err := wire.WriteAct(h.Act)
	if err != nil {
		return "", err
	}
	data, err := json.Marshal(happeningBody{h.Since, act})
	return string(data), err
}

// toHappening reads a stored happening.
func (r happeningRow) toHappening() (job.Happening, error) {
	h := job.Happening{
		ID:     r.ClientID,
		Rules:  r.Rules,
		At:     r.At,
		DoneAt: r.DoneAt,
		Author: r.Author,
		Screen: r.Screen,
		SentBy: r.SentBy,
	}
	var body happeningBody
	err := json.Unmarshal([]byte(r.Body), &body)
	if err == nil && body.Act == nil {
		h.Act, err = releasedAct(job.Kind(r.Kind), r.Rules, []byte(r.Body))
	} else if err == nil {
		h.Act, err = wire.ReadAct(job.Kind(r.Kind), body.Act)
	}
	if err != nil {
		return h, fmt.Errorf("%w: entry %d of job %s does not read: %w", ErrDamaged, r.Place+1, r.JobID, err)
	}
	h.Since = body.Since
	return h, nil
}

// Derived is what is kept of a job beside its list, written with each happening so that board and learning
// need read no list. It follows from the list, and is made anew where it is not there.
type Derived struct {
	TouchedAt time.Time
	Open      bool   // not signed for good
	Vehicle   string // as it is called, or was when the job was signed
	Plate     string
	Engine    string
	Glance    record.Glance
	Visit     *record.Visit // nil: it is not finished
	Adjuster  string        // empty: nothing is learned of it
	Pairs     []job.LockPair
	Used      []job.ShopShim
}

// derivedBy is the version of what is derived of a list. Where it counts up everything derived is made anew
// at the next start.
const derivedBy = 2

// List is a job's happenings as they are stored, and where the chain of checksums ends.
type List struct {
	Happenings []job.Happening
	last       string
	rows       *rowsKept
}

// Sum is the checksum of the list's last entry, and through it of all before.
func (l *List) Sum() string { return l.last }

// rowsKept is how many rows of a kind are stored beside a list (nil: to be counted), and whether its visit
// is.
type rowsKept struct {
	pairs, used int
	visit       bool
}

// Append stores one happening at the end of its job's list, with what follows from it. When it returns nil
// the happening is on disk, in the file that is at its place. ErrPlaceTaken: another one was stored there
// meanwhile; ErrExists: its id is taken; ErrMissing: there is no such job; ErrGone: the file was removed or
// replaced, and the happening is not stored.
func (s *Store) Append(jobID string, l *List, h job.Happening, d Derived) error {
	if err := s.file.still(); err != nil {
		return err // nothing is written after a log that was cut
	}
	body, err := bodyOf(h)
	if err != nil {
		return err
	}
	row := happeningRow{JobID: jobID, Place: len(l.Happenings), ClientID: h.ID, Kind: string(h.Act.Kind()),
		Body: body, At: h.At.UTC(), DoneAt: h.DoneAt.UTC(), Rules: job.Rules, Author: h.Author, Screen: h.Screen, SentBy: h.SentBy}
	if h.DoneAt.IsZero() {
		row.DoneAt = time.Time{}
	}
	row.Sum = row.sumAfter(l.last)
	err = s.group.write(func(tx *gorm.DB) error {
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		if err := endsAt(tx, jobID, row.Place+1, row.Sum); err != nil {
			return err
		}
		return errors.Join(markNamed(tx, job.FilesOf(h.Act)), derive(tx, jobID, d, l.rows))
	})
	if err := s.stored(jobID, h.ID, err); err != nil {
		return err
	}
	h.Rules = job.Rules
	l.Happenings, l.last, l.rows = append(
		l.Happenings,
		h,
	), row.Sum, &rowsKept{
		len(d.Pairs),
		len(d.Used),
		d.Visit != nil,
	}
	return nil
}

// stored says whether a happening was stored, and if not why.
func (s *Store) stored(jobID, id string, err error) error {
	if err == nil {
		return s.acknowledge(nil)
	}
	err = translate(err)
	if !errors.Is(err, ErrExists) {
		return err
	}
	var n int64
	if err := s.read.Model(&happeningRow{}).Where("job_id = ? AND client_id = ?", jobID,
		id).Count(&n).Error; err != nil {
		return translate(err)
	}
	if n == 0 {
		return ErrPlaceTaken
	}
	return ErrExists
}

// derivedAnew writes what is derived over what was; whether a job is on the board is not derived.
var derivedAnew = clause.OnConflict{Columns: []clause.Column{{Name: "job_id"}},
	DoUpdates: clause.AssignmentColumns(
		[]string{"touched_at", "open", "damaged", "derived_by", "vehicle", "plate", "engine",
			"phase", "next", "quiet", "crank_known", "done", "total", "stops", "school", "direction", "waits_for", "waits_until",
			"hand", "signed_by", "ready_at", "cover_by", "start_from", "valves"},
	)}

// derive writes the rows that follow from a job's list.
func derive(tx *gorm.DB, jobID string, d Derived, kept *rowsKept) error {
	row := rowOfGlance(jobID, d)
	if err := tx.Clauses(derivedAnew).Create(&row).Error; err != nil {
		return err
	}
	if kept == nil {
		kept = &rowsKept{-1, -1, true}
	}
	if err := putVisit(tx, jobID, d.Visit, kept.visit); err != nil {
		return err
	}
	if err := rewrite(tx, jobID, kept.pairs, len(d.Pairs), func(n int) pairRow {
		p := d.Pairs[n]
		return pairRow{jobID, n, p.By, d.Adjuster, int64(p.Before), int64(p.After), (*int64)(p.AfterLow),
			(*int64)(p.AfterHigh)}
	}); err != nil {
		return err
	}
	return rewrite(tx, jobID, kept.used, len(d.Used), func(n int) usedRow {
		return usedRow{jobID, n, int64(d.Used[n].Shim), d.Used[n].At}
	})
}

// rewrite puts a job's n rows of a kind in place of those there are (below 0: to be counted), where their
// number changed: they only ever grow and, on undo, shrink at the end.
func rewrite[Row any](tx *gorm.DB, jobID string, have, n int, row func(n int) Row) error {
	if have < 0 {
		var counted int64
		if err := tx.Model(new(Row)).Where("job_id = ?", jobID).Count(&counted).Error; err != nil {
			return err
		}
		have = int(counted)
	}
	switch {
	case have == n:
		return nil
	case have > n:
		return tx.Where("job_id = ? AND n >= ?", jobID, n).Delete(new(Row)).Error
	}
	var rows []Row
	for i := have; i < n; i++ {
		rows = append(rows, row(i))
	}
	return tx.Create(&rows).Error
}

// PutDerived stores what follows from a job's list, where it was missing.
func (s *Store) PutDerived(jobID string, d Derived) error {
	return s.acknowledge(s.write.Transaction(func(tx *gorm.DB) error {
		if err := derive(tx, jobID, d, nil); err != nil {
			return err
		}
		return tx.Exec("UPDATE job_states SET off_board = (SELECT off_board FROM jobs WHERE id = "+
			"job_id) WHERE job_id = ?",
			jobID).Error
	}))
}

// DerivedOf reads what is stored beside a job's list; ok is false where nothing is, or only as an earlier
// version derived it.
func (s *Store) DerivedOf(jobID string) (d Derived, ok bool, err error) {
	var states []stateRow
	var pairs []pairRow
	var used []usedRow
	for _, rows := range []any{&states, &pairs, &used} {
		if err := s.read.Where("job_id = ?", jobID).Find(rows).Error; err != nil {
			return d, false, translate(err)
		}
	}
	if len(states) > 0 {
		r := states[0]
		d.TouchedAt, d.Open, d.Vehicle, d.Plate, d.Engine = r.TouchedAt, r.Open, r.Vehicle, r.Plate, r.Engine
		if d.Glance, err = r.glance(); err != nil {
			return d, false, err
		}
	}
	if d.Visit, err = s.visitOf(jobID); err != nil {
		return d, false, err
	}
	for _, p := range pairs {
		d.Adjuster = p.Adjuster
		d.Pairs = append(d.Pairs, job.LockPair{Pair: p.pair(), By: p.Mechanic})
	}
	for _, u := range used {
		d.Used = append(d.Used, job.ShopShim{Shim: measure.Length(u.SizeNM), At: u.At})
	}
	return d, len(states) > 0 && states[0].DerivedBy == derivedBy, nil
}

// Underived lists the jobs of which nothing derived is stored, or only as an earlier version derived it.
func (s *Store) Underived() (ids []string, err error) {
	err = s.read.Raw("SELECT id FROM jobs WHERE id NOT IN (SELECT job_id FROM job_states WHERE derived_by = ? "+
		"OR damaged <> '') ORDER BY id", derivedBy).
		Scan(&ids).
		Error
	return ids, translate(err)
}

// PutDamaged notes that a job cannot be opened, and why; of a file that is only looked at it notes nothing.
func (s *Store) PutDamaged(jobID, why string, now time.Time) error {
	if s.readOnly {
		return nil // it is told by whoever looks
	}
	row := stateRow{JobID: jobID, TouchedAt: now, Open: true}
	var had []stateRow
	if err := s.read.Where("job_id = ?", jobID).Find(&had).Error; err == nil && len(had) > 0 {
		row = had[0] // its time and words stay
	}
	row.Damaged = why
	return s.acknowledge(s.write.Clauses(derivedAnew).Create(&row).Error)
}

// Happenings reads a job's whole list in order and follows its checksums: ErrDamaged where an entry is
// missing or not as it was stored.
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
