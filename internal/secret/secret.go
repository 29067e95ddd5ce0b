// Package secret is how a person is known: the hash of a PIN, the number of a tag, the token of a session,
// and how long a wrong guess costs. Nothing of it can be read back out of a data file.
package secret

import (
	"crypto/hmac"
	"crypto/rand"
	"crypto/sha256"
	"crypto/subtle"
	"encoding/base64"
	"encoding/hex"
	"fmt"
	"strings"
	"time"

	"golang.org/x/crypto/argon2"
)

// What hashing a PIN costs: 19 MiB of memory gone through twice by one thread, which is the least that is
// recommended for argon2id (OWASP Password Storage Cheat Sheet; from memory).
const (
	passes = 2
	memory = 19 * 1024 // KiB
	length = 32        // bytes of the hash
	salted = 16        // bytes of the salt
)

// The least and the most digits of a PIN.
const (
	LeastPIN = 4
	MostPIN  = 12
)

// SoundPIN says what is wrong with a PIN; empty: nothing. It is digits alone, because it is typed with oily
// hands, and none that everybody tries first: one digit over and over, or digits in their order.
func SoundPIN(pin string) string {
	if len(pin) < LeastPIN || len(pin) > MostPIN || strings.Trim(pin, "0123456789") != "" {
		return fmt.Sprintf("A PIN is %d to %d digits.", LeastPIN, MostPIN)
	}
	step := int(pin[1]) - int(pin[0])
	for i := 2; i < len(pin); i++ {
		if int(pin[i])-int(pin[i-1]) != step {
			return ""
		}
	}
	if step >= -1 && step <= 1 {
		return "Everybody tries this PIN first: take one that is no run of digits."
	}
	return ""
}

// HashPIN is what is stored of a PIN: its parameters, salt and hash in one line.
func HashPIN(pin string) string {
	salt := make([]byte, salted)
	_, _ = rand.Read(salt) // it never fails
	text := base64.RawStdEncoding.EncodeToString
	return fmt.Sprintf("$argon2id$v=%d$m=%d,t=%d,p=1$%s$%s", argon2.Version, memory, passes, text(salt),
		text(hashed(pin, salt, passes, memory)))
}

func hashed(pin string, salt []byte, t, m uint32) []byte {
	return argon2.IDKey([]byte(pin), salt, t, m, 1, length)
}

// Matches says whether a PIN is the one that was hashed. A stored text that does not read matches nothing.
func Matches(stored, pin string) bool {
	parts := strings.Split(stored, "$")
	if len(parts) != 6 || parts[1] != "argon2id" {
		return false
	}
	var t, m uint32
	if _, err := fmt.Sscanf(parts[3], "m=%d,t=%d,p=1", &m, &t); err != nil || t < 1 || m < 8 || m > 1<<20 ||
		t > 64 {
		return false
	}
	salt, err := base64.RawStdEncoding.DecodeString(parts[4])
	if err != nil {
		return false
	}
	want, err := base64.RawStdEncoding.DecodeString(parts[5])
	return err == nil && len(want) == length && subtle.ConstantTimeCompare(want, hashed(pin, salt, t, m)) == 1
}

// Token is a new one, of 256 bits: whoever has it is signed in.
func Token() string {
	b := make([]byte, 32)
	_, _ = rand.Read(b)
	return base64.RawURLEncoding.EncodeToString(b)
}

// Kept is what is stored of a token, from which it cannot be had.
func Kept(token string) string {
	sum := sha256.Sum256([]byte(token))
	return hex.EncodeToString(sum[:])
}

// Tagged is what is stored of a tag's number, under a key of the workshop's own: a tag is found by it, and
// what is found in the file opens no other door.
func Tagged(key []byte, number string) string {
	h := hmac.New(sha256.New, key)
	h.Write([]byte(number))
	return hex.EncodeToString(h.Sum(nil))
}

// Wrong guesses: so many are free, then each costs a wait that doubles, up to the longest. 10,000 guesses at
// a PIN of four digits take more than a hundred days.
const (
	free    = 5
	first   = 30 * time.Second
	longest = 15 * time.Minute
)

// Wait is how long nobody may guess again after so many wrong guesses in a row.
func Wait(wrong int) time.Duration {
	if wrong < free {
		return 0
	}
	if doubled := wrong - free; doubled < 5 {
		return first << doubled
	}
	return longest
}
