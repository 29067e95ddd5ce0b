package api

import (
	"encoding/json"
	"fmt"
	"time"

	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/internal/photo"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// Admission judges what an archive brings by what the interface asks of whoever sends such a thing: each
// record is put in the words of a request and read as one, and each job is played through.
func Admission() store.Admission {
	return store.Admission{Engine: admitEngine, GaugeSet: admitGaugeSet, Vehicle: admitVehicle, Job: admitJob,
		File: admitFile, Shop: admitShop}
}

// sendable says what is wrong with a record, put in the words of a request of type T; empty: nothing is.
func sendable[T any](body T) string {
	data, err := json.Marshal(body)
	if err != nil {
		return err.Error()
	}
	if faults := wire.Loose(data); len(faults) > 0 {
		return said(faults)
	}
	_, faults := wire.Read[T](data)
	return said(faults)
}

// said is the first of what is wrong, and where; empty: nothing is.
func said(faults wire.Faults) string {
	if len(faults) == 0 {
		return ""
	}
	return fmt.Sprintf("%s: %s", faults[0].Location, faults[0].Message)
}

// addressed is what has an id in an address.
type addressed struct {
	ID string `json:"id" minLength:"1" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
}

// admitEngine says why an engine sheet of an archive is not taken; empty: it is. It is read as loosely as a
// stored one, so that an archive of an earlier version still goes in, and its address has to be one that this
// program would have given.
func admitEngine(e store.Engine) string {
	if why := sendable(addressed{e.ID}); why != "" {
		return why
	}
	data, err := wire.WriteSheet(e.Sheet)
	if err != nil {
		return err.Error()
	}
	return said(wire.Loose(data)) // it was read as a stored one is: one of an earlier version is taken too
}

// admitGaugeSet says why a set of leaves is not taken. The day on which it was checked is not held against
// today: the archive may come from a machine whose clock was ahead, and a good set is not lost over that.
func admitGaugeSet(g store.GaugeSet) string {
	if why := sendable(addressed{g.ID}); why != "" {
		return why
	}
	body := GaugeSetBody{Name: g.Name, Checked: g.Checked, Leaves: wire.LeavesOf(g.Items)}
	if why := sendable(body); why != "" {
		return why
	}
	return said(
		gaugeFaults(body, g.CreatedAt.AddDate(100, 0, 0)),
	) // the archive is not read before it was made
}

// admitVehicle says why a vehicle is not taken: each of its parts is held to what the request would have to
// be that stores it, so that nothing comes in by an archive that could not be typed.
func admitVehicle(v store.Vehicle) string {
	if why := sendable(addressed{v.ID}); why != "" {
		return why
	}
	if why := sendable(VehicleBody{Name: v.Name, Plate: v.Plate, CountedBody: wire.CountedBody(wire.CountedOf(v.Counter, v.Meter)),
		Counts: countsOf(v.Counter), EngineID: v.EngineID,
		OdometerWhy: v.OdometerWhy}); why != "" {
		return why
	}
	if why := sendable(OwnCards{Cards: wire.List(wire.CardsOf(v.Cards))}); why != "" {
		return why
	}
	if why := sendable(OutsideBody{Visits: wire.OutsideOf(v.Outside, v.Counter)}); why != "" {
		return why
	}
	return sendable(IntervalsBody{Intervals: wire.IntervalsOf(v.Intervals, v.Counter)})
}

// admitShop says why the workshop's settings are not taken. They carry no address of their own: there is one
// workshop in a data file.
func admitShop(shop store.Shop) string {
	view := shopView(shop)
	if shop.Damaged != "" {
		return shop.Damaged
	}
	if view.Damaged != "" {
		return view.Damaged
	}
	if why := sendable(view); why != "" {
		return why
	}
	var faults wire.Faults
	sizesOf(view.ShimSizes, &faults)
	stockOf(view.ShimStock, &faults)
	return said(faults)
}

// admitFile takes what addPhoto and addSound keep: a JPEG of ours, or a sound of the type it is said to be.
func admitFile(media string, data []byte) string {
	if store.SoundTypes[media] == "" {
		return photo.Kept(data)
	}
	if len(data) > maxSound || soundType(data) != media {
		return "it is no recording of the type " + media
	}
	return ""
}

// admitJob reads what a job was started from and each of its entries as they would be sent, and plays it
// through.
func admitJob(r store.Job, list []job.Happening) string {
	start := JobStart{VehicleID: r.Vehicle.ID, GaugeSetID: "-", Card: r.Card, CardReason: r.CardReason,
		Aim: string(r.Aim), AimReason: r.AimReason, Rule: string(r.Rule), FeelMM: (*wire.MM)(&r.Feel), LeavesAre: r.LeavesAre, Variant: r.Sheet.Variant,
		Mechanic: r.Mechanic, Reason: r.Reason, CountedBody: wire.CountedBody(wire.CountedOf(r.Vehicle.Counter, r.Meter)), OdometerWhy: r.OdometerWhy}
	if r.HotCard >= 0 {
		start.HotCard = &r.HotCard
	}
	items := make([]gauge.Item, len(r.Leaves))
	for i, l := range r.Leaves {
		items[i].Leaf = l
	}
	leaves := GaugeSetBody{Name: r.GaugeName, Leaves: wire.LeavesOf(items)}
	for _, why := range []string{sendable(addressed{r.ID}), sendable(start), sendable(leaves),
		said(gaugeFaults(leaves, time.Time{})), said(feelFaults(r.Feel))} {
		if why != "" {
			return why
		}
	}
	if why := admitEngine(store.Engine{ID: "-", Sheet: r.Sheet}); why != "" {
		return "its sheet: " + why
	}
	for i, h := range list {
		if why := admitEntry(h); why != "" {
			return fmt.Sprintf("entry %d (%s): %s", i+1, h.Act.Kind(), why)
		}
	}
	if _, err := played(&r, list, job.Admit); err != nil {
		return err.Error()
	}
	return ""
}

// admitEntry reads an entry as it would be sent; what the program itself writes into a signature is not sent.
func admitEntry(h job.Happening) string {
	if signed, ok := h.Act.(job.Signed); ok {
		signed.Seal = job.Seal{}
		h.Act = signed
	}
	data, err := json.Marshal(wire.Happening{Happening: h})
	if err != nil {
		return err.Error()
	}
	if faults := wire.Loose(data); len(faults) > 0 {
		return said(faults)
	}
	at := h.At
	if h.DoneAt.After(at) {
		at = h.DoneAt
	}
	_, faults := wire.ReadHappening(data, at)
	return said(faults)
}

// played plays a job through from what it was started from, and shows its vehicle as it was called when it
// was signed.
func played(
	r *store.Job,
	list []job.Happening,
	play func(job.Setup, []job.Happening) (*job.Job, error),
) (*job.Job,
	error) {
	setup, err := startOf(*r).Setup()
	if err != nil {
		return nil, err
	}
	state, err := play(setup, list)
	if err != nil {
		return nil, fmt.Errorf("its list does not fit together: %s", err)
	}
	return state, asSigned(r, state)
}
