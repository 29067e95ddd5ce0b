//go:build !race

package api_test

import (
	"fmt"
	"net/http"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Ten thousand guesses at a PIN of four digits from many addresses at once: nobody is let in, and the person
// gets in with the right PIN once the wait is over.
func TestGuessingAPIN(t *testing.T) {
	c := peopled(t)
	statuses := map[int]int{}
	for n := range 10_000 {
		pin := fmt.Sprintf("%04d", n)
		w := c.tried(`{"person_id":"tess","pin":"`+pin+`"}`, fmt.Sprintf("192.0.2.%d:%d", n%250, n%60000+1))
		statuses[w.Code]++
		if w.Code == http.StatusTooManyRequests {
			require.NotEmpty(t, w.Header().Get("Retry-After"))
		}
		c.now = c.now.Add(10 * time.Millisecond)
	}
	assert.Equal(t, map[int]int{401: 7, 429: 9993}, statuses, "5 at once, then after 30 s and 60 s")
	c.now = c.now.Add(16 * time.Minute)
	c.in("tess")
	assert.Equal(t, 401, c.tried(`{"person_id":"tess","pin":"9999"}`, "192.0.2.7:1").Code, "right, and it counts anew")
}
