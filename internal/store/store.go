package store

import (
	"fmt"
	"slices"
	"time"

	"gorm.io/gorm"
)

// Store is an open data file. Its methods may be called from many goroutines.
type Store struct{ write, read *gorm.DB }

// migrations bring a data file up to date, one version after another. A step that has been released is never changed.
var migrations = []func(*gorm.DB) error{
	func(tx *gorm.DB) error {
		return tx.Migrator().CreateTable(&engineRow{}, &gaugeSetRowOne{}, &vehicleRow{}, &jobRowOne{}, &happeningRow{})
	},
	func(tx *gorm.DB) error {
		for _, column := range []string{"HotPass", "CardReason", "Aim", "AimReason", "Rule", "FeelNM"} {
			if err := tx.Migrator().AddColumn(&jobRow{}, column); err != nil {
				return err
			}
		}
		if err := tx.Migrator().AddColumn(&gaugeSetRow{}, "Checked"); err != nil {
			return err
		}
		return tx.Migrator().CreateTable(&shimRow{}, &settingRow{})
	},
}

// Open opens or makes a data file and brings it up to date. Errors wrap ErrUnwritable, ErrNotDatabase, ErrForeign or ErrNewer
// where they apply.
func Open(path string) (*Store, error) {
	write, read, err := openPools(path)
	if err != nil {
		return nil, err
	}
	s := &Store{write, read}
	if err := s.migrate(path); err != nil {
		s.Close()
		return nil, err
	}
	return s, nil
}

// Close closes the data file.
func (s *Store) Close() {
	closePool(s.read)
	closePool(s.write)
}

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
			return fmt.Errorf("%s: %w: it has version %d, this program knows up to %d", path, ErrNewer, at, len(migrations))
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
