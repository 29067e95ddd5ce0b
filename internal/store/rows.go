package store

import (
	"time"

	"metronix/core/adjust"
	"metronix/core/measure"
)

// engineRow is a sheet of the library, whole, as text in its own format.
type engineRow struct {
	ID        string    `gorm:"primaryKey;size:64"`
	Name      string    `gorm:"not null;size:400"`
	Sheet     string    `gorm:"not null"` // metronix.engine/1
	CreatedAt time.Time `gorm:"not null"`
}

// gaugeSetRow is a set of feeler leaves.
type gaugeSetRow struct {
	ID        string    `gorm:"primaryKey;size:64"`
	Name      string    `gorm:"not null;size:400"`
	Leaves    string    `gorm:"not null"` // JSON list of leafBody
	Checked   string    `gorm:"not null;size:40;default:''"`
	CreatedAt time.Time `gorm:"not null"`
}

// vehicleRow is a vehicle. It points to an engine of the library, which cannot be taken out from under it.
type vehicleRow struct {
	ID        string    `gorm:"primaryKey;size:64"`
	Name      string    `gorm:"not null;size:400"`
	Plate     string    `gorm:"not null;size:100"`
	Meter     int       `gorm:"column:odometer_km;not null"` // what the counter shows, km or hours
	EngineID  string    `gorm:"not null;size:64;index"`
	Engine    engineRow `gorm:"foreignKey:EngineID;constraint:OnDelete:RESTRICT"`
	CreatedAt time.Time `gorm:"not null"`
	OffBoard  bool      `gorm:"not null;default:false"`
	// intervals of an earlier version that do not read; empty: there are none
	Unread    string        `gorm:"column:intervals;not null;default:''"`
	Intervals []intervalRow `gorm:"foreignKey:VehicleID"`
	Cards     string        `gorm:"not null;default:''"` // JSON; empty: none
	Outside   string        `gorm:"not null;default:''"` // visits to other shops, JSON; empty: none
	// why the odometer was put back last; empty: it never was
	OdometerWhy string `gorm:"not null;default:''"`
	Counter     string `gorm:"not null;default:''"` // h: it counts running hours
}

// intervalRow is after how far or how long a vehicle is due.
type intervalRow struct {
	VehicleID string `gorm:"primaryKey;size:64"`
	N         int    `gorm:"primaryKey;autoIncrement:false"`
	Run       int    `gorm:"column:km;not null"` // km or hours; 0: none
	Months    int    `gorm:"not null"`
	Source    string `gorm:"not null;size:400"`
	OnceFrom  string `gorm:"not null"` // 2006-01-02; empty: it comes again and again
	Weeks     int    `gorm:"not null"`
	FromMeter int    `gorm:"column:from_km;not null"`
}

// dueRow is when a vehicle is due next: derived of its finished jobs and its intervals.
type dueRow struct {
	VehicleID string `gorm:"primaryKey;size:64"`
	DueOn     string `gorm:"not null"` // 2006-01-02; empty: not known
	DueKM     int    `gorm:"not null"` // 0: not known
	Cause     string `gorm:"not null"` // codes
}

// photoRow is a photograph, made smaller and without metadata, by the hash of what is kept.
type photoRow struct {
	Hash      string    `gorm:"primaryKey;size:64"`
	JobID     string    `gorm:"not null;size:64"`
	Data      []byte    `gorm:"not null"`
	CreatedAt time.Time `gorm:"not null"`
	Media     string    `gorm:"not null;default:'image/jpeg'"` // its type: a picture, or a sound
	Named     bool      `gorm:"not null"`                      // an entry of its job names it
}

// jobRow carries its own copy of sheet and leaves: what a job was done by does not change afterwards.
type jobRow struct {
	ID        string     `gorm:"primaryKey;size:64"`
	VehicleID string     `gorm:"not null;size:64;index"`
	Vehicle   vehicleRow `gorm:"foreignKey:VehicleID;constraint:OnDelete:RESTRICT"`
	Sheet     string     `gorm:"not null"`
	Card      int        `gorm:"not null"` // index of the clearance card on the sheet
	// number of the card of the hot pass after a provisional cold start, from 1; 0: none
	HotPass    int    `gorm:"not null;default:0"`
	CardReason string `gorm:"not null;size:1000;default:''"`
	Aim        string `gorm:"not null;size:20;default:''"`
	AimReason  string `gorm:"not null;size:1000;default:''"`
	Rule       string `gorm:"not null;size:20;default:''"`
	FeelNM     int64  `gorm:"not null;default:5000"`
	GaugeName  string `gorm:"not null;size:400"`
	LeavesAre  string `gorm:"not null;default:''"` // dry or oiled; empty: not said
	Leaves     string `gorm:"not null"`
	Mechanic   string `gorm:"not null;size:400"`
	Reason     string `gorm:"not null;size:400"`
	Meter      int    `gorm:"column:odometer_km;not null"` // what the counter shows, km or hours
	// why it shows less than it did before; empty: it does not
	OdometerWhy string    `gorm:"not null;default:''"`
	CreatedAt   time.Time `gorm:"not null;index"`
	OffBoard    bool      `gorm:"not null;default:false"` // started by mistake, taken off the board
	// where its list ends: how many entries it has, and the checksum of the last; written with each entry
	Entries int    `gorm:"not null;default:0"`
	LastSum string `gorm:"not null;size:64;default:''"`
}

