// Package e2e drives the built program in a real browser, and kills it.
package e2e

import (
	"bufio"
	"context"
	"flag"
	"fmt"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/launcher"
	"github.com/go-rod/rod/lib/proto"
	"github.com/go-rod/rod/lib/utils"
	"github.com/stretchr/testify/require"

	"metronix/internal/deep"

	load "metronix/internal/demo"
	"metronix/internal/store"
)

// program is the built binary.
var program string

// limit is the longest that one test may wait for one thing: the machine may be busy with others.
var limit = time.Duration(deep.Rounds(150, 240)) * time.Second

// scratch is the folder of this run: the program, and the browser's profile. It is removed with all that is
// in it.
var scratch string

func TestMain(m *testing.M) {
	os.Exit(func() int {
		dir, err := os.MkdirTemp("", "metronix-e2e")
		if err != nil {
			panic(err)
		}
		scratch, program = dir, filepath.Join(dir, "metronix")
		defer os.RemoveAll(dir)
		build := exec.Command("go", "build", "-o", program, "metronix/cmd/metronix")
		build.Stderr = os.Stderr
		if err := build.Run(); err != nil {
			panic(err)
		}
		code := m.Run()
		if shared != nil {
			shared.kill()
		}
		if browser != nil { // it ends with the tests, and its profile with it
			browser.Kill()
			browser.Cleanup()
		}
		if left := runningFrom(dir); len(left) > 0 {
			fmt.Fprintln(os.Stderr, "still running after the tests:", strings.Join(left, ", "))
			return max(code, 1)
		}
		return code
	}())
}

// runningFrom lists the processes that a folder is named in the command line of.
func runningFrom(dir string) (list []string) {
	lines, _ := filepath.Glob("/proc/[0-9]*/cmdline")
	for _, path := range lines {
		if line, err := os.ReadFile(path); err == nil && strings.Contains(string(line), dir) {
			list = append(list, filepath.Base(filepath.Dir(path)))
		}
	}
	return list
}

// soon looks again after a moment: a page here answers in milliseconds, and what is waited for adds up.
func soon() utils.Sleeper {
	return utils.BackoffSleeper(10*time.Millisecond, 100*time.Millisecond, nil)
}

// browser is what started the one browser of all tests; nil: none asked for it.
var browser *launcher.Launcher

var launched = sync.OnceValues(func() (*rod.Browser, error) {
	bin, err := exec.LookPath("chromium-headless-shell")
	if err != nil {
		return nil, fmt.Errorf("chromium-headless-shell is not installed; make test installs it: %w", err)
	}
	browser = launching(bin, filepath.Join(scratch, "profile"), "127.0.0.1")
	address, err := browser.Launch()
	if err != nil {
		return nil, err
	}
	b := rod.New().ControlURL(address).Sleeper(soon)
	return b, b.Connect()
})

// launching is a browser that reaches this machine alone, by an address of it too.
func launching(bin, profile, address string) *launcher.Launcher {
	l := launcher.New().Bin(bin).Leakless(false).NoSandbox(true).Headless(true).UserDataDir(profile).
		Set("disable-gpu").Set("disable-quic").Set("no-first-run").Set("disable-background-networking").
		Set("disable-component-update").Set("disable-sync").Set("force-prefers-reduced-motion").
		Set("host-resolver-rules", "MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost, EXCLUDE "+address)
	if f := flag.Lookup("test.bench"); f == nil || f.Value.String() == "" {
		l.Set("js-flags", "--liftoff-only") // a test is over before what it runs of the bench's module is optimised
	}
	return l
}

// running is a started program.
type running struct {
	base string
	data string
	cmd  *exec.Cmd
}

// started runs the program with a command on a data file and a free port, and waits for its address.
func started(t testing.TB, command, data string, flags ...string) *running {
	t.Helper()
	return startedOn(t, command, data, "127.0.0.1:0", flags...)
}

// startedOn does the same on an address.
func startedOn(t testing.TB, command, data, address string, flags ...string) *running {
	t.Helper()
	r, err := run(command, data, address, flags...)
	require.NoError(t, err)
	t.Cleanup(r.kill)
	return r
}

func run(command, data, address string, flags ...string) (*running, error) {
	cmd := exec.Command(program, append([]string{command, "--listen", address, "--data", data}, flags...)...)
	out, err := cmd.StdoutPipe()
	if err != nil {
		return nil, err
	}
	cmd.Stderr = os.Stderr
	if err := cmd.Start(); err != nil {
		return nil, err
	}
	r := &running{data: data, cmd: cmd}
	line, err := bufio.NewReader(out).ReadString('\n')
	_, base, found := strings.Cut(strings.TrimSpace(line), "ready at ")
	if err != nil || !found {
		r.kill()
		return nil, fmt.Errorf("the program said %q: %w", line, err)
	}
	r.base = base
	return r, nil
}

// kill ends the program at once, without a chance to tidy up.
func (r *running) kill() {
	if r.cmd.ProcessState == nil {
		_ = r.cmd.Process.Kill()
		_ = r.cmd.Wait()
	}
}

// killedAndStarted ends the program without a chance to tidy up, and starts it again on its data file and
// address.
func (r *running) killedAndStarted(t testing.TB) {
	t.Helper()
	r.kill()
	*r = *startedOn(t, "demo", r.data, strings.TrimPrefix(r.base, "http://"))
}

