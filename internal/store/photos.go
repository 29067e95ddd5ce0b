package store

import (
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Photographs and sounds of a job lie in the data file itself, by their SHA-256, so that a backup holds them
// and a check can compare them.

// jpegType is how photographs are kept; every other type is of a recording.
const jpegType = "image/jpeg"

// SoundTypes are the types of a sound that are kept, each with the ending of its file's name.
var SoundTypes = map[string]string{"audio/webm": "webm", "audio/ogg": "ogg", "audio/mp4": "m4a",
	"audio/wav": "wav", "audio/mpeg": "mp3"}

// AddPhoto keeps a photograph of a job and gives its hash; the same picture twice is kept once. ErrMissing:
// there is no such job. ErrUnnamed: too many wait to be named by an entry.
func (s *Store) AddPhoto(jobID string, jpeg []byte, now time.Time) (hash string, err error) {
	return s.addFile(jobID, jpegType, jpeg, now)
}

// AddSound is AddPhoto for a sound, of a type of SoundTypes.
func (s *Store) AddSound(jobID, media string, data []byte, now time.Time) (hash string, err error) {
	return s.addFile(jobID, media, data, now)
}

// addFile keeps a file under its hash. It waits to be named by a happening of its job: what is never named is
// dropped after a while, and what waits for one job has a bound, so that a lost connection leaves no heap
// behind.
func (s *Store) addFile(jobID, media string, data []byte, now time.Time) (hash string, err error) {
	sum := sha256.Sum256(data)
	hash = hex.EncodeToString(sum[:])
	row := photoRow{Hash: hash, JobID: jobID, Data: data, CreatedAt: now.UTC(), Media: media}
	return hash, s.acknowledge(s.write.Transaction(func(tx *gorm.DB) error {
		if err := dropUnnamed(tx, now); err != nil {
			return err
		}
		var waiting int64
		if err := tx.Raw("SELECT coalesce(sum(length(data)), 0) FROM photos WHERE NOT named AND job_id = ? AND "+
			"hash <> ?",
			jobID, hash).Scan(&waiting).Error; err != nil {
			return err
		}
		if waiting+int64(len(data)) > MostUnnamed {
			return ErrUnnamed
		}
		// the same once more is kept once, and waits anew to be named
		return tx.Clauses(clause.OnConflict{Columns: []clause.Column{{Name: "hash"}},
			DoUpdates: clause.AssignmentColumns([]string{"created_at"}),
			Where: clause.Where{
				Exprs: []clause.Expression{clause.Expr{SQL: "NOT photos.named"}},
			}}).Create(&row).Error
	}))
}

// MostUnnamed is how many bytes of pictures and recordings a job may have that none of its entries names yet:
// a dozen of a busy hour (from memory). unnamedFor is how long they wait to be named.
const (
	MostUnnamed = 32 << 20
	unnamedFor  = 24 * time.Hour
)

// DropUnnamed takes out what was sent more than a day ago and is named by no entry.
func (s *Store) DropUnnamed(now time.Time) error {
	return s.acknowledge(dropUnnamed(s.write, now))
}

// dropUnnamed drops files that no happening named in time.
func dropUnnamed(tx *gorm.DB, now time.Time) error {
	return tx.Where("NOT named AND created_at < ?", now.UTC().Add(-unnamedFor)).Delete(&photoRow{}).Error
}

// markNamed notes that an entry names files.
func markNamed(tx *gorm.DB, hashes []string) error {
	if len(hashes) == 0 {
		return nil
	}
	return tx.Model(&photoRow{}).Where("hash IN ?", hashes).Update("named", true).Error
}

// Photo is a photograph by its hash; ErrNotFound where there is none, ErrDamaged where it is not as it was
// stored.
func (s *Store) Photo(hash string) ([]byte, error) {
	row, err := s.jobFile(hash, "media = '"+jpegType+"'")
	return row.Data, err
}

// Sound is Photo for a sound, with its type.
func (s *Store) Sound(hash string) (data []byte, media string, err error) {
	row, err := s.jobFile(hash, "media <> '"+jpegType+"'")
	return row.Data, row.Media, err
}

// jobFile reads a file of one kind and holds it to its hash: a bad sector is told, and not shown as a
// picture.
func (s *Store) jobFile(hash, of string) (row photoRow, err error) {
	if err := s.read.Where("hash = ?", hash).Where(of).Take(&row).Error; err != nil {
		return photoRow{}, translate(err)
	}
	return row, row.intact()
}

// intact says whether a file is what its hash says.
func (r photoRow) intact() error {
	if sum := sha256.Sum256(r.Data); hex.EncodeToString(sum[:]) != r.Hash {
		return fmt.Errorf("%w: the file %.12s of job %s is not what was stored", ErrDamaged, r.Hash, r.JobID)
	}
	return nil
}
