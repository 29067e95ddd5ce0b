package main

import (
	"crypto/rand"
	"crypto/tls"
	"fmt"
	"io"
	"math/big"
	"net"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/skip2/go-qrcode"

	"metronix/internal/api"
	"metronix/internal/authority"
	"metronix/internal/secret"
)

// doors are how a program that other machines reach is protected: TLS under an authority of its own, and
// beside it the page that puts that on tablets.
type doors struct {
	wrap func(net.Listener) net.Listener // speaks TLS over a line
	page net.Listener
	hand api.HandOut
	code string // by which whoever stands at this machine sets up the first foreman from a tablet
	// addresses of this machine that the authority may not sign for, because they are no private ones and
	// were not named
	without []string
}

// protect puts the doors into a listener.
func protect(w wishes, listener net.Listener, places []string, called func() []string) (*doors, error) {
	folder := w.data + ".authority"
	a, err := authority.Open(folder, w.hosts, time.Now())
	if err != nil {
		return nil, err
	}
	at := listener.Addr().(*net.TCPAddr)
	port := w.handOut
	if port < 0 {
		if port = at.Port + 1; strings.HasSuffix(w.listen, ":0") {
			port = 0
		}
	}
	page, err := net.Listen("tcp", net.JoinHostPort(at.IP.String(), strconv.Itoa(port)))
	if err != nil {
		return nil, fmt.Errorf(
			"the page that puts the certificate on tablets has no port: %w. Give one with --hand-out",
			err,
		)
	}
	config := a.Config(called, time.Now)
	d := &doors{wrap: func(l net.Listener) net.Listener { return tls.NewListener(l, config) }, page: page,
		hand: api.HandOut{
			Port:        page.Addr().(*net.TCPAddr).Port,
			Places:      beyond(places),
			Fingerprint: a.Fingerprint(),
		}}
	for _, place := range d.hand.Places {
		if !a.May(place) {
			d.without = append(d.without, place)
		}
	}
	n, err := rand.Int(rand.Reader, big.NewInt(1_000_000))
	if err != nil {
		return nil, err
	}
	d.code = fmt.Sprintf("%06d", n)
	server := api.NewHTTPServer(a.HandOut(func(r *http.Request) string {
		host, _, err := net.SplitHostPort(r.Host)
		if err != nil {
			host = r.Host
		}
		return "https://" + net.JoinHostPort(host, strconv.Itoa(at.Port)) + "/"
	}))
	go func() { _ = server.Serve(page) }()
	return d, nil
}

// beyond are the places that other machines reach, those with four numbers first.
func beyond(places []string) []string {
	list := slices.DeleteFunc(
		slices.Clone(places),
		func(p string) bool { return p == "localhost" || net.ParseIP(p).IsLoopback() },
	)
	slices.SortStableFunc(
		list,
		func(a, b string) int { return strings.Count(a, ":") - strings.Count(b, ":") },
	)
	return list
}

// tell says how tablets come in, and how the first foreman is set up where nobody is.
func (d *doors) tell(out io.Writer, nobody bool) {
	for _, place := range d.without {
		fmt.Fprintf(
			out,
			"%s is no address of a private network, and the authority was made without it: tablets cannot come in by it. Where "+
				"they should, take its folder away and start with --host %s.\n",
			place,
			place,
		)
	}
	if nobody {
		fmt.Fprintf(
			out,
			"Nobody is set up: the first foreman is, with the code %s, on the page that comes up.\n",
			d.code,
		)
	}
	page := d.hand.Page("")
	if code, err := qrcode.New(page, qrcode.Low); err == nil {
		fmt.Fprintln(out, code.ToSmallString(false))
	}
	fmt.Fprintf(
		out,
		"Each tablet: point its camera at this code, or open %s\nCertificate's SHA-256: %s\n",
		page,
		strings.Join(secret.Groups(d.hand.Fingerprint), " "),
	)
}

// close ends the page.
func (d *doors) close() { _ = d.page.Close() }
