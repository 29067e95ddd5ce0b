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
//
// # By hand
//
//	0.10 too loose, M8×1 at the valve end                36° in, clockwise
//	0.10 too loose, 5/16-24 stud nut, rocker 1.5         13.6° down: the nut moves both arms, gain 2.5
//	0.05 too tight, threaded tappet M8×1                 18°: it must go in, clockwise, to open
//	2.70 fitted, 0.10 found, 0.20 wanted                 a shim of 2.60
//
// Angles are told to a whole degree on screens; a hand turns to five.
package adjust
