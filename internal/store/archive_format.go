package store

import (
	"bytes"
	"encoding/json"
	"time"

	"metronix/internal/wire"
)

// Manifest names what is in an archive.
type Manifest struct {
	Format string         `json:"format"`
	Made   time.Time      `json:"made"`
	By     string         `json:"by"` // the program and its version
	Files  []ManifestFile `json:"files"`
	// Damaged are the records that did not read, so that they are not in the archive
	Damaged []DamagedRecord `json:"damaged,omitempty"`
}

// DamagedRecord is a record that is not in an archive, and why.
type DamagedRecord struct {
	What string `json:"what"`
	ID   string `json:"id"`
	Why  string `json:"why"`
}

// ManifestFile is one file of an archive.
type ManifestFile struct {
	Name   string `json:"name"`
	Bytes  int64  `json:"bytes"`
	SHA256 string `json:"sha256"`
}

// archivedEngine is a sheet of the library, in its own format.
type archivedEngine struct {
	ID      string          `json:"id"`
	Created time.Time       `json:"created"`
	Sheet   json.RawMessage `json:"sheet"`
}

// archivedSet is a set of leaves, in the wire's form.
type archivedSet struct {
	ID      string          `json:"id"`
	Name    string          `json:"name"`
	Checked string          `json:"checked"`
	Created time.Time       `json:"created"`
	Leaves  json.RawMessage `json:"leaves"`
}

// archivedVehicle is a vehicle. What an earlier program did not know is left out where it is empty, so that
// an archive without it still has the sums it had.
type archivedVehicle struct {
	ID        string          `json:"id"`
	Name      string          `json:"name"`
	Plate     string          `json:"plate"`
	Meter     int             `json:"odometer_km"`       // running hours, where counter says so
	Counter   string          `json:"counter,omitempty"` // h: it counts running hours
	EngineID  string          `json:"engine_id"`
	Created   time.Time       `json:"created"`
	OffBoard  bool            `json:"off_board"`
	Intervals []wire.Interval `json:"intervals,omitempty"`
	Cards     json.RawMessage `json:"cards,omitempty"`
	Outside   json.RawMessage `json:"outside,omitempty"` // visits to other shops
	// why the odometer was put back last
	OdometerWhy string `json:"odometer_why,omitempty"`
}

// archivedJob is a job with what it started from and its whole list: enough to play it through on another
// machine to the same end.
type archivedJob struct {
	ID         string          `json:"id"`
	VehicleID  string          `json:"vehicle_id"`
	Created    time.Time       `json:"created"`
	OffBoard   bool            `json:"off_board"`
	Card       int             `json:"card"`
	HotCard    int             `json:"hot_card"` // −1: none
	CardReason string          `json:"card_reason"`
	Aim        string          `json:"aim"`
	AimReason  string          `json:"aim_reason"`
	Rule       string          `json:"rule"`
	FeelNM     int64           `json:"feel_nm"`
	GaugeName  string          `json:"gauge_name"`
	Leaves     json.RawMessage `json:"leaves"`
	LeavesAre  string          `json:"leaves_are,omitempty"`
	Mechanic   string          `json:"mechanic"`
	Reason     string          `json:"reason"`
	Meter      int             `json:"odometer_km"` // as its vehicle counts
	// why it shows less than before
	OdometerWhy string          `json:"odometer_why,omitempty"`
	Sheet       json.RawMessage `json:"sheet"`
	Happenings  []archivedEntry `json:"happenings"`
	Sum         string          `json:"sum"` // the last checksum of the chain; of none: the job's own
}

// archivedEntry is one happening. The body is the very text that is stored: the chain of checksums is over
// it.
type archivedEntry struct {
	ID     string          `json:"id"`
	Kind   string          `json:"kind"`
	At     time.Time       `json:"at"`
	Done   *time.Time      `json:"done_at,omitempty"`
	Rules  int             `json:"rules"`
	Author string          `json:"author,omitempty"`
	Screen string          `json:"screen,omitempty"`
	SentBy string          `json:"sent_by,omitempty"`
	Body   json.RawMessage `json:"body"`
}

// archivedShop is what the workshop has set up.
type archivedShop struct {
	Settings map[string]string `json:"settings"`
	Shims    []archivedShim    `json:"shims"`
}

// archivedShim is a size of the stock and how many there are.
type archivedShim struct {
	SizeNM int64 `json:"size_nm"`
	N      int   `json:"n"`
}

// archivedPhoto says whose a file is; the bytes stand under its hash.
type archivedPhoto struct {
	Hash    string    `json:"hash"`
	JobID   string    `json:"job_id"`
	Created time.Time `json:"created"`
	Media   string    `json:"media,omitempty"` // empty: image/jpeg
}

// name is the file's own, in the archive.
func (p archivedPhoto) name() string {
	if p.Media == "" {
		return "photos/" + p.Hash + ".jpg"
	}
	return "sounds/" + p.Hash + "." + SoundTypes[p.Media]
}

// exact is a stored text as JSON that comes back as the same text: as it is where restored makes it so, else,
// as an earlier version may have written it, as a string.
func exact(text string, restored func(json.RawMessage) string) json.RawMessage {
	if text == "" {
		return nil
	}
	if restored(json.RawMessage(text)) == text {
		return json.RawMessage(text)
	}
	quoted, _ := json.Marshal(text) // a string always marshals
	return quoted
}

// compact is JSON as it is stored, without the indents that an archive is written with.
func compact(raw json.RawMessage) string {
	if text, ok := quoted(raw); ok {
		return text
	}
	var out bytes.Buffer
	if json.Compact(&out, raw) != nil {
		return string(raw)
	}
	return out.String()
}

// sheetText is a sheet as it is stored.
func sheetText(raw json.RawMessage) string {
	if text, ok := quoted(raw); ok {
		return text
	}
	sheet, err := readSheet(string(raw))
	if err != nil {
		return string(raw) // and is refused where it is read
	}
	text, err := wire.WriteSheet(sheet)
	if err != nil {
		return string(raw)
	}
	return string(text)
}

// quoted tells a text that was stored as a JSON string from one that is JSON itself.
func quoted(raw json.RawMessage) (text string, ok bool) {
	ok = bytes.HasPrefix(bytes.TrimSpace(raw), []byte{'"'}) && json.Unmarshal(raw, &text) == nil
	return text, ok
}
