package job

import (
	"fmt"
	"slices"
	"strings"

	"metronix/core/around"
)

// photoHash is how long the hash of a photograph is: SHA-256 in hexadecimal digits.
const photoHash = 64

// mostFindings bounds what is noted in one job.
const mostFindings = 60

// FindingNoted writes a finding down, or changes it: one left for later is done after all.
type FindingNoted struct {
	plain
	around.Finding
}

// Kind is "finding".
func (FindingNoted) Kind() Kind { return "finding" }

func (a FindingNoted) sound(*Job) error {
	switch {
	case strings.TrimSpace(a.ID) == "":
		return refuse("finding", "It has no id.")
	case strings.TrimSpace(a.Place) == "":
		return refuse("place", "Say where it is: a valve, a cylinder, the cover, a hose, a plug.")
	case strings.TrimSpace(a.What) == "":
		return refuse("what", "Say what was found.")
	case a.Photo != "" && len(a.Photo) != photoHash:
		return refuse("photo", "A photograph is named by the hash that keeping it gave.")
	}
	for field, text := range map[string]string{"place": a.Place, "what": a.What, "test": a.Test,
		"part":  a.Part,
		"price": a.Price} {
		if len([]rune(text)) > mostFindingWord {
			return refuse(field, fmt.Sprintf("At most %d characters.", mostFindingWord))
		}
	}
	return nil
}

// may bounds how many findings a job holds; one that is there already may always be changed, because what was
// left for later gets done.
func (a FindingNoted) may(j *Job, _ string) error {
	if len(j.Findings) >= mostFindings && !slices.ContainsFunc(j.Findings,
		func(f around.Finding) bool { return f.ID == a.ID }) {
		return refuse("finding", fmt.Sprintf("A job holds %d findings.", mostFindings))
	}
	return nil
}

// do takes the place of the finding of the same id, else adds it.
func (a FindingNoted) do(j *Job) {
	list := slices.Clone(j.Findings)
	if i := slices.IndexFunc(list, func(f around.Finding) bool { return f.ID == a.ID }); i >= 0 {
		list[i] = a.Finding
	} else {
		list = append(list, a.Finding)
	}
	j.Findings = list
}
