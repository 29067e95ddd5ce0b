package api_test

import (
	"bytes"
	"fmt"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
	"metronix/internal/store"
)

// crew is a workshop with people, each known by a PIN, and a clock that is set by hand.
type crew struct {
	*door
	now time.Time
}

// pins are who is there. Tess and June are mechanic and foreman, Ivo learns, Rae looks.
var pins = map[string]string{"june": "7319", "tess": "4711", "ivo": "2580", "rae": "9173"}

func peopled(t testing.TB) *crew {
	c := &crew{withJob(t), time.Date(2026, 11, 30, 8, 0, 0, 0, time.UTC)}
	c.http = api.Handler(c.st, api.Options{Version: "test", Clock: func() time.Time { return c.now }})
	june := c.added("june", "June Abara", "foreman", nil)
	c.added("tess", "Tess Ardal", "mechanic", june)
	c.added("ivo", "Ivo Lund", "learner", june)
	c.added("rae", "Rae Quist", "reader", june)
	return c
}

// added sets somebody up; the first one by whoever is there, who is signed in then.
func (c *crew) added(id, name, role string, by func(*http.Request)) func(*http.Request) {
	c.t.Helper()
	body := fmt.Sprintf(`{"id":%q,"name":%q,"role":%q,"pin":%q}`, id, name, role, pins[id])
	status, text := c.as(by, "POST", "/api/v1/people", body)
	require.Equal(c.t, 200, status, text)
	if by == nil {
		return c.in(id)
	}
	return by
}

// as sends something with what a browser of somebody's would send along.
func (c *crew) as(who func(*http.Request), method, path, body string) (int, string) {
	c.t.Helper()
	if who == nil {
		return c.send(method, path, body)
	}
	return c.send(method, path, body, who)
}

// in signs somebody in and gives what his browser sends along from then on.
func (c *crew) in(id string) func(*http.Request) {
	c.t.Helper()
	w := c.tried(fmt.Sprintf(`{"person_id":%q,"pin":%q}`, id, pins[id]), "192.0.2.7:4000")
	require.Equal(c.t, 200, w.Code, w.Body.String())
	cookies := w.Result().Cookies()
	require.Len(c.t, cookies, 1)
	assert.True(c.t, cookies[0].HttpOnly)
	assert.Equal(c.t, http.SameSiteStrictMode, cookies[0].SameSite)
	return func(r *http.Request) { r.AddCookie(cookies[0]) }
}

// tried tries to sign in from an address.
func (c *crew) tried(body, from string) *httptest.ResponseRecorder {
	r := httptest.NewRequest("POST", "http://localhost/api/v1/session", strings.NewReader(body))
	r.Header.Set("Content-Type", "application/json")
	r.RemoteAddr = from
	w := httptest.NewRecorder()
	c.http.ServeHTTP(w, r)
	return w
}

const happenings = "/api/v1/jobs/job-0001/happenings"

