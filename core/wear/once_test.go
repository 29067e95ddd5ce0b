package wear_test

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"metronix/core/wear"
)

// A few weeks after a new cam the clearances are checked once (common practice): by the calendar, four weeks
// from 3 March 2026 are 31 March.
func TestANewCamIsCheckedOnce(t *testing.T) {
	cam := wear.Once{What: "new cam", From: day("2026-03-03"), FromMeter: 80_000, Weeks: 4, Run: 800}
	on, km, ok := cam.Due(nil)
	assert.True(t, ok)
	assert.Equal(t, day("2026-03-31"), on)
	assert.Equal(t, 80_800.0, km)
	assert.Equal(t, "Once, 4 weeks or 800 km (497 miles) after the new cam.", cam.Cause().String())

	_, _, ok = cam.Due([]time.Time{day("2025-11-01"), day("2026-03-03")})
	assert.True(t, ok, "the job that fitted it is not the check")
	_, _, ok = cam.Due([]time.Time{day("2026-03-24")})
	assert.False(t, ok, "it was checked, early")

	cam.Run, cam.Weeks = 0, 1
	on, km, _ = cam.Due(nil)
	assert.Equal(t, day("2026-03-10"), on)
	assert.True(t, math.IsNaN(km))
	assert.Equal(t, "Once, 1 week after the new cam.", cam.Cause().String())
	cam.Run, cam.Weeks, cam.FromMeter = 800, 0, math.NaN()
	_, _, ok = cam.Due(nil)
	assert.False(t, ok, "so far from an odometer that nobody read is nowhere")
	assert.Equal(t, "Once, 800 km (497 miles) after the new cam.", cam.Cause().String())
}
