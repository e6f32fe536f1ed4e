package swap

import (
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/control"
	"yokeswap/core/gates/link"
	"yokeswap/core/gates/pins"
	"yokeswap/core/measure/unit"
)

// DepthOption is one way to wire the air unit and bring the sticks, with what it takes
// and what it gives, to be held against the others.
type DepthOption struct {
	Label  string         `json:"label"`
	Sticks string         `json:"sticks"` // what they come through
	Chosen bool           `json:"chosen"`
	Level  verdict.Level  `json:"level"`
	Danger verdict.Danger `json:"danger,omitempty"`
	Adds   string         `json:"adds"`            // the worst it brings that the plan does not have; empty: nothing
	UARTs  []int          `json:"uarts"`           // ports of the board that it takes
	Wires  int            `json:"wires"`           // joined between unit, receiver and board
	AddsG  *unit.Grams    `json:"addsG,omitempty"` // the receiver's; absent: not stated
	LagMS  *float64       `json:"lagMS,omitempty"` // of the sticks; absent: not stated
	// RangeKM is how far the sticks are stated to reach: the receiver, or the picture they
	// come with; absent: not stated.
	RangeKM  *unit.Kilometres `json:"rangeKM,omitempty"`
	Costs    string           `json:"costs"`           // beyond what the quad carries today
	Price    *float64         `json:"price,omitempty"` // of what is to be bought; absent: none, or in no one currency
	Currency string           `json:"currency,omitempty"`
	Gives    []string         `json:"gives"`
	Without  []string         `json:"without"`
	Patch    fleet.Patch      `json:"patch"`
}

// depths in words, with what each gives and goes without (common practice). What the
// fault finder sees follows from what is wired.
var depths = []struct {
	depth          fleet.Depth
	label          string
	gives, without []string
}{
	{fleet.PictureOnly, "picture alone",
		[]string{"a picture, the unit's own readings"},
		[]string{"flight data in the goggles", "tuning from the goggles", "what the fault finder asks of the data line"}},
	{fleet.PictureAndData, "picture and data",
		[]string{"flight data in the goggles", "tuning from the goggles", "a data line the fault finder can ask after"},
		nil},
	{fleet.WithSticks, "picture, data and sticks",
		[]string{"flight data in the goggles", "tuning from the goggles", "no receiver to carry, wire and bind"},
		[]string{"the own controller, where it is of another kind", "control where the video link is lost"}},
}

// Depths holds the ways to wire the air unit of a fit against each other: picture alone
// and picture and data with each receiver at hand, and the sticks through the unit with
// each controller at hand. Each is judged with the whole fit. It is empty without an air
// unit or a flight board.
func Depths(c fleet.Case) []DepthOption {
	list := []DepthOption{}
	said := map[string]bool{}
	j := Judge(c)
	for i := range j.Gates {
		for _, f := range j.Gates[i].Findings {
			said[f.Says] = true
		}
	}
	_, _, hasUnit := c.AirUnit()
	if _, hasBoard := c.Board(); !hasUnit || !hasBoard {
		return list
	}
	for _, d := range depths {
		for _, by := range sticksAtHand(c, d.depth) {
			wiring, ok := pins.AtDepth(c.With(by.patch), d.depth)
			if !ok {
				continue
			}
			by.patch.Wiring = &wiring
			o := newDepthOption(c, change.SettlePick(c, by.patch), said)
			o.Chosen = asPlanned(c, by.patch, d.depth)
			o.Label, o.Sticks, o.Gives, o.Without = d.label, by.label, d.gives, d.without
			if o.Without == nil {
				o.Without = []string{}
			}
			list = append(list, o)
		}
	}
	return list
}

// handed is something the sticks can come through, and the patch that has them so.
type handed struct {
	label string
	patch fleet.Patch
}