// happeningRow is one entry of a job's append-only list. Place counts from 0 within the job; both it and the
// client's id are unique there, so nothing is stored twice and nothing is written past another writer. The
// key is made by the program, so that an insert reads nothing back.
type happeningRow struct {
	JobID    string    `gorm:"primaryKey;size:64;uniqueIndex:happening_client,priority:1"`
	Job      *jobRow   `gorm:"foreignKey:JobID;constraint:OnDelete:RESTRICT"`
	Place    int       `gorm:"primaryKey;autoIncrement:false"`
	ClientID string    `gorm:"not null;size:64;uniqueIndex:happening_client,priority:2"`
	Kind     string    `gorm:"not null;size:32"`
	Body     string    `gorm:"not null"` // JSON of happeningBody
	At       time.Time `gorm:"not null"`
	DoneAt   time.Time // zero: as it arrived
	Rules    int       `gorm:"not null;default:1"`  // the version of the rules it was taken by
	Sum      string    `gorm:"not null;default:''"` // of this row and the one before, see chain
	Author   string    `gorm:"not null;default:''"` // who entered it; empty: nobody said
	Screen   string    `gorm:"not null;default:''"` // on which screen; empty: it did not say
	SentBy   string    `gorm:"not null;default:''"` // who sent it in the author's place; empty: the author
}

// stateRow is what the board shows of a job, as of its last happening: derived from the list, written with
// it, and made anew where it is not there.
type stateRow struct {
	JobID      string    `gorm:"primaryKey;size:64"`
	TouchedAt  time.Time `gorm:"not null"`
	Open       bool      `gorm:"not null"`
	OffBoard   bool      `gorm:"not null;default:false"` // as the job's own row says
	Damaged    string    `gorm:"not null"`               // why the job cannot be opened; empty: it can
	DerivedBy  int       `gorm:"not null"`               // the version of what is derived; 0: nothing was
	Vehicle    string    `gorm:"not null"`               // as it is called, or was when the job was signed
	Plate      string    `gorm:"not null"`
	Engine     string    `gorm:"not null"`
	Phase      string    `gorm:"not null"`
	Next       string    `gorm:"not null"` // codes
	Quiet      string    `gorm:"not null"` // codes
	CrankKnown bool      `gorm:"not null"`
	Done       int       `gorm:"not null"`
	Total      int       `gorm:"not null"`
	Stops      int       `gorm:"not null"`
	School     string    `gorm:"not null"`
	Direction  string    `gorm:"not null"`
	WaitsFor   string    `gorm:"not null"`
	WaitsUntil string    `gorm:"not null"`
	Hand       string    `gorm:"not null"`
	SignedBy   string    `gorm:"not null"`
	ReadyAt    *time.Time
	CoverBy    *time.Time
	StartFrom  *time.Time
	Valves     string `gorm:"not null"` // codes
}

// visitRow is what a finished job tells of its vehicle: derived like stateRow.
type visitRow struct {
	JobID    string    `gorm:"primaryKey;size:64"`
	At       time.Time `gorm:"not null"`
	Meter    int       `gorm:"column:odometer_km;not null"` // what the counter shows, km or hours
	State    string    `gorm:"not null"`
	Source   string    `gorm:"not null"`
	SignedBy string    `gorm:"not null"`
	Outcome  string    `gorm:"not null"` // codes
	Tight    int       `gorm:"not null"`
	Loose    int       `gorm:"not null"`
	PutOff   string    `gorm:"not null"` // 2006-01-02; empty: it was not

	Valves  []visitValveRow  `gorm:"foreignKey:JobID"`
	Remarks []visitRemarkRow `gorm:"foreignKey:JobID"`
}

// visitValveRow is one valve at a visit.
type visitValveRow struct {
	JobID    string `gorm:"primaryKey;size:64"`
	N        int    `gorm:"primaryKey;autoIncrement:false"`
	Valve    string `gorm:"not null"`
	FoundNM  *int64 // nil: a side only, or not found
	LeftNM   *int64
	FoundUNM *int64 `gorm:"column:found_u_nm"`
	LeftUNM  *int64 `gorm:"column:left_u_nm"`
	LowerNM  int64  `gorm:"not null"`
	UpperNM  int64  `gorm:"not null"`
	LeftOut  string `gorm:"not null"`
}

// visitRemarkRow is a finding that a visit left for later.
type visitRemarkRow struct {
	JobID string `gorm:"primaryKey;size:64"`
	N     int    `gorm:"primaryKey;autoIncrement:false"`
	Place string `gorm:"not null"`
	What  string `gorm:"not null"`
}

