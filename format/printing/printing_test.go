package printing_test

import (
	"archive/zip"
	"bytes"
	"encoding/xml"
	"fmt"
	"io"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/measure/solid"
	"yokeswap/core/work/fabricate"
	"yokeswap/format/printing"
	"yokeswap/internal/outside"
)

// Each part with the same drawing by another hand, in the language of OpenSCAD.
var drawn = []struct {
	part string
	v    map[string]float64
	scad string
}{
	{"adapter-plate", map[string]float64{"fromXMM": 20, "fromYMM": 20, "fromScrewMM": 2, "toXMM": 25.5, "toYMM": 25.5, "toScrewMM": 2, "thickMM": 2, "playMM": 0.2}, `
		module four(d, r) for (x=[-1,1], y=[-1,1]) translate([x*d/2, y*d/2]) circle(r);
		linear_extrude(2) difference() {
			union() { offset(4) square(20, center=true); offset(4) square(25.5, center=true); }
			four(20, 1.3); four(25.5, 1.3);
		}`},
	{"adapter-plate", map[string]float64{"fromXMM": 30.5, "fromYMM": 30.5, "fromScrewMM": 3, "toXMM": 20, "toYMM": 25.5, "toScrewMM": 1.6, "turnDeg": 30, "thickMM": 3, "playMM": 0}, `
		linear_extrude(3) difference() {
			union() { offset(6) square(30.5, center=true); rotate(30) offset(6) square([20, 25.5], center=true); }
			for (x=[-1,1], y=[-1,1]) translate([x*30.5/2, y*30.5/2]) circle(1.7);
			rotate(30) for (x=[-1,1], y=[-1,1]) translate([x*10, y*25.5/2]) circle(0.9);
		}`},
	{"camera-plate", map[string]float64{"cameraMM": 20, "heightMM": 14, "perSide": 2, "apartMM": 8, "lengthMM": 24, "thickMM": 2, "footMM": 9, "screwMM": 2, "footScrewMM": 3, "footApartMM": 12, "playMM": 0.2}, `
		difference() { translate([-12,0,0]) cube([24, 18, 2]); for (x=[-4,4]) translate([x,14,-1]) cylinder(h=5, r=1.3); }
		difference() { translate([-12,0,2]) cube([24, 2, 9]); for (x=[-6,6]) translate([x,-1,6.5]) rotate([-90,0,0]) cylinder(h=5, r=1.8); }`},
	{"antenna-holder", map[string]float64{"angleDeg": 60, "reachMM": 40, "armMM": 8, "holesMM": 20, "screwMM": 3, "tipMM": 4, "tieMM": 2.5, "thickMM": 3, "playMM": 0.2}, `
		module arm(s) translate([-s*5, 0]) rotate(s*30) children();
		linear_extrude(3) difference() {
			union() {
				offset(6) square([20, 0.0001], center=true);
				for (s=[-1,1]) arm(s) hull() { circle(4); translate([0,40]) circle(4); }
			}
			for (x=[-10,10]) translate([x,0]) circle(1.8);
			for (s=[-1,1]) arm(s) { translate([0,40]) circle(2.1);
				for (y=[20,32], x=[-2,2]) translate([x,y]) square([1.2,2.7], center=true); }
		}`},
	{"unit-bracket", map[string]float64{"unitXMM": 30, "unitYMM": 28, "wallHighMM": 6, "wallThickMM": 1.6, "fromXMM": 20, "fromYMM": 20, "fromScrewMM": 2, "openMM": 16, "thickMM": 1.6, "playMM": 0.2}, `
		linear_extrude(1.6) difference() {
			union() { square([33.6, 31.6], center=true); offset(4) square(20, center=true); }
			for (x=[-1,1], y=[-1,1]) translate([x*10, y*10]) circle(1.3);
		}
		translate([0,0,1.6]) linear_extrude(6) difference() {
			square([33.6, 31.6], center=true); square([30.4, 28.4], center=true);
			translate([0,-15.8]) square([16, 4.2], center=true);
		}`},
}

func bodies(t testing.TB, part string, v map[string]float64) []solid.Body {
	made, problems := fabricate.Draw(part, v)
	require.Empty(t, problems)
	return made.Bodies
}

var (
	volumeLine = regexp.MustCompile(`Volume\s*:\s*([\d.]+)`)
	faultLines = regexp.MustCompile(`(?m)^(Edges fixed|Facets removed|Facets added|Facets reversed|Backwards edges|Normals fixed)\s*:\s*(\d+)`)
	degenerate = regexp.MustCompile(`Degenerate facets\s*:\s*(\d+)`)
	unmatched  = regexp.MustCompile(`Total disconnected facets\s*:\s*(\d+)\s+(\d+)`)
)

