package e2e

import (
	"encoding/json"
	"os"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/deep"
)

// handJob is a whole job as a mechanic does it, from the first stop to the signature, with what it takes by
// hand: counted on paper by the order of the stops alone.
type handJob struct {
	name string
	played
	long   bool                       // it is left to the long tests
	sheet  func(sheet map[string]any) // what its engine has otherwise than the demo's; nil: nothing
	begins []map[string]any           // how it comes to its first stop, where not cold by a thermometer
	by     struct {
		taps         int     // one a valve, one more a valve that is out, one a turn of the crank
		turn, check  float64 // degrees up to the last stop, and on to the last check
		leavesPicked int     // after the first
	}
}

// counted gives the figures of the paper.
func (j handJob) counted(taps int, turn, check float64, leavesPicked int) handJob {
	j.by.taps, j.by.turn, j.by.check, j.by.leavesPicked = taps, turn, check, leavesPicked
	return j
}

// round is how it is gone round.
func round(round, check string, more ...any) map[string]any {
	out := map[string]any{"round": round, "check": check}
	for i := 0; i < len(more); i += 2 {
		out[more[i].(string)] = more[i+1]
	}
	return out
}

// twelve are the shapes that a workshop meets. By hand the crank of a four stroke goes from stop to stop,
// 720° less one interval; a leaf is changed once at each stop that has both kinds, for the kind in hand comes
// first (common practice).
func twelve() []handJob {
	once := round("set_as_you_go", "none")
	card := func(change map[string]any) func(map[string]any) {
		return func(sheet map[string]any) {
			cards := sheet["clearances"].([]any)[:1]
			for k, v := range change {
				cards[0].(map[string]any)[k] = v
			}
			sheet["clearances"] = cards
		}
	}
	few := []float64(nil)
	desk, tablet, phone := [2]int{1280, 800}, [2]int{1024, 768}, [2]int{360, 740}
	return []handJob{
		// 8 valves, 3 of them out, 3 half turns
		handJob{name: "inline four by rocking pairs", long: true, played: played{"brindlow-1600", "rocking_pairs", once,
			[]string{"E1", "I3", "E4"}, desk, few}}.counted(14, 540, 0, 4),
		handJob{
			name: "four by one leaf, two leaves owned",
			played: played{"brindlow-1600", "one_cylinder", once, nil, tablet,
				[]float64{0.20, 0.27}},
		}.counted(
			11,
			540,
			0,
			4,
		),
		// 12 valves at two stops, two of them out
		handJob{name: "eccentric six at two stops", long: true, played: played{"estervane-2400", "two_stop", once,
			[]string{"I2", "E6"}, tablet, few}, sheet: func(s map[string]any) {
			s["adjuster"] = map[string]any{
				"kind":              "eccentric",
				"eccentricity_mm":   1.2,
				"locknut_torque_nm": 12,
			}
		}}.counted(15, 360, 0, 2),
		// one leaf for both kinds
		handJob{name: "flat four backwards", played: played{"ostrane-1300", "one_cylinder",
			round("set_as_you_go", "none", "direction", "back"), nil, desk, few}}.counted(11, 540, 0, 0),
		// judged by the fan, a valve out, within ten minutes
		handJob{
			name: "twelve valves hot, without a thermometer",
			played: played{"estervane-2400", "one_cylinder", once,
				[]string{"E3"}, desk, few},
			sheet: card(map[string]any{"state": "hot", "source": "plate"}),
			begins: []map[string]any{
				{"kind": "engine_stopped"},
				{"kind": "judged_hot", "how": "fan", "ran_min": 25},
			},
		}.counted(
			18,
			600,
			0,
			6,
		),
		// one out; the check comes to a stop four turns after it was read: 1,440° after the first, then a
		// half turn each
		handJob{
			name: "sixteen valves, check over four turns",
			long: true,
			played: played{"holmgarth-2000", "one_cylinder",
				round(
					"set_as_you_go",
					"all",
					"check_turns",
					4,
				), []string{"E2a"}, desk, few},
		}.counted(
			40,
			540,
			1440,
			8,
		),
		handJob{
			name: "bucket four, read only",
			long: true,
			played: played{"pellmark-1400", "one_cylinder", map[string]any{"round": "read_only"},
				nil, tablet, few},
		}.counted(
			19,
			540,
			0,
			4,
		),
		// nothing set, nothing checked: no nut was touched that could have moved a gap
		handJob{
			name: "bucket four with shims, all in",
			long: true,
			played: played{"pellmark-1400", "one_cylinder",
				round("read_first", "all"), nil, desk, few},
		}.counted(
			19,
			540,
			0,
			4,
		),
		// three cylinders that fire 240° apart, four valves each
		handJob{
			name: "vee six, one bank",
			long: true,
			played: played{"culverholt-3000", "one_cylinder", round(
				"set_as_you_go",
				"none",
				"scope",
				[]string{"E1a", "E1b", "I1a", "I1b", "E3a", "E3b", "I3a", "I3b", "E5a", "E5b", "I5a", "I5b"},
			), nil,
				desk, []float64{0.15, 0.20, 0.22, 0.30, 0.34, 0.40}},
		}.counted(
			14,
			480,
			0,
			3,
		),
		// round for the exhausts, and from where that ends round for the intakes
		handJob{name: "exhausts first", long: true, played: played{"brindlow-1600", "one_cylinder",
			round(
				"set_as_you_go",
				"none",
				"one_kind_first",
				"exhaust",
			), nil, phone, few}}.counted(14, 1080, 0, 1),
		handJob{
			name: "threaded tappets, stone cold overnight",
			long: true,
			played: played{"marrowby-3000", "one_cylinder", once,
				[]string{"I4"}, tablet, []float64{0.10, 0.15, 0.18, 0.22, 0.26, 0.30}},
			begins: []map[string]any{{"kind": "judged_cold", "by": "overnight"}},
		}.
			counted(
				18,
				600,
				0,
				6,
			),
		handJob{
			name: "push-rod six on a phone",
			long: true,
			played: played{"estervane-2400", "rocking_pairs", once,
				[]string{"I2", "E6"}, phone, few},
		}.counted(
			19,
			600,
			0,
			6,
		),
		// four valves a cylinder at twelve stops 60° apart
		handJob{
			name: "a twelve with 48 valves",
			long: true,
			played: played{"brindlow-6000", "rocking_pairs", round("read_first", "none"),
				nil, desk, few},
		}.counted(
			59,
			660,
			0,
			12,
		),
	}
}

