package authority

import (
	"crypto/rand"
	"crypto/x509"
	"crypto/x509/pkix"
	"math/big"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Constrained signs with the key what the authority itself would not, and asserts that nobody believes it.
func (a *Authority) Constrained(t *testing.T) {
	for _, name := range []string{"bank.example", "example.com"} {
		c := &x509.Certificate{
			SerialNumber: big.NewInt(7),
			Subject:      pkix.Name{CommonName: name},
			DNSNames:     []string{name},
			NotBefore:    a.cert.NotBefore,
			NotAfter:     a.cert.NotBefore.Add(24 * time.Hour),
		}
		der, err := x509.CreateCertificate(rand.Reader, c, a.cert, &a.key.PublicKey, a.key)
		require.NoError(t, err)
		leaf, err := x509.ParseCertificate(der)
		require.NoError(t, err)
		_, err = leaf.Verify(
			x509.VerifyOptions{DNSName: name, Roots: a.Pool(), CurrentTime: a.cert.NotBefore.Add(time.Hour),
				KeyUsages: []x509.ExtKeyUsage{x509.ExtKeyUsageAny}},
		)
		assert.Error(t, err, name)
	}
}
