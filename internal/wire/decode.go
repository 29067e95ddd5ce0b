package wire

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"reflect"
	"strings"

	"metronix/core/measure"
)

// Node is a JSON value kept with the text of its numbers, so that lengths stay exact.
// It is nil, bool, json.Number, string, []Node or object.
type Node any

// object is a JSON object as it was written: the order of its fields and those given twice are not lost,
// because both are told.
type object struct {
	keys   []string
	values map[string]Node
	twice  []string // keys given more than once
}

// TextAt is the text under a key of a body that was parsed; empty where there is none.
func TextAt(n Node, key string) string {
	o, _ := n.(object)
	text, _ := o.values[key].(string)
	return text
}

// What is read at most: enough for any sheet, too little to make the program work for nothing. Faults beyond
// the fiftieth help nobody.
const (
	maxDepth  = 32
	maxFaults = 50
)

// Parse reads one JSON value and nothing after it.
func Parse(data []byte) (Node, error) {
	d := json.NewDecoder(bytes.NewReader(data))
	d.UseNumber()
	n, err := parseValue(d, 0)
	if err != nil {
		if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
			return nil, errors.New("the text ends before the JSON value does")
		}
		return nil, fmt.Errorf("not JSON at byte %d: %w", d.InputOffset(), err)
	}
	if _, err := d.Token(); !errors.Is(err, io.EOF) {
		return nil, fmt.Errorf("something follows the JSON value at byte %d", d.InputOffset())
	}
	return n, nil
}

// parseValue reads one value. Numbers stay text until it is known what they are: 0.30 of a millimetre is
// exact, and a float of it is not.
func parseValue(d *json.Decoder, depth int) (Node, error) {
	if depth > maxDepth {
		return nil, fmt.Errorf("nested deeper than %d", maxDepth)
	}
	t, err := d.Token()
	if err != nil {
		return nil, err
	}
	switch t {
	case json.Delim('{'):
		return parseObject(d, depth)
	case json.Delim('['):
		list := []Node{}
		for d.More() {
			n, err := parseValue(d, depth+1)
			if err != nil {
				return nil, err
			}
			list = append(list, n)
		}
		_, err := d.Token()
		return list, err
	}
	return t, nil
}

// parseObject reads an object with all its fields.
func parseObject(d *json.Decoder, depth int) (Node, error) {
	o := object{values: map[string]Node{}}
	for d.More() {
		key, err := d.Token()
		if err != nil {
			return nil, err
		}
		n, err := parseValue(d, depth+1)
		if err != nil {
			return nil, err
		}
		name := key.(string)
		if _, seen := o.values[name]; seen {
			o.twice = append(o.twice, name)
		} else {
			o.keys = append(o.keys, name)
		}
		o.values[name] = n
	}
	_, err := d.Token()
	return o, err
}

// Decode reads a value of type T from a Node by T's json tags, and collects everything wrong with it. It
// panics where T holds what it does not read.
func Decode[T any](n Node) (T, Faults) {
	var into T
	mustRead(reflect.TypeFor[T]())
	d := &decoder{}
	d.into(n, reflect.ValueOf(&into).Elem(), "")
	return into, d.faults
}

// decoder fills a Go value from a Node by its json tags and collects every fault. A field without omitempty
// is required; unknown and doubled fields are faults.
type decoder struct{ faults Faults }

// fault notes a fault at a place.
func (d *decoder) fault(at string, value any, format string, args ...any) {
	if len(d.faults) < maxFaults {
		d.faults.Add(at, value, format, args...)
	}
}

// echo keeps the value of a fault short, and lists and objects out.
func echo(v any) any {
	switch v := v.(type) {
	case string:
		if r := []rune(v); len(r) > 80 {
			return string(r[:80]) + "…"
		}
	case []Node, object, []any, map[string]any:
		return nil
	}
	return v
}

// unreadType is a sheet within a request, which is read by its own rules.
var unreadType = reflect.TypeFor[UnreadSheet]()

// into reads a value into whatever is to hold it; the units go first, because each is an integer beneath.
func (d *decoder) into(n Node, v reflect.Value, at string) {
	switch v.Interface().(type) {
	case MM:
		d.length(n, v, at, "millimetres", measure.ParseMillimetres)
		return
	case IN:
		d.length(n, v, at, "inches", measure.ParseInches)
		return
	case Deg:
		if f, ok := d.number(n, at); ok {
			v.SetInt(int64(measure.FromDegrees(f)))
		}
		return
	}
	if v.Type() == unreadType {
		v.Set(reflect.ValueOf(UnreadSheet{n}))
		return
	}
	switch v.Kind() {
	case reflect.Pointer:
		v.Set(reflect.New(v.Type().Elem()))
		d.into(n, v.Elem(), at)
	case reflect.Struct:
		d.object(n, v, at)
	case reflect.Slice:
		d.list(n, v, at)
	default:
		d.scalar(n, v, at)
	}
}

