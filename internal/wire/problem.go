package wire

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
)

// Fault is one thing wrong with a request, at a place in it.
type Fault struct {
	Location string `json:"location"`
	Message  string `json:"message"`
	Value    any    `json:"value,omitempty"`
}

// Faults is everything wrong with a request.
type Faults []Fault

// Add notes one fault more.
func (f *Faults) Add(at string, value any, format string, args ...any) {
	*f = append(*f, Fault{Location: at, Message: fmt.Sprintf(format, args...), Value: echo(value)})
}

// OneOf notes a word that is not among those allowed; an empty one among them stands for the default.
func OneOf[T ~string](f *Faults, at, got string, allowed ...T) {
	if slices.Contains(allowed, T(got)) {
		return
	}
	var words []string
	for _, a := range allowed {
		if a != "" {
			words = append(words, string(a))
		}
	}
	f.Add(at, got, "%q is not one of: %s.", echo(got), strings.Join(words, ", "))
}

// In puts a place in front of the place of each fault.
func (f Faults) In(at string) Faults {
	out := make(Faults, len(f))
	for i, fault := range f {
		fault.Location = join(at, fault.Location)
		out[i] = fault
	}
	return out
}

// Problem is an RFC 9457 problem.
type Problem struct {
	Type   string `json:"type"`
	Title  string `json:"title"`
	Status int    `json:"status"`
	Detail string `json:"detail"`
	Errors Faults `json:"errors"`
}

// Error is what went wrong, in a sentence.
func (p *Problem) Error() string { return p.Detail }

// JSON is the problem as it is sent, with a line end.
func (p *Problem) JSON() []byte {
	data, err := json.MarshalIndent(p, "", "  ")
	if err != nil {
		panic(err) // a Problem holds nothing that cannot be encoded
	}
	return append(data, '\n')
}

// Refused is a request that cannot be right.
func Refused(faults ...Fault) *Problem {
	messages := make([]string, len(faults))
	for i, f := range faults {
		messages[i] = f.Location + ": " + f.Message
	}
	return &Problem{
		Type: "about:blank", Title: "The request cannot be right", Status: unprocessable,
		Detail: strings.Join(messages, " "), Errors: faults,
	}
}

// unprocessable is the status of a request that cannot be right (RFC 9110, 15.5.21).
const unprocessable = 422
