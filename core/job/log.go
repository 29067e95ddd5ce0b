package job

import "metronix/core/sequence"

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
	epoch  int    // of the engine's heat
	screen string // on which it was entered; empty: it did not say
}

// note adds a happening that was taken. The crank's place is known only where it stands.
func (l *log) note(h Happening, j *Job) {
	if l.index == nil {
		l.index = map[string]int{}
	}
	l.index[h.ID] = len(l.entries)
	l.entries = append(l.entries, entry{
		moves: h.Act.moves(), closes: h.Act.closes(j), place: j.Place, known: j.Crank.Known,
		epoch: j.epoch, screen: h.Screen,
	})
}

// void adds a happening that was taken back later: where it had left the crank is known no more.
func (l *log) void(h Happening, j *Job) {
	l.note(h, j)
	last := &l.entries[len(l.entries)-1]
	last.known, last.closes = false, h.Act.closes(nil)
}

// back adds a happening that takes another one back: whatever that one did, this one changes again.
func (l *log) back(h Happening, target string, taken Act, epoch int) {
	e := entry{epoch: epoch, screen: h.Screen}
	if i, ok := l.index[target]; ok {
		e.moves, e.closes = taken.moves(), taken.closes(nil)
		l.entries[i].known, l.entries[i].closes = false, e.closes
	}
	l.index[h.ID] = len(l.entries)
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

// unseen says of some entry after another one that a screen did not know of it: it was entered elsewhere.
// What one screen enters comes in the order in which it was done there, so that it knows its own; one that
// does not say which it is knows nothing but what it says.
func (l *log) unseen(at int, screen string, is func(i int) bool) bool {
	for i := at + 1; i < len(l.entries); i++ {
		if (screen == "" || l.entries[i].screen != screen) && is(i) {
			return true
		}
	}
	return false
}

// entered says that a happening was entered after another one without a screen's knowing.
func (l *log) entered(id string, at int, screen string) bool {
	i, ok := l.index[id]
	return ok && l.unseen(at, screen, func(k int) bool { return k == i })
}

// movedAfter says whether the crank was moved after a happening without a screen's knowing.
func (l *log) movedAfter(at int, screen string) bool {
	return l.unseen(at, screen, func(i int) bool { return l.entries[i].moves })
}

// closedAfter says whether a valve's readings were kept or made void after a happening without a screen's
// knowing.
func (l *log) closedAfter(at int, screen, valve string) bool {
	return l.unseen(at, screen, func(i int) bool { return l.entries[i].closes == valve })
}

// ranAfter says whether the engine ran after a happening without a screen's knowing, so that what was read
// then is of another warmth.
func (l *log) ranAfter(at int, screen string, epoch int) bool {
	return at >= 0 && l.entries[at].epoch != epoch &&
		l.unseen(at, screen, func(i int) bool { return i > 0 && l.entries[i].epoch != l.entries[i-1].epoch })
}

// knownBy is the last happening that a screen knew when it knew one: that, or one of its own after it.
func (l *log) knownBy(at int, screen string) int {
	for i := len(l.entries) - 1; i > at && screen != ""; i-- {
		if l.entries[i].screen == screen {
			return i
		}
	}
	return at
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
