package format_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"reflect"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/measure/unit"
	"yokeswap/demo"
	"yokeswap/format"
	"yokeswap/internal/builds"
)

func gearPack(body string) string {
	return `{"format":"gear-pack","version":1,"id":"p","title":"t",` + body + `}`
}
func airUnit(body string) string {
	return gearPack(`"airUnits":[{"id":"u","source":{"kind":"measured"},` + body + `}]`)
}
func fleetFile(body string) string { return `{"format":"fleet","version":1,"title":"t",` + body + `}` }
func testFlight(body string) string {
	return fmt.Sprintf(`{"format":"fleet","version":%d,"title":"t","testFlights":[{"id":"f","quad":"q","course":"c",%s}]}`,
		fleet.FileVersion, body)
}
func fit(body string) string { return fleetFile(`"quads":[{"id":"q","now":{` + body + `}}]`) }

// Every way a file can be wrong says where and what was expected.
func TestWrongFilesSayWhereAndWhat(t *testing.T) {
	for _, c := range []struct{ name, file, path, says string }{
		{"no such day", fleetFile(`"by":"2026-02-30"`), "by", "2026-02-30 is no day of the calendar"},
		{
			"swapped range",
			airUnit(`"releases":[{"version":"1.0","from":">=2 <1"}]`),
			"airUnits[0].releases[0].from",
			"lower end 2 is not below",
		},
		{"min above max", airUnit(`"input":{"minV":20,"maxV":7}`), "airUnits[0].input", "ends are swapped"},
		{"negative", airUnit(`"input":{"minV":-1}`), "airUnits[0].input.minV", "expected 0 or more, found -1"},
		{"NaN", airUnit(`"input":{"minV":NaN}`), "", "not JSON"},
		{"beyond a float", airUnit(`"input":{"minV":1e999}`), "airUnits[0].input.minV", "finite number"},
		{
			"no cells",
			gearPack(`"packs":[{"id":"b","source":{"kind":"maker"},"cells":0}]`),
			"packs[0].cells",
			"expected 1 or more, found 0",
		},
		{"half a cell", gearPack(`"packs":[{"id":"b","source":{"kind":"maker"},"cells":3.5}]`), "packs[0].cells", "integer"},
		{"unknown field", airUnit(`"weight":3`), "airUnits[0].weight", "unknown field"},
		{"unknown list", gearPack(`"drones":[]`), "drones", "unknown field"},
		{"field twice", airUnit(`"name":"a","name":"b"`), "airUnits[0].name", "twice"},
		{
			"id twice",
			gearPack(`"packs":[{"id":"b","source":{"kind":"maker"}}],"receivers":[{"id":"b","source":{"kind":"maker"}}]`),
			"packs[0].id",
			"stands already at receivers[0].id",
		},
		{
			"release twice",
			airUnit(`"releases":[{"version":"1.0"},{"version":"1"}]`),
			"airUnits[0].releases[1].version",
			"stands already",
		},
		{
			"rollback forward",
			airUnit(`"releases":[{"version":"1.0","rollbackTo":["2.0"]}]`),
			"airUnits[0].releases[0].rollbackTo[0]",
			"not older",
		},
		{
			"a pad beside the board",
			gearPack(`"boards":[{"id":"b","source":{"kind":"maker"},"outline":{"xMM":30,"yMM":20,"pads":[{"at":"ground","xMM":31,"yMM":5}]}}]`),
			"boards[0].outline.pads[0].xMM",
			"it is 30 mm wide, the pad lies at 31 mm",
		},
		{
			"a pad of no such port",
			gearPack(`"boards":[{"id":"b","source":{"kind":"maker"},"outline":{"xMM":30,"yMM":20,"pads":[{"at":"tx4","xMM":1,"yMM":5}]}}]`),
			"boards[0].outline.pads[0].at",
			`"tx4" is none`,
		},
		{
			"pads without a size",
			gearPack(`"receivers":[{"id":"b","source":{"kind":"maker"},"outline":{"xMM":9,"pads":[{"at":"1","xMM":1,"yMM":5}]}}]`),
			"receivers[0].outline.yMM",
			"how long it is",
		},
		{
			"a pin that is not there",
			airUnit(`"plug":{"pins":["supply","ground"]},"outline":{"xMM":9,"yMM":9,"pads":[{"at":"3","xMM":1,"yMM":5}]}`),
			"airUnits[0].outline.pads[0].at",
			"the number of one of its pins",
		},
		{"no source", gearPack(`"airUnits":[{"id":"u"}]`), "airUnits[0].source", "missing"},
		{"bad id", gearPack(`"airUnits":[{"id":"U 1","source":{"kind":"maker"}}]`), "airUnits[0].id", "lower-case"},
		{
			"a chain that loops",
			airUnit(`"releases":[{"version":"1.0"},{"version":"1.1","from":">=1.2"},{"version":"1.2","from":"1.1"}]`),
			"airUnits[0].releases[1].from",
			"the chain loops: 1.1 goes on only after 1.2",
		},
		{
			"a pin with two functions",
			airUnit(`"plug":{"pins":["supply","ground","supply"]}`),
			"airUnits[0].plug.pins[2]",
			"supply is on pin 1 already",
		},
		{
			"no such mode",
			airUnit(`"releases":[{"version":"1.0","install":{"mode":"first"}}]`),
			"airUnits[0].releases[0].install.mode",
			"expected a mode",
		},
		{"bad version", airUnit(`"releases":[{"version":"v1"}]`), "airUnits[0].releases[0].version", "dotted version"},
		{"wrong kind of value", airUnit(`"name":7`), "airUnits[0].name", "string"},
		{
			"never with a range",
			gearPack(`"pairings":[{"id":"x","source":{"kind":"maker"},"airUnit":"a","goggles":"g","airFirmware":">=1","never":true}]`),
			"pairings[0].never",
			"whatever the firmware",
		},
		{
			"mode switch to nowhere",
			gearPack(`"goggles":[{"id":"g","source":{"kind":"maker"},"modes":[{"id":"a"}],"modeSwitch":[{"from":"a","to":"b","keeps":true}]}]`),
			"goggles[0].modeSwitch[0].to",
			`"b" is none`,
		},
		{
			"jumper to nowhere",
			gearPack(`"boards":[{"id":"b","source":{"kind":"maker"},"pads":[{"id":"c","kind":"jumper","choices":["5v"]}]}]`),
			"boards[0].pads[0].choices[0]",
			"neither",
		},
		{"kit of nowhere", fit(`"airUnit":{"kit":"nix"}`), "quads[0].now.airUnit.kit", `"nix" is none`},
		{
			"slot with both",
			fleetFile(`"kit":[{"id":"k","model":"m"}],"quads":[{"id":"q","now":{"airUnit":{"kit":"k","model":"m"}}}]`),
			"quads[0].now.airUnit",
			"either kit",
		},
		{
			"fed from nowhere",
			fit(`"feeds":[{"to":"airUnit","from":"socket"}]`),
			"quads[0].now.feeds[0].from",
			"pack, board.<pad>",
		},
		{
			"fed twice",
			fit(`"feeds":[{"to":"airUnit","from":"pack"},{"to":"airUnit","from":"pack"}]`),
			"quads[0].now.feeds[1].to",
			"fed twice",
		},
		{
			"a loop",
			fit(`"regulators":[{"id":"a","model":"m"},{"id":"b","model":"m"}],"feeds":[{"to":"a","from":"b"},{"to":"b","from":"a"}]`),
			"quads[0].now.feeds",
			"a loop",
		},
		{
			"a loop through the board",
			fit(`"board":"x","regulators":[{"id":"a","model":"m"}],"feeds":[{"to":"board","from":"a"},{"to":"a","from":"board.10v"}]`),
			"quads[0].now.feeds",
			"a loop",
		},
		{
			"a frequency outside its band",
			gearPack(`"antennas":[{"id":"a","source":{"kind":"maker"},"bands":[{"band":"5.8","fromMHz":2400,"toMHz":2500}]}]`),
			"antennas[0].bands[0].fromMHz",
			"2400 MHz lies outside 5.8 GHz",
		},
		{
			"a gain that cannot be",
			gearPack(`"antennas":[{"id":"a","source":{"kind":"maker"},"bands":[{"band":"5.8","gainDBi":41}]}]`),
			"antennas[0].bands[0].gainDBi",
			"expected 40 or less, found 41",
		},
		{
			"a pattern out of order",
			gearPack(`"antennas":[{"id":"a","source":{"kind":"maker"},"pattern":[{"offDeg":90,"dB":-3},{"offDeg":0,"dB":0}]}]`),
			"antennas[0].pattern[1].offDeg",
			"goes from 0 to 180°",
		},
		{
			"holes of no size",
			gearPack(`"plates":[{"id":"p","source":{"kind":"maker"},"from":{"xMM":0,"yMM":20}}]`),
			"plates[0].from.xMM",
			"expected more than 0, found 0",
		},
		{
			"more places than antennas",
			fit(`"antennas":{"models":[],"stands":[{"xMM":0,"yMM":0,"zMM":0,"turnDeg":0,"riseDeg":90}]}`),
			"quads[0].now.antennas.stands",
			"expected a place for each of 0 antennas at most, got 1",
		},
		{"a plate left off twice", fit(`"leftOff":["top","top"]`), "quads[0].now.leftOff[1]", "stands already at"},
		{
			"a bay on a plate there is not",
			gearPack(`"frames":[{"id":"f","source":{"kind":"maker"},"plates":[{"id":"p","fromXMM":0,"toXMM":9}],` +
				`"bays":[{"id":"b","on":"q"}]}]`),
			"frames[0].bays[0].on",
			"expected the id of one of its plates",
		},
		{
			"an outline of two corners",
			gearPack(`"frames":[{"id":"f","source":{"kind":"maker"},"plates":[{"id":"p","fromXMM":0,"toXMM":10,"yMM":6,` +
				`"outline":[{"xMM":0,"yMM":0},{"xMM":9,"yMM":0}]}]}]`),
			"frames[0].plates[0].outline",
			"want 3",
		},
		{
			"an outline that crosses itself",
			gearPack(`"frames":[{"id":"f","source":{"kind":"maker"},"plates":[{"id":"p","fromXMM":0,"toXMM":10,"yMM":6,` +
				`"outline":[{"xMM":0,"yMM":-3},{"xMM":10,"yMM":3},{"xMM":10,"yMM":-3},{"xMM":0,"yMM":1}]}]}]`),
			"frames[0].plates[0].outline",
			"an outline crosses itself",
		},
		{
			"an outline on one line",
			gearPack(`"frames":[{"id":"f","source":{"kind":"maker"},"plates":[{"id":"p","fromXMM":0,"toXMM":10,"yMM":6,` +
				`"outline":[{"xMM":0,"yMM":0},{"xMM":5,"yMM":0},{"xMM":10,"yMM":0}]}]}]`),
			"frames[0].plates[0].outline",
			"outline",
		},
		{
			"an outline beyond the edges stated",
			gearPack(`"frames":[{"id":"f","source":{"kind":"maker"},"plates":[{"id":"p","fromXMM":0,"toXMM":10,"yMM":6,` +
				`"outline":[{"xMM":0,"yMM":-3},{"xMM":14,"yMM":-3},{"xMM":14,"yMM":3},{"xMM":0,"yMM":3}]}]}]`),
			"frames[0].plates[0].outline",
			"front edge at 10 mm, it reaches from 0 mm to 14 mm",
		},
		{
			"an outline to one side",
			gearPack(`"frames":[{"id":"f","source":{"kind":"maker"},"plates":[{"id":"p","fromXMM":0,"toXMM":10,"yMM":6,` +
				`"outline":[{"xMM":0,"yMM":-2},{"xMM":10,"yMM":-2},{"xMM":10,"yMM":3},{"xMM":0,"yMM":3}]}]}]`),
			"frames[0].plates[0].outline",
			"it reaches 3 mm to the left and 2 mm to the right",
		},
		{
			"openings of no outline",
			gearPack(`"frames":[{"id":"f","source":{"kind":"maker"},"plates":[{"id":"p","fromXMM":0,"toXMM":10,"yMM":6,` +
				`"openings":[{"corners":[{"xMM":1,"yMM":-1},{"xMM":2,"yMM":-1},{"xMM":2,"yMM":1}]}]}]}]`),
			"frames[0].plates[0].openings",
			"draw what they are cut out of",
		},
		{
			"an opening over the edge",
			gearPack(`"frames":[{"id":"f","source":{"kind":"maker"},"plates":[{"id":"p","fromXMM":0,"toXMM":10,"yMM":6,` +
				`"outline":[{"xMM":0,"yMM":-3},{"xMM":10,"yMM":-3},{"xMM":10,"yMM":3},{"xMM":0,"yMM":3}],"openings":[{"corners":[{"xMM":8,"yMM":-1},{"xMM":12,"yMM":-1},{"xMM":12,"yMM":1},{"xMM":8,"yMM":1}]}]}]}]`),
			"frames[0].plates[0].openings[0].corners",
			"clear of the others",
		},
		{
			"two openings in one another",
			gearPack(`"frames":[{"id":"f","source":{"kind":"maker"},"plates":[{"id":"p","fromXMM":0,"toXMM":10,"yMM":6,` +
				`"outline":[{"xMM":0,"yMM":-3},{"xMM":10,"yMM":-3},{"xMM":10,"yMM":3},{"xMM":0,"yMM":3}],"openings":[{"corners":[{"xMM":1,"yMM":-1},{"xMM":5,"yMM":-1},{"xMM":5,"yMM":1},{"xMM":1,"yMM":1}]},{"corners":[{"xMM":4,"yMM":-1},{"xMM":8,"yMM":-1},{"xMM":8,"yMM":1},{"xMM":4,"yMM":1}]}]}]}]`),
			"frames[0].plates[0].openings[1].corners",
			"clear of the others",
		},
		{
			"an opening that cuts the plate in two",
			gearPack(`"frames":[{"id":"f","source":{"kind":"maker"},"plates":[{"id":"p","fromXMM":0,"toXMM":10,"yMM":6,` +
				`"outline":[{"xMM":0,"yMM":-3},{"xMM":10,"yMM":-3},{"xMM":10,"yMM":3},{"xMM":0,"yMM":3}],"openings":[{"corners":[{"xMM":4,"yMM":-3},{"xMM":6,"yMM":-3},{"xMM":6,"yMM":3},{"xMM":4,"yMM":3}]}]}]}]`),
			"frames[0].plates[0].openings[0].corners",
			"cuts the plate in two",
		},
		{
			"a bay smaller than its pattern",
			gearPack(`"frames":[{"id":"f","source":{"kind":"maker"},"plates":[{"id":"p","fromXMM":0,"toXMM":30,"yMM":20}],` +
				`"bays":[{"id":"b","on":"p","atXMM":15,"atYMM":0,"patterns":[{"xMM":16,"yMM":16},{"xMM":25.5,"yMM":25.5}]}]}]`),
			"frames[0].bays[0].patterns[1]",
			"the hole 2.25 mm forward and −12.75 mm to the left is not on the p",
		},
		{
			"a pattern longer than its plate",
			gearPack(`"frames":[{"id":"f","source":{"kind":"maker"},"plates":[{"id":"p","fromXMM":0,"toXMM":20,"yMM":40}],` +
				`"bays":[{"id":"b","on":"p","atXMM":10,"atYMM":0,"patterns":[{"xMM":30,"yMM":10},{"xMM":10,"yMM":30}]}]}]`),
			"frames[0].bays[0].patterns[1]",
			"the hole −5 mm forward and −5 mm to the left is not on the p",
		},
		{
			"a pattern across an opening",
			gearPack(`"frames":[{"id":"f","source":{"kind":"maker"},"plates":[{"id":"p","fromXMM":0,"toXMM":30,"yMM":40,` +
				`"outline":[{"xMM":0,"yMM":-20},{"xMM":30,"yMM":-20},{"xMM":30,"yMM":20},{"xMM":0,"yMM":20}],` +
				`"openings":[{"corners":[{"xMM":3,"yMM":5},{"xMM":9,"yMM":5},{"xMM":9,"yMM":12},{"xMM":3,"yMM":12}]}]}],` +
				`"bays":[{"id":"b","on":"p","atXMM":15,"atYMM":0,"patterns":[{"xMM":16,"yMM":16}]}]}]`),
			"frames[0].bays[0].patterns[0]",
			"the hole 7 mm forward and 8 mm to the left is not on the p",
		},
		{
			"an outing on no day",
			`{"format":"fleet","version":19,"title":"t","quads":[{"id":"q","now":{},"outings":[{"on":"2026-13-40"}]}]}`,
			"quads[0].outings[0].on",
			"no day of the calendar",
		},
		{
			"looked over after no crash",
			`{"format":"fleet","version":19,"title":"t","quads":[{"id":"q","now":{},"outings":[{"on":"2026-05-12","looked":true}]}]}`,
			"quads[0].outings[0].looked",
			"there was none",
		},
		{"no such screw", gearPack(`"screws":[{"id":"s","source":{"kind":"maker"},"size":"M7"}]`), "screws[0].size", "'M3'"},
		{"a channel order of three", fit(`"sticks":{"order":"AAET"}`), "quads[0].now.sticks.order", "A stands twice"},
		{
			"a switch that goes backwards",
			fit(`"sticks":{"switches":[{"mode":"arm","aux":1,"fromUS":2000,"toUS":1700}]}`),
			"quads[0].now.sticks.switches[0].fromUS",
			"the range is empty",
		},
		{
			"an element off the grid",
			fit(`"osd":{"grid":"30x16","elements":[{"id":"warnings","x":30,"y":2}]}`),
			"quads[0].now.osd.elements[0]",
			"outside a grid of 30×16",
		},
		{
			"an element twice",
			fit(`"osd":{"grid":"30x16","elements":[{"id":"warnings","x":3,"y":2},{"id":"warnings","x":3,"y":4}]}`),
			"quads[0].now.osd.elements[1].id",
			"stands already",
		},
		{"no grid", fit(`"osd":{"grid":"wide","elements":[]}`), "quads[0].now.osd.grid", "expected"},
		{
			"a pair nobody has tried that gives something",
			gearPack(`"airUnits":[{"id":"u","source":{"kind":"maker"}}],"goggles":[{"id":"g","source":{"kind":"maker"}}],` +
				`"pairings":[{"id":"p","source":{"kind":"maker"},"airUnit":"u","goggles":"g","untested":true,"features":["x"]}]`),
			"pairings[0].untested",
			"says nothing of how it links",
		},
		{
			"a pad of the rail of one that has none",
			gearPack(`"boards":[{"id":"b","source":{"kind":"maker"},"pads":[{"id":"x","kind":"same","sameAs":"x"}]}]`),
			"boards[0].pads[0].sameAs",
			"has its own rail",
		},
		{
			"a form that says its value twice",
			gearPack(`"flightFirmware":[{"id":"f","source":{"kind":"maker"},"text":{"lines":[{"form":"{name} {value}","value":"yes"}]}}]`),
			"flightFirmware[0].text.lines[0].form",
			"either {value} in the form or a value beside it",
		},
		{
			"a word that stands twice",
			gearPack(`"flightFirmware":[{"id":"f","source":{"kind":"maker"},"text":{"words":[{"name":"a"},{"name":"a"}]}}]`),
			"flightFirmware[0].text.words[1].name",
			"",
		},
		{
			"two functions on one bit",
			gearPack(`"flightFirmware":[{"id":"f","source":{"kind":"maker"},"functions":{"msp":0,"rc":0}}]`),
			"flightFirmware[0].functions.rc",
			"0 is the number of msp already",
		},
		{
			"two elements in one place",
			gearPack(`"flightFirmware":[{"id":"f","source":{"kind":"maker"},"elements":[{"id":"a","index":1},{"id":"b","index":1}]}]`),
			"flightFirmware[0].elements[1].index",
			"1 is the place of a already",
		},
		{
			"a flight with a board and with none",
			testFlight(`"carried":{"board":"b","none":["board"]}`),
			"testFlights[0].carried.none[0]",
			"board is stated here, and that there is none",
		},
		{
			"a flight with a release on no board",
			testFlight(`"carried":{"boardFirmware":"4.5","none":["board"]}`),
			"testFlights[0].carried.none[0]",
			"board is stated here, and that there is none",
		},
		{
			"a spot left out, and read",
			testFlight(`"leftOut":["s"],"reads":[{"spot":"s","passes":[{"pass":1}]}]`),
			"testFlights[0].reads[0].spot",
			`"s" is said to be left out, and read`,
		},
		{"no JSON", `hello`, "", "not JSON"},
		{"an array", `[]`, "", "JSON object"},
		{"another format", `{"format":"cake"}`, "format", "gear-pack"},
		{"a later version", fmt.Sprintf(`{"format":"fleet","version":%d,"title":"t"}`, fleet.FileVersion+1), "version", "1"},
		{"two files", fleetFile(`"kit":[]`) + fleetFile(`"kit":[]`), "", "end of the file"},
		{"nothing", ``, "", "too early"},
	} {
		t.Run(c.name, func(t *testing.T) {
			doc, err := format.Read([]byte(c.file))
			var problems format.Problems
			require.ErrorAs(t, err, &problems)
			assert.Equal(t, format.Document{}, doc, "nothing is taken of a wrong file")
			if !slices.ContainsFunc(problems, func(p format.Problem) bool {
				return p.Path == c.path && strings.Contains(p.Says, c.says)
			}) {
				t.Errorf("expected %q: %q among\n%v", c.path, c.says, err)
			}
		})
	}
}

