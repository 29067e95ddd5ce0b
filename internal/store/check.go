package store

import (
	"context"
	"fmt"
	"log/slog"
	"os"
	"path/filepath"

	"gorm.io/gorm"
)

// checkedAtOnce is how large a file may be whose pages are all looked at before the program is ready: a tenth
// of a second or so. Those of a larger one are looked at while it works.
var checkedAtOnce int64 = 48 << 20

// pagesCheck is the look at all pages of a file at the start.
type pagesCheck struct {
	stop context.CancelFunc
	ctx  context.Context
	done chan struct{} // closed when all were looked at, or it was ended
}

// newPagesCheck is a check of the pages that has not begun; it goes on beside the check of the records.
func newPagesCheck() *pagesCheck {
	ctx, stop := context.WithCancel(context.Background())
	return &pagesCheck{stop: stop, ctx: ctx, done: make(chan struct{})}
}

// begin asks the database whether its pages fit together: at once where the file is small, else beside the
// work, and what is found then ends the writing.
func (p *pagesCheck) begin(s *Store, path string) error {
	if info, err := os.Stat(path); err != nil || info.Size() <= checkedAtOnce {
		close(p.done)
		return pagesFit(s.read, false)
	}
	go func() {
		defer close(p.done)
		if err := pagesFit(s.read.WithContext(p.ctx), false); err != nil && p.ctx.Err() == nil {
			slog.Error("the data file is damaged", "path", path, "error", err)
			s.file.damage(fmt.Errorf("%s: %w", path, err))
		}
	}()
	return nil
}

// end ends a look that is under way.
func (p *pagesCheck) end() {
	p.stop()
	<-p.done
}

// Trouble is one thing that a full check found, and in which job, where it is one's.
type Trouble struct {
	JobID string
	What  string
	// Beside is that it follows from the jobs' lists and can be made anew from them
	Beside bool
}

// Inspect opens a data file for reading alone, whatever its version, and has it checked. Nothing of it is
// changed: one that another program is writing to, or that an earlier version wrote, is copied to a scratch
// file first, and the copy is checked. Errors are those of Open, and ErrEmpty where nothing was begun in it.
func Inspect(path string, check Checking) (Findings, error) {
	if err := halfRestored(path); err != nil {
		return Findings{}, err
	}
	f, err := os.Open(path)
	if err != nil {
		return Findings{}, fmt.Errorf("%s: %w: %w", path, ErrUnwritable, err)
	}
	defer f.Close()
	if err := takeFile(f, false); err != nil {
		return inspectCopy(path, check)
	}
	return inspect(path, check)
}

// inspect is Inspect of a file that no other program writes to.
func inspect(path string, check Checking) (Findings, error) {
	version, err := look(path)
	switch {
	case err != nil:
		return Findings{}, err
	case version == 0:
		return Findings{}, fmt.Errorf("%s: %w", path, ErrEmpty)
	case version < len(migrations):
		return inspectCopy(path, check)
	}
	db, err := openToLook(path)
	if err != nil {
		return Findings{}, err
	}
	defer closePool(db)
	return check(&Store{write: db, read: db, readOnly: true})
}

// inspectCopy has a copy checked, brought up to date where it is of an earlier version.
func inspectCopy(path string, check Checking) (Findings, error) {
	folder, err := os.MkdirTemp("", "metronix-check-")
	if err != nil {
		return Findings{}, fmt.Errorf("a copy to be checked cannot be made: %w: %w", ErrUnwritable, err)
	}
	defer os.RemoveAll(folder)
	scratch := filepath.Join(folder, "copy.db")
	if err := Publish(scratch, func(f *os.File) error { return copyInto(path, f) }); err != nil {
		return Findings{}, err
	}
	db, err := openAlone(scratch)
	if err != nil {
		return Findings{}, err
	}
	defer closePool(db)
	s := &Store{write: db, read: db, readOnly: true}
	if err := s.migrate(scratch); err != nil {
		return Findings{}, err
	}
	return check(s)
}

// Check is the store's part of the full check: every page and index of the file, every record, every job's
// list from its first entry to its last, and every picture and sound by its hash.
func (s *Store) Check() (f Findings) {
	trouble := func(jobID string, err error) {
		if err != nil {
			f.Troubles = append(f.Troubles, Trouble{JobID: jobID, What: err.Error()})
		}
	}
	trouble("", pagesFit(s.read, true))
	trouble("", s.checkRecords(trouble))
	trouble("", s.auditSound())
	trouble("", s.eachID("jobs", "id", func(id string) error {
		entries, err := s.checkJob(id)
		f.Entries += entries
		trouble(id, err)
		return nil
	}))
	trouble("", s.eachID("photos", "hash", func(hash string) error {
		row, err := s.jobFile(hash, "1 = 1")
		trouble(row.JobID, err)
		return nil
	}))
	return f
}

// checkRecords reads every record that is no job.
func (s *Store) checkRecords(trouble func(jobID string, err error)) error {
	say := func(what, id, name, why string) {
		if why != "" {
			trouble("", fmt.Errorf("%s %s (%s): %s", what, id, name, why))
		}
	}
	_, engines, err := s.Engines()
	if err != nil {
		return err
	}
	for _, d := range engines {
		say("engine", d.ID, d.Name, d.Why)
	}
	sets, err := s.GaugeSets()
	if err != nil {
		return err
	}
	for _, g := range sets {
		say("gauge set", g.ID, g.Name, g.Damaged)
	}
	vehicles, err := s.Vehicles()
	if err != nil {
		return err
	}
	for _, v := range vehicles {
		say("vehicle", v.ID, v.Name, v.Damaged)
	}
	shop, err := s.Shop()
	say("the workshop's settings", "", "", shop.Damaged)
	return err
}

// checkJob reads a job and its list, and says how many entries it has.
func (s *Store) checkJob(id string) (entries int, err error) {
	if _, err := s.Job(id); err != nil {
		return 0, err
	}
	list, err := s.Happenings(id)
	if err != nil {
		return 0, err
	}
	return len(list.Happenings), nil
}

// eachID calls f with every id of a table, in order, some at a time.
func (s *Store) eachID(table, column string, f func(id string) error) error {
	return eachID(s.read, table, column, f)
}

// eachID calls f with every id in order, a thousand at a time and each time anew, so that no read is held
// open over the whole file.
func eachID(db *gorm.DB, table, column string, f func(id string) error) error {
	const atOnce = 1000
	for last := ""; ; {
		var ids []string
		if err := db.Raw("SELECT "+column+" FROM "+table+" WHERE "+column+" > ? ORDER BY "+column+" LIMIT ?", last,
			atOnce).Scan(&ids).Error; err != nil {
			return translate(err)
		}
		for _, id := range ids {
			if err := f(id); err != nil {
				return err
			}
		}
		if len(ids) < atOnce {
			return nil
		}
		last = ids[len(ids)-1]
	}
}
