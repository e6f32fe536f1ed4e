package change_test

import (
	"reflect"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
)

// whole is a fit that has everything a patch can change.
func whole() fleet.Fit {
	return fleet.Fit{
		AirUnit:     &fleet.Slot{Kit: "first"},
		Goggles:     &fleet.Slot{Kit: "old-eyes"},
		Controller:  &fleet.Slot{Kit: "old-hand"},
		Receiver:    "receiver",
		Board:       "board",
		Pack:        "lipo-4",
		Feeds:       []fleet.Feed{{To: "airUnit", From: "board.10v"}, {To: "receiver", From: "board.5v"}},
		Jumpers:     map[string]string{"cam": "5v"},
		CapacitorUF: new(unit.Microfarads(470)),
		CapacitorV:  new(unit.Volts(25)),
		Antennas:    sample.Pair(),
		Wiring: fleet.Wiring{
			Wires: sample.Wired(),
			Ports: []fleet.Port{{UART: 1, Use: fleet.UseMSP}, {UART: 2, Use: fleet.UseGPS}},
		},
		Mounting: fleet.Mounting{
			Camera:   "other-camera",
			Frame:    "frame",
			Bay:      "rear",
			Plate:    "plate-20-25",
			SoftMM:   new(unit.Millimetres(1)),
			Places:   []fleet.Spot{{Part: fleet.NodeAirUnit, ZMM: 2}},
			Holdings: []fleet.Hold{{Part: fleet.NodeCamera, Way: fleet.HeldByTape}},
			Screw:    "m2-5",
			Washer:   "washer",
			Standoff: "post", StandoffCutMM: new(unit.Millimetres(26)),
			Drill:        true,
			TiltDeg:      new(unit.Degrees(20)),
			LeftOff:      []string{"top"},
			PropMM:       new(unit.Millimetres(127)),
			Air:          fleet.AirOpen,
			MetalUnder:   new(true),
			BoardTurnDeg: new(unit.Degrees(180)),
		},
		Flight: sample.Flight(),
	}
}

func own() []fleet.Kit {
	return []fleet.Kit{
		sample.Own("first", "1.0.6", ""),
		sample.Own("second", "2.0", ""),
		sample.Own("old-eyes", "4.4", "a"),
		sample.Own("new-eyes", "5.0", "b"),
		sample.Own("old-hand", "", ""),
		sample.Own("new-hand", "1.0", ""),
	}
}

func set() *gear.Set {
	s := sample.Set()
	s.Washers = []gear.Washer{{Entry: gear.Entry{ID: "washer", Name: "M2 washer"}}}
	s.Standoffs = []gear.Standoff{{Entry: gear.Entry{ID: "post", Name: "long post"}}}
	return s
}

func caseOf(f fleet.Fit) fleet.Case { return sample.Case(set(), own(), f) }