// admesh is what ADMesh finds of a mesh: its volume; any repair it had to make fails.
func admesh(t *testing.T, program, file string) float64 {
	text, err := exec.Command(program, file).CombinedOutput()
	require.NoError(t, err, string(text))
	for _, m := range faultLines.FindAllStringSubmatch(string(text), -1) {
		assert.Equal(t, "0", m[2], "%s\n%s", m[1], text)
	}
	if m := degenerate.FindStringSubmatch(string(text)); assert.NotNil(t, m, string(text)) {
		assert.Equal(t, "0", m[1], string(text))
	}
	if m := unmatched.FindStringSubmatch(string(text)); assert.NotNil(t, m, string(text)) {
		assert.Equal(t, []string{"0", "0"}, m[1:], string(text))
	}
	m := volumeLine.FindStringSubmatch(string(text))
	require.NotNil(t, m, string(text))
	volume, err := strconv.ParseFloat(m[1], 64)
	require.NoError(t, err)
	return volume
}

// Debian's ADMesh finds each mesh whole, the right way round and in need of no repair, and
// its volume is that of the same drawing made by Debian's OpenSCAD.
func TestEachMeshIsWholeAndAsLargeAsDrawn(t *testing.T) {
	t.Parallel()
	check, draw := outside.Program(t, "admesh"), outside.Program(t, "openscad")
	for i, d := range drawn {
		dir := t.TempDir()
		file := filepath.Join(dir, "part.stl")
		list := bodies(t, d.part, d.v)
		require.NoError(t, os.WriteFile(file, printing.STL(d.part, list), 0o600))
		ours := admesh(t, check, file)
		var sum float64
		for _, b := range list {
			sum += b.VolumeMM3()
		}
		assert.InEpsilon(t, sum, ours, 1e-4)
		source, theirs := filepath.Join(dir, "part.scad"), filepath.Join(dir, "theirs.stl")
		require.NoError(t, os.WriteFile(source, []byte("$fn = 180;\n"+d.scad), 0o600))
		cmd := exec.Command(draw, "-o", theirs, source)
		cmd.Env = append(os.Environ(), "HOME="+dir)
		text, err := cmd.CombinedOutput()
		require.NoError(t, err, string(text))
		other, err := exec.Command(check, theirs).CombinedOutput()
		require.NoError(t, err)
		volume, err := strconv.ParseFloat(volumeLine.FindStringSubmatch(string(other))[1], 64)
		require.NoError(t, err)
		t.Logf("%d %s: %.2f mm³, by OpenSCAD %.2f mm³", i, d.part, ours, volume)
		assert.InEpsilon(t, volume, ours, 0.005, d.part)
	}
}

// Debian's OpenSCAD reads each 3MF file through lib3mf, the library of those who publish the form,
// and finds bodies of the same volume; one with a corner that is not there it refuses.
func TestThreeMFByItsReferenceLibrary(t *testing.T) {
	t.Parallel()
	check, draw := outside.Program(t, "admesh"), outside.Program(t, "openscad")
	read := func(text []byte) (string, bool) {
		dir := t.TempDir()
		source, out := filepath.Join(dir, "read.scad"), filepath.Join(dir, "read.stl")
		require.NoError(t, os.WriteFile(filepath.Join(dir, "part.3mf"), text, 0o600))
		require.NoError(t, os.WriteFile(source, []byte(`import("part.3mf");`), 0o600))
		cmd := exec.Command(draw, "-o", out, source)
		cmd.Env = append(os.Environ(), "HOME="+dir)
		said, err := cmd.CombinedOutput()
		return out, err == nil && !bytes.Contains(said, []byte("WARNING")) && !bytes.Contains(said, []byte("ERROR"))
	}
	for _, d := range drawn {
		list := bodies(t, d.part, d.v)
		text, err := printing.ThreeMF(d.part, list)
		require.NoError(t, err)
		out, ok := read(text)
		require.True(t, ok, d.part)
		found, err := exec.Command(check, out).CombinedOutput()
		require.NoError(t, err)
		volume, err := strconv.ParseFloat(volumeLine.FindStringSubmatch(string(found))[1], 64)
		require.NoError(t, err)
		var sum float64
		for _, b := range list {
			sum += b.VolumeMM3()
		}
		assert.InEpsilon(t, sum, volume, 0.001, d.part)
	}
	_, ok := read(broken(t, bodies(t, drawn[0].part, drawn[0].v)))
	assert.False(t, ok, "a corner that is not there")
}

