package format

import (
	"slices"
	"strconv"
	"strings"
	"time"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/gates/power"
	"yokeswap/core/measure/unit"
)

// checkSet finds what a schema cannot say of a gear pack.
func checkSet(s *gear.Set) Problems {
	var ps Problems
	seen := map[string]string{}
	for _, list := range s.Lists() {
		for i, item := range list.Items {
			path := indexed(list.Name, i)
			once(&ps, seen, path+".id", item.Head().ID)
			checkItem(&ps, path, item)
		}
	}
	return ps
}

// checkItem finds what a schema cannot say of an entry of gear.
func checkItem(ps *Problems, path string, item gear.Item) {
	switch g := item.(type) {
	case *gear.AirUnit:
		checkDevice(ps, path, &g.Device)
		checkInput(ps, path+".input", g.Input)
		checkPlug(ps, path, g.Plug, g.Outline)
		if g.OSD != nil {
			checkRange(ps, path+".osd.canvas", g.OSD.Canvas)
		}
	case *gear.Goggles:
		checkDevice(ps, path, &g.Device, g.Modes...)
		checkModes(ps, path, g)
		checkRange(ps, path+".canvas", g.Canvas)
	case *gear.Controller:
		checkDevice(ps, path, &g.Device)
	case *gear.Regulator:
		checkInput(ps, path+".input", g.Input)
		checkConverter(ps, path, &g.Converter)
	case *gear.Board:
		checkInput(ps, path+".input", g.Input)
		checkPads(ps, path, g)
		checkSerial(ps, path, g)
		checkBoardOutline(ps, path, g)
	case *gear.Antenna:
		checkAntenna(ps, path, g)
	case *gear.Part:
		checkInput(ps, path+".input", g.Input)
		checkPlug(ps, path, g.Plug, g.Outline, gear.PinGround, gear.PinSpare)
	case *gear.Receiver:
		checkInput(ps, path+".input", g.Input)
		checkPlug(ps, path, g.Plug, g.Outline, gear.PinGround, gear.PinSpare)
		checkEnds(ps, path, g.FromMHz, g.ToMHz)
	case *gear.BandPlan:
		checkChannels(ps, path, g)
	case *gear.FlightFirmware:
		checkFlightFirmware(ps, path, g)
	case *gear.Frame:
		checkRoom(ps, path, g)
	case *gear.Harness:
		checkHarness(ps, path, g)
	case *gear.Pairing:
		checkPairing(ps, path, g)
	}
	checkDeals(ps, path, item.Head())
	checkOpen(ps, path, item)
}

func checkChannels(ps *Problems, path string, plan *gear.BandPlan) {
	ids := map[string]bool{}
	for n, c := range plan.Channels {
		if ids[c.ID] {
			ps.add(path+"."+indexed("channels", n)+".id", "channel %s stands already", c.ID)
		}
		ids[c.ID] = true
	}
}

func once(ps *Problems, seen map[string]string, path, id string) {
	if first, twice := seen[id]; twice {
		ps.add(path, "the id %q stands already at %s; ids are unique in a file", id, first)
		return
	}
	seen[id] = path
}

func checkInput(ps *Problems, path string, in gear.Input) {
	if in.FromCells != nil && in.ToCells != nil && *in.FromCells > *in.ToCells {
		ps.add(path, "fromCells %d is above toCells %d: the window's ends are swapped", *in.FromCells, *in.ToCells)
	}
	if in.FromCells != nil && in.MinV != nil || in.ToCells != nil && in.MaxV != nil {
		ps.add(path, "an end is stated in volts and in cells: state the volts")
	}
	if in.MinV != nil && in.MaxV != nil && *in.MinV > *in.MaxV {
		ps.add(path, "minV %s is above maxV %s: the window's ends are swapped", in.MinV, in.MaxV)
	}
	if in.AbsoluteMaxV != nil && in.MaxV != nil && *in.AbsoluteMaxV < *in.MaxV {
		ps.add(path+".absoluteMaxV", "%s is below maxV %s: a short peak may reach more than the window, not less",
			in.AbsoluteMaxV, in.MaxV)
	}
	if in.TypicalW != nil && in.PeakW != nil && *in.TypicalW > *in.PeakW {
		ps.add(path, "typicalW %s is above peakW %s", in.TypicalW, in.PeakW)
	}
}

