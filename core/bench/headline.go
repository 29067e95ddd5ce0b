package bench

import (
	"strings"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/sequence"
)

// Headline is the one instruction: plain words about a part that stands out, and one quiet line below. Any of
// them may be empty.
type Headline struct{ Before, Strong, After, Sub string }

// String is the instruction without its quiet line.
func (h Headline) String() string { return h.Before + h.Strong + h.After }

// Headline says what is next. An action other than the next one may be asked for the same valve: one in hand
// may be set though another leaf is next, and read again though setting is.
func (a *Advice) Headline(n job.Next) Headline {
	v, _ := a.j.Valve(n.Valve)
	if a.j.MakeSafe(n) {
		return sayMakeSafe()
	}
	if a.j.ConfirmKinds(n) {
		return sayConfirmKinds()
	}
	switch n.Action {
	case job.DoChooseWay:
		return sayChoose()
	case job.DoPrepare:
		return sayTemperature(len(a.j.Temperatures) > 0)
	case job.DoTurn, job.DoBarOver:
		return a.turning(n)
	case job.DoFree:
		return sayFree(a.standing(), a.Called(v))
	case job.DoRead:
		return a.reading(v)
	case job.DoKeep:
		down, up, ok := a.CrossCheck(v)
		return sayKeep(v.Name, a.j.Found(v).Verdict, down.String(), up.String(), ok)
	case job.DoAdjust:
		return a.setting(n, v)
	case job.DoLock:
		return a.locking(v)
	case job.DoSign:
		return saySign()
	case job.DoGoHot:
		return sayGoHot()
	case job.DoNothing:
		return sayDone(a.j.SignedBy)
	}
	return Headline{}
}

// turning says how to get to the next stop, or which full turns come before the check.
func (a *Advice) turning(n job.Next) Headline {
	i, led := a.j.Instruction()
	if n.Action == job.DoBarOver {
		return sayBarOver(i, led, a.j.Checks() == job.CheckAll)
	}
	return sayTurn(i, n.Confirm)
}

// reading says which valve is read, and what the readings so far ask for: another leaf, or one of them taken
// back.
func (a *Advice) reading(v *job.ValveState) Headline {
	judged := a.j.Judge(v)
	switch {
	case v.Stage == job.NutTight:
		return sayReadAgain(v.Name, a.j.Sheet.Gear().LockNut())
	case len(v.Round) > 0 && judged.Conflict != "":
		return sayDisagree(v.Name)
	case len(v.Round) > 0 && judged.TryNext != nil:
		return sayTry(v.Name, judged.TryNext.String())
	}
	h := sayRead(a.standing(), a.Called(v), a.j.Phase() == job.Verify)
	if leaf, change := a.change(v); change {
		h = sayChange(leaf.String(), a.Called(v), a.j.Phase() == job.Verify)
	}
	if v.Last != nil && v.Last.Elsewhere {
		h.Sub = "The crank had been turned on another screen before it was read."
	}
	return h
}

// change is the leaf to pick up before a valve is read, where another one is in hand; ok is false where the
// same one serves, or nothing was felt by a leaf yet.
func (a *Advice) change(v *job.ValveState) (leaf gauge.Stack, ok bool) {
	leaf = a.first(v)
	hand := a.j.InHand()
	return leaf, len(v.Round) == 0 && len(hand) > 0 && len(leaf) > 0 && !leaf.Same(hand)
}

// setting says by what a valve is set, and how far its screw is to be turned where a figure allows to reckon
// that.
func (a *Advice) setting(n job.Next, v *job.ValveState) Headline {
	g := a.j.Sheet.Gear()
	if g.Means == gear.Exchanged {
		return a.shim(n, v)
	}
	by := a.LeafSaid(v)
	turn, ok := Screw(a.j, v)
	if !ok || turn.ByFeel {
		return saySet(v.Name, by, g.Words)
	}
	return sayScrew(v.Name, by, turn, g.Words)
}

// locking says how the nut is tightened, by the round's stages.
func (a *Advice) locking(v *job.ValveState) Headline {
	torque := sayTorque(a.j.Sheet, a.j.Speaks)
	switch {
	case a.j.Locking != job.InTwoGoes:
		return sayLock(v.Name, torque)
	case v.Nipped:
		return sayTorqueUp(v.Name, torque)
	}
	return sayNip(v.Name)
}

