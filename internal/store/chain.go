package store

import (
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"strconv"

	"gorm.io/gorm"
)

// Every happening carries a checksum of itself and of the one before it, the first of the job's own row, so
// that a bit that flipped on the disk is found where the job is read, and so is a happening that is missing
// or was put in. Where the list ends stands in the job's own row, so that one that lost its end is no shorter
// list.

// root is the checksum that a job's list begins from: of all that its happenings are judged by.
func (r jobRow) root() string {
	return sumOf("job", r.ID, r.VehicleID, r.Sheet, strconv.Itoa(r.Card), strconv.Itoa(r.HotPass), r.Aim,
		r.Rule, strconv.FormatInt(r.FeelNM, 10), r.Leaves, r.Mechanic)
}

// sumAfter is the checksum of a happening after the one before it.
func (r happeningRow) sumAfter(before string) string {
	done := ""
	if !r.DoneAt.IsZero() {
		done = strconv.FormatInt(r.DoneAt.UnixNano(), 10)
	}
	parts := []string{before, r.JobID, strconv.Itoa(r.Place), r.ClientID, r.Kind, r.Body,
		strconv.FormatInt(r.At.UnixNano(), 10), done, strconv.Itoa(r.Rules)}
	if r.Author != "" || r.Screen != "" { // where neither is said the sum is what it was before they could be
		parts = append(parts, r.Author, r.Screen)
	}
	if r.SentBy != "" {
		parts = append(parts, "sent by", r.SentBy)
	}
	return sumOf(parts...)
}

// Sum is a checksum over parts, as the lists have it.
func Sum(parts ...string) string { return sumOf(parts...) }

// sumOf is a checksum over parts, each with its length, so that none runs into the next.
func sumOf(parts ...string) string {
	h := sha256.New()
	for _, p := range parts {
		fmt.Fprintf(h, "%d:%s", len(p), p)
	}
	return hex.EncodeToString(h.Sum(nil)[:16])
}

// verify follows a job's list, in order: places without gaps, every checksum right. It gives the last
// checksum.
func verify(job jobRow, rows []happeningRow) (last string, err error) {
	last = job.root()
	for i, r := range rows {
		if r.Place != i {
			return "", fmt.Errorf("%w: entry %d of job %s is missing", ErrDamaged, i+1, job.ID)
		}
		if last = r.sumAfter(last); last != r.Sum {
			return "", fmt.Errorf("%w: entry %d of job %s (%s) is not as it was stored", ErrDamaged, i+1,
				job.ID, r.Kind)
		}
	}
	switch {
	case len(rows) < job.Entries:
		return "", fmt.Errorf(
			"%w: the list of job %s is short: %d of its %d entries are there",
			ErrDamaged,
			job.ID,
			len(rows),
			job.Entries,
		)
	case len(rows) > job.Entries, len(rows) > 0 && last != job.LastSum:
		return "", fmt.Errorf(
			"%w: the list of job %s does not end where it was stored to",
			ErrDamaged,
			job.ID,
		)
	}
	return last, nil
}

// endsAt writes down where a job's list ends now.
func endsAt(tx *gorm.DB, jobID string, entries int, last string) error {
	return tx.Model(&jobRow{}).Where("id = ?", jobID).
		Updates(map[string]any{"entries": entries, "last_sum": last}).Error
}

// resum writes a job's checksums anew, where the job's own row was corrected before its first reading. It
// says where the list ends.
func resum(tx *gorm.DB, job jobRow) (entries int, last string, err error) {
	var rows []happeningRow
	if err := tx.Where("job_id = ?", job.ID).Order("place").Find(&rows).Error; err != nil {
		return 0, "", err
	}
	last = job.root()
	for _, r := range rows {
		last = r.sumAfter(last)
		if err := tx.Model(&happeningRow{}).Where("job_id = ? AND place = ?", r.JobID, r.Place).Update("sum",
			last).Error; err != nil {
			return 0, "", err
		}
	}
	return len(rows), last, nil
}
