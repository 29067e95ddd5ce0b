package wire

import (
	"metronix/core/gear"
)

// Gear is a kind of adjuster and all that follows from it; all is empty for a kind that is not known.
type Gear struct {
	Kind       string      `json:"kind"`
	Title      string      `json:"title"`
	Means      string      `json:"means"`
	NeedsRatio bool        `json:"needs_ratio"`
	LockNut    bool        `json:"lock_nut"`
	CamSeen    bool        `json:"cam_seen" doc:"its lobes are seen with the cover off"`
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

// GearOf is a gear as it is sent.
func GearOf(g gear.Gear) Gear {
	return Gear{
		Kind:       string(g.Kind),
		Title:      g.Title,
		Means:      string(g.Means),
		NeedsRatio: g.Ratio != gear.NoRatio,
		LockNut:    g.LockNut(),
		CamSeen:    g.CamSeen(),
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
