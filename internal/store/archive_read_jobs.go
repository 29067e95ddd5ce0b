package store

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"metronix/core/job"
)

// jobs takes the jobs in, in the order of their names, so that a refusal is the same every time.
func (t *taker) jobs() error {
	var names []string
	for name := range t.files {
		if strings.HasPrefix(name, "jobs/") {
			names = append(names, name)
		}
	}
	slices.Sort(names)
	for _, name := range names {
		var j archivedJob
		if err := t.read(name, &j); err != nil {
			return err
		}
		if name != jobName(j.ID) {
			return refuse("%s holds job %s", name, j.ID)
		}
		if err := t.job(j); err != nil {
			return err
		}
	}
	return nil
}

// row is a job's own row, as an archive has it.
func (j archivedJob) row() jobRow {
	return jobRow{ID: j.ID, VehicleID: j.VehicleID, Sheet: sheetText(j.Sheet), Card: j.Card,
		HotPass: j.HotCard + 1, CardReason: j.CardReason, Aim: j.Aim, AimReason: j.AimReason, Rule: j.Rule,
		FeelNM: j.FeelNM, GaugeName: j.GaugeName, Leaves: compact(j.Leaves), LeavesAre: j.LeavesAre, Mechanic: j.Mechanic, Reason: j.Reason,
		Meter: j.Meter, OdometerWhy: j.OdometerWhy, CreatedAt: j.Created, OffBoard: j.OffBoard}
}

// entries are a job's entries, chained from its root and read.
func (t *taker) entries(j archivedJob, root string) (rows []happeningRow, list []job.Happening, last string,
	err error) {
	last = root
	for place, h := range j.Happenings {
		r := happeningRow{JobID: j.ID, Place: place, ClientID: h.ID, Kind: h.Kind, Body: compact(h.Body),
			At: h.At.UTC(), Rules: h.Rules, Author: h.Author, Screen: h.Screen, SentBy: h.SentBy}
		if h.Done != nil {
			r.DoneAt = h.Done.UTC()
		}
		what := fmt.Sprintf("entry %d of job %s", place+1, j.ID)
		if err := errors.Join(t.past(what, h.At), t.past(what, r.DoneAt)); err != nil {
			return nil, nil, "", err
		}
		if h.Rules < 1 || h.Rules > job.Rules {
			return nil, nil, "", refuse(
				"%s was taken by rules %d, and this program knows up to %d",
				what,
				h.Rules,
				job.Rules,
			)
		}
		r.Sum = r.sumAfter(last)
		last = r.Sum
		read, err := r.toHappening()
		if err != nil {
			return nil, nil, "", refuse("job %s: %v", j.ID, err)
		}
		rows, list = append(rows, r), append(list, read)
	}
	return rows, list, last, nil
}

// job takes one in: its list has to end in the checksum that the archive gives, to play through, and to be of
// a vehicle that is there. What follows from it is reckoned here and never read from the archive.
func (t *taker) job(j archivedJob) error {
	row := j.row()
	record, err := row.toJob()
	if err != nil {
		return refuse("job %s: %v", j.ID, err)
	}
	if err := t.past("job "+j.ID, j.Created); err != nil {
		return err
	}
	rows, list, last, err := t.entries(j, row.root())
	if err != nil {
		return err
	}
	if last != j.Sum {
		return refuse("job %s is not as it was exported: its checksums do not end where they should", j.ID)
	}
	if t.place != nil { // it was whole there, and is chained anew under the id that it has here
		row.ID, row.VehicleID = t.id(row.ID), t.id(row.VehicleID)
		last = row.root()
		for i := range rows {
			rows[i].JobID = row.ID
			rows[i].Sum = rows[i].sumAfter(last)
			last = rows[i].Sum
		}
	}
	var vehicle []vehicleRow
	if err := t.tx.Where("id = ?", row.VehicleID).Find(&vehicle).Error; err != nil {
		return err
	}
	if len(vehicle) == 0 {
		return refuse("job %s is of a vehicle that is not in it: %q", j.ID, j.VehicleID)
	}
	record.Vehicle = vehicle[0].toVehicle()
	if err := admitted("job", j.ID, t.admit.Job(record, list)); err != nil {
		return err
	}
	if row.Entries = len(rows); len(rows) > 0 {
		row.LastSum = last
	}
	return t.takeJob(row, rows, last)
}

// takeJob stores a job with its list, or leaves the one that is there where it is the same.
func (t *taker) takeJob(row jobRow, rows []happeningRow, last string) error {
	var there []jobRow // one that is there and went on differently is told apart from one that differs
	if err := t.tx.Where("id = ?", row.ID).Find(&there).Error; err != nil {
		return err
	}
	if len(there) > 0 {
		row.Entries, row.LastSum = there[0].Entries, there[0].LastSum
	}
	if err := take(t, "job", row.ID, row, &t.in.Jobs); err != nil {
		return err
	}
	if len(there) > 0 { // with the same list?
		var stored []happeningRow
		if err := t.tx.Where("job_id = ?", row.ID).Order("place").Find(&stored).Error; err != nil {
			return err
		}
		if n := len(stored); n != len(rows) || n > 0 && stored[n-1].Sum != last {
			return refuse(
				"job %s is stored here already and went on differently. Nothing was taken in",
				row.ID,
			)
		}
		return nil
	}
	if len(rows) == 0 {
		return nil
	}
	return t.tx.Omit("Job").CreateInBatches(&rows, 200).Error
}
