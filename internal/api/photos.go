package api

import (
	"bytes"
	"context"
	"fmt"
	"image"
	_ "image/png" // a photograph may be a PNG
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/disintegration/imaging"

	"metronix/internal/wire"
)

// Bounds of a photograph: as it is sent, and as it is kept.
const (
	maxPhoto     = 16 << 20
	mostPixels   = 50_000_000
	longestSide  = 1600
	photoQuality = 82
)

// PhotoKept is a photograph that was kept.
type PhotoKept struct {
	Hash string `json:"hash" doc:"its SHA-256, by which a finding names it"`
}

type photoInput struct {
	JobID
	RawBody []byte `contentType:"image/jpeg"`
}

type photoPath struct {
	Hash string `path:"hash" pattern:"^[0-9a-f]{64}$"`
}

func (s *server) photoRoutes(a huma.API) {
	binary := map[string]*huma.MediaType{}
	for _, kind := range []string{"image/jpeg", "image/png"} {
		binary[kind] = &huma.MediaType{Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}}
	}
	huma.Register(a, huma.Operation{OperationID: "add-photo", Method: http.MethodPost,
		Path:         "/api/v1/jobs/{id}/photos",
		MaxBodyBytes: maxPhoto, Summary: "Keep a photograph of a job: turned upright, made smaller, " +
			"its metadata taken out",
		SkipValidateBody: true, Errors: []int{http.StatusUnprocessableEntity},
		RequestBody: &huma.RequestBody{Required: true, Content: binary}}, s.addPhoto)
	huma.Get(a, "/api/v1/photos/{hash}", s.photo, summary("get-photo", "A photograph, JPEG"))
}

// kept is a photograph as it is kept: JPEG, upright, no side longer than longestSide, without a word of
// metadata. why says what is wrong with what cannot be one.
func keptPhoto(data []byte) (jpeg []byte, why string) {
	config, format, err := image.DecodeConfig(bytes.NewReader(data))
	switch {
	case err != nil || format != "jpeg" && format != "png":
		return nil, "This is no photograph: a JPEG or PNG picture is expected. Nothing was kept."
	case config.Width <= 0 || config.Height <= 0 || config.Width*config.Height > mostPixels:
		return nil, fmt.Sprintf("This picture has %d × %d points, over %d million. Take it "+
			"smaller. Nothing was kept.",
			config.Width, config.Height, mostPixels/1_000_000)
	}
	picture, err := imaging.Decode(bytes.NewReader(data), imaging.AutoOrientation(true))
	if err != nil {
		return nil, "This picture was cut short or is damaged: it cannot be read to its " +
			"end. Nothing was kept."
	}
	var out bytes.Buffer
	fitted := imaging.Fit(picture, longestSide, longestSide, imaging.Lanczos)
	if err := imaging.Encode(&out, fitted, imaging.JPEG, imaging.JPEGQuality(photoQuality)); err != nil {
		return nil, "This picture cannot be made smaller. Nothing was kept."
	}
	return out.Bytes(), ""
}

func (s *server) addPhoto(ctx context.Context, in *photoInput) (*bodyOf[PhotoKept], error) {
	jpeg, why := keptPhoto(in.RawBody)
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

func (s *server) photo(ctx context.Context, in *photoPath) (*file, error) {
	data, err := s.store.With(ctx).Photo(in.Hash)
	if err != nil {
		return nil, fault(err)
	}
	return &file{"image/jpeg", `inline; filename="` + in.Hash[:12] + `.jpg"`, data}, nil
}
