package job

import (
	"fmt"
	"strings"
)

// HandedOver says that somebody else goes on with the job. Everything stays where it is; what locking does to
// a gap is learned, and foreseen, by the hands that turn the nut.
type HandedOver struct {
	plain
	To   string
	Note string // what the next one has to know; empty: nothing
}

// Kind is "handed_over".
func (HandedOver) Kind() Kind { return "handed_over" }

func (a HandedOver) sound(*Job) error {
	if strings.TrimSpace(a.To) == "" {
		return refuse("to", "Say who goes on with the job.")
	}
	for field, text := range map[string]string{"to": a.To, "note": a.Note} {
		if len([]rune(text)) > mostNote {
			return refuse(field, fmt.Sprintf("At most %d characters.", mostNote))
		}
	}
	return nil
}

// may refuses a hand-over to whoever is at it: it would split what was learned of one pair of hands.
func (a HandedOver) may(j *Job, _ string) error {
	if samePerson(a.To, j.Hand()) {
		return refuse("to", j.Hand()+" is at it already.")
	}
	return nil
}

func (a HandedOver) do(j *Job) {
	j.Hands = append(j.Hands[:len(j.Hands):len(j.Hands)],
		Hand{strings.TrimSpace(a.To), strings.TrimSpace(a.Note), j.now})
}
