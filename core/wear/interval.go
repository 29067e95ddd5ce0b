package wear

import (
	"math"
	"time"
)

// Interval is after how far or how long a vehicle is due, and who says so. Several may be in dispute: each is
// kept, and the shortest decides, whoever is right.
type Interval struct {
	KM     int // 0: none by distance
	Months int // 0: none by time; of one that comes again and again
	Source string
	// OnceFrom is the day from which it is due a single time, such as that of a new cam, which the source
	// then names; the zero time: it comes again and again
	OnceFrom time.Time
	Weeks    int // of one that is due once; 0: none by time
	FromKM   int // the odometer then, of one that is due once; 0: not known
}

// once is what falls due a single time; ok is false for what comes again and again.
func (i Interval) once() (o Once, ok bool) {
	if i.OnceFrom.IsZero() {
		return o, false
	}
	o = Once{What: i.Source, From: i.OnceFrom, FromKM: math.NaN(), Weeks: i.Weeks, KM: float64(i.KM)}
	if i.FromKM > 0 {
		o.FromKM = float64(i.FromKM)
	}
	return o, true
}

// Shortest are the shortest distance, km, and the shortest time, months, of what comes again and again; 0
// where there is none.
func Shortest(list []Interval) (km float64, months int) {
	for _, i := range list {
		if _, once := i.once(); once {
			continue
		}
		if i.KM > 0 && (km == 0 || float64(i.KM) < km) {
			km = float64(i.KM)
		}
		if i.Months > 0 && (months == 0 || i.Months < months) {
			months = i.Months
		}
	}
	return km, months
}
