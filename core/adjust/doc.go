// Package adjust knows how a valve's adjuster changes its gap: how far a screw is turned, what locking its
// nut does, and which shim goes under which valve.
//
// # Screws
//
// A screw of pitch p that moves the gap by gain g per travel along its axis changes it by
//
//	change = p × g × angle / 360
//
// so angle = 360 × change / (p × g). The gain is 1 where the screw meets the valve, the rocker's ratio or its
// inverse where it sits on the other side, and depends on the lever for pivots; [Gain] has each by its
// geometry. Which way it turns follows from which way it closes and the hand of its thread.
//
// # The lock nut
//
// Tightening a nut drags the screw round. What it does in one mechanic's hands on one kind of adjuster is
// learned from pairs of the gap before and after, as their median; from five pairs on, the gap to set with
// the nut slack is the aim less that shift.
//
// # Shims
//
// A shim thicker by d closes the gap by d. Over a whole engine the choice is an assignment of shims, its own,
// loose, in stock or bought, to valves: fewest bought, then fewest valves disturbed, then nearest to the
// aims. It is solved exactly (see assign.go).
package adjust
