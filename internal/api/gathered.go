package api

import (
	"log/slog"
	"slices"
	"strings"
	"time"
	"unicode"

	"metronix/core/people"
	"metronix/internal/store"
)

// A data file that was gathered from the archives of several workshops is looked at only: what is entered, is
// entered where the vehicle is.

// places are the workshops that a data file was gathered from.
type places []store.Place

// placesOf reads them. A file that does not say whose its records are is not written to.
func placesOf(st *store.Store) places {
	list, err := st.Places()
	if err != nil {
		slog.Error("the places that the data file was gathered from do not read", "error", err)
		return places{{N: 1, Name: "?"}}
	}
	return list
}

// name is the name of the place that a record is of; empty where nothing was gathered.
func (p places) name(id string) string {
	if n := store.PlaceOf(id); n > 0 && n <= len(p) {
		return p[n-1].Name
	}
	return ""
}

// may says whether a deed is done in such a file: all is looked at, and who may look is kept.
func (p places) may(d people.Deed) bool {
	return len(p) == 0 || d == people.Look || d == people.Run
}

// only are those of some deeds that may be done.
func (p places) only(list []people.Deed) []people.Deed {
	return slices.DeleteFunc(slices.Clone(list), func(d people.Deed) bool { return !p.may(d) })
}

// lookedAt says why nothing is entered in such a file.
const lookedAt = "This workshop was gathered from the archives of others and is only looked at. Enter it where the vehicle is."

// Gathered is a workshop that a data file was gathered from.
type Gathered struct {
	Name string    `json:"name"`
	Made time.Time `json:"made" doc:"when its archive was made: up to then it is known here"`
}

// views are the places as screens show them.
func (p places) views() []Gathered {
	list := make([]Gathered, len(p))
	for i, place := range p {
		list[i] = Gathered{place.Name, place.Made}
	}
	return list
}

// Elsewhere is a vehicle of another place that bears the same plate. Whether it is the same one is for people
// to say.
type Elsewhere struct {
	ID    string `json:"id"`
	Place string `json:"place"`
	Name  string `json:"name"`
	Plate string `json:"plate"`
}

// alsoAt finds the vehicles of other places with a vehicle's plate, however it is spaced there.
func (s *server) alsoAt(st *store.Store, v store.Vehicle) (list []Elsewhere, err error) {
	plate := bare(v.Plate)
	if len(s.places) == 0 || plate == "" {
		return []Elsewhere{}, nil
	}
	all, err := st.Vehicles()
	list = []Elsewhere{}
	for _, other := range all {
		if bare(other.Plate) == plate && store.PlaceOf(other.ID) != store.PlaceOf(v.ID) {
			list = append(list, Elsewhere{other.ID, s.places.name(other.ID), other.Name, other.Plate})
		}
	}
	return list, err
}

// bare is a plate without what people write differently.
func bare(plate string) string {
	return strings.Map(func(r rune) rune {
		if !unicode.IsLetter(r) && !unicode.IsDigit(r) {
			return -1
		}
		return unicode.ToUpper(r)
	}, plate)
}
