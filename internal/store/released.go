package store

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"strconv"
	"time"

	"gorm.io/gorm"
)

// This file keeps tables as an earlier version made them, for its migration step. Nothing here is changed.

// The rows of version 1, as they were released. They stand here so that a first start makes the file of that
// day and walks up to this one, as every file that is out there has done.
type gaugeSetRowOne struct {
	ID        string    `gorm:"primaryKey;size:64"`
	Name      string    `gorm:"not null;size:400"`
	Leaves    string    `gorm:"not null"`
	CreatedAt time.Time `gorm:"not null"`
}

type engineRowOne struct {
	ID        string    `gorm:"primaryKey;size:64"`
	Name      string    `gorm:"not null;size:400"`
	Sheet     string    `gorm:"not null"`
	CreatedAt time.Time `gorm:"not null"`
}

type vehicleRowOne struct {
	ID         string       `gorm:"primaryKey;size:64"`
	Name       string       `gorm:"not null;size:400"`
	Plate      string       `gorm:"not null;size:100"`
	OdometerKM int          `gorm:"not null"`
	EngineID   string       `gorm:"not null;size:64;index"`
	Engine     engineRowOne `gorm:"foreignKey:EngineID;constraint:OnDelete:RESTRICT"`
	CreatedAt  time.Time    `gorm:"not null"`
}

type jobRowOne struct {
	ID         string        `gorm:"primaryKey;size:64"`
	VehicleID  string        `gorm:"not null;size:64;index"`
	Vehicle    vehicleRowOne `gorm:"foreignKey:VehicleID;constraint:OnDelete:RESTRICT"`
	Sheet      string        `gorm:"not null"`
	Card       int           `gorm:"not null"`
	GaugeName  string        `gorm:"not null;size:400"`
	Leaves     string        `gorm:"not null"`
	Mechanic   string        `gorm:"not null;size:400"`
	Reason     string        `gorm:"not null;size:400"`
	OdometerKM int           `gorm:"not null"`
	CreatedAt  time.Time     `gorm:"not null;index"`
}

type happeningRowOne struct {
	JobID    string     `gorm:"primaryKey;size:64;uniqueIndex:happening_client,priority:1"`
	Job      *jobRowOne `gorm:"foreignKey:JobID;constraint:OnDelete:RESTRICT"`
	Place    int        `gorm:"primaryKey;autoIncrement:false"`
	ClientID string     `gorm:"not null;size:64;uniqueIndex:happening_client,priority:2"`
	Kind     string     `gorm:"not null;size:32"`
	Body     string     `gorm:"not null"`
	At       time.Time  `gorm:"not null"`
}

// jobRowTwo and gaugeSetRowTwo are the columns that the second version added.
type jobRowTwo struct {
	HotPass    int    `gorm:"not null;default:0"`
	CardReason string `gorm:"not null;size:1000;default:''"`
	Aim        string `gorm:"not null;size:20;default:''"`
	AimReason  string `gorm:"not null;size:1000;default:''"`
	Rule       string `gorm:"not null;size:20;default:''"`
	FeelNM     int64  `gorm:"not null;default:5000"`
}

type gaugeSetRowTwo struct {
	Checked string `gorm:"not null;size:40;default:''"`
}

type shimRowTwo struct {
	SizeNM int64 `gorm:"primaryKey;autoIncrement:false"`
	N      int   `gorm:"not null"`
}

type settingRowTwo struct {
	Name  string `gorm:"primaryKey;size:64"`
	Value string `gorm:"not null;size:1000"`
}

func (engineRowOne) TableName() string    { return "engines" }
func (vehicleRowOne) TableName() string   { return "vehicles" }
func (happeningRowOne) TableName() string { return "happenings" }
func (jobRowTwo) TableName() string       { return "jobs" }
func (gaugeSetRowTwo) TableName() string  { return "gauge_sets" }
func (shimRowTwo) TableName() string      { return "shims" }
func (settingRowTwo) TableName() string   { return "settings" }
func (gaugeSetRowOne) TableName() string  { return "gauge_sets" }
func (jobRowOne) TableName() string       { return "jobs" }

