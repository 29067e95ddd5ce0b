package api

import (
	"context"
	"io/fs"
	"log/slog"
	"net/http"
	"reflect"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"
	lru "github.com/hashicorp/golang-lru/v2"
	"github.com/klauspost/compress/gzhttp"

	"metronix/internal/line"
	"metronix/internal/probe"
	"metronix/internal/seal"
	"metronix/internal/store"
)

// The framework's settings that no configuration reaches.
func init() {
	huma.DefaultArrayNullable = false // every list of ours is sent, if empty
	huma.ValidateStrictCasing = true  // a field in another case is another field, and unknown
}

// Limits on what a client may send and how long it may take about it.
const (
	maxBody        = 1 << 20
	headerTimeout  = 5 * time.Second
	requestTimeout = 15 * time.Second
	idleTimeout    = 2 * time.Minute
)

// Options of a server.
type Options struct {
	// the built front end; nil or without index.html: answered with 503 and a sentence
	Site    fs.FS
	Hosts   func() []string  // host names under which the program may be called now, besides the loopback ones; nil: none
	Clock   func() time.Time // nil: time.Now
	Version string
	Probes  line.Allowed    // where a temperature probe may stand besides this machine
	HandOut *HandOut        // the page that puts the certificate on tablets; nil: there is none
	SetUp   string          // the code by which the first foreman is set up from another machine; empty: none is asked for
	Backups Keeper          // makes backups by itself; nil: none are made
	Seal    *seal.Key       // seals signed sheets; nil: they bear no seal
	Until   <-chan struct{} // closed when the program ends, and with it what lasts; nil: never
	// Demo serves a made-up workshop beside this one and gives its port; nil: there is none
	Demo func(context.Context) (port int, err error)
}

// server is what the handlers share: the store, the jobs that are open, the clock and the probe.
type server struct {
	store *store.Store
	desk  *desk
	clock func() time.Time
	probe *probe.Reader

	instruments *instruments

	probeAllowed line.Allowed
	demo         func(context.Context) (int, error)
	roster       roster
	handOut      *HandOut
	setUp        string
	backups      Keeper       // nil: none are made
	seal         *seal.Key    // nil: sheets bear no seal
	places       places       // that the data file was gathered from; none: it is a workshop's own
	archives     sync.Mutex   // held while an archive is on its way
	streams      atomic.Int64 // how many clients watch
	practising   sync.Mutex   // held while a practice engine is looked at or something is done on it
	practised    *lru.Cache[string, *playedRun]
	ends         <-chan struct{}
}

// NewHTTPServer is a server with all its time-outs, ready to serve.
func NewHTTPServer(handler http.Handler) *http.Server {
	return &http.Server{
		Handler: handler, ReadHeaderTimeout: headerTimeout, ReadTimeout: requestTimeout,
		WriteTimeout: requestTimeout, IdleTimeout: idleTimeout, MaxHeaderBytes: 1 << 16,
	}
}

// Handler is the whole HTTP interface over a store.
func Handler(st *store.Store, o Options) http.Handler {
	handler, _, _ := build(st, o)
	return handler
}

// Ready is Handler, once what is derived of the jobs has been made where it is missing, and every open job
// was looked into.
func Ready(ctx context.Context, st *store.Store, o Options) (http.Handler, error) {
	handler, _, s := build(st, o)
	if err := st.With(ctx).DropUnnamed(s.clock()); err != nil {
		return handler, err
	}
	return handler, s.catchUp(ctx)
}

// Document is the OpenAPI description of the interface, in JSON.
func Document() ([]byte, error) {
	_, described, _ := build(nil, Options{Version: "1"})
	return described.OpenAPI().MarshalJSON()
}

// build puts the handler together. From outside inwards a request passes the guard (host, origin, size), the
// time it has, the number that are answered at once, the person's units, and the framework's checks.
func build(st *store.Store, o Options) (http.Handler, huma.API, *server) {
	if o.Clock == nil {
		o.Clock = time.Now
	}
	gin.SetMode(gin.ReleaseMode)
	router := gin.New()
	router.HandleMethodNotAllowed = true
	router.Use(gin.CustomRecovery(func(c *gin.Context, fault any) {
		slog.Error("a request failed", "path", c.Request.URL.Path, "fault", fault)
		problem(c, http.StatusInternalServerError,
			"Something went wrong in the program, and this was not answered. Its log says more.")
	}))
	s := &server{store: st, desk: newDesk(st), clock: o.Clock, probe: probe.NewReader(), instruments: newInstruments(),
		probeAllowed: o.Probes,
		demo:         o.Demo, ends: o.Until, handOut: o.HandOut, setUp: o.SetUp, backups: o.Backups, seal: o.Seal}
	s.practised, _ = lru.New[string, *playedRun](mostPractised) // errs for no room alone
	if st != nil {
		s.places = placesOf(st)
	}
	if len(s.places) > 0 {
		s.seal = nil // a sheet bears the seal of the workshop where it was signed, or none
	}
	router.Use(inTime, few(), spoken, s.whois)
	router.GET("/healthz", s.health)
	described := humagin.New(router, config(o.Version))
	described.UseMiddleware(s.mayDo)
	s.routes(described)
	s.archiveRoutes(described, o.Version)
	describeBodies(described.OpenAPI())
	describeSecurity(described.OpenAPI())
	serveSite(router, o.Site)
	return gzhttp.GzipHandler(guard(router, o.Hosts)), described, s
}

// config is the OpenAPI document's frame. It is served; nothing that shows or tries it out is.
func config(version string) huma.Config {
	c := huma.DefaultConfig("Metronix", version)
	c.OpenAPIPath, c.DocsPath, c.SchemasPath, c.CreateHooks = "/api/openapi", "", "", nil
	c.Servers = []*huma.Server{{URL: "/", Description: "the machine that serves this document"}}
	c.Components.SecuritySchemes = map[string]*huma.SecurityScheme{"session": {Type: "apiKey", In: "cookie",
		Name: "metronix_session", Description: "Set by signing in. Its name goes on with an underscore and the port, where the " +
			"address has one, and begins with __Host- over TLS. Where nobody is set up none is asked for."}}
	c.Components.Schemas = huma.NewMapRegistry("#/components/schemas/", schemaName)
	return c
}

// schemaName sets the names of computations' requests and answers apart from those of jobs.
func schemaName(t reflect.Type, hint string) string {
	name := huma.DefaultSchemaNamer(t, hint)
	for t.Kind() == reflect.Pointer || t.Kind() == reflect.Slice {
		t = t.Elem()
	}
	if strings.HasSuffix(t.PkgPath(), "/compute") {
		return "Compute" + name
	}
	return name
}

// routes are every address below /api/v1, by subject.
func (s *server) routes(a huma.API) {
	s.jobRoutes(a)
	s.liveRoutes(a)
	s.screenRoutes(a)
	s.clearRoutes(a)
	s.leftOutRoutes(a)
	s.libraryRoutes(a)
	s.historyRoutes(a)
	s.myWayRoutes(a)
	s.reportRoutes(a)
	s.photoRoutes(a)
	s.soundRoutes(a)
	s.engineRoutes(a)
	s.waysRoutes(a)
	s.orderRoutes(a)
	s.gaugeRoutes(a)
	s.gaugeStudyRoutes(a)
	s.shopRoutes(a)
	s.instrumentRoutes(a)
	s.handbookRoutes(a)
	s.demoRoutes(a)
	s.signInRoutes(a)
	s.peopleRoutes(a)
	s.reachRoutes(a)
	s.backupRoutes(a)
	s.practiceRoutes(a)
	computeRoutes(a)
}
