package api

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/record"
	"metronix/core/sequence"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// MyWay is how a mechanic goes about a vehicle, as far as earlier jobs tell: what is proposed for the next
// one. What is not known is left out, and asked.
type MyWay struct {
	Mechanic  string     `json:"mechanic"`
	Names     []string   `json:"names"             doc:"who began a job lately, the last first"`
	Says      string     `json:"says"              doc:"the sequence, round, rule and leaves of the last job on this sheet by this card, in a line; empty: there is none"`
	On        *time.Time `json:"on,omitempty"      doc:"when that job was begun"`
	GaugeSet  string     `json:"gauge_set_id"      doc:"empty: not known, or gone since"`
	FeelMM    *wire.MM   `json:"feel_mm,omitempty"`
	FeelSays  string     `json:"feel_says"         doc:"when that feel was measured and who agreed; empty: it was not"`
	LeavesAre string     `json:"leaves_are"                                                                                                                               enum:",dry,oiled"`
	Variant   string     `json:"variant"           doc:"of the engine, as in the vehicle's last job; empty: as its sheet says"`
	Card      int        `json:"card"              doc:"index of the clearance card; −1: it is asked"`
	CardAsked string     `json:"card_asked"        doc:"why it is; empty: it is not"`
	Rule      string     `json:"rule"                                                                                                                                     enum:"workshop,guarded,one_leaf"`
	RuleWhy   string     `json:"rule_why"          doc:"why that rule, where it is not this mechanic's"`
	Aim       string     `json:"aim"                                                                                                                                      enum:"nominal,loose,upper"`
	// absent: it is asked
	Way  *wire.WayChosen `json:"way,omitempty"     doc:"to be sent as a way_chosen once the job is begun"`
	Back string          `json:"back"              doc:"the caution where that way turns the crank back; empty: it does not"`
	Gone []string        `json:"gone"              doc:"what he used and is not there any more"`
}

// myWayInput is whose way is asked for, and what is chosen already.
type myWayInput struct {
	VehicleID
	Mechanic string `query:"mechanic"     maxLength:"100"`
	GaugeSet string `query:"gauge_set_id" maxLength:"64"  doc:"the set that is chosen; absent: the mechanic's"`
	Card     int    `query:"card"                         doc:"the card that is chosen; −1: none"              minimum:"-1" maximum:"99" default:"-1"`
	Reason   string `query:"reason"       maxLength:"200" doc:"why the job is done"`
	Variant  string `query:"variant"      maxLength:"120" doc:"the variant of the engine that is chosen; absent: the vehicle's last one"`
	AsSheet  bool   `query:"as_sheet"                     doc:"none is: the engine as its sheet says is chosen"`
}

// mostNames is how many names are offered to be tapped.
const mostNames = 6

// mostBefore is how many of a mechanic's jobs are looked through.
const mostBefore = 40

func (s *server) myWayRoutes(a huma.API) {
	huma.Get(a, "/api/v1/vehicles/{id}/my-way", s.myWay,
		summary("my-way", "How a mechanic went about this vehicle's engine last, to be proposed again"))
}

