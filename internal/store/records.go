package store

import (
	"cmp"
	"encoding/json"
	"fmt"
	"reflect"
	"strings"
	"time"

	"gorm.io/gorm"

	"metronix/core/adjust"
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
}

// Vehicle is what an engine sits in.
type Vehicle struct {
	ID         string
	Name       string
	Plate      string
	OdometerKM int
	EngineID   string
	EngineName string
	CreatedAt  time.Time
	OffBoard   bool
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
	Mechanic   string
	Reason     string
	OdometerKM int
	CreatedAt  time.Time
	OffBoard   bool
}

func writeItems(items []gauge.Item) (string, error) {
	data, err := json.Marshal(wire.LeavesOf(items))
	return string(data), err
}

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

func readLeaves(text string) (gauge.Set, error) {
	items, err := readItems(text)
	return gauge.Owned(items), err
}

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
	return s.file.still()
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

// GaugeSets lists the sets by name.
func (s *Store) GaugeSets() ([]GaugeSet, error) {
	return listed(s, "name", gaugeSetRow.toGaugeSet)
}

// GaugeSet finds one set.
func (s *Store) GaugeSet(id string) (GaugeSet, error) {
	return one(s, id, gaugeSetRow.toGaugeSet)
}

func (r gaugeSetRow) toGaugeSet() (GaugeSet, error) {
	items, err := readItems(r.Leaves)
	return GaugeSet{r.ID, r.Name, items, r.Checked, r.CreatedAt, r.version()}, err
}

// AddVehicle stores a vehicle; ErrMissing where its engine is not stored.
func (s *Store) AddVehicle(v Vehicle) error {
	return s.acknowledge(s.write.Create(&vehicleRow{ID: v.ID, Name: v.Name, Plate: v.Plate,
		OdometerKM: v.OdometerKM, EngineID: v.EngineID, CreatedAt: v.CreatedAt}).Error)
}

// ReplaceVehicle corrects a stored vehicle; ErrNotFound where there is none, ErrMissing where its engine is
// not stored.
func (s *Store) ReplaceVehicle(v Vehicle) error {
	return s.changed(s.write.Model(&vehicleRow{ID: v.ID}).Select("name", "plate", "odometer_km", "engine_id",
		"off_board").
		Updates(vehicleRow{Name: v.Name, Plate: v.Plate, OdometerKM: v.OdometerKM, EngineID: v.EngineID,
			OffBoard: v.OffBoard}))
}

// RaiseOdometer notes that a vehicle has gone further than was known.
func (s *Store) RaiseOdometer(id string, km int) error {
	return translate(s.write.Model(&vehicleRow{}).Where("id = ? AND odometer_km < ?", id,
		km).Update("odometer_km", km).Error)
}

// Vehicles lists the vehicles by name, those taken off the board too.
func (s *Store) Vehicles() ([]Vehicle, error) {
	return listed(s, "vehicles.name", vehicleRow.toVehicle, "Engine")
}

// Vehicle finds one vehicle.
func (s *Store) Vehicle(id string) (Vehicle, error) {
	return one(s, id, vehicleRow.toVehicle, "Engine")
}

func (r vehicleRow) toVehicle() (Vehicle, error) {
	return Vehicle{r.ID, r.Name, r.Plate, r.OdometerKM, r.EngineID, r.Engine.Name, r.CreatedAt, r.OffBoard},
		nil
}

// AddJob stores what a job starts from, with what the board shows of it; ErrMissing where its vehicle is not
// stored.
func (s *Store) AddJob(j Job, d Derived) error {
	row, err := rowOf(j)
	if err != nil {
		return err
	}
	return s.acknowledge(s.write.Transaction(func(tx *gorm.DB) error {
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		return derive(tx, j.ID, d, nil)
	}))
}

// CorrectJob changes what a job started from, before anything was read in it, and its checksums with it.
func (s *Store) CorrectJob(j Job, d Derived) error {
	row, err := rowOf(j)
	if err != nil {
		return err
	}
	return s.acknowledge(s.write.Transaction(func(tx *gorm.DB) error {
		if err := tx.Omit("Vehicle").Select("*").Omit("created_at").Updates(&row).Error; err != nil {
			return err
		}
		if err := resum(tx, row); err != nil {
			return err
		}
		return derive(tx, j.ID, d, nil)
	}))
}

// PutOffBoard takes a job off the board, or brings it back; ErrNotFound where there is none.
func (s *Store) PutOffBoard(id string, off bool) error {
	return s.acknowledge(s.write.Transaction(func(tx *gorm.DB) error {
		if found := tx.Model(&jobRow{}).Where("id = ?", id).Update("off_board", off); found.Error != nil ||
			found.RowsAffected == 0 {
			return cmp.Or(found.Error, gorm.ErrRecordNotFound)
		}
		return tx.Model(&stateRow{}).Where("job_id = ?", id).Update("off_board", off).Error
	}))
}

