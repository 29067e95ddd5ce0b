package wire

import (
	"fmt"
	"reflect"
	"strings"
)

// mirror is how a struct of the wire and one of the core stand for each other, both ways by one declaration:
// a field of the wire's stands for the field of the same name in the core's, or for the one that its tag
// core:"…" names (with dots for what lies within another, "-" for none). A mirror is made when the program
// starts, and not made where a field on either side stands for none on the other, or for one of another
// nature: nothing is lost in silence.
type mirror struct{ pairs []pair }

// pair is the places of one field in both structs.
type pair struct{ wire, core []int }

// mirrors are those that were made: by the wire's type and the core's.
var mirrors = map[[2]reflect.Type]mirror{}

// mirrored makes the mirror of two structs and of all that they hold.
func mirrored[W, C any]() { match(reflect.TypeFor[W](), reflect.TypeFor[C]()) }

// match makes the mirrors that two types need, and panics where one is not like the other.
func match(w, c reflect.Type) {
	switch {
	case w == c:
	case w.Kind() != c.Kind():
		panic(fmt.Sprintf("%s and %s do not stand for each other", w, c))
	case w.Kind() == reflect.Pointer || w.Kind() == reflect.Slice:
		match(w.Elem(), c.Elem())
	case w.Kind() == reflect.Struct:
		matchFields(w, c)
	case !w.ConvertibleTo(c):
		panic(fmt.Sprintf("%s and %s do not stand for each other", w, c))
	}
}

// matchFields pairs the fields of a wire type with those of the core's and stops the program where one stands
// for nothing, or where a field of the core is reached by none: that is what used to be lost in silence.
func matchFields(w, c reflect.Type) {
	if _, made := mirrors[[2]reflect.Type{w, c}]; made {
		return
	}
	var m mirror
	reached := map[string]bool{}
	for i := range w.NumField() {
		f := w.Field(i)
		path := f.Name
		if tag, ok := f.Tag.Lookup("core"); ok {
			path = tag
		}
		if path == "-" {
			continue
		}
		at, of := within(c, path, f)
		match(f.Type, of)
		m.pairs = append(m.pairs, pair{f.Index, at})
		reached[path] = true
	}
	mirrors[[2]reflect.Type{w, c}] = m
	for _, path := range missed(c, "", reached) {
		panic(fmt.Sprintf("no field of %s stands for %s of %s", w, path, c))
	}
}

// within finds a field by its path.
func within(c reflect.Type, path string, stands reflect.StructField) (at []int, of reflect.Type) {
	of = c
	for name := range strings.SplitSeq(path, ".") {
		f, ok := reflect.StructField{}, false
		if of.Kind() == reflect.Struct {
			f, ok = of.FieldByName(name)
		}
		if !ok {
			panic(fmt.Sprintf("%s has no %s for %s to stand for", c, path, stands.Name))
		}
		at, of = append(at, f.Index...), f.Type
	}
	return at, of
}

// missed are the fields of a struct that nothing stands for, whole or part by part.
func missed(c reflect.Type, before string, reached map[string]bool) (list []string) {
	for i := range c.NumField() {
		f := c.Field(i)
		path := before + f.Name
		inside := func(other string) bool { return strings.HasPrefix(other, path+".") }
		switch {
		case reached[path]:
		case f.Type.Kind() == reflect.Struct && anyKey(reached, inside):
			list = append(list, missed(f.Type, path+".", reached)...)
		default:
			list = append(list, path)
		}
	}
	return list
}

// anyKey says whether a set holds one that fits.
func anyKey(set map[string]bool, is func(string) bool) bool {
	for key := range set {
		if is(key) {
			return true
		}
	}
	return false
}

// coreOf is the core's value that a value of the wire stands for.
func coreOf[C, W any](from W) (to C) {
	reflected(reflect.ValueOf(&to).Elem(), reflect.ValueOf(&from).Elem(), true)
	return to
}

// wireOf is the value of the wire that stands for one of the core's.
func wireOf[W, C any](from C) (to W) {
	reflected(reflect.ValueOf(&to).Elem(), reflect.ValueOf(&from).Elem(), false)
	return to
}

// reflected carries a value over, pair by pair, either way; absent stays absent.
func reflected(to, from reflect.Value, toCore bool) {
	switch {
	case to.Type() == from.Type():
		to.Set(from)
	case to.Kind() == reflect.Pointer:
		if !from.IsNil() {
			to.Set(reflect.New(to.Type().Elem()))
			reflected(to.Elem(), from.Elem(), toCore)
		}
	case to.Kind() == reflect.Slice:
		if !from.IsNil() {
			to.Set(reflect.MakeSlice(to.Type(), from.Len(), from.Len()))
			for i := range from.Len() {
				reflected(to.Index(i), from.Index(i), toCore)
			}
		}
	case to.Kind() == reflect.Struct && toCore:
		for _, p := range mirrors[[2]reflect.Type{from.Type(), to.Type()}].pairs {
			reflected(to.FieldByIndex(p.core), from.FieldByIndex(p.wire), toCore)
		}
	case to.Kind() == reflect.Struct:
		for _, p := range mirrors[[2]reflect.Type{to.Type(), from.Type()}].pairs {
			reflected(to.FieldByIndex(p.wire), from.FieldByIndex(p.core), toCore)
		}
	default:
		to.Set(from.Convert(to.Type()))
	}
}
