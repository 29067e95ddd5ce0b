package store

import (
	"context"
	"database/sql"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/engine/enginetest"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/core/sequence"
	"metronix/internal/wire"
)

func opened(t testing.TB) (*Store, string) {
	t.Helper()
	path := filepath.Join(t.TempDir(), "jobs and more.db")
	s, err := Open(path)
	require.NoError(t, err)
	t.Cleanup(s.Close)
	return s, path
}

func derived() Derived {
	return glanced(time.Date(2026, 11, 1, 8, 0, 0, 0, time.UTC), true)
}

// glanced is what follows from a job with so many valves as most have.
func glanced(touched time.Time, open bool) Derived {
	g := record.Glance{
		Phase: job.AsFound,
		Next: job.Brief{Action: job.DoTurn, Turning: job.GoOn, By: 180 * measure.Degree,
			Until: []sequence.Sighting{{What: sequence.Rocking, Cylinder: 4}}},
		Total: 8,
		Stops: 4,
	}
	for _, v := range enginetest.Four().Valves() {
		g.Valves = append(g.Valves, record.Dot{Valve: v.Name, Verdict: clearance.In})
	}
	return Derived{TouchedAt: touched, Open: open, Vehicle: "Tipper", Engine: "four", Glance: g}
}

func listOf(t testing.TB, s *Store) *List {
	t.Helper()
	l, err := s.Happenings("j")
	require.NoError(t, err)
	return l
}

func withJob(t testing.TB, s *Store) {
	t.Helper()
	now := time.Date(2026, 11, 1, 8, 0, 0, 0, time.UTC)
	require.NoError(t, s.AddEngine(Engine{"e", enginetest.Four(), now}))
	require.NoError(t, s.AddGaugeSet(GaugeSet{ID: "g", Name: "plain",
		Items: []gauge.Item{{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 200_000}, Measured: 201_000}},
			{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 250_000}},
				Missing: true}}, Checked: "2026-10-01", CreatedAt: now}))
	require.NoError(t, s.AddVehicle(Vehicle{ID: "v", Name: "Tipper", Plate: "T 7", Meter: 1200,
		EngineID: "e", CreatedAt: now}))
	require.NoError(t, s.AddJob(Job{ID: "j", Vehicle: Vehicle{ID: "v"}, Sheet: enginetest.Four(), HotCard: -1,
		Feel: 5_000, GaugeName: "plain",
		Leaves: gauge.Set{{ID: gauge.ID{Marked: 200_000},
			Measured: 201_000}}, Mechanic: "Tess", CreatedAt: now}, derived()))
}

func TestRecordsRoundTrip(t *testing.T) {
	s, path := opened(t)
	withJob(t, s)
	h := job.Happening{ID: "one", Rules: job.Rules, Since: "zero",
		At:     time.Date(2026, 11, 1, 9, 0, 0, 123, time.UTC),
		DoneAt: time.Date(2026, 11, 1, 8, 59, 0, 7, time.UTC),
		Act: job.ReadingTaken{Valve: "I1",
			Leaves: []gauge.ID{{Marked: 150_000, Angled: true}, {Marked: 60_000}},
			Feel:   clearance.Drag, MadeThere: true}}
	require.NoError(t, s.Append("j", listOf(t, s), h, derived()))
	s.Close()
	s, err := Open(path)
	require.NoError(t, err, "a second start finds the file up to date")
	defer s.Close()
	stored, err := s.Happenings("j")
	require.NoError(t, err)
	list := stored.Happenings
	require.Len(t, list, 1)
	assert.True(t, h.At.Equal(list[0].At))
	assert.True(t, h.DoneAt.Equal(list[0].DoneAt))
	list[0].At, list[0].DoneAt = h.At, h.DoneAt
	assert.Equal(t, h, list[0])
	j, err := s.Job("j")
	require.NoError(t, err)
	assert.Equal(t, "test engine", j.Vehicle.EngineName)
	assert.Equal(t, enginetest.Four(), j.Sheet)
	assert.Equal(t, gauge.Set{{ID: gauge.ID{Marked: 200_000}, Measured: 201_000}}, j.Leaves)
	sets, err := s.GaugeSets()
	require.NoError(t, err)
	assert.Equal(t, measure.Length(201_000), sets[0].Items[0].Measured)
	assert.True(t, sets[0].Items[1].Missing)
	assert.Equal(t, -1, j.HotCard)
	assert.Equal(t, 5*measure.Micrometre, j.Feel)
}

