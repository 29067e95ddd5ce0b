package instrument

import (
	"bytes"
	"context"
	"net"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/measure"
	"metronix/internal/line"
)

// simulated is an instrument that is worked by hand here, and a reader of it.
func simulated(t *testing.T, k Kind) (b *Bench, ask func() line.Status[Reading], address string) {
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	b = &Bench{Kind: k, Speed: 500}
	ctx, stop := context.WithCancel(context.Background())
	done := make(chan error, 1)
	go func() { done <- b.Serve(ctx, listener) }()
	t.Cleanup(func() { stop(); require.NoError(t, <-done) })
	r := NewReader(k)
	t.Cleanup(r.Close)
	return b, func() line.Status[Reading] { return r.Ask(listener.Addr().String()) }, listener.Addr().String()
}

func until(t *testing.T, ask func() line.Status[Reading], what string, so func(line.Status[Reading]) bool) Reading {
	t.Helper()
	require.Eventually(t, func() bool { return so(ask()) }, 10*time.Second, 5*time.Millisecond, what)
	return ask().Reading
}

func still(s line.Status[Reading]) bool  { return s.State == line.OK && s.Reading.Still() }
func moves(s line.Status[Reading]) bool  { return s.State == line.OK && !s.Reading.Still() }
func isLost(s line.Status[Reading]) bool { return s.State == line.Lost }

// An encoder that is turned is seen to move and to stand, and how far it went since a place was confirmed;
// one that jumps, or is lost meanwhile, has lost its zero though it tells the same count again.
func TestAnEncodersZero(t *testing.T) {
	b, ask, _ := simulated(t, Crank)
	now := time.Now()
	var z Zero
	r := until(t, ask, "to stand", still)
	z.Confirm("a job", 180*measure.Degree, now, now, r)
	require.NoError(t, b.Do("by", "180"))
	until(t, ask, "to move", moves)
	r = until(t, ask, "to stand", still)
	by, from, ok := z.Moved("a job", r)
	require.True(t, ok)
	assert.InDelta(t, 180, by, 0.05)
	assert.Equal(t, 180*measure.Degree, from)
	_, _, ok = z.Moved("another job", r)
	assert.False(t, ok, "it is on one engine at a time")

	require.NoError(t, b.Do("jump", "320"))
	r = until(t, ask, "to jump", func(s line.Status[Reading]) bool { return s.Reading.Jumped != 0 })
	assert.InDelta(t, 140, r.Jumped, 0.05)
	_, _, ok = z.Moved("a job", r)
	assert.False(t, ok, "where it stands is not known")
	assert.False(t, z.Followed(r), "and nobody has confirmed a place since")

	r = until(t, ask, "to stand", still)
	z.Confirm("a job", 0, now, now, r)
	assert.True(t, z.Followed(r), "the jump is over")
	z.Forget("a job")
	assert.True(t, z.Followed(r), "and stays so")
	z.Confirm("a job", 0, now, now, r)
	require.NoError(t, b.Do("drop"))
	until(t, ask, "to be lost", isLost)
	r = until(t, ask, "to be back", still)
	assert.InDelta(t, 320, r.Value, 0.05)
	_, _, ok = z.Moved("a job", r)
	assert.False(t, ok, "it may have been turned meanwhile")
}

// A place that was confirmed while the crank moved, or long ago, binds nothing, and what was bound is gone.
func TestAPlaceThatBindsNothing(t *testing.T) {
	now := time.Now()
	stands := Reading{Value: 20, Run: 7, since: now.Add(-time.Minute), at: now}
	turns := Reading{Value: 20, Run: 7, since: now, at: now}
	for _, c := range []struct {
		why  string
		r    Reading
		at   time.Time
		want bool
	}{
		{"it stands", stands, now, true},
		{"it turns", turns, now, false},
		{"a minute ago, off the network", stands, now.Add(-time.Minute), false},
		{"by a clock that is ahead", stands, now.Add(time.Minute), false},
		{"nothing was told", Reading{}, now, false},
	} {
		var z Zero
		z.Confirm("job", 0, now, now, stands)
		z.Confirm("job", 0, c.at, now, c.r)
		_, _, ok := z.Moved("job", stands)
		assert.Equal(t, c.want, ok, c.why)
	}
	var z Zero
	z.Confirm("job", 0, now, now, stands)
	z.Forget("another")
	_, _, ok := z.Moved("job", stands)
	assert.True(t, ok)
	z.Forget("job")
	_, _, ok = z.Moved("job", stands)
	assert.False(t, ok)
}