// broken is a 3MF file one of whose triangles has a corner that is not there.
func broken(t *testing.T, list []solid.Body) []byte {
	text, err := printing.ThreeMF("broken", list)
	require.NoError(t, err)
	archive, err := zip.NewReader(bytes.NewReader(text), int64(len(text)))
	require.NoError(t, err)
	var out bytes.Buffer
	w := zip.NewWriter(&out)
	for _, f := range archive.File {
		r, err := f.Open()
		require.NoError(t, err)
		body, err := io.ReadAll(r)
		require.NoError(t, err)
		body = bytes.Replace(body, []byte(`v1="0"`), []byte(`v1="999999"`), 1)
		part, err := w.Create(f.Name)
		require.NoError(t, err)
		_, err = part.Write(body)
		require.NoError(t, err)
	}
	require.NoError(t, w.Close())
	return out.Bytes()
}

// A 3MF file read back: a package of three parts, meshes that are closed, one object of all
// bodies that is built, and the same volume.
func TestThreeMFReadBack(t *testing.T) {
	for _, d := range drawn {
		list := bodies(t, d.part, d.v)
		text, err := printing.ThreeMF("a <part> & more", list)
		require.NoError(t, err)
		archive, err := zip.NewReader(bytes.NewReader(text), int64(len(text)))
		require.NoError(t, err)
		files := map[string]string{}
		for _, f := range archive.File {
			r, err := f.Open()
			require.NoError(t, err)
			body, err := io.ReadAll(r)
			require.NoError(t, err)
			files[f.Name] = string(body)
		}
		assert.Contains(t, files["[Content_Types].xml"], "3dmanufacturing-3dmodel+xml")
		assert.Contains(t, files["_rels/.rels"], "/3D/3dmodel.model")
		var m struct {
			XMLName xml.Name `xml:"http://schemas.microsoft.com/3dmanufacturing/core/2015/02 model"`
			Unit    string   `xml:"unit,attr"`
			Title   string   `xml:"metadata"`
			Objects []struct {
				ID       int `xml:"id,attr"`
				Vertices []struct {
					X float64 `xml:"x,attr"`
					Y float64 `xml:"y,attr"`
					Z float64 `xml:"z,attr"`
				} `xml:"mesh>vertices>vertex"`
				Triangles []struct {
					V1 int `xml:"v1,attr"`
					V2 int `xml:"v2,attr"`
					V3 int `xml:"v3,attr"`
				} `xml:"mesh>triangles>triangle"`
				Components []struct {
					Object int `xml:"objectid,attr"`
				} `xml:"components>component"`
			} `xml:"resources>object"`
			Items []struct {
				Object int `xml:"objectid,attr"`
			} `xml:"build>item"`
		}
		require.NoError(t, xml.Unmarshal([]byte(files["3D/3dmodel.model"]), &m))
		assert.Equal(t, "millimeter", m.Unit)
		assert.Equal(t, "a <part> & more", m.Title)
		require.Len(t, m.Objects, len(list)+1)
		require.Len(t, m.Items, 1)
		assert.Equal(t, len(list)+1, m.Items[0].Object)
		assert.Len(t, m.Objects[len(list)].Components, len(list))
		var read, want float64
		for i, b := range list {
			o := m.Objects[i]
			assert.Empty(t, o.Components)
			var skin []solid.Triangle
			for _, tri := range o.Triangles {
				var corner solid.Triangle
				for k, v := range []int{tri.V1, tri.V2, tri.V3} {
					require.Less(t, v, len(o.Vertices))
					corner[k] = solid.Point{X: o.Vertices[v].X, Y: o.Vertices[v].Y, Z: o.Vertices[v].Z}
				}
				skin = append(skin, corner)
			}
			read, want = read+solid.Volume(skin), want+b.VolumeMM3()
		}
		assert.InDelta(t, want, read, 1e-2)
		assert.False(t, math.IsNaN(read))
	}
}

func BenchmarkSTL(b *testing.B) {
	list := bodies(b, drawn[0].part, drawn[0].v)
	b.Run("from its dimensions", func(b *testing.B) {
		for b.Loop() {
			printing.STL("plate", bodies(b, drawn[0].part, drawn[0].v))
		}
	})
	b.Run("from its bodies", func(b *testing.B) {
		for b.Loop() {
			printing.STL("plate", list)
		}
	})
	b.Run("by OpenSCAD", func(b *testing.B) {
		program := outside.Program(b, "openscad")
		dir := b.TempDir()
		source := filepath.Join(dir, "part.scad")
		require.NoError(b, os.WriteFile(source, []byte("$fn = 60;\n"+drawn[0].scad), 0o600))
		for b.Loop() {
			cmd := exec.Command(program, "-o", filepath.Join(dir, "theirs.stl"), source)
			cmd.Env = append(os.Environ(), "HOME="+dir)
			require.NoError(b, cmd.Run(), fmt.Sprint(cmd))
		}
	})
}
