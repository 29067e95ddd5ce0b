package wire

import (
	"fmt"
	"strings"
	"unicode"
)

// Loose finds in a JSON text what decoders pass over in silence: keys given twice, in one case or another,
// and text with characters that cannot be seen or written. What is no JSON at all is left to the decoder,
// which says so.
func Loose(data []byte) Faults {
	n, err := Parse(data)
	if err != nil {
		return nil
	}
	return LooseIn(n)
}

// LooseIn is Loose of a body that was parsed already.
func LooseIn(n Node) Faults { return looseIn(n, "body", nil) }

// looseIn looks through a value that is only passed on: no character that cannot be stored or shown, no field
// twice or in two cases.
func looseIn(n Node, at string, faults Faults) Faults {
	if len(faults) >= maxFaults {
		return faults
	}
	switch n := n.(type) {
	case string:
		if why := unwritable(n); why != "" {
			faults = append(faults, Fault{Location: at, Message: why})
		}
	case []Node:
		for i, item := range n {
			faults = looseIn(item, fmt.Sprintf("%s[%d]", at, i), faults)
		}
	case object:
		seen := map[string]string{}
		for _, key := range n.twice {
			faults = append(faults, Fault{Location: join(at, key), Message: "This field is given twice."})
		}
		for _, key := range n.keys {
			folded := strings.ToLower(key)
			if first, ok := seen[folded]; ok {
				faults = append(faults, Fault{Location: join(at, key),
					Message: fmt.Sprintf("This field is given twice: as %q and as %q.", first, key)})
			}
			seen[folded] = key
			faults = looseIn(n.values[key], join(at, key), faults)
		}
	}
	return faults
}

// unwritable says why a text cannot be kept: it holds control characters, or ones that turn the writing
// direction round, or nothing that can be seen. Line ends and tabs are taken.
func unwritable(s string) string {
	shown := false
	for _, r := range s {
		switch {
		case r == '\n' || r == '\r' || r == '\t':
		case unicode.IsControl(r) || unicode.Is(unicode.Bidi_Control, r) || r == unicode.ReplacementChar:
			return fmt.Sprintf("This text holds a character that cannot be written (%U). Type it again.", r)
		case !unicode.IsSpace(r) && !unicode.Is(unicode.Cf, r):
			shown = true
		}
	}
	if !shown && strings.TrimSpace(s) != "" {
		return "There is nothing to be seen in this text."
	}
	return ""
}