func TestAFileCutAnywhereIsRefused(t *testing.T) {
	text, err := demo.Files.ReadFile(demo.Names[1])
	require.NoError(t, err)
	text = bytes.TrimSpace(text)
	for cut := 1; cut < len(text); cut += 379 {
		_, err := format.Read(text[:cut])
		require.Error(t, err, "cut at %d", cut)
	}
	_, err = format.Read(text[:len(text)/2])
	assert.ErrorContains(t, err, "is it cut off?")
}

func TestBytesThatAreNoTextAreRefused(t *testing.T) {
	_, err := format.Read([]byte("{\"format\":\"fleet\",\n\"title\":\"\xff\"}"))
	assert.ErrorContains(t, err, "UTF-8")
	assert.ErrorContains(t, err, "line 2, column 10")
	_, err = format.Read(bytes.Repeat([]byte(" "), format.MaxBytes+1))
	assert.ErrorContains(t, err, "larger than 128 MiB")
	_, err = format.Read([]byte(`{"x":` + strings.Repeat("[", 100000)))
	assert.ErrorContains(t, err, "nested deeper")
}

func TestTheDemoIsSoundCanonicalAndMarkedInvented(t *testing.T) {
	st := builds.Demo()
	assert.Len(t, st.Fleet.Quads, 9)
	for _, name := range demo.Names {
		text, err := demo.Files.ReadFile(name)
		require.NoError(t, err)
		doc, err := format.Read(text)
		require.NoError(t, err)
		var value any = doc.Fleet
		if doc.Fleet != nil {
			for _, k := range doc.Fleet.Kit {
				assert.Contains(t, k.Note, "Invented for the demo", k.ID)
			}
			for _, q := range doc.Fleet.Quads {
				assert.Contains(t, q.Note, "Invented for the demo", q.ID)
			}
			for _, s := range doc.Fleet.Spares {
				assert.Contains(t, s.Note, "Invented for the demo", s.Model)
			}
		}
		if doc.Set != nil {
			value = doc.Set
			for _, list := range doc.Set.Lists() {
				for _, item := range list.Items {
					assert.Equal(t, gear.Invented, item.Head().Source.Kind, item.Head().ID)
				}
			}
		}
		again, err := format.Write(value)
		require.NoError(t, err)
		assert.Equal(t, string(text), string(again), "%s is written as it is read", name)
	}
}

