// Package authority is the workshop's own certificate authority: made at the first start, put on each tablet
// once, and from then on the tablets know this program from any other. It signs for nothing but addresses
// inside a workshop.
//
// The key lies in a folder of its own beside the data file, readable by its owner alone, and is in no backup:
// whoever has it could pass for the program.
package authority

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/sha256"
	"crypto/tls"
	"crypto/x509"
	"crypto/x509/pkix"
	"encoding/hex"
	"encoding/pem"
	"errors"
	"fmt"
	"io/fs"
	"math/big"
	"net"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"time"

	"metronix/internal/secret"
)

// How long certificates hold: the authority for ten years; what it signs for 90 days, renewed when a third of
// that is left. Browsers take no leaf of more than 398 days (CA/Browser Forum, Baseline Requirements 6.3.2;
// from memory).
const (
	ownYears  = 10
	leafDays  = 90
	renewDays = 30
)

// backdated is how much before now a certificate begins: clocks of tablets are off.
const backdated = 24 * time.Hour

// private are the networks that it may sign for at all: private and link-local ones, and this machine (RFC
// 1918, RFC 3927, RFC 4193, RFC 4291).
var private = []string{
	"10.0.0.0/8",
	"172.16.0.0/12",
	"192.168.0.0/16",
	"169.254.0.0/16",
	"127.0.0.0/8",
	"fc00::/7",
	"fe80::/10",
	"::1/128",
}

// What can be wrong with the folder of an authority.
var (
	ErrBroken  = errors.New("the authority does not read")
	ErrOutside = errors.New("the authority was not made for this name")
)

// The files of an authority.
const (
	certFile = "authority.crt"
	keyFile  = "authority.key"
)

// Authority signs certificates for the addresses of this machine.
type Authority struct {
	cert *x509.Certificate
	key  *ecdsa.PrivateKey

	mu    sync.Mutex
	leaf  *tls.Certificate
	names []string // that the leaf is for
}

// Open reads the authority of a folder, or makes one there that may sign for private networks, names under
// .local, and the names given. secret.ErrReadable where others may read its key, ErrBroken where it does not
// read, ErrOutside where it was made without one of the names.
func Open(folder string, names []string, now time.Time) (a *Authority, err error) {
	a = &Authority{}
	text, err := os.ReadFile(filepath.Join(folder, keyFile))
	if errors.Is(err, fs.ErrNotExist) {
		if err := a.make(folder, names, now); err != nil {
			return nil, err
		}
		return a, nil
	}
	if err != nil {
		return nil, fmt.Errorf("%w: %w", ErrBroken, err)
	}
	if err := a.read(folder, text); err != nil {
		return nil, err
	}
	for _, name := range names {
		if !a.May(name) {
			return nil, fmt.Errorf(
				"%w: %s. Take the folder %s away and start again: a new one is made, and has to be put on the "+
					"tablets once more",
				ErrOutside,
				name,
				folder,
			)
		}
	}
	return a, nil
}

func (a *Authority) read(folder string, text []byte) error {
	path := filepath.Join(folder, keyFile)
	if err := secret.OwnersAlone(path); err != nil {
		return fmt.Errorf("%w: %w", ErrBroken, err)
	}
	block, _ := pem.Decode(text)
	if block == nil {
		return fmt.Errorf("%w: %s holds no key", ErrBroken, path)
	}
	key, err := x509.ParseECPrivateKey(block.Bytes)
	if err != nil {
		return fmt.Errorf("%w: %s: %w", ErrBroken, path, err)
	}
	certPath := filepath.Join(folder, certFile)
	data, err := os.ReadFile(certPath)
	if err != nil {
		return fmt.Errorf("%w: %w", ErrBroken, err)
	}
	if block, _ = pem.Decode(data); block == nil {
		return fmt.Errorf("%w: %s holds no certificate", ErrBroken, certPath)
	}
	cert, err := x509.ParseCertificate(block.Bytes)
	if err != nil {
		return fmt.Errorf("%w: %s: %w", ErrBroken, certPath, err)
	}
	if !key.PublicKey.Equal(cert.PublicKey) {
		return fmt.Errorf("%w: key and certificate in %s belong to two", ErrBroken, folder)
	}
	a.key, a.cert = key, cert
	return nil
}

