package wear

import (
	"math"
	"time"
)

// Interval is after how far, by its counter, or how long a vehicle is due, and who says so. Several may be in
// dispute: each is kept, and the shortest decides, whoever is right.
type Interval struct {
	Run    int // km, or running hours, by the vehicle's counter; 0: none
	Months int // 0: none by time; of one that comes again and again
	Source string
	// OnceFrom is the day from which it is due a single time, such as that of a new cam, which the source
	// then names; the zero time: it comes again and again
	OnceFrom  time.Time
	Weeks     int // of one that is due once; 0: none by time
	FromMeter int // what the counter showed then, of one that is due once; 0: not known
}

// once is what falls due a single time; ok is false for what comes again and again.
func (i Interval) once() (o Once, ok bool) {
	if i.OnceFrom.IsZero() {
		return o, false
	}
	o = Once{What: i.Source, From: i.OnceFrom, FromMeter: math.NaN(), Weeks: i.Weeks, Run: float64(i.Run)}
	if i.FromMeter > 0 {
		o.FromMeter = float64(i.FromMeter)
	}
	return o, true
}

// Shortest are the shortest run and the shortest time of what comes again and again.
func Shortest(list []Interval) (every Every) {
	for _, i := range list {
		if _, once := i.once(); once {
			continue
		}
		if i.Run > 0 && (every.Run == 0 || float64(i.Run) < every.Run) {
			every.Run = float64(i.Run)
		}
		if i.Months > 0 && (every.Months == 0 || i.Months < every.Months) {
			every.Months = i.Months
		}
	}
	return every
}
