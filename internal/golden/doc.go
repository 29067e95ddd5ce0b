// Package golden holds answers to the letter: a test says what came out, and it must be what came out before.
// What is right is said by other tests; this one says that nothing else changed.
//
// It is for moves: code that is carried elsewhere, a table that takes the place of a switch. A difference is
// told by its first line; where it is wanted, -update writes the file anew, to be looked at before it is
// committed.
package golden
