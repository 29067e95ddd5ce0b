package probe

import (
	"context"
	"fmt"
	"math"
	"net"
	"time"

	"metronix/internal/line"
)

// Simulated is an engine that cools by Newton's law: from StartC towards AmbientC with K per minute, Speed
// times as fast as the clock runs.
type Simulated struct {
	StartC, AmbientC, K, Speed float64
	Every                      time.Duration // between lines
}

// At is the reading after so long.
func (s Simulated) At(since time.Duration) Reading {
	return Reading{s.AmbientC + (s.StartC-s.AmbientC)*math.Exp(-s.K*s.Speed*since.Minutes()), s.AmbientC}
}

// Serve tells every client that connects, until the context ends.
func (s Simulated) Serve(ctx context.Context, listener net.Listener) error {
	began := time.Now()
	return line.Serve(ctx, listener, func(ctx context.Context, conn net.Conn) { s.tell(ctx, conn, began) })
}

// tell is one client's session.
func (s Simulated) tell(ctx context.Context, conn net.Conn, began time.Time) {
	if _, err := fmt.Fprintln(conn, Greeting); err != nil {
		return
	}
	tick := time.NewTicker(s.Every)
	defer tick.Stop()
	for {
		if _, err := fmt.Fprintln(conn, s.At(time.Since(began))); err != nil {
			return // the client is gone
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}
