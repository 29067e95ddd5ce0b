package store

import (
	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Visited is a finished job of a vehicle, and what it tells of wear.
type Visited struct {
	JobID string
	Visit string
}

// Visits lists a vehicle's finished jobs, oldest first, those taken off the board left out.
func (s *Store) Visits(vehicleID string) (list []Visited, err error) {
	err = s.read.Raw("SELECT job_id, visit FROM jobs JOIN job_states ON job_id = jobs.id "+
		"WHERE vehicle_id = ? AND "+
		"visit <> '' AND NOT jobs.off_board ORDER BY jobs.created_at, job_id", vehicleID).Scan(&list).Error
	return list, translate(err)
}

// Due is when a vehicle is due next, and why. On is a date, 2006-01-02, empty where none is known; KM is 0
// then.
type Due struct {
	VehicleID, Name, Plate string
	DueOn                  string
	DueKM                  int
	Because                string
}

// PutDue stores when a vehicle is due.
func (s *Store) PutDue(d Due) error {
	row := dueRow{d.VehicleID, d.DueOn, d.DueKM, d.Because}
	return s.acknowledge(s.write.Clauses(clause.OnConflict{Columns: []clause.Column{{Name: "vehicle_id"}},
		UpdateAll: true}).Create(&row).Error)
}

const dueColumns = "SELECT vehicle_id, name, plate, due_on, due_km, because FROM dues JOIN " +
	"vehicles ON vehicles.id = " +
	"vehicle_id WHERE NOT off_board AND "

// Dues lists the vehicles that are due, the earliest first.
func (s *Store) Dues(limit int) (list []Due, err error) {
	err = s.read.Raw(dueColumns+"due_on <> '' ORDER BY due_on, name LIMIT ?", limit).Scan(&list).Error
	return list, translate(err)
}

// DueOf is when one vehicle is due; the zero Due where nothing is known.
func (s *Store) DueOf(vehicleID string) (d Due, err error) {
	err = s.read.Raw(dueColumns+"vehicle_id = ?", vehicleID).Scan(&d).Error
	return d, translate(err)
}

// StoredDue is when a vehicle is stored to be due, on the lists or not, and whether anything is stored of that.
func (s *Store) StoredDue(vehicleID string) (d Due, stored bool, err error) {
	var rows []dueRow
	if err := s.read.Where("vehicle_id = ?", vehicleID).Find(&rows).Error; err != nil || len(rows) == 0 {
		return d, false, translate(err)
	}
	r := rows[0]
	return Due{VehicleID: r.VehicleID, DueOn: r.DueOn, DueKM: r.DueKM, Because: r.Because}, true, nil
}

// Undue lists the vehicles with a finished job of which nobody has reckoned yet when they are due.
func (s *Store) Undue() (ids []string, err error) {
	err = s.read.Raw("SELECT DISTINCT vehicle_id FROM jobs JOIN job_states ON job_id = jobs.id " +
		"WHERE visit <> '' AND " +
		"vehicle_id NOT IN (SELECT vehicle_id FROM dues) ORDER BY vehicle_id").Scan(&ids).Error
	return ids, translate(err)
}

// SearchVehicles lists the vehicles whose name, plate or engine holds a text, by name, and says how many
// there are; an empty text finds all.
func (s *Store) SearchVehicles(text string, limit, offset int) (list []Vehicle, total int64, err error) {
	db := s.read.Model(&vehicleRow{}).Joins("Engine")
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
