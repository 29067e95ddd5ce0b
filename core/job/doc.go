// Package job is the order of work on one engine as a state machine over an append-only list of happenings:
// what is next, what is settled, what may be signed.
//
// # What happened, and what follows
//
// A [Happening] says who did what and when: an [Act], one type a kind, in a file of its own. The state
// ([Job]) is always computed from the list and never kept beside it, so that a restart, another screen and an
// undo all come to the same. Undoing makes the list shorter and computes again.
//
// An act is taken in two steps. Today's rules say whether it may happen, and a [Refusal] says in a sentence
// why not; only then it does what it does. What was accepted once is never refused again: a stored list
// replays by its effects alone, so that a rule made later cannot shut a job that is half done.
//
// # The order of work
//
//	choose the sequence → take the temperature → read every valve as found → set those out → check → sign
//
// A valve is read where it is known to stand on its base circle, wherever the crank may be within what is
// known of it. Where the crank stands is known from a stop that was turned to or from what is seen; it is
// lost when the engine has run or somebody doubts it, and to be confirmed after hours without an entry. A
// good valve is not disturbed; a valve that was set is locked and read again; after two turns every valve is
// read once more. A provisional job is signed cold and finished by a hot pass on the hot card.
//
// [Job.Next] is the one thing to do now, [Job.Advise] the leaves to do it with. Nothing here asks the clock:
// times come in with what happened.
package job
