package store

import (
	"slices"
	"time"

	"gorm.io/gorm"

	"metronix/core/people"
	"metronix/internal/secret"
)

// Person is somebody of the workshop. Nobody is ever removed: what he entered stays his.
type Person struct {
	ID     string
	Name   string // no two have the same, whoever left included
	Role   people.Role
	HasPIN bool
	HasTag bool
	Since  time.Time
	Left   time.Time // zero: is there
}

// Here says that a person has not left.
func (p Person) Here() bool { return p.Left.IsZero() }

// Known is how a person is known: the hash of the PIN, and of the tag's number. Nil leaves what there is as
// it is, empty takes it away.
type Known struct{ PIN, Tag *string }

func (r personRow) person() Person {
	p := Person{
		ID:     r.ID,
		Name:   r.Name,
		Role:   people.Role(r.Role),
		HasPIN: r.PIN != "",
		HasTag: r.Tag != nil,
		Since:  r.CreatedAt,
	}
	if r.LeftAt != nil {
		p.Left = *r.LeftAt
	}
	return p
}

// set takes over what is said of how somebody is known.
func (r *personRow) set(k Known) {
	if k.PIN != nil {
		r.PIN = *k.PIN
	}
	if k.Tag != nil {
		if r.Tag = k.Tag; *k.Tag == "" {
			r.Tag = nil
		}
	}
}

// People lists everybody by name, whoever left at the end.
func (s *Store) People() (list []Person, err error) {
	var rows []personRow
	if err := s.read.Order("left_at IS NOT NULL, name COLLATE NOCASE").Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	list = make([]Person, len(rows))
	for i, r := range rows {
		list[i] = r.person()
	}
	return list, nil
}

// Nobody says that nobody is set up who is still there.
func (s *Store) Nobody() (bool, error) {
	list, err := s.People()
	return err == nil && !slices.ContainsFunc(list, Person.Here), err
}

// AddPerson stores somebody, with what is noted of it; ErrExists where the id, the name or the tag is taken,
// ErrNoForeman where the first one could look after nobody.
func (s *Store) AddPerson(p Person, k Known, note Noted) error {
	row := personRow{ID: p.ID, Name: p.Name, Role: string(p.Role), CreatedAt: p.Since}
	row.set(k)
	return s.noting(note, func(tx *gorm.DB) error {
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		if err := tx.Where("who = ?", setUp).Delete(&guessRow{}).Error; err != nil {
			return err
		}
		return foremanIn(tx)
	})
}

// ChangePerson changes a person's name and role, how he is known, and whether he has left; whoever is signed
// in as him is so no more. ErrNotFound where there is none, ErrExists where the name or the tag is another's,
// ErrNoForeman where nobody would be left who looks after people.
func (s *Store) ChangePerson(p Person, k Known, note Noted) error {
	return s.noting(note, func(tx *gorm.DB) error {
		var row personRow
		if err := tx.Where("id = ?", p.ID).Take(&row).Error; err != nil {
			return err
		}
		row.Name, row.Role, row.LeftAt = p.Name, string(p.Role), nil
		if !p.Here() {
			row.LeftAt = &p.Left
		}
		row.set(k)
		if err := tx.Select("*").Updates(&row).Error; err != nil {
			return err
		}
		if err := tx.Where("person_id = ?", p.ID).Delete(&sessionRow{}).Error; err != nil {
			return err
		}
		if err := tx.Where("who = ?", p.ID).Delete(&guessRow{}).Error; err != nil {
			return err
		}
		return foremanIn(tx)
	})
}

// foremanIn errs where no foreman can sign in: neither may the last one leave, for a workshop without anybody
// would be open to whoever reaches it.
func foremanIn(tx *gorm.DB) error {
	var able int64
	if err := tx.Model(&personRow{}).
		Where("left_at IS NULL AND role = ? AND (pin <> '' OR tag IS NOT NULL)", people.Foreman).
		Count(&able).Error; err != nil {
		return err
	}
	if able == 0 {
		return ErrNoForeman
	}
	return nil
}

// What is guessed besides a person's PIN.
const (
	tags  = "tags"   // a tag's number
	setUp = "set_up" // the code by which the first foreman is set up
)

