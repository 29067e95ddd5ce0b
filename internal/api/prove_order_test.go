package api_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// An order from somewhere is proved against the sheet of an engine or of a job; a slip is named by its line.
func TestIsThisOrderRight(t *testing.T) {
	d := withJob(t)
	for _, path := range []string{"/api/v1/engines/engine-01/prove-order", "/api/v1/jobs/job-0001/prove-order"} {
		p := d.ok("POST", path, `{"text":"4 rocks: 1\n2 rocks: 3\n1 rocks: 4\n3 rocks: 2"}`)
		assert.Equal(t, true, p["right"])
		assert.Equal(t, "This order is right for this engine: every valve is set once, clear by at least 20°.", p["says"])
		assert.InDelta(t, 540, p["turn_deg"], 1e-9)
		assert.Equal(t, "cylinder 4 is rocking", p["stops"].([]any)[0].(map[string]any)["place"])
		p = d.ok("POST", path, `{"text":"1 rocks: 1, E3\n2 rocks: E3"}`)
		assert.Equal(t, false, p["right"])
		assert.Contains(t, p["says"], "valves are not clear where they are set; none of its stops sets I2, E2")
		assert.Contains(t, p["says"], "E3 set more than once")
		p = d.ok("POST", path, `{"text":"4 rocks: 1\nhalf past: 2"}`)
		assert.Equal(t, "1 line cannot be read.", p["says"])
		slip := p["slips"].([]any)[0].(map[string]any)
		assert.InDelta(t, 2, slip["line"], 0)
		assert.Contains(t, slip["says"], "write “4 rocks”, “1 TDC”")
		assert.Empty(t, p["stops"])
	}
	status, _ := d.send("POST", "/api/v1/engines/gone/prove-order", `{"text":""}`)
	assert.Equal(t, 404, status)
}