// third is what the third version adds.
var third = []string{
	"ALTER TABLE happenings ADD COLUMN done_at datetime",
	"ALTER TABLE happenings ADD COLUMN rules integer NOT NULL DEFAULT 1",
	"ALTER TABLE happenings ADD COLUMN sum text NOT NULL DEFAULT ''",
	"ALTER TABLE jobs ADD COLUMN off_board numeric NOT NULL DEFAULT false",
	"ALTER TABLE vehicles ADD COLUMN off_board numeric NOT NULL DEFAULT false",
	"CREATE TABLE job_states (job_id text PRIMARY KEY REFERENCES jobs(id) ON DELETE RESTRICT, touched_at " +
		"datetime NOT NULL, open numeric NOT NULL, off_board numeric NOT NULL DEFAULT false, short text " +
		"NOT NULL, damaged text NOT NULL)",
	"CREATE INDEX job_states_touched ON job_states (off_board, touched_at)",
	"CREATE INDEX job_states_open ON job_states (off_board, open, touched_at)",
	"CREATE TABLE lock_pairs (job_id text REFERENCES jobs(id) ON DELETE RESTRICT, n integer, mechanic text " +
		"NOT NULL, adjuster text NOT NULL, before_nm integer NOT NULL, after_nm integer NOT NULL, PRIMARY " +
		"KEY (job_id, n))",
	"CREATE INDEX lock_pairs_hands ON lock_pairs (mechanic, adjuster)",
	"CREATE TABLE shims_used (job_id text REFERENCES jobs(id) ON DELETE RESTRICT, n integer, size_nm " +
		"integer NOT NULL, at datetime NOT NULL, PRIMARY KEY (job_id, n))",
	"CREATE INDEX shims_used_when ON shims_used (at)",
}

// jobRowThree and happeningRowThree are what the third version summed.
type jobRowThree struct {
	ID, VehicleID, Sheet, Aim, Rule, Leaves, Mechanic string
	Card, HotPass                                     int
	FeelNM                                            int64
}

// happeningRowThree is what the chain of version 3 is summed over.
type happeningRowThree struct {
	JobID, ClientID, Kind, Body string
	Place, Rules                int
	At, DoneAt                  time.Time
}

func (jobRowThree) TableName() string       { return "jobs" }
func (happeningRowThree) TableName() string { return "happenings" }

// sumsThree gives every happening of a file its checksum, over itself and the one before, the first over its
// job's own row.
func sumsThree(tx *gorm.DB) error {
	var jobs []jobRowThree
	if err := tx.Find(&jobs).Error; err != nil {
		return err
	}
	for _, j := range jobs {
		var rows []happeningRowThree
		if err := tx.Where("job_id = ?", j.ID).Order("place").Find(&rows).Error; err != nil {
			return err
		}
		last := sumThree(
			"job",
			j.ID,
			j.VehicleID,
			j.Sheet,
			strconv.Itoa(j.Card),
			strconv.Itoa(j.HotPass),
			j.Aim,
			j.Rule,
			strconv.FormatInt(j.FeelNM, 10),
			j.Leaves,
			j.Mechanic,
		)
		for _, r := range rows {
			done := ""
			if !r.DoneAt.IsZero() {
				done = strconv.FormatInt(r.DoneAt.UnixNano(), 10)
			}
			last = sumThree(last, r.JobID, strconv.Itoa(r.Place), r.ClientID, r.Kind, r.Body,
				strconv.FormatInt(r.At.UnixNano(), 10), done, strconv.Itoa(r.Rules))
			if err := tx.Exec("UPDATE happenings SET sum = ? WHERE job_id = ? AND place = ?", last, r.JobID,
				r.Place).Error; err != nil {
				return err
			}
		}
	}
	return nil
}

// sumThree is the checksum as version 3 reckoned it: each part led by its length, so that no two lists of
// parts run into one another.
func sumThree(parts ...string) string {
	h := sha256.New()
	for _, p := range parts {
		fmt.Fprintf(h, "%d:%s", len(p), p)
	}
	return hex.EncodeToString(h.Sum(nil)[:16])
}

