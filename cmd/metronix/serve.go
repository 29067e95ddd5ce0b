package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"os/signal"
	"path/filepath"
	"strings"
	"syscall"
	"time"

	"metronix/internal/api"
	"metronix/internal/demo"
	"metronix/internal/store"
	"metronix/web"
)

const serveHelp = `metronix serve [--listen 127.0.0.1:8080] [--data FILE] [--host NAME]

Serves the program until it is interrupted.
  --listen ADDRESS  address and port; the default is reached from this machine only; port 0 takes a free one
  --data FILE       the data file, made when absent; default metronix.db in the user's data folder
  --host NAME       a host name or address under which others call it, besides localhost (may be repeated)
`

const demoHelp = `metronix demo [--listen 127.0.0.1:8080] [--data FILE]

Serves the program with a made-up workshop: its people, vehicles, engines and jobs. The demo goes into a data file of its
own (default demo.db in the user's data folder); delete that file to begin afresh.
`

const stopTime = 5 * time.Second

type hostList []string

func (h *hostList) String() string     { return strings.Join(*h, ",") }
func (h *hostList) Set(s string) error { *h = append(*h, strings.ToLower(s)); return nil }

func serve(args []string, _ io.Reader, out, errs io.Writer) int {
	return start("serve", serveHelp, "metronix.db", args, out, errs, nil)
}

func serveDemo(args []string, _ io.Reader, out, errs io.Writer) int {
	return start("demo", demoHelp, "demo.db", args, out, errs, demo.Load)
}

func start(name, helpText, file string, args []string, out, errs io.Writer, fill func(*store.Store) error) int {
	flags := flag.NewFlagSet(name, flag.ContinueOnError)
	flags.SetOutput(errs)
	flags.Usage = func() { fmt.Fprint(errs, helpText) }
	listen := flags.String("listen", "127.0.0.1:8080", "")
	data := flags.String("data", "", "")
	var hosts hostList
	flags.Var(&hosts, "host", "")
	if err := flags.Parse(args); err != nil {
		return exitRequest
	}
	if flags.NArg() > 0 {
		fmt.Fprintf(errs, "%q is not understood.\n\n%s", flags.Arg(0), helpText)
		return exitRequest
	}
	if *data == "" {
		*data = defaultData(file)
	}
	listener, err := net.Listen("tcp", *listen)
	if err != nil {
		fmt.Fprintln(errs, addressTrouble(*listen, err))
		return exitAddress
	}
	defer listener.Close()
	st, err := store.Open(*data)
	if err != nil {
		fmt.Fprintln(errs, dataTrouble(err))
		return exitData
	}
	defer st.Close()
	if fill != nil {
		if err := fill(st); err != nil {
			fmt.Fprintf(errs, "The demo could not be loaded: %v.\n", err)
			return exitFailed
		}
	}
	if host, _, err := net.SplitHostPort(*listen); err == nil && host != "" {
		hosts = append(hosts, strings.ToLower(host))
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	handler := api.Handler(st, api.Options{Site: web.Site(), Hosts: hosts, Version: version})
	fmt.Fprintf(out, "Metronix is ready at http://%s\nData file: %s\nStop it with Ctrl+C.\n", listener.Addr(), *data)
	return until(ctx, api.NewHTTPServer(handler), listener, errs)
}

// until serves until the context ends, then lets requests under way finish.
func until(ctx context.Context, server *http.Server, listener net.Listener, errs io.Writer) int {
	failed := make(chan error, 1)
	go func() { failed <- server.Serve(listener) }()
	select {
	case err := <-failed:
		fmt.Fprintf(errs, "The server stopped: %v.\n", err)
		return exitFailed
	case <-ctx.Done():
	}
	finish, cancel := context.WithTimeout(context.Background(), stopTime)
	defer cancel()
	if err := server.Shutdown(finish); err != nil {
		fmt.Fprintf(errs, "Some requests did not finish: %v.\n", err)
		return exitFailed
	}
	return exitOK
}

func defaultData(file string) string {
	if dir := os.Getenv("XDG_DATA_HOME"); dir != "" {
		return filepath.Join(dir, "metronix", file)
	}
	if home, err := os.UserHomeDir(); err == nil {
		return filepath.Join(home, ".local", "share", "metronix", file)
	}
	return file
}

func addressTrouble(address string, err error) string {
	switch {
	case errors.Is(err, syscall.EADDRINUSE):
		return fmt.Sprintf("Another program already listens on %s. Stop it, or choose another port with --listen, for example --listen 127.0.0.1:0.", address)
	case errors.Is(err, syscall.EACCES):
		return fmt.Sprintf("Listening on %s is not permitted. Choose a port above 1023 with --listen.", address)
	}
	return fmt.Sprintf("The address %s cannot be listened on: %v. Give one such as --listen 127.0.0.1:8080.", address, err)
}

func dataTrouble(err error) string {
	switch {
	case errors.Is(err, store.ErrNewer):
		return fmt.Sprintf("%v. Use the newer program, or another file with --data. Nothing was changed.", err)
	case errors.Is(err, store.ErrNotDatabase), errors.Is(err, store.ErrForeign):
		return fmt.Sprintf("%v. Choose another file with --data. Nothing was changed.", err)
	case errors.Is(err, store.ErrUnwritable):
		return fmt.Sprintf("%v. Check the folder and its permissions, or choose another file with --data.", err)
	}
	return fmt.Sprintf("The data file cannot be used: %v.", err)
}
