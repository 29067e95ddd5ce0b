package wire

import (
	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/measure"
)

// forms is every kind of act as it stands on the wire: its fields here, its meaning in core/job.
var forms = []form{
	formed(WayChosenOf),
	formed(func(a job.RoundChosen) roundChosen { return roundChosen{RoundFieldsOf(a.Round)} }),
	formed(func(a job.TemperatureNoted) noted { return noted{Celsius(a.EngineC), Celsius(a.AmbientC)} }),
	formed(func(a job.Prepared) prepared {
		return prepared{Celsius(a.EngineC), Celsius(a.AmbientC),
			a.Reason}
	}),
	formed(func(a job.JudgedCold) judgedCold {
		return judgedCold{string(a.By), a.Hours, a.Helped, (*Celsius)(a.AmbientC), a.Reason}
	}),
	formed(func(a job.JudgedHot) judgedHot {
		return judgedHot{string(a.How), a.RanMin, a.Note, a.Reason}
	}),
	formed(func(job.EngineStopped) engineStopped { return engineStopped{} }),
	formed(func(a job.Turned) turned { return turned{a.Stop} }),
	formed(func(a job.Located) located { return located{SeenOf(a.Seen), a.Take} }),
	formed(func(job.Doubted) doubted { return doubted{} }),
	formed(func(a job.Picked) picked { return picked{a.Valve} }),
	formed(func(a job.PlayFelt) play { return play{a.Valve, string(a.Play)} }),
	formed(func(a job.ReadingTaken) reading {
		return reading{a.Valve, StackOf(a.Leaves), string(a.Feel), a.MadeThere, a.KeepSure}
	}),
	formed(func(a job.DialRead) dial {
		return dial{a.Valve, MM(a.Gap), MM(a.Uncertainty), a.MadeThere,
			a.KeepSure}
	}),
	formed(func(a job.Withdrawn) withdrawn { return withdrawn{a.Valve, a.Index} }),
	formed(func(a job.Sized) sized { return sized{a.Valve, MM(a.Shim), MM(a.Stamped)} }),
	formed(func(a job.ShimsChosen) shimsChosen { return shimsChosen{string(a.Prefer), a.CamsOut} }),
	formed(func(a job.Kept) kept { return kept{a.Valve} }),
	formed(func(a job.Freed) freed { return freed{a.Valve} }),
	formed(func(a job.Adjusted) adjusted {
		return adjusted{a.Valve, StackOf(a.Leaves), MM(a.Shim), a.From, a.CamsOut, a.StandIn, a.Reason}
	}),
	formed(func(a job.Nipped) nipped { return nipped{a.Valve} }),
	formed(func(a job.Locked) locked { return locked{a.Valve, string(a.By)} }),
	formed(func(a job.SetTold) setTold {
		return setTold{a.Valve, StackOf(a.Leaves), string(a.By), a.Asked}
	}),
	formed(func(a job.LeftAsIs) leftAsIs {
		return leftAsIs{a.Valve, a.Reason, deferralOf(a.Deferred)}
	}),
	formed(func(a job.BarredOver) barredOver { return barredOver{a.Stop} }),
	formed(func(a job.Undone) undone { return undone{a.Target} }),
	formed(func(a job.Signed) signed {
		return signed{a.By, a.ToolsOut, deferralOf(a.Deferred), a.Exceptions, a.Seal.Vehicle, a.Seal.Plate,
			a.Seal.Facts}
	}),
	formed(func(job.WentHot) wentHot { return wentHot{} }),
	formed(func(a job.TakenIn) takenIn { return takenIn{Names(a.Complaints), a.Note, a.Sound} }),
	formed(func(a job.SoundNoted) sound { return sound{a.After, a.Note, a.File} }),
	formed(func(a job.TurningBy) turningBy { return turningBy{string(a.Means)} }),
	formed(func(a job.TaskMarked) task { return task{a.Task, a.With, a.Skip, a.Back, a.Reason} }),
	formed(func(a job.Stripped) strip {
		return strip{a.Step, StripStep{a.Text, a.Fastener, a.SocketMM, a.Note}}
	}),
	formed(func(a job.NutFelt) nutFelt { return nutFelt{a.Valve, a.Back} }),
	formed(func(a job.Waiting) waiting { return waiting{string(a.Waits), a.Until} }),
	formed(func(a job.HandedOver) handedOver { return handedOver{a.To, a.Note} }),
	formed(func(a job.ToolMoved) tool { return tool{a.Tool, a.Back} }),
	formed(func(a job.FindingNoted) finding { return finding{FindingOf(a.Finding)} }),
	formed(func(a job.Amended) amended { return amended{a.Text, a.By} }),
	formed(func(a job.Countersigned) countersigned { return countersigned{a.By} }),
}

