package api

import (
	"context"
	"fmt"
	"net"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/skip2/go-qrcode"
)

// HandOut is the page that puts the workshop's certificate on tablets.
type HandOut struct {
	Port        int
	Places      []string // the addresses of this machine, the likeliest first
	Fingerprint string   // of the certificate, SHA-256 in hexadecimal
}

// Reach is how tablets reach the program.
type Reach struct {
	TLS         bool   `json:"tls"         doc:"other machines reach it, under the workshop's own certificate; else this machine alone does, or nothing is protected"`
	Page        string `json:"page"        doc:"the page that puts the certificate on a tablet in three steps; empty: there is none"`
	Fingerprint string `json:"fingerprint" doc:"of the certificate, SHA-256 in hexadecimal"`
	CodeSize    int    `json:"code_size"   doc:"width and height of the code to scan, in its squares"`
	Code        string `json:"code"        doc:"the dark squares of that code, as the path of a drawing: page and fingerprint"`
}

// reachRoutes are how tablets are brought to the program.
func (s *server) reachRoutes(a huma.API) {
	huma.Get(
		a,
		"/api/v1/reach",
		s.reach,
		summary("get-reach", "How tablets reach the program, with a code to scan"),
	)
}

// reach gives it, for the address by which it is asked for, unless that is this machine's own.
func (s *server) reach(ctx context.Context, _ *struct{}) (*bodyOf[Reach], error) {
	if s.handOut == nil {
		return &bodyOf[Reach]{}, nil
	}
	host := ""
	if r, ok := ctx.Value(requestKey{}).(*http.Request); ok {
		if asked, _, err := net.SplitHostPort(r.Host); err == nil && !net.ParseIP(asked).IsLoopback() &&
			asked != "localhost" {
			host = asked
		}
	}
	page := s.handOut.Page(host)
	code, err := qrcode.New(page, qrcode.Medium)
	if err != nil {
		return nil, fault(err)
	}
	squares := code.Bitmap()
	return &bodyOf[Reach]{
		Reach{TLS: true, Page: page, Fingerprint: s.handOut.Fingerprint, CodeSize: len(squares),
			Code: drawn(squares)},
	}, nil
}

// Page is the address of the page, with the fingerprint behind it; by a host, or the likeliest place where
// that is empty.
func (h HandOut) Page(host string) string {
	if host == "" && len(h.Places) > 0 {
		host = h.Places[0]
	}
	return fmt.Sprintf("http://%s/#%s", net.JoinHostPort(host, fmt.Sprint(h.Port)), h.Fingerprint)
}

// drawn is the path of the dark squares.
func drawn(squares [][]bool) string {
	var path strings.Builder
	for y, row := range squares {
		for x, dark := range row {
			if dark {
				fmt.Fprintf(&path, "M%d %dh1v1h-1z", x, y)
			}
		}
	}
	return path.String()
}
