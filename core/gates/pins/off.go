package pins

import (
	"fmt"
	"reflect"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
)

// Off is what of today's wiring comes off for the next, what that frees, and what can
// stay.
type Off struct {
	Wires    []OffWire `json:"wires"`
	Unplug   []string  `json:"unplug"`   // cables to pull out of the board
	Frees    []string  `json:"frees"`    // pads and ports nothing hangs on any more
	Stays    []string  `json:"stays"`    // parts whose wires nobody touches
	Insulate []string  `json:"insulate"` // ends that are live in the next wiring and joined to nothing
}

// OffWire is one soldered wire to take off.
type OffWire struct {
	Part   string `json:"part"`
	Wire   string `json:"wire"` // its function
	From   string `json:"from"` // the place of the board it comes off
	Colour string `json:"colour,omitempty"`
}

// TakeOff holds the wiring of today against the next: what is not there again as it is
// comes off. It is empty where no wiring of today is stated.
func TakeOff(lib *gear.Library, f *fleet.Index, q *fleet.Quad) Off {
	off := Off{Wires: []OffWire{}, Unplug: []string{}, Frees: []string{}, Stays: []string{}, Insulate: []string{}}
	now, next := fleet.NowCase(lib, f, q), fleet.NewCase(lib, f, q)
	was, is := netlist.All(now), netlist.All(next)
	today := beforeOf(next)
	sameBoard := today.sameBoard
	for _, run := range was {
		after := sameRun(is, run)
		exchanged := run.Node == fleet.NodeAirUnit && today.otherUnit
		if after != nil && sameBoard && !exchanged && sameWires(run, after) {
			if len(run.Conns) > 0 {
				off.Stays = append(off.Stays, run.Label())
			}
			continue
		}
		off.take(partLoom(now, run), is, sameBoard, exchanged)
		off.unplug(run, is, sameBoard)
	}
	off.Frees = freedBy(partOf(now), was, is, sameBoard)
	for _, run := range is {
		off.Insulate = append(off.Insulate, loose(partLoom(next, run))...)
	}
	return off
}

// partOf is a loom without a part, to name places of the board.
func partOf(c fleet.Case) *loom {
	l := &loom{Case: c}
	l.board, _ = c.Board()
	return l
}

// sameRun is the run of the same part in another wiring; nil where it is gone, or another
// model stands in its place.
func sameRun(list []*netlist.Run, run *netlist.Run) *netlist.Run {
	at := slices.IndexFunc(list, func(r *netlist.Run) bool { return r.Node == run.Node && r.Entry.ID == run.Entry.ID })
	if at < 0 {
		return nil
	}
	return list[at]
}

func sameWires(a, b *netlist.Run) bool { return reflect.DeepEqual(a.Conns, b.Conns) }

// take lists what of one part comes off: each soldered wire that is not there again.
func (o *Off) take(l *loom, next []*netlist.Run, sameBoard, exchanged bool) {
	at := slices.IndexFunc(next, func(r *netlist.Run) bool { return r.Node == l.run.Node })
	for i := range l.run.Conns {
		c := &l.run.Conns[i]
		if c.Slot != 0 || !c.Live() {
			continue
		}
		stays := sameBoard && at >= 0 && onBoard(next[at], l.run, c, exchanged)
		if !stays {
			o.Wires = append(o.Wires, OffWire{
				Part:   l.run.Label(),
				Wire:   PinWords(c.Function),
				From:   strings.TrimPrefix(l.words(c.Terminal), "the "),
				Colour: c.Colour,
			})
		}
	}
}

// plugged is a cable in a plug of the board.
type plugged struct{ cable, plug string }

