package practice

import (
	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/rehearse"
	"metronix/core/sequence"
)

// Best is what the same engine takes as it was rehearsed, from where its crank stood in the beginning: the
// sequence that was chosen, or the one that turns least where none was.
type Best struct {
	School sequence.School
	Turn   measure.Angle // of the crank
	Leaves int           // picked up
}

// Best rehearses it with the valves out that truly were; nil: no sequence of this program goes round this
// engine. It tells what was hidden, as Score does.
func (r *Run) Best() (best *Best) {
	x := r.Exercise()
	var out []string
	for _, v := range r.Job.Valves {
		if !near(r.Engine.valves[v.Name].found, v.Limits.Window) {
			out = append(out, v.Name)
		}
	}
	round := job.Round{Going: job.SetAsYouGo, Check: job.CheckNone}
	if r.Engine.Shimmed() {
		round.Going = job.ReadFirst
	}
	ways := []sequence.Way{r.Job.Plan.Way}
	if r.Job.Plan.School == "" {
		ways = nil
		for _, school := range sequence.Schools() {
			ways = append(ways, sequence.Way{School: school})
		}
	}
	for _, way := range ways {
		played, err := rehearse.Play(
			rehearse.Rehearsing{Sheet: x.Setup.Sheet, Way: way, Card: &x.Setup.Card, Out: out,
				Round: round},
		)
		if err != nil {
			continue
		}
		plan, err := sequence.Make(x.Setup.Sheet, sequence.Request{Way: way})
		if err != nil || len(plan.Stops) == 0 {
			continue
		}
		ahead := measure.Cycle
		for _, stop := range plan.Stops {
			ahead = min(ahead, (stop.Crank - r.Engine.started).Wrap())
		}
		if turn := played.Turn + ahead; best == nil || turn < best.Turn {
			best = &Best{way.School, turn, played.LeafChanges + 1}
		}
	}
	return best
}

// within is the verdict on a gap that is known.
func within(gap measure.Length, w measure.Window) clearance.Verdict {
	switch {
	case gap < w.Lower:
		return clearance.Tight
	case gap > w.Upper:
		return clearance.Loose
	}
	return clearance.In
}
