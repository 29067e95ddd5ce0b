// Package order proves an order that somebody has from a book, a card or memory against an engine's sheet:
// where the crank is said to stand, what is said to be set there, and how far each valve really is from its
// lobe then.
//
// # By hand
//
// A four fires 1-3-4-2. "4 rocks: 1" puts the crank where cylinder 4 overlaps, 360° from its firing TDC,
// which is the firing TDC of cylinder 1: both valves of 1 are shut, the exhaust by 128° from its opening at
// 52° before bottom. Every stop so, and each valve once, is an order that is right; one a turn out sets
// valves that rock.
package order
