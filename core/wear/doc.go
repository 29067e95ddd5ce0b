// Package wear reckons from visit to visit how clearances change, when the first valve leaves its window, and
// when the next job is due.
//
// Between two visits a valve's gap went from what it was left at to what it was found at, over the distance
// between, or the running hours of an engine that does not drive. Its rate is the sum of those changes over
// the sum of those distances, in millimetres per 1000 km, negative where the gap closes: pooling so weighs a
// long interval more than a short one. From the gap it was left with last, at that rate, follows what its
// counter shows when it leaves its window; the fastest and the slowest interval give a range. The job is due
// at the earliest of that, the maker's distance and the maker's months, and the answer says which.
//
// # By hand
//
//	visit      km        found   left
//	1          100,000   0.30    0.30
//	2          120,000   0.29    0.30
//
// E1 closed by 0.01 in 20,000 km, 0.0005 mm per 1,000 km. From 0.30 its limit of 0.28 is 40,000 km away,
// so it leaves its window at 160,000; with an interval of 24,000 km the job is due at 144,000 all the
// same.
package wear
