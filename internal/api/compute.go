package api

import (
	"context"
	"encoding/json"
	"net/http"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	"metronix/internal/compute"
	"metronix/internal/wire"
)

// computeOutput is an answer that package compute has written already.
type computeOutput struct{ Body json.RawMessage }

// computeRoutes serves every computation, each with the schemas of its request and its answer. The command
// line calls the same ones.
func computeRoutes(a huma.API) {
	for _, op := range compute.Operations() {
		answer := &huma.MediaType{Schema: a.OpenAPI().Components.Schemas.Schema(op.Response, true, "")}
		o := huma.Operation{OperationID: "compute-" + op.Name, Method: http.MethodPost,
			Path:         "/api/v1/compute/" + op.Name,
			MaxBodyBytes: maxBody, Summary: op.About, Errors: []int{http.StatusUnprocessableEntity},
			Responses: map[string]*huma.Response{"200": {Description: "OK",
				Content: map[string]*huma.MediaType{"application/json": answer}}}}
		strictlyOf(a, op.Request)(&o)
		huma.Register(a, o, func(_ context.Context, in *rawInput) (*computeOutput,
			error) {
			return computed(op.Name, in.RawBody)
		})
	}
	huma.Register(a, huma.Operation{OperationID: "compute", Method: http.MethodPost,
		Path: "/api/v1/compute/{operation}", Hidden: true,
		MaxBodyBytes: maxBody, SkipValidateBody: true,
	}, func(_ context.Context, in *unknownOperation) (*computeOutput, error) {
		return computed(in.Operation, in.RawBody)
	})
}

// unknownOperation is any name that is none, which is refused as other requests that cannot be right are.
type unknownOperation struct {
	Operation string `path:"operation" maxLength:"64"`
	RawBody   []byte `contentType:"application/json"`
}

// computed carries out an operation and puts its faults where they belong in the request.
func computed(operation string, request []byte) (*computeOutput, error) {
	answer, p := compute.Run(operation, request)
	if p != nil {
		return nil, located(p.Status, p.Detail, p.Errors...)
	}
	return &computeOutput{Body: answer}, nil
}

// exactBody is the key under which an operation keeps the schema of a body that is read strictly and exactly
// by package wire, instead of by the framework: which takes such a body for bytes, until describeBodies says
// better.
const exactBody = "exact body"

// strictly makes an operation's body one of type T: its handler calls readBody.
func strictly[T any](a huma.API) func(*huma.Operation) { return strictlyOf(a, reflect.TypeFor[T]()) }

// strictlyOf is [strictly] for a type that is known only when the program runs: the requests of the
// computations come out of their table.
func strictlyOf(a huma.API, t reflect.Type) func(*huma.Operation) {
	return func(o *huma.Operation) {
		o.SkipValidateBody = true
		o.Metadata = map[string]any{exactBody: a.OpenAPI().Components.Schemas.Schema(t, true, "")}
	}
}

// describeBodies writes the schemas of exact bodies into the document, once all routes are made.
func describeBodies(doc *huma.OpenAPI) {
	for _, path := range doc.Paths {
		for _, o := range []*huma.Operation{path.Post, path.Put} {
			if o == nil || o.Metadata[exactBody] == nil {
				continue
			}
			body := &huma.MediaType{Schema: o.Metadata[exactBody].(*huma.Schema)}
			o.RequestBody = &huma.RequestBody{Required: true,
				Content: map[string]*huma.MediaType{"application/json": body}}
		}
	}
}

// readBody reads a body, or says everything that is wrong with it.
func readBody[T any](data []byte) (T, error) {
	body, faults := wire.Read[T](data)
	return body, unreadable(faults)
}

// unreadable is the problem with a body that does not read; nil where nothing is wrong with it.
func unreadable(faults wire.Faults) error {
	if len(faults) == 0 {
		return nil
	}
	say := faults[0].Message
	if at := faults[0].Location; at != "" {
		say = at + ": " + say
	}
	return located(http.StatusUnprocessableEntity, "What was sent cannot be taken. "+say,
		faults.In("body")...)
}
