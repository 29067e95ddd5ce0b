package store

import (
	"cmp"
	"errors"
	"fmt"
	"strconv"
	"time"

	"gorm.io/gorm"

	"metronix/core/clearance"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/core/wear"
	"metronix/internal/wire"
)

// Vehicle is what an engine sits in.
type Vehicle struct {
	ID         string
	Name       string
	Plate      string
	Counter    measure.Counter // what counts how far it runs
	Meter      int             // what that shows: km, or running hours
	EngineID   string
	EngineName string
	CreatedAt  time.Time
	OffBoard   bool
	Intervals  []wear.Interval
	Cards      []clearance.Card // of a cam that was changed: this vehicle's, not its engine's
	Outside    []record.Outside // visits to other shops, from their sheets, by their days
	// OdometerWhy is why its counter was put back last; empty: it never was
	OdometerWhy string
	Version     string // of name, plate, counter and engine as stored; not read where it is written
	Damaged     string // why a part of it does not read; empty: all do
}

// AddVehicle stores a vehicle; ErrMissing where its engine is not stored.
func (s *Store) AddVehicle(v Vehicle) error {
	row, err := rowOfVehicle(v)
	if err != nil {
		return err
	}
	return s.acknowledge(s.write.Create(&row).Error)
}

// ReplaceVehicle corrects a vehicle's name, plate, odometer and engine, where version is empty or still that
// of what is stored: ErrChanged where somebody changed it meanwhile, ErrBackwards where the counter would
// show less than it does and nothing says why (0: it was not read, and stays), ErrCounted where it would
// count otherwise than its jobs, or its visits to other shops, ErrNotFound where there is none, ErrMissing
// where its engine is not stored. What else is known of it stays as it is.
func (s *Store) ReplaceVehicle(v Vehicle, version string) error {
	return s.acknowledge(s.write.Transaction(func(tx *gorm.DB) error {
		var row vehicleRow
		if err := tx.Where("id = ?", v.ID).Take(&row).Error; err != nil {
			return err
		}
		if version != "" && row.version() != version {
			return ErrChanged
		}
		set := map[string]any{
			"name":        v.Name,
			"plate":       v.Plate,
			"odometer_km": v.Meter,
			"counter":     string(v.Counter),
			"engine_id":   v.EngineID,
		}
		if string(v.Counter) != row.Counter {
			var jobs int64
			if err := tx.Model(&jobRow{}).Where("vehicle_id = ?", v.ID).Count(&jobs).Error; err != nil {
				return err
			}
			if jobs > 0 || row.Outside != "" { // those are counted too, and would read no more
				return ErrCounted
			}
			row.Meter = 0 // of the other counter
		}
		switch {
		case v.Meter >= row.Meter:
		case v.OdometerWhy != "":
			set["odometer_why"] = v.OdometerWhy
		case v.Meter == 0: // it was not read
			delete(set, "odometer_km")
		default:
			return fmt.Errorf("%w: it showed %d", ErrBackwards, row.Meter)
		}
		return tx.Model(&vehicleRow{ID: v.ID}).Updates(set).Error
	}))
}

// version tells one state of what ReplaceVehicle replaces from another.
func (r vehicleRow) version() string {
	return sumOf(r.Name, r.Plate, strconv.Itoa(r.Meter)+r.Counter, r.EngineID)[:16]
}

// SetIntervals stores a vehicle's intervals in place of those it had, and nothing else of it; ErrNotFound
// where there is no such vehicle.
func (s *Store) SetIntervals(id string, intervals []wear.Interval) error {
	return s.acknowledge(s.write.Transaction(func(tx *gorm.DB) error {
		found := tx.Model(&vehicleRow{}).
			Where("id = ?", id).
			Update("intervals", "")
			// those that did not read are gone now
		if found.Error != nil || found.RowsAffected == 0 {
			return cmp.Or(found.Error, gorm.ErrRecordNotFound)
		}
		if err := tx.Where("vehicle_id = ?", id).Delete(&intervalRow{}).Error; err != nil {
			return err
		}
		if len(intervals) == 0 {
			return nil
		}
		rows := rowsOfIntervals(id, intervals)
		return tx.Create(&rows).Error
	}))
}

// rowsOfIntervals are a vehicle's intervals in the order in which they were entered.
func rowsOfIntervals(vehicleID string, list []wear.Interval) (rows []intervalRow) {
	for n, i := range list {
		rows = append(
			rows,
			intervalRow{vehicleID, n, i.Run, i.Months, i.Source, dayOf(i.OnceFrom), i.Weeks, i.FromMeter},
		)
	}
	return rows
}

