package swap

import (
	"fmt"
	"reflect"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/gates/pins"
)

// cables lists how the air unit can be joined to the board: soldered, or through
// each cable of the library that goes into a plug of the board.
func cables(c fleet.Case) []Option {
	pick := func(key, label string, change func(*fleet.Wiring)) Option {
		w := c.Fit.Wiring
		change(&w)
		return Option{
			Key:    key,
			Label:  label,
			Chosen: c.Fit.Harness == w.Harness && c.Fit.HarnessTo == w.HarnessTo && reflect.DeepEqual(c.Fit.Headers, w.Headers),
			Patch:  fleet.Patch{Wiring: &w},
		}
	}
	run, ok := netlist.AirUnit(c)
	board, hasBoard := c.Board()
	if !ok || !hasBoard {
		return []Option{}
	}
	owned := func(o Option) Option {
		if n := c.Fleet.SpareCount(o.Patch.Wiring.Harness, c.Quad.ID); n > 0 {
			o.Note = fmt.Sprintf("%d owned", n)
		}
		return o
	}
	soldered := func(w *fleet.Wiring) {
		w.Harness, w.HarnessTo, w.Moved, w.Headers = "", "", nil, fleet.Headers{}
		w.BranchTo, w.Beside = "", nil
	}
	options := []Option{pick("soldered", "soldered, wire by wire", soldered)}
	for _, h := range gear.All[*gear.Harness](c.Library) {
		if h.To != "" || run.Plug != nil && h.From != "" && h.From != run.Plug.Connector {
			continue
		}
		options = append(options, owned(pick(h.ID, h.Label()+", soldered to the board", func(w *fleet.Wiring) {
			w.Harness, w.HarnessTo, w.Moved, w.BoardHeader, w.BranchTo = h.ID, "", nil, nil, ""
		})))
	}
	for _, on := range pins.Cables(c) {
		key, label := cableWords(c, board, &on)
		options = append(options, owned(pick(key, label, func(w *fleet.Wiring) {
			if w.Harness != on.Harness || w.HarnessTo != on.HarnessTo {
				w.Moved, w.BranchTo = nil, ""
			}
			w.Harness, w.HarnessTo, w.Wires, w.Headers = on.Harness, on.HarnessTo, nil, on.Headers
		})))
	}
	return options
}

// furtherCables lists what can go beside the cable of an air unit with bare pads: each cable
// with bare ends at the unit's side, soldered at the board or in each of its plugs that
// takes it. A plug of a unit takes one cable.
func furtherCables(c fleet.Case) []Option {
	run, ok := netlist.AirUnit(c)
	board, hasBoard := c.Board()
	if !ok || !hasBoard || run.Plug == nil {
		return nil
	}
	option := func(key, label string, beside ...fleet.Beside) Option {
		w := c.Fit.Wiring
		w.Beside = beside
		o := Option{Key: key, Label: label, Chosen: slices.Equal(c.Fit.Beside, beside), Patch: fleet.Patch{Wiring: &w}}
		if len(beside) == 1 {
			if n := c.Fleet.SpareCount(beside[0].Harness, c.Quad.ID); n > 0 {
				o.Note = fmt.Sprintf("%d owned", n)
			}
		}
		return o
	}
	options := []Option{option("none", "none")}
	for _, h := range gear.All[*gear.Harness](c.Library) {
		switch {
		case !h.Without("from") || !run.Plug.Pads() || h.ID == c.Fit.Harness:
		case h.To == "":
			options = append(options, option(h.ID, h.Label()+", soldered to the board", fleet.Beside{Harness: h.ID}))
		default:
			for i := range board.Plugs {
				if p := &board.Plugs[i]; p.Connector == h.To {
					options = append(options, option(h.ID+":"+p.ID, h.Label()+" into the "+p.Label(),
						fleet.Beside{Harness: h.ID, HarnessTo: p.ID}))
				}
			}
		}
	}
	if !slices.ContainsFunc(options, func(o Option) bool { return o.Chosen }) {
		options = append(options, option("as-it-is", "as it is", c.Fit.Beside...))
	}
	return options
}

