package walks_test

import (
	"flag"
	"os"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/gauge"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/rehearse"
	"metronix/core/sequence"
)

// TestMain walks as often as the time allows that the tests have: 40 jobs, in the long tests 500, or as many
// as are asked for.
func TestMain(m *testing.M) {
	flag.Parse()
	asked := false
	flag.Visit(func(f *flag.Flag) { asked = asked || f.Name == "rapid.checks" })
	if walks := map[bool]string{false: "40", true: "500"}[os.Getenv("METRONIX_DEEP") != ""]; !asked {
		if err := flag.Set("rapid.checks", walks); err != nil {
			panic(err) // rapid has no such flag any more
		}
	}
	os.Exit(m.Run())
}

// drawn is an engine, its gear, a card and leaves, in the hands of one of the mechanics.
func drawn(t *rapid.T) *mechanic {
	who := rapid.SampledFrom(keys(mechanics)).Draw(t, "who")
	s := job.Setup{Feel: clearance.DefaultFeel, Rule: rules[who]}
	s.Sheet = engines[rapid.SampledFrom(keys(engines)).Draw(t, "engine")]()
	if gear := adjusters[rapid.SampledFrom(keys(adjusters)).Draw(t, "gear")]; gear != nil {
		own := *gear
		s.Sheet.Adjuster = &own
	}
	hot := card(clearance.Hot, 230, 310)
	switch s.Card = card(clearance.Cold, 210, 290); rapid.IntRange(0, 4).Draw(t, "state") {
	case 1:
		s.Card = hot
	case 2:
		s.Hot = &hot
	case 3:
		s.Card.StoneCold = true
	}
	apart := rapid.SampledFrom([]measure.Length{10, 20, 50}).Draw(t, "leaves apart")
	for m := measure.Length(50); m <= 600; m += 10 {
		if fine := 160 <= m && m <= 360; fine || m%apart == 0 { // as whoever sets such gaps owns them
			s.Owned = append(s.Owned, gauge.Leaf{ID: gauge.ID{Marked: m * um}, Measured: m * um})
		}
	}
	w := newWorld(t, s)
	m := mechanics[who](w)
	if s.Sheet.Shimmed() && m.round.Going != job.ReadOnly {
		m.round.Going, m.round.Locking = job.ReadFirst, ""
	}
	if !s.Sheet.HasLockNut() {
		m.round.Locking = ""
	}
	m.way = rapid.SampledFrom(ways(s)).Draw(t, "way")
	return m
}

func card(state clearance.State, intake, exhaust measure.Length) clearance.Card {
	stated := func(nominal measure.Length) clearance.Clearance {
		nominal, tolerance := nominal*um, 30*um
		return clearance.Clearance{Nominal: clearance.Figure{Metric: &nominal},
			Tolerance: clearance.Figure{Metric: &tolerance}}
	}
	return clearance.Card{Source: "test card", State: state, Intake: stated(intake), Exhaust: stated(exhaust)}
}

// bound is how many acts a job may take: three times its rehearsal, and fifteen for each time that something
// came between.
func (m *mechanic) bound(rehearsed int) int { return 3 * (rehearsed + 15*m.disturbed) }

// rehearsed is how many gestures the job was said to take: with what will not be found in, and, where a hot
// pass follows, that with every valve out, for its figures are others. Sequence, gate and signature, which a
// rehearsal leaves out, are three more each.
func (m *mechanic) rehearsed() int {
	of := func(card *clearance.Card, out []string) int {
		r, err := rehearse.Play(
			rehearse.Rehearsing{Sheet: m.setup.Sheet, Way: m.way, Round: m.round, Card: card, Out: out},
		)
		require.NoError(m.t, err)
		n := r.Gestures + 3
		if m.round.Going == job.ReadOnly {
			n += len(out) // a reason each
		}
		for _, step := range r.Steps {
			if step.Do == rehearse.DoingSet && !m.tells { // what is rehearsed in one takes two more taps, or three
				n += 3
			}
		}
		return n
	}
	n := of(&m.setup.Card, m.outOf())
	if m.setup.Hot != nil {
		var every []string
		for _, v := range m.job.Valves {
			every = append(every, v.Name)
		}
		n += of(m.setup.Hot, every)
	}
	return n
}

