package practice

import (
	"math"
	"time"
)

// Repetition is when somebody is asked one item again, by SM-2 (P. A. Woźniak, Optimization of learning,
// 1990; its rule from memory). The zero value is an item that was never asked.
type Repetition struct {
	N    int     // times in a row that it was known
	Ease float64 // 1.3 or more; 0: never asked, taken as 2.5
	Days int     // to the next time; 0: it is asked again the same day
}

// SM-2's figures.
const (
	firstEase   = 2.5
	leastEase   = 1.3
	mostQuality = 5
	passes      = 3 // below, an item begins anew
	wellKnown   = 4 // below, it is asked again the same day
)

// After is it after an answer of a quality, from 0, nothing, to 5, at once.
func (r Repetition) After(quality int) Repetition {
	if r.Ease == 0 {
		r.Ease = firstEase
	}
	if quality < passes {
		return Repetition{N: 0, Ease: r.Ease, Days: 0}
	}
	switch r.N {
	case 0:
		r.Days = 1
	case 1:
		r.Days = 6
	default:
		r.Days = int(math.Ceil(float64(max(1, r.Days)) * r.Ease))
	}
	r.N++
	off := float64(mostQuality - quality)
	r.Ease = max(leastEase, r.Ease+0.1-off*(0.08+off*0.02))
	return r
}

// How an answer is graded where nobody grades himself (our own figures): right at once, right after a
// thought, right after a long one, wrong.
const (
	atOnce    = 10 * time.Second
	thoughtOf = 30 * time.Second
)

// laidAside is after how long nobody knows any more how long it was thought about: a tablet was laid aside.
const laidAside = 3 * time.Minute

// Quality grades an answer.
func Quality(right bool, took time.Duration) int {
	switch {
	case !right:
		return 2
	case took <= atOnce:
		return 5
	case took <= thoughtOf, took > laidAside:
		return 4
	}
	return 3
}

// restful is how long what was missed rests before it is asked again: else an answer that was just told is
// repeated, and nothing learned (our own figure; SM-2 says the same day, after the others of that day).
const restful = 10 * time.Minute

// AskAgain is when an item is due after an answer of a quality at a time.
func (r Repetition) AskAgain(quality int, now time.Time) time.Time {
	if quality < wellKnown {
		return now.Add(restful)
	}
	return now.AddDate(0, 0, r.Days)
}
