package rehearse

import (
	"fmt"
	"slices"
	"time"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/thermal"
)

// Pace is how long a mechanic takes for each thing done at the engine.
type Pace struct {
	Read, Set, Lock, Turn, Find time.Duration
}

// UsualPace is taken until a mechanic's own is known: twelve seconds a reading, however many leaves, 35 for
// setting and locking, ten a turn, a minute to find the crank (from memory).
func UsualPace() Pace {
	return Pace{Read: 12 * time.Second, Set: 25 * time.Second, Lock: 10 * time.Second, Turn: 10 * time.Second,
		Find: time.Minute}
}

// How many times something must have been timed before its median counts, and the longest that still is work
// and not an interruption (from memory).
const (
	enoughTimes = 3
	longestWork = 5 * time.Minute
)

// PaceOf is this mechanic's, from the times between the happenings of this job: the median of each, and the
// usual one where too few are known.
//
// own says that some of it is the mechanic's own.
func PaceOf(j *job.Job) (p Pace, own bool) {
	p = UsualPace()
	spans := map[*time.Duration][]time.Duration{}
	for i, h := range j.Standing() {
		if i == 0 || h.At.IsZero() {
			continue
		}
		into := p.of(h.Act)
		if span := h.At.Sub(j.Standing()[i-1].At); into != nil && span > 0 && span <= longestWork {
			spans[into] = append(spans[into], span)
		}
	}
	for into, list := range spans {
		if len(list) >= enoughTimes {
			slices.Sort(list)
			*into, own = list[len(list)/2], true
		}
	}
	return p, own
}

// of is the part of a pace that an act tells of; nil: none.
func (p *Pace) of(a job.Act) *time.Duration {
	switch a.(type) {
	case job.ReadingTaken, job.DialRead:
		return &p.Read
	case job.Adjusted:
		return &p.Set
	case job.Locked:
		return &p.Lock
	case job.Turned:
		return &p.Turn
	case job.Located:
		return &p.Find
	}
	return nil
}

// LastRead is how long after the crank was found the last valve of a rehearsal is read, its check round left
// out.
func (r Rehearsal) LastRead(p Pace) time.Duration {
	var at, last time.Duration
	for _, s := range r.Steps {
		switch s.Do {
		case DoingCheckTurn:
			return last
		case DoingRead:
			at += p.Read
			last = at
		case DoingSet:
			at += p.Set
		case DoingLock, DoingFree:
			at += p.Lock
		case DoingTurn:
			at += p.Turn
		}
	}
	return last
}

// HotForecast is when the last valve of a hot pass comes after the engine was shut off, at this mechanic's
// pace: with every valve in, and with every one out.
type HotForecast struct {
	AllIn, AllOut time.Duration
	Own           bool // by what is known of this mechanic; else by the usual pace
}

// Forecast plays the hot pass through before it starts; ok is false where no hot pass is ahead or the
// engine is not gone round so.
func Forecast(j *job.Job) (f HotForecast, ok bool) {
	card := &j.Card
	if j.Phase() == job.AwaitHot {
		card = j.Hot
	}
	if card.State != clearance.Hot || j.Way.School == "" || j.GateOpen() && j.Phase() != job.AwaitHot {
		return f, false
	}
	pace, own := PaceOf(j)
	f.Own = own
	play := func(out []string) (time.Duration, bool) {
		r, err := Play(Rehearsing{Sheet: j.Sheet, Way: j.Way, Round: j.Round, Card: card, Out: out,
			BackAllowed: j.BackReason != ""})
		return pace.Find + r.LastRead(pace), err == nil
	}
	var all []string
	for _, v := range j.Valves {
		if !v.Outside {
			all = append(all, v.Name)
		}
	}
	f.AllIn, ok = play(nil)
	if !ok {
		return f, false
	}
	f.AllOut, ok = play(all)
	return f, ok
}

// String says it in a sentence, with what to do where the hot figures hold no longer.
func (f HotForecast) String() string {
	minutes := func(d time.Duration) int { return int((d + time.Minute/2) / time.Minute) }
	pace := "At a usual pace"
	if f.Own {
		pace = "At your pace"
	}
	says := fmt.Sprintf("%s the last valve comes after %d min with all in, %d with all out.",
		pace,
		minutes(f.AllIn), minutes(f.AllOut))
	switch {
	case f.AllIn > job.HotFor:
		return says + " Do it in two warm-ups."
	case f.AllOut > job.HotFor:
		return says + fmt.Sprintf(" Hot figures hold for %v: with many out, two warm-ups.",
			thermal.HotMinutes)
	}
	return says + fmt.Sprintf(" That is inside the %v min that hot figures hold.", thermal.HotMinutes)
}
