package space_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/peterstace/simplefeatures/geom"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

// star is a ring around a place that does not cross itself: corners at growing angles.
func star(r *rand.Rand, x, y, least, most float64) (ring [][2]int64) {
	corners := 7 + r.IntN(8)
	for i := range corners {
		at := 2 * math.Pi * (float64(i) + 0.7*r.Float64()) / float64(corners)
		far := least + (most-least)*r.Float64()
		ring = append(ring, [2]int64{int64(1000*x + 1000*far*math.Cos(at)), int64(1000*y + 1000*far*math.Sin(at))})
	}
	return ring
}

// drawSlab is a plate with an opening, and the same as a polygon of a general geometry library.
func drawSlab(t *testing.T, r *rand.Rand) (space.Slab, geom.Geometry) {
	rings := [][][2]int64{star(r, 0, 0, 12, 30), star(r, 1, -1, 3, 7)}
	var text []string
	for _, ring := range rings {
		var points []string
		for i := range len(ring) + 1 {
			c := ring[i%len(ring)]
			points = append(points, fmt.Sprintf("%d %d", c[0], c[1]))
		}
		text = append(text, "("+strings.Join(points, ",")+")")
	}
	g, err := geom.UnmarshalWKT("POLYGON(" + strings.Join(text, ",") + ")")
	require.NoError(t, err)
	return space.NewSlab(rings, 2000, 4000), g
}

func rect(b space.Box) geom.Geometry {
	return geom.NewEnvelope(geom.XY{X: float64(b.Min[0]), Y: float64(b.Min[1])},
		geom.XY{X: float64(b.Max[0]), Y: float64(b.Max[1])}).AsGeometry()
}

// On 2,000 random plates with an opening, and a block each: they meet where the library finds an area that
// both have, the block carries as much of it, and the way out that is told is one, and no shorter one along
// its axis is.
func TestSlabsAgainstAGeometryLibrary(t *testing.T) {
	r := rand.New(rand.NewPCG(21, 22))
	met, inOpening := 0, 0
	for range 2000 {
		slab, g := drawSlab(t, r)
		b := draw(r)
		if r.IntN(2) == 0 {
			b.Min[2], b.Max[2] = 1000, 5000
		}
		common, err := geom.Intersection(g, rect(b))
		require.NoError(t, err)
		area := common.Area() / 1e6
		require.InDelta(t, area/(float64(space.MM(b.Max[0]-b.Min[0]))*float64(space.MM(b.Max[1]-b.Min[1]))), slab.Carries(b), 1e-3)
		if area > 0 && area < 1e-2 {
			continue // they touch, within the rounding to micrometres
		}
		high := b.Min[2] < 4000 && b.Max[2] > 2000
		axis, by := b.MeetsSlab(slab)
		require.Equal(t, area > 0 && high, by != 0, "area %g", area)
		for along := range 3 {
			low, most, there := slab.Within(b, along)
			require.Equal(t, by != 0, there)
			if there {
				require.GreaterOrEqual(t, low, b.Min[along])
				require.LessOrEqual(t, most, b.Max[along])
			}
		}
		if by == 0 {
			_, around := b.Meets(slab.Box)
			if around != 0 {
				inOpening++
			}
			continue
		}
		met++
		freed := func(move int64, within float64) bool {
			o := b
			o.Min[axis], o.Max[axis] = o.Min[axis]+move, o.Max[axis]+move
			if axis == 2 {
				return o.Min[2] >= 4000 || o.Max[2] <= 2000
			}
			left, err := geom.Intersection(g, rect(o))
			require.NoError(t, err)
			return left.Area() < within // of 1e6 to the square millimetre
		}
		require.True(t, freed(by, 1e4), "along %d by %d", axis, by)
		for part := range 8 {
			require.False(t, freed(by*int64(part)/8-by/50, 1), "along %d by less than %d", axis, by)
		}
	}
	assert.Greater(t, met, 400)
	assert.Greater(t, inOpening, 50)
}