// checkAntenna finds bands that stand twice or have their ends swapped, and a pattern
// out of order.
func checkAntenna(ps *Problems, path string, a *gear.Antenna) {
	seen := map[gear.Band]bool{}
	for i, b := range a.Bands {
		at := path + "." + indexed("bands", i)
		if seen[b.Band] {
			ps.add(at+".band", "%s stands already", b.Band)
		}
		seen[b.Band] = true
		checkEnds(ps, at, b.FromMHz, b.ToMHz)
		outside(ps, at+".fromMHz", b.FromMHz, b.Band)
		outside(ps, at+".toMHz", b.ToMHz, b.Band)
	}
	for i, point := range a.Pattern {
		if i > 0 && point.OffDeg <= a.Pattern[i-1].OffDeg {
			ps.add(path+"."+indexed("pattern", i)+".offDeg",
				"%s does not come after %s: a pattern goes from 0 to 180°, each once", point.OffDeg, a.Pattern[i-1].OffDeg)
		}
	}
}

// outside finds a frequency that is nowhere near the bands it is said to be of.
func outside(ps *Problems, path string, f *unit.Megahertz, bands ...gear.Band) {
	if f == nil {
		return
	}
	for _, b := range bands {
		if low, high, ok := b.Ends(); ok && *f >= low*0.9 && *f <= high*1.1 {
			return
		}
	}
	words := make([]string, len(bands))
	for i, b := range bands {
		words[i] = b.String()
	}
	ps.add(path, "%s lies outside %s", f, strings.Join(words, " and "))
}

func checkEnds(ps *Problems, path string, from, to *unit.Megahertz) {
	if from != nil && to != nil && *from >= *to {
		ps.add(path+".fromMHz", "%s is not below %s: the band's ends are swapped", from, to)
	}
}

// checkConverter finds a regulator that could never give its output.
func checkConverter(ps *Problems, path string, c *gear.Converter) {
	if c.OutV != nil && c.ToleranceV != nil && unit.Over(*c.ToleranceV, *c.OutV*power.WorstTolerance) {
		ps.add(path+".toleranceV", "%s is more than a tenth of %s: no regulator is off by that much", c.ToleranceV, c.OutV)
	}
	switch {
	case c.OutV == nil:
	case c.Topology == gear.StepDown && c.Input.MaxV != nil && *c.OutV >= *c.Input.MaxV:
		ps.add(path+".outV", "a step-down cannot give %s from an input of %s at most: that takes a step-up or buck-boost",
			c.OutV, c.Input.MaxV)
	case c.Topology == gear.StepUp && c.Input.MinV != nil && *c.OutV <= *c.Input.MinV:
		ps.add(path+".outV", "a step-up cannot give %s from an input of %s at least: that takes a step-down or buck-boost",
			c.OutV, c.Input.MinV)
	}
}

func checkRange(ps *Problems, path string, r firmware.Range) {
	if _, err := firmware.ParseRange(string(r)); err != nil {
		ps.add(path, "%s", err)
	}
}

func checkDevice(ps *Problems, path string, d *gear.Device, modes ...gear.Mode) {
	if d.Activation != nil {
		checkRange(ps, path+".activation.firmware", d.Activation.Firmware)
	}
	for i, r := range d.Releases {
		at := path + "." + indexed("releases", i)
		checkRange(ps, at+".from", r.From)
		if later, loops := loop(d, r); loops {
			ps.add(at+".from", "the chain loops: %s goes on only after %s, which comes after it", r.Version, later)
		}
		if in := r.Install; in != nil && in.Mode != "" && !slices.ContainsFunc(modes, func(m gear.Mode) bool {
			return m.ID == in.Mode
		}) {
			ps.add(at+".install.mode", "expected a mode of these goggles, %q is none", in.Mode)
		}
		for k, other := range d.Releases[:i] {
			if other.Version.Compare(r.Version) == 0 {
				ps.add(at+".version", "release %s stands already as release %d", r.Version, k)
			}
		}
		for k, back := range r.RollbackTo {
			if back.Compare(r.Version) >= 0 {
				ps.add(at+"."+indexed("rollbackTo", k), "a rollback leads to an older release; %s is not older than %s", back,
					r.Version)
			}
		}
	}
}

