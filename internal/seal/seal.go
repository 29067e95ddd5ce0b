// Package seal is by what a sheet that was handed over is told from a forged one: a key of the workshop's
// own, made at its first start, signs what the sheet says, and whoever gets it checks that without the
// workshop's data file, by the key's fingerprint.
//
// The key lies beside the data file, readable by its owner alone, and is in no backup: whoever has it could
// sign what he likes. Where it is lost a new one is made; what was sealed before stays true under the
// fingerprint of the old one, which the workshop keeps.
package seal

import (
	"crypto/ed25519"
	"crypto/rand"
	"crypto/sha256"
	"crypto/x509"
	"encoding/base64"
	"encoding/hex"
	"encoding/json"
	"encoding/pem"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"

	"metronix/internal/secret"
)

// What can be wrong with a key, and with what claims to be sealed.
var (
	ErrBroken = errors.New("the workshop's key does not read")
	ErrNone   = errors.New("it bears no seal")
	ErrForged = errors.New("what it says is not what was sealed")
)

// Key signs for a workshop (Ed25519, RFC 8032).
type Key struct{ private ed25519.PrivateKey }

// Open reads the key of a file, or makes one there. secret.ErrReadable where others may read it, ErrBroken
// where it does not read.
func Open(path string) (*Key, error) {
	text, err := os.ReadFile(path)
	if errors.Is(err, fs.ErrNotExist) {
		return create(path)
	}
	if err != nil {
		return nil, fmt.Errorf("%w: %w", ErrBroken, err)
	}
	if err := secret.OwnersAlone(path); err != nil {
		return nil, fmt.Errorf("%w: %w", ErrBroken, err)
	}
	block, _ := pem.Decode(text)
	if block == nil {
		return nil, fmt.Errorf("%w: %s holds none. Take it away, and a new one is made", ErrBroken, path)
	}
	key, err := x509.ParsePKCS8PrivateKey(block.Bytes)
	private, ok := key.(ed25519.PrivateKey)
	if err != nil || !ok {
		return nil, fmt.Errorf("%w: %s holds another kind of key. Take it away, and a new one is made", ErrBroken, path)
	}
	return &Key{private}, nil
}

// create makes a key; its file appears whole.
func create(path string) (*Key, error) {
	_, private, err := ed25519.GenerateKey(rand.Reader)
	if err != nil {
		return nil, err
	}
	der, err := x509.MarshalPKCS8PrivateKey(private)
	if err != nil {
		return nil, err
	}
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return nil, err
	}
	f, err := os.CreateTemp(filepath.Dir(path), filepath.Base(path)+".new-") // for its owner alone
	if err != nil {
		return nil, err
	}
	defer os.Remove(f.Name())
	err = errors.Join(pem.Encode(f, &pem.Block{Type: "PRIVATE KEY", Bytes: der}), f.Sync(), f.Close())
	if err == nil {
		err = os.Rename(f.Name(), path)
	}
	return &Key{private}, err
}

// Fingerprint is by what people know the key: see [Of].
func (k *Key) Fingerprint() string { return Of(k.private.Public().(ed25519.PublicKey)) }

// fingerBytes is how much of the hash people compare: 128 bits, which nobody finds a second key for.
const fingerBytes = 16

// Of is the fingerprint of a public key: the first 16 bytes of its SHA-256, in hexadecimal.
func Of(public ed25519.PublicKey) string {
	sum := sha256.Sum256(public)
	return hex.EncodeToString(sum[:fingerBytes])
}

// Groups is a fingerprint as it is read out: groups of four.
func Groups(fingerprint string) string { return strings.Join(secret.Groups(fingerprint), " ") }

// The lines of a sealed text: its first, and its last two.
const (
	First     = "Metronix sheet 1"
	keyLine   = "Key "
	signature = "Signature "
)

// Seal writes a text of one fact a line under the workshop's seal: its first line says what it is, its last
// two are the public key and the signature over all before it, in base64url.
func (k *Key) Seal(lines []string) string {
	var text strings.Builder
	text.WriteString(First + "\n")
	for _, line := range lines {
		text.WriteString(flat(line) + "\n")
	}
	text.WriteString(keyLine + coded(k.private.Public().(ed25519.PublicKey)) + "\n")
	return text.String() + signature + coded(ed25519.Sign(k.private, []byte(text.String()))) + "\n"
}

// flat keeps a fact on its line.
func flat(line string) string { return strings.Join(strings.Fields(line), " ") }

func coded(data []byte) string { return base64.RawURLEncoding.EncodeToString(data) }

// sealed finds such a text, wherever it stands.
var sealed = regexp.MustCompile(`(?s)` + First + `\r?\n(.*?)\r?\n` + keyLine + `([\w-]{43})\r?\n` + signature + `([\w-]{86})`)

// carried finds one in a file that carries it: a PDF in its metadata, a file of JSON as one of its texts.
var carried = regexp.MustCompile(`<metronix:seal>([\w-]+)</metronix:seal>|"proof":\s*\{\s*"text":\s*"((?:[^"\\]|\\.)*)"`)

// Sealed is what a seal vouches for.
type Sealed struct {
	Lines       []string
	Fingerprint string // of the key by which it was sealed
}

// Read finds what is sealed in a file (a sheet's PDF or JSON, or the text of its code) and checks it. ErrNone
// where there is no seal, ErrForged where it does not fit what it stands under.
func Read(data []byte) (s Sealed, err error) {
	found := sealed.FindSubmatch(data)
	if found == nil {
		if found = sealed.FindSubmatch(unpacked(data)); found == nil {
			return s, ErrNone
		}
	}
	// lines that a mail or an editor ended otherwise are the same lines
	text := strings.ReplaceAll(First+"\n"+string(found[1])+"\n"+keyLine+string(found[2])+"\n", "\r\n", "\n")
	public, err := base64.RawURLEncoding.Strict().DecodeString(string(found[2]))
	signed, err2 := base64.RawURLEncoding.Strict().DecodeString(string(found[3]))
	if err != nil || err2 != nil || !ed25519.Verify(public, []byte(text), signed) {
		return s, ErrForged
	}
	return Sealed{strings.Split(strings.ReplaceAll(string(found[1]), "\r\n", "\n"), "\n"), Of(public)}, nil
}

// unpacked is the sealed text that a file carries; empty: none.
func unpacked(data []byte) []byte {
	switch found := carried.FindSubmatch(data); {
	case found == nil:
		return nil
	case len(found[1]) > 0:
		text, _ := base64.RawURLEncoding.DecodeString(string(found[1])) // what does not decode bears no seal
		return text
	default:
		return unquoted(found[2])
	}
}

// Packed is a sealed text as a PDF's metadata carries it (XMP, ISO 16684-1).
func Packed(text string) []byte {
	return fmt.Appendf(nil, `<?xpacket begin="" id="W5M0MpCehiHzreSzNTczkc9d"?>
<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
<rdf:Description rdf:about="" xmlns:metronix="urn:metronix:"><metronix:seal>%s</metronix:seal></rdf:Description>
</rdf:RDF></x:xmpmeta><?xpacket end="r"?>`, coded([]byte(text)))
}

// unquoted is a JSON string's text.
func unquoted(quoted []byte) []byte {
	var text string
	if json.Unmarshal(append(append([]byte{'"'}, quoted...), '"'), &text) != nil {
		return nil
	}
	return []byte(text)
}
