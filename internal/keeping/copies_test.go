package keeping

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var noon = time.Date(2026, 11, 30, 12, 0, 0, 0, time.UTC)

// hourly is a sound copy of each hour before noon, the oldest first.
func hourly(hours int) (list []Copy) {
	for h := hours - 1; h >= 0; h-- {
		at := noon.Add(-time.Duration(h) * time.Hour)
		list = append(list, Copy{Path: nameOf(at, true), At: at, Sound: true})
	}
	return list
}

// left is what stays of a list.
func left(list []Copy, made Copy) (stays []Copy) {
	gone := map[string]bool{}
	for _, c := range surplus(list, made) {
		gone[c.Path] = true
	}
	for _, c := range list {
		if !gone[c.Path] {
			stays = append(stays, c)
		}
	}
	return stays
}

// Of three years of hourly copies: the last 24 hours, 7 days, 5 weeks and 12 months have one each, and the
// newest of each (common practice for backups; counted by hand: 24 hours from 30 November 12:00 back to 29
// November 13:00; the days 28 to 24 beside them; the weeks that end on the 22nd, 15th, 8th; the months
// October 2026 to December 2025, the 15th weeks before being of November and 1 November of the week that ends
// there).
func TestWhatIsKept(t *testing.T) {
	list := hourly(3 * 365 * 24)
	newest := list[len(list)-1]
	stays := left(list, newest)
	var told []string
	for _, c := range stays {
		told = append(told, c.At.Format("02.01.06 15"))
	}
	var want []string
	for _, month := range []string{"31.12.25", "31.01.26", "28.02.26", "31.03.26", "30.04.26", "31.05.26", "30.06.26", "31.07.26",
		"31.08.26", "30.09.26", "31.10.26", "08.11.26", "15.11.26", "22.11.26", "24.11.26", "25.11.26", "26.11.26", "27.11.26",
		"28.11.26"} {
		want = append(want, month+" 23")
	}
	for h := 23; h >= 0; h-- {
		want = append(want, noon.Add(-time.Duration(h)*time.Hour).Format("02.01.06 15"))
	}
	assert.ElementsMatch(t, want, told)
	assert.Equal(t, stays, left(stays, newest), "once more nothing goes")
}

func TestTheLastGoodOneStays(t *testing.T) {
	folder := t.TempDir()
	put := func(at time.Time, sound bool) Copy {
		c := Copy{Path: filepath.Join(folder, nameOf(at, sound)), At: at, Sound: sound}
		require.NoError(t, os.WriteFile(c.Path, []byte("x"), 0o600))
		return c
	}
	sound := put(noon.AddDate(-3, 0, 0), true)
	for d := range 10 {
		last := put(noon.AddDate(0, 0, d), false)
		gone, err := Rotate(folder, last)
		require.NoError(t, err)
		assert.Empty(t, gone, "after one that is doubtful nothing goes")
	}
	newest, err := Newest(folder)
	require.NoError(t, err)
	assert.Equal(t, sound.Path, newest.Path)

	// a clock that stood in the next year made copies: what is made now is kept beside them, and only
	// doubtful ones go
	for h := range 100 {
		put(noon.AddDate(1, 0, 0).Add(time.Duration(h)*time.Hour), true)
	}
	made := put(noon.AddDate(0, 0, 20), true)
	_, err = Rotate(folder, made)
	require.NoError(t, err)
	list, err := List(folder)
	require.NoError(t, err)
	assert.Contains(t, list, Copy{made.Path, made.At, true, 1})
	doubtful := 0
	for _, c := range list {
		if !c.Sound {
			doubtful++
		}
	}
	assert.Equal(t, newestDoubtful, doubtful)

	require.NoError(t, os.WriteFile(filepath.Join(folder, "metronix-of-mine.db"), nil, 0o600))
	all, err := List(folder)
	require.NoError(t, err)
	assert.Equal(t, list, all, "what is not named as a copy is none")
}
