package api

import (
	"context"
	"net/http"
	"runtime"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
)

// storeTimeout is how long a request may take about the data file: shorter than the whole answer may, so that
// it can still be said.
const storeTimeout = 10 * time.Second

// inTime ends what a request asks of store and core when its time is up, and keeps answers of the interface
// out of every cache.
func inTime(c *gin.Context) {
	if path := c.Request.URL.Path; !isArchive(path) && !isStream(path) { // which take as long as they move
		ctx, cancel := context.WithTimeout(c.Request.Context(), storeTimeout)
		defer cancel()
		c.Request = c.Request.WithContext(ctx)
	}
	if strings.HasPrefix(c.Request.URL.Path, "/api/") {
		c.Header("Cache-Control", "no-store")
	}
	c.Next()
}

// heavy is what costs more than a look or an entry: plans, choices of shims, computations, pictures.
func heavy(path string) bool {
	return strings.HasPrefix(path, "/api/v1/compute/") || strings.HasSuffix(path, "/ways") ||
		strings.HasSuffix(path, "/shims") || strings.HasSuffix(path, "/prove-order") ||
		strings.HasSuffix(path, "/my-way") || strings.HasSuffix(path, "/photos") ||
		strings.HasSuffix(path, "/sounds") || strings.HasPrefix(path, "/api/v1/session") || path == "/api/v1/look-at-sheet"
}

// few lets only so many requests compute at once; the others wait for their turn, or are told to come again.
func few() gin.HandlerFunc {
	seats := make(chan struct{}, 2*runtime.GOMAXPROCS(0))
	return func(c *gin.Context) {
		if !heavy(c.Request.URL.Path) {
			c.Next()
			return
		}
		select {
		case seats <- struct{}{}:
			defer func() { <-seats }()
			c.Next()
		case <-c.Request.Context().Done():
			c.Header("Retry-After", "1")
			problem(c, http.StatusServiceUnavailable,
				"Too much is being worked out at once. Try again in a moment.")
		}
	}
}

// health says whether the program can do its work: its data file is at its place and answers. A watchdog sees
// a status other than 200 where it cannot.
func (s *server) health(c *gin.Context) {
	if err := s.store.With(c.Request.Context()).Alive(); err != nil {
		problem(c, http.StatusServiceUnavailable, "The data file does not answer: "+err.Error()+".")
		return
	}
	c.Header("Cache-Control", "no-store")
	c.String(http.StatusOK, "ok\n")
}
