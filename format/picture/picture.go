// Package picture takes photos in: a JPEG, PNG or WebP file becomes a JPEG of at most Longest pixels along
// its longer edge, turned the right way up, with nothing in it but the picture. Where and when it was taken,
// and with what, is not kept.
//
// Source: the orientation of a photo after EXIF 2.32 (tag 0x0112) in a TIFF 6.0 directory.
package picture

import (
	"bytes"
	"errors"
	"fmt"
	"image"
	"image/jpeg"
	_ "image/png" // read

	"golang.org/x/image/draw"
	_ "golang.org/x/image/webp" // read
)

// What is taken in, and what is kept.
const (
	LargestBytes = 40 << 20   // of a file
	MostPixels   = 50_000_000 // of a photo, by its header
	Longest      = 1400       // edge of what is kept, in pixels
	quality      = 80
)

// Picture is a photo as it is kept.
type Picture struct {
	JPEG []byte
	Wide int // in pixels
	High int
}

// Take reads a photo. It fails where the file is no photo of a kind that is read, is damaged or has more than
// MostPixels: that its header says, before any of it is unpacked.
func Take(file []byte) (p Picture, err error) {
	if len(file) > LargestBytes {
		return p, fmt.Errorf("the file is larger than %d MiB", LargestBytes>>20)
	}
	head, kind, err := image.DecodeConfig(bytes.NewReader(file))
	switch {
	case errors.Is(err, image.ErrFormat):
		return p, errors.New("it is no photo that can be read: JPEG, PNG or WebP are expected")
	case err != nil:
		return p, fmt.Errorf("its header is damaged: %w", err)
	case head.Width < 1 || head.Height < 1:
		return p, fmt.Errorf("its header says %d × %d pixels", head.Width, head.Height)
	case int64(head.Width)*int64(head.Height) > MostPixels:
		return p, fmt.Errorf("its header says %d × %d pixels: more than %d megapixels are not taken", head.Width,
			head.Height, MostPixels/1_000_000)
	}
	whole, _, err := image.Decode(bytes.NewReader(file))
	if err != nil {
		return p, fmt.Errorf("it is damaged or cut short: %w", err)
	}
	turn := upright
	if kind == "jpeg" {
		turn = orientation(file)
	}
	kept := turned(shrunk(whole), turn)
	var out bytes.Buffer
	if err := jpeg.Encode(&out, kept, &jpeg.Options{Quality: quality}); err != nil {
		return p, fmt.Errorf("writing it as JPEG: %w", err)
	}
	return Picture{out.Bytes(), kept.Rect.Dx(), kept.Rect.Dy()}, nil
}

// shrunk is a picture no larger than is kept, on white where it is see-through.
func shrunk(whole image.Image) *image.RGBA {
	from := whole.Bounds()
	wide, high := from.Dx(), from.Dy()
	if longer := max(wide, high); longer > Longest {
		wide, high = max(1, wide*Longest/longer), max(1, high*Longest/longer)
	}
	to := image.NewRGBA(image.Rect(0, 0, wide, high))
	draw.Draw(to, to.Rect, image.White, image.Point{}, draw.Src)
	draw.ApproxBiLinear.Scale(to, to.Rect, whole, from, draw.Over, nil)
	return to
}