// A law: reading what was written gives an equal value, and writing that the
// same bytes.
func TestExportOfAnImportIsIdentity(t *testing.T) {
	id := rapid.StringMatching(`[a-z][a-z0-9-]{0,8}`)
	volts := rapid.Ptr(rapid.Custom(func(t *rapid.T) unit.Volts {
		return unit.Volts(rapid.Float64Range(0, 1000).Draw(t, "V"))
	}), true)
	rapid.Check(t, func(t *rapid.T) {
		set := &gear.Set{
			Format:  gear.SetFormat,
			Version: gear.SetVersion,
			ID:      id.Draw(t, "set"),
			Title:   rapid.StringMatching(`[\pL\pN\pP\pS ]*`).Draw(t, "title"),
		}
		if len(set.Title) > 100 {
			set.Title = ""
		}
		for _, unitID := range rapid.SliceOfNDistinct(id, 0, 4, rapid.ID).Draw(t, "units") {
			u := gear.AirUnit{}
			u.ID, u.Source = "u-"+unitID, gear.Source{Kind: gear.Measured}
			u.Input.MaxV = volts.Draw(t, "max")
			if rapid.Bool().Draw(t, "activation stated") {
				u.Activation = &gear.Activation{Needed: rapid.Bool().Draw(t, "needed")}
			}
			set.AirUnits = append(set.AirUnits, u)
			p := gear.Pairing{AirUnit: u.ID, Goggles: "g"}
			p.ID, p.Source = "p-"+unitID, u.Source
			switch rapid.IntRange(0, 2).Draw(t, "controllers") { // none stated, none works, one
			case 1:
				p.Controllers = []gear.ControllerRange{}
			case 2:
				p.Controllers = []gear.ControllerRange{{ID: "c", Firmware: ">=1.0"}}
			}
			set.Pairings = append(set.Pairings, p)
		}
		text, err := format.Write(set)
		require.NoError(t, err)
		doc, err := format.Read(text)
		require.NoError(t, err, "%s", text)
		again, err := format.Write(doc.Set)
		require.NoError(t, err)
		if string(text) != string(again) || !reflect.DeepEqual(set, doc.Set) {
			t.Fatalf("wrote\n%s\nread and wrote\n%s", text, again)
		}
	})
}

