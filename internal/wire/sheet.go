package wire

// SheetFormat is the format name and version that an engine sheet carries.
const SheetFormat = "metronix.engine/1"

// Sheet is the engine sheet on the wire, the open format metronix.engine/1. Its tags are the published schema
// (EngineSchema) and the one in the OpenAPI document; what is read is held against engine.Check, which knows
// more and says it in a mechanic's words.
type Sheet struct {
	Format         string          `json:"format" core:"-" enum:"metronix.engine/1"`
	Name           string          `json:"name" minLength:"1" maxLength:"120"`
	Cylinders      int             `json:"cylinders" minimum:"1" maximum:"16"`
	FiringOrder    []int           `json:"firing_order" minItems:"1" maxItems:"16" uniqueItems:"true" nullable:"false"`
	FiringAngles   []Deg           `json:"firing_angles_deg,omitempty" minItems:"1" maxItems:"16" nullable:"false"`
	Rotation       string          `json:"rotation" enum:"clockwise,anticlockwise"`
	MayTurnBack    bool            `json:"may_turn_back"`
	Layout         string          `json:"layout" enum:"inline,vee,flat,other"`
	Banks          []Bank          `json:"banks" minItems:"1" nullable:"false"`
	Timing         *Timing         `json:"valve_timing,omitempty"`
	RequiredMargin *Deg            `json:"required_margin_deg,omitempty" minimum:"0" maximum:"300"`
	Marks          []Deg           `json:"marks_deg,omitempty" minItems:"1" uniqueItems:"true" nullable:"false"`
	Adjuster       *Adjuster       `json:"adjuster,omitempty"`
	TurningPoint   *TurningPoint   `json:"turning_point,omitempty"`
	Clearances     []ClearanceCard `json:"clearances,omitempty" nullable:"false"`
	OwnSequence    []OwnStop       `json:"own_sequence,omitempty" nullable:"false"`
	CheckTurns     int             `json:"check_turns,omitempty" enum:"2,4"`
	Signs          []Sign          `json:"signs,omitempty" maxItems:"24" nullable:"false"`
	StripList      []StripStep     `json:"strip_list,omitempty" maxItems:"60" nullable:"false"`
	Closing        *Closing        `json:"closing,omitempty"`
	VariableLift   string          `json:"variable_lift,omitempty" maxLength:"200"`
	Torques        []SourcedTorque `json:"torques,omitempty" maxItems:"20" nullable:"false"`
	Variants       []Variant       `json:"variants,omitempty" maxItems:"12" nullable:"false"`
	Variant        string          `json:"variant,omitempty" maxLength:"120"`
	KindsToConfirm bool            `json:"kinds_to_confirm,omitempty"`
}

// Bank is one head of a sheet.
type Bank struct {
	Name        string `json:"name"`
	Angle       Deg    `json:"angle_deg,omitempty" minimum:"-180" maximum:"180"`
	Cylinders   []int  `json:"cylinders" minItems:"1" uniqueItems:"true" nullable:"false"`
	IntakePorts string `json:"intake_ports,omitempty" enum:"left,right"`
	Rows        []Row  `json:"rows" minItems:"1" maxItems:"2" nullable:"false"`
}

// Row is one line of valves.
type Row struct {
	Side   string `json:"side" enum:"left,right"`
	Valves string `json:"valves" pattern:"^[IE]+$"`
}

// Timing is the cam card.
type Timing struct {
	IVO           Deg     `json:"ivo_btdc_deg" minimum:"-60" maximum:"150"`
	IVC           Deg     `json:"ivc_abdc_deg" minimum:"-60" maximum:"150"`
	EVO           Deg     `json:"evo_bbdc_deg" minimum:"-60" maximum:"150"`
	EVC           Deg     `json:"evc_atdc_deg" minimum:"-60" maximum:"150"`
	IntakeCentre  *Deg    `json:"intake_centre_atdc_deg,omitempty"`
	ExhaustCentre *Deg    `json:"exhaust_centre_btdc_deg,omitempty"`
	AtLift        float64 `json:"at_lift_mm,omitempty" core:"AtLiftMM" minimum:"0" maximum:"5"`
}

// Adjuster is how the gap is changed.
type Adjuster struct {
	Kind         string  `json:"kind"`
	Pitch        MM      `json:"pitch_mm,omitempty" minimum:"0" maximum:"5"`
	Ratio        float64 `json:"ratio,omitempty" minimum:"0" maximum:"5"`
	Eccentricity MM      `json:"eccentricity_mm,omitempty" minimum:"0" maximum:"10"`
	Locknut      float64 `json:"locknut_torque_nm,omitempty" core:"Locknut.Nm" minimum:"0" maximum:"500"`
	LocknutLbfFt float64 `json:"locknut_torque_lbf_ft,omitempty" core:"Locknut.LbfFt" minimum:"0" maximum:"368"`
	Thread       string  `json:"thread,omitempty" enum:"right,left"`
	Closes       string  `json:"closes,omitempty" enum:"in,out"`
}

