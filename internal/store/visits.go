package store

import (
	"errors"
	"fmt"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"metronix/core/clearance"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/core/wear"
)

// Visited is a finished job of a vehicle, and what it tells.
type Visited struct {
	JobID string
	record.Visit
}

// Visits lists a vehicle's finished jobs, oldest first, those taken off the board left out. One that does not
// read is named among the damaged: it follows from its job's list, and can be made anew.
func (s *Store) Visits(vehicleID string) (list []Visited, damaged []Damaged, err error) {
	var rows []visitRow
	err = s.read.Joins("JOIN jobs ON jobs.id = visits.job_id").
		Where("jobs.vehicle_id = ? AND NOT jobs.off_board", vehicleID).
		Order("jobs.created_at, visits.job_id").
		Preload("Valves", inOrder).
		Preload("Remarks", inOrder).
		Find(&rows).
		Error
	if err != nil {
		return nil, nil, translate(err)
	}
	for _, r := range rows {
		v, err := r.visit()
		if err != nil {
			damaged = append(damaged, Damaged{ID: r.JobID, Why: err.Error()})
			continue
		}
		list = append(list, Visited{r.JobID, v})
	}
	return list, damaged, nil
}

// inOrder gives the lines of a thing in the order in which they were entered.
func inOrder(db *gorm.DB) *gorm.DB { return db.Order("n") }

// visitOf is what a job is stored to tell; nil where it is not finished.
func (s *Store) visitOf(jobID string) (*record.Visit, error) {
	var rows []visitRow
	if err := s.read.Where("job_id = ?", jobID).Preload("Valves", inOrder).Preload("Remarks", inOrder).
		Find(&rows).Error; err != nil || len(rows) == 0 {
		return nil, translate(err)
	}
	v, err := rows[0].visit()
	return &v, err
}

// putVisit writes what a finished job tells in place of what it told; nil where it is not finished. had is
// false where nothing can be there.
func putVisit(tx *gorm.DB, jobID string, v *record.Visit, had bool) error {
	if had {
		if err := tx.Delete(&visitRow{JobID: jobID}).Error; err != nil {
			return err
		}
	}
	if v == nil {
		return nil
	}
	row := rowOfVisit(jobID, *v)
	return tx.Create(&row).Error
}

// rowOfVisit is a finished job as its vehicle's history keeps it: what follows from the list, in columns, so
// that wear is reckoned without playing jobs through.
func rowOfVisit(jobID string, v record.Visit) visitRow {
	row := visitRow{
		JobID:    jobID,
		At:       v.At,
		Meter:    v.Meter,
		State:    string(v.State),
		Source:   v.Source,
		SignedBy: v.By,
		Outcome:  codesOfOutcome(v.Outcome),
		Tight:    v.Tight,
		Loose:    v.Loose,
		PutOff:   dayOf(v.PutOff),
	}
	for n, x := range v.Valves {
		row.Valves = append(row.Valves, visitValveRow{jobID, n, x.Valve, (*int64)(x.Found), (*int64)(x.Left),
			(*int64)(
				x.FoundU,
			), (*int64)(x.LeftU), int64(x.Window.Lower), int64(x.Window.Upper), string(x.LeftOut)})
	}
	for n, r := range v.Later {
		row.Remarks = append(row.Remarks, visitRemarkRow{jobID, n, r.Place, r.What})
	}
	return row
}

// visit reads that back; it errs where a code of it was damaged.
func (r visitRow) visit() (v record.Visit, err error) {
	v = record.Visit{
		At:     r.At.UTC(),
		Meter:  r.Meter,
		State:  clearance.State(r.State),
		Source: r.Source,
		By:     r.SignedBy,
		Tight:  r.Tight,
		Loose:  r.Loose,
	}
	outcome, err := outcomeOf(r.Outcome)
	putOff, dayErr := onDay(r.PutOff)
	if err := errors.Join(err, dayErr); err != nil {
		return v, fmt.Errorf(
			"%w: what is known of finished job %s does not read: %w",
			ErrDamaged,
			r.JobID,
			err,
		)
	}
	v.Outcome, v.PutOff = outcome, putOff
	for _, x := range r.Valves {
		v.Valves = append(v.Valves, wear.Found{Valve: x.Valve, Found: (*measure.Length)(x.FoundNM),
			Left: (*measure.Length)(
				x.LeftNM,
			), FoundU: (*measure.Length)(x.FoundUNM), LeftU: (*measure.Length)(x.LeftUNM),
			Window:  measure.Window{Lower: measure.Length(x.LowerNM), Upper: measure.Length(x.UpperNM)},
			LeftOut: wear.Side(x.LeftOut)})
	}
	for _, x := range r.Remarks {
		v.Later = append(v.Later, record.Remark{Place: x.Place, What: x.What})
	}
	return v, nil
}

