package swap_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
	"yokeswap/internal/builds"
)

// What burns is found once more by another hand, from the facts of a fit alone and by the
// plainest rules there are: where one of them says that something burns, the gate says that
// it does not fit, that it has to be changed or that it cannot tell, and that it destroys.

// full and half are the voltages of a full cell, and of one that is half empty and loaded
// with nothing (common practice).
var (
	full = map[gear.Chemistry]float64{gear.LiPo: 4.20, gear.LiHV: 4.35, gear.LiIon: 4.20, gear.LiFePO: 3.65}
	half = map[gear.Chemistry]float64{gear.LiPo: 3.70, gear.LiHV: 3.80, gear.LiIon: 3.60, gear.LiFePO: 3.20}
)

// at is the voltage a node gives with its cells at a voltage; false where a fact of the way
// is not stated.
func at(c fleet.Case, cell map[gear.Chemistry]float64, from string, depth int) (float64, bool) {
	pack, ok := c.Pack()
	switch {
	case depth > 8 || !ok:
		return 0, false
	case from == fleet.NodePack:
		volts, known := cell[pack.Chemistry]
		if !known || pack.Cells == nil {
			return 0, false
		}
		return volts * float64(*pack.Cells), true
	}
	through := func(conv *gear.Converter, fed string) (float64, bool) {
		in, known := at(c, cell, fed, depth+1)
		if !known || conv.OutV == nil {
			return 0, false
		}
		switch conv.Topology {
		case gear.StepUp:
			return max(in, float64(*conv.OutV)), true
		case gear.StepDown:
			return min(in, float64(*conv.OutV)), true
		}
		return float64(*conv.OutV), conv.Topology == gear.BuckBoost
	}
	if pad, onBoard := fleet.PadOf(from); onBoard {
		board, ok := c.Board()
		if !ok {
			return 0, false
		}
		fed, _ := c.Fit.FeedOf(fleet.NodeBoard)
		return ofPad(c, cell, board, pad, fed, through, depth)
	}
	placed, ok := c.Fit.Regulator(from)
	if !ok {
		return 0, false
	}
	model, ok := gear.Find[*gear.Regulator](c.Library, placed.Model)
	fed, isFed := c.Fit.FeedOf(from)
	if !ok || !isFed {
		return 0, false
	}
	return through(&model.Converter, fed)
}

func ofPad(
	c fleet.Case, cell map[gear.Chemistry]float64, board *gear.Board, id, fed string,
	through func(*gear.Converter, string) (float64, bool), depth int,
) (float64, bool) {
	pad, ok := board.Pad(id)
	if !ok || depth > 8 {
		return 0, false
	}
	switch pad.Kind {
	case gear.PadPack:
		return at(c, cell, fed, depth+1)
	case gear.PadRegulated:
		return through(&pad.Converter, fed)
	case gear.PadJumper:
		choice, set := c.Fit.Jumpers[id]
		if !set {
			choice = pad.Default
		}
		switch {
		case choice == "":
			return 0, false
		case choice == "pack":
			return at(c, cell, fed, depth+1)
		}
		return ofPad(c, cell, board, choice, fed, through, depth+1)
	}
	return 0, false
}

// plainFaults are what the plainest rules find: a part over its highest voltage, one that half
// empty cells do not keep on, a supply on a signal or on ground.
type plainFaults struct{ over, under, short []string }

func plainlyWrong(c fleet.Case) (found plainFaults) {
	fed := netlist.WithFeeds(c)
	see := func(node, label string, in *gear.Input) {
		from, isFed := fed.Fit.FeedOf(node)
		if !isFed {
			return
		}
		if volts, known := at(c, full, from, 0); known && in.MaxV != nil && volts > float64(*in.MaxV)+0.0005 {
			found.over = append(found.over, fmt.Sprintf("%s: %.2f V over %s from %s", label, volts, in.MaxV, from))
		}
		if volts, known := at(c, half, from, 0); known && in.MinV != nil && volts < float64(*in.MinV)-0.0005 {
			found.under = append(found.under, fmt.Sprintf("%s: %.2f V under %s from %s", label, volts, in.MinV, from))
		}
	}
	if u, _, ok := c.AirUnit(); ok {
		see(fleet.NodeAirUnit, u.Label(), &u.Input)
	}
	if b, ok := c.Board(); ok {
		see(fleet.NodeBoard, b.Label(), &b.Input)
	}
	if r, ok := c.PlacedReceiver(); ok {
		see(fleet.NodeReceiver, r.Label(), &r.Input)
	}
	for _, placed := range c.Fit.Parts {
		if p, ok := gear.Find[*gear.Part](c.Library, placed.Model); ok {
			see(placed.ID, p.Label(), &p.Input)
		}
	}
	found.short = shorts(c)
	return found
}

// shorts lists the wires that bring a supply onto a signal or ground.
func shorts(c fleet.Case) (list []string) {
	board, ok := c.Board()
	if !ok {
		return nil
	}
	for _, run := range netlist.All(c) {
		for _, conn := range run.Conns {
			_, power := board.Pad(conn.Terminal)
			_, _, serial := gear.SerialPin(conn.Terminal)
			from, fed := c.Fit.FeedOf(run.Node)
			_, onBoard := fleet.PadOf(from)
			switch {
			case !conn.Live():
			case conn.Function == gear.PinSupply && (conn.Terminal == gear.PinGround || serial) && fed && !onBoard,
				conn.Function == gear.PinGround && power,
				power && (conn.Function == gear.PinUARTRX || conn.Function == gear.PinUARTTX || conn.Function == gear.PinRCOut):
				list = append(list, fmt.Sprintf("%s: %s on %s", run.Label(), conn.Function, conn.Terminal))
			}
		}
	}
	return list
}

func TestWhatBurnsByAnotherHand(t *testing.T) {
	withoutRace(t)
	st := builds.Demo()
	lib := st.Library()
	found := map[string]int{}
	for seed := range howMany(3000) {
		f := builds.Alone(uint64(seed), lib, st.Fleet)
		for _, c := range []fleet.Case{fleet.NewCase(lib, f, &f.Quads[0]), fleet.NowCase(lib, f, &f.Quads[0])} {
			by := plainlyWrong(c)
			j := swap.Judge(c)
			for _, rule := range []struct {
				name   string
				list   []string
				gate   verdict.Gate
				danger verdict.Danger
			}{
				{"over", by.over, verdict.Power, verdict.Destroys},
				{"under", by.under, verdict.Power, verdict.Falls},
				{"short", by.short, verdict.Pins, verdict.Destroys},
			} {
				if len(rule.list) == 0 {
					continue
				}
				found[rule.name]++
				if level := j.Gate(rule.gate).Level; level == verdict.Fits || level == verdict.Caution {
					t.Errorf("seed %d: %v, and the %s gate says %s", seed, rule.list, rule.gate, level)
				}
				if rule.danger.WorseThan(j.Danger) {
					t.Errorf("seed %d: %v, and the greatest danger is %q", seed, rule.list, j.Danger)
				}
			}
		}
	}
	t.Logf("%v", found)
	for _, rule := range []string{"over", "under", "short"} {
		assert.Greater(t, found[rule], 20, rule)
	}
}
