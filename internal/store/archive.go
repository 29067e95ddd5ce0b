package store

import (
	"archive/zip"
	"bytes"
	"crypto/sha256"
	"encoding/csv"
	"encoding/hex"
	"encoding/json"
	"errors"
	"io"
	"strconv"
	"time"

	"gorm.io/gorm"

	"metronix/internal/wire"
)

// This file and archive_read.go are the export and import of everything in open formats (docs/formats.md): a
// zip of JSON, with CSV beside it for spreadsheets, and a manifest that names every file with its size and
// its SHA-256.

// ArchiveFormat is the name and version of the format.
const ArchiveFormat = "metronix.archive/1"

// ErrArchive is that an archive cannot be taken in; the wrapped text says which file of it, why, and what to
// do.
var ErrArchive = errors.New("this archive cannot be taken in")

// Bounds of what is taken in: the files, one file, and all together, unpacked.
const (
	mostFiles    = 300_000
	largestFile  = 64 << 20
	largestTotal = 2 << 30
)

// Manifest names what is in an archive.
type Manifest struct {
	Format string         `json:"format"`
	Made   time.Time      `json:"made"`
	By     string         `json:"by"` // the program and its version
	Files  []ManifestFile `json:"files"`
}

// ManifestFile is one file of an archive.
type ManifestFile struct {
	Name   string `json:"name"`
	Bytes  int    `json:"bytes"`
	SHA256 string `json:"sha256"`
}

type archivedEngine struct {
	ID      string          `json:"id"`
	Created time.Time       `json:"created"`
	Sheet   json.RawMessage `json:"sheet"`
}

type archivedSet struct {
	ID      string          `json:"id"`
	Name    string          `json:"name"`
	Checked string          `json:"checked"`
	Created time.Time       `json:"created"`
	Leaves  json.RawMessage `json:"leaves"`
}

type archivedVehicle struct {
	ID         string          `json:"id"`
	Name       string          `json:"name"`
	Plate      string          `json:"plate"`
	OdometerKM int             `json:"odometer_km"`
	EngineID   string          `json:"engine_id"`
	Created    time.Time       `json:"created"`
	OffBoard   bool            `json:"off_board"`
	Intervals  json.RawMessage `json:"intervals,omitempty"`
	Cards      json.RawMessage `json:"cards,omitempty"`
}

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
	Mechanic   string          `json:"mechanic"`
	Reason     string          `json:"reason"`
	OdometerKM int             `json:"odometer_km"`
	// why it shows less than before
	OdometerWhy string          `json:"odometer_why,omitempty"`
	Sheet       json.RawMessage `json:"sheet"`
	Happenings  []archivedEntry `json:"happenings"`
	Sum         string          `json:"sum"` // the last checksum of the chain; of none: the job's own
}

type archivedEntry struct {
	ID    string          `json:"id"`
	Kind  string          `json:"kind"`
	At    time.Time       `json:"at"`
	Done  *time.Time      `json:"done_at,omitempty"`
	Rules int             `json:"rules"`
	Body  json.RawMessage `json:"body"`
}

type archivedShop struct {
	Settings map[string]string `json:"settings"`
	Shims    []archivedShim    `json:"shims"`
}

type archivedShim struct {
	SizeNM int64 `json:"size_nm"`
	N      int   `json:"n"`
}

// writer collects the files of an archive.
type archiveWriter struct {
	zip      *zip.Writer
	manifest Manifest
}

func (w *archiveWriter) put(name string, data []byte) error {
	f, err := w.zip.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Deflate, Modified: w.manifest.Made})
	if err != nil {
		return err
	}
	sum := sha256.Sum256(data)
	w.manifest.Files = append(w.manifest.Files, ManifestFile{name, len(data), hex.EncodeToString(sum[:])})
	_, err = f.Write(data)
	return err
}

func (w *archiveWriter) putJSON(name string, of any) error {
	data, err := json.MarshalIndent(of, "", " ")
	if err != nil {
		return err
	}
	return w.put(name, append(data, '\n'))
}

