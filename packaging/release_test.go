// Package packaging holds what is made of the program for a workshop's own machine, and the test of it.
package packaging

import (
	"bufio"
	"encoding/json"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// released is the one file of a release whose name fits; the test is skipped where no release was made.
func released(t *testing.T, pattern string) string {
	t.Helper()
	folder := os.Getenv("METRONIX_RELEASE")
	if folder == "" {
		t.Skip("no release was made: make release")
	}
	list, err := filepath.Glob(filepath.Join(folder, pattern))
	require.NoError(t, err)
	require.Len(t, list, 1, pattern)
	return list[0]
}

// needs skips a test, aloud, where a tool is missing.
func needs(t *testing.T, tool string) string {
	t.Helper()
	for _, at := range []string{tool, "/usr/lib/wine/" + tool} {
		if path, err := exec.LookPath(at); err == nil {
			return path
		}
	}
	t.Skipf("NOT TRIED: there is no %s on this machine", tool)
	return ""
}

// runs runs a command to its end.
func runs(t *testing.T, env []string, name string, args ...string) string {
	t.Helper()
	cmd := exec.Command(name, args...)
	cmd.Env = append(os.Environ(), env...)
	out, err := cmd.CombinedOutput()
	require.NoError(t, err, "%s %s: %s", name, strings.Join(args, " "), out)
	return string(out)
}

// serving starts a program and waits for its address; stop ends it as its service would.
func serving(t *testing.T, env []string, name string, args ...string) (base string, stop func()) {
	t.Helper()
	cmd := exec.Command(name, args...)
	cmd.Env = append(os.Environ(), env...)
	cmd.SysProcAttr = &syscall.SysProcAttr{Setpgid: true}
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	stop = func() {
		_ = syscall.Kill(-cmd.Process.Pid, syscall.SIGTERM)
		_ = cmd.Wait()
	}
	said := make(chan string, 1)
	go func() {
		for lines := bufio.NewScanner(out); lines.Scan(); {
			if at := regexp.MustCompile(`http://127\.0\.0\.1:\d+`).FindString(lines.Text()); at != "" {
				said <- at
				_, _ = io.Copy(io.Discard, out)
				return
			}
		}
		close(said)
	}()
	select {
	case base = <-said:
	case <-time.After(3 * time.Minute):
	}
	if base == "" {
		stop()
		t.Fatalf("%s does not serve", name)
	}
	return base, stop
}

// demoServed says that what is served is the demo: its page, and its board.
func demoServed(t *testing.T, base string) {
	t.Helper()
	page, err := http.Get(base)
	require.NoError(t, err)
	defer page.Body.Close()
	text, err := io.ReadAll(page.Body)
	require.NoError(t, err)
	assert.Contains(t, string(text), "<title>")
	assert.Greater(t, jobs(t, base), 5)
}

// jobs is how many stand on the board.
func jobs(t *testing.T, base string) int {
	t.Helper()
	answer, err := http.Get(base + "/api/v1/jobs")
	require.NoError(t, err)
	defer answer.Body.Close()
	var list []any
	require.NoError(t, json.NewDecoder(answer.Body).Decode(&list))
	return len(list)
}

// versionOf is the version in a file's name.
var versionOf = regexp.MustCompile(`\d+\.\d+`)

func TestSumsAndSignature(t *testing.T) {
	sums := released(t, "SHA256SUMS")
	cmd := exec.Command("sha256sum", "--check", "--strict", filepath.Base(sums))
	cmd.Dir = filepath.Dir(sums)
	out, err := cmd.CombinedOutput()
	require.NoError(t, err, string(out))
	assert.Equal(t, 7, strings.Count(string(out), ": OK"), string(out))
	verify := []string{"pkeyutl", "-verify", "-pubin", "-inkey", released(t, "metronix.pub"), "-rawin", "-in", sums, "-sigfile", sums + ".sig"}
	runs(t, nil, needs(t, "openssl"), verify...)
	forged := filepath.Join(t.TempDir(), "SHA256SUMS")
	text, err := os.ReadFile(sums)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(forged, append(text, '\n'), 0o600))
	verify[7] = forged
	assert.Error(t, exec.Command("openssl", verify...).Run(), "another text under the same signature")
}

