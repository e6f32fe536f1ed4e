package space_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

func draw(r *rand.Rand) space.Box {
	mm := func(low, high int) unit.Millimetres { return unit.Millimetres(low + r.IntN(high-low+1)) }
	return space.Standing([3]unit.Millimetres{mm(-20, 20), mm(-20, 20), mm(0, 20)},
		[3]unit.Millimetres{mm(1, 20), mm(1, 20), mm(1, 20)}, r.IntN(4))
}

// On 2,000 random pairs blocks meet where a sampled point lies in both, and nowhere else.
func TestMeetingAgainstSampling(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	met := 0
	for range 2000 {
		a, b := draw(r), draw(r)
		in := func(p [3]int64, o space.Box) bool {
			for i := range 3 {
				if p[i] <= o.Min[i] || p[i] >= o.Max[i] {
					return false
				}
			}
			return true
		}
		// Corners lie on half millimetres: between them, quarters are enough to find a common point.
		common := false
		for x := a.Min[0] + 250; x < a.Max[0] && !common; x += 500 {
			for y := a.Min[1] + 250; y < a.Max[1] && !common; y += 500 {
				for z := a.Min[2] + 250; z < a.Max[2] && !common; z += 500 {
					common = in([3]int64{x, y, z}, b)
				}
			}
		}
		_, by := a.Meets(b)
		require.Equal(t, common, by != 0, "%v %v", a, b)
		if by != 0 {
			met++
		}
	}
	assert.Greater(t, met, 200)
}

// On 2,000 random blocks each with some others, one is covered along an axis where every sampled
// place of it is.
func TestCoveringAgainstSampling(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	covered := 0
	for range 2000 {
		b, axis := draw(r), r.IntN(3)
		others := make([]space.Box, 1+r.IntN(6))
		for i := range others {
			others[i] = draw(r)
		}
		x, y := (axis+1)%3, (axis+2)%3
		want := true
		for p := b.Min[x] + 250; p < b.Max[x] && want; p += 500 {
			for q := b.Min[y] + 250; q < b.Max[y] && want; q += 500 {
				want = slices.ContainsFunc(others, func(o space.Box) bool {
					return o.Min[axis] < b.Max[axis] && b.Min[axis] < o.Max[axis] &&
						p > o.Min[x] && p < o.Max[x] && q > o.Min[y] && q < o.Max[y]
				})
			}
		}
		require.Equal(t, want, b.Covered(axis, others), "%v along %d by %v", b, axis, others)
		if want {
			covered++
		}
	}
	assert.Greater(t, covered, 20)
}

// On 200 random blocks the shortest way around one is that over some point of its edges, found by
// trying them, never shorter than straight, and straight where nothing is between.
func TestAroundAgainstSampling(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	through := 0
	for range 200 {
		b := draw(r)
		place := func() (p [3]float64) {
			for i := range p {
				p[i] = -40 + 80*r.Float64()
			}
			return p
		}
		from, to := place(), place()
		away := func(a, b [3]float64) float64 { return math.Hypot(math.Hypot(a[0]-b[0], a[1]-b[1]), a[2]-b[2]) }
		want := away(from, to)
		crossed := false
		for step := range 4001 {
			part, in := float64(step)/4000, true
			for i := range from {
				at := from[i] + part*(to[i]-from[i])
				in = in && at > float64(space.MM(b.Min[i])) && at < float64(space.MM(b.Max[i]))
			}
			crossed = crossed || in
		}
		if crossed {
			require.True(t, b.Crossed(from, to))
		}
		if b.Crossed(from, to) {
			through++
			want = math.Inf(1)
			for corner := range 8 {
				var c [3]float64
				for i := range c {
					if c[i] = float64(space.MM(b.Min[i])); corner>>i&1 == 1 {
						c[i] = float64(space.MM(b.Max[i]))
					}
				}
				for axis := range 3 {
					p := c
					for step := range 2001 {
						p[axis] = float64(space.MM(b.Min[axis])) + float64(step)/2000*float64(space.MM(b.Max[axis]-b.Min[axis]))
						want = min(want, away(from, p)+away(p, to))
					}
				}
			}
		}
		require.InDelta(t, want, b.Around(from, to), 1e-3)
		require.GreaterOrEqual(t, b.Around(from, to), away(from, to)-1e-9)
	}
	assert.Greater(t, through, 5)
}

// Moving a block by what it is said to lie in another parts them, by less does not; blocks
// that touch do not meet; who is asked first makes no difference.
func TestLaws(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := rand.New(rand.NewPCG(rapid.Uint64().Draw(t, "seed"), 1))
		a, b := draw(r), draw(r)
		axis, by := a.Meets(b)
		_, back := b.Meets(a)
		require.Equal(t, max(by, -by), max(back, -back))
		if by == 0 {
			return
		}
		moved := a
		moved.Min[axis], moved.Max[axis] = a.Min[axis]+by, a.Max[axis]+by
		_, left := moved.Meets(b)
		require.Zero(t, left, "they touch")
		step := int64(1)
		if by < 0 {
			step = -1
		}
		moved.Min[axis], moved.Max[axis] = moved.Min[axis]-step, moved.Max[axis]-step
		_, left = moved.Meets(b)
		require.NotZero(t, left, "a micrometre less")
	})
}

// A quarter turn changes length for width; what lies beside a block touches it.
func TestTurnsAndSides(t *testing.T) {
	size := [3]unit.Millimetres{30, 20, 10}
	at := [3]unit.Millimetres{1, 2, 3}
	assert.Equal(t, space.Box{Min: [3]int64{-14000, -8000, 3000}, Max: [3]int64{16000, 12000, 13000}}, space.Standing(at, size, 0))
	assert.Equal(t, space.Box{Min: [3]int64{-9000, -13000, 3000}, Max: [3]int64{11000, 17000, 13000}}, space.Standing(at, size, 1))
	assert.Equal(t, space.Standing(at, size, 0), space.Standing(at, size, 2))
	box := space.Standing(at, size, 0)
	ahead := box.Beside(space.X, 5000)
	assert.Equal(t, int64(16000), ahead.Min[space.X])
	assert.Equal(t, int64(21000), ahead.Max[space.X])
	_, by := ahead.Meets(box)
	assert.Zero(t, by)
	narrow := ahead.Narrowed(space.Y, 4000)
	assert.Equal(t, [2]int64{0, 4000}, [2]int64{narrow.Min[space.Y], narrow.Max[space.Y]})
	assert.Equal(t, ahead, ahead.Narrowed(space.Y, 50_000))
	behind := box.Beside(space.X, -5000)
	assert.Equal(t, int64(-19000), behind.Min[space.X])
}
