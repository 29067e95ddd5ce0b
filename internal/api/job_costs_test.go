package api_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What a job costs is told by sequence and round, before it is begun: by one cylinder a four is turned three
// half turns, with a gesture a valve and one a stop. Common practice.
func TestSequencesTellWhatTheyCost(t *testing.T) {
	d := withJob(t)
	type plan struct {
		School, Order string
		Costs         *struct {
			AllIn struct {
				Turn      float64 `json:"turn_deg"`
				CheckTurn float64 `json:"check_turn_deg"`
				Leaf      int     `json:"leaf_changes"`
				Gestures  int
			} `json:"all_in"`
			Out struct {
				CheckTurn float64 `json:"check_turn_deg"`
				Gestures  int
			} `json:"some_out"`
			Count int `json:"out_count"`
		}
	}
	ask := func(query string) plan {
		var got struct{ Plans []plan }
		_, text := d.send("GET", "/api/v1/jobs/job-0001/ways"+query, "")
		require.NoError(t, json.Unmarshal([]byte(text), &got), text)
		for _, p := range got.Plans {
			if p.School == "one_cylinder" && p.Order == "turning" {
				return p
			}
		}
		t.Fatal("no such plan")
		return plan{}
	}
	assert.Nil(t, ask("").Costs, "not asked for")
	set := ask("?round=set_as_you_go&check=set_ones").Costs
	assert.Equal(t, 540.0, set.AllIn.Turn)
	assert.Equal(t, 11, set.AllIn.Gestures)
	assert.Zero(t, set.AllIn.CheckTurn)
	assert.Equal(t, 3, set.Count)
	assert.LessOrEqual(t, set.Out.CheckTurn, 720.0, "no more than once round")
	assert.Equal(t, 14+3+3, set.Out.Gestures, "three turns and three readings to check the three")
	assert.Equal(t, 14, ask("?round=set_as_you_go&check=none").Costs.Out.Gestures)
	kinds := ask("?round=read_only&one_kind_first=exhaust").Costs
	assert.Equal(t, 1, kinds.AllIn.Leaf)
	assert.Equal(t, 1080.0, kinds.AllIn.Turn)
}
