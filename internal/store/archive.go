package store

import (
	"archive/zip"
	"crypto/sha256"
	"encoding/csv"
	"encoding/hex"
	"encoding/json"
	"errors"
	"hash"
	"io"
	"time"

	"gorm.io/gorm"

	"metronix/core/measure"
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

// archiveWriter writes the files of an archive one after the other, and holds no more of them than their
// names and sums.
type archiveWriter struct {
	zip      *zip.Writer
	manifest Manifest
}

// stream writes one file as it comes.
func (w *archiveWriter) stream(name string, write func(io.Writer) error) error {
	f, err := w.zip.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Deflate, Modified: w.manifest.Made})
	if err != nil {
		return err
	}
	sum := &summing{hash: sha256.New()}
	if err := write(io.MultiWriter(f, sum)); err != nil {
		return err
	}
	w.manifest.Files = append(
		w.manifest.Files,
		ManifestFile{name, sum.bytes, hex.EncodeToString(sum.hash.Sum(nil))},
	)
	return nil
}

// summing counts and sums what is written through it.
type summing struct {
	hash  hash.Hash
	bytes int64
}

// Write counts and sums what goes by.
func (s *summing) Write(data []byte) (int, error) {
	s.bytes += int64(len(data))
	return s.hash.Write(data)
}

// put adds one file of the archive that is at hand whole.
func (w *archiveWriter) put(name string, data []byte) error {
	return w.stream(name, func(to io.Writer) error {
		_, err := to.Write(data)
		return err
	})
}

// putJSON adds one as indented JSON: an archive is read by people too, years later, without this program.
func (w *archiveWriter) putJSON(name string, of any) error {
	data, err := json.MarshalIndent(of, "", " ")
	if err != nil {
		return err
	}
	return w.put(name, append(data, '\n'))
}

// damaged names a record that does not read, so that everything else still goes out.
func (w *archiveWriter) damaged(what, id, why string) {
	w.manifest.Damaged = append(w.manifest.Damaged, DamagedRecord{what, id, why})
}

// unprepared is a transaction whose statements are let go when each is done. Prepared ones stay, each with
// what was given to it, until the transaction ends.
func unprepared(tx *gorm.DB) *gorm.DB {
	if p, ok := tx.Statement.ConnPool.(*gorm.PreparedStmtTX); ok {
		tx = tx.Session(&gorm.Session{NewDB: true})
		tx.Statement.ConnPool = p.Tx
	}
	return tx
}

