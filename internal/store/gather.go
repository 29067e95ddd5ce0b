package store

import (
	"encoding/json"
	"fmt"
	"io"
	"os"
	"slices"
	"strconv"
	"strings"
	"time"

	"gorm.io/gorm"
)

// Place is a workshop whose archive was gathered with those of others of its owner's.
type Place struct {
	N    int       `json:"-"`    // from 1, in the order in which they were gathered
	Name string    `json:"name"` // as the owner calls it
	Made time.Time `json:"made"` // when its archive was made: up to then it is known
}

// settingPlace begins the names of the settings that hold the places of a gathered file.
const settingPlace = "place."

// mostID is how long a record's id may be; a gathered one bears its place before it.
const mostID = 60

// gathered is the id under which a place's record stands beside those of others: nothing of two places is
// ever the same record, whatever it is called there.
func (p Place) gathered(id string) string {
	if id == "" {
		return ""
	}
	if len(id) > mostID {
		id = sumOf(id)
	}
	return fmt.Sprintf("p%d-%s", p.N, id)
}

// PlaceOf is the number of the place that a gathered record is of; 0 where its id tells none.
func PlaceOf(id string) int {
	head, _, found := strings.Cut(id, "-")
	if n, err := strconv.Atoi(strings.TrimPrefix(head, "p")); found && strings.HasPrefix(head, "p") &&
		err == nil &&
		n > 0 {
		return n
	}
	return 0
}

// Forget takes a data file away that no program has open, with what may lie beside it. One that stays is told
// by what is done with its name next.
func Forget(path string) {
	for _, p := range []string{path, logOf(path), sharedOf(path)} {
		_ = os.Remove(p)
	}
}

// Places are the workshops that a file was gathered from, the first first; none where it is a workshop's own.
func (s *Store) Places() ([]Place, error) {
	var rows []settingRow
	if err := s.read.Where("name LIKE ?", settingPlace+"%").Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	list := make([]Place, len(rows))
	for _, r := range rows {
		n, err := strconv.Atoi(strings.TrimPrefix(r.Name, settingPlace))
		if err != nil || n < 1 || n > len(rows) || json.Unmarshal([]byte(r.Value), &list[n-1]) != nil {
			return nil, fmt.Errorf("%w: the places it was gathered from do not read", ErrDamaged)
		}
		list[n-1].N = n
	}
	return list, nil
}

// Gather takes a workshop's archive in beside those of others, all of it or nothing, as ReadArchive does:
// every checksum and every job is gone through as it was there, and only then each record gets its place.
// What the workshop set up is left out: it is its own. ErrArchive says what is wrong, also of a name that is
// taken.
func (s *Store) Gather(
	from io.ReaderAt,
	size int64,
	name string,
	now time.Time,
	admit Admission,
) (TakenIn, error) {
	places, err := s.Places()
	if err != nil {
		return TakenIn{}, err
	}
	if slices.ContainsFunc(places, func(p Place) bool { return strings.EqualFold(p.Name, name) }) {
		return TakenIn{}, refuse("there are two workshops called %q: give each a name of its own", name)
	}
	a, err := openArchive(from, size)
	if err != nil {
		return TakenIn{}, err
	}
	place := &Place{N: len(places) + 1, Name: name, Made: a.manifest.Made}
	text, err := json.Marshal(place)
	if err != nil {
		return TakenIn{}, err
	}
	return s.takeIn(a, place, now, admit, func(tx *gorm.DB) error {
		return tx.Create(&settingRow{fmt.Sprint(settingPlace, place.N), string(text)}).Error
	})
}
