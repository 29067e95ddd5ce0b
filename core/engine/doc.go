// Package engine holds the engine sheet: what must be known of an engine to set its valves.
//
// A [Sheet] has cylinders that fire in an order, evenly over 720 degrees of the crank unless angles are
// given. They stand in banks, one head each, numbered from the front; a head has one row of valves, or two
// (left and right, seen from the rear looking to the front). A row is written as letters from front to rear,
// I for an intake valve and E for an exhaust, equally many a cylinder. From that every valve has its name:
// kind and cylinder, I1, E4, and where a cylinder has several of a kind a letter more, from the front, I1a,
// I1b. Where the engine has one head with one row, its valves are also numbered from the front, which the
// rule of nine lives on.
//
// The cam card ([ValveTiming]) gives opening and closing before and after the dead centres; the clearance
// cards give the limits, each with the engine temperature it holds at. What is left out is assumed, and
// [Assumed] says so: a typical road cam, even firing, a ramp allowance of 20 degrees, or 40 where the card is
// quoted at a lift, because the lift's ramps then lie outside what it says.
//
// [Check] finds everything wrong with a sheet at once, each fault at its place, what is odd about it, and
// what is assumed. The rest of the core takes checked sheets only.
//
// # Rows and names
//
// A straight four whose head has one row, E I I E E I I E from the front, has the valves
//
//	E1 I1 I2 E2 E3 I3 I4 E4
//
// numbered 1 to 8 in that order. With two intakes and one exhaust a cylinder in two rows, I I I I I I I I
// on the left and E E E E on the right, they are I1a I1b I2a I2b … and E1 E2 E3 E4, and have no numbers.
//
// Left and right are seen from the rear of the engine looking to its front, as a driver sits; rotation is
// seen from the front, where the pulley is. A bank's angle leans it clockwise, seen from the front.
//
// # Firing
//
// Even firing spreads the cylinders over the cycle, 720 divided by their number, in firing order. Odd-fire
// engines state their angles, rising from 0 at the first cylinder of the order: a vee twin of 90 degrees
// on one crank pin fires at 0 and 450, so that its second cylinder comes a quarter turn after a whole one.
//
// # What makes a sheet usable
//
// A sheet with problems is not used at all: a firing order that leaves a cylinder out, letters that do not
// divide among the cylinders, a required margin that no place of this cam reaches. A warning never stops
// anybody. What is assumed is listed with every plan, because a stop computed from a cam that was assumed
// is as good as the assumption.
//
// # Clearances
//
// Cold and hot figures are different figures and never converted into each other: what an engine's gaps do
// as it warms depends on its metals and on which parts are hot already. A sheet may hold several cards, a
// maker's, a plate's, a cam grinder's, and the job records which was used and why.
package engine
