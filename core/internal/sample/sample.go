// Package sample is a small library and fleet for the tests of the core. Its
// windows and firmware bounds are the trade's usual shapes (common practice);
// no product stands behind them.
package sample

import (
	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/radio"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

var measured = gear.Source{Kind: gear.Measured}

func entry(id string) gear.Entry { return gear.Entry{ID: id, Name: id, Source: measured} }

func device(id string, releases ...gear.Release) gear.Device {
	return gear.Device{Entry: entry(id), Releases: releases, Activation: &gear.Activation{}}
}

func window(low, high unit.Volts) gear.Input {
	return gear.Input{
		MinV:         &low,
		MaxV:         &high,
		PeakW:        new(unit.Watts(10)),
		CeramicUF:    new(unit.Microfarads(10)),
		AbsoluteMaxV: new(high * 1.4),
	}
}

// Set is the sample gear pack: a first generation fine on four cells, a second
// fine on four or six, a small third (windows: common practice), and goggles
// of two generations. The first generation works with the old goggles up to
// and including 1.0.6 and with the new ones from 1.1 on.
func Set() *gear.Set {
	return &gear.Set{
		Format: gear.SetFormat, Version: gear.SetVersion, ID: "sample", Title: "sample",
		AirUnits: airUnits(),
		Goggles:  goggles(),
		Controllers: []gear.Controller{
			{Device: device("old-hand")},
			{Device: device("new-hand", step("1.0", ""), step("1.1", ""))},
		},
		Receivers: receivers(),
		Boards:    boards(),
		Antennas:  antennas(),
		Regions: []gear.Region{{
			Entry: gear.Entry{ID: "home", Name: "home", Source: gear.Source{Kind: gear.Practice, Text: "a rule",
				Date: "2026-01-05"}},
			Limits: []gear.PowerLimit{{Band: "5.8", MaxEIRPMW: new(unit.Milliwatts(1000))}},
		}},
		Frames: frames(),
		Plates: []gear.Plate{{
			Entry:   entry("plate-20-25"),
			From:    gear.Holes{XMM: 20, YMM: 20},
			To:      gear.Holes{XMM: 25.5, YMM: 25.5},
			ThickMM: new(unit.Millimetres(4)),
			MassG:   new(unit.Grams(2)),
			Printed: true,
		}},
		Screws:     screws(),
		Connectors: connectors(),
		Harnesses:  []gear.Harness{{Entry: entry("straight"), From: "sh-6", To: "sh-6", Wires: Wires(1, 2, 3, 4, 5, 6)}},
		Headers: []gear.Header{{
			Entry:     entry("tack"),
			Connector: "sh-6",
			PitchMM:   new(unit.Millimetres(1)),
			Pins:      new(6),
			MassG:     new(unit.Grams(0.5)),
		}},
		Parts:          parts(),
		Regulators:     []gear.Regulator{{Entry: entry("step-down-12"), Converter: stepDown(12, 3)}},
		Packs:          packs(),
		FlightFirmware: []gear.FlightFirmware{flies("common"), flies("superset")},
		Pairings:       pairings(),
	}
}

func screws() []gear.Screw {
	return []gear.Screw{
		screw("m2-4", "M2", 4),
		screw("m2-5", "M2", 5),
		screw("m2-8", "M2", 8),
		screw("m16-6", "M1.6", 6),
		screw("m16-10", "M1.6", 10),
	}
}

func connectors() []gear.Connector {
	return []gear.Connector{
		{Entry: entry("ufl"), Matings: new(30)},
		{Entry: entry("sma")},
		{Entry: entry("sh-6"), PitchMM: new(unit.Millimetres(1)), Pins: new(6), MaxA: new(unit.Amps(3))},
	}
}

func packs() []gear.Pack {
	return []gear.Pack{
		pack("lipo-4", gear.LiPo, 4),
		pack("lipo-6", gear.LiPo, 6),
		pack("lihv-1", gear.LiHV, 1),
		pack("liion-6", gear.LiIon, 6),
	}
}

func step(v firmware.Version, from firmware.Range) gear.Release {
	return gear.Release{Version: v, From: from}
}

// airUnits are three generations; the third is small.
func airUnits() []gear.AirUnit {
	oneWay := step("1.1", ">=1.0")
	oneWay.OneWay = true
	armed := sender()
	armed.FullPowerOnlyArmed = new(true)
	return []gear.AirUnit{
		{
			Device: device("first", step("1.0", ""), step("1.0.6", ""), oneWay),
			Input:  window(7.4, 17.6),
			Plug:   plug(),
			RCOut:  sticks(),
			OSD:    screen(),
			Radio:  sender(),
			Mount:  seat(20),
			Camera: camera(),
		},
		{
			Device: device("second", step("2.0", ""), step("2.3", ">=2.0")),
			Input:  window(7.4, 26.4),
			Radio:  armed,
			Plug:   plug(),
			RCOut:  sticks(),
			OSD:    screen(),
			Mount:  seat(25.5),
			Camera: camera(),
		},
		{
			Device: device("small", step("3.0", "")),
			Input:  window(3.7, 13.2),
			Plug:   plug(),
			RCOut:  sticks(),
			OSD:    screen(),
			Radio:  sender(),
			Mount:  seat(20),
			Camera: camera(),
		},
	}
}

// goggles are two generations.
func goggles() []gear.Goggles {
	return []gear.Goggles{
		{
			Device:     device("old-eyes", step("4.1", ""), step("4.4", ">=4.1"), step("4.6", "4.4")),
			Modes:      []gear.Mode{{ID: "a"}, {ID: "b", Firmware: ">=4.6"}},
			ModeSwitch: []gear.ModeSwitch{{From: "a", To: "b", Keeps: false}, {From: "b", To: "a", Keeps: true}},
			Receive:    receiver(),
			Canvas:     "*",
		},
		{
			Device:  device("new-eyes", step("5.0", ""), step("5.2", ">=5.0")),
			Modes:   []gear.Mode{{ID: "b"}},
			Receive: receiver(),
			Canvas:  "*",
		},
	}
}

// boards is one board with every kind of pad and port.
func boards() []gear.Board {
	return []gear.Board{
		{Entry: entry("board"), USBSide: "left", Input: window(6, 30), Signals: gear.Signals, Pads: []gear.Pad{
			{ID: "batt", Kind: gear.PadPack},
			{ID: "10v", Kind: gear.PadRegulated, Converter: stepDown(10, 2)},
			{ID: "5v", Kind: gear.PadRegulated, Converter: stepDown(5, 2)},
			{ID: "cam", Kind: gear.PadJumper, Choices: []string{"pack", "10v", "5v"}},
		}, UARTs: []gear.UART{
			{ID: 1, TX: true, RX: true, Hardware: new(true), Invert: gear.InvertNone},
			{ID: 2, TX: true, Hardware: new(true), Invert: gear.InvertNone},
			{ID: 3, TX: true, RX: true, Hardware: new(true), Invert: gear.InvertPad},
			{ID: 4, TX: true, RX: true, Hardware: new(false), Invert: gear.InvertSoftware},
		}, Plugs: []gear.Plug{
			{ID: "hd", Connector: "sh-6", Pins: []string{"10v", "ground", "tx1", "rx1", "ground", "rx3"}},
			{ID: "row", PitchMM: new(unit.Millimetres(1)), Pins: []string{"10v", "ground", "tx1", "rx1", "ground", "rx3"}},
		}},
	}
}

// frames is one frame with one bay.
func frames() []gear.Frame {
	return []gear.Frame{{
		Entry:        entry("frame"),
		BoardOpen:    []gear.Side{"left"},
		StandoffMM:   new(unit.Millimetres(28)),
		StandoffSize: "M3",
		CageMM:       new(unit.Millimetres(19)),
		CagePerSide:  new(1),
		GuardMM:      new(unit.Millimetres(9)),
		Bays: []gear.Bay{
			{
				ID:        "rear",
				Patterns:  []gear.Holes{{XMM: 20, YMM: 20}},
				PlateMM:   new(unit.Millimetres(2)),
				HeightMM:  new(unit.Millimetres(16)),
				CameraMM:  new(unit.Millimetres(90)),
				AntennaMM: new(unit.Millimetres(0)),
				Open:      []gear.Side{"rear", "top"},
			},
		},
	}}
}

func antennas() []gear.Antenna {
	return []gear.Antenna{
		antenna("round", "ufl", radio.RHCP, 1.5, 360),
		antenna("eye", "sma", radio.RHCP, 2, 360),
		antenna("left", "sma", radio.LHCP, 2, 360),
		antenna("stick", "sma", radio.Linear, 2, 360),
		antenna("wide", "sma", radio.RHCP, 8, 130),
	}
}

func receivers() []gear.Receiver {
	return []gear.Receiver{{
		Entry:      entry("receiver"),
		Input:      gear.Input{MinV: new(unit.Volts(4.5)), MaxV: new(unit.Volts(5.5)), PeakW: new(unit.Watts(0.5))},
		Protocols:  []string{"leat"},
		LatencyMS:  new(6.0),
		FullDuplex: new(true),
		Inverted:   new(false),
		Plug:       bare(gear.PinSupply, gear.PinGround, gear.PinUARTRX, gear.PinUARTTX),
		FromMHz:    new(unit.Megahertz(2400)),
		ToMHz:      new(unit.Megahertz(2480)),
	}}
}

// parts are one of each sort, with bare pads.
func parts() []gear.Part {
	part := func(id string, sort gear.PartSort, input gear.Input, pins ...string) gear.Part {
		input.PeakW = new(unit.Watts(0.4))
		return gear.Part{Entry: entry(id), Sort: sort, Input: input, Plug: bare(pins...), Inverted: new(false),
			MassG: new(unit.Grams(5))}
	}
	return []gear.Part{
		part("gps", gear.SortGPS, window(4.5, 5.5), gear.PinSupply, gear.PinGround, gear.PinUARTRX, gear.PinUARTTX,
			gear.PinSDA, gear.PinSCL),
		part("esc", gear.SortESC, window(6, 30), gear.PinSupply, gear.PinGround, "motor1", "motor2", "motor3", "motor4",
			gear.PinTelemetry, gear.PinCurrent),
		part("buzzer", gear.SortBuzzer, window(4, 6), gear.PinSupply, gear.PinBuzzer),
		part("lights", gear.SortLights, window(4.5, 5.5), gear.PinSupply, gear.PinGround, gear.PinLED),
		part("camera", gear.SortCamera, window(4.5, 24), gear.PinSupply, gear.PinGround, gear.PinVideoOut),
		part("transmitter", gear.SortTransmitter, window(7, 26), gear.PinSupply, gear.PinGround, gear.PinVideoIn,
			gear.PinControl),
		part("switcher", gear.SortCameraSwitch, window(4.5, 5.5), gear.PinSupply, gear.PinGround, gear.PinSwitch,
			gear.PinSpare),
	}
}

// bare is a row of solder pads.
func bare(pins ...string) *gear.Plug {
	return &gear.Plug{Nones: gear.Nones{None: []string{"connector"}}, Pins: pins}
}

// pairings say which links with which.
func pairings() []gear.Pairing {
	return []gear.Pairing{
		pairing("first", "<=1.0.6", "old-eyes", ">=4.1", "a", gear.ControllerRange{ID: "old-hand"}),
		pairing("first", ">=1.1", "new-eyes", ">=5.2", "", gear.ControllerRange{ID: "old-hand"}),
		pairing("second", ">=2.0", "old-eyes", ">=4.6", "b", gear.ControllerRange{ID: "new-hand", Firmware: ">=1.1"}),
		pairing("second", ">=2.3", "new-eyes", "", "", gear.ControllerRange{ID: "new-hand"}),
		{Entry: entry("small-never"), AirUnit: "small", Goggles: "old-eyes", Never: true},
	}
}

func sender() *gear.Radio {
	return &gear.Radio{
		MaxMW:       new(unit.Milliwatts(500)),
		BenchMW:     new(unit.Milliwatts(20)),
		AntennaPort: gear.AntennaPort{Bands: []gear.Band{"5.8"}, Antennas: new(2), Plug: "ufl"},
	}
}

func sticks() *gear.RCOut {
	return &gear.RCOut{
		Inverted:  new(true),
		Variants:  []string{"normal", "fast"},
		Protocol:  "sbus",
		LatencyMS: map[string]float64{"normal": 20, "fast": 12},
	}
}

// screen is a unit that shows a canvas of the usual grid, and a few elements else.
func screen() *gear.UnitOSD {
	return &gear.UnitOSD{
		Dialects: []gear.Dialect{gear.Common},
		Canvas:   "*",
		Grid:     "53x20",
		BuiltIn:  []string{"battery-voltage", "warnings", "flight-time"},
	}
}

// flies is flight firmware of a dialect; its numbers are those commonly described
// (from memory).
func flies(dialect gear.Dialect) gear.FlightFirmware {
	f := gear.FlightFirmware{
		Entry:      entry("flies-" + string(dialect)),
		Variant:    "SMPL",
		Dialect:    dialect,
		CanvasFrom: "4.4",
		Avoid:      []gear.VersionAdvice{{Firmware: "4.5.0", Why: "its OSD freezes"}},
		Functions: map[string]int{
			gear.FunctionMSP:       0,
			gear.FunctionGPS:       1,
			gear.FunctionRC:        6,
			gear.FunctionTelemetry: 10,
			gear.FunctionCanvas:    17,
		},
		Features:  map[string]int{gear.FeatureRXSerial: 3, gear.FeatureTelemetry: 10, gear.FeatureOSD: 18},
		Providers: map[string]int{"sbus": 2, "leat": 9},
		Modes:     map[string]int{"arm": 0, "level": 1, "beeper": 13, "flip-over": 35, "return-home": 46},
	}
	for i, e := range []gear.OSDElement{
		{ID: "battery-voltage", Shows: "16.4V"},
		{ID: "cell-voltage", Shows: "4.10V", Instead: []string{"battery-voltage"}},
		{ID: "link-quality", Shows: "99%"},
		{ID: "warnings", Shows: "LAND NOW", Width: new(12)},
		{ID: "home-arrow", Shows: "^"},
		{ID: "flight-time", Shows: "03:21"},
		{ID: "crosshair", Shows: "-+-"},
		{ID: "horizon", Width: new(9), Height: new(5)},
		{ID: "quad-name", Shows: "SAMPLE"},
	} {
		e.Index = new(i)
		f.Elements = append(f.Elements, e)
	}
	return f
}

// Flight is a board that is set up: layout, channels and switches.
func Flight() fleet.Flight {
	return fleet.Flight{Runs: &fleet.Runs{ID: "flies-common", Version: "4.5.1"},
		OSD: &fleet.Layout{
			Grid: "53x20",
			Elements: []fleet.Placed{
				{ID: "battery-voltage", X: 1, Y: 18},
				{ID: "warnings", X: 20, Y: 12},
				{ID: "flight-time", X: 47, Y: 18},
			},
		},
		Sticks: &fleet.Sticks{Unit: fleet.Normal, Board: fleet.Normal, Order: "AETR", MinUS: new(1000), MaxUS: new(2000),
			Switches: []fleet.Switch{
				{Mode: "arm", Aux: 1, FromUS: 1700, ToUS: 2100},
				{Mode: "level", Aux: 2, FromUS: 900, ToUS: 1300},
				{Mode: "beeper", Aux: 3, FromUS: 1700, ToUS: 2100},
			}}}
}

func receiver() *gear.AntennaPort {
	return &gear.AntennaPort{
		Bands:          []gear.Band{"5.8"},
		Antennas:       new(2),
		Plug:           "sma",
		LipMM:          new(unit.Millimetres(5)),
		SensitivityDBm: new(unit.Decibels(-95)),
	}
}

func antenna(id, plug string, p radio.Polarisation, gain unit.Decibels, beam unit.Degrees) gear.Antenna {
	return gear.Antenna{
		Entry:        entry(id),
		Bands:        []gear.AntennaBand{{Band: "5.8", GainDBi: &gain}},
		Polarisation: p,
		BeamDeg:      &beam,
		Plug:         plug,
		BarrelMM:     new(unit.Millimetres(8)),
		LeadMM:       new(unit.Millimetres(0)),
	}
}

// Pair is two antennas placed as they should be (common practice: 60° apart, 40 mm
// from carbon).
func Pair() *fleet.Antennas {
	return &fleet.Antennas{
		Models:   []string{"round", "round"},
		AngleDeg: new(unit.Degrees(60)),
		CarbonMM: new(unit.Millimetres(45)),
	}
}

func seat(across unit.Millimetres) *gear.UnitMount {
	return &gear.UnitMount{
		Patterns: []gear.Holes{{XMM: across, YMM: across, Screw: "M2", DepthMM: new(unit.Millimetres(3))}},
		HeightMM: new(unit.Millimetres(11)),
		Access:   map[string]gear.Side{"usb": "rear", "bind": "top", "card": "rear"},
	}
}

func camera() *gear.Camera {
	return &gear.Camera{
		WidthMM:    new(unit.Millimetres(19)),
		LensMM:     new(unit.Millimetres(8)),
		CableMM:    new(unit.Millimetres(120)),
		PerSide:    new(1),
		RecordsOwn: new(false),
		Screw:      "M2",
	}
}

func screw(id, size string, length unit.Millimetres) gear.Screw {
	return gear.Screw{Entry: entry(id), Size: size, LengthMM: &length}
}

// Seat is the rear of the frame, with a screw that does.
func Seat() fleet.Mounting { return fleet.Mounting{Frame: "frame", Bay: "rear", Screw: "m2-4"} }

// plug is the usual row of six pins (common practice).
func plug() *gear.Plug {
	return &gear.Plug{
		Connector: "sh-6",
		Pins:      []string{gear.PinSupply, gear.PinGround, gear.PinUARTRX, gear.PinUARTTX, gear.PinRCGround, gear.PinRCOut},
	}
}

// Wires is a harness's wires from slot 1, 2, 3 … to the slots given; 0 is none.
func Wires(to ...int) (wires []gear.HarnessWire) {
	colours := []string{"red", "black", "white", "grey", "brown", "yellow"}
	for i, slot := range to {
		if slot > 0 {
			wires = append(wires, gear.HarnessWire{
				From:   i + 1,
				To:     slot,
				Colour: colours[i%len(colours)],
				AWG:    new(wire.Gauge(24)),
			})
		}
	}
	return wires
}

// Wired is a unit soldered as it should be; its supply goes where it is fed from.
func Wired() []fleet.Wire {
	return []fleet.Wire{
		{Pin: 2, To: "ground"},
		{Pin: 3, To: "tx1"},
		{Pin: 4, To: "rx1"},
		{Pin: 5, To: "ground"},
		{Pin: 6, To: "rx3"},
	}
}

func stepDown(out unit.Volts, rating unit.Amps) gear.Converter {
	return gear.Converter{Topology: gear.StepDown, Input: window(6, 30), OutV: &out, ToleranceV: new(unit.Volts(0.1)),
		MaxA: &rating, DropoutV: new(unit.Volts(1)), Efficiency: new(0.9)}
}

func pack(id string, chemistry gear.Chemistry, cells int) gear.Pack {
	return gear.Pack{Entry: entry(id), Chemistry: chemistry, Cells: &cells, MilliohmPerCell: new(unit.Milliohms(4))}
}

func pairing(
	air string,
	airRange firmware.Range,
	goggles string,
	gogglesRange firmware.Range,
	mode string,
	hand gear.ControllerRange,
) gear.Pairing {
	return gear.Pairing{Entry: entry(air + "-" + goggles), AirUnit: air, AirFirmware: airRange, Goggles: goggles,
		GogglesFirmware: gogglesRange, Mode: mode, Controllers: []gear.ControllerRange{hand}, Features: []string{"picture"}}
}

// Case is a quad with the given next fit; kit ids are the model ids.
func Case(set *gear.Set, kit []fleet.Kit, next fleet.Fit) fleet.Case {
	f := &fleet.Fleet{
		Region: "home",
		Kit:    kit,
		Quads:  []fleet.Quad{{ID: "quad", Name: "Quad", FullA: new(unit.Amps(50)), Next: &next}},
	}
	return fleet.NewCase(gear.NewLibrary(set), fleet.NewIndex(f), &f.Quads[0])
}

// Lead is the usual lead of a pack: 90 mm of 14 AWG (common practice).
func Lead() *fleet.Lead {
	return &fleet.Lead{MM: new(unit.Millimetres(90)), AWG: new(wire.Gauge(14))}
}

// Own is a piece of kit named after its model; goggles carry two antennas.
func Own(model string, v firmware.Version, mode string) fleet.Kit {
	k := fleet.Kit{ID: model, Model: model, Firmware: v, Mode: mode, Activated: new(true)}
	if model == "old-eyes" || model == "new-eyes" {
		k.Antennas = []string{"eye", "eye"}
	}
	return k
}
