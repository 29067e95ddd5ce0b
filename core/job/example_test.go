package job_test

import (
	"fmt"

	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

// A job is what happened; what is next follows from it, and what must not happen is refused in words.
func ExampleJob_Take() {
	j, _ := job.New(jobtest.Setup())
	for i, act := range []job.Act{
		job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}},
		job.Prepared{EngineC: 19, AmbientC: 18},
		job.Turned{Stop: 0},
		job.Adjusted{Valve: "E1"},
	} {
		fmt.Println(j.Brief())
		var err error
		if j, err = j.Take(job.Happening{ID: fmt.Sprint(i), Act: act}); err != nil {
			fmt.Println("refused:", err)
		}
	}
	// Output:
	// Choose the sequence
	// Take the engine’s temperature
	// Turn the crank until cylinder 4 rocks
	// Read E1
	// refused: Read every valve as found before any is touched.
}