// Nobody is let in who is not there, and nobody does what is not for him; the table of roles is
// core/people's.
func TestWhoMayDoWhatOverHTTP(t *testing.T) {
	c := peopled(t)
	june, tess, ivo, rae := c.in("june"), c.in("tess"), c.in("ivo"), c.in("rae")
	way := func(id string) string { return `{"id":"` + id + `","kind":"way_chosen","school":"rocking_pairs"}` }
	for _, try := range []struct {
		who                func(*http.Request)
		method, path, body string
		status             int
		says               string
	}{
		{nil, "GET", "/api/v1/jobs", "", 401, "Nobody is signed in"},
		{nil, "POST", happenings, way("way-nobody"), 401, "sign_in"},
		{nil, "GET", "/api/v1/archive.zip", "", 401, ""},
		{nil, "POST", "/api/v1/people", `{"id":"me","name":"Me","role":"foreman","pin":"4711"}`, 401, ""},
		{nil, "GET", "/api/v1/session", "", 200, `"Tess Ardal"`},
		{rae, "GET", "/api/v1/jobs/job-0001", "", 200, ""},
		{rae, "POST", happenings, way("way-reader"), 403, "not for a reader"},
		{rae, "PUT", "/api/v1/shop", `{}`, 403, ""},
		{ivo, "POST", happenings, way("way-learns"), 200, ""},
		{ivo, "POST", happenings, `{"id":"sign-learns","kind":"signed","by":"Ivo Lund","tools_out":true}`, 403, "not for a learner"},
		{ivo, "DELETE", "/api/v1/gauge-sets/gauges-01", "", 403, ""},
		{tess, "POST", happenings, `{"id":"sign-asivo","kind":"signed","by":"Ivo Lund","tools_out":true}`, 403, "one's own name"},
		{tess, "POST", happenings, `{"id":"sign-early","kind":"signed","by":"Tess Ardal","tools_out":true}`, 409, "not finished"},
		{tess, "POST", happenings, `{"id":"vouch-tess","kind":"countersigned","by":"Tess Ardal"}`, 403, "not for a mechanic"},
		{tess, "GET", "/api/v1/archive.zip", "", 403, ""},
		{tess, "GET", "/api/v1/people", "", 403, ""},
		{tess, "GET", "/api/v1/audit", "", 403, ""},
		{tess, "PUT", "/api/v1/people/tess", `{"name":"Tess Ardal","role":"foreman"}`, 403, ""},
		{june, "GET", "/api/v1/people", "", 200, "Ivo Lund"},
		{june, "PUT", "/api/v1/people/june", `{"name":"June Abara","role":"mechanic"}`, 409, "look after people"},
		{june, "PUT", "/api/v1/people/june", `{"name":"June Abara","role":"foreman","pin":""}`, 409, "look after people"},
		{june, "POST", "/api/v1/people", `{"id":"tess2","name":"tess ardal","role":"reader"}`, 409, "already"},
		{june, "POST", "/api/v1/people", `{"id":"lee","name":"Lee","role":"owner"}`, 422, "role"},
		{june, "POST", "/api/v1/people", `{"id":"lee","name":"Lee","role":"reader","pin":"1234"}`, 422, "first"},
		{june, "POST", "/api/v1/people", `{"id":"lee","name":" Lee","role":"reader"}`, 422, "blanks"},
	} {
		status, text := c.as(try.who, try.method, try.path, try.body)
		assert.Equal(t, try.status, status, "%s %s %s: %s", try.method, try.path, try.body, text)
		assert.Contains(t, text, try.says, "%s %s", try.method, try.path)
	}
}

// Every operation stands in the table of deeds, and the document says by what it is let in.
func TestEveryOperationIsADeed(t *testing.T) {
	c := peopled(t)
	data, err := api.Document()
	require.NoError(t, err)
	var doc struct {
		Servers []struct{ URL string } `json:"servers"`
		Paths   map[string]map[string]struct {
			ID       string                 `json:"operationId"`
			Security *[]map[string][]string `json:"security"`
		} `json:"paths"`
	}
	decode(t, string(data), &doc)
	require.NotEmpty(t, doc.Servers)
	june := c.in("june")
	n := 0
	for path, methods := range doc.Paths {
		for method, o := range methods {
			n++
			require.NotNil(t, o.Security, "%s %s", method, path)
			open := len(*o.Security) == 0
			assert.Equal(t, path == "/api/v1/session" && method != "patch", open, "%s %s", method, path)
			address := strings.NewReplacer("{id}", "nothing-there", "{hash}", "nothing-there").Replace(path)
			if status, _ := c.as(nil, strings.ToUpper(method), address, ""); !open {
				assert.Equal(t, 401, status, "%s %s of nobody", method, path)
			}
			if !strings.HasSuffix(path, "events") && !open {
				status, text := c.as(june, strings.ToUpper(method), address, "")
				assert.NotEqual(t, 403, status, "%s %s of a foreman: %s", method, path, text)
			}
		}
	}
	assert.Greater(t, n, 60)
}

