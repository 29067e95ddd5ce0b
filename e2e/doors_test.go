package e2e

import (
	"bufio"
	"bytes"
	"context"
	"crypto/tls"
	"crypto/x509"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/go-rod/rod"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// outside is a program that others reach: the program, what it said at its start, and how it is reached.
type outside struct {
	cmd              *exec.Cmd
	base, page, code string
	fingerprint      string
}

// toTheNetwork starts a program on every address of this machine, each of them named: on a machine of tests
// they may be no private ones.
func toTheNetwork(t *testing.T, data string) *outside {
	t.Helper()
	cmd := exec.Command(program, "serve", "--listen", "0.0.0.0:0", "--data", data)
	places, err := net.InterfaceAddrs()
	require.NoError(t, err)
	for _, place := range places {
		if n, ok := place.(*net.IPNet); ok && !n.IP.IsLoopback() && !n.IP.IsLinkLocalUnicast() {
			cmd.Args = append(cmd.Args, "--host", n.IP.String())
		}
	}
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	cmd.Stderr = os.Stderr
	require.NoError(t, cmd.Start())
	o := &outside{cmd: cmd}
	t.Cleanup(o.end)
	said := regexp.MustCompile(`(https?://127\.0\.0\.1:\d+)|open (http://\S+)#|SHA-256: (.+)|code (\d{6})`)
	for lines := bufio.NewScanner(out); lines.Scan(); {
		for _, m := range said.FindAllStringSubmatch(lines.Text(), -1) {
			for i, into := range []*string{&o.base, &o.page, &o.fingerprint, &o.code} {
				if m[i+1] != "" {
					*into = m[i+1]
				}
			}
		}
		if o.fingerprint != "" { // the last that it says
			break
		}
	}
	go func() { _, _ = io.Copy(io.Discard, out) }()
	return o
}

func (o *outside) end() {
	if o.cmd.ProcessState == nil {
		_ = o.cmd.Process.Kill()
		_ = o.cmd.Wait()
	}
}

// Beyond this machine the program is reached under its own authority alone: a client that does not trust it
// gets nothing, one that took the certificate from the page gets in, and the first foreman is set up by the
// code that was said at the start and by no other.
func TestBeyondThisMachine(t *testing.T) {
	t.Parallel()
	data := filepath.Join(t.TempDir(), "shop.db")
	o := toTheNetwork(t, data)
	require.True(t, strings.HasPrefix(o.base, "https://"), o.base)
	require.Len(t, o.code, 6)

	_, err := http.Get(o.base + "/healthz")
	assert.ErrorContains(t, err, "certificate", "nobody trusts it by itself")
	plain, err := http.Get(strings.Replace(o.base, "https:", "http:", 1) + "/healthz")
	require.NoError(t, err)
	plain.Body.Close()
	assert.Equal(t, http.StatusBadRequest, plain.StatusCode, "nothing is said without encryption")

	tablet := strings.Replace(o.base, "127.0.0.1", addressOf(o.page), 1)
	local := regexp.MustCompile(`//[^:/]+:`).ReplaceAllString(o.page, "//127.0.0.1:")
	text, _ := fetched(t, http.DefaultClient, local)
	for _, group := range strings.Fields(o.fingerprint) {
		assert.Contains(t, text, group)
	}
	assert.Contains(t, text, `href="`+o.base+`/"`)
	der, kind := fetched(t, http.DefaultClient, local+"authority.crt")
	assert.Equal(t, "application/x-x509-ca-cert", kind)
	for _, other := range []string{"api/v1/session", "shop", "healthz", "authority.key"} {
		answer, err := http.Get(local + other)
		require.NoError(t, err)
		answer.Body.Close()
		assert.Equal(t, http.StatusNotFound, answer.StatusCode, other)
	}
	authority, err := x509.ParseCertificate([]byte(der))
	require.NoError(t, err)
	trusts := x509.NewCertPool()
	trusts.AddCert(authority)
	client := &http.Client{Transport: &http.Transport{TLSClientConfig: &tls.Config{RootCAs: trusts}}}
	text, _ = fetched(t, client, o.base+"/healthz")
	assert.Equal(t, "ok\n", text)
	name, err := os.Hostname()
	require.NoError(t, err)
	byName := &http.Client{Transport: &http.Transport{TLSClientConfig: &tls.Config{RootCAs: trusts},
		DialContext: func(ctx context.Context, network, _ string) (net.Conn, error) {
			return new(net.Dialer).DialContext(ctx, network, strings.TrimPrefix(o.base, "https://"))
		}}}
	text, _ = fetched(t, byName, "https://"+strings.ToLower(strings.TrimSuffix(name, ".local"))+".local/healthz")
	assert.Equal(t, "ok\n", text, "by its own name in the network, which its certificate is for")

	// from this machine itself it is open; the code is for tablets, which reach it by another address of the
	// machine
	text, _ = fetched(t, client, tablet+"/api/v1/session")
	assert.Contains(t, text, `"set_up":true`)
	found := func(code string) int {
		body := fmt.Sprintf(`{"id":"june","name":"June Abara","role":"foreman","pin":"7319","set_up_code":%q}`, code)
		answer, err := client.Post(tablet+"/api/v1/people", "application/json", bytes.NewReader([]byte(body)))
		require.NoError(t, err)
		answer.Body.Close()
		return answer.StatusCode
	}
	for range 5 {
		assert.Equal(t, http.StatusUnauthorized, found("abcdef"))
	}
	assert.Equal(t, http.StatusTooManyRequests, found(o.code), "too many wrong ones, the right one too has to wait")
	o.end()

	// another start says another code; its certificate is the one that the tablets have
	again := toTheNetwork(t, data)
	assert.NotEqual(t, o.code, again.code)
	assert.Equal(t, o.fingerprint, again.fingerprint)
	info, err := os.Stat(data + ".authority/authority.key")
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())
	again.end()
	require.NoError(t, os.Chmod(data+".authority/authority.key", 0o644))
	said, err := exec.Command(program, "serve", "--listen", "0.0.0.0:0", "--data", data).CombinedOutput()
	assert.Error(t, err)
	assert.Contains(t, string(said), "chmod 600", "others may read the key")
}