// Every single thing a patch can do has its words.
func TestWordsOfEachChange(t *testing.T) {
	mounting := func(change func(m *fleet.Mounting)) fleet.Patch {
		m := whole().Mounting
		change(&m)
		return fleet.Patch{Mounting: &m}
	}
	wiring := func(change func(w *fleet.Wiring)) fleet.Patch {
		w := whole().Clone().Wiring
		change(&w)
		return fleet.Patch{Wiring: &w}
	}
	antennas := func(change func(a *fleet.Antennas)) fleet.Patch {
		a := *whole().Antennas
		change(&a)
		return fleet.Patch{Antennas: &a}
	}
	sticks := func(change func(s *fleet.Sticks)) fleet.Patch {
		f := sample.Flight()
		change(f.Sticks)
		return fleet.Patch{Sticks: f.Sticks}
	}
	for _, c := range []struct {
		says  string
		patch fleet.Patch
	}{
		{"", fleet.Patch{}},
		{"fit second", fleet.Patch{AirUnit: &fleet.Slot{Kit: "second"}}},
		{"fit second and put 2.3 on second", fleet.Patch{AirUnit: &fleet.Slot{Kit: "second", Firmware: "2.3"}}},
		{"put 1.1 on first", fleet.Patch{AirUnit: &fleet.Slot{Kit: "first", Firmware: "1.1"}}},
		{"take the air unit out of the plan", fleet.Patch{AirUnit: &fleet.Slot{}}},
		{"fly it with new-eyes", fleet.Patch{Goggles: &fleet.Slot{Kit: "new-eyes"}}},
		{
			"put 4.6 on old-eyes and switch old-eyes to mode b",
			fleet.Patch{Goggles: &fleet.Slot{Kit: "old-eyes", Firmware: "4.6", Mode: "b"}},
		},
		{"take the goggles out of the plan", fleet.Patch{Goggles: &fleet.Slot{}}},
		{"fly it with new-hand", fleet.Patch{Controller: &fleet.Slot{Kit: "new-hand"}}},
		{"take the separate receiver off", fleet.Patch{Receiver: new("")}},
		{"take the flight board out", fleet.Patch{Board: new("")}},
		{"fly it on the lipo-6", fleet.Patch{Pack: new("lipo-6")}},
		{"leave the pack open", fleet.Patch{Pack: new("")}},
		{"feed the first from the pack, direct", fleet.Patch{Feed: &fleet.Feed{To: "airUnit", From: "pack"}}},
		{"feed the receiver from the batt", fleet.Patch{Feed: &fleet.Feed{To: "receiver", From: "board.batt"}}},
		{"take the feed of the first away", fleet.Patch{Feed: &fleet.Feed{To: "airUnit"}}},
		{
			"feed the first from the step-down-12",
			fleet.Patch{
				Regulator: &fleet.PlacedRegulator{ID: "reg", Model: "step-down-12"},
				Feed:      &fleet.Feed{To: "airUnit", From: "reg"},
			},
		},
		{"set the solder jumper of the cam to the 10v", fleet.Patch{Jumper: &fleet.Jumper{Pad: "cam", Choice: "10v"}}},
		{"set the solder jumper of the cam to pack", fleet.Patch{Jumper: &fleet.Jumper{Pad: "cam", Choice: "pack"}}},
		{"set the inverter jumper of RX 3 to plain", fleet.Patch{Jumper: &fleet.Jumper{Pad: "rx3", Choice: "plain"}}},
		{
			"solder a 1000 µF 25 V low-ESR capacitor across the battery leads",
			fleet.Patch{CapacitorUF: new(unit.Microfarads(1000))},
		},
		{
			"solder a 470 µF 35 V low-ESR capacitor across the battery leads",
			fleet.Patch{CapacitorV: new(unit.Volts(35))},
		},
		{"take the capacitor off the battery leads", fleet.Patch{CapacitorUF: new(unit.Microfarads(0))}},
		{
			"put 2 × eye on first through the tail",
			fleet.Patch{Antennas: &fleet.Antennas{Models: []string{"eye", "eye"}, Adapter: "tail"}},
		},
		{
			"put 1 × eye and 1 × round on first",
			fleet.Patch{Antennas: &fleet.Antennas{Models: []string{"eye", "round"}}},
		},
		{"put it into the front", mounting(func(m *fleet.Mounting) { m.Bay = "front" })},
		{"leave the adapter plate out", mounting(func(m *fleet.Mounting) { m.Plate = "" })},
		{"put first 3 mm forward, 2 mm up", mounting(func(m *fleet.Mounting) {
			m.Places = []fleet.Spot{{Part: fleet.NodeAirUnit, XMM: 3, ZMM: 2}}
		})},
		{"turn first by 90°", mounting(func(m *fleet.Mounting) {
			m.Places = []fleet.Spot{{Part: fleet.NodeAirUnit, ZMM: 2, Quarters: 1}}
		})},
		{"hold the camera by its own screws", mounting(func(m *fleet.Mounting) { m.Holdings = nil })},
		{"hold the camera by tape and ties", mounting(func(m *fleet.Mounting) {
			m.Holdings = []fleet.Hold{{Part: fleet.NodeCamera, Way: fleet.HeldByTape, Second: fleet.HeldByTies}}
		})},
		{"note how the camera is held", mounting(func(m *fleet.Mounting) {
			m.Holdings = []fleet.Hold{{Part: fleet.NodeCamera, Way: fleet.HeldByTape, Awaits: "a cage"}}
		})},
		{"leave the soft mounts out", mounting(func(m *fleet.Mounting) { m.SoftMM = nil })},
		{"put soft mounts of 2 mm under it", mounting(func(m *fleet.Mounting) { m.SoftMM = new(unit.Millimetres(2)) })},
		{"use m2-8", mounting(func(m *fleet.Mounting) { m.Screw = "m2-8" })},
		{"pick the screw from the box", mounting(func(m *fleet.Mounting) { m.Screw = "" })},
		{"leave the washers out", mounting(func(m *fleet.Mounting) { m.Washer = "" })},
		{"cut the standoffs to 24 mm", mounting(func(m *fleet.Mounting) { m.StandoffCutMM = new(unit.Millimetres(24)) })},
		{"leave the standoffs whole", mounting(func(m *fleet.Mounting) { m.StandoffCutMM = nil })},
		{"keep the frame's own standoffs", mounting(func(m *fleet.Mounting) { m.Standoff = "" })},
		{"drill no holes", mounting(func(m *fleet.Mounting) { m.Drill = false })},
		{"tilt the camera by 30°", mounting(func(m *fleet.Mounting) { m.TiltDeg = new(unit.Degrees(30)) })},
		{"leave the tilt of the camera open", mounting(func(m *fleet.Mounting) { m.TiltDeg = nil })},
		{"turn the flight board back to its arrow", mounting(func(m *fleet.Mounting) { m.BoardTurnDeg = nil })},
		{
			"turn the flight board by 90°",
			mounting(func(m *fleet.Mounting) { m.BoardTurnDeg = new(unit.Degrees(90)) }),
		},
		{"put the straight into the hd", wiring(func(w *fleet.Wiring) { w.Harness, w.HarnessTo = "straight", "hd" })},
		{"use the straight", wiring(func(w *fleet.Wiring) { w.Harness = "straight" })},
		{"solder pin 2 to the batt", wiring(func(w *fleet.Wiring) { w.Wires[0].To = "batt" })},
		{"take the wire of pin 2 off", wiring(func(w *fleet.Wiring) { w.Wires = w.Wires[1:] })},
		{"put GPS on UART 3", wiring(func(w *fleet.Wiring) { w.Ports[1].UART = 3 })},
		{"give up GPS on UART 2", wiring(func(w *fleet.Wiring) { w.Ports = w.Ports[:1] })},
		{
			"re-pin the cable: 1 crimp moved, at the unit's end alone",
			wiring(func(w *fleet.Wiring) { w.Moved = []fleet.CrimpMove{{End: fleet.UnitEnd, From: 1, To: 2}} }),
		},
		{
			"re-pin the cable: 2 crimps moved, at both ends",
			wiring(func(w *fleet.Wiring) {
				w.Moved = []fleet.CrimpMove{{End: fleet.UnitEnd, From: 1, To: 2}, {End: fleet.BoardEnd, From: 3, To: 4}}
			}),
		},
		{"flash flies-superset 4.6 onto the board", fleet.Patch{Runs: &fleet.Runs{ID: "flies-superset", Version: "4.6"}}},
		{"set the channels to the order TAER", sticks(func(s *fleet.Sticks) { s.Order = "TAER" })},
		{"set the end points to 1000 and 1980", sticks(func(s *fleet.Sticks) { s.MinUS, s.MaxUS = new(1000), new(1980) })},
		{"set the end points to what they are and 2012", sticks(func(s *fleet.Sticks) { s.MinUS, s.MaxUS = nil, new(2012) })},
		{"set goggles and flight board to fast", sticks(func(s *fleet.Sticks) { s.Unit, s.Board = "fast", "fast" })},
		{
			"set the goggles to fast and the flight board to normal",
			sticks(func(s *fleet.Sticks) { s.Unit, s.Board = "fast", "normal" }),
		},
		{
			"put arm on AUX 4 from 1800 to 2100",
			sticks(func(s *fleet.Sticks) { s.Switches[0] = fleet.Switch{Mode: "arm", Aux: 4, FromUS: 1800, ToUS: 2100} }),
		},
		{"leave the hood off", mounting(func(m *fleet.Mounting) { m.LeftOff = append(m.LeftOff, "hood") })},
		{"put the top on", mounting(func(m *fleet.Mounting) { m.LeftOff = nil })},
		{"fly with propellers of 76 mm", mounting(func(m *fleet.Mounting) { m.PropMM = new(unit.Millimetres(76)) })},
		{"note what cools the air unit", mounting(func(m *fleet.Mounting) { m.Air = fleet.AirClosed })},
		{"stand the antennas otherwise", antennas(func(a *fleet.Antennas) { a.Stands = []fleet.Stand{{ZMM: 5}} })},
		{"stand the antennas 75° apart and 40 mm from carbon", antennas(func(a *fleet.Antennas) {
			a.AngleDeg, a.CarbonMM = new(unit.Degrees(75)), new(unit.Millimetres(40))
		})},
		{"note how the antennas stand", antennas(func(a *fleet.Antennas) { a.Gives = fleet.GivesHolder })},
		{"take arm off its switch", sticks(func(s *fleet.Sticks) { s.Switches = s.Switches[1:] })},
	} {
		assert.Equal(t, c.says, change.Words(caseOf(whole()), c.patch))
	}
}

