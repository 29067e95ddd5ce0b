package walks_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/gear"
	"metronix/core/measure"
)

// engines are layouts of one to sixteen cylinders, evenly and unevenly firing, of two to four valves a
// cylinder.
var engines = map[string]func() *engine.Sheet{
	"single":           func() *engine.Sheet { return enginetest.Inline([]int{1}, "EI") },
	"twin, even":       func() *engine.Sheet { return enginetest.Inline([]int{1, 2}, "EIIE") },
	"twin, 270°":       func() *engine.Sheet { return fires(enginetest.Inline([]int{1, 2}, "EIEI"), 0, 270) },
	"twin, 45° vee":    func() *engine.Sheet { return fires(enginetest.Inline([]int{1, 2}, "EIIE"), 0, 405) },
	"twin, 180°":       func() *engine.Sheet { return fires(enginetest.Inline([]int{1, 2}, "EIIE"), 0, 180) },
	"three":            func() *engine.Sheet { return enginetest.Inline([]int{1, 3, 2}, "EIEIEI") },
	"three, 12 valves": func() *engine.Sheet { return enginetest.Crossflow([]int{1, 2, 3}, "IIIIII", "EEEEEE") },
	"four":             enginetest.Four,
	"four, 1-2-4-3":    func() *engine.Sheet { return enginetest.Inline([]int{1, 2, 4, 3}, "EIEIEIEI") },
	"four, 16 valves":  func() *engine.Sheet { return enginetest.Crossflow([]int{1, 3, 4, 2}, "IIIIIIII", "EEEEEEEE") },
	"flat four":        func() *engine.Sheet { return enginetest.Inline([]int{1, 4, 3, 2}, "EIIEEIIE") },
	"four, uneven":     func() *engine.Sheet { return fires(enginetest.Inline([]int{1, 3, 2, 4}, "EIIEEIIE"), 0, 180, 270, 450) },
	"five":             func() *engine.Sheet { return enginetest.Inline([]int{1, 2, 4, 5, 3}, "EIEIEIEIEI") },
	"six":              func() *engine.Sheet { return enginetest.Inline([]int{1, 5, 3, 6, 2, 4}, "EIIEEIIEEIIE") },
	"six, 1-4-2":       func() *engine.Sheet { return enginetest.Inline([]int{1, 4, 2, 6, 3, 5}, "EIEIEIEIEIEI") },
	"six, uneven": func() *engine.Sheet {
		return fires(enginetest.Inline([]int{1, 6, 5, 4, 3, 2}, "EIIEEIIEEIIE"), 0, 150, 240, 390, 480, 630)
	},
	"six, 24 valves": func() *engine.Sheet {
		return enginetest.Crossflow([]int{1, 5, 3, 6, 2, 4}, "IIIIIIIIIIII", "EEEEEEEEEEEE")
	},
	"seven": func() *engine.Sheet { return enginetest.Inline([]int{1, 3, 5, 7, 2, 4, 6}, "EIEIEIEIEIEIEI") },
	"eight": func() *engine.Sheet {
		return enginetest.Inline([]int{1, 8, 4, 3, 6, 5, 7, 2}, "EIIEEIIEEIIEEIIE")
	},
	"eight, other": func() *engine.Sheet {
		return enginetest.Inline([]int{1, 5, 4, 8, 6, 3, 7, 2}, "EIEIEIEIEIEIEIEI")
	},
	"nine": func() *engine.Sheet {
		return enginetest.Inline([]int{1, 3, 5, 7, 9, 2, 4, 6, 8}, "EIEIEIEIEIEIEIEIEI")
	},
	"ten": func() *engine.Sheet {
		return enginetest.Inline([]int{1, 6, 5, 10, 2, 7, 3, 8, 4, 9}, "EIEIEIEIEIEIEIEIEIEI")
	},
	"twelve, 48 valves": func() *engine.Sheet {
		return enginetest.Crossflow([]int{1, 7, 5, 11, 3, 9, 6, 12, 2, 8, 4, 10}, "IIIIIIIIIIIIIIIIIIIIIIII",
			"EEEEEEEEEEEEEEEEEEEEEEEE")
	},
	"sixteen": func() *engine.Sheet {
		return enginetest.Inline([]int{1, 9, 2, 10, 4, 12, 8, 16, 7, 15, 6, 14, 5, 13, 3, 11},
			"EIEIEIEIEIEIEIEIEIEIEIEIEIEIEIEI")
	},
}

func fires(s *engine.Sheet, at ...float64) *engine.Sheet {
	s.FiringAngles = enginetest.Degrees(at...)
	return s
}

// adjusters are kinds with a lock nut, without one, and shims.
var adjusters = map[string]*engine.Adjuster{
	"none stated": nil,
	"screw":       {Kind: gear.ScrewValveEnd, Pitch: measure.Millimetre},
	"tappet":      {Kind: gear.ThreadedTappet, Pitch: measure.Millimetre},
	"eccentric":   {Kind: gear.Eccentric, Eccentricity: 1200 * measure.Micrometre},
	"shim":        {Kind: gear.Shim},
}

// Every engine of the walks is one that the program takes.
func TestTheEnginesAreSound(t *testing.T) {
	require.GreaterOrEqual(t, len(engines), 20)
	for name, of := range engines {
		for gear, adjuster := range adjusters {
			s := of()
			s.Adjuster = adjuster
			require.Empty(t, engine.Check(s).Problems, "%s, %s", name, gear)
		}
	}
}
