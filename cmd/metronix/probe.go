package main

import (
	"context"
	"flag"
	"fmt"
	"io"
	"net"
	"os"
	"os/signal"
	"syscall"
	"time"

	"metronix/core/thermal"
	"metronix/internal/probe"
)

const probeHelp = `metronix probe [--listen 127.0.0.1:7070] [--engine 85] [--ambient 18] [--k 0.02] [--speed 1]

A simulated temperature probe: an engine that cools by Newton's law, told over TCP in the line protocol of docs/probe.md until it
is interrupted. Set its address on the page Workshop.
  --listen ADDRESS  address and port; port 0 takes a free one
  --engine C        temperature of the engine at the start, °C
  --ambient C       temperature around it, °C
  --k K             how fast it cools, per minute
  --speed N         so many times as fast as the clock runs
`

func simulateProbe(args []string, _ io.Reader, out, errs io.Writer) int {
	flags := flag.NewFlagSet("probe", flag.ContinueOnError)
	flags.SetOutput(errs)
	flags.Usage = func() { fmt.Fprint(errs, probeHelp) }
	s := probe.Simulated{Every: time.Second}
	listen := flags.String("listen", "127.0.0.1:7070", "")
	flags.Float64Var(&s.StartC, "engine", 85, "")
	flags.Float64Var(&s.AmbientC, "ambient", 18, "")
	flags.Float64Var(&s.K, "k", 0.02, "")
	flags.Float64Var(&s.Speed, "speed", 1, "")
	if err := flags.Parse(args); err != nil {
		return exitRequest
	}
	if !thermal.Possible(s.StartC) || !thermal.Possible(s.AmbientC) || !(s.K > 0) || !(s.Speed > 0) {
		fmt.Fprintf(errs, "An engine has a temperature up to %v °C, and --k and --speed are above 0.\n\n%s",
			thermal.MaxC, probeHelp)
		return exitRequest
	}
	listener, err := net.Listen("tcp", *listen)
	if err != nil {
		fmt.Fprintln(errs, addressTrouble(*listen, err))
		return exitAddress
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	fmt.Fprintf(out, "The simulated probe is ready at %s\nStop it with Ctrl+C.\n", listener.Addr())
	if err := s.Serve(ctx, listener); err != nil {
		fmt.Fprintf(errs, "The probe stopped: %v.\n", err)
		return exitFailed
	}
	return exitOK
}
