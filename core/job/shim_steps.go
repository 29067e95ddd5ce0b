package job

import (
	"maps"
	"slices"

	"metronix/core/adjust"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// ShimDo is one thing done while shims are changed.
type ShimDo string

// A shim goes in; one that only stands in for it goes in, so that the crank may be turned; the crank is
// turned.
const (
	FitShim    ShimDo = "fit"
	FitStandIn ShimDo = "stand_in"
	TurnOn     ShimDo = "turn"
)

// ShimStep is one step of the work on shims.
type ShimStep struct {
	Do    ShimDo
	Valve string // for fit and stand_in
	// that goes in; 0: a stand-in that is still to be found, not thicker than the one it stands in for
	Shim   measure.Length
	Most   measure.Length // for stand_in: how thick it may be
	Source ShimSource     // where it is to be had then
	// the valve it comes straight from, both being open; empty: it lies on the bench or in the shop
	From string
	Stop int           // for turn: the stop to go to
	Turn measure.Angle // for turn: how far; 0 where the crank's place is not known
}

// Steps is the work on shims by this job's own choice, in order; the first one is what is next. None where a
// size or a figure is still missing that can be had, and none where nothing can be done.
func (j *Job) Steps() []ShimStep {
	if !j.shimsDue() || j.awaited() != nil {
		return nil
	}
	return j.ShimSteps(j.choice().plan, j.shop.Stock, j.CamsOut)
}

// ShimSteps is a choice of shims as work in order, from where the crank stands, so that it is never turned
// with a shim missing (common practice).
//
// A shim that lies on the bench or in the shop goes in wherever its valve is clear, and the one that comes
// out serves the next; shims go round among valves that are clear at one place with all of them out. Only
// where a ring of valves is nowhere clear together does a stand-in go in, not thicker than what came out, so
// that no valve is held open. With the cams out every valve is at hand. What waits for a shim to be bought is
// left out, and whoever waits for its old one.
func (j *Job) ShimSteps(plan adjust.ShimPlan, stock []adjust.Count, camsOut bool) []ShimStep {
	w := &shimWork{j: j, camsOut: camsOut, stop: j.Stop, standIns: slices.Clone(j.LooseShims)}
	for _, c := range stock {
		w.standIns = append(w.standIns, c.Shim)
	}
	for _, f := range plan.Fit {
		if f.From != f.Valve {
			w.left = append(w.left, f)
		}
	}
	w.dropWaiting()
	w.settle()
	if v := j.bare(); v != nil {
		w.open = v.Name
	}
	w.work()
	if len(w.steps) == 0 { // what the plan has for a valve with a stand-in cannot be brought about
		w.left = nil
		w.settle()
		w.work()
	}
	return w.steps
}

// shimWork is the work as it is played through: what is left of the plan, where the crank stands, and which
// givers' shims lie on the bench by now.
type shimWork struct {
	j        *Job
	camsOut  bool
	left     []adjust.Fit
	open     string // the valve whose shim went to another just now; empty: none
	stop     int    // −1: where it stands now, which is no stop
	turned   bool
	moved    []string // valves whose own shim came out and lies on the bench
	standIns []measure.Length
	stays    []string // valves whose stand-in stays
	steps    []ShimStep
}

// work takes step after step until nothing is left. It is bounded by what there is to do, so that a deal that
// cannot be brought about ends too.
func (w *shimWork) work() {
	for range 4 * (len(w.left) + 1) {
		if len(w.left) == 0 && w.open == "" || !w.step() {
			break
		}
	}
}

// dropWaiting leaves out what waits for a purchase: a valve whose shim is to be bought, and one that would
// get the shim of such a valve.
func (w *shimWork) dropWaiting() {
	for {
		n := len(w.left)
		w.left = slices.DeleteFunc(w.left, func(f adjust.Fit) bool {
			return f.Bought || f.From != adjust.FromStock && !w.gives(f.From)
		})
		if len(w.left) == n {
			return
		}
	}
}

// settle lets a shim that stands in stay where the one that is to come has to be bought, or where none
// serves: it is read then, and left or set by what is bought.
func (w *shimWork) settle() {
	for _, v := range w.j.Valves {
		if v.StandIn && v.Shim > 0 && w.fitOf(v.Name) < 0 {
			w.left = append(w.left, adjust.Fit{Valve: v.Name, Shim: v.Shim, From: adjust.FromStock})
			w.stays = append(w.stays, v.Name)
		}
	}
}

// gives says that a valve gets another shim itself, so that its own comes out.
func (w *shimWork) gives(valve string) bool {
	return slices.ContainsFunc(w.left, func(f adjust.Fit) bool { return f.Valve == valve })
}

// step takes the next step, and says whether there was one.
func (w *shimWork) step() bool {
	if w.open != "" {
		w.close()
		return true
	}
	if w.workAt(w.stop) {
		return true
	}
	for i := range len(w.j.Plan.Stops) {
		at := (w.stop + 1 + i) % len(w.j.Plan.Stops)
		if at != w.stop && (w.ready(at) >= 0 || w.ring(at) != nil) {
			w.turnTo(at)
			return true
		}
	}
	return w.standIn()
}

// workAt does what can be done at a place.
func (w *shimWork) workAt(stop int) bool {
	if i := w.ready(stop); i >= 0 {
		w.fit(i, "")
		return true
	}
	ring := w.ring(stop)
	if ring == nil {
		return false
	}
	w.fit(w.fitOf(ring[0]), ring[1])
	return true
}

// close puts a shim under the valve that is open: the one that it is to have, straight from another valve
// where that is clear here, else one that stands in.
func (w *shimWork) close() {
	i := w.fitOf(w.open)
	switch {
	case i < 0:
	case w.toHand(w.left[i]):
		w.fit(i, "")
		return
	case w.clear(w.left[i].From, w.stop):
		w.fit(i, w.left[i].From)
		return
	}
	w.substitute(w.open)
}

// fitOf is what a valve is still to get; −1: nothing.
func (w *shimWork) fitOf(valve string) int {
	return slices.IndexFunc(w.left, func(f adjust.Fit) bool { return f.Valve == valve })
}

// ready is a valve clear at a place whose shim lies to hand; −1: none.
func (w *shimWork) ready(stop int) int {
	return slices.IndexFunc(w.left, func(f adjust.Fit) bool {
		return w.clear(f.Valve, stop) && w.toHand(f)
	})
}

// toHand says that a shim lies on the bench or in the shop.
func (w *shimWork) toHand(f adjust.Fit) bool {
	return f.From == adjust.FromStock || slices.Contains(w.moved, f.From)
}

// ring is valves clear together of which each gets the shim of the next, and the last that of the first; nil:
// none.
func (w *shimWork) ring(stop int) []string {
	for _, f := range w.left {
		ring := w.ringFrom(f.Valve)
		if ring != nil && !slices.ContainsFunc(ring, func(v string) bool { return !w.clear(v, stop) }) {
			return ring
		}
	}
	return nil
}

// ringFrom follows who gives to whom; a ring comes back to its beginning, and cannot be begun at any valve
// without a hand free for one shim.
func (w *shimWork) ringFrom(valve string) []string {
	ring := []string{valve}
	for range w.left {
		i := w.fitOf(ring[len(ring)-1])
		if i < 0 || slices.Contains(w.moved, w.left[i].From) {
			return nil
		}
		from := w.left[i].From
		if from == valve {
			return ring
		}
		ring = append(ring, from)
	}
	return nil
}

// fit puts a shim in; from is the valve that it comes straight from.
func (w *shimWork) fit(i int, from string) {
	f := w.left[i]
	source := FromBench
	switch {
	case slices.Contains(w.stays, f.Valve):
		source = Stays
	case from != "":
		source = FromValve
	case f.From == adjust.FromStock:
		source = w.j.Source(f)
	}
	w.steps = append(w.steps, ShimStep{Do: FitShim, Valve: f.Valve, Shim: f.Shim, Source: source, From: from,
		Stop: w.stop})
	w.left = slices.Delete(w.left, i, i+1)
	w.moved = append(w.moved, f.Valve)
	w.open = from
}

// standIn opens a ring that is nowhere clear together: at the first place from here where one of its valves
// is.
func (w *shimWork) standIn() bool {
	stops := len(w.j.Plan.Stops)
	for i := range stops + 1 {
		at := w.stop
		if i > 0 {
			at = (w.stop + i) % stops
		}
		for _, f := range w.left {
			if !w.clear(f.Valve, at) || w.ringFrom(f.Valve) == nil || slices.Contains(w.moved, f.Valve) ||
				w.j.valve(f.Valve).stoodIn { // once is enough: what came of it is known
				continue
			}
			if at != w.stop {
				w.turnTo(at)
			}
			w.substitute(f.Valve)
			return true
		}
	}
	return false
}

// substitute puts a shim in that stands in for a valve's own.
func (w *shimWork) substitute(valve string) {
	most := w.j.valve(valve).ownShim()
	w.steps = append(w.steps, ShimStep{Do: FitStandIn, Valve: valve, Shim: w.thinnerThan(most), Most: most,
		Stop: w.stop})
	w.moved = append(w.moved, valve)
	w.open = ""
}

// thinnerThan is the thickest shim to hand that is not thicker; 0: none.
func (w *shimWork) thinnerThan(shim measure.Length) (best measure.Length) {
	for _, s := range w.standIns {
		if s <= shim {
			best = max(best, s)
		}
	}
	return best
}

// turnTo turns to a stop: by degrees where the crank's place is known.
func (w *shimWork) turnTo(stop int) {
	step := ShimStep{Do: TurnOn, Stop: stop}
	switch {
	case w.turned && w.stop >= 0:
		step.Turn = sequence.TurnBetween(w.j.Plan.Stops[w.stop].Crank, w.j.Plan.Stops[stop].Crank,
			w.j.Way.Direction)
	case w.j.Sure():
		step.Turn = w.j.turnTo(stop)
	}
	w.steps, w.stop, w.turned = append(w.steps, step), stop, true
}

// clear says whether a valve may be opened at a place: everywhere with the cams out; where its shim is out
// already it is open to work on.
func (w *shimWork) clear(valve string, stop int) bool {
	v := w.j.valve(valve)
	switch {
	case w.camsOut || v.Out:
		return true
	case stop < 0 || !w.turned && stop == w.j.Stop:
		return w.j.Settable(v)
	}
	there := *w.j
	there.takeAt(sequence.Exactly(w.j.Plan.Stops[stop].Crank))
	return there.Settable(v)
}

// CountsOn are the shims of the shop's stock that the choice counts on and that are not fitted yet, thinnest
// first.
func (j *Job) CountsOn() (list []adjust.Count) {
	if !j.shimsDue() {
		return nil
	}
	n := map[measure.Length]int{}
	for _, f := range j.choice().plan.Fit {
		if j.Source(f) == InShop {
			n[f.Shim]++
		}
	}
	for _, shim := range slices.Sorted(maps.Keys(n)) {
		list = append(list, adjust.Count{Shim: shim, N: n[shim]})
	}
	return list
}
