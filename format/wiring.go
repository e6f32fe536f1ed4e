package format

import (
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// checkPlug finds functions that stand on two pins of a part, but for those that may, and
// what is amiss in where its pads lie.
func checkPlug(ps *Problems, path string, p *gear.Plug, o *gear.Outline, may ...string) {
	checkPinOutline(ps, path, o, p)
	if p == nil {
		return
	}
	seen := map[string]int{}
	for i, function := range p.Pins {
		if first, twice := seen[function]; twice && function != "" && !slices.Contains(may, function) {
			ps.add(path+".plug."+indexed("pins", i), "%s is on pin %d already: a function has one pin", function, first+1)
		}
		seen[function] = i
	}
}

// checkSerial finds ports and plugs of a board that contradict themselves.
func checkSerial(ps *Problems, path string, b *gear.Board) {
	ports := map[int]bool{}
	built := 0
	for i, u := range b.UARTs {
		at := path + "." + indexed("uarts", i) + ".builtIn"
		switch {
		case u.BuiltIn && b.BuiltIn == "":
			ps.add(at, "expected a receiver in builtIn of the board: none is built into it")
		case u.BuiltIn && built != 0:
			ps.add(at, "the built-in receiver is on UART %d already", built)
		case u.BuiltIn:
			built = u.ID
		}
		if ports[u.ID] {
			ps.add(path+"."+indexed("uarts", i)+".id", "UART %d stands already", u.ID)
		}
		ports[u.ID] = true
	}
	for i, signal := range b.Signals {
		if _, pad := b.Pad(signal); pad {
			ps.add(path+"."+indexed("signals", i), "%q is the id of a power pad already", signal)
		}
	}
	ids := map[string]string{}
	for i := range b.Plugs {
		plug := &b.Plugs[i]
		at := path + "." + indexed("plugs", i)
		once(ps, ids, at+".id", plug.ID)
		for k, pin := range plug.Pins {
			port, _, serial := gear.SerialPin(pin)
			_, pad := b.Pad(pin)
			if pin != "" && pin != gear.PinGround && !pad && !b.Signal(pin) && (!serial || !ports[port]) {
				ps.add(at+"."+indexed("pins", k),
					"expected ground, tx or rx with the number of a UART of this board, the id of one of its pads or one of its "+
						"signals, %q is none", pin)
			}
		}
	}
}

// checkHarness finds slots used twice.
func checkHarness(ps *Problems, path string, h *gear.Harness) {
	froms, tos := map[int]bool{}, map[int]bool{}
	for i, w := range h.Wires {
		at := path + "." + indexed("wires", i)
		if froms[w.From] {
			ps.add(at+".from", "slot %d is used twice", w.From)
		}
		if w.To != 0 && tos[w.To] {
			ps.add(at+".to", "slot %d is used twice", w.To)
		}
		if w.To != 0 && h.To == "" {
			ps.add(at+".to", "this harness has bare ends: it says no connector at the board's end")
		}
		froms[w.From], tos[w.To] = true, true
	}
	if h.Branch == nil {
		return
	}
	branched := map[int]bool{}
	for i, w := range h.Branch.Wires {
		at := path + ".branch." + indexed("wires", i)
		if w.To != 0 && branched[w.To] {
			ps.add(at+".to", "slot %d of the branch is used twice", w.To)
		}
		if w.To != 0 && h.Branch.To == "" {
			ps.add(at+".to", "the branch has bare ends: it says no connector")
		}
		branched[w.To] = true
	}
}

// checkCable finds what a part's wiring says twice, or of a plug it does not use.
func checkCable(ps *Problems, path string, w *fleet.Cable) {
	pins := map[int]bool{}
	for i, wire := range w.Wires {
		if pins[wire.Pin] {
			ps.add(path+"."+indexed("wires", i)+".pin", "pin %d has a wire already", wire.Pin)
		}
		pins[wire.Pin] = true
	}
	type slot struct {
		end  fleet.End
		slot int
	}
	from, to := map[slot]bool{}, map[slot]bool{}
	for i, m := range w.Moved {
		at := path + "." + indexed("moved", i)
		if from[slot{m.End, m.From}] {
			ps.add(at+".from", "the crimp of slot %d is moved twice", m.From)
		}
		if m.To != 0 && to[slot{m.End, m.To}] {
			ps.add(at+".to", "slot %d is used twice", m.To)
		}
		from[slot{m.End, m.From}], to[slot{m.End, m.To}] = true, true
	}
	if w.HarnessTo != "" && w.Harness == "" {
		ps.add(path+".harnessTo", "no harness is named that goes into it")
	}
	if w.BranchTo != "" && w.Harness == "" {
		ps.add(path+".branchTo", "no harness is named whose branch goes into it")
	}
}

// cableOf is a cable of a fit with the part it is on, and where it stands.
type cableOf struct {
	fleet.Cable
	path string
	part gear.Item  // nil: not known
	plug *gear.Plug // nil: not stated
}

// cables are all of a fit's: the air unit's, the receiver's, those of the placed parts.
func cables(path string, f *fleet.Fit, lib *gear.Library, models map[string]string) []cableOf {
	list := []cableOf{{Cable: f.Cable(), path: path}}
	if slot := f.AirUnit; slot != nil {
		model := slot.Model
		if slot.Kit != "" {
			model = models[slot.Kit]
		}
		if u, ok := gear.Find[*gear.AirUnit](lib, model); ok {
			list[0].part, list[0].plug = u, u.Plug
		}
	}
	if f.ReceiverCable != nil {
		c := cableOf{Cable: *f.ReceiverCable, path: path + ".receiverCable"}
		if r, ok := gear.Find[*gear.Receiver](lib, f.Receiver); ok {
			c.part, c.plug = r, r.Plug
		}
		list = append(list, c)
	}
	for i := range f.Parts {
		c := cableOf{Cable: f.Parts[i].Cable, path: path + "." + indexed("parts", i)}
		if p, ok := gear.Find[*gear.Part](lib, f.Parts[i].Model); ok {
			c.part, c.plug = p, p.Plug
		}
		list = append(list, c)
	}
	return list
}

// checkPins finds wires and crimps on pins that a part, or its cable, does not have, and
// ends that the board does not have.
func checkPins(ps *Problems, path string, f *fleet.Fit, lib *gear.Library, models map[string]string) {
	board, hasBoard := gear.Find[*gear.Board](lib, f.Board)
	for _, c := range cables(path, f, lib, models) {
		c.checkPins(ps, lib)
		if hasBoard || c.intoPlug() {
			c.checkTerminals(ps, board)
		}
	}
}

// intoPlug says whether an end of a cable is to go into a plug of the board.
func (c *cableOf) intoPlug() bool {
	return c.HarnessTo != "" || c.BranchTo != "" ||
		slices.ContainsFunc(c.Beside, func(b fleet.Beside) bool { return b.HarnessTo != "" || b.BranchTo != "" })
}

func (c *cableOf) checkPins(ps *Problems, lib *gear.Library) {
	c.checkBranches(ps, lib)
	if c.part == nil {
		return
	}
	for i, w := range c.Wires {
		if c.plug != nil && w.Pin > len(c.plug.Pins) {
			ps.add(c.path+"."+indexed("wires", i)+".pin", "%s has %d pins, there is no pin %d", c.part.Head().Label(),
				len(c.plug.Pins), w.Pin)
		}
	}
	harness, ok := gear.Find[*gear.Harness](lib, c.Harness)
	for i, m := range c.Moved {
		at := func(w gear.HarnessWire) bool {
			return m.End == fleet.UnitEnd && w.From == m.From || m.End == fleet.BoardEnd && w.To == m.From
		}
		if ok && !slices.ContainsFunc(harness.Wires, at) {
			ps.add(c.path+"."+indexed("moved", i)+".from", "%s has no crimp in slot %d at the %s's end", harness.Label(),
				m.From, m.End)
		}
	}
}

// checkBranches finds plugs for branches that a cable does not have.
func (c *cableOf) checkBranches(ps *Problems, lib *gear.Library) {
	check := func(path, harness, branchTo string) {
		h, ok := gear.Find[*gear.Harness](lib, harness)
		if branchTo != "" && ok && h.Branch == nil {
			ps.add(path+".branchTo", "%s does not branch", h.Label())
		}
	}
	check(c.path, c.Harness, c.BranchTo)
	for i, b := range c.Beside {
		check(c.path+"."+indexed("beside", i), b.Harness, b.BranchTo)
	}
}

// checkTerminals finds ends of a cable that the board does not have; nil is no board.
func (c *cableOf) checkTerminals(ps *Problems, board *gear.Board) {
	plugs := []struct{ path, id string }{{".harnessTo", c.HarnessTo}, {".branchTo", c.BranchTo}}
	for i, b := range c.Beside {
		at := "." + indexed("beside", i)
		plugs = append(plugs, struct{ path, id string }{at + ".harnessTo", b.HarnessTo},
			struct{ path, id string }{at + ".branchTo", b.BranchTo})
	}
	for _, plug := range plugs {
		switch {
		case plug.id == "":
		case board == nil:
			ps.add(c.path+plug.path, "%q is a plug, but this fit has no flight board", plug.id)
		default:
			if _, ok := board.Plug(plug.id); !ok {
				ps.add(c.path+plug.path, "expected a plug of %s, %q is none", board.Label(), plug.id)
			}
		}
	}
	if board == nil {
		return
	}
	for i, w := range c.Wires {
		if !board.Terminal(w.To) {
			ps.add(c.path+"."+indexed("wires", i)+".to",
				"expected ground, tx or rx with the number of a UART whose pad is broken out, or a pad of %s, %q is none",
				board.Label(), w.To)
		}
	}
}

// checkConnectors finds plugs and harnesses with slots that their connectors do not
// have, and channels outside the bands of a unit.
func checkConnectors(s *gear.Set, lib *gear.Library) (ps Problems) {
	find := func(id string) *gear.Connector {
		c, _ := gear.Find[*gear.Connector](lib, id)
		return c
	}
	for i := range s.AirUnits {
		if r := s.AirUnits[i].Radio; r != nil {
			plan, ok := gear.Find[*gear.BandPlan](lib, r.BandPlan)
			for k := 0; ok && len(r.Bands) > 0 && k < len(plan.Channels); k++ {
				outside(&ps, indexed("airUnits", i)+".radio.bandPlan", &plan.Channels[k].MHz, r.Bands...)
			}
		}
		if p := s.AirUnits[i].Plug; p != nil {
			pinCount(&ps, indexed("airUnits", i)+".plug", p, find(p.Connector))
		}
	}
	for i := range s.Boards {
		for k := range s.Boards[i].Plugs {
			p := &s.Boards[i].Plugs[k]
			pinCount(&ps, indexed("boards", i)+"."+indexed("plugs", k), p, find(p.Connector))
		}
	}
	for i := range s.Harnesses {
		h := &s.Harnesses[i]
		at := indexed("harnesses", i)
		from, to := find(h.From), find(h.To)
		for k, w := range h.Wires {
			if from != nil && from.Pins != nil && w.From > *from.Pins {
				ps.add(at+"."+indexed("wires", k)+".from", "%s has %d slots", from.Label(), *from.Pins)
			}
			if to != nil && to.Pins != nil && w.To > *to.Pins {
				ps.add(at+"."+indexed("wires", k)+".to", "%s has %d slots", to.Label(), *to.Pins)
			}
		}
	}
	return ps
}

func pinCount(ps *Problems, path string, p *gear.Plug, c *gear.Connector) {
	if c != nil && c.Pins != nil && len(p.Pins) != *c.Pins {
		ps.add(path+".pins", "%s has %d pins, this lists %d; leave an unused one empty", c.Label(), *c.Pins, len(p.Pins))
	}
}
