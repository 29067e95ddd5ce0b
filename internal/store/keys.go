package store

import (
	"encoding/json"
	"fmt"
	"time"

	"gorm.io/gorm"
)

// KeyUsed is a key by which the workshop has sealed sheets.
type KeyUsed struct {
	Fingerprint string    `json:"fingerprint"`
	Since       time.Time `json:"since"`
}

// KeyInUse writes down that a key is the one in use from now on, unless it is already; a change of it stands
// in the audit list.
func (s *Store) KeyInUse(fingerprint string, now time.Time) error {
	keys, err := s.Keys()
	if err != nil || len(keys) > 0 && keys[len(keys)-1].Fingerprint == fingerprint {
		return err
	}
	text, err := json.Marshal(append(keys, KeyUsed{fingerprint, now.UTC()}))
	if err != nil {
		return err
	}
	return s.noting(Noted{At: now, What: "new_key", About: fingerprint},
		func(tx *gorm.DB) error { return putOwn(tx, ownKeys, string(text)) })
}

// Keys are the keys by which the workshop has sealed sheets, the one in use last.
func (s *Store) Keys() (keys []KeyUsed, err error) {
	text, err := ownText(s.read, ownKeys)
	if err != nil || text == "" {
		return nil, translate(err)
	}
	if err := json.Unmarshal([]byte(text), &keys); err != nil {
		return nil, fmt.Errorf("%w: the list of the workshop's keys does not read", ErrDamaged)
	}
	return keys, nil
}
