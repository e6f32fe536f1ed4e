package prove_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/work/prove"
)

// flown is a fleet of one quad with a unit on 2.3 and two antennas, and its flights.
func flown(flights ...fleet.TestFlight) *fleet.Fleet {
	return &fleet.Fleet{
		Kit: []fleet.Kit{{ID: "own", Model: "unit", Firmware: "2.3"}},
		Quads: []fleet.Quad{
			{ID: "moth", Now: fleet.Fit{AirUnit: &fleet.Slot{Kit: "own"}, Antennas: &fleet.Antennas{Models: []string{"stub", "stub"}},
				Board: "hub", Flight: fleet.Flight{Runs: &fleet.Runs{ID: "tick", Version: "4.5"}}}},
			{ID: "analog", Now: fleet.Fit{Analog: "old"}},
		},
		TestFlights: flights,
	}
}

// proof is a flight that proves what it carried.
func proof(id, on string, change func(t *fleet.TestFlight)) fleet.TestFlight {
	t := fleet.TestFlight{ID: id, Quad: "moth", Course: "way", On: on, Checked: new(true),
		Carried: fleet.Carried{AirUnit: "unit", AirFirmware: "2.3", Antennas: []string{"stub", "stub"}, Board: "hub",
			BoardFirmware: "4.5"},
		Reads: []fleet.SpotReads{{Spot: "tree", Passes: []fleet.PassRead{{Pass: 1}}}}}
	if change != nil {
		change(&t)
	}
	return t
}

// firstOf is a first flight with what is on the quad today.
func firstOf(on string) *fleet.FlownIn {
	return &fleet.FlownIn{On: on, Carried: proof("", on, nil).Carried}
}

func standingOf(t *testing.T, f *fleet.Fleet) prove.Standing {
	list := prove.Standings(gear.NewLibrary(), f)
	require.Len(t, list, 1, "what carries no digital unit is not asked for it")
	return list[0]
}

