package api

import (
	"context"
	"errors"
	"log/slog"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/job"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// fault turns an error of the core or the store into a problem for the client.
func fault(err error) error {
	var refusal *job.Refusal
	var told *huma.ErrorModel
	switch {
	case errors.As(err, &told):
		return err // a problem already
	case errors.As(err, &refusal):
		return coded(refusal)
	case errors.Is(err, errReused):
		return located(http.StatusConflict, "This happening's id was used before for another one.",
			wire.Fault{Location: "id", Message: "Make a new id for each happening."})
	case errors.Is(err, errUnreadable):
		slog.Error("a job cannot be opened", "error", err)
		return huma.Error500InternalServerError("This job cannot be opened: " + err.Error() +
			". All other jobs are as they were. Look at it with metronix check, or take the last backup " +
			"back with metronix restore.")
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("There is nothing stored under this id.")
	case errors.Is(err, store.ErrExists):
		return huma.Error409Conflict("This is stored already.")
	case errors.Is(err, store.ErrChanged):
		return located(http.StatusConflict,
			"Somebody changed this meanwhile. Load it again, or keep yours as a duplicate.",
			wire.Fault{Location: "replaces", Message: "This is not the version that is stored."})
	case errors.Is(err, store.ErrMissing):
		return huma.Error422UnprocessableEntity("It refers to something that is not stored.")
	case errors.Is(err, context.Canceled):
		return huma.Error503ServiceUnavailable("The request was given up before it was answered.")
	}
	return ofStore(err)
}

// storeFaults says of each thing that can happen to the data file what it is, and what is to be done. Whether
// what was acknowledged before is safe is said only where it is.
var storeFaults = []struct {
	cause  error
	status int
	say    string
}{
	{store.ErrGone, http.StatusInternalServerError,
		"The data file was removed or replaced while the program ran: this was not stored. Put the file " +
			"back, or stop the program and restore a backup."},
	{store.ErrDamaged, http.StatusInternalServerError,
		"The data file is damaged: this was not stored. Stop the program, look at it with metronix check, " +
			"and restore the last backup."},
	{store.ErrUnnamed, http.StatusInsufficientStorage,
		"More pictures and recordings of this job were sent than its findings name: this was not kept. Note " +
			"those that " +
			"were sent, or wait a day: what nothing names is taken out then."},
	{store.ErrFull, http.StatusInsufficientStorage,
		"The disk is full: this was not stored. Make room on it and try again. What was acknowledged " +
			"before is safe."},
	{store.ErrBusy, http.StatusServiceUnavailable,
		"Another program is writing to the data file: this was not stored. Try again in a moment. What was " +
			"acknowledged before is safe."},
	{store.ErrPlaceTaken, http.StatusServiceUnavailable,
		"Others were faster each time: this was not stored. Try again in a moment."},
	{context.DeadlineExceeded, http.StatusServiceUnavailable,
		"The data file did not answer in time. Try again in a moment."},
}

// ofStore says in words what went wrong in the data file. What can pass by itself, another program that holds
// the file, is a 503 with the time to wait; what cannot is a 500 that names the log, where the cause stands
// whole.
func ofStore(err error) error {
	slog.Error("the store failed", "error", err)
	for _, f := range storeFaults {
		if !errors.Is(err, f.cause) {
			continue
		}
		told := huma.NewError(f.status, f.say)
		if f.status == http.StatusServiceUnavailable {
			return huma.ErrorWithHeaders(told, http.Header{"Retry-After": {"1"}})
		}
		return told
	}
	return huma.Error500InternalServerError("The data file could not be read or written: this was not " +
		"stored. The program's log says more.")
}

// coded is a refusal of the core; where a screen answers it with a choice, the type of the problem says
// which.
func coded(r *job.Refusal) error {
	m := problemModel(http.StatusConflict, r.Message, wire.Fault{Location: r.Field, Message: r.Message})
	if r.Code != "" {
		m.Type = "urn:metronix:" + r.Code
	}
	return m
}

// located is a problem whose faults carry their places.
func located(status int, detail string, faults ...wire.Fault) error {
	return problemModel(status, detail, faults...)
}

// problemModel is a problem (RFC 9457) as the framework writes it, from the faults as our own code tells
// them.
func problemModel(status int, detail string, faults ...wire.Fault) *huma.ErrorModel {
	m := &huma.ErrorModel{Status: status, Title: http.StatusText(status), Detail: detail,
		Errors: []*huma.ErrorDetail{}}
	for _, f := range faults {
		m.Errors = append(m.Errors,
			&huma.ErrorDetail{Message: f.Message, Location: f.Location, Value: f.Value})
	}
	return m
}
