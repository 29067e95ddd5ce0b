package store

import (
	"encoding/json"
	"errors"
	"fmt"
)

// The names of what is kept of instruments: where they stand is this machine's, and not in an archive.
const (
	ownInstruments = "instruments"
	ownPull        = "pull:" // and a person's id; empty: nobody is set up
)

// Instruments are the addresses of the instruments, by kind; none where none is set.
func (s *Store) Instruments() (map[string]string, error) {
	at := map[string]string{}
	return at, s.ownJSON(ownInstruments, &at)
}

// PutInstruments keeps them.
func (s *Store) PutInstruments(at map[string]string) error { return s.putOwnJSON(ownInstruments, at) }

// Pull is how hard a leaf pulls that drags as it should, newtons, by one person's hand.
type Pull struct {
	FromN float64 `json:"from_n"`
	ToN   float64 `json:"to_n"`
}

// Pull is a person's; ok is false where he has said none.
func (s *Store) Pull(person string) (p Pull, ok bool, err error) {
	err = s.ownJSON(ownPull+person, &p)
	return p, p != (Pull{}), err
}

// PutPull keeps it.
func (s *Store) PutPull(person string, p Pull) error { return s.putOwnJSON(ownPull+person, p) }

// ownJSON reads a value of this file's own; what was never written leaves it as it is.
func (s *Store) ownJSON(name string, into any) error {
	text, err := ownText(s.read, name)
	if err != nil || text == "" {
		return translate(err)
	}
	if err := json.Unmarshal([]byte(text), into); err != nil {
		return errors.Join(ErrDamaged, fmt.Errorf("%s does not read", name))
	}
	return nil
}

// putOwnJSON writes one.
func (s *Store) putOwnJSON(name string, value any) error {
	text, err := json.Marshal(value)
	if err != nil {
		return err
	}
	return s.acknowledge(putOwn(s.write, name, string(text)))
}
