//go:build !race

package api_test

import (
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/internal/api"
	"metronix/internal/store"
)

// Every job of the demo is admitted as it is; and none that could not have come by the interface: whatever it
// was started from, whatever its entries hold, and however they follow each other.
func TestAJobIsTakenInOnlyAsItCouldHaveCome(t *testing.T) {
	d := demoDoor(t)
	admit := api.Admission().Job
	ids, err := d.st.JobIDs()
	require.NoError(t, err)
	read := func(id string) (store.Job, []job.Happening) {
		r, err := d.st.Job(id)
		require.NoError(t, err)
		l, err := d.st.Happenings(id)
		require.NoError(t, err)
		return r, l.Happenings
	}
	for _, id := range ids {
		r, list := read(id)
		assert.Empty(t, admit(r, list), id)
	}
	nothing := func(*store.Job, []job.Happening) {}
	last := func(change func(h *job.Happening)) func(*store.Job, []job.Happening) {
		return func(_ *store.Job, list []job.Happening) { change(&list[len(list)-1]) }
	}
	for name, c := range map[string]struct {
		change func(*store.Job, []job.Happening)
		cut    int
		says   string
	}{
		"as it is":                {nothing, 0, ""},
		"a card that is not":      {func(r *store.Job, _ []job.Happening) { r.Card = 99 }, 0, "clearance card"},
		"a card below none":       {func(r *store.Job, _ []job.Happening) { r.Card = -1 }, 0, "card"},
		"a hot card that is not":  {func(r *store.Job, _ []job.Happening) { r.HotCard = 50 }, 0, "clearance card"},
		"an unknown rule":         {func(r *store.Job, _ []job.Happening) { r.Rule = "lenient" }, 0, "rule"},
		"an unknown aim":          {func(r *store.Job, _ []job.Happening) { r.Aim = clearance.Aim("far") }, 0, "aim"},
		"a feel below nought":     {func(r *store.Job, _ []job.Happening) { r.Feel = -5 }, 0, "feel"},
		"a feel of a kilometre":   {func(r *store.Job, _ []job.Happening) { r.Feel = 1e12 }, 0, "feel"},
		"no id":                   {func(r *store.Job, _ []job.Happening) { r.ID = "" }, 0, "id"},
		"an id with a path":       {func(r *store.Job, _ []job.Happening) { r.ID = "a/b" }, 0, "id"},
		"an odometer below 0":     {func(r *store.Job, _ []job.Happening) { r.Meter = -5 }, 0, "odometer_km"},
		"an odometer beyond all":  {func(r *store.Job, _ []job.Happening) { r.Meter = 9e15 }, 0, "odometer_km"},
		"a nameless mechanic":     {func(r *store.Job, _ []job.Happening) { r.Mechanic = "" }, 0, "mechanic"},
		"a name with a nought":    {func(r *store.Job, _ []job.Happening) { r.Mechanic = "T\x00" }, 0, "mechanic"},
		"a thousand leaves":       {func(r *store.Job, _ []job.Happening) { r.Leaves = leaves(1000) }, 0, "leaves"},
		"a leaf below nought":     {func(r *store.Job, _ []job.Happening) { r.Leaves[0].Marked = -1000 }, 0, "leaves[0]"},
		"facts that were changed": {func(r *store.Job, _ []job.Happening) { r.Reason = "another" }, 0, "not what was signed"},
		"signed and not finished": {func(_ *store.Job, list []job.Happening) { list[5] = list[len(list)-1] }, 6,
			"does not fit together"},
		"a signature that turns round": {last(func(h *job.Happening) {
			signed := h.Act.(job.Signed)
			signed.By = "\u202e<script>"
			h.Act = signed
		}), 0, "U+202E"},
		"an id of an entry": {last(func(h *job.Happening) { h.ID = "<b>" }), 0, "id"},
		"done in the future": {last(func(h *job.Happening) {
			h.DoneAt = h.At.Add(2000 * time.Hour)
		}), 0, ""}, // that is the store's to refuse: see TestArchivesThatAreRefused
	} {
		r, list := read("demo-job-bus")
		c.change(&r, list)
		if c.cut > 0 {
			list = list[:c.cut]
		}
		why := admit(r, list)
		if c.says == "" {
			assert.Empty(t, why, name)
			continue
		}
		assert.Contains(t, why, c.says, name)
	}
}