// The schema and the Go types name the same fields, so that nothing in a file
// is lost and nothing that is written is refused.
func TestSchemaAndTypesNameTheSameFields(t *testing.T) {
	for _, c := range []struct {
		schema string
		defs   map[string]reflect.Type
	}{
		{
			"gear-pack",
			map[string]reflect.Type{
				"":               reflect.TypeFor[gear.Set](),
				"airUnit":        reflect.TypeFor[gear.AirUnit](),
				"goggles":        reflect.TypeFor[gear.Goggles](),
				"controller":     reflect.TypeFor[gear.Controller](),
				"receiver":       reflect.TypeFor[gear.Receiver](),
				"board":          reflect.TypeFor[gear.Board](),
				"pad":            reflect.TypeFor[gear.Pad](),
				"regulator":      reflect.TypeFor[gear.Regulator](),
				"pack":           reflect.TypeFor[gear.Pack](),
				"pairing":        reflect.TypeFor[gear.Pairing](),
				"plug":           reflect.TypeFor[gear.Plug](),
				"boardPlug":      reflect.TypeFor[gear.Plug](),
				"uart":           reflect.TypeFor[gear.UART](),
				"connector":      reflect.TypeFor[gear.Connector](),
				"harness":        reflect.TypeFor[gear.Harness](),
				"antenna":        reflect.TypeFor[gear.Antenna](),
				"adapter":        reflect.TypeFor[gear.Adapter](),
				"region":         reflect.TypeFor[gear.Region](),
				"frame":          reflect.TypeFor[gear.Frame](),
				"plate":          reflect.TypeFor[gear.Plate](),
				"bracket":        reflect.TypeFor[gear.Bracket](),
				"capacitor":      reflect.TypeFor[gear.Capacitor](),
				"screw":          reflect.TypeFor[gear.Screw](),
				"washer":         reflect.TypeFor[gear.Washer](),
				"standoff":       reflect.TypeFor[gear.Standoff](),
				"flightFirmware": reflect.TypeFor[gear.FlightFirmware](),
				"osdElement":     reflect.TypeFor[gear.OSDElement](),
				"holes":          reflect.TypeFor[gear.Holes](),
				"bandPlan":       reflect.TypeFor[gear.BandPlan](),
				"release":        reflect.TypeFor[gear.Release](),
				"input":          reflect.TypeFor[gear.Input](),
				"source":         reflect.TypeFor[gear.Source](),
			},
		},
		{
			"fleet",
			map[string]reflect.Type{
				"":       reflect.TypeFor[fleet.Fleet](),
				"kit":    reflect.TypeFor[fleet.Kit](),
				"spare":  reflect.TypeFor[fleet.Spare](),
				"quad":   reflect.TypeFor[fleet.Quad](),
				"slot":   reflect.TypeFor[fleet.Slot](),
				"fit":    reflect.TypeFor[fleet.Fit](),
				"lead":   reflect.TypeFor[fleet.Lead](),
				"layout": reflect.TypeFor[fleet.Layout](),
				"sticks": reflect.TypeFor[fleet.Sticks](),
			},
		},
	} {
		text, err := os.ReadFile(filepath.Join("..", "docs", "format", c.schema+".schema.json"))
		require.NoError(t, err)
		var schema struct {
			Properties map[string]any `json:"properties"`
			Defs       map[string]struct {
				Properties map[string]any `json:"properties"`
			} `json:"$defs"`
		}
		require.NoError(t, json.Unmarshal(text, &schema))
		for name, typ := range c.defs {
			properties := schema.Properties
			if name != "" {
				properties = schema.Defs[name].Properties
			}
			var documented []string
			for field := range properties {
				documented = append(documented, field)
			}
			assert.ElementsMatch(t, fieldsOf(typ), documented, "%s %s", c.schema, name)
		}
	}
}