// dayOf writes a day; empty for none.
func dayOf(day time.Time) string {
	if day.IsZero() {
		return ""
	}
	return day.Format(time.DateOnly)
}

// onDay reads a day; the zero time for none.
func onDay(text string) (time.Time, error) {
	if text == "" {
		return time.Time{}, nil
	}
	return time.Parse(time.DateOnly, text)
}

// Due is when a vehicle is due next, and why. On is a date, 2006-01-02, empty where none is known.
type Due struct {
	VehicleID, Name, Plate string
	DueOn                  string
	DueAt                  int // what the counter shows then; 0: not known
	Cause                  wear.Cause
}

// dueRead is a due as it is read with its vehicle.
type dueRead struct {
	VehicleID, Name, Plate, DueOn string
	DueKM                         int
	Cause                         string
}

// due reads it; a cause that does not read is none that is known, and made anew by a rebuild.
func (r dueRead) due() Due {
	cause, err := causeOf(r.Cause)
	if err != nil {
		cause = wear.Cause{Kind: wear.Unknown}
	}
	return Due{r.VehicleID, r.Name, r.Plate, r.DueOn, r.DueKM, cause}
}

// PutDue stores when a vehicle is due.
func (s *Store) PutDue(d Due) error {
	row := dueRow{d.VehicleID, d.DueOn, d.DueAt, codesOfCause(d.Cause)}
	return s.acknowledge(s.write.Clauses(clause.OnConflict{Columns: []clause.Column{{Name: "vehicle_id"}},
		UpdateAll: true}).Create(&row).Error)
}

// dueColumns are a vehicle that is due, its cause in codes.
const dueColumns = "SELECT vehicle_id, name, plate, due_on, due_km, cause FROM dues JOIN " +
	"vehicles ON vehicles.id = " +
	"vehicle_id WHERE NOT off_board AND "

// Dues lists the vehicles that are due, the earliest first.
func (s *Store) Dues(limit int) (list []Due, err error) {
	var rows []dueRead
	err = s.read.Raw(dueColumns+"due_on <> '' ORDER BY due_on, name LIMIT ?", limit).Scan(&rows).Error
	for _, r := range rows {
		list = append(list, r.due())
	}
	return list, translate(err)
}

// DueOf is when one vehicle is due; the zero Due where nothing is known.
func (s *Store) DueOf(vehicleID string) (Due, error) {
	var r dueRead
	err := s.read.Raw(dueColumns+"vehicle_id = ?", vehicleID).Scan(&r).Error
	return r.due(), translate(err)
}

// StoredDue is when a vehicle is stored to be due, on the lists or not, and whether anything is stored of
// that.
func (s *Store) StoredDue(vehicleID string) (d Due, stored bool, err error) {
	var rows []dueRow
	if err := s.read.Where("vehicle_id = ?", vehicleID).Find(&rows).Error; err != nil || len(rows) == 0 {
		return d, false, translate(err)
	}
	r := rows[0]
	return dueRead{VehicleID: r.VehicleID, DueOn: r.DueOn, DueKM: r.DueKM, Cause: r.Cause}.due(), true, nil
}

// Undue lists the vehicles with a finished job, or a visit to another shop, of which nobody has reckoned yet
// when they are due.
func (s *Store) Undue() (ids []string, err error) {
	err = s.read.Raw("SELECT id FROM vehicles WHERE (outside <> '' OR id IN (SELECT vehicle_id FROM jobs JOIN visits " +
		"ON job_id = jobs.id)) AND id NOT IN (SELECT vehicle_id FROM dues) ORDER BY id").Scan(&ids).Error
	return ids, translate(err)
}

// SearchVehicles lists the vehicles whose name, plate or engine holds a text, by name, and says how many
// there are; an empty text finds all.
func (s *Store) SearchVehicles(text string, limit, offset int) (list []Vehicle, total int64, err error) {
	db := s.read.Model(&vehicleRow{}).Joins("Engine").Preload("Intervals", inOrder)
	if text != "" {
		like := "%" + escapeLike(text) + "%"
		db = db.Where("vehicles.name LIKE ? ESCAPE '!' OR vehicles.plate LIKE ? ESCAPE '!' OR "+
			"Engine.name LIKE ? ESCAPE "+
			"'!'", like, like, like)
	}
	if err := db.Session(&gorm.Session{}).Count(&total).Error; err != nil {
		return nil, 0, translate(err)
	}
	var rows []vehicleRow
	if err := db.Session(&gorm.Session{}).Order("vehicles.name, vehicles.id").Limit(limit).Offset(offset).
		Find(&rows).Error; err != nil {
		return nil, 0, translate(err)
	}
	for _, row := range rows {
		list = append(list, row.toVehicle())
	}
	return list, total, nil
}
