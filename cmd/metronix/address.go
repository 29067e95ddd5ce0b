package main

import (
	"fmt"
	"net"
	"os"
	"regexp"
	"slices"
	"strings"
)

var nameParts = regexp.MustCompile(
	`^[a-z0-9]([a-z0-9-]{0,62}[a-z0-9])?(\.[a-z0-9]([a-z0-9-]{0,62}[a-z0-9])?)*$`)

// hostName is a name or numeric address under which others call the program, as a browser sends it: without
// port or scheme.
func hostName(text string) (string, error) {
	host := strings.ToLower(strings.Trim(text, "[]"))
	if net.ParseIP(host) != nil || (len(host) <= 253 && nameParts.MatchString(host)) {
		return host, nil
	}
	return "", fmt.Errorf("%q is no host name: give it without port and scheme, such as workshop.example "+
		"or 192.0.2.10", text)
}

// reachable lists the names under which a listener is reached, and says whether others than this machine
// reach it. Where it listens on every address, those are this machine's.
func reachable(at net.Addr, asked string) (names []string, open bool) {
	tcp, ok := at.(*net.TCPAddr)
	if !ok {
		return nil, false
	}
	if !tcp.IP.IsUnspecified() {
		if host, _, err := net.SplitHostPort(asked); err == nil && host != "" {
			names = append(names, strings.ToLower(host))
		}
		return append(names, tcp.IP.String()), !tcp.IP.IsLoopback()
	}
	list, err := net.InterfaceAddrs()
	if err != nil {
		return []string{"127.0.0.1"}, true
	}
	for _, a := range list {
		if n, ok := a.(*net.IPNet); ok && !n.IP.IsLinkLocalUnicast() {
			names = append(names, n.IP.String())
		}
	}
	return names, true
}

// called gives the names by which this machine is called as it stands: its addresses change, and so does its
// own name in the network. The certificate is for all of them, and no other is answered.
func (w wishes) called(at net.Addr) func() []string {
	return func() []string {
		now, _ := reachable(at, w.listen)
		list := slices.Concat(now, w.hosts, []string{"localhost", "127.0.0.1", "::1"})
		if host, err := os.Hostname(); err == nil {
			list = append(list, strings.ToLower(strings.TrimSuffix(host, ".local"))+".local")
		}
		return list
	}
}

// addresses writes where the program is reached by a scheme, one for each numeric address.
func addresses(scheme string, names []string, at net.Addr) []string {
	_, port, _ := net.SplitHostPort(at.String())
	var list []string
	for _, name := range names {
		if net.ParseIP(name) != nil {
			address := scheme + "://" + net.JoinHostPort(name, port)
			if len(list) == 0 || list[len(list)-1] != address {
				list = append(list, address)
			}
		}
	}
	if len(list) == 0 {
		list = append(list, scheme+"://"+at.String())
	}
	return list
}
