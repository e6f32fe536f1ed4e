package power_test

import (
	"fmt"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/gates/power"
	"yokeswap/core/internal/sample"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
	"yokeswap/internal/outside"
)

// wired is a whole fit drawn at random: a pack that sags through its lead, a board with two
// regulators, a regulator of its own, the air unit and loads hung anywhere among them, each
// on a lead.
type wired struct {
	set  *gear.Set
	fit  fleet.Fit
	full unit.Amps
}

const ownRegulator = "reg"

func drawWired(r *rand.Rand) wired {
	between := func(low, high float64) float64 { return low + r.Float64()*(high-low) }
	lead := func() *fleet.Lead {
		return &fleet.Lead{MM: new(unit.Millimetres(between(30, 150))), AWG: new(wire.Gauge(20 + 2*r.IntN(4)))}
	}
	set := sample.Set()
	tune := func(c *gear.Converter) {
		c.ToleranceV, c.MaxA = new(unit.Volts(between(0, 0.3))), new(unit.Amps(5))
		c.DropoutV, c.Efficiency = new(unit.Volts(between(0.3, 1.5))), new(between(0.7, 0.96))
	}
	tune(&set.Boards[0].Pads[1].Converter)
	tune(&set.Boards[0].Pads[2].Converter)
	tune(&set.Regulators[0].Converter)
	set.Boards[0].Input.PeakW = new(unit.Watts(between(0.5, 2)))
	for i := range set.AirUnits {
		set.AirUnits[i].Input.PeakW = new(unit.Watts(between(3, 13)))
	}
	for i := range set.Packs {
		set.Packs[i].MilliohmPerCell = new(unit.Milliohms(between(1, 5)))
	}
	froms := []string{"pack", "board.batt", "board.10v", "board.5v", "board.cam", ownRegulator}
	w := wired{set: set, full: unit.Amps(between(5, 40)), fit: fleet.Fit{
		AirUnit:    &fleet.Slot{Model: "second"},
		Board:      "board",
		Pack:       []string{"lipo-4", "lipo-6", "liion-6"}[r.IntN(3)],
		PackLead:   &fleet.Lead{MM: new(unit.Millimetres(between(50, 120))), AWG: new(wire.Gauge(14))},
		Jumpers:    map[string]string{"cam": []string{"pack", "10v", "5v"}[r.IntN(3)]},
		Regulators: []fleet.PlacedRegulator{{ID: ownRegulator, Model: "step-down-12"}},
		Feeds: []fleet.Feed{
			{To: fleet.NodeBoard, From: fleet.NodePack, Lead: lead()},
			{To: ownRegulator, From: []string{fleet.NodePack, "board.batt"}[r.IntN(2)], Lead: lead()},
			{To: fleet.NodeAirUnit, From: froms[r.IntN(len(froms))], Lead: lead()},
		},
	}}
	for n := range r.IntN(4) {
		id := fmt.Sprintf("load%d", n)
		w.fit.Loads = append(w.fit.Loads, fleet.Load{ID: id, Name: id, Input: gear.Input{PeakW: new(unit.Watts(between(0.5, 4)))}})
		w.fit.Feeds = append(w.fit.Feeds, fleet.Feed{To: id, From: froms[r.IntN(len(froms))], Lead: lead()})
	}
	return w
}

