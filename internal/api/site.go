package api

import (
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/gin-gonic/gin"
)

// serveSite answers everything that is not the interface from the built front end: files with their own tags,
// gzipped where the build made a gzipped twin; page addresses with the index; 404 for missing assets and
// interface addresses.
func serveSite(router *gin.Engine, site fs.FS) {
	router.NoMethod(func(c *gin.Context) {
		problem(c, http.StatusMethodNotAllowed, "This address does not take "+c.Request.Method+".")
	})
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
		case site == nil:
			noSite(c)
		case path.Ext(name) == "" && !isPage(name) && !strings.Contains(c.GetHeader("Accept"), "text/html"):
			problem(c, http.StatusNotFound, "There is no page at "+c.Request.URL.Path+".")
		default:
			page(c, site, name)
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

func page(c *gin.Context, site fs.FS, name string) {
	status := http.StatusOK
	if name == "" || path.Ext(name) == "" {
		if !isPage(name) {
			status = http.StatusNotFound // the front end's own page says so
		}
		name = "index.html"
	}
	cache := "no-cache"
	if strings.HasPrefix(name, "assets/") {
		cache = "public, max-age=31536000, immutable"
	}
	data, encoding, err := readBest(site, name, c.GetHeader("Accept-Encoding"))
	if errors.Is(err, fs.ErrNotExist) {
		if name == "index.html" {
			noSite(c)
			return
		}
		problem(c, http.StatusNotFound, "There is no file "+name+" here.")
		return
	}
	if err != nil {
		problem(c, http.StatusInternalServerError, "The file "+name+" cannot be read.")
		return
	}
	sum := sha256.Sum256(data)
	tag := `"` + hex.EncodeToString(sum[:12]) + `"`
	h := c.Writer.Header()
	h.Set("Cache-Control", cache)
	h.Set("ETag", tag)
	h.Set("Vary", "Accept-Encoding")
	if status == http.StatusOK && c.GetHeader("If-None-Match") == tag {
		c.Status(http.StatusNotModified)
		return
	}
	if encoding != "" {
		h.Set("Content-Encoding", encoding)
	}
	c.Data(status, contentType(name), data)
}

func contentType(name string) string {
	if t := mime.TypeByExtension(path.Ext(name)); t != "" {
		return t
	}
	return "application/octet-stream"
}

// readBest prefers the gzipped twin that the build made, where the client takes it.
func readBest(site fs.FS, name, accepts string) (data []byte, encoding string, err error) {
	if strings.Contains(accepts, "gzip") {
		if data, err := fs.ReadFile(site, name+".gz"); err == nil {
			return data, "gzip", nil
		}
	}
	data, err = fs.ReadFile(site, name)
	return data, "", err
}

func noSite(c *gin.Context) {
	problem(c, http.StatusServiceUnavailable,
		"This program was built without its pages. Build it with make, then start it again.")
}
