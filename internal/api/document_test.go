package api_test

import (
	"bytes"
	"encoding/json"
	"flag"
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/job"
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
	require.True(t, bytes.Equal(kept, pretty.Bytes()), "openapi.json is out of date; run: make types")
}

// What the document lets a client send and expect are the kinds, phases, actions and verdicts of the core, no
// more and no fewer.
func TestDocumentNamesWhatTheCoreKnows(t *testing.T) {
	raw, err := api.Document()
	require.NoError(t, err)
	var doc struct {
		Components struct {
			Schemas map[string]struct {
				Properties map[string]struct{ Enum []any }
				OneOf      []any
			}
		}
	}
	require.NoError(t, json.Unmarshal(raw, &doc))
	enum := func(schema, property string) (out []string) {
		for _, value := range doc.Components.Schemas[schema].Properties[property].Enum {
			out = append(out, fmt.Sprint(value))
		}
		return out
	}
	for _, a := range job.Acts() {
		name := "Happening"
		for word := range strings.SplitSeq(string(a.Kind()), "_") {
			name += strings.ToUpper(word[:1]) + word[1:]
		}
		assert.Equal(t, []string{string(a.Kind())}, enum(name, "kind"), "each kind is a part of the union")
	}
	assert.Len(t, doc.Components.Schemas["Happening"].OneOf, len(job.Acts()))
	assert.ElementsMatch(t, texts([]job.Phase{job.ChooseWay, job.Prepare, job.AsFound, job.Adjust, job.Verify,
		job.Sign, job.AwaitHot, job.Done}), enum("JobState", "phase"))
	assert.ElementsMatch(t, texts([]clearance.Verdict{clearance.In, clearance.Tight, clearance.Loose,
		clearance.Undecided}), enum("Judgement", "verdict"))
	assert.ElementsMatch(t,
		texts([]job.Action{job.DoChooseWay, job.DoPrepare, job.DoTurn, job.DoFree, job.DoRead,
			job.DoKeep, job.DoAdjust, job.DoLock,
			job.DoBarOver, job.DoSign, job.DoGoHot, job.DoNothing}), enum("Now", "action"))
}

func texts[T ~string](list []T) (out []string) {
	for _, t := range list {
		out = append(out, string(t))
	}
	return out
}
