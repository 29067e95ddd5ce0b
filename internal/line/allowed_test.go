package line

import (
	"net/netip"
	"testing"

	"github.com/stretchr/testify/assert"
)

// A device stands on this machine, or where whoever starts the program says; never at a link-local address,
// where machines tell their secrets.
func TestAddresses(t *testing.T) {
	for _, good := range []string{"", "127.0.0.1:7070", "[::1]:7070", "localhost:7070"} {
		assert.Empty(t, Allowed{}.Check(good), good)
	}
	for _, bad := range []string{"127.0.0.1", "192.168.1.4:1", "10.0.0.9:22", "8.8.8.8:53", "example.org:80",
		"127.0.0.1:0", "127.0.0.1:99999", "0.0.0.0:1", "[::ffff:10.0.0.1]:80"} {
		assert.NotEmpty(t, Allowed{}.Check(bad), bad)
	}
	shop := Allowed{netip.MustParsePrefix("192.168.1.0/24"), netip.MustParsePrefix("0.0.0.0/0")}
	assert.Empty(t, shop.Check("192.168.1.4:7070"))
	assert.NotEmpty(t, shop.Check("169.254.169.254:80"))
}
