package engine_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine"
)

// Every usual order fires each cylinder once, and its banks hold each cylinder once. The orders themselves:
// from memory.
func TestCatalogueIsSound(t *testing.T) {
	for _, layout := range []engine.Layout{engine.Inline, engine.Vee, engine.Flat, engine.Other} {
		for n := 1; n <= engine.MaxCylinders; n++ {
			for _, u := range engine.UsualOrders(layout, n) {
				order, banked := slices.Clone(u.Order), slices.Concat(u.Banks...)
				slices.Sort(order)
				slices.Sort(banked)
				assert.Equal(t, order, banked, "%v", u.Order)
				for i, c := range order {
					assert.Equal(t, i+1, c, "%v", u.Order)
				}
			}
		}
	}
	four := engine.UsualOrders(engine.Inline, 4)
	require.Len(t, four, 2)
	assert.Equal(t, []int{1, 3, 4, 2}, four[0].Order)
	assert.Equal(t, []int{1, 4, 3, 2}, engine.UsualOrders(engine.Flat, 4)[0].Order)
}

// A sheet to begin from lacks only its name, whatever the layout.
func TestStartedSheetsAreSoundButForTheName(t *testing.T) {
	for _, layout := range []engine.Layout{engine.Inline, engine.Vee, engine.Flat, engine.Other} {
		for cylinders := 1; cylinders <= engine.MaxCylinders; cylinders++ {
			for per := 2; per <= engine.MaxValvesPerCylinder; per++ {
				s, err := engine.Start(layout, cylinders, per)
				require.NoError(t, err)
				problems := engine.Check(s).Problems
				require.Len(t, problems, 1, "%s %d × %d: %v", layout, cylinders, per, problems)
				assert.Equal(t, "name", problems[0].Location)
				assert.Len(t, s.Valves(), cylinders*per)
			}
		}
	}
	_, err := engine.Start(engine.Inline, 17, 2)
	assert.Error(t, err)
	_, err = engine.Start(engine.Inline, 4, 6)
	assert.Error(t, err)
}
