package store

import (
	"cmp"
	"crypto/sha256"
	"errors"
	"io"
	"reflect"
	"slices"
	"strings"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"metronix/core/adjust"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/internal/wire"
)

// TakenIn is what was taken in of an archive: how many of each, and how many were there already as they are.
type TakenIn struct {
	Engines, GaugeSets, Vehicles, Jobs, Already int
	// Damaged are the records that the archive names as left out of it
	Damaged []DamagedRecord
}

// Admission judges what an archive brings as whoever else stores such a thing is judged; each says what is
// wrong, and nothing where nothing is.
type Admission struct {
	Engine   func(Engine) string
	GaugeSet func(GaugeSet) string
	Vehicle  func(Vehicle) string
	Job      func(Job, []job.Happening) string
	File     func(media string, data []byte) string
	Shop     func(Shop) string
}

// ReadArchive takes an archive in, all of it or nothing. What is stored under the same id already is left
// where it is the same; where it differs, nothing is taken in and ErrArchive says what. The workshop's
// settings and stock are taken only where none are stored. now is today, after which nothing can have been
// done. What it holds at a time is one file of the archive, however many there are.
func (s *Store) ReadArchive(from io.ReaderAt, size int64, now time.Time, admit Admission) (TakenIn, error) {
	a, err := openArchive(from, size)
	if err != nil {
		return TakenIn{}, err
	}
	return s.takeIn(a, nil, now, admit, nil)
}

// takeIn takes an open archive in, beside others where it is given a place, and does something more in the
// same transaction.
func (s *Store) takeIn(a *archive, place *Place, now time.Time, admit Admission, more func(*gorm.DB) error) (TakenIn, error) {
	in := TakenIn{Damaged: a.manifest.Damaged}
	err := s.write.Transaction(func(tx *gorm.DB) error {
		t := &taker{archive: a, tx: unprepared(tx), in: &in, latest: now.Add(clocksDiffer), admit: admit, place: place}
		for _, part := range []func() error{t.engines, t.sets, t.vehicles, t.jobs, t.photos, t.shop, t.rest} {
			if err := part(); err != nil {
				return err
			}
		}
		if more != nil {
			return more(tx)
		}
		return nil
	})
	if err != nil {
		if errors.Is(err, ErrArchive) {
			return TakenIn{}, err
		}
		return TakenIn{}, translate(err)
	}
	return in, s.fold() // the whole archive lies in the log
}

// taker takes the files of an archive in, within one transaction.
type taker struct {
	*archive
	tx     *gorm.DB
	in     *TakenIn
	admit  Admission
	latest time.Time // after which nothing can have been done
	place  *Place    // beside those of others; nil: into this workshop's own
}

// id is the one under which a record of the archive is stored here.
func (t *taker) id(there string) string {
	if t.place == nil {
		return there
	}
	return t.place.gathered(there)
}

// rest looks at what was not read: the table made for spreadsheets is compared with the manifest, and there
// is nothing else.
func (t *taker) rest() error {
	for name, f := range t.files {
		switch {
		case t.seen[name] || name == manifestName:
		case name == visitsName:
			sum := &summing{hash: sha256.New()}
			if _, err := unpackInto(sum, f, t.named[name].Bytes); err != nil {
				return err
			}
			if err := t.asNamed(name, sum.bytes, [sha256.Size]byte(sum.hash.Sum(nil))); err != nil {
				return err
			}
		default:
			return refuse("%s belongs to nothing in it. It was not made by this program", name)
		}
	}
	return nil
}

// admitted refuses what is not admitted.
func admitted(what, id, why string) error {
	if why == "" {
		return nil
	}
	return refuse("%s %q: %s", what, id, strings.TrimSuffix(why, "."))
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
		return differs(what, id)
	}
	t.in.Already++
	return nil
}

// differs refuses what is here already under the same id and is not the same: to choose between the two is
// nobody's but the owner's.
func differs(what, id string) error {
	return refuse("%s %s is stored here already and differs. Nothing was taken in: take it "+
		"into an empty data file", what, id)
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

// engines takes the sheets in, each read and admitted before any is stored.
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
		if err := admitted("engine", e.ID, t.admit.Engine(Engine{e.ID, parsed, e.Created})); err != nil {
			return err
		}
		id := t.id(e.ID)
		if err := take(t, "engine", id, engineRow{id, parsed.Name, sheet, e.Created},
			&t.in.Engines); err != nil {
			return err
		}
	}
	return nil
}

