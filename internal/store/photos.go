package store

import (
	"crypto/sha256"
	"encoding/hex"
	"time"

	"gorm.io/gorm/clause"
)

// Photographs and sounds of a job lie in the data file itself, by their SHA-256, so that a backup holds them
// and a check can compare them.

const jpegType = "image/jpeg"

// SoundTypes are the types of a sound that are kept, each with the ending of its file's name.
var SoundTypes = map[string]string{"audio/webm": "webm", "audio/ogg": "ogg", "audio/mp4": "m4a",
	"audio/wav": "wav", "audio/mpeg": "mp3"}

// AddPhoto keeps a photograph of a job and gives its hash; the same picture twice is kept once. ErrMissing:
// there is no such job.
func (s *Store) AddPhoto(jobID string, jpeg []byte, now time.Time) (hash string, err error) {
	return s.addFile(jobID, jpegType, jpeg, now)
}

// AddSound is AddPhoto for a sound, of a type of SoundTypes.
func (s *Store) AddSound(jobID, media string, data []byte, now time.Time) (hash string, err error) {
	return s.addFile(jobID, media, data, now)
}

func (s *Store) addFile(jobID, media string, data []byte, now time.Time) (hash string, err error) {
	sum := sha256.Sum256(data)
	hash = hex.EncodeToString(sum[:])
	row := photoRow{Hash: hash, JobID: jobID, Data: data, CreatedAt: now.UTC(), Media: media}
	return hash, s.acknowledge(s.write.Clauses(clause.OnConflict{DoNothing: true}).Create(&row).Error)
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

func (s *Store) jobFile(hash, of string) (row photoRow, err error) {
	if err := s.read.Where("hash = ?", hash).Where(of).Take(&row).Error; err != nil {
		return photoRow{}, translate(err)
	}
	if sum := sha256.Sum256(row.Data); hex.EncodeToString(sum[:]) != hash {
		return photoRow{}, ErrDamaged
	}
	return row, nil
}
