package around

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"metronix/core/engine"
)

// Part is where in a job a step belongs.
type Part string

// The parts of a job around the bench, in order.
const (
	TakeIn  Part = "take_in"
	OpenUp  Part = "open_up"
	CloseUp Part = "close_up"
	StartUp Part = "start_up" // start and listen, and what comes after the valves
)

// Task is one step before or after the work at the valves, as it applies to this engine.
type Task struct {
	ID      string
	Part    Part
	Text    string
	Caution string // what to mind; empty: nothing
	// Group is what it may be ticked off with: the steps of a part with the same group that stand one after
	// another. Empty: harm follows where it is passed by in a row, so it is ticked singly.
	Group string
	Free  bool // signing does not ask for it: it comes when it comes
	Mark  Mark // what became of it; zero: it waits
}

// The groups, each in the words of what is done with it.
const (
	offGroup   = "What comes off"
	underGroup = "Under the cover"
	facesGroup = "Faces and gasket"
	coverGroup = "Cover and bolts"
	backGroup  = "What goes back on"
	afterGroup = "After the start"
)

// Mark is what became of a step: done or passed over, when, and why where it needs a reason. The zero mark is
// that it waits.
type Mark struct {
	At      time.Time
	Marked  bool
	Skipped bool
	Grouped bool // ticked with others, as a group
	Reason  string
}

// The steps that others refer to.
const (
	TakenInStep  = "taken_in"
	SafeStep     = "safe"
	KindsStep    = "kinds"
	NutsStep     = "nuts"
	ToolsStep    = "tools_back"
	CrankStep    = "crank_free"
	SealantStep  = "sealant"
	CoverStep    = "cover_on"
	StartStep    = "start"
	HotRunStep   = "hot_run"
	StripPrefix  = "strip_"
	refitPrefix  = "refit_"
	boltsPrefix  = "bolts_"
	usualRounds  = 2 // of tightening a cover's bolts (common practice: two or three)
	usualMinutes = 5 // that sealant may stand open (common practice)
	usualCure    = 180
)

// Tasks are all steps around the bench that apply to this engine, its adjuster and the thermal state of its
// card, in the order in which practitioners work (common practice). What the sheet lists is taken off in its
// order and put back in the reverse.
func (w Work) Tasks() []Task {
	list := slices.Concat(w.openingSteps(), w.closingSteps(), w.startingSteps())
	for i := range list {
		list[i].Mark = w.marks[list[i].ID]
	}
	return list
}

// TasksAt are the steps as they stand at a time after which nothing was entered yet: sealant that stood
// open too long by then is a step back, to be taken off and put on afresh.
func (w Work) TasksAt(now time.Time) []Task {
	list := w.Tasks()
	if by, open := w.CoverBy(); open && now.After(by) {
		for i := range list {
			if list[i].ID == SealantStep {
				list[i].Mark = Mark{}
				list[i].Text = "The sealant stood open too long: take it off and put it on afresh at: " +
					strings.Join(w.closing().SealantPoints, "; ")
			}
		}
	}
	return list
}

// openingSteps are the steps up to the bare valve gear. Making safe comes before hands reach between belts
// and fan; dirt goes before the cover is lifted, because nothing that falls in comes out again; plugs come
// out before the crank is turned, because a cylinder without compression turns easily and kicks nothing
// back. On a hot card the run with the cover on belongs here too, for hot figures hold about ten minutes
// from shut-off: whatever can be done before it is, dirt and tools among it (common practice, all of it).
func (w Work) openingSteps() []Task {
	list := []Task{
		{ID: TakenInStep, Part: TakeIn, Text: "Take it in: complaint, sound, odometer"},
		{ID: SafeStep, Part: OpenUp,
			Text: "Neutral or park, wheels chocked, key well away; battery off where the work " +
				"passes live connectors",
			Caution: "Keyless, stop-start, remote-start and hybrid cars can crank or run by " +
				"themselves. Car raised: stands, not the jack."},
	}
	list = append(list, Task{ID: "clean", Part: OpenUp, Group: offGroup,
		Text:    "Blow or rinse the dirt off before the cover is lifted",
		Caution: "Eye protection with compressed air and solvents."})
	tools := Task{ID: "tools_out", Part: OpenUp, Text: "Lay out and count the tools and leaves"}
	if w.Hot {
		list = append(list, tools, Task{ID: HotRunStep, Part: OpenUp,
			Text:    "Run it to operating temperature with the cover on, and stop it",
			Caution: "Hot parts and oil burn. Nothing on the crank while it runs."})
	}
	for _, s := range w.stripList() {
		list = append(list, Task{ID: StripPrefix + s.id, Part: OpenUp, Group: offGroup,
			Text: stripped(s.StripStep), Caution: s.Note})
	}
	list = append(list,
		Task{ID: "plugs", Part: OpenUp, Text: "Plugs out, leads marked, holes covered",
			Caution: "Ignition and fuel disabled before any cranking. Nothing may fall into a plug hole."},
		Task{ID: "cover_off", Part: OpenUp, Group: underGroup, Text: "Cover off"},
	)
	if gear := w.Sheet.VariableLift; gear != "" {
		list = append(list, Task{ID: "variable_lift", Part: OpenUp, Group: underGroup,
			Text:    "Check the variable lift gear: " + gear,
			Caution: "Before any valve is read: a gear that sticks or stands wrong makes every gap wrong."})
	}
	list = append(list, Task{ID: "look", Part: OpenUp, Group: underGroup,
		Text: "Look round: springs, loose parts, sludge, breather, gasket, oil on plugs or leads"})
	if w.Sheet.KindsToConfirm {
		list = append(list, Task{ID: KindsStep, Part: OpenUp,
			Text:    "Confirm the kind of each valve: intakes at the intake ports, exhausts at the exhaust ports",
			Caution: "A pattern was taken for this head. Intake and exhaust have different gaps."})
	}
	if w.Hot {
		return list
	}
	return append(list, tools)
}

