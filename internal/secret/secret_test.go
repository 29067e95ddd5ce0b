package secret

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

func TestAPINIsKnownByItsHashAlone(t *testing.T) {
	stored := HashPIN("4711")
	assert.True(t, strings.HasPrefix(stored, "$argon2id$v=19$m=19456,t=2,p=1$"), stored)
	assert.NotContains(t, stored, "4711")
	assert.NotEqual(t, stored, HashPIN("4711"), "each has a salt of its own")
	assert.True(t, Matches(stored, "4711"))
	for _, pin := range []string{"", "4712", "47110", "4711 "} {
		assert.False(t, Matches(stored, pin), "%q", pin)
	}
	for _, broken := range []string{"", "4711", "$argon2id$", stored[:len(stored)-4], strings.Replace(stored, "m=19456", "m=0", 1),
		strings.Replace(stored, "t=2", "t=4000000000", 1), strings.Replace(stored, "argon2id", "plain", 1)} {
		assert.False(t, Matches(broken, "4711"), "%q", broken)
	}
}

// An example of the argon2 reference implementation's own tests: version 19, 256 KiB, 2 passes, one lane
// (from memory of RFC 9106's predecessor test set; the second opinion is that the packaged function gives
// it).
func TestWhatIsStoredIsTheOpenForm(t *testing.T) {
	const stored = "$argon2id$v=19$m=256,t=2,p=1$c29tZXNhbHQ$nf65EOgLrQMR/uIPnA4rEsF5h7TKyQwu9U1bMCHGi/4"
	assert.True(t, Matches(stored, "password"))
	assert.False(t, Matches(stored, "Password"))
}

func TestWhatIsNoPIN(t *testing.T) {
	for pin, wrong := range map[string]bool{"": true, "123": true, "12a4": true, "٤٧١١": true, "1234567890123": true,
		"0000": true, "1234": true, "987654": true, "4711": false, "1357": false, "112233": false, "100000": false} {
		assert.Equal(t, wrong, SoundPIN(pin) != "", pin)
	}
}

func TestTokensAndTags(t *testing.T) {
	a, b := Token(), Token()
	assert.NotEqual(t, a, b)
	assert.Len(t, a, 43)
	assert.Equal(t, Kept(a), Kept(a))
	assert.NotContains(t, Kept(a), a)
	assert.NotEqual(t, Tagged([]byte("one"), "0004711"), Tagged([]byte("other"), "0004711"))
	// RFC 4231, test case 2
	assert.Equal(t, "5bdcc146bf60754e6a042426089575c75a003f089d2739839dec58b964ec3843",
		Tagged([]byte("Jefe"), "what do ya want for nothing?"))
}

// Whoever tries every PIN of four digits waits longer than the workshop's summer.
func TestGuessingIsSlow(t *testing.T) {
	assert.Zero(t, Wait(0))
	assert.Zero(t, Wait(free-1))
	assert.Equal(t, 30*time.Second, Wait(free))
	var whole time.Duration
	for n := range 10_000 {
		assert.GreaterOrEqual(t, Wait(n+1), Wait(n))
		whole += Wait(n)
	}
	assert.Greater(t, whole, 100*24*time.Hour)
}
