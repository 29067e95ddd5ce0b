package authority_test

import (
	"crypto/x509"
	"net"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/authority"
	"metronix/internal/secret"
)

var now = time.Date(2026, 11, 30, 8, 0, 0, 0, time.UTC)

func leafOf(t *testing.T, a *authority.Authority, at time.Time, names ...string) *x509.Certificate {
	t.Helper()
	c, err := a.For(names, at)
	require.NoError(t, err)
	return c.Leaf
}

// What it signs is trusted by whoever trusts it, by Go's own verifier, under each name it is for and no
// other; for an address outside a workshop nothing is believed that it signs.
func TestItSignsForThisMachine(t *testing.T) {
	folder := filepath.Join(t.TempDir(), "authority")
	a, err := authority.Open(folder, []string{"bay.example", "192.0.2.10"}, now)
	require.NoError(t, err)
	leaf := leafOf(
		t,
		a,
		now,
		"192.168.1.7",
		"workshop.local",
		"bay.example",
		"192.0.2.10",
		"fd00::7",
		"shop.example",
		"203.0.113.9",
	)
	assert.LessOrEqual(t, leaf.NotAfter.Sub(leaf.NotBefore), 398*24*time.Hour)
	verified := func(name string) bool {
		_, err := leaf.Verify(x509.VerifyOptions{DNSName: name, Roots: a.Pool(), CurrentTime: now})
		return err == nil
	}
	for name, want := range map[string]bool{"192.168.1.7": true, "workshop.local": true, "bay.example": true, "192.0.2.10": true,
		"fd00::7": true, "shop.example": false, "203.0.113.9": false, "192.168.1.8": false} {
		assert.Equal(t, want, verified(name), name)
	}
	// its own constraints hold against whatever is signed with its key
	a.Constrained(t)

	again, err := authority.Open(folder, []string{"bay.example"}, now.AddDate(1, 0, 0))
	require.NoError(t, err)
	assert.Equal(t, a.Fingerprint(), again.Fingerprint())
	_, err = authority.Open(folder, []string{"other.example"}, now)
	assert.ErrorIs(t, err, authority.ErrOutside)
}

// A certificate stays while it is good, and is renewed by itself before it ends, or with a new address.
func TestItRenewsByItself(t *testing.T) {
	a, err := authority.Open(t.TempDir(), nil, now)
	require.NoError(t, err)
	first := leafOf(t, a, now, "192.168.1.7", "192.168.1.7")
	assert.Same(t, first, leafOf(t, a, now.AddDate(0, 0, 59), "192.168.1.7"))
	renewed := leafOf(t, a, now.AddDate(0, 0, 61), "192.168.1.7")
	assert.NotEqual(t, first.SerialNumber, renewed.SerialNumber)
	moved := leafOf(t, a, now.AddDate(0, 0, 61), "192.168.1.8")
	assert.Equal(t, net.IPv4(192, 168, 1, 8).To4(), moved.IPAddresses[0].To4())
	back := leafOf(t, a, now.AddDate(-1, 0, 0), "192.168.1.8")
	assert.True(t, back.NotBefore.Before(now.AddDate(-1, 0, 0)), "a clock that was put back")
}

// A key that others may read, or that does not read, is not used.
func TestAKeyIsItsOwnersAlone(t *testing.T) {
	folder := t.TempDir()
	_, err := authority.Open(folder, nil, now)
	require.NoError(t, err)
	key := filepath.Join(folder, "authority.key")
	info, err := os.Stat(key)
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())
	require.NoError(t, os.Chmod(key, 0o640))
	_, err = authority.Open(folder, nil, now)
	assert.ErrorIs(t, err, secret.ErrReadable)
	require.NoError(t, os.Chmod(key, 0o600))
	require.NoError(t, os.WriteFile(key, []byte("no key"), 0o600))
	_, err = authority.Open(folder, nil, now)
	assert.ErrorIs(t, err, authority.ErrBroken)
	other := t.TempDir()
	_, err = authority.Open(other, nil, now)
	require.NoError(t, err)
	data, err := os.ReadFile(filepath.Join(other, "authority.key"))
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(key, data, 0o600))
	_, err = authority.Open(folder, nil, now)
	assert.ErrorIs(t, err, authority.ErrBroken, "the key of another")
}
