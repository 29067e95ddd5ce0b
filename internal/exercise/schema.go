package exercise

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"sync"

	"metronix/internal/wire"
)

// IDOf is the id that an exercise is kept under: the same exercise has the same.
func IDOf(x Exercise) string {
	text, _ := json.Marshal(x) // of text and numbers: it never errs
	sum := sha256.Sum256(text)
	return "x-" + hex.EncodeToString(sum[:10])
}

// Schema is the JSON Schema of the file, for an editor or a validator elsewhere. Its sheet is the engine
// sheet's own.
var Schema = sync.OnceValue(func() []byte {
	return wire.Published[File](
		"urn:metronix:exercise:1",
		"Exercise, "+Format,
		"An engine to practise on: its sheet, what is given of its gaps and wear or a seed from which they follow, how much is "+
			"told, how long it may take and which slips count. What contradicts its sheet, or leaves a gap that no leaf reads, "+
			"is told where it is taken in.",
	)
})
