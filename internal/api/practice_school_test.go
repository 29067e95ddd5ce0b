package api_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/practice"
	"metronix/internal/api"
)

// answered sends something and reads the answer.
func answered[T any](c *crew, who func(*http.Request), method, path, body string) (out T) {
	c.t.Helper()
	status, text := c.as(who, method, path, body)
	require.Equal(c.t, 200, status, "%s %s: %s", method, path, text)
	require.NoError(c.t, json.Unmarshal([]byte(text), &out), text)
	return out
}

// An examination over HTTP: nothing is told, what is hidden is in no answer and for no learner in no
// exercise, and what was written down is compared with it at the end; then it can be looked at act by act.
func TestAnExamination(t *testing.T) {
	c := peopled(t)
	ivo, june := c.in("ivo"), c.in("june")
	var heard strings.Builder
	send := func(method, path, body string) (int, string) {
		status, text := c.as(ivo, method, path, body)
		heard.WriteString(text)
		return status, text
	}
	_, text := send("GET", "/api/v1/exercises", "")
	assert.Contains(t, text, "An odd-fire twin")
	status, _ := send("GET", "/api/v1/exercises/ours-5-what-will-not", "")
	assert.Equal(t, 403, status, "the file hides nothing")
	status, text = send("POST", "/api/v1/practice", `{"id":"exam-0001","exercise_id":"ours-5-what-will-not"}`)
	require.Equal(t, 200, status, text)
	_, text = send("GET", "/api/v1/practice/exam-0001", "")
	var view api.PracticeView
	require.NoError(t, json.Unmarshal([]byte(text), &view))
	assert.Equal(t, "examination", view.Aid)
	assert.True(t, view.Eyes.Kicks)
	n := 0
	does := func(body string) (int, string) {
		n++
		return send("POST", "/api/v1/practice/exam-0001/hands", fmt.Sprintf(`{"id":"e%d",%s}`, n, body))
	}
	for body, want := range map[string]int{
		`"claim":{"valve":"E9","is":"in"}`:                 422,
		`"claim":{"valve":"E1","is":"fine"}`:               422,
		`"claim":{"valve":"E1","is":"in"},"take_off":true`: 422,
		`"slide":{"valve":"E1","leaves_mm":[0.2]}`:         200,
		`"turn_deg":40`: 200,
		`"claim":{"valve":"E2","is":"loose","left":"seized"}`: 200,
		`"claim":{"valve":"E4","is":"in","worn":true}`:        200,
	} {
		status, text := does(body)
		assert.Equal(t, want, status, "%s: %s", body, text)
	}
	status, text = does(`"loosen":"E2"`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "seized")
	status, text = send(
		"POST",
		"/api/v1/practice/exam-0001/happenings",
		`{"id":"happened-1","kind":"kept","valve":"E1"}`,
	)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "write down")
	for _, path := range []string{"/score", "/acts"} {
		status, _ = send("GET", "/api/v1/practice/exam-0001"+path, "")
		assert.Equal(t, 409, status, path)
	}
	for _, hidden := range []string{"worn_tip", `"stiff"`, `"seed"`, "dip_mm", "gap_mm"} {
		assert.False(t, strings.Contains(heard.String(), hidden), hidden)
	}
	score := answered[api.PracticeScore](c, ivo, "POST", "/api/v1/practice/exam-0001/end", "")
	assert.Equal(t, "What will not come right", score.Exercise)
	require.NotNil(t, score.Best)
	worn := map[string]string{}
	for _, v := range score.Valves {
		worn[v.Valve] = v.Worn + v.Nut
	}
	assert.Equal(
		t,
		map[string]string{"E4": "worn_tip", "E2": "seized", "I3": "stiff"},
		map[string]string{"E4": worn["E4"], "E2": worn["E2"], "I3": worn["I3"]},
	)
	acts := answered[[]api.PracticeAct](c, june, "GET", "/api/v1/practice/exam-0001/acts", "")
	require.Len(t, acts, 4)
	total := 0
	for _, a := range acts {
		total += len(a.Faults)
	}
	assert.Positive(t, total)
	again := answered[api.PracticeView](
		&crew{
			&door{t, api.Handler(c.st, api.Options{Clock: func() time.Time { return c.now }}), c.st, c.path},
			c.now,
		},
		ivo,
		"GET",
		"/api/v1/practice/exam-0001",
		"",
	)
	assert.True(t, again.Ended)
	assert.Len(t, again.Claims, 2, "played again from what is stored")
}

