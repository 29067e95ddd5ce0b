package main

import (
	"context"
	"flag"
	"fmt"
	"io"
	"net"
	"os/signal"
	"slices"
	"syscall"

	"os"

	"metronix/internal/instrument"
)

const instrumentHelp = `metronix instrument KIND [--listen 127.0.0.1:7071] [--speed N]

A simulated instrument at an engine, told over TCP in the line protocol of docs/instruments.md until it is interrupted. Set
its address on the page Workshop. KIND is crank (an encoder), dial (a dial indicator), wrench (a torque wrench) or pull (a scale
that pulls the leaf). It is worked by lines that are typed:
` + instrument.Commands + `
  --listen ADDRESS  address and port; port 0 takes a free one
  --speed N         how fast its value moves, in its own unit a second; default 90
`

func simulateInstrument(args []string, in io.Reader, out, errs io.Writer) int {
	flags := flag.NewFlagSet("instrument", flag.ContinueOnError)
	flags.SetOutput(errs)
	flags.Usage = func() { fmt.Fprint(errs, instrumentHelp) }
	listen := flags.String("listen", "127.0.0.1:7071", "")
	speed := flags.Float64("speed", 90, "")
	if len(args) == 0 || !slices.Contains(instrument.Kinds(), instrument.Kind(args[0])) {
		fmt.Fprintf(errs, "Say which kind of instrument: crank, dial, wrench or pull.\n\n%s", instrumentHelp)
		return exitRequest
	}
	if err := flags.Parse(args[1:]); err != nil {
		return exitRequest
	}
	if !(*speed > 0) || flags.NArg() > 0 {
		fmt.Fprintf(errs, "--speed is above 0, and nothing else follows.\n\n%s", instrumentHelp)
		return exitRequest
	}
	listener, err := net.Listen("tcp", *listen)
	if err != nil {
		fmt.Fprintln(errs, addressTrouble(*listen, err))
		return exitAddress
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	bench := &instrument.Bench{Kind: instrument.Kind(args[0]), Speed: *speed}
	fmt.Fprintf(out, "The simulated %s is ready at %s\nStop it with Ctrl+C.\n", bench.Kind.Trait().Name, listener.Addr())
	go bench.Work(in, out)
	if err := bench.Serve(ctx, listener); err != nil {
		fmt.Fprintf(errs, "It stopped: %v.\n", err)
		return exitFailed
	}
	return exitOK
}
