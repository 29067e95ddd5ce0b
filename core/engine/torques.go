package engine

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"metronix/core/measure"
)

// Joint is what a torque is for.
type Joint string

// The joints that a job tightens.
const (
	LockNut    Joint = "locknut"
	CoverBolts Joint = "cover"
)

// SourcedTorque is a torque as one source states it. The same nut is given differently by book, card and
// habit; each keeps its source, as clearances do (common practice).
type SourcedTorque struct {
	Of         Joint
	Torque     Torque
	Source     string // empty: the sheet's own figure, whose source is not said
	Distrusted string // why it is not to be used; empty: it may be
}

// TorquesOf are what is stated of a joint: the figure to tighten to, nil where none may be used, and those
// that say something else or are not to be used. The sheet's own figure goes first, then the sources in their
// order; one within half a pound-foot of the figure is the same, rounded.
func (s *Sheet) TorquesOf(of Joint) (to *SourcedTorque, others []SourcedTorque) {
	var all []SourcedTorque
	if own := s.ownTorque(of); own.Value() > 0 {
		all = append(all, SourcedTorque{Of: of, Torque: own})
	}
	for _, t := range s.Torques {
		if t.Of == of {
			all = append(all, t)
		}
	}
	for _, t := range all {
		switch {
		case t.Distrusted != "":
			others = append(others, t)
		case to == nil:
			to = &t
		case math.Abs(measure.PoundFeet(to.Torque.Value()-t.Torque.Value())) > torquesAgree:
			others = append(others, t)
		case to.Source == "":
			to.Source = t.Source
		}
	}
	return to, others
}

// ownTorque is the sheet's own figure for a joint, beside which the sources stand.
func (s *Sheet) ownTorque(of Joint) Torque {
	switch {
	case of == LockNut && s.Adjuster != nil:
		return s.Adjuster.Locknut
	case of == CoverBolts && s.Closing != nil:
		return s.Closing.Torque
	}
	return Torque{}
}

// Say is a torque with its source in words: "17 N·m (12.5 lbf·ft), plate".
func (t SourcedTorque) Say(u measure.Units) string {
	text := u.Torque(t.Torque.Value())
	if t.Source != "" {
		text += ", " + t.Source
	}
	return text
}

// SayOthers is what else is stated of a joint, in sentences; empty: nothing.
func (s *Sheet) SayOthers(of Joint, u measure.Units) string {
	_, others := s.TorquesOf(of)
	var said []string
	for _, t := range others {
		if t.Distrusted == "" {
			said = append(said, "Otherwise "+t.Say(u)+".")
		} else {
			said = append(said, "Not to be used: "+t.Say(u)+", "+t.Distrusted+".")
		}
	}
	return strings.Join(said, " ")
}

// maxTorques is how many sourced torques a sheet may hold.
const maxTorques = 20

// checkTorques checks the sourced torques, and warns where they contradict each other.
func checkTorques(s *Sheet, r *Report) {
	if len(s.Torques) > maxTorques {
		r.problem("torques", "%d torques: a sheet holds up to %d.", len(s.Torques), maxTorques)
		return
	}
	for i, t := range s.Torques {
		at := fmt.Sprintf("torques[%d]", i)
		oneOf(r, at+".of", t.Of, LockNut, CoverBolts)
		checkTorque(at+".torque", t.Torque, r)
		if t.Torque.Value() == 0 {
			r.problem(at+".torque_nm", "The torque is missing: give it in N·m or in lbf·ft.")
		}
		said(r, at+".source", t.Source, MaxNameLength)
		if len([]rune(t.Distrusted)) > MaxRemarkLength/2 {
			r.problem(at+".distrusted", "Why a torque is not to be used has at most %d characters.", MaxRemarkLength/2)
		}
	}
	for _, of := range []Joint{LockNut, CoverBolts} {
		to, others := s.TorquesOf(of)
		if to != nil && slices.ContainsFunc(others, func(t SourcedTorque) bool { return t.Distrusted == "" }) {
			r.warn("torques", "Sources differ for the %s: %s. %s The maker's book wins.",
				map[Joint]string{LockNut: "lock nut", CoverBolts: "cover bolts"}[of], to.Say(measure.Units{}),
				s.SayOthers(of, measure.Units{}))
		}
	}
}
