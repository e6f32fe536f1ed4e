package prove_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/work/prove"
)

// drawnPart is a random recording: uneven steps, samples that say nothing.
func drawnPart(r *rand.Rand) prove.Part {
	p := prove.Part{Values: [][]float64{{}}}
	at := 0.0
	for range 20 + r.IntN(200) {
		at += 0.05 + r.Float64()*0.3
		p.TimesS = append(p.TimesS, at)
		v := math.Round(r.Float64()*300) / 10
		if r.IntN(9) == 0 {
			v = math.NaN()
		}
		p.Values[0] = append(p.Values[0], v)
	}
	return p
}

// The worst passage against all passages there are, taken one by one.
func TestTheWorstPassageAgainstAll(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	for range 200 {
		p := drawnPart(r)
		const length = 3.0
		least := math.Inf(1)
		for from := range p.TimesS {
			sum, n, to := 0.0, 0, from
			for k := from; k < len(p.TimesS) && p.TimesS[k]-p.TimesS[from] <= length; k++ {
				if to = k; !math.IsNaN(p.Values[0][k]) {
					sum, n = sum+p.Values[0][k], n+1
				}
			}
			if n > 0 && p.TimesS[to]-p.TimesS[from] >= 0.8*length {
				least = min(least, sum/float64(n))
			}
		}
		worst := p.Worst(0, length, 3)
		if math.IsInf(least, 1) {
			assert.Empty(t, worst)
			continue
		}
		require.NotEmpty(t, worst)
		sum, n := 0.0, 0
		low := math.Inf(1)
		for k, at := range p.TimesS {
			if at >= worst[0].FromS && at <= worst[0].ToS && !math.IsNaN(p.Values[0][k]) {
				sum, n, low = sum+p.Values[0][k], n+1, min(low, p.Values[0][k])
			}
		}
		assert.InDelta(t, least, sum/float64(n), 1e-9)
		assert.InDelta(t, low, worst[0].Value, 1e-9)
		for i := range worst {
			for k := range i {
				assert.True(t, worst[i].FromS > worst[k].ToS || worst[i].ToS < worst[k].FromS, "none overlaps another")
			}
		}
	}
}

// A curve in fewer points keeps the lowest and the highest there is.
func TestACurveLosesNothing(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 2))
	for range 100 {
		p := drawnPart(r)
		low, top := math.Inf(1), math.Inf(-1)
		for _, v := range p.Values[0] {
			if !math.IsNaN(v) {
				low, top = min(low, v), max(top, v)
			}
		}
		points := p.Curve(0, 15, 2)
		assert.LessOrEqual(t, len(points), 15)
		is, was := math.Inf(1), math.Inf(-1)
		for i, d := range points {
			is, was = min(is, d.Low), max(was, d.Top)
			assert.True(t, i == 0 || points[i-1].X < d.X)
		}
		assert.InDelta(t, low*2, is, 1e-9)
		assert.InDelta(t, top*2, was, 1e-9)
	}
}
