package core_test

import (
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/measure/unit"
)

// whatIsRare states what hardly a fleet states, on two quads: one on an adapter plate with its covers
// off, and one on screws with sunk heads.
func whatIsRare(st *stock.Stock) {
	f := st.Fleet
	hopper, _ := f.Quad("hopper")
	one, two := *hopper, *hopper
	oneNext, twoNext := hopper.NextFit(), hopper.NextFit()
	one.Next, two.Next = &oneNext, &twoNext
	one.Now = one.Now.Clone()
	one.Now.Features = []string{gear.FeatureRXSerial}
	two.ID = "hopper-2"
	one.Next.Plate, one.Next.LeftOff, one.Next.TiltDeg = "tenon-20-25", []string{"top"}, new(unit.Degrees(30))
	one.Next.Camera, one.Next.Washer, one.Next.Controller = "squint-14", "washer-m2-1", &fleet.Slot{Kit: "grip-2-a"}
	one.Next.Holdings = append(slices.Clone(one.Next.Holdings),
		fleet.Hold{Part: fleet.NodeCamera, Way: fleet.HeldByCage, Bracket: "rare-cage"})
	one.Next.Feeds = []fleet.Feed{{To: fleet.NodeAirUnit, From: "board.9v"}}
	two.Next.AirUnit, two.Next.Screw = &fleet.Slot{Model: "aldine-one-compact"}, "m2-5"
	f.Quads = []fleet.Quad{one, two}
	f.Scenarios, f.Wants, f.Region = nil, nil, "harrow"
	one.FlownIn = &fleet.FlownIn{On: "2026-11-20", Carried: f.Carries(&one)}
	f.Quads[0] = one
	f.TestFlights = slices.Clone(f.TestFlights)
	for i := range f.TestFlights {
		f.TestFlights[i].Quad, f.TestFlights[i].Reads = "hopper", f.TestFlights[i].Reads[:5]
		carried := &f.TestFlights[i].Carried
		carried.Board, carried.BoardFirmware, carried.None = "thistle-f4", "2.2", nil
		if i == 0 {
			f.TestFlights[i].LeftOut = []string{"hedge"}
		}
	}
	for i := range f.Kit {
		k := &f.Kit[i]
		k.Locked = new(false)
		if k.ID == "visor-c-1" {
			k.Antennas, k.Adapter = []string{"sail-r", "sail-r"}, "ferrule-sr"
			k.Pack = ""
		}
	}
	set := st.Sets[0]
	rareGear(set)
	for i := range set.ReadyQuads {
		set.ReadyQuads[i].Receiver = "lantern-r2"
	}
	for i := range set.Screws {
		set.Screws[i].HeadKind = gear.HeadCountersunk
	}
	for i := range set.Frames {
		fr := &set.Frames[i]
		fr.CameraCover, fr.CameraDownMM, fr.CameraUpMM, fr.CameraBackMM = "top", new(unit.Millimetres(12)),
			new(unit.Millimetres(8)), new(unit.Millimetres(30))
		for k := range fr.Bays {
			fr.Bays[k].Countersunk, fr.Bays[k].Cover = new(true), "top"
		}
	}
}

// rareGear states of gear what few sheets say.
func rareGear(set *gear.Set) {
	set.Brackets = append(set.Brackets, gear.Bracket{Entry: gear.Entry{ID: "rare-cage", Source: gear.Source{Kind: gear.Practice}},
		Way: "cage", For: []string{"squint-14", "aldine-two"}, Nones: gear.Nones{None: []string{gear.NoFrames}},
		InsideMM: new(unit.Millimetres(21)), Screws: new(2), MassG: new(unit.Grams(3)), SoftensC: new(90.0)})
	// Coax plugs that are the other way round than most.
	for i := range set.Antennas {
		set.Antennas[i].PlugSex = gear.Female
	}
	for i := range set.Goggles {
		g := &set.Goggles[i]
		g.Receive.PlugSex = gear.Male
		g.MassG, g.BatteryWh, g.Input.TypicalW = new(unit.Grams(300)), new(20.0), new(unit.Watts(8))
	}
	for i := range set.Adapters {
		set.Adapters[i].FromSex, set.Adapters[i].ToSex = gear.Male, gear.Female
	}
	for i := range set.Cameras {
		cam := &set.Cameras[i].Camera
		cam.HeightMM, cam.FrontMM, cam.BackMM = new(unit.Millimetres(20)), new(unit.Millimetres(8)), new(unit.Millimetres(15))
	}
	for i := range set.Controllers {
		set.Controllers[i].MassG = new(unit.Grams(400))
	}
	for i := range set.AirUnits {
		u := &set.AirUnits[i]
		u.MassWith = []string{gear.WithAntennas, gear.WithCamera}
		switch u.ID {
		case "aldine-two":
			u.Variants = []gear.Variant{{Value: "massG", Region: "harrow", Number: new(90.0)}, {Value: "massG", Region: "moor", Number: new(50.0)}}
			u.Input.MinV, u.Input.MaxV, u.Input.FromCells, u.Input.ToCells = nil, nil, new(2), new(6)
		case "aldine-one-compact":
			u.Ranges = []gear.Range{{Value: "input.peakW", Low: 6, High: 30}}
			u.Input.PeakW = nil
		}
	}
	for i := range set.BandPlans {
		for k := range set.BandPlans[i].Channels {
			set.BandPlans[i].Channels[k].Firmware = ">=9.0"
		}
	}
	for i := range set.Boards {
		pads := set.Boards[i].Pads
		for k := range pads {
			if pads[k].ID == "9v" { // it carries the peak for a while
				pads[k].MaxA, pads[k].PeakA, pads[k].PeakS = new(unit.Amps(1.2)), new(unit.Amps(9)), new(5.0)
			}
		}
	}
}

// whatIsDecided is a fleet of two quads that has money coming in.
func whatIsDecided(st *stock.Stock) {
	f := st.Fleet
	f.Quads = slices.DeleteFunc(f.Quads, func(q fleet.Quad) bool { return q.ID != "whip" && q.ID != "damsel" })
	for i := range f.Quads {
		f.Quads[i].Weight = new(i + 1)
	}
	f.Scenarios, f.Wants = nil, nil
	f.Means = &fleet.Means{Currency: "EUR", Now: new(0.0), Month: new(40.0)}
}
