package swap_test

import (
	"fmt"
	"math/rand/v2"
	"reflect"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/power"
	"yokeswap/core/measure/unit"
	"yokeswap/core/plans/swap"
	"yokeswap/internal/builds"
)

// unitOf is the air unit that a quad of the demo carries next, to be changed.
func unitOf(t *testing.T, st *stock.Stock, quad string) *gear.AirUnit {
	q, ok := st.Fleet.Quad(quad)
	require.True(t, ok)
	kit, ok := st.Fleet.Piece(q.NextFit().AirUnit.Kit)
	require.True(t, ok)
	for _, set := range st.Sets {
		for i := range set.AirUnits {
			if set.AirUnits[i].ID == kit.Model {
				return &set.AirUnits[i]
			}
		}
	}
	t.Fatal("no such unit")
	return nil
}

func judgedQuad(t *testing.T, st *stock.Stock, quad string) *swap.Judgement {
	index := fleet.NewIndex(st.Fleet)
	q, ok := index.Fleet.Quad(quad)
	require.True(t, ok)
	return new(swap.JudgeWithFixes(fleet.NewCase(gear.NewLibrary(st.Sets...), index, q)))
}

// A peak power stated as a range is judged at both ends: what does not carry the upper one
// is said, with what it is said for, and what mends it mends it there too.
func TestARangeIsJudgedAtItsWorst(t *testing.T) {
	st := builds.Demo()
	u := unitOf(t, st, "fantail")
	peak := float64(*u.Input.PeakW)
	before := judgedQuad(t, st, "fantail").Gate(verdict.Power)
	u.Input.PeakW, u.Input.TypicalW = nil, nil
	u.Ranges = []gear.Range{{Value: "input.peakW", Low: peak - 1, High: peak + 1}}
	around := judgedQuad(t, st, "fantail").Gate(verdict.Power)
	assert.False(t, before.Level.WorseThan(around.Level))
	u.Ranges[0] = gear.Range{Value: "input.peakW", Low: 1, High: 40}
	wide := judgedQuad(t, st, "fantail").Gate(verdict.Power)
	require.Equal(t, verdict.Unfit, wide.Level, "40 W are too much for what feeds it")
	var said []string
	for _, f := range wide.Findings {
		if f.Level == verdict.Unfit {
			require.NotEmpty(t, f.Supposing, f.Says)
			said = append(said, f.Supposing...)
		}
	}
	assert.Contains(t, said, fmt.Sprintf("input peak of %s 40.0 W, stated as 1.0 W to 40.0 W", u.Label()))
}

// A revision nobody has stated is judged as the worst there is; stating it settles it.
func TestARevisionNotStatedIsTheWorst(t *testing.T) {
	st := builds.Demo()
	u := unitOf(t, st, "fantail")
	u.Variants = []gear.Variant{{Value: "input.maxV", Revision: "B", Number: new(9.0)}}
	kit, _ := st.Fleet.Piece(func() string { q, _ := st.Fleet.Quad("fantail"); return q.NextFit().AirUnit.Kit }())
	levels := map[string]verdict.Level{}
	for _, revision := range []string{"", "A", "B"} {
		kit.Revision = revision
		g := judgedQuad(t, st, "fantail").Gate(verdict.Power)
		levels[revision] = g.Level
		if revision != "" {
			continue
		}
		asked := false
		for _, f := range g.Findings {
			for _, m := range f.Missing {
				asked = asked || m.Of == "kit" && m.ID == kit.ID && m.Field == "revision"
			}
		}
		assert.True(t, asked, "the revision is asked for")
	}
	kit.Revision = ""
	index := fleet.NewIndex(st.Fleet)
	q, _ := index.Fleet.Quad("fantail")
	c := fleet.NewCase(gear.NewLibrary(st.Sets...), index, q)
	j := swap.Judge(c)
	for _, node := range power.Trace(j.At(verdict.Power, c)).Nodes {
		if node.ID == fleet.NodeAirUnit {
			assert.Equal(t, unit.Volts(9), *node.MaxV, "it is drawn as it is judged")
		}
	}
	assert.Equal(t, verdict.Unfit, levels["B"])
	assert.Equal(t, levels["B"], levels[""])
	assert.True(t, levels["B"].WorseThan(levels["A"]))
}

