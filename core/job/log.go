package job

import (
	"slices"

	"metronix/core/measure"
	"metronix/core/sequence"
)

// log remembers of every happening, those taken back too, what a later one may have to know that was based on an older view of
// the job: whether the crank was moved, where it then stood, and which valve's readings were kept or made void.
type log struct {
	index   map[string]int
	entries []entry
}

type entry struct {
	moves  bool
	place  sequence.Range
	known  bool // where the crank stood afterwards
	closes string
}

// moves says that a kind of happening changes where the crank stands, or what its stops are.
func (k Kind) moves() bool {
	return slices.Contains([]Kind{WayChosen, Prepared, Turned, Located, Doubted, BarredOver, WentHot}, k)
}

// closes is the valve whose readings a happening closes.
func (h Happening) closes() string {
	if slices.Contains([]Kind{Kept, Adjusted, Locked, LeftAsIs}, h.Kind) {
		return h.Valve
	}
	return ""
}

// note adds a happening that was taken. The crank's place is known only where it stands.
func (l *log) note(h Happening, j *Job) {
	if l.index == nil {
		l.index = map[string]int{}
	}
	l.index[h.ID] = len(l.entries)
	l.entries = append(l.entries, entry{moves: h.Kind.moves(), closes: h.closes(), place: j.Place, known: j.CrankKnown})
}

// back adds a happening that takes another one back: whatever that one did, this one changes again.
func (l *log) back(id, target string) {
	e := entry{}
	if i, ok := l.index[target]; ok {
		e.moves, e.closes = l.entries[i].moves, l.entries[i].closes
		l.entries[i].known = false
	}
	l.index[id] = len(l.entries)
	l.entries = append(l.entries, e)
}

// since is the index of a happening; the newest for an empty id, −1 for one that is not here.
func (l *log) since(id string) int {
	if id == "" {
		return len(l.entries) - 1
	}
	if i, ok := l.index[id]; ok {
		return i
	}
	return -1
}

// movedAfter says whether the crank was moved after a happening, closedAfter whether a valve's readings were closed.
func (l *log) movedAfter(at int) bool {
	return slices.ContainsFunc(l.entries[at+1:], func(e entry) bool { return e.moves })
}

func (l *log) closedAfter(at int, valve string) bool {
	return slices.ContainsFunc(l.entries[at+1:], func(e entry) bool { return e.closes == valve })
}

// placeAt is where the crank stood when a happening was the newest; ok is false where that is not known.
func (l *log) placeAt(at int) (place sequence.Range, ok bool) {
	for i := at; i >= 0; i-- {
		if e := l.entries[i]; e.moves {
			return e.place, e.known
		}
	}
	return sequence.Range{}, false
}

// outdated refuses what a stale screen must not do: turn a crank that somebody else has moved, or read a valve at a place where the
// crank stands no more, unless it says that it was read there.
func (j *Job) outdated(h Happening) error {
	at := j.log.since(h.Since)
	reading := h.Kind == ReadingHad || h.Kind == DialRead
	switch {
	case h.Since == "" || (!reading && h.Kind != Turned):
		return nil
	case reading && (at < 0 || j.log.closedAfter(at, h.Valve)):
		return &Refusal{Field: "valve", Code: KeptSince, Message: h.Valve + " was read and kept by somebody else since. Read it again if this reading still counts."}
	case h.Kind == Turned && (at < 0 || j.log.movedAfter(at)):
		return &Refusal{Field: "stop", Code: CrankMoved, Message: "The crank was moved since this screen was drawn. Look where it stands now before it is turned."}
	case reading && !h.MadeThere && j.log.movedAfter(at):
		return &Refusal{Field: "valve", Code: CrankMoved, Message: "The crank was moved after this reading of " + h.Valve + ". Keep it for the place where it was made, or read it again."}
	}
	return nil
}

// clearThere says whether a valve stood clear where the crank was when a reading was made.
func (j *Job) clearThere(v *ValveState, since string) (margin measure.Angle, ok bool) {
	place, known := j.log.placeAt(j.log.since(since))
	if !known {
		return 0, false
	}
	margin = sequence.LeastMargin(j.Cycle, v.Valve, place)
	return margin, margin >= j.required || j.byMaker(v, place)
}