// loop finds a release that goes on over later releases only.
func loop(d *gear.Device, r gear.Release) (later firmware.Version, loops bool) {
	if r.From.IsAny() {
		return "", false
	}
	for _, other := range d.Releases {
		switch c := other.Version.Compare(r.Version); {
		case !r.From.Holds(other.Version):
		case c < 0:
			return "", false
		case c > 0 && !loops:
			later, loops = other.Version, true
		}
	}
	return later, loops
}

func checkModes(ps *Problems, path string, g *gear.Goggles) {
	seen := map[string]string{}
	for i, m := range g.Modes {
		at := path + "." + indexed("modes", i)
		once(ps, seen, at+".id", m.ID)
		checkRange(ps, at+".firmware", m.Firmware)
	}
	for i, sw := range g.ModeSwitch {
		at := path + "." + indexed("modeSwitch", i)
		for _, end := range [][2]string{{".from", sw.From}, {".to", sw.To}} {
			if _, ok := seen[end[1]]; !ok {
				ps.add(at+end[0], "expected a mode of these goggles, %q is none", end[1])
			}
		}
	}
}

func checkPads(ps *Problems, path string, b *gear.Board) {
	seen := map[string]string{}
	for i := range b.Pads {
		once(ps, seen, path+"."+indexed("pads", i)+".id", b.Pads[i].ID)
	}
	for i := range b.Pads {
		p := &b.Pads[i]
		at := path + "." + indexed("pads", i)
		checkInput(ps, at+".input", p.Input)
		checkConverter(ps, at, &p.Converter)
		for k, choice := range p.Choices {
			target, ok := b.Pad(choice)
			if choice != fleet.NodePack && (!ok || target.Kind == gear.PadJumper) {
				ps.add(at+"."+indexed("choices", k), `expected "pack" or a pad of this board that is no jumper, %q is neither`,
					choice)
			}
		}
		if p.Default != "" && !slices.Contains(p.Choices, p.Default) {
			ps.add(at+".default", "expected one of the choices, %q is none", p.Default)
		}
		if target, ok := b.Pad(p.SameAs); p.SameAs != "" && (!ok || target.Kind == gear.PadSame || target == p) {
			ps.add(at+".sameAs", "expected another pad of this board that has its own rail, %q is none", p.SameAs)
		}
		if p.Kind == gear.PadJumper && len(p.Choices) == 0 {
			ps.add(at+".choices", "a jumper pad needs its choices")
		}
	}
}

func checkPairing(ps *Problems, path string, p *gear.Pairing) {
	checkRange(ps, path+".airFirmware", p.AirFirmware)
	checkRange(ps, path+".gogglesFirmware", p.GogglesFirmware)
	for i, c := range p.Controllers {
		checkRange(ps, path+"."+indexed("controllers", i)+".firmware", c.Firmware)
	}
	if p.Untested && (p.Never || len(p.Features) > 0 || p.Limits != nil || len(p.Controllers) > 0) {
		ps.add(path+".untested", "what nobody has tried says nothing of how it links")
	}
	if p.Never && !(p.AirFirmware.IsAny() && p.GogglesFirmware.IsAny()) {
		ps.add(path+".never", "never means whatever the firmware; leave the ranges out")
	}
}

// checkFleet finds what a schema cannot say of a fleet file; there is what it comes into,
// nil where it stands alone.
func checkFleet(f *fleet.Fleet, there *stock.Stock) Problems {
	var ps Problems
	pieces, quads, spares := map[string]string{}, map[string]string{}, map[string]string{}
	for i, s := range f.Spares {
		once(&ps, spares, indexed("spares", i)+".model", s.Model)
	}
	for i, k := range f.Kit {
		once(&ps, pieces, indexed("kit", i)+".id", k.ID)
	}
	for i := range f.Quads {
		q := &f.Quads[i]
		checkOutings(&ps, indexed("quads", i), q)
		path := indexed("quads", i)
		once(&ps, quads, path+".id", q.ID)
		checkFit(&ps, path+".now", &q.Now)
		if q.Next != nil {
			checkFit(&ps, path+".next", q.Next)
		}
		checkTurns(&ps, path, q)
	}
	ps = append(ps, Document{Fleet: f}.checkFleetNames(there)...)
	checkWants(&ps, f)
	checkRates(&ps, f)
	checkScenarios(&ps, f)
	checkCourses(&ps, f)
	checkTasks(&ps, f)
	for i, t := range f.Taken {
		if _, err := time.Parse(time.RFC3339, t.At); err != nil {
			ps.add(indexed("taken", i)+".at", "expected a time such as 2026-11-20T18:30:00Z, got %q", t.At)
		}
	}
	return ps
}