// What a button or a click takes is kept beside the value, and counted.
func TestAPress(t *testing.T) {
	for _, k := range []Kind{Dial, Wrench, Pull} {
		b, ask, _ := simulated(t, k)
		until(t, ask, "to tell", func(s line.Status[Reading]) bool { return s.State == line.OK })
		require.NoError(t, b.Do("press", "0.2"), k)
		r := until(t, ask, "to be taken", func(s line.Status[Reading]) bool { return s.Reading.Takes == 1 })
		assert.InDelta(t, 0.2, r.Taken, 1e-9, k)
		require.NoError(t, b.Do("to", "0.3"))
		until(t, ask, "to go on", func(s line.Status[Reading]) bool { return s.Reading.Value == 0.3 })
		assert.Equal(t, 1, ask().Reading.Takes)
	}
}

// A silent one is lost, and says why; the last value stays.
func TestASilentInstrument(t *testing.T) {
	b, ask, _ := simulated(t, Pull)
	require.NoError(t, b.Do("jump", "3"))
	until(t, ask, "to tell", func(s line.Status[Reading]) bool { return s.Reading.Value == 3 })
	require.NoError(t, b.Do("silent"))
	r := until(t, ask, "to be lost", isLost)
	assert.Equal(t, 3.0, r.Value)
	assert.Equal(t, "it fell silent", ask().Detail)
}

func TestLinesThatAreNoValue(t *testing.T) {
	for k, lines := range map[Kind][]string{
		Crank:  {"", "V", "V x", "V NaN", "V 1e3", "V 0x1p3", "V 9999999", "P 3", "W 3", "V 1 2", "E broken", "3"},
		Dial:   {"V 21", "P", "P 0,2"},
		Wrench: {"V -1", "V 501"},
		Pull:   {"V -0.1", "P 201"},
	} {
		for _, said := range lines {
			r := Reading{Value: 1, Run: 1}
			assert.Error(t, r.take(k, said, time.Now()), "%s: %q", k, said)
			assert.Equal(t, Reading{Value: 1, Run: 1}, r, "%s: %q", k, said)
		}
	}
}

// Twenty degrees in a tenth of a second is a hand; a hundred and twenty is none (720° a second and 45° of a
// bunch).
func TestWhatAHandTurns(t *testing.T) {
	now := time.Now()
	for by, want := range map[float64]bool{20: false, 110: false, -110: false, 120: true, -120: true} {
		var r Reading
		r.moved(Crank, 10, now)
		run := r.Run
		r.moved(Crank, 10+by, now.Add(100*time.Millisecond))
		assert.Equal(t, want, r.Run != run, "%v°", by)
	}
}

// An encoder that never stands is not waited for: after a minute it is not taken for a crank that is turned,
// and once it stands it is again.
func TestAnEncoderThatNeverStands(t *testing.T) {
	var r Reading
	at := time.Unix(1000, 0)
	for i := range 700 { // 70 s, trembling by a degree
		r.moved(Crank, float64(i%2), at.Add(time.Duration(i)*100*time.Millisecond))
		require.False(t, r.Still())
		require.Equal(t, i >= 600, r.Restless(), "after %d tenths", i)
	}
	for i := range 9 {
		r.moved(Crank, 1, at.Add(70*time.Second+time.Duration(i)*100*time.Millisecond))
	}
	assert.True(t, r.Still())
	assert.False(t, r.Restless())
}

func TestASimulatedInstrumentIsTold(t *testing.T) {
	var out bytes.Buffer
	b := &Bench{Kind: Crank, Speed: 90}
	b.Work(strings.NewReader("by 90\n\nfly\npress\nto 2e9\n"), &out)
	assert.Equal(t, 90.0, b.goal)
	assert.Equal(t, 3, strings.Count(out.String(), "It knows:"), out.String())
	assert.Contains(t, out.String(), `"2e9" is no value of a crank encoder`)
}

// Every kind has its traits.
func TestEveryKindHasTraits(t *testing.T) {
	for _, k := range Kinds() {
		assert.NotEmpty(t, k.Trait().Name, k)
		assert.Less(t, k.Trait().Lowest, k.Trait().Most)
	}
	assert.Len(t, traits, len(Kinds()))
	assert.Zero(t, Kind("scope").Trait())
}

// Whatever line is taken leaves a value that such an instrument can show.
func FuzzTakeLine(f *testing.F) {
	for _, said := range []string{"V 12.5", "P 0.213", "E off", "V -3", "V 1e3", "P\t2 ", "V NaN"} {
		f.Add(said)
	}
	f.Fuzz(func(t *testing.T, said string) {
		for _, k := range Kinds() {
			var r Reading
			if r.take(k, said, time.Unix(1, 0)) != nil {
				require.Zero(t, r)
				continue
			}
			for _, v := range []float64{r.Value, r.Taken} {
				require.True(t, v >= k.Trait().Lowest && v <= k.Trait().Most, "%s %q", k, said)
			}
		}
	})
}