// sixth is what the sixth version adds; what is derived of every job is made anew.
var sixth = []string{
	"ALTER TABLE vehicles ADD COLUMN intervals text NOT NULL DEFAULT ''",
	"ALTER TABLE job_states ADD COLUMN visit text NOT NULL DEFAULT ''",
	"CREATE TABLE dues (vehicle_id text PRIMARY KEY REFERENCES vehicles(id) ON DELETE RESTRICT, " +
		"due_on text NOT NULL, " +
		"due_km integer NOT NULL, because text NOT NULL)",
	"CREATE TABLE photos (hash text PRIMARY KEY, job_id text NOT NULL REFERENCES jobs(id) ON " +
		"DELETE RESTRICT, jpeg blob " +
		"NOT NULL, created_at datetime NOT NULL)",
	"CREATE INDEX photos_of ON photos (job_id)",
	"CREATE INDEX dues_on ON dues (due_on)",
	"UPDATE job_states SET short = '' WHERE damaged = ''",
}

// seventh is what the seventh version adds.
var seventh = []string{
	"ALTER TABLE vehicles ADD COLUMN cards text NOT NULL DEFAULT ''",
	"ALTER TABLE jobs ADD COLUMN odometer_why text NOT NULL DEFAULT ''",
	"ALTER TABLE photos RENAME COLUMN jpeg TO data",
	"ALTER TABLE photos ADD COLUMN media text NOT NULL DEFAULT 'image/jpeg'",
	"UPDATE job_states SET short = '' WHERE damaged = ''",
}

// eighth is what the eighth version adds; what is derived of every job is made anew, because more is learned
// of nuts and a valve that was left out of its limits is told.
var eighth = []string{
	"ALTER TABLE lock_pairs ADD COLUMN low_nm integer",
	"ALTER TABLE lock_pairs ADD COLUMN high_nm integer",
	"UPDATE job_states SET short = '' WHERE damaged = ''",
}

// ninth is what the ninth version adds: where each list ends, why an odometer was put back, and which files
// an entry names. What is derived of every job, and when its vehicle is due, is made anew.
var ninth = []string{
	"ALTER TABLE vehicles ADD COLUMN odometer_why text NOT NULL DEFAULT ''",
	"ALTER TABLE photos ADD COLUMN named numeric NOT NULL DEFAULT true", // those there are stay
	"CREATE INDEX photos_unnamed ON photos (job_id, created_at) WHERE NOT named",
	"ALTER TABLE jobs ADD COLUMN entries integer NOT NULL DEFAULT 0",
	"ALTER TABLE jobs ADD COLUMN last_sum text NOT NULL DEFAULT ''",
	"UPDATE jobs SET entries = (SELECT count(*) FROM happenings WHERE job_id = jobs.id), last_sum = " +
		"coalesce((SELECT sum FROM happenings WHERE job_id = jobs.id ORDER BY place DESC LIMIT 1), '')",
	"DELETE FROM dues WHERE vehicle_id IN (SELECT vehicle_id FROM jobs JOIN job_states ON job_id = jobs.id " +
		"WHERE visit <> '')",
	"UPDATE job_states SET short = '' WHERE damaged = ''",
}