// checkTurns checks the fits a quad carries in turn, and that the one planned is one of them.
func checkTurns(ps *Problems, path string, q *fleet.Quad) {
	turns := map[string]string{}
	for i := range q.InTurn {
		at := path + "." + indexed("inTurn", i)
		once(ps, turns, at+".id", q.InTurn[i].ID)
		checkFit(ps, at+".fit", &q.InTurn[i].Fit)
	}
	switch _, there := turns[q.NextTurn]; {
	case q.NextTurn == "":
	case !there:
		ps.add(path+".nextTurn", "expected a fit in inTurn, %q is none", q.NextTurn)
	case q.Next == nil:
		ps.add(path+".nextTurn", "nothing is planned: there is no next")
	}
}

func checkWants(ps *Problems, f *fleet.Fleet) {
	if f.By != "" {
		if _, err := time.Parse(time.DateOnly, f.By); err != nil {
			ps.add("by", "%s is no day of the calendar", f.By)
		}
	}
	type link struct{ quad, turn, goggles string }
	seen := map[link]int{}
	for i, w := range f.Wants {
		path := indexed("wants", i)
		if first, twice := seen[link{w.Quad, w.Turn, w.Goggles}]; twice {
			ps.add(path, "%s with %s is wanted already at wants[%d]", w.Quad, w.Goggles, first)
		}
		seen[link{w.Quad, w.Turn, w.Goggles}] = i
		if quad, ok := f.Quad(w.Quad); ok && w.Turn != "" {
			if _, has := quad.TurnFit(w.Turn); !has {
				ps.add(path+".turn", "%s has no fit %q in turn", quad.Label(), w.Turn)
			}
		}
	}
}

func checkFit(ps *Problems, path string, f *fleet.Fit) {
	for i, none := range f.None {
		if none == fleet.NoBoard && f.Board != "" || none == fleet.NoReceiver && f.Receiver != "" ||
			none == fleet.NoController && f.Controller != nil || none == fleet.NoAnalog && f.Analog != "" {
			ps.add(path+"."+indexed("none", i), "%s is stated here, and that there is none", none)
		}
	}
	checkFlight(ps, path, &f.Flight)
	checkCable(ps, path, new(f.Cable()))
	nodes := map[string]string{fleet.NodeAirUnit: "", fleet.NodeReceiver: "", fleet.NodeBoard: ""}
	for i, r := range f.Regulators {
		once(ps, nodes, path+"."+indexed("regulators", i)+".id", r.ID)
	}
	for i, l := range f.Loads {
		once(ps, nodes, path+"."+indexed("loads", i)+".id", l.ID)
		checkInput(ps, path+"."+indexed("loads", i)+".input", l.Input)
	}
	for i := range f.Parts {
		once(ps, nodes, path+"."+indexed("parts", i)+".id", f.Parts[i].ID)
		checkCable(ps, path+"."+indexed("parts", i), &f.Parts[i].Cable)
	}
	checkHoldings(ps, path, f)
	checkLies(ps, path, f)
	if f.ReceiverCable != nil {
		checkCable(ps, path+".receiverCable", f.ReceiverCable)
		if f.Receiver == "" {
			ps.add(path+".receiverCable", "no receiver is named that is wired with it")
		}
	}
	fed := map[string]bool{}
	for i, feed := range f.Feeds {
		at := path + "." + indexed("feeds", i)
		if _, ok := nodes[feed.To]; !ok {
			ps.add(at+".to", "expected airUnit, receiver, board, or the id of a load, part or regulator of this fit, %q is none",
				feed.To)
		}
		if fed[feed.To] {
			ps.add(at+".to", "%s is fed twice", feed.To)
		}
		fed[feed.To] = true
		_, isPad := fleet.PadOf(feed.From)
		_, isRegulator := f.Regulator(feed.From)
		if feed.From != fleet.NodePack && !isPad && !isRegulator {
			ps.add(at+".from", "expected pack, board.<pad>, or the id of a regulator of this fit, %q is none", feed.From)
		}
	}
	if loop := f.Cycle(); loop != nil {
		ps.add(path+".feeds", "a loop in what is fed from what: %s", strings.Join(loop, " ← "))
	}
}

func indexed(list string, i int) string { return list + "[" + strconv.Itoa(i) + "]" }