// An entry is its author's: it waits for him, or a foreman sends it in his place, marked so; a signature is
// not sent for anybody.
func TestAnEntryIsItsAuthors(t *testing.T) {
	c := peopled(t)
	june, tess := c.in("june"), c.in("tess")
	entry := func(id, more, fields string) string {
		return fmt.Sprintf(`{"id":%q%s,"kind":"way_chosen","school":%q}`, id, more, fields)
	}
	for _, try := range []struct {
		who    func(*http.Request)
		body   string
		status int
		says   string
	}{
		{tess, entry("own-0001", "", "rocking_pairs"), 200, ""},
		{tess, entry("own-0001", "", "rocking_pairs"), 200, ""}, // sent twice
		{tess, entry("other-01", `,"author":"Ivo Lund"`, "one_cylinder"), 403, "urn:metronix:another_person"},
		{tess, entry("other-02", `,"author":"Ivo Lund","sent_by":"Tess Ardal"`, "one_cylinder"), 403, "another_person"},
		{tess, entry("other-03", `,"author":"Ivo Lund","sent_by":"June Abara"`, "one_cylinder"), 403, "another_person"},
		{june, entry("other-04", `,"author":"Ivo Lund"`, "one_cylinder"), 403, "another_person"},
		{june, entry("other-05", `,"author":"Nobody","sent_by":"June Abara"`, "one_cylinder"), 422, "Nobody of this workshop"},
		{june, entry("other-06", `,"author":"Ivo Lund","sent_by":"June Abara"`, "one_cylinder"), 200, ""},
		{june, `{"id":"other-07","author":"Tess Ardal","sent_by":"June Abara","kind":"signed","by":"Tess Ardal","tools_out":true}`, 403,
			"nobody else"},
	} {
		status, text := c.as(try.who, "POST", happenings, try.body)
		assert.Equal(t, try.status, status, "%s: %s", try.body, text)
		assert.Contains(t, text, try.says, try.body)
	}
	list, err := c.st.Happenings("job-0001")
	require.NoError(t, err)
	require.Len(t, list.Happenings, 2)
	assert.Equal(t, [2]string{"Tess Ardal", ""}, [2]string{list.Happenings[0].Author, list.Happenings[0].SentBy})
	assert.Equal(t, [2]string{"Ivo Lund", "June Abara"}, [2]string{list.Happenings[1].Author, list.Happenings[1].SentBy})
	spoil(t, c.path, `UPDATE happenings SET sent_by = '' WHERE place = 1`)
	found, err := api.Check(t.Context())(c.st)
	require.NoError(t, err)
	assert.NotEmpty(t, found.Troubles, "who sent it is in the chain")
}

