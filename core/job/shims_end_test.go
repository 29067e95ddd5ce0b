package job_test

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// shimmer is a mechanic at a shimmed engine who does only what is said to be next, and an engine whose shims and gaps
// always add up to the same.
type shimmer struct {
	*driver
	sum   map[string]measure.Length // shim and gap together, as they truly are
	fits  map[string]int            // how often a shim went in
	turns int
}

func (m *shimmer) gap(v *job.ValveState) measure.Length { return m.sum[v.Name] - v.Shim }

// act does the one next thing; false: there is none.
func (m *shimmer) act(t require.TestingT) bool {
	n := m.job.Next()
	v, _ := m.job.Valve(n.Valve)
	switch n.Action {
	case job.DoTurn:
		m.turns++
		m.do(job.Happening{Act: job.Turned{Stop: n.Stop}})
	case job.DoRead:
		leaf := m.job.Judge(v).TryNext
		if leaf == nil {
			leaf = m.job.Advise(adjust.Shift{}).SetBy(v)
		}
		feel := clearance.Drag
		switch off := m.gap(v) - leaf.Thickness(); {
		case off > 5*um:
			feel = clearance.Free
		case off < -5*um:
			feel = clearance.WontGo
		}
		var ids []gauge.ID
		for _, l := range leaf {
			ids = append(ids, l.ID)
		}
		m.do(job.Happening{Act: job.ReadingTaken{Valve: v.Name, Leaves: ids, Feel: feel, KeepSure: true}})
	case job.DoKeep:
		m.do(job.Happening{Act: job.Kept{Valve: v.Name}})
	case job.DoAdjust:
		m.change(v, n)
	case job.DoBarOver:
		m.do(job.Happening{Act: job.BarredOver{Stop: &n.Stop}})
	case job.DoSign:
		m.do(job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true}})
	default:
		return false
	}
	return true
}

func (m *shimmer) change(v *job.ValveState, n job.Next) {
	if n.Shim == nil {
		m.do(job.Happening{Act: job.LeftAsIs{Valve: v.Name, Reason: "no shim serves it"}})
		return
	}
	shim := n.Shim.Shim
	if shim == 0 {
		shim = n.Shim.Most - 50*um
	}
	m.fits[v.Name]++
	m.do(job.Happening{Act: job.Adjusted{Valve: v.Name, Shim: shim, From: n.Shim.From,
		StandIn: n.Shim.Do == job.FitStandIn}})
}

// Whoever does only what is said to be next comes to the signature, and no shim goes to and fro: with leaves coarse and
// fine, sizes far apart and close, under every rule and either wish, stand-ins too.
func TestShimsComeToAnEnd(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := setup()
		s.Sheet = enginetest.Four()
		s.Sheet.Adjuster = &engine.Adjuster{Kind: engine.Shim}
		s.Rule = rapid.SampledFrom([]clearance.Rule{clearance.Workshop, clearance.Guarded,
			clearance.OneLeaf}).Draw(t, "rule")
		s.Owned = gauge.Set{}
		step := rapid.SampledFrom([]measure.Length{10, 20, 50}).Draw(t, "leaves")
		for m := measure.Length(50); m <= 600; m += step {
			s.Owned = append(s.Owned, gauge.Leaf{ID: gauge.ID{Marked: m * um}})
		}
		m := &shimmer{driver: start(t, s), sum: map[string]measure.Length{}, fits: map[string]int{}}
		shop := job.Shop{}
		apart := rapid.SampledFrom([]measure.Length{25, 50, 100}).Draw(t, "sizes")
		for size := measure.Length(2000); size <= 3200; size += apart {
			if rapid.IntRange(0, 2).Draw(t, "in stock") > 0 {
				shop.Stock = append(shop.Stock, adjust.Count{Shim: size * um, N: rapid.IntRange(1, 3).Draw(t, "n")})
			}
			shop.Sizes = append(shop.Sizes, size*um)
		}
		m.job.Supply(shop)
		m.begin(rapid.SampledFrom([]sequence.School{sequence.OneCylinder, sequence.TwoStop}).Draw(t, "school"))
		m.do(job.Happening{Act: job.ShimsChosen{Prefer: rapid.SampledFrom([]adjust.Prefer{adjust.FewestBought,
			adjust.NearestAim}).Draw(t, "prefer")}})
		for _, v := range m.job.Valves {
			size := measure.Length(rapid.IntRange(96, 112).Draw(t, "fitted")) * 25 * um
			m.do(job.Happening{Act: job.Sized{Valve: v.Name, Shim: size}})
			off := measure.Length(rapid.IntRange(-12, 12).Draw(t, "off")) * 10 * um
			m.sum[v.Name] = size + nominal(v.Name)*um + off
		}
		for acts := 0; m.act(t); acts++ {
			require.Less(t, acts, 300, "no end: %v, fits %v", m.job.Next(), m.fits)
		}
		require.Equal(t, job.Done, m.job.Phase())
		for valve, n := range m.fits {
			require.LessOrEqual(t, n, 4, "%s was opened again and again", valve)
		}
	})
}
