package api

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/internal/store"
	"metronix/internal/wire"
)

// ImportAnswer is what was taken in of an archive.
type ImportAnswer struct {
	Engines   int      `json:"engines"`
	GaugeSets int      `json:"gauge_sets"`
	Vehicles  int      `json:"vehicles"`
	Jobs      int      `json:"jobs"`
	Already   int      `json:"already" doc:"records that were stored already, just as they are"`
	LeftOut   []string `json:"left_out" doc:"records that could not be read when the archive was made, and are not in it"`
}

// archiveInput is an archive as it comes: it may be larger than memory.
type archiveInput struct{ body io.Reader }

// Resolve gets at the body without reading it.
func (in *archiveInput) Resolve(ctx huma.Context) []error {
	in.body = ctx.BodyReader()
	return nil
}

// archiveRoutes are the way out and in of the record: people, the audit list and practice stay. Both go on
// for as long as the bytes move, and only one at a time: an export holds a read of the whole file, an import
// a write of it.
func (s *server) archiveRoutes(a huma.API, version string) {
	huma.Get(a, "/api/v1/archive.zip", func(ctx context.Context, _ *struct{}) (*huma.StreamResponse, error) {
		return s.exportArchive(ctx, version)
	}, summary("export-archive", "Engines, feelers, vehicles and jobs, in open formats "+
		"(docs/formats.md)"), gives("application/zip"))
	huma.Register(a, huma.Operation{OperationID: "import-archive", Method: http.MethodPost,
		Path: "/api/v1/archive", Summary: "Take an archive in, all of it or nothing", SkipValidateBody: true,
		Errors: []int{http.StatusUnprocessableEntity},
		RequestBody: &huma.RequestBody{Required: true, Content: map[string]*huma.MediaType{
			"application/zip": {Schema: &huma.Schema{Type: huma.TypeString, Format: "binary"}}}},
	}, s.importArchive)
}

// errArchiveBusy is that an archive is being written or read: one at a time, because each goes through all
// there is.
var errArchiveBusy = huma.ErrorWithHeaders(
	huma.Error503ServiceUnavailable("An archive is being written or taken in "+
		"just now. Try again when that is done."),
	http.Header{"Retry-After": {"10"}},
)

// exportArchive sends the archive as it is made. Where that fails the connection is cut, so that no half of
// one is taken for a whole.
func (s *server) exportArchive(ctx context.Context, version string) (*huma.StreamResponse, error) {
	if !s.archives.TryLock() {
		return nil, errArchiveBusy
	}
	if err := s.store.With(ctx).Alive(); err != nil {
		s.archives.Unlock()
		return nil, fault(err)
	}
	now := s.clock()
	return &huma.StreamResponse{Body: func(h huma.Context) {
		defer s.archives.Unlock()
		h.SetHeader("Content-Type", "application/zip")
		h.SetHeader("Content-Disposition",
			`attachment; filename="metronix-`+now.UTC().Format("2006-01-02")+`.zip"`)
		if _, err := s.store.With(ctx).WriteArchive(h.BodyWriter(), "Metronix "+version, now); err != nil {
			_ = fault(err) // writes it to the log
			if way, ok := ctx.Value(onItsWay{}).(*patient); ok {
				way.failed = true
			}
		}
	}}, nil
}

// importArchive takes an archive in through a file without a name, which it is read from in any order.
func (s *server) importArchive(ctx context.Context, in *archiveInput) (*bodyOf[ImportAnswer], error) {
	if !s.archives.TryLock() {
		return nil, errArchiveBusy
	}
	defer s.archives.Unlock()
	f, size, err := kept(in.body)
	if err != nil {
		return nil, err
	}
	defer f.Close()
	taken, err := s.store.With(ctx).ReadArchive(f, size, s.clock(), Admission())
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
	s.desk.news.tell(change{})
	answer := ImportAnswer{
		taken.Engines,
		taken.GaugeSets,
		taken.Vehicles,
		taken.Jobs,
		taken.Already,
		[]string{},
	}
	for _, d := range taken.Damaged {
		answer.LeftOut = append(answer.LeftOut, fmt.Sprintf("%s %s: %s", d.What, d.ID, d.Why))
	}
	return &bodyOf[ImportAnswer]{answer}, nil
}

// kept keeps what comes in a file that is gone with the program.
func kept(body io.Reader) (f *os.File, size int64, err error) {
	f, err = os.CreateTemp("", "metronix-archive-")
	if err != nil {
		return nil, 0, huma.Error507InsufficientStorage(
			"There is no room for the archive: " + err.Error() + ".",
		)
	}
	defer os.Remove(f.Name())
	if size, err = io.Copy(f, body); err == nil {
		return f, size, nil
	}
	f.Close()
	var full *os.PathError
	if errors.As(err, &full) {
		return nil, 0, huma.Error507InsufficientStorage(
			"There is no room for the archive in " + os.TempDir() +
				". Make room, or take it in with metronix import. Nothing was stored.",
		)
	}
	return nil, 0, huma.Error408RequestTimeout(
		"The archive did not come to its end. Send it again. Nothing was stored.",
	)
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

// archiveIdle is how long an archive may stand still on its way out or in.
const archiveIdle = 30 * time.Second

// isArchive says whether an address takes or gives archives, which come and go as streams and take as long as
// they take.
func isArchive(path string) bool { return path == "/api/v1/archive" || path == "/api/v1/archive.zip" }

// patient is the way of an archive through a connection: as long as it moves it is not cut.
type patient struct {
	http.ResponseWriter
	body io.ReadCloser
	way  *http.ResponseController

	failed bool // the connection is to be cut
}

// onItsWay is the key of a request's patient way.
type onItsWay struct{}

// Unwrap lets net/http find the writer beneath, which is where deadlines are set.
func (p *patient) Unwrap() http.ResponseWriter { return p.ResponseWriter }

// Write gives the client time from the last byte on and not from the first: a slow line is no fault, a dead
// one is.
func (p *patient) Write(data []byte) (int, error) {
	_ = p.way.SetWriteDeadline(
		time.Now().Add(archiveIdle),
	) // where that cannot be set, the server's own holds
	return p.ResponseWriter.Write(data)
}

// Read does the same for what comes in. While what was read is worked through nothing is sent, and that is no
// reason to hang up.
func (p *patient) Read(data []byte) (int, error) {
	_ = p.way.SetReadDeadline(time.Now().Add(archiveIdle))
	_ = p.way.SetWriteDeadline(time.Time{}) // what it holds is worked through before it is answered
	return p.body.Read(data)
}

// Close closes what the client sent.
func (p *patient) Close() error { return p.body.Close() }

// streamed lets an archive through as it comes.
func streamed(next http.Handler, w http.ResponseWriter, r *http.Request) {
	p := &patient{ResponseWriter: w, body: r.Body, way: http.NewResponseController(w)}
	r = r.WithContext(context.WithValue(r.Context(), onItsWay{}, p))
	if r.Body != nil && r.Body != http.NoBody {
		r.Body = p
	}
	next.ServeHTTP(p, r)
	if p.failed {
		panic(http.ErrAbortHandler)
	}
}
