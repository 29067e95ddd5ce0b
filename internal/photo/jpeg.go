package photo

import (
	"bytes"
	"encoding/binary"
	"image"

	"golang.org/x/image/draw"
	"golang.org/x/image/math/f64"
)

// The markers of a JPEG that are looked for (ITU-T T.81, table B.1).
const (
	startOfScan = 0xDA
	appOne      = 0xE1
	baseline    = 0xC0
	progressive = 0xC2
)

// segments goes through the segments of a JPEG up to its first scan: each with its marker and what is in it.
func segments(data []byte, each func(marker byte, body []byte)) (scan int) {
	for at := 2; at+4 <= len(data) && data[at] == 0xFF; {
		marker, n := data[at+1], int(binary.BigEndian.Uint16(data[at+2:]))
		if marker == 0xFF { // a fill byte
			at++
			continue
		}
		if n < 2 || at+2+n > len(data) {
			return -1
		}
		each(marker, data[at+4:at+2+n])
		if marker == startOfScan {
			return at + 2 + n
		}
		at += 2 + n
	}
	return -1
}

// ofJPEG reckons what a JPEG unpacks to, bytes, from its frame header (ITU-T T.81, B.2.2): a sample a byte,
// and for a progressive one, whose coefficients are gathered before any point is known, four bytes more for
// each. whole is false where it has no end.
func ofJPEG(data []byte) (size int, whole bool) {
	scan := segments(data, func(marker byte, body []byte) {
		if marker < baseline || marker > progressive || len(body) < 6 {
			return
		}
		h, w, n := int(
			binary.BigEndian.Uint16(body[1:]),
		), int(
			binary.BigEndian.Uint16(body[3:]),
		), int(
			body[5],
		)
		most, samples := 1, 0
		for i := range n {
			if 6+3*i+1 < len(body) {
				most = max(most, int(body[7+3*i]>>4)*int(body[7+3*i]&15))
			}
		}
		for i := range n {
			if 6+3*i+1 < len(body) {
				samples += w * h * int(body[7+3*i]>>4) * int(body[7+3*i]&15) / most
			}
		}
		if size = samples; marker == progressive {
			size = 5 * samples
		}
	})
	// no such pair stands within a scan, where 0xFF is followed by a nought (B.1.1.5)
	return size, scan > 0 && bytes.Contains(data[scan:], []byte{0xFF, 0xD9})
}

// orientation is how a JPEG's metadata say that it lies, 1 to 8 (EXIF 2.3, tag 0x0112); 1: upright, or not
// said.
func orientation(data []byte) int {
	lies := 1
	if len(data) < 4 || data[0] != 0xFF || data[1] != 0xD8 {
		return lies
	}
	segments(data, func(marker byte, body []byte) {
		if tiff, ok := bytes.CutPrefix(body, []byte("Exif\x00\x00")); marker == appOne && ok {
			if o := orientationIn(tiff); o >= 1 && o <= 8 {
				lies = o
			}
		}
	})
	return lies
}

// orientationIn looks through the first directory of a TIFF header (TIFF 6.0, section 2).
func orientationIn(tiff []byte) int {
	if len(tiff) < 8 {
		return 0
	}
	order := binary.ByteOrder(binary.BigEndian)
	if tiff[0] == 'I' {
		order = binary.LittleEndian
	}
	at := int(order.Uint32(tiff[4:]))
	if at < 8 || at+2 > len(tiff) {
		return 0
	}
	for i := range int(order.Uint16(tiff[at:])) {
		entry := at + 2 + 12*i
		if entry+12 > len(tiff) {
			return 0
		}
		if order.Uint16(tiff[entry:]) == 0x0112 {
			return int(order.Uint16(tiff[entry+8:]))
		}
	}
	return 0
}

// upright turns a picture as its orientation says: each is where the picture's right and down lie when it is
// upright.
func upright(picture image.Image, lies int) image.Image {
	b := picture.Bounds()
	w, h := float64(b.Dx()), float64(b.Dy())
	to := map[int]f64.Aff3{
		2: {-1, 0, w, 0, 1, 0}, 3: {-1, 0, w, 0, -1, h}, 4: {1, 0, 0, 0, -1, h},
		5: {0, 1, 0, 1, 0, 0}, 6: {0, -1, h, 1, 0, 0}, 7: {0, -1, h, -1, 0, w}, 8: {0, 1, 0, -1, 0, w},
	}
	turn, ok := to[lies]
	if !ok {
		return picture
	}
	out := image.NewRGBA(b)
	if lies >= 5 {
		out = image.NewRGBA(image.Rect(0, 0, b.Dy(), b.Dx()))
	}
	draw.NearestNeighbor.Transform(out, turn, picture, b, draw.Src, nil)
	return out
}
