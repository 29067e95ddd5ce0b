package seal

import (
	"encoding/json"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/secret"
)

func key(t *testing.T) (*Key, string) {
	t.Helper()
	path := filepath.Join(t.TempDir(), "shop.db.key")
	k, err := Open(path)
	require.NoError(t, err)
	return k, path
}

func TestTheKeyIsMadeOnceAndItsOwnersAlone(t *testing.T) {
	k, path := key(t)
	again, err := Open(path)
	require.NoError(t, err)
	assert.Equal(t, k.Fingerprint(), again.Fingerprint())
	assert.Len(t, k.Fingerprint(), 32)
	other, _ := key(t)
	assert.NotEqual(t, k.Fingerprint(), other.Fingerprint())
	info, err := os.Stat(path)
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())
	require.NoError(t, os.Chmod(path, 0o644))
	_, err = Open(path)
	assert.ErrorIs(t, err, secret.ErrReadable)
	assert.ErrorContains(t, err, "chmod 600 "+path)
	require.NoError(t, os.WriteFile(path, []byte("nothing"), 0o600))
	require.NoError(t, os.Chmod(path, 0o600))
	_, err = Open(path)
	assert.ErrorIs(t, err, ErrBroken)
	left, err := os.ReadDir(filepath.Dir(path))
	require.NoError(t, err)
	assert.Len(t, left, 1, "nothing half made is left")
}

// What is sealed is found in the text of a code, in a PDF's metadata and in a file of JSON; and whatever is
// changed of it, a letter, a line, the key, is told.
func TestASealHoldsOrIsTold(t *testing.T) {
	k, _ := key(t)
	lines := []string{"Valve clearances: Bench stand", "Signed by Tess, 30 Nov 2026 12:00", "I1 0.20 in", "E1 0.25 in\nE2 0.30 in"}
	text := k.Seal(lines)
	inJSON, err := json.MarshalIndent(map[string]any{"sheet": map[string]any{"proof": map[string]string{"text": text}}}, "", "  ")
	require.NoError(t, err)
	for name, file := range map[string][]byte{
		"code": []byte(text), "lines of a mail": []byte("> see below\r\n" + strings.ReplaceAll(text, "\n", "\r\n") + "-- \r\n"),
		"PDF": append([]byte("%PDF-1.3\n\x00\xff"), Packed(text)...), "JSON": inJSON,
	} {
		s, err := Read(file)
		require.NoError(t, err, name)
		assert.Equal(t, k.Fingerprint(), s.Fingerprint, name)
		assert.Equal(t, []string{lines[0], lines[1], lines[2], "E1 0.25 in E2 0.30 in"}, s.Lines, name)
	}
	for i := range len(text) - 1 { // but for where it ends
		forged := []byte(text)
		forged[i] ^= 1
		_, err := Read(forged)
		assert.Error(t, err, "%q at %d", text[i], i)
	}
	_, err = Read([]byte(strings.Replace(text, "I1 0.20 in\n", "", 1)))
	assert.ErrorIs(t, err, ErrForged)
	other, _ := key(t)
	theirs := other.Seal(lines)
	mixed := text[:strings.Index(text, "Signature")] + theirs[strings.Index(theirs, "Signature"):]
	_, err = Read([]byte(mixed))
	assert.ErrorIs(t, err, ErrForged)
	_, err = Read([]byte("Metronix sheet 1\nnothing more\n"))
	assert.ErrorIs(t, err, ErrNone)

	// a word of somebody's that looks like a seal stays on its line and is sealed with the rest
	crafty := k.Seal([]string{"Note: x\nKey " + strings.Repeat("A", 43) + "\nSignature " + strings.Repeat("A", 86)})
	s, err := Read([]byte(crafty))
	require.NoError(t, err)
	assert.Equal(t, k.Fingerprint(), s.Fingerprint)
}

func FuzzRead(f *testing.F) {
	f.Add([]byte(First + "\nx\nKey " + strings.Repeat("A", 43) + "\nSignature " + strings.Repeat("A", 86)))
	f.Add([]byte(`"proof": {"text": "\u004d`))
	f.Fuzz(func(t *testing.T, data []byte) {
		if _, err := Read(data); err == nil {
			t.Errorf("sealed by chance: %q", data)
		}
	})
}
