package photo_test

import (
	"bytes"
	"context"
	"encoding/binary"
	"fmt"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"math/rand/v2"
	"os"
	"os/exec"
	"runtime"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/photo"
)

// noise is a photograph at its true size, no two points alike, as a telephone's camera makes it: 4:2:0,
// baseline.
func noise(t testing.TB, width, height, quality int) []byte {
	t.Helper()
	chance := rand.New(rand.NewPCG(uint64(width), uint64(height)))
	picture := image.NewYCbCr(image.Rect(0, 0, width, height), image.YCbCrSubsampleRatio420)
	for i := range picture.Y {
		picture.Y[i] = byte(i/97) + byte(chance.Uint32()&31)
	}
	for i := range picture.Cb {
		picture.Cb[i], picture.Cr[i] = byte(i/131), byte(i/71)
	}
	var out bytes.Buffer
	require.NoError(t, jpeg.Encode(&out, picture, &jpeg.Options{Quality: quality}))
	return out.Bytes()
}

// Photographs of usual telephones are kept: 12, 24 and 50 megapixels, up to 16 MB.
func TestTelephonesPhotographs(t *testing.T) {
	for _, size := range [][3]int{{4000, 3000, 80}, {6000, 4000, 70}, {8160, 6120, 40}} {
		name := fmt.Sprintf("%d × %d", size[0], size[1])
		data := noise(t, size[0], size[1], size[2])
		require.Greater(t, len(data), 1<<20, name)
		require.LessOrEqual(t, len(data), photo.MaxBytes, name)
		kept, why, err := photo.Keep(context.Background(), data)
		require.NoError(t, err)
		require.Empty(t, why, name)
		small, err := jpeg.DecodeConfig(bytes.NewReader(kept))
		require.NoError(t, err)
		assert.Equal(t, photo.LongestSide, small.Width, name)
		assert.Equal(t, photo.LongestSide*size[1]/size[0], small.Height, name)
	}
}

// One that is accepted takes at most three seconds; make bench tells.
func BenchmarkFiftyMegapixels(b *testing.B) {
	data := noise(b, 8160, 6120, 40)
	for b.Loop() {
		_, why, err := photo.Keep(context.Background(), data)
		require.NoError(b, err)
		require.Empty(b, why)
	}
}

// pngThat is a PNG whose header claims a size, with so many packed bytes of nothing, and an end.
func pngThat(claims [2]uint32, depth, colour, interlaced byte, idat []byte) []byte {
	out := []byte("\x89PNG\r\n\x1a\n")
	chunk := func(kind string, body []byte) {
		out = binary.BigEndian.AppendUint32(out, uint32(len(body)))
		named := append([]byte(kind), body...)
		out = binary.BigEndian.AppendUint32(append(out, named...), crc32.ChecksumIEEE(named))
	}
	head := binary.BigEndian.AppendUint32(binary.BigEndian.AppendUint32(nil, claims[0]), claims[1])
	chunk("IHDR", append(head, depth, colour, 0, 0, interlaced))
	chunk("IDAT", idat)
	chunk("IEND", nil)
	return out
}

// bombs are pictures whose headers claim more than they hold, or that unpack to more than there is room for.
func bombs(t testing.TB) map[string][]byte {
	var flat bytes.Buffer // 7000 × 7000 in 16 bits a sample, all one colour: small, and 392 MB once unpacked
	require.NoError(t, png.Encode(&flat, uniform{image.Rect(0, 0, 7000, 7000)}))
	cut := noise(t, 4000, 3000, 80)
	return map[string][]byte{
		"a side is at most":       pngThat([2]uint32{50_000_000, 1}, 8, 2, 0, nil),
		"a side is at most 12000": pngThat([2]uint32{1, 49_999_999}, 8, 6, 0, nil),
		"unpacks to 392 MB":       flat.Bytes(),
		"cut short or is damaged": pngThat(
			[2]uint32{6000, 6000},
			8,
			2,
			0,
			[]byte("\x78\x9c\x03\x00\x00\x00\x00\x01"),
		),
		"unpacks to 288 MB":        pngThat([2]uint32{6000, 6000}, 8, 2, 1, nil),
		"cut short or is damaged:": cut[:len(cut)-2000],
		"HEIC picture": []byte(
			"\x00\x00\x00\x18ftypheic\x00\x00\x00\x00mif1heic" + strings.Repeat("x", 100),
		),
		"This is no photograph": []byte("<svg onload=alert(1)>"),
	}
}

// uniform is a picture of one colour, 16 bits a sample.
type uniform struct{ image.Rectangle }