// No part of a patch is done in silence: a table above a field of a patch that nobody
// has put into words would offer nothing, or a fix that does more than it says.
func TestNoChangeOfAMountingIsSilent(t *testing.T) {
	full := reflect.ValueOf(whole().Mounting)
	for i := range full.NumField() {
		name := full.Type().Field(i).Name
		if name == "AnalogG" || name == "ActionG" {
			continue // what was weighed, not what is done
		}
		m := whole().Mounting
		reflect.ValueOf(&m).Elem().Field(i).SetZero()
		assert.NotEmpty(t, change.Words(caseOf(whole()), fleet.Patch{Mounting: &m}), name)
	}
}

// What a patch costs: what the quad carries and what lies in the drawer is had; what
// has no price is bought all the same.
func TestTheBillOfAPatch(t *testing.T) {
	s := set()
	s.Regulators[0].MassG = new(unit.Grams(6.4))
	s.Regulators[0].Offer = &gear.Offer{Price: new(7.5), Currency: "EUR"}
	fed := fleet.Patch{
		Regulator: &fleet.PlacedRegulator{ID: "reg", Model: "step-down-12"},
		Feed:      &fleet.Feed{To: "airUnit", From: "reg"},
	}
	c := sample.Case(s, own(), whole())
	cost := change.Bill(c, fed)
	assert.Equal(t, "to buy, +6.4 g", cost.Words())
	assert.InDelta(t, 7.5, cost.Price, 1e-9)

	c.Fleet = fleet.NewIndex(&fleet.Fleet{
		Kit:    own(),
		Spares: []fleet.Spare{{Model: "step-down-12", Count: 1}},
		Quads:  []fleet.Quad{*c.Quad},
	})
	assert.Equal(t, "nothing to buy, +6.4 g", change.Bill(c, fed).Words(), "it lies in the drawer")

	s.Regulators[0].MassG = nil
	c = sample.Case(s, own(), whole())
	assert.Equal(t, "to buy", change.Bill(c, fed).Words(), "nobody has weighed it")

	bare := whole()
	bare.Plate = ""
	c = sample.Case(set(), own(), bare)
	plated := whole().Mounting
	assert.Equal(t, "to print", change.Bill(c, fleet.Patch{Mounting: &plated}).Words())
	assert.Equal(t, change.Have, change.Bill(c, fleet.Patch{Pack: new("lipo-4")}).Get, "as it is")

	bare.Washer = ""
	c = sample.Case(set(), own(), bare)
	washed := whole().Mounting
	assert.Equal(t, change.Buy, change.Bill(c, fleet.Patch{Mounting: &washed}).Get, "the plate is printed, the washer bought")

	c = sample.Case(set(), own(), whole())
	c.Quad.Now.Pack = "lipo-6"
	assert.Equal(t, change.Have, change.Bill(c, fleet.Patch{Pack: new("lipo-6")}).Get, "the quad flies it today")
	assert.Equal(t, change.Buy, change.Bill(c, fleet.Patch{Pack: new("liion-6")}).Get)
}

