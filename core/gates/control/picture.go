package control

import (
	"cmp"
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/gates/pins"
)

// Picture shows the sticks' way from hand to flight board, and the switches.
type Picture struct {
	Way      []Hop          `json:"way"`
	Switches []fleet.Switch `json:"switches"`
	Order    string         `json:"order,omitempty"`
	// NowMS and NextMS are how late the sticks come; absent: not stated.
	NowMS   *float64 `json:"nowMS,omitempty"`
	NextMS  *float64 `json:"nextMS,omitempty"`
	Missing string   `json:"missing,omitempty"`
}

// Hop is one place on the way, and what is set there.
type Hop struct {
	Label string `json:"label"`
	Set   string `json:"set"`
}

// Lit is a mode on a switch, and whether the switch is on it.
type Lit struct {
	Mode string `json:"mode"`
	Aux  int    `json:"aux"`
	On   bool   `json:"on"`
}

// sticks is how many channels come before the first auxiliary one.
const sticks = 4

// Lights says which modes are on where the channels of a receiver stand, in µs.
func Lights(switches []fleet.Switch, channels []int) []Lit {
	list := []Lit{}
	for _, s := range switches {
		at := sticks + s.Aux - 1
		on := at < len(channels) && channels[at] >= s.FromUS && channels[at] < s.ToUS
		list = append(list, Lit{s.Mode, s.Aux, on})
	}
	return list
}

// Draw makes the picture of a fit's control link.
func Draw(c fleet.Case) Picture {
	pic := Picture{Way: []Hop{}, Switches: []fleet.Switch{}}
	h, ok := newHands(c)
	if c.Fit.Board == "" {
		pic.Missing = "There is no flight board."
		return pic
	}
	if !ok {
		pic.Missing = "No controller and no separate receiver."
		return pic
	}
	s := c.Fit.Sticks
	if s == nil {
		s = &fleet.Sticks{}
	}
	pic.Way = h.hops(s)
	pic.Order = s.Order
	pic.Switches = append(pic.Switches, s.Switches...)
	if before, ok := newHands(fleet.NowCase(h.Library, h.Fleet, h.Quad)); ok {
		if ms, known := before.lag(); known {
			pic.NowMS = &ms
		}
	}
	if ms, known := h.lag(); known {
		pic.NextMS = &ms
	}
	return pic
}

// hops is the way of the sticks from the hand to the flight board, what is set at each.
func (h *hands) hops(s *fleet.Sticks) []Hop {
	said := func(text string) string { return cmp.Or(text, "not said") }
	ends := "ends not said"
	if s.MinUS != nil && s.MaxUS != nil {
		ends = fmt.Sprintf("%d to %d µs", *s.MinUS, *s.MaxUS)
	}
	_, hand, _ := h.Controller()
	board := Hop{h.Library.Label(h.Fit.Board), "order " + said(s.Order)}
	var way []Hop
	if h.receiver != nil {
		seat := "separate"
		if h.BuiltIn() {
			seat = "on the flight board"
		}
		way = []Hop{{"the pilot's own controller", ends}, {h.receiver.Label(), seat + "; the air unit's RC wires stay off"}}
	} else {
		way = []Hop{{hand.Label, ends}, {h.air.Label, "RC protocol " + said(string(s.Unit))}}
		board.Set += ", " + said(string(s.Board))
	}
	port := Hop{"serial port", "not said"}
	switch n, known := pins.SticksPort(h.Case); {
	case known && n == 0:
		port = Hop{"on the board", "its own receiver"}
	case known:
		port = Hop{fmt.Sprintf("UART %d", n), "serial receiver"}
	}
	if h.runs != nil {
		if protocol, ok := Protocol(h.Case, h.runs); ok {
			port.Set += ", " + protocol
		}
	}
	return append(way, port, board)
}
