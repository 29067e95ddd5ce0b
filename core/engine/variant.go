package engine

import (
	"fmt"
	"slices"
	"strings"
)

// Variant is how the same engine was also built: with another adjuster, another socket or another access.
// What is nil or empty is as the sheet says.
type Variant struct {
	Name         string // by which it is chosen: "early, 14 mm nut"
	Note         string // how it is told, and what else is to be minded
	Adjuster     *Adjuster
	TurningPoint *TurningPoint
}

// MaxVariants is how many variants a sheet may name.
const MaxVariants = 12

// As is the sheet of one of its variants; ok is false where it names none so. The one that comes back has no
// variants left to choose, and says which it is.
func (s *Sheet) As(name string) (as *Sheet, ok bool) {
	i := slices.IndexFunc(s.Variants, func(v Variant) bool { return v.Name == name })
	if i < 0 {
		return nil, false
	}
	v, copied := s.Variants[i], *s
	copied.Variants, copied.Variant = nil, name
	if v.Adjuster != nil {
		copied.Adjuster = v.Adjuster
	}
	if v.TurningPoint != nil {
		copied.TurningPoint = v.TurningPoint
	}
	return &copied, true
}

// Called is the engine's name, with its variant where one was chosen.
func (s *Sheet) Called() string {
	if s.Variant == "" {
		return s.Name
	}
	return s.Name + ", " + s.Variant
}

// checkVariants: each has a name of its own, and what it changes is checked as the sheet's own is.
func checkVariants(s *Sheet, r *Report) {
	if len(s.Variants) > MaxVariants {
		r.problem("variants", "%d variants: a sheet names up to %d.", len(s.Variants), MaxVariants)
		return
	}
	seen := map[string]bool{}
	for i, v := range s.Variants {
		at := fmt.Sprintf("variants[%d]", i)
		said(r, at+".name", v.Name, MaxNameLength)
		if name := strings.ToLower(strings.TrimSpace(v.Name)); seen[name] {
			r.problem(at+".name", "Two variants are named %q: each needs a name of its own.", v.Name)
		} else {
			seen[name] = true
		}
		if len([]rune(v.Note)) > MaxRemarkLength {
			r.problem(at+".note", "A note has at most %d characters.", MaxRemarkLength)
		}
		own := &Report{}
		checkAdjuster(v.Adjuster, own)
		checkTurningPoint(v.TurningPoint, own)
		for _, p := range own.Problems {
			r.Problems = append(r.Problems, Finding{at + "." + p.Location, p.Message})
		}
	}
}