// make makes a new authority. The certificate is written first: a folder with a key has both.
func (a *Authority) make(folder string, names []string, now time.Time) (err error) {
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return err
	}
	if a.key, err = ecdsa.GenerateKey(elliptic.P256(), rand.Reader); err != nil {
		return err
	}
	serial, err := newSerial()
	if err != nil {
		return err
	}
	t := &x509.Certificate{
		SerialNumber:                serial,
		Subject:                     pkix.Name{CommonName: "Metronix workshop " + serial.Text(36)[:6]},
		NotBefore:                   now.Add(-backdated),
		NotAfter:                    now.AddDate(ownYears, 0, 0),
		KeyUsage:                    x509.KeyUsageCertSign,
		BasicConstraintsValid:       true,
		IsCA:                        true,
		MaxPathLenZero:              true,
		PermittedDNSDomainsCritical: true,
		PermittedDNSDomains:         []string{"local", "localhost"},
	}
	for _, network := range private {
		_, ipnet, err := net.ParseCIDR(network)
		if err != nil {
			return err
		}
		t.PermittedIPRanges = append(t.PermittedIPRanges, ipnet)
	}
	for _, name := range names {
		if ip := net.ParseIP(name); ip == nil {
			t.PermittedDNSDomains = append(t.PermittedDNSDomains, name)
		} else if !ip.IsPrivate() && !ip.IsLoopback() && !ip.IsLinkLocalUnicast() {
			bits := 8 * len(normal(ip))
			t.PermittedIPRanges = append(t.PermittedIPRanges, &net.IPNet{IP: normal(ip), Mask: net.CIDRMask(bits, bits)})
		}
	}
	der, err := x509.CreateCertificate(rand.Reader, t, t, &a.key.PublicKey, a.key)
	if err != nil {
		return err
	}
	if a.cert, err = x509.ParseCertificate(der); err != nil {
		return err
	}
	key, err := x509.MarshalECPrivateKey(a.key)
	if err != nil {
		return err
	}
	if err := os.WriteFile(filepath.Join(folder, certFile), a.PEM(), 0o644); err != nil {
		return err
	}
	return os.WriteFile(
		filepath.Join(folder, keyFile),
		pem.EncodeToMemory(&pem.Block{Type: "EC PRIVATE KEY", Bytes: key}),
		0o600,
	)
}

// normal is an address in as few bytes as it takes.
func normal(ip net.IP) net.IP {
	if four := ip.To4(); four != nil {
		return four
	}
	return ip
}

func newSerial() (*big.Int, error) {
	return rand.Int(rand.Reader, new(big.Int).Lsh(big.NewInt(1), 120))
}

// PEM is the certificate that is put on tablets.
func (a *Authority) PEM() []byte {
	return pem.EncodeToMemory(&pem.Block{Type: "CERTIFICATE", Bytes: a.cert.Raw})
}

// DER is the same as its bare bytes, which is what tablets take most willingly.
func (a *Authority) DER() []byte { return slices.Clone(a.cert.Raw) }

// Fingerprint is the SHA-256 of the certificate in hexadecimal, by which a tablet's own page shows that it
// got the right one.
func (a *Authority) Fingerprint() string {
	sum := sha256.Sum256(a.cert.Raw)
	return hex.EncodeToString(sum[:])
}

// Pool is a pool that holds this authority alone.
func (a *Authority) Pool() *x509.CertPool {
	pool := x509.NewCertPool()
	pool.AddCert(a.cert)
	return pool
}

// May says whether it may sign for a name or an address.
func (a *Authority) May(name string) bool {
	if ip := net.ParseIP(name); ip != nil {
		return slices.ContainsFunc(
			a.cert.PermittedIPRanges,
			func(n *net.IPNet) bool { return n.Contains(ip) },
		)
	}
	return slices.ContainsFunc(
		a.cert.PermittedDNSDomains,
		func(d string) bool { return name == d || strings.HasSuffix(name, "."+d) },
	)
}

// For gives a certificate for the names and addresses by which this machine is called now: the one there is,
// while it is for all of them and has a third of its days left; else a new one. What it may not sign for is
// left out.
func (a *Authority) For(names []string, now time.Time) (*tls.Certificate, error) {
	names = slices.DeleteFunc(slices.Clone(names), func(n string) bool { return !a.May(n) })
	slices.Sort(names)
	names = slices.Compact(names)
	a.mu.Lock()
	defer a.mu.Unlock()
	if a.leaf != nil && slices.Equal(a.names, names) &&
		now.Before(a.leaf.Leaf.NotAfter.AddDate(0, 0, -renewDays)) &&
		now.After(a.leaf.Leaf.NotBefore) {
		return a.leaf, nil
	}
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return nil, err
	}
	serial, err := newSerial()
	if err != nil {
		return nil, err
	}
	t := &x509.Certificate{
		SerialNumber: serial,
		Subject:      pkix.Name{CommonName: "Metronix"},
		NotBefore:    now.Add(-backdated),
		NotAfter:     now.AddDate(0, 0, leafDays),
		KeyUsage:     x509.KeyUsageDigitalSignature,
		ExtKeyUsage:  []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth},
	}
	for _, name := range names {
		if ip := net.ParseIP(name); ip != nil {
			t.IPAddresses = append(t.IPAddresses, ip)
		} else {
			t.DNSNames = append(t.DNSNames, name)
		}
	}
	der, err := x509.CreateCertificate(rand.Reader, t, a.cert, &key.PublicKey, a.key)
	if err != nil {
		return nil, err
	}
	leaf, err := x509.ParseCertificate(der)
	if err != nil {
		return nil, err
	}
	a.leaf, a.names = &tls.Certificate{
		Certificate: [][]byte{der, a.cert.Raw},
		PrivateKey:  key,
		Leaf:        leaf,
	}, names
	return a.leaf, nil
}

// Config is how a server speaks TLS under it, for the names that it is called by at each time. Not below TLS
// 1.2.
func (a *Authority) Config(names func() []string, clock func() time.Time) *tls.Config {
	return &tls.Config{
		MinVersion: tls.VersionTLS12,
		GetCertificate: func(*tls.ClientHelloInfo) (*tls.Certificate, error) {
			return a.For(names(), clock())
		},
	}
}
