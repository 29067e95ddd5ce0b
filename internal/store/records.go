package store

import (
	"encoding/json"
	"fmt"
	"time"

	"gorm.io/gorm"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/internal/compute"
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
}

type leafBody struct {
	Marked   int64 `json:"marked_nm"`
	Measured int64 `json:"measured_nm,omitempty"`
	Thou     bool  `json:"thou,omitempty"`
	Angled   bool  `json:"angled,omitempty"`
	Missing  bool  `json:"missing,omitempty"`
}

func writeItems(items []gauge.Item) (string, error) {
	bodies := make([]leafBody, len(items))
	for i, l := range items {
		bodies[i] = leafBody{int64(l.Marked), int64(l.Measured), l.Thou, l.Angled, l.Missing}
	}
	data, err := json.Marshal(bodies)
	return string(data), err
}

func readItems(text string) ([]gauge.Item, error) {
	var bodies []leafBody
	if err := json.Unmarshal([]byte(text), &bodies); err != nil {
		return nil, err
	}
	items := make([]gauge.Item, len(bodies))
	for i, b := range bodies {
		items[i] = gauge.Item{Leaf: gauge.Leaf{Marked: measure.Length(b.Marked), Measured: measure.Length(b.Measured)},
			Thou: b.Thou, Angled: b.Angled, Missing: b.Missing}
	}
	return items, nil
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
	sheet, faults := compute.ReadSheet([]byte(text))
	if len(faults) > 0 {
		return nil, fmt.Errorf("the stored sheet does not read: %s: %s", faults[0].Location, faults[0].Message)
	}
	return sheet, nil
}

// AddEngine stores a checked sheet.
func (s *Store) AddEngine(e Engine) error {
	sheet, err := compute.WriteSheet(e.Sheet)
	if err != nil {
		return err
	}
	return translate(s.write.Create(&engineRow{e.ID, e.Sheet.Name, string(sheet), e.CreatedAt}).Error)
}

// ReplaceEngine changes a stored sheet; ErrNotFound where there is none. When it was first stored stays as it is.
func (s *Store) ReplaceEngine(e Engine) error {
	sheet, err := compute.WriteSheet(e.Sheet)
	if err != nil {
		return err
	}
	return changed(s.write.Model(&engineRow{ID: e.ID}).Select("name", "sheet").Updates(engineRow{Name: e.Sheet.Name, Sheet: string(sheet)}))
}

// RemoveEngine takes a sheet out; ErrNotFound where there is none, ErrMissing while a vehicle refers to it.
func (s *Store) RemoveEngine(id string) error {
	return changed(s.write.Delete(&engineRow{ID: id}))
}

// changed says whether a statement found its row.
func changed(result *gorm.DB) error {
	if result.Error == nil && result.RowsAffected == 0 {
		return ErrNotFound
	}
	return translate(result.Error)
}

// Engines lists the library by name.
func (s *Store) Engines() ([]Engine, error) {
	return listed(s, "name", engineRow.toEngine)
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
	return translate(s.write.Create(&gaugeSetRow{g.ID, g.Name, leaves, g.Checked, g.CreatedAt}).Error)
}

// ReplaceGaugeSet changes a stored set; ErrNotFound where there is none. Jobs keep the leaves they began with.
func (s *Store) ReplaceGaugeSet(g GaugeSet) error {
	leaves, err := writeItems(g.Items)
	if err != nil {
		return err
	}
	return changed(s.write.Model(&gaugeSetRow{ID: g.ID}).Select("name", "leaves", "checked").Updates(gaugeSetRow{Name: g.Name, Leaves: leaves, Checked: g.Checked}))
}

// RemoveGaugeSet takes a set out; ErrNotFound where there is none.
func (s *Store) RemoveGaugeSet(id string) error { return changed(s.write.Delete(&gaugeSetRow{ID: id})) }

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
	return GaugeSet{r.ID, r.Name, items, r.Checked, r.CreatedAt}, err
}

// AddVehicle stores a vehicle; ErrMissing where its engine is not stored.
func (s *Store) AddVehicle(v Vehicle) error {
	return translate(s.write.Create(&vehicleRow{ID: v.ID, Name: v.Name, Plate: v.Plate, OdometerKM: v.OdometerKM, EngineID: v.EngineID, CreatedAt: v.CreatedAt}).Error)
}

// Vehicles lists the vehicles by name.
func (s *Store) Vehicles() ([]Vehicle, error) {
	return listed(s, "vehicles.name", vehicleRow.toVehicle, "Engine")
}

// Vehicle finds one vehicle.
func (s *Store) Vehicle(id string) (Vehicle, error) {
	return one(s, id, vehicleRow.toVehicle, "Engine")
}

func (r vehicleRow) toVehicle() (Vehicle, error) {
	return Vehicle{r.ID, r.Name, r.Plate, r.OdometerKM, r.EngineID, r.Engine.Name, r.CreatedAt}, nil
}

// AddJob stores what a job starts from; ErrMissing where its vehicle is not stored.
func (s *Store) AddJob(j Job) error {
	sheet, err := compute.WriteSheet(j.Sheet)
	if err != nil {
		return err
	}
	leaves, err := writeLeaves(j.Leaves)
	if err != nil {
		return err
	}
	return translate(s.write.Create(&jobRow{ID: j.ID, VehicleID: j.Vehicle.ID, Sheet: string(sheet), Card: j.Card, HotPass: j.HotCard + 1, CardReason: j.CardReason,
		Aim: string(j.Aim), AimReason: j.AimReason, Rule: string(j.Rule), FeelNM: int64(j.Feel), GaugeName: j.GaugeName,
		Leaves: leaves, Mechanic: j.Mechanic, Reason: j.Reason, OdometerKM: j.OdometerKM, CreatedAt: j.CreatedAt}).Error)
}

// Jobs lists all jobs, newest first.
func (s *Store) Jobs() ([]Job, error) {
	return listed(s, "jobs.created_at desc, jobs.id", jobRow.toJob, "Vehicle.Engine")
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
	return Job{r.ID, vehicle, sheet, r.Card, r.HotPass - 1, r.CardReason, clearance.Aim(r.Aim), r.AimReason, clearance.Rule(r.Rule),
		measure.Length(r.FeelNM), r.GaugeName, leaves, r.Mechanic, r.Reason, r.OdometerKM, r.CreatedAt}, err
}

// listed reads all rows of a kind in an order, with the named associations, and maps each.
func listed[Row, Record any](s *Store, order string, to func(Row) (Record, error), preload ...string) ([]Record, error) {
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
func one[Row, Record any](s *Store, id string, to func(Row) (Record, error), preload ...string) (Record, error) {
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
