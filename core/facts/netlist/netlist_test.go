package netlist_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/graph"
	"gonum.org/v1/gonum/graph/simple"
	"gonum.org/v1/gonum/graph/topo"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/wire"
	"yokeswap/internal/builds"
)

// The rule for every pair of what pins do, by hand (common practice): whatever is joined
// is harmless, silent, fights, burns or is a short, whichever comes first.
func TestTheRuleForEveryPairOfPins(t *testing.T) {
	const (
		fine, silent, fighting, burning, joined, shorted = netlist.Fine, netlist.Silent, netlist.Fighting, netlist.Burning,
			netlist.Joined, netlist.Shorted
	)
	kinds := []gear.Electric{gear.Passive, gear.Grounded, gear.Takes, gear.Gives, gear.Drives, gear.Listens, gear.Shares}
	truth := [][]netlist.Clash{
		{fine, fine, fine, fine, fine, fine, fine},
		{fine, fine, shorted, shorted, silent, silent, silent},
		{fine, shorted, fine, fine, silent, silent, silent},
		{fine, shorted, fine, joined, burning, burning, burning},
		{fine, silent, silent, burning, fighting, fine, fine},
		{fine, silent, silent, burning, fine, fine, fine},
		{fine, silent, silent, burning, fine, fine, fine},
	}
	for i, a := range kinds {
		for k, b := range kinds {
			assert.Equal(t, truth[i][k], netlist.Clashing(a, b), "%d with %d", a, b)
			assert.Equal(t, netlist.Clashing(a, b), netlist.Clashing(b, a), "whichever comes first")
		}
	}
}

// What a pin belongs to: a part's function and the place of a board that serves it, and
// none else.
func TestWhereEachFunctionBelongs(t *testing.T) {
	board := &sample.Set().Boards[0]
	places := append([]string{"ground", "batt", "10v", "tx1", "rx1"}, gear.Signals...)
	belongs := map[string][]string{
		gear.PinSupply:    {"batt", "10v"},
		gear.PinGround:    {"ground"},
		gear.PinUARTRX:    {"tx1"},
		gear.PinUARTTX:    {"rx1"},
		gear.PinTelemetry: {"rx1"},
		gear.PinControl:   {"tx1"},
		gear.PinVideoOut:  {gear.PinVideoIn},
		gear.PinVideoIn:   {gear.PinVideoOut},
		gear.PinSpare:     places,
		gear.PinReset:     places,
	}
	for _, function := range gear.PartPins {
		want, listed := belongs[function]
		if !listed {
			want = []string{function}
		}
		var is []string
		for _, place := range places {
			if board.Belongs(function, place) {
				is = append(is, place)
			}
		}
		assert.Equal(t, want, is, function)
	}
}

// Nets are the connected components of pins and wires: held against a general graph
// library on a thousand builds (gonum, topo.ConnectedComponents).
func TestNetsAreConnectedComponents(t *testing.T) {
	st := builds.Demo()
	lib, compared := st.Library(), 0
	for seed := range uint64(1000) {
		alone := builds.Alone(seed, lib, st.Fleet)
		c := fleet.NewCase(lib, alone, &alone.Quads[0])
		runs := netlist.All(c)
		board, ok := c.Board()
		if !ok {
			continue
		}
		joins, ids := simple.NewUndirectedGraph(), map[string]int64{}
		vertex := func(name string) int64 {
			if _, known := ids[name]; !known {
				ids[name] = int64(len(ids))
				joins.AddNode(simple.Node(ids[name]))
			}
			return ids[name]
		}
		for _, r := range runs {
			grounds := []int64{}
			for i := range r.Conns {
				w := &r.Conns[i]
				if !w.Live() {
					continue
				}
				a, b := vertex(fmt.Sprint(r.Node, "#", w.Pin)), vertex("board "+leadsTo(c.Fit, board, w.Terminal))
				if !joins.HasEdgeBetween(a, b) {
					joins.SetEdge(simple.Edge{F: simple.Node(a), T: simple.Node(b)})
				}
				if w.Function == gear.PinGround || w.Function == gear.PinRCGround {
					grounds = append(grounds, a)
				}
			}
			for i := 1; i < len(grounds); i++ {
				if grounds[i] != grounds[0] && !joins.HasEdgeBetween(grounds[0], grounds[i]) {
					joins.SetEdge(simple.Edge{F: simple.Node(grounds[0]), T: simple.Node(grounds[i])})
				}
			}
		}
		var want, is []string
		for _, part := range topo.ConnectedComponents(joins) {
			var members []string
			for name, id := range ids {
				if slices.ContainsFunc(part, func(n graph.Node) bool { return n.ID() == id }) {
					members = append(members, name)
				}
			}
			slices.Sort(members)
			want = append(want, fmt.Sprint(members))
		}
		for _, net := range netlist.Nets(c, runs) {
			var members []string
			for _, p := range net.Pins {
				name := fmt.Sprint(p.Node, "#", p.N)
				switch {
				case p.Node == fleet.NodePack:
					name = "board pack"
				case p.N == 0:
					name = "board " + p.Name
				}
				members = append(members, name)
			}
			slices.Sort(members)
			is = append(is, fmt.Sprint(members))
		}
		slices.Sort(want)
		slices.Sort(is)
		require.Equal(t, want, is, "seed %d", seed)
		compared += len(is)
	}
	assert.Greater(t, compared, 3000, "nets compared")
}

