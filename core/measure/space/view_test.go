package space_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

// ray says whether a ray from the lens, at a place of the picture, meets a block: slab by slab,
// as ray tracers do it.
func ray(v space.View, right, up float64, b space.Box) bool {
	rad := math.Pi / 180
	way := [3]float64{1, -right * math.Tan(float64(v.Wide)/2*rad), up * math.Tan(float64(v.High)/2*rad)}
	sin, cos := math.Sincos(float64(v.Up) * rad)
	way[0], way[2] = cos*way[0]-sin*way[2], sin*way[0]+cos*way[2]
	sin, cos = math.Sincos(float64(v.Turn) * rad)
	way[0], way[1] = cos*way[0]-sin*way[1], sin*way[0]+cos*way[1]
	near, far := 0.0, math.Inf(1)
	for i := range 3 {
		low, high := float64(space.MM(b.Min[i]))-float64(v.From[i]), float64(space.MM(b.Max[i]))-float64(v.From[i])
		a, z := low/way[i], high/way[i]
		near, far = max(near, min(a, z)), min(far, max(a, z))
	}
	return near < far
}

func drawView(r *rand.Rand) space.View {
	deg := func(low, high int) unit.Degrees { return unit.Degrees(low + r.IntN(high-low+1)) }
	return space.View{From: [3]unit.Millimetres{-15, 1, 9}, Turn: deg(-180, 180), Up: deg(-30, 60), Wide: deg(40, 160),
		High: deg(30, 120)}
}

// On 1,000 random views of random blocks what is in the picture, and how much of it that covers,
// is what rays cast through the picture say.
func TestTheViewAgainstRayCasting(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	const grid = 60
	seen := 0
	for range 1000 {
		v, b := drawView(r), draw(r)
		if b.Min[0] < -14000 && b.Max[0] > -16000 {
			continue // it may hold the lens
		}
		hits := 0
		for i := range grid {
			for k := range grid {
				if ray(v, (2*float64(i)+1)/grid-1, (2*float64(k)+1)/grid-1, b) {
					hits++
				}
			}
		}
		share := space.Share(v.Look(b.Solid()).Seen())
		require.InDelta(t, float64(hits)/grid/grid, share, 0.035, "%+v %+v", v, b)
		if share > 0.05 {
			seen++
			require.Positive(t, hits)
		}
	}
	assert.Greater(t, seen, 60)
}

// drawBody is a block, a rod or a cylinder.
func drawBody(r *rand.Rand) space.Solid {
	switch mm := func(low, high int) unit.Millimetres { return unit.Millimetres(low + r.IntN(high-low+1)) }; r.IntN(3) {
	case 0:
		return draw(r).Solid()
	case 1:
		return drawRod(r).Solid()
	default:
		from := mm(-30, 30)
		return space.NewDisc(mm(-60, 60), mm(-60, 60), mm(5, 140), from, from+mm(1, 20)).Solid()
	}
}

// A camera that has moved as far as is said sees the body no longer; a little less far, it does.
func TestHowFarOnItIsFree(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	freed := 0
	for range 2000 {
		v, body := drawView(r), drawBody(r)
		if v.Look(body).Seen() == nil {
			continue
		}
		free, ok := v.Look(body).FreeAfter(200)
		if !ok {
			require.NotNil(t, v.Moved(200).Look(body).Seen())
			continue
		}
		freed++
		require.Nil(t, v.Moved(free).Look(body).Seen())
		require.NotNil(t, v.Moved(free-0.02).Look(body).Seen())
	}
	assert.Greater(t, freed, 300)
}