// cableWords tells a cable into a plug of the board, over headers or none, from the others.
func cableWords(c fleet.Case, board *gear.Board, on *fleet.Cable) (key, label string) {
	plug, _ := board.Plug(on.HarnessTo)
	key, label = on.Harness+":"+on.HarnessTo, c.Library.Label(on.Harness)+" into the "+plug.Label()
	for _, h := range []*fleet.Header{on.Header, on.BoardHeader} {
		key += ":" + headerKey(h)
		if h != nil {
			label += ", over " + c.Library.Label(h.Model)
		}
		if h != nil && h.Turned {
			label += " turned"
		}
	}
	return strings.TrimRight(key, ":"), label
}

// headerKey tells a header and the way it lies from another.
func headerKey(h *fleet.Header) string {
	switch {
	case h == nil:
		return ""
	case h.Turned:
		return h.Model + "-turned"
	}
	return h.Model
}

// seats lists the bays of every frame the unit could sit in.
func seats(c fleet.Case) []Option {
	options := []Option{}
	for _, f := range gear.All[*gear.Frame](c.Library) {
		if c.Fit.Frame != "" && f.ID != c.Fit.Frame {
			continue // another frame is another quad
		}
		for i := range f.Bays {
			m := c.Fit.Mounting
			chosen := m.Frame == f.ID && m.Bay == f.Bays[i].ID
			if !chosen {
				m.Frame, m.Bay, m.Plate, m.Screw = f.ID, f.Bays[i].ID, "", ""
			}
			options = append(options, Option{
				Key:    f.ID + ":" + f.Bays[i].ID,
				Label:  f.Bays[i].Label() + " of " + f.Label(),
				Chosen: chosen,
				Patch:  fleet.Patch{Mounting: &m},
			})
		}
	}
	return options
}

// cameras lists the unit's own camera and those that work with it.
func cameras(c fleet.Case) []Option {
	unit, _, ok := c.AirUnit()
	if !ok {
		return nil
	}
	pick := func(id, label string) Option {
		m := c.Fit.Mounting
		m.Camera = id
		o := Option{Key: "camera:" + id, Label: label, Chosen: c.Fit.Camera == id, Patch: fleet.Patch{Mounting: &m}}
		if n := c.Fleet.SpareCount(id, c.Quad.ID); n > 0 {
			o.Note = fmt.Sprintf("%d owned", n)
		}
		return o
	}
	options := []Option{pick("", "its own camera")}
	for _, other := range gear.All[*gear.CameraModel](c.Library) {
		if slices.Contains(other.Units, unit.ID) || other.ID == c.Fit.Camera {
			options = append(options, pick(other.ID, other.Label()))
		}
	}
	return options
}

// antennaSets lists the antennas the unit can carry, all of one model.
func antennaSets(c fleet.Case) []Option {
	options := []Option{}
	unit, _, ok := c.AirUnit()
	if !ok || unit.Radio == nil || unit.Radio.Antennas == nil {
		return options
	}
	n := *unit.Radio.Antennas
	now := fleet.Antennas{}
	if c.Fit.Antennas != nil {
		now = *c.Fit.Antennas
	}
	for _, a := range gear.All[*gear.Antenna](c.Library) {
		if a.Plug != unit.Radio.Plug && now.Adapter == "" {
			continue
		}
		next := now
		next.Models = slices.Repeat([]string{a.ID}, n)
		o := Option{
			Key:    a.ID,
			Label:  fmt.Sprintf("%d × %s", n, a.Label()),
			Chosen: slices.Equal(next.Models, now.Models),
			Patch:  fleet.Patch{Antennas: &next},
		}
		if have := c.Fleet.SpareCount(a.ID, c.Quad.ID); have > 0 {
			o.Note = fmt.Sprintf("%d owned", have)
		}
		options = append(options, o)
	}
	if len(now.Models) > 0 && !slices.ContainsFunc(options, func(o Option) bool { return o.Chosen }) {
		labels := make([]string, len(now.Models))
		for i, m := range now.Models {
			labels[i] = c.Library.Label(m)
		}
		options = append(options, Option{
			Key:    "as-planned",
			Label:  strings.Join(labels, " and "),
			Note:   "as planned",
			Chosen: true,
			Patch:  fleet.Patch{Antennas: &now},
		})
	}
	return options
}
