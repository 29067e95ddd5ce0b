package store

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// Whatever row of the list reads gives a happening that is stored again as the same, and no row makes the
// program fall over.
func FuzzStoredHappening(f *testing.F) {
	for _, s := range []string{`{}`,
		`{"valve":"E1","leaves_nm":[150000,60000],"angled":[true,false],"feel":"drag"}`, `{"stop":0}`,
		`{"engine_c":0,"ambient_c":-3.5}`,
		`{"gap_nm":220000,"uncertainty_nm":10000}`, `{"seen":[{"what":"mark","mark_deg":0.1}]}`,
		`{"shim_nm":2600000,"from":"I2","cams_out":true}`, `{"angled":[true]}`, `[]`, `null`} {
		f.Add("reading", 2, s)
		f.Add("prepared", 1, s)
	}
	f.Fuzz(func(t *testing.T, kind string, rules int, body string) {
		row := happeningRow{JobID: "job", ClientID: "id", Kind: kind, Rules: rules, At: time.Unix(0, 0).UTC(),
			Body: body}
		h, err := row.toHappening()
		if err != nil {
			require.ErrorIs(t, err, ErrDamaged)
			return
		}
		written, err := bodyOf(h)
		require.NoError(t, err, body)
		row.Body = written
		again, err := row.toHappening()
		require.NoError(t, err, written)
		require.Equal(t, h, again, written)
	})
}