// Where somebody looks on, what would go wrong is told before it is done, and is done where it is said once
// more.
func TestWatched(t *testing.T) {
	c := peopled(t)
	tess := c.in("tess")
	answered[api.PracticeShort](
		c,
		tess,
		"POST",
		"/api/v1/practice",
		`{"id":"watch-0001","engine_id":"engine-01","aid":"watched"}`,
	)
	does := func(body string) (int, string) {
		return c.as(tess, "POST", "/api/v1/practice/watch-0001/hands", body)
	}
	status, text := does(`{"id":"a1","claim":{"valve":"E1","is":"in"}}`)
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "practice_warning")
	assert.Contains(t, text, "No leaf was in E1")
	status, text = does(`{"id":"a1","claim":{"valve":"E1","is":"in"},"anyway":true}`)
	assert.Equal(t, 200, status, text)
	status, text = c.as(tess, "POST", "/api/v1/practice/watch-0001/end", "")
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "Nothing is written down of")
	score := answered[api.PracticeScore](c, tess, "POST", "/api/v1/practice/watch-0001/end?anyway=true", "")
	assert.NotEmpty(t, score.Faults)
}

// A tutor keeps exercises: a file, or one made of a signed job, whose engine has the gaps that were found in
// it; who learns neither makes nor reads one. What is wrong with a file is told, and nothing of it is kept.
func TestATutorsExercises(t *testing.T) {
	c := peopled(t)
	june, ivo := c.in("june"), c.in("ivo")
	data, err := os.ReadFile("../exercise/ours/2-four-some-right.exercise.json")
	require.NoError(t, err)
	own := strings.Replace(string(data), "A four, some right and some not", "Our own four", 1)
	status, _ := c.as(ivo, "POST", "/api/v1/exercises", own)
	assert.Equal(t, 403, status)
	kept := answered[api.ExerciseShort](c, june, "POST", "/api/v1/exercises", own)
	assert.Equal(
		t,
		kept.ID,
		answered[api.ExerciseShort](c, june, "POST", "/api/v1/exercises", own).ID,
		"the same file is the same exercise",
	)
	status, text := c.as(
		june,
		"POST",
		"/api/v1/exercises",
		strings.Replace(own, "exercise/1", "exercise/2", 1),
	)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "another format")
	status, text = c.as(june, "POST", "/api/v1/exercises", strings.Replace(own, `"E3"`, `"E9"`, 1))
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "gaps[4]")
	file := answered[map[string]any](c, june, "GET", "/api/v1/exercises/"+kept.ID, "")
	assert.Equal(t, "metronix.exercise/1", file["format"])
	answered[api.PracticeShort](
		c,
		ivo,
		"POST",
		"/api/v1/practice",
		`{"id":"own-00001","exercise_id":"`+kept.ID+`"}`,
	)
	status, _ = c.as(june, "DELETE", "/api/v1/exercises/"+kept.ID, "")
	require.Equal(t, 204, status)
	list := answered[[]api.ExerciseShort](c, june, "GET", "/api/v1/exercises", "")
	assert.Len(t, list, 6)
	assert.Equal(
		t,
		"Our own four",
		answered[api.PracticeView](c, ivo, "GET", "/api/v1/practice/own-00001", "").Exercise,
		"a run on it stays",
	)
	status, text = c.as(
		june,
		"POST",
		"/api/v1/exercises/from-job",
		`{"job_id":"job-0001","name":"Mine","aid":"guided"}`,
	)
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "signed")
	_, audit := c.as(june, "GET", "/api/v1/audit", "")
	assert.Contains(t, audit, "add-exercise")
	schema := answered[map[string]any](c, ivo, "GET", "/api/v1/schemas/exercise", "")
	assert.Contains(t, schema["title"], "metronix.exercise/1")
}

