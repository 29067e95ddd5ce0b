package wire

import (
	"fmt"
	"reflect"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine"
	"metronix/core/measure"
)

// filled gives every field of a value, however deep, something of its own.
func filled(v reflect.Value, n *int) {
	*n++
	switch v.Kind() {
	case reflect.Pointer:
		v.Set(reflect.New(v.Type().Elem()))
		filled(v.Elem(), n)
	case reflect.Slice:
		v.Set(reflect.MakeSlice(v.Type(), 2, 2))
		for i := range 2 {
			filled(v.Index(i), n)
		}
	case reflect.Struct:
		for i := range v.NumField() {
			filled(v.Field(i), n)
		}
	case reflect.String:
		v.SetString(fmt.Sprint("text ", *n))
	case reflect.Bool:
		v.SetBool(true)
	case reflect.Int:
		v.SetInt(int64(*n))
	case reflect.Int64: // a length or an angle: whole ten-thousandths of an inch, so that it can be written in inches too
		v.SetInt(int64(*n) * int64(measure.Inch/10_000))
	case reflect.Float64:
		v.SetFloat(float64(*n) + 0.5)
	default:
		panic("this test knows no " + v.Type().String())
	}
}

// No field of an engine sheet is lost on its way: from the core to the wire, to text and back.
func TestEveryFieldOfASheetComesBack(t *testing.T) {
	var sheet engine.Sheet
	n := 0
	filled(reflect.ValueOf(&sheet).Elem(), &n)
	text, err := WriteSheet(&sheet)
	require.NoError(t, err)
	node, err := Parse(text)
	require.NoError(t, err)
	dto, faults := Decode[Sheet](node)
	require.Empty(t, faults)
	assert.Equal(t, &sheet, coreOf[*engine.Sheet](&dto))
	assert.Equal(t, SheetFormat, dto.Format)
	assert.Greater(t, n, 150, "so much was filled")
}

type unlike struct{ A, B int }

// A mirror that would lose something is not made.
func TestNoMirrorIsMadeThatLosesSomething(t *testing.T) {
	assert.NotPanics(t, func() { mirrored[struct{ B, A int }, unlike]() }, "in another order")
	assert.PanicsWithValue(t, "no field of struct { A int } stands for B of wire.unlike",
		func() { mirrored[struct{ A int }, unlike]() })
	assert.PanicsWithValue(t, "wire.unlike has no C for C to stand for",
		func() { mirrored[struct{ A, B, C int }, unlike]() })
	assert.PanicsWithValue(t, "string and int do not stand for each other", func() {
		mirrored[struct {
			A int
			B string
		}, unlike]()
	})
	type deep struct{ Of unlike }
	assert.PanicsWithValue(
		t,
		"no field of struct { X int \"core:\\\"Of.A\\\"\" } stands for Of.B of wire.deep",
		func() {
			mirrored[struct {
				X int `core:"Of.A"`
			}, deep]()
		},
	)
}

// A type that the decoder would not read in full is refused before anything is read with it.
func TestATypeThatIsNotReadInFullIsRefused(t *testing.T) {
	type count int64
	for what, fails := range map[string]func(){
		"a unit that it was not taught": Readable[struct {
			N count `json:"n"`
		}],
		"a map":    Readable[struct{ M map[string]int }],
		"float32":  Readable[[]struct{ F *float32 }],
		"unsigned": Readable[struct{ U []uint }],
		"hidden":   Readable[struct{ u int }],
	} {
		assert.Panics(t, fails, what)
	}
	assert.Panics(t, func() { _, _ = Decode[struct{ M map[string]int }](object{}) })
	assert.NotPanics(t, Readable[Sheet])
}