func TestNothingIsStoredTwiceOrLoose(t *testing.T) {
	s, _ := opened(t)
	withJob(t, s)
	h := job.Happening{ID: "one", At: time.Now(), Act: job.Picked{Valve: "I1"}}
	old := *listOf(t, s)
	l := listOf(t, s)
	require.NoError(t, s.Append("j", l, h, derived()))
	assert.ErrorIs(t, s.Append("j", l, h, derived()), ErrExists, "the same id again")
	other := h
	other.ID = "two"
	assert.ErrorIs(t, s.Append("j", &old, other, derived()), ErrPlaceTaken,
		"another writer was faster: it is not stored")
	assert.ErrorIs(t, s.Append("nowhere", &List{}, h, derived()), ErrMissing)
	assert.ErrorIs(t, s.AddVehicle(Vehicle{ID: "w", EngineID: "none"}), ErrMissing)
	_, err := s.Job("none")
	assert.ErrorIs(t, err, ErrNotFound)
}

// Every pooled connection, readers and writer, runs the intended pragmas: a kill of the process does not test
// the disk, this does.
func TestEveryConnectionRunsThePragmas(t *testing.T) {
	s, _ := opened(t)
	for _, db := range []struct {
		name string
		size int
		pool func() (int, error)
	}{
		{"write", 1, func() (int, error) { return counted(t, s, true, 1) }},
		{"read", readers, func() (int, error) { return counted(t, s, false, readers) }},
	} {
		n, err := db.pool()
		require.NoError(t, err, db.name)
		assert.Equal(t, db.size, n, db.name)
	}
}

// counted holds size connections at once and counts those on which every pragma is as wanted.
func counted(t *testing.T, s *Store, write bool, size int) (good int, err error) {
	db := s.read
	if write {
		db = s.write
	}
	pool, err := db.DB()
	require.NoError(t, err)
	assert.Equal(t, size, pool.Stats().MaxOpenConnections)
	for range size {
		conn, err := pool.Conn(context.Background())
		if err != nil {
			return good, err
		}
		defer conn.Close()
		ok := true
		for _, p := range []struct{ name, want string }{{"journal_mode", "wal"}, {"synchronous", "2"},
			{"foreign_keys", "1"}, {"busy_timeout", "2000"}} {
			var got string
			if err := conn.QueryRowContext(context.Background(), "PRAGMA "+p.name).Scan(&got); err != nil {
				return good, err
			}
			ok = ok && got == p.want
		}
		if ok {
			good++
		}
	}
	return good, nil
}

func TestFilesThatCannotBeUsed(t *testing.T) {
	dir := t.TempDir()
	text := filepath.Join(dir, "notes.txt")
	require.NoError(t, os.WriteFile(text, []byte("this is a shopping list, and a long one at that, so that "+
		"it fills a page header"), 0o644))
	_, err := Open(text)
	assert.ErrorIs(t, err, ErrNotDatabase)
	kept, _ := os.ReadFile(text)
	assert.Contains(t, string(kept), "shopping list", "nothing of the user's is touched")

	_, err = Open(filepath.Join(text, "below.db"))
	assert.ErrorIs(t, err, ErrUnwritable)
	_, err = Open(dir)
	assert.ErrorIs(t, err, ErrUnwritable)

	s, path := opened(t)
	require.NoError(t, s.write.Create(&schemaRow{Version: 99, AppliedAt: time.Now()}).Error)
	s.Close()
	_, err = Open(path)
	assert.ErrorIs(t, err, ErrNewer)

	foreign := filepath.Join(dir, "foreign.db")
	db, err := sql.Open("sqlite3", foreign)
	require.NoError(t, err)
	_, err = db.Exec("CREATE TABLE birds (name TEXT)")
	require.NoError(t, err)
	require.NoError(t, db.Close())
	before, err := os.ReadFile(foreign)
	require.NoError(t, err)
	_, err = Open(foreign)
	assert.ErrorIs(t, err, ErrForeign)
	after, err := os.ReadFile(foreign)
	require.NoError(t, err)
	assert.Equal(t, before, after, "not a byte of another program's file is changed")
}

