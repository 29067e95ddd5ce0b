package practice

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"metronix/core/clearance"
	"metronix/core/measure"
)

// paper is what whoever does a run without the bench has written down, and what he can know.
type paper struct {
	claims map[string]Claimed
	slips  map[string]Fault // of what is written down now
	known  map[string]*evidence
}

// evidence is what leaves have told of a valve's gap since it was changed last.
type evidence struct {
	least, most measure.Length // as felt
	off         bool           // a leaf was in where the lobe was not clear
	stale       bool           // its nut was tightened since
}

// knows is what is known of a valve; nothing yet, where no leaf was in.
func (r *Run) knows(valve string) *evidence {
	k := r.paper.known[valve]
	if k == nil {
		k = &evidence{most: math.MaxInt64}
		r.paper.known[valve] = k
	}
	return k
}

// felt narrows it down. Where a leaf contradicts what was felt before, the last one counts.
func (k *evidence) felt(leaf measure.Length, f clearance.Feel) {
	least, most := measure.Length(0), measure.Length(math.MaxInt64)
	switch {
	case f == clearance.Free:
		least = leaf + drags
	case f == clearance.WontGo:
		most = leaf - drags
	default:
		least, most = leaf-drags, leaf+drags
	}
	if least > k.most || most < k.least {
		k.least, k.most = least, most
		return
	}
	k.least, k.most = max(k.least, least), min(k.most, most)
}

// dial narrows it down by a dial; where leaves contradict it, the dial counts: a leaf may bridge a dip.
func (k *evidence) dial(shows measure.Length) {
	k.least, k.most = max(1, shows-clearance.DialUncertainty), shows+clearance.DialUncertainty
}

// told says whether leaves were in since it was changed last.
func (k *evidence) told() bool { return k.least > 0 || k.most < math.MaxInt64 }

// carries says whether what was felt carries a verdict, but for what no hand could tell.
func (k *evidence) carries(v clearance.Verdict, w measure.Window) bool {
	switch v {
	case clearance.In:
		return k.least >= w.Lower-doubt && k.most <= w.Upper+doubt
	case clearance.Tight:
		return k.most <= w.Lower+doubt
	case clearance.Loose:
		return k.least >= w.Upper-doubt
	}
	return false
}

// forget lets go of what was known of a valve whose gap has changed.
func (p *paper) forget(valve string, locked bool) {
	p.known[valve] = &evidence{most: math.MaxInt64, stale: locked}
}

// clear says whether a valve is clear by its engine's margin where the crank stands: eyes see it.
func (e *Engine) clear(valve string) bool {
	return e.margin(valve) >= e.exercise.Setup.Sheet.EffectiveMargin()
}

func (r *Run) window(valve string) measure.Window {
	v, _ := r.Job.Valve(valve)
	return v.Limits.Window
}

// Warns are what a good mechanic who looks on would say before something is done: only what he sees and what
// was felt. Nothing of what is hidden is in it. None: go on.
func (r *Run) Warns(h Hand) (list []string) {
	say := func(format string, a ...any) { list = append(list, fmt.Sprintf(format, a...)) }
	e := r.Engine
	notClear := func(valve, what string) {
		if _, there := e.valves[valve]; there && !e.clear(valve) {
			say("%s", notClearHere(valve, what))
		}
	}
	late := func() {
		if e.Late() {
			say("%s", TooLate.Warning(""))
		}
	}
	switch h := h.(type) {
	case Turned:
		if loose := r.looseNuts(); len(loose) > 0 {
			say("%s", NutLoose.Warning(strings.Join(loose, " and ")))
		}
		if bare := e.Bare(); len(bare) > 0 {
			say("%s", NoShim.Warning(strings.Join(bare, " and ")))
		}
	case Slid:
		notClear(h.Valve, "what a leaf finds is no clearance")
		late()
	case TookShim:
		notClear(h.Valve, "its spring bears on the shim")
		if k := r.knows(h.Valve); k.told() && k.carries(clearance.In, r.window(h.Valve)) {
			say("%s", Disturbed.Warning(h.Valve))
		}
	case Loosened:
		notClear(h.Valve, "its spring bears on the screw")
		if k := r.knows(h.Valve); k.told() && k.carries(clearance.In, r.window(h.Valve)) {
			say("%s", Disturbed.Warning(h.Valve))
		}
	case Screwed:
		notClear(h.Valve, setWrong)
		late()
	case Claimed:
		if _, there := e.valves[h.Valve]; !there || h.Left != "" {
			break
		}
		switch k := r.knows(h.Valve); {
		case e.valves[h.Valve].loose:
			say("The nut of %s is loose: locking will move its gap.", h.Valve)
		case k.stale && !k.told():
			say("%s", NotReread.Warning(h.Valve))
		case !k.told():
			say("%s", NotFelt.Warning(h.Valve))
		case !k.carries(h.Is, r.window(h.Valve)):
			say("%s", carriesNot(h.Valve, h.Is))
		}
	}
	return list
}

// WarnsEnd are the same before a run is ended.
func (r *Run) WarnsEnd() (list []string) {
	if !r.Exercise().Paper() {
		return nil
	}
	if loose := r.looseNuts(); len(loose) > 0 {
		list = append(list, fmt.Sprintf("The nut of %s is loose.", strings.Join(loose, " and ")))
	}
	if bare := r.Engine.Bare(); len(bare) > 0 {
		list = append(list, fmt.Sprintf("There is no shim in %s.", strings.Join(bare, " and ")))
	}
	if r.Engine.tool {
		list = append(list, ToolLeft.Warning(""))
	}
	var open []string
	for _, v := range r.Job.Valves {
		if _, said := r.paper.claims[v.Name]; !said {
			open = append(open, v.Name)
		}
	}
	if len(open) > 0 {
		list = append(list, Forgotten.Warning(strings.Join(open, ", ")))
	}
	return list
}

func (r *Run) looseNuts() (list []string) {
	for _, name := range sortedKeys(r.Engine.valves) {
		if r.Engine.valves[name].loose {
			list = append(list, name)
		}
	}
	return list
}

// Claims are what is written down, by valve.
func (r *Run) Claims() []Claimed {
	list := make([]Claimed, 0, len(r.paper.claims))
	for _, name := range sortedKeys(r.paper.claims) {
		list = append(list, r.paper.claims[name])
	}
	return list
}

func verdictWord(v clearance.Verdict) string {
	switch v {
	case clearance.Tight:
		return "too tight"
	case clearance.Loose:
		return "too loose"
	}
	return "in"
}

// counts says whether a slip counts in this exercise.
func (x Exercise) counts(s Slip) bool { return len(x.Counts) == 0 || slices.Contains(x.Counts, s) }
