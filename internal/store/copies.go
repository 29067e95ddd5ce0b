package store

import (
	"encoding/json"
	"time"

	"gorm.io/gorm"

	"metronix/core/job"
)

// Copy is a finished job once more: of another vehicle, on another day, at another odometer.
type Copy struct {
	ID, VehicleID string
	CreatedAt     time.Time
	Meter         int
}

// copiesAtOnce is how many copies are written in one go.
const copiesAtOnce = 250

// AddCopies makes a large workshop of a small one: a stored job, with its whole list, copied many times. Each
// copy opens, and its checksums hold; what follows from their lists is made when the file is opened for use.
// It is how the figures for many jobs are measured.
func (s *Store) AddCopies(of string, copies []Copy) error {
	var r jobRow
	var list []happeningRow
	if err := s.read.Where("id = ?", of).Take(&r).Error; err != nil {
		return translate(err)
	}
	if err := s.read.Where("job_id = ?", of).Order("place").Find(&list).Error; err != nil {
		return translate(err)
	}
	for from := 0; from < len(copies); from += copiesAtOnce {
		part := copies[from:min(from+copiesAtOnce, len(copies))]
		if err := s.write.Transaction(func(tx *gorm.DB) error {
			return addCopies(tx, r, list, part)
		}); err != nil {
			return translate(err)
		}
		if err := s.fold(); err != nil {
			return err
		}
	}
	return nil
}

// addCopies stores a job again and again under other names and days, with chains that are right: a large
// workshop for measuring, made in seconds where playing the jobs would take an hour.
func addCopies(tx *gorm.DB, r jobRow, list []happeningRow, copies []Copy) error {
	var jobs []jobRow
	var entries []happeningRow
	for _, c := range copies {
		later := c.CreatedAt.Sub(r.CreatedAt)
		j := r
		j.ID, j.VehicleID, j.CreatedAt, j.Meter, j.Vehicle = c.ID, c.VehicleID, c.CreatedAt,
			c.Meter, vehicleRow{}
		last, err := j.root(), error(nil)
		for _, h := range list {
			h.JobID, h.At, h.DoneAt, h.Job = c.ID, h.At.Add(later), time.Time{}, nil
			if h.Body, err = unsealed(h); err != nil {
				return err
			}
			h.Sum = h.sumAfter(last)
			last = h.Sum
			entries = append(entries, h)
		}
		j.Entries, j.LastSum = len(list), last
		jobs = append(jobs, j)
	}
	if err := tx.Omit("Vehicle").CreateInBatches(&jobs, 50).Error; err != nil {
		return err
	}
	return tx.Omit("Job").CreateInBatches(&entries, 500).Error
}

// unsealed is a happening's body without a signature's seal, which is of another vehicle and odometer.
func unsealed(h happeningRow) (string, error) {
	if h.Kind != string(job.Signed{}.Kind()) {
		return h.Body, nil
	}
	var body map[string]map[string]any
	if err := json.Unmarshal([]byte(h.Body), &body); err != nil {
		return "", err
	}
	for _, field := range []string{"vehicle", "plate", "facts"} {
		delete(body["act"], field)
	}
	out, err := json.Marshal(body)
	return string(out), err
}
