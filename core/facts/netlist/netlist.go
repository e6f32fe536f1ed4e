// Package netlist follows the wires of a fit: which pin of which part ends on which
// place of the flight board, and what is joined to what.
//
// Method: each wired part has a run, its pins and wires, in cables and soldered, moved
// crimps where they are now. From the runs follow the nets, as connected components of
// pins and wires: whatever is joined, directly or through the board. Power, pins,
// continuity, the soldering list and the pictures read the same runs.
//
// Source: common practice; nets are what circuit editors call by that name.
package netlist

import (
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

// Conn is one wire with both its ends.
type Conn struct {
	Pin      int               // of the part, from 1; 0: that end is in no slot
	Function string            // of that pin
	Slot     int               // of the board's plug; 0: soldered, or in no slot
	Through  *gear.Plug        // the board's plug that Slot is of
	Cable    *gear.Harness     // that the wire is of; nil: a single wire
	Terminal string            // where it ends on the board; empty: nowhere
	Colour   string            // as people say it
	AWG      *wire.Gauge       // nil: not stated
	LengthMM *unit.Millimetres // nil: not stated
}

// Live says whether the wire makes a connection at both ends.
func (c *Conn) Live() bool { return c.Function != "" && c.Terminal != "" }

// Run is a wired part with its wires to the flight board.
type Run struct {
	Node  string      // "airUnit", "receiver", or the id of a placed part
	Sort  string      // what it is, as in "GPS"; empty: its label says enough
	Entry *gear.Entry // its sheet
	Plug  *gear.Plug  // its pins, those of a header where one is on them; nil: not stated
	Row   *gear.Plug  // the row of pads that a header is on; nil: there is none
	Input *gear.Input // the supply it wants
	// Outline is where its pads lie; nil: nobody has placed them.
	Outline *gear.Outline
	// Inverted: its serial signal is; nil: not stated.
	Inverted *bool
	fleet.Cable
	Field   string        // where the fit states its wires
	Harness *gear.Harness // of the cable; nil: none
	Into    *gear.Plug    // of the board, where the harness goes into one, or a header on it
	IntoRow *gear.Plug    // the board's row of pads that a header is on; nil: there is none
	Strands []Strand      // what its cables are beside the first's own end
	Conns   []Conn
}

// Strand is a branch of the first cable, a further cable, or a branch of that.
type Strand struct {
	Harness *gear.Harness
	Branch  bool   // its second end
	To      string // connector at the board's end; empty: bare
	Wires   []gear.HarnessWire
	Into    *gear.Plug // nil: it is soldered, or the board has no such plug
}

// PluggedIn is an end of a cable that goes into a plug of the board.
type PluggedIn struct {
	Cable     *gear.Harness
	Connector string // at that end
	Plug      *gear.Plug
}

// PluggedIn are the ends of a part's cables that go into plugs of the board.
func (r *Run) PluggedIn() (list []PluggedIn) {
	if r.Into != nil && r.Harness != nil {
		list = append(list, PluggedIn{r.Harness, r.Harness.To, r.Into})
	}
	for i := range r.Strands {
		if s := &r.Strands[i]; s.Into != nil {
			list = append(list, PluggedIn{s.Harness, s.To, s.Into})
		}
	}
	return list
}

// Label is the part's name.
func (r *Run) Label() string { return r.Entry.Label() }

// Said says whether anything is said of where its wires go: one is listed, or a cable
// goes into a plug.
func (r *Run) Said() bool {
	return r.Into != nil || len(r.Wires) > 0 ||
		slices.ContainsFunc(r.Strands, func(s Strand) bool { return s.Into != nil })
}

// Of finds the wire on a pin with a function, one that joins both ends first; nil where
// there is none.
func (r *Run) Of(function string) (found *Conn) {
	for i := range r.Conns {
		if c := &r.Conns[i]; c.Function == function && (found == nil || !found.Live() && c.Live()) {
			found = c
		}
	}
	return found
}

// LiveOf is the wire on a function that joins both ends; nil where there is none.
func (r *Run) LiveOf(function string) *Conn {
	if c := r.Of(function); c != nil && c.Live() {
		return c
	}
	return nil
}

// Has says whether the part has a pin of that function.
func (r *Run) Has(function string) bool {
	return r.Plug != nil && slices.Contains(r.Plug.Pins, function)
}

// Missing names the wires of the run, where they are not stated.
func (r *Run) Missing(c fleet.Case) verdict.Missing {
	return verdict.FitValue(c, r.Field, "how "+r.Label()+" is wired to "+c.Library.Label(c.Fit.Board))
}

// AirUnit is the run of the air unit; false where the fit has none.
func AirUnit(c fleet.Case) (*Run, bool) {
	u, _, ok := c.AirUnit()
	if !ok {
		return nil, false
	}
	return newRun(c, Run{
		Node:    fleet.NodeAirUnit,
		Entry:   &u.Entry,
		Plug:    u.Plug,
		Input:   &u.Input,
		Outline: u.Outline,
		Cable:   c.Fit.Cable(),
		Field:   "wires",
	}), true
}

// Receiver is the run of the separate receiver; false where its wires are not stated, or it is built
// into the board.
func Receiver(c fleet.Case) (*Run, bool) {
	r, ok := c.PlacedReceiver()
	if !ok || c.Fit.ReceiverCable == nil {
		return nil, false
	}
	return newRun(c, Run{
		Node:     fleet.NodeReceiver,
		Sort:     "receiver",
		Entry:    &r.Entry,
		Plug:     r.Plug,
		Input:    &r.Input,
		Outline:  r.Outline,
		Inverted: r.Inverted,
		Cable:    *c.Fit.ReceiverCable,
		Field:    "receiverCable.wires",
	}), true
}

// Others are the runs of everything wired beside the air unit: the separate receiver and the placed
// parts. One whose model nobody has described is left out.
func Others(c fleet.Case) (runs []*Run) {
	if r, wired := Receiver(c); wired {
		runs = append(runs, r)
	}
	for i := range c.Fit.Parts {
		placed := &c.Fit.Parts[i]
		if p, ok := gear.Find[*gear.Part](c.Library, placed.Model); ok {
			runs = append(runs, newRun(c, Run{
				Node:     placed.ID,
				Sort:     string(p.Sort),
				Entry:    &p.Entry,
				Plug:     p.Plug,
				Input:    &p.Input,
				Outline:  p.Outline,
				Inverted: p.Inverted,
				Cable:    placed.Cable,
				Field:    "parts." + placed.ID + ".wires",
			}))
		}
	}
	return runs
}

// All are the runs of a fit, the air unit's first.
func All(c fleet.Case) []*Run {
	runs := Others(c)
	if r, ok := AirUnit(c); ok {
		runs = slices.Insert(runs, 0, r)
	}
	return runs
}

// WithFeeds is the case with the feeds that the wires of its parts imply: a part whose
// feed nobody states is fed from the power pad its supply wire ends on. Where gauge or
// length of that wire is stated, it is the lead of the feed.
func WithFeeds(c fleet.Case) fleet.Case {
	if len(c.Fit.Parts) == 0 && c.Fit.ReceiverCable == nil {
		return c
	}
	board, ok := c.Board()
	if !ok {
		return c
	}
	feeds, changed := slices.Clone(c.Fit.Feeds), false
	for _, r := range Others(c) {
		fed, ok := r.Feed(board)
		if !ok {
			continue
		}
		at := slices.IndexFunc(feeds, func(f fleet.Feed) bool { return f.To == r.Node })
		switch {
		case at < 0:
			feeds, changed = append(feeds, fed), true
		case feeds[at].From == fed.From && feeds[at].Lead == nil:
			feeds[at].Lead, changed = fed.Lead, true
		}
	}
	if changed {
		fit := *c.Fit
		fit.Feeds = feeds
		c.Fit = &fit
	}
	return c
}

// Feed is what the supply wire of a part says of its feed: it comes from the power pad of
// the board that the wire ends on. False where it ends on none.
func (r *Run) Feed(board *gear.Board) (fleet.Feed, bool) {
	supply := r.LiveOf(gear.PinSupply)
	if supply == nil {
		return fleet.Feed{}, false
	}
	_, power := board.Pad(supply.Terminal)
	return fleet.Feed{To: r.Node, From: fleet.PadNode(supply.Terminal), Lead: supply.lead()}, power
}

// lead is the wire as the lead of a feed; nil where nothing is stated of it.
func (c *Conn) lead() *fleet.Lead {
	if c.AWG == nil && c.LengthMM == nil {
		return nil
	}
	return &fleet.Lead{MM: c.LengthMM, AWG: c.AWG}
}

// newRun connects the wires of a run.
func newRun(c fleet.Case, r Run) *Run {
	r.Harness, _ = gear.Find[*gear.Harness](c.Library, r.Cable.Harness)
	if board, ok := c.Board(); ok && r.HarnessTo != "" {
		r.Into, _ = board.Plug(r.HarnessTo)
	}
	r.Plug, r.Row = headed(c, r.Plug, r.Headers.Header)
	r.Into, r.IntoRow = headed(c, r.Into, r.BoardHeader)
	r.Strands = strands(c, r.Cable, r.Harness)
	if r.Plug != nil {
		r.connect(c)
	}
	return &r
}

// headed is the plug that a header makes of a row of pads, and that row. Where there is no
// header, or no pads to solder it to, the plug is as it is.
func headed(c fleet.Case, plug *gear.Plug, on *fleet.Header) (as, row *gear.Plug) {
	if plug == nil || on == nil || !plug.Pads() {
		return plug, nil
	}
	h, ok := gear.Find[*gear.Header](c.Library, on.Model)
	if !ok {
		return plug, nil
	}
	return h.On(plug, on.Turned), plug
}

// strands are what the cables of a part are beside the first's own end.
func strands(c fleet.Case, cable fleet.Cable, first *gear.Harness) (list []Strand) {
	if (first == nil || first.Branch == nil) && len(cable.Beside) == 0 {
		return nil
	}
	board, hasBoard := c.Board()
	add := func(h *gear.Harness, branch bool, to string, wires []gear.HarnessWire, into string) {
		s := Strand{Harness: h, Branch: branch, To: to, Wires: wires}
		if hasBoard && into != "" {
			s.Into, _ = board.Plug(into)
		}
		list = append(list, s)
	}
	if first != nil && first.Branch != nil {
		add(first, true, first.Branch.To, first.Branch.Wires, cable.BranchTo)
	}
	for _, b := range cable.Beside {
		h, ok := gear.Find[*gear.Harness](c.Library, b.Harness)
		if !ok {
			continue
		}
		add(h, false, h.To, h.Wires, b.HarnessTo)
		if h.Branch != nil {
			add(h, true, h.Branch.To, h.Branch.Wires, b.BranchTo)
		}
	}
	return list
}

// connect follows each wire of the cables from slot to slot, moved crimps where they are
// now, and the soldered wires from pin to pad, also those beside a cable.
func (r *Run) connect(c fleet.Case) {
	if r.Into == nil {
		r.Conns = r.implied(c.Fit)
	}
	most := len(r.Wires)
	if r.Harness != nil {
		most += len(r.Harness.Wires)
	}
	r.Conns = slices.Grow(r.Conns, most)
	used := map[int]bool{}
	if r.Harness != nil {
		r.lay(r.Harness, r.Wired(r.Harness), r.Into, used)
	}
	for i := range r.Strands {
		s := &r.Strands[i]
		r.lay(s.Harness, s.Wires, s.Into, used)
	}
	for _, w := range r.Wires {
		if !used[w.Pin] {
			r.Conns = append(r.Conns, r.soldered(w))
		}
	}
}

// soldered is a single wire.
func (r *Run) soldered(w fleet.Wire) Conn {
	return Conn{
		Pin:      w.Pin,
		Function: r.Plug.Pin(w.Pin),
		Terminal: w.To,
		Colour:   w.Colour,
		AWG:      w.AWG,
		LengthMM: w.MM,
	}
}

// lay follows the wires of one end of a cable: into a plug of the board, or to where the
// wires of the part say that they are soldered; what those are for is used then.
func (r *Run) lay(h *gear.Harness, wires []gear.HarnessWire, into *gear.Plug, used map[int]bool) {
	for _, w := range wires {
		wire := Conn{Pin: w.From, Function: r.Plug.Pin(w.From), Colour: w.Colour, AWG: w.AWG, LengthMM: w.LengthMM, Cable: h}
		implied := len(r.Conns) > 0 && r.Conns[0].Pin == w.From && r.Conns[0].Cable == nil
		if implied && into == nil { // the implied supply is this wire
			wire.Terminal = r.Conns[0].Terminal
			r.Conns[0] = wire
			continue
		}
		if into != nil {
			wire.Slot, wire.Through, wire.Terminal = w.To, into, into.Pin(w.To)
		} else if at := slices.IndexFunc(r.Wires, func(s fleet.Wire) bool { return s.Pin == w.From }); at >= 0 {
			wire.Terminal = r.Wires[at].To
			used[w.From] = true
		}
		r.Conns = append(r.Conns, wire)
	}
}

// implied is the supply wire of a soldered part where the plan feeds it from a
// pad of the board and no wire of its own is listed: it goes where the feed says.
func (r *Run) implied(f *fleet.Fit) []Conn {
	pin := slices.Index(r.Plug.Pins, gear.PinSupply) + 1
	listed := slices.ContainsFunc(r.Wires, func(w fleet.Wire) bool { return w.Pin == pin })
	from, fed := f.FeedOf(r.Node)
	pad, onBoard := fleet.PadOf(from)
	listed = listed || slices.ContainsFunc(r.Strands, func(s Strand) bool { // it goes through a plug
		return s.Into != nil && slices.ContainsFunc(s.Wires, func(w gear.HarnessWire) bool { return w.From == pin })
	})
	if pin == 0 || listed || !fed || !onBoard || len(r.Wires) == 0 {
		return nil
	}
	c := Conn{Pin: pin, Function: gear.PinSupply, Terminal: pad}
	for i := range f.Feeds {
		if lead := f.Feeds[i].Lead; lead != nil && f.Feeds[i].To == r.Node {
			c.AWG, c.LengthMM = lead.AWG, lead.MM
		}
	}
	return []Conn{c}
}

// Refeed is the patch that lays a part's supply to another source: the soldered wire moves
// to another pad, or comes off where the part hangs on the pack or a regulator. It is
// false where the supply comes through a plug, and where no wires are stated.
func Refeed(c fleet.Case, node, from string, lead *fleet.Lead) (fleet.Patch, bool) {
	for _, r := range Others(c) {
		if r.Node != node || !r.Said() || r.Plug == nil {
			continue
		}
		supply := r.Of(gear.PinSupply)
		pin := slices.Index(r.Plug.Pins, gear.PinSupply) + 1
		if pin == 0 || supply != nil && supply.Slot > 0 {
			return fleet.Patch{}, false
		}
		cable := r.Cable
		cable.Wires = slices.DeleteFunc(slices.Clone(cable.Wires), func(w fleet.Wire) bool { return w.Pin == pin })
		pad, onBoard := fleet.PadOf(from)
		if onBoard {
			moved := fleet.Wire{Pin: pin, To: pad}
			if supply != nil {
				moved.Colour, moved.AWG, moved.MM = supply.Colour, supply.AWG, supply.LengthMM
			}
			cable.Wires = slices.Insert(cable.Wires, 0, moved)
		}
		patch := Recable(c, node, cable)
		if _, stated := c.Fit.FeedOf(node); stated || !onBoard {
			patch.Feed = &fleet.Feed{To: node, From: from, Lead: lead}
		}
		return patch, true
	}
	return fleet.Patch{}, false
}

// Recable is the patch that gives a part beside the air unit another cable.
func Recable(c fleet.Case, node string, cable fleet.Cable) fleet.Patch {
	if placed, ok := c.Fit.Part(node); ok {
		part := *placed
		part.Cable = cable
		return fleet.Patch{Parts: []fleet.PlacedPart{part}}
	}
	return fleet.Patch{ReceiverCable: &cable}
}
