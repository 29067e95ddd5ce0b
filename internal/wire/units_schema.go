//go:build !js

package wire

import (
	"github.com/danielgtaylor/huma/v2"
)

// Schema says that it is a number.
func (MM) Schema(huma.Registry) *huma.Schema {
	return number("a length in millimetres, at most six decimal places")
}

// Schema says that it is a number.
func (IN) Schema(huma.Registry) *huma.Schema { return number("a length in inches") }

// Schema says that it is a number.
func (Deg) Schema(huma.Registry) *huma.Schema { return number("an angle in degrees") }

// Schema says that it is a number.
func (Celsius) Schema(huma.Registry) *huma.Schema { return number("a temperature in degrees Celsius") }

// Schema says that it is a number.
func (Nm) Schema(huma.Registry) *huma.Schema { return number("a torque in newton-metres") }

// Schema says that it is a number.
func (LbfFt) Schema(huma.Registry) *huma.Schema { return number("a torque in pound-force feet") }

// number is the schema of a unit: a number, said which.
func number(of string) *huma.Schema { return &huma.Schema{Type: huma.TypeNumber, Description: of} }
