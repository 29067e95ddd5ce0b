package e2e

import (
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A sheet that was handed over, as a PDF, as a file and as what a camera reads off its code, is told from a
// forged one by a command that has no data file, and by the key alone.
func TestAForgedSheetIsTold(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/shop", 1280, 800)
	p.shows("Seal of the sheets")
	key := regexp.MustCompile(`(?:[0-9a-f]{4} ){7}[0-9a-f]{4}`).FindString(p.text() + p.MustEval(`() => document.body.innerText`).Str())
	require.NotEmpty(t, key)
	p.visit("/jobs/demo-job-bus/sheet")
	p.shows("Sealed by the workshop")
	p.shows(key)

	dir := t.TempDir()
	save := func(name, data string) string {
		path := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(path, []byte(data), 0o600))
		return path
	}
	pdf, _ := fetched(t, http.DefaultClient, r.base+"/api/v1/jobs/demo-job-bus/report.pdf")
	file, _ := fetched(t, http.DefaultClient, r.base+"/api/v1/jobs/demo-job-bus/report.json")
	code := p.MustEval(`async () => (await (await fetch('/api/v1/jobs/demo-job-bus/sheet')).json()).proof.text`).Str()
	for name, data := range map[string]string{"sheet.pdf": pdf, "sheet.json": file, "code.txt": code} {
		status, says, errs := told(t, "", "verify", "--key", key, save(name, data))
		require.Zero(t, status, "%s: %s", name, errs)
		assert.Contains(t, says, "Signed by", name)
		assert.Regexp(t, `(?m)^E1a \d\.\d\d in$`, says, name)
		assert.Contains(t, says, "It is the workshop's.", name)
	}
	status, says, _ := told(t, code, "verify", "-")
	assert.Zero(t, status)
	assert.Contains(t, says, "Compare the key with the workshop's")

	// a figure that was out is made one that is in; another workshop's key; no seal at all
	forged := regexp.MustCompile(`(?m)^(E1a) \d\.\d\d in$`).ReplaceAllString(code, "$1 0.99 in")
	status, _, errs := told(t, forged, "verify", "-")
	assert.Equal(t, 1, status)
	assert.Contains(t, errs, "NOT GENUINE")
	status, _, errs = told(t, code, "verify", "--key", strings.Repeat("0", 32), "-")
	assert.Equal(t, 1, status)
	assert.Contains(t, errs, "sealed by another key, "+key)
	status, _, errs = told(t, "Valves fine, trust me", "verify", "-")
	assert.Equal(t, 2, status)
	assert.Contains(t, errs, "bears no seal")

	// the key is lost: a new one is made, and the old one is still known
	r.kill()
	require.NoError(t, os.Remove(r.data+".key"))
	again := started(t, "demo", r.data)
	p = open(t, again, "/shop", 1280, 800)
	p.shows("to")
	p.shows(key)
	assert.Equal(t, 2, len(regexp.MustCompile(`(?:[0-9a-f]{4} ){7}[0-9a-f]{4}`).FindAllString(p.MustEval(`() => document.body.innerText`).Str(), -1)))
}
