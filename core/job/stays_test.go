package job_test

import (
	"fmt"
	"hash/fnv"
	"math/rand/v2"
	"strings"
	"testing"

	"metronix/core/adjust"
	"metronix/core/around"
	"metronix/core/bench"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/core/rehearse"
	"metronix/internal/golden"
)

// Jobs driven on by chance, on engines with screws, eccentrics and shims, cold, hot and provisional, by every
// rule and round, with much that comes between and some that is refused: after each act all that a job says
// of itself stays as it was. A line says what was done and what is next; the rest of what is said is in its
// sum.
func TestJobsStay(t *testing.T) {
	t.Parallel()
	var lines []string
	for i := range 20 {
		lines = append(lines, fmt.Sprintf("# job %d", i))
		lines = append(
			lines,
			(&chanced{t: t, chance: rand.New(rand.NewPCG(uint64(i), 77)), gaps: map[string]measure.Length{}}).job(
				i,
			)...)
	}
	golden.Hold(t, "jobs", lines)
}

// sum is a checksum over all that a job says of itself.
func (c *chanced) sum() uint64 {
	j := c.d.Job.AsOf(c.now)
	var said strings.Builder
	say := func(args ...any) { fmt.Fprintln(&said, args...) }
	n := j.Next()
	i, ok := j.Instruction()
	gate, gated := j.GateC(20)
	hot, isHot := j.HotUntil()
	forecast, may := rehearse.Forecast(j)
	done, total := j.Progress()
	pace, own := rehearse.PaceOf(j)
	cover, covered := j.Around().CoverBy()
	from, starts := j.Around().StartFrom()
	_, cooling, cools := j.Cooling()
	since, confirm := j.ToConfirm()
	say(
		j.Phase(),
		j.Known(),
		j.GateOpen(),
		i,
		ok,
		gate,
		gated,
		hot,
		isHot,
		forecast,
		may,
		done,
		total,
		pace,
		own,
		cover,
		covered,
		from,
		starts,
		cooling,
		cools,
		since,
		confirm,
		j.Brief(),
		j.Outcome(),
		record.Of(j).Walk(),
		record.Of(j).Warmth(),
		record.Of(j).ColdWarmth(),
		j.Then(
			n,
		),
		j.SetsNext(n),
		j.Here(),
		j.BeforeTurning(n),
		j.PaintMark(n),
		j.Finished(),
		j.Steps(),
		j.CountsOn(),
		j.LooseShims,
		j.FromShop,
		j.CanUndo(),
		j.UsualCheck(),
		j.Checks(),
		laidOut(j),
		j.Around().Guided(),
		j.Around().Felt(),
		j.Hand(),
	)
	for _, task := range j.Around().TasksAt(c.now) {
		say(task)
	}
	for _, p := range j.LockPairs {
		say(p.Valve, p.Before, p.After, p.By)
	}
	advice := bench.Advise(j, adjust.LearnShift(nil, 0))
	for _, v := range j.Valves {
		pre, hasPre := advice.PreLock(v)
		turn, turns := bench.Screw(j, v)
		found, now := j.Found(v), j.Judge(v)
		down, up, cross := advice.CrossCheck(v)
		say(
			v.Name,
			v.Stage,
			v.Adjustments,
			v.Shim,
			v.Out,
			v.StandIn,
			v.Freed,
			v.Nipped,
			v.Outside,
			v.LeaveReason,
			record.Of(j).Done(v),
			found.Verdict,
			found.Sure,
			found.Known(),
			now.Verdict,
			now.TryNext,
			j.Settable(v),
			j.Pending(v),
			j.MaySet(v),
			j.MaySetThough(
				v,
			),
			v.Needs(),
			v.IsOut(),
			v.ReadThere(),
			j.Margin(v),
			j.Caution(v),
			advice.SetBy(v),
			pre,
			hasPre,
			advice.NutSays(v),
			turn,
			turns,
			down,
			up,
			cross,
		)
		for _, r := range advice.Ladder(v) {
			say(r.Stack, r.Near, r.InWindow, r.SetBy, r.First, r.Other != nil)
		}
	}
	h := fnv.New64a()
	_, _ = h.Write([]byte(said.String()))
	return h.Sum64()
}

// laidOut are a job's tools with what is laid on top of them.
func laidOut(j *job.Job) (list []any) {
	for _, t := range j.Around().Tools() {
		note := ""
		if t.ID == around.Leaves {
			note = bench.FirstLeaves(j)
		}
		list = append(list, struct {
			ID, Text, Note        string
			OnCrank, Out, Counted bool
		}{t.ID, t.Text, note, t.OnCrank, t.Out, t.Counted})
	}
	return list
}