// A data file of the first version is brought up to date, and what it holds stays.
func TestAFileOfTheFirstVersion(t *testing.T) {
	all := migrations
	defer func() { migrations = all }()
	migrations = all[:1]
	path := filepath.Join(t.TempDir(), "old.db")
	s, err := Open(path)
	require.NoError(t, err)
	now := time.Date(2026, 11, 1, 8, 0, 0, 0, time.UTC)
	sheet, err := wire.WriteSheet(enginetest.Four())
	require.NoError(t, err)
	require.NoError(t, s.write.Create(&engineRowOne{"e", "test engine", string(sheet), now}).Error)
	require.NoError(t, s.write.Create(&vehicleRowOne{ID: "v", Name: "Tipper", EngineID: "e",
		CreatedAt: now}).Error)
	require.NoError(t, s.write.Create(&jobRowOne{ID: "j", VehicleID: "v", Sheet: string(sheet),
		Leaves: `[{"marked_nm":200000}]`, CreatedAt: now}).Error)
	require.NoError(t, s.write.Create(&happeningRowOne{JobID: "j", ClientID: "one", Kind: "temperature",
		Body: `{"ambient_c":18}`, At: now}).Error)
	s.Close()

	migrations = all
	s, err = Open(path)
	require.NoError(t, err)
	defer s.Close()
	j, err := s.Job("j")
	require.NoError(t, err)
	assert.Equal(t, -1, j.HotCard)
	assert.Equal(t, 5*measure.Micrometre, j.Feel)
	shop := Shop{Probe: "127.0.0.1:7070", Stock: []adjust.Count{{Shim: 2_500_000, N: 3}}, Version: "a"}
	require.NoError(t, s.PutShop(shop, "", now))
	got, err := s.Shop()
	require.NoError(t, err)
	shop.Version = got.Version
	assert.Equal(t, shop, got)
	shop.Version = "b"
	assert.ErrorIs(t, s.PutShop(shop, "not that one", now), ErrChanged)
	require.NoError(t, s.PutShop(shop, got.Version, now))
	_, err = os.Stat(path + ".version-1")
	require.NoError(t, err, "an older file is copied before it is brought up to date")
	kept, err := Inspect(path+".version-1", whole)
	require.NoError(t, err)
	assert.Equal(t, Findings{Entries: 1}, kept)
	version, err := look(path + ".version-1")
	require.NoError(t, err)
	assert.Equal(t, 1, version, "the check brings nothing up to date")
	l, err := s.Happenings("j")
	require.NoError(t, err, "every entry has its checksum")
	require.Len(t, l.Happenings, 1)
	assert.Equal(t, 1, l.Happenings[0].Rules)
	assert.Equal(t, job.TemperatureNoted{AmbientC: 18}, l.Happenings[0].Act,
		"the first version left zeros out")
	ids, err := s.Underived()
	require.NoError(t, err)
	assert.Equal(t, []string{"j"}, ids)
}

// A sheet and a set are changed and taken out; what is not there is said to be missing, and an engine that a
// vehicle has stays.
func TestChangingAndTakingOut(t *testing.T) {
	s, _ := opened(t)
	withJob(t, s)
	now := time.Date(2026, 11, 2, 8, 0, 0, 0, time.UTC)
	anew := enginetest.Four()
	anew.Name = "anew"
	assert.ErrorIs(t, s.ReplaceEngine(Engine{"e", anew, now}, anew), ErrChanged,
		"it is not the one that was read")
	require.NoError(t, s.ReplaceEngine(Engine{"e", anew, now}, enginetest.Four()))
	e, err := s.Engine("e")
	require.NoError(t, err)
	assert.Equal(t, "anew", e.Sheet.Name)
	assert.Equal(t, 1, e.CreatedAt.Day(), "when it was first stored stays")
	assert.ErrorIs(t, s.ReplaceEngine(Engine{"none", anew, now}, anew), ErrNotFound)
	assert.ErrorIs(t, s.RemoveEngine("e"), ErrMissing)
	assert.ErrorIs(t, s.RemoveEngine("none"), ErrNotFound)
	require.NoError(t, s.AddEngine(Engine{"f", anew, now}))
	require.NoError(t, s.RemoveEngine("f"))

	require.NoError(t, s.ReplaceGaugeSet(GaugeSet{ID: "g", Name: "emptied",
		Items: []gauge.Item{{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 1_000}}}}}, ""))
	g, err := s.GaugeSet("g")
	require.NoError(t, err)
	assert.Equal(t, "", g.Checked, "a field that is emptied is stored empty")
	assert.ErrorIs(t, s.ReplaceGaugeSet(GaugeSet{ID: "none", Name: "x"}, ""), ErrNotFound)
	require.NoError(t, s.RemoveGaugeSet("g"))
	assert.ErrorIs(t, s.RemoveGaugeSet("g"), ErrNotFound)
	j, err := s.Job("j")
	require.NoError(t, err)
	assert.Len(t, j.Leaves, 1, "the job keeps its leaves")
	assert.ErrorIs(t, s.ReplaceGaugeSet(GaugeSet{ID: "g", Name: "x"}, g.Version), ErrNotFound)
}
