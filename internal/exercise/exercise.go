// Package exercise is the file of an exercise on the practice engine, metronix.exercise/1: an engine sheet,
// what is given of its gaps and wear or a seed from which they follow, how much is told, how long it may take
// and what counts. Everybody may write one (docs/practice.md); what is hidden by it is in it, so that it is a
// tutor's to hand out.
package exercise

import (
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"math/rand/v2"
	"path"
	"strings"
	"time"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/practice"
	"metronix/internal/wire"
)

// Format names the format of the file.
const Format = "metronix.exercise/1"

// File is an exercise as it is read.
type File struct {
	Sheet wire.UnreadSheet `json:"sheet" doc:"metronix.engine/1"`
	Told
}

// Told is all of an exercise but its engine.
type Told struct {
	Format   string    `json:"format"              enum:"metronix.exercise/1"`
	Name     string    `json:"name"                minLength:"1" maxLength:"80"`
	Says     string    `json:"says,omitempty"      maxLength:"400" doc:"what is learned by it"`
	Card     int       `json:"card,omitempty"      minimum:"0" maximum:"20" doc:"index of the clearance card"`
	LeavesMM []wire.MM `json:"leaves_mm,omitempty" minItems:"1" maxItems:"100" nullable:"false" doc:"absent: by hundredths from 0.05 to 0.60"`
	Seed     *int      `json:"seed,omitempty"      minimum:"0" maximum:"999999999" doc:"from which all follows that is not given; absent: each run has its own"`
	Gaps     []Gap     `json:"gaps,omitempty"      maxItems:"64" nullable:"false" doc:"those that are given"`
	Wear     []Wear    `json:"wear,omitempty"      maxItems:"64" nullable:"false"`
	Nuts     []Nut     `json:"nuts,omitempty"      maxItems:"64" nullable:"false"`
	CrankDeg *wire.Deg `json:"crank_deg,omitempty" minimum:"0" exclusiveMaximum:"720" doc:"where the crank stands in the beginning; absent: anywhere"`
	Left     *Left     `json:"left,omitempty"      doc:"what whoever was there last has left written"`
	PlugsIn  bool      `json:"plugs_in,omitempty"  doc:"compression kicks the crank back"`
	Aid      string    `json:"aid"                 enum:"guided,watched,examination"`
	Minutes  int       `json:"minutes,omitempty"   minimum:"1" maximum:"480" doc:"that it may take; absent: as long as it takes"`
	Counts   []string  `json:"counts,omitempty"    maxItems:"40" nullable:"false" doc:"the slips that count; absent: all"`
}

// Gap is what a leaf finds at a valve in the beginning.
type Gap struct {
	Valve string  `json:"valve" maxLength:"20"`
	GapMM wire.MM `json:"gap_mm"`
}

// Wear is what is worn.
type Wear struct {
	Kind  string `json:"kind"            enum:"even,sunken_seat,worn_tip,flat_lobe"`
	Valve string `json:"valve,omitempty" maxLength:"20" doc:"absent: even wear, of all"`
}

// Nut is what is the matter with a nut or screw.
type Nut struct {
	Valve string `json:"valve" maxLength:"20"`
	How   string `json:"how"   enum:"stiff,seized"`
}

// Left is a note on the engine.
type Left struct {
	Says  string `json:"says"            minLength:"1" maxLength:"200"`
	Wrong bool   `json:"wrong,omitempty" doc:"it is not so"`
}

// Read reads an exercise and everything wrong with it; one of a newer format is told apart from one that is
// none.
func Read(data []byte) (Exercise, wire.Faults) {
	var head struct{ Format string }
	if err := json.Unmarshal(data, &head); err == nil && head.Format != Format &&
		strings.HasPrefix(head.Format, "metronix.exercise/") {
		return Exercise{}, wire.Faults{{Location: "format", Value: head.Format, Message: fmt.Sprintf(
			"This exercise is of another format, %s; this program reads %s. Take the program that wrote it, or a newer one.",
			head.Format,
			Format,
		)}}
	}
	file, faults := wire.Read[File](data)
	if len(faults) > 0 {
		return Exercise{}, faults
	}
	sheet, report := file.Sheet.Load()
	if len(report.Problems) > 0 {
		return Exercise{}, report.Problems.In("sheet")
	}
	text, err := wire.WriteSheet(sheet)
	if err != nil {
		return Exercise{}, wire.Faults{{Location: "sheet", Message: wire.Sentence(err)}}
	}
	x := Exercise{Sheet: text, Told: file.Told}
	if file.Card >= len(sheet.Clearances) {
		return x, wire.Faults{
			{Location: "card", Value: file.Card, Message: "This engine has no such clearance card."},
		}
	}
	seed := uint64(0)
	if file.Seed != nil {
		seed = uint64(*file.Seed)
	}
	set, err := x.Practised(seed, time.Time{})
	if err == nil {
		_, err = practice.Begin(set)
	}
	var c practice.Contradiction
	switch {
	case errors.As(err, &c):
		return x, wire.Faults{{Location: file.place(c.Field), Message: c.Message}}
	case err != nil:
		return x, wire.Faults{{Location: "sheet", Message: wire.Sentence(err)}}
	}
	return x, nil
}