// A session that ended, was taken, or is nobody's opens nothing, and neither does one of somebody who left.
func TestASessionEnds(t *testing.T) {
	c := peopled(t)
	june, tess := c.in("june"), c.in("tess")
	reads := func(who func(*http.Request)) int {
		status, _ := c.as(who, "GET", "/api/v1/jobs", "")
		return status
	}
	require.Equal(t, 200, reads(tess))
	for name, cookie := range map[string]string{"forged": "AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA", "empty": "", "long": strings.Repeat("x", 9000)} {
		assert.Equal(t, 401, reads(func(r *http.Request) { r.AddCookie(&http.Cookie{Name: "metronix_session", Value: cookie}) }), name)
	}
	for range 5 { // used every twenty minutes it goes on
		c.now = c.now.Add(20 * time.Minute)
		require.Equal(t, 200, reads(tess))
	}
	assert.Equal(t, 401, reads(june), "nobody touched it for as long")
	c.now = c.now.Add(31 * time.Minute)
	assert.Equal(t, 401, reads(tess))

	june, tess = c.in("june"), c.in("tess")
	status, text := c.as(june, "PUT", "/api/v1/sign-out", `{"minutes":240}`)
	require.Equal(t, 200, status, text)
	c.now = c.now.Add(3 * time.Hour)
	require.Equal(t, 200, reads(tess))
	require.Equal(t, 200, reads(june))
	status, _ = c.as(tess, "DELETE", "/api/v1/session", "")
	require.Equal(t, 200, status)
	assert.Equal(t, 401, reads(tess), "replayed after signing out")

	tess = c.in("tess")
	status, text = c.as(tess, "PUT", "/api/v1/session/pin", `{"pin":"0000","new":"8642091"}`)
	assert.Equal(t, 401, status, text)
	assert.NotContains(t, text, "8642091")
	status, text = c.as(tess, "PUT", "/api/v1/session/pin", `{"pin":"4711","new":"864209"}`)
	require.Equal(t, 200, status, text)
	assert.Equal(t, 401, reads(tess), "every session under the old PIN ended")
	assert.Equal(t, 401, c.tried(`{"person_id":"tess","pin":"4711"}`, "192.0.2.7:1").Code)
	require.Equal(t, 200, c.tried(`{"person_id":"tess","pin":"864209"}`, "192.0.2.7:1").Code)

	ivo := c.in("ivo")
	status, text = c.as(june, "PUT", "/api/v1/people/ivo", `{"name":"Ivo Lund","role":"learner","left":true}`)
	require.Equal(t, 200, status, text)
	assert.Equal(t, 401, reads(ivo), "who left is out at once")
	assert.Equal(t, 401, c.tried(`{"person_id":"ivo","pin":"2580"}`, "192.0.2.7:1").Code)

	for id, name := range map[string]string{"tess": "Tess Ardal", "rae": "Rae Quist"} {
		status, text = c.as(june, "PUT", "/api/v1/people/"+id, `{"name":"`+name+`","role":"reader","left":true}`)
		require.Equal(t, 200, status, text)
	}
	status, text = c.as(june, "PUT", "/api/v1/people/june", `{"name":"June Abara","role":"foreman","left":true}`)
	assert.Equal(t, 409, status, "the last one stays: else the workshop would be open to whoever comes: %s", text)
	assert.Equal(t, 401, reads(nil))
}

// A tag's number lets in, and is in the file nowhere.
func TestATag(t *testing.T) {
	c := peopled(t)
	june := c.in("june")
	status, text := c.as(june, "PUT", "/api/v1/people/ivo", `{"name":"Ivo Lund","role":"learner","tag":"0009315502"}`)
	require.Equal(t, 200, status, text)
	w := c.tried(`{"tag":"0009315502"}`, "192.0.2.7:1")
	require.Equal(t, 200, w.Code, w.Body.String())
	assert.Contains(t, w.Body.String(), `"name":"Ivo Lund"`)
	assert.Equal(t, 401, c.tried(`{"tag":"0009315503"}`, "192.0.2.7:1").Code)
	status, text = c.as(june, "PUT", "/api/v1/people/rae", `{"name":"Rae Quist","role":"reader","tag":"0009315502"}`)
	assert.Equal(t, 409, status, text)
	token := w.Result().Cookies()[0].Value
	_, audit := c.as(june, "GET", "/api/v1/audit", "")
	var logged bytes.Buffer
	before := slog.Default()
	slog.SetDefault(slog.New(slog.NewTextHandler(&logged, nil)))
	defer slog.SetDefault(before)
	c.st.Close() // what fails from here on is logged
	for _, body := range []string{`{"tag":"0009315502"}`, `{"person_id":"tess","pin":"4711"}`} {
		assert.Equal(t, 500, c.tried(body, "192.0.2.7:1").Code)
	}
	status, _ = c.as(june, "PUT", "/api/v1/session/pin", `{"pin":"7319","new":"4711"}`)
	assert.Equal(t, 503, status)
	assert.Contains(t, logged.String(), "level=ERROR")
	data, err := os.ReadFile(c.path)
	require.NoError(t, err)
	for where, text := range map[string]string{"the data file": string(data), "the log": logged.String(), "the audit list": audit} {
		for _, secret := range []string{"0009315502", "4711", "7319", token} {
			assert.NotContains(t, text, secret, where)
		}
	}
}

