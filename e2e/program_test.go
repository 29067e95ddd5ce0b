package e2e

import (
	"bytes"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// told runs the program to its end and gives exit code, output and errors.
func told(t *testing.T, in string, args ...string) (code int, out, errs string) {
	t.Helper()
	cmd := exec.Command(program, args...)
	var o, e bytes.Buffer
	cmd.Stdin, cmd.Stdout, cmd.Stderr = strings.NewReader(in), &o, &e
	err := cmd.Run()
	if err != nil {
		var exit *exec.ExitError
		require.ErrorAs(t, err, &exit)
	}
	return cmd.ProcessState.ExitCode(), o.String(), e.String()
}

func TestCommandLine(t *testing.T) {
	sheet, err := os.ReadFile("../internal/compute/testdata/four.engine.json")
	require.NoError(t, err)
	code, out, _ := told(t, `{"school":"rocking_pairs","sheet":`+string(sheet)+`}`, "compute", "plan")
	assert.Equal(t, 0, code)
	assert.Contains(t, out, `"applies":true`)
	code, out, errs := told(t, `{"school":"rocking_pairs","shoe":1,"sheet":`+string(sheet)+`}`, "compute",
		"plan")
	assert.Equal(t, 2, code)
	assert.Empty(t, out)
	assert.Contains(t, errs, `"shoe"`)
	assert.Contains(t, errs, `"status": 422`)
	code, _, errs = told(t, `{}`, "compute", "dance")
	assert.Equal(t, 2, code)
	assert.Contains(t, errs, "check-sheet, compare, convert, cooldown, forecast, judge, leaves, locate")

	for _, command := range []string{"serve", "demo", "compute", "probe", "version"} {
		code, out, _ := told(t, "", "help", command)
		assert.Equal(t, 0, code)
		assert.Contains(t, out, "metronix "+command)
	}
	code, out, _ = told(t, "", "version")
	assert.Equal(t, 0, code)
	assert.Contains(t, out, "metronix")
	code, _, errs = told(t, "", "dance")
	assert.Equal(t, 2, code)
	assert.Contains(t, errs, `no command "dance"`)
	code, _, errs = told(t, "", "serve", "--shoe")
	assert.Equal(t, 2, code)
	assert.Contains(t, errs, "--listen ADDRESS")
}

func TestStartTroubles(t *testing.T) {
	taken, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer taken.Close()
	dir := t.TempDir()
	code, _, errs := told(t, "", "serve", "--listen", taken.Addr().String(), "--data",
		filepath.Join(dir, "a.db"))
	assert.Equal(t, 3, code)
	assert.Contains(t, errs, "already listens")

	notes := filepath.Join(dir, "notes.txt")
	require.NoError(t, os.WriteFile(notes, []byte(strings.Repeat("a shopping list\n", 100)), 0o644))
	code, _, errs = told(t, "", "serve", "--listen", "127.0.0.1:0", "--data", notes)
	assert.Equal(t, 4, code)
	assert.Contains(t, errs, "not a database")
	code, _, errs = told(t, "", "serve", "--listen", "127.0.0.1:0", "--data", dir)
	assert.Equal(t, 4, code)
	assert.Contains(t, errs, "cannot be written")
}

// Told to stop, the program finishes and exits with 0; a second start on the same data goes on.
func TestStopAndSecondStart(t *testing.T) {
	r := demo(t)
	require.NoError(t, r.cmd.Process.Signal(syscall.SIGTERM))
	require.NoError(t, r.cmd.Wait())
	again := started(t, "demo", r.data)
	assert.Equal(t, "as_found", stateOf(t, again.base, "demo-job-tipper").State.Phase)
	// An own, empty data file shows an empty board, and a first job can be started in it.
	empty := started(t, "serve", filepath.Join(t.TempDir(), "new", "own.db"))
	answer, err := http.Get(empty.base + "/api/v1/jobs")
	require.NoError(t, err)
	defer answer.Body.Close()
	assert.Equal(t, http.StatusOK, answer.StatusCode)
}