func fieldsOf(typ reflect.Type) (names []string) {
	for i := range typ.NumField() {
		f := typ.Field(i)
		name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
		if f.Anonymous && name == "" {
			names = append(names, fieldsOf(f.Type)...)
			continue
		}
		names = append(names, name)
	}
	return names
}

// The annotated examples in the documents are files the program reads.
func TestTheAnnotatedExamplesAreSound(t *testing.T) {
	comment := regexp.MustCompile(`(?m)\s*//.*$`)
	st := stock.New()
	for _, name := range []string{"gear-pack.md", "fleet.md"} {
		text, err := os.ReadFile(filepath.Join("..", "docs", "format", name))
		require.NoError(t, err)
		_, block, ok := strings.Cut(string(text), "```jsonc\n")
		require.True(t, ok, name)
		block, _, _ = strings.Cut(block, "```")
		require.Contains(t, block, "//", "%s is annotated", name)
		doc, err := format.Read([]byte(comment.ReplaceAllString(block, "")))
		require.NoError(t, err, name)
		_, err = format.Take(st, doc)
		require.NoError(t, err, name)
	}
}

func TestTakingAFileInSaysWhatChanges(t *testing.T) {
	st := builds.Demo()
	text, err := demo.Files.ReadFile(demo.Names[0])
	require.NoError(t, err)

	doc, err := format.Read(text)
	require.NoError(t, err)
	d, err := format.Take(st, doc)
	require.NoError(t, err)
	assert.Empty(t, d.New)
	assert.Empty(t, d.Changed, "the same file changes nothing")

	doc, err = format.Read(bytes.Replace(text, []byte(`"maxV": 17.8`), []byte(`"maxV": 18.8`), 1))
	require.NoError(t, err)
	d, err = format.Take(st, doc)
	require.NoError(t, err)
	require.Len(t, d.Changed, 1)
	assert.Equal(t, stock.Change{Ref: stock.Ref{Kind: "airUnit", ID: "aldine-one"},
		Fields: []stock.FieldChange{{Path: "input.maxV", Before: "17.8", After: "18.8"}}}, d.Changed[0])
}

