//go:build !js

package wire

import (
	"github.com/danielgtaylor/huma/v2"

	"metronix/core/gear"
)

// TransformSchema names the kinds and means, as the core has them.
func (Gear) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	describe(s, map[string]string{
		"means":       "What is done to change the gap.",
		"needs_ratio": "Its gain is reckoned from the ratio of its rocker or finger.",
		"lock_nut":    "It is held by a nut that is locked after it is moved.",
		"not_set":     "Why there is nothing to set; empty: it is set.",
	})
	s.Properties["kind"].Enum = names(append([]gear.Kind{""}, gear.Kinds()...))
	s.Properties["means"].Enum = names([]gear.Means{"", gear.Turned, gear.Felt, gear.Exchanged, gear.Never})
	return s
}

// TransformSchema says what stands in the place of the leaf.
func (GearWords) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	describe(s, map[string]string{
		"part": "What is turned.",
		"in":   "How it goes into its thread, and out of it.",
		"turn": "What is done until the leaf drags; {leaf} stands for its name.",
	})
	return s
}

// TransformSchema names what is drawn, as the core has it.
func (GearPicture) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	describe(s, map[string]string{
		"between": "Where the leaf goes in, in words.",
		"at_cam":  "The gap lies under the cam.",
	})
	s.Properties["train"].Enum = names(append([]gear.Train{""}, gear.Trains()...))
	s.Properties["setter"].Enum = names(append([]gear.Setter{""}, gear.Setters()...))
	return s
}

// names are words of the core as a schema lists them.
func names[T ~string](list []T) []any {
	var out []any
	for _, v := range list {
		out = append(out, string(v))
	}
	return out
}
