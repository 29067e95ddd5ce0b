package api

import (
	"bytes"
	"encoding/json"
	"errors"
	"maps"
	"reflect"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"metronix/internal/seen"
)

// stateAnswer is the answer to a happening: the whole state, or, for a screen that asks for changes and knew
// the newest happening, only what differs from what it knew.
type stateAnswer struct {
	seen.JobState
	changed fields // nil: the whole
}

// MarshalJSON writes the whole, or what changed.
func (a stateAnswer) MarshalJSON() ([]byte, error) {
	if a.changed == nil {
		return json.Marshal(a.JobState)
	}
	return json.Marshal(a.changed)
}

// Schema is that of the whole, or of the same with nearly everything left out.
func (stateAnswer) Schema(r huma.Registry) *huma.Schema {
	whole := r.Schema(reflect.TypeFor[seen.JobState](), true, "")
	some := *r.SchemaFromRef(whole.Ref)
	some.Description = "What differs from what the screen knew."
	some.Properties = maps.Clone(some.Properties)
	some.Properties["valves"] = &huma.Schema{Type: huma.TypeArray, Items: changesOf(r, "ValveState", "name")}
	some.Required = []string{"partial", "newest", "clock", "valves"}
	some.PrecomputeMessages()
	r.Map()["JobChanges"] = &some
	return &huma.Schema{AnyOf: []*huma.Schema{whole, {Ref: "#/components/schemas/JobChanges"}}}
}

// changesOf is the schema of what differs of something: all of it may be left out but what tells which it is.
func changesOf(r huma.Registry, of, key string) *huma.Schema {
	some := *r.Map()[of]
	some.Required = []string{key}
	some.Properties = maps.Clone(some.Properties)
	some.Properties["gone"] = &huma.Schema{Type: huma.TypeArray, Items: &huma.Schema{Type: huma.TypeString},
		Description: "the fields that are there no more"}
	some.PrecomputeMessages()
	name := of + "Changes"
	r.Map()[name] = &some
	return &huma.Schema{Ref: "#/components/schemas/" + name}
}

// fields are the fields of a state as they are sent.
type fields map[string]json.RawMessage

// changes are the fields of a state that differ from those before; of the valves those that differ, each by
// its name and its fields that do. Fields that are there no more are named as gone.
func (before fields) changes(after seen.JobState) (fields, error) {
	is, err := fieldsOf(after)
	if err != nil {
		return nil, err
	}
	var was, valves []fields
	if err := errors.Join(json.Unmarshal(before["valves"], &was), json.Unmarshal(is["valves"], &valves)); err != nil {
		return nil, err
	}
	changed := []fields{}
	for i, v := range valves {
		if differs := v.beyond(was[i]); len(differs) > 0 {
			differs["name"] = v["name"]
			changed = append(changed, differs)
		}
	}
	is = is.beyond(before)
	for name, value := range map[string]any{"valves": changed, "partial": true, "clock": after.Clock, "newest": after.Newest} {
		if is[name], err = json.Marshal(value); err != nil {
			return nil, err
		}
	}
	return is, nil
}

// nothing says that changes hold only what they always do: nothing but the clock is otherwise.
func (f fields) nothing() bool { return len(f) == 4 && string(f["valves"]) == "[]" }

// beyond are the fields that are not as they were, and the names of those that are gone.
func (f fields) beyond(was fields) fields {
	out, gone := maps.Clone(f), []string{}
	for name, value := range was {
		switch now, there := f[name]; {
		case !there:
			gone = append(gone, name)
		case bytes.Equal(now, value):
			delete(out, name)
		}
	}
	if len(gone) > 0 {
		slices.Sort(gone)
		out["gone"], _ = json.Marshal(gone) // names always marshal
	}
	return out
}

// fieldsOf splits a state into its fields as they are sent, so that two states are compared by what a client
// would see.
func fieldsOf(s seen.JobState) (f fields, err error) {
	data, err := json.Marshal(s)
	if err != nil {
		return nil, err
	}
	return f, json.Unmarshal(data, &f)
}