// owned puts its engine in place of the demo's.
func (j *handJob) owned(t *testing.T, r *running) {
	t.Helper()
	if j.sheet != nil {
		text, err := os.ReadFile("../internal/demo/engines/" + j.engine + ".engine.json")
		require.NoError(t, err)
		var sheet map[string]any
		require.NoError(t, json.Unmarshal(text, &sheet))
		j.sheet(sheet)
		j.engine = "engine-by-hand"
		post(t, "PUT", r.base+"/api/v1/engines/"+j.engine, sheet, nil)
	}
}

// brought brings a job that is stored to its first stop, as warm as it is begun.
func (j *handJob) brought(t *testing.T, r *running, job string) {
	t.Helper()
	j.choose(t, r, job)
	begins := j.begins
	if begins == nil {
		begins = []map[string]any{{"kind": "prepared", "engine_c": 19, "ambient_c": 18}}
	}
	begins = append(begins, map[string]any{"kind": "task", "task": "safe"}, map[string]any{"kind": "turned", "stop": 0})
	for i, h := range begins {
		h["id"] = "begins-000" + count(i)
		post(t, "POST", r.base+"/api/v1/jobs/"+job+"/happenings", h, nil)
	}
}

// A dozen whole jobs, and one more, take on the bench the taps, the turning and the leaves that they take by
// hand.
func TestTwelveWholeJobsTakeWhatTheyTakeByHand(t *testing.T) {
	t.Parallel()
	for _, j := range twelve() {
		t.Run(j.name, func(t *testing.T) {
			if j.long && !deep.On {
				t.Skip("make deep does this one")
			}
			t.Parallel()
			r := demo(t)
			j.owned(t, r)
			job := j.stored(t, r)
			j.brought(t, r, job)
			p := open(t, r, "/jobs/"+job, j.size[0], j.size[1])
			p.see(".rung.cursor")
			begun := time.Now()
			got := j.drive(t, p, r, job)
			t.Logf(
				"| %s | %d | %v + %v | %d | %.0f s |",
				j.name,
				got.Gestures,
				got.Turn,
				got.CheckTurn,
				got.Leaves,
				time.Since(begun).Seconds(),
			)
			assert.Equal(t, j.by.taps, got.Gestures, "taps")
			assert.Equal(t, j.by.turn, got.Turn, "degrees up to the last stop")
			assert.Equal(t, j.by.check, got.CheckTurn, "degrees for the check")
			assert.Equal(t, j.by.leavesPicked, got.Leaves, "leaves picked up")
			p.clean()
		})
	}
}
