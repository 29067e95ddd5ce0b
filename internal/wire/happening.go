package wire

import (
	"encoding/json"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"time"

	"metronix/core/job"
)

// Header is what every happening carries besides what was done.
type Header struct {
	ID     string `json:"id" minLength:"8" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$" doc:"made by the client; sending it twice stores it once"`
	Kind   string `json:"kind"`
	DoneAt string `json:"done_at,omitempty" format:"date-time" doc:"when it was done, where it waited to be sent, by the program's clock"`
	Since  string `json:"seen,omitempty" maxLength:"64" doc:"the id of the newest happening that its screen knew; absent: the newest there is"`
	Knew   string `json:"knew,omitempty" maxLength:"64" doc:"the same, of a kind whose seen is what is seen of the engine"`
	Author string `json:"author,omitempty" maxLength:"80" doc:"who enters it; absent: nobody says"`
	Screen string `json:"screen,omitempty" maxLength:"80" doc:"on which screen it is entered; absent: it does not say"`
	SentBy string `json:"sent_by,omitempty" maxLength:"80" doc:"who sends it in the author's place, who cannot; the name of who is signed in, who has to be allowed to"`
}

// Happening is one entry of a job's list as it is sent: a union by kind, whose fields are those of its kind
// and no other.
type Happening struct{ job.Happening }

// MarshalJSON writes the header and the fields of the kind. When it arrived is not among them.
func (h Happening) MarshalJSON() ([]byte, error) {
	f, ok := formOf(h.Act.Kind())
	if !ok {
		return nil, fmt.Errorf("%q has no form on the wire", h.Act.Kind())
	}
	head := Header{ID: h.ID, Kind: string(f.kind), Since: h.Since, Author: h.Author, Screen: h.Screen, SentBy: h.SentBy}
	if !h.DoneAt.IsZero() {
		head.DoneAt = h.DoneAt.Format(time.RFC3339Nano)
	}
	if f.sees() {
		head.Since, head.Knew = "", h.Since
	}
	first, err := json.Marshal(head)
	if err != nil {
		return nil, err
	}
	own, err := json.Marshal(f.write(h.Act))
	if err != nil || len(own) == len("{}") {
		return first, err
	}
	return slices.Concat(first[:len(first)-1], []byte(","), own[1:]), nil
}

// ReadHappening reads a happening that arrived at a time. Fields that its kind does not have, and those
// missing, are refused by name.
func ReadHappening(data []byte, at time.Time) (job.Happening, Faults) {
	n, err := Parse(data)
	if err != nil {
		n = nil
	}
	return HappeningFrom(n, at)
}

// HappeningFrom reads a happening, as ReadHappening does, of a body that was parsed already.
func HappeningFrom(n Node, at time.Time) (job.Happening, Faults) {
	o, ok := n.(object)
	if !ok {
		return job.Happening{}, Faults{{Message: "This is no happening: an object with id and kind is " +
			"expected."}}
	}
	kind, _ := o.values["kind"].(string)
	f, ok := formOf(job.Kind(kind))
	if !ok {
		return job.Happening{}, Faults{{Location: "kind", Value: echo(o.values["kind"]),
			Message: fmt.Sprintf("This is nothing that happens in a job. There are: %s.",
				strings.Join(kinds(), ", "))}}
	}
	mine, rest := f.split(o)
	head, faults := Decode[Header](mine)
	act, more := f.read(rest)
	if faults = append(faults, more...); len(faults) == 0 {
		faults = f.beyond(n)
	}
	h := job.Happening{
		ID:     head.ID,
		At:     at.UTC(),
		Since:  head.Since + head.Knew, // a kind has one of them
		Author: head.Author,
		Screen: head.Screen,
		SentBy: head.SentBy,
		Act:    act,
	}
	if head.DoneAt != "" {
		done, err := time.Parse(time.RFC3339Nano, head.DoneAt)
		if err != nil && len(faults) == 0 {
			faults.Add("done_at", head.DoneAt, "A date and time is expected here, as 2026-11-25T10:00:00Z.")
		}
		h.DoneAt = done.UTC()
	}
	return h, faults
}

// split parts a happening into what every kind has and what this one has.
func (f form) split(o object) (mine, rest object) {
	head := []string{"id", "kind", "done_at", "author", "screen", "sent_by"}
	if f.sees() {
		head = append(head, "knew")
	} else {
		head = append(head, "seen")
	}
	parts := [2]object{{values: map[string]Node{}}, {values: map[string]Node{}}}
	for _, key := range o.keys {
		part := &parts[1]
		if slices.Contains(head, key) {
			part = &parts[0]
		}
		part.keys = append(part.keys, key)
		part.values[key] = o.values[key]
	}
	parts[1].twice = o.twice
	return parts[0], parts[1]
}

// WriteAct writes what was done, with the fields of its kind; the kind itself stands beside it.
func WriteAct(a job.Act) ([]byte, error) {
	f, ok := formOf(a.Kind())
	if !ok {
		return nil, fmt.Errorf("%q has no form on the wire", a.Kind())
	}
	return json.Marshal(f.write(a))
}

// ReadAct reads what WriteAct wrote.
func ReadAct(kind job.Kind, data []byte) (job.Act, error) {
	f, ok := formOf(kind)
	if !ok {
		return nil, fmt.Errorf("%q is nothing that happens in a job", kind)
	}
	n, err := Parse(data)
	if err != nil {
		return nil, err
	}
	act, faults := f.read(n)
	if len(faults) > 0 {
		return nil, fmt.Errorf("%s: %s", faults[0].Location, faults[0].Message)
	}
	return act, nil
}

// form is how one kind of act stands on the wire.
type form struct {
	kind   job.Kind
	fields reflect.Type
	read   func(Node) (job.Act, Faults)
	write  func(job.Act) any
}

// shape is the fields of a kind, which give the act that they say.
type shape interface{ act(*Faults) job.Act }

// formed is the form of acts of type A in fields of type W.
func formed[W shape, A job.Act](of func(A) W) form {
	var a A
	Readable[W]()
	return form{a.Kind(), reflect.TypeFor[W](), func(n Node) (job.Act, Faults) {
		fields, faults := Decode[W](n)
		if len(faults) > 0 {
			return nil, faults
		}
		return fields.act(&faults), faults
	}, func(act job.Act) any { return of(act.(A)) }}
}

// formOf is how a kind stands on the wire.
func formOf(kind job.Kind) (form, bool) {
	i := slices.IndexFunc(forms, func(f form) bool { return f.kind == kind })
	if i < 0 {
		return form{}, false
	}
	return forms[i], true
}

// kinds are the names of all kinds, for saying which there are.
func kinds() []string {
	list := make([]string, len(forms))
	for i, f := range forms {
		list[i] = string(f.kind)
	}
	return list
}

// sees says that the kind has a field of its own by the name of seen.
func (f form) sees() bool {
	for i := range f.fields.NumField() {
		if f.fields.Field(i).Tag.Get("json") == "seen" {
			return true
		}
	}
	return false
}
