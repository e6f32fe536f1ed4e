package pins

import (
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
)

// Joining is a way a part beside the air unit can be joined to the board.
type Joining struct {
	Label  string      `json:"label"`
	Chosen bool        `json:"chosen"`
	Patch  fleet.Patch `json:"patch"`
}

// joinings are the ways a part with pins can be joined to a board: wire by wire, by each
// cable that goes into its plug and is soldered to the board, and by each that goes into a
// plug of the board as well. What is on it and is none of these is kept as it is; nil: nobody
// has said how it is joined.
func joinings(c fleet.Case, node string, plug *gear.Plug, board *gear.Board, on *fleet.Cable) (list []Joining) {
	if plug == nil {
		return nil
	}
	chosen := false
	add := func(label string, cable fleet.Cable) {
		same := on != nil && cable.Harness == on.Harness && cable.HarnessTo == on.HarnessTo
		chosen = chosen || same
		if same {
			cable = *on
		}
		list = append(list, Joining{label, same, netlist.Recable(c, node, cable)})
	}
	soldered := fleet.Cable{}
	if on != nil && on.HarnessTo == "" {
		soldered.Wires = on.Wires
	}
	add("soldered, wire by wire", soldered)
	for _, h := range gear.All[*gear.Harness](c.Library) {
		switch {
		case plug.Pads() && !h.Without("from"), !plug.Pads() && (h.From == "" || h.From != plug.Connector):
			continue
		case h.To == "":
			add(h.Label()+", soldered to the board", fleet.Cable{Harness: h.ID, Wires: soldered.Wires})
			continue
		}
		for i := range board.Plugs {
			if into := &board.Plugs[i]; into.Connector == h.To {
				add(h.Label()+" into the "+into.Label(), fleet.Cable{Harness: h.ID, HarnessTo: into.ID})
			}
		}
	}
	if on != nil && !chosen {
		list = append(list, Joining{"as it is", true, netlist.Recable(c, node, *on)})
	}
	return list
}
