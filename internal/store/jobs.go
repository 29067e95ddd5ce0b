package store

import (
	"cmp"
	"fmt"

	"gorm.io/gorm"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/measure"
	"metronix/internal/wire"
)

// AddJob stores what a job starts from, with what the board shows of it; ErrMissing where its vehicle is not
// stored.
func (s *Store) AddJob(j Job, d Derived) error {
	row, err := rowOf(j)
	if err != nil {
		return err
	}
	return s.acknowledge(s.write.Transaction(func(tx *gorm.DB) error {
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		return derive(tx, j.ID, d, nil)
	}))
}

// CorrectJob changes what a job started from, before anything was read in it, and its checksums with it.
func (s *Store) CorrectJob(j Job, d Derived) error {
	row, err := rowOf(j)
	if err != nil {
		return err
	}
	return s.acknowledge(s.write.Transaction(func(tx *gorm.DB) error {
		if err := tx.Omit("Vehicle").Select("*").Omit("created_at", "entries", "last_sum").Updates(&row).Error; err != nil {
			return err
		}
		entries, last, err := resum(tx, row)
		if err != nil {
			return err
		}
		if err := endsAt(tx, row.ID, entries, last); err != nil {
			return err
		}
		return derive(tx, j.ID, d, nil)
	}))
}

// PutOffBoard takes a job off the board, or brings it back; ErrNotFound where there is none.
func (s *Store) PutOffBoard(id string, off bool) error {
	return s.acknowledge(s.write.Transaction(func(tx *gorm.DB) error {
		if found := tx.Model(&jobRow{}).Where("id = ?", id).Update("off_board", off); found.Error != nil ||
			found.RowsAffected == 0 {
			return cmp.Or(found.Error, gorm.ErrRecordNotFound)
		}
		return tx.Model(&stateRow{}).Where("job_id = ?", id).Update("off_board", off).Error
	}))
}

// rowOf is a job's row. It holds its engine and its leaves itself: what a job started from stays, whatever
// becomes of the library.
func rowOf(j Job) (jobRow, error) {
	sheet, err := wire.WriteSheet(j.Sheet)
	if err != nil {
		return jobRow{}, err
	}
	leaves, err := writeLeaves(j.Leaves)
	return jobRow{ID: j.ID, VehicleID: j.Vehicle.ID, Sheet: string(sheet), Card: j.Card,
		HotPass: j.HotCard + 1, CardReason: j.CardReason,
		Aim: string(j.Aim), AimReason: j.AimReason, Rule: string(j.Rule), FeelNM: int64(j.Feel),
		GaugeName: j.GaugeName,
		Leaves:    leaves, LeavesAre: j.LeavesAre, Mechanic: j.Mechanic, Reason: j.Reason, Meter: j.Meter,
		OdometerWhy: j.OdometerWhy, CreatedAt: j.CreatedAt, OffBoard: j.OffBoard}, err
}

// JobsOf lists every job of a vehicle.
func (s *Store) JobsOf(vehicleID string) (ids []string, err error) {
	err = s.read.Raw("SELECT id FROM jobs WHERE vehicle_id = ? ORDER BY id", vehicleID).Scan(&ids).Error
	return ids, translate(err)
}

// OpenJobsOf says which jobs of a vehicle are open.
func (s *Store) OpenJobsOf(vehicleID string) (ids []string, err error) {
	err = s.read.Raw("SELECT job_id FROM job_states JOIN jobs ON jobs.id = job_id WHERE vehicle_id = ? AND "+
		"open AND NOT job_states.off_board", vehicleID).Scan(&ids).Error
	return ids, translate(err)
}

// LastVariant is the variant of its engine that a vehicle's last job was started with; empty where none was
// chosen, or there is no job.
func (s *Store) LastVariant(vehicleID string) (name string, err error) {
	err = s.read.Raw("SELECT coalesce(json_extract(sheet, '$.variant'), '') FROM jobs WHERE vehicle_id = ? AND NOT off_board "+
		"ORDER BY created_at DESC, id LIMIT 1", vehicleID).Scan(&name).Error
	return name, translate(err)
}

// mostPairs is how many of the latest lock pairs are learned from: a mechanic's hands change with the years.
const mostPairs = 200

