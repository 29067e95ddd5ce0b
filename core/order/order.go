package order

import (
	"errors"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// Proof is an order held against an engine.
type Proof struct {
	Stops    []Stop
	Forgot   []string // valves that no stop sets
	Twice    []string // valves that more than one stop sets
	Turn     measure.Angle
	Required measure.Angle
}

// Stop is one line of an order: where the crank is said to stand, and what is said to be set there.
type Stop struct {
	Line   int // of the text, from 1
	Place  sequence.Sighting
	Crank  measure.Angle
	Turn   measure.Angle // from the stop before, in the direction of turning; of the first 0
	Valves []Valve
}

// Valve is one valve of a stop: how far it stands from its nearest opening or closing there.
type Valve struct {
	Valve  string
	Margin measure.Angle // negative: it is open there
	Short  measure.Angle // by how much it falls short of what is required; 0: it is clear enough
}

// Right says that every valve is set once, where it is clear enough.
func (p Proof) Right() bool {
	return len(p.Stops) > 0 && len(p.Forgot) == 0 && len(p.Twice) == 0 &&
		!slices.ContainsFunc(p.Stops, func(s Stop) bool {
			return slices.ContainsFunc(s.Valves, func(v Valve) bool { return v.Short > 0 })
		})
}

// Says is what is wrong with a valve at its stop; empty: nothing.
func (v Valve) Says() string {
	switch {
	case v.Short == 0:
		return ""
	case v.Margin < 0:
		return fmt.Sprintf("is open there, %s inside its lift", -v.Margin)
	}
	return fmt.Sprintf("stands only %s from opening or closing: %s short", v.Margin, v.Short)
}

// Slip is a slip in an order as it was typed: the line, and what is wrong with it.
type Slip struct {
	Line int // from 1
	Says string
}

// Most bounds an order that is proved, letters.
const Most = 4_000

// ways to write where the crank stands
var (
	rocksWord = regexp.MustCompile(
		`^(?:(?:cylinder|cyl\.?) *)?(\d+) +(?:rocks|rocking|is rocking|overlap|in overlap)$|^rocking +(\d+)$`,
	)
	tdcWord = regexp.MustCompile(
		`^(?:(?:cylinder|cyl\.?) *)?(\d+) +(?:at +)?(?:firing +)?tdc$|^(?:firing +)?tdc(?: +of)? +(\d+)$`,
	)
	downWord  = regexp.MustCompile(`^(?:valve +)?([a-z0-9]+) +(?:is +)?(?:fully +)?(?:down|pressed|open)$`)
	eventWord = regexp.MustCompile(
		`^(?:valve +)?([a-z0-9]+) +(?:just +)?(opens|opening|starts to open|closes|closing|nearly closed)$`,
	)
	degreesWord = regexp.MustCompile(`^(\d+(?:\.\d+)?) *(?:°|deg|degrees)$`)
	parted      = regexp.MustCompile(`:|→|->|=>|=`)
	listed      = regexp.MustCompile(`[\s,;+&]+|\band\b`)
)

// Prove reads an order as it is written, a line a stop, "4 rocks: I1 E1" or "E1 down: I3, E4", and holds
// each valve against the sheet. The faults name lines that cannot be read; with any, nothing is proved. A nil
// margin is the sheet's.
//
// Where the crank stands is written as what is seen: a cylinder that rocks, one at firing TDC, a valve fully
// down, one that opens or closes, or degrees after firing TDC of the first cylinder. What is set is written
// as valves, or as a cylinder's number for all its valves; after a valve that is down, numbers are those of
// the row, as the rule of nine counts them.
//
// On a four with firing order 1-3-4-2 "4 rocks: 1 / 2 rocks: 3 / 1 rocks: 4 / 3 rocks: 2" is right, and sets
// each valve 128° or more from its lobe (common practice).
func Prove(s *engine.Sheet, text string, d sequence.Direction, requiredMargin *measure.Angle) (p Proof,
	faults []Slip) {
	c := cycle.New(s)
	p.Required = s.EffectiveMargin()
	if requiredMargin != nil {
		p.Required = *requiredMargin
	}
	if len(text) > Most {
		return p, []Slip{{1, fmt.Sprintf("That is %d letters: at most %d are read.", len(text), Most)}}
	}
	set := map[string]int{}
	for n, line := range strings.Split(strings.ReplaceAll(text, "/", "\n"), "\n") {
		line = strings.ToLower(strings.TrimSpace(line))
		if line == "" {
			continue
		}
		stop, err := readStop(c, line)
		if err != nil {
			faults = append(faults, Slip{n + 1, err.Error()})
			continue
		}
		stop.Line = n + 1
		if k := len(p.Stops); k > 0 {
			stop.Turn = sequence.TurnBetween(p.Stops[k-1].Crank, stop.Crank, d)
			p.Turn += stop.Turn
		}
		for i := range stop.Valves {
			v, _ := c.Valve(stop.Valves[i].Valve)
			stop.Valves[i].Margin = c.Margin(v, stop.Crank)
			stop.Valves[i].Short = max(0, p.Required-stop.Valves[i].Margin)
			set[v.Name]++
		}
		p.Stops = append(p.Stops, stop)
	}
	for _, v := range c.Valves {
		switch {
		case set[v.Name] == 0:
			p.Forgot = append(p.Forgot, v.Name)
		case set[v.Name] > 1:
			p.Twice = append(p.Twice, v.Name)
		}
	}
	if len(faults) > 0 {
		return Proof{Required: p.Required}, faults
	}
	return p, nil
}

// readStop reads one line.
func readStop(c *cycle.Cycle, line string) (s Stop, err error) {
	parts := parted.Split(line, 2)
	if len(parts) < 2 {
		return s, fmt.Errorf("%q does not say what is set: write it as “4 rocks: I1 E1”", line)
	}
	if s.Place, s.Crank, err = readPlace(c, strings.TrimSpace(parts[0])); err != nil {
		return s, err
	}
	for _, word := range listed.Split(strings.TrimSpace(parts[1]), -1) {
		if word == "" {
			continue
		}
		names, err := readValves(c, word, s.Place.What == sequence.FullLift)
		if err != nil {
			return s, err
		}
		for _, name := range names {
			if slices.ContainsFunc(s.Valves, func(v Valve) bool { return v.Valve == name }) {
				return s, fmt.Errorf("%s is named twice in one line", name)
			}
			s.Valves = append(s.Valves, Valve{Valve: name})
		}
	}
	if len(s.Valves) == 0 {
		return s, fmt.Errorf("%q names no valve after it", strings.TrimSpace(parts[0]))
	}
	return s, nil
}

// readPlace reads where the crank stands.
func readPlace(c *cycle.Cycle, text string) (w sequence.Sighting, crank measure.Angle, err error) {
	number := func(m []string) int {
		n, _ := strconv.Atoi(strings.Join(m[1:], ""))
		return n
	}
	if m := rocksWord.FindStringSubmatch(text); m != nil {
		w = sequence.Sighting{What: sequence.Rocking, Cylinder: number(m)}
	} else if m := tdcWord.FindStringSubmatch(text); m != nil {
		w = sequence.Sighting{What: sequence.TDCFiring, Cylinder: number(m)}
	} else if m := degreesWord.FindStringSubmatch(text); m != nil {
		deg, _ := strconv.ParseFloat(m[1], 64)
		if deg >= 720 {
			return w, 0, fmt.Errorf("%s is beyond two turns: a place lies from 0 to below 720°", text)
		}
		at := measure.FromDegrees(deg)
		return sequence.Sighting{What: sequence.Degrees, Mark: at}, at, nil
	} else if m := eventWord.FindStringSubmatch(text); m != nil {
		w.What = sequence.Opening
		if strings.Contains(m[2], "clos") {
			w.What = sequence.Closing
		}
		w.Valve, err = oneValve(c, m[1])
	} else if m := downWord.FindStringSubmatch(text); m != nil {
		w.What = sequence.FullLift
		w.Valve, err = oneValve(c, m[1])
	} else {
		return w, 0, fmt.Errorf("%q is no place of the crank that is known here: write “4 rocks”, “1 TDC”, “E1 down”, "+
			"“E1 opens” or “180°”", text)
	}
	if err != nil {
		return w, 0, err
	}
	if _, err := sequence.Locate(c.Sheet, []sequence.Sighting{w}, nil); err != nil {
		return w, 0, errors.New(strings.TrimSuffix(err.Error(), "."))
	}
	v, _ := c.Valve(w.Valve)
	switch w.What {
	case sequence.Rocking:
		crank = c.CrankAt(w.Cylinder, cycle.OverlapTDC)
	case sequence.TDCFiring:
		crank = c.CrankAt(w.Cylinder, cycle.FiringTDC)
	case sequence.FullLift:
		crank = c.PeakAt(v)
	case sequence.Opening:
		crank = c.OpensAt(v)
	case sequence.Closing:
		crank = c.ShutsAt(v)
	}
	return w, crank, nil
}

// oneValve is a valve by its name or its number in the row.
func oneValve(c *cycle.Cycle, word string) (string, error) {
	names, err := readValves(c, word, true)
	if err == nil && len(names) != 1 {
		err = fmt.Errorf("%q is more than one valve", word)
	}
	if err != nil {
		return "", err
	}
	return names[0], nil
}

// readValves are the valves of a word: one by its name, one by its number in the row where rows are counted,
// else all of a cylinder.
func readValves(c *cycle.Cycle, word string, counted bool) (names []string, err error) {
	n, numberErr := strconv.Atoi(word)
	for _, v := range c.Valves {
		switch {
		case numberErr != nil && strings.EqualFold(v.Name, word),
			numberErr == nil && counted && v.RowNumber == n,
			numberErr == nil && !counted && v.Cylinder == n:
			names = append(names, v.Name)
		}
	}
	switch {
	case len(names) > 0:
		return names, nil
	case numberErr == nil && counted:
		return nil, fmt.Errorf("there is no valve %d in the row of this engine", n)
	case numberErr == nil:
		return nil, fmt.Errorf("this engine has no cylinder %d", n)
	}
	return nil, fmt.Errorf("this engine has no valve %q: its valves are %s", strings.ToUpper(word),
		strings.Join(engineNames(c), " "))
}

func engineNames(c *cycle.Cycle) (names []string) {
	for _, v := range c.Valves {
		names = append(names, v.Name)
	}
	return names
}
