//go:build !race

package api_test

import (
	"bytes"
	"fmt"
	"log/slog"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"runtime"
	"runtime/debug"
	"slices"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"metronix/internal/api"
	"metronix/internal/store"
)

// The simulation: screens with queues, the way the browser's queue works, at one job of a real program on a
// real data file. The network between them drops, doubles, delays and reorders; clocks are off; the disk
// fails; the program is killed. All of it follows from one number, on simulated time, so that what fails once
// fails always.

// simulated is one run.
type simulated struct {
	t       *testing.T
	seed    uint64
	chance  *rand.Rand
	now     time.Time    // simulated
	clock   atomic.Int64 // the same, for the program
	path    string
	st      *store.Store
	handler http.Handler // nil: the program does not run
	away    bool         // the data file is not at its place
	screens []*simScreen
	network []simMessage
	acked   map[string]bool
	crank   float64            // where the engine's crank stands in truth, degrees
	readAt  map[string]float64 // where it stood as each reading was made, by its id
	stream  *simStream
	log     []string
	names   int

	crewed  bool              // people are set up
	authors map[string]string // who did each entry in truth, by its id
	cookie  string            // as whom the run itself looks

	held      int // how long the list was when it was looked at last, and by which program
	heldBy    *store.Store
	ackedMore bool
}

// simMessage is something that is on its way.
type simMessage struct {
	due time.Time
	to  func()
}

const simJob = "job-0001"

// TestSimulatedScreens runs a hundred seeds, and those that failed once. A failing seed is printed: it is added to
// testdata/simulated-seeds, and is tried from then on.
func TestSimulatedScreens(t *testing.T) {
	slog.SetDefault(slog.New(slog.DiscardHandler)) // a disk that fails is told each time
	was := debug.SetGCPercent(800)
	most := debug.SetMemoryLimit(1 << 30) // what a program that was killed held is let go of only by two collections
	t.Cleanup(func() { debug.SetGCPercent(was); debug.SetMemoryLimit(most) })
	templates := [2][]byte{simTemplate(t, false), simTemplate(t, true)}
	kept, err := os.ReadFile("testdata/simulated-seeds")
	require.NoError(t, err)
	var seeds []uint64
	for line := range strings.Lines(string(kept)) {
		var seed uint64
		if _, err := fmt.Sscan(line, &seed); err == nil {
			seeds = append(seeds, seed)
		}
	}
	for n := range uint64(100) {
		seeds = append(seeds, n)
	}
	if asked := os.Getenv("METRONIX_SEED"); asked != "" { // one, or from one to another: 200-9999
		var first, last uint64
		if n, err := fmt.Sscanf(asked, "%d-%d", &first, &last); n < 2 {
			require.Equal(t, 1, n, err)
			last = first
		}
		seeds = seeds[:0]
		for seed := first; seed <= last; seed++ {
			seeds = append(seeds, seed)
		}
	}
	dir, lanes := t.TempDir(), runtime.GOMAXPROCS(0)
	for lane := range lanes {
		t.Run(fmt.Sprint("lane ", lane), func(t *testing.T) {
			t.Parallel()
			for i := lane; i < len(seeds) && !t.Failed(); i += lanes {
				simulate(t, seeds[i], templates[seeds[i]%2], dir)
			}
		})
	}
}

// simTemplate is a data file with a job at its first stop, and with people where they are asked for.
func simTemplate(t *testing.T, crewed bool) []byte {
	t.Helper()
	d := withJob(t)
	d.begun()
	d.ok("POST", "/api/v1/jobs/job-0001/happenings", `{"id":"safe-0001","kind":"task","task":"safe"}`)
	if crewed {
		setUpCrew(t, d)
	}
	d.st.Close()
	data, err := os.ReadFile(d.path)
	require.NoError(t, err)
	return data
}

// simulate is one run: some hundred steps of chance, and then all is made well and comes to rest.
func simulate(t *testing.T, seed uint64, template []byte, dir string) {
	s := &simulated{t: t, seed: seed, chance: rand.New(rand.NewPCG(seed, 1976)), acked: map[string]bool{}, readAt: map[string]float64{},
		crewed: seed%2 == 1, authors: map[string]string{},
		path: filepath.Join(dir, fmt.Sprintf("sim-%d.db", seed))}
	require.NoError(t, os.WriteFile(s.path, template, 0o600))
	s.comesTo(time.Now().Add(time.Hour))
	s.start()
	defer func() {
		s.kill()
		for _, beside := range []string{"", "-wal", "-shm", ".away"} {
			_ = os.Remove(s.path + beside)
		}
	}()
	for n := range 2 + s.chance.IntN(2) {
		screen := &simScreen{sim: s, name: string(rune('A' + n)), line: true, stale: true,
			skew: time.Duration(s.chance.IntN(3)-1) * 24 * time.Hour}
		s.screens = append(s.screens, screen)
		screen.settles()
		screen.refresh()
	}
	s.crank = float64(s.screens[0].at.Job.Plan.Stops[0].Crank) // where the template begins
	for range 32 {
		s.step()
		s.holds()
	}
	s.heal()
	s.holds()
	s.rests()
}

