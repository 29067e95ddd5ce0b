package api_test

import (
	"bytes"
	"encoding/binary"
	"encoding/json"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"math/rand/v2"
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
	tiff := []byte(
		"MM\x00*\x00\x00\x00\x08\x00\x01\x01\x12\x00\x03\x00\x00\x00\x01\x00\x06\x00\x00\x00\x00\x00\x00SECRETPLACE",
	)
	body := append([]byte("Exif\x00\x00"), tiff...)
	segment := binary.BigEndian.AppendUint16([]byte{0xFF, 0xE1}, uint16(len(body)+2))
	whole := append([]byte{0xFF, 0xD8}, append(append(segment, body...), out.Bytes()[2:]...)...)
	return whole
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

	// over a mebibyte, as every telephone's is
	large := image.NewRGBA(image.Rect(0, 0, 700, 520))
	chance := rand.New(rand.NewPCG(1, 1))
	for i := range large.Pix {
		large.Pix[i] = byte(chance.Uint32()) | 0x80*byte(i&3/3)
	}
	var out bytes.Buffer
	require.NoError(t, png.Encode(&out, large))
	require.Greater(t, out.Len(), 1<<20)
	d.ok("POST", "/api/v1/jobs/job-0001/photos", out.String())

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
		"HEIC picture":            "\x00\x00\x00\x18ftypheic\x00\x00\x00\x00mif1heic",
		"cut short or is damaged": string(whole[:len(whole)-30])} {
		status, text := d.send("POST", "/api/v1/jobs/job-0001/photos", data)
		assert.Equal(t, http.StatusUnprocessableEntity, status, says)
		assert.Contains(t, text, says)
		assert.Contains(t, text, "Nothing was kept")
	}
	status, text := d.send("POST", "/api/v1/jobs/job-0001/photos", strings.Repeat("x", 17<<20))
	assert.Equal(t, http.StatusRequestEntityTooLarge, status)
	assert.Contains(t, text, "16 MiB")
	for _, none := range []string{"\x00\x00\x00\x18ftypheic\x00\x00\x00\x00mif1heic",
		"\x1a\x45\xdf\xa3\x01\x00\x00\x00\x00\x00\x00\x23\x42\x86\x81\x01\x42\x82\x88matroska"} {
		status, text := d.send("POST", "/api/v1/jobs/job-0001/sounds", none)
		assert.Equal(t, http.StatusUnprocessableEntity, status, text)
	}
	recording := "OggS" + strings.Repeat("\x01", 3<<20)
	d.ok("POST", "/api/v1/jobs/job-0001/sounds", recording)
	status, _ = d.send("POST", "/api/v1/jobs/no-such-job/photos", string(whole))
	assert.Equal(t, http.StatusNotFound, status)
	status, _ = d.send("GET", "/api/v1/photos/..%2f..%2fetc", "")
	assert.GreaterOrEqual(t, status, 400)
}