// The package is installed into a folder that stands for a machine, begun there, and another version of it
// installed over it: the data stays, a changed setting stays, and going back to the older one is refused by
// the program where the file is newer (TestFilesThatCannotBeUsed).
func TestThePackageIsInstalledAndUpgraded(t *testing.T) {
	deb := released(t, "*_amd64.deb")
	needs(t, "dpkg")
	root := t.TempDir()
	for _, folder := range []string{"etc", "var/lib/dpkg/info", "var/lib/dpkg/updates", "var/log"} {
		require.NoError(t, os.MkdirAll(filepath.Join(root, folder), 0o755))
	}
	for name, text := range map[string]string{"etc/passwd": "root:x:0:0:root:/root:/bin/sh\n", "etc/group": "root:x:0:\n", "etc/shadow": "root:*:::::::\n",
		"etc/gshadow": "root:*::\n", "etc/login.defs": "SYS_UID_MIN 100\nSYS_UID_MAX 999\nSYS_GID_MIN 100\nSYS_GID_MAX 999\n",
		"var/lib/dpkg/status": "", "var/lib/dpkg/available": ""} {
		require.NoError(t, os.WriteFile(filepath.Join(root, name), []byte(text), 0o644))
	}
	install := func(deb string) string {
		return runs(t, nil, "dpkg", "--root="+root, "--force-script-chrootless", "--force-depends", "--force-not-root", "--force-confold",
			"--no-triggers", "--install", deb)
	}
	in := func(path string) string { return filepath.Join(root, path) }
	install(deb)
	users, err := os.ReadFile(in("etc/passwd"))
	require.NoError(t, err)
	assert.Regexp(t, `(?m)^metronix:x?!?:\d+:\d+:.*:/var/lib/metronix:/usr/sbin/nologin$`, string(users))
	for _, folder := range []string{"var/lib/metronix", "var/backups/metronix"} {
		info, err := os.Stat(in(folder))
		require.NoError(t, err)
		assert.Equal(t, os.FileMode(0o700), info.Mode().Perm(), folder)
	}
	service, err := os.ReadFile(in("usr/lib/systemd/system/metronix.service"))
	require.NoError(t, err)
	assert.Contains(t, string(service), "--backups ${METRONIX_BACKUPS}")
	program, data := in("usr/bin/metronix"), in("var/lib/metronix/metronix.db")
	version := versionOf.FindString(filepath.Base(deb))
	assert.Contains(t, runs(t, nil, program, "version"), version)
	base, stop := serving(t, nil, program, "demo", "--listen", "127.0.0.1:0", "--data", data, "--backups", in("var/backups/metronix"))
	demoServed(t, base)
	before := jobs(t, base)
	stop()
	require.NoError(t, os.WriteFile(in("etc/default/metronix"), []byte("METRONIX_LISTEN=0.0.0.0:8080\n"), 0o644))

	// the next version over it
	next := repacked(t, deb, version, version+".1")
	assert.Contains(t, install(next), "over ("+version+")")
	kept, err := os.ReadFile(in("etc/default/metronix"))
	require.NoError(t, err)
	assert.Equal(t, "METRONIX_LISTEN=0.0.0.0:8080\n", string(kept))
	base, stop = serving(t, nil, program, "serve", "--listen", "127.0.0.1:0", "--data", data, "--backups", in("var/backups/metronix"))
	defer stop()
	assert.Equal(t, before, jobs(t, base))

	out := runs(t, nil, "dpkg", "--root="+root, "--force-script-chrootless", "--force-not-root", "--purge", "metronix")
	assert.Contains(t, out, "What was stored stays")
	assert.FileExists(t, data)
}

// repacked is a package under another version.
func repacked(t *testing.T, deb, version, next string) string {
	t.Helper()
	parts := filepath.Join(t.TempDir(), "parts")
	runs(t, nil, "dpkg-deb", "--raw-extract", deb, parts)
	control := filepath.Join(parts, "DEBIAN/control")
	text, err := os.ReadFile(control)
	require.NoError(t, err)
	changed := strings.Replace(string(text), "Version: "+version, "Version: "+next, 1)
	require.NotEqual(t, string(text), changed)
	require.NoError(t, os.WriteFile(control, []byte(changed), 0o644))
	to := filepath.Join(t.TempDir(), "next.deb")
	runs(t, nil, "dpkg-deb", "-Znone", "--build", parts, to)
	return to
}

func TestTheArchiveServes(t *testing.T) {
	archive, folder := released(t, "*linux-amd64.tar.gz"), t.TempDir()
	runs(t, nil, "tar", "-xzf", archive, "-C", folder)
	program, err := filepath.Glob(filepath.Join(folder, "metronix-*/metronix"))
	require.NoError(t, err)
	require.Len(t, program, 1)
	assert.FileExists(t, filepath.Join(filepath.Dir(program[0]), "BEGIN.txt"))
	base, stop := serving(t, nil, program[0], "demo", "--listen", "127.0.0.1:0", "--data", filepath.Join(folder, "demo.db"))
	defer stop()
	demoServed(t, base)
}

