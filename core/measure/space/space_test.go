package space_test

import (
	"math/rand/v2"
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
