package store

import (
	"archive/zip"
	"bytes"
	"cmp"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"path"
	"reflect"
	"slices"
	"strings"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"metronix/internal/wire"
)

// TakenIn is what was taken in of an archive: how many of each, and how many were there already as they are.
type TakenIn struct {
	Engines, GaugeSets, Vehicles, Jobs, Already int
}

// ReadArchive takes an archive in, all of it or nothing. What is stored under the same id already is left
// where it is the same; where it differs, nothing is taken in and ErrArchive says what. The workshop's
// settings and stock are taken only where none are stored. now is today, after which nothing can have been
// done.
func (s *Store) ReadArchive(from io.ReaderAt, size int64, now time.Time) (TakenIn, error) {
	files, err := unpack(from, size)
	if err != nil {
		return TakenIn{}, err
	}
	var in TakenIn
	err = s.write.Transaction(func(tx *gorm.DB) error {
		t := &taker{tx: tx, files: files, in: &in, latest: now.Add(clocksDiffer)}
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
		if clean != f.Name || path.IsAbs(f.Name) || strings.HasPrefix(clean,
			"..") || strings.ContainsAny(f.Name, "\\:\x00") {
			return nil, refuse("the name %q leads out of the archive. It was not made by this "+
				"program: nothing of it is used",
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
		return nil, refuse("%s is larger than anything of this program: over %d MB unpacked", f.Name,
			most>>20)
	case err != nil:
		return nil, refuse("%s cannot be unpacked: %v. The file was cut short or changed: fetch it again",
			f.Name, err)
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
		return refuse("its format is %q, and this program reads %s. A newer program may read it", m.Format,
			ArchiveFormat)
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

	latest time.Time // after which nothing can have been done
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
		return refuse("%s %s is stored here already and differs. Nothing was taken in: take it "+
			"into an empty data file", what, id)
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
		if x.Field(i).Kind() == reflect.String || x.Field(i).Kind() == reflect.Int ||
			x.Field(i).Kind() == reflect.Int64 ||
			x.Field(i).Kind() == reflect.Bool {
			if f != g {
				return false
			}
		}
	}
	return true
}

// clocksDiffer is how far two workshops' clocks and time zones may stand apart.
const clocksDiffer = 24 * time.Hour

// past refuses what stands in the future: wear and due dates would follow from it.
func (t *taker) past(what string, at time.Time) error {
	if at.After(t.latest) {
		return refuse("%s stands in the future, at %s. Is this machine's clock right? Nothing was taken in",
			what,
			at.Format(time.DateOnly))
	}
	return nil
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
		if err := take(t, "engine", e.ID, engineRow{e.ID, parsed.Name, sheet, e.Created},
			&t.in.Engines); err != nil {
			return err
		}
	}
	return nil
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
		row := vehicleRow{ID: v.ID, Name: v.Name, Plate: v.Plate, OdometerKM: v.OdometerKM,
			EngineID:  v.EngineID,
			CreatedAt: v.Created, OffBoard: v.OffBoard,
			Intervals: compact(v.Intervals), Cards: compact(v.Cards)}
		if _, err := wire.ReadCards(row.Cards); err != nil {
			return refuse("vehicle %s: %v", v.ID, err)
		}
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
	row := jobRow{ID: j.ID, VehicleID: j.VehicleID, Sheet: sheetText(j.Sheet), Card: j.Card,
		HotPass:    j.HotCard + 1,
		CardReason: j.CardReason, Aim: j.Aim, AimReason: j.AimReason, Rule: j.Rule,
		FeelNM: j.FeelNM, GaugeName: j.GaugeName,
		Leaves: compact(j.Leaves), Mechanic: j.Mechanic, Reason: j.Reason, OdometerKM: j.OdometerKM,
		OdometerWhy: j.OdometerWhy, CreatedAt: j.Created,
		OffBoard: j.OffBoard}
	if _, err := row.toJob(); err != nil {
		return refuse("job %s: %v", j.ID, err)
	}
	if err := t.past("job "+j.ID, j.Created); err != nil {
		return err
	}
	last := row.root()
	var rows []happeningRow
	for place, h := range j.Happenings {
		r := happeningRow{JobID: j.ID, Place: place, ClientID: h.ID, Kind: h.Kind, Body: compact(h.Body),
			At:    h.At.UTC(),
			Rules: h.Rules}
		if h.Done != nil {
			r.DoneAt = h.Done.UTC()
		}
		if err := t.past(fmt.Sprintf("entry %d of job %s", place+1, j.ID), h.At); err != nil {
			return err
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
	if row.Entries = len(rows); len(rows) > 0 {
		row.LastSum = last
	}
	var there []jobRow // one that is there and went on differently is told apart from one that differs
	if err := t.tx.Where("id = ?", j.ID).Find(&there).Error; err != nil {
		return err
	}
	if len(there) > 0 {
		row.Entries, row.LastSum = there[0].Entries, there[0].LastSum
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
		media := cmp.Or(p.Media, jpegType)
		if SoundTypes[media] == "" && media != jpegType {
			return refuse("%q is no type of a file of a job: JPEG, or a sound", media)
		}
		data := t.files[p.name()]
		if sum := sha256.Sum256(data); hex.EncodeToString(sum[:]) != p.Hash {
			return refuse("%s is not the file that its name says", p.name())
		}
		row := photoRow{p.Hash, p.JobID, data, p.Created, media}
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
	if err := errors.Join(t.tx.Model(&settingRow{}).Count(&settings).Error,
		t.tx.Model(&shimRow{}).Count(&shims).Error); err != nil {
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
