package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/netip"
	"os"
	"os/exec"
	"os/signal"
	"path/filepath"
	"runtime"
	"strings"
	"syscall"
	"time"

	"metronix/internal/api"
	"metronix/internal/demo"
	"metronix/internal/line"
	"metronix/internal/seal"
	"metronix/internal/store"
	"metronix/web"
)

const serveHelp = `metronix serve [--listen 127.0.0.1:8080] [--data FILE] [--host NAME] [--hand-out PORT] [--unprotected] [--probe-net NETWORK]
                [--backups FOLDER] [--every 24h]

Serves the program until it is interrupted.
  --listen ADDRESS     address and port; the default is reached from this machine only; port 0 takes a free one; 0.0.0.0 is every
                       address of this machine. Where others reach it, people sign in, and the line is encrypted under an
                       authority of the workshop's own, which lies in FILE.authority
  --data FILE          the data file, made when absent; default metronix.db in the user's data folder
  --host NAME          a further host name or address under which others call it (may be repeated)
  --hand-out PORT      the port of the page that puts that authority on tablets; default: the next one
  --open               open the program's page in this machine's browser
  --unprotected        give that up: nothing is encrypted, so that PINs and sheets can be read and changed on the way, and as long as
                       nobody is set up whoever reaches the address can do everything
  --backups FOLDER     a folder of this workshop's own, best on another disk, for checked copies of the data file, made by themselves;
                       older ones are let go of: each hour of a day, day of a week, week of five and month of a year keeps one
  --every TIME         the time between two, such as 5m or 24h; default 24h
  --probe-net NETWORK  a network in which a temperature probe may stand besides this machine, such as 192.0.2.0/24 (may be repeated)
`

const demoHelp = `metronix demo [--listen 127.0.0.1:8080] [--data FILE] [--host NAME] [--probe-net NETWORK]

Serves the program with a made-up workshop: its people, vehicles, engines and jobs. The demo goes into a data file of its
own (default demo.db in the user's data folder). To begin afresh, stop the program and delete that file.
`

const stopTime = 5 * time.Second

func serve(args []string, _ io.Reader, out, errs io.Writer) int {
	return start(service{name: "serve", help: serveHelp, file: "metronix.db"}, args, out, errs)
}

func serveDemo(args []string, _ io.Reader, out, errs io.Writer) int {
	return start(service{name: "demo", help: demoHelp, file: "demo.db", fill: demo.Load}, args, out, errs)
}

// service is what serve and demo differ in.
type service struct {
	name, help, file string
	fill             func(*store.Store) error // nil: nothing is put into an empty file
}

// wishes are the flags of a service.
type wishes struct {
	listen, data string
	hosts        []string
	probes       line.Allowed
	handOut      int // below 0: the next one
	unprotected  bool
	open         bool   // in this machine's browser
	backups      string // empty: none are made
	every        time.Duration
}

func (s service) wishes(args []string, errs io.Writer) (w wishes, ok bool) {
	flags := flag.NewFlagSet(s.name, flag.ContinueOnError)
	flags.SetOutput(errs)
	flags.Usage = func() { fmt.Fprint(errs, s.help) }
	flags.StringVar(&w.listen, "listen", "127.0.0.1:8080", "")
	flags.StringVar(&w.data, "data", defaultData(s.file), "")
	flags.IntVar(&w.handOut, "hand-out", -1, "")
	flags.BoolVar(&w.unprotected, "unprotected", false, "")
	flags.BoolVar(&w.open, "open", false, "")
	flags.StringVar(&w.backups, "backups", "", "")
	flags.DurationVar(&w.every, "every", 24*time.Hour, "")
	flags.Func("host", "", func(text string) error {
		host, err := hostName(text)
		w.hosts = append(w.hosts, host)
		return err
	})
	flags.Func("probe-net", "", func(text string) error {
		network, err := netip.ParsePrefix(text)
		w.probes = append(w.probes, network)
		return err
	})
	if err := flags.Parse(args); err != nil {
		return w, false
	}
	if flags.NArg() > 0 {
		fmt.Fprintf(errs, "%q is not understood.\n\n%s", flags.Arg(0), s.help)
		return w, false
	}
	if w.every < time.Minute {
		fmt.Fprintf(errs, "--every %s: backups are made a minute apart at least.\n", w.every)
		return w, false
	}
	return w, true
}

