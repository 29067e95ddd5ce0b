package wire_test

import (
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/wire"
)

func schema(t *testing.T) *jsonschema.Schema {
	t.Helper()
	doc, err := jsonschema.UnmarshalJSON(strings.NewReader(string(wire.EngineSchema())))
	require.NoError(t, err)
	c := jsonschema.NewCompiler()
	require.NoError(t, c.AddResource("engine.json", doc))
	s, err := c.Compile("engine.json")
	require.NoError(t, err)
	return s
}

// A general-purpose validator takes every sheet that the program takes, and what it refuses the program
// refuses too.
func TestSchemaAgreesWithTheProgram(t *testing.T) {
	s := schema(t)
	valid := func(text string) bool {
		v, err := jsonschema.UnmarshalJSON(strings.NewReader(text))
		require.NoError(t, err)
		return s.Validate(v) == nil
	}
	files, err := filepath.Glob("../demo/engines/*.engine.json")
	require.NoError(t, err)
	require.NotEmpty(t, files)
	for _, f := range append(files, "../compute/testdata/four.engine.json") {
		data, err := os.ReadFile(f)
		require.NoError(t, err)
		assert.True(t, valid(string(data)), f)
		read, faults := wire.ReadSheet(data)
		require.Empty(t, faults, f)
		written, err := wire.WriteSheet(read)
		require.NoError(t, err)
		assert.True(t, valid(string(written)), "%s as it is exported", f)
	}
	good := sheet(t)
	for _, spoil := range [][2]string{
		{`"format": "metronix.engine/1"`, `"format": "metronix.engine/2"`}, {`"clockwise"`,
			`"up"`}, {`"cylinders": 4`, `"cylinders": 17`},
		{`"inline"`, `"wave"`}, {`"EIIEEIIE"`, `"EIIEEIIX"`}, {`"marks_deg": [0, 180]`,
			`"marks_deg": [0, 360]`},
		{`"screw_valve_end"`, `"glue"`}, {`"state": "cold"`, `"state": "warm"`}, {`"evc_atdc_deg": 12`,
			`"evc_atdc_deg": 151`}, {`"name"`, `"nmae"`},
	} {
		bad := strings.Replace(good, spoil[0], spoil[1], 1)
		require.NotEqual(t, good, bad)
		assert.False(t, valid(bad), spoil[1])
		_, faults := wire.ReadSheet([]byte(bad))
		assert.NotEmpty(t, faults, spoil[1])
	}
}
