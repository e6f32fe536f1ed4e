package power

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

// draw is the current into a part at its lowest voltage: at worst, and at least.
type draw struct {
	most, least unit.Amps
	missing     []verdict.Missing // what keeps it from being known, or from being pinned down
	known       bool
	starved     bool // a low pack gives it nothing: its window, or the rail, says so
}

func (s supply) drawOf(part consumer, consumers []consumer) draw {
	watts, missing := s.peakPower(part.node, consumers, maxDepth)
	sees := s.sees(part.node)
	d := draw{missing: append(missing, sees.noLowest...)}
	if len(missing) > 0 || sees.Lowest == nil {
		return d
	}
	if d.starved = *sees.Lowest <= 0; d.starved {
		return d
	}
	d.known, d.most, d.least = true, watts.Current(*sees.Lowest), watts.Current(*sees.bottom())
	return d
}

// checkConductors holds the current of each part against the wires and the contacts
// it runs through. A lead nobody has stated yet is cut from wire that carries it.
func (s supply) checkConductors(consumers []consumer) (findings []verdict.Finding) {
	for _, part := range consumers {
		if lead := s.leadOf(part.node); lead != nil && lead.AWG != nil && !part.regulator {
			findings = append(findings,
				s.checkCarrier(part, consumers, CodeWire, "the lead", lead.AWG.String(), new(lead.AWG.Carries()), wire.Thinnest,
					nil)...)
		}
	}
	for _, run := range netlist.Others(s.Case) {
		findings = append(findings, s.checkPartContacts(run, consumers)...)
	}
	at := slices.IndexFunc(consumers, func(p consumer) bool { return p.node == fleet.NodeAirUnit })
	if at < 0 {
		return findings
	}
	return append(findings, s.checkPlugs(consumers[at], consumers)...)
}

// checkPartContacts holds the current of a part beside the air unit against the contacts
// its cable runs through. Its wire is the lead of its feed.
func (s supply) checkPartContacts(run *netlist.Run, consumers []consumer) (findings []verdict.Finding) {
	at := slices.IndexFunc(consumers, func(p consumer) bool { return p.node == run.Node })
	supply := run.LiveOf(gear.PinSupply)
	if at < 0 || supply == nil || supply.Slot == 0 {
		return nil
	}
	lead := s.leadOf(run.Node)
	for _, p := range []plugAt{s.unitPlug(run), s.boardPlug(run, supply.Through)} {
		if lead != nil {
			p.on = lead.AWG
		}
		findings = append(findings, s.checkContact(consumers[at], consumers, p)...)
	}
	return findings
}

// leastContact is the current that any contact of the plugs in use carries (from
// memory): below it nobody need say what a plug is rated for.
const leastContact unit.Amps = 0.5

// checkPlugs follows the supply of the air unit through its plug, the cable and the
// plug of the board.
func (s supply) checkPlugs(part consumer, consumers []consumer) (findings []verdict.Finding) {
	unitModel, _, _ := s.AirUnit()
	if unitModel.Plug == nil {
		if s.Fit.Harness == "" && len(s.Fit.Wires) == 0 {
			return nil // nothing is said of its wiring at all: the pins gate asks
		}
		missing := []verdict.Missing{verdict.GearValue(&unitModel.Entry, "plug", "pins")}
		return s.checkCarrier(part, consumers, CodeContact, "", "", nil, leastContact, missing)
	}
	run, _ := netlist.AirUnit(s.Case)
	plugs := []plugAt{s.unitPlug(run)}
	harness, cabled := s.Harness()
	pin := slices.Index(run.Plug.Pins, gear.PinSupply) + 1
	var gauges []*wire.Gauge // of the wires on it
	follow := func(h *gear.Harness, wires []gear.HarnessWire, into *gear.Plug) {
		for _, w := range wires {
			if w.From != pin || pin == 0 {
				continue
			}
			findings = append(findings, s.checkWire(part, consumers, h, w)...)
			gauges = append(gauges, w.AWG)
			if w.To > 0 && into != nil {
				p := s.boardPlug(run, into)
				p.on = w.AWG
				plugs = append(plugs, p)
			}
		}
	}
	if cabled {
		follow(harness, s.Fit.Wired(harness), run.Into)
	}
	for i := range run.Strands {
		follow(run.Strands[i].Harness, run.Strands[i].Wires, run.Strands[i].Into)
	}
	if cabled {
		findings = append(findings, s.checkCable(part, consumers, unitModel, harness, "wires", harness.Wires)...)
	}
	for i := range run.Strands {
		strand, field := &run.Strands[i], "wires"
		if strand.Branch {
			field = "branch.wires"
		}
		findings = append(findings, s.checkCable(part, consumers, unitModel, strand.Harness, field, strand.Wires)...)
	}
	plugs[0].on = thinnest(gauges)
	for _, p := range plugs {
		findings = append(findings, s.checkContact(part, consumers, p)...)
	}
	return findings
}