// WayChosen is the sequence, its order and direction, and how the engine is gone round.
type WayChosen struct {
	Way
	Stops      int    `json:"stop_count,omitempty" minimum:"0" maximum:"80" doc:"for fewest_stops; 0: as few as reach the margin"`
	BackReason string `json:"back_reason,omitempty" maxLength:"200" doc:"why the crank is turned back though the sheet does not allow it"`
	RoundFields
}

// WayChosenOf writes the choice of a sequence.
func WayChosenOf(a job.WayChosen) WayChosen {
	return WayChosen{WayOf(a.Way), a.StopCount, a.BackReason, RoundFieldsOf(a.Round)}
}

func (w WayChosen) act(*Faults) job.Act {
	return job.WayChosen{Way: w.Core(w.Stops), BackReason: w.BackReason, Round: w.core()}
}

// RoundFields are how the engine is gone round, and what is checked at the end.
type RoundFields struct {
	Round      string   `json:"round,omitempty" enum:"set_as_you_go,read_first,read_only,free_first" doc:"left out: as before; read_first"`
	Check      string   `json:"check,omitempty" enum:"all,set_ones,none" doc:"left out: as before; all"`
	KindFirst  string   `json:"one_kind_first,omitempty" enum:"exhaust,intake,both" doc:"left out: as before; both"`
	CheckTurns int      `json:"check_turns,omitempty" enum:"2,4" doc:"turns of the crank before the check; left out: as before; as the sheet says"`
	Scope      []string `json:"scope,omitempty" maxItems:"80" nullable:"false" doc:"the valves of this job; left out: as before; all"`
	Locking    string   `json:"locking,omitempty" enum:"one_go,nip_then_torque" doc:"left out: as before; one_go"`
	OwnShift   *MM      `json:"own_shift_mm,omitempty" doc:"what locking does to a gap by the mechanic's own word, minus where it closes; 0: the screw is held still; left out: as before"`
	Aiming     string   `json:"aiming,omitempty" enum:"leave_in,all_to_aim" doc:"what becomes of a valve that is in and off the aim; left out: as before; leave_in"`
}

// RoundFieldsOf writes how an engine is gone round.
func RoundFieldsOf(r job.Round) RoundFields {
	return RoundFields{string(r.Going), string(r.Check), string(r.KindFirst), r.CheckTurns, r.Scope,
		string(r.Locking), (*MM)(r.OwnShift), string(r.ToAim)}
}

// core reads them; what is left out stays as it was.
func (r RoundFields) core() job.Round {
	return job.Round{Going: job.Going(r.Round), Check: job.Check(r.Check),
		KindFirst:  job.KindFirst(r.KindFirst),
		CheckTurns: r.CheckTurns, Scope: r.Scope, Locking: job.Locking(r.Locking),
		OwnShift: (*measure.Length)(r.OwnShift), ToAim: job.Aiming(r.Aiming)}
}

// roundChosen changes how the engine is gone round without another sequence.
type roundChosen struct{ RoundFields }

func (r roundChosen) act(*Faults) job.Act {
	return job.RoundChosen{Round: r.core()}
}

