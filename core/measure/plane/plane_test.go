package plane_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/measure/plane"
	"yokeswap/core/measure/unit"
)

func areaOf(t plane.Triangle) float64 {
	return float64((t[1].X-t[0].X)*(t[2].Y-t[0].Y)-(t[1].Y-t[0].Y)*(t[2].X-t[0].X)) / 2e6
}

// whole asserts the law of a triangulation: no triangle turns right, together they have the
// area of the shape, each side of the outline belongs to one of them and each line between
// to two, one each way.
func whole(t require.TestingT, s plane.Shape) {
	var sum float64
	for _, a := range s.Areas() {
		lines := map[[2]plane.Point]int{}
		for _, tri := range a.Triangles() {
			require.Positive(t, areaOf(tri))
			sum += areaOf(tri)
			for i := range tri {
				lines[[2]plane.Point{tri[i], tri[(i+1)%3]}]++
			}
		}
		outline := map[[2]plane.Point]bool{}
		for _, r := range append([]plane.Ring{a.Outer}, a.Holes...) {
			for i, p := range r {
				outline[[2]plane.Point{p, r[(i+1)%len(r)]}] = true
			}
		}
		for line, n := range lines {
			require.Equal(t, 1, n, "a line is used twice the same way")
			back := [2]plane.Point{line[1], line[0]}
			require.Equal(t, outline[line], lines[back] == 0, "%v", line)
			delete(outline, line)
		}
		require.Empty(t, outline, "sides that belong to no triangle")
	}
	require.InDelta(t, s.AreaMM2(), sum, 1e-6)
}

// Areas of plain shapes, by their formulas.
func TestAreas(t *testing.T) {
	rect := plane.Rect(3, -2, 20, 10, 0)
	assert.InDelta(t, 200, rect.AreaMM2(), 1e-9)
	round := plane.Rect(0, 0, 20, 10, 2)
	assert.InDelta(t, 200-(4-math.Pi)*4, round.AreaMM2(), 0.1)
	disc := plane.Disc(0, 0, 6)
	assert.InDelta(t, math.Pi*9, disc.AreaMM2(), math.Pi*9*0.005)
	pierced, err := plane.Cut(rect, plane.Disc(3, -2, 4), plane.Disc(9, -2, 3))
	require.NoError(t, err)
	assert.InDelta(t, 200-math.Pi*4-math.Pi*2.25, pierced.AreaMM2(), 0.2)
	whole(t, pierced)
	minX, minY, maxX, maxY := pierced.Box()
	assert.Equal(t, []unit.Millimetres{-7, -7, 13, 3}, []unit.Millimetres{minX, minY, maxX, maxY})
	assert.InDelta(t, 200, rect.Turned(37).AreaMM2(), 0.1)
	two, err := plane.Join(rect, rect.Moved(30, 0))
	require.NoError(t, err)
	assert.Len(t, two.Areas(), 2)
	whole(t, two)
}

// A hole may touch the edge, another hole or a corner: its point then lies on their side.
func TestHolesThatTouch(t *testing.T) {
	plate := plane.Rect(0, 0, 20, 28.5, 1)
	square := func(x, y float64) plane.Shape { // standing on its corner, 4 mm across
		return plane.Outline([2]float64{x + 2, y}, [2]float64{x, y + 2}, [2]float64{x - 2, y}, [2]float64{x, y - 2})
	}
	for name, holes := range map[string][]plane.Shape{
		"the edge above":        {plane.Disc(1, 12.3505859375, 3.7978515625)},
		"the edge on the right": {square(8, 3)},
		"one another":           {square(0, 0), square(4, 0), square(0, 4)},
		"a side of another":     {square(0, 0), plane.Rect(2, 2, 2, 2, 0)},
		"the edge and a hole":   {square(8, 0), square(4, 0), square(0, 0), square(0, -6)},
		"the edge and a bridge": {square(-8, 0), square(-4, 0), square(4, 0)},
	} {
		t.Run(name, func(t *testing.T) { whole(t, must(plane.Cut(plate, holes...))) })
		t.Run(name+", turned", func(t *testing.T) { whole(t, must(plane.Cut(plate, holes...)).Turned(90)) })
	}
}

