// Package compute holds the one registry of computations that the command line and the HTTP interface serve:
// an operation's name leads to decoding, a call of the core, and encoding.
package compute

import (
	"encoding/json"
	"fmt"
	"maps"
	"net/http"
	"reflect"
	"slices"
	"strings"
)

type operation func(Node) (any, *Problem)

var operations = map[string]operation{
	"check-sheet": typed(checkSheet),
	"plan":        typed(plan),
	"compare":     typed(compare),
	"locate":      typed(locate),
	"settable":    typed(settable),
	"judge":       typed(judge),
	"leaves":      typed(leaves),
	"reach":       typed(reach),
	"turn":        typed(turn),
	"lock-shift":  typed(lockShift),
	"shims":       typed(shims),
	"cooldown":    typed(cooldown),
	"forecast":    typed(forecast),
	"convert":     typed(convert),
}

// Operations lists the names, sorted.
func Operations() []string { return slices.Sorted(maps.Keys(operations)) }

// Run carries out one operation on a JSON request and gives the JSON response, or the problem with the request.
func Run(name string, request []byte) ([]byte, *Problem) {
	op, ok := operations[name]
	if !ok {
		p := refused(Fault{Location: "operation", Value: echo(name),
			Message: fmt.Sprintf("There is no operation of this name. There are: %s.", strings.Join(Operations(), ", "))})
		return nil, p
	}
	n, err := parse(request)
	if err != nil {
		p := refused(Fault{Location: "", Message: fmt.Sprintf("The request cannot be read: %s.", err)})
		return nil, p
	}
	answer, problem := op(n)
	if problem != nil {
		return nil, problem
	}
	data, err := json.Marshal(answer)
	if err != nil {
		return nil, &Problem{Type: "about:blank", Title: "The answer could not be written", Status: http.StatusInternalServerError, Detail: err.Error(), Errors: []Fault{}}
	}
	return append(data, '\n'), nil
}

// typed decodes the request of one operation strictly before it is called.
func typed[Request, Response any](call func(Request) (Response, *Problem)) operation {
	return func(n Node) (any, *Problem) {
		var request Request
		d := &decoder{}
		d.into(n, reflect.ValueOf(&request).Elem(), "")
		if len(d.faults) > 0 {
			return nil, refused(d.faults...)
		}
		response, problem := call(request)
		if problem != nil {
			return nil, problem
		}
		return response, nil
	}
}

// list makes an absent list an empty one: no list is ever null on the wire.
func list[T any](l []T) []T {
	if l == nil {
		return []T{}
	}
	return l
}