// noted is one pair of temperatures written down, °C; nothing is passed by it.
type noted struct {
	EngineC  Celsius `json:"engine_c"`
	AmbientC Celsius `json:"ambient_c"`
}

func (w noted) act(*Faults) job.Act {
	return job.TemperatureNoted{EngineC: float64(w.EngineC), AmbientC: float64(w.AmbientC)}
}

// prepared passes the temperature gate by a thermometer, or for a reason.
type prepared struct {
	EngineC  Celsius `json:"engine_c"`
	AmbientC Celsius `json:"ambient_c"`
	Reason   string  `json:"reason,omitempty" maxLength:"200" doc:"why the temperature gate is passed all the same"`
}

func (w prepared) act(*Faults) job.Act {
	return job.Prepared{EngineC: float64(w.EngineC), AmbientC: float64(w.AmbientC), Reason: w.Reason}
}

// judgedCold passes it without one, for cold figures.
type judgedCold struct {
	By       string   `json:"by" enum:"overnight,hours,hand"`
	Hours    float64  `json:"hours,omitempty" minimum:"0" maximum:"72" doc:"that it stood; for hours alone"`
	Helped   []string `json:"helped,omitempty" maxItems:"2" nullable:"false" doc:"fan, cover_off"`
	AmbientC *Celsius `json:"ambient_c,omitempty" doc:"left out: not known"`
	Reason   string   `json:"reason,omitempty" maxLength:"200" doc:"why the temperature gate is passed all the same"`
}

func (w judgedCold) act(*Faults) job.Act {
	return job.JudgedCold{By: job.ColdBy(w.By), Hours: w.Hours, Helped: w.Helped,
		AmbientC: (*float64)(w.AmbientC), Reason: w.Reason}
}

// judgedHot passes it without one, for hot figures.
type judgedHot struct {
	How    string  `json:"how" enum:"fan,needle,hose,other" doc:"by what the mechanic judged it"`
	RanMin float64 `json:"ran_min,omitempty" minimum:"0" maximum:"720" doc:"that it ran before it was shut off; left out: not said"`
	Note   string  `json:"note,omitempty" maxLength:"400"`
	Reason string  `json:"reason,omitempty" maxLength:"200" doc:"why the temperature gate is passed all the same"`
}

func (w judgedHot) act(*Faults) job.Act {
	return job.JudgedHot{How: job.HotBy(w.How), RanMin: w.RanMin, Note: w.Note, Reason: w.Reason}
}

// engineStopped says that the engine was shut off just now: hot figures run from here.
type engineStopped struct{}

func (engineStopped) act(*Faults) job.Act { return job.EngineStopped{} }

// reading is how one leaf or stack felt in one valve.
type reading struct {
	Valve string `json:"valve" maxLength:"8"`
	Stack
	Feel      string `json:"feel" maxLength:"16" doc:"free, drag, drag_light, drag_firm or wont_go"`
	MadeThere bool   `json:"made_there,omitempty" doc:"it was made where the crank stood at seen, and counts for that place"`
	KeepSure  bool   `json:"keep_sure,omitempty" doc:"keep the readings at once where they put the valve surely in"`
}

// act leaves a feel that is not known as it is, for the core to refuse in its own words.
func (w reading) act(f *Faults) job.Act {
	w.Stack.Faults("", f)
	feel, ok := ParseFeel(w.Feel)
	if !ok {
		feel = clearance.Feel(w.Feel) // refused by the core in its words
	}
	return job.ReadingTaken{Valve: w.Valve, Leaves: w.Core(), Feel: feel, MadeThere: w.MadeThere,
		KeepSure: w.KeepSure}
}

// dial is a gap by a dial indicator, mm.
type dial struct {
	Valve       string `json:"valve" maxLength:"8"`
	Gap         MM     `json:"gap_mm"`
	Uncertainty MM     `json:"uncertainty_mm,omitempty" doc:"either way; absent: the usual one of a dial indicator"`
	MadeThere   bool   `json:"made_there,omitempty" doc:"as that of reading"`
	KeepSure    bool   `json:"keep_sure,omitempty" doc:"as that of reading"`
}

