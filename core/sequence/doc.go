// Package sequence plans the order of work: at which crank positions to stop and which valves to set there.
//
// The trade has several schools, each in a file of its own with a value in one table: one cylinder at a time,
// rocking pairs, the rule of nine and its kin, exhaust fully open, two stops, exhaust opening and intake
// closing, one lobe at a time, the maker's own printed order, and the fewest stops that the geometry allows.
// A school says where the crank stops, by which sign the mechanic sees that it is there, and which valves are
// worked on. A school is never believed: every valve's margin at its stop is reckoned from the sheet, and a
// school that would name a valve whose margin is below the required one does not apply, with that valve as
// the reason. Only the maker's own order applies all the same, with a caution for each such valve, because
// the maker's book wins.
//
// [Make] plans one school, [Compare] all of them with the frontier: for each number of stops the plan whose
// smallest margin is largest.
//
// # The fewest stops
//
// For a wanted margin each valve may be set on an arc of crank positions, its closed interval shrunk by the
// margin at both ends. The fewest stops are the fewest points that stab all arcs of a circle, found exactly
// by a greedy walk begun at each arc's end; the largest margin for a number of stops is reached where some
// arc's start meets some arc's end, so only those margins are tried.
//
// # Finding the crank
//
// [Locate] turns the question round. What is seen allows a range of crank positions; several sightings
// intersect; what remains is where the crank may stand. Where doubt remains it names what to look at next,
// and where the crank stands if that is seen.
package sequence
