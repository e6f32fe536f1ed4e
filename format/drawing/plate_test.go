package drawing_test

import (
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/plane"
	"yokeswap/core/measure/unit"
	"yokeswap/format/drawing"
	"yokeswap/internal/outside"
)

func shapeOf(corners []gear.Corner) plane.Shape {
	var line [][2]float64
	for _, c := range corners {
		line = append(line, [2]float64{float64(c.XMM), float64(c.YMM)})
	}
	return plane.Outline(line...)
}

// dxf is a drawing of entities, each "KIND code value code value …", in a unit by its number.
func dxf(unit string, entities ...string) []byte {
	var b strings.Builder
	line := func(words ...string) { b.WriteString(strings.Join(words, "\n") + "\n") }
	if unit != "" {
		line("0", "SECTION", "2", "HEADER", "9", "$INSUNITS", "70", unit, "0", "ENDSEC")
	}
	line("0", "SECTION", "2", "ENTITIES")
	for _, e := range entities {
		line(append([]string{"0"}, strings.Fields(e)...)...)
	}
	line("0", "ENDSEC", "0", "EOF")
	return []byte(b.String())
}

// A plate that Debian's OpenSCAD draws and writes as DXF is read with its size, area and openings, each way
// it can lie.
func TestAPlateThatAnotherProgramDrew(t *testing.T) {
	t.Parallel()
	program := outside.Program(t, "openscad")
	dir := t.TempDir()
	source, out := filepath.Join(dir, "plate.scad"), filepath.Join(dir, "plate.dxf")
	require.NoError(t, os.WriteFile(source, []byte(`$fn = 96;
translate([40, 7]) difference() {
  union() { square([120, 34], center = true); rotate(45) square([150, 10], center = true); }
  translate([20, 0]) square([30, 12], center = true);
  translate([-30, 0]) circle(d = 16);
  translate([-50, 10]) circle(d = 3.2);
}`), 0o600))
	cmd := exec.Command(program, "-o", out, source)
	cmd.Env = append(os.Environ(), "HOME="+dir)
	text, err := cmd.CombinedOutput()
	require.NoError(t, err, string(text))
	drawn, err := os.ReadFile(out)
	require.NoError(t, err)
	for forward, size := range map[drawing.Forward][2]float64{"right": {120, 113.14}, "left": {120, 113.14}, "up": {113.14, 120}, "down": {113.14, 120}} {
		d, err := drawing.Plate(drawn, forward, nil)
		require.NoError(t, err)
		assert.InDelta(t, size[0], float64(d.ToXMM-d.FromXMM), 0.01)
		assert.InDelta(t, size[1], float64(d.YMM), 0.01)
		require.Len(t, d.Openings, 2)
		areas := []float64{shapeOf(d.Openings[0].Corners).AreaMM2(), shapeOf(d.Openings[1].Corners).AreaMM2()}
		assert.InDelta(t, 360+201, areas[0]+areas[1], 1)
		// The plate without its arms, and what of them stands out over it: 150 × 10 less what it covers of 34 / sin 45°.
		assert.InDelta(t, 120*34+(150*10-10*34*1.41421), shapeOf(d.Outline).AreaMM2(), 2)
		assert.Contains(t, strings.Join(d.Says, " "), "1 holes under 4.5 mm")
	}
	rear := unit.Millimetres(-78)
	d, err := drawing.Plate(drawn, "right", &rear)
	require.NoError(t, err)
	assert.Equal(t, rear, d.FromXMM)
	// What was forward of its middle by 20 mm lies there still: the middle of the plate is 60 mm from its rear.
	low, _, high, _ := shapeOf(d.Openings[0].Corners).Box()
	if high-low < 20 {
		low, _, high, _ = shapeOf(d.Openings[1].Corners).Box()
	}
	assert.InDelta(t, -78+60+20, float64(low+high)/2, 0.02)
}

