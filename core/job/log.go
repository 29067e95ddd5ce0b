package job

import (
	"slices"

	"metronix/core/sequence"
)

// log remembers of every happening, those taken back too, what a later one may have to know that was based on
// an older view of the job: whether the crank was moved, where it then stood, and which valve's readings were
// kept or made void.
type log struct {
	index   map[string]int
	entries []entry
}

// entry is what is remembered of one happening.
type entry struct {
	moves  bool
	place  sequence.Range
	known  bool // where the crank stood afterwards
	closes string
	epoch  int // of the engine's heat
}

// note adds a happening that was taken. The crank's place is known only where it stands.
func (l *log) note(h Happening, j *Job) {
	if l.index == nil {
		l.index = map[string]int{}
	}
	l.index[h.ID] = len(l.entries)
	l.entries = append(l.entries, entry{
		moves: h.Act.moves(), closes: h.Act.closes(j), place: j.Place, known: j.Crank.Known,
		epoch: j.epoch,
	})
}

// void adds a happening that was taken back later: where it had left the crank is known no more.
func (l *log) void(h Happening, j *Job) {
	l.note(h, j)
	last := &l.entries[len(l.entries)-1]
	last.known, last.closes = false, h.Act.closes(nil)
}

// back adds a happening that takes another one back: whatever that one did, this one changes again.
func (l *log) back(id, target string, taken Act, epoch int) {
	e := entry{epoch: epoch}
	if i, ok := l.index[target]; ok {
		e.moves, e.closes = taken.moves(), taken.closes(nil)
		l.entries[i].known, l.entries[i].closes = false, e.closes
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

// movedAfter says whether the crank was moved after a happening, closedAfter whether a valve's readings were
// closed.
func (l *log) movedAfter(at int) bool {
	return slices.ContainsFunc(l.entries[at+1:], func(e entry) bool { return e.moves })
}

// closedAfter says whether a valve's readings were kept or made void after a happening.
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

// ranAfter says whether the engine ran after a happening, so that what was read then is of another warmth.
func (l *log) ranAfter(at, epoch int) bool { return at >= 0 && l.entries[at].epoch != epoch }