func TestReferencesMustPointSomewhere(t *testing.T) {
	st := builds.Demo()
	take := func(file string) error {
		doc, err := format.Read([]byte(file))
		require.NoError(t, err)
		_, err = format.Take(st, doc)
		return err
	}
	assert.ErrorContains(
		t,
		take(fit(`"board":"nix"`)),
		"quads[0].now.board: expected the id of a flight board in the library",
	)
	assert.ErrorContains(t, take(fit(`"board":"visor-a"`)), `"visor-a" is goggles`)
	assert.ErrorContains(t,
		take(fit(`"board":"bramble-f7","receiver":"lantern-r2","feeds":[{"to":"receiver","from":"board.99v"}]`)),
		"quads[0].now.feeds[0].from: expected a pad")
	assert.ErrorContains(t, take(fit(`"board":"bramble-f7","jumpers":{"cam":"12v"}`)), "quads[0].now.jumpers.cam")
	assert.ErrorContains(t, take(fleetFile(`"kit":[{"id":"k","model":"bramble-f7"}]`)),
		"kit[0].model: expected the id of an air unit, goggles or a controller")
	assert.ErrorContains(t, take(fleetFile(`"kit":[{"id":"k","model":"visor-b","mode":"ninth"}]`)), "kit[0].mode")
	assert.ErrorContains(t,
		take(gearPack(`"pairings":[{"id":"x","source":{"kind":"maker"},"airUnit":"aldine-one","goggles":"nix"}]`)),
		"pairings[0].goggles")
	assert.ErrorContains(t, take(gearPack(`"packs":[{"id":"aldine-one","source":{"kind":"maker"}}]`)),
		"stands already in the gear pack")
}