// thinnest is the thinnest of some wires; nil where one is not stated, or there is none.
func thinnest(gauges []*wire.Gauge) (most *wire.Gauge) {
	for _, g := range gauges {
		if g == nil {
			return nil
		}
		if most == nil || *g > *most {
			most = g
		}
	}
	return most
}

// checkCable asks which wire of a cable the supply goes through, where that is not
// stated.
func (s supply) checkCable(
	part consumer, consumers []consumer, u *gear.AirUnit, h *gear.Harness, field string, wires []gear.HarnessWire,
) []verdict.Finding {
	var missing []verdict.Missing
	if len(u.Plug.Pins) == 0 {
		missing = append(missing, verdict.GearValue(&u.Entry, "plug.pins", "pins of its plug"))
	}
	if len(wires) == 0 {
		missing = append(missing, verdict.GearValue(&h.Entry, field, "its wires"))
	}
	if len(missing) == 0 {
		return nil
	}
	return s.checkCarrier(part, consumers, CodeWire, "", "", nil, wire.Thinnest, missing)
}

// unitPlug is the plug of a part; where a header makes it one, the header says its kind.
func (s supply) unitPlug(run *netlist.Run) plugAt {
	p := plugAt{plug: run.Plug, owner: run.Entry, field: "plug.connector", label: "the plug of " + run.Label()}
	return s.overHeader(p, run.Row, run.Header)
}

// boardPlug is a plug of the board that a cable goes into.
func (s supply) boardPlug(run *netlist.Run, into *gear.Plug) plugAt {
	p := plugAt{plug: into, owner: &s.board.Entry, field: "plugs." + into.ID + ".connector",
		label: "the " + into.Label() + " of " + s.board.Label()}
	if into != run.Into {
		return p
	}
	return s.overHeader(p, run.IntoRow, run.BoardHeader)
}

func (s supply) overHeader(p plugAt, row *gear.Plug, on *fleet.Header) plugAt {
	if row == nil || on == nil {
		return p
	}
	if h, ok := gear.Find[*gear.Header](s.Library, on.Model); ok {
		p.owner, p.field, p.label = &h.Entry, "connector", h.Label()
	}
	return p
}

// plugAt is a plug with where its connector is stated.
type plugAt struct {
	plug  *gear.Plug
	owner *gear.Entry
	field string
	label string
	on    *wire.Gauge // the thinnest wire of the supply in it; nil: not stated
}

func (s supply) checkContact(part consumer, consumers []consumer, p plugAt) []verdict.Finding {
	if p.plug.Pads() {
		return nil
	}
	connector, ok := gear.Find[*gear.Connector](s.Library, p.plug.Connector)
	if !ok {
		return s.checkCarrier(part, consumers, CodeContact, p.label, "", nil, leastContact,
			[]verdict.Missing{verdict.GearValue(p.owner, p.field, "connector")})
	}
	missing := []verdict.Missing{verdict.GearValue(&connector.Entry, "maxA", "current a contact carries")}
	return s.checkCarrier(part, consumers, CodeContact, "a contact of "+p.label, connector.Label(),
		connector.Carries(p.on), leastContact, missing)
}

func (s supply) checkWire(part consumer, consumers []consumer, h *gear.Harness, w gear.HarnessWire) []verdict.Finding {
	missing := []verdict.Missing{verdict.GearValue(&h.Entry, fmt.Sprintf("wires.%d.awg", w.From),
		"gauge of the supply wire")}
	if w.AWG == nil {
		return s.checkCarrier(part, consumers, CodeWire, "the supply wire of "+h.Label(), "", nil, wire.Thinnest, missing)
	}
	return s.checkCarrier(part, consumers, CodeWire, "the supply wire of "+h.Label(), w.AWG.String(), new(w.AWG.Carries()),
		wire.Thinnest, nil)
}