// tenth is what the tenth version adds: what is derived of jobs and vehicles, and intervals, stand in rows
// and columns of their own. What is derived is made anew.
var tenth = []string{
	"ALTER TABLE happenings ADD COLUMN author text NOT NULL DEFAULT ''",
	"ALTER TABLE happenings ADD COLUMN screen text NOT NULL DEFAULT ''",
	"DROP TABLE job_states",
	"CREATE TABLE job_states (job_id text PRIMARY KEY REFERENCES jobs(id) ON DELETE RESTRICT, touched_at " +
		"datetime NOT NULL, " +
		"open numeric NOT NULL, off_board numeric NOT NULL DEFAULT false, damaged text NOT NULL, derived_by " +
		"integer NOT NULL, " +
		"vehicle text NOT NULL, plate text NOT NULL, engine text NOT NULL, phase text NOT NULL, next text NOT " +
		"NULL, " +
		"quiet text NOT NULL, crank_known numeric NOT NULL, done integer NOT NULL, total integer NOT NULL, " +
		"stops integer NOT NULL, school text NOT NULL, direction text NOT NULL, waits_for text NOT NULL, " +
		"waits_until text NOT NULL, hand text NOT NULL, signed_by text NOT NULL, ready_at datetime, cover_by " +
		"datetime, " +
		"start_from datetime, valves text NOT NULL)",
	"CREATE INDEX job_states_touched ON job_states (off_board, touched_at)",
	"CREATE INDEX job_states_open ON job_states (off_board, open, touched_at)",
	"CREATE TABLE visits (job_id text PRIMARY KEY REFERENCES jobs(id) ON DELETE RESTRICT, at datetime NOT " +
		"NULL, " +
		"odometer_km integer NOT NULL, state text NOT NULL, source text NOT NULL, signed_by text NOT NULL, " +
		"outcome text NOT NULL, tight integer NOT NULL, loose integer NOT NULL, put_off text NOT NULL)",
	"CREATE TABLE visit_valves (job_id text REFERENCES visits(job_id) ON DELETE CASCADE, n integer, valve " +
		"text NOT NULL, " +
		"found_nm integer, left_nm integer, found_u_nm integer, left_u_nm integer, lower_nm integer NOT NULL, " +
		"upper_nm integer NOT NULL, left_out text NOT NULL, PRIMARY KEY (job_id, n))",
	"CREATE TABLE visit_remarks (job_id text REFERENCES visits(job_id) ON DELETE CASCADE, n integer, place " +
		"text NOT NULL, " +
		"what text NOT NULL, PRIMARY KEY (job_id, n))",
	"DROP TABLE dues",
	"CREATE TABLE dues (vehicle_id text PRIMARY KEY REFERENCES vehicles(id) ON DELETE RESTRICT, due_on text " +
		"NOT NULL, " +
		"due_km integer NOT NULL, cause text NOT NULL)",
	"CREATE INDEX dues_on ON dues (due_on)",
	"CREATE TABLE intervals (vehicle_id text REFERENCES vehicles(id) ON DELETE RESTRICT, n integer, km " +
		"integer NOT NULL, " +
		"months integer NOT NULL, source text NOT NULL, once_from text NOT NULL, weeks integer NOT NULL, " +
		"from_km integer NOT NULL, PRIMARY KEY (vehicle_id, n))",
}

// intervalTen is an interval as it stood in a vehicle's row.
type intervalTen struct {
	KM       int    `json:"km"`
	Months   int    `json:"months"`
	Source   string `json:"source"`
	OnceFrom string `json:"once_from"`
	Weeks    int    `json:"weeks"`
	FromKM   int    `json:"from_km"`
}

// intervalsToRows gives each interval a row of its own. Those that do not read stay where they are, and are
// told.
func intervalsToRows(tx *gorm.DB) error {
	var vehicles []struct{ ID, Intervals string }
	if err := tx.Raw("SELECT id, intervals FROM vehicles WHERE intervals <> ''").Scan(&vehicles).Error; err != nil {
		return err
	}
	for _, v := range vehicles {
		var list []intervalTen
		if json.Unmarshal([]byte(v.Intervals), &list) != nil {
			continue
		}
		for n, i := range list {
			if err := tx.Exec("INSERT INTO intervals VALUES (?, ?, ?, ?, ?, ?, ?, ?)", v.ID, n, i.KM, i.Months, i.Source,
				i.OnceFrom, i.Weeks, i.FromKM).Error; err != nil {
				return err
			}
		}
		if err := tx.Exec("UPDATE vehicles SET intervals = '' WHERE id = ?", v.ID).Error; err != nil {
			return err
		}
	}
	return nil
}

// seventeenth is what the seventeenth version adds: gauge studies with real leaves.
var seventeenth = []string{
	"CREATE TABLE gauge_studies (id text PRIMARY KEY, made_at datetime NOT NULL, ended_at datetime, body text NOT NULL)",
}

