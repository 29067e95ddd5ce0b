// Package walks walks whole jobs at random against engines as they truly are: it is nothing but tests.
//
// A walker is a mechanic with habits of his own. He does what the job says is next, and is disturbed on the
// way: the crank is turned by somebody else, the engine is run, a night passes, the program starts anew,
// something is taken back, another sequence is chosen. After each act what the job believes is compared with
// what is so; and every job comes to its signature in a number of acts that its rehearsal and the
// disturbances account for.
//
// There are 40 walks, 500 in the long tests, or as many as -rapid.checks says.
package walks