// shim is the one next thing on shims.
func (a *Advice) shim(n job.Next, v *job.ValveState) Headline {
	if n.Shim != nil {
		return sayShim(*n.Shim)
	}
	if v.Shim == 0 && !v.Out {
		return sayWhichShim(v.Name)
	}
	fit, served := a.j.ShimFor(v.Name)
	switch {
	case !served:
		return sayNoShim(v.Name, a.j.ShimToTry(v.Name), a.j.ShimToOrder(v.Name))
	case a.j.Source(fit) == job.FromValve:
		return sayWaitsForValve(v.Name, fit.From)
	}
	return sayWaits(v.Name, fit.Shim, a.j.Source(fit) == job.ToBuy)
}

// Instead is what may be done instead of what is next at the same valve: a valve in hand may be set though
// another leaf is next, and read again though setting is; ok is false where nothing may.
func (a *Advice) Instead(next job.Next) (other job.Next, ok bool) {
	v, at := a.j.Valve(next.Valve)
	if !at || a.j.Sheet.Shimmed() {
		return other, false
	}
	other = next
	switch next.Action {
	case job.DoRead, job.DoKeep:
		other.Action = job.DoAdjust
		return other, a.j.MaySet(v)
	case job.DoAdjust:
		other.Action = job.DoRead
		return other, true
	}
	return other, false
}

// Tell is what one tap may say of a valve that is to be set.
type Tell struct {
	Leaf gauge.Stack // that drags with the nut tight
	Says string
	Asks string       // what is asked back where it is said within job.TellAfter of the verdict
	By   job.LockedBy // empty: nothing is said of the nut
}

// Tell is what one tap may say where a valve is to be set; ok is false where each step is told by itself.
func (a *Advice) Tell(next job.Next) (t Tell, ok bool) {
	v, at := a.j.Valve(next.Valve)
	if !at || next.Action != job.DoAdjust {
		return t, false
	}
	leaf, ok := a.j.Telling(v)
	t = Tell{Leaf: leaf, Says: sayTold(leaf.String(), a.j.Locking == job.InTwoGoes), Asks: a.j.AsksBack(v)}
	if a.j.Locking == job.InTwoGoes {
		t.By = job.ByTorque
	}
	return t, ok
}

// LeafSaid is the leaf or stack to set a valve by, as stamped; where none is owned, the gap to set.
func (a *Advice) LeafSaid(v *job.ValveState) string {
	if by := a.SetBy(v); len(by) > 0 {
		return by.String()
	}
	return a.limits(v).Say(a.j.AimOf(v))
}

// limits are those of a valve in the unit of whom they are told to.
func (a *Advice) limits(v *job.ValveState) clearance.Limits { return v.Limits.In(a.j.Speaks.Length) }

// standing is where the crank stands, as a sentence before another; empty between stops.
func (a *Advice) standing() string {
	if a.j.Way.School == "" || a.j.Stop < 0 {
		return ""
	}
	return a.j.Plan.Stops[a.j.Stop].Standing() + ". "
}

// Called is how a valve is called: by its number too, where the sequence counts by it.
func (a *Advice) Called(v *job.ValveState) string {
	if a.j.Plan.School == sequence.SumRule && v.RowNumber > 0 {
		return numbered(v.RowNumber, v.Name)
	}
	return v.Name
}

// WithNut says what this mechanic's lock nut does to the gap of a valve, and what to set for that; empty: it
// is not known, or nothing.
func (a *Advice) WithNut(v *job.ValveState) string {
	pre, ok := a.PreLock(v)
	if !ok {
		return ""
	}
	in := a.limits(v)
	if own := a.j.OwnShift; !a.shift.Enough && own != nil && *own != 0 {
		return sayOwnShift(in, *own, pre, a.j.AimOf(v), a.shift.Count)
	}
	if !a.shift.Enough || a.shift.Median == 0 {
		return ""
	}
	return sayShift(in, a.shift, pre, a.j.AimOf(v))
}

// verdicts are said in lower case within a sentence.
func verdict(v clearance.Verdict) string { return strings.ToLower(string(v)) }

// direction is which way locking moves the gap, as a verb.
func direction(closes bool) string {
	if closes {
		return adjust.Closes
	}
	return adjust.Opens
}
