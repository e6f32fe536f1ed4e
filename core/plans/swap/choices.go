package swap

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/gates/pins"
)

// Option is one thing that can be picked for a place in the next fit. Picking
// it applies its patch.
type Option struct {
	Key    string      `json:"key"` // stays the same as long as it is the same thing
	Label  string      `json:"label"`
	Note   string      `json:"note,omitempty"`
	Chosen bool        `json:"chosen"`
	Patch  fleet.Patch `json:"patch"`
}

// Place is a place of the fit with what can be picked for it.
type Place struct {
	Name    string   `json:"name"`
	Label   string   `json:"label"`
	Options []Option `json:"options"`
}

// Places lists what can be picked for a fit.
func Places(c fleet.Case) []Place {
	places := []Place{
		{"airUnit", "air unit", airUnits(c)},
		{
			"goggles",
			"goggles",
			devices[*gear.Goggles](c, c.Fit.Goggles, func(s *fleet.Slot) fleet.Patch { return fleet.Patch{Goggles: s} }),
		},
		{"controller", "controller", controllers(c)},
		{"board", "flight board", boards(c)},
		{"pack", "pack", packs(c)},
		{"feed", "air unit fed from", feeds(c)},
		{"cable", "joined to the board by", cables(c)},
		{"seat", "sits in", seats(c)},
		{"antennas", "antennas", antennaSets(c)},
	}
	if others := cameras(c); len(others) > 1 {
		at := slices.IndexFunc(places, func(p Place) bool { return p.Name == "seat" })
		places = slices.Insert(places, at+1, Place{"camera", "looks through", others})
	}
	if more := furtherCables(c); len(more) > 1 {
		at := slices.IndexFunc(places, func(p Place) bool { return p.Name == "cable" })
		places = slices.Insert(places, at+1, Place{"beside", "and by a further cable", more})
	}
	for _, p := range places {
		for i := range p.Options {
			p.Options[i].Patch = change.SettlePick(c, p.Options[i].Patch)
		}
	}
	return places
}

func airUnits(c fleet.Case) []Option {
	options := devices[*gear.AirUnit](c, c.Fit.AirUnit, func(s *fleet.Slot) fleet.Patch { return fleet.Patch{AirUnit: s} })
	for _, model := range gear.All[*gear.AirUnit](c.Library) {
		slot := fleet.Slot{Model: model.ID}
		note := "to buy"
		if model.Family != "" {
			note = model.Family + " family, to buy"
		}
		options = append(options, Option{Key: "model:" + model.ID, Label: model.Label(), Note: note,
			Chosen: c.Fit.AirUnit != nil && c.Fit.AirUnit.Model == model.ID, Patch: fleet.Patch{AirUnit: &slot}})
	}
	return options
}

// smallFleet is how much kit can be listed piece by piece.
const smallFleet = 100

// mostElsewhere is how many pieces that other quads' plans have are listed for a place.
const mostElsewhere = 40

// devices lists nothing and the pieces of kit of one type. In a large fleet one free piece
// stands for those alike, and not every piece planned into another quad is listed.
func devices[T gear.Linked](c fleet.Case, chosen *fleet.Slot, patch func(*fleet.Slot) fleet.Patch) []Option {
	options := []Option{{Key: "none", Label: "none", Chosen: chosen == nil, Patch: patch(&fleet.Slot{})}}
	elsewhere, alike := 0, map[string]int{}
	for i := range c.Fleet.Kit {
		kit := &c.Fleet.Kit[i]
		if _, ok := gear.Find[T](c.Library, kit.Model); !ok {
			continue
		}
		other, taken := c.Fleet.Holder(kit.ID, c.Quad.ID)
		key := kit.Alike()
		switch {
		case chosen != nil && chosen.Kit == kit.ID:
		case taken:
			if elsewhere++; elsewhere > mostElsewhere {
				continue
			}
		case alike[key] > 0 && len(c.Fleet.Kit) > smallFleet:
			alike[key]++
			continue
		default:
			alike[key]++
		}
		option := Option{Key: "kit:" + kit.ID, Label: kit.Label(), Patch: patch(&fleet.Slot{Kit: kit.ID}),
			Chosen: chosen != nil && chosen.Kit == kit.ID}
		option.Note = "firmware not known"
		if kit.Firmware.Known() {
			option.Note = "on " + string(kit.Firmware)
		}
		if taken {
			option.Note += ", planned into " + other.Label()
		}
		options = append(options, option)
	}
	return options
}