// deck writes the fit as a circuit for ngspice: the pack's sag by the current at full
// throttle alone, as the gate has it; converters as sources that hold the lowest of their
// output, or follow their input less the dropout, and take what they hand on by their
// efficiency; parts as constant power behind their leads.
func (w wired) deck(c fleet.Case) string {
	var out strings.Builder
	line := func(format string, args ...any) { fmt.Fprintf(&out, format+"\n", args...) }
	pack, _ := c.Pack()
	cellV := map[gear.Chemistry]float64{gear.LiPo: 3.5, gear.LiIon: 3.0}[pack.Chemistry]
	sags := pack.Chemistry == gear.LiPo
	line("a whole fit")
	line("Vpack cells 0 %g", cellV*float64(*pack.Cells))
	ohms := 0.0
	if sags {
		lead, _ := w.fit.PackLead.Resistance()
		ohms = (float64(*pack.MilliohmPerCell)*float64(*pack.Cells) + float64(lead)) / 1000
	}
	line("Rpack cells sagged %g", ohms+1e-9)
	line("Ifull sagged 0 %g", float64(w.full))
	line("Epack pack 0 sagged 0 1")
	board := &w.set.Boards[0]
	convert := func(name, in string, conv *gear.Converter) {
		lowest := float64(*conv.OutV) - float64(*conv.ToleranceV)
		line("B%s %s_inner 0 V=max(min(%g, V(%s)-%g), 0.01)", name, name, lowest, in, float64(*conv.DropoutV))
		line("V%s %s_inner %s 0", name, name, name)
		line("B%s_in %s 0 I=V(%s)*I(V%s)/%g/V(%s)", name, in, name, name, *conv.Efficiency, in)
	}
	convert("pad10v", "n_board", &board.Pads[1].Converter)
	convert("pad5v", "n_board", &board.Pads[2].Converter)
	convert("regout", "n_reg", &w.set.Regulators[0].Converter)
	node := func(from string) string {
		switch from {
		case "board.cam":
			from = map[string]string{"pack": "board.batt", "10v": "board.10v", "5v": "board.5v"}[w.fit.Jumpers["cam"]]
		}
		return map[string]string{"pack": "pack", "board.batt": "n_board", "board.10v": "pad10v", "board.5v": "pad5v",
			ownRegulator: "regout"}[from]
	}
	for _, f := range w.fit.Feeds {
		ohm, _ := f.Lead.Resistance()
		line("R_%s %s n_%s %g", f.To, node(f.From), f.To, float64(ohm)/1000)
		watts := 0.0
		switch f.To {
		case fleet.NodeBoard:
			watts = float64(*board.Input.PeakW)
		case fleet.NodeAirUnit:
			watts = float64(*w.set.AirUnits[1].Input.PeakW)
		case ownRegulator:
			continue
		default:
			load, _ := w.fit.Load(f.To)
			watts = float64(*load.Input.PeakW)
		}
		line("B_%s n_%s 0 I=%g/V(n_%s)", f.To, f.To, watts, f.To)
	}
	line(".nodeset V(n_board)=12 V(n_reg)=12 V(pack)=12 V(pad10v)=10 V(pad5v)=5 V(regout)=12 V(n_airUnit)=8")
	line(".control\nop\nprint all\nquit\n.endc\n.end")
	return out.String()
}

var printed = regexp.MustCompile(`(?m)^(\S+) = (\S+)`)

// operating is ngspice's operating point of a circuit, by the names it prints.
func operating(t *testing.T, program, deck string) map[string]float64 {
	t.Helper()
	file := filepath.Join(t.TempDir(), "fit.cir")
	require.NoError(t, os.WriteFile(file, []byte(deck), 0o600))
	out, err := exec.Command(program, "-b", file).CombinedOutput()
	values := map[string]float64{}
	for _, m := range printed.FindAllStringSubmatch(string(out), -1) {
		if v, err := strconv.ParseFloat(m[2], 64); err == nil {
			values[m[1]] = v
		}
	}
	require.Contains(t, values, "pack", "%v\n%s\n%s", err, out, deck)
	return values
}

// Outside check: in 30 whole fits the lowest voltage at each part and the current of each
// rail agree with ngspice's operating point within one per cent.
func TestTheRailsAgreeWithACircuitSimulator(t *testing.T) {
	program := outside.Program(t, "ngspice")
	voltages, currents := 0, 0
	for seed := uint64(0); voltages < 100 || seed < 30; seed++ {
		w := drawWired(rand.New(rand.NewPCG(seed, 11)))
		c := sample.Case(w.set, nil, w.fit)
		c.Quad.FullA = &w.full
		path := power.Trace(c)
		is := operating(t, program, w.deck(c))
		for i := range path.Nodes {
			n := &path.Nodes[i]
			name := "n_" + strings.ToLower(n.ID)
			if n.ID == fleet.NodePack {
				name = "pack"
			}
			require.NotNil(t, n.Sees.Lowest, "seed %d %s", seed, n.ID)
			require.Contains(t, is, name)
			assert.InEpsilon(t, is[name], float64(*n.Sees.Lowest), 0.01, "seed %d: %s\n%s", seed, n.ID, w.deck(c))
			voltages++
		}
		for _, rail := range path.Rails {
			name := map[string]string{"board.10v": "vpad10v#branch", "board.5v": "vpad5v#branch", ownRegulator: "vregout#branch"}[rail.ID]
			require.NotNil(t, rail.LoadA, "seed %d %s", seed, rail.ID)
			assert.InEpsilon(t, is[name], float64(*rail.LoadA), 0.01, "seed %d: %s\n%s", seed, rail.ID, w.deck(c))
			currents++
		}
	}
	assert.Greater(t, currents, 20)
}
