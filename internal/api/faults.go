package api

import (
	"errors"
	"log/slog"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/job"
	"metronix/internal/compute"
	"metronix/internal/store"
)

// fault turns an error of the core or the store into a problem for the client.
func fault(err error) error {
	var refusal *job.Refusal
	var told *huma.ErrorModel
	switch {
	case errors.As(err, &told):
		return err // a problem already
	case errors.As(err, &refusal):
		return located(http.StatusConflict, refusal.Message, compute.Fault{Location: refusal.Field, Message: refusal.Message})
	case errors.Is(err, errReused):
		return located(http.StatusConflict, "This happening's id was used before for another one.", compute.Fault{Location: "id", Message: "Make a new id for each happening."})
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("There is nothing stored under this id.")
	case errors.Is(err, store.ErrExists):
		return huma.Error409Conflict("This is stored already.")
	case errors.Is(err, store.ErrMissing):
		return huma.Error422UnprocessableEntity("It refers to something that is not stored.")
	}
	slog.Error("the store failed", "error", err)
	return huma.Error500InternalServerError("The data file could not be read or written. What was acknowledged before is safe; try again.")
}

// located is a problem whose faults carry their places.
func located(status int, detail string, faults ...compute.Fault) error {
	m := &huma.ErrorModel{Status: status, Title: http.StatusText(status), Detail: detail, Errors: []*huma.ErrorDetail{}}
	for _, f := range faults {
		m.Errors = append(m.Errors, &huma.ErrorDetail{Message: f.Message, Location: f.Location, Value: f.Value})
	}
	return m
}