// A patch takes nothing along that its fit no longer has.
func TestAPatchIsSettled(t *testing.T) {
	s := set()
	s.Boards = append(s.Boards, gear.Board{
		Entry: gear.Entry{ID: "small-board"},
		Pads:  []gear.Pad{{ID: "10v", Kind: gear.PadPack}},
		UARTs: []gear.UART{{ID: 1, TX: true, RX: true}},
	})
	f := whole()
	f.Harness, f.HarnessTo = "straight", "hd"
	f.Moved = []fleet.CrimpMove{{End: fleet.UnitEnd, From: 1, To: 2}}
	c := sample.Case(s, own(), f)

	same := fleet.Patch{Pack: new("lipo-6")}
	assert.Equal(t, same, change.Settle(c, same), "nothing to settle")

	p := change.Settle(c, fleet.Patch{Board: new("small-board")})
	require.NotNil(t, p.Wiring)
	assert.Empty(t, p.Wiring.HarnessTo, "there is no such plug")
	for _, w := range p.Wiring.Wires {
		assert.NotEqual(t, "rx3", w.To)
	}
	assert.Equal(t, []fleet.Port{{UART: 1, Use: fleet.UseMSP}}, p.Wiring.Ports)
	assert.Equal(t, "hd", c.Fit.HarnessTo, "the plan itself is left as it is")

	bare := c.Fit.Wiring
	bare.Harness = ""
	p = change.Settle(c, fleet.Patch{Wiring: &bare})
	require.NotNil(t, p.Wiring)
	assert.Empty(t, p.Wiring.Moved, "a cable that is not there has no crimps")

	s.AirUnits[1].Plug = &gear.Plug{Connector: "sh-6", Pins: []string{"supply", "ground"}}
	p = change.Settle(sample.Case(s, own(), f), fleet.Patch{AirUnit: &fleet.Slot{Kit: "second"}})
	require.NotNil(t, p.Wiring)
	for _, w := range p.Wiring.Wires {
		assert.LessOrEqual(t, w.Pin, 2)
	}
}

