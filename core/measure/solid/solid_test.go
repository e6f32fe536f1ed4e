package solid_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/measure/plane"
	"yokeswap/core/measure/solid"
	"yokeswap/core/measure/unit"
)

// A body is closed and turned outwards whichever way it is drawn out: each line of its skin
// is there once each way, and the skin encloses the shape's area times its depth.
func TestABodyIsClosed(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		mm := func(low, high float64, name string) unit.Millimetres {
			return unit.Millimetres(rapid.Float64Range(low, high).Draw(t, name))
		}
		shape, err := plane.Cut(plane.Rect(0, 0, mm(10, 40, "w"), mm(10, 40, "h"), mm(0, 5, "r")),
			plane.Disc(mm(-15, 15, "x"), mm(-15, 15, "y"), mm(1, 6, "d")), plane.Disc(mm(-15, 15, "x2"), 0, mm(1, 6, "d2")))
		require.NoError(t, err)
		from := mm(-5, 5, "from")
		body := solid.Body{Shape: shape, Along: solid.Along(rapid.IntRange(0, 2).Draw(t, "along")), From: from,
			To: from + mm(0.5, 20, "depth")}
		skin := body.Triangles()
		lines := map[[2]solid.Point]int{}
		for _, tri := range skin {
			for i := range tri {
				lines[[2]solid.Point{tri[i], tri[(i+1)%3]}]++
			}
		}
		for line, n := range lines {
			require.Equal(t, n, lines[[2]solid.Point{line[1], line[0]}])
		}
		require.InDelta(t, body.VolumeMM3(), solid.Volume(skin), 1e-3)
	})
}

// A block, by hand.
func TestABlock(t *testing.T) {
	block := solid.Body{Shape: plane.Rect(0, 0, 2, 3, 0), To: 4}
	assert.InDelta(t, 24, solid.Volume(block.Triangles()), 1e-9)
	assert.Len(t, block.Triangles(), 12)
	for along, box := range map[solid.Along][3]float64{
		solid.AlongZ: {1, 1.5, 4},
		solid.AlongX: {4, 1, 1.5},
		solid.AlongY: {1.5, 4, 1},
	} {
		block.Along = along
		var most [3]float64
		for _, t := range block.Triangles() {
			for _, p := range t {
				most = [3]float64{max(most[0], p.X), max(most[1], p.Y), max(most[2], p.Z)}
			}
		}
		assert.Equal(t, box, most)
	}
}
