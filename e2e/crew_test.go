package e2e

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/deep"
	"metronix/internal/store"
)

// crewed sets people up at a program where nobody was: June, who looks after them, and two mechanics. From
// then on nobody is let in without signing in.
func crewed(t *testing.T, r *running) {
	t.Helper()
	p := open(t, r, "/people", 1280, 800)
	defer p.MustClose()
	for i, who := range []map[string]any{
		{"id": "june", "name": "June Abara", "role": "foreman", "pin": "7319"},
		{"id": "tess", "name": "Tess Ardal", "role": "mechanic", "pin": "4711"},
		{"id": "oskar", "name": "Oskar Wend", "role": "mechanic", "pin": "2580"},
	} {
		body, err := json.Marshal(who)
		require.NoError(t, err)
		if i == 1 { // from the first one on somebody has to be signed in
			p.in("June Abara", "7319")
		}
		status := p.MustEval(`async body => (await fetch('/api/v1/people',
			{ method: 'POST', headers: { 'Content-Type': 'application/json' }, body })).status`, string(body)).Int()
		require.Equal(t, 200, status, who["name"])
		p.visit("/people")
	}
}

// seenBy is a job as whoever is signed in on a tab is told of it.
func (p *tab) seenBy(job string) func() state {
	return func() (s state) {
		text := p.MustEval(`async job => await (await fetch('/api/v1/jobs/' + job)).text()`, job).Str()
		require.NoError(p.t, json.Unmarshal([]byte(text), &s), text)
		return s
	}
}

// A whole job on a shared tablet by two people: one begins, the tablet is taken over by the other in the
// middle of it, the program is killed and started on the way, and whoever does the rest signs. It takes the
// taps that it takes by hand, each entry is its author's, and nobody has to sign in but where the tablet
// changes hands.
func TestAWholeJobByTwoPeople(t *testing.T) {
	t.Parallel()
	desk, tablet, phone := [2]int{1280, 800}, [2]int{1024, 768}, [2]int{360, 740}
	once := round("set_as_you_go", "none")
	for _, j := range []handJob{
		// two cylinders, four valves each, a quarter more than a turn apart; one out: eight feels, one set,
		// one turn
		handJob{name: "odd-fire twin on a phone", played: played{"torrick-750", "one_cylinder", once, []string{"E2"}, phone, nil}},
		handJob{
			name: "hot six without a thermometer", long: true,
			played: played{"estervane-2400", "rocking_pairs", once, []string{"I2"}, tablet, nil},
			sheet: func(s map[string]any) {
				card := s["clearances"].([]any)[0].(map[string]any)
				card["state"], card["source"] = "hot", "plate"
				s["clearances"] = []any{card}
			},
			begins: []map[string]any{{"kind": "engine_stopped"}, {"kind": "judged_hot", "how": "fan", "ran_min": 25}},
		},
		handJob{name: "a twelve with 48 valves", long: true,
			played: played{"brindlow-6000", "rocking_pairs", round("read_first", "none"), nil, desk, nil}},
	} {
		t.Run(j.name, func(t *testing.T) {
			if j.long && !deep.On {
				t.Skip("make deep does this one")
			}
			t.Parallel()
			r := demo(t)
			want := j.rehearsed(t, r)
			j.owned(t, r)
			job := j.stored(t, r)
			j.brought(t, r, job)
			crewed(t, r)
			p := open(t, r, "/jobs/"+job, j.size[0], j.size[1])
			p.in("Tess Ardal", "4711")
			p.see(".rung.cursor")
			h := j.hands(t, p, p.seenBy(job))
			first := h.sees().State.Happenings
			for range len(h.sees().State.Valves) / 2 {
				require.True(t, h.step())
			}
			r.killedAndStarted(t)
			p.visit("/jobs/" + job)
			p.see(".now h2")
			require.True(t, h.step(), "the session outlives the program")
			p.out("Tess Ardal")
			p.in("Oskar Wend", "2580")
			p.visit("/jobs/" + job)
			p.see(".now h2")
			hers := h.sees().State.Happenings
			for i := 0; h.step(); i++ {
				require.Less(t, i, 400)
			}
			assert.Equal(t, want.Gestures, h.done.Gestures, "taps")
			assert.Equal(t, want.Turn, h.done.Turn, "degrees")
			assert.Equal(t, want.Leaves, h.done.Leaves, "leaves picked up")
			for _, check := range []string{"All tools and leaves", "Socket or handle", "Faces clean"} {
				p.press(check)
			}
			before := h.sees().State.Happenings
			p.press("Sign the job")
			waitSeen(t, p, h.sees, before)
			assert.Equal(t, "Oskar Wend", h.sees().State.SignedBy)
			r.kill()
			st, err := store.Open(r.data)
			require.NoError(t, err)
			defer st.Close()
			list, err := st.Happenings(job)
			require.NoError(t, err)
			for i, n := range list.Happenings {
				switch {
				case i < first:
					assert.Empty(t, n.Author, "before anybody was set up")
				case i < hers:
					assert.Equal(t, "Tess Ardal", n.Author, "entry %d", i)
				default:
					assert.Equal(t, "Oskar Wend", n.Author, "entry %d", i)
				}
			}
		})
	}
}
