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
//
// # A job from end to end
//
// A four 1-3-4-2 with screws and lock nuts, by rocking pairs, cold:
//
//	way_chosen     rocking pairs, as the crank turns
//	prepared       19 °C, at most 38 is allowed: the gate is open
//	located        the TDC mark at the pointer, cylinder 4 rocks: the crank stands at 0
//	reading        E1: 0.30 drags, in a window of 0.28 to 0.32
//	kept           E1 is in, its as-found figure stands
//	reading, kept  I1: 0.18 drags, under a window of 0.20 to 0.24: tight
//	turned         180 degrees on, cylinder 2 rocks; E3 and I3 are read; and so round
//	turned         back at cylinder 1: what was out is set where it stands clear
//	adjusted       I1: the nut is slack, the screw turned out until 0.22 drags
//	locked         the nut is tight
//	reading, kept  I1: 0.22 drags, in
//	barred_over    two full turns
//	reading, kept  every valve once more
//	signed         tools and leaves accounted for, by whom
//
// # Floors
//
// The files stand on four floors, and none takes a name from a floor above it (internal/archtest):
//
//	the list       Acts, Take, Replay, Admit, undo: how a list is taken, new or stored
//	acts           one kind a file: what it needs, when it may happen, what it does
//	what is next   phase, next, the steps of shims, the brief, what sightings say
//	what is known  valve, heat, crank, round, shims, signing; the log, and what several acts ask of them
//
// # Phases
//
// The phase is not stored, it follows from the valves:
//
//	choose_way   no sequence chosen
//	prepare      the temperature gate is shut
//	as_found     some valve has no as-found figure
//	adjust       some valve is out, or its nut is slack, and is not left with a reason
//	verify       something was set since the crank was last turned over twice
//	sign         nothing waits
//	await_hot    signed cold, and a hot pass is to follow
//	done         signed
//
// # What a valve goes through
//
//	Untouched → NutLoose → NutTight → Untouched
//
// Adjusted slackens the nut, Locked tightens it, and keeping the reading that follows brings it back to
// where it counts as read. On gear without a lock nut Adjusted leads straight to NutTight. A valve with
// its nut slack is the only one that may be worked on until it is locked, and the crank is not turned
// while it can still be reached.
//
// # Where the crank stands
//
// The crank is known as a range of positions, from a stop (one position) or from sightings (as wide as
// they leave it). Every question of whether a valve may be worked on is asked of the least clear position
// of that range. The place is lost when the engine has run (a hot pass, a gate that shut because the
// engine was found warmer), when somebody doubts it, and it wants confirming after hours in which nothing
// was entered, since the next thing may have been done by a hand that did not write it down.
//
// # Two hands at one job
//
// A happening may say what its screen knew: the newest happening on it ([Happening].Since). Where something
// came in between that matters, it is refused with a code that a screen can answer: the crank was moved
// ([CrankMoved]), the valve was kept by somebody else ([KeptSince]). A reading made before the crank was
// moved still counts for the place where it was made, if that is said. What a screen that names itself
// ([Happening.Screen]) enters arrives in the order in which it was done there, so that such a screen says
// what it last knew of others and is taken to know its own.
//
// # What is refused, and how
//
// A [Refusal] names the field that is at fault, and says in a sentence what stands in the way and what to
// do about it. Whether an act is sound (its valve exists, its figures can be) is asked always; whether it
// may happen now is asked only when it is done, never when a stored list is replayed.
package job