func (w dial) act(*Faults) job.Act {
	return job.DialRead{Valve: w.Valve, Gap: measure.Length(w.Gap),
		Uncertainty: measure.Length(w.Uncertainty),
		MadeThere:   w.MadeThere, KeepSure: w.KeepSure}
}

// withdrawn takes back one of a valve's readings that are not kept yet.
type withdrawn struct {
	Valve string `json:"valve" maxLength:"8"`
	Index int    `json:"index" doc:"of the reading in the valve's round, from 0"`
}

func (w withdrawn) act(*Faults) job.Act { return job.Withdrawn{Valve: w.Valve, Index: w.Index} }

// sized is which shim is under a valve.
type sized struct {
	Valve string `json:"valve" maxLength:"8"`
	Shim  MM     `json:"shim_mm" doc:"that is reckoned with: by micrometer, else as stamped"`
	Stamp MM     `json:"stamped_mm,omitempty" doc:"what stands on it, where a micrometer says another"`
}

func (w sized) act(*Faults) job.Act {
	return job.Sized{Valve: w.Valve, Shim: measure.Length(w.Shim), Stamped: measure.Length(w.Stamp)}
}

// shimsChosen is what the choice of shims is after, for every screen of the job.
type shimsChosen struct {
	Prefer  string `json:"prefer,omitempty" enum:"fewest_bought,nearest_aim" doc:"what the choice of shims is after first; left out: fewest_bought"`
	CamsOut bool   `json:"cams_out,omitempty" doc:"the camshafts are out: every shim can be reached"`
}

func (w shimsChosen) act(*Faults) job.Act {
	return job.ShimsChosen{Prefer: adjust.Prefer(w.Prefer), CamsOut: w.CamsOut}
}

// kept lets a valve's readings stand.
type kept struct {
	Valve string `json:"valve" maxLength:"8"`
}

func (w kept) act(*Faults) job.Act { return job.Kept{Valve: w.Valve} }

// play is how much play a rocker has by hand.
type play struct {
	Valve string `json:"valve"`
	Play  string `json:"play" enum:",none,some,much" doc:"empty: it was not felt after all"`
}

func (w play) act(*Faults) job.Act { return job.PlayFelt{Valve: w.Valve, Play: job.Play(w.Play)} }

// freed says that a valve's adjuster was slackened and is free.
type freed struct {
	Valve string `json:"valve" maxLength:"8"`
}

func (w freed) act(*Faults) job.Act { return job.Freed{Valve: w.Valve} }

// adjusted says that a valve was set: by a leaf or stack, or by a shim.
type adjusted struct {
	Valve string `json:"valve" maxLength:"8"`
	Stack
	Shim    MM     `json:"shim_mm,omitempty" doc:"that went in"`
	From    string `json:"from,omitempty" maxLength:"8" doc:"the valve that the shim came from"`
	CamsOut bool   `json:"cams_out,omitempty" doc:"the camshafts are out, so that every shim can be reached"`
	StandIn bool   `json:"stand_in,omitempty" doc:"the shim only stands in until the valve's own comes"`
	Reason  string `json:"reason,omitempty" maxLength:"200" doc:"why a valve that is in is set all the same"`
}

// act refuses nothing of its own but leaves that are none.
func (w adjusted) act(f *Faults) job.Act {
	w.Stack.Faults("", f)
	return job.Adjusted{Valve: w.Valve, Leaves: w.Core(), Shim: measure.Length(w.Shim), From: w.From,
		CamsOut: w.CamsOut, StandIn: w.StandIn, Reason: w.Reason}
}

// nipped says that a lock nut was tightened lightly, its torque to follow.
type nipped struct {
	Valve string `json:"valve" maxLength:"8"`
}

func (w nipped) act(*Faults) job.Act { return job.Nipped{Valve: w.Valve} }