// LockPairs lists what locking did in one mechanic's hands on one kind of adjuster, in all jobs.
func (s *Store) LockPairs(mechanic, adjuster string) ([]adjust.Pair, error) {
	var rows []pairRow
	if err := s.read.Joins("JOIN jobs ON jobs.id = job_id").Where("lock_pairs.mechanic = ? AND adjuster = ?", mechanic,
		adjuster).Order("jobs.created_at DESC, job_id, n DESC").Limit(mostPairs).Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	pairs := make([]adjust.Pair, len(rows))
	for i, r := range rows {
		pairs[i] = r.pair()
	}
	return pairs, nil
}

// Before is a job that a mechanic worked, and whether it was on the same sheet.
type Before struct {
	ID        string
	SameSheet bool
}

// JobsBy lists a mechanic's latest jobs, the latest first, whatever the capitals in the name; those taken off
// the board are left out. Which of them were on a sheet is told by its text, whether or not the kinds of its
// valves were still to be confirmed then.
func (s *Store) JobsBy(mechanic string, sheet *engine.Sheet, limit int) ([]Before, error) {
	unseen, seen := *sheet, *sheet
	unseen.KindsToConfirm, seen.KindsToConfirm = true, false
	var texts []string
	for _, s := range []*engine.Sheet{&unseen, &seen} {
		text, err := wire.WriteSheet(s)
		if err != nil {
			return nil, err
		}
		texts = append(texts, string(text))
	}
	var list []Before
	err := s.read.Raw("SELECT id, sheet IN ? AS same_sheet FROM jobs WHERE mechanic = ? COLLATE NOCASE AND NOT "+
		"off_board ORDER BY created_at DESC, id LIMIT ?", texts, mechanic, limit).
		Scan(&list).
		Error
	return list, translate(err)
}

// lookedBack is among how many of the latest jobs names are looked for.
const lookedBack = 500

// Mechanics are the names in the latest jobs, whoever began one last first.
func (s *Store) Mechanics(limit int) (names []string, err error) {
	err = s.read.Raw("SELECT mechanic FROM (SELECT mechanic, created_at FROM jobs WHERE NOT off_board ORDER BY "+
		"created_at DESC LIMIT ?) GROUP BY mechanic COLLATE NOCASE ORDER BY max(created_at) DESC LIMIT ?", lookedBack,
		limit).
		Scan(&names).
		Error
	return names, translate(err)
}

// OpenJobs lists the jobs that are not signed for good.
func (s *Store) OpenJobs() (ids []string, err error) {
	err = s.read.Raw("SELECT job_id FROM job_states WHERE open ORDER BY job_id").Scan(&ids).Error
	return ids, translate(err)
}

// JobIDs lists every job.
func (s *Store) JobIDs() (ids []string, err error) {
	err = s.read.Raw("SELECT id FROM jobs ORDER BY created_at DESC, id").Scan(&ids).Error
	return ids, translate(err)
}

// Job finds one job.
func (s *Store) Job(id string) (Job, error) {
	return one(s, id, jobRow.toJob, "Vehicle.Engine")
}

// toJob reads a row back. The two texts in it are checked; a figure beyond what it may be was caught when it
// was stored.
func (r jobRow) toJob() (Job, error) {
	sheet, err := readSheet(r.Sheet)
	if err != nil {
		return Job{}, fmt.Errorf("job %s: %w", r.ID, err)
	}
	leaves, err := readLeaves(r.Leaves)
	if err != nil {
		return Job{}, fmt.Errorf("%w: the leaves of job %s do not read: %w", ErrDamaged, r.ID, err)
	}
	return Job{
		r.ID,
		r.Vehicle.toVehicle(),
		sheet,
		r.Card,
		r.HotPass - 1,
		r.CardReason,
		clearance.Aim(r.Aim),
		r.AimReason,
		clearance.Rule(r.Rule),
		measure.Length(r.FeelNM),
		r.GaugeName,
		leaves,
		r.LeavesAre,
		r.Mechanic,
		r.Reason,
		r.Meter,
		r.OdometerWhy,
		r.CreatedAt,
		r.OffBoard,
	}, nil
}