// WriteArchive writes everything that is stored: engines, gauge sets, vehicles, the workshop, and every job
// with its whole list, those taken off the board too. What is derived is left out, but for a CSV of what the
// finished jobs found and left. The reading is of one moment.
func (s *Store) WriteArchive(to io.Writer, by string, now time.Time) error {
	w := &archiveWriter{zip: zip.NewWriter(to),
		manifest: Manifest{Format: ArchiveFormat, Made: now.UTC().Truncate(time.Second),
			By: by}}
	err := s.read.Transaction(func(tx *gorm.DB) error {
		for _, part := range []func(*gorm.DB, *archiveWriter) error{archiveRecords, archiveJobs,
			archivePhotos, archiveVisits} {
			if err := part(tx, w); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return translate(err)
	}
	data, err := json.MarshalIndent(w.manifest, "", " ")
	if err != nil {
		return err
	}
	f, err := w.zip.Create("manifest.json")
	if err != nil {
		return err
	}
	if _, err := f.Write(data); err != nil {
		return err
	}
	return w.zip.Close()
}

func archiveRecords(tx *gorm.DB, w *archiveWriter) error {
	var engines []engineRow
	var sets []gaugeSetRow
	var vehicles []vehicleRow
	var settings []settingRow
	var shims []shimRow
	for _, rows := range []any{&engines, &sets, &vehicles} {
		if err := tx.Order("id").Find(rows).Error; err != nil {
			return err
		}
	}
	if err := tx.Order("name").Find(&settings).Error; err != nil {
		return err
	}
	if err := tx.Order("size_nm").Find(&shims).Error; err != nil {
		return err
	}
	es, gs, vs := []archivedEngine{}, []archivedSet{}, []archivedVehicle{}
	for _, r := range engines {
		es = append(es, archivedEngine{r.ID, r.CreatedAt.UTC(), exact(r.Sheet, sheetText)})
	}
	for _, r := range sets {
		gs = append(gs, archivedSet{r.ID, r.Name, r.Checked, r.CreatedAt.UTC(), exact(r.Leaves, compact)})
	}
	for _, r := range vehicles {
		vs = append(vs, archivedVehicle{r.ID, r.Name, r.Plate, r.OdometerKM, r.EngineID, r.CreatedAt.UTC(),
			r.OffBoard,
			exact(r.Intervals, compact),
			exact(r.Cards, compact)})
	}
	shop := archivedShop{Settings: map[string]string{}, Shims: []archivedShim{}}
	for _, r := range settings {
		shop.Settings[r.Name] = r.Value
	}
	for _, r := range shims {
		shop.Shims = append(shop.Shims, archivedShim(r))
	}
	return errors.Join(w.putJSON("engines.json", es), w.putJSON("gauge_sets.json", gs),
		w.putJSON("vehicles.json", vs),
		w.putJSON("workshop.json", shop))
}

func archiveJobs(tx *gorm.DB, w *archiveWriter) error {
	var ids []string
	if err := tx.Raw("SELECT id FROM jobs ORDER BY id").Scan(&ids).Error; err != nil {
		return err
	}
	for _, id := range ids {
		var r jobRow
		var rows []happeningRow
		if err := tx.Where("id = ?", id).Take(&r).Error; err != nil {
			return err
		}
		if err := tx.Where("job_id = ?", id).Order("place").Find(&rows).Error; err != nil {
			return err
		}
		last, err := verify(r, rows)
		if err != nil {
			return err
		}
		if err := w.putJSON("jobs/"+id+".json", archived(r, rows, last)); err != nil {
			return err
		}
	}
	return nil
}

func archived(r jobRow, rows []happeningRow, last string) archivedJob {
	j := archivedJob{ID: r.ID, VehicleID: r.VehicleID, Created: r.CreatedAt.UTC(), OffBoard: r.OffBoard,
		Card:    r.Card,
		HotCard: r.HotPass - 1, CardReason: r.CardReason, Aim: r.Aim, AimReason: r.AimReason, Rule: r.Rule,
		FeelNM: r.FeelNM, GaugeName: r.GaugeName, Leaves: exact(r.Leaves,
			compact), Mechanic: r.Mechanic, Reason: r.Reason,
		OdometerKM: r.OdometerKM, OdometerWhy: r.OdometerWhy, Sheet: exact(r.Sheet, sheetText),
		Happenings: []archivedEntry{}, Sum: last}
	for _, h := range rows {
		e := archivedEntry{ID: h.ClientID, Kind: h.Kind, At: h.At.UTC(), Rules: h.Rules,
			Body: exact(h.Body, compact)}
		if !h.DoneAt.IsZero() {
			done := h.DoneAt.UTC()
			e.Done = &done
		}
		j.Happenings = append(j.Happenings, e)
	}
	return j
}

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

func archivePhotos(tx *gorm.DB, w *archiveWriter) error {
	var hashes []string
	if err := tx.Raw("SELECT hash FROM photos ORDER BY hash").Scan(&hashes).Error; err != nil {
		return err
	}
	list := []archivedPhoto{}
	for _, hash := range hashes {
		var r photoRow
		if err := tx.Where("hash = ?", hash).Take(&r).Error; err != nil {
			return err
		}
		entry := archivedPhoto{Hash: r.Hash, JobID: r.JobID, Created: r.CreatedAt.UTC()}
		if r.Media != jpegType {
			entry.Media = r.Media
		}
		list = append(list, entry)
		if err := w.put(entry.name(), r.Data); err != nil {
			return err
		}
	}
	return w.putJSON("photos.json", list)
}

// archiveVisits writes what finished jobs found and left, a line a valve, for a spreadsheet.
func archiveVisits(tx *gorm.DB, w *archiveWriter) error {
	var list []struct{ JobID, VehicleID, Visit string }
	if err := tx.Raw("SELECT job_id, vehicle_id, visit FROM jobs JOIN job_states ON job_id = " +
		"jobs.id WHERE visit <> '' " +
		"ORDER BY jobs.created_at, job_id").Scan(&list).Error; err != nil {
		return err
	}
	var out bytes.Buffer
	table := csv.NewWriter(&out)
	rows := [][]string{{"job", "vehicle", "signed_at", "odometer_km", "state", "valve", "found_mm", "left_mm",
		"lower_mm",
		"upper_mm"}}
	for _, v := range list {
		var visit struct {
			At         time.Time `json:"at"`
			OdometerKM int       `json:"odometer_km"`
			State      string    `json:"state"`
			Valves     []struct {
				Valve   string   `json:"valve"`
				FoundMM *wire.MM `json:"found_mm"`
				LeftMM  *wire.MM `json:"left_mm"`
				LowerMM wire.MM  `json:"lower_mm"`
				UpperMM wire.MM  `json:"upper_mm"`
			} `json:"valves"`
		}
		if err := json.Unmarshal([]byte(v.Visit), &visit); err != nil {
			return err
		}
		cell := func(l *wire.MM) string {
			if l == nil {
				return ""
			}
			text, _ := json.Marshal(l)
			return string(text)
		}
		for _, x := range visit.Valves {
			rows = append(rows, []string{wire.Cell(v.JobID), wire.Cell(v.VehicleID),
				visit.At.UTC().Format(time.RFC3339),
				strconv.Itoa(visit.OdometerKM), visit.State, x.Valve, cell(x.FoundMM),
				cell(x.LeftMM), cell(&x.LowerMM),
				cell(&x.UpperMM)})
		}
	}
	if err := table.WriteAll(rows); err != nil {
		return err
	}
	return w.put("visits.csv", out.Bytes())
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

func quoted(raw json.RawMessage) (text string, ok bool) {
	ok = bytes.HasPrefix(bytes.TrimSpace(raw), []byte{'"'}) && json.Unmarshal(raw, &text) == nil
	return text, ok
}
