package wire

import (
	"fmt"
)

// Read reads a value of type T from a JSON text, strictly and exactly, and collects everything wrong with it.
func Read[T any](data []byte) (T, Faults) {
	n, err := Parse(data)
	if err != nil {
		var none T
		return none, Faults{{Message: fmt.Sprintf("The request cannot be read: %s.", err)}}
	}
	into, faults := Decode[T](n)
	if len(faults) == 0 {
		faults = beyond[T](n)
	}
	return into, faults
}
