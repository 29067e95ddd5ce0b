package store

import (
	"fmt"
	"strconv"
	"time"

	"gorm.io/gorm"
)

// Noted is one line of the audit list: who did what, when, from where. What was done in a job stands in the
// job's own list, with who entered it, and not here.
type Noted struct {
	N      int
	At     time.Time
	Person string // empty: nobody was signed in
	Name   string // as he was called then
	From   string // the address it came from
	What   string // a code: signed_in, put-engine
	About  string // of what or whom; empty: of nothing in particular
}

func (r auditRow) sumAfter(before string) string {
	return sumOf(
		"audit",
		before,
		strconv.Itoa(r.N),
		strconv.FormatInt(r.At.UnixNano(), 10),
		r.Person,
		r.Name,
		r.Origin,
		r.What,
		r.About,
	)
}

func (r auditRow) noted() Noted { return Noted{r.N, r.At, r.Person, r.Name, r.Origin, r.What, r.About} }

// noting does something and notes it, both or neither; what has no code is not noted.
func (s *Store) noting(note Noted, do func(*gorm.DB) error) error {
	return s.acknowledge(s.write.Transaction(func(tx *gorm.DB) error {
		if err := do(tx); err != nil || note.What == "" {
			return err
		}
		return noteIn(tx, note)
	}))
}

// Note adds a line to the audit list.
func (s *Store) Note(note Noted) error { return s.noting(note, func(*gorm.DB) error { return nil }) }

// noteIn adds a line that follows on the last, under which a checksum of all before it lies.
func noteIn(tx *gorm.DB, note Noted) error {
	n, last, err := auditEnd(tx)
	if err != nil {
		return err
	}
	row := auditRow{
		N:      n,
		At:     note.At.UTC(),
		Person: note.Person,
		Name:   note.Name,
		Origin: note.From,
		What:   note.What,
		About:  note.About,
	}
	row.Sum = row.sumAfter(last)
	if err := tx.Create(&row).Error; err != nil {
		return err
	}
	return putOwn(tx, ownAudit, fmt.Sprintf("%d %s", n+1, row.Sum))
}

// auditEnd is how many lines there are, and the checksum of the last.
func auditEnd(db *gorm.DB) (n int, last string, err error) {
	end, err := ownText(db, ownAudit)
	if err != nil || end == "" {
		return 0, "", err
	}
	if _, err := fmt.Sscanf(end, "%d %s", &n, &last); err != nil {
		return 0, "", fmt.Errorf("%w: where the audit list ends does not read", ErrDamaged)
	}
	return n, last, nil
}

// Audit gives at most so many lines of the audit list before one of them, the newest first; before 0: from
// the end.
func (s *Store) Audit(before, most int) (list []Noted, err error) {
	var rows []auditRow
	q := s.read.Order("n DESC").Limit(most)
	if before > 0 {
		q = q.Where("n < ?", before)
	}
	if err := q.Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	list = make([]Noted, len(rows))
	for i, r := range rows {
		list[i] = r.noted()
	}
	return list, nil
}

// auditSound follows the audit list from its first line to its last: ErrDamaged where one is missing, or not
// as it was written.
func (s *Store) auditSound() error {
	n, end, err := auditEnd(s.read)
	if err != nil {
		return translate(err)
	}
	const atOnce = 1000
	last, at := "", 0
	for {
		var rows []auditRow
		if err := s.read.Where("n >= ?", at).Order("n").Limit(atOnce).Find(&rows).Error; err != nil {
			return translate(err)
		}
		for _, r := range rows {
			if last = r.sumAfter(last); r.N != at || last != r.Sum {
				return fmt.Errorf(
					"%w: line %d of the audit list is missing or not as it was written",
					ErrDamaged,
					at+1,
				)
			}
			at++
		}
		if len(rows) < atOnce {
			break
		}
	}
	if at != n || last != end {
		return fmt.Errorf(
			"%w: the audit list does not end where it was written to: %d of %d lines are there",
			ErrDamaged,
			at,
			n,
		)
	}
	return nil
}