// locked says that it is tight, and by what it was felt to be.
type locked struct {
	Valve string `json:"valve" maxLength:"8"`
	By    string `json:"by,omitempty" enum:"torque,feel" doc:"left out: not said"`
}

func (w locked) act(*Faults) job.Act { return job.Locked{Valve: w.Valve, By: job.LockedBy(w.By)} }

// setTold says in one that a valve was set, locked and read again.
type setTold struct {
	Valve string `json:"valve" maxLength:"8"`
	Stack
	By    string `json:"by,omitempty" enum:"torque,feel" doc:"left out: not said; torque where the round locks in two goes"`
	Asked bool   `json:"asked,omitempty" doc:"it was asked back whether all three were done; wanted within five seconds of the verdict"`
}

func (w setTold) act(f *Faults) job.Act {
	w.Stack.Faults("", f)
	return job.SetTold{Valve: w.Valve, Leaves: w.Core(), By: job.LockedBy(w.By), Asked: w.Asked}
}

// leftAsIs leaves a valve with a reason, or puts it off.
type leftAsIs struct {
	Valve    string    `json:"valve" maxLength:"8"`
	Reason   string    `json:"reason,omitempty" maxLength:"200" doc:"why it is left; refused without one, unless it is put off"`
	Deferred *Deferral `json:"deferred,omitempty" doc:"what setting it is put off for; left out: it is not"`
}

func (w leftAsIs) act(*Faults) job.Act {
	return job.LeftAsIs{Valve: w.Valve, Reason: w.Reason, Deferred: w.Deferred.core()}
}

// undone takes back the last happening that stands; it names it, so that a second tap takes back nothing
// more.
type undone struct {
	Target string `json:"target" maxLength:"64" doc:"the id of the happening taken back: the last one standing"`
}

func (w undone) act(*Faults) job.Act { return job.Undone{Target: w.Target} }

// signed closes the job. The last three fields are written by the program, whatever a client sends.
type signed struct {
	By         string    `json:"by,omitempty" maxLength:"100" doc:"who signs; refused without a name"`
	ToolsOut   bool      `json:"tools_out,omitempty" doc:"all tools and leaves are accounted for, and the socket is off the crank; refused otherwise"`
	Deferred   *Deferral `json:"deferred,omitempty" doc:"what the job was put off for; left out: it was not"`
	Exceptions string    `json:"exceptions,omitempty" maxLength:"200" doc:"why it is signed though steps around the bench were not done"`
	Vehicle    string    `json:"vehicle,omitempty" maxLength:"100" doc:"written by the program: what the vehicle was called"`
	Plate      string    `json:"plate,omitempty" maxLength:"100" doc:"written by the program: its plate"`
	Facts      string    `json:"facts,omitempty" maxLength:"64" doc:"written by the program: a checksum of what the job was started from"`
}

// Deferral is what a job was put off for, and until when.
type Deferral struct {
	WaitsFor string `json:"waits_for" enum:"date,odometer,parts,cams"`
	Until    string `json:"until,omitempty" maxLength:"120"`
}

// deferralOf is what something was put off for; nil where it was not.
func deferralOf(d job.Deferral) *Deferral {
	if d == (job.Deferral{}) {
		return nil
	}
	return &Deferral{string(d.Waits), d.Until}
}

// core is the way back.
func (d *Deferral) core() job.Deferral {
	if d == nil {
		return job.Deferral{}
	}
	return job.Deferral{Waits: job.WaitsFor(d.WaitsFor), Until: d.Until}
}

func (w signed) act(*Faults) job.Act {
	return job.Signed{By: w.By, ToolsOut: w.ToolsOut, Exceptions: w.Exceptions, Deferred: w.Deferred.core(),
		Seal: job.Seal{Vehicle: w.Vehicle, Plate: w.Plate, Facts: w.Facts}}
}

// wentHot begins the hot pass of a job that was signed cold.
type wentHot struct{}

func (wentHot) act(*Faults) job.Act { return job.WentHot{} }
