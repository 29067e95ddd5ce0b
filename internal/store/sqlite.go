package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"net/url"
	"strings"
	"time"

	sqlite3 "github.com/mattn/go-sqlite3"
	"gorm.io/driver/sqlite"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
)

// This file holds everything that is peculiar to SQLite: how it is opened, its pragmas and its error codes.

// pragmas are what every pooled connection must run: a reading is on disk before it is acknowledged (WAL with
// a full sync at each commit), and references hold. The driver ignores a misspelt setting, so they are read
// back.
var pragmas = []struct{ name, want string }{
	{"journal_mode", "wal"}, {"synchronous", "2"}, {"foreign_keys", "1"}, {"busy_timeout", "2000"},
	{"wal_autocheckpoint", "0"}, // the log is folded in by Store.fold alone, which knows the file afterwards
}

// driver is SQLite's with what the address of a connection cannot say.
const driver = "sqlite3_of_metronix"

// The log is written into the file by us, when it is quiet, and never in the middle of a tap.
func init() {
	sql.Register(driver, &sqlite3.SQLiteDriver{ConnectHook: func(c *sqlite3.SQLiteConn) error {
		_, err := c.Exec("PRAGMA wal_autocheckpoint=0", nil)
		return err
	}})
}

// How a file is opened. FULL, because a reading that was acknowledged has to survive a pulled plug; two
// seconds of patience, because a backup may hold the file for that long; readers that cannot write, so that a
// slip in a query is an error and no damage.
const (
	settings = "_journal_mode=WAL&_synchronous=FULL&_foreign_keys=on&_busy_timeout=2000"
	writing  = settings + "&_txlock=immediate"
	reading  = settings + "&_query_only=on"
	copying  = "mode=ro&_busy_timeout=2000" // of a file that is not this program's to change
	looking  = copying + "&_query_only=on"
	// of one besides that nobody has open and that has no log: nothing is made beside it
	untouching = looking + "&immutable=1"
	readers    = 4
)

// openPools opens one writing connection and a few reading ones, and refuses to run if any lacks the intended
// pragmas.
func openPools(path string) (write, read *gorm.DB, err error) {
	if write, err = openPool(path, writing, 1); err != nil {
		return nil, nil, err
	}
	if read, err = openPool(path, reading, readers); err != nil {
		closePool(write)
		return nil, nil, err
	}
	return write, read, nil
}

// dsnOf is the address of a file, with options.
func dsnOf(path, options string) string {
	dsn := (&url.URL{Scheme: "file", Opaque: url.PathEscape(path), RawQuery: options}).String()
	return strings.ReplaceAll(dsn, "%2F", "/")
}

// openPool opens a file and asks it back what it was told: a driver that drops a setting in silence would
// cost readings.
func openPool(path, options string, size int) (*gorm.DB, error) {
	db, err := gorm.Open(
		sqlite.New(sqlite.Config{DriverName: driver, DSN: dsnOf(path, options)}),
		&gorm.Config{
			TranslateError: true, PrepareStmt: true, SkipDefaultTransaction: true,
			Logger: logger.Discard, NowFunc: func() time.Time { return time.Now().UTC() },
		},
	)
	if err != nil {
		return nil, explain(path, err)
	}
	pool, err := db.DB()
	if err != nil {
		return nil, err
	}
	pool.SetMaxOpenConns(size)
	pool.SetMaxIdleConns(size)
	if options == settings || options == reading || options == writing {
		err = verifyPragmas(pool, size)
	}
	if err != nil {
		closePool(db)
		return nil, explain(path, err)
	}
	return db, nil
}

// verifyPragmas takes out every connection of the pool at once and reads its pragmas back.
func verifyPragmas(pool *sql.DB, size int) error {
	ctx, cancel := context.WithTimeout(context.Background(), 10*time.Second)
	defer cancel()
	for range size {
		conn, err := pool.Conn(ctx)
		if err != nil {
			return err
		}
		defer conn.Close() // held until all are checked, so that each is another one
		for _, p := range pragmas {
			var got string
			if err := conn.QueryRowContext(ctx, "PRAGMA "+p.name).Scan(&got); err != nil {
				return err
			}
			if got != p.want {
				return fmt.Errorf("the database runs with %s = %s instead of %s: this file system may not "+
					"support it", p.name, got, p.want)
			}
		}
	}
	return nil
}

// stillReferred says that a row could not go because another one refers to it: the driver reports that as a
// trigger's refusal, which GORM does not translate.
func stillReferred(err error) bool {
	var e sqlite3.Error
	return errors.As(err, &e) && e.ExtendedCode == sqlite3.ErrConstraintTrigger
}

// meantBy turns the database's own errors into this package's.
func meantBy(err error) error {
	var e sqlite3.Error
	if !errors.As(err, &e) {
		return err
	}
	switch e.Code {
	case sqlite3.ErrBusy, sqlite3.ErrLocked:
		return fmt.Errorf("%w: %w", ErrBusy, err)
	case sqlite3.ErrFull:
		return fmt.Errorf("%w: %w", ErrFull, err)
	case sqlite3.ErrCorrupt, sqlite3.ErrNotADB:
		return fmt.Errorf("%w: %w", ErrDamaged, err)
	case sqlite3.ErrIoErr:
		if noRoom(e.SystemErrno) {
			return fmt.Errorf("%w: %w", ErrFull, err)
		}
		return fmt.Errorf("%w: %w", ErrUnwritable, err)
	}
	return err
}

// explain says in our own errors what the file's own code means: no data file, damaged, not to be written.
func explain(path string, err error) error {
	var e sqlite3.Error
	if errors.As(err, &e) {
		switch e.Code {
		case sqlite3.ErrNotADB:
			return fmt.Errorf("%s: %w", path, ErrNotDatabase)
		case sqlite3.ErrCorrupt:
			return fmt.Errorf("%s: %w: %w", path, ErrDamaged, err)
		case sqlite3.ErrReadonly, sqlite3.ErrCantOpen, sqlite3.ErrPerm:
			return fmt.Errorf("%s: %w: %w", path, ErrUnwritable, err)
		}
	}
	return fmt.Errorf("%s: %w", path, err)
}

// closePool lets a file go.
func closePool(db *gorm.DB) {
	if pool, err := db.DB(); err == nil {
		_ = pool.Close() // nothing to be done about it at this point
	}
}

// escapeLike makes what stands for anything in a LIKE stand for itself; "!" is the escape.
func escapeLike(text string) string {
	return strings.NewReplacer("!", "!!", "%", "!%", "_", "!_").Replace(text)
}
