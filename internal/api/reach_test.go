package api_test

import (
	"fmt"
	"image"
	"image/color"
	"net/http"
	"strings"
	"testing"

	"github.com/makiuchi-d/gozxing"
	"github.com/makiuchi-d/gozxing/qrcode"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
)

// The code that a tablet scans, read by a scanner of another hand, is the page for the address by which the
// workshop's page is looked at, with the certificate's fingerprint behind it; from the machine itself it is
// the likeliest of its addresses.
func TestTheCodeToScan(t *testing.T) {
	d := opened(t)
	print := strings.Repeat("0f", 32)
	d.http = api.Handler(d.st, api.Options{Hosts: func() []string { return []string{"192.168.7.2", "192.168.7.3"} },
		HandOut: &api.HandOut{Port: 8081, Places: []string{"192.168.7.2", "192.168.7.3"}, Fingerprint: print}})
	for host, want := range map[string]string{"localhost:8080": "192.168.7.2", "127.0.0.1:8080": "192.168.7.2",
		"192.168.7.3:8080": "192.168.7.3"} {
		status, text := d.send("GET", "/api/v1/reach", "", func(r *http.Request) { r.Host = host })
		require.Equal(t, 200, status, text)
		var reach api.Reach
		decode(t, text, &reach)
		assert.Equal(t, "http://"+want+":8081/#"+print, reach.Page)
		assert.Equal(t, reach.Page, scanned(t, reach.CodeSize, reach.Code), host)
	}
	plain := opened(t).ok("GET", "/api/v1/reach", "")
	assert.Equal(t, false, plain["tls"])
}

// scanned draws a code as a browser would, eight dots a square, and reads it.
func scanned(t *testing.T, size int, path string) string {
	t.Helper()
	const dots = 8
	picture := image.NewGray(image.Rect(0, 0, size*dots, size*dots))
	for i := range picture.Pix {
		picture.Pix[i] = 255
	}
	for square := range strings.SplitSeq(strings.TrimPrefix(path, "M"), "M") {
		var x, y int
		_, err := fmt.Sscanf(square, "%d %dh1v1h-1z", &x, &y)
		require.NoError(t, err, square)
		for i := range dots * dots {
			picture.SetGray(x*dots+i%dots, y*dots+i/dots, color.Gray{})
		}
	}
	bits, err := gozxing.NewBinaryBitmapFromImage(picture)
	require.NoError(t, err)
	read, err := qrcode.NewQRCodeReader().Decode(bits, map[gozxing.DecodeHintType]any{gozxing.DecodeHintType_PURE_BARCODE: true})
	require.NoError(t, err)
	return read.GetText()
}

// A machine whose address changes while it serves is reached at the new one without being started again.
func TestAnAddressThatChanges(t *testing.T) {
	d := opened(t)
	address := "192.168.7.2"
	d.http = api.Handler(d.st, api.Options{Hosts: func() []string { return []string{address} }})
	at := func(host string) int {
		status, _ := d.send("GET", "/healthz", "", func(r *http.Request) { r.Host = host })
		return status
	}
	assert.Equal(t, 200, at("192.168.7.2:8080"))
	assert.Equal(t, 421, at("192.168.7.9:8080"))
	address = "192.168.7.9"
	assert.Equal(t, 200, at("192.168.7.9:8080"))
	assert.Equal(t, 421, at("192.168.7.2:8080"), "it is somebody else's now")
}