// The ways one plate of 40 × 20 mm with round ends is drawn give one area.
func TestHowPlatesAreDrawn(t *testing.T) {
	const round = 3.14159265358979 * 100
	for what, file := range map[string][]byte{
		"lines and arcs, in no order": dxf("4",
			"LINE 10 -20 20 -10 11 20 21 -10", "ARC 10 -20 20 0 40 10 50 90 51 270",
			"LINE 10 -20 20 10 11 20 21 10", "ARC 10 20 20 0 40 10 50 270 51 90"),
		"a light polyline":   dxf("4", "LWPOLYLINE 90 4 70 1 10 -20 20 -10 10 20 20 -10 42 1 10 20 20 10 10 -20 20 10 42 1"),
		"bent the other way": dxf("4", "LWPOLYLINE 90 4 70 1 10 20 20 -10 10 -20 20 -10 42 -1 10 -20 20 10 10 20 20 10 42 -1"),
		"a polyline with its corners": dxf("", "POLYLINE 66 1 70 1", "VERTEX 10 -20 20 -10", "VERTEX 10 20 20 -10 42 1",
			"VERTEX 10 20 20 10", "VERTEX 10 -20 20 10 42 1", "SEQEND"),
		"in centimetres": dxf("5", "LWPOLYLINE 70 1 10 -2 20 -1 10 2 20 -1 42 1 10 2 20 1 10 -2 20 1 42 1"),
		"in inches": dxf("1", fmt.Sprintf("LWPOLYLINE 70 1 10 %[1]g 20 %[2]g 10 %[3]g 20 %[2]g 42 1 10 %[3]g 20 %[4]g 10 %[1]g 20 %[4]g 42 1",
			-20/25.4, -10/25.4, 20/25.4, 10/25.4)),
	} {
		d, err := drawing.Plate(file, "right", nil)
		require.NoError(t, err, what)
		assert.InDelta(t, 40*20+round, shapeOf(d.Outline).AreaMM2(), 3, what)
		assert.InDelta(t, 60, float64(d.ToXMM-d.FromXMM), 0.02, what)
		assert.NoError(t, shapeOf(d.Outline).Check(), what)
		unitless := strings.Contains(strings.Join(d.Says, " "), "does not say its unit")
		assert.Equal(t, what == "a polyline with its corners", unitless, what)
	}
	// A quarter turn to the left at one corner: of a square of 10 mm an arc outside its side.
	d, err := drawing.Plate(dxf("4", "LWPOLYLINE 70 1 10 0 20 0 10 10 20 0 42 0.41421356 10 10 20 10 10 0 20 10"), "right", nil)
	require.NoError(t, err)
	assert.InDelta(t, 100+25*(3.14159265/2-1), shapeOf(d.Outline).AreaMM2(), 0.5, "a segment of 90° over 10 mm")
	d, err = drawing.Plate(dxf("4", "LWPOLYLINE 70 1 10 0 20 0 10 10 20 0 42 -0.41421356 10 10 20 10 10 0 20 10"), "right", nil)
	require.NoError(t, err)
	assert.InDelta(t, 100-25*(3.14159265/2-1), shapeOf(d.Outline).AreaMM2(), 0.5, "to the right, into the square")
	d, err = drawing.Plate(dxf("1", "ARC 10 5 20 5 40 2 50 0 51 360", "CIRCLE 10 5 20 5 40 0.15", "CIRCLE 10 6 20 5 40 0.06"), "up", nil)
	require.NoError(t, err)
	assert.InDelta(t, 4*25.4, float64(d.YMM), 0.2, "an arc all around, in inches")
	assert.Len(t, d.Openings, 1, "7.6 mm across; that of 3 mm is a screw's")
	d, err = drawing.Plate(dxf("4", "CIRCLE 10 5 20 5 40 20", "CIRCLE 10 5 20 5 40 5", "CIRCLE 10 90 20 5 40 5", "TEXT 1 top"), "up", nil)
	require.NoError(t, err)
	assert.Len(t, d.Openings, 1)
	assert.Contains(t, d.Says, "Left out: 1 closed lines beside the largest; draw one plate in a file.")
	assert.Contains(t, d.Says, "Left out, for it is no line, arc or circle: 1 TEXT.")
}

func TestDrawingsThatAreNone(t *testing.T) {
	square := "LWPOLYLINE 70 0 10 0 20 0 10 9 20 0 10 9 20 9"
	for want, file := range map[string]string{
		"line 1: expected the code of a DXF pair": "solid plate\n",
		"the file ends before the value":          "0\nSECTION\n2",
		"save it as text":                         "AutoCAD Binary DXF\r\n\x1a\x00",
		"nothing closed is drawn":                 string(dxf("4")),
		"not read were 1 SPLINE":                  string(dxf("4", "SPLINE 10 1")),
		"a line ends at 9.00, 9.00":               string(dxf("4", square)),
		"encloses no area":                        string(dxf("4", "LWPOLYLINE 70 1 10 0 20 0 10 5 20 0 10 9 20 0")),
		"expected a number up to":                 string(dxf("4", "LINE 10 1e9")),
		"a CIRCLE: line":                          string(dxf("4", "CIRCLE 40 NaN")),
	} {
		_, err := drawing.Plate([]byte(file), "right", nil)
		assert.ErrorContains(t, err, want)
	}
	var corners strings.Builder
	for i := range 500 {
		fmt.Fprintf(&corners, " 10 %d 20 %d", i, i%2)
	}
	_, err := drawing.Plate(dxf("4", "LWPOLYLINE 70 1"+corners.String()+" 10 500 20 50"), "right", nil)
	assert.ErrorContains(t, err, "more than 400 corners")
}

// Whatever stands in a file, what is read of it is an outline of three corners at least, or what is wrong.
func FuzzPlate(f *testing.F) {
	f.Add(dxf("4", "LINE 10 0 20 0 11 9 21 0", "ARC 10 4 20 0 40 4 50 0 51 180"))
	f.Add(dxf("1", "LWPOLYLINE 70 1 10 0 20 0 10 9 20 0 42 1 10 9 20 9"))
	f.Add(dxf("", "POLYLINE 70 1", "VERTEX 10 1 20 2", "VERTEX 10 1 20 5 42 -3", "VERTEX 10 7 20 5", "SEQEND", "CIRCLE 40 3"))
	f.Fuzz(func(t *testing.T, text []byte) {
		if d, err := drawing.Plate(text, "left", nil); err == nil {
			require.Greater(t, d.ToXMM, d.FromXMM)
			require.Positive(t, d.YMM)
			require.GreaterOrEqual(t, len(d.Outline), 3)
			require.LessOrEqual(t, len(d.Outline), 400)
		}
	})
}
