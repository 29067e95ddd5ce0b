package api_test

import (
	"fmt"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Whoever is made something else while he works has to sign in anew before his next tap, and may do what that
// may, and no more; what he did stays, under his name, and what he sent meanwhile is taken when he is in
// again.
func TestARoleThatChangesWhileAtWork(t *testing.T) {
	c := peopled(t)
	june, tess := c.in("june"), c.in("tess")
	does := func(id, fields string) (int, string) {
		return c.as(tess, "POST", happenings, fmt.Sprintf(`{"id":%q,%s}`, id, fields))
	}
	status, text := does("role-0001", `"kind":"way_chosen","school":"rocking_pairs"`)
	require.Equal(t, 200, status, text)
	becomes := func(role string) {
		t.Helper()
		status, text := c.as(june, "PUT", "/api/v1/people/tess", `{"name":"Tess Ardal","role":"`+role+`"}`)
		require.Equal(t, 200, status, text)
		status, _ = does("role-0002", `"kind":"task","task":"safe"`)
		require.Equal(t, 401, status)
		tess = c.in("tess")
	}
	becomes("reader")
	status, text = does("role-0002", `"kind":"task","task":"safe"`)
	assert.Equal(t, 403, status, text)
	assert.Contains(t, text, "not for a reader")
	status, _ = c.as(tess, "GET", "/api/v1/jobs/job-0001", "")
	assert.Equal(t, 200, status, "he looks on")
	becomes("learner")
	status, text = does("role-0002", `"kind":"task","task":"safe"`)
	assert.Equal(t, 200, status, "sent again, it is taken now: %s", text)
	status, text = does("role-0003", `"kind":"signed","by":"Tess Ardal","tools_out":true`)
	assert.Equal(t, 403, status, text)
	becomes("mechanic")
	list, err := c.st.Happenings("job-0001")
	require.NoError(t, err)
	require.Len(t, list.Happenings, 2)
	for _, h := range list.Happenings {
		assert.Equal(t, "Tess Ardal", h.Author)
	}
}

// Signing out while things are being sent loses none of them: each was taken, under his name, or was refused
// because nobody was signed in, and is taken when he is back; none is stored twice.
func TestSigningOutDuringASend(t *testing.T) {
	c := peopled(t)
	for round := range 20 {
		tess := c.in("tess")
		const sent = 8
		var all sync.WaitGroup
		statuses := make([]int, sent)
		send := func(i int) int {
			status, _ := c.as(tess, "POST", happenings,
				fmt.Sprintf(`{"id":"out-%02d-%02d","kind":"task","task":"safe"}`, round, i))
			return status
		}
		for i := range sent {
			all.Go(func() {
				if i == sent/2 {
					c.as(tess, "DELETE", "/api/v1/session", "")
				}
				statuses[i] = send(i)
			})
		}
		all.Wait()
		tess = c.in("tess")
		for i, status := range statuses {
			require.Contains(t, []int{200, 401}, status)
			if status == 401 {
				require.Equal(t, 200, send(i))
			}
		}
		assert.Equal(t, 401, statuses[sent/2], "after his own signing out")
	}
	list, err := c.st.Happenings("job-0001")
	require.NoError(t, err)
	require.Len(t, list.Happenings, 20*8)
	for _, h := range list.Happenings {
		assert.Equal(t, "Tess Ardal", h.Author)
	}
}

// What one person did, was not taken, and another leaves out stands in the audit list, where alone it can: of
// whom, at which job, by whom.
func TestWhatAnotherLeavesOutIsNoted(t *testing.T) {
	c := peopled(t)
	june, tess := c.in("june"), c.in("tess")
	const path = "/api/v1/jobs/job-0001/left-out"
	body := `{"entries":[{"id":"a1","kind":"reading","valve":"E3","author":"Tess Ardal"},{"id":"a2","kind":"locked","valve":"E3","author":"Tess Ardal"},
		{"id":"a3","kind":"turned","author":"Ivo Lund"}]}`
	status, text := c.as(june, "POST", path, body)
	require.Equal(t, 204, status, text)
	_, text = c.as(june, "GET", "/api/v1/audit", "")
	assert.Contains(t, text, "job-0001: of Tess Ardal: reading E3, locked E3; of Ivo Lund: turned")
	status, text = c.as(tess, "POST", path, `{"entries":[{"id":"a1","kind":"reading","author":"Nobody"}]}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "Nobody of this workshop")
	for body, want := range map[string]int{`{"entries":[]}`: 422, body: 401} {
		status, _ := c.as(nil, "POST", path, body)
		assert.Contains(t, []int{want, 401}, status)
	}
	status, _ = c.as(june, "POST", "/api/v1/jobs/nothing/left-out", body)
	assert.Equal(t, 404, status)
}
