package api

import (
	"context"
	"encoding/json"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"metronix/internal/compute"
)

type computeInput struct {
	Operation string `path:"operation" maxLength:"64" doc:"The operation's name."`
	RawBody   []byte `contentType:"application/json"`
}

type computeOutput struct {
	Body json.RawMessage
}

// computeRoutes serves the one registry of computations.
func computeRoutes(a huma.API) {
	huma.Register(a, huma.Operation{
		OperationID: "compute", Method: http.MethodPost, Path: "/api/v1/compute/{operation}", MaxBodyBytes: maxBody,
		Summary: "Carry out one computation of the core", Errors: []int{http.StatusUnprocessableEntity},
		SkipValidateBody: true, RequestBody: anyObject("The operation's request; the program checks it strictly."),
	}, func(_ context.Context, in *computeInput) (*computeOutput, error) {
		answer, p := compute.Run(in.Operation, in.RawBody)
		if p != nil {
			return nil, located(p.Status, p.Detail, p.Errors...)
		}
		return &computeOutput{Body: answer}, nil
	})
}

// anyObject describes a JSON body that the program reads by itself, exactly and strictly, instead of by a schema here.
func anyObject(about string) *huma.RequestBody {
	return &huma.RequestBody{Required: true, Description: about,
		Content: map[string]*huma.MediaType{"application/json": {Schema: &huma.Schema{Type: huma.TypeObject, AdditionalProperties: true}}}}
}
