package api_test

import (
	"encoding/json"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/seen"
)

// stateAt is a job's state as the program sends it, and when it was so.
func (d *door) stateAt(id string) (text string, clock time.Time) {
	d.t.Helper()
	var view struct{ State json.RawMessage }
	require.NoError(d.t, json.Unmarshal(d.text("/api/v1/jobs/"+id), &view))
	var state struct{ Clock time.Time }
	require.NoError(d.t, json.Unmarshal(view.State, &state))
	return string(view.State), state.Clock
}

// text is what stands at a path.
func (d *door) text(path string) []byte {
	d.t.Helper()
	status, body := d.send("GET", path, "")
	require.Equal(d.t, 200, status, body)
	return []byte(body)
}

// said is the state that a bench which was opened with all this says at a time.
func said(t *testing.T, at seen.At, now time.Time) string {
	t.Helper()
	at.Now = now
	text, err := json.Marshal(seen.StateOf(at))
	require.NoError(t, err)
	return string(text)
}

// A bench that opens a job by itself says byte for byte what the program says, and goes on as it does: an act
// that one takes the other takes, with the same words where it is refused.
func TestABenchThatOpensAJobSaysWhatTheProgramSays(t *testing.T) {
	d := demoDoor(t)
	var board []struct{ ID string }
	require.NoError(t, json.Unmarshal(d.text("/api/v1/jobs"), &board))
	require.Greater(t, len(board), 5)
	for _, job := range board {
		at, err := seen.Open(d.text("/api/v1/jobs/" + job.ID + "/opening"))
		require.NoError(t, err, job.ID)
		want, clock := d.stateAt(job.ID)
		require.Equal(t, want, said(t, at, clock), job.ID)
		for _, act := range []string{`{"id":"act-00001","kind":"doubted"}`,
			`{"id":"act-00002","kind":"reading","valve":"E1","leaves_mm":[0.2],"angled":[false],"feel":"drag"}`,
			`{"id":"act-00003","kind":"undone","target":"act-00001"}`} {
			status, body := d.send("POST", "/api/v1/jobs/"+job.ID+"/happenings", act)
			want, clock = d.stateAt(job.ID)
			if err := at.Take([]byte(act), clock); status == 200 {
				require.NoError(t, err, "%s %s", job.ID, act)
			} else {
				var problem struct {
					Errors []struct{ Location, Message string }
				}
				require.NoError(t, json.Unmarshal([]byte(body), &problem))
				assert.ErrorContains(t, err, problem.Errors[0].Message, "%s %s", job.ID, act)
			}
			assert.Equal(t, want, said(t, at, clock), "%s %s", job.ID, act)
		}
	}
	status, _ := d.send("GET", "/api/v1/jobs/none/opening", "")
	assert.Equal(t, 404, status)
}
