package compute

import (
	"encoding/json"
	"net/http"
	"strings"
)

// Fault is one thing wrong with a request, at a place in it.
type Fault struct {
	Location string `json:"location"`
	Message  string `json:"message"`
	Value    any    `json:"value,omitempty"`
}

// Problem is an RFC 9457 problem.
type Problem struct {
	Type   string  `json:"type"`
	Title  string  `json:"title"`
	Status int     `json:"status"`
	Detail string  `json:"detail"`
	Errors []Fault `json:"errors"`
}

func (p *Problem) Error() string { return p.Detail }

// JSON is the problem as it is sent, with a line end.
func (p *Problem) JSON() []byte {
	data, err := json.MarshalIndent(p, "", "  ")
	if err != nil {
		panic(err) // a Problem holds nothing that cannot be encoded
	}
	return append(data, '\n')
}

// refused is a request that cannot be right.
func refused(faults ...Fault) *Problem {
	messages := make([]string, len(faults))
	for i, f := range faults {
		messages[i] = f.Location + ": " + f.Message
	}
	return &Problem{
		Type: "about:blank", Title: "The request cannot be right", Status: http.StatusUnprocessableEntity,
		Detail: strings.Join(messages, " "), Errors: faults,
	}
}
