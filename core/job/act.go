package job

// Kind names a kind of act, as it stands on the wire and in the data file.
type Kind string

// Act is what was done: one type a kind, in a file of its own. What a kind needs is in its fields, and
// nothing else is; a field that may be left out says what its zero means.
//
// An act is asked three things. sound: does it make sense in this job at all? It is asked of stored acts too,
// because the effect cannot do without. may: do today's rules take it now? It is asked of new acts alone, so
// that what was accepted once is never refused again. since is the newest happening that its screen knew,
// empty for the newest there is. do: what it does to the job, which cannot fail.
type Act interface {
	Kind() Kind
	On() string // the valve it is about; empty: none

	sound(j *Job) error
	may(j *Job, since string) error
	do(j *Job)

	// ReadsOnly says that it changes nothing but the readings of its valve, and which valve is in hand.
	ReadsOnly() bool

	moves() bool // it changes where the crank stands, or what its stops are
	// closes is the valve whose readings it closed, in the job as it stands after; nil: it was taken back
	closes(after *Job) string
}

// plain is what an act is unless it says otherwise: it always makes sense, is never refused, and leaves the
// crank and the readings alone.
type plain struct{}

func (plain) On() string             { return "" }
func (plain) sound(*Job) error       { return nil }
func (plain) may(*Job, string) error { return nil }
func (plain) ReadsOnly() bool        { return false }
func (plain) moves() bool            { return false }
func (plain) closes(*Job) string     { return "" }
