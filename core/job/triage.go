package job

import "strings"

// Triage says what was felt by hand and where that leads; empty: nothing was. Where the job leaves valves
// out, what was felt is a reason to look at them too.
func (j *Job) Triage() string {
	var none, much []string
	left := false
	for _, v := range j.Valves {
		left = left || v.Outside
		switch {
		case v.AsFound != nil && !v.Outside:
		case v.Play == NoPlay:
			none = append(none, v.Name)
		case v.Play == MuchPlay:
			much = append(much, v.Name)
		}
	}
	var says []string
	if len(none) > 0 {
		says = append(
			says,
			strings.Join(none, ", ")+" had no play by hand, tight or held open: look there first.",
		)
	}
	if len(much) > 0 {
		says = append(says, strings.Join(much, ", ")+" had much play by hand.")
	}
	if left && len(says) > 0 {
		says = append(says, "The valves that this job leaves out may stand like them.")
	}
	return strings.Join(says, " ")
}
