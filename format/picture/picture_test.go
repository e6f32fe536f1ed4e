package picture_test

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"hash/crc32"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/format/picture"
)

// corners is a picture whose quarters are red, green, blue and white, from the top left on to the right.
func corners(wide, high int) *image.RGBA {
	p := image.NewRGBA(image.Rect(0, 0, wide, high))
	quarters := [2][2]color.RGBA{{{255, 0, 0, 255}, {0, 255, 0, 255}}, {{0, 0, 255, 255}, {255, 255, 255, 255}}}
	for y := range high {
		for x := range wide {
			p.SetRGBA(x, y, quarters[2*y/high][2*x/wide])
		}
	}
	return p
}

func asJPEG(t testing.TB, p image.Image) []byte {
	var out bytes.Buffer
	require.NoError(t, jpeg.Encode(&out, p, &jpeg.Options{Quality: 95}))
	return out.Bytes()
}

// exif is a JPEG file with what cameras write into it: how it lies, where it was taken and when.
func exif(file []byte, orientation uint16, order binary.AppendByteOrder, mark string) []byte {
	tiff := []byte(mark)
	tiff = order.AppendUint16(tiff, 42)
	tiff = order.AppendUint32(tiff, 8)
	tiff = order.AppendUint16(tiff, 2)
	entry := func(tag, kind uint16, count uint32, value uint16) {
		tiff = order.AppendUint16(tiff, tag)
		tiff = order.AppendUint16(tiff, kind)
		tiff = order.AppendUint32(tiff, count)
		tiff = order.AppendUint16(tiff, value)
		tiff = order.AppendUint16(tiff, 0)
	}
	entry(0x0112, 3, 1, orientation)
	entry(0x8825, 4, 1, 38) // where it was taken
	tiff = append(tiff, "GPS 54.1N 2026:05:12 10:00:00 CAMERA"...)
	body := append([]byte("Exif\x00\x00"), tiff...)
	head := []byte{0xFF, 0xD8, 0xFF, 0xE0, 0, 6, 'J', 'F', 'I', 'F', 0xFF, 0xE1}
	head = binary.BigEndian.AppendUint16(head, uint16(len(body)+2))
	return append(append(head, body...), file[2:]...)
}

// quarterOf is the colour in the middle of a quarter of a photo.
func quarterOf(p image.Image, right, low int) string {
	b := p.Bounds()
	r, g, bl, _ := p.At(b.Min.X+b.Dx()*(1+2*right)/4, b.Min.Y+b.Dy()*(1+2*low)/4).RGBA()
	on := func(c uint32) string {
		if c > 0x8000 {
			return "1"
		}
		return "0"
	}
	return map[string]string{"100": "red", "010": "green", "001": "blue", "111": "white"}[on(r)+on(g)+on(bl)]
}

// Whichever way a camera was held, the photo stands upright, by the table of EXIF 2.32; and nothing of where
// and when it was taken is left in what is kept.
func TestPhotosStandUprightAndSayNothing(t *testing.T) {
	lies := corners(80, 40)
	// Where the quarters of the file come to lie, from the top left on: after the drawings of the eight
	// orientations in the standard.
	for orientation, want := range map[uint16]string{
		1: "red green blue white", 2: "green red white blue", 3: "white blue green red", 4: "blue white red green",
		5: "red blue green white", 6: "blue red white green", 7: "white green blue red", 8: "green white red blue",
		0: "red green blue white", 9: "red green blue white",
	} {
		for mark, order := range map[string]binary.AppendByteOrder{"II": binary.LittleEndian, "MM": binary.BigEndian} {
			file := exif(asJPEG(t, lies), orientation, order, mark)
			p, err := picture.Take(file)
			require.NoError(t, err)
			kept, err := jpeg.Decode(bytes.NewReader(p.JPEG))
			require.NoError(t, err)
			got := strings.Join([]string{quarterOf(kept, 0, 0), quarterOf(kept, 1, 0), quarterOf(kept, 0, 1), quarterOf(kept, 1, 1)}, " ")
			assert.Equal(t, want, got, "%d %s", orientation, mark)
			size := [2]int{80, 40}
			if orientation >= 5 && orientation <= 8 {
				size = [2]int{40, 80}
			}
			assert.Equal(t, size, [2]int{p.Wide, p.High})
			assert.Equal(t, size, [2]int{kept.Bounds().Dx(), kept.Bounds().Dy()})
			for _, trace := range []string{"Exif", "GPS", "2026", "CAMERA"} {
				assert.Contains(t, string(file), trace)
				assert.NotContains(t, string(p.JPEG), trace)
			}
		}
	}
}

