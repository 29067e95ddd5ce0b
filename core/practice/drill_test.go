package practice_test

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine/enginetest"
	"metronix/core/job/jobtest"
	"metronix/core/practice"
)

// SM-2 worked by hand (its published rule, from memory): 1 day, 6 days, then by the ease, rounded up; the
// ease from 2.5 by 0.1 − (5 − q)(0.08 + (5 − q)·0.02), 1.3 at least; below 3 it begins anew and the ease
// stays.
func TestRepetitions(t *testing.T) {
	var r practice.Repetition
	for i, c := range []struct {
		quality, days int
		ease          float64
	}{
		{5, 1, 2.6},
		{5, 6, 2.7},
		{4, 17, 2.7},  // 6 × 2.7 = 16.2
		{3, 46, 2.56}, // 17 × 2.7 = 45.9; 2.7 + 0.1 − 2 × 0.12
		{2, 0, 2.56},
		{4, 1, 2.56},
		{4, 6, 2.56},
	} {
		r = r.After(c.quality)
		assert.Equal(t, c.days, r.Days, "after answer %d", i)
		assert.InDelta(t, c.ease, r.Ease, 1e-9, "after answer %d", i)
	}
	low := practice.Repetition{N: 3, Ease: 1.31, Days: 10}.After(3)
	assert.Equal(t, 1.3, low.Ease)
	now := time.Date(2026, 12, 1, 9, 0, 0, 0, time.UTC)
	again := low.AskAgain(3, now)
	assert.Equal(t, now.YearDay(), again.YearDay(), "below 4 it is asked again the same day")
	assert.Equal(t, 10*time.Minute, again.Sub(now), "after others, and not as the next question")
	assert.Equal(t, now.AddDate(0, 0, low.Days), low.AskAgain(4, now))
	assert.Equal(
		t,
		[]int{5, 4, 3, 2},
		[]int{practice.Quality(true, 3*time.Second), practice.Quality(true, 20*time.Second),
			practice.Quality(true, time.Minute), practice.Quality(false, time.Second)},
	)
	assert.Equal(t, 4, practice.Quality(true, time.Hour), "the tablet was laid aside")
	assert.Equal(t, 2, practice.Quality(false, time.Hour))
	for pull, want := range map[float64]string{0: "It falls through", 0.01: "It drags lightly", 0.3: "It drags lightly",
		0.5: "It drags as it should", 0.8: "It drags hard", 0.99: "It drags hard", 1: "It does not go in"} {
		assert.Equal(t, want, practice.Went(pull), "%v", pull)
	}
}

// Each item asks; its right answer is right by other means than its own, and choices are told apart.
func TestDrillsAskWhatIsSo(t *testing.T) {
	four := jobtest.Setup().Sheet
	for _, item := range practice.Items() {
		assert.NotEmpty(t, item.Title())
		rights := map[int]bool{}
		for seed := range uint64(300) {
			q, err := practice.Ask(item, four, seed)
			require.NoError(t, err, "%s, seed %d", item, seed)
			again, _ := practice.Ask(item, four, seed)
			require.Equal(t, q, again)
			require.NotEmpty(t, q.Why)
			require.Greater(t, len(q.Choices), 1)
			for i, a := range q.Choices {
				for _, b := range q.Choices[i+1:] {
					require.NotEqual(t, a, b, q.Says)
				}
			}
			rights[q.Right] = true
			checked(t, q)
		}
		assert.Greater(t, len(rights), 1, "%s: not always the same place", item)
	}
	_, err := practice.Ask(practice.Partner, enginetest.Inline([]int{1}, "IE"), 1)
	assert.ErrorIs(t, err, practice.ErrNoQuestion, "one cylinder has no partner")
	_, err = practice.Ask("dance", four, 1)
	assert.ErrorIs(t, err, practice.ErrNoQuestion)
}

var figures = regexp.MustCompile(`\d+\.\d+`)

