package wire

import (
	"github.com/danielgtaylor/huma/v2"

	"metronix/core/gear"
)

// Gear is a kind of adjuster and all that follows from it; all is empty for a kind that is not known.
type Gear struct {
	Kind       string      `json:"kind"`
	Title      string      `json:"title"`
	Means      string      `json:"means"`
	NeedsRatio bool        `json:"needs_ratio"`
	LockNut    bool        `json:"lock_nut"`
	NotSet     string      `json:"not_set"`
	Tools      []string    `json:"tools"`
	Words      GearWords   `json:"words"`
	Picture    GearPicture `json:"picture"`
}

// GearWords are what is said of a gear at the wrench.
type GearWords struct {
	Part  string `json:"part"`
	In    string `json:"in"`
	Out   string `json:"out"`
	Turn  string `json:"turn"`
	Tools string `json:"tools"`
	Lock  string `json:"lock"`
}

// GearPicture is what a gear consists of, seen from the side.
type GearPicture struct {
	Train   string `json:"train"`
	Setter  string `json:"setter"`
	Between string `json:"between"`
	AtCam   bool   `json:"at_cam"`
}

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

// GearOf is a gear as it is sent.
func GearOf(g gear.Gear) Gear {
	return Gear{
		Kind:       string(g.Kind),
		Title:      g.Title,
		Means:      string(g.Means),
		NeedsRatio: g.Ratio != gear.NoRatio,
		LockNut:    g.LockNut(),
		NotSet:     g.NotSet,
		Tools:      append([]string{}, g.Tools...),
		Words:      GearWords(g.Words),
		Picture: GearPicture{Train: string(g.Picture.Train),
			Setter: string(g.Picture.Setter), Between: g.Picture.Between, AtCam: g.Picture.AtCam},
	}
}

// Gears is every gear, in the order they are offered.
func Gears() []Gear {
	var list []Gear
	for _, g := range gear.All() {
		list = append(list, GearOf(g))
	}
	return list
}
