package api

import (
	"time"

	"metronix/internal/seen"
	"metronix/internal/wire"
)

// JobView is a job as its screens need it.
type JobView struct {
	Before  *JobBefore `json:"before,omitempty" doc:"the last job of this vehicle before; absent: there is none"`
	Vehicle Vehicle    `json:"vehicle"`
	wire.Counted
	OdometerWhy string         `json:"odometer_why" doc:"why it shows less than before; empty: it does not"`
	Mechanic    string         `json:"mechanic"`
	Reason      string         `json:"reason"`
	GaugeName   string         `json:"gauge_name"`
	LeavesAre   string         `json:"leaves_are" enum:",dry,oiled"`
	Variant     string         `json:"variant" doc:"of the engine; empty: as its sheet says"`
	Card        seen.Card      `json:"card"`
	CardReason  string         `json:"card_reason"`
	Aim         string         `json:"aim" enum:"nominal,loose,upper"`
	AimReason   string         `json:"aim_reason"`
	Rule        string         `json:"rule" enum:"workshop,guarded,one_leaf"`
	FeelMM      wire.MM        `json:"feel_mm"`
	LockShift   seen.LockShift `json:"lock_shift"`
	CreatedAt   time.Time      `json:"created_at"`
	CardIndex   int            `json:"card_index"`
	HotCard     int            `json:"hot_card" doc:"index of the hot pass's card; -1: none"`
	OnBoard     bool           `json:"on_board"`
	Correctable bool           `json:"correctable" doc:"nothing was read yet: what it started from may be corrected"`
	Clear       *Clear         `json:"clear,omitempty" doc:"hands are clear for a helper to turn the crank; absent: they are not"`
	Screens     []Presence     `json:"screens" doc:"on which others are at it now"`
	Engine      EngineView     `json:"engine"`
	State       seen.JobState  `json:"state"`
}
