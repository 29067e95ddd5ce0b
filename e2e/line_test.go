package e2e

import (
	"encoding/json"
	"io"
	"net"
	"net/http"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/deep"
	"metronix/internal/seen"
)

// lineIs is what a line between a browser and the program does.
type lineIs int32

const (
	through  lineIs = iota
	cut             // nothing gets through, and who calls is told so
	slow            // an answer takes two seconds
	halfOpen        // it takes a call and never answers
)

// line is a line to the program that can be made worse and better.
type line struct {
	to string
	is atomic.Int32
	mu sync.Mutex
	on map[net.Conn]bool
}

// lineTo lays a line to a program, and gives the program as it is reached by it.
func lineTo(t *testing.T, r *running) (*line, *running) {
	t.Helper()
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	l := &line{to: strings.TrimPrefix(r.base, "http://"), on: map[net.Conn]bool{}}
	t.Cleanup(func() { listener.Close(); l.becomes(cut) })
	go func() {
		for {
			conn, err := listener.Accept()
			if err != nil {
				return
			}
			go l.carry(conn)
		}
	}()
	by := *r
	by.base = "http://" + listener.Addr().String()
	return l, &by
}

// becomes changes the line; what is on it is cut where it does not go on as it was.
func (l *line) becomes(is lineIs) {
	if lineIs(l.is.Swap(int32(is))) == is {
		return
	}
	l.mu.Lock()
	defer l.mu.Unlock()
	for conn := range l.on {
		conn.Close()
		delete(l.on, conn)
	}
}

func (l *line) carry(conn net.Conn) {
	defer conn.Close()
	is := lineIs(l.is.Load())
	if is == cut {
		return
	}
	to, err := net.Dial("tcp", l.to)
	if err != nil {
		return
	}
	defer to.Close()
	l.mu.Lock()
	l.on[conn], l.on[to] = true, true
	l.mu.Unlock()
	if is == halfOpen {
		_, _ = io.Copy(io.Discard, conn)
		return
	}
	go func() {
		defer to.Close()
		_, _ = io.Copy(to, conn)
	}()
	part := make([]byte, 1<<16)
	for {
		n, err := to.Read(part)
		if err != nil {
			return
		}
		if is == slow {
			time.Sleep(2 * time.Second)
		}
		if _, err := conn.Write(part[:n]); err != nil {
			return
		}
	}
}

// flaps cuts the line and lets it through again, until it is told to end.
func (l *line) flaps() (end func()) {
	done := make(chan bool)
	var over sync.WaitGroup
	over.Go(func() {
		for n := 0; ; n++ {
			select {
			case <-done:
				l.becomes(through)
				return
			case <-time.After(600 * time.Millisecond):
				l.becomes([]lineIs{cut, through}[n%2])
			}
		}
	})
	return func() { close(done); over.Wait() }
}

// seenHere is a job as its browser has it: what the program holds, and after it what waits in the browser.
func seenHere(t *testing.T, p *tab, r *running, job string) state {
	t.Helper()
	answer, err := http.Get(r.base + "/api/v1/jobs/" + job + "/opening")
	require.NoError(t, err)
	defer answer.Body.Close()
	text, err := io.ReadAll(answer.Body)
	require.NoError(t, err)
	at, err := seen.Open(text)
	require.NoError(t, err)
	has := map[string]bool{}
	for _, h := range at.List {
		has[h.ID] = true
	}
	kept := p.MustEval(`() => new Promise((done) => {
		const opening = indexedDB.open('metronix')
		opening.onsuccess = () => {
			const all = opening.result.transaction('waits').objectStore('waits').getAll()
			all.onsuccess = () => { opening.result.close(); done(JSON.stringify(all.result)) }
		}
	})`).Str()
	type waits struct {
		At   time.Time
		Body json.RawMessage
	}
	var list []waits
	require.NoError(t, json.Unmarshal([]byte(kept), &list))
	slices.SortFunc(list, func(a, b waits) int { return a.At.Compare(b.At) })
	for _, w := range list {
		var head struct{ ID string }
		require.NoError(t, json.Unmarshal(w.Body, &head))
		if !has[head.ID] {
			require.NoError(t, at.Take(w.Body, w.At), string(w.Body))
		}
	}
	at.Now = time.Now()
	text, err = json.Marshal(seen.StateOf(at))
	require.NoError(t, err)
	s := stateOf(t, r.base, job)
	s.State.Valves = nil
	require.NoError(t, json.Unmarshal(text, &s.State))
	return s
}

// A whole four is read, set, locked, checked and turned round while the line to the program is cut, slow,
// open at one end only and flapping: no tap is lost or done twice, nobody waits for the line, and what waits
// is told. In the end the program has each once and says what the screen said.
func TestAWholeJobOverABadLine(t *testing.T) {
	t.Parallel()
	for name, is := range map[string]lineIs{"cut": cut, "slow": slow, "half-open": halfOpen, "flapping": through} {
		if !deep.On {
			break // they are parts of the one that changes
		}
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			overABadLine(t, func(l *line, _ int) func() {
				if is == through {
					return l.flaps()
				}
				l.becomes(is)
				return func() { l.becomes(through) }
			})
		})
	}
	t.Run("changing", func(t *testing.T) {
		t.Parallel()
		overABadLine(t, func(l *line, n int) func() {
			if n%3 > 0 || n > 9 {
				return nil
			}
			l.becomes([]lineIs{slow, halfOpen, through, cut}[n/3])
			if n < 9 {
				return nil
			}
			return func() { l.becomes(through) }
		})
	})
}