// stripped is one step of what comes off, in a line: what, by which fastener, with which socket.
func stripped(s engine.StripStep) string {
	words := []string{s.Text}
	if s.Fastener != "" {
		words = append(words, s.Fastener)
	}
	if s.SocketMM > 0 {
		words = append(words, fmt.Sprintf("%v mm", s.SocketMM))
	}
	return strings.Join(words, ", ")
}

// closing is how the sheet says the engine is closed; of a sheet that says nothing, all usual.
func (w Work) closing() engine.Closing {
	if w.Sheet.Closing == nil {
		return engine.Closing{}
	}
	return *w.Sheet.Closing
}

// closingSteps are the steps from the last valve to a closed engine.
//
// Lock nuts are felt first, while they can be reached. Tools are counted before the cover hides what lies
// under it, and what turns the crank comes off before anybody thinks of the starter. Sealant is laid last
// before the cover, because it skins over; only at the joints that the sheet lists, because a bead that is
// squeezed inwards ends in the oil strainer. Bolts are tightened in rounds, so that the gasket is pressed
// evenly; the torque stands with the last round alone (common practice, all of it). What follows from a slip
// is worst at nuts, tools, crank and sealant, and where the cure begins: each of those has a tick of its own.
func (w Work) closingSteps() []Task {
	c := w.closing()
	var list []Task
	group := "" // of the steps that follow
	add := func(id, text, caution string) {
		list = append(list, Task{ID: id, Part: CloseUp, Group: group, Text: text, Caution: caution})
	}
	if w.Sheet.HasLockNut() {
		add(NutsStep, fmt.Sprintf("Feel all %d lock nuts once more, untouched ones too", len(w.Valves)), "")
	}
	add(ToolsStep, "Count the tools and leaves back", "")
	if t, other := turnings[w.Turning]; other {
		add(CrankStep, t.undoing, "Before the starter is touched.")
	} else {
		add(CrankStep, "Take "+w.turningTool()+" off", "Before the starter is touched.")
	}
	group = facesGroup
	add("faces", "Rails wiped dry, old sealant scraped off",
		"Nothing may fall into plug holes or the timing case.")
	add("seals", "Tube seals new and oiled", "")
	if c.Gasket == engine.StuckFirst {
		add("gasket", "Gasket stuck to the cover on a flat surface first", "")
	} else {
		add("gasket", "Gasket set dry", "")
	}
	group = coverGroup
	if len(c.SealantPoints) > 0 {
		group = ""
		add(SealantStep, "Sealant only at: "+strings.Join(c.SealantPoints, "; "), fmt.Sprintf(
			"A stray bead ends in the oil strainer. The cover goes on within %s.", Minutes(w.OpenTime())))
	}
	add(CoverStep, "Cover on, bolts in by hand first, look round the seal", "")
	group = coverGroup
	for round := 1; round <= cmp.Or(c.Rounds, usualRounds); round++ {
		add(fmt.Sprintf("%s%d", boltsPrefix, round), w.boltsText(c, round), "")
	}
	group = backGroup
	for _, s := range slices.Backward(w.stripList()) {
		add(refitPrefix+s.id, "Back on: "+stripped(s.StripStep), s.Note)
	}
	add("caps", "Clips over their studs, hoses, oil cap, dipstick", "")
	return list
}

// patternWords are the orders in which cover bolts are tightened, as words in a step.
var patternWords = map[engine.Pattern]string{engine.MiddleOut: "from the middle outwards",
	engine.Crosswise: "crosswise",
	engine.Numbered:  "by the maker's numbers"}

// boltsText is one round of tightening in words. Every round but the last is by feel.
func (w Work) boltsText(c engine.Closing, round int) string {
	rounds := cmp.Or(c.Rounds, usualRounds)
	text := fmt.Sprintf("Cover bolts, round %d of %d, %s", round, rounds,
		cmp.Or(patternWords[c.Pattern], patternWords[engine.MiddleOut]))
	if round < rounds {
		return text
	}
	if to, _ := w.Sheet.TorquesOf(engine.CoverBolts); to != nil {
		text += ", to " + to.Say(w.Speaks)
	}
	if others := w.Sheet.SayOthers(engine.CoverBolts, w.Speaks); others != "" {
		text += ". " + strings.TrimSuffix(others, ".")
	}
	return text
}