// intervals reads a vehicle's intervals; it errs where one does not read.
func (r vehicleRow) intervals() (list []wear.Interval, err error) {
	if r.Unread != "" {
		return nil, errors.New("they are no list")
	}
	for _, i := range r.Intervals {
		from, err := onDay(i.OnceFrom)
		if err != nil {
			return nil, err
		}
		list = append(
			list,
			wear.Interval{Run: i.Run, Months: i.Months, Source: i.Source, OnceFrom: from, Weeks: i.Weeks,
				FromMeter: i.FromMeter},
		)
	}
	return list, nil
}

// SetCards stores a vehicle's own cards, and nothing else of it; ErrNotFound where there is none.
func (s *Store) SetCards(id string, cards []clearance.Card) error {
	text, err := wire.WriteCards(cards)
	if err != nil {
		return err
	}
	return s.setOfVehicle(id, "cards", text)
}

// SetOutside stores a vehicle's visits to other shops in place of those it had, and nothing else of it;
// ErrNotFound where there is none.
func (s *Store) SetOutside(id string, visits []record.Outside, by measure.Counter) error {
	text, err := wire.WriteOutside(visits, by)
	if err != nil {
		return err
	}
	return s.setOfVehicle(id, "outside", text)
}

// SetOffBoard takes a vehicle off the lists, or brings it back; ErrNotFound where there is none.
func (s *Store) SetOffBoard(id string, off bool) error { return s.setOfVehicle(id, "off_board", off) }

// setOfVehicle changes one column and no other: two who change different things of a vehicle do not undo one
// another.
func (s *Store) setOfVehicle(id, column string, to any) error {
	return s.changed(s.write.Model(&vehicleRow{}).Where("id = ?", id).Update(column, to))
}

// rowOfVehicle is a vehicle's row, with its intervals and its own cards.
func rowOfVehicle(v Vehicle) (vehicleRow, error) {
	cards, err := wire.WriteCards(v.Cards)
	outside, notWritten := wire.WriteOutside(v.Outside, v.Counter)
	return vehicleRow{ID: v.ID, Name: v.Name, Plate: v.Plate, Meter: v.Meter, Counter: string(v.Counter), EngineID: v.EngineID,
		CreatedAt: v.CreatedAt, OffBoard: v.OffBoard, Intervals: rowsOfIntervals(v.ID, v.Intervals), Cards: cards,
		OdometerWhy: v.OdometerWhy, Outside: outside}, errors.Join(err, notWritten)
}

// RaiseMeter notes that a vehicle has run further than was known.
func (s *Store) RaiseMeter(id string, meter int) error {
	return s.acknowledge(s.write.Model(&vehicleRow{}).Where("id = ? AND odometer_km < ?", id,
		meter).Update("odometer_km", meter).Error)
}

// SetMeter notes what a vehicle's counter shows, though it showed more before.
func (s *Store) SetMeter(id string, meter int) error {
	return s.acknowledge(s.write.Model(&vehicleRow{}).Where("id = ?", id).Update("odometer_km", meter).Error)
}

// Vehicles lists the vehicles by name, those taken off the board too. One whose cards do not read says so,
// and hinders nobody.
func (s *Store) Vehicles() ([]Vehicle, error) {
	return listed(s, "vehicles.name", vehicleRow.toVehicle, "Engine", "Intervals")
}

// Vehicle finds one vehicle.
func (s *Store) Vehicle(id string) (Vehicle, error) {
	return one(s, id, sound(vehicleRow.toVehicle), "Engine", "Intervals")
}

// toVehicle reads a vehicle back. A part that does not read is told and left out; the vehicle with its name
// and odometer stays.
func (r vehicleRow) toVehicle() Vehicle {
	cards, err := wire.ReadCards(r.Cards)
	intervals, unread := r.intervals()
	outside, illegible := wire.ReadOutside(r.Outside, measure.Counter(r.Counter))
	damaged := ""
	switch {
	case err != nil:
		damaged = "Its own clearance cards do not read: enter them again."
	case unread != nil:
		damaged = "Its intervals do not read: enter them again."
	case illegible != nil:
		damaged = "Its visits to other shops do not read: enter them again."
	}
	return Vehicle{r.ID, r.Name, r.Plate, measure.Counter(r.Counter), r.Meter, r.EngineID, r.Engine.Name, r.CreatedAt, r.OffBoard,
		intervals, cards, outside, r.OdometerWhy, r.version(), damaged}
}