func TestWhatProvesAQuadAndWhatUnprovesIt(t *testing.T) {
	other := func(t *fleet.TestFlight) { t.Carried.Antennas = []string{"reed", "reed"} }
	for name, c := range map[string]struct {
		flights []fleet.TestFlight
		fleet   func(f *fleet.Fleet)
		level   verdict.Level
		says    string
		asks    string
	}{
		"never flown": {level: verdict.Unknown, says: "No flight of moth is noted"},
		"flown as it is": {flights: []fleet.TestFlight{proof("a", "2026-03-01", nil)}, level: verdict.Fits,
			says: "moth was proven on 2026-03-01. Unit, antennas, board and the releases on both are the same today."},
		"its first flight went": {fleet: func(f *fleet.Fleet) { f.Quads[0].FlownIn = firstOf("2026-04-01") }, level: verdict.Fits,
			says: "moth was proven on 2026-04-01. Unit,"},
		"its first flight, other antennas since": {fleet: func(f *fleet.Fleet) {
			f.Quads[0].FlownIn = firstOf("2026-04-01")
			f.Quads[0].Now.Antennas.Models = []string{"reed", "reed"}
		}, level: verdict.Change, says: "others: its antennas: stub, stub on its first flight, now reed, reed"},
		"its first flight goes before an earlier one": {flights: []fleet.TestFlight{proof("a", "2026-03-01", other)},
			fleet: func(f *fleet.Fleet) { f.Quads[0].FlownIn = firstOf("2026-04-01") }, level: verdict.Fits, says: "on 2026-04-01"},
		"a later one with others goes before it": {flights: []fleet.TestFlight{proof("a", "2026-05-01", other)},
			fleet: func(f *fleet.Fleet) { f.Quads[0].FlownIn = firstOf("2026-04-01") }, level: verdict.Change, says: "on 2026-05-01"},
		"not proven, but flown with others the same day": {flights: []fleet.TestFlight{proof("a", "2026-04-01",
			func(t *fleet.TestFlight) { other(t); t.Checked = nil })},
			fleet: func(f *fleet.Fleet) { f.Quads[0].FlownIn = firstOf("2026-04-01") }, level: verdict.Change, says: "reed, reed"},
		"nobody says what was on it": {fleet: func(f *fleet.Fleet) {
			f.Quads[0].FlownIn = firstOf("2026-04-01")
			f.Quads[0].FlownIn.AirFirmware = ""
		}, level: verdict.Unknown, asks: "flownIn.airFirmware", says: "on its first flight"},
		"another board since": {flights: []fleet.TestFlight{proof("a", "2026-03-01", nil)}, level: verdict.Change,
			fleet: func(f *fleet.Fleet) { f.Quads[0].Now.Board, f.Quads[0].Now.Runs.Version = "cog", "6.1" },
			says:  "others: flight board: hub on 2026-03-01, now cog. Try"},
		"another release on the board since": {flights: []fleet.TestFlight{proof("a", "2026-03-01", nil)}, level: verdict.Change,
			fleet: func(f *fleet.Fleet) { f.Quads[0].Now.Runs.Version = "4.6" }, says: "release on the board: 4.5 on 2026-03-01, now 4.6"},
		"no board, then and now": {flights: []fleet.TestFlight{proof("a", "2026-03-01", func(t *fleet.TestFlight) {
			t.Carried.Board, t.Carried.BoardFirmware, t.Carried.None = "", "", []string{fleet.NoBoard}
		})}, level: verdict.Fits, fleet: func(f *fleet.Fleet) {
			f.Quads[0].Now.Board, f.Quads[0].Now.Runs, f.Quads[0].Now.None = "", nil, []string{fleet.NoBoard}
		}},
		"no board then": {flights: []fleet.TestFlight{proof("a", "2026-03-01", func(t *fleet.TestFlight) {
			t.Carried.Board, t.Carried.BoardFirmware, t.Carried.None = "", "", []string{fleet.NoBoard}
		})}, level: verdict.Change, says: "flight board: none on 2026-03-01, now hub"},
		"nobody has read the board": {flights: []fleet.TestFlight{proof("a", "2026-03-01", nil)}, level: verdict.Unknown,
			fleet: func(f *fleet.Fleet) { f.Quads[0].Now.Runs = nil }, asks: "now.runs.version", says: "release on the board of moth today"},
		"failsafe and range not tried": {flights: []fleet.TestFlight{proof("a", "2026-03-01",
			func(t *fleet.TestFlight) { t.Checked = new(false) })}, level: verdict.Unknown, says: "No flight of moth"},
		"nothing read": {flights: []fleet.TestFlight{proof("a", "2026-03-01",
			func(t *fleet.TestFlight) { t.Reads = nil })}, level: verdict.Unknown, says: "No flight of moth"},
		"other antennas since": {flights: []fleet.TestFlight{proof("a", "2026-03-01", other)}, level: verdict.Change,
			says: "Since then others: its antennas: reed, reed on 2026-03-01, now stub, stub. Try failsafe and range"},
		"another release since": {flights: []fleet.TestFlight{proof("a", "2026-03-01", nil)}, level: verdict.Change,
			fleet: func(f *fleet.Fleet) { f.Kit[0].Firmware = "2.4" }, says: "its firmware: 2.3 on 2026-03-01, now 2.4"},
		"another unit on another release": {flights: []fleet.TestFlight{proof("a", "2026-03-01",
			func(t *fleet.TestFlight) { t.Carried.AirUnit, t.Carried.AirFirmware = "old", "1.0" })}, level: verdict.Change,
			says: "others: air unit: old on 2026-03-01, now unit. Try"},
		"flown with others in between": {flights: []fleet.TestFlight{proof("a", "2026-03-01", nil),
			proof("b", "2026-04-01", func(t *fleet.TestFlight) { other(t); t.Checked = nil })}, level: verdict.Change,
			says: "reed, reed on 2026-04-01"},
		"on no day, with others": {flights: []fleet.TestFlight{proof("a", "2026-03-01", nil), proof("b", "", other)},
			level: verdict.Change, says: "reed, reed on b"},
		"with others before": {flights: []fleet.TestFlight{proof("a", "2026-03-01", nil), proof("b", "2026-02-01", other)},
			level: verdict.Fits, says: "proven on 2026-03-01"},
		"before and after on one day": {flights: []fleet.TestFlight{proof("a", "2026-03-01", other), proof("b", "2026-03-01", nil)},
			level: verdict.Fits, says: "proven on 2026-03-01"},
		"after and before on one day": {flights: []fleet.TestFlight{proof("a", "2026-03-01", nil), proof("b", "2026-03-01", other)},
			level: verdict.Change, says: "reed, reed on 2026-03-01"},
		"nobody noted the antennas": {flights: []fleet.TestFlight{proof("a", "2026-03-01",
			func(t *fleet.TestFlight) { t.Carried.Antennas = nil })}, level: verdict.Unknown, asks: "carried.antennas",
			says: "Whether all is the same cannot be told. Not stated: its antennas of 2026-03-01."},
		"nobody has read the unit": {flights: []fleet.TestFlight{proof("a", "2026-03-01", nil)}, level: verdict.Unknown,
			fleet: func(f *fleet.Fleet) { f.Kit[0].Firmware = "" }, asks: "firmware", says: "its firmware of moth today"},
		"another quad's flight": {flights: []fleet.TestFlight{proof("a", "2026-03-01",
			func(t *fleet.TestFlight) { t.Quad = "analog" })}, level: verdict.Unknown, says: "No flight of moth"},
	} {
		f := flown(c.flights...)
		if c.fleet != nil {
			c.fleet(f)
		}
		is := standingOf(t, f)
		assert.Equal(t, c.level, is.Finding.Level, name)
		assert.Contains(t, is.Finding.Says, c.says, name)
		if c.asks != "" && assert.NotEmpty(t, is.Finding.Missing, name) {
			m := is.Finding.Missing[0]
			assert.Equal(t, c.asks, m.Field, name)
			assert.Equal(t, c.asks == "firmware", m.Of == "kit" && m.ID == "own", name)
		}
	}
}

