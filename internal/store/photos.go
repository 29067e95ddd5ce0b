package store

import (
	"crypto/sha256"
	"encoding/hex"
	"time"

	"gorm.io/gorm/clause"
)

// Photos lie in the data file itself, by their SHA-256, so that a backup holds them and a check can compare
// them.

// AddPhoto keeps a photograph of a job and gives its hash; the same picture twice is kept once. ErrMissing:
// there is no such job.
func (s *Store) AddPhoto(jobID string, jpeg []byte, now time.Time) (hash string, err error) {
	sum := sha256.Sum256(jpeg)
	hash = hex.EncodeToString(sum[:])
	row := photoRow{Hash: hash, JobID: jobID, JPEG: jpeg, CreatedAt: now.UTC()}
	return hash, s.acknowledge(s.write.Clauses(clause.OnConflict{DoNothing: true}).Create(&row).Error)
}

// Photo is a photograph by its hash; ErrNotFound where there is none, ErrDamaged where it is not as it was
// stored.
func (s *Store) Photo(hash string) ([]byte, error) {
	var row photoRow
	if err := s.read.Where("hash = ?", hash).Take(&row).Error; err != nil {
		return nil, translate(err)
	}
	if sum := sha256.Sum256(row.JPEG); hex.EncodeToString(sum[:]) != hash {
		return nil, ErrDamaged
	}
	return row.JPEG, nil
}
