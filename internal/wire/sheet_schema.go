//go:build !js

package wire

import (
	"github.com/danielgtaylor/huma/v2"

	"metronix/core/engine"
	"metronix/core/gear"
)

// TransformSchema states the limits of what the lists hold, which tags cannot say.
func (Sheet) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	describe(s, map[string]string{
		"firing_angles_deg": "When each cylinder of the order fires, rising from 0; " +
			"left out for even firing.",
		"rotation":      "The running direction seen from the front.",
		"may_turn_back": "Whether the crank may be turned against the running direction.",
		"required_margin_deg": "How far a valve must stand from opening and closing; 20 where left out, 40 " +
			"for a card quoted at a lift.",
		"marks_deg": "Marks on the pulley after a TDC mark, repeated every turn; the TDC " +
			"mark alone where left out.",
		"own_sequence": "The maker's printed order.",
		"check_turns":  "Turns of the crank before valves are checked again; 2 where left out.",
		"signs":        "What can be seen of the crank's place on this engine.",
		"strip_list":   "What is taken off to open the engine, in order.",
		"closing":      "How the engine is closed.",
		"variable_lift": "How the gear of variable lift is checked before any valve is read; left " +
			"out where there is none.",
	})
	between(s.Properties["firing_order"].Items, 1, engine.MaxCylinders)
	below(s.Properties["firing_angles_deg"].Items, 720)
	below(s.Properties["marks_deg"].Items, 360)
	return s
}

// TransformSchema states what a cylinder's number may be.
func (Bank) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	describe(s, map[string]string{
		"angle_deg":    "Lean from upright, seen from the front, clockwise positive.",
		"cylinders":    "Front to rear.",
		"intake_ports": "Seen from the rear of the engine looking to its front.",
	})
	between(s.Properties["cylinders"].Items, 1, engine.MaxCylinders)
	return s
}

// TransformSchema says what the fields mean.
func (Row) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	describe(s, map[string]string{
		"side":   "Seen from the rear of the engine looking to its front.",
		"valves": "Front to rear: I intake, E exhaust, equally many a cylinder.",
	})
	return s
}

// TransformSchema names the kinds, as the core has them.
func (Adjuster) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	describe(s, map[string]string{
		"thread": "The hand of the thread; left out for right-hand.",
		"closes": "Which way an unusual gear closes, against the rule of its kind.",
	})
	s.Properties["kind"].Enum = names(gear.Kinds())
	return s
}

// TransformSchema says what the fields mean.
func (ClearanceCard) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	describe(s, map[string]string{
		"date":       "of the source, as written there",
		"stone_cold": "the engine must stand within 5 °C of its surroundings",
	})
	return s
}

// TransformSchema says how a clearance is stated.
func (Clearance) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	s.Description = "Nominal, nominal with tolerance, or lower and upper; in millimetres, " +
		"in inches, or in both " +
		"(which may differ by at most 0.0127 mm)."
	return s
}

// TransformSchema states where a crank may stand and how a valve is called.
func (OwnStop) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	below(s.Properties["crank_deg"], 720)
	s.Properties["set"].Items.Pattern = "^[IE][0-9]{1,2}[a-e]?$"
	return s
}

// TransformSchema says what the fields mean.
func (Sign) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	describe(s, map[string]string{
		"where":      "On which part it is seen.",
		"at_deg":     "Where the crank then stands, after firing TDC of the first cylinder of the order.",
		"period_deg": "360 for what turns with the crank, 720 for what turns with the cam.",
		"doubtful":   "What to check it against, where it may have moved.",
		"check_by":   "What else shows then, by which it can be made sure of.",
	})
	below(s.Properties["at_deg"].Items, 720)
	return s
}
