package api

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"mime"
	"net"
	"net/http"
	"os"
	"strings"
	"time"

	"metronix/internal/photo"
	"metronix/internal/wire"
)

// strict reads a request's body whole before anything is done with it, and refuses what no page of ours would
// send: one that is too large or does not come, keys given twice in one case or another, and characters that
// cannot be seen or written. After a body that was not read to its end the connection is closed, so that its
// rest is never taken for another request.
func strict(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if isArchive(r.URL.Path) {
			streamed(next, w, r)
			return
		}
		if r.Body == nil || r.Body == http.NoBody {
			next.ServeHTTP(w, r)
			return
		}
		most := bodyLimit(r.URL.Path)
		if most > maxBody { // a telephone at the far end of the bay takes its time
			_ = http.NewResponseController(w).SetReadDeadline(time.Now().Add(uploadTimeout))
		}
		body, err := io.ReadAll(io.LimitReader(r.Body, most+1))
		switch {
		case err != nil:
			w.Header().Set("Connection", "close")
			status, say := http.StatusBadRequest, "The request's body could not be read."
			var late net.Error
			if errors.Is(err, os.ErrDeadlineExceeded) || (errors.As(err, &late) && late.Timeout()) {
				status, say = http.StatusRequestTimeout, "The request's body did not come in time."
			}
			writeProblem(w, status, say)
			return
		case int64(len(body)) > most:
			w.Header().Set("Connection", "close")
			writeProblem(w, http.StatusRequestEntityTooLarge,
				fmt.Sprintf("This is larger than %d MiB, which is the most that is taken here.", most>>20))
			return
		}
		if isJSON(r) && most == maxBody {
			// what is no JSON at all is left to whoever reads it, who says so
			if n, err := wire.Parse(body); err == nil {
				if faults := wire.LooseIn(n); len(faults) > 0 {
					writeFaults(w, http.StatusUnprocessableEntity, faults[0].Message, faults)
					return
				}
				r = r.WithContext(context.WithValue(r.Context(), parsedBody{}, n))
			}
		}
		r.Body, r.ContentLength = io.NopCloser(bytes.NewReader(body)), int64(len(body))
		next.ServeHTTP(w, r)
	})
}

// parsedBody is where a request's context holds its body, parsed.
type parsedBody struct{}

// parsed is the body of the request that is answered; nil where it is no JSON.
func parsed(ctx context.Context) wire.Node { return ctx.Value(parsedBody{}) }

// uploadTimeout is how long a picture or a recording may take to come.
const uploadTimeout = 2 * time.Minute

// bodyLimit is how much an address takes, bytes: pictures and recordings have their own.
func bodyLimit(path string) int64 {
	switch {
	case strings.HasSuffix(path, "/photos"):
		return photo.MaxBytes
	case strings.HasSuffix(path, "/sounds"):
		return maxSound
	}
	return maxBody
}

// isJSON says whether a body is to be taken as JSON: whatever is not said to be something else.
func isJSON(r *http.Request) bool {
	kind, _, err := mime.ParseMediaType(r.Header.Get("Content-Type"))
	return err != nil || kind != "text/csv"
}