// A plate 10 mm over the lens that reaches 20 mm before it is seen by a level camera that sees
// 90° up and down from 10 mm on: it covers the picture down to 10 in 20, and is free 10 mm on.
func TestAPlateOverTheLens(t *testing.T) {
	v := space.View{Wide: 90, High: 90}
	plate := space.Standing([3]unit.Millimetres{0, 0, 10}, [3]unit.Millimetres{40, 200, 2}, 0)
	assert.InDelta(t, 0.25, space.Share(v.Look(plate.Solid()).Seen()), 0.0001)
	free, ok := v.Look(plate.Solid()).FreeAfter(100)
	require.True(t, ok)
	assert.InDelta(t, 10, float64(free), 0.02)
	v.Up = -45
	assert.Nil(t, v.Look(plate.Solid()).Seen(), "looking down by half of what it sees")
	v.Up, v.Turn = 0, 180
	assert.InDelta(t, 0.25, space.Share(v.Look(plate.Solid()).Seen()), 0.0001, "looking back")
}

// A block lies in a cylinder by what parts the two when it moves straight away.
func TestBlocksInDiscs(t *testing.T) {
	d := space.NewDisc(0, 0, 100, 10, 20)
	block := func(x, z unit.Millimetres) space.Box {
		return space.Standing([3]unit.Millimetres{x, 0, z}, [3]unit.Millimetres{20, 20, 5}, 0)
	}
	assert.Equal(t, int64(0), d.Meets(block(60, 12)), "they touch")
	assert.Equal(t, int64(3000), d.Meets(block(57, 12)))
	assert.Equal(t, int64(0), d.Meets(block(57, 5)), "under it")
	assert.Equal(t, int64(0), d.Meets(block(57, 20)), "over it")
	corner := space.Standing([3]unit.Millimetres{46, 46, 12}, [3]unit.Millimetres{20, 20, 5}, 0)
	assert.Equal(t, int64(0), d.Meets(corner), "its corner is 50.9 mm away, its sides 36 mm")
	bottom := d.Solid().Bottom()
	assert.Len(t, bottom, 24)
	for i, c := range bottom {
		next := bottom[(i+1)%24]
		assert.InDelta(t, 50, math.Hypot((c[0]+next[0])/2, (c[1]+next[1])/2), 0.001, "its sides touch the circle")
	}
}

// What the corners tell is what the outline tells, wherever a block lies.
func TestSeesIsThatSomethingIsSeen(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 9))
	var seen, not int
	for range 3000 {
		v := space.View{Turn: unit.Degrees(r.IntN(360)), Up: unit.Degrees(r.IntN(120) - 60), Wide: 90, High: 60}
		body := drawBody(r)
		is := v.Look(body).Seen() != nil
		require.Equal(t, is, v.Sees(body))
		if is {
			seen++
		} else {
			not++
		}
	}
	assert.Greater(t, min(seen, not), 500)
}

// What is missed is not seen, and most of what is not seen is missed.
func TestWhatIsMissedIsNotSeen(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 28))
	var missed, not int
	for range 2000 {
		v, from := drawView(r), unit.Millimetres(r.IntN(61)-30)
		disc := space.NewDisc(unit.Millimetres(r.IntN(301)-150), unit.Millimetres(r.IntN(301)-150), unit.Millimetres(5+r.IntN(120)),
			from, from+unit.Millimetres(1+r.IntN(20)))
		seen := v.Look(disc.Solid()).Seen() != nil
		if v.Misses(disc.Reach()) {
			require.False(t, seen, "%+v %+v", v, disc)
			missed++
		}
		if !seen {
			not++
		}
	}
	assert.Greater(t, missed, not/2)
	assert.Greater(t, 2000-not, 200)
}

// What lies over one another in the picture counts once.
func TestTheShareOfSeveral(t *testing.T) {
	square := func(x, y, side float64) [][2]float64 {
		return [][2]float64{{x, y}, {x + side, y}, {x + side, y + side}, {x, y + side}}
	}
	assert.InDelta(t, 0.25, space.Share(square(-1, -1, 1)), 1e-12)
	assert.InDelta(t, 0.25, space.Share(square(-1, -1, 1), square(-1, -1, 1)), 1e-3)
	assert.InDelta(t, (1+1-0.25)/4, space.Share(square(-1, -1, 1), square(-0.5, -0.5, 1)), 1e-3)
	assert.InDelta(t, 0.5, space.Share(square(-1, -1, 1), square(0, 0, 1)), 1e-3)
	assert.Zero(t, space.Share())
}
