package seen

import (
	"metronix/core/bench"
	"metronix/core/job"
	"metronix/internal/wire"
)

// Now is the one thing to do.
type Now struct {
	Action   string       `json:"action" enum:"choose_way,prepare,turn,free,read,keep,adjust,lock,bar_over,sign,go_hot,done"`
	Valve    string       `json:"valve"`
	Stop     int          `json:"stop" doc:"to go to for turn, else where the crank stands; -1: nowhere yet"`
	TurnDeg  wire.Deg     `json:"turn_deg"`
	MakeSafe bool         `json:"make_safe" doc:"before that the vehicle is made safe: nobody has said so yet, by the task safe"`
	Kinds    bool         `json:"confirm_kinds" doc:"before that somebody follows the ports: the kinds of the valves were taken from a common pattern; said by the task kinds"`
	Confirm  bool         `json:"confirm" doc:"the crank is believed to stand at this stop, and that has to be confirmed"`
	Ladder   []Rung       `json:"ladder" doc:"the leaves for the valve, thinnest first"`
	Here     []string     `json:"here" doc:"the valves waiting at the present stop"`
	Then     string       `json:"then" doc:"the valve that keeping goes on to here; empty: none"`
	Sets     bool         `json:"sets_next" doc:"keeping is followed by setting the same valve"`
	WaitsFor string       `json:"waits_for" doc:"which valve somebody else has to be done with before the crank is turned; empty: none"`
	Before   string       `json:"before_turning" doc:"what is to be done before the crank is turned; empty: nothing"`
	Paint    string       `json:"paint" doc:"that a mark is to be painted on the pulley before the crank is turned, and where; empty: none"`
	Shim     *ShimStep    `json:"shim,omitempty" doc:"for adjust, where shims are changed: what goes in; absent: nothing to be had does"`
	Turn     *Instruction `json:"instruction,omitempty" doc:"for turn: how, and until what is seen"`
	Tell     *Tell        `json:"tell,omitempty" doc:"that setting, locking and reading again may be told in one; absent: each by itself"`
	Says     Headline     `json:"headline" doc:"the one instruction, in words"`
	Instead  *Instead     `json:"instead,omitempty" doc:"what may be done at the same valve instead: set what is being read, read what is to be set"`
	Comes    []Coming     `json:"comes_clear" doc:"the valves that come clear next as the crank is turned, the nearest first"`
	Triage   string       `json:"triage" doc:"what was felt by hand and where it leads; empty: nothing"`
	Notes    []Note       `json:"notes" doc:"the words under the cylinders on the drawing of the head"`
	Side     Side         `json:"side"`
}

// Tell is what one tap says of a valve that is to be set: set, locked, and this leaf drags again.
type Tell struct {
	LeavesMM []wire.MM `json:"leaves_mm"`
	Angled   []bool    `json:"angled"`
	Says     string    `json:"says" doc:"the button: Set, locked, 0.30 drags"`
	Asks     string    `json:"asks" doc:"what is asked back where the verdict is younger than that"`
	AfterS   float64   `json:"after_s" doc:"how long after the verdict it is taken without asking, seconds"`
	By       string    `json:"by" enum:",torque" doc:"what the happening says of the nut"`
}

// Headline is the one instruction: plain words about a part that stands out, and one quiet line below.
type Headline struct {
	Before string `json:"before"`
	Strong string `json:"strong"`
	After  string `json:"after"`
	Sub    string `json:"sub"`
}

// Instead is another action at the valve in hand.
type Instead struct {
	Action string   `json:"action" enum:"read,adjust"`
	Says   Headline `json:"headline"`
}

// Coming is a valve that waits, and in how many degrees it is clear.
type Coming struct {
	Valve string   `json:"valve"`
	InDeg wire.Deg `json:"in_deg"`
}

// Note is the word under a cylinder that matters now.
type Note struct {
	Cylinder int    `json:"cylinder"`
	Text     string `json:"text"`
	Strong   bool   `json:"strong" doc:"something is to be done there, here and now"`
}

// Side is the valve that is drawn from the side.
type Side struct {
	Valve string `json:"valve"`
	Leaf  string `json:"leaf" doc:"in hand there, as stamped; empty: none"`
}

// Cross are the leaves beside the one that dragged: one down should fall through, one up should not go.
type Cross struct {
	Down string `json:"down"`
	Up   string `json:"up"`
}

// nowOf is what is next, and what is said of it; lastOn is the valve that was worked on last.
func nowOf(j *job.Job, advice *bench.Advice, lastOn string) Now {
	next, here := j.Next(), j.Here()
	n := Now{Action: string(next.Action), Valve: next.Valve, Stop: next.Stop, TurnDeg: wire.Deg(next.Turn),
		MakeSafe: j.MakeSafe(next), Kinds: j.ConfirmKinds(next),
		Confirm: next.Confirm,
		Ladder:  []Rung{}, Here: wire.List(here), Then: j.Then(next), Sets: j.SetsNext(next),
		Says: Headline(advice.Headline(next)), Notes: []Note{}, Comes: []Coming{}, Side: Side(advice.Side(next, lastOn))}
	for _, c := range j.ComesClear() {
		n.Comes = append(n.Comes, Coming{c.Valve, wire.Deg(c.In)})
	}
	for _, note := range advice.Notes(next) {
		n.Notes = append(n.Notes, Note(note))
	}
	if v, ok := j.Valve(next.Valve); ok {
		n.Ladder = ladderOf(advice.Ladder(v))
	}
	n.Tell = tellOf(advice, next)
	if other, ok := advice.Instead(next); ok {
		n.Instead = &Instead{string(other.Action), Headline(advice.Headline(other))}
		if n.Tell == nil {
			n.Tell = tellOf(advice, other)
		}
	}
	if next.Shim != nil {
		n.Shim = &ShimStepsOf(j, []job.ShimStep{*next.Shim})[0]
	}
	n.Triage = j.Triage()
	n.Before = j.BeforeTurning(next)
	n.WaitsFor = j.WaitsFor(next)
	n.Paint = j.PaintMark(next)
	if turn, ok := j.Instruction(); ok {
		n.Turn = &Instruction{turn.How, turn.Until}
	}
	return n
}

// tellOf is what one tap may tell where an action sets a valve; nil: nothing.
func tellOf(advice *bench.Advice, n job.Next) *Tell {
	tell, ok := advice.Tell(n)
	if !ok {
		return nil
	}
	laid := wire.LaidOf(tell.Leaf)
	return &Tell{laid.LeavesMM, laid.Angled, tell.Says, tell.Asks, job.TellAfter.Seconds(), string(tell.By)}
}
