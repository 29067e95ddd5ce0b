package wire

import (
	"encoding/json"
	"fmt"

	"metronix/core/clearance"
)

// CoreCards are clearance cards as the core knows them, not checked yet; nil where there are none.
func CoreCards(list []ClearanceCard) []clearance.Card { return coreOf[[]clearance.Card](list) }

// CardsOf is the other way; nil where there are none.
func CardsOf(list []clearance.Card) []ClearanceCard { return wireOf[[]ClearanceCard](list) }

// WriteCards keeps the cards of one vehicle; none are an empty text.
func WriteCards(list []clearance.Card) (string, error) {
	if len(list) == 0 {
		return "", nil
	}
	data, err := json.Marshal(CardsOf(list))
	return string(data), err
}

// ReadCards reads what WriteCards kept; it errs where that is no list of cards, or one of them does not
// resolve.
func ReadCards(text string) ([]clearance.Card, error) {
	if text == "" {
		return nil, nil
	}
	n, err := Parse([]byte(text))
	if err != nil {
		return nil, err
	}
	list, faults := Decode[[]ClearanceCard](n)
	if len(faults) > 0 {
		return nil, fmt.Errorf("%s: %s", faults[0].Location, faults[0].Message)
	}
	cards := CoreCards(list)
	for i, c := range cards {
		for _, kind := range []clearance.Clearance{c.Intake, c.Exhaust} {
			if _, faults := kind.Limits(); len(faults) > 0 {
				return nil, fmt.Errorf("card %d: %s", i+1, faults[0].Message)
			}
		}
	}
	return cards, nil
}
