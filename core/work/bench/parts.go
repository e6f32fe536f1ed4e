package bench

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
)

// takeOff takes today's wires off that the next wiring does not have.
func (w *writer) takeOff() {
	off := pins.TakeOff(w.Library, w.Fleet, w.Quad)
	if len(off.Wires)+len(off.Unplug) == 0 {
		return
	}
	step := Step{
		Phase:    Build,
		Title:    "Take off what does not stay",
		Do:       []string{"Pack unplugged. Mark each wire before it comes off; what is not named here stays where it is."},
		Cautions: []string{cautionPacks},
	}
	id := "off"
	for _, cable := range off.Unplug {
		step.Do = append(step.Do, "Pull "+cable+", by the plug and never by the wires.")
		id += ":" + cable
	}
	for _, wire := range off.Wires {
		which := "the wire"
		if wire.Colour != "" {
			which = "the " + wire.Colour + " wire"
		}
		step.Do = append(step.Do, fmt.Sprintf("Off %s: %s of the %s (%s).", wire.From, which, wire.Part, wire.Wire))
		id += ":" + wire.Part + ">" + wire.From
	}
	if len(off.Wires) > 0 {
		step.Tools = []string{toolIron, "tweezers"}
		step.Cautions = []string{cautionIron, cautionPacks}
	}
	if len(off.Frees) > 0 {
		step.Do = append(step.Do, "Free afterwards: "+strings.Join(off.Frees, ", ")+".")
	}
	step.ID = id
	w.add(step)
}

// insulate keeps loose ends of the next wiring from touching anything.
func (w *writer) insulate() {
	off := pins.TakeOff(w.Library, w.Fleet, w.Quad)
	if len(off.Insulate) == 0 || !w.touched() {
		return
	}
	step := Step{
		ID:        "insulate:" + strings.Join(off.Insulate, ":"),
		Phase:     Feed,
		Title:     "Insulate the ends that are joined to nothing",
		Tools:     []string{"side cutters"},
		Materials: []string{"heat-shrink"},
	}
	for _, end := range off.Insulate {
		step.Do = append(step.Do, "Fold back and shrink over "+end+".")
	}
	w.add(step)
}

// wireParts solders and plugs in the parts beside the air unit that are not wired as they
// are today, and meters each before power.
func (w *writer) wireParts() {
	for _, run := range pins.Rewired(w.Case) {
		w.wirePart(run)
	}
	w.insulate()
}

// wiredPart says whether the wires of a part beside the air unit are stated: its supply
// then goes in with them.
func (w *writer) wiredPart(node string) bool {
	for _, run := range netlist.Others(w.Case) {
		if run.Node == node {
			return run.Said()
		}
	}
	return false
}

// isNew says whether a part is not on the quad today.
func (w *writer) isNew(run *netlist.Run) bool {
	for _, was := range netlist.Others(fleet.NowCase(w.Library, w.Fleet, w.Quad)) {
		if was.Node == run.Node && was.Entry.ID == run.Entry.ID {
			return false
		}
	}
	return run.Node != fleet.NodeReceiver || w.Quad.Now.Receiver != w.Fit.Receiver
}

func (w *writer) wirePart(run *netlist.Run) {
	step := Step{
		Phase:    Feed,
		Title:    "Wire the " + run.Label(),
		Cautions: []string{"Colours lie: go by position and function."},
	}
	if w.isNew(run) {
		step.Materials = append(step.Materials, run.Label())
	}
	id := "part:" + run.Node + ":" + run.Entry.ID
	for _, line := range pins.Soldering(w.Case).Wires {
		if line.Part != run.Node {
			continue
		}
		step.Do = append(step.Do, solderLine(line))
		id += ":" + line.Wire + ">" + line.To
	}
	if len(step.Do) > 0 {
		step.Tools = []string{toolIron, "side cutters", "loupe"}
		step.Cautions = append([]string{cautionIron}, step.Cautions...)
		step.Materials = append(step.Materials, "solder", "heat-shrink")
	}
	for _, end := range run.PluggedIn() {
		step.Do = append(step.Do, fmt.Sprintf("Plug the %s into the %s.", end.Cable.Label(), end.Plug.Label()))
		if kind, ok := gear.Find[*gear.Connector](w.Library, end.Connector); ok {
			step.Do = append(step.Do, plugged(kind))
		}
		if !slices.Contains(step.Materials, end.Cable.Label()) {
			step.Materials = append(step.Materials, end.Cable.Label())
		}
		id += ":" + end.Cable.ID + ">" + end.Plug.ID
	}
	if len(step.Do) == 0 {
		return
	}
	step.ID = id
	w.add(step)
}

// meterParts asks for the meter at each part that is wired anew.
func (w *writer) meterParts() {
	for _, run := range pins.Rewired(w.Case) {
		if run.Plug == nil || len(run.Conns) == 0 {
			continue
		}
		step := Step{
			Phase: Meter,
			Title: "Meter the " + run.Label(),
			Do:    []string{"Pack unplugged, meter on continuity, at the part's own pins."},
			Tools: []string{"multimeter"},
			Reading: &Reading{Label: "all as listed", Choices: []string{"yes", "no"}, Expected: "yes",
				Wrong: "Look for a bridge, a stray strand or a wire on the wrong pad. Never connect a pack before it is found."},
		}
		// A tick stays only while the wires stay: what is soldered elsewhere is metered again.
		step.ID = "meter:" + run.Node + ":" + run.Entry.ID
		for i := range run.Conns {
			if c := &run.Conns[i]; c.Live() {
				step.ID += fmt.Sprintf(":%d>%s", c.Pin, c.Terminal)
				step.Do = append(step.Do, fmt.Sprintf("Pin %d, %s, to %s of the board: connected.", c.Pin,
					pins.PinWords(c.Function), pins.TerminalWords(w.Case, c.Terminal)))
			}
		}
		for _, p := range pins.Pairs(run.Plug) {
			if p.Danger {
				step.Do = append(step.Do, expected(p))
			}
		}
		w.add(step)
	}
}

// expected says what the meter must say of a pair.
func expected(p pins.Pair) string {
	says := "open"
	if p.Connected {
		says = "connected"
	}
	return verdict.Capital(p.Label) + ": " + says + "."
}

// works is how a part that is wired anew is seen to work (common practice).
var works = map[gear.PartSort]string{
	gear.SortGPS:          "Outdoors or at a window: the satellites on the OSD go up within minutes.",
	gear.SortBuzzer:       "Its switch makes it sound.",
	gear.SortLights:       "They light up in the order they are set to.",
	gear.SortESC:          "Each motor by its slider, props off: the right one turns, and the right way round.",
	gear.SortCamera:       "Its picture shows, the right way up.",
	gear.SortTransmitter:  "A picture shows on the channel that is set, at its lowest power.",
	gear.SortCameraSwitch: "Its switch changes the picture.",
}

// checkParts checks what each part that is wired anew does.
func (w *writer) checkParts() {
	for _, run := range pins.Rewired(w.Case) {
		does, ok := works[gear.PartSort(run.Sort)]
		if !ok || run.Node == fleet.NodeReceiver {
			continue
		}
		step := Step{
			ID:       "works:" + run.Node + ":" + run.Entry.ID,
			Phase:    Check,
			Title:    "Check that the " + run.Label() + " works",
			Do:       []string{does},
			Cautions: []string{cautionProps},
		}
		if part, ok := gear.Find[*gear.Part](w.Library, run.Entry.ID); ok {
			step.Do = append(step.Do, signs(part.Label(), w.Guide(part.Guides))...)
		}
		w.add(step)
	}
}
