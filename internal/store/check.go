package store

import (
	"context"
	"database/sql"
	"fmt"
	"net/url"
	"os"
	"slices"
	"strings"
	"time"

	"gorm.io/gorm"
)

// quickCheck asks the database whether its pages fit together: milliseconds for a workshop's file.
func quickCheck(db *gorm.DB) error { return pragmaCheck(db, "quick_check") }

func pragmaCheck(db *gorm.DB, pragma string) error {
	var lines []string
	if err := db.Raw("PRAGMA " + pragma + "(5)").Scan(&lines).Error; err != nil {
		return fmt.Errorf("%w: %w", ErrDamaged, err)
	}
	if !slices.Equal(lines, []string{"ok"}) {
		return fmt.Errorf("%w: %s", ErrDamaged, strings.Join(lines, "; "))
	}
	return nil
}

// Trouble is one thing that a full check found, and in which job, where it is one's.
type Trouble struct {
	JobID string
	What  string
}

// Check is the full check: every page and index of the file, and every job's list from its first entry to its
// last.
func (s *Store) Check() (happenings int, troubles []Trouble) {
	if err := pragmaCheck(s.read, "integrity_check"); err != nil {
		troubles = append(troubles, Trouble{What: err.Error()})
	}
	var jobs []jobRow
	if err := s.read.Order("id").Find(&jobs).Error; err != nil {
		return 0, append(troubles, Trouble{What: translate(err).Error()})
	}
	for _, job := range jobs {
		var rows []happeningRow
		err := s.read.Where("job_id = ?", job.ID).Order("place").Find(&rows).Error
		if err == nil {
			_, err = verify(job, rows)
		}
		if err == nil {
			_, err = job.toJob()
		}
		if err != nil {
			troubles = append(troubles, Trouble{job.ID, err.Error()})
		}
		happenings += len(rows)
	}
	return happenings, troubles
}

// lookDSN opens a file for reading alone, so that nothing of it is changed.
func lookDSN(path string) string {
	dsn := (&url.URL{Scheme: "file", Opaque: url.PathEscape(path),
		RawQuery: "mode=ro&_busy_timeout=2000"}).String()
	return strings.ReplaceAll(dsn, "%2F", "/")
}

// look finds out, for reading alone, whose file it is and which version it has: 0 for one that holds nothing
// yet. ErrForeign, ErrNewer and ErrNotDatabase leave it untouched.
func look(path string) (version int, err error) {
	if info, err := os.Stat(path); err == nil && info.Size() == 0 {
		return 0, nil
	}
	db, err := sql.Open("sqlite3", lookDSN(path))
	if err != nil {
		return 0, explain(path, err)
	}
	defer db.Close()
	ctx, cancel := context.WithTimeout(context.Background(), 10*time.Second)
	defer cancel()
	return versionIn(ctx, db, path)
}

func versionIn(ctx context.Context, db *sql.DB, path string) (version int, err error) {
	var tables, own int
	err = db.QueryRowContext(ctx,
		"SELECT count(*), count(CASE WHEN name = ? THEN 1 END) FROM sqlite_master WHERE type = 'table'",
		schemaRow{}.TableName()).Scan(&tables, &own)
	switch {
	case err != nil:
		return 0, explain(path, err)
	case tables > 0 && own == 0:
		return 0, fmt.Errorf("%s: %w", path, ErrForeign)
	case own == 0:
		return 0, nil
	}
	if err := db.QueryRowContext(ctx,
		"SELECT coalesce(max(version), 0) FROM "+schemaRow{}.TableName()).Scan(&version); err != nil {
		return 0, explain(path, err)
	}
	if version > len(migrations) {
		return 0, fmt.Errorf("%s: %w: it has version %d, this program knows up to %d", path, ErrNewer,
			version, len(migrations))
	}
	return version, nil
}
