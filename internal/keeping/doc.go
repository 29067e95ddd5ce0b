// Package keeping makes backups by itself, lets the oldest go, and shows that they can be taken back.
//
// A folder holds the copies of one workshop, named by when each was begun, in UTC:
// metronix-20261130T191500Z.db. A copy has its name only once it was checked as metronix check does; one in
// which something was found bears -doubtful. What is let go of is decided right after a copy that was sound
// was made, and never the newest sound ones, so that no rotation takes the last good one.
package keeping
