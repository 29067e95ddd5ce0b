package store

import (
	"context"
	"database/sql"
	"fmt"
	"log/slog"
	"os"
	"slices"
	"strings"
	"time"

	"gorm.io/gorm"
)

// This file is what SQLite makes of a data file beyond its rows: what lies beside it, what is looked at
// without changing it, how it is copied, and how its log is folded into it.

// logOf is the write-ahead log that lies beside a data file while it is written to, sharedOf what its readers
// share.
func logOf(path string) string { return path + "-wal" }

// sharedOf is the index of a file's log, which other programs make beside it too.
func sharedOf(path string) string { return path + "-shm" }

// isBeside says that a name is of what lies beside a data file.
func isBeside(name string) bool {
	return strings.HasSuffix(name, logOf("")) || strings.HasSuffix(name, sharedOf(""))
}

// pagesFit asks the database whether its pages fit together, and, where it is asked thoroughly, its indexes
// with them: ErrDamaged where they do not.
func pagesFit(db *gorm.DB, thoroughly bool) error {
	pragma := "quick_check"
	if thoroughly {
		pragma = "integrity_check"
	}
	var lines []string
	if err := db.Raw("PRAGMA " + pragma + "(5)").Scan(&lines).Error; err != nil {
		return fmt.Errorf("%w: %w", ErrDamaged, err)
	}
	if !slices.Equal(lines, []string{"ok"}) {
		return fmt.Errorf("%w: %s", ErrDamaged, strings.Join(lines, "; "))
	}
	return nil
}

// lookDSN opens a file for reading alone, so that nothing of it is changed.
func lookDSN(path string) string { return dsnOf(path, copying) }

// lookingAt is how a file is opened to be looked at: without its log, where it has none.
func lookingAt(path string) string {
	if log, err := os.Stat(logOf(path)); err == nil && log.Size() > 0 {
		return looking
	}
	return untouching
}

// look finds out, for reading alone, whose file it is and which version it has: 0 for one that holds nothing
// yet. ErrForeign, ErrNewer and ErrNotDatabase leave it untouched.
func look(path string) (version int, err error) {
	if info, err := os.Stat(path); err == nil && info.Size() == 0 {
		return 0, nil
	}
	db, err := sql.Open("sqlite3", dsnOf(path, lookingAt(path)))
	if err != nil {
		return 0, explain(path, err)
	}
	defer db.Close()
	ctx, cancel := context.WithTimeout(context.Background(), 10*time.Second)
	defer cancel()
	return versionIn(ctx, db, path)
}

// versionIn is the version of a file, looked at without changing it. A file of another program is told from
// one that is newer than this program, and both from one that is empty.
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

// copyInto copies a data file, with what its log holds, into an empty one.
func copyInto(path string, into *os.File) error {
	db, err := sql.Open("sqlite3", lookDSN(path))
	if err != nil {
		return explain(path, err)
	}
	defer db.Close()
	if _, err := db.ExecContext(context.Background(), "VACUUM INTO ?", into.Name()); err != nil {
		return explain(path, meantBy(err))
	}
	return nil
}

// foldSome folds what nobody reads any more of the log into the file; what a reader still needs stays there.
func foldSome(write *gorm.DB) {
	var busy, pages, moved int
	if err := write.Raw("PRAGMA wal_checkpoint(PASSIVE)").Row().Scan(&busy, &pages, &moved); err != nil {
		slog.Warn("the log was not folded in", "error", err)
	}
}

// foldRest folds the whole log into the file, and empties it, as far as that goes.
func foldRest(write *gorm.DB) { write.Exec("PRAGMA wal_checkpoint(TRUNCATE)") }

// foldAll folds the log into a file that nobody has open, as far as that goes.
func foldAll(path string) {
	db, err := sql.Open("sqlite3", dsnOf(path, "mode=rw&_busy_timeout=2000"))
	if err != nil {
		return
	}
	defer db.Close() // the last one to close it takes the empty log away
	_, _ = db.ExecContext(context.Background(), "PRAGMA wal_checkpoint(TRUNCATE)")
}

// openToLook opens a file for reading alone; openAlone one that only this program uses.
func openToLook(path string) (*gorm.DB, error) { return openPool(path, lookingAt(path), 1) }

// openAlone opens a file with one connection, for whoever has it to himself.
func openAlone(path string) (*gorm.DB, error) { return openPool(path, writing, 1) }
