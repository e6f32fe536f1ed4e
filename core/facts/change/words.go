// Package change says what a patch does to a fit, in words and in what it costs.
//
// The words of a fix, of a feed and of a pick are made here from the patch itself,
// by holding the fit before against the fit after, so that what is said and what is
// done cannot differ.
package change

import (
	"cmp"
	"fmt"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// Words says what a patch changes: "put 2.3 on new Two and switch Visor C to mode
// Third". It is empty where the patch changes nothing.
func Words(c fleet.Case, p fleet.Patch) string {
	d := differ{before: c, after: c.With(p)}
	d.devices()
	d.parts()
	d.supply()
	d.wiring()
	d.antennas()
	d.mounting()
	d.flight()
	return And(d.does)
}

// And joins what is done: "A, B and C".
func And(list []string) string {
	if len(list) < 2 {
		return strings.Join(list, "")
	}
	return strings.Join(list[:len(list)-1], ", ") + " and " + list[len(list)-1]
}

// differ holds two fits of one quad against each other.
type differ struct {
	before, after fleet.Case
	does          []string
}

func (d *differ) say(text string, args ...any) { d.does = append(d.does, fmt.Sprintf(text, args...)) }

func (d *differ) label(id string) string { return d.after.Library.Label(id) }

func (d *differ) devices() {
	_, unitWas, hadUnit := d.before.AirUnit()
	_, unit, hasUnit := d.after.AirUnit()
	d.device(unitWas, unit, hadUnit, hasUnit, "fit %s", "the air unit")
	_, gogglesWas, hadGoggles := d.before.Goggles()
	goggles, worn, hasGoggles := d.after.Goggles()
	d.device(gogglesWas, worn, hadGoggles, hasGoggles, "fly it with %s", "the goggles")
	if hasGoggles && worn.ToMode != worn.Mode && (worn.ToMode != gogglesWas.ToMode || worn.KitID != gogglesWas.KitID) {
		mode := worn.ToMode
		if m, ok := goggles.Mode(mode); ok {
			mode = m.Label()
		}
		d.say("switch %s to mode %s", worn.Label, mode)
	} else if hasGoggles && worn.KitID == gogglesWas.KitID && worn.ToMode != gogglesWas.ToMode {
		d.say("leave %s in its mode", worn.Label)
	}
	_, handWas, hadHand := d.before.Controller()
	_, hand, hasHand := d.after.Controller()
	d.device(handWas, hand, hadHand, hasHand, "fly it with %s", "the controller")
}

// device says what becomes of one slot.
func (d *differ) device(was, is fleet.State, had, has bool, fit, what string) {
	switch {
	case had && !has:
		d.say("take %s out of the plan", what)
		return
	case !has:
		return
	case !had || was.KitID != is.KitID || was.ModelID != is.ModelID:
		d.say(fit, is.Label)
	case was.Target.Compare(is.Target) == 0:
		return
	case !is.Updating():
		d.say("leave %s on %s", is.Label, is.Current)
	}
	if is.Updating() {
		d.say("put %s on %s", is.Target, is.Label)
	}
}

func (d *differ) parts() {
	was, is := d.before.Fit, d.after.Fit
	if was.Receiver != is.Receiver {
		d.named(is.Receiver, "fit the %s for the sticks", "take the separate receiver off")
	}
	if was.Board != is.Board {
		d.named(is.Board, "fit the %s", "take the flight board out")
	}
	if was.Pack != is.Pack {
		d.named(is.Pack, "fly it on the %s", "leave the pack open")
	}
	switch before, after := Capacitor(was), Capacitor(is); {
	case before == after:
	case after == "":
		d.say("take the capacitor off the battery leads")
	default:
		d.say("solder a %s across the battery leads", after)
	}
}

// Capacitor names the electrolytic of a fit, with its rating where that is stated; it
// is empty where there is none. Two that read the same are the same.
func Capacitor(f *fleet.Fit) string {
	if f.CapacitorUF == nil {
		return ""
	}
	words := f.CapacitorUF.String()
	if f.CapacitorV != nil {
		words += " " + strings.TrimSuffix(f.CapacitorV.String(), ".0 V")
		words = strings.TrimSuffix(words, " V") + " V"
	}
	return words + " low-ESR capacitor"
}

func (d *differ) named(id, puts, takes string) {
	if id == "" {
		d.say("%s", takes)
		return
	}
	d.say(puts, d.label(id))
}

func (d *differ) supply() {
	was, is := d.before.Fit, d.after.Fit
	for _, feed := range is.Feeds {
		if _, isRegulator := is.Regulator(feed.To); isRegulator {
			continue
		}
		from, _ := was.FeedOf(feed.To)
		model, before := placedModel(is, feed.From), placedModel(was, from)
		if from != feed.From || model != before {
			d.say("feed the %s from %s", Node(d.after, feed.To), Source(d.after, feed.From))
		}
	}
	for _, feed := range was.Feeds {
		_, still := is.FeedOf(feed.To)
		if _, isRegulator := was.Regulator(feed.To); !still && !isRegulator && is.Has(feed.To) {
			d.say("take the feed of the %s away", Node(d.before, feed.To))
		}
	}
	board, ok := gear.Find[*gear.Board](d.after.Library, is.Board)
	if !ok {
		return
	}
	for i := range board.Pads {
		pad := &board.Pads[i]
		if choice := is.Jumpers[pad.ID]; choice != "" && choice != was.Jumpers[pad.ID] {
			d.say("set the solder jumper of the %s to %s", pad.Label(), padWords(board, choice))
		}
	}
	for _, u := range board.UARTs {
		name := fleet.InverterJumper(u.ID)
		if choice := is.Jumpers[name]; choice != "" && choice != was.Jumpers[name] {
			d.say("set the inverter jumper of RX %d to %s", u.ID, choice)
		}
	}
}

func placedModel(f *fleet.Fit, id string) string {
	if r, ok := f.Regulator(id); ok {
		return r.Model
	}
	return ""
}

func padWords(b *gear.Board, choice string) string {
	if pad, ok := b.Pad(choice); ok {
		return "the " + pad.Label()
	}
	return choice
}

// Node names a part that is fed.
func Node(c fleet.Case, node string) string {
	switch node {
	case fleet.NodePack:
		return c.Library.Label(c.Fit.Pack)
	case fleet.NodeBoard:
		return c.Library.Label(c.Fit.Board)
	case fleet.NodeReceiver:
		return c.Library.Label(c.Fit.Receiver)
	case fleet.NodeAirUnit:
		if unit, _, ok := c.AirUnit(); ok {
			return unit.Label()
		}
		return "air unit"
	}
	if load, ok := c.Fit.Load(node); ok {
		return load.Label()
	}
	if part, ok := c.Fit.Part(node); ok {
		return c.Library.Label(part.Model)
	}
	if placed, ok := c.Fit.Regulator(node); ok {
		return c.Library.Label(placed.Model)
	}
	return node
}

// Source names what something is fed from: a pad, the pack, a regulator.
func Source(c fleet.Case, from string) string {
	if from == fleet.NodePack {
		return "the pack, direct"
	}
	if id, isPad := fleet.PadOf(from); isPad {
		if board, ok := c.Board(); ok {
			return padWords(board, id)
		}
	}
	if placed, ok := c.Fit.Regulator(from); ok {
		words := "the " + c.Library.Label(placed.Model)
		if in, fed := c.Fit.FeedOf(from); fed && in != fleet.NodePack {
			words += ", itself on " + Source(c, in)
		}
		return words
	}
	return from
}

// standing is how antennas are to stand, as far as it is said.
func standing(a *fleet.Antennas) string {
	var list []string
	if a.AngleDeg != nil {
		list = append(list, a.AngleDeg.String()+" apart")
	}
	if a.CarbonMM != nil {
		list = append(list, a.CarbonMM.String()+" from carbon")
	}
	return cmp.Or(strings.Join(list, " and "), "as is not said")
}

func (d *differ) antennas() {
	was, is := d.before.Fit.Antennas, d.after.Fit.Antennas
	if is == nil {
		return
	}
	if was != nil && slices.Equal(was.Models, is.Models) && was.Adapter == is.Adapter {
		switch {
		case !slices.Equal(was.Stands, is.Stands):
			d.say("stand the antennas otherwise")
		case was != nil && standing(was) != standing(is):
			d.say("stand the antennas %s", standing(is))
		case !reflect.DeepEqual(was, is):
			d.say("note how the antennas stand")
		}
		return
	}
	models, through := Antennas(d.after.Library, is)
	d.say("put %s on %s%s", models, Node(d.after, fleet.NodeAirUnit), through)
}

// Antennas are those of a unit as they are read, "1 × A and 1 × B", and what they go on through,
// " through the C"; empty: nothing.
func Antennas(lib *gear.Library, a *fleet.Antennas) (models, through string) {
	var list []string
	for i, m := range a.Models {
		if slices.Index(a.Models, m) == i {
			list = append(list, fmt.Sprintf("%d × %s", a.Count(m), lib.Label(m)))
		}
	}
	if a.Adapter != "" {
		through = " through the " + lib.Label(a.Adapter)
	}
	return And(list), through
}

func (d *differ) mounting() {
	was, is := d.before.Fit.Mounting, d.after.Fit.Mounting
	frame, _ := gear.Find[*gear.Frame](d.after.Library, is.Frame)
	if is.Bay != was.Bay || is.Frame != was.Frame {
		bay := is.Bay
		if frame != nil {
			if b, ok := frame.Bay(is.Bay); ok {
				bay = b.Label()
			}
		}
		d.say("put it into the %s", bay)
	}
	if is.Drill != was.Drill {
		d.say("%s", map[bool]string{true: "drill four new holes", false: "drill no holes"}[is.Drill])
	}
	if is.Plate != was.Plate {
		d.named(is.Plate, "put the %s between", "leave the adapter plate out")
	}
	// With another seat the screw is picked anew: no word is lost on that.
	stays := is.Bay == was.Bay && is.Frame == was.Frame && is.Plate == was.Plate && is.Drill == was.Drill
	if is.Screw != was.Screw && (stays || is.Screw != "") {
		d.named(is.Screw, "use %s", "pick the screw from the box")
	}
	if is.Washer != was.Washer && (stays || is.Washer != "") {
		d.named(is.Washer, "put %s under the heads", "leave the washers out")
	}
	if is.Standoff != was.Standoff {
		d.standoffs(frame, is.Standoff)
	}
	amount(d, was.StandoffCutMM, is.StandoffCutMM, "cut the standoffs to %s", "leave the standoffs whole")
	if is.Camera != was.Camera {
		d.named(is.Camera, "put the %s on", "leave the unit its own camera")
	}
	d.plates(frame)
	d.holdings()
	d.places()
	amount(d, was.SoftMM, is.SoftMM, "put soft mounts of %s under it", "leave the soft mounts out")
	amount(d, was.TiltDeg, is.TiltDeg, "tilt the camera by %s", "leave the tilt of the camera open")
	amount(d, was.PropMM, is.PropMM, "fly with propellers of %s", "leave the size of the propellers open")
	if is.Air != was.Air || !reflect.DeepEqual(is.MetalUnder, was.MetalUnder) {
		d.say("note what cools the air unit")
	}
	amount(d, was.BoardTurnDeg, is.BoardTurnDeg, "turn the flight board by %s", "turn the flight board back to its arrow")
}

// plates says which plates of the frame come off or on.
func (d *differ) plates(frame *gear.Frame) {
	label := func(id string) string {
		if frame != nil {
			if p, ok := frame.Plate(id); ok {
				return p.Label()
			}
		}
		return id
	}
	was, is := d.before.Fit.LeftOff, d.after.Fit.LeftOff
	for _, id := range is {
		if !slices.Contains(was, id) {
			d.say("leave the %s off", label(id))
		}
	}
	for _, id := range was {
		if !slices.Contains(is, id) {
			d.say("put the %s on", label(id))
		}
	}
}

// places says which parts lie somewhere else than before.
func (d *differ) places() {
	for _, is := range d.after.Fit.Places {
		was, had := d.before.Fit.PlaceOf(is.Part)
		label, _ := d.after.PartLabel(is.Part)
		label = cmp.Or(label, is.Part)
		switch {
		case !had || was.XMM != is.XMM || was.YMM != is.YMM || was.ZMM != is.ZMM:
			d.say("put %s %s", label, is.Words())
		case was != is:
			d.say("turn %s by %s", label, unit.Degrees(90*(is.Quarters-was.Quarters)))
		}
	}
	for _, was := range d.before.Fit.Places {
		if _, still := d.after.Fit.PlaceOf(was.Part); !still {
			label, _ := d.before.PartLabel(was.Part)
			d.say("leave open where %s lies", cmp.Or(label, was.Part))
		}
	}
}

// holdings says what of the parts is held otherwise than before.
func (d *differ) holdings() {
	for _, h := range d.after.HeldParts() {
		was, had := d.before.HoldingOf(h.Part)
		switch {
		case !had || was.Words() != h.Words():
			d.say("hold %s by %s", h.Label, h.Words())
		case !reflect.DeepEqual(was, h.Hold):
			d.say("note how %s is held", h.Label)
		}
	}
	for _, h := range d.before.HeldParts() {
		_, still := d.after.Fit.HoldingOf(h.Part)
		if _, there := d.after.PartLabel(h.Part); there && !still {
			d.say("hold %s by its own screws", h.Label)
		}
	}
}

func (d *differ) standoffs(frame *gear.Frame, model string) {
	if model == "" {
		d.say("keep the frame's own standoffs")
		return
	}
	n := 4
	if frame != nil {
		n = frame.StandoffCount()
	}
	d.say("take %d × %s", n, d.label(model))
}

// amount says what becomes of a quantity that may be left out.
func amount[Q interface {
	comparable
	fmt.Stringer
}](d *differ, was, is *Q, sets, takes string) {
	switch {
	case is == nil && was != nil:
		d.say("%s", takes)
	case is != nil && (was == nil || *was != *is):
		d.say(sets, *is)
	}
}

func (d *differ) flight() {
	was, is := d.before.Fit.Flight, d.after.Fit.Flight
	if is.Runs != nil && (was.Runs == nil || *was.Runs != *is.Runs) {
		d.say("flash %s %s onto the board", d.label(is.Runs.ID), is.Runs.Version)
	}
	if is.OSD != nil && !reflect.DeepEqual(was.OSD, is.OSD) {
		d.layout(was.OSD, is.OSD)
	}
	if is.Sticks != nil && !reflect.DeepEqual(was.Sticks, is.Sticks) {
		d.sticks(was.Sticks, is.Sticks)
	}
}

func (d *differ) layout(was, is *fleet.Layout) {
	switch {
	case was == nil:
		d.say("lay %s out in the OSD, on %s", Count(len(is.Elements), "element"), is.Grid.Words())
		return
	case was.Grid != is.Grid:
		d.say("put the layout onto %s", is.Grid.Words())
	default:
		d.say("move what overlaps in the OSD layout")
	}
	if left := len(was.Elements) - len(is.Elements); left > 0 {
		d.say("leave %s out", Count(left, "element"))
	}
}

func (d *differ) sticks(was, is *fleet.Sticks) {
	if was == nil {
		was = &fleet.Sticks{}
	}
	if is.Unit != was.Unit || is.Board != was.Board {
		if is.Unit == is.Board {
			d.say("set goggles and flight board to %s", is.Unit)
		} else {
			d.say("set the goggles to %s and the flight board to %s", is.Unit, is.Board)
		}
	}
	if !reflect.DeepEqual(is.MinUS, was.MinUS) || !reflect.DeepEqual(is.MaxUS, was.MaxUS) {
		d.say("set the end points to %s and %s", stated(is.MinUS), stated(is.MaxUS))
	}
	if is.Order != was.Order {
		d.say("set the channels to the order %s", is.Order)
	}
	for _, s := range is.Switches {
		if !slices.Contains(was.Switches, s) {
			d.say("put %s on AUX %d from %d to %d", strings.ReplaceAll(s.Mode, "-", " "), s.Aux, s.FromUS, s.ToUS)
		}
	}
	for _, s := range was.Switches {
		if !slices.ContainsFunc(is.Switches, func(o fleet.Switch) bool { return o.Mode == s.Mode }) {
			d.say("take %s off its switch", strings.ReplaceAll(s.Mode, "-", " "))
		}
	}
}

func stated(us *int) string {
	if us == nil {
		return "what they are"
	}
	return strconv.Itoa(*us)
}

// Count says how many of a thing there are: "1 crimp", "4 crimps".
func Count(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

// Grams prints a mass that is added: "+6.4 g".
func Grams(g unit.Grams) string { return "+" + g.String() }
