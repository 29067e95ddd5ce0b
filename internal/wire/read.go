package wire

import (
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"sync"

	"github.com/danielgtaylor/huma/v2"
)

// Read reads a value of type T from a JSON text, strictly and exactly, and collects everything wrong with it.
func Read[T any](data []byte) (T, Faults) {
	n, err := Parse(data)
	if err != nil {
		var none T
		return none, Faults{{Message: fmt.Sprintf("The request cannot be read: %s.", err)}}
	}
	into, faults := Decode[T](n)
	if len(faults) == 0 {
		faults = limits(data, SchemaOf[T]())
	}
	return into, faults
}

// published holds the schemas of what is read here.
var published = struct {
	sync.Mutex
	huma.Registry
}{Registry: huma.NewMapRegistry("#/", huma.DefaultSchemaNamer)}

// SchemaOf is the schema of a type, by its tags.
func SchemaOf[T any]() *huma.Schema {
	published.Lock()
	defer published.Unlock()
	return published.Schema(reflect.TypeFor[T](), false, "")
}

// limits finds what a text holds beyond the limits that its schema states.
func limits(data []byte, schema *huma.Schema) (faults Faults) {
	var plain any
	if err := json.Unmarshal(data, &plain); err != nil {
		return Faults{{Message: err.Error()}}
	}
	published.Lock()
	defer published.Unlock()
	var result huma.ValidateResult
	huma.Validate(published.Registry, schema, huma.NewPathBuffer(nil, 0), huma.ModeWriteToServer, plain,
		&result)
	for _, err := range result.Errors {
		var at *huma.ErrorDetail
		if errors.As(err, &at) {
			faults = append(faults, Fault{Location: at.Location, Message: at.Message, Value: echo(at.Value)})
		}
	}
	return faults
}
