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

// fields are the fields of something as they are sent.
type fields map[string]json.RawMessage

// sent is a state as it is sent: its fields but the valves, and each valve. Valves are split into fields only
// where one differs: they are the most of a state, and few change at a time.
type sent struct {
	fields fields
	valves []json.RawMessage
}

// sentOf splits a state, so that two are compared by what a client would see.
func sentOf(s seen.JobState) (*sent, error) {
	out := &sent{valves: make([]json.RawMessage, len(s.Valves))}
	for i, v := range s.Valves {
		var err error
		if out.valves[i], err = json.Marshal(v); err != nil {
			return nil, err
		}
	}
	s.Valves = nil
	data, err := json.Marshal(s)
	if err != nil {
		return nil, err
	}
	err = json.Unmarshal(data, &out.fields)
	delete(out.fields, "valves")
	return out, err
}

// changes are the fields of a state that differ from those before; of the valves those that differ, each by
// its name and its fields that do. Fields that are there no more are named as gone.
func (before *sent) changes(after *sent) (fields, error) {
	changed := []fields{}
	for i, v := range after.valves {
		if bytes.Equal(v, before.valves[i]) {
			continue
		}
		var is, was fields
		if err := errors.Join(json.Unmarshal(v, &is), json.Unmarshal(before.valves[i], &was)); err != nil {
			return nil, err
		}
		differs := is.beyond(was)
		differs["name"] = is["name"]
		changed = append(changed, differs)
	}
	valves, err := json.Marshal(changed)
	if err != nil {
		return nil, err
	}
	is := after.fields.beyond(before.fields)
	is["valves"], is["partial"] = valves, json.RawMessage("true")
	is["clock"], is["newest"] = after.fields["clock"], after.fields["newest"]
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
