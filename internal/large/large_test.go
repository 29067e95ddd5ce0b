package large_test

import (
	"context"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"runtime/debug"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
	"metronix/internal/deep"
	"metronix/internal/demo"
	"metronix/internal/store"
)

// What goes through all there is – the start, the export, the import and the check – holds one job at a time,
// and no more in a workshop with 450 jobs than in one with 250, but for the table of contents of an archive,
// which names each file with its sum: measured in processes of their own, by the most memory that each had.
// The long tests do it with 100,000 jobs, and say how long each took.
func TestMemoryDoesNotGrowWithTheJobs(t *testing.T) {
	few, lots := 250, deep.Rounds(450, 100_000)
	grew := map[string]int{}
	for _, jobs := range []int{few, lots} {
		path := workshop(t, jobs)
		archive := filepath.Join(t.TempDir(), "all.zip")
		for _, what := range []string{"start", "export", "import", "check"} {
			data := path
			if what == "import" {
				data = filepath.Join(t.TempDir(), "into.db")
			}
			peak, took := inAChild(t, what, data, archive)
			t.Logf("%6d jobs: %-6s %4d MB, %s", jobs, what, peak>>10, took)
			if jobs == few {
				grew[what] = -peak
				continue
			}
			grew[what] += peak
		}
	}
	for what, kb := range grew {
		assert.LessOrEqual(
			t,
			kb,
			12<<10+lots*3/2, // a job that is held takes about 200 kB (measured)
			"%s needs %d kB more with %d jobs than with %d",
			what,
			kb,
			lots,
			few,
		)
	}
}

// workshop is a data file with so many finished jobs, fifty a vehicle, and the demo's.
func workshop(t *testing.T, jobs int) string {
	t.Helper()
	path := filepath.Join(t.TempDir(), "large.db")
	st, err := store.Open(path)
	require.NoError(t, err)
	defer st.Close()
	require.NoError(t, demo.Load(st))
	of, err := st.Job("demo-job-bus")
	require.NoError(t, err)
	first := of.CreatedAt.AddDate(-6, 0, 0)
	var copies []store.Copy
	for i := range jobs {
		id, turn := fmt.Sprintf("large-%05d", i/50), i%50
		if turn == 0 {
			require.NoError(
				t,
				st.AddVehicle(store.Vehicle{ID: id, Name: "Mower " + id, EngineID: of.Vehicle.EngineID,
					CreatedAt: first}),
			)
		}
		copies = append(copies, store.Copy{ID: fmt.Sprintf("copy-%06d", i), VehicleID: id,
			CreatedAt: first.AddDate(0, 0, 30*turn), Meter: 1_000 + 2_000*turn})
	}
	require.NoError(t, st.AddCopies(of.ID, copies))
	_, err = api.Ready(t.Context(), st, api.Options{})
	require.NoError(t, err)
	return path
}

// inAChild does something with a data file in a process of its own: the most memory it had, kB, and how long
// it took.
func inAChild(t *testing.T, what, data, archive string) (peak int, took string) {
	t.Helper()
	cmd := exec.Command(os.Args[0], "-test.run", "^TestChildThatIsMeasured$")
	cmd.Env = append(
		os.Environ(),
		"METRONIX_MEASURED="+what,
		"METRONIX_DATA="+data,
		"METRONIX_ARCHIVE="+archive,
	)
	out, err := cmd.CombinedOutput()
	require.NoError(t, err, string(out))
	_, line, _ := strings.Cut(string(out), "measured ")
	_, err = fmt.Sscan(line, &peak, &took)
	require.NoError(t, err, string(out))
	return peak, took
}

// TestChildThatIsMeasured is the process that inAChild starts.
func TestChildThatIsMeasured(t *testing.T) {
	what := os.Getenv("METRONIX_MEASURED")
	if what == "" {
		return
	}
	debug.SetGCPercent(50)
	data, archive, begun := os.Getenv("METRONIX_DATA"), os.Getenv("METRONIX_ARCHIVE"), time.Now()
	ctx := context.Background()
	if what == "check" {
		found, err := store.Inspect(data, api.Check(ctx))
		require.NoError(t, err)
		require.Empty(t, found.Troubles)
	} else {
		st, err := store.Open(data)
		require.NoError(t, err)
		defer st.Close()
		switch what {
		case "start":
			_, err = api.Ready(ctx, st, api.Options{})
		case "export":
			err = store.Publish(archive, func(f *os.File) error {
				_, err := st.WriteArchive(f, "test", begun)
				return err
			})
		case "import":
			var f *os.File
			f, err = os.Open(archive)
			require.NoError(t, err)
			info, statErr := f.Stat()
			require.NoError(t, statErr)
			_, err = st.ReadArchive(f, info.Size(), begun, api.Admission())
		}
		require.NoError(t, err)
	}
	took := time.Since(begun).Round(time.Millisecond)
	status, err := os.ReadFile("/proc/self/status") // VmHWM is this process's own peak, proc(5)
	require.NoError(t, err)
	_, peak, _ := strings.Cut(string(status), "VmHWM:")
	var kb int
	_, err = fmt.Sscan(peak, &kb)
	require.NoError(t, err)
	fmt.Println("measured", kb, took)
}
