// Package power is the gate that asks whether every part sees a voltage it
// can live with, from a full pack down to the lowest under load, and whether
// the rail it hangs on carries it.
//
// It follows each feed from the part back to the pack, through pads of the
// flight board, solder jumpers and regulators, and compares the envelope that
// arrives with the part's window.
package power

import (
	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// What a converter may be at worst where its sheet does not say. A sheet that
// states worse is refused by the format, so that leaving a value out is never
// better than stating it (the values are from memory).
const (
	WorstTolerance  = 0.10 // share of the output voltage
	WorstEfficiency = 0.50
)

// origin is where a feed ends up once jumpers are followed: the pack, or the
// converter that makes the voltage.
type origin struct {
	node      string // "pack", "board.10v" or a placed regulator's id
	label     string // in words, as in "fed from the 10 V pad"
	rail      string // the converter's own name, whatever leads there
	converter *gear.Converter
	owner     *gear.Entry // whose sheet the converter's values are on
	field     string      // path of the converter within that sheet, with a dot behind
	input     string      // the node whose supply the converter takes
	missing   []verdict.Missing
}

// supply answers what each node of one fit sees.
type supply struct {
	fleet.Case
	board *gear.Board
	plan  *fleet.Fit // as it is stated, without the feeds its wires imply
	seen  *[]seenAt  // what has been computed already
}

type seenAt struct {
	node string
	Envelope
}

func newSupply(c fleet.Case) supply {
	plan := c.Fit
	c = netlist.WithFeeds(c)
	board, _ := c.Board()
	return supply{Case: c, plan: plan, board: board, seen: new(make([]seenAt, 0, 3))}
}

// sees is the voltage at a node.
func (s supply) sees(node string) Envelope {
	if _, isPad := fleet.PadOf(node); isPad {
		node = fleet.NodeBoard // its converter takes what the board is fed with
	}
	if e, known := s.known(node); known {
		return e
	}
	e := s.seesWithin(node, maxDepth)
	*s.seen = append(*s.seen, seenAt{node, e})
	return e
}

// maxDepth bounds the way back to the pack. Files with a loop in what is fed
// from what are refused on reading; this keeps a loop from hanging the gate.
const maxDepth = 16

// seesWithin is what arrives at a node, the drop in its own lead taken off.
func (s supply) seesWithin(node string, depth int) Envelope {
	return s.behindLead(node, s.fedWith(node, depth))
}

// fedWith is the voltage at the beginning of a node's lead.
func (s supply) fedWith(node string, depth int) Envelope {
	from, ok := s.feedOf(node)
	if !ok {
		return unknownEnvelope(s.noFeed(node))
	}
	if depth == 0 {
		return unknownEnvelope(s.noFeed(node))
	}
	o := s.originOf(from)
	switch {
	case len(o.missing) > 0:
		return unknownEnvelope(o.missing...)
	case o.converter != nil:
		return convert(s.seesBefore(o.input, depth), o)
	case o.node == fleet.NodePack && o.input == fleet.NodeBoard:
		return s.seesBefore(fleet.NodeBoard, depth)
	}
	pack, ok := s.Pack()
	if !ok {
		return unknownEnvelope(verdict.FitValue(s.Case, "pack", "pack of "+s.Quad.Label()))
	}
	return envelopeBehind(pack, s.Quad, s.packLead())
}

// feedOf is what a node is fed from. The converter of a pad hangs on the board.
func (s supply) feedOf(node string) (string, bool) {
	if _, isPad := fleet.PadOf(node); isPad {
		node = fleet.NodeBoard
	}
	return s.Fit.FeedOf(node)
}

// onPack says whether the peak of a pack that is plugged in reaches a node: along
// wires, pack pads and step-ups, which pass it through. A step-down or a buck-boost
// keeps it off (common practice).
func (s supply) onPack(node string) bool {
	for range maxDepth {
		from, ok := s.feedOf(node)
		if !ok {
			return false
		}
		o := s.originOf(from)
		switch {
		case len(o.missing) > 0:
			return false // what is missing is said at the part
		case o.node == fleet.NodePack && o.input == "":
			return true
		case o.converter != nil && o.converter.Topology != gear.StepUp:
			return false
		}
		node = o.input
	}
	return false
}

// seesBefore is the voltage one step nearer to the pack.
func (s supply) seesBefore(node string, depth int) Envelope {
	if e, known := s.known(node); known {
		return e
	}
	return s.seesWithin(node, depth-1)
}

func (s supply) known(node string) (Envelope, bool) {
	for i := range *s.seen {
		if (*s.seen)[i].node == node {
			return (*s.seen)[i].Envelope, true
		}
	}
	return Envelope{}, false
}

// originOf follows a feed's source through solder jumpers.
func (s supply) originOf(from string) origin {
	if from == fleet.NodePack {
		return origin{node: fleet.NodePack, label: "the pack, direct"}
	}
	padID, isPad := fleet.PadOf(from)
	if !isPad {
		return s.regulatorOrigin(from)
	}
	if s.board == nil {
		return origin{missing: []verdict.Missing{verdict.FitValue(s.Case, "board", "flight board of "+s.Quad.Label())}}
	}
	through := ""
	for range len(s.board.Pads) + 1 {
		pad, ok := s.board.Pad(padID)
		if !ok {
			break
		}
		label := "the " + pad.Label() + through
		switch pad.Kind {
		case gear.PadPack:
			return origin{node: fleet.NodePack, label: label, input: fleet.NodeBoard}
		case gear.PadRegulated:
			return origin{node: fleet.PadNode(pad.ID), label: label, rail: "the " + pad.Label(), converter: &pad.Converter,
				owner: &s.board.Entry, field: "pads." + pad.ID + ".", input: fleet.NodeBoard}
		}
		choice := pad.Leads(s.Fit.Jumpers)
		if choice == "" && pad.Kind == gear.PadSame {
			return origin{missing: []verdict.Missing{verdict.GearValue(&s.board.Entry, "pads."+pad.ID+".sameAs",
				"which pad's rail "+label+" is")}}
		}
		if choice == "" {
			return origin{missing: []verdict.Missing{verdict.FitValue(s.Case, "jumpers."+pad.ID,
				"how the jumper of "+label+" is soldered")}}
		}
		if choice == fleet.NodePack {
			return origin{node: fleet.NodePack, label: label + ", jumper on pack", input: fleet.NodeBoard}
		}
		if through = " through the jumper of the " + pad.Label(); pad.Kind == gear.PadSame {
			through = ", the rail of the " + pad.Label()
		}
		padID = choice
	}
	return origin{missing: []verdict.Missing{verdict.GearValue(&s.board.Entry, "pads."+padID, "pad "+padID)}}
}

func (s supply) regulatorOrigin(id string) origin {
	placed, ok := s.Fit.Regulator(id)
	if !ok {
		return origin{missing: []verdict.Missing{verdict.FitValue(s.Case, "regulators", "regulator "+id)}}
	}
	model, ok := gear.Find[*gear.Regulator](s.Library, placed.Model)
	if !ok {
		return origin{missing: []verdict.Missing{verdict.FitValue(s.Case, "regulators", "model of regulator "+id)}}
	}
	return origin{
		node:      id,
		label:     "the " + model.Label(),
		rail:      "the " + model.Label(),
		converter: &model.Converter,
		owner:     &model.Entry,
		input:     id,
	}
}

// convert is what a converter makes of the voltage it is given.
//
// A step-down holds its output while the input exceeds it by the dropout, and
// follows the input below that. A step-up passes an input above its output
// straight through. A buck-boost holds its output either way (common
// practice; see any regulator handbook).
func convert(in Envelope, o origin) Envelope {
	c := o.converter
	if c.OutV == nil {
		return unknownEnvelope(verdict.GearValue(o.owner, o.field+"outV", "output voltage"))
	}
	ends := &[4]unit.Volts{*c.OutV, *c.OutV, *c.OutV, *c.OutV}
	high, low, leastHigh, mostLow := &ends[0], &ends[1], &ends[2], &ends[3]
	out := Envelope{Full: high, Nominal: c.OutV, Lowest: low}
	if c.ToleranceV != nil {
		*high, *low = *c.OutV+*c.ToleranceV, *c.OutV-*c.ToleranceV
		*leastHigh, *mostLow = *high, *low
	} else {
		*high, *low = *c.OutV*(1+WorstTolerance), *c.OutV*(1-WorstTolerance)
		missing := verdict.GearValue(o.owner, o.field+"toleranceV", "tolerance of the output voltage")
		out.fullLeast, out.lowestMost = leastHigh, mostLow
		out.noFull, out.noLowest = []verdict.Missing{missing}, []verdict.Missing{missing}
	}
	switch c.Topology {
	case gear.StepDown:
		out.follow(in, o, low, mostLow)
	case gear.StepUp:
		if in.Full == nil {
			out.Full, out.noFull = nil, in.noFull
			break
		}
		if *in.Full > *high {
			out.noFull = appendNew(out.noFull, in.noFull)
		}
		*high, *leastHigh = max(*high, *in.Full), max(*leastHigh, *in.top())
		out.fullLeast = leastHigh
	case gear.BuckBoost:
	default:
		return unknownEnvelope(verdict.GearValue(o.owner, o.field+"topology", "topology (step-down, step-up or buck-boost)"))
	}
	return out
}

// follow lets the output of a step-down follow its input down where that comes too
// close.
func (e *Envelope) follow(in Envelope, o origin, low, mostLow *unit.Volts) {
	dropout := o.converter.DropoutV
	switch {
	case dropout == nil:
		e.Lowest, e.lowestMost = nil, nil
		e.noLowest = []verdict.Missing{
			ofPad(verdict.GearValue(o.owner, o.field+"dropoutV", "dropout"), o.owner, o.rail, o.field),
		}
		return
	case in.Lowest == nil:
		e.Lowest, e.lowestMost, e.noLowest = nil, nil, in.noLowest
		return
	}
	if *in.Lowest-*dropout < *low {
		e.noLowest = appendNew(e.noLowest, in.noLowest)
	}
	*low = max(0, min(*low, *in.Lowest-*dropout))
	*mostLow = max(0, min(*mostLow, *in.bottom()-*dropout))
	e.lowestMost = mostLow
}

func (s supply) noFeed(node string) verdict.Missing {
	return verdict.FitValue(s.Case, "feeds."+node, "what feeds "+s.label(node))
}

// label names a node in words.
func (s supply) label(node string) string { return change.Node(s.Case, node) }