// place is where in the file a field of the core's stands.
func (f File) place(field string) string {
	valve, is := strings.CutPrefix(field, "gaps.")
	if !is {
		return field
	}
	for i, g := range f.Gaps {
		if g.Valve == valve {
			return fmt.Sprintf("gaps[%d]", i)
		}
	}
	return "seed"
}

// Exercise is one that was read and found sound, as it is kept.
type Exercise struct {
	Sheet json.RawMessage `json:"sheet"`
	Told
}

// Leaves is the set that lies beside it.
func (x Exercise) Leaves() (set gauge.Set) {
	if len(x.LeavesMM) == 0 {
		return UsualLeaves()
	}
	for _, l := range x.LeavesMM {
		set = append(set, gauge.Plain(measure.Length(l)))
	}
	return set
}

// UsualLeaves lie beside a practice engine where nothing else is said: by hundredths of a millimetre (our
// own).
func UsualLeaves() (set gauge.Set) {
	for hundredths := measure.Length(5); hundredths <= 60; hundredths++ {
		set = append(set, gauge.Plain(hundredths*10*measure.Micrometre))
	}
	return set
}

// Practised is the exercise as the core plays it, from a seed and a beginning.
func (x Exercise) Practised(seed uint64, began time.Time) (practice.Exercise, error) {
	sheet, faults := wire.ReadStoredSheet(x.Sheet)
	if len(faults) > 0 {
		return practice.Exercise{}, errors.New("the exercise's sheet does not read: " + faults[0].Message)
	}
	setup, err := job.Start{
		Sheet:   sheet,
		Card:    x.Card,
		HotCard: -1,
		Aim:     clearance.AimNominal,
		Rule:    clearance.Workshop,
		Owned:   x.Leaves(),
		Feel:    clearance.DefaultFeel,
	}.Setup()
	if err != nil {
		return practice.Exercise{}, err
	}
	p := practice.Exercise{
		Setup: setup,
		Seed:  seed,
		Aid:   practice.Aid(x.Aid),
		Gaps:  map[string]measure.Length{},
		Plugs: x.PlugsIn,
		Hot:   setup.Card.State == clearance.Hot,
		Began: began,
		Limit: time.Duration(x.Minutes) * time.Minute,
	}
	for _, g := range x.Gaps {
		p.Gaps[g.Valve] = measure.Length(g.GapMM)
	}
	for _, w := range x.Wear {
		p.Wear = append(p.Wear, practice.Worn{Kind: practice.Wear(w.Kind), Valve: w.Valve})
	}
	for _, n := range x.Nuts {
		p.Nuts = append(p.Nuts, practice.BadNut{Valve: n.Valve, How: practice.NutTrouble(n.How)})
	}
	for _, s := range x.Counts {
		p.Counts = append(p.Counts, practice.Slip(s))
	}
	if x.CrankDeg != nil {
		at := measure.Angle(*x.CrankDeg)
		p.Crank = &at
	}
	return p, nil
}

// SeedOf is the seed of a run: the exercise's own, else a new one.
func (x Exercise) SeedOf() uint64 {
	if x.Seed != nil {
		return uint64(*x.Seed)
	}
	return rand.Uint64()
}

// ours are the exercises that come with the program: made up, on engines of ours.
//
//go:embed ours/*.exercise.json
var ours embed.FS

// Ours are they by their ids, in the order in which they are learned by.
func Ours() (ids []string, by map[string]Exercise, err error) {
	by = map[string]Exercise{}
	names, err := fs.Glob(ours, "ours/*.exercise.json")
	if err != nil {
		return nil, nil, err
	}
	for _, name := range names {
		data, err := ours.ReadFile(name)
		if err != nil {
			return nil, nil, err
		}
		x, faults := Read(data)
		if len(faults) > 0 {
			return nil, nil, fmt.Errorf("%s: %s: %s", name, faults[0].Location, faults[0].Message)
		}
		id := "ours-" + strings.TrimSuffix(path.Base(name), ".exercise.json")
		ids = append(ids, id)
		by[id] = x
	}
	return ids, by, nil
}
