package photo

import (
	"bytes"
	"compress/zlib"
	"encoding/binary"
	"io"
)

// ofPNG reckons what a PNG unpacks to, bytes, from its header (ISO/IEC 15948, 11.2.2), and reads it to its
// end in little memory: whole is false where it holds less than it says, or has no end.
func ofPNG(data []byte) (size int, whole bool) {
	const signature, header = 8, 8
	if len(data) < signature+header+13 {
		return 0, false
	}
	head := data[signature+header:]
	w, h := int(binary.BigEndian.Uint32(head)), int(binary.BigEndian.Uint32(head[4:]))
	depth, colour, interlaced := int(head[8]), head[9], head[12] != 0
	samples := map[byte]int{0: 1, 2: 3, 3: 1, 4: 2, 6: 4}[colour]
	points := map[byte]int{0: 1, 2: 4, 3: 1, 4: 4, 6: 4}[colour] // bytes a point has once it is unpacked
	if depth == 16 {
		points *= 2
	}
	if size = w * h * points; interlaced {
		size *= 2 // its passes, and what they make
	}
	if size > MostUnpacks {
		return size, true
	}
	packed, ended := chunks(data[signature:])
	unpacked, err := zlib.NewReader(packed)
	if err != nil || !ended {
		return size, false
	}
	n, err := io.Copy(io.Discard, io.LimitReader(unpacked, 2*MostUnpacks))
	return size, err == nil && n >= int64(h)*int64((w*samples*depth+7)/8)
}

// chunks are the parts of a PNG's packed points, one after the other, and whether its end is there.
func chunks(data []byte) (packed io.Reader, ended bool) {
	var parts []io.Reader
	for len(data) >= 12 {
		n := int(binary.BigEndian.Uint32(data))
		if n > len(data)-12 {
			break
		}
		switch kind := string(data[4:8]); kind {
		case "IDAT":
			parts = append(parts, bytes.NewReader(data[8:8+n]))
		case "IEND":
			ended = true
		}
		data = data[12+n:]
	}
	return io.MultiReader(parts...), ended
}
