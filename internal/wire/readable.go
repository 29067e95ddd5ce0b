package wire

import (
	"fmt"
	"reflect"
	"sync"
)

// wholly are the types that are read as a whole, whatever they are made of.
var wholly = map[reflect.Type]bool{
	reflect.TypeFor[MM](): true, reflect.TypeFor[IN](): true, reflect.TypeFor[Deg](): true, unreadType: true,
}

// looked are the types that were found to be read in all their parts.
var looked sync.Map

// Readable says, when the program starts, that a type will be read: it panics where the decoder would pass
// over something that the type holds. A new unit that counts in whole numbers is among that, until the
// decoder is taught it.
func Readable[T any]() { mustRead(reflect.TypeFor[T]()) }

// mustRead stops the program at its start where a type holds something that would be read as nought.
func mustRead(t reflect.Type) {
	if _, done := looked.Load(t); done {
		return
	}
	if why := unreadable(t, map[reflect.Type]bool{}); why != "" {
		panic(fmt.Sprintf("%s is not read in full: %s", t, why))
	}
	looked.Store(t, true)
}

// unreadable names what of a type the decoder does not read; empty where it reads all.
func unreadable(t reflect.Type, within map[reflect.Type]bool) string {
	if wholly[t] || within[t] {
		return ""
	}
	within[t] = true
	switch t.Kind() {
	case reflect.Pointer, reflect.Slice:
		return unreadable(t.Elem(), within)
	case reflect.Struct:
		for i := range t.NumField() {
			f := t.Field(i)
			if !f.IsExported() && !f.Anonymous {
				return t.String() + "." + f.Name + " is not exported"
			}
			if why := unreadable(f.Type, within); why != "" {
				return why
			}
		}
		return ""
	case reflect.String, reflect.Bool, reflect.Int, reflect.Float64:
		return ""
	}
	return "the decoder knows no " + t.String()
}
