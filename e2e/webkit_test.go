package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"net"
	"net/http"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// webkitTab is a page of WebKitGTK, led by its WebDriver (W3C WebDriver) on a screen of its own.
type webkitTab struct {
	session string   // the address of it
	spoken  []string // by the pages before this one
}

// heard has a page keep what it complains of, from when it is loaded.
const heard = `() => {
	window.complained = []
	addEventListener('error', e => complained.push(String(e.message)))
	addEventListener('unhandledrejection', e => complained.push(String(e.reason)))
	const error = console.error
	console.error = (...what) => { complained.push(what.join(' ')); error(...what) }
}`

// freePort is one that nobody listens at just now.
func freePort(t *testing.T) string {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer l.Close()
	_, port, err := net.SplitHostPort(l.Addr().String())
	require.NoError(t, err)
	return port
}

func webkit(t *testing.T) engine {
	t.Helper()
	screen := make(chan string, 1)
	ended(
		t,
		exec.Command("Xvfb", "-displayfd", "1", "-screen", "0", "1400x1000x24", "-nolisten", "tcp"),
		func(line string) {
			if strings.Trim(line, "0123456789") == "" {
				screen <- line
			}
		},
	)
	w, port := &webkitTab{}, freePort(t)
	driver := exec.Command("WebKitWebDriver", "--port="+port)
	select {
	case n := <-screen:
		driver.Env = append(driver.Environ(), "DISPLAY=:"+n, "HOME="+t.TempDir(), "GDK_BACKEND=x11",
			"LIBGL_ALWAYS_SOFTWARE=1", "WEBKIT_DISABLE_COMPOSITING_MODE=1")
	case <-time.After(time.Minute):
		t.Fatal("the screen does not come up")
	}
	ended(t, driver, func(string) {})
	browsers, err := filepath.Glob("/usr/lib/*/webkit2gtk-4.1/MiniBrowser")
	require.NoError(t, err)
	require.NotEmpty(t, browsers, "WebKitGTK's browser is not installed; make deep installs it")
	w.session = "http://127.0.0.1:" + port + "/session"
	var made struct{ SessionID string }
	asked := map[string]any{"capabilities": map[string]any{"alwaysMatch": map[string]any{
		"webkitgtk:browserOptions": map[string]any{"binary": browsers[0],
			"args": []string{"--automation"}}}}}
	for range 100 {
		if err = w.call("", asked, &made); err == nil {
			break
		}
		time.Sleep(100 * time.Millisecond) // until it listens
	}
	require.NoError(t, err)
	w.session += "/" + made.SessionID
	t.Cleanup(func() {
		request, _ := http.NewRequest(http.MethodDelete, w.session, nil)
		if answer, err := http.DefaultClient.Do(request); err == nil {
			answer.Body.Close()
		}
	})
	require.NoError(
		t,
		w.call("/window/rect", map[string]int{"x": 0, "y": 0, "width": 1280, "height": 860}, nil),
	)
	return w
}

// call posts a command and reads its value.
func (w *webkitTab) call(command string, params, into any) error {
	asked, err := json.Marshal(params)
	if err != nil {
		return err
	}
	answer, err := http.Post(w.session+command, "application/json", bytes.NewReader(asked))
	if err != nil {
		return err
	}
	defer answer.Body.Close()
	var said struct{ Value json.RawMessage }
	if err := json.NewDecoder(answer.Body).Decode(&said); err != nil {
		return err
	}
	if answer.StatusCode != http.StatusOK {
		return fmt.Errorf("%s: %s", command, said.Value)
	}
	if into == nil {
		return nil
	}
	return json.Unmarshal(said.Value, into)
}

func (w *webkitTab) goTo(address string) error {
	w.spoken = w.complaints()
	if err := w.call("/url", map[string]string{"url": address}, nil); err != nil {
		return err
	}
	_, err := w.eval(heard)
	return err
}

func (w *webkitTab) eval(js string) (answer json.RawMessage, err error) {
	err = w.call("/execute/sync", map[string]any{"script": "return (" + js + ")()", "args": []any{}}, &answer)
	return answer, err
}

func (w *webkitTab) tapAt(x, y float64) error {
	return w.call("/actions", map[string]any{"actions": []any{tapping("mouse", x, y)}}, nil)
}

func (w *webkitTab) complaints() []string {
	var now []string
	if answer, err := w.eval(`() => window.complained ?? []`); err == nil {
		_ = json.Unmarshal(answer, &now)
	}
	return append(slices.Clone(w.spoken), now...)
}
