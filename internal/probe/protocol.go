package probe

import (
	"errors"
	"fmt"
	"net"
	"net/netip"
	"regexp"
	"slices"
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

// Allowed is where a probe may stand besides this machine: the networks that whoever starts the program
// names. The zero value allows this machine alone, so that nobody who may write can have the program knock at
// other doors.
type Allowed []netip.Prefix

// Check says what is wrong with the address of a probe; empty where nothing is, or where there is none. A
// link-local address is never taken.
func (a Allowed) Check(address string) string {
	if address == "" {
		return ""
	}
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
	ip, err := netip.ParseAddr(host)
	if err != nil || ip.Zone() != "" {
		return "Give the probe's numeric address, such as 127.0.0.1:7070."
	}
	ip = ip.Unmap()
	if ip.IsLoopback() || (!ip.IsLinkLocalUnicast() &&
		slices.ContainsFunc(a, func(n netip.Prefix) bool { return n.Contains(ip) })) {
		return ""
	}
	return "A probe stands on this machine, or in a network that the program was started with: --probe-net " +
		"192.0.2.0/24."
}

// decimalC is a temperature as a probe sends it: no exponent, no hexadecimal figures.
var decimalC = regexp.MustCompile(`^-?\d{1,4}(\.\d{1,6})?$`)
