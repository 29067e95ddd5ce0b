package probe

import (
	"context"
	"fmt"
	"math"
	"net"
	"time"
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
	defer context.AfterFunc(ctx, func() { listener.Close() })()
	for {
		conn, err := listener.Accept()
		if err != nil {
			if ctx.Err() != nil {
				return nil
			}
			return err
		}
		go s.tell(ctx, conn, began)
	}
}

// tell is one client's session.
func (s Simulated) tell(ctx context.Context, conn net.Conn, began time.Time) {
	defer conn.Close()
	defer context.AfterFunc(ctx, func() { conn.Close() })()
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
