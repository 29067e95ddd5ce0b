package store

import (
	"cmp"
	"errors"
	"fmt"

	"gorm.io/gorm"
)

// Compared is how the jobs' lists of a copy stand beside those of the file it was made of.
type Compared struct {
	Jobs    int      // in the copy
	Since   int      // entries that the file has beyond those of the copy, in its jobs and in jobs begun since
	Changed []string // jobs whose list does not go on from that of the copy: corrected, or taken out, since
}

// ErrAnotherShop says that two files are of two workshops.
var ErrAnotherShop = errors.New("the copy is of another workshop than the data file")

// Compare sets the lists of a copy beside those of a data file, which may be in use. Both are looked at
// alone. Errors are those of Open, and ErrAnotherShop.
func Compare(copied, path string) (c Compared, err error) {
	was, err := openToLook(copied)
	if err != nil {
		return c, err
	}
	defer closePool(was)
	is, err := openToLook(path)
	if err != nil {
		return c, err
	}
	defer closePool(is)
	whose, err := ownText(was, ownShop)
	if err != nil {
		return c, translate(err)
	}
	if here, err := ownText(is, ownShop); err != nil || whose != "" && here != "" && whose != here {
		return c, cmp.Or(translate(err), fmt.Errorf("%s: %w", path, ErrAnotherShop))
	}
	var jobs []jobRow
	if err := was.Select("id", "entries", "last_sum").Order("id").Find(&jobs).Error; err != nil {
		return c, translate(err)
	}
	if err := is.Model(&jobRow{}).Select("COALESCE(SUM(entries), 0)").Scan(&c.Since).Error; err != nil {
		return c, translate(err)
	}
	for _, j := range jobs {
		c.Jobs++
		goesOn, err := holdsEnd(is, j)
		if err != nil {
			return c, translate(err)
		}
		if goesOn {
			c.Since -= j.Entries
		} else {
			c.Changed = append(c.Changed, j.ID)
			var now []jobRow // what it has now is no more than before, and no less
			if err := is.Select("entries").Where("id = ?", j.ID).Find(&now).Error; err != nil {
				return c, translate(err)
			}
			for _, n := range now {
				c.Since -= n.Entries
			}
		}
	}
	return c, nil
}

// holdsEnd says that a file's list of a job holds the end of another's, and so, by the checksums, all before
// it.
func holdsEnd(db *gorm.DB, j jobRow) (bool, error) {
	if j.Entries == 0 {
		err := db.Select("id").Where("id = ?", j.ID).Take(&jobRow{}).Error
		return err == nil, unless(err)
	}
	var row happeningRow
	err := db.Select("sum").Where("job_id = ? AND place = ?", j.ID, j.Entries-1).Take(&row).Error
	return err == nil && row.Sum == j.LastSum, unless(err)
}

// unless is an error, but that something is not there.
func unless(err error) error {
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return nil
	}
	return err
}
