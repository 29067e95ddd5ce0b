package practice

import "slices"

// Skill is something that a tutor signs off once a learner can do it (our own list).
type Skill string

// The skills, in the order in which they are learned.
const (
	CanFindClear Skill = "clear" // finds where a valve is clear
	CanFeel      Skill = "feel"  // tells how a leaf goes
	CanSet       Skill = "set"   // sets, locks and feels again
	CanGoRound   Skill = "round" // goes round an engine by a sequence
	CanDoHot     Skill = "hot"   // does a hot engine in its ten minutes
	CanDoAlone   Skill = "alone" // does a whole engine without being told anything
)

// skillTitles are they, with their names.
var skillTitles = []struct {
	skill Skill
	title string
}{
	{CanFindClear, "Finds where a valve is clear"},
	{CanFeel, "Tells how a leaf goes"},
	{CanSet, "Sets, locks and feels again"},
	{CanGoRound, "Goes round by a sequence"},
	{CanDoHot, "A hot engine in its ten minutes"},
	{CanDoAlone, "A whole engine alone"},
}

// Skills are all of them, in that order.
func Skills() (list []Skill) {
	for _, s := range skillTitles {
		list = append(list, s.skill)
	}
	return list
}

// Title names a skill; empty: there is no such skill.
func (s Skill) Title() string {
	for _, t := range skillTitles {
		if t.skill == s {
			return t.title
		}
	}
	return ""
}

// Known says that there is such a skill.
func (s Skill) Known() bool { return slices.Contains(Skills(), s) }