// GuessSetUp counts a guess at the code by which the first foreman is set up; it is forgotten with the first
// that is right.
func (s *Store) GuessSetUp(now time.Time) (wait time.Duration, err error) {
	err = s.write.Transaction(func(tx *gorm.DB) error {
		wait, err = guessing(tx, setUp, now)
		return err
	})
	return wait, s.acknowledge(err)
}

// Guess begins a guess at who somebody is: it counts as wrong until Guessed says that it was right, so that
// guesses that come at once count each. Wait above 0: it may not be made yet, and was not counted.
// ErrNotFound where there is no such person, or not any more.
func (s *Store) Guess(personID string, now time.Time) (pin string, wait time.Duration, err error) {
	err = s.write.Transaction(func(tx *gorm.DB) error {
		var row personRow
		if err := tx.Where("id = ? AND left_at IS NULL", personID).Take(&row).Error; err != nil {
			return err
		}
		pin = row.PIN
		wait, err = guessing(tx, personID, now)
		return err
	})
	return pin, wait, s.acknowledge(err)
}

// GuessTag does the same for a tag, and gives whose it is; ErrNotFound: nobody's.
func (s *Store) GuessTag(tagged string, now time.Time) (p Person, wait time.Duration, err error) {
	err = s.write.Transaction(func(tx *gorm.DB) error {
		wait, err = guessing(tx, tags, now)
		return err
	})
	if err = s.acknowledge(err); err != nil || wait > 0 {
		return p, wait, err
	}
	var row personRow
	if err := s.read.Where("tag = ? AND left_at IS NULL", tagged).Take(&row).Error; err != nil {
		return p, 0, translate(err)
	}
	return row.person(), 0, s.guessed(tags)
}

// guessing counts a guess, unless it comes too soon.
func guessing(tx *gorm.DB, who string, now time.Time) (wait time.Duration, err error) {
	row := guessRow{Who: who}
	var had []guessRow
	if err := tx.Where("who = ?", who).Find(&had).Error; err != nil {
		return 0, err
	}
	if len(had) > 0 {
		row = had[0]
	}
	if wait = row.ShutUntil.Sub(now); wait > 0 {
		return wait, nil
	}
	row.Wrong++
	row.ShutUntil = now.Add(secret.Wait(row.Wrong)).UTC()
	return 0, tx.Save(&row).Error
}

// guessed forgets wrong guesses.
func (s *Store) guessed(who string) error {
	return s.acknowledge(s.write.Where("who = ?", who).Delete(&guessRow{}).Error)
}

// Session is somebody who is signed in on a screen.
type Session struct {
	Person Person
	Used   time.Time // last
}

// Begin signs somebody in under a token of which this is what is kept, and forgets his wrong guesses.
func (s *Store) Begin(kept string, personID, from string, now time.Time, note Noted) error {
	return s.noting(note, func(tx *gorm.DB) error {
		if err := tx.Where("who = ?", personID).Delete(&guessRow{}).Error; err != nil {
			return err
		}
		return tx.Create(
			&sessionRow{Kept: kept, PersonID: personID, Origin: from, MadeAt: now.UTC(), UsedAt: now.UTC()},
		).Error
	})
}

// Session gives who is signed in under a token; ErrNotFound where nobody is, or he has left.
func (s *Store) Session(kept string) (Session, error) {
	var row sessionRow
	if err := s.read.Where("kept = ?", kept).Take(&row).Error; err != nil {
		return Session{}, translate(err)
	}
	var who personRow
	if err := s.read.Where("id = ? AND left_at IS NULL", row.PersonID).Take(&who).Error; err != nil {
		return Session{}, translate(err)
	}
	return Session{who.person(), row.UsedAt}, nil
}

// Used notes that a session was used.
func (s *Store) Used(kept string, now time.Time) error {
	return s.acknowledge(
		s.write.Model(&sessionRow{}).Where("kept = ?", kept).Update("used_at", now.UTC()).Error,
	)
}

// End signs out; sessions that were not used since a time go with it.
func (s *Store) End(kept string, unused time.Time, note Noted) error {
	return s.noting(note, func(tx *gorm.DB) error {
		return tx.Where("kept = ? OR used_at < ?", kept, unused.UTC()).Delete(&sessionRow{}).Error
	})
}
