package record

import (
	"math"
	"slices"
	"strings"
	"time"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/wear"
)

// Visit is what a finished job tells of its vehicle. Nothing of it is in words but what somebody wrote.
type Visit struct {
	At      time.Time // when it was signed for good
	Meter   int       // what the counter showed when the job began; it is the keeper's to fill in
	State   clearance.State
	Source  string // of the limits
	By      string // who signed
	Outcome job.Outcome
	Tight   int       // valves found tight, in the pass that finished the job
	Loose   int       // and loose
	Later   []Remark  // findings left for later
	PutOff  time.Time // the earliest day until which a valve, or the job, was put off; the zero time: to none
	Valves  []wear.Found
}

// Remark is a finding as it was written down: where, and what.
type Remark struct{ Place, What string }

// String is a remark in a line: "gasket: hard".
func (r Remark) String() string { return r.Place + ": " + r.What }

// Visit is what a job tells when it is finished: each valve as found and as left, in the pass that finished
// it. A gap is nil where only a side is known, or nothing. ok is false before the job is signed for good.
//
// A provisional job's cold figures are left out: found cold and left hot are two different gaps.
func (j Told) Visit() (v Visit, ok bool) {
	if j.Phase() != job.Done {
		return v, false
	}
	v = Visit{
		At:      j.SignedAt.UTC(),
		State:   j.Card.State,
		Source:  j.Card.Source,
		By:      j.SignedBy,
		Outcome: j.Outcome(),
		PutOff:  j.PutOffUntil(),
	}
	v.Tight, v.Loose = j.FoundOut()
	for _, f := range j.Later() {
		v.Later = append(v.Later, Remark{f.Place, f.What})
	}
	for _, s := range j.Valves {
		found := wear.Found{Valve: s.Name, Window: s.Limits.Window, Found: figure(s.AsFound),
			Left: figure(s.Last), FoundU: figureU(s.AsFound), LeftU: figureU(s.Last), LeftOut: j.LeftOut(s)}
		if found.Found != nil || found.Left != nil || found.LeftOut != wear.None {
			v.Valves = append(v.Valves, found)
		}
	}
	return v, true
}

// History is what a vehicle's finished jobs, oldest first, tell of its wear, with the intervals after which
// it is due.
//
// Its wear is reckoned from the visits of the thermal state of the last one, for a gap found hot and one
// found cold are two things; and from those alone whose counter rises and whose day does not fall. One whose
// counter was not read does not stand at none: it is left out where another's was.
func History(finished []Visit, by measure.Counter, intervals []wear.Interval) wear.History {
	h := wear.History{By: by, Intervals: intervals}
	read := slices.ContainsFunc(finished, func(v Visit) bool { return v.Meter > 0 })
	for _, v := range finished {
		f := wear.Finished{At: v.At, PutOff: v.PutOff}
		for _, x := range v.Valves {
			if x.LeftOut != wear.None {
				f.Left = append(f.Left, wear.LeftOut{Valve: x.Valve, Side: x.LeftOut})
			}
		}
		h.Finished = append(h.Finished, f)
		n := len(h.Visits)
		if v.Meter == 0 && read || v.State != finished[len(finished)-1].State ||
			n > 0 && (float64(v.Meter) <= h.Visits[n-1].Meter ||
				v.At.Before(h.Visits[n-1].Date)) {
			continue
		}
		h.Visits = append(
			h.Visits,
			wear.Visit{Meter: float64(v.Meter), Date: v.At, Valves: v.Valves},
		)
	}
	return h
}

// PutOffUntil is the earliest day until which a valve, or the whole job, was put off; the zero time: to no
// day.
func (j Told) PutOffUntil() (day time.Time) {
	all := []job.Deferral{j.Deferred}
	for _, v := range j.Valves {
		all = append(all, v.PutOff)
	}
	for _, d := range all {
		on, err := time.Parse(time.DateOnly, strings.TrimSpace(d.Until))
		if err == nil && d.Waits == job.WaitsForDate && (day.IsZero() || on.Before(day)) {
			day = on
		}
	}
	return day
}

// figure is the gap of a result as one figure; nil where it has none, or does not count.
func figure(r *job.Result) *measure.Length {
	if r == nil || r.Void() != "" {
		return nil
	}
	return r.Judgement.Estimate
}

// figureU is the standard uncertainty of that gap: half the interval in which it lies, over √3, all of it
// being equally likely (JCGM 100 4.3.7).
func figureU(r *job.Result) *measure.Length {
	if figure(r) == nil || r.Judgement.High == nil {
		return nil
	}
	half := (*r.Judgement.High - r.Judgement.Low).Millimetres() / 2
	return new(measure.FromMillimetres(half / math.Sqrt(3)))
}

// FoundOut counts the valves found tight and loose, in the pass that finished the job.
func (j Told) FoundOut() (tight, loose int) {
	for _, v := range j.Valves {
		if v.AsFound == nil {
			continue
		}
		switch v.AsFound.Judgement.Verdict {
		case clearance.Tight:
			tight++
		case clearance.Loose:
			loose++
		}
	}
	return tight, loose
}
