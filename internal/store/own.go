package store

import (
	"crypto/rand"
	"encoding/hex"
	"fmt"
	"strconv"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// The names of what is this file's own.
const (
	ownAudit = "audit_end"     // how many lines the audit list has, and the checksum of the last
	ownIdle  = "out_after_min" // after how many minutes without a touch somebody is signed out
	ownTags  = "tag_key"       // under which the numbers of tags are kept
	ownKeys  = "seal_keys"     // by which sheets were sealed
	ownShop  = "workshop"      // by which this workshop is told from any other, in its copies and archives too
)

// ownText reads one of them; empty: it was never written.
func ownText(db *gorm.DB, name string) (string, error) {
	var rows []ownRow
	err := db.Where("name = ?", name).Find(&rows).Error
	if err != nil || len(rows) == 0 {
		return "", err
	}
	return rows[0].Value, nil
}

// putOwn writes one of them.
func putOwn(tx *gorm.DB, name, value string) error {
	return tx.Clauses(clause.OnConflict{UpdateAll: true}).Create(&ownRow{name, value}).Error
}

// TagKey is the key under which the numbers of tags are kept, made when it is first asked for.
func (s *Store) TagKey() (key []byte, err error) { return s.drawn(ownTags, 32) }

// Workshop is by what this workshop is told from any other, in its copies and archives too, drawn when it is
// first asked for.
func (s *Store) Workshop() (string, error) {
	id, err := s.drawn(ownShop, 8)
	return hex.EncodeToString(id), err
}

// drawn is what was drawn by chance once, of so many bytes, and stays.
func (s *Store) drawn(name string, bytes int) (value []byte, err error) {
	err = s.write.Transaction(func(tx *gorm.DB) error {
		text, err := ownText(tx, name)
		if err != nil {
			return err
		}
		if value, err = hex.DecodeString(text); err != nil {
			return fmt.Errorf("%w: %s does not read", ErrDamaged, name)
		}
		if len(value) > 0 {
			return nil
		}
		value = make([]byte, bytes)
		_, _ = rand.Read(value) // it never fails
		return putOwn(tx, name, hex.EncodeToString(value))
	})
	return value, s.acknowledge(err)
}

// usualIdle is after how long somebody is signed out until the workshop says otherwise (from memory): longer
// than a look into the maker's book, shorter than a break.
const usualIdle = 30 * time.Minute

// OutAfter is after how long without a touch somebody is signed out.
func (s *Store) OutAfter() (time.Duration, error) {
	text, err := ownText(s.read, ownIdle)
	if err != nil || text == "" {
		return usualIdle, translate(err)
	}
	minutes, err := strconv.Atoi(text)
	if err != nil || minutes < 1 {
		return usualIdle, fmt.Errorf("%w: after how long somebody is signed out does not read", ErrDamaged)
	}
	return time.Duration(minutes) * time.Minute, nil
}

// PutOutAfter changes that, to whole minutes.
func (s *Store) PutOutAfter(idle time.Duration, note Noted) error {
	return s.noting(
		note,
		func(tx *gorm.DB) error { return putOwn(tx, ownIdle, strconv.Itoa(int(idle/time.Minute))) },
	)
}