// startingSteps are what follows a closed engine. Points, timing and mixture are set after the valves and in
// that order, because each changes the next; a belt that is due comes before them all, for it moves the cam
// (common practice).
func (w Work) startingSteps() []Task {
	return []Task{
		{ID: StartStep, Part: StartUp, Text: "Start it and listen: the tick, the idle, leaks",
			Caution: "Tool, handle and socket off the crank. Fan and belts start without warning."},
		{ID: "road", Part: StartUp, Group: afterGroup, Text: "Road test"},
		{ID: "timing", Part: StartUp, Group: afterGroup,
			Text: "Then points, ignition timing and mixture, in that order, where they are done too"},
		{ID: "leaves_oiled", Part: StartUp, Group: afterGroup, Free: true,
			Text: "Leaves wiped, oiled and counted; one that is worn or bent marked missing in its set"},
		{ID: "old_parts", Part: StartUp, Group: afterGroup, Free: true, Text: "Old parts in their box, handed back"},
	}
}

// Together are the steps that wait and may be ticked off with a step as a group, that step among them; nil
// where it is ticked singly or already, or stands alone.
func (w Work) Together(id string) []Task { return Together(w.Tasks(), id) }

// Together is the same of a list of steps that is at hand.
func Together(list []Task, id string) (group []Task) {
	at := slices.IndexFunc(list, func(t Task) bool { return t.ID == id })
	if at < 0 || list[at].Group == "" || list[at].Mark.Marked {
		return nil
	}
	for _, t := range list {
		if t.Part == list[at].Part && t.Group == list[at].Group && !t.Mark.Marked {
			group = append(group, t)
		}
	}
	if len(group) < 2 {
		return nil
	}
	return group
}

// Guided says that the steps around the bench are gone through in this job: half of those of some part at
// least were ticked. A step or a clock used singly, such as the sealant's, binds to nothing more.
func (w Work) Guided() bool {
	all, ticked := map[Part]int{}, map[Part]int{}
	for _, s := range w.Tasks() {
		if s.Free {
			continue
		}
		if all[s.Part]++; s.Mark.Marked {
			ticked[s.Part]++
		}
	}
	for part, n := range all {
		if n > 1 && 2*ticked[part] >= n { // taking in is a step by itself
			return true
		}
	}
	return false
}

// Missing are the steps that wait, in words, where the job is guided: what signing is refused for. What was
// opened step by step is closed and started so.
func (w Work) Missing() (list []Task) {
	if !w.Guided() {
		return nil
	}
	for _, s := range w.Tasks() {
		if !s.Mark.Marked && !s.Free {
			list = append(list, s)
		}
	}
	return list
}

// OpenTime and CureTime are how long sealant may stand open before the cover goes on, and how long it cures
// before the engine may run: the sheet's figures, else the usual ones; the sealant's own sheet wins.
func (w Work) OpenTime() time.Duration {
	return time.Duration(cmp.Or(w.closing().OpenMinutes, usualMinutes) * float64(time.Minute))
}

// CureTime is how long the sealant cures before the engine may run: the sheet's, else usualCure.
func (w Work) CureTime() time.Duration {
	return time.Duration(cmp.Or(w.closing().CureMinutes, usualCure) * float64(time.Minute))
}

// Minutes says a time for people, hours from two on.
func Minutes(d time.Duration) string {
	if d >= 2*time.Hour {
		return fmt.Sprintf("%g h", math.Round(d.Hours()*10)/10)
	}
	return fmt.Sprintf("%g min", d.Minutes())
}

// done says that a step was done, not passed over.
func (w Work) done(id string) (Mark, bool) {
	m := w.marks[id]
	return m, m.Marked && !m.Skipped
}

// CoverBy is until when the cover has to be on, once sealant is laid; ok is false where no sealant stands
// open.
func (w Work) CoverBy() (by time.Time, ok bool) {
	sealant, laid := w.done(SealantStep)
	if _, on := w.done(CoverStep); !laid || on {
		return time.Time{}, false
	}
	return sealant.At.Add(w.OpenTime()), true
}

// StartFrom is from when the engine may run, once the cover is on over sealant; ok is false where nothing
// cures.
func (w Work) StartFrom() (from time.Time, ok bool) {
	on, is := w.done(CoverStep)
	_, laid := w.done(SealantStep)
	if _, started := w.done(StartStep); !is || !laid || started {
		return time.Time{}, false
	}
	return on.At.Add(w.CureTime()), true
}

// Text is a step in words, within a sentence; its id where it does not apply.
func (w Work) Text(id string) string {
	for _, s := range w.Tasks() {
		if s.ID == id {
			return strings.ToLower(s.Text[:1]) + s.Text[1:]
		}
	}
	return id
}
