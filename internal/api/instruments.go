package api

import (
	"cmp"
	"context"
	"math"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/bench"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/internal/instrument"
	"metronix/internal/line"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// instruments are the readers of all instruments, and what is known of the encoder's zero.
type instruments struct {
	readers map[instrument.Kind]*line.Reader[instrument.Reading]
	zero    instrument.Zero
}

// newInstruments listens to none yet.
func newInstruments() *instruments {
	i := &instruments{readers: map[instrument.Kind]*line.Reader[instrument.Reading]{}}
	for _, k := range instrument.Kinds() {
		i.readers[k] = instrument.NewReader(k)
	}
	return i
}

// instrumentRoutes are the instruments at the engine: where they stand, what they tell, and how hard a leaf
// pulls by somebody's hand.
func (s *server) instrumentRoutes(a huma.API) {
	huma.Get(a, "/api/v1/instruments", s.instrumentsNow,
		summary("get-instruments", "What the instruments tell"))
	huma.Put(a, "/api/v1/instruments", s.putInstruments,
		summary("put-instruments", "Where the instruments stand"), strictly[InstrumentAddresses](a))
	huma.Put(a, "/api/v1/my-pull", s.putPull,
		summary("put-my-pull", "How hard a leaf pulls that drags as it should, by one's own hand"), strictly[PullView](a))
}

// InstrumentAddresses is where each stands, by kind.
type InstrumentAddresses struct {
	Crank  string `json:"crank" maxLength:"80" doc:"of a crank encoder, 127.0.0.1:7071; empty: none"`
	Dial   string `json:"dial" maxLength:"80" doc:"of a dial indicator"`
	Wrench string `json:"wrench" maxLength:"80" doc:"of a torque wrench"`
	Pull   string `json:"pull" maxLength:"80" doc:"of a scale that pulls the leaf"`
}

// byKind are the same by their kinds.
func (a *InstrumentAddresses) byKind() map[instrument.Kind]*string {
	return map[instrument.Kind]*string{instrument.Crank: &a.Crank, instrument.Dial: &a.Dial,
		instrument.Wrench: &a.Wrench, instrument.Pull: &a.Pull}
}

// PullView is how hard a leaf pulls that drags as it should.
type PullView struct {
	FromN float64 `json:"from_n" minimum:"0" maximum:"200"`
	ToN   float64 `json:"to_n" minimum:"0" maximum:"200"`
}

// usualPull is taken until somebody says otherwise (from memory).
var usualPull = PullView{FromN: 1, ToN: 4}

// InstrumentsView is what all of them tell.
type InstrumentsView struct {
	Addresses InstrumentAddresses `json:"addresses"`
	List      []InstrumentView    `json:"list" doc:"those that are set up"`
	Pull      PullView            `json:"pull"`
	Crank     *EncoderSeen        `json:"crank,omitempty" doc:"what the crank encoder tells of the job that was asked for; absent: there is none, or no job was named"`
}

// InstrumentView is what one tells.
type InstrumentView struct {
	Kind    string     `json:"kind" enum:"crank,dial,wrench,pull"`
	Name    string     `json:"name" doc:"in words"`
	Unit    string     `json:"unit"`
	State   string     `json:"state" enum:"off,connecting,ok,lost"`
	Detail  string     `json:"detail" doc:"why it is lost"`
	Value   float64    `json:"value" doc:"the latest; holds in state ok"`
	Run     int64      `json:"run" doc:"counts anew with each connection, and with each jump of an encoder: within one run its values are of one piece"`
	Still   bool       `json:"still" doc:"it has not moved for a while"`
	Taken   float64    `json:"taken" doc:"what its button or click took last"`
	Takes   int        `json:"takes" doc:"how often it took one since it was reached; 0: never"`
	TakenAt *time.Time `json:"taken_at,omitempty"`
	Feel    string     `json:"feel" enum:",free,drag,wont_go" doc:"of a pull that was taken: how that leaf feels by one's own limits"`
	Says    string     `json:"says" doc:"of a click on the nut of the job that was asked for; empty: nothing"`
	Off     bool       `json:"off" doc:"that is not as the sheet says"`
}

// EncoderSeen is what the crank encoder tells of a job.
type EncoderSeen struct {
	Says     string    `json:"says" doc:"empty: nothing is to be said"`
	CrankDeg *wire.Deg `json:"crank_deg,omitempty" doc:"where it shows the crank; absent: its zero is not known"`
	Waits    bool      `json:"waits" doc:"the crank turns still: nothing is confirmed yet"`
	Off      bool      `json:"off" doc:"it shows the crank elsewhere than is believed"`
	ToGoDeg  *wire.Deg `json:"to_go_deg,omitempty" doc:"how far it is still to be turned, below 0: too far; absent: that is not known"`
}

// instrumentAddresses is where they stand. An address that was allowed when it was set, and is no more, is
// not reached.
func (s *server) instrumentAddresses(ctx context.Context) (a InstrumentAddresses, err error) {
	at, err := s.store.With(ctx).Instruments()
	if err != nil {
		return a, fault(err)
	}
	for k, to := range a.byKind() {
		if *to = at[string(k)]; s.probeAllowed.Check(*to) != "" {
			*to = ""
		}
	}
	return a, nil
}

// pullOf is how hard a leaf pulls by whoever asks.
func (s *server) pullOf(ctx context.Context) (PullView, error) {
	p, said, err := s.store.With(ctx).Pull(visitorOf(ctx).id())
	if err != nil {
		return PullView{}, fault(err)
	}
	if !said {
		return usualPull, nil
	}
	return PullView(p), nil
}

// instrumentsNow asks all of them, and says what the encoder tells of a job.
func (s *server) instrumentsNow(ctx context.Context, in *struct {
	Job string `query:"job" maxLength:"64" pattern:"^[A-Za-z0-9_-]*$" doc:"whose crank the encoder is at; empty: none"`
}) (*bodyOf[InstrumentsView], error) {
	a, err := s.instrumentAddresses(ctx)
	if err != nil {
		return nil, err
	}
	pull, err := s.pullOf(ctx)
	if err != nil {
		return nil, err
	}
	out := InstrumentsView{Addresses: a, List: []InstrumentView{}, Pull: pull}
	at, told := a.byKind(), map[instrument.Kind]line.Status[instrument.Reading]{}
	for _, k := range instrument.Kinds() {
		if status := s.instruments.readers[k].Ask(*at[k]); status.State != line.Off {
			told[k] = status
			out.List = append(out.List, instrumentView(k, status, pull))
		}
	}
	if in.Job == "" || len(told) == 0 {
		return &bodyOf[InstrumentsView]{out}, nil
	}
	err = s.desk.with(ctx, in.Job, func(o *openJob) error {
		if status, ok := told[instrument.Crank]; ok {
			out.Crank = s.encoderSeen(o, status)
		}
		if r := told[instrument.Wrench].Reading; r.Takes > 0 {
			i := slices.IndexFunc(out.List, func(v InstrumentView) bool { return v.Kind == string(instrument.Wrench) })
			out.List[i].Says, out.List[i].Off = bench.Clicked(o.state.Sheet, r.Taken, speaksTo(ctx))
		}
		return nil
	})
	if err != nil {
		return nil, fault(err)
	}
	return &bodyOf[InstrumentsView]{out}, nil
}

// instrumentView is what one tells.
func instrumentView(k instrument.Kind, status line.Status[instrument.Reading], pull PullView) InstrumentView {
	t, r := k.Trait(), status.Reading
	v := InstrumentView{Kind: string(k), Name: t.Name, Unit: t.Unit, State: string(status.State), Detail: status.Detail,
		Value: r.Value, Run: r.Run, Still: r.Still(), Taken: r.Taken, Takes: r.Takes, TakenAt: given(r.TakenAt)}
	if k == instrument.Pull && r.Takes > 0 {
		v.Feel = pull.feel(r.Taken)
	}
	return v
}

// feel is how a leaf feels that pulls so hard.
func (p PullView) feel(n float64) string {
	switch {
	case n < p.FromN:
		return "free"
	case n > p.ToN:
		return "wont_go"
	}
	return "drag"
}

// encoderSeen is what the encoder tells of a job's crank.
func (s *server) encoderSeen(o *openJob, status line.Status[instrument.Reading]) *EncoderSeen {
	r := status.Reading
	e := bench.Encoder{Jumped: r.Jumped, Moving: !r.Still()}
	if s.instruments.zero.Followed(r) {
		e.Jumped = 0 // a place was confirmed since
	}
	switch {
	case status.State != line.OK:
		e.Lost = cmp.Or(status.Detail, "it is being reached")
	case r.Restless():
		e.Lost = "it has not stood still for a minute"
	}
	moved, from, bound := s.instruments.zero.Moved(o.record.ID, r)
	e.Moved, e.Bound = moved, bound
	seen := e.See(o.state)
	out := &EncoderSeen{Says: seen.Says, Waits: seen.Waits, Off: seen.Off}
	if e.Bound && e.Lost == "" {
		out.CrankDeg = new(wire.Deg((from + tenths(e.Moved)).Wrap()))
		if seen.Led {
			out.ToGoDeg = new(wire.Deg(tenths(seen.ToGo)))
		}
	}
	return out
}

// placed binds the encoder's count to a place of the crank that somebody has just confirmed; where it was
// doubted, lost, or taken back, the count is followed no more.
func (s *server) placed(o *openJob, was job.Crank, h job.Happening) {
	now := o.state.Crank
	_, back := h.Act.(job.Undone)
	switch {
	case now.Stayed(was):
	case !now.Known || back:
		s.instruments.zero.Forget(o.record.ID)
	default:
		reader := s.instruments.readers[instrument.Crank]
		at := s.clock()
		s.instruments.zero.Confirm(o.record.ID, now.At, cmp.Or(h.DoneAt, h.At), at, reader.Last())
	}
}

// putInstruments keeps where they stand.
func (s *server) putInstruments(ctx context.Context, in *rawInput) (*bodyOf[InstrumentAddresses], error) {
	a, err := readBody[InstrumentAddresses](in.RawBody)
	if err != nil {
		return nil, err
	}
	var faults wire.Faults
	at := map[string]string{}
	for k, address := range a.byKind() {
		if message := s.probeAllowed.Check(*address); message != "" {
			faults = append(faults, wire.Fault{Location: "body." + string(k), Value: *address, Message: message})
		}
		at[string(k)] = *address
	}
	if len(faults) > 0 {
		return nil, located(http.StatusUnprocessableEntity, "This cannot be stored: "+counted(len(faults), "fault")+".",
			faults...)
	}
	if err := s.store.With(ctx).PutInstruments(at); err != nil {
		return nil, fault(err)
	}
	return &bodyOf[InstrumentAddresses]{a}, nil
}

// putPull keeps one's own limits.
func (s *server) putPull(ctx context.Context, in *rawInput) (*bodyOf[PullView], error) {
	p, err := readBody[PullView](in.RawBody)
	if err != nil {
		return nil, err
	}
	if p.ToN <= p.FromN || p.FromN < 0 || p.ToN > instrument.Pull.Trait().Most {
		return nil, located(http.StatusUnprocessableEntity, "This cannot be stored.", wire.Fault{Location: "body.to_n",
			Value: p.ToN, Message: "A leaf that drags pulls from one figure to a larger one, 0 to 200 N."})
	}
	if err := s.store.With(ctx).PutPull(visitorOf(ctx).id(), store.Pull(p)); err != nil {
		return nil, fault(err)
	}
	return &bodyOf[PullView]{p}, nil
}

// tenths is an angle in degrees, to a tenth as an encoder tells it.
func tenths(deg float64) measure.Angle { return measure.FromDegrees(math.Round(deg*10) / 10) }