// leadsTo follows a jumper, written once more by its meaning: the pack's pads are one.
func leadsTo(f *fleet.Fit, b *gear.Board, place string) string {
	pad, ok := b.Pad(place)
	switch {
	case !ok:
		return place
	case pad.Kind == gear.PadPack:
		return "pack"
	case pad.Kind == gear.PadJumper && f.Jumpers[place] != "":
		return leadsTo(f, b, f.Jumpers[place])
	case pad.Kind == gear.PadJumper && pad.Default != "":
		return leadsTo(f, b, pad.Default)
	}
	return place
}

// A part is fed as its supply wire goes, unless the plan says otherwise.
func TestAPartIsFedAsItsWireGoes(t *testing.T) {
	f := fleet.Fit{Board: "board", Parts: []fleet.PlacedPart{{ID: "gps", Model: "gps", Cable: fleet.Cable{
		Wires: []fleet.Wire{{Pin: 1, To: "5v"}},
	}}}}
	c := sample.Case(sample.Set(), nil, f)
	from, ok := netlist.WithFeeds(c).Fit.FeedOf("gps")
	assert.True(t, ok)
	assert.Equal(t, "board.5v", from)
	assert.Empty(t, c.Fit.Feeds, "the fit itself is as it was")
	c.Fit.Feeds = []fleet.Feed{{To: "gps", From: "pack"}}
	from, _ = netlist.WithFeeds(c).Fit.FeedOf("gps")
	assert.Equal(t, "pack", from)
	c.Fit.Feeds = []fleet.Feed{{To: "gps", From: "board.5v"}}
	c.Fit.Parts[0].Wires[0].AWG = new(wire.Gauge(28))
	leads := netlist.WithFeeds(c).Fit.Feeds
	require.NotNil(t, leads[0].Lead, "its wire is the lead, of a feed that is stated as well")
	assert.Equal(t, wire.Gauge(28), *leads[0].Lead.AWG)
	assert.Nil(t, c.Fit.Feeds[0].Lead, "the fit itself is as it was")
	c.Fit.Feeds, c.Fit.Parts[0].Wires[0].To = nil, "ground"
	_, ok = netlist.WithFeeds(c).Fit.FeedOf("gps")
	assert.False(t, ok, "ground feeds nothing")
}

// A supply that moves takes its wire along; where it hangs on the pack its wire comes off.
func TestAFeedMovesItsWire(t *testing.T) {
	f := fleet.Fit{Board: "board", Parts: []fleet.PlacedPart{{ID: "gps", Model: "gps", Cable: fleet.Cable{
		Wires: []fleet.Wire{{Pin: 1, To: "5v", Colour: "red"}, {Pin: 2, To: "ground"}},
	}}}}
	c := sample.Case(sample.Set(), nil, f)
	patch, ok := netlist.Refeed(c, "gps", "board.10v", nil)
	require.True(t, ok)
	assert.Equal(t, fleet.Wire{Pin: 1, To: "10v", Colour: "red"}, patch.Parts[0].Wires[0])
	assert.Nil(t, patch.Feed, "the wire says it")
	patch, ok = netlist.Refeed(c, "gps", "pack", nil)
	require.True(t, ok)
	assert.Equal(t, []fleet.Wire{{Pin: 2, To: "ground"}}, patch.Parts[0].Wires)
	assert.Equal(t, "pack", patch.Feed.From)
	_, ok = netlist.Refeed(c, "receiver", "pack", nil)
	assert.False(t, ok)
}

// Pads of one rail are one place: a part on both has one supply.
func TestPadsOfOneRailAreOnePlace(t *testing.T) {
	set := sample.Set()
	set.Boards[0].Pads = append(set.Boards[0].Pads, gear.Pad{ID: "10v-b", Kind: gear.PadSame, SameAs: "10v"},
		gear.Pad{ID: "lost", Kind: gear.PadSame})
	c := sample.Case(set, nil, fleet.Fit{Board: "board"})
	board, _ := c.Board()
	assert.False(t, netlist.TwoSources(c, board, "board.10v", "10v-b"))
	assert.True(t, netlist.TwoSources(c, board, "board.5v", "10v-b"))
	assert.False(t, netlist.TwoSources(c, board, "board.5v", "lost"), "nobody says what it carries")
}

// A feed that cannot be moved is no patch at all.
func TestNoFeedIsMovedThatCannotBe(t *testing.T) {
	set := sample.Set()
	part := set.Parts[0]
	f := fleet.Fit{Board: "board", Parts: []fleet.PlacedPart{{ID: "on", Model: part.ID}}}
	_, ok := netlist.Refeed(sample.Case(set, nil, f), "on", "board.5v", nil)
	assert.False(t, ok, "nobody states its wires")
	_, ok = netlist.Refeed(sample.Case(set, nil, f), "nothing", "board.5v", nil)
	assert.False(t, ok)
}
