package store

import (
	"context"
	"encoding/json"
	"fmt"
	"reflect"
	"strings"
	"time"

	"gorm.io/gorm"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/internal/wire"
)

// Engine is a sheet in the library.
type Engine struct {
	ID        string
	Sheet     *engine.Sheet
	CreatedAt time.Time
}

// GaugeSet is a named set of leaves.
type GaugeSet struct {
	ID        string
	Name      string
	Items     []gauge.Item
	Checked   string // the date of the last check, 2026-03-31; empty: never
	CreatedAt time.Time
	Version   string // of what is stored; not read where it is written
	Damaged   string // why its leaves do not read; empty: they do
}

// Job is what a job starts from.
type Job struct {
	ID         string
	Vehicle    Vehicle
	Sheet      *engine.Sheet
	Card       int
	HotCard    int // −1: none
	CardReason string
	Aim        clearance.Aim
	AimReason  string
	Rule       clearance.Rule
	Feel       measure.Length
	GaugeName  string
	Leaves     gauge.Set
	LeavesAre  string // dry or oiled, as they were felt; empty: not said
	Mechanic   string
	Reason     string
	Meter      int
	// why it shows less than it did before; empty: it does not
	OdometerWhy string
	CreatedAt   time.Time
	OffBoard    bool
}

// writeItems stores a set of leaves in the form that it has on the wire.
func writeItems(items []gauge.Item) (string, error) {
	data, err := json.Marshal(wire.LeavesOf(items))
	return string(data), err
}

// readItems reads it back, or the form of versions before 6, which is told by its field's name.
func readItems(text string) ([]gauge.Item, error) {
	if strings.Contains(text, `"marked_nm"`) {
		return releasedItems(text)
	}
	n, err := wire.Parse([]byte(text))
	if err != nil {
		return nil, err
	}
	leaves, faults := wire.Decode[wire.Leaves](n)
	if len(faults) > 0 {
		return nil, fmt.Errorf("%s: %s", faults[0].Location, faults[0].Message)
	}
	return leaves.Core(), nil
}

// writeLeaves keeps the leaves a job is done with.
func writeLeaves(set gauge.Set) (string, error) {
	items := make([]gauge.Item, len(set))
	for i, l := range set {
		items[i].Leaf = l
	}
	return writeItems(items)
}

// readLeaves are the leaves of a set that are there: missing ones are no leaves of a job.
func readLeaves(text string) (gauge.Set, error) {
	items, err := readItems(text)
	return gauge.Owned(items), err
}

// readSheet reads a stored sheet. It is looser than for one that is sent: a rule that came later does not
// shut out what was stored under an earlier one.
func readSheet(text string) (*engine.Sheet, error) {
	sheet, faults := wire.ReadStoredSheet([]byte(text))
	if len(faults) > 0 {
		return nil, fmt.Errorf("%w: a stored sheet does not read: %s: %s", ErrDamaged, faults[0].Location,
			faults[0].Message)
	}
	return sheet, nil
}

// AddEngine stores a checked sheet.
func (s *Store) AddEngine(e Engine) error {
	sheet, err := wire.WriteSheet(e.Sheet)
	if err != nil {
		return err
	}
	return s.acknowledge(s.write.Create(&engineRow{e.ID, e.Sheet.Name, string(sheet), e.CreatedAt}).Error)
}

// acknowledge says whether what was written is stored: without an error, and in the file that is at its
// place.
func (s *Store) acknowledge(err error) error {
	if err != nil {
		return translate(err)
	}
	if err := s.file.still(); err != nil || s.file.writes.Add(1)%foldEvery != 0 {
		return err
	}
	return s.fold()
}

// foldEvery is after how many writes the log is folded into the file: some megabytes of entries.
const foldEvery = 256

// fold writes the log into the file. What a reader still needs of the log stays there until the next time.
func (s *Store) fold() error {
	return s.file.fold(func() { foldSome(s.write.WithContext(context.Background())) })
}

// ReplaceEngine changes a stored sheet that is still the one it was when it was read: ErrChanged where
// somebody changed it meanwhile, ErrNotFound where there is none. When it was first stored stays as it is.
func (s *Store) ReplaceEngine(e Engine, before *engine.Sheet) error {
	sheet, err := wire.WriteSheet(e.Sheet)
	if err != nil {
		return err
	}
	return s.acknowledge(s.write.Transaction(func(tx *gorm.DB) error {
		var row engineRow
		if err := tx.Where("id = ?", e.ID).Take(&row).Error; err != nil {
			return err
		}
		if stored, err := readSheet(row.Sheet); err == nil && !reflect.DeepEqual(stored, before) {
			return ErrChanged
		}
		return tx.Model(&engineRow{ID: e.ID}).Select("name",
			"sheet").Updates(engineRow{Name: e.Sheet.Name, Sheet: string(sheet)}).Error
	}))
}

