package store

import (
	"crypto/sha256"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/adjust"
	"metronix/core/around"
	"metronix/core/job"
	"metronix/core/wear"
)

// The check reads every record and verifies every hash, of each kind; what it finds is told, and nothing of
// the file is changed by looking, whatever its version.
func TestTheCheckReadsEverything(t *testing.T) {
	s, path := opened(t)
	withJob(t, s)
	require.NoError(t, s.AddGaugeSet(GaugeSet{ID: "set-1", Name: "Set", CreatedAt: time.Now()}))
	require.NoError(t, s.PutShop(Shop{Version: "a"}, "", time.Now()))
	_, err := s.AddPhoto("j", []byte("a picture"), time.Now())
	require.NoError(t, err)
	require.NoError(t, s.Append("j", listOf(t, s), happened(0), derived()))
	s.Close()
	found, err := Inspect(path, whole)
	require.NoError(t, err)
	require.Empty(t, found.Troubles)
	for spoil, says := range map[string]string{
		`UPDATE engines SET sheet = '{'`:                                     "engine ",
		`UPDATE gauge_sets SET leaves = '[{'`:                                "gauge set set-1 (Set)",
		`UPDATE vehicles SET cards = '[{"state":'`:                           "vehicle v",
		`UPDATE settings SET value = 'noon' WHERE name = 'shims_counted_at'`: "counted does not read",
		`UPDATE photos SET data = 'another'`:                                 "of job j is not what was stored",
		`UPDATE jobs SET sheet = replace(sheet, 'clockwise', 'backwards')`:   "a stored sheet does not read",
		`UPDATE happenings SET body = replace(body, '18', '19')`:             "not as it was stored",
		`UPDATE schema_versions SET version = 99 WHERE version = 9`:          "newer version",
		`DELETE FROM happenings WHERE place = 0`:                             "short",
		`UPDATE happenings SET place = 7`:                                    "missing",
		`UPDATE jobs SET leaves = replace(leaves, '0.201', '"x"')`:           "leaves",
		`UPDATE jobs SET card = 3`:                                           "not as it was stored",
		`UPDATE gauge_sets SET leaves = '[{"marked_mm":"thick"}]'`:           "gauge set",
		`UPDATE vehicles SET cards = '[{"intake":{"nominal_mm":"wide"}}]'`:   "vehicle",
		`UPDATE photos SET hash = replace(hash, substr(hash, 1, 4), 'ffff')`: "not what was stored",
		`UPDATE jobs SET last_sum = 'elsewhere'`:                             "does not end where",
	} {
		copied := filepath.Join(t.TempDir(), "spoiled.db")
		data, err := os.ReadFile(path)
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(copied, data, 0o600))
		spoilFile(t, copied, spoil)
		before := sumOfFile(t, copied)
		found, err := Inspect(copied, whole)
		said := ""
		if err != nil {
			said = err.Error()
		}
		for _, trouble := range found.Troubles {
			said += trouble.What + "; "
		}
		assert.Contains(t, said, says, spoil)
		assert.Equal(t, before, sumOfFile(t, copied), "looking changes nothing: %s", spoil)
		assert.Equal(t, []string{"spoiled.db"}, namesIn(t, copied))
	}
}

func sumOfFile(t *testing.T, path string) [sha256.Size]byte {
	t.Helper()
	data, err := os.ReadFile(path)
	require.NoError(t, err)
	return sha256.Sum256(data)
}

// A file in which nothing was begun is said to be that, and nothing is begun in it; one that a program is
// writing to is checked as it stands.
func TestAFileThatIsEmptyOrInUseIsLookedAt(t *testing.T) {
	empty := filepath.Join(t.TempDir(), "w.db")
	require.NoError(t, os.WriteFile(empty, nil, 0o600))
	_, err := Inspect(empty, whole)
	require.ErrorIs(t, err, ErrEmpty)
	info, err := os.Stat(empty)
	require.NoError(t, err)
	assert.Zero(t, info.Size())

	s, path := opened(t)
	withJob(t, s)
	require.NoError(t, s.Append("j", listOf(t, s), happened(0), derived()))
	found, err := Inspect(path, whole)
	require.NoError(t, err)
	assert.Equal(t, Findings{Entries: 1}, found, "what lies in the log counts")
	require.NoError(t, s.Still())
}

// One record that does not read is said to be so where it stands, and hinders no other.
func TestARecordThatDoesNotReadHindersNoOther(t *testing.T) {
	s, _ := opened(t)
	withJob(t, s)
	for _, id := range []string{"set-1", "set-2"} {
		require.NoError(t, s.AddGaugeSet(GaugeSet{ID: id, Name: id, CreatedAt: time.Now()}))
	}
	require.NoError(t, s.write.Exec("UPDATE gauge_sets SET leaves = '[{' WHERE id = 'set-1'").Error)
	require.NoError(t, s.write.Exec("UPDATE vehicles SET cards = '[{'").Error)
	sets, err := s.GaugeSets()
	require.NoError(t, err)
	require.Len(t, sets, 3)
	for _, set := range sets {
		assert.Equal(t, set.ID == "set-1", set.Damaged != "", set.ID)
	}
	list, total, err := s.SearchVehicles("", 10, 0)
	require.NoError(t, err)
	assert.Equal(t, int64(1), total)
	assert.NotEmpty(t, list[0].Damaged)
	require.NoError(t, s.SetCards(list[0].ID, nil), "entering them again mends it")
	v, err := s.Vehicle(list[0].ID)
	require.NoError(t, err)
	assert.Empty(t, v.Damaged)
}