func rowOf(j Job) (jobRow, error) {
	sheet, err := wire.WriteSheet(j.Sheet)
	if err != nil {
		return jobRow{}, err
	}
	leaves, err := writeLeaves(j.Leaves)
	return jobRow{ID: j.ID, VehicleID: j.Vehicle.ID, Sheet: string(sheet), Card: j.Card,
		HotPass: j.HotCard + 1, CardReason: j.CardReason,
		Aim: string(j.Aim), AimReason: j.AimReason, Rule: string(j.Rule), FeelNM: int64(j.Feel), GaugeName: j.GaugeName,
		Leaves: leaves, Mechanic: j.Mechanic, Reason: j.Reason, OdometerKM: j.OdometerKM, CreatedAt: j.CreatedAt, OffBoard: j.OffBoard}, err
}

// BoardQuery narrows what the board shows.
type BoardQuery struct {
	OffBoard      bool // those taken off it instead
	Open          *bool
	Limit, Offset int
}

// OnBoard is a job on the board: what was derived of it last. Damaged is why it cannot be opened.
type OnBoard struct {
	ID      string
	Short   string
	Damaged string
}

// Board lists jobs as the board shows them, the last touched first, and says how many there are in all. It
// reads no list of happenings.
func (s *Store) Board(q BoardQuery) (list []OnBoard, total int64, err error) {
	db := s.read.Table("job_states").Where("off_board = ?", q.OffBoard)
	if q.Open != nil {
		db = db.Where("open = ?", *q.Open)
	}
	if err := db.Session(&gorm.Session{}).Count(&total).Error; err != nil {
		return nil, 0, translate(err)
	}
	err = db.Session(&gorm.Session{}).Select("job_id AS id, short, damaged").Order("touched_at DESC, job_id").Limit(q.Limit).Offset(q.Offset).Scan(&list).Error
	return list, total, translate(err)
}

// JobsOf lists every job of a vehicle.
func (s *Store) JobsOf(vehicleID string) (ids []string, err error) {
	err = s.read.Raw("SELECT id FROM jobs WHERE vehicle_id = ? ORDER BY id", vehicleID).Scan(&ids).Error
	return ids, translate(err)
}

// OpenJobsOf says which jobs of a vehicle are open.
func (s *Store) OpenJobsOf(vehicleID string) (ids []string, err error) {
	err = s.read.Raw("SELECT job_id FROM job_states JOIN jobs ON jobs.id = job_id WHERE vehicle_id = ? AND "+
		"open AND NOT job_states.off_board", vehicleID).Scan(&ids).Error
	return ids, translate(err)
}

// mostPairs is how many of the latest lock pairs are learned from: a mechanic's hands change with the years.
const mostPairs = 200

// LockPairs lists what locking did in one mechanic's hands on one kind of adjuster, in all jobs.
func (s *Store) LockPairs(mechanic, adjuster string) ([]adjust.Pair, error) {
	var rows []pairRow
	if err := s.read.Where("mechanic = ? AND adjuster = ?", mechanic,
		adjuster).Order("rowid DESC").Limit(mostPairs).Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	pairs := make([]adjust.Pair, len(rows))
	for i, r := range rows {
		pairs[i] = adjust.Pair{Before: measure.Length(r.BeforeNM), After: measure.Length(r.AfterNM)}
	}
	return pairs, nil
}

// OpenJobs lists the jobs that are not signed for good.
func (s *Store) OpenJobs() (ids []string, err error) {
	err = s.read.Raw("SELECT job_id FROM job_states WHERE open ORDER BY job_id").Scan(&ids).Error
	return ids, translate(err)
}

// JobIDs lists every job.
func (s *Store) JobIDs() (ids []string, err error) {
	err = s.read.Raw("SELECT id FROM jobs ORDER BY created_at DESC, id").Scan(&ids).Error
	return ids, translate(err)
}

// Job finds one job.
func (s *Store) Job(id string) (Job, error) {
	return one(s, id, jobRow.toJob, "Vehicle.Engine")
}

func (r jobRow) toJob() (Job, error) {
	vehicle, _ := r.Vehicle.toVehicle()
	sheet, err := readSheet(r.Sheet)
	if err != nil {
		return Job{}, fmt.Errorf("job %s: %w", r.ID, err)
	}
	leaves, err := readLeaves(r.Leaves)
	return Job{r.ID, vehicle, sheet, r.Card, r.HotPass - 1, r.CardReason, clearance.Aim(r.Aim), r.AimReason,
		clearance.Rule(r.Rule),
		measure.Length(r.FeelNM), r.GaugeName, leaves, r.Mechanic, r.Reason, r.OdometerKM, r.CreatedAt, r.OffBoard}, err
}

// listed reads all rows of a kind in an order, with the named associations, and maps each.
func listed[Row, Record any](s *Store, order string, to func(Row) (Record, error),
	preload ...string) ([]Record, error) {
	db := s.read.Order(order)
	for _, p := range preload {
		db = db.Preload(p)
	}
	var rows []Row
	if err := db.Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	records := make([]Record, 0, len(rows))
	for _, row := range rows {
		r, err := to(row)
		if err != nil {
			return nil, err
		}
		records = append(records, r)
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