func leaves(n int) (set gauge.Set) {
	for i := range n {
		set = append(set, gauge.Leaf{ID: gauge.ID{Marked: measure.Length(i+50) * measure.Micrometre}})
	}
	return set
}

// The full check opens every job and reads every record: what no checksum shows is found too.
func TestTheFullCheckPlaysEveryJobThrough(t *testing.T) {
	d := demoDoor(t)
	found, err := api.Check(t.Context())(d.st)
	require.NoError(t, err)
	require.Empty(t, found.Troubles)
	require.Positive(t, found.Entries)

	r, err := d.st.Job("demo-job-tipper")
	require.NoError(t, err)
	r.ID, r.Card = "card-99", 99
	require.NoError(t, d.st.AddJob(r, store.Derived{TouchedAt: time.Now(), Open: true}))
	spoil(t, d.path, `UPDATE vehicles SET intervals = 'garbage' WHERE id = 'demo-tipper-7'`)
	spoil(t, d.path, `UPDATE dues SET due_km = 1 WHERE vehicle_id = 'demo-post-bus'`)
	found, err = api.Check(t.Context())(d.st)
	require.NoError(t, err)
	require.Len(t, found.Troubles, 3)
	assert.Contains(t, found.Troubles[0].What, "Its intervals do not read")
	assert.Contains(t, found.Troubles[1].What, "job card-99: this job cannot be opened")
	assert.False(t, found.Troubles[1].Beside)
	said := found.Troubles[2].What
	assert.Contains(t, said, "when it is due is not what follows")
	_, err = api.Rebuild(t.Context(), d.st)
	require.NoError(t, err)
	found, err = api.Check(t.Context())(d.st)
	require.NoError(t, err)
	assert.Len(t, found.Troubles, 2, "what follows from the lists was made anew")
}