// RemoveEngine takes a sheet out; ErrNotFound where there is none, ErrMissing while a vehicle refers to it.
func (s *Store) RemoveEngine(id string) error {
	return s.changed(s.write.Delete(&engineRow{ID: id}))
}

// changed says whether a statement found its row, and is stored.
func (s *Store) changed(result *gorm.DB) error {
	if result.Error == nil && result.RowsAffected == 0 {
		return ErrNotFound
	}
	return s.acknowledge(result.Error)
}

// Damaged is a record that does not read, and why.
type Damaged struct{ ID, Name, Why string }

// Engines lists the library by name. Sheets that do not read are listed apart, and hinder nobody.
func (s *Store) Engines() (list []Engine, damaged []Damaged, err error) {
	var rows []engineRow
	if err := s.read.Order("name").Find(&rows).Error; err != nil {
		return nil, nil, translate(err)
	}
	for _, row := range rows {
		e, err := row.toEngine()
		if err != nil {
			damaged = append(damaged, Damaged{row.ID, row.Name, err.Error()})
			continue
		}
		list = append(list, e)
	}
	return list, damaged, nil
}

// Engine finds one sheet.
func (s *Store) Engine(id string) (Engine, error) {
	return one(s, id, engineRow.toEngine)
}

// toEngine reads a row of the library back.
func (r engineRow) toEngine() (Engine, error) {
	sheet, err := readSheet(r.Sheet)
	return Engine{r.ID, sheet, r.CreatedAt}, err
}

// AddGaugeSet stores a set of leaves.
func (s *Store) AddGaugeSet(g GaugeSet) error {
	leaves, err := writeItems(g.Items)
	if err != nil {
		return err
	}
	return s.acknowledge(s.write.Create(&gaugeSetRow{g.ID, g.Name, leaves, g.Checked, g.CreatedAt}).Error)
}

// ReplaceGaugeSet changes a stored set, where version is empty or still that of the stored one: ErrChanged
// where somebody changed it meanwhile, ErrNotFound where there is none. Jobs keep the leaves they began with.
func (s *Store) ReplaceGaugeSet(g GaugeSet, version string) error {
	leaves, err := writeItems(g.Items)
	if err != nil {
		return err
	}
	return s.acknowledge(s.write.Transaction(func(tx *gorm.DB) error {
		var row gaugeSetRow
		if err := tx.Where("id = ?", g.ID).Take(&row).Error; err != nil {
			return err
		}
		if version != "" && row.version() != version {
			return ErrChanged
		}
		return tx.Model(&gaugeSetRow{ID: g.ID}).Select("name", "leaves",
			"checked").Updates(gaugeSetRow{Name: g.Name, Leaves: leaves, Checked: g.Checked}).Error
	}))
}

// version tells one state of a set from another.
func (r gaugeSetRow) version() string { return sumOf(r.Name, r.Leaves, r.Checked)[:16] }

// RemoveGaugeSet takes a set out; ErrNotFound where there is none.
func (s *Store) RemoveGaugeSet(id string) error {
	return s.changed(s.write.Delete(&gaugeSetRow{ID: id}))
}

// GaugeSets lists the sets by name. One that does not read says so, and hinders nobody.
func (s *Store) GaugeSets() ([]GaugeSet, error) {
	return listed(s, "name", gaugeSetRow.toGaugeSet)
}

// GaugeSet finds one set.
func (s *Store) GaugeSet(id string) (GaugeSet, error) {
	return one(s, id, sound(gaugeSetRow.toGaugeSet))
}

// toGaugeSet reads a set back; one that does not read keeps its name and says why.
func (r gaugeSetRow) toGaugeSet() GaugeSet {
	items, err := readItems(r.Leaves)
	return GaugeSet{r.ID, r.Name, items, r.Checked, r.CreatedAt, r.version(), why(err)}
}

// why is an error in words; empty: there is none.
func why(err error) string {
	if err == nil {
		return ""
	}
	return err.Error()
}

// sound is a reading of rows that cannot fail, as one takes it.
func sound[Row, Record any](to func(Row) Record) func(Row) (Record, error) {
	return func(r Row) (Record, error) { return to(r), nil }
}

// listed reads all rows of a kind in an order, with the named associations, and maps each.
func listed[Row, Record any](
	s *Store,
	order string,
	to func(Row) Record,
	preload ...string,
) ([]Record, error) {
	db := s.read.Order(order)
	for _, p := range preload {
		db = db.Preload(p)
	}
	var rows []Row
	if err := db.Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	records := make([]Record, len(rows))
	for i, row := range rows {
		records[i] = to(row)
	}
	return records, nil
}

// one reads the row with an id and maps it; ErrNotFound where there is none.
func one[Row, Record any](s *Store, id string, to func(Row) (Record, error), preload ...string) (Record,
	error) {
	db := s.read
	for _, p := range preload {
		db = db.Preload(p)
	}
	var row Row
	if err := db.Where("id = ?", id).Take(&row).Error; err != nil {
		var none Record
		return none, translate(err)
	}
	return to(row)
}