func TestPhotosAreShrunk(t *testing.T) {
	var out bytes.Buffer
	require.NoError(t, png.Encode(&out, corners(3000, 1500)))
	p, err := picture.Take(out.Bytes())
	require.NoError(t, err)
	assert.Equal(t, [2]int{picture.Longest, picture.Longest / 2}, [2]int{p.Wide, p.High})
	p, err = picture.Take(asJPEG(t, corners(2, 2999)))
	require.NoError(t, err)
	assert.Equal(t, [2]int{1, picture.Longest}, [2]int{p.Wide, p.High}, "no edge is lost")
	seeThrough := image.NewRGBA(image.Rect(0, 0, 8, 8))
	out.Reset()
	require.NoError(t, png.Encode(&out, seeThrough))
	p, err = picture.Take(out.Bytes())
	require.NoError(t, err)
	kept, err := jpeg.Decode(bytes.NewReader(p.JPEG))
	require.NoError(t, err)
	assert.Equal(t, "white", quarterOf(kept, 0, 0), "what is see-through lies on white")
}

// header is a PNG file that ends after its header.
func header(wide, high uint32) []byte {
	chunk := []byte("IHDR")
	chunk = binary.BigEndian.AppendUint32(chunk, wide)
	chunk = binary.BigEndian.AppendUint32(chunk, high)
	chunk = append(chunk, 8, 2, 0, 0, 0)
	file := append([]byte("\x89PNG\r\n\x1a\n"), 0, 0, 0, 13)
	file = append(file, chunk...)
	return binary.BigEndian.AppendUint32(file, crc32.ChecksumIEEE(chunk))
}

func TestWhatIsNoPhoto(t *testing.T) {
	good := asJPEG(t, corners(400, 300))
	for says, file := range map[string][]byte{
		"it is no photo that can be read":        []byte("%PDF-1.7 and more"),
		"no photo that can be read: JPEG":        nil,
		"damaged or cut short":                   good[:len(good)/2],
		"10000 × 5001 pixels: more than 50 mega": header(10_000, 5_001),
		"100000 × 100000 pixels":                 header(100_000, 100_000),
		"larger than 40 MiB":                     make([]byte, picture.LargestBytes+1),
	} {
		_, err := picture.Take(file)
		assert.ErrorContains(t, err, says)
	}
	_, err := picture.Take(header(10_000, 5_000))
	assert.ErrorContains(t, err, "cut short", "it is not its size")
}

// Whatever a file holds, what is taken is a JPEG of the size that is said.
func FuzzTake(f *testing.F) {
	f.Add(exif(asJPEG(f, corners(8, 4)), 6, binary.BigEndian, "MM"))
	f.Add(exif(asJPEG(f, corners(8, 4)), 7, binary.LittleEndian, "II"))
	f.Add(header(3, 3))
	f.Add([]byte("\xff\xd8\xff\xe1\x00\x04Ex"))
	f.Fuzz(func(t *testing.T, file []byte) {
		p, err := picture.Take(file)
		if err != nil {
			return
		}
		head, err := jpeg.DecodeConfig(bytes.NewReader(p.JPEG))
		require.NoError(t, err)
		require.Equal(t, [2]int{p.Wide, p.High}, [2]int{head.Width, head.Height})
		require.LessOrEqual(t, max(p.Wide, p.High), picture.Longest)
	})
}

// A photo of 12 megapixels, as of a phone; asked for is less than a second with the way there.
func BenchmarkTake(b *testing.B) {
	for _, mp := range []int{3, 12} {
		file := asJPEG(b, corners(1000*2, mp*500))
		b.Run(fmt.Sprint(mp, "MP"), func(b *testing.B) {
			for b.Loop() {
				if _, err := picture.Take(file); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
