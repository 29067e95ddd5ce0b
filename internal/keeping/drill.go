package keeping

import (
	"os"
	"path/filepath"
	"time"

	"metronix/internal/store"
)

// Drilled is what a drill showed.
type Drilled struct {
	Copy
	store.Findings
	store.Compared
	Took time.Duration // from the copy to a file that can be opened
}

// Drill takes the newest sound copy of a folder back into a scratch file, as a restore does, checks it there,
// opens it as the program does, and compares it with the data file it was made of. Nothing of either is
// changed. Errors are those of [store.Restore] and [store.Compare], and ErrNone.
func Drill(data, folder string, now time.Time, check store.Checking) (d Drilled, err error) {
	if d.Copy, err = Newest(folder); err != nil {
		return d, err
	}
	scratch, err := os.MkdirTemp("", "metronix-drill-")
	if err != nil {
		return d, err
	}
	defer os.RemoveAll(scratch)
	began := time.Now()
	path := filepath.Join(scratch, "restored.db")
	done, err := store.Restore(path, d.Path, now, false, check)
	d.Findings = done.Findings
	if err != nil {
		return d, err
	}
	st, err := store.Open(path)
	if err != nil {
		return d, err
	}
	st.Close()
	d.Took = time.Since(began)
	d.Compared, err = store.Compare(path, data)
	return d, err
}