// says notes what happened, to be told where it comes to no good.
func (s *simulated) says(format string, args ...any) {
	s.log = append(s.log, fmt.Sprintf(format, args...))
}

// wrong ends the run with all that led to it.
func (s *simulated) wrong(format string, args ...any) {
	s.t.Helper()
	require.FailNow(s.t, fmt.Sprintf("seed %d: %s\n%s", s.seed, fmt.Sprintf(format, args...),
		strings.Join(s.log, "\n")))
}

// start starts the program on its file.
func (s *simulated) start() {
	st, err := store.Open(s.path)
	if err != nil {
		s.wrong("the data file does not open: %v", err)
	}
	s.st = st
	s.handler = api.Handler(st, api.Options{Clock: func() time.Time { return time.Unix(0, s.clock.Load()) }})
	if s.crewed {
		s.cookie = s.signedIn(simCrew[0])
	}
	s.stream = s.watch()
}

// kill ends it; what is on its way to it or from it is lost with it.
func (s *simulated) kill() {
	if s.handler == nil {
		return
	}
	s.stream.end()
	s.handler, s.stream = nil, nil
	s.st.Close()
}

// step is one thing that happens, by chance, after a little time.
func (s *simulated) step() {
	s.passes(time.Duration(s.chance.IntN(2500)) * time.Millisecond)
	screen := s.screens[s.chance.IntN(len(s.screens))]
	switch dice := s.chance.IntN(100); {
	case dice < 64:
		screen.taps()
	case dice < 76:
		screen.line = !screen.line
		s.says("the line of %s: %t", screen.name, screen.line)
	case dice < 84:
		screen.decides()
	case dice < 88:
		screen.signs()
	case dice < 92 && s.handler != nil && !s.away:
		s.says("killed")
		s.kill()
	case dice < 95 && s.handler == nil:
		s.says("started")
		s.start()
	case dice < 98 && s.handler != nil:
		s.disk(s.away)
	case dice == 99 && s.chance.IntN(4) == 0:
		s.says("a week goes by")
		s.passes(7 * 24 * time.Hour)
	default:
		s.passes(time.Duration(s.chance.IntN(40)) * time.Second)
	}
}

// disk takes the data file from its place, so that nothing can be stored, or puts it back.
func (s *simulated) disk(works bool) {
	s.says("the disk works: %t", works)
	from, to := s.path, s.path+".away"
	if works {
		from, to = to, from
	}
	if err := os.Rename(from, to); err != nil {
		s.wrong("%v", err)
	}
	s.away = !works
}

// passes lets time go by, in which what is due arrives and screens send what waits.
func (s *simulated) passes(d time.Duration) {
	end := s.now.Add(d)
	for {
		for _, screen := range s.screens {
			screen.sends()
		}
		slices.SortStableFunc(s.network, func(a, b simMessage) int { return a.due.Compare(b.due) })
		if len(s.network) == 0 || s.network[0].due.After(end) {
			break
		}
		next := s.network[0]
		s.network = s.network[1:]
		s.comesTo(next.due)
		next.to()
	}
	s.comesTo(end)
}

// comesTo moves the clock; it never goes back.
func (s *simulated) comesTo(t time.Time) {
	if t.After(s.now) {
		s.now = t
		s.clock.Store(t.UnixNano())
	}
}

// later has something arrive after a while.
func (s *simulated) later(to func()) {
	wait := time.Duration(5+s.chance.IntN(60)) * time.Millisecond
	if s.chance.IntN(8) == 0 {
		wait = time.Duration(s.chance.IntN(5000)) * time.Millisecond
	}
	s.network = append(s.network, simMessage{s.now.Add(wait), to})
}

// asked is a request to the program by whoever has a cookie; status 0: nobody answers.
func (s *simulated) asked(method, path string, body []byte, cookie string) (status int, answer []byte) {
	status, answer, _ = s.request(method, path, body, cookie)
	return status, answer
}

func (s *simulated) request(method, path string, body []byte, cookie string) (int, []byte, http.Header) {
	if s.handler == nil {
		return 0, nil, nil
	}
	r := httptest.NewRequest(method, "http://localhost"+path, bytes.NewReader(body))
	if body != nil {
		r.Header.Set("Content-Type", "application/json")
	}
	if cookie != "" {
		r.Header.Set("Cookie", cookie)
	}
	w := httptest.NewRecorder()
	s.handler.ServeHTTP(w, r)
	return w.Code, w.Body.Bytes(), w.Header()
}
