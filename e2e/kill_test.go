package e2e

import (
	"fmt"
	"math/rand/v2"
	"net/http"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/deep"
	"metronix/internal/store"
)

const killRounds = 50

// Many connections write while the program is killed at a random moment. After each restart every happening
// that was acknowledged is in the file, and none is there twice.
func TestKilledProgramKeepsWhatItAcknowledged(t *testing.T) {
	for range deep.Rounds(1, 10) { // each on a file of its own
		killedAgainAndAgain(t)
	}
}

func killedAgainAndAgain(t *testing.T) {
	t.Helper()
	data := filepath.Join(t.TempDir(), "kill.db")
	seed := rand.Uint64()
	t.Logf("seed %d", seed)
	chance := rand.New(rand.NewPCG(seed, 1))
	acknowledged := map[string]bool{}
	r := started(t, "demo", data) // its tipper stands at a stop where E3 may be read
	for round := range killRounds {
		for id := range postUntilKilled(t, r, round, time.Duration(2+chance.IntN(120))*time.Millisecond) {
			acknowledged[id] = true
		}
		r = started(t, "demo", data)
		require.Equal(t, "as_found", stateOf(t, r.base, "demo-job-tipper").State.Phase, "round %d", round)
	}
	r.kill()
	st, err := store.Open(data)
	require.NoError(t, err)
	defer st.Close()
	list, err := st.Happenings("demo-job-tipper")
	require.NoError(t, err)
	stored := map[string]int{}
	for _, h := range list.Happenings {
		stored[h.ID]++
	}
	late := 0
	for id := range acknowledged {
		assert.Equal(t, 1, stored[id], id)
		var round int
		if _, err := fmt.Sscanf(id, "kill-%d-", &round); err == nil && round >= killRounds/2 {
			late++
		}
	}
	assert.Positive(t, late, "nothing was written before the later kills")
	for id, n := range stored {
		assert.Equal(t, 1, n, id)
	}
	t.Logf("%d acknowledged, %d stored", len(acknowledged), len(list.Happenings))
	assert.Greater(t, len(acknowledged), killRounds, "too little was written to prove anything")
}

// postUntilKilled writes temperatures down on six connections (a valve takes only so many readings), kills
// the program after a while, and gives the acknowledged ids. Each entry is sent again at once now and then,
// as a client does that lost the answer.
func postUntilKilled(t *testing.T, r *running, round int, after time.Duration) map[string]bool {
	t.Helper()
	var mu sync.Mutex
	var wait sync.WaitGroup
	acknowledged := map[string]bool{}
	client := &http.Client{Timeout: 5 * time.Second, Transport: &http.Transport{MaxIdleConnsPerHost: 6}}
	defer client.CloseIdleConnections()
	for worker := range 6 {
		wait.Go(func() {
			for n := 0; ; n++ {
				id := fmt.Sprintf("kill-%d-%d-%d", round, worker, n/2) // every id is sent twice
				body := fmt.Sprintf(`{"id":%q,"kind":"temperature","engine_c":19,"ambient_c":18}`, id)
				answer, err := client.Post(r.base+"/api/v1/jobs/demo-job-tipper/happenings",
					"application/json", strings.NewReader(body))
				if err != nil {
					return // the program is gone
				}
				answer.Body.Close()
				if answer.StatusCode == http.StatusOK {
					mu.Lock()
					acknowledged[id] = true
					mu.Unlock()
				}
			}
		})
	}
	<-time.After(after)
	r.kill()
	wait.Wait()
	return acknowledged
}

// Two programs on one file: the second is refused while the first writes, and the first loses nothing by it;
// a copy is let in and holds what was acknowledged before it began; killed, the first leaves the file to the
// next.
func TestTwoPrograms(t *testing.T) {
	t.Parallel()
	for range deep.Rounds(1, 20) {
		twoPrograms(t)
	}
}

func twoPrograms(t *testing.T) {
	t.Helper()
	r := demo(t)
	acknowledged := 0
	for round := range 3 {
		for n := range 20 {
			post(t, "POST", r.base+"/api/v1/jobs/demo-job-tipper/happenings",
				map[string]any{"id": fmt.Sprintf("twofold-%d-%d", round, n), "kind": "reading", "valve": "E3",
					"leaves_mm": []float64{0.25}, "feel": "drag"}, nil)
			acknowledged++
			if n == 9 {
				code, _, errs := told(t, "", "serve", "--listen", "127.0.0.1:0", "--data", r.data)
				require.NotZero(t, code)
				require.Contains(t, errs, "another program has the data file open")
				copied := filepath.Join(t.TempDir(), fmt.Sprintf("copy-%d.db", round))
				code, out, errs := told(t, "", "backup", "--data", r.data, copied)
				require.Zero(t, code, errs)
				require.NotEmpty(t, out)
				st, err := store.Open(copied)
				require.NoError(t, err)
				list, err := st.Happenings("demo-job-tipper")
				require.NoError(t, err)
				require.GreaterOrEqual(t, len(list.Happenings), acknowledged)
				st.Close()
			}
		}
		r.kill()
		*r = *started(t, "demo", r.data)
	}
	r.kill()
	code, out, errs := told(t, "", "check", "--data", r.data)
	require.Zero(t, code, errs+out)
	st, err := store.Open(r.data)
	require.NoError(t, err)
	defer st.Close()
	list, err := st.Happenings("demo-job-tipper")
	require.NoError(t, err)
	stored := 0
	for _, h := range list.Happenings {
		if strings.HasPrefix(h.ID, "twofold-") {
			stored++
		}
	}
	assert.Equal(t, acknowledged, stored)
}
