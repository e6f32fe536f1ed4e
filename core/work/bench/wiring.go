package bench

import (
	"fmt"
	"reflect"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/gates/pins"
)

// meterAnswers are what a meter on continuity says.
var meterAnswers = []string{"open", "connected"}

// rewired says whether the wiring of the air unit is not as it was.
func (w *writer) rewired() bool {
	return w.newUnit || w.otherBoard() || !reflect.DeepEqual(w.Fit.Wiring, w.Quad.Now.Wiring)
}

// wire re-pins the cable and solders what the plan has.
func (w *writer) wire() {
	if !w.hasAir || !w.rewired() {
		return
	}
	harness, _ := w.Harness()
	if steps := pins.PlannedMoves(w.Case); len(steps) > 0 && harness != nil {
		w.add(Step{
			ID:        fmt.Sprintf("repin:%s:%v", harness.ID, w.Fit.Moved),
			Phase:     Feed,
			Title:     "Re-pin the " + harness.Label(),
			Do:        steps,
			Tools:     []string{"fine pick", "loupe"},
			Materials: []string{harness.Label()},
			Cautions:  []string{"Colours lie: go by position and function. Supply on a signal pin destroys the unit."},
		})
	}
	list := pins.Soldering(w.Case)
	list.Wires = slices.DeleteFunc(list.Wires, func(s pins.Solder) bool { return s.Part != fleet.NodeAirUnit })
	w.solder(list)
	w.plugIn()
}

// plugIn puts the cables of the air unit into the flight board. The unit's end stays free
// until the meter has been over it.
func (w *writer) plugIn() {
	ends := pins.ToPlugIn(w.Case)
	for _, end := range ends {
		kind, ok := gear.Find[*gear.Connector](w.Library, end.Connector)
		if !ok {
			continue
		}
		into := "flight board"
		if len(ends) > 1 {
			into = end.Plug.Label()
		}
		w.add(Step{
			ID:    fmt.Sprintf("cable:%s:%s", end.Cable.ID, end.Plug.ID),
			Phase: Feed,
			Title: fmt.Sprintf("Plug the %s into the %s", end.Cable.Label(), into),
			Tools: []string{"loupe"},
			Do:    []string{"Pack unplugged, and the unit's end still free.", plugged(kind)},
		})
	}
}

// plugged says how a plug goes in.
func plugged(kind *gear.Connector) string { return kind.Label() + pinsOf(kind) + ": " + keyOf(kind) }

// pinsOf says how many pins to count, where the name does not.
func pinsOf(c *gear.Connector) string {
	if c.Pins == nil {
		return ""
	}
	return fmt.Sprintf(" (count %d)", *c.Pins)
}

// keyOf says how a plug is kept from going in the wrong way round.
func keyOf(c *gear.Connector) string {
	switch {
	case c.Keyed == nil:
		return "look for its key. Where it has none, pin 1 goes to pin 1 by the marking on both."
	case *c.Keyed:
		return "it goes in one way only, latch up, by the nails and never by the wires."
	}
	return "it has no key and goes in both ways round; the wrong way puts the supply on a signal. Pin 1 goes to pin 1 " +
		"by the marking on both."
}

// solder is the soldering step.
func (w *writer) solder(list pins.List) {
	if len(list.Wires) == 0 {
		return
	}
	step := Step{
		ID:        "solder:" + w.air.Label + joins(list),
		Phase:     Feed,
		Title:     fmt.Sprintf("Solder %d wires of the air unit", len(list.Wires)),
		Tools:     []string{toolIron, "side cutters", "loupe"},
		Materials: list.Materials,
		Cautions: []string{
			cautionIron,
			"Pre-tin pads and wires, a little slack, anchor the bundle where it cannot reach a prop.",
		},
	}
	for _, l := range list.Wires {
		step.Do = append(step.Do, solderLine(l))
	}
	w.add(step)
}

// solderLine says one wire of a soldering list.
func solderLine(l pins.Solder) string {
	does := l.Wire + " to " + l.To
	if l.Printed != "" {
		does += " (" + l.Printed + ")"
	}
	if l.Colour != "" {
		does = l.Colour + ": " + does
	}
	if l.LengthMM != nil {
		does += fmt.Sprintf(", cut to %s", l.LengthMM)
	}
	if l.Note != "" {
		does += " (" + l.Note + ")"
	}
	if len(l.Beside) > 0 {
		does += "; look for a bridge to " + strings.Join(l.Beside, " and to ")
	}
	return does + "."
}

// joins names a soldering list by what it joins, so that a tick stays while that
// stays.
func joins(list pins.List) string {
	var id strings.Builder
	for _, l := range list.Wires {
		id.WriteString(":" + l.Wire + ">" + l.To)
	}
	return id.String()
}

// pairOf begins the ids of the steps that meter one pair of pins each.
const pairOf = "pair:"

// MetersPair says whether the step meters one pair of the unit's pins.
func (s Step) MetersPair() bool { return strings.HasPrefix(s.ID, pairOf) }

// pairs asks for the meter's answer at each pair of the unit's pins before the
// first plug-in (common practice).
func (w *writer) pairs() {
	if !w.hasAir || !w.rewired() {
		return
	}
	list := pins.Continuity(w.Case)
	for i, p := range list {
		step := Step{
			ID:    fmt.Sprintf("%s%s:%d-%d", pairOf, w.airUnit.ID, p.A, p.B),
			Phase: Meter,
			Title: fmt.Sprintf("Meter pin %d to pin %d", p.A, p.B),
			Do: []string{fmt.Sprintf("Pair %d of %d: %s. Pack unplugged, meter on continuity, at the unit's plug.", i+1,
				len(list), p.Label)},
			Tools:   []string{"multimeter"},
			Reading: &Reading{Label: p.Label, Choices: meterAnswers, Expected: meterAnswers[0], Wrong: p.Wrong},
		}
		if p.Connected {
			step.Reading.Expected = meterAnswers[1]
		}
		w.add(step)
	}
}
