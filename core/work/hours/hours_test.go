package hours_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/work/hours"
)

// A unit that went from quad to quad has flown what it flew on each; a flight nobody timed counts as one, and
// is said; what was flown before nobody wrote the unit down stands by itself.
func TestHoursOfUnits(t *testing.T) {
	minutes := func(m float64) *float64 { return &m }
	set := &gear.Set{
		AirUnits:   []gear.AirUnit{{Device: gear.Device{Entry: gear.Entry{ID: "two", Name: "Two"}}, Radio: &gear.Radio{AntennaPort: gear.AntennaPort{Plug: "coax"}}}},
		Connectors: []gear.Connector{{Entry: gear.Entry{ID: "coax", Name: "A coax plug"}, Matings: new(30)}},
	}
	f := &fleet.Fleet{
		Kit: []fleet.Kit{{ID: "two-1", Name: "the first Two", Model: "two", Matings: new(4)},
			{ID: "two-2", Model: "two", Matings: new(1)}, {ID: "eyes", Model: "eyes", Matings: new(9)}},
		Quads: []fleet.Quad{
			{ID: "quern", Name: "Quern", Outings: []fleet.Outing{
				{On: "2026-05-12", AirUnit: "two-1", Minutes: minutes(41)},
				{On: "2026-05-20", AirUnit: "two-1", Minutes: minutes(12), Crash: true, Says: "a gate"},
				{On: "2026-06-01", AirUnit: "sold", Minutes: minutes(5)},
				{On: "2026-06-02"},
			}},
			{ID: "damsel", Name: "Damsel", Outings: []fleet.Outing{
				{On: "2026-05-20", AirUnit: "two-1", Minutes: minutes(9)},
				{On: "2026-07-01", AirUnit: "two-1", Minutes: minutes(8.5)},
				{On: "2026-07-02", AirUnit: "two-1"},
			}},
			{ID: "bare"},
		},
	}
	list := hours.Units(gear.NewLibrary(set), fleet.NewIndex(f))
	require.Len(t, list, 4)
	assert.Equal(t, "No flight is noted.", list[3].Says)
	assert.Equal(t, "Its antenna plugs have been on and off 1 time; A coax plug survives about 30.", list[3].Plugs)
	two := list[0]
	assert.Equal(t, "the first Two", two.Name)
	assert.InDelta(t, 41+12+9+8.5, two.Minutes, 1e-9)
	assert.Equal(t, []int{5, 1, 1}, []int{two.Flights, two.Crashes, two.Untimed})
	assert.InDelta(t, 8.5, *two.SinceCrash, 1e-9, "what was flown on the day of the crash may have been before it")
	assert.Equal(t, "1 h 11 in the air on Damsel and Quern, and 1 flight nobody has timed; 1 crash.", two.Says)
	assert.Equal(t, []string{"2026-07-02", "2026-07-01", "2026-05-20", "2026-05-20", "2026-05-12"},
		[]string{two.Lines[0].On, two.Lines[1].On, two.Lines[2].On, two.Lines[3].On, two.Lines[4].On})
	assert.Equal(t, 1, two.Lines[2].At, "its place among the outings of its quad")
	assert.Equal(t, "Its antenna plugs have been on and off 4 times; A coax plug survives about 30.", two.Plugs)
	assert.Empty(t, list[1].Plugs)
	assert.Equal(t, "sold", list[1].Name, "it is not there any more")
	assert.Equal(t, "5 min in the air on Quern; no crash.", list[1].Says)
	assert.Nil(t, list[1].SinceCrash)
	assert.Equal(t, "unit not stated", list[2].Name)
	f.Quads[0].Outings[0].Crash = true
	two = hours.Units(gear.NewLibrary(set), fleet.NewIndex(f))[0]
	assert.Equal(t, 2, two.Crashes)
	assert.InDelta(t, 8.5, *two.SinceCrash, 1e-9, "since the last of them")
	assert.Contains(t, two.Says, "; 2 crashes.")
	assert.Empty(t, hours.Units(gear.NewLibrary(set), fleet.NewIndex(&fleet.Fleet{})))
}