// controllers lists the controllers, and the separate receivers that make one
// moot.
func controllers(c fleet.Case) []Option {
	options := devices[*gear.Controller](c, c.Fit.Controller, func(s *fleet.Slot) fleet.Patch {
		return fleet.Patch{Controller: s, Receiver: new("")}
	})
	separate := c.Fit.Receiver != ""
	for i := range options {
		options[i].Chosen = options[i].Chosen && !separate
	}
	for _, r := range c.Receivers() {
		note, patch := "separate receiver", c.Receive(r.ID)
		patch.Controller = &fleet.Slot{}
		if c.With(patch).BuiltIn() {
			note = "on the flight board"
		} else if n := c.Fleet.SpareCount(r.ID, c.Quad.ID); n > 0 {
			note += fmt.Sprintf(", %d spare", n)
		} else if c.Quad.Now.Receiver != r.ID {
			note += ", to buy"
		}
		options = append(options, Option{
			Key:    "receiver:" + r.ID,
			Label:  r.Label(),
			Note:   note,
			Chosen: c.Fit.Receiver == r.ID,
			Patch:  patch,
		})
	}
	return options
}

// boards lists the flight boards; picking one wires everything onto it.
func boards(c fleet.Case) []Option {
	options := []Option{{Key: "none", Label: "none", Chosen: c.Fit.Board == "", Patch: pins.Onto(c, "")}}
	for _, b := range gear.All[*gear.Board](c.Library) {
		option := Option{Key: b.ID, Label: b.Label(), Chosen: c.Fit.Board == b.ID, Patch: pins.Onto(c, b.ID)}
		switch n := c.Fleet.SpareCount(b.ID, c.Quad.ID); {
		case b.ID == c.Quad.Now.Board:
			option.Note = "on it today"
		case n > 0:
			option.Note = fmt.Sprintf("%d owned", n)
		default:
			option.Note = "to buy"
		}
		options = append(options, option)
	}
	return options
}

func packs(c fleet.Case) []Option {
	options := []Option{{Key: "none", Label: "none", Chosen: c.Fit.Pack == "", Patch: fleet.Patch{Pack: new("")}}}
	for _, p := range gear.All[*gear.Pack](c.Library) {
		option := Option{Key: p.ID, Label: p.Label(), Chosen: c.Fit.Pack == p.ID, Patch: fleet.Patch{Pack: new(p.ID)}}
		if n := c.Fleet.SpareCount(p.ID, c.Quad.ID); n > 0 {
			option.Note = fmt.Sprintf("%d owned", n)
		}
		options = append(options, option)
	}
	return options
}

// feeds lists what the air unit can be fed from.
func feeds(c fleet.Case) []Option {
	current, _ := c.Fit.FeedOf(fleet.NodeAirUnit)
	if c.Fit.AirUnit == nil {
		return []Option{}
	}
	feed := func(from, label string) Option {
		return Option{
			Key:    from,
			Label:  label,
			Chosen: from == current,
			Patch:  fleet.Patch{Feed: &fleet.Feed{To: fleet.NodeAirUnit, From: from}},
		}
	}
	options := []Option{feed("", "not said"), feed(fleet.NodePack, "the pack, direct")}
	if board, ok := c.Board(); ok {
		for i := range board.Pads {
			option := feed(fleet.PadNode(board.Pads[i].ID), board.Pads[i].Label())
			if choice := board.Pads[i].Leads(c.Fit.Jumpers); board.Pads[i].Kind == gear.PadJumper {
				option.Note = "jumper on " + choice
				if choice == "" {
					option.Note = "jumper not said"
				}
			}
			options = append(options, option)
		}
	}
	own := c.Fit.RegulatorFor(fleet.NodeAirUnit)
	placed, _ := c.Fit.Regulator(own)
	for _, r := range gear.All[*gear.Regulator](c.Library) {
		option := Option{Key: "regulator:" + r.ID, Label: r.Label(), Note: "to buy",
			Chosen: current == own && placed != nil && placed.Model == r.ID,
			Patch: fleet.Patch{Regulator: &fleet.PlacedRegulator{ID: own, Model: r.ID},
				Feed: &fleet.Feed{To: fleet.NodeAirUnit, From: own}}}
		if n := c.Fleet.SpareCount(r.ID, c.Quad.ID); n > 0 {
			option.Note = fmt.Sprintf("%d spare", n)
		}
		options = append(options, option)
	}
	for _, other := range c.Fit.Regulators {
		if other.ID != own {
			options = append(options, feed(other.ID, c.Library.Label(other.Model)))
		}
	}
	return options
}
