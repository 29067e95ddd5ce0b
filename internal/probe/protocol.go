package probe

import (
	"errors"
	"fmt"
	"regexp"
	"strconv"
	"strings"
	"time"

	"metronix/core/thermal"
	"metronix/internal/line"
)

// Greeting is the first line that a probe sends.
const Greeting = "METRONIX-PROBE 1"

// silence is how long a probe may say nothing before it counts as lost.
const silence = 10 * time.Second

// Reader listens to one probe.
type Reader = line.Reader[Reading]

// NewReader is a reader that listens to none yet.
func NewReader() *Reader {
	return &Reader{Protocol: line.Protocol[Reading]{What: "probe", Greeting: Greeting, Silence: silence,
		Take: func(r *Reading, said string, _ time.Time) (err error) {
			was := *r
			if *r, err = parse(said); err != nil {
				*r = was
			}
			return err
		}}}
}

// Reading is what one line tells, °C.
type Reading struct{ EngineC, AmbientC float64 }

// String is the line of a reading, without its end.
func (r Reading) String() string {
	return fmt.Sprintf("T %s %s", strconv.FormatFloat(r.EngineC, 'f', 1, 64),
		strconv.FormatFloat(r.AmbientC, 'f', 1, 64))
}

// parse reads a line after the greeting: "T engine ambient", or "E text" for a fault of the sensor.
func parse(line string) (Reading, error) {
	fields := strings.Fields(line)
	if len(fields) > 0 && fields[0] == "E" {
		return Reading{}, errors.New("the probe says that it has no reading")
	}
	if len(fields) != 3 || fields[0] != "T" {
		return Reading{}, errors.New("the probe sent something that is no reading")
	}
	var c [2]float64
	for i, text := range fields[1:] {
		value, err := strconv.ParseFloat(text, 64)
		if err != nil || !decimalC.MatchString(text) || !thermal.Possible(value) {
			return Reading{}, errors.New("the probe sent something that is no temperature")
		}
		c[i] = value
	}
	return Reading{c[0], c[1]}, nil
}

// decimalC is a temperature as a probe sends it: no exponent, no hexadecimal figures.
var decimalC = regexp.MustCompile(`^-?\d{1,4}(\.\d{1,6})?$`)
