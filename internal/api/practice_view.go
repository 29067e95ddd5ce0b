package api

import (
	"cmp"
	"encoding/json"
	"errors"
	"time"

	"metronix/core/clearance"
	"metronix/core/measure"
	"metronix/core/practice"
	"metronix/internal/seen"
	"metronix/internal/wire"
)

// NewPractice is a run to begin: on an engine of the library, or an exercise.
type NewPractice struct {
	ID         string `json:"id" minLength:"8" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
	EngineID   string `json:"engine_id,omitempty" maxLength:"64" doc:"of the library; empty: an exercise is named"`
	Card       int    `json:"card,omitempty" minimum:"0" doc:"index of the engine's clearance card"`
	ExerciseID string `json:"exercise_id,omitempty" maxLength:"64"`
	Aid        string `json:"aid,omitempty" enum:"guided,watched,examination" doc:"how much is told; empty: as the exercise says, else guided"`
}

// PracticeShort is a run in a list.
type PracticeShort struct {
	ID       string     `json:"id"`
	Name     string     `json:"name" doc:"whose it is; empty: nobody was set up"`
	Engine   string     `json:"engine"`
	Exercise string     `json:"exercise" doc:"its name; empty: an engine of the library"`
	Aid      string     `json:"aid" enum:"guided,watched,examination"`
	Began    time.Time  `json:"began"`
	Ended    *time.Time `json:"ended,omitempty" doc:"absent: it goes on"`
	Correct  *int       `json:"correct,omitempty" doc:"valves that ended right; absent until it has ended"`
	Valves   int        `json:"valves,omitempty"`
	Faults   int        `json:"faults,omitempty"`
}

// Eyes is what anybody sees of the practice engine.
type Eyes struct {
	CrankDeg  wire.Deg   `json:"crank_deg" doc:"0 to 720, as lobes and pulley show it"`
	Loose     []string   `json:"loose" doc:"valves whose nut is not tight"`
	FiringDeg []wire.Deg `json:"firing_deg" doc:"before which the crank is heavy: the firing top dead centres of the cylinders"`
	Open      []OpenPart `json:"open" doc:"the valves that stand open where the crank stands"`
	Tool      bool       `json:"tool" doc:"it is on the crank"`
	Stopped   *time.Time `json:"stopped,omitempty" doc:"when a hot engine was stopped; absent: it is cold"`
	Shims     *ShimTray  `json:"shims,omitempty" doc:"absent: the engine has none"`
	EngineC   float64    `json:"engine_c" doc:"by the thermometer on it, °C"`
	AmbientC  float64    `json:"ambient_c" doc:"by the one beside it, °C"`
	Kicks     bool       `json:"kicks" doc:"the plugs are in: let go before a firing top dead centre the crank is thrown back"`
}

// OpenPart is by how much a valve stands open, of the lift of its cam.
type OpenPart struct {
	Valve string  `json:"valve"`
	Part  float64 `json:"part" doc:"0 to 1"`
}

// PracticeView is a run as it stands.
type PracticeView struct {
	View     JobView         `json:"view" doc:"the job, as the bench shows one"`
	Eyes     Eyes            `json:"eyes"`
	Ended    bool            `json:"ended"`
	Began    time.Time       `json:"began"`
	Aid      string          `json:"aid" enum:"guided,watched,examination"`
	Exercise string          `json:"exercise" doc:"its name; empty: an engine of the library"`
	Says     string          `json:"says" doc:"what is learned by it"`
	Left     string          `json:"left" doc:"what whoever was there last has left written; empty: nothing"`
	Minutes  int             `json:"minutes" doc:"that it may take; 0: as long as it takes"`
	Claims   []PracticeClaim `json:"claims" doc:"what is written down, where no bench judges"`
	LeavesMM []wire.MM       `json:"leaves_mm" doc:"those that lie beside it"`
	Ways     []WayToGo       `json:"ways" doc:"the sequences that go round this engine"`
}

// WayToGo is a sequence by its name.
type WayToGo struct {
	School string `json:"school"`
	Title  string `json:"title"`
}

// PracticeHand is one thing done by hand: one of its kinds.
type PracticeHand struct {
	ID       string         `json:"id" minLength:"1" maxLength:"64"`
	TurnDeg  float64        `json:"turn_deg,omitempty" minimum:"-720" maximum:"720" doc:"the crank, forwards or (below 0) back"`
	TakeOff  bool           `json:"take_off,omitempty" doc:"the tool, off the crank"`
	Slide    *PracticeSlide `json:"slide,omitempty"`
	Loosen   string         `json:"loosen,omitempty" maxLength:"20" doc:"the nut of this valve"`
	Screw    *PracticeScrew `json:"screw,omitempty"`
	Tighten  string         `json:"tighten,omitempty" maxLength:"20" doc:"the nut of this valve"`
	Claim    *PracticeClaim `json:"claim,omitempty"`
	Rock     string         `json:"rock,omitempty" maxLength:"20" doc:"what lies on this valve: its play is heard and seen"`
	Dial     string         `json:"dial,omitempty" maxLength:"20" doc:"a dial indicator at this valve is read"`
	TakeShim string         `json:"take_shim,omitempty" maxLength:"20" doc:"of this valve, out"`
	FitShim  *PracticeShim  `json:"fit_shim,omitempty"`
	Anyway   bool           `json:"anyway,omitempty" doc:"it was said what is wrong with it, and it is done all the same"`
}

// PracticeSlide is a leaf or a stack that is slid in.
type PracticeSlide struct {
	Valve string `json:"valve" maxLength:"20"`
	wire.Stack
}

// PracticeScrew is a screw that is turned.
type PracticeScrew struct {
	Valve string  `json:"valve" maxLength:"20"`
	ByDeg float64 `json:"by_deg" minimum:"-1080" maximum:"1080" doc:"clockwise, or (below 0) back"`
}

// PracticeShim is a shim that is laid in.
type PracticeShim struct {
	Valve  string  `json:"valve" maxLength:"20"`
	ShimMM wire.MM `json:"shim_mm" doc:"one of the tray, else one that is to be had"`
}

// FoundShim is a shim that was taken out.
type FoundShim struct {
	StampedMM  wire.MM `json:"stamped_mm"`
	MeasuredMM wire.MM `json:"measured_mm" doc:"by micrometer"`
}

// ShimTray is what eyes see of an engine's shims.
type ShimTray struct {
	Bare    []string  `json:"bare" doc:"the valves without one"`
	TrayMM  []wire.MM `json:"tray_mm" doc:"those that were taken out, by micrometer"`
	SizesMM []wire.MM `json:"sizes_mm" doc:"those that are to be had"`
}

// PracticeClaim is what is held of a valve, as it is now.
type PracticeClaim struct {
	Valve string `json:"valve" maxLength:"20"`
	Is    string `json:"is" enum:"in,tight,loose"`
	Worn  bool   `json:"worn,omitempty" doc:"something is worn at it"`
	Left  string `json:"left,omitempty" maxLength:"200" doc:"why it is left as it is"`
}

// FeltView is what a leaf says to the hand.
type FeltView struct {
	Went string  `json:"went" doc:"how it went, in words: told once the run has ended; empty before"`
	Pull float64 `json:"pull" doc:"from 0, it falls through, over 0.5, it drags as it should, to 1, it does not enter"`
}

// PracticeAnswer is what is so after something was done.
type PracticeAnswer struct {
	State     seen.JobState   `json:"state"`
	Eyes      Eyes            `json:"eyes"`
	Felt      *FeltView       `json:"felt,omitempty" doc:"of a leaf that was slid in"`
	MovedDeg  wire.Deg        `json:"moved_deg,omitempty" doc:"of a screw: by how much it moved"`
	KickedDeg wire.Deg        `json:"kicked_deg,omitempty" doc:"by so much the crank was thrown back"`
	DialMM    *wire.MM        `json:"dial_mm,omitempty" doc:"what the dial indicator shows"`
	Play      *float64        `json:"play,omitempty" doc:"of what was rocked, from 0, none, to 1"`
	Shim      *FoundShim      `json:"shim,omitempty" doc:"that was taken out"`
	Claims    []PracticeClaim `json:"claims"`
}

// hand is what a body means; ok is false where it is none, or more than one.
func (h PracticeHand) hand() (practice.Hand, bool) {
	var list []practice.Hand
	if h.TurnDeg != 0 {
		list = append(list, practice.Turned{By: measure.FromDegrees(h.TurnDeg)})
	}
	if h.TakeOff {
		list = append(list, practice.TookOff{})
	}
	if h.Slide != nil {
		list = append(list, practice.Slid{Valve: h.Slide.Valve, Leaves: h.Slide.Core()})
	}
	if h.Loosen != "" {
		list = append(list, practice.Loosened{Valve: h.Loosen})
	}
	if h.Screw != nil {
		list = append(list, practice.Screwed{Valve: h.Screw.Valve, By: measure.FromDegrees(h.Screw.ByDeg)})
	}
	if h.Tighten != "" {
		list = append(list, practice.Tightened{Valve: h.Tighten})
	}
	if h.Rock != "" {
		list = append(list, practice.Rocked{Valve: h.Rock})
	}
	if h.Dial != "" {
		list = append(list, practice.Dialled{Valve: h.Dial})
	}
	if h.TakeShim != "" {
		list = append(list, practice.TookShim{Valve: h.TakeShim})
	}
	if h.FitShim != nil {
		list = append(list, practice.FittedShim{Valve: h.FitShim.Valve, Size: measure.Length(h.FitShim.ShimMM)})
	}
	if h.Claim != nil {
		list = append(list, h.Claim.core())
	}
	if len(list) != 1 {
		return nil, false
	}
	return list[0], true
}

func (c PracticeClaim) core() practice.Claimed {
	return practice.Claimed{Valve: c.Valve, Is: clearance.Verdict(c.Is), Worn: c.Worn, Left: c.Left}
}

func claimsView(r *practice.Run) []PracticeClaim {
	list := []PracticeClaim{}
	for _, c := range r.Claims() {
		list = append(list, PracticeClaim{c.Valve, string(c.Is), c.Worn, c.Left})
	}
	return list
}

// PracticeScore is what a run came to, with what was hidden.
type PracticeScore struct {
	ID       string           `json:"id"`
	Name     string           `json:"name"`
	Engine   string           `json:"engine"`
	Exercise string           `json:"exercise"`
	Aid      string           `json:"aid" enum:"guided,watched,examination"`
	Ended    time.Time        `json:"ended"`
	Valves   []PracticeResult `json:"valves"`
	Faults   []PracticeFault  `json:"faults" doc:"the gravest first"`
	TurnDeg  wire.Deg         `json:"turn_deg" doc:"of the crank, whichever way"`
	Leaves   int              `json:"leaves" doc:"that were taken in hand"`
	TookS    float64          `json:"took_s"`
	Signed   bool             `json:"signed"`
	Correct  int              `json:"correct" doc:"valves that ended right"`
	Best     *PracticeBest    `json:"best,omitempty" doc:"what it takes; absent: no sequence goes round this engine"`
	NoteWas  string           `json:"note_was,omitempty" doc:"the note on the engine, where it was not so"`
	Drawn    EngineView       `json:"drawn" doc:"the engine, to draw it"`
}

// PracticeBest is what the same engine takes as it was rehearsed.
type PracticeBest struct {
	Title   string   `json:"title" doc:"of the sequence"`
	TurnDeg wire.Deg `json:"turn_deg"`
	Leaves  int      `json:"leaves"`
}

// PracticeResult is one valve.
type PracticeResult struct {
	Valve      string   `json:"valve"`
	Kind       string   `json:"kind" enum:"intake,exhaust"`
	FoundMM    wire.MM  `json:"found_mm" doc:"truly, as a leaf finds it"`
	LeftMM     wire.MM  `json:"left_mm"`
	BelievedMM *wire.MM `json:"believed_mm" nullable:"true" doc:"null: no figure was kept"`
	LowerMM    wire.MM  `json:"lower_mm"`
	UpperMM    wire.MM  `json:"upper_mm"`
	Verdict    string   `json:"verdict" doc:"as it was judged; empty: it was not"`
	Truly      string   `json:"truly" enum:"in,tight,loose"`
	Disturbed  bool     `json:"disturbed" doc:"its screw was turned"`
	Worn       string   `json:"worn,omitempty" enum:"even,sunken_seat,worn_tip,flat_lobe"`
	DipMM      wire.MM  `json:"dip_mm,omitempty" doc:"in a worn tip: it runs wider by so much than a leaf finds it"`
	Nut        string   `json:"nut,omitempty" enum:"stiff,seized"`
	Left       string   `json:"left,omitempty" doc:"why it was left as it is"`
}

// PracticeFault is something that a good mechanic would point out.
type PracticeFault struct {
	Slip  string `json:"slip"`
	Valve string `json:"valve" doc:"empty: at none"`
	Says  string `json:"says"`
}

// PracticeAct is one thing that was done, looked at afterwards.
type PracticeAct struct {
	AfterS    float64         `json:"after_s" doc:"since the first"`
	Hand      *PracticeHand   `json:"hand,omitempty" doc:"absent: something was said"`
	Said      json.RawMessage `json:"said,omitempty"`
	CrankDeg  wire.Deg        `json:"crank_deg" doc:"where it stood then"`
	Valve     string          `json:"valve" doc:"that it is about; empty: none"`
	GapMM     wire.MM         `json:"gap_mm" doc:"of that valve, truly, once it was done"`
	Clear     bool            `json:"clear" doc:"its lobe was"`
	Felt      *FeltView       `json:"felt,omitempty"`
	KickedDeg wire.Deg        `json:"kicked_deg,omitempty"`
	Faults    []PracticeFault `json:"faults" doc:"that it was"`
}

func faultsView(faults []practice.Fault) []PracticeFault {
	list := []PracticeFault{}
	for _, f := range faults {
		list = append(list, PracticeFault{string(f.Slip), f.Valve, wire.Sentence(errors.New(f.String()))})
	}
	return list
}

func scoreView(p *playedRun) PracticeScore {
	s := p.run.Score()
	sheet := p.run.Job.Sheet
	out := PracticeScore{
		ID:       p.stored.ID,
		Name:     p.stored.Name,
		Engine:   p.stored.Engine,
		Exercise: p.of.Name,
		Aid:      p.of.Aid,
		Ended:    p.stored.Ended,
		Valves:   []PracticeResult{},
		Faults:   faultsView(s.Faults),
		TurnDeg:  wire.Deg(s.Turned),
		Leaves:   s.Leaves,
		TookS:    s.Took.Seconds(),
		Signed:   s.Signed,
		Correct:  s.Correct,
		Drawn:    engineView(sheet),
	}
	if b := p.run.Best(); b != nil {
		out.Best = &PracticeBest{b.School.Title(sheet), wire.Deg(b.Turn), b.Leaves}
	}
	if p.of.Left != nil && p.of.Left.Wrong {
		out.NoteWas = p.of.Left.Says
	}
	kinds := map[string]string{}
	for _, v := range p.run.Job.Valves {
		kinds[v.Name] = v.Kind.String()
	}
	for _, v := range s.Valves {
		r := PracticeResult{
			Valve:     v.Valve,
			Kind:      kinds[v.Valve],
			FoundMM:   wire.MM(v.Found),
			LeftMM:    wire.MM(v.Left),
			LowerMM:   wire.MM(v.Window.Lower),
			UpperMM:   wire.MM(v.Window.Upper),
			Verdict:   string(v.Verdict),
			Truly:     cmp.Or(string(v.Truly), "in"),
			Disturbed: v.Disturbed,
			Worn:      string(v.Worn),
			DipMM:     wire.MM(v.Dip),
			Nut:       string(v.Nut),
			Left:      v.LeftBecause,
		}
		if v.Believed != nil {
			mm := wire.MM(*v.Believed)
			r.BelievedMM = &mm
		}
		out.Valves = append(out.Valves, r)
	}
	return out
}
