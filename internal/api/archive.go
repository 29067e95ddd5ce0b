package api

import (
	"bytes"
	"context"
	"errors"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"metronix/internal/store"
	"metronix/internal/wire"
)

// maxArchive bounds an archive that is sent; a larger one is taken in by the command line.
const maxArchive = 64 << 20

// ImportAnswer is what was taken in of an archive.
type ImportAnswer struct {
	Engines   int `json:"engines"`
	GaugeSets int `json:"gauge_sets"`
	Vehicles  int `json:"vehicles"`
	Jobs      int `json:"jobs"`
	Already   int `json:"already" doc:"records that were stored already, just as they are"`
}

type archiveInput struct {
	RawBody []byte `contentType:"application/zip"`
}

func (s *server) archiveRoutes(a huma.API, version string) {
	huma.Get(a, "/api/v1/archive.zip", func(ctx context.Context, _ *struct{}) (*file, error) {
		var out bytes.Buffer
		now := s.clock()
		if err := s.store.With(ctx).WriteArchive(&out, "Metronix "+version, now); err != nil {
			return nil, fault(err)
		}
		return &file{"application/zip",
			`attachment; filename="metronix-` + now.UTC().Format("2006-01-02") + `.zip"`,
			out.Bytes()}, nil
	}, summary("export-archive", "Everything that is stored, in open formats (docs/formats.md)"))
	huma.Register(a, huma.Operation{OperationID: "import-archive", Method: http.MethodPost,
		Path:         "/api/v1/archive",
		MaxBodyBytes: maxArchive, Summary: "Take an archive in, all of it or nothing", SkipValidateBody: true,
		Errors: []int{http.StatusUnprocessableEntity},
		RequestBody: &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{
			"application/zip": {Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}}}},
	}, s.importArchive)
}

func (s *server) importArchive(ctx context.Context, in *archiveInput) (*bodyOf[ImportAnswer], error) {
	taken, err := s.store.With(ctx).ReadArchive(bytes.NewReader(in.RawBody),
		int64(len(in.RawBody)), s.clock())
	if errors.Is(err, store.ErrArchive) {
		message := wire.Sentence(err)
		return nil, located(http.StatusUnprocessableEntity, message,
			wire.Fault{Location: "body", Message: message})
	}
	if err != nil {
		return nil, fault(err)
	}
	if err := s.catchUp(ctx); err != nil {
		return nil, fault(err)
	}
	return &bodyOf[ImportAnswer]{ImportAnswer{taken.Engines, taken.GaugeSets, taken.Vehicles, taken.Jobs,
		taken.Already}}, nil
}

// catchUp derives what is missing beside the jobs, and when each vehicle is due where that is not known yet.
func (s *server) catchUp(ctx context.Context) error {
	if err := s.desk.catchUp(ctx); err != nil {
		return err
	}
	ids, err := s.store.With(ctx).Undue()
	if err != nil {
		return err
	}
	for _, id := range ids {
		if err := s.remember(ctx, id); err != nil {
			return err
		}
	}
	return nil
}
