package probe

import (
	"context"
	"net"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/thermal"
	"metronix/internal/line"
)

func simulated(t *testing.T, address string) (at string, stop func()) {
	t.Helper()
	listener, err := net.Listen("tcp", address)
	require.NoError(t, err)
	ctx, cancel := context.WithCancel(context.Background())
	done := make(chan error, 1)
	go func() {
		done <- Simulated{StartC: 90, AmbientC: 20, K: 0.02, Speed: 60,
			Every: 10 * time.Millisecond}.Serve(ctx, listener)
	}()
	stop = func() { cancel(); require.NoError(t, <-done) }
	return listener.Addr().String(), stop
}

// A reader follows the simulated probe, says when it is lost and keeps the last reading, and takes up again
// when it comes back.
func TestReaderFollowsLosesAndFindsAProbe(t *testing.T) {
	address, stop := simulated(t, "127.0.0.1:0")
	r := NewReader()
	defer r.Close()
	until := func(state line.State) (s line.Status[Reading]) {
		t.Helper()
		require.Eventually(t, func() bool { s = r.Ask(address); return s.State == state }, 10*time.Second,
			5*time.Millisecond, "state %s", state)
		return s
	}
	first := until(line.OK)
	assert.InDelta(t, 90, first.Reading.EngineC, 10)
	assert.Equal(t, 20.0, first.Reading.AmbientC)
	stop()
	lost := until(line.Lost)
	assert.NotZero(t, lost.Reading.EngineC, "the last reading stays")
	assert.NotEmpty(t, lost.Detail)
	_, stop = simulated(t, address)
	defer stop()
	until(line.OK)
	assert.Equal(t, line.Off, r.Ask("").State)
}

// By Newton's law: after ln 2 / k minutes half of the difference is left.
func TestSimulatedEngineCools(t *testing.T) {
	s := Simulated{StartC: 100, AmbientC: 20, K: 0.0693147180559945, Speed: 1}
	assert.InDelta(t, 60, s.At(10*time.Minute).EngineC, 1e-9)
	s.Speed = 10
	assert.InDelta(t, 60, s.At(time.Minute).EngineC, 1e-9)
	assert.Equal(t, "T 84.3 19.5", Reading{84.26, 19.5}.String())
}

func TestLinesThatAreNoReading(t *testing.T) {
	for _, line := range []string{"", "T", "T 80", "T 80 x", "T 80 NaN", "T 900 20", "T -300 20",
		"T 0x1p6 20", "T 8e1 20", "80 20", "E sensor broken"} {
		_, err := parse(line)
		assert.Error(t, err, line)
	}
	got, err := parse("T 80.5 -3")
	require.NoError(t, err)
	assert.Equal(t, Reading{80.5, -3}, got)
}

// A stray program on the port is told apart.
func TestWhatIsNoProbe(t *testing.T) {
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer listener.Close()
	go func() {
		for {
			c, err := listener.Accept()
			if err != nil {
				return
			}
			_, _ = c.Write([]byte("HTTP/1.1 400 Bad Request\n"))
			c.Close()
		}
	}()
	r := NewReader()
	defer r.Close()
	require.Eventually(t, func() bool { return r.Ask(listener.Addr().String()).State == line.Lost }, 5*time.Second,
		5*time.Millisecond)
	assert.Contains(t, r.Ask(listener.Addr().String()).Detail, "this is no probe")
}

// Whatever line reads is a temperature that can be, and says the same when it is sent on, to the tenth that
// is sent.
func FuzzParseLine(f *testing.F) {
	for _, line := range []string{"T 84.3 19.5", "E sensor broken", "T -3 -0.0", "T 8e1 20", "T  1\t2 ",
		"T NaN 1", "T 84.3 19.5 1"} {
		f.Add(line)
	}
	f.Fuzz(func(t *testing.T, line string) {
		r, err := parse(line)
		if err != nil {
			return
		}
		require.True(t, thermal.Possible(r.EngineC) && thermal.Possible(r.AmbientC), line)
		again, err := parse(r.String())
		require.NoError(t, err, line)
		require.InDelta(t, r.EngineC, again.EngineC, 0.0501, line)
		require.InDelta(t, r.AmbientC, again.AmbientC, 0.0501, line)
	})
}
