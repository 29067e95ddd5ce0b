package wear_test

import (
	"fmt"
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/floats"
	"gonum.org/v1/gonum/stat"
	"gonum.org/v1/gonum/stat/distuv"

	"metronix/core/measure"
	"metronix/core/wear"
	"metronix/internal/checks"
)

// Where every interval is as long as the others and a valve is left as it was found, the rate is the slope of
// the line through its ends.
func TestRatesAgainstTheOutside(t *testing.T) {
	for _, c := range []struct {
		found []float64 // micrometres, every 10,000 km
		limit float64   // the one it runs to
	}{{[]float64{300, 298, 296, 294}, 280}, {[]float64{290, 296, 302, 308}, 320},
		{[]float64{310, 300, 290}, 280}} {
		var visits []wear.Visit
		var x, y []float64
		for i, f := range c.found {
			km := float64(i) * 10_000
			x, y = append(x, km/1000), append(y, f/1000)
			visits = append(visits,
				visit(km, fmt.Sprintf("20%02d-03-01", 20+i), measure.Length(f), measure.Length(f)))
		}
		_, slope := stat.LinearRegression(x, y, nil, false)
		got, err := wear.Reckon(visits, wear.Every{})
		require.NoError(t, err)
		line := checks.Library("gonum stat.LinearRegression of gaps on one line")
		checks.Near(t, line, fmt.Sprintf("gaps %v µm every 10,000 km: rate, mm per 1,000 km", c.found), slope,
			got.Valves[0].Rate, 1e-12)
		last := len(c.found) - 1
		checks.Near(t, checks.Theorem("a line meets its limit"),
			fmt.Sprintf("gaps %v µm: leaves its limits at, km", c.found),
			x[last]*1000+(c.limit/1000-y[last])/slope*1000, got.Valves[0].Leaves, 1e-3)
	}
}

// Where intervals differ, the pooled rate is the mean of their rates weighted by distance, and the range runs
// between the two ends of its 90 % interval.
func TestPooledRatesAndRangesAgainstTheOutside(t *testing.T) {
	for _, c := range []struct {
		km, found []float64 // kilometres; micrometres, left as they were found
		limit     float64
	}{{[]float64{0, 20_000, 25_000, 60_000}, []float64{300, 297, 296, 291}, 280},
		{[]float64{0, 8_000, 31_000}, []float64{300, 301, 306}, 320}} {
		var visits []wear.Visit
		var rates, distances []float64
		for i, f := range c.found {
			visits = append(visits, usual(c.km[i], fmt.Sprintf("20%02d-03-01", 20+i),
				measure.Length(f), measure.Length(f)))
			if i > 0 {
				distances = append(distances, c.km[i]-c.km[i-1])
				rates = append(rates, (f-c.found[i-1])/(c.km[i]-c.km[i-1]))
			}
		}
		got, err := wear.Reckon(visits, wear.Every{})
		require.NoError(t, err)
		library := checks.Library("gonum stat.Mean, weighted")
		name := fmt.Sprintf("gaps %v µm at %v km: ", c.found, c.km)
		checks.Near(t, library, name+"rate, mm per 1,000 km", stat.Mean(rates, distances),
			got.Valves[0].Rate, 1e-12)
		last, gap := c.km[len(c.km)-1], c.limit-c.found[len(c.found)-1]
		rate, u := stat.Mean(
			rates,
			distances,
		), 4*math.Sqrt2/floats.Sum(
			distances,
		) // the readings between cancel
		normal := distuv.Normal{Mu: rate, Sigma: u}
		by := checks.Library("gonum distuv.Normal, quantiles 0.05 and 0.95")
		ends := []float64{gap / normal.Quantile(0.05), gap / normal.Quantile(0.95)}
		first := math.Inf(1)
		for _, km := range ends {
			if km > 0 {
				first = math.Min(first, km)
			}
		}
		checks.Near(
			t,
			by,
			name+"leaves its limits at the earliest at, km",
			last+first,
			got.Valves[0].Range[0],
			10,
		)
	}
}

// Calendar months, where time.AddDate would run over into the next one.
func TestMonthsAgainstTheOutside(t *testing.T) {
	calendar := checks.Practice("so many months on is the same day, or the month's last where it has none")
	for _, c := range []struct {
		from   string
		months int
		want   string
	}{{"2026-01-31", 1, "2026-02-28"}, {"2024-01-31", 1, "2024-02-29"}, {"2026-08-31", 6, "2027-02-28"},
		{"2026-11-30", 3, "2027-02-28"}, {"2024-02-29", 12, "2025-02-28"}} {
		checks.Equal(t, calendar, fmt.Sprintf("%d months from %s", c.months, c.from), c.want,
			wear.MonthsOn(day(c.from), c.months).Format(time.DateOnly))
	}
	for _, from := range []string{"2026-01-15", "2026-06-30", "2025-12-01"} {
		checks.Equal(t, checks.Library("time.AddDate, where the day exists"), "12 months from "+from,
			day(from).AddDate(0, 12, 0).Format(time.DateOnly),
			wear.MonthsOn(day(from), 12).Format(time.DateOnly))
	}
}

// The interval that comes first makes it due.
func TestDueAgainstTheOutside(t *testing.T) {
	first := checks.Practice("whichever comes first")
	got, err := wear.Reckon([]wear.Visit{visit(100_000, "2025-01-10", 300, 300),
		visit(120_000, "2026-01-10", 299, 300)},
		wear.Every{Run: 24_000, Months: 12})
	require.NoError(t, err)
	checks.Near(t, first, "24,000 km after 120,000: due at, km", 144_000, got.Due.Meter, 0)
	checks.Equal(t, first, "12 months after 10 January 2026: due on", "2027-01-10",
		got.Due.Date.Format(time.DateOnly))
}
