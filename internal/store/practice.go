package store

import "time"

// PracticeRun is a run on a practice engine: what is hidden follows from its exercise. Nothing of it is a job
// of the workshop, and no figure of it is ever one of a vehicle's.
type PracticeRun struct {
	ID       string
	Person   string // whose it is; empty: nobody is set up
	Name     string // as he was called then
	Engine   string // its name
	Exercise string // JSON, with what is hidden
	Began    time.Time
	Ended    time.Time // zero: it goes on
	Came     PracticeEnd
}

// PracticeEnd is what a run that has ended came to, in short: its score follows from what was done.
type PracticeEnd struct {
	Correct int // valves that ended right
	Valves  int
	Faults  int
}

// PracticeAct is one thing done in a run.
type PracticeAct struct {
	ID   string
	At   time.Time
	Body string // JSON
}

// practiceRunRow is a run.
type practiceRunRow struct {
	ID       string    `gorm:"primaryKey"`
	Person   string    `gorm:"not null"`
	Name     string    `gorm:"not null"`
	Engine   string    `gorm:"not null"`
	Exercise string    `gorm:"not null"`
	BeganAt  time.Time `gorm:"not null"`
	EndedAt  *time.Time
	Correct  int `gorm:"not null"`
	Valves   int `gorm:"not null"`
	Faults   int `gorm:"not null"`
}

// practiceActRow is one thing done; the client's id keeps it from being done twice.
type practiceActRow struct {
	RunID string    `gorm:"primaryKey"`
	N     int       `gorm:"primaryKey;autoIncrement:false"`
	ActID string    `gorm:"not null"`
	At    time.Time `gorm:"not null"`
	Body  string    `gorm:"not null"`
}

func (practiceRunRow) TableName() string { return "practice_runs" }
func (practiceActRow) TableName() string { return "practice_acts" }

func (r practiceRunRow) run() PracticeRun {
	p := PracticeRun{
		ID:       r.ID,
		Person:   r.Person,
		Name:     r.Name,
		Engine:   r.Engine,
		Exercise: r.Exercise,
		Began:    r.BeganAt,
	}
	if r.EndedAt != nil {
		p.Ended, p.Came = *r.EndedAt, PracticeEnd{r.Correct, r.Valves, r.Faults}
	}
	return p
}

// AddPractice stores a run that begins. It errs with ErrExists where there is one of that id.
func (s *Store) AddPractice(p PracticeRun) error {
	return s.acknowledge(
		translate(s.write.Create(&practiceRunRow{ID: p.ID, Person: p.Person, Name: p.Name, Engine: p.Engine,
			Exercise: p.Exercise, BeganAt: p.Began.UTC()}).Error),
	)
}

// Practice is a run with all that was done in it.
func (s *Store) Practice(id string) (PracticeRun, []PracticeAct, error) {
	var row practiceRunRow
	if err := s.read.Where("id = ?", id).Take(&row).Error; err != nil {
		return PracticeRun{}, nil, translate(err)
	}
	var acts []practiceActRow
	if err := s.read.Where("run_id = ?", id).Order("n").Find(&acts).Error; err != nil {
		return PracticeRun{}, nil, translate(err)
	}
	list := make([]PracticeAct, len(acts))
	for i, a := range acts {
		list[i] = PracticeAct{a.ActID, a.At, a.Body}
	}
	return row.run(), list, nil
}

// Practices are the runs of a person, or of everybody, the newest first.
func (s *Store) Practices(person string, everybody bool, most int) ([]PracticeRun, error) {
	q := s.read.Order("began_at DESC, id").Limit(most)
	if !everybody {
		q = q.Where("person = ?", person)
	}
	var rows []practiceRunRow
	if err := q.Find(&rows).Error; err != nil {
		return nil, translate(err)
	}
	list := make([]PracticeRun, len(rows))
	for i, r := range rows {
		list[i] = r.run()
	}
	return list, nil
}

// AddPracticeAct stores the next thing done in a run, as its n-th from 0. It errs with ErrExists where
// something else was stored at that place, or under that id, meanwhile.
func (s *Store) AddPracticeAct(run string, n int, a PracticeAct) error {
	return s.acknowledge(translate(s.write.Create(&practiceActRow{run, n, a.ID, a.At.UTC(), a.Body}).Error))
}

// EndPractice ends a run with what it came to; one that has ended stays as it was.
func (s *Store) EndPractice(id string, at time.Time, came PracticeEnd) error {
	return s.acknowledge(translate(s.write.Model(&practiceRunRow{}).Where("id = ? AND ended_at IS NULL", id).
		Updates(map[string]any{"ended_at": at.UTC(), "correct": came.Correct, "valves": came.Valves,
			"faults": came.Faults}).Error))
}