// On 500 of them the distance of a rod is the least over places along it, each as far from the plate as the
// library says.
func TestRodsAndSlabsAgainstAGeometryLibrary(t *testing.T) {
	r := rand.New(rand.NewPCG(23, 24))
	through := 0
	for range 500 {
		slab, g := drawSlab(t, r)
		rod := drawRod(r)
		least := math.Inf(1)
		const steps = 200
		for i := range steps + 1 {
			var p [3]float64
			for k := range 3 {
				p[k] = rod.Foot[k] + float64(i)/steps*(rod.Tip[k]-rod.Foot[k])
			}
			away, ok := geom.Distance(g, geom.XY{X: 1000 * p[0], Y: 1000 * p[1]}.AsPoint().AsGeometry())
			require.True(t, ok)
			least = min(least, math.Hypot(away/1000, max(2-p[2], 0, p[2]-4)))
		}
		long := math.Sqrt(math.Pow(rod.Tip[0]-rod.Foot[0], 2) + math.Pow(rod.Tip[1]-rod.Foot[1], 2) + math.Pow(rod.Tip[2]-rod.Foot[2], 2))
		apart := rod.ApartFromSlab(slab)
		require.LessOrEqual(t, apart, least+1e-2)
		require.GreaterOrEqual(t, apart, least-long/steps)
		require.InDelta(t, max(0, 2-apart), rod.InSlab(slab), 1e-9)
		if apart == 0 {
			through++
		}
	}
	assert.Greater(t, through, 10)
}

// A block as a plate is the block.
func TestABlockAsASlab(t *testing.T) {
	r := rand.New(rand.NewPCG(25, 26))
	for range 500 {
		b, o, rod := draw(r), draw(r), drawRod(r)
		_, want := o.Meets(b)
		_, by := o.MeetsSlab(b.Whole())
		require.Equal(t, max(want, -want), max(by, -by))
		require.InDelta(t, rod.Apart(b), rod.ApartFromSlab(b.Whole()), 1e-6)
		require.Equal(t, b, b.Whole().Box)
		require.Len(t, b.Whole().Solids(), 1)
		require.ElementsMatch(t, b.Solid().Bottom(), b.Whole().Solids()[0].Bottom())
	}
	assert.Empty(t, space.NewSlab(nil, 0, 1).Solids())
	_, by := draw(r).MeetsSlab(space.NewSlab([][][2]int64{{{0, 0}, {5, 0}}}, 0, unitMM))
	assert.Zero(t, by)
}

const unitMM = 1000

// Sides that go on are one piece: a plate with arms has few.
func TestPiecesOfAPlate(t *testing.T) {
	mm := func(list ...[2]int64) (ring [][2]int64) {
		for _, c := range list {
			ring = append(ring, [2]int64{c[0] * unitMM, c[1] * unitMM})
		}
		return ring
	}
	outer := mm([2]int64{-60, -17}, [2]int64{60, -17}, [2]int64{60, 17}, [2]int64{-60, 17})
	slot := mm([2]int64{-10, -5}, [2]int64{10, -5}, [2]int64{10, 5}, [2]int64{-10, 5})
	slab := space.NewSlab([][][2]int64{outer, slot}, 0, 2*unitMM)
	assert.Len(t, slab.Solids(), 4)
	in := space.Standing([3]unit.Millimetres{0, 0, 0}, [3]unit.Millimetres{20, 10, 2}, 0)
	_, by := in.MeetsSlab(slab)
	assert.Zero(t, by, "it fills the opening, and touches")
	in = space.Standing([3]unit.Millimetres{3, 0, 0}, [3]unit.Millimetres{20, 10, 20}, 0)
	axis, by := in.MeetsSlab(slab)
	assert.Equal(t, []int64{int64(space.Z), 2000}, []int64{int64(axis), by})
	in.Min[2] = -20000
	axis, by = in.MeetsSlab(slab)
	assert.Equal(t, []int64{int64(space.X), -3000}, []int64{int64(axis), by}, "back into the opening")
}
