package around_test

import (
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/around"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/gear"
	"metronix/core/measure"
)

var noon = time.Date(2026, 5, 4, 12, 0, 0, 0, time.UTC)

func four(change func(*engine.Sheet)) around.Work {
	s := enginetest.Four()
	s.Adjuster = &engine.Adjuster{Kind: gear.ScrewValveEnd}
	if change != nil {
		change(s)
	}
	return around.Work{Book: &around.Book{},
		Engine: around.Engine{Sheet: s, Valves: enginetest.Names(s), Leaves: 13}}
}

func ids(list []around.Task) (all []string) {
	for _, s := range list {
		all = append(all, s.ID)
	}
	return all
}

// Common practice: made safe first, dirt before the cover, plugs before the crank is turned, tools counted
// before the cover hides what lies under it, what turns the crank off before anybody thinks of the starter.
func TestStepsComeInTheOrderInWhichTheyAreSafe(t *testing.T) {
	all := ids(four(nil).Tasks())
	for _, pair := range [][2]string{{"safe", "clean"}, {"clean", "cover_off"}, {"plugs", "cover_off"},
		{"cover_off", "look"}, {around.NutsStep, around.ToolsStep}, {around.ToolsStep, around.CoverStep},
		{around.CrankStep, around.StartStep}, {"bolts_1", "bolts_2"}, {around.StartStep, "road"}} {
		assert.Less(t, slices.Index(all, pair[0]), slices.Index(all, pair[1]), "%v", pair)
		assert.NotEqual(t, -1, slices.Index(all, pair[0]), pair[0])
	}
	assert.NotContains(t, all, around.HotRunStep)
	hot := four(nil)
	hot.Hot = true
	all = ids(hot.Tasks())
	assert.Less(t, slices.Index(all, around.HotRunStep), slices.Index(all, "cover_off"),
		"hot figures hold ten minutes: it runs with the cover on, last before it is opened")
	assert.Less(t, slices.Index(all, "tools_out"), slices.Index(all, around.HotRunStep))
}

// What comes off first goes on last, what this job found out too.
func TestWhatComesOffGoesBackTheOtherWayRound(t *testing.T) {
	w := four(
		func(s *engine.Sheet) { s.StripList = []engine.StripStep{{Text: "air box"}, {Text: "coil rail"}} },
	)
	w.Learned = []around.Learned{
		{ID: "x", StripStep: engine.StripStep{Text: "breather", Fastener: "clip", SocketMM: 10}},
	}
	var off, on []string
	for _, s := range w.Tasks() {
		if text, ok := strings.CutPrefix(s.Text, "Back on: "); ok {
			on = append(on, text)
		} else if strings.HasPrefix(s.ID, around.StripPrefix) {
			off = append(off, s.Text)
		}
	}
	require.Equal(t, []string{"air box", "coil rail", "breather, clip, 10 mm"}, off)
	slices.Reverse(on)
	assert.Equal(t, off, on)
}

// Shims have no lock nut, hydraulics nothing to set; a stud nut with none is felt as a nut is.
func TestNutsAreFeltWhereThereAreAny(t *testing.T) {
	for kind, felt := range map[gear.Kind]bool{gear.ScrewValveEnd: true, gear.CentreNut: true, gear.Shim: false} {
		w := four(func(s *engine.Sheet) { s.Adjuster = &engine.Adjuster{Kind: kind} })
		assert.Equal(t, felt, slices.Contains(ids(w.Tasks()), around.NutsStep), kind)
	}
	w := four(nil)
	w.FeelNut("E2", true)
	w.FeelNut("E1", true)
	w.FeelNut("I1", true)
	w.FeelNut("I1", false)
	assert.Equal(t, []string{"E1", "E2"}, w.Felt(), "in the order of the sheet")
}

