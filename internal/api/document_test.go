package api_test

import (
	"bytes"
	"encoding/json"
	"flag"
	"os"
	"testing"

	"github.com/stretchr/testify/require"

	"metronix/internal/api"
)

var update = flag.Bool("update", false, "write the OpenAPI document anew")

// The document in the tree, from which the front end's types are made, is the one the routes give.
func TestDocumentIsUpToDate(t *testing.T) {
	raw, err := api.Document()
	require.NoError(t, err)
	var pretty bytes.Buffer
	require.NoError(t, json.Indent(&pretty, raw, "", "  "))
	pretty.WriteByte('\n')
	if *update {
		require.NoError(t, os.WriteFile("openapi.json", pretty.Bytes(), 0o644))
	}
	kept, err := os.ReadFile("openapi.json")
	require.NoError(t, err)
	require.Equal(t, string(kept), pretty.String(), "run: make types")
}
