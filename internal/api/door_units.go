package api

import (
	"context"

	"github.com/gin-gonic/gin"

	"metronix/core/measure"
	"metronix/internal/wire"
)

// unitsCookie names the cookie that says in which units a person is spoken to, in wire.ReadUnits's form. A
// cookie, because it goes with every request by itself: with a reading, and with a link to a printed sheet.
const unitsCookie = "metronix_units"

// unitsKey is under which a request carries its person's units.
type unitsKey struct{}

// spoken keeps the person's units with the request.
func spoken(c *gin.Context) {
	if text, err := c.Cookie(unitsCookie); err == nil {
		units := wire.ReadUnits(text)
		c.Request = c.Request.WithContext(context.WithValue(c.Request.Context(), unitsKey{}, units))
	}
}

// speaksTo is how quantities are said to whoever sent a request; the zero units where that was not said.
func speaksTo(ctx context.Context) measure.Units {
	units, _ := ctx.Value(unitsKey{}).(measure.Units)
	return units
}
