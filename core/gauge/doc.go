// Package gauge holds feeler leaves and sets.
//
// A leaf is told by its marking and its shape ([ID]): a set may hold a straight and an angled leaf of one
// marking. Its true thickness is the micrometer's figure where there is one, else its marking; it is
// uncertain by 0.002 mm either way if measured and 0.005 mm if not (from memory: the last figure of a
// workshop micrometer, and the tolerance that feelers are commonly sold to). Leaves laid together are a
// [Stack], of at most three: thicknesses and uncertainties add.
//
// [Set.Choose] finds the stack for a thickness: with limits the fewest leaves whose whole range lies inside,
// then the nearest to the aim, then the thicker; without limits the smallest worst case. [Set.Reach] says
// which thicknesses a set makes in a window and which sizes are missing. [Check] finds what is wrong with a
// set.
//
// # Examples
//
//	0.20 + 0.04              0.24 ± 0.01, two plain leaves
//	0.20 measured as 0.221   counts as 0.221 ± 0.002, and is still called 0.20
//	.009                     0.2286 mm exactly; it serves limits of 0.20 to 0.24
//
// A stack is named by what is stamped on its leaves, thickest first, because that is what the hand looks
// for in the set; what it measures is told beside it.
package gauge
