// Package clearance holds what a valve clearance should be and whether it is.
//
// A [Card] is what one source states, in millimetres, inches or both, at an engine temperature; its limits
// are the stated ones, or the nominal figure and its tolerance, or, where a source gives a nominal alone, ±
// 0.02 mm, which is said.
//
// # From feels to a verdict
//
// A leaf of thickness t ± u is felt in one of three ways, and each bounds the gap:
//
//	free      gap above t − u
//	drag      gap within t ± (u + feel)
//	won't go  gap below t + u
//
// where feel is how far from a leaf's thickness a gap may be when the leaf drags, by the mechanic's hand.
// Readings intersect; where nothing is left they contradict each other, and that is said instead of a
// verdict. A dial indicator gives the gap itself, with its uncertainty.
//
// By the workshop rule the estimate decides: simple acceptance, JCGM 106:2012, 8.2. By the strict one
// (guarded) a gap is in or out only where its whole interval lies there, ISO 14253-1. A verdict is sure where
// the whole interval lies on its side, whatever the rule.
//
// # The next leaf
//
// While nothing has dragged, what is known is the thickest leaf that was free and the thinnest that would not
// go; the tree of tries with the fewest expected ones is found exactly by dynamic programming over those
// pairs. See [Yardstick.Judge] and plan.go.
//
// # Worked through
//
// Limits 0.20 to 0.24, plain leaves (u = 0.005), feel 0.005:
//
//	reading                  what it leaves of the gap      verdict
//	0.24 falls through       above 0.235                    loose, by the limit's leaf; close
//	0.22 falls through       above 0.215                    undecided
//	… and 0.24 won't go    0.215 to 0.245                 in; close: the interval passes the limit by 0.005
//	0.22 drags               0.21 to 0.23                   in, sure
//	0.25 drags               0.24 to 0.26                   loose; close: 0.24 is not ruled out
//
// The strict rule calls the second line from the end in as well, since all of 0.21 to 0.23 lies within the
// limits, and leaves the others undecided.
//
// # What is shown for a valve
//
// The figure is what is known, never more: at 0.25 where a leaf dragged, below 0.305 where the thinnest
// that would not go is 0.30 ± 0.005, above, or between two. See [Judgement.Known].
//
// # Units
//
// A card keeps the unit it was stated in, so that a figure in thousandths is shown as such beside its
// millimetres, and exactly converted: nothing is rounded between the book and the verdict.
package clearance
