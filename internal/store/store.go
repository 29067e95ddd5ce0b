package store

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"time"

	"gorm.io/gorm"
)

// Store is an open data file. Its methods may be called from many goroutines.
type Store struct {
	write, read *gorm.DB
	file        *held
	readOnly    bool // it is only looked at: what would be noted in it is not
	pages       *pagesCheck
	group       *group // of happenings
}

// migrations bring a data file up to date, one version after another. A step that has been released is never
// changed, and uses only rows of its own.
var migrations = []func(*gorm.DB) error{
	func(tx *gorm.DB) error {
		return tx.Migrator().CreateTable(&engineRowOne{}, &gaugeSetRowOne{}, &vehicleRowOne{}, &jobRowOne{},
			&happeningRowOne{})
	},
	func(tx *gorm.DB) error {
		for _, column := range []string{"HotPass", "CardReason", "Aim", "AimReason", "Rule", "FeelNM"} {
			if err := tx.Migrator().AddColumn(&jobRowTwo{}, column); err != nil {
				return err
			}
		}
		if err := tx.Migrator().AddColumn(&gaugeSetRowTwo{}, "Checked"); err != nil {
			return err
		}
		return tx.Migrator().CreateTable(&shimRowTwo{}, &settingRowTwo{})
	},
	func(tx *gorm.DB) error {
		if err := all(tx, third); err != nil {
			return err
		}
		return sumsThree(tx)
	},
	// entries are stored as they stand on the wire from here on, and the board's rows are made anew
	func(tx *gorm.DB) error {
		return tx.Exec("UPDATE job_states SET short = '' WHERE damaged = ''").Error
	},
	// jobs may hold the choice of a round from here on, which a program before it does not know
	func(*gorm.DB) error { return nil },
	// jobs hold what is done around the bench; what a finished one tells of wear stands beside it, and when a
	// vehicle is due follows from that
	func(tx *gorm.DB) error {
		return all(tx, sixth)
	},
	// a vehicle has cards of its own, and a job's files may be sounds
	func(tx *gorm.DB) error { return all(tx, seventh) },
	// what a nut does is learned from sides too
	func(tx *gorm.DB) error { return all(tx, eighth) },
	// where each list ends stands in its job's row
	func(tx *gorm.DB) error { return all(tx, ninth) },
	// what is derived, and intervals, are rows and columns of their own
	func(tx *gorm.DB) error { return errors.Join(all(tx, tenth), intervalsToRows(tx)) },
	// a valve may be told in one as set, locked and read again, which a program before it does not know
	func(*gorm.DB) error { return nil },
	// a vehicle may count running hours; whether leaves were dry is said; a mechanic's jobs are found by name
	func(tx *gorm.DB) error { return all(tx, twelfth) },
	// a vehicle has visits to other shops
	func(tx *gorm.DB) error { return all(tx, thirteenth) },
	// there are people, and an audit list
	func(tx *gorm.DB) error { return all(tx, fourteenth) },
	// there are runs on practice engines
	func(tx *gorm.DB) error { return all(tx, fifteenth) },
	// there are exercises, drills and skills
	func(tx *gorm.DB) error { return all(tx, sixteenth) },
	// there are gauge studies with real leaves
	func(tx *gorm.DB) error { return all(tx, seventeenth) },
}

// all carries out statements one after another.
func all(tx *gorm.DB, statements []string) error {
	for _, statement := range statements {
		if err := tx.Exec(statement).Error; err != nil {
			return err
		}
	}
	return nil
}

// Opened is what was done on the way to an open data file, to be told to whoever started the program.
// where the file was copied to before it was brought up to date; empty: it was up to date
type Opened struct{ Copy string }

// Open opens or makes a data file, checks it, and brings it up to date; an older one is copied first. Errors
// wrap ErrUnwritable, ErrNotDatabase, ErrForeign, ErrNewer, ErrInUse, ErrHalf or ErrDamaged where they apply,
// and the file is then as it was.
func Open(path string) (*Store, error) {
	s, _, err := OpenAndTell(path)
	return s, err
}

// OpenAndTell is Open, and says what was done on the way.
func OpenAndTell(path string) (*Store, Opened, error) {
	if err := halfRestored(path); err != nil {
		return nil, Opened{}, err
	}
	file, err := hold(path)
	if err != nil {
		return nil, Opened{}, err
	}
	version, err := look(path)
	if err != nil {
		file.letGo()
		return nil, Opened{}, err
	}
	told := Opened{}
	if version > 0 && version < len(migrations) {
		if told.Copy, err = copyBefore(path, version); err != nil {
			file.letGo()
			return nil, told, err
		}
	}
	write, read, err := openPools(path)
	if err != nil {
		file.letGo()
		return nil, told, err
	}
	s := &Store{write: write, read: read, file: file, pages: newPagesCheck(), group: &group{db: write}}
	if err := s.ready(path); err != nil {
		s.Close()
		return nil, told, err
	}
	return s, told, nil
}

// ready checks the file and brings it up to date.
func (s *Store) ready(path string) error {
	if err := s.pages.begin(s, path); err != nil {
		return fmt.Errorf("%s: %w", path, err)
	}
	if err := s.migrate(path); err != nil {
		return err
	}
	return s.file.remember()
}

// With is the store for the time of one request: what it is asked ends when the context does.
func (s *Store) With(ctx context.Context) *Store {
	return &Store{s.write.WithContext(ctx), s.read.WithContext(ctx), s.file, s.readOnly, s.pages, s.group}
}

// Alive says whether the data file is at its place and answers.
func (s *Store) Alive() error {
	if err := s.file.still(); err != nil {
		return err
	}
	var n int
	return translate(s.read.Raw("SELECT count(*) FROM (SELECT 1 FROM jobs LIMIT 1)").Scan(&n).Error)
}

// Close folds the log into the data file and closes it.
func (s *Store) Close() {
	s.pages.end()
	foldRest(s.write) // what cannot be folded in now is at the next start
	closePool(s.read)
	closePool(s.write)
	s.file.letGo()
}

// migrate brings a file up to this version, all steps of it in one transaction: a start that is cut off
// leaves the file as it was, and the copy made before beside it.
func (s *Store) migrate(path string) error {
	tables, err := s.write.Migrator().GetTables()
	if err != nil {
		return explain(path, err)
	}
	own := slices.Contains(tables, schemaRow{}.TableName())
	if len(tables) > 0 && !own {
		return fmt.Errorf("%s: %w", path, ErrForeign)
	}
	return s.write.Transaction(func(tx *gorm.DB) error {
		if !own {
			if err := tx.Migrator().CreateTable(&schemaRow{}); err != nil {
				return err
			}
		}
		var versions []schemaRow
		if err := tx.Order("version").Find(&versions).Error; err != nil {
			return err
		}
		at := 0
		if n := len(versions); n > 0 {
			at = versions[n-1].Version
		}
		if at > len(migrations) {
			return fmt.Errorf("%s: %w: it has version %d, this program knows up to %d", path, ErrNewer, at,
				len(migrations))
		}
		for v := at + 1; v <= len(migrations); v++ {
			if err := migrations[v-1](tx); err != nil {
				return fmt.Errorf("%s: bringing the data file to version %d: %w", path, v, err)
			}
			if err := tx.Create(&schemaRow{Version: v, AppliedAt: time.Now().UTC()}).Error; err != nil {
				return err
			}
		}
		return nil
	})
}
