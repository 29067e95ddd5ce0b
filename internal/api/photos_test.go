package api_test

import (
	"bytes"
	"encoding/binary"
	"encoding/json"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// sideways is a JPEG of two colours, red above and blue below, with EXIF that says it lies a quarter turn:
// upright it has red at the right (orientation 6, turned clockwise; EXIF 2.3, tag 0x0112), and the name of a
// place in it.
func sideways(t *testing.T) []byte {
	t.Helper()
	picture := image.NewRGBA(image.Rect(0, 0, 60, 40))
	for y := range 40 {
		for x := range 60 {
			picture.Set(x, y, map[bool]color.Color{true: color.RGBA{255, 0, 0, 255},
				false: color.RGBA{0, 0, 255, 255}}[y < 20])
		}
	}
	var out bytes.Buffer
	require.NoError(t, jpeg.Encode(&out, picture, nil))
	tiff := []byte("MM\x00*\x00\x00\x00\x08\x00\x01\x01\x12\x00\x03\x00\x00\x00\x01\x00\x06\x00\x00\x00\x00\x00\x00SECRETPLACE")
	body := append([]byte("Exif\x00\x00"), tiff...)
	segment := binary.BigEndian.AppendUint16([]byte{0xFF, 0xE1}, uint16(len(body)+2))
	whole := append([]byte{0xFF, 0xD8}, append(append(segment, body...), out.Bytes()[2:]...)...)
	return whole
}

// claims is a PNG that claims to be so large, and holds nothing.
func claims(width, height uint32) []byte {
	head := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32([]byte("IHDR"), width), height)
	head = append(head, 8, 2, 0, 0, 0)
	out := append([]byte("\x89PNG\r\n\x1a\n"), 0, 0, 0, 13)
	return binary.BigEndian.AppendUint32(append(out, head...), crc32.ChecksumIEEE(head))
}

func TestAPhotographIsKeptUprightAndBare(t *testing.T) {
	d := withJob(t).begun()
	answer := d.ok("POST", "/api/v1/jobs/job-0001/photos", string(sideways(t)))
	hash := answer["hash"].(string)
	status, data := d.send("GET", "/api/v1/photos/"+hash, "")
	require.Equal(t, http.StatusOK, status)
	assert.NotContains(t, data, "SECRETPLACE", "the metadata is taken out")
	assert.NotContains(t, data, "Exif")
	kept, err := jpeg.Decode(strings.NewReader(data))
	require.NoError(t, err)
	assert.Equal(t, image.Rect(0, 0, 40, 60), kept.Bounds(), "upright")
	r, _, b, _ := kept.At(35, 30).RGBA()
	assert.Greater(t, r, b, "what was above lies to the right")
	again := d.ok("POST", "/api/v1/jobs/job-0001/photos", string(sideways(t)))
	assert.Equal(t, hash, again["hash"], "the same picture is kept once")

	large := image.NewGray(image.Rect(0, 0, 3000, 2000))
	var out bytes.Buffer
	require.NoError(t, png.Encode(&out, large))
	answer = d.ok("POST", "/api/v1/jobs/job-0001/photos", out.String())
	_, data = d.send("GET", "/api/v1/photos/"+answer["hash"].(string), "")
	kept, err = jpeg.Decode(strings.NewReader(data))
	require.NoError(t, err)
	assert.Equal(t, 1600, kept.Bounds().Dx())

	s := d.happen(10, `"kind":"finding","finding":"f1","place":"cover","what":"corroded","photo":"`+hash+`"`)
	finding, err := json.Marshal(s["findings"].([]any)[0])
	require.NoError(t, err)
	assert.Contains(t, string(finding), hash)
	status, text := d.send("GET", "/api/v1/jobs/job-0001/report.pdf", "")
	require.Equal(t, http.StatusOK, status)
	assert.Contains(t, text, "/DCTDecode", "the picture stands in the report")

	// out and in with everything else
	_, archive := d.send("GET", "/api/v1/archive.zip", "")
	to := opened(t)
	to.ok("POST", "/api/v1/archive", archive)
	status, _ = to.send("GET", "/api/v1/photos/"+hash, "")
	assert.Equal(t, http.StatusOK, status)
}

func TestWhatIsNoPhotograph(t *testing.T) {
	d := withJob(t)
	whole := sideways(t)
	for says, data := range map[string]string{"This is no photograph": "<svg onload=alert(1)>",
		"over 50 million":         string(claims(10_000, 10_000)),
		"cut short or is damaged": string(whole[:len(whole)-30])} {
		status, text := d.send("POST", "/api/v1/jobs/job-0001/photos", data)
		assert.Equal(t, http.StatusUnprocessableEntity, status, says)
		assert.Contains(t, text, says)
		assert.Contains(t, text, "Nothing was kept")
	}
	status, _ := d.send("POST", "/api/v1/jobs/no-such-job/photos", string(whole))
	assert.Equal(t, http.StatusNotFound, status)
	status, _ = d.send("GET", "/api/v1/photos/..%2f..%2fetc", "")
	assert.GreaterOrEqual(t, status, 400)
}
