package measure

import "fmt"

// Window is a closed range of lengths: both ends belong to it. The zero Window holds only zero.
type Window struct{ Lower, Upper Length }

// Contains says whether l lies in the window, ends included.
func (w Window) Contains(l Length) bool { return w.Lower <= l && l <= w.Upper }

// Within says whether the whole of w lies inside outer, ends included.
func (w Window) Within(outer Window) bool { return outer.Lower <= w.Lower && w.Upper <= outer.Upper }

// Both is what two windows have in common; ok is false where they do not meet.
func (w Window) Both(o Window) (both Window, ok bool) {
	both = Window{Lower: max(w.Lower, o.Lower), Upper: min(w.Upper, o.Upper)}
	return both, both.Lower <= both.Upper
}

// Middle is the centre of the window, rounded down to the nanometre.
func (w Window) Middle() Length { return w.Lower + (w.Upper-w.Lower)/2 }

// String writes "0.20–0.24 mm".
func (w Window) String() string {
	lower := w.Lower.String()
	return fmt.Sprintf("%s–%s", lower[:len(lower)-len(" mm")], w.Upper)
}
