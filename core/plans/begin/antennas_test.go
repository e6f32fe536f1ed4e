package begin_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/begin"
)

// Antennas are offered by as many as there are plugs: of the box, described, of the shelf; none
// that cannot be screwed on.
func TestAntennasAreOfferedByTheSet(t *testing.T) {
	four := 4
	antenna := func(id, plug string) gear.Antenna {
		return gear.Antenna{Entry: gear.Entry{ID: id, Name: id}, Plug: plug}
	}
	set := &gear.Set{
		Connectors: []gear.Connector{{Entry: gear.Entry{ID: "sma", Name: "SMA"}}, {Entry: gear.Entry{ID: "ufl"}}},
		Antennas:   []gear.Antenna{antenna("stub", "sma"), antenna("wire", "ufl"), antenna("plain", "")},
		Goggles: []gear.Goggles{{
			Device:  gear.Device{Entry: gear.Entry{ID: "eyes", Box: []gear.Pieces{{Model: "stub", Count: 4}}}},
			Receive: &gear.AntennaPort{Antennas: &four, Plug: "sma"},
		}, {Device: gear.Device{Entry: gear.Entry{ID: "unknown"}}}},
	}
	for i := range set.Antennas {
		set.Antennas[i].PlugSex = gear.Male
	}
	lib := gear.NewLibrary(set)
	shelf := &gear.Set{Antennas: []gear.Antenna{antenna("plain", ""), antenna("patch", "")}}
	kit := fleet.Kit{ID: "mine", Model: "eyes"}
	labels := []string{}
	for _, p := range begin.AntennaPicks(lib, shelf, &kit) {
		labels = append(labels, p.Key+" "+p.Label+"; "+p.Note)
	}
	assert.Equal(t, []string{"box stub and 3 more; come in its box", "model:stub 4 × stub; ", "model:plain 4 × plain; ",
		"shelf:plain-on-sma 4 × plain, on SMA; from the trade shelf", "shelf:patch-on-sma 4 × patch, on SMA; from the trade shelf"}, labels)
	assert.Empty(t, begin.AntennaPicks(lib, shelf, &fleet.Kit{ID: "other", Model: "unknown"}))

	st := stock.New()
	st.Sets = []*gear.Set{set}
	st.Fleet.Kit = []fleet.Kit{kit}
	require.ErrorContains(t, begin.PutAntennas(st, shelf, "mine", "model:wire"), "nothing that can be put on mine")
	require.ErrorContains(t, begin.PutAntennas(st, shelf, "nobody", "box"), "no piece of kit")
	assert.Empty(t, st.Fleet.Kit[0].Antennas)
	for key, on := range map[string]string{"box": "stub", "model:plain": "plain", "shelf:patch-on-sma": "patch-on-sma"} {
		require.NoError(t, begin.PutAntennas(st, shelf, "mine", key))
		assert.Equal(t, []string{on, on, on, on}, st.Fleet.Kit[0].Antennas)
	}
	patch, there := gear.Find[*gear.Antenna](st.Library(), "patch-on-sma")
	require.True(t, there)
	assert.True(t, patch.Onto(set.Goggles[0].Receive), "it goes on")
	assert.Equal(t, gear.Practice, patch.ValueSources["plug"].Kind)
}

// What is missing of a thing stands at its place, once; what belongs to no place stands at none.
func TestWhatIsAskedStandsAtItsPlace(t *testing.T) {
	slots := []begin.Slot{{Name: "airUnit", Model: "unit", Kit: "mine"}, {Name: "pack"}}
	begin.Ask(slots, []verdict.Finding{{Missing: []verdict.Missing{
		{Of: "gear", ID: "unit", Label: "mass"}, {Of: "gear", ID: "unit", Label: "mass"},
		{Of: "kit", ID: "mine", Label: "firmware"}, {Of: "quad", ID: "unit", Label: "bay"}, {Of: "fleet", Label: "region"},
	}}})
	assert.Equal(t, []string{"mass", "firmware"}, slots[0].Asks)
	assert.Empty(t, slots[1].Asks)
}
