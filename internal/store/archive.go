package store

import (
	"archive/zip"
	"bytes"
	"crypto/sha256"
	"encoding/csv"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"path"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"metronix/internal/wire"
)

// This file is the export and import of everything in open formats (docs/formats.md): a zip of JSON, with CSV beside it
// for spreadsheets, and a manifest that names every file with its size and its SHA-256.

// ArchiveFormat is the name and version of the format.
const ArchiveFormat = "metronix.archive/1"

// ErrArchive is that an archive cannot be taken in; the wrapped text says which file of it, why, and what to do.
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
	Sheet      json.RawMessage `json:"sheet"`
	Happenings []archivedEntry `json:"happenings"`
	Sum        string          `json:"sum"` // the last checksum of the chain; of none: the job's own
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

// WriteArchive writes everything that is stored: engines, gauge sets, vehicles, the workshop, and every job with its
// whole list, those taken off the board too. What is derived is left out, but for a CSV of what the finished jobs found
// and left. The reading is of one moment.
func (s *Store) WriteArchive(to io.Writer, by string, now time.Time) error {
	w := &archiveWriter{zip: zip.NewWriter(to), manifest: Manifest{Format: ArchiveFormat, Made: now.UTC().Truncate(time.Second),
		By: by}}
	err := s.read.Transaction(func(tx *gorm.DB) error {
		for _, part := range []func(*gorm.DB, *archiveWriter) error{archiveRecords, archiveJobs, archivePhotos, archiveVisits} {
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
		vs = append(vs, archivedVehicle{r.ID, r.Name, r.Plate, r.OdometerKM, r.EngineID, r.CreatedAt.UTC(), r.OffBoard,
			exact(r.Intervals, compact)})
	}
	shop := archivedShop{Settings: map[string]string{}, Shims: []archivedShim{}}
	for _, r := range settings {
		shop.Settings[r.Name] = r.Value
	}
	for _, r := range shims {
		shop.Shims = append(shop.Shims, archivedShim(r))
	}
	return errors.Join(w.putJSON("engines.json", es), w.putJSON("gauge_sets.json", gs), w.putJSON("vehicles.json", vs),
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
	j := archivedJob{ID: r.ID, VehicleID: r.VehicleID, Created: r.CreatedAt.UTC(), OffBoard: r.OffBoard, Card: r.Card,
		HotCard: r.HotPass - 1, CardReason: r.CardReason, Aim: r.Aim, AimReason: r.AimReason, Rule: r.Rule,
		FeelNM: r.FeelNM, GaugeName: r.GaugeName, Leaves: exact(r.Leaves, compact), Mechanic: r.Mechanic, Reason: r.Reason,
		OdometerKM: r.OdometerKM, Sheet: exact(r.Sheet, sheetText), Happenings: []archivedEntry{}, Sum: last}
	for _, h := range rows {
		e := archivedEntry{ID: h.ClientID, Kind: h.Kind, At: h.At.UTC(), Rules: h.Rules, Body: exact(h.Body, compact)}
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
		list = append(list, archivedPhoto{r.Hash, r.JobID, r.CreatedAt.UTC()})
		if err := w.put("photos/"+hash+".jpg", r.JPEG); err != nil {
			return err
		}
	}
	return w.putJSON("photos.json", list)
}

// archiveVisits writes what finished jobs found and left, a line a valve, for a spreadsheet.
func archiveVisits(tx *gorm.DB, w *archiveWriter) error {
	var list []struct{ JobID, VehicleID, Visit string }
	if err := tx.Raw("SELECT job_id, vehicle_id, visit FROM jobs JOIN job_states ON job_id = jobs.id WHERE visit <> '' " +
		"ORDER BY jobs.created_at, job_id").Scan(&list).Error; err != nil {
		return err
	}
	var out bytes.Buffer
	table := csv.NewWriter(&out)
	rows := [][]string{{"job", "vehicle", "signed_at", "odometer_km", "state", "valve", "found_mm", "left_mm", "lower_mm",
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
			rows = append(rows, []string{v.JobID, v.VehicleID, visit.At.UTC().Format(time.RFC3339),
				strconv.Itoa(visit.OdometerKM), visit.State, x.Valve, cell(x.FoundMM), cell(x.LeftMM), cell(&x.LowerMM),
				cell(&x.UpperMM)})
		}
	}
	if err := table.WriteAll(rows); err != nil {
		return err
	}
	return w.put("visits.csv", out.Bytes())
}

// TakenIn is what was taken in of an archive: how many of each, and how many were there already as they are.
type TakenIn struct {
	Engines, GaugeSets, Vehicles, Jobs, Already int
}

// ReadArchive takes an archive in, all of it or nothing. What is stored under the same id already is left where it is
// the same; where it differs, nothing is taken in and ErrArchive says what. The workshop's settings and stock are taken
// only where none are stored.
func (s *Store) ReadArchive(from io.ReaderAt, size int64) (TakenIn, error) {
	files, err := unpack(from, size)
	if err != nil {
		return TakenIn{}, err
	}
	var in TakenIn
	err = s.write.Transaction(func(tx *gorm.DB) error {
		t := &taker{tx: tx, files: files, in: &in}
		for _, part := range []func() error{t.engines, t.sets, t.vehicles, t.jobs, t.photos, t.shop} {
			if err := part(); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		if errors.Is(err, ErrArchive) {
			return TakenIn{}, err
		}
		return TakenIn{}, translate(err)
	}
	return in, s.file.still()
}

func refuse(format string, args ...any) error {
	return fmt.Errorf("%w: %s", ErrArchive, fmt.Sprintf(format, args...))
}

// unpack reads every file that the manifest names, in bounds, and compares each with its hash.
func unpack(from io.ReaderAt, size int64) (map[string][]byte, error) {
	z, err := zip.NewReader(from, size)
	if err != nil {
		return nil, refuse("it is no zip file, or not all of one")
	}
	if len(z.File) > mostFiles {
		return nil, refuse("it holds %d files, and %d are the most", len(z.File), mostFiles)
	}
	files, total := map[string][]byte{}, int64(0)
	for _, f := range z.File {
		clean := path.Clean(f.Name)
		if clean != f.Name || path.IsAbs(f.Name) || strings.HasPrefix(clean, "..") || strings.ContainsAny(f.Name, "\\:\x00") {
			return nil, refuse("the name %q leads out of the archive. It was not made by this program: nothing of it is used",
				f.Name)
		}
		if _, twice := files[f.Name]; twice {
			return nil, refuse("%s is in it twice", f.Name)
		}
		data, err := within(f, largestTotal-total)
		if err != nil {
			return nil, err
		}
		total += int64(len(data))
		files[f.Name] = data
	}
	return files, compared(files)
}

// within reads one file, and no more than it may hold, whatever its header says.
func within(f *zip.File, left int64) ([]byte, error) {
	r, err := f.Open()
	if err != nil {
		return nil, refuse("%s cannot be unpacked: %v", f.Name, err)
	}
	defer r.Close()
	most := min(left, largestFile)
	data, err := io.ReadAll(io.LimitReader(r, most+1))
	switch {
	case int64(len(data)) > most:
		return nil, refuse("%s is larger than anything of this program: over %d MB unpacked", f.Name, most>>20)
	case err != nil:
		return nil, refuse("%s cannot be unpacked: %v. The file was cut short or changed: fetch it again", f.Name, err)
	}
	return data, nil
}

func compared(files map[string][]byte) error {
	text, ok := files["manifest.json"]
	if !ok {
		return refuse("it has no manifest.json")
	}
	var m Manifest
	if err := json.Unmarshal(text, &m); err != nil {
		return refuse("its manifest.json does not read: %v", err)
	}
	if m.Format != ArchiveFormat {
		return refuse("its format is %q, and this program reads %s. A newer program may read it", m.Format, ArchiveFormat)
	}
	for _, f := range m.Files {
		data, ok := files[f.Name]
		sum := sha256.Sum256(data)
		switch {
		case !ok:
			return refuse("%s is named in its manifest and missing", f.Name)
		case hex.EncodeToString(sum[:]) != f.SHA256:
			return refuse("%s is not as it was exported: its hash differs. Fetch the archive again", f.Name)
		}
	}
	if len(files) != len(m.Files)+1 {
		return refuse("it holds files that its manifest does not name")
	}
	return nil
}

// taker takes the files of an archive in, within one transaction.
type taker struct {
	tx    *gorm.DB
	files map[string][]byte
	in    *TakenIn
}

func (t *taker) read(name string, into any) error {
	d := json.NewDecoder(bytes.NewReader(t.files[name]))
	d.DisallowUnknownFields()
	if err := d.Decode(into); err != nil {
		return refuse("%s does not read: %v", name, err)
	}
	return nil
}

// take stores a row, or leaves the one that is there where it is the same.
func take[Row any](t *taker, what, id string, row Row, count *int) error {
	var had []Row
	if err := t.tx.Where("id = ?", id).Find(&had).Error; err != nil {
		return err
	}
	if len(had) == 0 {
		*count++
		return t.tx.Omit("Engine", "Vehicle").Create(&row).Error
	}
	if !same(had[0], row) {
		return refuse("%s %s is stored here already and differs. Nothing was taken in: take it into an empty data file", what, id)
	}
	t.in.Already++
	return nil
}

// same says that two rows say the same; times by the moment, whatever their zone.
func same(a, b any) bool {
	x, y := reflect.ValueOf(a), reflect.ValueOf(b)
	for i := range x.NumField() {
		f, g := x.Field(i).Interface(), y.Field(i).Interface()
		if at, ok := f.(time.Time); ok {
			if !at.Equal(g.(time.Time)) {
				return false
			}
			continue
		}
		if x.Field(i).Kind() == reflect.String || x.Field(i).Kind() == reflect.Int || x.Field(i).Kind() == reflect.Int64 ||
			x.Field(i).Kind() == reflect.Bool {
			if f != g {
				return false
			}
		}
	}
	return true
}

func (t *taker) engines() error {
	var list []archivedEngine
	if err := t.read("engines.json", &list); err != nil {
		return err
	}
	for _, e := range list {
		sheet := sheetText(e.Sheet)
		parsed, err := readSheet(sheet)
		if err != nil {
			return refuse("engine %s: %v", e.ID, err)
		}
		if err := take(t, "engine", e.ID, engineRow{e.ID, parsed.Name, sheet, e.Created}, &t.in.Engines); err != nil {
			return err
		}
	}
	return nil
}

// exact is a stored text as JSON that comes back as the same text: as it is where restored makes it so, else, as an
// earlier version may have written it, as a string.
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

func (t *taker) sets() error {
	var list []archivedSet
	if err := t.read("gauge_sets.json", &list); err != nil {
		return err
	}
	for _, g := range list {
		leaves := compact(g.Leaves)
		if _, err := readItems(leaves); err != nil {
			return refuse("gauge set %s: %v", g.ID, err)
		}
		row := gaugeSetRow{ID: g.ID, Name: g.Name, Leaves: leaves, Checked: g.Checked, CreatedAt: g.Created}
		if err := take(t, "gauge set", g.ID, row, &t.in.GaugeSets); err != nil {
			return err
		}
	}
	return nil
}

func (t *taker) vehicles() error {
	var list []archivedVehicle
	if err := t.read("vehicles.json", &list); err != nil {
		return err
	}
	for _, v := range list {
		row := vehicleRow{ID: v.ID, Name: v.Name, Plate: v.Plate, OdometerKM: v.OdometerKM, EngineID: v.EngineID,
			CreatedAt: v.Created, OffBoard: v.OffBoard, Intervals: compact(v.Intervals)}
		if err := take(t, "vehicle", v.ID, row, &t.in.Vehicles); err != nil {
			return err
		}
	}
	return nil
}

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
		if name != "jobs/"+j.ID+".json" {
			return refuse("%s holds job %s", name, j.ID)
		}
		if err := t.job(j); err != nil {
			return err
		}
	}
	return nil
}

func (t *taker) job(j archivedJob) error {
	row := jobRow{ID: j.ID, VehicleID: j.VehicleID, Sheet: sheetText(j.Sheet), Card: j.Card, HotPass: j.HotCard + 1,
		CardReason: j.CardReason, Aim: j.Aim, AimReason: j.AimReason, Rule: j.Rule, FeelNM: j.FeelNM, GaugeName: j.GaugeName,
		Leaves: compact(j.Leaves), Mechanic: j.Mechanic, Reason: j.Reason, OdometerKM: j.OdometerKM, CreatedAt: j.Created,
		OffBoard: j.OffBoard}
	if _, err := row.toJob(); err != nil {
		return refuse("job %s: %v", j.ID, err)
	}
	last := row.root()
	var rows []happeningRow
	for place, h := range j.Happenings {
		r := happeningRow{JobID: j.ID, Place: place, ClientID: h.ID, Kind: h.Kind, Body: compact(h.Body), At: h.At.UTC(),
			Rules: h.Rules}
		if h.Done != nil {
			r.DoneAt = h.Done.UTC()
		}
		r.Sum = r.sumAfter(last)
		last = r.Sum
		if _, err := r.toHappening(); err != nil {
			return refuse("job %s: %v", j.ID, err)
		}
		rows = append(rows, r)
	}
	if last != j.Sum {
		return refuse("job %s is not as it was exported: its checksums do not end where they should", j.ID)
	}
	before := t.in.Jobs
	if err := take(t, "job", j.ID, row, &t.in.Jobs); err != nil {
		return err
	}
	if t.in.Jobs == before { // it is there: with the same list?
		var stored []happeningRow
		if err := t.tx.Where("job_id = ?", j.ID).Order("place").Find(&stored).Error; err != nil {
			return err
		}
		if n := len(stored); n != len(rows) || n > 0 && stored[n-1].Sum != last {
			return refuse("job %s is stored here already and went on differently. Nothing was taken in", j.ID)
		}
		return nil
	}
	if len(rows) == 0 {
		return nil
	}
	return t.tx.Omit("Job").CreateInBatches(&rows, 200).Error
}

func (t *taker) photos() error {
	if _, ok := t.files["photos.json"]; !ok {
		return nil
	}
	var list []archivedPhoto
	if err := t.read("photos.json", &list); err != nil {
		return err
	}
	for _, p := range list {
		data := t.files["photos/"+p.Hash+".jpg"]
		if sum := sha256.Sum256(data); hex.EncodeToString(sum[:]) != p.Hash {
			return refuse("photos/%s.jpg is not the picture that its name says", p.Hash)
		}
		row := photoRow{p.Hash, p.JobID, data, p.Created}
		if err := t.tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&row).Error; err != nil {
			return err
		}
	}
	return nil
}

func (t *taker) shop() error {
	var shop archivedShop
	if err := t.read("workshop.json", &shop); err != nil {
		return err
	}
	var settings, shims int64
	if err := errors.Join(t.tx.Model(&settingRow{}).Count(&settings).Error, t.tx.Model(&shimRow{}).Count(&shims).Error); err != nil {
		return err
	}
	if settings > 0 || shims > 0 {
		return nil
	}
	for name, value := range shop.Settings {
		if err := t.tx.Create(&settingRow{name, value}).Error; err != nil {
			return err
		}
	}
	for _, s := range shop.Shims {
		if err := t.tx.Create(&shimRow{s.SizeNM, s.N}).Error; err != nil {
			return err
		}
	}
	return nil
}