// TurningPoint is where the crank is turned.
type TurningPoint struct {
	Where  string  `json:"where" maxLength:"120"`
	Socket float64 `json:"socket_mm,omitempty" core:"SocketMM" minimum:"0" maximum:"100"`
}

// ClearanceCard is a clearance card.
type ClearanceCard struct {
	Source     string    `json:"source" minLength:"1"`
	State      string    `json:"state" enum:"cold,hot"`
	Date       string    `json:"date,omitempty" maxLength:"120"`
	Remark     string    `json:"remark,omitempty" maxLength:"400"`
	StoneCold  bool      `json:"stone_cold,omitempty"`
	MaxEngineC *float64  `json:"max_engine_c,omitempty" minimum:"-40" maximum:"200"`
	Distrusted string    `json:"distrusted,omitempty" maxLength:"200"`
	Intake     Clearance `json:"intake"`
	Exhaust    Clearance `json:"exhaust"`
}

// Clearance is a stated clearance: nominal, nominal with tolerance, or lower and upper; in millimetres, in
// inches, or in both.
type Clearance struct {
	Nominal     *MM `json:"nominal_mm,omitempty" core:"Nominal.Metric"`
	Tolerance   *MM `json:"tolerance_mm,omitempty" core:"Tolerance.Metric"`
	Lower       *MM `json:"lower_mm,omitempty" core:"Lower.Metric"`
	Upper       *MM `json:"upper_mm,omitempty" core:"Upper.Metric"`
	NominalIn   *IN `json:"nominal_in,omitempty" core:"Nominal.Imperial"`
	ToleranceIn *IN `json:"tolerance_in,omitempty" core:"Tolerance.Imperial"`
	LowerIn     *IN `json:"lower_in,omitempty" core:"Lower.Imperial"`
	UpperIn     *IN `json:"upper_in,omitempty" core:"Upper.Imperial"`
}

// OwnStop is a stop of the maker's printed order.
type OwnStop struct {
	Crank Deg      `json:"crank_deg"`
	Set   []string `json:"set" nullable:"false"`
}

// Sign is something by which the crank's place can be told.
type Sign struct {
	ID       string `json:"id" minLength:"1" maxLength:"40"`
	Where    string `json:"where" minLength:"1" maxLength:"120"`
	Text     string `json:"text" minLength:"1" maxLength:"120"`
	At       []Deg  `json:"at_deg" minItems:"1" uniqueItems:"true" nullable:"false"`
	Period   Deg    `json:"period_deg" enum:"360,720"`
	Doubtful string `json:"doubtful,omitempty" maxLength:"200"`
	CheckBy  string `json:"check_by,omitempty" maxLength:"200"`
}

// StripStep is one thing to take off.
type StripStep struct {
	Text     string  `json:"text" minLength:"1" maxLength:"120"`
	Fastener string  `json:"fastener,omitempty" maxLength:"120"`
	Socket   float64 `json:"socket_mm,omitempty" core:"SocketMM" minimum:"0" maximum:"100"`
	Note     string  `json:"note,omitempty" maxLength:"400"`
}

// Closing is how an engine is closed.
type Closing struct {
	Pattern       string   `json:"pattern,omitempty" enum:"middle_out,crosswise,numbered"`
	Rounds        int      `json:"rounds,omitempty" minimum:"0" maximum:"6"`
	Torque        float64  `json:"torque_nm,omitempty" core:"Torque.Nm" minimum:"0" maximum:"500"`
	TorqueLbfFt   float64  `json:"torque_lbf_ft,omitempty" core:"Torque.LbfFt" minimum:"0" maximum:"368"`
	SealantPoints []string `json:"sealant_points,omitempty" nullable:"false"`
	OpenMinutes   float64  `json:"open_minutes,omitempty" minimum:"0" maximum:"10080"`
	CureMinutes   float64  `json:"cure_minutes,omitempty" minimum:"0" maximum:"10080"`
	Gasket        string   `json:"gasket,omitempty" enum:"dry,stuck_first"`
	Bolts         int      `json:"bolts,omitempty" minimum:"0" maximum:"60"`
}

// SourcedTorque is a torque as one source states it, beside the sheet's own figures.
type SourcedTorque struct {
	Of         string  `json:"of" enum:"locknut,cover"`
	Torque     float64 `json:"torque_nm,omitempty" core:"Torque.Nm" minimum:"0" maximum:"500"`
	LbfFt      float64 `json:"torque_lbf_ft,omitempty" core:"Torque.LbfFt" minimum:"0" maximum:"368"`
	Source     string  `json:"source" minLength:"1" maxLength:"120"`
	Distrusted string  `json:"distrusted,omitempty" maxLength:"200"`
}

// Variant is how the same engine was also built.
type Variant struct {
	Name         string        `json:"name" minLength:"1" maxLength:"120"`
	Note         string        `json:"note,omitempty" maxLength:"400"`
	Adjuster     *Adjuster     `json:"adjuster,omitempty"`
	TurningPoint *TurningPoint `json:"turning_point,omitempty"`
}
