package compute

import (
	"encoding/json"
	"fmt"
	"net/http"
	"reflect"
	"slices"
	"strings"

	"metronix/internal/wire"
)

// Operation is one computation.
type Operation struct {
	Name              string
	About             string       // in a few words
	Request, Response reflect.Type // as they stand on the wire
	run               func(wire.Node) (any, *wire.Problem)
}

// Operations lists every computation by name.
func Operations() []Operation { return slices.Clone(operations) }

// operations is the one table: both doors, the document, the fuzzing and the table in docs/formats.md go
// through it.
var operations = []Operation{
	operation("check-sheet", "What is wrong, odd and assumed in an engine sheet", checkSheet),
	operation("compare", "Every sequence of an engine beside the others", compare),
	operation("convert", "Lengths and torques in other units", convert),
	operation("cooldown", "When a cooling engine reaches a temperature", cooldown),
	operation("forecast", "When clearances leave their limits", forecast),
	operation("judge", "What readings say of a gap", judge),
	operation("leaves", "Which leaves make a thickness", leaves),
	operation("locate", "Where the crank may stand from what is seen", locate),
	operation("lock-shift", "What locking does to a gap", lockShift),
	operation("plan", "The stops of a sequence", plan),
	operation("reach", "Which thicknesses a set of leaves makes", reach),
	operation("rehearse", "What a job will take, played through", rehearsed),
	operation("settable", "Which valves may be set at a crank position", settable),
	operation("shims", "Which shim goes under which valve", shims),
	operation("turn", "How far to turn an adjuster", turn),
}

// operation decodes the request strictly before it is called.
func operation[Request, Response any](name, about string,
	call func(Request) (Response, *wire.Problem)) Operation {
	wire.Readable[Request]()
	return Operation{name, about, reflect.TypeFor[Request](), reflect.TypeFor[Response](),
		func(n wire.Node) (any, *wire.Problem) {
			request, faults := wire.Decode[Request](n)
			if len(faults) > 0 {
				return nil, wire.Refused(faults...)
			}
			response, problem := call(request)
			if problem != nil {
				return nil, problem
			}
			return response, nil
		}}
}

// Names lists the names, sorted.
func Names() []string {
	names := make([]string, len(operations))
	for i, op := range operations {
		names[i] = op.Name
	}
	return names
}

// Run carries out one operation on a JSON request and gives the JSON response, or the problem with the
// request.
func Run(name string, request []byte) ([]byte, *wire.Problem) {
	i := slices.IndexFunc(operations, func(op Operation) bool { return op.Name == name })
	if i < 0 {
		var faults wire.Faults
		faults.Add("operation", name, "There is no operation of this name. There are: %s.",
			strings.Join(Names(), ", "))
		return nil, wire.Refused(faults...)
	}
	n, err := wire.Parse(request)
	if err != nil {
		return nil, wire.Refused(wire.Fault{Message: fmt.Sprintf("The request cannot be read: %s.", err)})
	}
	answer, problem := operations[i].run(n)
	if problem != nil {
		return nil, problem
	}
	data, err := json.Marshal(answer)
	if err != nil {
		return nil, &wire.Problem{Type: "about:blank", Title: "The answer could not be written",
			Status: http.StatusInternalServerError, Detail: err.Error(), Errors: wire.Faults{}}
	}
	return append(data, '\n'), nil
}
