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
package engine
