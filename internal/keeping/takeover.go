package keeping

import (
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"time"

	"metronix/internal/store"
)

// Why a workshop is not taken over, and why no more copies are made of one that was.
var (
	ErrMore      = errors.New("the data file here holds jobs that the backup does not")
	ErrTakenOver = errors.New("another machine has taken this workshop over")
)

// TakenOver is what a takeover did.
type TakenOver struct {
	Copy
	store.Restored
	Unmarked error // why the folder could not be marked; nil: it was
}

// TakeOver puts the newest sound copy of a folder in a data file's place, and marks the folder, so that the
// machine that made it makes no more there. ErrMore where the data file holds what the copy does not, unless
// anyway; else the errors of [Newest] and [store.Restore].
func TakeOver(data, folder string, now time.Time, anyway bool, check store.Checking) (t TakenOver, err error) {
	if t.Copy, err = Newest(folder); err != nil {
		return t, err
	}
	if info, err := os.Stat(data); err == nil && info.Size() > 0 && !anyway {
		here, err := store.Compare(data, t.Path)
		if err != nil {
			return t, err
		}
		if n := len(here.Changed); n > 0 {
			return t, fmt.Errorf("%s: %w: %d", data, ErrMore, n)
		}
	}
	if t.Restored, err = store.Restore(data, t.Path, now, false, check); err != nil {
		return t, err
	}
	t.Unmarked = mark(folder, data, now)
	st, err := store.Open(data)
	if err != nil {
		return t, err
	}
	defer st.Close()
	return t, st.Note(store.Noted{At: now, What: "takeover", About: byWhat(data)})
}

// takenFile marks a folder whose workshop was taken over: by what, and when.
const takenFile = "metronix-taken-over"

// byWhat names a data file on a machine.
func byWhat(data string) string {
	host, _ := os.Hostname()
	if full, err := filepath.Abs(data); err == nil {
		data = full
	}
	return host + " " + data
}

func mark(folder, data string, now time.Time) error {
	return os.WriteFile(filepath.Join(folder, takenFile), []byte(byWhat(data)+"\n"+now.UTC().Format(time.RFC3339)+"\n"), 0o600)
}

// stillOurs says that nobody else has taken a workshop over since.
func stillOurs(folder, data string) error {
	text, err := os.ReadFile(filepath.Join(folder, takenFile))
	if err != nil {
		if errors.Is(err, os.ErrNotExist) {
			return nil
		}
		return err
	}
	by, at, _ := strings.Cut(strings.TrimSpace(string(text)), "\n")
	if by == byWhat(data) {
		return nil
	}
	return fmt.Errorf("%w: %s, at %s. What is entered here since is not there: stop this program, and go on with that one", ErrTakenOver, by, at)
}