// myWay looks through a mechanic's latest jobs: the newest tells leaves and feel, the newest on this sheet
// and by this card the sequence, round, rule and aim, the newest on such an adjuster the word of its nut. One
// that does not open tells nothing.
func (s *server) myWay(ctx context.Context, in *myWayInput) (*bodyOf[MyWay], error) {
	st := s.store.With(ctx)
	vehicle, err := st.Vehicle(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	stored, err := st.Engine(vehicle.EngineID)
	if err != nil {
		return nil, fault(err)
	}
	sets, err := st.GaugeSets()
	if err != nil {
		return nil, fault(err)
	}
	variant := in.Variant
	if variant == "" && !in.AsSheet {
		if variant, err = st.LastVariant(in.ID); err != nil {
			return nil, fault(err)
		}
	}
	sheet := sheetOf(stored, vehicle)
	if as, ok := sheet.As(variant); ok {
		sheet = as
	}
	f := &wayFinder{s: s, ctx: ctx, sheet: sheet, sets: sets, in: in,
		out: MyWay{Variant: sheet.Variant, Mechanic: strings.TrimSpace(in.Mechanic), Card: -1, Rule: string(clearance.Workshop),
			Aim: string(clearance.AimNominal), Gone: []string{}}}
	names, err := st.Mechanics(mostNames)
	if err != nil {
		return nil, fault(err)
	}
	f.out.Names = wire.List(names)
	f.card()
	if f.out.Mechanic != "" {
		if err := f.look(); err != nil {
			return nil, fault(err)
		}
		if err := f.measured(); err != nil {
			return nil, fault(err)
		}
	}
	f.conclude()
	return &bodyOf[MyWay]{f.out}, nil
}

// wayFinder gathers a way from jobs, newest first.
type wayFinder struct {
	s     *server
	ctx   context.Context
	sheet *engine.Sheet
	sets  []store.GaugeSet
	in    *myWayInput
	out   MyWay

	setFound, nutFound bool
	nut                job.Round // its word alone
	found, fits        bool      // a job was found that the way is taken from, and it applies still
	way                job.WayChosen
}

// card is the one that stands by itself: the only one of its sheet. Where another one says otherwise, or a
// hot one stands beside it, which of them holds is asked, as it is where it was changed since.
func (f *wayFinder) card() {
	all := f.sheet.Clearances
	var cards []clearance.Card // those that may be used
	only := -1
	for i, c := range all {
		if c.Distrusted == "" {
			cards, only = append(cards, c), i
		}
	}
	switch {
	case f.in.Card >= 0 && f.in.Card < len(all) && all[f.in.Card].Distrusted == "":
		f.out.Card = f.in.Card
	case len(cards) == 1:
		f.out.Card = only
	case slices.ContainsFunc(cards, func(c clearance.Card) bool { return c.State != cards[0].State }):
		f.out.CardAsked = "Cold and hot figures stand beside each other: choose which this job is by."
	case len(cards) > 1:
		f.out.CardAsked = "Sources say different things: choose which this job is by."
	}
}

// look goes through the jobs until all is known.
func (f *wayFinder) look() error {
	list, err := f.s.store.With(f.ctx).JobsBy(f.out.Mechanic, f.sheet, mostBefore)
	if err != nil {
		return err
	}
	next := f.next(f.out.Card)
	for _, before := range list {
		if f.setFound && (f.nutFound || next == nil) && (f.found || f.out.Card < 0) {
			return nil
		}
		err := f.s.desk.with(f.ctx, before.ID, func(o *openJob) error {
			f.learn(o, before.SameSheet, next)
			return nil
		})
		if f.ctx.Err() != nil {
			return f.ctx.Err()
		}
		_ = err // a job that does not open tells nothing, and is said on the board
	}
	return nil
}

// measured puts a feel that was measured with real leaves, and agreed, in place of what he went by before:
// where leaves are as they were then, or nobody said how they are.
func (f *wayFinder) measured() error {
	feel, err := f.s.store.With(f.ctx).MeasuredFeel(f.out.Mechanic)
	if err != nil || feel.Study == "" || (f.out.LeavesAre != "" && f.out.LeavesAre != feel.LeavesAre) {
		return err
	}
	f.out.FeelMM = new(wire.MM(feel.Feel))
	f.out.FeelSays = fmt.Sprintf("Measured on %s with %s leaves, agreed by %s.", feel.On.Format("2 Jan 2006"), feel.LeavesAre, feel.AgreedBy)
	return nil
}

// next is the job as it would be begun; nil where no card is known yet.
func (f *wayFinder) next(card int) *job.Job {
	if card < 0 {
		return nil
	}
	set := store.GaugeSet{}
	if i := slices.IndexFunc(f.sets, func(g store.GaugeSet) bool { return g.ID == f.setID() }); i >= 0 {
		set = f.sets[i]
	}
	setup, err := startOf(store.Job{Sheet: f.sheet, Card: card, HotCard: -1, Leaves: gauge.Owned(set.Items),
		Feel: clearance.DefaultFeel, Rule: clearance.Rule(f.out.Rule), Aim: clearance.Aim(f.out.Aim),
		Reason: f.in.Reason}).Setup()
	if err != nil {
		return nil
	}
	j, err := job.New(setup)
	if err != nil {
		return nil
	}
	return j
}

// setID is the set that is chosen, else this mechanic's.
func (f *wayFinder) setID() string {
	if f.in.GaugeSet != "" {
		return f.in.GaugeSet
	}
	return f.out.GaugeSet
}

// learn takes from one job what no newer one told.
func (f *wayFinder) learn(o *openJob, sameSheet bool, next *job.Job) {
	r, j := o.record, o.state
	if !f.setFound {
		f.setFound = true
		f.out.FeelMM, f.out.LeavesAre = new(wire.MM(r.Feel)), r.LeavesAre
		if i := slices.IndexFunc(f.sets, func(g store.GaugeSet) bool { return g.Name == r.GaugeName }); i >= 0 {
			f.out.GaugeSet = f.sets[i].ID
		} else {
			f.out.Gone = append(f.out.Gone,
				fmt.Sprintf("The leaf set “%s” of your last job is not there any more: choose one.", r.GaugeName))
		}
	}
	if next == nil {
		return
	}
	if l, shift, ok := j.NutAgain(next); ok && !f.nutFound {
		f.nutFound = true
		f.nut = job.Round{Locking: l, OwnShift: shift}
	}
	// a job with a pass before or after another one is a job of its own kind: its passes are asked
	if sameSheet && r.Card == f.out.Card && r.HotCard < 0 && !f.found && j.Way.School != "" {
		f.found = true
		f.way, f.fits = j.Again(next)
		f.out.On = new(r.CreatedAt)
		f.out.Rule = string(cmp.Or(r.Rule, clearance.Workshop))
		f.out.Aim = string(cmp.Or(r.Aim, clearance.AimNominal))
	}
}

// conclude puts together what was found: the way with the nut's word, in a line; and the rule of one leaf
// where nobody chose one and the leaves can decide nothing else.
func (f *wayFinder) conclude() {
	next := f.next(f.out.Card)
	if next == nil {
		return
	}
	if !f.found {
		if next.OneLeafServes() {
			f.out.Rule = string(clearance.OneLeaf)
			f.out.RuleWhy = "These leaves do not reach past the limits on both sides: one leaf tells on which side " +
				"of the aim a gap lies."
		}
		return
	}
	way := f.way
	if !f.fits {
		f.out.On = nil
		f.out.Gone = append(
			f.out.Gone,
			"The sequence of your last job does not apply to this engine any more: "+
				"choose one.",
		)
		return
	}
	if f.nutFound {
		way.Locking, way.OwnShift = f.nut.Locking, f.nut.OwnShift
	}
	next, err := job.Replay(next.Setup, []job.Happening{{ID: "my-way", At: f.s.clock(), Act: way}})
	if err != nil {
		return // it was checked: there is nothing to propose
	}
	f.out.Way = new(wire.WayChosenOf(way))
	if way.Direction == sequence.Back {
		f.out.Back = "It turns the crank backwards: only where chain, belt and tensioner allow it."
	}
	says := []string{record.Of(next).Walk()}
	for _, word := range []string{unusual[f.out.Rule], unusual[f.out.Aim]} {
		if word != "" {
			says = append(says, word)
		}
	}
	f.out.Says = strings.Join(says, ", ")
}

// unusual are the rules and aims that are not the usual ones, in a line.
var unusual = map[string]string{
	string(clearance.Guarded):  "strict rule",
	string(clearance.OneLeaf):  "one leaf",
	string(clearance.AimLoose): "to the loose end",
	string(clearance.AimUpper): "to the upper limit",
}

// blank says that there is nothing in a text.
func blank(text string) bool { return text == "" }
