package api

import (
	"context"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
)

// DemoPlace is where the made-up workshop is served.
type DemoPlace struct {
	Port int `json:"port" doc:"of this same host; what is done there is gone when the program ends"`
}

// demoRoutes are the made-up workshop to try things on, beside the own one.
func (s *server) demoRoutes(a huma.API) {
	huma.Post(a, "/api/v1/demo", s.openDemo,
		summary("open-demo", "Serve a made-up workshop beside this one, to try things on"))
}

// openDemo serves the made-up workshop, once, on a port of its own.
func (s *server) openDemo(ctx context.Context, _ *struct{}) (*bodyOf[DemoPlace], error) {
	if s.demo == nil {
		return nil, located(http.StatusNotFound, "No demo is served beside this workshop.")
	}
	port, err := s.demo(ctx)
	if err != nil {
		return nil, located(http.StatusServiceUnavailable, fmt.Sprintf(
			"The demo could not be made ready: %v. Start it by itself, with metronix demo.", err))
	}
	return &bodyOf[DemoPlace]{DemoPlace{port}}, nil
}
