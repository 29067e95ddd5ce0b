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
//
// # Depth
//
// How the schools differ on one engine, a four with the typical road cam (every valve shut for 476
// degrees):
//
//	school                  stops   turned   smallest margin
//	one cylinder, rocking   4       540°     128°
//	two stops               2       360°     128°
//	exhaust fully open      4       540°     198°
//	rule of nine            8       as the valves come down   238°, half of 476
//
// Fewer stops are less work at the crank and leave each valve nearer to its ramps: that is the whole
// disagreement between the schools, and [Compare] puts it in numbers for any engine.
//
// # Signs
//
// A stop names first the sign that tells its place for certain, the cylinder that rocks or the valve that
// is down, and a pulley mark only beside it: a mark comes round at every turn, and a cycle has two. On
// positions that nothing marks, a degree wheel is read.
//
// # Turning back
//
// Against the running direction a plan visits the same stops the other way round. It is made only where
// the sheet says that the engine may be turned back, and carries its caution: a crank bolt can come
// undone, a sprung tensioner can let a chain slip.
package sequence
