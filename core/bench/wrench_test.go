package bench

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/engine"
	"metronix/core/measure"
)

// A click counts as right within what a click-type wrench may be out: 4 % above 10 Nm, 6 % up to it (ISO
// 6789-1, from memory).
func TestWhereAWrenchClicked(t *testing.T) {
	for _, c := range []struct {
		want, clicked float64
		off           bool
		says          string
	}{
		{25, 24.1, false, "The wrench clicked at 24.1 N·m (17.8 lbf·ft), as it should."},
		{25, 26, false, "The wrench clicked at 26 N·m (19.2 lbf·ft), as it should."},
		{25, 23.9, true, "The wrench clicked at 23.9 N·m (17.6 lbf·ft): 25 N·m (18.4 lbf·ft) is to be had."},
		{25, 26.1, true, "The wrench clicked at 26.1 N·m (19.3 lbf·ft), and 25 N·m (18.4 lbf·ft) is to be had: slacken the nut and tighten it anew."},
		{9, 8.5, false, "The wrench clicked at 8.5 N·m (6.27 lbf·ft), as it should."},
		{9, 8.4, true, "The wrench clicked at 8.4 N·m (6.2 lbf·ft): 9 N·m (6.64 lbf·ft) is to be had."},
		{0, 20, false, "The wrench clicked at 20 N·m (14.8 lbf·ft). No torque is printed for this nut."},
	} {
		says, off := Clicked(&engine.Sheet{Adjuster: &engine.Adjuster{Locknut: engine.Torque{Nm: c.want}}}, c.clicked, measure.Units{})
		assert.Equal(t, c.says, says)
		assert.Equal(t, c.off, off, says)
	}
}
