package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"metronix/internal/photo"
	"metronix/internal/wire"
)

// PhotoKept is a photograph that was kept.
type PhotoKept struct {
	Hash string `json:"hash" doc:"its SHA-256, by which a finding names it"`
}

// photoInput is a photograph as the telephone made it.
type photoInput struct {
	JobID
	RawBody []byte `contentType:"image/jpeg"`
}

// photoPath names a file by the hash of what it holds, so that it can be kept for ever by whoever fetched it.
type photoPath struct {
	Hash string `path:"hash" pattern:"^[0-9a-f]{64}$"`
}

// photoRoutes keep and give photographs.
func (s *server) photoRoutes(a huma.API) {
	binary := map[string]*huma.MediaType{}
	for _, kind := range []string{"image/jpeg", "image/png"} {
		binary[kind] = &huma.MediaType{Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}}
	}
	huma.Register(a, huma.Operation{OperationID: "add-photo", Method: http.MethodPost,
		Path:         "/api/v1/jobs/{id}/photos",
		MaxBodyBytes: photo.MaxBytes, Summary: "Keep a photograph of a job: turned upright, made smaller, " +
			"its metadata taken out",
		SkipValidateBody: true, Errors: []int{http.StatusUnprocessableEntity},
		RequestBody: &huma.RequestBody{Required: true, Content: binary}}, s.addPhoto)
	huma.Get(
		a,
		"/api/v1/photos/{hash}",
		s.photo,
		summary("get-photo", "A photograph, JPEG"),
		gives("image/jpeg"),
	)
}

// addPhoto keeps a photograph of a job, small and without what it tells of its maker. It waits there to be
// named by a finding, and is dropped after a while if none does.
func (s *server) addPhoto(ctx context.Context, in *photoInput) (*bodyOf[PhotoKept], error) {
	jpeg, why, err := photo.Keep(ctx, in.RawBody)
	if err != nil {
		return nil, fault(err)
	}
	if why != "" {
		return nil, located(http.StatusUnprocessableEntity, why, wire.Fault{Location: "body", Message: why})
	}
	if _, err := s.store.With(ctx).Job(in.ID); err != nil {
		return nil, fault(err)
	}
	hash, err := s.store.With(ctx).AddPhoto(in.ID, jpeg, s.clock())
	if err != nil {
		return nil, fault(err)
	}
	return &bodyOf[PhotoKept]{PhotoKept{hash}}, nil
}

// photo gives one back.
func (s *server) photo(ctx context.Context, in *photoPath) (*huma.StreamResponse, error) {
	data, err := s.store.With(ctx).Photo(in.Hash)
	if err != nil {
		return nil, fault(err)
	}
	return seekable("image/jpeg", in.Hash, in.Hash[:12]+".jpg", data), nil
}
