package api_test

import (
	"fmt"
	"maps"
	"math/rand/v2"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/measure"
	"metronix/internal/api"
)

// studied reads every gap of a study by readers whose bias is known, and gives what it came to. Until the end
// nothing of the gaps is told.
func (c *crew) studied(t *testing.T, token func(*http.Request), id string, gaps map[string]float64, bias map[string]float64) (v api.GaugeStudyView) {
	t.Helper()
	chance := rand.New(rand.NewPCG(1, 1))
	_, text := c.as(token, "GET", "/api/v1/gauge-studies/"+id, "")
	decode(t, text, &v)
	for v.Next != nil {
		require.Nil(t, v.Came)
		for _, g := range gaps {
			require.NotContains(t, text, fmt.Sprint(g), "the gap is told before the end")
		}
		want := gaps[v.Next.Gap] + bias[v.Next.Reader] + 0.004*chance.NormFloat64()
		best := v.Next.LeavesMM[0]
		for _, l := range v.Next.LeavesMM {
			if off := func(m measure.Length) measure.Length { return (m - measure.FromMillimetres(want)).Abs() }; off(measure.Length(l)) < off(measure.Length(best)) {
				best = l
			}
		}
		body := fmt.Sprintf(`{"n":%d,"leaves_mm":[%s]}`, v.Done, jsonOf(t, best))
		var status int
		status, text = c.as(token, "POST", "/api/v1/gauge-studies/"+id+"/readings", body)
		require.Equal(t, 200, status, text)
		done := v.Done
		v = api.GaugeStudyView{}
		decode(t, text, &v)
		require.Equal(t, done+1, v.Done)
		_, again := c.as(token, "POST", "/api/v1/gauge-studies/"+id+"/readings", body)
		require.JSONEq(t, text, again, "sent again it is the same one")
	}
	return v
}

// Real leaves at real gaps: two people and two sets; what each is out by is found, who is out by it too; a
// foreman agrees, and from then on that figure is proposed for that person's jobs, with its date; where
// leaves are otherwise it is not. Nobody agrees to his own.
func TestAStudyWithRealLeaves(t *testing.T) {
	c := peopled(t)
	june, tess := c.in("june"), c.in("tess")
	leaves := []map[string]any{}
	for mm := 15; mm <= 33; mm++ {
		leaves = append(leaves, map[string]any{"marked_mm": float64(mm) / 100})
	}
	set := map[string]any{"id": "fine-0001", "name": "Fine", "leaves": leaves}
	status, text := c.as(june, "POST", "/api/v1/gauge-sets", jsonOf(t, set))
	require.Less(t, status, 300, text)
	body := map[string]any{"id": "study-000001", "gaps": []map[string]float64{{"gap_mm": 0.231, "doubt_mm": 0.001},
		{"gap_mm": 0.278, "doubt_mm": 0.001}, {"gap_mm": 0.183, "doubt_mm": 0.001}}, "with": "micrometer", "measured_by": "Ivo Brand",
		"leaves_are": "dry", "readers": []string{"Tess Ardal", "June Abara"}, "gauge_set_ids": []string{"fine-0001"}, "times": 4}
	begin := func(change map[string]any) (int, string) {
		with := maps.Clone(body)
		maps.Copy(with, change)
		return c.as(tess, "POST", "/api/v1/gauge-studies", jsonOf(t, with))
	}
	for says, change := range map[string]map[string]any{
		"knows them":        {"measured_by": "tess ardal"},
		"named twice":       {"readers": []string{"Tess Ardal", "TESS Ardal "}},
		"no such leaf set":  {"gauge_set_ids": []string{"nothing"}},
		"is no gap that":    {"gaps": []map[string]float64{{"gap_mm": 4, "doubt_mm": 0}}},
		"body.times":        {"times": 1},
		"Say who reads.":    {"readers": []string{" "}},
		"of a measured gap": {"gaps": []map[string]float64{{"gap_mm": 0.2, "doubt_mm": 0.5}}},
	} {
		status, text := begin(change)
		assert.Equal(t, 422, status, says)
		assert.Contains(t, text, says)
	}
	status, text = begin(nil)
	require.Equal(t, 200, status, text)
	agree := func(token func(*http.Request), reader, more string) (int, string) {
		return c.as(token, "PUT", "/api/v1/gauge-studies/study-000001/feel", `{"reader":"`+reader+`","agreed_by":""`+more+`}`)
	}
	status, text = agree(june, "Tess Ardal", "")
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "has not ended")

	gaps := map[string]float64{"A": 0.231, "B": 0.278, "C": 0.183}
	v := c.studied(t, tess, "study-000001", gaps, map[string]float64{"Tess Ardal": 0.012, "June Abara": 0})
	require.Len(t, v.Came.Readers, 2)
	assert.InDelta(t, 12e3, float64(v.Came.Readers[0].BiasMM), 4e3)
	assert.InDelta(t, 0, float64(v.Came.Readers[1].BiasMM), 4e3)
	assert.Equal(t, 12, v.Came.Readers[0].Readings)
	require.NotNil(t, v.Came.By[0].P)
	assert.Less(t, *v.Came.By[0].P, 0.01, "people differ")
	assert.Zero(t, v.Came.By[1].DF, "one set has no effect")

	way := func() (m api.MyWay) {
		_, text := c.as(tess, "GET", "/api/v1/vehicles/vehicle-01/my-way?mechanic=Tess+Ardal", "")
		decode(t, text, &m)
		return m
	}
	before := way()
	assert.Empty(t, before.FeelSays)
	status, _ = agree(tess, "June Abara", "")
	assert.Equal(t, 403, status, "a mechanic agrees to nobody's")
	status, text = agree(june, "June Abara", "")
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "figure of his own")
	status, text = agree(june, "Tess Ardal", "")
	require.Equal(t, 200, status, text)
	now := way()
	require.NotNil(t, now.FeelMM)
	assert.Equal(t, v.Came.Readers[0].FeelMM, *now.FeelMM)
	assert.Equal(t, "Measured on 30 Nov 2026 with dry leaves, agreed by June Abara.", now.FeelSays)
	status, text = agree(june, "Tess Ardal", `,"back":true`)
	require.Equal(t, 200, status, text)
	assert.Equal(t, before, way())
}

// Too few readings are no figure for real jobs.
func TestTooFewReadings(t *testing.T) {
	d := withJob(t)
	_, text := d.send("GET", "/api/v1/gauge-sets", "")
	var sets []struct{ ID string }
	decode(t, text, &sets)
	status, text := d.send("POST", "/api/v1/gauge-studies", `{"id":"study-000002","gaps":[{"gap_mm":0.2,"doubt_mm":0}],"with":"dial",`+
		`"measured_by":"A","leaves_are":"oiled","readers":["B"],"gauge_set_ids":["`+sets[0].ID+`"],"times":2}`)
	require.Equal(t, 200, status, text)
	c := &crew{door: d}
	v := c.studied(t, func(*http.Request) {}, "study-000002", nil, nil)
	assert.False(t, v.Came.Readers[0].Enough)
	status, text = d.send("PUT", "/api/v1/gauge-studies/study-000002/feel", `{"reader":"B","agreed_by":"C"}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "too few")
}