// WriteArchive writes everything that is stored: engines, gauge sets, vehicles, the workshop, and every job
// with its whole list, those taken off the board too. What is derived is left out, but for a CSV of what the
// finished jobs found and left. The reading is of one moment, and what it holds at a time does not grow with
// how much there is. Records that do not read are left out and named in the manifest, which is given.
func (s *Store) WriteArchive(to io.Writer, by string, now time.Time) (Manifest, error) {
	w := &archiveWriter{zip: zip.NewWriter(to),
		manifest: Manifest{Format: ArchiveFormat, Made: now.UTC().Truncate(time.Second),
			By: by}}
	err := s.read.Transaction(func(tx *gorm.DB) error {
		for _, part := range []func(*gorm.DB, *archiveWriter) error{archiveRecords, archiveJobs,
			archivePhotos, archiveVisits} {
			if err := part(unprepared(tx), w); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return w.manifest, translate(err)
	}
	f, err := w.zip.Create(manifestName)
	if err != nil {
		return w.manifest, err
	}
	if err := json.NewEncoder(f).Encode(w.manifest); err != nil {
		return w.manifest, err
	}
	return w.manifest, w.zip.Close()
}

// Two files of an archive that are no record.
const (
	manifestName = "manifest.json"
	visitsName   = "visits.csv"
)

// archiveRecords writes everything but the jobs: few rows, read at once. A record that does not read is left
// out and named in the manifest; the rest of the workshop is not held up by it.
func archiveRecords(tx *gorm.DB, w *archiveWriter) error {
	var engines []engineRow
	var sets []gaugeSetRow
	var vehicles []vehicleRow
	var settings []settingRow
	var shims []shimRow
	for _, rows := range []any{&engines, &sets} {
		if err := tx.Order("id").Find(rows).Error; err != nil {
			return err
		}
	}
	if err := tx.Preload("Intervals", inOrder).Order("id").Find(&vehicles).Error; err != nil {
		return err
	}
	if err := tx.Order("name").Find(&settings).Error; err != nil {
		return err
	}
	if err := tx.Order("size_nm").Find(&shims).Error; err != nil {
		return err
	}
	es, gs, vs := []archivedEngine{}, []archivedSet{}, []archivedVehicle{}
	for _, r := range engines {
		if _, err := r.toEngine(); err != nil {
			w.damaged("engine", r.ID, err.Error())
			continue
		}
		es = append(es, archivedEngine{r.ID, r.CreatedAt.UTC(), exact(r.Sheet, sheetText)})
	}
	for _, r := range sets {
		if why := r.toGaugeSet().Damaged; why != "" {
			w.damaged("gauge set", r.ID, why)
			continue
		}
		gs = append(gs, archivedSet{r.ID, r.Name, r.Checked, r.CreatedAt.UTC(), exact(r.Leaves, compact)})
	}
	for _, r := range vehicles {
		v := archivedVehicle{r.ID, r.Name, r.Plate, r.Meter, r.Counter, r.EngineID, r.CreatedAt.UTC(),
			r.OffBoard, nil, exact(r.Cards, compact), exact(r.Outside, compact), r.OdometerWhy}
		if _, err := wire.ReadCards(r.Cards); err != nil {
			w.damaged("cards of vehicle", r.ID, err.Error())
			v.Cards = nil
		}
		if _, err := wire.ReadOutside(r.Outside, measure.Counter(r.Counter)); err != nil {
			w.damaged("visits to other shops of vehicle", r.ID, err.Error())
			v.Outside = nil
		}
		intervals, err := r.intervals()
		if err != nil {
			w.damaged("intervals of vehicle", r.ID, err.Error())
		} else if len(intervals) > 0 {
			v.Intervals = wire.IntervalsOf(intervals, measure.Counter(r.Counter))
		}
		vs = append(vs, v)
	}
	shop := archivedShop{Settings: map[string]string{}, Shims: []archivedShim{}}
	for _, r := range settings {
		if why := r.damaged(); why != "" {
			w.damaged("setting of the workshop", r.Name, why)
			continue
		}
		shop.Settings[r.Name] = r.Value
	}
	for _, r := range shims {
		shop.Shims = append(shop.Shims, archivedShim(r))
	}
	return errors.Join(w.putJSON("engines.json", es), w.putJSON("gauge_sets.json", gs),
		w.putJSON("vehicles.json", vs),
		w.putJSON("workshop.json", shop))
}

// archiveJobs writes job by job, so that memory holds one at a time however many there are. Each is checked
// by its chain before it goes out: an archive that could not be taken in again is worth nothing.
func archiveJobs(tx *gorm.DB, w *archiveWriter) error {
	return eachID(tx, "jobs", "id", func(id string) error {
		var r jobRow
		var rows []happeningRow
		if err := tx.Where("id = ?", id).Take(&r).Error; err != nil {
			return err
		}
		if err := tx.Where("job_id = ?", id).Order("place").Find(&rows).Error; err != nil {
			return err
		}
		last, err := verify(r, rows)
		if err == nil {
			_, err = r.toJob()
		}
		if err != nil {
			w.damaged("job", id, err.Error())
			return nil
		}
		return w.putJSON(jobName(id), archived(r, rows, last))
	})
}

// jobName is what a job's file is called in an archive.
func jobName(id string) string { return "jobs/" + id + ".json" }

// archived is a job as it stands in an archive. Texts that are JSON already go in as they are, exact to the
// byte, because the checksums are of them.
func archived(r jobRow, rows []happeningRow, last string) archivedJob {
	j := archivedJob{ID: r.ID, VehicleID: r.VehicleID, Created: r.CreatedAt.UTC(), OffBoard: r.OffBoard,
		Card:    r.Card,
		HotCard: r.HotPass - 1, CardReason: r.CardReason, Aim: r.Aim, AimReason: r.AimReason, Rule: r.Rule,
		FeelNM: r.FeelNM, GaugeName: r.GaugeName, LeavesAre: r.LeavesAre, Leaves: exact(r.Leaves,
			compact), Mechanic: r.Mechanic, Reason: r.Reason,
		Meter: r.Meter, OdometerWhy: r.OdometerWhy, Sheet: exact(r.Sheet, sheetText),
		Happenings: []archivedEntry{}, Sum: last}
	for _, h := range rows {
		e := archivedEntry{
			ID:     h.ClientID,
			Kind:   h.Kind,
			At:     h.At.UTC(),
			Rules:  h.Rules,
			Author: h.Author,
			Screen: h.Screen,
			SentBy: h.SentBy,
			Body:   exact(h.Body, compact),
		}
		if !h.DoneAt.IsZero() {
			done := h.DoneAt.UTC()
			e.Done = &done
		}
		j.Happenings = append(j.Happenings, e)
	}
	return j
}

// archivePhotos writes every file of a job under its hash, then the list that says whose it is.
func archivePhotos(tx *gorm.DB, w *archiveWriter) error {
	list := []archivedPhoto{}
	if err := eachID(tx, "photos", "hash", func(hash string) error {
		var r photoRow
		if err := tx.Where("hash = ?", hash).Take(&r).Error; err != nil {
			return err
		}
		if err := r.intact(); err != nil {
			w.damaged("file of job "+r.JobID, hash, err.Error())
			return nil
		}
		entry := archivedPhoto{Hash: r.Hash, JobID: r.JobID, Created: r.CreatedAt.UTC()}
		if r.Media != jpegType {
			entry.Media = r.Media
		}
		list = append(list, entry)
		return w.put(entry.name(), r.Data)
	}); err != nil {
		return err
	}
	return w.putJSON("photos.json", list)
}

// archiveVisits writes what finished jobs found and left, a line a valve, for a spreadsheet. What does not
// read is left out of it: it follows from the jobs.
func archiveVisits(tx *gorm.DB, w *archiveWriter) error {
	return w.stream(visitsName, func(to io.Writer) error {
		table := csv.NewWriter(to)
		if err := table.Write([]string{"job", "vehicle", "signed_at", "odometer_km", "state", "valve", "found_mm",
			"left_mm", "lower_mm", "upper_mm", "hours"}); err != nil {
			return err
		}
		rows, err := tx.Raw("SELECT visits.job_id, vehicle_id, at, visits.odometer_km, state, valve, found_nm, " +
			"left_nm, " +
			"lower_nm, upper_nm, counter FROM visits JOIN jobs ON jobs.id = visits.job_id JOIN visit_valves ON " +
			"visit_valves.job_id = visits.job_id JOIN vehicles ON vehicles.id = vehicle_id ORDER BY jobs.created_at, visits.job_id, n").
			Rows()
		if err != nil {
			return err
		}
		defer rows.Close()
		for rows.Next() {
			var x visitedValve
			if err := rows.Scan(&x.job, &x.vehicle, &x.at, &x.meter, &x.state, &x.valve, &x.found, &x.left, &x.lower,
				&x.upper, &x.counter); err != nil {
				return err
			}
			if err := table.Write(x.line()); err != nil {
				return err
			}
		}
		table.Flush()
		return errors.Join(rows.Err(), table.Error())
	})
}

// visitedValve is one valve at one visit, for the table.
type visitedValve struct {
	job, vehicle, state, valve string
	counter                    measure.Counter
	at                         time.Time
	meter                      int
	found, left                *int64
	lower, upper               int64
}

// line is one valve of one finished job for the spreadsheet of all of them; a figure that is not known is an
// empty cell and no nought.
func (x visitedValve) line() []string {
	cell := func(nm *int64) string {
		if nm == nil {
			return ""
		}
		return measure.Length(*nm).Decimal()
	}
	counted := wire.CountedOf(x.counter, x.meter)
	return []string{
		wire.Cell(x.job),
		wire.Cell(x.vehicle),
		x.at.UTC().Format(time.RFC3339),
		wire.Shown(counted.OdometerKM),
		x.state,
		x.valve,
		cell(x.found),
		cell(x.left),
		cell(&x.lower),
		cell(&x.upper),
		wire.Shown(counted.Hours),
	}
}
