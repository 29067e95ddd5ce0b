package report

import (
	"fmt"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"
)

// DueEntry is one vehicle that is due.
type DueEntry struct {
	VehicleID, Vehicle, Plate string
	On                        time.Time // the day
	At                        string    // what its counter shows then, in words; empty: not known
	Because                   string
}

// DueCalendar writes the vehicles that are due as an iCalendar of all-day events (RFC 5545). An event keeps
// its UID while its day moves, so that a calendar that subscribes moves it too.
func DueCalendar(list []DueEntry, now time.Time) string {
	c := ics.NewCalendarFor("Metronix")
	c.SetMethod(ics.MethodPublish)
	c.SetXWRCalName("Valve clearances due")
	for _, d := range list {
		e := c.AddEvent(d.VehicleID + "@metronix")
		e.SetDtStampTime(now.UTC())
		e.SetAllDayStartAt(d.On)
		e.SetAllDayEndAt(d.On.AddDate(0, 0, 1))
		e.SetSummary("Valve clearances: " + strings.TrimSpace(d.Vehicle+" "+d.Plate))
		text := d.Because
		if d.At != "" {
			text = fmt.Sprintf("At %s. %s", d.At, text)
		}
		e.SetDescription(text)
	}
	return c.Serialize(ics.WithNewLineWindows)
}