func TestOneEntryIsReadLikeAFile(t *testing.T) {
	st := builds.Demo()
	ref := stock.Ref{Kind: "airUnit", ID: "mine"}
	require.NoError(t, format.TakeEntry(st, ref, []byte(`{"id":"mine","source":{"kind":"measured"},"input":{"maxV":9}}`)))
	set, ok := st.SetOf("mine")
	require.True(t, ok)
	assert.Equal(t, stock.OwnSet, set.ID, "own gear goes into a gear pack of its own")

	assert.EqualError(t,
		format.TakeEntry(st, ref, []byte(`{"id":"mine","source":{"kind":"measured"},"input":{"maxV":-9}}`)),
		"input.maxV: expected 0 or more, found -9")
	assert.ErrorContains(t, format.TakeEntry(st, ref, []byte(`{"id":"other","source":{"kind":"measured"}}`)),
		"expected the id in the address")
	assert.ErrorContains(t, format.TakeEntry(st, stock.Ref{Kind: "cake", ID: "x"}, []byte(`{}`)), "no kind of entry")
	quad := stock.Ref{Kind: stock.KindQuad, ID: "quern"}
	assert.ErrorContains(t, format.TakeEntry(st, quad, []byte(`{"id":"quern","now":{"airUnit":{"kit":"visor-a-1"}}}`)),
		"now.airUnit.kit: expected an air unit")
}