// A point may come to lie past a side when it is moved onto whole micrometres.
func TestAHoleThatIsMovedPastASide(t *testing.T) {
	s := must(plane.Join(plane.Rect(0, 0, 35, 20.75, 8), plane.Rect(0, 0, 35.5, 10, 0)))
	for _, h := range [][3]unit.Millimetres{
		{1, -5, 0.5},
		{-11.490234375, 2.3571808475535363, 0.5},
		{0, -0.6875, 4},
		{0, 6.230567932128906, 0.9260839410126209},
		{0, 0, 0.5198818445205688},
		{0, 3.119140625, 0.65625},
		{-3.550348143238338, 2.580855935035869, 6},
	} {
		cut, err := plane.Cut(s, plane.Disc(h[0], h[1], h[2]))
		require.NoError(t, err)
		assert.LessOrEqual(t, cut.AreaMM2(), s.AreaMM2()+1e-6)
		assert.GreaterOrEqual(t, cut.AreaMM2(), s.AreaMM2()-math.Pi*float64(h[2]*h[2])/4)
		s = cut
	}
	whole(t, s)
}

// What has no area or crosses itself is refused, and says so.
func TestWhatIsNoOutline(t *testing.T) {
	for name, s := range map[string]plane.Shape{
		"nothing":        plane.Rect(0, 0, 0, 5, 0),
		"crosses itself": plane.Outline([2]float64{0, 0}, [2]float64{10, 10}, [2]float64{10, 0}, [2]float64{0, 10}),
		"a line":         plane.Outline([2]float64{0, 0}, [2]float64{10, 0}, [2]float64{20, 0}),
	} {
		assert.Error(t, s.Check(), name)
		_, err := plane.Join(plane.Rect(0, 0, 5, 5, 0), s)
		assert.Error(t, err, name)
	}
}

// The thinnest place is between a hole and the edge, two holes, or two sides of a neck.
func TestTheThinnestPlace(t *testing.T) {
	plate := plane.Rect(0, 0, 20, 20, 0)
	neck, err := plane.Join(plane.Rect(0, 0, 10, 10, 0), plane.Rect(15, 0, 10, 10, 0), plane.Rect(7.5, 0, 10, 0.7, 0))
	require.NoError(t, err)
	for _, c := range []struct {
		shape plane.Shape
		want  float64
	}{
		{must(plane.Cut(plate, plane.Disc(8, 0, 2))), 1},
		{must(plane.Cut(plate, plane.Disc(-2, 0, 2), plane.Disc(0.5, 0, 2))), 0.5},
		{neck, 0.7},
		{plate, 20},
	} {
		assert.InDelta(t, c.want, float64(c.shape.LeastWall()), 0.03)
	}
}

func must(s plane.Shape, err error) plane.Shape {
	if err != nil {
		panic(err)
	}
	return s
}

// Whatever is joined and cut comes out in triangles that cover it, once.
func TestEveryShapeIsCoveredByItsTriangles(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		mm := func(low, high float64, name string) unit.Millimetres {
			return unit.Millimetres(rapid.Float64Range(low, high).Draw(t, name))
		}
		s := plane.Rect(0, 0, mm(20, 60, "w"), mm(20, 60, "h"), mm(0, 8, "r"))
		var err error
		for range rapid.IntRange(0, 3).Draw(t, "bars") {
			bar := plane.Rect(0, 0, mm(2, 80, "bw"), mm(2, 10, "bh"), 0).Turned(unit.Degrees(mm(0, 180, "turn")))
			s, err = plane.Join(s, bar)
			require.NoError(t, err)
		}
		for range rapid.IntRange(0, 8).Draw(t, "holes") {
			cut, err := plane.Cut(s, plane.Disc(mm(-25, 25, "x"), mm(-25, 25, "y"), mm(0.5, 6, "d")))
			require.NoError(t, err)
			s = cut
		}
		whole(t, s)
	})
}

func BenchmarkTriangles(b *testing.B) {
	s := plane.Rect(0, 0, 40, 40, 3)
	for i := range 8 {
		s = must(plane.Cut(s, plane.Disc(unit.Millimetres(i*4-14), unit.Millimetres(i*4-14), 3)))
	}
	for b.Loop() {
		for _, a := range s.Areas() {
			a.Triangles()
		}
	}
}
