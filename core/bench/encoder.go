package bench

import (
	"fmt"
	"math"

	"metronix/core/job"
	"metronix/core/sequence"
)

// Encoder is what an encoder on the crank tells.
type Encoder struct {
	Lost   string  // why it tells nothing; empty: it does
	Jumped float64 // by how much it jumped since it was reached, degrees; 0: it did not
	Moving bool    // the crank does not stand
	Bound  bool    // its count is of one piece since the crank's place was confirmed
	// how far the crank was turned since, degrees, positive in the running direction. Holds where it is
	// bound.
	Moved float64
}

// near is how far from a place the encoder may show the crank for it to be there: a pulley's mark is as wide
// (from memory).
const near = 5.0

// EncoderView is what is said of it and done with it.
type EncoderView struct {
	Says string // in words; empty: nothing is to be said
	// Waits says that the crank turns still, so that nothing is confirmed yet.
	Waits bool
	// Off says that the crank stands elsewhere than is believed, or than is about to be confirmed.
	Off bool
	// ToGo is how far it is still to be turned, degrees in the direction of the way round, below 0: too far.
	// It holds where Led is true.
	ToGo float64
	Led  bool
}

// See is what an encoder tells about a job's crank. It is never believed by itself: where the crank stands is
// what the mechanic has confirmed, and this says where that and the encoder are apart.
func (e Encoder) See(j *job.Job) EncoderView {
	next := j.Next()
	turning := next.Action == job.DoTurn || next.Action == job.DoBarOver
	switch {
	case e.Lost != "":
		return EncoderView{Says: "The crank encoder is lost: " + e.Lost + ". Turn and confirm as without it."}
	case !e.Bound && e.Jumped != 0:
		return EncoderView{Waits: turning && e.Moving, Off: true, Says: fmt.Sprintf(
			"The crank encoder jumped by %.0f°, farther than a hand turns. It is followed again from the next place "+
				"that you confirm.", math.Abs(e.Jumped))}
	case !e.Bound:
		return EncoderView{Waits: turning && e.Moving,
			Says: "The crank encoder is followed from the next place that you confirm."}
	case !turning:
		return e.aside()
	case next.Turn <= 0:
		return EncoderView{Waits: e.Moving, Says: standsOrTurns(e.Moving)}
	}
	asked, way := next.Turn.Degrees(), 1.0
	if j.Way.Direction == sequence.Back {
		way = -1
	}
	v := EncoderView{Waits: e.Moving, Led: true, ToGo: asked - way*e.Moved}
	switch {
	case e.Moving:
		v.Says = "The crank turns."
	case math.Abs(v.ToGo) <= near:
		v.Says = "By the encoder it stands there."
	case v.ToGo > 0:
		v.Says = fmt.Sprintf("By the encoder it stands, %.0f° short.", v.ToGo)
	default:
		v.Says = fmt.Sprintf("By the encoder it stands %.0f° past the place.", -v.ToGo)
	}
	v.Off = !e.Moving && math.Abs(v.ToGo) > near
	return v
}

// aside is what is said where no turning is asked for: that the crank was turned all the same.
func (e Encoder) aside() EncoderView {
	if math.Abs(e.Moved) <= near {
		return EncoderView{}
	}
	return EncoderView{Off: true, Says: fmt.Sprintf("By the encoder the crank was turned by %.0f° since its place was "+
		"confirmed. If it was, say that it moved.", math.Abs(e.Moved))}
}

// standsOrTurns says which, where it is not known how far is to be turned.
func standsOrTurns(moving bool) string {
	if moving {
		return "The crank turns."
	}
	return "By the encoder it stands."
}
