//go:build !js

package wire

import (
	"encoding/json"
	"errors"
	"reflect"
	"sync"

	"github.com/danielgtaylor/huma/v2"
)

// published holds the schemas of what is read here. Schemas are made under its lock; what is read is held
// against them by many at once.
var published = struct {
	sync.RWMutex
	huma.Registry
}{Registry: huma.NewMapRegistry("#/", huma.DefaultSchemaNamer)}

// SchemaOf is the schema of a type, by its tags.
func SchemaOf[T any]() *huma.Schema {
	published.Lock()
	defer published.Unlock()
	return published.Schema(reflect.TypeFor[T](), false, "")
}

// limits finds what a value holds beyond the limits that its schema states.
func limits(n Node, schema *huma.Schema) (faults Faults) {
	published.RLock()
	defer published.RUnlock()
	var result huma.ValidateResult
	huma.Validate(published.Registry, schema, huma.NewPathBuffer(nil, 0), huma.ModeWriteToServer, plain(n),
		&result)
	for _, err := range result.Errors {
		var at *huma.ErrorDetail
		if errors.As(err, &at) {
			faults = append(faults, Fault{Location: at.Location, Message: at.Message, Value: echo(at.Value)})
		}
	}
	return faults
}

// plain is a value as the standard library would read it: what is held against a schema.
func plain(n Node) any {
	switch n := n.(type) {
	case json.Number:
		f, _ := n.Float64() // that it is none was a fault of its field
		return f
	case []Node:
		out := make([]any, len(n))
		for i, item := range n {
			out[i] = plain(item)
		}
		return out
	case object:
		out := make(map[string]any, len(n.values))
		for key, value := range n.values {
			out[key] = plain(value)
		}
		return out
	}
	return n
}

// beyond finds what a value holds beyond the limits that the tags of its type state.
func beyond[T any](n Node) Faults { return limits(n, SchemaOf[T]()) }

// beyond finds what a happening holds beyond the limits that its fields' tags state.
func (f form) beyond(n Node) Faults { return limits(n, f.limits()) }
