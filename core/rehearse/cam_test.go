package rehearse_test

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/job"
	"metronix/core/rehearse"
	"metronix/core/sequence"
)

// cam is a simulated one: the crank angle at which each valve is fully open, once in 720°. From memory: the
// middle of an exhaust's lobe stands some 250° after its cylinder fires, that of an intake some 470°.
func cam(order []int, names []string) map[string]float64 {
	middles := map[string]float64{}
	for _, name := range names {
		fires := float64(slices.Index(order, int(name[1]-'0'))) * 720 / float64(len(order))
		middles[name] = math.Mod(fires+map[byte]float64{'E': 250, 'I': 470}[name[0]], 720)
	}
	return middles
}

// lifts is how often a valve is fully open while the crank goes from one angle to another, both counted on
// over all turns.
func lifts(middle, from, to float64) int {
	return int(math.Floor((to-middle)/720) - math.Floor((from-middle)/720))
}

// In the check round each valve was lifted by its cam since its own nut was tight (or since it was read,
// where it was left alone) once in two turns, twice in four; and a valve that waits at a stop that was come
// to sooner was not: the walk is no longer than that needs. A four by cylinder, all checked, needs 720°
// (worked by hand: two turns for what was set at the last stop).
func TestACheckedValveWasLiftedSinceItsNut(t *testing.T) {
	for _, c := range []struct {
		sheet *engine.Sheet
		order []int
	}{{enginetest.Four(), []int{1, 3, 4, 2}}, {straightSix(), []int{1, 5, 3, 6, 2, 4}}} {
		names := enginetest.Names(c.sheet)
		middles := cam(c.order, names)
		for _, school := range []sequence.School{sequence.OneCylinder, sequence.RockingPairs, sequence.TwoStop} {
			plan, err := sequence.Make(c.sheet, sequence.Request{Way: sequence.Way{School: school}})
			require.NoError(t, err)
			for _, check := range []job.Check{job.CheckAll, job.CheckSetOnes} {
				for _, turns := range []int{2, 4} {
					for _, out := range [][]string{names[:1], names[len(names)-1:], names} {
						what := fmt.Sprintf(
							"%d valves, %s, %s over %d turns, %d out",
							len(names),
							school,
							check,
							turns,
							len(out),
						)
						got := rehearsed(t, c.sheet, school,
							job.Round{Going: job.SetAsYouGo, Check: check, CheckTurns: turns}, out...)
						crank, checking := plan.Stops[0].Crank.Degrees(), false
						tight, checked := map[string]float64{}, map[string]bool{}
						for _, s := range got.Steps {
							switch s.Do {
							case rehearse.DoingTurn, rehearse.DoingCheckTurn:
								crank += s.Turn.Degrees()
								checking = checking || s.Do == rehearse.DoingCheckTurn
							case rehearse.DoingLock:
								tight[s.Valve] = crank
							case rehearse.DoingRead:
								if !checking {
									tight[s.Valve] = crank
									continue
								}
								checked[s.Valve] = true
								assert.GreaterOrEqual(
									t,
									lifts(middles[s.Valve], tight[s.Valve], crank),
									turns/2,
									"%s: %s",
									what,
									s.Valve,
								)
								assert.Less(
									t,
									crank-tight[s.Valve],
									float64(turns)*360+720,
									"%s: %s comes no later than it needs",
									what,
									s.Valve,
								)
							}
						}
						if check == job.CheckAll {
							assert.Len(t, checked, len(names), what)
						} else {
							assert.Len(t, checked, len(out), what)
						}
						if len(names) == 8 && school == sequence.OneCylinder && check == job.CheckAll &&
							turns == 2 {
							assert.InDelta(t, 720, got.CheckTurn.Degrees(), 1e-9, what)
						}
					}
				}
			}
		}
	}
}