// Whoever is signed out sees no more of what happens, though his stream was open.
func TestAStreamEndsWithItsSession(t *testing.T) {
	t.Parallel()
	c := peopled(t)
	server := c.served(api.Options{Version: "test", Clock: func() time.Time { return c.now }})
	tess, june := c.in("tess"), c.in("june")
	there := func(who func(*http.Request)) func(*http.Request) { // a cookie bears the port
		return func(r *http.Request) {
			who(r)
			cookie, err := r.Cookie("metronix_session")
			require.NoError(t, err)
			r.AddCookie(&http.Cookie{Name: "metronix_session_" + r.URL.Port(), Value: cookie.Value})
		}
	}
	hers, his := watched(t, server, "/api/v1/events", "", there(tess)), watched(t, server, "/api/v1/events", "", there(june))
	next(t, hers)
	next(t, his)
	status, _ := c.as(tess, "DELETE", "/api/v1/session", "")
	require.Equal(t, 200, status)
	select {
	case _, open := <-hers:
		assert.False(t, open, "it ends, and nothing more comes")
	case <-time.After(40 * time.Second):
		t.Fatal("the stream goes on")
	}
	none(t, his)
}

// The audit list says who did what and from where; a line that is changed, taken out or cut off is found.
func TestTheAuditList(t *testing.T) {
	c := peopled(t)
	june := c.in("june")
	c.tried(`{"person_id":"tess","pin":"1111"}`, "192.0.2.99:5")
	status, text := c.as(june, "DELETE", "/api/v1/gauge-sets/nothing", "")
	require.Equal(t, 404, status, text)
	status, text = c.as(june, "PUT", "/api/v1/vehicles/vehicle-01/on-board", `{"on_board":false}`)
	require.Equal(t, 409, status, text)
	status, text = c.as(june, "PUT", "/api/v1/jobs/job-0001/on-board", `{"on_board":false}`)
	require.Equal(t, 200, status, text)
	_, text = c.as(june, "GET", "/api/v1/audit", "")
	var list api.AuditView
	decode(t, text, &list)
	said := func(n api.NotedView) string { return n.Name + " " + n.What + " " + n.About + " " + n.From }
	require.GreaterOrEqual(t, len(list.Lines), 6)
	assert.Equal(t, "June Abara put-job-on-board job-0001 192.0.2.1", said(list.Lines[0]))
	assert.Equal(t, " sign_in_refused Tess Ardal 192.0.2.99", said(list.Lines[1]))
	assert.Equal(t, "June Abara signed_in  192.0.2.7", said(list.Lines[2]))
	assert.NotContains(t, text, "1111")
	for i, n := range list.Lines {
		assert.Equal(t, list.Lines[0].N-i, n.N, "without gaps")
	}
	c.st.Close()
	data, err := os.ReadFile(c.path)
	require.NoError(t, err)
	for _, statement := range []string{"", `UPDATE audit SET name = 'Tess' WHERE n = 1`, `DELETE FROM audit WHERE n = 2`,
		`DELETE FROM audit WHERE n = (SELECT max(n) FROM audit)`} {
		path := filepath.Join(t.TempDir(), "spoilt.db")
		require.NoError(t, os.WriteFile(path, data, 0o600))
		spoil(t, path, statement)
		st, err := store.Open(path)
		require.NoError(t, err)
		found, err := api.Check(t.Context())(st)
		require.NoError(t, err)
		st.Close()
		assert.Equal(t, statement != "", strings.Contains(fmt.Sprint(found.Troubles), "audit list"), "%s: %v", statement, found.Troubles)
	}
}
