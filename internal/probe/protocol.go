// Package probe speaks the line protocol of docs/probe.md: an outside device tells the engine's temperature and that of its
// surroundings over TCP. Reader listens to one; Simulate is one.
package probe

import (
	"fmt"
	"net"
	"strconv"
	"strings"

	"metronix/core/thermal"
)

// Greeting is the first line that a probe sends.
const Greeting = "METRONIX-PROBE 1"

// maxLine bounds a line, so that a stray program on the port cannot fill the memory.
const maxLine = 200

// Reading is what one line tells, °C.
type Reading struct{ EngineC, AmbientC float64 }

// String is the line of a reading, without its end.
func (r Reading) String() string {
	return fmt.Sprintf("T %s %s", strconv.FormatFloat(r.EngineC, 'f', 1, 64), strconv.FormatFloat(r.AmbientC, 'f', 1, 64))
}

// parse reads a line after the greeting: "T engine ambient", or "E text" for a fault of the sensor.
func parse(line string) (Reading, error) {
	fields := strings.Fields(line)
	if len(fields) > 0 && fields[0] == "E" {
		return Reading{}, fmt.Errorf("the probe says: %s", strings.Join(fields[1:], " "))
	}
	if len(fields) != 3 || fields[0] != "T" {
		return Reading{}, fmt.Errorf("the probe sent %q, which is no reading", line)
	}
	var c [2]float64
	for i, text := range fields[1:] {
		value, err := strconv.ParseFloat(text, 64)
		if err != nil || !thermal.Possible(value) {
			return Reading{}, fmt.Errorf("the probe sent %q, which is no temperature", text)
		}
		c[i] = value
	}
	return Reading{c[0], c[1]}, nil
}

// CheckAddress says what is wrong with the address of a probe; empty where nothing is. A probe stands in the workshop: on this
// machine or on its own network.
func CheckAddress(address string) string {
	host, port, err := net.SplitHostPort(address)
	if err != nil {
		return "An address is a host and a port, such as 127.0.0.1:7070."
	}
	if n, err := strconv.Atoi(port); err != nil || n < 1 || n > 65535 {
		return fmt.Sprintf("%q is no port: 1 to 65535.", port)
	}
	if host == "localhost" {
		return ""
	}
	if ip := net.ParseIP(host); ip == nil || !(ip.IsLoopback() || ip.IsPrivate() || ip.IsLinkLocalUnicast()) {
		return "A probe stands on this machine or on the workshop's own network: give its numeric address."
	}
	return ""
}