// sets takes the gauge sets in.
func (t *taker) sets() error {
	var list []archivedSet
	if err := t.read("gauge_sets.json", &list); err != nil {
		return err
	}
	for _, g := range list {
		row := gaugeSetRow{
			ID:        t.id(g.ID),
			Name:      g.Name,
			Leaves:    compact(g.Leaves),
			Checked:   g.Checked,
			CreatedAt: g.Created,
		}
		set := row.toGaugeSet()
		if err := admitted("gauge set", g.ID, cmp.Or(set.Damaged, t.admit.GaugeSet(set))); err != nil {
			return err
		}
		if err := take(t, "gauge set", row.ID, row, &t.in.GaugeSets); err != nil {
			return err
		}
	}
	return nil
}

// vehicles takes the vehicles in. One that is here counts as the same by what identifies it; its counter may
// have gone on since.
func (t *taker) vehicles() error {
	var list []archivedVehicle
	if err := t.read("vehicles.json", &list); err != nil {
		return err
	}
	for _, v := range list {
		intervals, err := wire.CoreIntervals(v.Intervals, measure.Counter(v.Counter))
		if err != nil {
			return refuse("vehicle %s: its intervals do not read: %v", v.ID, err)
		}
		id := t.id(v.ID)
		row := vehicleRow{ID: id, Name: v.Name, Plate: v.Plate, Meter: v.Meter, Counter: v.Counter,
			EngineID: t.id(v.EngineID), CreatedAt: v.Created, OffBoard: v.OffBoard,
			Intervals: rowsOfIntervals(id, intervals), Cards: compact(v.Cards), Outside: compact(v.Outside),
			OdometerWhy: v.OdometerWhy}
		vehicle := row.toVehicle()
		if err := admitted("vehicle", v.ID, cmp.Or(vehicle.Damaged, t.admit.Vehicle(vehicle))); err != nil {
			return err
		}
		var there []intervalRow
		if err := t.tx.Where("vehicle_id = ?", id).Order("n").Find(&there).Error; err != nil {
			return err
		}
		had := t.in.Already
		if err := take(t, "vehicle", id, row, &t.in.Vehicles); err != nil {
			return err
		}
		if t.in.Already > had && !slices.Equal(there, row.Intervals) {
			return differs("vehicle", id)
		}
	}
	return nil
}

// photos takes the files of the jobs in, each by the hash of what it holds. An archive from before there were
// any has no list of them.
func (t *taker) photos() error {
	var list []archivedPhoto
	if _, ok := t.files["photos.json"]; ok {
		if err := t.read("photos.json", &list); err != nil {
			return err
		}
	}
	for _, p := range list {
		media := cmp.Or(p.Media, jpegType)
		if SoundTypes[media] == "" && media != jpegType {
			return refuse("%q is no type of a file of a job: JPEG, or a sound", media)
		}
		data, err := t.bytesOf(p.name())
		if err != nil {
			return err
		}
		row := photoRow{p.Hash, t.id(p.JobID), data, p.Created, media, true}
		if row.intact() != nil {
			return refuse("%s is not the file that its name says", p.name())
		}
		if err := admitted("file", p.name(), t.admit.File(media, data)); err != nil {
			return err
		}
		if err := t.tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&row).Error; err != nil {
			return err
		}
	}
	return nil
}

// shop takes the workshop's settings in where none are set here yet. Those that are here stay: they are of
// this workshop and not of the one that was archived.
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
	if err := admitted("the workshop", "settings", t.admit.Shop(shop.record())); err != nil {
		return err
	}
	if settings > 0 || shims > 0 || t.place != nil {
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

// record is what is judged of a workshop's settings.
func (a archivedShop) record() Shop {
	shop := Shop{Probe: a.Settings[settingProbe], Sizes: a.Settings[settingSizes]}
	for name, value := range a.Settings {
		shop.Damaged = cmp.Or(shop.Damaged, settingRow{name, value}.damaged())
		if !slices.Contains([]string{settingProbe, settingSizes, settingCounted, settingVersion}, name) {
			shop.Damaged = "there is no setting " + name
		}
	}
	for _, c := range a.Shims {
		shop.Stock = append(shop.Stock, adjust.Count{Shim: measure.Length(c.SizeNM), N: c.N})
	}
	return shop
}
