package main

import (
	"context"
	"fmt"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"sync"

	"metronix/internal/api"
	"metronix/internal/demo"
	"metronix/internal/store"
	"metronix/web"
)

// scratch is the made-up workshop that a newcomer tries things on: its own data file in a folder that goes
// with the program, on a port of its own, so that in a browser nothing of it meets the workshop's own. It is
// made when it is first asked for.
type scratch struct {
	ip    string // where the program itself listens
	hosts func() []string
	wrap  func(net.Listener) net.Listener // as the program's own line is protected

	making sync.Mutex
	port   int // 0: it is not made
	closed bool
	finish func()
}

// Port is where it is served; it errs where there is no room, or no port to be had, and is tried again when
// it is asked for again.
func (s *scratch) Port(context.Context) (port int, err error) {
	s.making.Lock()
	defer s.making.Unlock()
	if s.closed {
		return 0, http.ErrServerClosed
	}
	if s.port == 0 {
		s.port, err = s.open()
	}
	return s.port, err
}

// Close ends it and removes what was stored in it. One that was never asked for stays unmade.
func (s *scratch) Close() {
	s.making.Lock()
	defer s.making.Unlock()
	s.closed = true
	if s.finish != nil {
		s.finish()
	}
}

func (s *scratch) open() (port int, err error) {
	dir, err := os.MkdirTemp("", "metronix-demo-")
	if err != nil {
		return 0, err
	}
	undo := []func(){func() { _ = os.RemoveAll(dir) }}
	finish := func() {
		for i := len(undo) - 1; i >= 0; i-- {
			undo[i]()
		}
	}
	defer func() {
		if err != nil {
			finish()
		}
	}()
	file := filepath.Join(dir, "demo.db")
	if err := store.Filled(file, demo.Load); err != nil {
		return 0, err
	}
	st, err := store.Open(file)
	if err != nil {
		return 0, err
	}
	undo = append(undo, st.Close)
	handler, err := api.Ready(context.Background(), st, api.Options{Site: web.Site(), Hosts: s.hosts, Version: version})
	if err != nil {
		return 0, err
	}
	listener, err := net.Listen("tcp", net.JoinHostPort(s.ip, "0"))
	if err != nil {
		return 0, err
	}
	at, ok := listener.Addr().(*net.TCPAddr)
	if !ok {
		return 0, fmt.Errorf("the demo has no port: %v", listener.Addr())
	}
	listener = s.wrap(listener)
	server := api.NewHTTPServer(handler)
	undo = append(undo, func() { _ = server.Close() })
	go func() { _ = server.Serve(listener) }()
	s.finish = finish
	return at.Port, nil
}
