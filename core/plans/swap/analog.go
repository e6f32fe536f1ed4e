package swap

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/gates/power"
)

// FromAnalog lists what a swap from analog video takes out and what that frees:
// serial ports, pads, rail current. It is empty where the quad carries no analog
// video today or gets no air unit.
func FromAnalog(lib *gear.Library, f *fleet.Index, q *fleet.Quad) []string {
	out := []string{}
	now, next := fleet.NowCase(lib, f, q), fleet.NewCase(lib, f, q)
	if _, _, ok := next.AirUnit(); q.Now.Analog == "" || !ok {
		return out
	}
	out = append(out, "Out: the "+q.Now.Analog+" camera and transmitter, and the antenna of the transmitter.")
	if port, ok := q.Now.PortOf(fleet.UseVTXControl); ok {
		says := fmt.Sprintf("Out: the transmitter's control wire. UART %d is free", port)
		if board, ok := gear.Find[*gear.Board](lib, q.Now.Board); ok {
			if u, ok := board.UART(port); ok && !u.RX {
				says += ", but only its TX pad is broken out: it cannot carry MSP"
			}
		}
		out = append(out, says+".")
	}
	board, hasBoard := gear.Find[*gear.Board](lib, q.Now.Board)
	fedNext := netlist.WithFeeds(next).Fit
	for _, feed := range netlist.WithFeeds(now).Fit.Feeds {
		_, isLoad := q.Now.Load(feed.To)
		_, isPart := q.Now.Part(feed.To)
		if _, stays := fedNext.FeedOf(feed.To); !isLoad && !isPart || stays {
			continue
		}
		says := fmt.Sprintf("Out: %s.", change.Node(now, feed.To))
		if id, onBoard := fleet.PadOf(feed.From); onBoard && hasBoard &&
			!slices.ContainsFunc(fedNext.Feeds, func(g fleet.Feed) bool { return g.From == feed.From }) {
			if pad, ok := board.Pad(id); ok {
				says += fmt.Sprintf(" The %s is free.", pad.Label())
			}
		}
		out = append(out, says)
	}
	out = append(out, freedCurrent(power.Trace(now).Rails, power.Trace(next).Rails)...)
	return append(
		out,
		"The board's own OSD chip draws nothing any more. Its OSD feature stays on: it is what makes the board send.",
	)
}

// freedCurrent says which rails carry less.
func freedCurrent(now, next []*power.Rail) (list []string) {
	for _, was := range now {
		is := slices.IndexFunc(next, func(r *power.Rail) bool { return r.ID == was.ID })
		if was.LoadA == nil {
			continue
		}
		left := *was.LoadA
		if is >= 0 {
			if next[is].LoadA == nil {
				continue
			}
			left -= *next[is].LoadA
		}
		if left > 0.005 {
			list = append(list, fmt.Sprintf("Freed on %s: %s at peak.", was.Label, left))
		}
	}
	return list
}
