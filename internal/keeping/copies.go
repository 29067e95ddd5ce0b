package keeping

import (
	"cmp"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"metronix/internal/store"
)

// Why there is no copy.
var (
	ErrNone    = errors.New("there is no backup in this folder")
	ErrAnother = errors.New("this folder holds the backups of another workshop")
)

// How a copy is named.
const (
	before   = "metronix-"
	stamp    = "20060102T150405Z"
	doubt    = "-doubtful"
	after    = ".db"
	ownsFile = "metronix-workshop" // says whose copies a folder holds
)

// Copy is one backup of a folder.
type Copy struct {
	Path  string
	At    time.Time // it was begun then, and holds all that was acknowledged by then
	Sound bool      // nothing was found in it when it was made
	Bytes int64
}

// nameOf is the name of a copy.
func nameOf(at time.Time, sound bool) string {
	name := before + at.UTC().Format(stamp)
	if !sound {
		name += doubt
	}
	return name + after
}

// List is what a folder holds, the oldest first. What is not named as a copy is none.
func List(folder string) (list []Copy, err error) {
	entries, err := os.ReadDir(folder)
	if err != nil {
		return nil, err
	}
	for _, e := range entries {
		rest, ours := strings.CutPrefix(e.Name(), before)
		rest, file := strings.CutSuffix(rest, after)
		text, doubtful := strings.CutSuffix(rest, doubt)
		at, err := time.Parse(stamp, text)
		if !ours || !file || err != nil {
			continue
		}
		info, err := e.Info()
		if err != nil { // taken away meanwhile
			continue
		}
		list = append(list, Copy{filepath.Join(folder, e.Name()), at, !doubtful, info.Size()})
	}
	slices.SortStableFunc(list, func(a, b Copy) int { return cmp.Or(a.At.Compare(b.At), cmp.Compare(a.Path, b.Path)) })
	return list, nil
}

// Newest is the newest copy of a folder in which nothing was found. ErrNone where there is none.
func Newest(folder string) (Copy, error) {
	list, err := List(folder)
	if err != nil {
		return Copy{}, err
	}
	for _, c := range slices.Backward(list) {
		if c.Sound {
			return c, nil
		}
	}
	return Copy{}, fmt.Errorf("%s: %w", folder, ErrNone)
}

// claim makes a folder where it is absent, for its owner alone, and writes down whose copies it holds.
// ErrAnother where it is another workshop's: two that share a folder would let go of each other's copies.
func claim(folder, workshop string) error {
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return err
	}
	path := filepath.Join(folder, ownsFile)
	f, err := os.OpenFile(path, os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o600)
	if err == nil {
		_, err = f.WriteString(workshop + "\n")
		return errors.Join(err, f.Sync(), f.Close())
	}
	if owner(folder) != workshop {
		return fmt.Errorf("%s: %w", folder, ErrAnother)
	}
	return nil
}

// owner is the workshop whose copies a folder holds; empty: nobody has claimed it, or it does not say.
func owner(folder string) string {
	text, err := os.ReadFile(filepath.Join(folder, ownsFile))
	if err != nil {
		return ""
	}
	return strings.TrimSpace(string(text))
}

// Make writes a copy of a data file into a folder, and checks it. What the check finds is told, and such a
// copy is kept as a doubtful one. Errors are those of [store.Backup], ErrAnother, and what the folder
// refuses.
func Make(data, folder, workshop string, now time.Time, check store.Checking) (c Copy, found store.Findings, err error) {
	if err := errors.Join(claim(folder, workshop), stillOurs(folder, data)); err != nil {
		return c, found, err
	}
	checked := filepath.Join(folder, nameOf(now, true))
	if _, err := os.Lstat(checked); err == nil {
		return c, found, fmt.Errorf("%s: %w", checked, store.ErrThere)
	}
	c = Copy{Path: filepath.Join(folder, nameOf(now, false)), At: now}
	if found, err = store.Backup(data, c.Path, check); err != nil {
		return c, found, err
	}
	// what can be made anew from the lists loses nothing
	c.Sound = !slices.ContainsFunc(found.Troubles, func(t store.Trouble) bool { return !t.Beside })
	if c.Sound {
		if err := os.Rename(c.Path, checked); err != nil {
			return c, found, err
		}
		c.Path = checked
	}
	if info, err := os.Stat(c.Path); err == nil {
		c.Bytes = info.Size()
	}
	return c, found, nil
}

// A tier keeps the newest copy of each of so many spans of time in which there is one.
type tier struct {
	spans int
	span  func(time.Time) string
}

// tiers are what is kept (common practice for backups): each hour of a day, each day of a week, each week of
// five, each month of a year.
var tiers = []tier{
	{24, func(t time.Time) string { return t.Format("2006-01-02 15") }},
	{7, func(t time.Time) string { return t.Format(time.DateOnly) }},
	{5, func(t time.Time) string { y, w := t.ISOWeek(); return fmt.Sprint(y, " ", w) }},
	{12, func(t time.Time) string { return t.Format("2006-01") }},
}

// How many of the newest are kept whatever their age: sound ones, and doubtful ones, which may hold what no
// sound one does.
const (
	newestSound    = 3
	newestDoubtful = 3
)

// surplus is what of a list, the oldest first, may be let go of beside a copy that was just made and is
// sound.
func surplus(list []Copy, made Copy) (gone []Copy) {
	keep := map[string]bool{made.Path: true}
	sound, doubtful := 0, 0
	seen := make([]map[string]bool, len(tiers))
	for _, c := range slices.Backward(list) {
		if !c.Sound {
			if doubtful++; doubtful <= newestDoubtful {
				keep[c.Path] = true
			}
			continue
		}
		if sound++; sound <= newestSound {
			keep[c.Path] = true
		}
		for i, tier := range tiers {
			if seen[i] == nil {
				seen[i] = map[string]bool{}
			}
			if span := tier.span(c.At.UTC()); !seen[i][span] && len(seen[i]) < tier.spans {
				seen[i][span], keep[c.Path] = true, true
			}
		}
	}
	for _, c := range list {
		if !keep[c.Path] {
			gone = append(gone, c)
		}
	}
	return gone
}

// Rotate lets go of what is surplus beside a copy that was just made. Where that one is not sound nothing is
// let go of. It says which went.
func Rotate(folder string, made Copy) (gone []Copy, err error) {
	if !made.Sound {
		return nil, nil
	}
	list, err := List(folder)
	if err != nil {
		return nil, err
	}
	for _, c := range surplus(list, made) {
		if failed := os.Remove(c.Path); failed != nil {
			err = errors.Join(err, failed)
			continue
		}
		gone = append(gone, c)
	}
	return gone, err
}