// pairRow is what locking did to a gap, for what is learned of a mechanic's hands: derived like stateRow.
type pairRow struct {
	JobID    string `gorm:"primaryKey;size:64"`
	N        int    `gorm:"primaryKey;autoIncrement:false"`
	Mechanic string `gorm:"not null;size:400"` // lower case
	Adjuster string `gorm:"not null;size:40"`
	BeforeNM int64  `gorm:"not null"`
	AfterNM  int64  `gorm:"not null"` // 0 where only a side is known
	LowNM    *int64 // the gap after is wider than this; nil: not known
	HighNM   *int64
}

// pair reads what locking did.
func (r pairRow) pair() adjust.Pair {
	return adjust.Pair{Before: measure.Length(r.BeforeNM), After: measure.Length(r.AfterNM),
		AfterLow: (*measure.Length)(r.LowNM), AfterHigh: (*measure.Length)(r.HighNM)}
}

// usedRow is a shim that went from the shop into an engine: derived like stateRow.
type usedRow struct {
	JobID  string    `gorm:"primaryKey;size:64"`
	N      int       `gorm:"primaryKey;autoIncrement:false"`
	SizeNM int64     `gorm:"not null"`
	At     time.Time `gorm:"not null"`
}

// shimRow is how many shims of a size lie in the shop.
type shimRow struct {
	SizeNM int64 `gorm:"primaryKey;autoIncrement:false"`
	N      int   `gorm:"not null"`
}

// settingRow is one setting of the workshop.
type settingRow struct {
	Name  string `gorm:"primaryKey;size:64"`
	Value string `gorm:"not null;size:1000"`
}

// personRow is somebody of the workshop.
type personRow struct {
	ID        string    `gorm:"primaryKey;size:64"`
	Name      string    `gorm:"not null"` // unique, in whatever capitals
	Role      string    `gorm:"not null"`
	PIN       string    `gorm:"column:pin;not null"` // its hash; empty: none
	Tag       *string   // its number under the workshop's key; unique; nil: none
	CreatedAt time.Time `gorm:"not null"`
	LeftAt    *time.Time
}

// sessionRow is somebody who is signed in, by what is kept of the token.
type sessionRow struct {
	Kept     string    `gorm:"primaryKey"`
	PersonID string    `gorm:"not null"`
	Origin   string    `gorm:"not null"` // the address it was begun from
	MadeAt   time.Time `gorm:"not null"`
	UsedAt   time.Time `gorm:"not null"`
}

// guessRow is how often in a row it was guessed wrongly who somebody is.
type guessRow struct {
	Who       string `gorm:"primaryKey"` // a person, or all tags
	Wrong     int    `gorm:"not null"`
	ShutUntil time.Time
}

// auditRow is a line of the audit list.
type auditRow struct {
	N      int       `gorm:"primaryKey;autoIncrement:false"`
	At     time.Time `gorm:"not null"`
	Person string    `gorm:"not null"`
	Name   string    `gorm:"not null"`
	Origin string    `gorm:"not null"`
	What   string    `gorm:"not null"`
	About  string    `gorm:"not null"`
	Sum    string    `gorm:"not null"`
}

// ownRow is what a workshop is told apart by and run with: no archive holds it, for it is of this file alone.
type ownRow struct {
	Name  string `gorm:"primaryKey"`
	Value string `gorm:"not null"`
}

// schemaRow is one step of the migrations that was done, and when.
type schemaRow struct {
	Version   int       `gorm:"primaryKey;autoIncrement:false"`
	AppliedAt time.Time `gorm:"not null"`
}

func (engineRow) TableName() string      { return "engines" }
func (gaugeSetRow) TableName() string    { return "gauge_sets" }
func (vehicleRow) TableName() string     { return "vehicles" }
func (jobRow) TableName() string         { return "jobs" }
func (happeningRow) TableName() string   { return "happenings" }
func (shimRow) TableName() string        { return "shims" }
func (settingRow) TableName() string     { return "settings" }
func (stateRow) TableName() string       { return "job_states" }
func (pairRow) TableName() string        { return "lock_pairs" }
func (usedRow) TableName() string        { return "shims_used" }
func (photoRow) TableName() string       { return "photos" }
func (dueRow) TableName() string         { return "dues" }
func (schemaRow) TableName() string      { return "schema_versions" }
func (ownRow) TableName() string         { return "own" }
func (personRow) TableName() string      { return "people" }
func (sessionRow) TableName() string     { return "sessions" }
func (guessRow) TableName() string       { return "guesses" }
func (auditRow) TableName() string       { return "audit" }
func (intervalRow) TableName() string    { return "intervals" }
func (visitRow) TableName() string       { return "visits" }
func (visitValveRow) TableName() string  { return "visit_valves" }
func (visitRemarkRow) TableName() string { return "visit_remarks" }
