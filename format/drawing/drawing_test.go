package drawing_test

import (
	"encoding/xml"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/work/fabricate"
	"yokeswap/format/drawing"
	"yokeswap/internal/outside"
)

var drawn = map[string]map[string]float64{
	"adapter-plate":  {"fromXMM": 20, "fromYMM": 20, "toXMM": 25.5, "toYMM": 25.5},
	"camera-plate":   {"cameraMM": 20, "heightMM": 14, "perSide": 2},
	"antenna-holder": {"angleDeg": 60, "reachMM": 40, "tipMM": 4},
	"unit-bracket":   {"unitXMM": 30, "unitYMM": 28, "fromXMM": 20, "fromYMM": 20},
}

func made(t testing.TB, part string) *fabricate.Made {
	m, problems := fabricate.Draw(part, drawn[part])
	require.Empty(t, problems)
	return &m
}

func area(m *fabricate.Made) (sum float64) {
	for _, s := range m.Sheets {
		sum += s.Shape.AreaMM2()
	}
	return sum
}

// A DXF file that Debian's OpenSCAD reads encloses the area that was drawn: lines are closed,
// holes are holes, a millimetre is a millimetre.
func TestADXFFileIsReadByAnotherProgram(t *testing.T) {
	t.Parallel()
	program, check := outside.Program(t, "openscad"), outside.Program(t, "admesh")
	for part := range drawn {
		m := made(t, part)
		dir := t.TempDir()
		require.NoError(t, os.WriteFile(filepath.Join(dir, "part.dxf"), []byte(drawing.DXF(m)), 0o600))
		source, stl := filepath.Join(dir, "read.scad"), filepath.Join(dir, "read.stl")
		require.NoError(t, os.WriteFile(source, []byte(`$fn = 180; linear_extrude(1) import("part.dxf");`), 0o600))
		cmd := exec.Command(program, "-o", stl, source)
		cmd.Env = append(os.Environ(), "HOME="+dir)
		text, err := cmd.CombinedOutput()
		require.NoError(t, err, string(text))
		out, err := exec.Command(check, stl).CombinedOutput()
		require.NoError(t, err, string(out))
		volume, err := strconv.ParseFloat(regexp.MustCompile(`Volume\s*:\s*([\d.]+)`).FindStringSubmatch(string(out))[1], 64)
		require.NoError(t, err)
		assert.InEpsilon(t, area(m), volume, 0.005, part)
	}
}

// The pairs of a DXF file: codes and values in turn, sections that end, round holes as
// circles of the diameter asked for.
func TestDXFPairs(t *testing.T) {
	for part := range drawn {
		m := made(t, part)
		lines := strings.Split(strings.TrimSuffix(drawing.DXF(m), "\r\n"), "\r\n")
		require.Zero(t, len(lines)%2)
		var radii []float64
		entity := ""
		for i := 0; i < len(lines); i += 2 {
			code, err := strconv.Atoi(strings.TrimSpace(lines[i]))
			require.NoError(t, err)
			if code == 0 {
				entity = lines[i+1]
			}
			if code == 40 && entity == "CIRCLE" {
				r, err := strconv.ParseFloat(lines[i+1], 64)
				require.NoError(t, err)
				radii = append(radii, r)
			}
		}
		assert.Equal(t, "EOF", entity)
		var want []float64
		for _, s := range m.Sheets {
			for _, d := range s.Drills {
				want = append(want, math.Round(float64(d.DiameterMM)*500)/1000)
			}
		}
		assert.Equal(t, want, radii, part)
	}
}

// An SVG file says its size in millimetres, one of its units is one of them, and its outlines
// enclose what was drawn; the ruler of a template is 50 mm long.
func TestSVGIsToScale(t *testing.T) {
	for part := range drawn {
		m := made(t, part)
		for _, template := range []bool{false, true} {
			var svg struct {
				Width  string `xml:"width,attr"`
				Height string `xml:"height,attr"`
				Box    string `xml:"viewBox,attr"`
				Groups []struct {
					ID    string `xml:"id,attr"`
					Paths []struct {
						D    string `xml:"d,attr"`
						Dash string `xml:"stroke-dasharray,attr"`
					} `xml:"path"`
					Circles []struct {
						R float64 `xml:"r,attr"`
					} `xml:"circle"`
				} `xml:"g"`
			}
			require.NoError(t, xml.Unmarshal([]byte(drawing.SVG(m, template)), &svg))
			assert.Equal(t, "0 0 "+strings.TrimSuffix(svg.Width, "mm")+" "+strings.TrimSuffix(svg.Height, "mm"), svg.Box)
			for _, side := range []string{svg.Width, svg.Height} {
				mm, err := strconv.ParseFloat(strings.TrimSuffix(side, "mm"), 64)
				require.NoError(t, err)
				pixels := mm * 96 / 25.4 // else a browser draws it out to whole ones
				assert.InDelta(t, math.Round(pixels), pixels, 1e-3, part)
			}
			var sum float64
			rulers := 0
			for _, g := range svg.Groups {
				if g.ID == "ruler" {
					rulers++
					assert.Contains(t, g.Paths[0].D, "h50M")
					continue
				}
				var areas []float64
				for _, p := range g.Paths {
					if p.Dash == "" {
						areas = append(areas, enclosed(t, p.D))
					}
				}
				sum += 2 * areas[0]
				for _, a := range areas {
					sum -= a // the outline comes first, what follows are holes
				}
				for _, c := range g.Circles {
					sum -= math.Pi * c.R * c.R
				}
			}
			assert.Equal(t, map[bool]int{true: 1}[template], rulers)
			assert.InEpsilon(t, area(m), sum, 0.005, part)
		}
	}
}

// enclosed is the area inside a path of straight lines.
func enclosed(t testing.TB, d string) float64 {
	fields := strings.Fields(strings.NewReplacer("M", " ", "L", " ", "Z", " ").Replace(d))
	var xs []float64
	for _, f := range fields {
		x, err := strconv.ParseFloat(f, 64)
		require.NoError(t, err, d)
		xs = append(xs, x)
	}
	var sum float64
	for i := 0; i < len(xs); i += 2 {
		j := (i + 2) % len(xs)
		sum += xs[i]*xs[j+1] - xs[j]*xs[i+1]
	}
	return math.Abs(sum) / 2
}
