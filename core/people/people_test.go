package people_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/people"
)

// Who may do what, written out once more (common practice): a learner works and signs nothing, a mechanic
// signs and countersigns nobody, a tutor vouches for a learner's work, a foreman may everything.
func TestWhoMayDoWhat(t *testing.T) {
	want := map[people.Role]string{
		people.Reader:   "look",
		people.Learner:  "look work",
		people.Mechanic: "look work sign keep",
		people.Tutor:    "look work sign vouch keep",
		people.Foreman:  "look work sign vouch keep take_over run",
		"":              "",
		"owner":         "",
	}
	for role, deeds := range want {
		said := ""
		for _, d := range role.MayDo() {
			said += " " + string(d)
		}
		assert.Equal(t, deeds, trimmed(said), "%q", role)
		assert.Equal(t, deeds != "", role.Known(), "%q", role)
		assert.False(t, role.May("repair"), "what is in no row nobody may")
	}
	assert.Len(t, people.Roles(), len(want)-2)
	for _, d := range people.Deeds() {
		assert.True(t, people.Foreman.May(d), d)
	}
}

func trimmed(s string) string {
	if s == "" {
		return s
	}
	return s[1:]
}

// What puts a name on a sheet is more than work, and says whose it is.
func TestWhatAnActIs(t *testing.T) {
	for _, c := range []struct {
		act  job.Act
		deed people.Deed
		name string
	}{
		{job.Signed{By: "Tess"}, people.Sign, "Tess"},
		{job.Amended{By: "Tess"}, people.Sign, "Tess"},
		{job.Countersigned{By: "June"}, people.Vouch, "June"},
		{job.Turned{}, people.Work, ""},
		{job.HandedOver{To: "June"}, people.Work, ""},
	} {
		name, named := people.NameOn(c.act)
		assert.Equal(t, c.deed, people.OfAct(c.act), c.act.Kind())
		assert.Equal(t, c.name, name, c.act.Kind())
		assert.Equal(t, c.deed != people.Work, named, c.act.Kind())
	}
}
