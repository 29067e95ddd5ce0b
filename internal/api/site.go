package api

import (
	"io/fs"
	"net/http"
	"path"
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/gin-gonic/gin"
	"github.com/vearutop/statigz"
)

// serveSite answers everything that is not the interface from the built front end: files with their own tags,
// gzipped where the build made a gzipped twin; page addresses with the index; 404 for missing assets and
// interface addresses.
func serveSite(router *gin.Engine, site fs.FS) {
	router.NoMethod(func(c *gin.Context) {
		problem(c, http.StatusMethodNotAllowed, "This address does not take "+c.Request.Method+".")
	})
	files := pageFiles(site)
	router.NoRoute(func(c *gin.Context) {
		name := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
		switch {
		case strings.HasPrefix(name, "api/") || name == "api":
			problem(c, http.StatusNotFound, "There is nothing at "+c.Request.URL.Path+".")
		case strings.HasPrefix(path.Base("/"+name), ".") || !utf8.ValidString(name) ||
			strings.HasSuffix(name, ".gz"):
			problem(c, http.StatusNotFound, "There is no such file here.")
		case c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead:
			problem(c, http.StatusMethodNotAllowed, "A page is only read.")
		case files == nil:
			noSite(c)
		case path.Ext(name) == "" && !isPage(name) && !strings.Contains(c.GetHeader("Accept"), "text/html"):
			problem(c, http.StatusNotFound, "There is no page at "+c.Request.URL.Path+".")
		default:
			page(c, files, name)
		}
	})
}

// pages are the first parts of the addresses that the front end has pages for.
var pages = []string{"", "start", "jobs", "engines", "gauges", "sums", "shop"}

// isPage says whether an address is one of the front end's pages.
func isPage(name string) bool {
	first, _, _ := strings.Cut(name, "/")
	return slices.Contains(pages, first)
}

// pageFiles are the built files, their tags reckoned once; nil where there are none.
func pageFiles(site fs.FS) *statigz.Server {
	files, ok := site.(fs.ReadDirFS)
	if !ok {
		return nil
	}
	if _, err := fs.Stat(site, "index.html"); err != nil {
		return nil
	}
	return statigz.FileServer(files, statigz.OnNotFound(func(w http.ResponseWriter, r *http.Request) {
		writeProblem(w, http.StatusNotFound, "There is no file "+strings.TrimPrefix(r.URL.Path, "/")+" here.")
	}))
}

func page(c *gin.Context, files *statigz.Server, name string) {
	r, w := c.Request.Clone(c.Request.Context()), http.ResponseWriter(c.Writer)
	cache := "no-cache"
	if strings.HasPrefix(name, "assets/") {
		cache = "public, max-age=31536000, immutable"
	}
	if r.URL.Path = "/" + name; path.Ext(name) == "" || name == "index.html" {
		r.URL.Path = "/"
		if !isPage(name) && name != "index.html" { // the front end's own page says so
			w = answeredWith{w, http.StatusNotFound}
			r.Header.Del("If-None-Match")
		}
	}
	c.Header("Cache-Control", cache)
	files.ServeHTTP(w, r)
}

// answeredWith answers with another status than success.
type answeredWith struct {
	http.ResponseWriter
	status int
}

func (w answeredWith) WriteHeader(int) { w.ResponseWriter.WriteHeader(w.status) }

func (w answeredWith) Write(data []byte) (int, error) {
	w.ResponseWriter.WriteHeader(w.status)
	return w.ResponseWriter.Write(data)
}

func noSite(c *gin.Context) {
	problem(c, http.StatusServiceUnavailable,
		"This program was built without its pages. Build it with make, then start it again.")
}