// sixteenth is what the sixteenth version adds: exercises of a tutor's own, what somebody was asked in drills
// and when he is asked again, studies of his feel, and the skills that were signed off.
var sixteenth = []string{
	"CREATE TABLE practice_exercises (id text PRIMARY KEY, body text NOT NULL, added_by text NOT NULL, added_at datetime NOT NULL, " +
		"removed_at datetime)",
	"CREATE TABLE practice_questions (id text PRIMARY KEY, person text NOT NULL, item text NOT NULL, body text NOT NULL, " +
		"asked_at datetime NOT NULL, answered_at datetime, choice integer NOT NULL DEFAULT -1, right_one numeric NOT NULL DEFAULT false)",
	"CREATE INDEX practice_asked ON practice_questions (person, item, asked_at)",
	"CREATE TABLE practice_items (person text NOT NULL, item text NOT NULL, repetition integer NOT NULL, ease real NOT NULL, " +
		"days integer NOT NULL, due_at datetime NOT NULL, asked integer NOT NULL, was_right integer NOT NULL, PRIMARY KEY (person, item))",
	"CREATE TABLE practice_studies (id text PRIMARY KEY, person text NOT NULL, seed text NOT NULL, read_mm text NOT NULL, " +
		"slid integer NOT NULL, began_at datetime NOT NULL, ended_at datetime, bias_nm integer NOT NULL DEFAULT 0, " +
		"repeat_nm real NOT NULL DEFAULT 0)",
	"CREATE TABLE practice_skills (person text NOT NULL, skill text NOT NULL, signed_by text NOT NULL, signed_at datetime NOT NULL, " +
		"PRIMARY KEY (person, skill))",
}

// fifteenth is what the fifteenth version adds: runs on practice engines, and what was done in them.
var fifteenth = []string{
	"CREATE TABLE practice_runs (id text PRIMARY KEY, person text NOT NULL, name text NOT NULL, engine text NOT NULL, " +
		"exercise text NOT NULL, began_at datetime NOT NULL, ended_at datetime, correct integer NOT NULL DEFAULT 0, " +
		"valves integer NOT NULL DEFAULT 0, faults integer NOT NULL DEFAULT 0)",
	"CREATE TABLE practice_acts (run_id text NOT NULL REFERENCES practice_runs (id), n integer NOT NULL, act_id text NOT NULL, " +
		"at datetime NOT NULL, body text NOT NULL, PRIMARY KEY (run_id, n), UNIQUE (run_id, act_id))",
	"CREATE INDEX practice_by ON practice_runs (person, began_at)",
}

// fourteenth is what the fourteenth version adds: people, who is signed in, and what was done besides jobs;
// and of an entry, who sent what somebody else could not.
var fourteenth = []string{
	"CREATE TABLE people (id text PRIMARY KEY, name text NOT NULL COLLATE NOCASE UNIQUE, role text NOT NULL, " +
		"pin text NOT NULL, tag text UNIQUE, created_at datetime NOT NULL, left_at datetime)",
	"CREATE TABLE sessions (kept text PRIMARY KEY, person_id text NOT NULL REFERENCES people (id), " +
		"origin text NOT NULL, made_at datetime NOT NULL, used_at datetime NOT NULL)",
	"CREATE TABLE guesses (who text PRIMARY KEY, wrong integer NOT NULL, shut_until datetime)",
	"CREATE TABLE audit (n integer PRIMARY KEY, at datetime NOT NULL, person text NOT NULL, name text NOT NULL, " +
		"origin text NOT NULL, what text NOT NULL, about text NOT NULL, sum text NOT NULL)",
	"CREATE TABLE own (name text PRIMARY KEY, value text NOT NULL)",
	"ALTER TABLE happenings ADD COLUMN sent_by text NOT NULL DEFAULT ''",
}

// thirteenth is what the thirteenth version adds: a vehicle's visits to other shops.
var thirteenth = []string{"ALTER TABLE vehicles ADD COLUMN outside text NOT NULL DEFAULT ''"}

// twelfth is what the twelfth version adds.
var twelfth = []string{
	"ALTER TABLE vehicles ADD COLUMN counter text NOT NULL DEFAULT ''",
	"ALTER TABLE jobs ADD COLUMN leaves_are text NOT NULL DEFAULT ''",
	"CREATE INDEX jobs_by ON jobs (mechanic COLLATE NOCASE, created_at)",
}
