// Package photo makes a photograph as a telephone takes it into one as it is kept: JPEG, upright, no side
// longer than LongestSide, without a word of metadata.
//
// What comes is not trusted. How much a picture unpacks to is reckoned from its header before anything is
// unpacked, a PNG is read to its end in little memory first, and a JPEG without an end is refused unread.
package photo

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/jpeg"
	_ "image/png" // a photograph may be a PNG
	"io"

	"golang.org/x/image/draw"
)

// Bounds of a photograph: as it is sent, as it unpacks, and as it is kept.
const (
	MaxBytes    = 16 << 20
	MostUnpacks = 200_000_000 // bytes
	MostSide    = 12_000
	LongestSide = 1600
	quality     = 82
)

// seat lets one picture be unpacked at a time, so that many at once need no more memory than one.
var seat = make(chan struct{}, 1)

// Keep makes a photograph as it is kept. why says in a sentence what is wrong with what cannot be one, and
// what to do. It errs where ctx ends, because whoever sent it left.
func Keep(ctx context.Context, data []byte) (kept []byte, why string, err error) {
	if why := refused(data); why != "" {
		return nil, why + " Nothing was kept.", nil
	}
	select {
	case seat <- struct{}{}:
		defer func() { <-seat }()
	case <-ctx.Done():
		return nil, "", ctx.Err()
	}
	picture, _, err := image.Decode(whileWanted{ctx, bytes.NewReader(data)})
	switch {
	case ctx.Err() != nil:
		return nil, "", ctx.Err()
	case err != nil:
		return nil, cutShort + " Nothing was kept.", nil
	}
	small := upright(shrunk(picture), orientation(data))
	var out bytes.Buffer
	if err := jpeg.Encode(&out, small, &jpeg.Options{Quality: quality}); err != nil {
		return nil, "", err
	}
	return out.Bytes(), "", ctx.Err()
}

// whileWanted reads until whoever asked for it has left.
type whileWanted struct {
	ctx  context.Context
	from io.Reader
}

// Read stops where nobody waits for the picture any more.
func (w whileWanted) Read(p []byte) (int, error) {
	if err := w.ctx.Err(); err != nil {
		return 0, err
	}
	return w.from.Read(p)
}

// cutShort is said of a picture that ends too early.
const cutShort = "This picture was cut short or is damaged: it cannot be read to its end. Send it again."

// refused says what is wrong with a picture as far as can be told without unpacking it; empty: nothing.
func refused(data []byte) string {
	if IsHEIF(data) {
		return "This is an HEIC picture, which is not read here. Set the camera to JPEG (on some telephones: " +
			"most " +
			"compatible), or save it as JPEG first."
	}
	config, format, err := image.DecodeConfig(bytes.NewReader(data))
	switch {
	case err != nil || format != "jpeg" && format != "png":
		return "This is no photograph: a JPEG or PNG picture is expected."
	case config.Width <= 0 || config.Height <= 0:
		return "This picture has no points."
	case max(config.Width, config.Height) > MostSide:
		return fmt.Sprintf(
			"This picture has %d × %d points: a side is at most %d. Take it smaller.",
			config.Width,
			config.Height,
			MostSide,
		)
	}
	size, whole := ofJPEG(data)
	if format == "png" {
		size, whole = ofPNG(data)
	}
	switch {
	case size > MostUnpacks:
		return fmt.Sprintf("This picture of %d × %d points unpacks to %d MB: at most %d. Take it smaller.",
			config.Width, config.Height, size/1_000_000, MostUnpacks/1_000_000)
	case !whole:
		return cutShort
	}
	return ""
}

// Kept says what is wrong with a photograph that is said to be one as it is kept; empty: nothing is.
func Kept(data []byte) string {
	config, err := jpeg.DecodeConfig(bytes.NewReader(data))
	if err != nil {
		return "it is no JPEG"
	}
	if max(config.Width, config.Height) > LongestSide {
		return fmt.Sprintf(
			"it is %d × %d points large, and no side is longer than %d",
			config.Width,
			config.Height,
			LongestSide,
		)
	}
	return refused(data)
}

// IsHEIF tells a HEIF picture by the brand in its file type box (ISO/IEC 14496-12 and 23008-12, from memory).
func IsHEIF(data []byte) bool {
	if len(data) < 12 || string(data[4:8]) != "ftyp" {
		return false
	}
	switch string(data[8:12]) {
	case "heic", "heix", "heim", "heis", "hevc", "hevx", "mif1", "msf1", "avif", "avis":
		return true
	}
	return false
}

// shrunk is a picture with no side longer than LongestSide: halved as often as that leaves it no smaller,
// each point the mean of four, then brought to size.
func shrunk(picture image.Image) image.Image {
	for {
		b := picture.Bounds()
		if max(b.Dx(), b.Dy()) < 2*LongestSide {
			break
		}
		half := image.NewRGBA(image.Rect(0, 0, max(1, b.Dx()/2), max(1, b.Dy()/2)))
		draw.ApproxBiLinear.Scale(half, half.Bounds(), picture, b, draw.Src, nil)
		picture = half
	}
	b := picture.Bounds()
	w, h := b.Dx(), b.Dy()
	if long := max(w, h); long > LongestSide {
		w, h = max(1, w*LongestSide/long), max(1, h*LongestSide/long)
	}
	small := image.NewRGBA(image.Rect(0, 0, w, h))
	draw.Draw(small, small.Bounds(), image.White, image.Point{}, draw.Src) // what is seen through is white
	draw.CatmullRom.Scale(small, small.Bounds(), picture, b, draw.Over, nil)
	return small
}
