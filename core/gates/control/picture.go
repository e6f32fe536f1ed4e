package control

import (
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
	said := func(text string) string {
		if text == "" {
			return "not said"
		}
		return text
	}
	ends := "ends not said"
	if s.MinUS != nil && s.MaxUS != nil {
		ends = fmt.Sprintf("%d to %d µs", *s.MinUS, *s.MaxUS)
	}
	if h.receiver != nil {
		pic.Way = append(pic.Way, Hop{"the pilot's own controller", ends}, Hop{h.receiver.Label(), "separate; the air unit's RC wires stay off"})
	} else {
		_, hand, _ := c.Controller()
		pic.Way = append(pic.Way, Hop{hand.Label, ends}, Hop{h.air.Label, "RC protocol " + said(string(s.Unit))})
	}
	port := Hop{"serial port", "not said"}
	if n, known := pins.SticksPort(c); known {
		port = Hop{fmt.Sprintf("UART %d", n), "serial receiver"}
	}
	if h.runs != nil {
		if protocol, ok := Protocol(h.Case, h.runs); ok {
			port.Set += ", " + protocol
		}
	}
	board := Hop{c.Library.Label(c.Fit.Board), "order " + said(s.Order)}
	if h.receiver == nil {
		board.Set += ", " + said(string(s.Board))
	}
	pic.Way = append(pic.Way, port, board)
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