// Whoever wires the unit has said what feeds it; what is stated of it stays.
func TestASupplyWireSaysWhatFeedsTheUnit(t *testing.T) {
	f := whole()
	f.Feeds = slices.DeleteFunc(slices.Clone(f.Feeds), func(x fleet.Feed) bool { return x.To == fleet.NodeAirUnit })
	wired := f.Wiring
	wired.Wires = append(slices.Clone(wired.Wires), fleet.Wire{Pin: 1, To: "10v"})
	f.Wiring = fleet.Wiring{}
	s := set()
	s.AirUnits[0].Plug = &gear.Plug{Pins: []string{"supply", "ground", "uart-rx", "uart-tx", "rc-ground", "rc-out"}}
	c := sample.Case(s, own(), f)
	p := change.SettlePick(c, fleet.Patch{Wiring: &wired})
	require.NotNil(t, p.Feed)
	assert.Equal(t, fleet.NodeAirUnit, p.Feed.To)
	run, _ := netlist.AirUnit(c.With(p))
	assert.Equal(t, fleet.PadNode(run.LiveOf(gear.PinSupply).Terminal), p.Feed.From)
	assert.Nil(t, change.SettlePick(c, fleet.Patch{Pack: new("lipo-6")}).Feed, "a pack wires nothing")

	f.Feeds = append(f.Feeds, fleet.Feed{To: fleet.NodeAirUnit, From: fleet.NodePack})
	assert.Nil(t, change.SettlePick(sample.Case(s, own(), f), fleet.Patch{Wiring: &wired}).Feed, "it is stated")
}

// What a part is fed from is named with all that lies between it and the pack.
func TestSourcesAreNamedToThePack(t *testing.T) {
	f := whole()
	f.Regulators = []fleet.PlacedRegulator{{ID: "reg", Model: "step-down-12"}}
	f.Feeds = append(f.Feeds, fleet.Feed{To: "reg", From: "board.batt"})
	c := caseOf(f)
	assert.Equal(t, "the step-down-12, itself on the batt", change.Source(c, "reg"))
	assert.Equal(t, "the pack, direct", change.Source(c, "pack"))
	assert.Equal(t, "the 10v", change.Source(c, "board.10v"))
	assert.Equal(t, "nowhere", change.Source(c, "nowhere"))
	assert.Equal(t, "step-down-12", change.Node(c, "reg"))
	assert.Equal(t, "lipo-4", change.Node(c, "pack"))
	assert.Equal(t, "TX 3", change.Terminal(c, "tx3"))
	assert.Equal(t, "the cam", change.Terminal(c, "cam"))
	assert.Equal(t, "ground", change.Terminal(c, "ground"))
	assert.Equal(t, "1 crimp", change.Count(1, "crimp"))
	assert.Equal(t, "0 crimps", change.Count(0, "crimp"))
	assert.Empty(t, change.And(nil))
	assert.Equal(t, "a, b and c", change.And([]string{"a", "b", "c"}))
}
