package e2e

import (
	"encoding/json"
	"fmt"
	"os/exec"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/cdp"
	"github.com/stretchr/testify/require"
)

// geckoTab is a page of Firefox ESR, led by WebDriver BiDi (W3C Working Draft) over the socket that it opens
// itself.
type geckoTab struct {
	socket  cdp.WebSocket
	context string
	n       int
	answers chan biDi
	mu      sync.Mutex
	spoken  []string
}

// biDi is what comes back: an answer, or something that happened.
type biDi struct {
	ID      int             `json:"id"`
	Type    string          `json:"type"`
	Result  json.RawMessage `json:"result"`
	Error   string          `json:"error"`
	Message string          `json:"message"`
	Method  string          `json:"method"`
	Params  struct {
		Level string `json:"level"`
		Text  string `json:"text"`
	} `json:"params"`
}

func gecko(t *testing.T) engine {
	t.Helper()
	address := make(chan string, 1)
	cmd := exec.Command("firefox-esr", "--headless", "--no-remote", "--profile", t.TempDir(),
		"--remote-debugging-port", "0", "about:blank")
	cmd.Env = append(cmd.Environ(), "HOME="+t.TempDir())
	ended(t, cmd, func(line string) {
		if _, at, found := strings.Cut(line, "WebDriver BiDi listening on "); found {
			address <- at
		}
	})
	g := &geckoTab{answers: make(chan biDi, 1)}
	select {
	case at := <-address:
		require.NoError(t, g.socket.Connect(t.Context(), at+"/session", nil))
	case <-time.After(time.Minute):
		t.Fatal("Firefox does not say where it listens")
	}
	go g.listen()
	var tree struct {
		Contexts []struct{ Context string }
	}
	for _, c := range []struct {
		method string
		params map[string]any
		into   any
	}{
		{"session.new", map[string]any{"capabilities": map[string]any{}}, nil},
		{"session.subscribe", map[string]any{"events": []string{"log.entryAdded"}}, nil},
		{"browsingContext.getTree", map[string]any{}, &tree},
	} {
		answer, err := g.call(c.method, c.params)
		require.NoError(t, err)
		if c.into != nil {
			require.NoError(t, json.Unmarshal(answer, c.into))
		}
	}
	g.context = tree.Contexts[0].Context
	_, err := g.call("browsingContext.setViewport",
		map[string]any{"context": g.context, "viewport": map[string]int{"width": 1280, "height": 800}})
	require.NoError(t, err)
	return g
}

func (g *geckoTab) listen() {
	for {
		text, err := g.socket.Read()
		if err != nil {
			close(g.answers)
			return
		}
		var said biDi
		if json.Unmarshal(text, &said) != nil {
			continue
		}
		if said.Method == "" {
			g.answers <- said
		} else if said.Params.Level == "error" {
			g.mu.Lock()
			g.spoken = append(g.spoken, said.Params.Text)
			g.mu.Unlock()
		}
	}
}

func (g *geckoTab) call(method string, params map[string]any) (json.RawMessage, error) {
	g.n++
	asked, err := json.Marshal(map[string]any{"id": g.n, "method": method, "params": params})
	if err != nil {
		return nil, err
	}
	if err := g.socket.Send(asked); err != nil {
		return nil, err
	}
	select {
	case said, more := <-g.answers:
		if !more || said.Error != "" {
			return nil, fmt.Errorf("%s: %s %s", method, said.Error, said.Message)
		}
		return said.Result, nil
	case <-time.After(limit):
		return nil, fmt.Errorf("%s is not answered", method)
	}
}

func (g *geckoTab) goTo(address string) error {
	_, err := g.call(
		"browsingContext.navigate",
		map[string]any{"context": g.context, "url": address, "wait": "complete"},
	)
	return err
}

// eval has the answer put as text, for BiDi has forms of its own for what a page answers.
func (g *geckoTab) eval(js string) (json.RawMessage, error) {
	answer, err := g.call("script.evaluate", map[string]any{"expression": "JSON.stringify((" + js + ")())",
		"target": map[string]any{"context": g.context}, "awaitPromise": true})
	if err != nil {
		return nil, err
	}
	var said struct {
		Result           struct{ Value string }
		ExceptionDetails struct{ Text string }
	}
	if err := json.Unmarshal(answer, &said); err != nil || said.ExceptionDetails.Text != "" {
		return nil, fmt.Errorf("%s: %s %w", js, said.ExceptionDetails.Text, err)
	}
	return json.RawMessage(said.Result.Value), nil
}

func (g *geckoTab) tapAt(x, y float64) error {
	_, err := g.call("input.performActions", map[string]any{"context": g.context, "actions": []any{
		tapping("touch", x, y)}})
	return err
}

// tapping is a tap as WebDriver has it (W3C WebDriver, 15.4 "Pointer input").
func tapping(pointer string, x, y float64) map[string]any {
	return map[string]any{
		"type":       "pointer",
		"id":         "finger",
		"parameters": map[string]string{"pointerType": pointer},
		"actions": []map[string]any{{"type": "pointerMove", "x": int(x), "y": int(y), "duration": 0},
			{"type": "pointerDown", "button": 0}, {"type": "pointerUp", "button": 0}},
	}
}

func (g *geckoTab) complaints() []string {
	g.mu.Lock()
	defer g.mu.Unlock()
	return g.spoken
}
