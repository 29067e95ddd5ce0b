package e2e

import (
	"testing"
	"time"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/store"
)

// in signs somebody in where it is asked who is there: a name, the digits, one more tap.
func (p *tab) in(name, pin string) {
	p.t.Helper()
	p.shows("Who is there?")
	p.press(name)
	for _, digit := range pin {
		p.press(string(digit))
	}
	p.press("Sign in")
	p.waits(`() => !document.querySelector('.sign-in')`, name+" to be let in")
}

// out signs somebody out: the name, and once more because it is asked.
func (p *tab) out(name string) {
	p.t.Helper()
	p.press(name + " is signed in")
	p.press("Sign " + name + " out")
}

// A shared tablet: the first foreman is set up, a mechanic and a learner come, each signs in and out. What
// the mechanic did off the network waits when his session has ended meanwhile: the foreman who signs in next
// does not send it as his own, takes it over, and the list says so. A learner signs nothing.
func TestASharedTablet(t *testing.T) {
	t.Parallel()
	r := demo(t)
	l, by := lineTo(t, r)
	const id = "demo-job-tipper"
	p := open(t, by, "/shop", 360, 740)
	p.shows("Nobody is set up")
	p.press("Set up people")
	add := func(name, pin, role string) {
		p.fill("Name, as it stands on sheets", name)
		if role != "" {
			p.press(role)
		}
		p.fill("PIN, 4 to 12 digits", pin)
		p.press("Store")
	}
	p.press("Set up the foreman")
	add("June Abara", "7319", "")
	p.in("June Abara", "7319")
	p.press("Add somebody")
	add("Tess Ardal", "1111", "")
	p.shows("Everybody tries this PIN first")
	add("Tess Ardal", "4711", "")
	p.shows("Tess Ardal is stored")
	p.press("Add somebody")
	add("Ivo Lund", "2580", "Learner")
	p.shows("Ivo Lund is stored")
	p.out("June Abara")

	p.shows("Who is there?")
	p.press("Tess Ardal")
	for range 4 {
		p.press("9")
	}
	p.press("Sign in")
	p.shows("That is not right")
	p.press("Somebody else")
	p.in("Tess Ardal", "4711")
	p.visit("/jobs/" + id)
	p.says("E3")
	p.judges()
	p.press("0.24 won’t go")
	p.says("E3 is tight")
	p.waits(`() => !/on the way/.test(document.body.innerText)`, "it to be on disk")
	l.becomes(cut)
	p.press("Keep")
	p.shows("1 entry waits here")
	require.NoError(t, proto.NetworkClearBrowserCookies{}.Call(p))
	l.becomes(through)
	p.in("June Abara", "7319")
	p.shows("1 entry of Tess Ardal waits here until Tess Ardal signs in")
	stored := func() int {
		return p.MustEval(`async () => (await (await fetch('/api/v1/jobs/` + id + `')).json()).state.happenings`).Int()
	}
	before := stored()
	p.press("Send it as June Abara, in place of Tess Ardal")
	require.Eventually(t, func() bool { return stored() == before+1 }, limit, 20*time.Millisecond)
	p.visit("/people")
	p.shows("not let in: Tess Ardal")
	p.out("June Abara")
	p.in("Ivo Lund", "2580")
	p.visit("/people")
	p.shows("This is not for a learner to do")

	r.kill()
	st, err := store.Open(r.data)
	require.NoError(t, err)
	defer st.Close()
	list, err := st.Happenings(id)
	require.NoError(t, err)
	last := list.Happenings[len(list.Happenings)-2:]
	assert.Equal(t, [2]string{"Tess Ardal", ""}, [2]string{last[0].Author, last[0].SentBy})
	assert.Equal(t, [2]string{"Tess Ardal", "June Abara"}, [2]string{last[1].Author, last[1].SentBy})
}
