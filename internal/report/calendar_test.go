package report

import (
	"strings"
	"testing"
	"time"

	"github.com/emersion/go-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The calendar as another library reads it (RFC 5545): all-day events that keep their UIDs, long and odd
// texts whole.
func TestTheCalendarIsReadElsewhere(t *testing.T) {
	on := time.Date(2027, 3, 1, 0, 0, 0, 0, time.UTC)
	because := "E2 leaves its window on the tight side; or the interval of 12 months, " +
		"whichever comes first. " +
		strings.Repeat("ü, ", 40)
	text := DueCalendar([]DueEntry{{"vehicle-01", "Post bus 12; rear, left", "LM 112", on, "84,000 km (52,195 miles)", because},
		{"vehicle-02", "Mower", "", on.AddDate(0, 1, 0), "",
			"The interval of 6 months."}}, on.AddDate(0, -3, 0))
	assert.Contains(t, text, "DTSTART;VALUE=DATE:20270301")
	for _, line := range strings.Split(text, "\r\n") {
		assert.LessOrEqual(t, len(line), 75, "octets of a line (RFC 5545, 3.1)")
	}
	c, err := ical.NewDecoder(strings.NewReader(text)).Decode()
	require.NoError(t, err)
	events := c.Events()
	require.Len(t, events, 2)
	uid, err := events[0].Props.Text(ical.PropUID)
	require.NoError(t, err)
	assert.Equal(t, "vehicle-01@metronix", uid)
	start, err := events[0].DateTimeStart(time.UTC)
	require.NoError(t, err)
	assert.Equal(t, on, start)
	says, err := events[0].Props.Text(ical.PropSummary)
	require.NoError(t, err)
	assert.Equal(t, "Valve clearances: Post bus 12; rear, left LM 112", says)
	says, err = events[0].Props.Text(ical.PropDescription)
	require.NoError(t, err)
	assert.Equal(t, "At 84,000 km (52,195 miles). "+because, says)
	says, _ = events[1].Props.Text(ical.PropDescription)
	assert.Equal(t, "The interval of 6 months.", says)
}
