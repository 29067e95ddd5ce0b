//go:build !race

package api_test

import (
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
	"metronix/internal/demo"
	"metronix/internal/seal"
)

// What a camera reads off a signed sheet's code is what was sealed; one that is not signed bears none, nor
// one of a program without a key.
func TestASheetsCodeIsRead(t *testing.T) {
	d := opened(t)
	require.NoError(t, demo.Load(d.st))
	key, err := seal.Open(filepath.Join(t.TempDir(), "key"))
	require.NoError(t, err)
	d.http = api.Handler(d.st, api.Options{Seal: key})
	status, text := d.send("GET", "/api/v1/jobs/demo-job-bus/sheet", "")
	require.Equal(t, 200, status, text)
	var sheet api.SheetView
	decode(t, text, &sheet)
	require.NotNil(t, sheet.Proof)
	read := scanned(t, sheet.Proof.CodeSize, sheet.Proof.Code)
	assert.Equal(t, sheet.Proof.Text, read)
	sealed, err := seal.Read([]byte(read))
	require.NoError(t, err)
	assert.Equal(t, key.Fingerprint(), sealed.Fingerprint)
	assert.Contains(t, sealed.Lines, "Job demo-job-bus")
	for _, row := range sheet.Rows {
		assert.Contains(t, sealed.Lines, row.Valve+" "+row.Left.Said)
	}
	assert.NotContains(t, d.ok("GET", "/api/v1/jobs/demo-job-tipper/sheet", ""), "proof")
	d.http = api.Handler(d.st, api.Options{})
	assert.NotContains(t, d.ok("GET", "/api/v1/jobs/demo-job-bus/sheet", ""), "proof")
}
