package space_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

func drawRod(r *rand.Rand) space.Rod {
	mm := func() unit.Millimetres { return unit.Millimetres(r.IntN(81) - 40) }
	return space.NewRod([3]unit.Millimetres{mm(), mm(), mm()}, unit.Millimetres(1+r.IntN(60)), 4,
		unit.Degrees(r.IntN(361)-180), unit.Degrees(r.IntN(181)-90))
}

// On 2,000 random rods the distance from a block and from a cylinder is the least over 2,001
// places sampled along the rod, within what lies between two of them.
func TestRodsAgainstSampling(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 8))
	through := 0
	for range 2000 {
		rod, b := drawRod(r), draw(r)
		d := space.NewDisc(5, -3, 30, 2, 12)
		least, round := math.Inf(1), math.Inf(1)
		for i := range 2001 {
			var p, off [3]float64
			for k := range 3 {
				p[k] = rod.Foot[k] + float64(i)/2000*(rod.Tip[k]-rod.Foot[k])
				off[k] = max(float64(space.MM(b.Min[k]))-p[k], 0, p[k]-float64(space.MM(b.Max[k])))
			}
			least = min(least, math.Sqrt(off[0]*off[0]+off[1]*off[1]+off[2]*off[2]))
			away := max(0, math.Hypot(p[0]-5, p[1]+3)-15)
			round = min(round, math.Hypot(away, max(2-p[2], 0, p[2]-12)))
		}
		require.InDelta(t, least, rod.Apart(b), 0.02)
		require.InDelta(t, round, rod.ApartFrom(d), 0.02)
		require.InDelta(t, max(0, 2-least), rod.In(b), 0.02)
		require.Equal(t, max(0, 2-rod.Apart(b)), rod.In(b))
		require.Equal(t, max(0, 2-rod.ApartFrom(d)), rod.InDisc(d))
		if least == 0 {
			through++
		}
	}
	assert.Greater(t, through, 10)
}

func TestAnglesBetweenRods(t *testing.T) {
	stands := func(turn, rise unit.Degrees) space.Rod {
		return space.NewRod([3]unit.Millimetres{1, 2, 3}, 40, 3, turn, rise)
	}
	assert.InDelta(t, 90, float64(stands(0, 0).Between(stands(90, 0))), 1e-6)
	assert.InDelta(t, 60, float64(stands(90, 60).Between(stands(-90, 60))), 1e-6)
	assert.InDelta(t, 180, float64(stands(0, 0).Between(stands(180, 0))), 1e-6)
	up := stands(30, 90)
	assert.InDelta(t, 43, up.Tip[2], 1e-9)
	assert.Len(t, up.Solid().Bottom(), 8)
	assert.InDelta(t, 1.5/math.Cos(math.Pi/8), math.Hypot(up.Solid().Bottom()[0][0]-1, up.Solid().Bottom()[0][1]-2), 1e-9)
}

// A lead is never shorter than straight, longer by a few radii at most, and bent no tighter than
// asked where there is room; straight on it is as long as it is far.
func TestTheLengthOfLeads(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := rand.New(rand.NewPCG(rapid.Uint64().Draw(t, "seed"), 2))
		a, b := drawRod(r), drawRod(r)
		way := func(rod space.Rod) (d [3]float64) {
			l := math.Sqrt(math.Pow(rod.Tip[0]-rod.Foot[0], 2) + math.Pow(rod.Tip[1]-rod.Foot[1], 2) + math.Pow(rod.Tip[2]-rod.Foot[2], 2))
			for i := range d {
				d[i] = (rod.Tip[i] - rod.Foot[i]) / l
			}
			return d
		}
		lead := space.Lead{From: a.Foot, Leaves: way(a), To: b.Foot, Arrives: way(b), Radius: float64(1 + r.IntN(8))}
		long, radius := lead.Way()
		var far float64
		for i := range 3 {
			far += math.Pow(lead.To[i]-lead.From[i], 2)
		}
		require.GreaterOrEqual(t, long, math.Sqrt(far)-1e-6)
		require.LessOrEqual(t, long, math.Sqrt(far)+12*lead.Radius+1e-6, "three radii out and in, there and back")
		require.LessOrEqual(t, radius, lead.Radius)
	})
	straight := space.Lead{Leaves: [3]float64{1, 0, 0}, To: [3]float64{50, 0, 0}, Arrives: [3]float64{1, 0, 0}, Radius: 5}
	long, radius := straight.Way()
	assert.InDelta(t, 50, long, 1e-9)
	assert.InDelta(t, 5, radius, 1e-9)
	// Around a corner of 90° with 5 mm: 45 mm there, an arc of 5·π/2, 45 mm on.
	corner := space.Lead{Leaves: [3]float64{1, 0, 0}, To: [3]float64{5, 50, 0}, Arrives: [3]float64{0, 1, 0}, Radius: 5}
	long, radius = corner.Way()
	assert.InDelta(t, 45+5*math.Pi/2, long, 1e-9)
	assert.InDelta(t, 5, radius, 1e-9)
	// Back beside itself, 4 mm away: there is room for half of that.
	corner = space.Lead{Leaves: [3]float64{1, 0, 0}, To: [3]float64{0, 4, 0}, Arrives: [3]float64{-1, 0, 0}, Radius: 5}
	_, radius = corner.Way()
	assert.InDelta(t, 2, radius, 1e-9)
}