// seeded is a data file with the made-up workshop in it, loaded once and copied for each test.
var seeded = sync.OnceValues(func() ([]byte, error) {
	dir, err := os.MkdirTemp("", "metronix-seed")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(dir)
	path := filepath.Join(dir, "demo.db")
	st, err := store.Open(path)
	if err != nil {
		return nil, err
	}
	err = load.Load(st)
	st.Close() // writes everything into the one file
	if err != nil {
		return nil, err
	}
	return os.ReadFile(path)
})

// shared is that program; nil: nobody looked yet.
var shared *running

// looked is one program on the demo's data for all tests that only look at it and change nothing.
var looked = sync.OnceValues(func() (*running, error) {
	data, err := seeded()
	if err != nil {
		return nil, err
	}
	path := filepath.Join(scratch, "looked.db")
	if err := os.WriteFile(path, data, 0o644); err != nil {
		return nil, err
	}
	shared, err = run("demo", path, "127.0.0.1:0")
	return shared, err
})

// lookedAt is the program that no test changes anything of.
func lookedAt(t testing.TB) *running {
	t.Helper()
	r, err := looked()
	require.NoError(t, err)
	return r
}

func demo(t testing.TB, flags ...string) *running {
	t.Helper()
	data, err := seeded()
	require.NoError(t, err)
	path := filepath.Join(t.TempDir(), "demo.db")
	require.NoError(t, os.WriteFile(path, data, 0o644))
	return started(t, "demo", path, flags...)
}

// tab is one page in a browser context of its own, with what it said and asked for.
type tab struct {
	*rod.Page
	t       testing.TB
	base    string
	mu      sync.Mutex
	spoken  []string // console messages of level warning and error, and uncaught faults
	foreign []string // requests to other hosts
	streams int      // of events that were asked for
	asked   int      // whether to leave, because something waits; it is left
	taps    int      // that were taken
}

func open(t testing.TB, r *running, path string, width, height int) *tab {
	t.Helper()
	p := blank(t, r, width, height)
	p.visit(path)
	return p
}

// blank is a tab of a new browser in which nothing was asked for yet.
func blank(t testing.TB, r *running, width, height int) *tab {
	t.Helper()
	b, err := launched()
	require.NoError(t, err)
	return tabOf(t, b, r.base, width, height)
}

// tabOf is a tab of a browser, with nothing of its other tabs.
func tabOf(t testing.TB, b *rod.Browser, base string, width, height int) *tab {
	t.Helper()
	context_, err := b.Incognito()
	require.NoError(t, err)
	page, err := context_.Page(proto.TargetCreateTarget{})
	require.NoError(t, err)
	ctx, cancel := context.WithCancel(context.Background())
	p := &tab{Page: page.Context(ctx), t: t, base: base}
	t.Cleanup(func() { cancel(); _ = context_.Close() })
	p.listen()
	p.MustSetViewport(width, height, 1, width < 500)
	return p
}

func (p *tab) listen() {
	own, err := url.Parse(p.base)
	require.NoError(p.t, err)
	note := func(list *[]string, text string) {
		p.mu.Lock()
		defer p.mu.Unlock()
		*list = append(*list, text)
	}
	go p.EachEvent(
		func(e *proto.RuntimeConsoleAPICalled) {
			if e.Type == proto.RuntimeConsoleAPICalledTypeError ||
				e.Type == proto.RuntimeConsoleAPICalledTypeWarning {
				text := string(e.Type)
				for _, a := range e.Args {
					text += " " + a.Description + a.Value.String()
				}
				note(&p.spoken, text)
			}
		},
		func(e *proto.RuntimeExceptionThrown) {
			text := e.ExceptionDetails.Text
			if e.ExceptionDetails.Exception != nil {
				text += " " + e.ExceptionDetails.Exception.Description
			}
			note(&p.spoken, text)
		},
		func(e *proto.PageJavascriptDialogOpening) {
			if e.Type == proto.PageDialogTypeBeforeunload {
				p.mu.Lock()
				p.asked++
				p.mu.Unlock()
				go func() { _ = proto.PageHandleJavaScriptDialog{Accept: true}.Call(p) }()
			}
		},
		func(e *proto.LogEntryAdded) {
			if e.Entry.Level == proto.LogLogEntryLevelError ||
				e.Entry.Level == proto.LogLogEntryLevelWarning {
				// asked for, and answered with 404 as it should be
				// and what a browser itself says of a program that was killed is no fault of the page
				gone := strings.Contains(e.Entry.Text, "net::ERR_") && !strings.Contains(e.Entry.Text, "BLOCKED")
				if !strings.Contains(e.Entry.URL, "/no/such/") && !gone {
					note(&p.spoken, e.Entry.Text+" "+e.Entry.URL)
				}
			}
		},
		func(e *proto.NetworkRequestWillBeSent) {
			if strings.HasSuffix(e.Request.URL, "/events") {
				p.mu.Lock()
				p.streams++
				p.mu.Unlock()
			}
			if u, err := url.Parse(e.Request.URL); err == nil && u.Scheme != "data" && u.Scheme != "blob" &&
				u.Host != own.Host {
				note(&p.foreign, e.Request.URL)
			}
		},
	)()
}

func (p *tab) visit(path string) {
	p.t.Helper()
	require.NoError(p.t, p.Timeout(limit).Navigate(p.base+path))
	require.NoError(p.t, p.Timeout(limit).WaitLoad())
	p.see("main")
}
