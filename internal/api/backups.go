package api

import (
	"context"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/internal/keeping"
)

// Backups is how backups stand.
type Backups struct {
	On      bool       `json:"on"             doc:"they are made by themselves"`
	Folder  string     `json:"folder"         doc:"on the program's machine"`
	EveryS  int        `json:"every_s"        doc:"the time between two, s"`
	Last    *time.Time `json:"last,omitempty" doc:"the newest in which nothing was found holds all that was acknowledged by then"`
	Old     bool       `json:"old"            doc:"the newest is older than it should be by now"`
	Trouble string     `json:"trouble"        doc:"what went wrong at the last try, a sentence; empty: nothing"`
	Making  bool       `json:"making"         doc:"one is being made"`
	Copies  int        `json:"copies"         doc:"how many are kept"`
	Bytes   int64      `json:"bytes"          doc:"what they take"`
}

// backupRoutes are what is seen and asked of backups.
func (s *server) backupRoutes(a huma.API) {
	huma.Get(a, "/api/v1/backups",
		func(context.Context, *struct{}) (*bodyOf[Backups], error) {
			return &bodyOf[Backups]{s.backupsNow()}, nil
		},
		summary("get-backups", "How backups stand"))
	huma.Post(a, "/api/v1/backups", s.makeBackup, summary("make-backup", "Have a backup made now"))
}

func (s *server) backupsNow() Backups {
	if s.backups == nil {
		return Backups{}
	}
	now := s.backups.State()
	b := Backups{On: true, Folder: now.Folder, EveryS: int(now.Every.Seconds()), Old: now.Old, Trouble: now.Trouble,
		Making: now.Making, Copies: now.Copies, Bytes: now.Bytes}
	if !now.Last.IsZero() {
		b.Last = &now.Last
	}
	return b
}

// makeBackup asks for one and does not wait for it: of a large workshop it takes minutes.
func (s *server) makeBackup(context.Context, *struct{}) (*bodyOf[Backups], error) {
	if s.backups == nil {
		return nil, huma.Error409Conflict("No folder for backups was named when the program was started. Start it with " +
			"metronix serve --backups FOLDER.")
	}
	s.backups.Ask()
	b := s.backupsNow()
	b.Making = true
	return &bodyOf[Backups]{b}, nil
}

// Keeper makes backups by itself, and says how they stand.
type Keeper interface {
	Ask()
	State() keeping.State
}