// sticksAtHand are the receivers, or the controllers, that a depth can be flown with: what
// the plan has, what the quad has today, and what is owned; to buy only where there is
// none.
func sticksAtHand(c fleet.Case, depth fleet.Depth) (list []handed) {
	if depth == fleet.WithSticks {
		for i := range c.Fleet.Kit {
			kit := &c.Fleet.Kit[i]
			planned := c.Fit.Controller != nil && c.Fit.Controller.Kit == kit.ID
			if _, ok := gear.Find[*gear.Controller](c.Library, kit.Model); !ok || !planned && len(list) >= mostWays {
				continue
			}
			slot := &fleet.Slot{Kit: kit.ID}
			if planned {
				slot = c.Fit.Controller
			}
			list = append(list, handed{kit.Label(), fleet.Patch{Controller: slot, Receiver: new("")}})
		}
		return list
	}
	var buy []handed
	for _, r := range c.Receivers() {
		h := handed{r.Label(), c.Receive(r.ID)}
		builtIn := c.With(h.patch).BuiltIn()
		if _, fed := c.Fit.FeedOf(fleet.NodeReceiver); !fed && !builtIn {
			h.patch.Feed = feedWithin(c, &r.Input)
		}
		switch {
		case builtIn, c.Fit.Receiver == r.ID, c.Quad.Now.Receiver == r.ID, c.Fleet.SpareCount(r.ID, c.Quad.ID) > 0:
			list = append(list, h)
		default:
			buy = append(buy, h)
		}
	}
	if len(list) == 0 {
		list = buy[:min(len(buy), mostWays)]
	}
	return list
}

// mostWays bounds what is held against each other: a person reads no more.
const mostWays = 3

// feedWithin feeds the receiver from the first regulated pad within its window; nil where
// there is none.
func feedWithin(c fleet.Case, in *gear.Input) *fleet.Feed {
	board, ok := c.Board()
	if !ok {
		return nil
	}
	pads := board.PadsWithin(in)
	if len(pads) == 0 {
		return nil
	}
	return &fleet.Feed{To: fleet.NodeReceiver, From: fleet.PadNode(pads[0])}
}

// asPlanned says whether a way is what the plan has: the same depth of wires, and the
// sticks through the same.
func asPlanned(c fleet.Case, patch fleet.Patch, depth fleet.Depth) bool {
	after := c.With(patch)
	if after.Fit.Receiver != c.Fit.Receiver {
		return false
	}
	if depth == fleet.WithSticks {
		was, is := c.Fit.Controller, after.Fit.Controller
		return c.Fit.Receiver == "" && was != nil && is != nil && was.Kit == is.Kit && was.Model == is.Model
	}
	return pins.DepthOf(c) == depth
}

// newDepthOption judges a way; said is what is said of the plan already.
func newDepthOption(c fleet.Case, patch fleet.Patch, said map[string]bool) DepthOption {
	after := c.With(patch)
	j := Judge(after)
	bill := change.Bill(c, patch)
	o := DepthOption{
		Level: verdict.Fits,
		Costs: bill.Words(),
		UARTs: []int{},
		LagMS: control.Draw(after).NextMS,
		Patch: patch,
	}
	if bill.Get == change.Buy && bill.Currency != "" {
		o.Price, o.Currency = &bill.Price, bill.Currency
	}
	added := verdict.Fits
	// What the sticks and the wires touch; the rest is the same for every way.
	for _, gate := range []verdict.Gate{verdict.Link, verdict.Power, verdict.Pins, verdict.OSD, verdict.Control} {
		for _, f := range j.Gate(gate).Findings {
			if f.Level.WorseThan(o.Level) {
				o.Level, o.Danger = f.Level, f.Danger
			}
			if f.Level.WorseThan(added) && !said[f.Says] {
				added, o.Adds = f.Level, f.Says
			}
		}
	}
	for _, p := range pins.Uses(after) {
		if p.Use == fleet.UseMSP || p.Use == fleet.UseRC || p.Use == fleet.UseReceiver {
			o.UARTs = append(o.UARTs, p.UART)
		}
	}
	slices.Sort(o.UARTs)
	for _, line := range pins.Draw(after).Wires {
		if line.Pin >= 0 && line.Terminal != "" {
			o.Wires++
		}
	}
	o.RangeKM = sticksReach(after)
	if r, ok := after.PlacedReceiver(); ok {
		o.AddsG = r.MassG
		o.Wires += receiverWires(r)
	} else {
		o.AddsG = new(unit.Grams(0))
	}
	return o
}

// sticksReach is how far the sticks are stated to reach: as the receiver's sheet has it, or
// no further than the picture where they come through the air unit; nil: not stated.
func sticksReach(c fleet.Case) *unit.Kilometres {
	if r, ok := c.Receiver(); ok {
		return r.RangeKM
	}
	if p, ok := link.Holding(c); ok && p.Limits != nil {
		return p.Limits.RangeKM
	}
	return nil
}

// receiverWires is how many wires a receiver has to the board: supply, ground and its
// line, both ways where it needs them (common practice).
func receiverWires(r *gear.Receiver) int {
	if r.FullDuplex != nil && !*r.FullDuplex {
		return 3
	}
	return 4
}
