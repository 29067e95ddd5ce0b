package job

import (
	"fmt"
	"slices"
	"strings"
	"unicode"
)

// Amended adds a correction to a signed job. What was signed stays as it is.
type Amended struct {
	plain
	Text string
	By   string
}

// Kind is "amended".
func (Amended) Kind() Kind { return "amended" }

// may takes corrections of signed jobs alone; an open one is corrected by working.
func (a Amended) may(j *Job, _ string) error {
	switch {
	case j.SignedBy == "":
		return refuse("kind", "Only a signed job is corrected by a note: this one can still be changed.")
	case strings.TrimSpace(a.Text) == "":
		return refuse("text", "Say what is to be corrected.")
	case len([]rune(a.Text)) > mostNote:
		return refuse("text", fmt.Sprintf("At most %d characters.", mostNote))
	case strings.TrimSpace(a.By) == "":
		return refuse("by", "Say who corrects it.")
	}
	return nil
}

func (a Amended) do(j *Job) {
	j.Amendments = append(slices.Clone(j.Amendments),
		Amendment{strings.TrimSpace(a.Text), strings.TrimSpace(a.By), j.now})
}

// Countersigned is a second signature under a signed job, by a tutor or a foreman.
type Countersigned struct {
	plain
	By string
}

// Kind is "countersigned".
func (Countersigned) Kind() Kind { return "countersigned" }

// may asks for another person than the one who signed, once.
func (a Countersigned) may(j *Job, _ string) error {
	switch {
	case j.SignedBy == "":
		return refuse("kind", "A job is countersigned after it is signed.")
	case strings.TrimSpace(a.By) == "":
		return refuse("by", "Say who countersigns.")
	case samePerson(a.By, j.SignedBy):
		return refuse("by", "Another person than the one who signed.")
	case j.Countersigned != nil:
		return refuse("by", "It is countersigned by "+j.Countersigned.By+" already.")
	}
	return nil
}

// samePerson says that two names are read as one: capitals, spaces and what cannot be seen between letters do
// not tell people apart.
func samePerson(a, b string) bool { return readAs(a) == readAs(b) }

// readAs is a name as a reader sees it: letters that do not show, spaces and cases make no second person.
func readAs(name string) string {
	shown := strings.Map(func(r rune) rune {
		if unicode.Is(unicode.Cf, r) {
			return -1
		}
		return r
	}, name)
	return strings.ToLower(strings.Join(strings.Fields(shown), " "))
}

func (a Countersigned) do(j *Job) {
	j.Countersigned = &Signature{strings.TrimSpace(a.By), j.now}
}