func TestArm64UnderQemu(t *testing.T) {
	deb, qemu, folder := released(t, "*_arm64.deb"), needs(t, "qemu-aarch64"), t.TempDir()
	runs(t, nil, "dpkg-deb", "-x", deb, folder)
	base, stop := serving(t, nil, qemu, filepath.Join(folder, "usr/bin/metronix"), "demo", "--listen", "127.0.0.1:0", "--data",
		filepath.Join(folder, "demo.db"))
	defer stop()
	demoServed(t, base)
}

// random stands in for a library of Windows that Debian's wine does not have: the numbers by chance that Go
// asks for.
const random = `#include <windows.h>
BOOLEAN NTAPI SystemFunction036(PVOID, ULONG);
__declspec(dllexport) BOOL WINAPI ProcessPrng(PBYTE to, SIZE_T n) { return SystemFunction036(to, (ULONG)n); }
`

func TestWindowsUnderWine(t *testing.T) {
	archive, wine, folder := released(t, "*windows-amd64.zip"), needs(t, "wine64"), t.TempDir()
	runs(t, nil, needs(t, "unzip"), "-q", archive, "-d", folder)
	start, err := os.ReadFile(filepath.Join(folder, "Start Metronix.cmd"))
	require.NoError(t, err)
	assert.Contains(t, string(start), `serve --open --backups`)
	env := []string{"WINEPREFIX=" + filepath.Join(folder, "prefix"), "WINEDEBUG=-all", "DISPLAY="}
	program := filepath.Join(folder, "metronix.exe")
	boot := exec.Command(wine, "wineboot", "--init")
	boot.Env = append(os.Environ(), env...)
	_ = boot.Run() // without a screen it complains, and makes its folders all the same
	system := filepath.Join(folder, "prefix/drive_c/windows/system32")
	if _, err := os.Stat(filepath.Join(system, "bcryptprimitives.dll")); err != nil {
		source := filepath.Join(folder, "random.c")
		require.NoError(t, os.WriteFile(source, []byte(random), 0o600))
		runs(t, nil, needs(t, "x86_64-w64-mingw32-gcc"), "-shared", "-o", filepath.Join(system, "bcryptprimitives.dll"), source, "-ladvapi32")
	}
	base, stop := serving(t, env, wine, program, "demo", "--listen", "127.0.0.1:0", "--data", `C:\shop\demo.db`, "--backups", `C:\shop\copies`)
	demoServed(t, base)
	assert.Contains(t, runs(t, env, wine, program, "check", "--data", `C:\shop\demo.db`), "is sound")
	require.Eventually(t, func() bool {
		out, err := wined(env, wine, program, "drill", "--data", `C:\shop\demo.db`, "--backups", `C:\shop\copies`)
		return err == nil && strings.Contains(out, "The data file holds exactly these.")
	}, time.Minute, time.Second)
	_, err = wined(env, wine, program, "restore", "--data", `C:\shop\demo.db`, `C:\shop\copies\none.db`)
	assert.Error(t, err)
	second, err := wined(env, wine, program, "rebuild", "--data", `C:\shop\demo.db`)
	assert.Error(t, err, "a second program is refused")
	assert.Contains(t, second, "Stop that program first")
	stop()
	require.Eventually(t, func() bool {
		out, err := wined(env, wine, program, "takeover", "--data", `C:\shop\demo.db`, "--backups", `C:\shop\copies`)
		return err == nil && strings.Contains(out, "is now what the backup of")
	}, time.Minute, time.Second, "once the first has let go")
	begin := "Z:" + strings.ReplaceAll(filepath.Join(folder, "Start Metronix.cmd"), "/", `\`)
	base, stop = serving(t, env, wine, "cmd", "/c", begin, "--listen", "127.0.0.1:0", "--data", `C:\shop\own.db`)
	defer stop()
	answer, err := http.Get(base + "/healthz")
	require.NoError(t, err)
	answer.Body.Close()
	assert.Equal(t, 200, answer.StatusCode)
	copies, err := filepath.Glob(filepath.Join(folder, "prefix/drive_c/users/*/AppData/Local/Metronix/backups/metronix-*.db"))
	require.NoError(t, err)
	assert.NotEmpty(t, copies, "a double click begins its backups too")
}

// wined runs the Windows program to its end.
func wined(env []string, wine string, args ...string) (string, error) {
	cmd := exec.Command(wine, args...)
	cmd.Env = append(os.Environ(), env...)
	out, err := cmd.CombinedOutput()
	return string(out), err
}