// Missing is never better: whatever is taken away from what was noted, a quad is no more proven.
func TestWhatIsNotNotedProvesNothing(t *testing.T) {
	r := rand.New(rand.NewPCG(17, 3))
	one := func(list ...string) string { return list[r.IntN(len(list))] }
	levels := map[verdict.Level]int{}
	for range 400 {
		var flights []fleet.TestFlight
		for range 1 + r.IntN(3) {
			flights = append(flights, proof(one("a", "b"), one("2026-03-01", "2026-03-02", "2026-03-03", ""),
				func(t *fleet.TestFlight) {
					t.Carried.AirFirmware = firmware.Version(one("2.3", "2.3", "2.4", ""))
					t.Carried.Antennas = [][]string{{"stub", "stub"}, {"stub", "stub"}, {"reed"}, nil}[r.IntN(4)]
					t.Carried.Board = one("hub", "hub", "hub", "cog")
					t.Checked = []*bool{new(true), new(true), new(false), nil}[r.IntN(4)]
				}))
		}
		whole := standingOf(t, flown(flights...)).Finding
		levels[whole.Level]++
		for i := range flights {
			for k, less := range []func(t *fleet.TestFlight){
				func(t *fleet.TestFlight) { t.On = "" },
				func(t *fleet.TestFlight) { t.Checked = nil },
				func(t *fleet.TestFlight) { t.Reads = nil },
				func(t *fleet.TestFlight) { t.Carried.AirUnit = "" },
				func(t *fleet.TestFlight) { t.Carried.AirFirmware = "" },
				func(t *fleet.TestFlight) { t.Carried.Antennas = nil },
				func(t *fleet.TestFlight) { t.Carried.Board = "" },
				func(t *fleet.TestFlight) { t.Carried.BoardFirmware = "" },
			} {
				f := flown(append([]fleet.TestFlight{}, flights...)...)
				less(&f.TestFlights[i])
				got := standingOf(t, f).Finding
				require.False(t, whole.Level.WorseThan(got.Level), "%d: %s to %s\n%s\n%s", k, whole.Level, got.Level,
					whole.Says, got.Says)
			}
		}
	}
	for _, level := range []verdict.Level{verdict.Fits, verdict.Change, verdict.Unknown} {
		assert.Greater(t, levels[level], 20, level)
	}
}