func (u uniform) Bounds() image.Rectangle { return u.Rectangle }
func (uniform) ColorModel() color.Model   { return color.NRGBA64Model }
func (uniform) At(int, int) color.Color   { return color.NRGBA64{1000, 2000, 3000, 65535} }

func TestWhatIsRefusedIsToldWhy(t *testing.T) {
	for says, data := range bombs(t) {
		_, why, err := photo.Keep(context.Background(), data)
		require.NoError(t, err)
		assert.Contains(t, why, says)
		assert.Contains(t, why, "Nothing was kept")
	}
	// a progressive JPEG gathers its coefficients first: the header alone says so
	progressive := noise(t, 8160, 6120, 20)
	at := bytes.Index(progressive, []byte{0xFF, 0xC0})
	progressive[at+1] = 0xC2
	_, why, _ := photo.Keep(context.Background(), progressive)
	assert.Contains(t, why, "unpacks to 374 MB")
}

// What is refused needs at most 50 MB beyond what was in use: measured in a process of its own.
func TestWhatIsRefusedCostsLittle(t *testing.T) {
	if os.Getenv("METRONIX_PHOTO_CHILD") != "" {
		list := bombs(t)
		runtime.GC()
		before := peak(t)
		for _, data := range list {
			_, why, _ := photo.Keep(context.Background(), data)
			require.NotEmpty(t, why)
		}
		fmt.Printf("grew %d\n", peak(t)-before)
		return
	}
	child := exec.Command(os.Args[0], "-test.run", "TestWhatIsRefusedCostsLittle")
	child.Env = append(os.Environ(), "METRONIX_PHOTO_CHILD=1")
	out, err := child.Output()
	require.NoError(t, err, string(out))
	var grew int
	_, err = fmt.Sscanf(string(out), "grew %d", &grew)
	require.NoError(t, err, string(out))
	assert.LessOrEqual(t, grew, 50<<10, "kB")
}

// peak is the most memory that this process had so far, kB (getrusage(2)).
func peak(t *testing.T) int {
	t.Helper()
	var u syscall.Rusage
	require.NoError(t, syscall.Getrusage(syscall.RUSAGE_SELF, &u))
	return int(u.Maxrss)
}

// Whoever left is not worked for.
func TestWhoeverLeft(t *testing.T) {
	ctx, cancel := context.WithCancel(context.Background())
	cancel()
	_, _, err := photo.Keep(ctx, noise(t, 400, 300, 80))
	assert.ErrorIs(t, err, context.Canceled)
	slow, stop := context.WithTimeout(context.Background(), time.Millisecond)
	defer stop()
	_, _, err = photo.Keep(slow, noise(t, 4000, 3000, 80))
	assert.ErrorIs(t, err, context.DeadlineExceeded)
}

// All eight ways in which a picture may lie (EXIF 2.3, tag 0x0112): the corner that is red as it is stored
// comes to where the standard says. Orientation 6: the stored top row is the right side.
func TestEveryOrientationIsTurnedUpright(t *testing.T) {
	for lies, corner := range map[int][2]int{1: {0, 0}, 2: {1, 0}, 3: {1, 1}, 4: {0, 1}, 5: {0, 0}, 6: {1, 0},
		7: {1, 1}, 8: {0, 1}} {
		picture := image.NewRGBA(image.Rect(0, 0, 64, 32))
		for y := range 32 {
			for x := range 64 {
				c := color.RGBA{0, 0, 255, 255}
				if x < 16 && y < 16 {
					c = color.RGBA{255, 0, 0, 255}
				}
				picture.Set(x, y, c)
			}
		}
		var out bytes.Buffer
		require.NoError(t, jpeg.Encode(&out, picture, nil))
		tiff := []byte(
			"II*\x00\x08\x00\x00\x00\x01\x00\x12\x01\x03\x00\x01\x00\x00\x00" + string(
				rune(lies),
			) + "\x00\x00\x00",
		)
		body := append([]byte("Exif\x00\x00"), tiff...)
		segment := binary.BigEndian.AppendUint16([]byte{0xFF, 0xE1}, uint16(len(body)+2))
		whole := append([]byte{0xFF, 0xD8}, append(append(segment, body...), out.Bytes()[2:]...)...)
		kept, why, err := photo.Keep(context.Background(), whole)
		require.NoError(t, err)
		require.Empty(t, why)
		got, err := jpeg.Decode(bytes.NewReader(kept))
		require.NoError(t, err)
		b := got.Bounds()
		assert.Equal(t, lies >= 5, b.Dy() > b.Dx(), lies)
		r, _, blue, _ := got.At(corner[0]*(b.Dx()-5)+2, corner[1]*(b.Dy()-5)+2).RGBA()
		assert.Greater(t, r, blue, "orientation %d", lies)
	}
}