// Drills ask what is due first, tell what was right once it is answered and not before, and ask again the
// sooner the less it was known; sent twice an answer counts once. A class is seen by its tutor alone, who
// signs skills off, and not his own.
func TestDrillsAndAClass(t *testing.T) {
	c := peopled(t)
	ivo, june := c.in("ivo"), c.in("june")
	items := map[string]bool{}
	for i := range 20 {
		id := fmt.Sprintf("drill-%04d", i)
		status, text := c.as(ivo, "POST", "/api/v1/drills", `{"id":"`+id+`"}`)
		require.Equal(t, 200, status, text)
		assert.False(t, strings.Contains(text, `"why"`) || strings.Contains(text, `"answer"`))
		var q api.DrillQuestion
		require.NoError(t, json.Unmarshal([]byte(text), &q))
		assert.Equal(t, q, answered[api.DrillQuestion](c, ivo, "POST", "/api/v1/drills", `{"id":"`+id+`"}`))
		c.now = c.now.Add(4 * time.Second)
		a := answered[api.DrillAnswered](c, ivo, "POST", "/api/v1/drills/"+id+"/answer", `{"choice":0}`)
		assert.Equal(t, a.Answer == 0, a.Right)
		assert.Equal(t, a.Stands.Due.Sub(c.now) > time.Hour, a.Right, "what was missed comes again the same day")
		items[q.Item] = true
		if i < len(practice.Items()) {
			assert.Len(t, items, i+1, "none again before all were asked once")
		}
		again := answered[api.DrillAnswered](c, ivo, "POST", "/api/v1/drills/"+id+"/answer", `{"choice":1}`)
		assert.Equal(t, 0, again.Choice)
		status, _ = c.as(june, "POST", "/api/v1/drills/"+id+"/answer", `{"choice":0}`)
		assert.Equal(t, 404, status, "it is not hers")
	}
	status, _ := c.as(ivo, "POST", "/api/v1/drills", `{"id":"drill-x001","item":"dance"}`)
	assert.Equal(t, 422, status)
	asked := 0
	for _, d := range answered[[]api.DrillView](c, ivo, "GET", "/api/v1/drills", "") {
		asked += d.Asked
	}
	assert.Equal(t, 20, asked)
	for _, path := range []string{"/api/v1/learners", "/api/v1/learners.csv"} {
		status, _ = c.as(ivo, "GET", path, "")
		assert.Equal(t, 403, status, path)
	}
	status, text := c.as(june, "PUT", "/api/v1/learners/june/skills/feel", `{"signed":true}`)
	assert.Equal(t, 409, status, text)
	status, _ = c.as(june, "PUT", "/api/v1/learners/ivo/skills/dance", `{"signed":true}`)
	assert.Equal(t, 404, status)
	answered[api.Progress](c, june, "PUT", "/api/v1/learners/ivo/skills/feel", `{"signed":true}`)
	mine := answered[api.Progress](c, ivo, "GET", "/api/v1/progress", "")
	assert.Equal(t, 20, mine.Asked)
	signed := ""
	for _, k := range mine.Skills {
		if k.Skill == "feel" {
			signed = k.By
		}
	}
	assert.Equal(t, "June Abara", signed)
	class := answered[[]api.Progress](c, june, "GET", "/api/v1/learners", "")
	assert.Len(t, class, 3, "whoever works: not a reader")
	_, text = c.as(june, "GET", "/api/v1/learners.csv", "")
	assert.Contains(t, text, "Ivo Lund,learner,0,0,0,0,")
	assert.Contains(t, text, "skill_feel")
	answered[api.Progress](c, june, "PUT", "/api/v1/learners/ivo/skills/feel", `{"signed":false}`)
	_, audit := c.as(june, "GET", "/api/v1/audit", "")
	assert.Contains(t, audit, "Ivo Lund: Tells how a leaf goes, taken back")
}

// A study of feel over HTTP: its gaps are hidden until every reading was made, a reading sent twice counts
// once, it goes on after a restart, and it is one's own.
func TestAStudyOfFeel(t *testing.T) {
	c := peopled(t)
	ivo, june := c.in("ivo"), c.in("june")
	const path = "/api/v1/studies/study-0001"
	answered[api.StudyView](c, ivo, "POST", "/api/v1/studies", `{"id":"study-0001"}`)
	status, _ := c.as(june, "GET", path, "")
	assert.Equal(t, 404, status)
	status, text := c.as(ivo, "POST", path+"/slide", `{"leaf_mm":0.123}`)
	assert.Equal(t, 422, status, text)
	for n := range 15 {
		if n == 7 {
			c.http = api.Handler(c.st, api.Options{Version: "test", Clock: func() time.Time { return c.now }})
		}
		leaf := 0.60
		for ; leaf > 0.05; leaf -= 0.01 {
			felt := answered[api.FeltView](c, ivo, "POST", path+"/slide", fmt.Sprintf(`{"leaf_mm":%.2f}`, leaf))
			if felt.Pull < 1 {
				break
			}
		}
		body := fmt.Sprintf(`{"n":%d,"leaf_mm":%.2f}`, n, leaf)
		status, text := c.as(ivo, "POST", path+"/readings", body)
		require.Equal(t, 200, status, text)
		assert.Equal(t, n == 14, strings.Contains(text, "true_mm"))
		again := answered[api.StudyView](c, ivo, "POST", path+"/readings", body)
		assert.Equal(t, n+1, again.Done)
	}
	ended := answered[api.StudyView](c, ivo, "GET", path, "")
	require.NotNil(t, ended.Came)
	require.Len(t, ended.Came.Gaps, 5)
	for _, g := range ended.Came.Gaps {
		assert.Len(t, g.ReadMM, 3)
		for _, r := range g.ReadMM {
			assert.InDelta(t, float64(g.TrueMM), float64(r), 25_000, "a leaf from the gap, and the hand's feel")
		}
	}
	assert.Less(t, ended.Came.RepeatMM, 0.01)
	list := answered[[]api.StudyView](c, ivo, "GET", "/api/v1/studies", "")
	require.Len(t, list, 1)
	assert.Equal(t, ended.Came.BiasMM, list[0].Came.BiasMM)
	status, _ = c.as(ivo, "POST", path+"/slide", `{"leaf_mm":0.20}`)
	assert.Equal(t, 422, status, "every gap was read")
}