// Law: stating the region or the revision never makes a verdict worse than it was while
// that was open, and a narrower range neither.
func TestSettlingWhatIsOpenIsNeverWorse(t *testing.T) {
	withoutRace(t)
	random := rand.New(rand.NewPCG(27, 11))
	for range 26 {
		st := builds.Demo()
		quad := st.Fleet.Quads[random.IntN(len(st.Fleet.Quads))].ID
		q, _ := st.Fleet.Quad(quad)
		slot := q.NextFit().AirUnit
		if slot == nil || slot.Kit == "" {
			continue
		}
		u := unitOf(t, st, quad)
		kit, _ := st.Fleet.Piece(slot.Kit)
		kit.Revision = ""
		u.Input.PeakW, u.Input.TypicalW = nil, nil
		low := 2 + random.Float64()*10
		high := low + random.Float64()*25
		u.Ranges = []gear.Range{{Value: "input.peakW", Low: low, High: high}}
		u.Variants = []gear.Variant{
			{Value: "input.maxV", Revision: "B", Number: new(6 + random.Float64()*30)},
			{Value: "input.maxV", Revision: "C", Number: new(6 + random.Float64()*30)},
		}
		open := judgedQuad(t, st, quad)
		kit.Revision = []string{"A", "B", "C"}[random.IntN(3)]
		settled := judgedQuad(t, st, quad)
		u.Ranges[0].High = low + (high-low)*(0.1+0.8*random.Float64())
		narrow := judgedQuad(t, st, quad)
		for i := range open.Gates {
			assert.False(t, settled.Gates[i].Level.WorseThan(open.Gates[i].Level), "%s, %s", quad, open.Gates[i].Gate)
			assert.False(t, narrow.Gates[i].Level.WorseThan(settled.Gates[i].Level), "%s, %s", quad, open.Gates[i].Gate)
		}
	}
}

// A value that hangs on the revision and on the region is judged where neither is stated.
func TestAValueThatHangsOnBothIsJudged(t *testing.T) {
	st := builds.Demo()
	u := unitOf(t, st, "fantail")
	region := st.Fleet.Region
	u.Variants = []gear.Variant{{Value: "input.maxV", Revision: "B", Region: region, Number: new(9.0)}}
	kit, _ := st.Fleet.Piece(func() string { q, _ := st.Fleet.Quad("fantail"); return q.NextFit().AirUnit.Kit }())
	for _, c := range []struct {
		region, revision string
		burns            bool
	}{
		{"", "", true}, {region, "", true}, {"", "B", true}, {region, "B", true}, {region, "A", false}, {"", "A", false},
	} {
		st.Fleet.Region, kit.Revision = c.region, c.revision
		power := judgedQuad(t, st, "fantail").Gate(verdict.Power)
		burns := false
		for _, f := range power.Findings {
			for _, o := range f.Compares {
				burns = burns || o.Needed == "9.00 V at most" || o.Needed == "9.0 V at most"
			}
		}
		assert.Equal(t, c.burns, burns, "%+v: %+v", c, power.Findings)
	}
}

// numbersOf are the paths of the numbers an entry states, outside its lists.
func numbersOf(v reflect.Value, path string, add func(path string, is float64)) {
	switch v.Kind() {
	case reflect.Pointer:
		if !v.IsNil() {
			numbersOf(v.Elem(), path, add)
		}
	case reflect.Float64, reflect.Int:
		if number := v.Convert(reflect.TypeFor[float64]()).Float(); number != 0 {
			add(path, number)
		}
	case reflect.Struct:
		for i := range v.NumField() {
			f := v.Type().Field(i)
			name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
			switch {
			case f.Anonymous:
				numbersOf(v.Field(i), path, add)
			case f.IsExported() && name != "" && name != "-":
				numbersOf(v.Field(i), strings.TrimPrefix(path+"."+name, "."), add)
			}
		}
	}
}

// Law: a gate judged only in the worlds where something it reads is another says what it says
// judged in all of them. Ranges are put on three random numbers of what each quad of the demo is made of.
func TestAGateIsAskedWhereverItMatters(t *testing.T) {
	withoutRace(t)
	random := rand.New(rand.NewPCG(28, 11))
	opened := 0
	for range 150 {
		st := builds.Demo()
		q := &st.Fleet.Quads[random.IntN(len(st.Fleet.Quads))]
		var reached []gear.Item
		fleet.NewCase(st.Library(), fleet.NewIndex(st.Fleet), q).Names(func(id string) {
			for _, set := range st.Sets {
				for _, list := range set.Lists() {
					for _, item := range list.Items {
						if item.Head().ID == id && item.Kind() != gear.KindPairing {
							reached = append(reached, item)
						}
					}
				}
			}
		})
		for range 3 {
			item := reached[random.IntN(len(reached))]
			var ranges []gear.Range
			few := random.IntN(2) == 0 // of what most gates never read
			numbersOf(reflect.ValueOf(item), "", func(path string, is float64) {
				if !few || strings.HasPrefix(path, "input.") || path == "massG" {
					ranges = append(ranges, gear.Range{Value: path, Low: is * 0.6, High: is * 1.5})
				}
			})
			if len(ranges) > 0 {
				opened++
				item.Head().Ranges = append(item.Head().Ranges, ranges[random.IntN(len(ranges))])
			}
		}
		c := fleet.NewCase(gear.NewLibrary(st.Sets...), fleet.NewIndex(st.Fleet), q)
		skips, all := swap.Judge(c), swap.Everywhere(c)
		for i := range all.Gates {
			require.Equal(t, all.Gates[i].Findings, skips.Gates[i].Findings, "%s, %s", q.ID, all.Gates[i].Gate)
		}
	}
	assert.Greater(t, opened, 200)
}
