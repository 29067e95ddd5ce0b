package e2e

import (
	"fmt"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A tutor makes an exercise of a signed job: its engine, with the gaps as they were found; it is begun from
// the page, and taken off the list.
func TestAnExerciseOfASignedJob(t *testing.T) {
	t.Parallel()
	r := demo(t)
	c := played{
		engine: "brindlow-1600",
		school: "one_cylinder",
		round:  round("set_as_you_go", "none"),
		out:    []string{"E3"},
		size:   [2]int{1280, 800},
	}
	job := c.begun(t, r)
	p := open(t, r, "/jobs/"+job, 1280, 800)
	c.drive(t, p, r, job)
	for _, check := range []string{"All tools and leaves", "Socket or handle", "Faces clean"} {
		p.press(check)
	}
	before := stateOf(t, r.base, job).State.Happenings
	p.press("Sign the job")
	waitFor(t, p, r, job, before)

	p.visit("/practice")
	p.press("For the tutor")
	p.waits(`() => document.querySelector('.v-select')`, "the signed jobs")
	p.MustEval(`() => document.querySelector('.v-select').scrollIntoView({ block: 'center' })`)
	p.see(".v-select .v-field").MustClick()
	p.waits(
		`() => [...document.querySelectorAll('.v-list-item')].some(i => i.textContent.includes('Bench stand')
		&& getComputedStyle(i).pointerEvents !== 'none')`,
		"the job",
	)
	p.MustElementR(".v-list-item", "Bench stand").MustClick()
	p.fill("Name of the exercise", "Ours of today")
	p.press("Make an exercise of it")
	p.shows("Ours of today is kept, with the gaps as they were found.")
	var list []struct{ ID, Name, Aid string }
	require.Equal(t, 200, get(t, r.base+"/api/v1/exercises", &list))
	require.Len(t, list, 7)
	var file struct {
		Gaps []struct {
			Valve string
			Gap   float64 `json:"gap_mm"`
		}
	}
	require.Equal(t, 200, get(t, r.base+"/api/v1/exercises/"+list[6].ID, &file))
	assert.GreaterOrEqual(t, len(file.Gaps), 7, "a side only was felt of the one that was out")
	p.press("Take off the list")
	p.shows("was taken off the list")
	require.Equal(t, 200, get(t, r.base+"/api/v1/exercises", &list))
	assert.Len(t, list, 6)
	p.clean()
}

// A study of feel by keys: each hidden gap is read, after a reload it goes on, and at the end it is told how
// far off one reads.
func TestYourFeelMeasured(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/practice/feel", 1024, 768)
	p.press("Begin")
	for n := 1; n <= 15; n++ {
		if n == 3 {
			p.visit("/practice/feel")
			p.press("go on: 2 of 15")
		}
		p.shows(fmt.Sprintf("Gap %d of 15", n))
		p.press("Slide it into the gap")
		p.waits(
			`() => [...document.querySelectorAll('button')].some(b => /^\d\.\d\d drags as it should/.test(b.textContent.trim()) && !b.disabled)`,
			"the leaf to be in",
		)
		p.see(".feel")
		p.keys(input.Enter)
	}
	p.shows("Your readings of one gap lie")
	p.shows("No job takes these figures")
	p.clean()
}
