package demo

import (
	"bytes"
	"image"
	"image/color"
	"image/draw"
	"image/jpeg"
	"math"
	"slices"

	"golang.org/x/image/vector"
)

// Colours of the drawn photograph.
var (
	benchWood = color.RGBA{0x6b, 0x5a, 0x48, 0xff}
	rubber    = color.RGBA{0x23, 0x25, 0x27, 0xff}
	worn      = color.RGBA{0x3a, 0x3d, 0x40, 0xff}
	chalk     = color.RGBA{0xf2, 0xea, 0xd8, 0xff}
)

// splitGasket is a photograph that never was: a cover gasket on a bench, split at a corner, with a ring of
// chalk around the place. It is drawn here, on a field of 1600 by 1200 that is kept at two fifths of that.
func splitGasket() ([]byte, error) {
	const scale, width, height = 0.4, 640, 480
	img := image.NewRGBA(image.Rect(0, 0, width, height))
	draw.Draw(img, img.Bounds(), image.NewUniform(benchWood), image.Point{}, draw.Src)
	for y := 0; y < height; y += 3 { // the grain
		shade := uint8(8 * (1 + math.Sin(float64(y)/47) + math.Sin(float64(y)/9)/3))
		draw.Draw(
			img,
			image.Rect(0, y, width, y+1),
			image.NewUniform(color.RGBA{shade, shade, shade, 0x30}),
			image.Point{},
			draw.Over,
		)
	}
	fill := func(c color.Color, lines ...[][2]float32) {
		r := vector.NewRasterizer(width, height)
		for _, line := range lines {
			r.MoveTo(scale*line[0][0], scale*line[0][1])
			for _, p := range line[1:] {
				r.LineTo(scale*p[0], scale*p[1])
			}
			r.ClosePath()
		}
		r.Draw(img, img.Bounds(), image.NewUniform(c), image.Point{})
	}
	fill(
		color.RGBA{0, 0, 0, 0x50},
		rounded(188, 308, 1236, 612, 120, false),
		rounded(254, 374, 1104, 480, 70, true),
	)
	fill(rubber, rounded(170, 285, 1236, 612, 120, false), rounded(236, 351, 1104, 480, 70, true))
	fill(worn, rounded(184, 299, 1208, 584, 108, false), rounded(222, 337, 1132, 508, 82, true))
	for _, hole := range [][2]float32{{330, 318}, {790, 318}, {1250, 318}, {330, 864}, {790, 864}, {1250, 864}} {
		fill(rubber, circle(hole[0], hole[1], 40, false))
		fill(benchWood, circle(hole[0], hole[1], 19, false))
	}
	fill(
		benchWood,
		[][2]float32{
			{1408, 742},
			{1346, 764},
			{1371, 771},
			{1330, 792},
			{1362, 789},
			{1346, 806},
			{1410, 768},
		},
	)
	fill(chalk, circle(1368, 772, 128, false), circle(1368, 772, 117, true))
	var out bytes.Buffer
	err := jpeg.Encode(&out, img, &jpeg.Options{Quality: 85})
	return out.Bytes(), err
}

// arc is a part of a circle in short lines, from one angle to another, in quarters of a turn.
func arc(x, y, r float32, from, to float64) (line [][2]float32) {
	parts := 24 * math.Abs(to-from)
	for i := 0.0; i <= parts; i++ {
		at := (from + (to-from)*i/parts) * math.Pi / 2
		line = append(line, [2]float32{x + r*float32(math.Cos(at)), y + r*float32(math.Sin(at))})
	}
	return line
}

// circle is one, or the hole of one: drawn the other way.
func circle(x, y, r float32, hole bool) [][2]float32 {
	if hole {
		return arc(x, y, r, 4, 0)
	}
	return arc(x, y, r, 0, 4)
}

// rounded is a rectangle with round corners, or the hole of one.
func rounded(x, y, w, h, r float32, hole bool) (line [][2]float32) {
	for i, c := range [][2]float32{{x + w - r, y + h - r}, {x + r, y + h - r}, {x + r, y + r}, {x + w - r, y + r}} {
		line = append(line, arc(c[0], c[1], r, float64(i), float64(i+1))...)
	}
	if hole {
		slices.Reverse(line)
	}
	return line
}