func FuzzRead(f *testing.F) {
	// Small seeds: large ones keep the fuzzer busy with making them smaller.
	f.Add(
		[]byte(
			gearPack(
				`"pairings":[{"id":"x","source":{"kind":"maker"},"airUnit":"a","goggles":"g","controllers":[],"mode":"m"}]`,
			),
		),
	)
	f.Add(
		[]byte(
			gearPack(
				`"packs":[{"id":"b","source":{"kind":"maker","date":"2026-01-02"},"chemistry":"lipo","cells":6,"milliohmPerCell":3.5}]`,
			),
		),
	)
	f.Add(
		[]byte(
			fleetFile(`"kit":[{"id":"k","model":"m","firmware":"1.0.10","activated":false}],"spares":[{"model":"m","count":2}]`),
		),
	)
	f.Add([]byte(airUnit(`"releases":[{"version":"1.0","from":">=2 <1"}]`)))
	f.Add([]byte(fit(`"feeds":[{"to":"a","from":"b"}]`)))
	f.Fuzz(func(t *testing.T, data []byte) {
		doc, err := format.Read(data)
		if err != nil {
			return
		}
		var value any = doc.Fleet
		if doc.Set != nil {
			value = doc.Set
		}
		text, err := format.Write(value)
		if err != nil {
			t.Fatalf("what was read cannot be written: %v", err)
		}
		again, err := format.Read(text)
		if err != nil {
			t.Fatalf("what was written cannot be read: %v\n%s", err, text)
		}
		if !reflect.DeepEqual(doc, again) {
			t.Fatalf("reading what was written gives something else:\n%s", text)
		}
	})
}

// What of a wiring contradicts itself is named at its place.
func TestWiringThatContradictsItself(t *testing.T) {
	gearPack := func(rest string) string {
		return `{"format":"gear-pack","version":1,"id":"p","title":"p",` + rest + `}`
	}
	fleetFile := func(fit string) string {
		return `{"format":"fleet","version":1,"title":"f","quads":[{"id":"q","now":{` + fit + `}}]}`
	}
	for _, c := range []struct{ name, text, path, says string }{
		{
			"a slot used twice",
			gearPack(`"harnesses":[{"id":"h","source":{"kind":"maker"},"from":"c","wires":[{"from":1},{"from":1}]}]`),
			"harnesses[0].wires[1].from",
			"slot 1 is used twice",
		},
		{
			"a bare end in a slot",
			gearPack(`"harnesses":[{"id":"h","source":{"kind":"maker"},"wires":[{"from":1,"to":2}]}]`),
			"harnesses[0].wires[0].to",
			"bare ends",
		},
		{
			"an unknown gauge",
			gearPack(`"harnesses":[{"id":"h","source":{"kind":"maker"},"wires":[{"from":1,"awg":77}]}]`),
			"harnesses[0].wires[0].awg",
			"40",
		},
		{
			"a wire of no length",
			gearPack(`"harnesses":[{"id":"h","source":{"kind":"maker"},"wires":[{"from":1,"lengthMM":0}]}]`),
			"harnesses[0].wires[0].lengthMM",
			"0",
		},
		{
			"a port twice",
			gearPack(`"boards":[{"id":"b","source":{"kind":"maker"},"uarts":[{"id":1},{"id":1}]}]`),
			"boards[0].uarts[1].id",
			"UART 1 stands already",
		},
		{
			"a pin of no port",
			gearPack(`"boards":[{"id":"b","source":{"kind":"maker"},"plugs":[{"id":"x","pins":["tx9"]}]}]`),
			"boards[0].plugs[0].pins[0]",
			"tx9",
		},
		{
			"a pin wired twice",
			fleetFile(`"wires":[{"pin":1,"to":"ground"},{"pin":1,"to":"tx1"}]`),
			"quads[0].now.wires[1].pin",
			"has a wire already",
		},
		{
			"a crimp moved twice",
			fleetFile(`"harness":"h","moved":[{"end":"unit","from":1,"to":2},{"end":"unit","from":1,"to":3}]`),
			"quads[0].now.moved[1].from",
			"moved twice",
		},
		{
			"a step-down that would have to lift",
			gearPack(`"regulators":[{"id":"r","source":{"kind":"maker"},"topology":"step-down","outV":12,"input":{"maxV":9}}]`),
			"regulators[0].outV",
			"takes a step-up",
		},
		{
			"a step-up that would have to lower",
			gearPack(`"boards":[{"id":"b","source":{"kind":"maker"},"pads":[{"id":"p","kind":"regulated","topology":"step-up","outV":5,"input":{"minV":7}}]}]`),
			"boards[0].pads[0].outV",
			"takes a step-down",
		},
		{
			"a band twice",
			gearPack(`"antennas":[{"id":"a","source":{"kind":"maker"},"bands":[{"band":"5.8"},{"band":"5.8"}]}]`),
			"antennas[0].bands[1].band",
			"stands already",
		},
		{
			"a gain that cannot be",
			gearPack(`"antennas":[{"id":"a","source":{"kind":"maker"},"bands":[{"band":"5.8","gainDBi":44}]}]`),
			"antennas[0].bands[0].gainDBi",
			"40",
		},
		{
			"a frequency band upside down",
			gearPack(`"antennas":[{"id":"a","source":{"kind":"maker"},"bands":[{"band":"5.8","fromMHz":5900,"toMHz":5700}]}]`),
			"antennas[0].bands[0].fromMHz",
			"swapped",
		},
		{"a lead of no length", fleetFile(`"packLead":{"mm":0,"awg":12}`), "quads[0].now.packLead.mm", "0"},
	} {
		t.Run(c.name, func(t *testing.T) {
			_, err := format.Read([]byte(c.text))
			require.Error(t, err)
			assert.Contains(t, err.Error(), c.path)
			assert.Contains(t, err.Error(), c.says)
		})
	}
}