// One record that does not read is shown apart where it stands, everywhere, can be entered again, and is
// named in an export that holds everything else.
func TestOneRecordThatDoesNotRead(t *testing.T) {
	d := demoDoor(t)
	d.st.Close()
	spoil(t, d.path, `UPDATE gauge_sets SET leaves = '[{' WHERE id = (SELECT min(id) FROM gauge_sets)`)
	spoil(t, d.path, `UPDATE vehicles SET cards = '[{' WHERE id = 'demo-tipper-7'`)
	spoil(t, d.path, `UPDATE vehicles SET intervals = '[{' WHERE id = 'demo-post-bus'`)
	spoil(
		t,
		d.path,
		`INSERT OR REPLACE INTO settings VALUES ('shims_counted_at', 'noon'), ('shim_sizes', '{')`,
	)
	spoil(t, d.path, `UPDATE visits SET outcome = '%zz' WHERE job_id = 'demo-job-bus'`)
	spoil(t, d.path, `UPDATE happenings SET body = '{}' WHERE job_id = 'demo-job-tipper' AND place = 1`)
	st, err := store.Open(d.path)
	require.NoError(t, err)
	defer st.Close()
	d.st, d.http = st, api.Handler(st, api.Options{})
	for path, says := range map[string]string{
		"/api/v1/gauge-sets":                            `"damaged":"the text ends`,
		"/api/v1/vehicles":                              `"damaged":"Its own clearance cards do not read`,
		"/api/v1/vehicles/demo-post-bus/history":        `"damaged":"Its intervals do not read`,
		"/api/v1/shop":                                  `"damaged":"The sizes of shims do not read`,
		"/api/v1/jobs/demo-job-minibus/shims":           `"fit"`,
		"/api/v1/jobs/demo-job-bus":                     `"phase":"done"`,
		"/api/v1/due":                                   `demo-post-bus`,
		"/api/v1/jobs":                                  `demo-job-tipper`,
		"/api/v1/vehicles/demo-tipper-7/history":        `"own_cards":[]`,
		"/api/v1/vehicles?search=bus&limit=5":           `"damaged":"Its intervals`,
		"/api/v1/jobs/demo-job-bus/report.json":         `demo`,
		"/api/v1/vehicles/demo-post-bus/due.ics":        `VCALENDAR`,
		"/api/v1/jobs/demo-job-minibus/shims?prefer=":   ``,
		"/api/v1/jobs?off_board=true":                   ``,
		"/api/v1/engines":                               `brindlow-1600`,
		"/api/v1/jobs/demo-job-minibus?doubted=nothing": ``,
	} {
		status, text := d.send("GET", path, "")
		if says == "" {
			assert.Less(t, status, 500, "%s %s", path, text)
			continue
		}
		assert.Equal(t, http.StatusOK, status, "%s %s", path, text)
		assert.True(t, strings.Contains(text, says), "%s lacks %s", path, says)
	}
	status, archive := d.send("GET", "/api/v1/archive.zip", "")
	require.Equal(t, http.StatusOK, status)
	files := unzipped(t, []byte(archive))
	for _, says := range []string{`"what":"gauge set"`, `"what":"cards of vehicle","id":"demo-tipper-7"`,
		`"what":"intervals of vehicle","id":"demo-post-bus"`, `"what":"job","id":"demo-job-tipper"`,
		`"what":"setting of the workshop","id":"shim_sizes"`} {
		assert.Contains(t, files["manifest.json"], says)
	}
	to := opened(t)
	answer := to.ok("POST", "/api/v1/archive", archive)
	assert.Equal(t, 12.0, answer["jobs"])
	assert.Len(t, answer["left_out"], 6)

	d.ok(
		"PUT",
		"/api/v1/vehicles/demo-post-bus/intervals",
		`{"intervals":[{"km":9000,"months":0,"source":"the book"}]}`,
	)
	d.ok("PUT", "/api/v1/vehicles/demo-tipper-7/cards", `{"cards":[]}`)
	d.ok(
		"PUT",
		"/api/v1/shop",
		`{"probe_address":"","shim_sizes":{"from_mm":2,"to_mm":3,"step_mm":0.05},"shim_stock":[]}`,
	)
	_, text := d.send("GET", "/api/v1/vehicles", "")
	assert.NotContains(t, text, `"damaged":"I`, "entered again it is whole")
}

// A vehicle that was changed elsewhere meanwhile is not written over by whoever looked at it before; and its
// odometer goes back only for a reason.
func TestAVehicleChangedInTwoPlaces(t *testing.T) {
	d := withJob(t)
	var list []struct{ ID, Version string }
	at := func() string {
		_, text := d.send("GET", "/api/v1/vehicles", "")
		list = nil
		decode(t, text, &list)
		return list[0].Version
	}
	seen := at()
	put := func(query, more string) (int, string) {
		return d.send(
			"PUT",
			"/api/v1/vehicles/vehicle-01"+query,
			`{"name":"Tipper","plate":"T 1","engine_id":`+
				`"engine-01","odometer_km":`+more+`}`,
		)
	}
	status, text := put("?replaces="+seen, "99999")
	require.Equal(t, http.StatusOK, status, text)
	status, text = put("?replaces="+seen, "44870")
	assert.Equal(t, http.StatusConflict, status, text)
	status, text = put("", "44870")
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, text, "body.odometer_km")
	status, text = put("?replaces="+at(), `44870,"odometer_why":"a new instrument"`)
	require.Equal(t, http.StatusOK, status, text)
	assert.Contains(t, text, `"odometer_why":"a new instrument"`)
}
