// Package people says who may do what in a workshop. It knows no names and no numbers: a person is a role
// here.
//
// There is one table, and what is decided about a person anywhere in the program is read from it.
package people

import (
	"slices"

	"metronix/core/job"
)

// Role is what a person is in the workshop.
type Role string

// The roles, from the one that may least to the one that may most.
const (
	Reader   Role = "reader"   // looks
	Learner  Role = "learner"  // works at an engine, and signs nothing
	Mechanic Role = "mechanic" // works, signs, and keeps engines, leaves and vehicles
	Tutor    Role = "tutor"    // a mechanic who looks after learners
	Foreman  Role = "foreman"  // everything
)

// Roles are all of them, as above.
func Roles() []Role { return []Role{Reader, Learner, Mechanic, Tutor, Foreman} }

// Known says that there is such a role.
func (r Role) Known() bool { return slices.Contains(Roles(), r) }

// Deed is a kind of thing that is done with the program.
type Deed string

// The deeds, in the order of the table.
const (
	Look     Deed = "look"      // read whatever is stored, reckon, print
	Work     Deed = "work"      // start jobs and say what was done at the engine
	Sign     Deed = "sign"      // answer for a sheet, and add to one that is signed
	Vouch    Deed = "vouch"     // countersign what somebody else signed
	Keep     Deed = "keep"      // change engines, leaves, vehicles and what is due; count shims; take a job off the board
	TakeOver Deed = "take_over" // send what somebody else did and cannot send
	Run      Deed = "run"       // people, everything out and in, the audit list
)

// row is who may do one thing.
type row struct {
	deed Deed
	may  []Role
}

// table is who may do what (common practice; a workshop that does otherwise gives people other roles).
var table = []row{
	{Look, []Role{Reader, Learner, Mechanic, Tutor, Foreman}},
	{Work, []Role{Learner, Mechanic, Tutor, Foreman}},
	{Sign, []Role{Mechanic, Tutor, Foreman}},
	{Vouch, []Role{Tutor, Foreman}},
	{Keep, []Role{Mechanic, Tutor, Foreman}},
	{TakeOver, []Role{Foreman}},
	{Run, []Role{Foreman}},
}

// Deeds are all of them, as above.
func Deeds() []Deed {
	list := make([]Deed, len(table))
	for i, w := range table {
		list[i] = w.deed
	}
	return list
}

// May says whether a role may do something. What is in no row nobody may.
func (r Role) May(d Deed) bool {
	return slices.ContainsFunc(table, func(w row) bool { return w.deed == d && slices.Contains(w.may, r) })
}

// MayDo are the deeds that a role may do, in the order of the table.
func (r Role) MayDo() []Deed {
	return slices.DeleteFunc(Deeds(), func(d Deed) bool { return !r.May(d) })
}

// OfAct is the deed that entering an act is: answering for a sheet, or work.
func OfAct(a job.Act) Deed {
	switch a.(type) {
	case job.Signed, job.Amended:
		return Sign
	case job.Countersigned:
		return Vouch
	}
	return Work
}

// NameOn is the name that an act puts on the sheet as answering for it; ok is false where it names nobody. It
// has to be the name of who is signed in.
func NameOn(a job.Act) (name string, ok bool) {
	switch a := a.(type) {
	case job.Signed:
		return a.By, true
	case job.Amended:
		return a.By, true
	case job.Countersigned:
		return a.By, true
	}
	return "", false
}