// Each part of a vehicle is changed by itself; its name and odometer only where they are still what they were
// when they were looked at, and the odometer never back without a reason.
func TestAVehicleChangedInTwoPlacesAtOnce(t *testing.T) {
	s, _ := opened(t)
	withJob(t, s)
	v, err := s.Vehicle("v")
	require.NoError(t, err)
	require.NoError(t, s.SetIntervals("v", []wear.Interval{{Run: 5000, Source: "book"}}))
	require.NoError(t, s.RaiseMeter("v", v.Meter+1000), "a job is started meanwhile")
	require.NoError(t, s.SetOffBoard("v", true))
	renamed := v
	renamed.Name = "Anew"
	assert.ErrorIs(t, s.ReplaceVehicle(renamed, v.Version), ErrChanged)
	assert.ErrorIs(t, s.ReplaceVehicle(renamed, ""), ErrBackwards)
	renamed.OdometerWhy = "a new instrument"
	require.NoError(t, s.ReplaceVehicle(renamed, ""))
	now, err := s.Vehicle("v")
	require.NoError(t, err)
	assert.Equal(t, v.Meter, now.Meter)
	assert.Equal(t, "a new instrument", now.OdometerWhy)
	assert.Equal(t, []wear.Interval{{Run: 5000, Source: "book"}}, now.Intervals)
	assert.True(t, now.OffBoard)
	now.Meter = 0
	now.OdometerWhy = ""
	require.NoError(t, s.ReplaceVehicle(now, now.Version))
	after, err := s.Vehicle("v")
	require.NoError(t, err)
	assert.Equal(t, v.Meter, after.Meter, "0: it was not read")
	assert.ErrorIs(t, s.SetIntervals("none", nil), ErrNotFound)
}

// A shim that went into an engine while the workshop's page was open does not come back with the page.
func TestAUsedShimStaysUsed(t *testing.T) {
	s, _ := opened(t)
	withJob(t, s)
	stock := Shop{Stock: []adjust.Count{{Shim: 2_650_000, N: 1}}, Version: "a"}
	require.NoError(t, s.PutShop(stock, "", time.Now().Add(-time.Hour)))
	page, err := s.Shop()
	require.NoError(t, err)
	d := derived()
	d.Used = append(d.Used, job.ShopShim{Shim: 2_650_000, At: time.Now()})
	require.NoError(t, s.Append("j", listOf(t, s), happened(0), d))
	page.Probe = "127.0.0.1:7071"
	assert.ErrorIs(t, s.PutShop(page, page.Version, time.Now()), ErrChanged)
	now, err := s.Shop()
	require.NoError(t, err)
	assert.Zero(t, now.Stock[0].N)
	require.NoError(t, s.PutShop(now, now.Version, time.Now()))
}

// The pages of a large file are looked at while the program works already; what is found then ends the
// writing, and is said to whoever asks whether all is well.
func TestALargeFileIsLookedAtBesideTheWork(t *testing.T) {
	path := filled(t, 400)
	was := checkedAtOnce
	defer func() { checkedAtOnce = was }()
	checkedAtOnce = 1
	s, err := Open(path)
	require.NoError(t, err)
	<-s.pages.done
	require.NoError(t, s.Still(), "nothing is found in a sound one")
	s.Close()

	data, err := os.ReadFile(path)
	require.NoError(t, err)
	for i := len(data) - 6*4096; i < len(data)-4*4096; i++ {
		data[i] = 0
	}
	require.NoError(t, os.WriteFile(path, data, 0o600))
	s, err = Open(path)
	require.NoError(t, err)
	defer s.Close()
	<-s.pages.done
	assert.ErrorIs(t, s.Alive(), ErrDamaged)
	assert.ErrorIs(t, s.SetOffBoard("v", true), ErrDamaged)
}

// Pictures and recordings that no entry names are taken out after a day, and only so many wait: those that an
// entry names stay.
func TestWhatNothingNamesIsTakenOut(t *testing.T) {
	s, _ := opened(t)
	withJob(t, s)
	at := time.Date(2026, 11, 1, 9, 0, 0, 0, time.UTC)
	kept, err := s.AddPhoto("j", []byte("named"), at)
	require.NoError(t, err)
	heard, err := s.AddSound("j", "audio/wav", []byte("heard"), at)
	require.NoError(t, err)
	loose, err := s.AddPhoto("j", []byte("loose"), at)
	require.NoError(t, err)
	again, err := s.AddPhoto("j", []byte("sent again"), at)
	require.NoError(t, err)
	l := listOf(t, s)
	finding := job.Happening{
		ID:  "finding-1",
		At:  at,
		Act: job.FindingNoted{Finding: around.Finding{ID: "f1", Photo: kept}},
	}
	require.NoError(t, s.Append("j", l, finding, derived()))
	sound := job.Happening{ID: "sound-01", At: at, Act: job.SoundNoted{Heard: around.Heard{File: heard}}}
	require.NoError(t, s.Append("j", l, sound, derived()))
	_, err = s.AddPhoto("j", []byte("sent again"), at.Add(23*time.Hour))
	require.NoError(t, err)
	require.NoError(t, s.DropUnnamed(at.Add(25*time.Hour)))
	_, err = s.Photo(loose)
	require.ErrorIs(t, err, ErrNotFound)
	for _, hash := range []string{kept, again} {
		_, err = s.Photo(hash)
		require.NoError(t, err)
	}
	_, _, err = s.Sound(heard)
	require.NoError(t, err)

	piece := make([]byte, 4<<20)
	for n := range MostUnnamed/len(piece) + 1 {
		piece[0] = byte(n)
		if _, err = s.AddSound("j", "audio/wav", piece, at.Add(26*time.Hour)); err != nil {
			break
		}
	}
	require.ErrorIs(t, err, ErrUnnamed)
	_, err = s.AddSound("j", "audio/wav", piece, at.Add(51*time.Hour))
	require.NoError(t, err, "a day later there is room")
}
