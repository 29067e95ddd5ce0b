package authority

import (
	_ "embed"
	"html/template"
	"net/http"

	"metronix/internal/secret"
)

//go:embed hand_out.html
var handOutPage string

var handOut = template.Must(template.New("").Parse(handOutPage))

// HandOut is the page that puts the authority on a tablet in three steps, and the certificate itself: nothing
// else is there. It is served without TLS, because a tablet that has no certificate yet could not read it
// else; what keeps it honest is the fingerprint, which is compared with the one beside the code that was
// scanned. program gives the address under which the program is opened then.
func (a *Authority) HandOut(program func(*http.Request) string) http.Handler {
	mux := http.NewServeMux()
	mux.HandleFunc("GET /{$}", func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("Content-Type", "text/html; charset=utf-8")
		h.Set(
			"Content-Security-Policy",
			"default-src 'none'; style-src 'unsafe-inline'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
		)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Cache-Control", "no-store")
		_ = handOut.Execute(w, struct {
			Program string
			Groups  []string
		}{program(r), secret.Groups(a.Fingerprint())})
	})
	mux.HandleFunc("GET /authority.crt", func(w http.ResponseWriter, _ *http.Request) {
		h := w.Header()
		h.Set("Content-Type", "application/x-x509-ca-cert")
		h.Set("Content-Disposition", `attachment; filename="metronix-workshop.crt"`)
		h.Set("X-Content-Type-Options", "nosniff")
		_, _ = w.Write(a.DER())
	})
	return mux
}
