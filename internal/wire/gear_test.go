package wire_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/gear"
	"metronix/internal/golden"
	"metronix/internal/wire"
)

// The front end's own tests are given the gears as they are served: every kind is drawn and worded there.
func TestTheFrontEndsTestsKnowEveryGear(t *testing.T) {
	data, err := json.MarshalIndent(wire.Gears(), "", "  ")
	require.NoError(t, err)
	golden.File(t, "../../web/src/shared/engine/gears.fixture.json", strings.Split(string(data), "\n"))
	assert.Len(t, wire.Gears(), len(gear.Kinds()))
}
