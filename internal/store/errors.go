package store

import (
	"errors"

	"gorm.io/gorm"
)

// What can go wrong with the data file and what is in it.
var (
	ErrNotFound    = errors.New("not found")
	ErrExists      = errors.New("already stored")
	ErrMissing     = errors.New("refers to something that is not stored, or is referred to")
	ErrNewer       = errors.New("the data file was written by a newer version of this program")
	ErrForeign     = errors.New("the file is a database of another program")
	ErrNotDatabase = errors.New("the file is not a database")
	ErrUnwritable  = errors.New("the data file cannot be written")
	ErrInUse       = errors.New("another program has the data file open")
	ErrPlaceTaken  = errors.New("another one was faster")
	ErrChanged     = errors.New("somebody changed it meanwhile")
	ErrCounted     = errors.New("its jobs were counted otherwise")
	ErrBackwards   = errors.New("the counter would show less than it did, and nothing says why")
	ErrNoForeman   = errors.New("nobody would be left who looks after people")
	ErrUnnamed     = errors.New("more pictures and recordings of this job wait to be named than are kept")
	ErrBusy        = errors.New("the data file is being written by another program")
	ErrFull        = errors.New("the disk is full")
	ErrDamaged     = errors.New("the data file is damaged")
	ErrEmpty       = errors.New("nothing was begun in it yet")
	ErrGone        = errors.New("the data file was removed or replaced while the program ran")
)

// translate turns GORM's errors into this package's, once.
func translate(err error) error {
	switch {
	case errors.Is(err, gorm.ErrRecordNotFound):
		return ErrNotFound
	case errors.Is(err, gorm.ErrDuplicatedKey):
		return ErrExists
	case errors.Is(err, gorm.ErrForeignKeyViolated), stillReferred(err):
		return ErrMissing
	}
	return meantBy(err)
}