// checked reckons a question's answer once more, from what it says.
func checked(t *testing.T, q practice.Question) {
	t.Helper()
	right := q.Choices[q.Right]
	var list []float64
	for _, f := range figures.FindAllString(q.Says, -1) {
		v, err := strconv.ParseFloat(f, 64)
		require.NoError(t, err)
		list = append(list, v)
	}
	switch q.Item {
	case practice.MayBeSet:
		margin := marginByCard(q.Valve, q.Crank.Degrees())
		assert.Equal(t, margin >= 20, right == "Yes", "%s at %v°: %v", q.Valve, q.Crank.Degrees(), margin)
	case practice.WhichLeaf:
		sum := 0.0
		for _, f := range figures.FindAllString(right, -1) {
			v, _ := strconv.ParseFloat(f, 64)
			sum += v
		}
		assert.InDelta(t, list[len(list)-1], sum, 1e-9, q.Says+" "+right)
	case practice.WhichWay: // a screw of 1 mm at the valve's end: 360° a millimetre, clockwise closes
		deg, err := strconv.ParseFloat(regexp.MustCompile(`^\d+`).FindString(right), 64)
		require.NoError(t, err)
		assert.InDelta(t, 360*math.Abs(list[0]-list[1])/list[2], deg, 0.51, q.Says)
		assert.Equal(t, list[0] > list[1], regexp.MustCompile(`° clockwise`).MatchString(right), q.Says)
	case practice.Partner:
		n, err := strconv.Atoi(regexp.MustCompile(`valve (\d+) is`).FindStringSubmatch(q.Says)[1])
		require.NoError(t, err)
		assert.Equal(t, fmt.Sprintf("Valve %d", 9-n), right)
	}
}

// marginByCard is how far a valve of the four stands from its opening or closing by its cam card, reckoned
// here anew. From memory: a usual road cam opens the intake 12° before top dead centre and shuts it 52° after
// bottom dead centre, the exhaust 52° before and 12° after.
func marginByCard(valve string, crank float64) float64 {
	timing := jobtest.Setup().Sheet.EffectiveTiming()
	in, ex := timing.Open()
	from, to := in.From.Degrees(), in.To.Degrees()
	if valve[0] == 'E' {
		from, to = ex.From.Degrees(), ex.To.Degrees()
	}
	order := jobtest.Setup().Sheet.FiringOrder
	at := 0.0
	for i, cylinder := range order {
		if strconv.Itoa(cylinder) == valve[1:] {
			at = float64(i) * 720 / float64(len(order))
		}
	}
	theta := math.Mod(crank-at+1440, 720)
	since := math.Mod(theta-from+1440, 720)
	if since < to-from {
		return -math.Min(since, to-from-since)
	}
	return math.Min(since-(to-from), 720-since)
}

// Which valves stand open, and by how much, is what the cam card says, reckoned here anew: shut outside of
// it, its full lift in the middle, more the nearer to that.
func TestOpenValvesByTheCamCard(t *testing.T) {
	l := exercised(t, practice.Exercise{})
	halves := map[string]float64{}
	for _, v := range l.run.Job.Valves {
		halves[v.Name] = -marginByCardPeak(v.Name)
	}
	for deg := 0.0; deg < 720; deg += 3 {
		at := deg - l.run.Engine.Crank().Degrees()
		if at < 0 {
			at += 720
		}
		if at > 0 {
			_, err := l.does(practice.Entry{Hand: practice.Turned{By: degrees(at)}})
			require.NoError(t, err)
		}
		open := l.run.Engine.Open()
		for _, v := range l.run.Job.Valves {
			margin := marginByCard(v.Name, deg)
			part, is := open[v.Name]
			if math.Abs(margin) > 1e-6 {
				require.Equal(t, margin < 0, is, "%s at %v°", v.Name, deg)
			}
			if margin < -1 {
				assert.InDelta(
					t,
					math.Pow(math.Sin(-margin/halves[v.Name]*math.Pi/2), 2),
					part,
					0.02,
					"%s at %v°",
					v.Name,
					deg,
				)
			}
		}
	}
}

// marginByCardPeak is the margin at full lift: half of the open interval, below 0.
func marginByCardPeak(valve string) float64 {
	least := 0.0
	for deg := 0.0; deg < 720; deg += 0.5 {
		least = math.Min(least, marginByCard(valve, deg))
	}
	return least
}
