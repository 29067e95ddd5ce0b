package wire

import (
	"fmt"
	"strconv"

	"metronix/core/measure"
)

// Counted is what a vehicle's counter shows: kilometres, or the running hours of a machine that does not
// drive. One of the two is 0, and both where it was not read.
type Counted struct {
	OdometerKM int `json:"odometer_km"`
	Hours      int `json:"hours,omitempty" doc:"running hours, of a vehicle that counts them, in place of odometer_km"`
}

// CountedBody is that as it is sent: the one or the other, or neither.
type CountedBody struct {
	OdometerKM int `json:"odometer_km,omitempty" minimum:"0" maximum:"9999999" doc:"0 or absent: it was not read"`
	Hours      int `json:"hours,omitempty" minimum:"0" maximum:"9999999" doc:"running hours, of a vehicle that counts them, in place of odometer_km"`
}

// CountedOf is what a counter shows, under its name.
func CountedOf(by measure.Counter, shown int) Counted {
	if by == measure.HourMeter {
		return Counted{Hours: shown}
	}
	return Counted{OdometerKM: shown}
}

// Shown is what the counter of a vehicle shows; it errs where the figure of the other one is given. place is
// the name of the field at fault.
func (c Counted) Shown(by measure.Counter) (shown int, place string, err error) {
	if by == measure.HourMeter {
		return c.Hours, "odometer_km", one(c.OdometerKM, "kilometres", "running hours")
	}
	return c.OdometerKM, "hours", one(c.Hours, "running hours", "kilometres")
}

// one refuses a figure of the counter that a vehicle does not have.
func one(other int, got, counts string) error {
	if other == 0 {
		return nil
	}
	return fmt.Errorf("%d %s are given, and this vehicle counts %s", other, got, counts)
}

// Shown is a counter in a cell of a table; empty where it was not read.
func Shown(n int) string {
	if n == 0 {
		return ""
	}
	return strconv.Itoa(n)
}