// A tablet comes in as a person brings it in: it scans the code, takes the certificate from the page, trusts
// it in its own store, opens the program from there, and the first foreman is set up by the code and signs
// in, in a context that the browser calls secure. A browser that does not trust the certificate is shown
// nothing.
func TestATabletComesIn(t *testing.T) {
	t.Parallel()
	o := toTheNetwork(t, filepath.Join(t.TempDir(), "shop.db"))
	tablet := addressOf(o.page)
	home := t.TempDir()
	der, _ := fetched(t, http.DefaultClient, o.page+"authority.crt")
	trust(t, home, []byte(der))
	stranger := tabOf(t, tabletIn(t, t.TempDir(), tablet), o.base, 800, 1280)
	assert.ErrorContains(t, stranger.Navigate(strings.Replace(o.base, "127.0.0.1", tablet, 1)), "ERR_CERT_AUTHORITY_INVALID")

	p := tabOf(t, tabletIn(t, home, tablet), strings.Replace(o.base, "127.0.0.1", tablet, 1), 800, 1280)
	require.NoError(t, p.Navigate(o.page+"#"+strings.ReplaceAll(o.fingerprint, " ", "")))
	p.MustElementR("a", "Open Metronix").MustClick()
	p.shows("The first foreman")
	assert.True(t, p.MustEval(`() => isSecureContext`).Bool())
	p.fill("Code", o.code)
	p.fill("Name, as it stands on sheets", "June Abara")
	p.fill("PIN, 4 to 12 digits", "7319")
	p.press("Set up")
	p.in("June Abara", "7319")
	p.shows("June")
	cookies := p.MustCookies()
	require.Len(t, cookies, 1)
	assert.True(t, cookies[0].Secure && cookies[0].HTTPOnly)
	assert.True(t, strings.HasPrefix(cookies[0].Name, "__Host-metronix_session"), cookies[0].Name)
	p.visit("/shop")
	p.shows("Point the tablet’s camera at the code")
	assert.Contains(t, p.MustEval(`() => document.querySelector('.prints').textContent`).Str(), strings.Fields(o.fingerprint)[0])
}

// trust puts a certificate into the browser's store of a home, as a person does on a tablet.
func trust(t *testing.T, home string, der []byte) {
	t.Helper()
	cert := filepath.Join(home, "taken.crt")
	require.NoError(t, os.WriteFile(cert, der, 0o600))
	store := "sql:" + filepath.Join(home, ".pki", "nssdb")
	require.NoError(t, os.MkdirAll(strings.TrimPrefix(store, "sql:"), 0o700))
	for _, args := range [][]string{{"-N", "--empty-password"}, {"-A", "-t", "C,,", "-n", "workshop", "-i", cert}} {
		said, err := exec.Command("certutil", append([]string{"-d", store}, args...)...).CombinedOutput()
		require.NoError(t, err, string(said))
	}
}

// tabletIn is a browser of its own with a home, which may reach one address beside its own machine.
func tabletIn(t *testing.T, home, address string) *rod.Browser {
	t.Helper()
	bin, err := exec.LookPath("chromium-headless-shell")
	require.NoError(t, err)
	l := launching(bin, filepath.Join(home, "profile"), address).Env(append(os.Environ(), "HOME="+home)...)
	at, err := l.Launch()
	require.NoError(t, err)
	t.Cleanup(func() { l.Kill(); l.Cleanup() })
	b := rod.New().ControlURL(at).Sleeper(soon)
	require.NoError(t, b.Connect())
	return b
}

// fetched reads what is at an address, and of which type it is.
func fetched(t *testing.T, client *http.Client, address string) (text, kind string) {
	t.Helper()
	answer, err := client.Get(address)
	require.NoError(t, err)
	defer answer.Body.Close()
	require.Equal(t, http.StatusOK, answer.StatusCode, address)
	data, err := io.ReadAll(answer.Body)
	require.NoError(t, err)
	return string(data), answer.Header.Get("Content-Type")
}

// addressOf is the host of an address.
func addressOf(page string) string {
	return regexp.MustCompile(`//([^:/]+):`).FindStringSubmatch(page)[1]
}