// scalar reads text, true or false, whole numbers and numbers. A type beyond these stops the program at its
// start (readable.go), in place of reading nought.
func (d *decoder) scalar(n Node, v reflect.Value, at string) {
	switch v.Kind() {
	case reflect.String:
		if s, ok := n.(string); ok {
			v.SetString(s)
			return
		}
		d.fault(at, n, "Text is expected here, not %s.", kindOf(n))
	case reflect.Bool:
		if b, ok := n.(bool); ok {
			v.SetBool(b)
			return
		}
		d.fault(at, n, "true or false is expected here, not %s.", kindOf(n))
	case reflect.Int:
		f, ok := d.number(n, at)
		if !ok {
			return
		}
		if f != math.Trunc(f) || math.Abs(f) > 1e9 {
			d.fault(at, n, "A whole number is expected here, not %v.", n)
			return
		}
		v.SetInt(int64(f))
	case reflect.Float64:
		if f, ok := d.number(n, at); ok {
			v.SetFloat(f)
		}
	default: // mustRead has looked at the type before
		panic("wire reads no " + v.Type().String())
	}
}

// number reads a float; one that is out of range is refused, not infinite.
func (d *decoder) number(n Node, at string) (float64, bool) {
	num, ok := n.(json.Number)
	if !ok {
		d.fault(at, n, "A number is expected here, not %s.", kindOf(n))
		return 0, false
	}
	f, err := num.Float64()
	if err != nil {
		d.fault(at, n, "%s is out of range.", num)
		return 0, false
	}
	return f, true
}

// length reads a length exactly, and says when it is written finer than is kept.
func (d *decoder) length(n Node, v reflect.Value, at, unit string,
	read func(string) (measure.Length, error)) {
	num, ok := n.(json.Number)
	if !ok {
		d.fault(at, n, "A number of %s is expected here, not %s.", unit, kindOf(n))
		return
	}
	l, err := read(num.String())
	switch {
	case errors.Is(err, measure.ErrTooFine):
		d.fault(at, n, "%s %s is finer than a nanometre: give at most six decimal places of a millimetre.",
			num, unit)
	case err != nil:
		d.fault(at, n, "%s %s is not a length that can be meant here.", num, unit)
	}
	v.SetInt(int64(l))
}

// list reads a list of at most a thousand; each type says below that how many it takes.
func (d *decoder) list(n Node, v reflect.Value, at string) {
	items, ok := n.([]Node)
	if !ok {
		d.fault(at, n, "A list is expected here, not %s.", kindOf(n))
		return
	}
	const most = 1000
	if len(items) > most {
		d.fault(at, nil, "%d entries: at most %d are taken.", len(items), most)
		return
	}
	v.Set(reflect.MakeSlice(v.Type(), len(items), len(items)))
	for i, item := range items {
		d.into(item, v.Index(i), fmt.Sprintf("%s[%d]", at, i))
	}
}

// object reads an object and refuses what has no place in it by name: a mistyped field that is passed over in
// silence is a figure that somebody believes was sent.
func (d *decoder) object(n Node, v reflect.Value, at string) {
	o, ok := n.(object)
	if !ok {
		d.fault(at, n, "An object is expected here, not %s.", kindOf(n))
		return
	}
	known := map[string]bool{}
	d.fields(o, v, at, known)
	for _, key := range o.keys {
		if !known[key] {
			d.fault(join(at, key), nil, "There is no field of this name here. Is it mistyped?")
		}
	}
	for _, key := range o.twice {
		d.fault(join(at, key), nil, "This field is given twice.")
	}
}

// fields reads the fields of a struct, those of the structs embedded in it among them.
func (d *decoder) fields(o object, v reflect.Value, at string, known map[string]bool) {
	for i := range v.NumField() {
		if v.Type().Field(i).Anonymous {
			d.fields(o, v.Field(i), at, known)
			continue
		}
		name, options, _ := strings.Cut(v.Type().Field(i).Tag.Get("json"), ",")
		known[name] = true
		value, given := o.values[name]
		mayBeNull := v.Type().Field(i).Tag.Get("nullable") == "true" && v.Field(i).Kind() == reflect.Pointer
		optional := strings.Contains(options, "omitempty") || v.Type().Field(i).Tag.Get("required") == "false"
		switch {
		case given && value == nil && mayBeNull:
		case given && (value != nil || !optional):
			d.into(value, v.Field(i), join(at, name))
		case !given && !optional:
			d.fault(join(at, name), nil, "This field is missing.")
		}
	}
}

// join is a place within a place.
func join(at, name string) string {
	if at == "" {
		return name
	}
	return at + "." + name
}

// kindOf is what a value is, for saying that something else was expected.
func kindOf(n Node) string {
	switch n.(type) {
	case nil:
		return "null"
	case bool:
		return "true or false"
	case json.Number:
		return "a number"
	case string:
		return "text"
	case []Node:
		return "a list"
	}
	return "an object"
}
