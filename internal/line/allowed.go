package line

import (
	"fmt"
	"net"
	"net/netip"
	"slices"
	"strconv"
)

// Allowed is where a device may stand besides this machine: the networks that whoever starts the program
// names. The zero value allows this machine alone, so that nobody who may write can have the program knock at
// other doors.
type Allowed []netip.Prefix

// Check says what is wrong with the address of a device; empty where nothing is, or where there is none. A
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
		return "Give its numeric address, such as 127.0.0.1:7070."
	}
	ip = ip.Unmap()
	if ip.IsLoopback() || (!ip.IsLinkLocalUnicast() &&
		slices.ContainsFunc(a, func(n netip.Prefix) bool { return n.Contains(ip) })) {
		return ""
	}
	return "Probes and instruments stand on this machine, or in a network that the program was started with: " +
		"--probe-net 192.0.2.0/24."
}