// checkCarrier holds the current of a part against what something on its way carries;
// nil: not stated, and at least enough for a small current.
func (s supply) checkCarrier(
	part consumer,
	consumers []consumer,
	code verdict.Code,
	what, kind string,
	most *unit.Amps,
	least unit.Amps,
	missing []verdict.Missing,
) []verdict.Finding {
	d := s.drawOf(part, consumers)
	limit := least
	if most != nil {
		limit, missing = *most, nil
	}
	switch {
	case d.starved, d.known && !unit.Over(d.most, limit):
		return nil
	case !d.known || most == nil || !unit.Over(d.least, limit):
		return []verdict.Finding{verdict.CannotTell(verdict.Power, code, part.label, appendNew(missing, d.missing)...)}
	}
	there, needed := unit.Pair(d.least, limit)
	if kind != "" {
		kind = " (" + kind + ")"
	}
	return []verdict.Finding{{Code: code, Level: verdict.Unfit, Subject: part.label, Source: verdict.Practice,
		Compares: []verdict.Compare{{
			What:   "current of the supply",
			Needed: needed + " at most",
			There:  there,
			Margin: signed(float64(unit.Less(limit, d.least)), 2) + " A",
		}},
		Says: fmt.Sprintf("%s draws %s at its lowest voltage; %s%s carries %s: it gets hot and fails.", part.label, there,
			what, kind, needed)}}
}

// checkCapacitor holds the rating of the electrolytic against a full pack.
func (s supply) checkCapacitor() []verdict.Finding {
	f := s.Fit
	pack, ok := gear.Find[*gear.Pack](s.Library, f.Pack)
	if f.CapacitorUF == nil && f.CapacitorV == nil || !ok {
		return nil
	}
	full := packEnvelope(pack, s.Quad).Full
	switch {
	case full == nil:
		return nil // said at the parts
	case f.CapacitorV == nil:
		return []verdict.Finding{verdict.CannotTell(verdict.Power, CodeCapacitor, "capacitor",
			verdict.FitValue(s.Case, "capacitorV", "voltage the capacitor of "+s.Quad.Label()+" is rated for"))}
	}
	there, needed := unit.Pair(*f.CapacitorV, *full)
	compares := []verdict.Compare{{
		What:   "rating of the capacitor",
		Needed: needed + " at least",
		There:  there,
		Margin: margin(unit.Less(*f.CapacitorV, *full)),
	}}
	switch {
	case unit.Over(*full, *f.CapacitorV):
		return []verdict.Finding{{
			Code:     CodeCapacitor,
			Level:    verdict.Unfit,
			Subject:  "capacitor",
			Source:   verdict.Practice,
			Compares: compares,
			Says: fmt.Sprintf("The capacitor across the battery leads is rated for %s, a full pack has %s: it bursts.",
				there, needed),
		}}
	case unit.Over(*full*capacitorRoom, *f.CapacitorV):
		return []verdict.Finding{{
			Code:     CodeCapacitor,
			Level:    verdict.Caution,
			Danger:   verdict.Inconvenient,
			Subject:  "capacitor",
			Source:   verdict.Practice,
			Compares: compares,
			Says: fmt.Sprintf("The capacitor is rated for %s, a full pack has %s: little room, it ages early.", there,
				needed),
		}}
	}
	return nil
}

// capacitorRoom is by how much the rating of an electrolytic should lie above a full
// pack (common practice is a 35 V one on six cells; the factor is from memory).
const capacitorRoom = 1.25

// ratings are the voltages electrolytics are sold for.
var ratings = []unit.Volts{10, 16, 25, 35, 50, 63}

// ratingFor is the lowest rating that suits a full pack.
func ratingFor(full unit.Volts) unit.Volts {
	for _, r := range ratings {
		if !unit.Over(full*capacitorRoom, r) {
			return r
		}
	}
	return ratings[len(ratings)-1]
}
