package builds

import (
	"slices"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// plug is the plug of a fit's air unit; nil where it has none, or says none.
func (m *Maker) plug(f *fleet.Fit) *gear.Plug {
	if u := m.airUnit(f); u != nil {
		return u.Plug
	}
	return nil
}

func (m *Maker) airUnit(f *fleet.Fit) *gear.AirUnit {
	if f.AirUnit == nil {
		return nil
	}
	model := f.AirUnit.Model
	if k, ok := m.fleet.Piece(f.AirUnit.Kit); ok {
		model = k.Model
	}
	u, _ := gear.Find[*gear.AirUnit](m.lib, model)
	return u
}

// wire draws a wiring: right, or with one wire elsewhere, one left off, or a cable.
func (m *Maker) wire(f *fleet.Fit) {
	f.Wiring = fleet.Wiring{}
	board, _ := gear.Find[*gear.Board](m.lib, f.Board)
	plug := m.plug(f)
	if board == nil || plug == nil {
		return
	}
	if m.odds(8) {
		f.Depth = one(m, []fleet.Depth{fleet.PictureOnly, fleet.PictureAndData, fleet.WithSticks})
	}
	m.ports(f, board)
	if h := one(m, gear.All[*gear.Harness](m.lib)); h != nil && m.odds(2) {
		f.Harness = h.ID
		if p := one(m, board.Plugs); len(board.Plugs) > 0 && h.To != "" && !m.odds(4) {
			f.HarnessTo = p.ID
			if w := one(m, h.Wires); m.odds(4) && w.From > 0 {
				f.Moved = []fleet.CrimpMove{{End: fleet.UnitEnd, From: w.From, To: 0}}
			}
			return
		}
	}
	places := slices.Collect(board.Terminals())
	msp, rc := one(m, board.UARTs), one(m, board.UARTs)
	right := map[string]string{
		gear.PinGround:   gear.PinGround,
		gear.PinRCGround: gear.PinGround,
		gear.PinUARTRX:   msp.TXPad(),
		gear.PinUARTTX:   msp.RXPad(),
		gear.PinRCOut:    rc.RXPad(),
	}
	if pad, ok := fleet.PadOf(feedOf(f)); ok {
		right[gear.PinSupply] = pad
	}
	for i, function := range plug.Pins {
		to := right[function]
		if to == "" || m.odds(10) || f.Receiver != "" && (function == gear.PinRCOut || function == gear.PinRCGround) &&
			!m.odds(6) {
			continue
		}
		if m.odds(14) {
			to = one(m, places)
		}
		if board.Terminal(to) {
			f.Wires = append(f.Wires, fleet.Wire{Pin: i + 1, To: to})
		}
	}
}

func feedOf(f *fleet.Fit) string {
	from, _ := f.FeedOf(fleet.NodeAirUnit)
	return from
}

func (m *Maker) ports(f *fleet.Fit, b *gear.Board) {
	if f.Receiver != "" && len(b.UARTs) > 0 && !m.odds(6) {
		f.Ports = append(f.Ports, fleet.Port{UART: one(m, b.UARTs).ID, Use: fleet.UseReceiver})
	}
	for _, use := range []fleet.Use{fleet.UseGPS, fleet.UseTelemetry, fleet.UseVTXControl} {
		if len(b.UARTs) > 0 && m.odds(4) {
			f.Ports = append(f.Ports, fleet.Port{UART: one(m, b.UARTs).ID, Use: use})
		}
	}
	for _, u := range b.UARTs {
		if u.Invert == gear.InvertJumper && m.odds(2) {
			if f.Jumpers == nil {
				f.Jumpers = map[string]string{}
			}
			f.Jumpers[fleet.InverterJumper(u.ID)] = one(m, []string{fleet.Inverted, fleet.Plain})
		}
	}
}

func (m *Maker) antennas(f *fleet.Fit) {
	all := ids[*gear.Antenna](m)
	if f.AirUnit == nil || len(all) == 0 || m.odds(10) {
		return
	}
	n := 1 + m.IntN(2)
	if u := m.airUnit(f); u != nil && u.Radio != nil && u.Radio.Antennas != nil && !m.odds(5) {
		n = *u.Radio.Antennas
	}
	a := &fleet.Antennas{
		AngleDeg:  new(one(m, []unit.Degrees{10, 40, 60, 90})),
		CarbonMM:  new(one(m, []unit.Millimetres{10, 40, 60})),
		ControlMM: new(one(m, []unit.Millimetres{10, 40, 80})),
	}
	for range n {
		a.Models = append(a.Models, one(m, all))
	}
	if m.odds(3) {
		for i := range a.Models {
			a.Models[i] = a.Models[0]
		}
	}
	if m.odds(5) {
		a.AngleDeg = nil
	}
	if m.odds(6) {
		a.Adapter = one(m, ids[*gear.Adapter](m))
	}
	f.Antennas = a
}

func (m *Maker) mount(f *fleet.Fit) {
	f.Mounting = fleet.Mounting{}
	frames := gear.All[*gear.Frame](m.lib)
	if len(frames) == 0 || m.odds(12) {
		return
	}
	frame := one(m, frames)
	f.Frame = frame.ID
	if len(frame.Bays) > 0 && !m.odds(12) {
		f.Bay = one(m, frame.Bays).ID
	}
	if m.odds(2) {
		f.Screw = one(m, ids[*gear.Screw](m))
	}
	if m.odds(5) {
		f.Plate = one(m, ids[*gear.Plate](m))
	}
	if m.odds(6) {
		f.SoftMM = new(unit.Millimetres(1))
	}
	if m.odds(4) {
		f.TiltDeg = new(one(m, []unit.Degrees{0, 20, 45}))
	}
	if m.odds(8) {
		f.BoardTurnDeg = new(unit.Degrees(180))
	}
}

func (m *Maker) flight(f *fleet.Fit) {
	runs := one(m, gear.All[*gear.FlightFirmware](m.lib))
	if runs == nil || f.Board == "" || m.odds(10) {
		return
	}
	f.Runs = &fleet.Runs{ID: runs.ID}
	if !m.odds(8) {
		f.Runs.Version = one(m, []firmware.Version{"4.3", "4.4", "4.5.0", "4.5.3", "6.1", "2.2"})
	}
	if !m.odds(8) && len(runs.Elements) > 0 {
		f.OSD = &fleet.Layout{Grid: one(m, []gear.Grid{"30x13", "30x16", "53x20"}), Elements: []fleet.Placed{}}
		columns, rows, _ := f.OSD.Grid.Size()
		for i := range runs.Elements {
			if m.odds(2) {
				f.OSD.Elements = append(f.OSD.Elements, fleet.Placed{ID: runs.Elements[i].ID, X: m.IntN(columns), Y: m.IntN(rows)})
			}
		}
	}
	if m.odds(8) {
		return
	}
	s := &fleet.Sticks{
		Order: "AETR",
		MinUS: new(one(m, []int{1000, 1000, 1080})),
		MaxUS: new(2000),
		Unit:  one(m, []fleet.Variant{fleet.Normal, fleet.Fast}),
		Board: one(m, []fleet.Variant{fleet.Normal, fleet.Normal, fleet.Fast}),
	}
	var modes []string
	for mode := range runs.Modes {
		modes = append(modes, mode)
	}
	slices.Sort(modes)
	for _, mode := range modes {
		if m.odds(3) {
			continue
		}
		from := one(m, []int{900, 1300, 1700, 2010})
		s.Switches = append(s.Switches, fleet.Switch{
			Mode:   mode,
			Aux:    1 + m.IntN(4),
			FromUS: from,
			ToUS:   one(m, []int{from + 10, from + 90, min(2100, from+400)}),
		})
	}
	f.Sticks = s
}
