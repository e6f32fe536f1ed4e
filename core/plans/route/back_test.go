package route

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
)

// A law: the way back, walked from the end of any plan, brings each device to
// where it stood, but for those whose doors it names before the first step.
func TestTheWayBackEndsWhereItBegan(t *testing.T) {
	walked, doors := 0, 0
	for seed := range uint64(300) {
		r := instance(40000+seed, 1+int(seed%6), 1+int(seed%3))
		plan := solved(t, r)
		after, homes, err := After(r, plan.Steps)
		require.NoError(t, err)
		back, err := WayBack(after, homes)
		require.NoError(t, err)
		require.ElementsMatch(t, plan.Doors, back.Doors, "seed %d", seed)
		stands := map[string]firmware.State{}
		for _, kit := range after.Fleet.Kit {
			stands[kit.ID] = firmware.State{Version: kit.Firmware, Mode: kit.Mode, Activated: *kit.Activated}
		}
		for _, s := range back.Steps {
			at := stands[s.Device]
			require.Equal(t, at.Version, s.From)
			if s.Do == Mode {
				at.Mode = s.Mode
			} else {
				kit, _ := after.Fleet.Piece(s.Device)
				at.Version, at.Mode = s.To, r.Library.Chart(kit.Model).KeptMode(at.Mode, s.To)
			}
			stands[s.Device] = at
		}
		home := 0
		for id, was := range homes {
			if at := stands[id]; at.Version.Compare(was.Version) == 0 && (was.Mode == "" || at.Mode == was.Mode) {
				home++
			}
		}
		require.Equal(t, len(homes)-len(back.Doors), home, "seed %d", seed)
		require.Len(t, back.Lanes, len(plan.Lanes))
		walked += len(back.Steps)
		doors += len(back.Doors)
	}
	assert.Greater(t, walked, 20)
	assert.Greater(t, doors, 20)
}

// What the tool does not offer is planned round, and the way home leads to what
// was read first.
func TestARouteThatDoesNotGoAsPlanned(t *testing.T) {
	r := request(map[string]firmware.Version{"second": "2.0"}, must("second", "new-eyes"))
	require.Equal(t, []string{"unit-second 2.3"}, moves(solved(t, r)))
	taken := []fleet.Taken{{Kit: "unit-second", Do: "update", From: "2.0", Planned: "2.3", NotOffered: true}}
	r.NotOffered = NotOffered(taken)
	p := solved(t, r)
	assert.Empty(t, p.Steps)
	assert.False(t, p.Links[0].Met)
	assert.Empty(t, Homes(taken), "nothing has been done yet")

	taken = append(taken, fleet.Taken{Kit: "unit-second", Do: "update", From: "2.0", Planned: "2.3", Read: "2.3"},
		fleet.Taken{Kit: "unit-second", Do: "update", From: "2.3", Read: "2.0"})
	assert.Empty(t, NotOffered(taken)["unit-second"], "it went on after all")
	assert.Equal(t, firmware.Version("2.0"), Homes(taken)["unit-second"].Version)
}