// Whatever happens in the workshop, the job believes nothing of crank, gaps, shims and heat that is not so,
// replays to the same state, and comes to a signature over readings that hold, in no more acts than it may
// take.
func TestEveryWalkComesToItsEnd(t *testing.T) {
	signed := 0
	rapid.Check(t, func(t *rapid.T) {
		m := drawn(t)
		rehearsed := m.rehearsed()
		between := m.draw("how often something comes between", 0, 6)
		for m.acts() {
			m.now = m.now.Add(time.Duration(m.draw("seconds", 3, 20)) * time.Second)
			if m.disturbed < between && m.draw("something comes between", 0, 12) == 0 {
				m.disturbs()
			}
			require.LessOrEqual(
				t,
				len(m.list),
				m.bound(rehearsed),
				"no end: %+v, %s: %s",
				m.job.Next(),
				m.job.Phase(),
				m.told(),
			)
		}
		require.Equal(t, job.Done, m.job.Phase(), "%+v %s", m.job.AsOf(m.now).Next(), m.told())
		m.restart()
		signed++
	})
	t.Logf("%d jobs signed", signed)
}

// Whoever does only what is said to be next comes to the signature, and no shim goes to and fro: with leaves
// coarse and fine, sizes far apart and close, under every rule and either wish, stand-ins too.
func TestShimsComeToAnEnd(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := job.Setup{
			Sheet: enginetest.Four(),
			Feel:  clearance.DefaultFeel,
			Card:  card(clearance.Cold, 220, 300),
			Rule: rapid.SampledFrom([]clearance.Rule{clearance.Workshop, clearance.Guarded, clearance.OneLeaf}).
				Draw(t,
					"rule"),
		}
		s.Sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
		step := rapid.SampledFrom([]measure.Length{10, 20, 50}).Draw(t, "leaves")
		for m := measure.Length(50); m <= 600; m += step {
			s.Owned = append(s.Owned, gauge.Leaf{ID: gauge.ID{Marked: m * um}})
		}
		m := &mechanic{
			world:    newWorld(t, s),
			keeps:    true,
			patience: 99,
			round:    job.Round{Going: job.ReadFirst},
			way: sequence.Way{
				School: rapid.SampledFrom([]sequence.School{sequence.OneCylinder, sequence.TwoStop}).Draw(t,
					"school"),
			},
		}
		stocked := job.Shop{}
		apart := rapid.SampledFrom([]measure.Length{25, 50, 100}).Draw(t, "sizes")
		for size := measure.Length(2000); size <= 3200; size += apart {
			if m.draw("in stock", 0, 2) > 0 {
				stocked.Stock = append(stocked.Stock, adjust.Count{Shim: size * um, N: m.draw("n", 1, 3)})
			}
			stocked.Sizes = append(stocked.Sizes, size*um)
		}
		m.job.Supply(stocked)
		m.must(job.WayChosen{Way: m.way, Round: m.round})
		m.must(job.ShimsChosen{Prefer: pick(m.world, "prefer", adjust.FewestBought, adjust.NearestAim)})
		for len(m.list) < 320 && m.acts() {
			continue
		}
		require.Equal(t, job.Done, m.job.Phase(), "no end: %+v", m.job.Next())
		fits := map[string]int{}
		for _, h := range m.list {
			if a, ok := h.Act.(job.Adjusted); ok {
				fits[a.Valve]++
				require.LessOrEqual(t, fits[a.Valve], 4, "%s was opened again and again", a.Valve)
			}
		}
	})
}
