package seen

import (
	"encoding/json"
	"fmt"
	"slices"
	"time"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/internal/wire"
)

// Opening is all that a job's state follows from but the time, as one text: what opening a job brings to
// where it is judged without the program.
type Opening struct {
	ID    string          `json:"id"`
	Sheet json.RawMessage `json:"sheet,omitempty" doc:"the engine sheet"`
	From  json.RawMessage `json:"from,omitempty" doc:"a From"`
	List  []Entry         `json:"happenings"`
	After string          `json:"after,omitempty" doc:"the happening that the list goes on from, where only the rest was asked for: sheet and start are left out then"`
}

// From is what a job starts from besides its sheet, and what it is worked with.
type From struct {
	Card    int         `json:"card" doc:"index of the clearance card"`
	HotCard int         `json:"hot_card" doc:"index of the hot pass's card; -1: none"`
	Aim     string      `json:"aim"`
	Rule    string      `json:"rule"`
	FeelMM  wire.MM     `json:"feel_mm"`
	NewCam  bool        `json:"new_cam,omitempty"`
	Leaves  wire.Leaves `json:"leaves"`
	Shift   LockShift   `json:"lock_shift"`
	SizesMM []wire.MM   `json:"shim_sizes_mm" doc:"that can be bought"`
	Stock   []ShimCount `json:"shim_stock"`
	Units   string      `json:"units" doc:"as a browser keeps them"`
}

// ShimCount is how many shims of one size there are.
type ShimCount struct {
	ShimMM wire.MM `json:"shim_mm"`
	Count  int     `json:"count" minimum:"0" maximum:"10000"`
}

// Entry is one entry of a job's list as it is stored.
type Entry struct {
	At        time.Time       `json:"at"`
	Rules     int             `json:"rules"`
	Happening json.RawMessage `json:"happening"`
}

func init() { wire.Readable[From]() }

// OpeningOf writes what a job is looked at with. Cards and units stand as they were given.
func OpeningOf(at At, start job.Start, shop job.Shop, units string) (o Opening, err error) {
	o = Opening{ID: at.ID, List: []Entry{}}
	if o.Sheet, err = wire.WriteSheet(start.Sheet); err != nil {
		return o, err
	}
	leaves := make([]gauge.Item, len(start.Owned))
	for i, l := range start.Owned {
		leaves[i] = gauge.Item{Leaf: l}
	}
	from := From{Card: start.Card, HotCard: start.HotCard, Aim: string(start.Aim), Rule: string(start.Rule),
		FeelMM: wire.MM(start.Feel), NewCam: start.NewCam, Leaves: wire.LeavesOf(leaves), Shift: LockShiftOf(at.Shift),
		SizesMM: wire.Millimetres(shop.Sizes), Stock: []ShimCount{}, Units: units}
	for _, c := range shop.Stock {
		from.Stock = append(from.Stock, ShimCount{wire.MM(c.Shim), c.N})
	}
	if o.From, err = json.Marshal(from); err != nil {
		return o, err
	}
	for _, h := range at.List {
		text, err := json.Marshal(wire.Happening{Happening: h})
		if err != nil {
			return o, err
		}
		o.List = append(o.List, Entry{h.At, h.Rules, text})
	}
	return o, nil
}

// Rest is what came after a happening, for who has all up to it; the whole where there is no such happening.
func (o Opening) Rest(list []job.Happening, after string) Opening {
	i := slices.IndexFunc(list, func(h job.Happening) bool { return h.ID == after })
	if after == "" || i < 0 {
		return o
	}
	return Opening{ID: o.ID, List: o.List[i+1:], After: after}
}

// Open reads an Opening's text. It errs where the sheet, what it starts from or an entry does not read, and
// where the list does not fit together; the error says which.
func Open(text []byte) (at At, err error) {
	var o Opening
	if err := json.Unmarshal(text, &o); err != nil {
		return at, err
	}
	sheet, faults := wire.ReadStoredSheet(o.Sheet)
	if len(faults) > 0 {
		return at, fmt.Errorf("the sheet, %s: %s", faults[0].Location, faults[0].Message)
	}
	from, faults := wire.Read[From](o.From)
	if len(faults) > 0 {
		return at, fmt.Errorf("%s: %s", faults[0].Location, faults[0].Message)
	}
	at.ID, at.Shift = o.ID, from.Shift.core()
	for i, e := range o.List {
		h, faults := wire.ReadHappening(e.Happening, e.At)
		if len(faults) > 0 {
			return at, fmt.Errorf("entry %d, %s: %s", i+1, faults[0].Location, faults[0].Message)
		}
		h.Rules = e.Rules
		at.List = append(at.List, h)
	}
	start := job.Start{Sheet: sheet, Card: from.Card, HotCard: from.HotCard, Aim: clearance.Aim(from.Aim),
		Rule: clearance.Rule(from.Rule), Owned: gauge.Owned(from.Leaves.Core()),
		Feel: measure.Length(from.FeelMM), NewCam: from.NewCam}
	setup, err := start.Setup()
	if err != nil {
		return at, err
	}
	if at.Job, err = job.Replay(setup, at.List); err != nil {
		return at, err
	}
	at.Job.Speaks = wire.ReadUnits(from.Units)
	shop := job.Shop{}
	for _, size := range from.SizesMM {
		shop.Sizes = append(shop.Sizes, measure.Length(size))
	}
	for _, c := range from.Stock {
		shop.Stock = append(shop.Stock, adjust.Count{Shim: measure.Length(c.ShimMM), N: c.Count})
	}
	at.Job.Supply(shop)
	return at, nil
}

// Take takes one happening as the program would, at a time: the job and its list are then those after it. It
// errs where the happening does not read, and with the job's own refusal; nothing is changed then.
func (at *At) Take(text []byte, now time.Time) error {
	h, faults := wire.ReadHappening(text, now)
	if len(faults) > 0 {
		return fmt.Errorf("%s: %s", faults[0].Location, faults[0].Message)
	}
	after, err := at.Job.Take(h)
	if err != nil {
		return err
	}
	at.Job, at.List = after, append(at.List, h)
	return nil
}