// unplug lists the cables of a part where no part of the next wiring has them in that plug.
func (o *Off) unplug(run *netlist.Run, next []*netlist.Run, sameBoard bool) {
	stays := map[plugged]bool{}
	for _, r := range next {
		for _, end := range r.PluggedIn() {
			stays[plugged{end.Cable.ID, end.Plug.ID}] = sameBoard
		}
	}
	for _, end := range run.PluggedIn() {
		if !stays[plugged{end.Cable.ID, end.Plug.ID}] {
			o.Unplug = append(o.Unplug, fmt.Sprintf("the %s of %s out of the %s", end.Cable.Label(), run.Label(),
				end.Plug.Label()))
		}
	}
}

// freedBy lists the serial ports and power pads that something hangs on today and nothing
// in the next wiring.
func freedBy(l *loom, was, is []*netlist.Run, sameBoard bool) []string {
	frees := []string{}
	if !sameBoard || l.board == nil {
		return frees
	}
	used := func(runs []*netlist.Run) map[string]bool {
		places := map[string]bool{}
		for _, r := range runs {
			for i := range r.Conns {
				if c := &r.Conns[i]; c.Live() && c.Terminal != gear.PinGround {
					places[l.place(c.Terminal)] = true
				}
			}
		}
		return places
	}
	before, after := used(was), used(is)
	for _, u := range l.board.UARTs {
		if port := fmt.Sprintf("UART %d", u.ID); before[port] && !after[port] {
			frees = append(frees, port)
		}
	}
	for i := range l.board.Pads {
		if pad := l.board.Pads[i].Label(); before[pad] && !after[pad] {
			frees = append(frees, pad)
		}
	}
	return frees
}

// place is the port or pad a terminal belongs to.
func (l *loom) place(terminal string) string {
	if port, _, serial := gear.SerialPin(terminal); serial {
		return fmt.Sprintf("UART %d", port)
	}
	return strings.TrimPrefix(l.words(terminal), "the ")
}

// loose are the ends of a part's cable that lead power or a signal and are joined to
// nothing: left bare they touch something (common practice: insulate each).
func loose(l *loom) (ends []string) {
	if l.run.Plug == nil {
		return nil
	}
	for i := range l.run.Conns {
		c := &l.run.Conns[i]
		if c.Cable == nil || c.Live() || c.Function == "" && c.Terminal == "" ||
			c.Function == gear.PinSupply && l.fedPastBoard() {
			continue
		}
		wire := "wire"
		if c.Colour != "" {
			wire = c.Colour + " wire"
		}
		what := PinWords(c.Function)
		if c.Function == "" {
			what = strings.TrimPrefix(l.words(c.Terminal), "the ")
		}
		says := fmt.Sprintf("the free end of the %s of %s, %s", wire, c.Cable.Label(), what)
		if c.Function == "" && l.power(c.Terminal) {
			says += ": it is live"
		}
		ends = append(ends, says)
	}
	return ends
}

// fedPastBoard says whether a part hangs on the pack or a regulator: its supply wire ends
// there.
func (l *loom) fedPastBoard() bool {
	from, fed := l.Fit.FeedOf(l.run.Node)
	_, onBoard := fleet.PadOf(from)
	return fed && !onBoard
}

// leftOut says what is wired today and has no place in the plan.
func leftOut(c fleet.Case) (findings []verdict.Finding) {
	if c.FitName == fleet.FitNow || c.Fit == &c.Quad.Now {
		return nil
	}
	for i := range c.Quad.Now.Parts {
		p := &c.Quad.Now.Parts[i]
		_, stays := c.Fit.Part(p.ID)
		model, known := gear.Find[*gear.Part](c.Library, p.Model)
		analog := known && (model.Sort == gear.SortCamera || model.Sort == gear.SortTransmitter)
		if stays || analog && c.Fit.AirUnit != nil {
			continue // the air unit takes the place of analog video
		}
		findings = append(findings, verdict.Finding{
			Code:    CodeDropped,
			Level:   verdict.Caution,
			Subject: c.Library.Label(p.Model),
			Source:  "this plan",
			Says:    fmt.Sprintf("%s is on the quad today and not in this plan: it is given up.", c.Library.Label(p.Model)),
		})
	}
	return findings
}