// overABadLine drives the job; worsens is called before each tap until it has said how the line is made well
// again.
func overABadLine(t *testing.T, worsens func(l *line, n int) (end func())) {
	r := demo(t)
	c := played{engine: "brindlow-1600", school: "rocking_pairs", out: []string{"E3"},
		round: map[string]any{"round": "set_as_you_go", "check": "set_ones"}}
	job := c.begun(t, r)
	l, by := lineTo(t, r)
	p := open(t, by, "/jobs/"+job, 1280, 800)
	p.says("Read")
	p.judges()
	begun := stateOf(t, r.base, job).State.Happenings
	end := func() { l.becomes(through) }
	taps, worsened := 0, false
	before := time.Now()
	done := c.driveBy(t, p, func() state {
		s := seenHere(t, p, r, job)
		if !worsened && s.State.Happenings >= begun+taps {
			taps = s.State.Happenings - begun + 1
			if ends := worsens(l, taps-1); ends != nil {
				end, worsened = ends, true
			}
		}
		return s
	})
	took := time.Since(before)
	headline := p.headline()
	if lineIs(l.is.Load()) == cut && worsened {
		for _, check := range []string{"All tools and leaves", "Socket or handle", "Faces clean"} {
			p.press(check)
		}
		p.press("Sign the job")
		p.shows("this can only be done when what waits is sent")
	}
	end()
	l.becomes(through)
	p.waits(`() => !/waits? here|on the way/.test(document.body.innerText)`, "nothing to wait any more")
	s := stateOf(t, r.base, job)
	assert.Equal(t, "sign", s.State.Now.Action)
	assert.Equal(t, seenHere(t, p, r, job).State.Happenings, s.State.Happenings)
	p.says(headline)
	p.again()
	p.says(headline)
	t.Logf("%d taps in %v", done.Gestures, took)
}

// Who leaves while something is on no disk but the browser's is asked; with nothing that waits nobody is.
func TestWhoLeavesIsAskedWhileSomethingWaits(t *testing.T) {
	t.Parallel()
	r := demo(t)
	l, by := lineTo(t, r)
	p := open(t, by, "/jobs/demo-job-tipper", 1280, 800)
	p.says("E3")
	p.judges()
	p.press("0.24 won’t go")
	p.says("E3 is tight")
	p.waits(`() => !/on the way/.test(document.body.innerText)`, "it to be on disk")
	// a browser asks whoever leaves where the page does not let the event pass
	const leaves = `() => window.dispatchEvent(new Event('beforeunload', {cancelable: true}))`
	assert.True(t, p.MustEval(leaves).Bool(), "nothing waits")
	l.becomes(cut)
	p.press("Keep")
	p.says("Read I3")
	p.shows("1 entry waits here")
	assert.False(t, p.MustEval(leaves).Bool(), "one waits")
	p.waits(`() => [...document.querySelectorAll('.valve:has(.waits)')].map(v => v.dataset.valve).join() === 'E3'`,
		"its valve to be marked")
	l.becomes(through)
	p.waits(`() => !/waits? here/.test(document.body.innerText)`, "nothing to wait any more")
	assert.True(t, p.MustEval(leaves).Bool(), "it is on disk")
	p.clean()
}

// While a tablet is cut off and goes on, somebody else reads and keeps its valve: what the tablet did is not
// taken from the first entry on that the program refuses. It stands beside what the other did, is not sent
// before the mechanic has decided, and what he sends after leaving one out is there once.
func TestWhatAnotherHandWasFasterWith(t *testing.T) {
	t.Parallel()
	r := demo(t)
	const id = "demo-job-tipper"
	l, by := lineTo(t, r)
	p := open(t, by, "/jobs/"+id, 360, 740)
	p.says("E3")
	p.judges()
	l.becomes(cut)
	p.press("0.24 won’t go")
	p.says("E3 is tight")
	p.press("Keep")
	p.says("Read I3")
	p.press("0.20 drag")
	p.says("until")
	keptElsewhere(t, r, id, "E3", 0.24)
	before := stateOf(t, r.base, id).State.Happenings
	l.becomes(through)
	p.shows("E3: 0.24 won’t go was not taken: E3 was read and kept by somebody else since")
	p.waits(
		`() => [...document.querySelectorAll('.refused ol')].map(l => [...l.children].map(i => i.textContent).join('; '))
		.join(' | ') === 'E3: 0.24 won’t go; E3: kept | E3: 0.24 won’t go; E3: kept; I3: 0.20 drag'`,
		"both sides",
	)
	p.says("decide")
	assert.Equal(t, before, stateOf(t, r.base, id).State.Happenings, "nothing behind it is sent")
	p.again()
	assert.Equal(t, 1, p.asked, "whether to leave, because something waits")
	p.press("Leave it out, send the 2 after it")
	p.shows("E3: kept was not taken")
	p.press("Leave it out, send the 1 after it")
	waitFor(t, p, r, id, before)
	p.says("until")
	assert.Equal(t, before+1, stateOf(t, r.base, id).State.Happenings, "the reading of I3, once")
	p.waits(`() => !document.querySelector('.refused')`, "nothing to be decided any more")
}

// keptElsewhere is another hand that finds a leaf too thick in a valve, and keeps that.
func keptElsewhere(t *testing.T, r *running, job, valve string, leaf float64) {
	for _, h := range []map[string]any{
		{"id": "other-0001", "kind": "reading", "valve": valve, "leaves_mm": []float64{leaf}, "feel": "wont_go"},
		{"id": "other-0002", "kind": "kept", "valve": valve}} {
		post(t, "POST", r.base+"/api/v1/jobs/"+job+"/happenings", h, nil)
	}
}
