//go:build !js

package wire

import (
	"reflect"

	"github.com/danielgtaylor/huma/v2"
)

// Schema is that of a sheet; in the reading of requests it allows anything, since Load says more and better.
func (UnreadSheet) Schema(r huma.Registry) *huma.Schema {
	if r == published.Registry {
		return &huma.Schema{}
	}
	return r.Schema(reflect.TypeFor[Sheet](), true, "")
}