func start(s service, args []string, out, errs io.Writer) int {
	w, ok := s.wishes(args, errs)
	if !ok {
		return exitRequest
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM, syscall.SIGHUP,
		syscall.SIGQUIT)
	defer stop() // from here on a closed terminal stops it cleanly
	listener, err := net.Listen("tcp", w.listen)
	if err != nil {
		fmt.Fprintln(errs, addressTrouble(w.listen, err))
		return exitAddress
	}
	defer listener.Close()
	if s.fill != nil {
		if err := store.Filled(w.data, s.fill); err != nil {
			fmt.Fprintf(errs, "The demo could not be loaded: %v.\n", err)
			return exitFailed
		}
	}
	began := emptied(w.data)
	st, told, err := store.OpenAndTell(w.data)
	if err != nil {
		fmt.Fprintln(errs, dataTrouble(err))
		return exitData
	}
	defer st.Close()
	if began {
		fmt.Fprintf(errs, "%s was there and empty: a new workshop is begun in it. If it should hold your "+
			"data, stop now and restore a backup.\n", w.data)
	}
	if told.Copy != "" {
		fmt.Fprintf(out, "The data file is of an earlier version: it was copied to %s and then brought up "+
			"to date.\n", told.Copy)
	}
	places, open := reachable(listener.Addr(), w.listen)
	called := w.called(listener.Addr())
	options := api.Options{Site: web.Site(), Hosts: called, Version: version,
		Probes: w.probes, Until: ctx.Done()}
	scheme, wrap := "http", func(l net.Listener) net.Listener { return l }
	var d *doors
	if open && !w.unprotected {
		if d, err = protect(w, listener, places, called); err != nil {
			fmt.Fprintf(errs, "The line cannot be protected: %v.\n", err)
			return exitAddress
		}
		defer d.close()
		scheme, wrap = "https", d.wrap
		options.HandOut, options.SetUp = &d.hand, d.code
	}
	if options.Seal, err = seal.Open(w.data + ".key"); err != nil {
		fmt.Fprintf(errs, "Sheets cannot be sealed: %v.\n", err)
		return exitData
	}
	if err := st.KeyInUse(options.Seal.Fingerprint(), time.Now()); err != nil {
		fmt.Fprintln(errs, dataTrouble(err))
		return exitData
	}
	kept, err := keeper(ctx, w, st)
	if err != nil {
		fmt.Fprintln(errs, dataTrouble(err))
		return exitData
	}
	if kept != nil {
		options.Backups = kept
	}
	if s.fill == nil { // the demo needs none beside it
		beside := &scratch{ip: listener.Addr().(*net.TCPAddr).IP.String(), hosts: options.Hosts, wrap: wrap}
		defer beside.Close()
		options.Demo = beside.Port
	}
	handler, err := api.Ready(ctx, st, options)
	if err != nil {
		fmt.Fprintln(errs, dataTrouble(err))
		return exitData
	}
	fmt.Fprintf(out, "Metronix is ready at %s\nData file: %s\nStop it with Ctrl+C.\n",
		strings.Join(addresses(scheme, places, listener.Addr()), "\n  and at "), w.data)
	if w.open {
		if err := show(addresses(scheme, places, listener.Addr())[0]); err != nil {
			fmt.Fprintf(errs, "No browser opens by itself here (%v): open the address yourself.\n", err)
		}
	}
	switch nobody, err := st.Nobody(); {
	case err != nil:
		fmt.Fprintln(errs, dataTrouble(err))
		return exitData
	case d != nil:
		d.tell(out, nobody)
	case open:
		fmt.Fprintln(out, "Nothing is encrypted on the way to these addresses. Keep them inside the workshop's own network.")
		fallthrough
	case nobody:
		if nobody {
			fmt.Fprintln(out, "Nobody is set up: whoever reaches the program can read and write. Set people up under Workshop.")
		}
	}
	return until(ctx, api.NewHTTPServer(handler), wrap(listener), errs)
}

// show opens an address in this machine's browser.
func show(address string) error {
	switch runtime.GOOS {
	case "windows":
		return exec.Command("rundll32", "url.dll,FileProtocolHandler", address).Start()
	case "darwin":
		return exec.Command("open", address).Start()
	}
	return exec.Command("xdg-open", address).Start()
}

// emptied says that a data file is there and holds nothing.
func emptied(path string) bool {
	info, err := os.Stat(path)
	return err == nil && info.Mode().IsRegular() && info.Size() == 0
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
	if folder := os.Getenv("LOCALAPPDATA"); runtime.GOOS == "windows" && folder != "" {
		return filepath.Join(folder, "Metronix", file)
	}
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
		return fmt.Sprintf("Another program already listens on %s. Stop it, or choose another port with "+
			"--listen, for example --listen 127.0.0.1:0.", address)
	case errors.Is(err, syscall.EACCES):
		return fmt.Sprintf("Listening on %s is not permitted. Choose a port above 1023 with --listen.",
			address)
	}
	return fmt.Sprintf("The address %s cannot be listened on: %v. Give one such as --listen 127.0.0.1:8080.",
		address, err)
}

func dataTrouble(err error) string {
	switch {
	case errors.Is(err, store.ErrInUse):
		return fmt.Sprintf("%v. Stop that program first, or choose another file with --data.", err)
	case errors.Is(err, store.ErrDamaged):
		return fmt.Sprintf("%v. Nothing was changed. Look at it with metronix check, or take the last "+
			"backup back with metronix restore.", err)
	case errors.Is(err, store.ErrHalf):
		return fmt.Sprintf("%v.", err)
	case errors.Is(err, store.ErrEmpty):
		return fmt.Sprintf("%v: there is nothing to look at.", err)
	case errors.Is(err, store.ErrFull):
		return fmt.Sprintf("%v. Make room on the disk first.", err)
	case errors.Is(err, store.ErrNewer):
		return fmt.Sprintf("%v. Use the newer program, or another file with --data. Nothing was changed.",
			err)
	case errors.Is(err, store.ErrNotDatabase), errors.Is(err, store.ErrForeign):
		return fmt.Sprintf("%v. Choose another file with --data. Nothing was changed.", err)
	case errors.Is(err, store.ErrUnwritable):
		return fmt.Sprintf("%v. Check the folder and its permissions, or choose another file with --data.",
			err)
	}
	return fmt.Sprintf("The data file cannot be used: %v.", err)
}
