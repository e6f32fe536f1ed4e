package link_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
)

// A cell says what the statements come to, and how what is owned stands today.
func TestTheMapOfLinks(t *testing.T) {
	statement := func(id string, change func(*gear.Pairing)) gear.Pairing {
		p := gear.Pairing{Entry: gear.Entry{ID: id}, AirUnit: "u", Goggles: "g"}
		change(&p)
		return p
	}
	for _, c := range []struct {
		name   string
		list   []gear.Pairing
		unit   fleet.Kit
		eyes   fleet.Kit
		stated link.Stated
		says   string
		now    verdict.Level
	}{
		{"nobody has said", nil, fleet.Kit{Firmware: "1.0"}, fleet.Kit{Firmware: "2.0"}, link.StatedNobody, "nobody has said",
			verdict.Unknown},
		{"any to any", []gear.Pairing{statement("a", func(*gear.Pairing) {})}, fleet.Kit{}, fleet.Kit{}, link.StatedAny,
			"any to any", verdict.Fits},
		{"never", []gear.Pairing{statement("a", func(p *gear.Pairing) { p.Never = true })}, fleet.Kit{}, fleet.Kit{},
			link.StatedNever, "never", verdict.Unfit},
		{"on some, and they are", []gear.Pairing{statement("a", func(p *gear.Pairing) { p.AirFirmware, p.Mode = ">=1.1", "b" })},
			fleet.Kit{Firmware: "1.2"}, fleet.Kit{Mode: "b"}, link.StatedSome, "unit 1.1 or later, mode Second", verdict.Fits},
		{"on some, another mode", []gear.Pairing{statement("a", func(p *gear.Pairing) { p.Mode = "b" })},
			fleet.Kit{Firmware: "1.2"}, fleet.Kit{Mode: "a"}, link.StatedSome, "mode Second", verdict.Change},
		{"on some, not read", []gear.Pairing{statement("a", func(p *gear.Pairing) { p.GogglesFirmware = "<2" })},
			fleet.Kit{Firmware: "1.2"}, fleet.Kit{}, link.StatedSome, "goggles before 2", verdict.Unknown},
		{"on either of two", []gear.Pairing{
			statement("a", func(p *gear.Pairing) { p.AirFirmware = "<=1.0" }),
			statement("b", func(p *gear.Pairing) { p.AirFirmware = ">=1.2" })},
			fleet.Kit{Firmware: "1.1"}, fleet.Kit{}, link.StatedSome, "unit 1.0 or earlier; or unit 1.2 or later", verdict.Change},
		{"contradictory", []gear.Pairing{
			statement("a", func(p *gear.Pairing) { p.Never = true }), statement("b", func(*gear.Pairing) {})},
			fleet.Kit{}, fleet.Kit{}, link.StatedAtOdds, "a (source not stated) and b (source not stated) contradict each other: " +
				"one says they never link, the other that they do", verdict.Unfit},
		{"contradictory, the kinder one first", []gear.Pairing{
			statement("a", func(*gear.Pairing) {}), statement("b", func(p *gear.Pairing) { p.Never = true })},
			fleet.Kit{}, fleet.Kit{}, link.StatedAtOdds, "a (source not stated) and b (source not stated) contradict each other: " +
				"one says they never link, the other that they do", verdict.Unfit},
	} {
		t.Run(c.name, func(t *testing.T) {
			set := &gear.Set{Pairings: c.list}
			set.Add(&gear.AirUnit{Device: gear.Device{
				Entry:    gear.Entry{ID: "u"},
				Releases: []gear.Release{{Version: "1.0"}, {Version: "1.1"}, {Version: "1.2"}},
			}})
			set.Add(&gear.Goggles{Device: gear.Device{Entry: gear.Entry{ID: "g"}}, Modes: []gear.Mode{{ID: "a"}, {ID: "b", Name: "Second"}}})
			c.unit.ID, c.unit.Model, c.eyes.ID, c.eyes.Model = "ku", "u", "kg", "g"
			m := link.NewMap(gear.NewLibrary(set), fleet.NewIndex(&fleet.Fleet{Kit: []fleet.Kit{c.unit, c.eyes}}), nil)
			require.Len(t, m.Cells, 1)
			cell := m.Cells[0]
			assert.Equal(t, c.stated, cell.Stated)
			assert.Equal(t, c.says, cell.Says)
			assert.Equal(t, c.now, cell.Now, cell.NowSays)
			assert.Len(t, cell.Statements, len(c.list))
		})
	}
	none := link.NewMap(gear.NewLibrary(&gear.Set{
		AirUnits: []gear.AirUnit{{Device: gear.Device{Entry: gear.Entry{ID: "u"}}}},
		Goggles:  []gear.Goggles{{Device: gear.Device{Entry: gear.Entry{ID: "g"}}}},
	}), fleet.NewIndex(&fleet.Fleet{}), nil)
	assert.Empty(t, none.Cells[0].Now, "nothing of it is owned")
}

// Before and after planned updates: what links today and no longer does, and the other way
// round; without any, nothing is said of after.
func TestTheMapBeforeAndAfter(t *testing.T) {
	p := gear.Pairing{Entry: gear.Entry{ID: "p"}, AirUnit: "u", Goggles: "g", AirFirmware: "<=1.0"}
	set := &gear.Set{Pairings: []gear.Pairing{p}}
	set.Add(&gear.AirUnit{Device: gear.Device{Entry: gear.Entry{ID: "u"},
		Releases: []gear.Release{{Version: "1.2"}, {Version: "1.0"}}}})
	set.Add(&gear.Goggles{Device: gear.Device{Entry: gear.Entry{ID: "g"}}})
	fleetOn := func(v firmware.Version) *fleet.Index {
		return fleet.NewIndex(&fleet.Fleet{Kit: []fleet.Kit{
			{ID: "ku", Name: "Mine", Model: "u", Firmware: v, Activated: new(true)},
			{ID: "kg", Model: "g", Activated: new(true)},
		}})
	}
	m := link.NewMap(gear.NewLibrary(set), fleetOn("1.0"), fleetOn("1.2"))
	cell := m.Cells[0]
	assert.Equal(t, []string{"Mine 1.0 → 1.2"}, m.Updates)
	assert.Equal(t, verdict.Fits, cell.Now, cell.NowSays)
	assert.True(t, cell.After.WorseThan(cell.Now), "%s: %s", cell.After, cell.AfterSays)
	assert.Equal(t, []firmware.Version{"1.0", "1.2"}, m.Units[0].Releases, "in their order")
	same := link.NewMap(gear.NewLibrary(set), fleetOn("1.0"), fleetOn("1.0"))
	assert.Empty(t, same.Updates)
	assert.Empty(t, same.Cells[0].After)
}
