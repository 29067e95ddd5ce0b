package e2e

import (
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"
)

// rung is a leaf or stack that may be tried.
type rung struct {
	Leaves    []float64 `json:"leaves_mm"`
	Thickness float64   `json:"thickness_mm"`
	Nominal   bool
	First     bool
}

// state is what a mechanic would know of the job: what to do now, and how each valve stands.
type state struct {
	Engine struct{ Gear struct{ Means string } }
	State  struct {
		Phase    string
		SignedBy string `json:"signed_by"`
		Now      struct {
			Action, Valve string
			MakeSafe      bool `json:"make_safe"`
			Here          []string
			Stop          int
			TurnDeg       float64 `json:"turn_deg"`
			Ladder        []rung
			Instruction   *struct{ Until string }
			Tell          *struct{ Says string }
			Shim          *struct {
				Do, Valve string
				Size      float64 `json:"shim_mm"`
			}
		}
		Card   struct{ State string }
		Valves []struct {
			Name     string
			Adjusted int
			Verified bool
			Settable bool
			Stage    string
			Shim     float64 `json:"shim_mm"`
			Limits   struct {
				Nominal float64 `json:"nominal_mm"`
			}
			AsFound *struct {
				Judgement struct{ Verdict string }
			} `json:"as_found"`
			Judgement *struct {
				TryNext []float64 `json:"try_next_mm"`
			}
		}
		Plan *struct {
			Stops []struct {
				Crank float64 `json:"crank_deg"`
			}
		}
		Happenings int
		Newest     string
		Undo       string
	}
}

func stateOf(t testing.TB, base, id string) state {
	t.Helper()
	answer, err := http.Get(base + "/api/v1/jobs/" + id)
	require.NoError(t, err)
	defer answer.Body.Close()
	var s state
	require.NoError(t, json.NewDecoder(answer.Body).Decode(&s))
	return s
}

// shimOf is the shim written down for a valve, mm.
func (s state) shimOf(valve string) float64 {
	for _, v := range s.State.Valves {
		if v.Name == valve {
			return v.Shim
		}
	}
	return 0
}

// settable says whether a valve is clear where the crank stands.
func (s state) settable(valve string) bool {
	for _, v := range s.State.Valves {
		if v.Name == valve {
			return v.Settable
		}
	}
	return false
}

// leafFor says which rung of the ladder to try and how it feels in the hidden gap.
func (s state) leafFor(gaps map[string]float64) (label, feel string, key input.Key) {
	r, felt := s.rungFor(gaps)
	words := []string{}
	for _, l := range r.Leaves {
		words = append(words, fmt.Sprintf("%.2f", l))
	}
	return strings.Join(words, " + "),
		map[string]string{"free": "free", "drag": "drag", "wont_go": "won’t go"}[felt],
		map[string]input.Key{"free": input.Digit1, "drag": input.Digit2, "wont_go": input.Digit3}[felt]
}

// rungFor says which rung of the ladder to try and how it feels in the hidden gap.
func (s state) rungFor(gaps map[string]float64) (r rung, felt string) {
	now := s.State.Now
	var nominal float64
	gap, advised := gaps[now.Valve], []float64(nil)
	for _, v := range s.State.Valves {
		if v.Name != now.Valve {
			continue
		}
		nominal = v.Limits.Nominal
		if gap == 0 {
			gap = nominal
		}
		for _, r := range now.Ladder {
			if v.Adjusted > 0 && r.Nominal {
				gap = r.Thickness // it was set until this leaf dragged
			}
		}
		if v.Judgement != nil {
			advised = v.Judgement.TryNext
		}
	}
	best := 0
	for i, r := range now.Ladder {
		if len(advised) > 0 && fmt.Sprint(r.Leaves) == fmt.Sprint(advised) {
			best = i
			break
		}
		if len(advised) == 0 && r.First {
			best = i
			break
		}
		if math.Abs(r.Thickness-nominal) < math.Abs(now.Ladder[best].Thickness-nominal) {
			best = i
		}
	}
	switch d := gap - now.Ladder[best].Thickness; {
	case d > 0.006:
		return now.Ladder[best], "free"
	case d < -0.006:
		return now.Ladder[best], "wont_go"
	}
	return now.Ladder[best], "drag"
}

// valve says how far the setting of a valve is, and its nominal gap, mm.
func (s state) valve(name string) (stage string, nominal float64) {
	for _, v := range s.State.Valves {
		if v.Name == name {
			return v.Stage, v.Limits.Nominal
		}
	}
	return "", 0
}
