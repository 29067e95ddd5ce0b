package api

import (
	"crypto/rand"
	"encoding/json"
	"fmt"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/gin-gonic/gin"
	"github.com/vearutop/statigz"
	"github.com/vearutop/statigz/brotli"
)

// serveSite answers everything that is not the interface from the built front end: files with their own tags,
// compressed where the build made a compressed twin; page addresses with the index; 404 for missing assets
// and interface addresses.
func serveSite(router *gin.Engine, site fs.FS) {
	router.NoMethod(func(c *gin.Context) {
		problem(c, http.StatusMethodNotAllowed, "This address does not take "+c.Request.Method+".")
	})
	files, index := pageFiles(site)
	pieces := pagePieces(site)
	router.NoRoute(func(c *gin.Context) {
		name := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
		switch {
		case strings.HasPrefix(name, "api/") || name == "api":
			problem(c, http.StatusNotFound, "There is nothing at "+c.Request.URL.Path+".")
		case strings.HasPrefix(path.Base("/"+name), ".") || !utf8.ValidString(name) ||
			strings.HasSuffix(name, ".gz") || strings.HasSuffix(name, ".br"):
			problem(c, http.StatusNotFound, "There is no such file here.")
		case c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead:
			problem(c, http.StatusMethodNotAllowed, "A page is only read.")
		case files == nil:
			noSite(c)
		case path.Ext(name) == "" && !isPage(name) && !strings.Contains(c.GetHeader("Accept"), "text/html"):
			problem(c, http.StatusNotFound, "There is no page at "+c.Request.URL.Path+".")
		default:
			page(c, files, strings.Replace(index, "</title>", "</title>"+pieces.asked(name), 1), name)
		}
	})
}

// The types of files whatever the system has them down as: browsers run nothing under another.
func init() {
	for ending, kind := range map[string]string{".js": "text/javascript; charset=utf-8", ".css": "text/css; charset=utf-8",
		".wasm": "application/wasm", ".svg": "image/svg+xml", ".webmanifest": "application/manifest+json"} {
		if err := mime.AddExtensionType(ending, kind); err != nil {
			panic(err) // a plain ending and type are always taken
		}
	}
}

// pages are the first parts of the addresses that the front end has pages for.
var pages = []string{"", "start", "jobs", "engines", "vehicles", "gauges", "sums", "shop", "people", "handed", "practice",
	"handbook"}

// isPage says whether an address is one of the front end's pages.
func isPage(name string) bool {
	first, _, _ := strings.Cut(name, "/")
	return slices.Contains(pages, first)
}

// pageFiles are the built files, their tags reckoned once, and the index; nil where there are none.
func pageFiles(site fs.FS) (*statigz.Server, string) {
	files, ok := site.(fs.ReadDirFS)
	if !ok {
		return nil, ""
	}
	index, err := fs.ReadFile(site, "index.html")
	if err != nil {
		return nil, ""
	}
	return statigz.FileServer(files, brotli.AddEncoding, statigz.OnNotFound(func(w http.ResponseWriter, r *http.Request) {
		writeProblem(w, http.StatusNotFound, "There is no file "+strings.TrimPrefix(r.URL.Path, "/")+" here.")
	})), string(index)
}

// pieces are what each page of the front end is made of, beside what every page needs.
type pieces []struct {
	Path   string   `json:"path"` // as the front end's router has it: /jobs/:id
	Pieces []string `json:"pieces"`
}

// pagePieces reads them from what the build wrote; none where it wrote none.
func pagePieces(site fs.FS) (list pieces) {
	if site == nil {
		return nil
	}
	if text, err := fs.ReadFile(site, "pages.json"); err == nil {
		_ = json.Unmarshal(text, &list) // without it pages come all the same, only later
	}
	return list
}

// firstReads are what pages of the router read first.
var firstReads = map[string]string{"/": "/api/v1/jobs", "/jobs/:id": "/api/v1/jobs/"}

// asked are the links by which the pieces of a page, and what it reads first, are asked for together with the
// first piece: on a slow line each that is only asked for by another costs a way there and back.
func (p pieces) asked(name string) string {
	var links strings.Builder
	for path, read := range firstReads {
		if leadsTo(path, name) && ownID.MatchString(name) {
			_, id, _ := strings.Cut(name, "/")
			fmt.Fprintf(&links, "\n    <link rel=\"preload\" as=\"fetch\" crossorigin href=\"%s\">", read+id)
		}
	}
	for _, at := range p {
		if leadsTo(at.Path, name) {
			for _, piece := range at.Pieces {
				fmt.Fprintf(&links, "\n    <link rel=\"modulepreload\" href=\"/%s\">", piece)
			}
			break
		}
	}
	return links.String()
}

// ownID is an address whose parts need nothing escaped.
var ownID = regexp.MustCompile(`^[A-Za-z0-9_/-]*$`)

// leadsTo says that a path of the router leads to an address; a part that begins with a colon is any one, and
// one that ends with a question mark may be left out.
func leadsTo(path, name string) bool {
	want, have := strings.Split(strings.Trim(path, "/"), "/"), strings.Split(name, "/")
	if last := want[len(want)-1]; len(have) == len(want)-1 && strings.HasSuffix(last, "?") {
		want = want[:len(have)]
	}
	if len(want) != len(have) {
		return false
	}
	for i, part := range want {
		if part != have[i] && !strings.HasPrefix(part, ":") {
			return false
		}
	}
	return true
}

// page serves a file of the front end. What has no ending is a page of it, and answered by the one index
// whatever its path; an unknown one with 404, for crawlers and for people, though the front end says so
// itself. Files whose names hold their own hash may be kept for a year, everything else is asked for anew.
func page(c *gin.Context, files *statigz.Server, index, name string) {
	if path.Ext(name) == "" || name == "index.html" {
		status := http.StatusOK
		if !isPage(name) && name != "index.html" { // the front end's own page says so
			status = http.StatusNotFound
		}
		indexPage(c, index, status)
		return
	}
	cache := "no-cache"
	if strings.HasPrefix(name, "assets/") {
		cache = "public, max-age=31536000, immutable"
	}
	c.Header("Cache-Control", cache)
	c.Status(http.StatusOK) // of what is unpacked for those who take no twin nothing is said
	r := c.Request.Clone(c.Request.Context())
	r.URL.Path = "/" + name
	files.ServeHTTP(c.Writer, r)
}

// emptyNonce is where the built index takes its nonce.
const emptyNonce = `property="csp-nonce" nonce=""`

// indexPage answers with the index and a nonce of its own (Content Security Policy Level 3, "nonce-source"):
// the theme of the front end writes its colours as a style sheet, which is let through by it alone. It is
// never kept, so that no nonce is seen twice.
func indexPage(c *gin.Context, index string, status int) {
	nonce := rand.Text()
	c.Header("Content-Security-Policy",
		strings.Replace(contentPolicy, "style-src 'self'", "style-src 'self' 'nonce-"+nonce+"'", 1))
	c.Header("Cache-Control", "no-store")
	c.Data(status, "text/html; charset=utf-8",
		[]byte(strings.Replace(index, emptyNonce, `property="csp-nonce" nonce="`+nonce+`"`, 1)))
}

// noSite answers in place of the pages where there are none: a program built by go build alone.
func noSite(c *gin.Context) {
	problem(c, http.StatusServiceUnavailable,
		"This program was built without its pages. Build it with make, then start it again.")
}
