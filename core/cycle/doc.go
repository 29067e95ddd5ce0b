// Package cycle knows where every valve of an engine stands at a crank position.
//
// # The model
//
// A four-stroke cycle is two turns of the crank, 720 degrees. Crank position 0 is the firing TDC of the first
// cylinder of the firing order, rising in the running direction. A cylinder that fires at crank position f
// stands in its own cycle at
//
//	theta = (crank − f) mod 720
//
// with 0 its firing TDC and 360 its TDC of overlap. The cam card gives, in that cycle,
//
//	exhaust opens at 180 − EVO   shuts at 360 + EVC
//	intake  opens at 360 − IVO   shuts at 540 + IVC
//
// A valve is shut outside its interval, where its lobe's base circle faces the follower and the clearance can
// be read. Its margin at a crank position is the distance in crank degrees to the nearer end of that
// interval: positive on the base circle, negative while the valve is open. A margin is what every judgement
// of place comes down to: the required one allows for the opening and closing ramps, which the card does not
// show.
//
// The open fraction is a smooth curve for drawing, 0 shut and 1 at the peak; nothing is judged by it.
//
// Two cylinders are companions where they fire one turn apart: while one fires the other rocks.
package cycle
