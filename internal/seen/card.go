package seen

// Card is a clearance card in short.
type Card struct {
	Source      string           `json:"source"`
	State       string           `json:"state" enum:"cold,hot"`
	Date        string           `json:"date"`
	Remark      string           `json:"remark"`
	StoneCold   bool             `json:"stone_cold"`
	Holds       string           `json:"holds" doc:"at which engine temperature the figures hold, in words"`
	Intake      Limits           `json:"intake"`
	Exhaust     Limits           `json:"exhaust"`
	Distrusted  string           `json:"distrusted" doc:"why these figures are not to be used; empty: they may be"`
	Differences []CardDifference `json:"differences" doc:"from the engine's first card"`
}

// CardDifference is what a card says differently.
type CardDifference struct {
	What  string `json:"what"`
	First string `json:"first"`
	Here  string `json:"here"`
}
