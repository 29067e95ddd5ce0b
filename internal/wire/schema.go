//go:build !js

package wire

import (
	"encoding/json"
	"reflect"
	"sync"

	"github.com/danielgtaylor/huma/v2"
)

// EngineSchema is the JSON Schema of the engine sheet, made from Sheet and its parts.
var EngineSchema = sync.OnceValue(func() []byte {
	return Published[Sheet]("urn:metronix:engine:1", "Engine sheet, "+SheetFormat,
		"One engine: cylinders, firing order, banks and rows of valves, cam card, adjuster and "+
			"clearances. Lengths are decimal millimetres with at most six places, angles degrees of crank rotation, "+
			"torque newton-metres, temperature degrees Celsius. What a schema cannot say (each cylinder fires once, "+
			"letters divide among cylinders, angles rise, figures can be meant) the program's check-sheet says.")
})

// Published is the JSON Schema of a format, draft 2020-12, made from the type it is read into and its parts.
func Published[T any](id, title, description string) []byte {
	parts := huma.NewMapRegistry("#/$defs/", huma.DefaultSchemaNamer)
	root := parts.Schema(reflect.TypeFor[T](), false, "")
	parts.Map() // what the root names
	head := map[string]any{
		"$schema":     "https://json-schema.org/draft/2020-12/schema",
		"$id":         id,
		"title":       title,
		"description": description,
		"$defs":       parts.Map(),
	}
	schema, err := json.Marshal(root)
	if err != nil {
		panic(err) // a schema of plain words and numbers always encodes
	}
	if err := json.Unmarshal(schema, &head); err != nil {
		panic(err)
	}
	text, err := json.MarshalIndent(head, "", "  ")
	if err != nil {
		panic(err)
	}
	return append(text, '\n')
}

// between and below state the limits of a number: both included, and from 0 to under one.
func between(s *huma.Schema, least, most float64) { s.Minimum, s.Maximum = &least, &most }

// below bounds a figure of a schema: from 0 to less than most.
func below(s *huma.Schema, most float64) {
	least := 0.0
	s.Minimum, s.ExclusiveMaximum = &least, &most
}

// describe says what fields mean, by their names.
func describe(s *huma.Schema, meanings map[string]string) {
	for field, meaning := range meanings {
		s.Properties[field].Description = meaning
	}
}
