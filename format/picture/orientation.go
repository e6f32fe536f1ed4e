package picture

import (
	"bytes"
	"encoding/binary"
	"image"
)

// upright is the orientation of a photo that lies as it is seen. The eight there are say where its first row
// and its first column lie: 1 top and left, 2 top and right, 3 bottom and right, 4 bottom and left, 5 left
// and top, 6 right and top, 7 right and bottom, 8 left and bottom.
const upright = 1

// orientation is what a JPEG file says of how its photo lies; upright where it says nothing that is known.
func orientation(file []byte) int {
	const start, scan, app1 = 0xD8, 0xDA, 0xE1
	if len(file) < 4 || file[0] != 0xFF || file[1] != start {
		return upright
	}
	for rest := file[2:]; len(rest) >= 4 && rest[0] == 0xFF && rest[1] != scan; {
		if rest[1] == 0xFF { // a fill byte
			rest = rest[1:]
			continue
		}
		long := int(binary.BigEndian.Uint16(rest[2:]))
		if long < 2 || 2+long > len(rest) {
			return upright
		}
		if tiff, ok := bytes.CutPrefix(rest[4:2+long], []byte("Exif\x00\x00")); ok && rest[1] == app1 {
			return inTIFF(tiff)
		}
		rest = rest[2+long:]
	}
	return upright
}

// inTIFF is the orientation in the first directory of a TIFF file.
func inTIFF(file []byte) int {
	if len(file) < 8 {
		return upright
	}
	var order binary.ByteOrder = binary.LittleEndian
	if string(file[:2]) == "MM" {
		order = binary.BigEndian
	}
	const entryBytes, tag, short = 12, 0x0112, 3
	at := uint64(order.Uint32(file[4:]))
	if at+2 > uint64(len(file)) {
		return upright
	}
	entries := file[at+2:]
	for range order.Uint16(file[at:]) {
		if len(entries) < entryBytes {
			return upright
		}
		if order.Uint16(entries) == tag && order.Uint16(entries[2:]) == short {
			if is := int(order.Uint16(entries[8:])); is >= 1 && is <= 8 {
				return is
			}
			return upright
		}
		entries = entries[entryBytes:]
	}
	return upright
}

// turned is a picture as it is seen, by its orientation.
func turned(p *image.RGBA, orientation int) *image.RGBA {
	if orientation == upright {
		return p
	}
	wide, high := p.Rect.Dx(), p.Rect.Dy()
	size := image.Rect(0, 0, wide, high)
	if orientation >= 5 {
		size = image.Rect(0, 0, high, wide)
	}
	out := image.NewRGBA(size)
	for y := range high {
		for x := range wide {
			left, top := wide-1-x, high-1-y
			at := [...]image.Point{2: {left, y}, 3: {left, top}, 4: {x, top}, 5: {y, x}, 6: {top, x}, 7: {top, left},
				8: {y, left}}[orientation]
			copy(out.Pix[out.PixOffset(at.X, at.Y):], p.Pix[p.PixOffset(x, y):][:4])
		}
	}
	return out
}
