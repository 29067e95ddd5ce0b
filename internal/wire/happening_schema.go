//go:build !js

package wire

import (
	"reflect"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/job"
)

// Schema is the union of all kinds.
func (Happening) Schema(r huma.Registry) *huma.Schema {
	union := &huma.Schema{Discriminator: &huma.Discriminator{PropertyName: "kind",
		Mapping: map[string]string{}}}
	for _, f := range forms {
		name := "Happening" + camel(string(f.kind))
		ref := &huma.Schema{Ref: "#/components/schemas/" + name}
		r.Map()[name] = f.schema(r)
		union.OneOf = append(union.OneOf, ref)
		union.Discriminator.Mapping[string(f.kind)] = ref.Ref
	}
	r.Map()["Happening"] = union
	return &huma.Schema{Ref: "#/components/schemas/Happening"}
}

// camel makes a schema's name of a kind's: reading_taken becomes ReadingTaken.
func camel(kind string) string {
	var name strings.Builder
	for word := range strings.SplitSeq(kind, "_") {
		name.WriteString(strings.ToUpper(word[:1]) + word[1:])
	}
	return name.String()
}

// schema is that of one kind: the header's fields and its own. Where seen is what is seen of the engine, what
// the screen knew has another name.
func (f form) schema(r huma.Registry) *huma.Schema {
	head, own := huma.SchemaFromType(r, reflect.TypeFor[Header]()), huma.SchemaFromType(r, f.fields)
	head.Properties["kind"] = &huma.Schema{Type: huma.TypeString, Enum: []any{string(f.kind)}}
	if !f.sees() {
		delete(head.Properties, "knew")
	}
	for name, property := range own.Properties {
		head.Properties[name] = property
	}
	head.Required = append(head.Required, own.Required...)
	head.PrecomputeMessages()
	return head
}

// limits is the schema of the kind, for what its tags state. It is made once.
func (f form) limits() *huma.Schema {
	published.RLock()
	schema, made := formLimits[f.kind]
	published.RUnlock()
	if made {
		return schema
	}
	published.Lock()
	defer published.Unlock()
	schema = f.schema(published.Registry)
	formLimits[f.kind] = schema
	return schema
}

// formLimits is under the lock of published.
var formLimits = map[job.Kind]*huma.Schema{}
