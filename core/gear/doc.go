// Package gear holds the kinds of adjuster, a file a kind: how the gap between cam and valve is changed, and
// all that follows from it.
//
// A gap is changed by turning a screw or nut ([Turned]), by an eccentric that is moved by feel ([Felt]), by
// putting in another shim or bucket ([Exchanged]), or not at all ([Never]: hydraulic gear takes up its gap by
// itself). What a screw does to the gap depends on where it sits among the levers: its gain, change of gap
// per travel of the screw along its axis, is
//
//	screw at the valve end, gap at the valve            1
//	threaded tappet, gap at the tappet                  1
//	screw at the valve end, gap at the cam              1/r
//	threaded tappet, gap at the valve                   r
//	screw at the push-rod end, gap at the valve         r
//	nut on the stud at the rocker's middle              1 + r
//	pivot of a finger, gap at the cam                   1 − 1/R
//	pivot of a finger, gap at the valve                 R − 1
//
// with r the rocker's ratio (valve side over cam or push-rod side) and R that of a finger follower (valve end
// over cam contact, both from the pivot), by geometry of the lever. The rocker's middle moves both arms at
// once, hence 1 + r. A finger's pivot lifts one end of a beam that rests on the valve's tip and is pressed by
// the cam between the two; a ratio of 1 would put the cam over the valve, where the pivot changes nothing, so
// R is above 1.
//
// A new kind is a file with its name and its Gear, and a line in kinds; where its parts look like no other's,
// the side view in the front end learns to draw them. The sheet's list, the calculators' fields, the tools
// that are laid out, the words at the wrench and the pictures follow from the table, and a test proves that
// each kind says all of it.
package gear