// Sealant that is laid has to be covered in time, and cures before the engine may run; what was passed over
// neither skins nor cures.
func TestSealantHasItsClocks(t *testing.T) {
	w := four(func(s *engine.Sheet) {
		s.Closing = &engine.Closing{SealantPoints: []string{"half moons"}, OpenMinutes: 7, CureMinutes: 90}
	})
	_, open := w.CoverBy()
	assert.False(t, open, "none is laid")
	w.Tick(around.SealantStep, around.Mark{At: noon, Marked: true, Skipped: true, Reason: "dry gasket"})
	_, open = w.CoverBy()
	assert.False(t, open, "passed over")

	w.Tick(around.SealantStep, around.Mark{At: noon, Marked: true})
	by, open := w.CoverBy()
	require.True(t, open)
	assert.Equal(t, noon.Add(7*time.Minute), by)
	text := func(at time.Time) string {
		list := w.TasksAt(at)
		return list[slices.Index(ids(list), around.SealantStep)].Text
	}
	assert.Equal(t, "Sealant only at: half moons", text(by))
	assert.Contains(t, text(by.Add(time.Second)), "stood open too long")
	_, cures := w.StartFrom()
	assert.False(t, cures, "the cover is off")

	w.Tick(around.CoverStep, around.Mark{At: by, Marked: true})
	_, open = w.CoverBy()
	assert.False(t, open)
	from, cures := w.StartFrom()
	require.True(t, cures)
	assert.Equal(t, by.Add(90*time.Minute), from)
	w.Tick(around.StartStep, around.Mark{At: from, Marked: true})
	_, cures = w.StartFrom()
	assert.False(t, cures, "it runs")
}

// A step used by itself binds to nothing; where half of a part was ticked, what is left is missing.
func TestWhoGoesByStepsIsToldWhatIsLeft(t *testing.T) {
	w := four(nil)
	w.Tick(around.TakenInStep, around.Mark{At: noon, Marked: true})
	assert.Empty(t, w.Missing())
	var closing []string
	for _, s := range w.Tasks() {
		if s.Part == around.CloseUp {
			closing = append(closing, s.ID)
		}
	}
	for _, id := range closing[:(len(closing)+1)/2] {
		assert.Empty(t, w.Missing(), "before half of it is done")
		w.Tick(id, around.Mark{At: noon, Marked: true})
	}
	left := ids(w.Missing())
	assert.Equal(t, len(w.Tasks())-1-(len(closing)+1)/2-2, len(left), "two of them signing does not ask for")
	assert.NotContains(t, left, "old_parts", "it comes when it comes")
	assert.Contains(t, left, closing[len(closing)-1])
}

// A book that was copied does not change with what is written later.
func TestACopyOfTheBookStays(t *testing.T) {
	w := four(nil)
	w.Move(around.Leaves, true)
	before := *w.Book
	w.Move(around.Leaves, false)
	w.Tick("clean", around.Mark{At: noon, Marked: true})
	w.FeelNut("E1", true)
	was := around.Work{Engine: w.Engine, Book: &before}
	at := slices.IndexFunc(was.Tools(), func(x around.Tool) bool { return x.ID == around.Leaves })
	assert.True(t, was.Tools()[at].Out)
	assert.False(t, w.Tools()[at].Out)
	assert.True(t, w.Tools()[at].Counted)
	assert.False(t, was.Marked("clean").Marked)
	assert.Empty(t, was.Felt())
}

// Tools are named by what the engine takes; a torque in the units of whoever reads.
func TestToolsFollowFromTheEngine(t *testing.T) {
	w := four(func(s *engine.Sheet) {
		s.TurningPoint = &engine.TurningPoint{Where: "crank bolt", SocketMM: 22}
		s.Adjuster.Locknut = engine.Torque{Nm: 16}
	})
	texts := func() (all []string) {
		for _, tool := range w.Tools() {
			all = append(all, tool.Text)
		}
		return all
	}
	assert.Equal(t, "22 mm socket (7/8 in) and bar for the crank bolt", texts()[0])
	assert.Contains(t, texts(), "Torque wrench, 16 N·m (11.8 lbf·ft)")
	assert.Contains(t, texts(), "Feeler leaves, 13")
	w.Speaks = measure.Units{PoundFeet: true}
	assert.Contains(t, texts(), "Torque wrench, 11.8 lbf·ft (16 N·m)")
}
