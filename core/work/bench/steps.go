package bench

import (
	"fmt"
	"maps"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
	"yokeswap/core/gates/power"
	"yokeswap/core/measure/unit"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/setup"
)

// The usual cautions (common practice). They stand at the step where they
// apply.
const (
	cautionProps = "Props off, and they stay off until the maiden flight."
	cautionPacks = "Packs in a fire-safe place, never unattended while charging; never use a damaged one."
	cautionIron  = "Hot iron and fumes: stand, extraction, eye protection. Pack unplugged while soldering."
	cautionShort = "A short across a pack burns at once: use a smoke stopper or a current-limited supply for the " +
		"first plug-in."
	cautionHot = "The unit overheats without moving air: fan on it before the pack goes in, lowest power, short " +
		"runs. It gets too hot to touch."
	cautionRadio = "Screw or snap the antennas on before power. Transmit power and bands are set by your country: " +
		"keep to its limits; some powers need a licence."
	cautionCable  = "Use a data cable: charge-only cables never show the device. If a C-to-C cable does not, try A-to-C."
	cautionMetal  = "Metal chips cut and conduct: glasses, clamp it, and wipe up before the quad is near."
	cautionCarbon = "Carbon dust harms lungs and eyes and conducts: mask, glasses, drill wet, wipe it up."
	cautionFail   = "Keep hands and eyes clear: the motors can start during this check, props off."
	cautionMaiden = "Before the maiden flight: local airspace rules and registration come first; keep bystanders away."
)

// failsafeIn is what motors do when the failsafe comes in.
const failsafeIn = "as set"

// leastTravelUS is how far a stick must go from end to end: 1000 µs, less a little
// at each end (common practice; how little is from memory).
const leastTravelUS = 970

// shortOhms is the resistance a battery lead should settle above before the
// first plug-in; capacitors make it climb (the check is common practice, the
// value is from memory).
const shortOhms = 100

// writer writes the steps of one swap.
type writer struct {
	fleet.Case
	steps []Step
	// untimed are the updates that do not state how long they take.
	untimed int

	airUnit         *gear.AirUnit
	air             fleet.State
	hasAir          bool
	goggles         *gear.Goggles
	gogglesState    fleet.State
	hasGoggles      bool
	controller      *gear.Controller
	controllerState fleet.State
	usesHand        bool
	newUnit         bool       // the air unit is not on the quad yet
	returns         *fleet.Fit // as the unit came off it, where the plan brings it back; else nil
	updateOnPack    bool       // its releases only go on while it runs from a pack
}

func newWriter(c fleet.Case) *writer {
	w := &writer{Case: c}
	w.airUnit, w.air, w.hasAir = c.AirUnit()
	w.goggles, w.gogglesState, w.hasGoggles = c.Goggles()
	w.controller, w.controllerState, w.usesHand = c.Controller()
	w.usesHand = w.usesHand && c.Fit.Receiver == ""
	now := c.Quad.Now.AirUnit
	w.newUnit = w.hasAir && (now == nil || now.Kit != w.air.KitID || now.Model != c.Fit.AirUnit.Model)
	if back, ok := c.Quad.BackTo(); ok && w.newUnit && back.AirUnit != nil && back.AirUnit.Kit == w.air.KitID {
		w.returns = back
	}
	if w.hasAir {
		for _, step := range w.way(&w.airUnit.Device, w.air) {
			r, ok := w.airUnit.Release(step.To)
			w.updateOnPack = w.updateOnPack || ok && r.Install != nil && r.Install.Power == "pack"
		}
	}
	return w
}

// touched says whether anything on the quad itself is to be changed.
func (w *writer) touched() bool {
	if w.newUnit {
		return true
	}
	now, next := w.Quad.Now, *w.Fit
	for _, f := range []*fleet.Fit{&now, &next} { // what goes on in goggles and controllers is not on the quad
		f.Goggles, f.Controller, f.AirUnit, f.Features = nil, nil, nil, nil
	}
	return !reflect.DeepEqual(now, next)
}

func (w *writer) add(s Step) { w.steps = append(w.steps, s) }

// way is the steps that bring a device where the plan has it. Where nothing
// leads into the mode planned, the link gate says so, and the way is to the
// release alone.
func (w *writer) way(d *gear.Device, s fleet.State) []firmware.Step {
	goal := firmware.State{Version: s.Target, Mode: s.ToMode, Activated: s.Activated != nil && !*s.Activated}
	steps, ok := w.Library.Chart(d.ID).Way(s.Stands(), goal)
	if !ok {
		goal.Mode = ""
		steps, _ = w.Library.Chart(d.ID).Way(s.Stands(), goal)
	}
	return steps
}

func (w *writer) prepare() {
	w.add(Step{ID: "props-off", Phase: Prepare, Title: "Clear the bench, props off",
		Do: []string{
			"Take all props off.",
			"Photograph the wiring as it is now.",
			"Lay out the parts and tools of this sheet: a missing screw costs days.",
		},
		Tools:    []string{"prop tool"},
		Cautions: []string{cautionProps, cautionPacks}})
}

// firmware brings goggles, unit and controller to their releases and modes. A
// new unit that only takes its release while running from a pack has to wait
// until it is wired and metered.
func (w *writer) firmware() {
	if w.hasGoggles {
		w.updates(&w.goggles.Device, w.gogglesState, Firmware)
	}
	if w.hasAir && !(w.newUnit && w.updateOnPack) {
		w.updates(&w.airUnit.Device, w.air, Firmware)
	}
	if w.usesHand {
		w.updates(&w.controller.Device, w.controllerState, Firmware)
	}
	w.flash()
}

// updates writes the steps that bring one device where it shall be: updates,
// modes on the way and at the end, and its activation.
func (w *writer) updates(d *gear.Device, s fleet.State, phase swap.Phase) {
	key := s.KitID
	if key == "" {
		key = s.ModelID
	}
	for _, move := range w.way(d, s) {
		var step Step
		switch {
		case move.Activate:
			step = w.activate(d, s, key)
		case move.Mode != "":
			step = w.switchMode(s, key, move)
		default:
			step = w.update(d, s, key, move)
		}
		step.Phase = phase
		if s.Owned() {
			step.Reads = &DeviceStep{Kit: s.KitID, Label: s.Label, Do: "update", Release: move.To, Mode: move.Mode}
			if move.Activate {
				step.Reads.Do = "activate"
			} else if move.Mode != "" {
				step.Reads.Do = "mode"
			}
		}
		w.add(step)
	}
}

func (w *writer) activate(d *gear.Device, s fleet.State, key string) Step {
	step := Step{ID: "activate:" + key, Title: "Activate " + s.Label,
		Do: []string{
			"Activate it once with your account; steady internet. It can take a minute to show.",
			"If asked to connect another aircraft first, cancel that.",
		},
		Cautions: []string{cautionCable}}
	if len(d.Activation.Tools) > 0 {
		step.Tools = []string{strings.Join(d.Activation.Tools, " or ")}
	}
	w.plugItIn(&step, d)
	switch d.Activation.Power {
	case "pack":
		step.Do = append(step.Do, "It shows only while it runs from a flight pack.")
		step.Tools = append(step.Tools, "fan")
		step.Cautions = append(step.Cautions, cautionHot)
	case "usb":
		step.Do = append(step.Do, "It runs from USB alone: leave the pack off.")
	}
	return step
}

func (w *writer) switchMode(s fleet.State, key string, move firmware.Step) Step {
	step := Step{
		ID:    "mode:" + key + ":" + move.Mode + ":" + string(move.From),
		Title: fmt.Sprintf("Switch %s to mode %s", s.Label, w.modeName(move.Mode)),
		Do:    []string{"Switch the mode in the goggles' menu and let them restart."},
	}
	guide := w.Guide(w.goggles.Guides)
	if path := guide.Menu(move.Mode); path != "" {
		step.Do = append(step.Do, "In the menu: "+path+".")
	}
	if keeps := w.goggles.SwitchKeeps(move.FromMode, move.Mode); keeps != nil && !*keeps {
		step.Cautions = []string{"This loses the goggles' bindings: every quad flown with them must be bound again."}
	}
	return step
}

func (w *writer) modeName(id string) string {
	if w.goggles == nil {
		return id
	}
	if m, ok := w.goggles.Mode(id); ok {
		return m.Label()
	}
	return id
}

func (w *writer) update(d *gear.Device, s fleet.State, key string, move firmware.Step) Step {
	step := Step{
		ID:       "update:" + key + ":" + string(move.To),
		Title:    fmt.Sprintf("Put %s on %s", move.To, s.Label),
		Cautions: []string{cautionCable},
	}
	step.Minutes = d.UpdateMinutes
	w.plugItIn(&step, d)
	if d.UpdateMinutes == nil {
		w.untimed++
	}
	guide := w.Guide(d.Guides)
	if guide.Update != "" {
		step.Do = append(step.Do, "Meanwhile: "+guide.Update+".")
	}
	if shows := guide.Light(gear.Updating); shows != "" {
		step.Do = append(
			step.Do,
			fmt.Sprintf("It shows %s while it takes the update: leave it alone until that ends.", shows),
		)
	}
	if shows := guide.Light(gear.Faulty); shows != "" {
		step.Cautions = append(
			step.Cautions,
			fmt.Sprintf("%s means that something is wrong: go no further.", verdict.Capital(shows)),
		)
	}
	release, ok := d.Release(move.To)
	if ok && release.Install != nil {
		w.install(&step, release.Install)
	}
	step.Do = append(step.Do, fmt.Sprintf("Read the release off the device afterwards: it must say %s.", move.To))
	if move.OneWay {
		step.Cautions = append(step.Cautions,
			fmt.Sprintf("One-way door: once %s is on, nothing known puts the old release back.", move.To))
	}
	if ok && release.Note != "" {
		step.Do = append(step.Do, release.Note)
	}
	if ok && release.Advice != nil {
		step.Cautions = append(step.Cautions, release.Advice.Why)
	}
	return step
}

// install adds a release's conditions to its step.
func (w *writer) install(step *Step, in *gear.Install) {
	if len(in.Tools) > 0 {
		step.Tools = append(step.Tools, strings.Join(in.Tools, " or "))
		step.Do = append(step.Do, "Connect it and open "+strings.Join(in.Tools, " or ")+".")
	}
	step.Tools = append(step.Tools, "USB data cable")
	for _, need := range in.Needs(w.modeName(in.Mode)) {
		step.Do = append(step.Do, strings.ToUpper(need[:1])+need[1:]+".")
	}
	if in.Power == "pack" {
		step.Tools = append(step.Tools, "fan")
		step.Cautions = append(step.Cautions, cautionHot)
	}
}

// build takes the old out, puts the new in and lays the feeds that change.
func (w *writer) build() {
	w.takeOff()
	w.changeBoard()
	switch {
	case w.newUnit:
		w.replaceUnit()
	case w.hasAir:
		w.moveUnit()
		w.changeAntennas()
	}
	if w.hasAir {
		w.exchangeCamera()
	}
	w.standAntennas()
	w.holdings()
	w.feeds()
	w.jumpers()
	w.capacitor()
}

// feeds lays every feed that changes, and those of parts that are new.
func (w *writer) feeds() {
	now := &w.Quad.Now
	for _, node := range power.Trace(w.Case).Nodes {
		from, ok := w.Fit.FeedOf(node.ID)
		was, had := now.FeedOf(node.ID)
		moved := !had || was != from
		fresh := node.ID == fleet.NodeAirUnit && w.newUnit && (pins.SupplyPlugged(w.Case) || !pins.CableStays(w.Case)) ||
			node.ID == fleet.NodeReceiver && now.Receiver != w.Fit.Receiver
		if ok && node.ID != fleet.NodeBoard && (moved || fresh) && !w.wiredPart(node.ID) {
			w.add(w.feed(node, from))
		}
	}
}

func (w *writer) feed(node power.Node, from string) Step {
	step := Step{
		ID:    "feed:" + node.ID + ":" + from,
		Phase: Feed,
		Title: fmt.Sprintf("Feed the %s from %s", node.Label, node.From),
	}
	if node.ID == fleet.NodeAirUnit && pins.SupplyPlugged(w.Case) {
		step.Do = []string{"Its supply comes through the cable: nothing is soldered. Check supply and ground of both plugs " +
			"against the board's own marking before they go together."}
		step.Tools = []string{"loupe"}
		return step
	}
	step.Do = []string{
		"Tin wire and pad first, leave a little slack for a second try, tie the wires where they cannot reach a prop.",
		"Supply and ground only at this step; check both against the board's own marking.",
	}
	step.Tools = []string{toolIron, "side cutters"}
	step.Materials = []string{"solder", "silicone wire", "heat-shrink"}
	step.Cautions = []string{cautionIron}
	if placed, isRegulator := w.Fit.Regulator(from); isRegulator {
		step.Materials = append(step.Materials, w.Library.Label(placed.Model))
		step.Do = append(step.Do, "Wire the regulator's input and output the right way round, and insulate it.")
	}
	return step
}

// jumpers sets the solder jumpers: the inverters the wiring needs, and the pads.
func (w *writer) jumpers() {
	asItIs := func(set fleet.Jumper) bool {
		return w.Quad.Now.Jumpers[set.Pad] == set.Choice && w.Quad.Now.Board == w.Fit.Board
	}
	for _, set := range pins.InverterJumpers(w.Case) {
		if w.rewired() && !asItIs(set) {
			w.jumper(set, "the inverter of "+strings.ToUpper(set.Pad[:2])+" "+set.Pad[2:])
		}
	}
	for _, pad := range slices.Sorted(maps.Keys(w.Fit.Jumpers)) {
		set := fleet.Jumper{Pad: pad, Choice: w.Fit.Jumpers[pad]}
		if _, sends, serial := gear.SerialPin(pad); serial && !sends || asItIs(set) {
			continue // an inverter's stand above
		}
		w.jumper(set, "the solder jumper of pad "+pad, "A wrong jumper puts pack voltage on a 5 V part.")
	}
}

func (w *writer) jumper(set fleet.Jumper, what string, cautions ...string) {
	w.add(Step{
		ID:    "jumper:" + set.Pad + ":" + set.Choice,
		Phase: Feed,
		Title: fmt.Sprintf("Set %s to %s", what, set.Choice),
		Do: []string{
			"Clear the old bridge with wick, then bridge the other side.",
			"Look at it under a loupe: one bridge only.",
		},
		Tools:    []string{toolIron, "solder wick"},
		Cautions: append([]string{cautionIron}, cautions...),
	})
}

// capacitor solders the electrolytic, also one of the same size and another rating.
func (w *writer) capacitor() {
	was, is := change.Capacitor(&w.Quad.Now), change.Capacitor(w.Fit)
	if is == "" || is == was {
		return
	}
	step := Step{
		ID:    "capacitor",
		Phase: Feed,
		Title: fmt.Sprintf("Solder a %s across the battery leads", is),
		Do: []string{
			"As close to the board as it goes, short legs, the stripe on the negative lead.",
			"Its voltage rating must lie well above a full pack.",
		},
		Tools:     []string{toolIron},
		Materials: []string{is, "solder"},
		Cautions:  []string{cautionIron, "The wrong way round it bursts: check the polarity twice."},
	}
	if was != "" {
		step.Do = slices.Insert(step.Do, 0, "Take the old one off.")
	}
	w.add(step)
}

// meter asks for readings before the first plug-in.
func (w *writer) meter() {
	if !w.hasAir {
		return
	}
	from, _ := w.Fit.FeedOf(fleet.NodeAirUnit)
	w.add(Step{ID: "meter-short:" + from, Phase: Meter, Title: "Meter across the battery leads: no short",
		Do: []string{
			"Pack unplugged. Meter on ohms across the battery plug, red on plus.",
			"Wait until the reading stops climbing: capacitors charge through the meter.",
		},
		Tools:    []string{"multimeter"},
		Cautions: []string{cautionShort},
		Reading: &Reading{
			Label:    "settled resistance",
			Unit:     "Ω",
			Min:      new(float64(shortOhms)),
			Expected: fmt.Sprintf("above %d Ω", shortOhms),
		}})
	for _, node := range power.Trace(w.Case).Nodes {
		if node.ID != fleet.NodeAirUnit || node.MinV == nil || node.MaxV == nil {
			continue
		}
		reading := &Reading{
			Label: "voltage at the unit's supply wire",
			Unit:  "V",
			Min:   float(node.MinV),
			Max:   float(node.MaxV),
		}
		reading.Expected = fmt.Sprintf("within %s to %s", node.MinV, node.MaxV)
		if node.Sees.Full != nil {
			reading.Expected = fmt.Sprintf("%s or a little less, never outside %s to %s", node.Sees.Full, node.MinV, node.MaxV)
		}
		w.add(Step{
			ID:    "meter-supply:" + from + ":" + w.Fit.Pack,
			Phase: Meter,
			Title: "Meter the supply before the unit is plugged in",
			Do: []string{
				fmt.Sprintf("The %s stays unplugged. Connect a full pack through the smoke stopper.", w.airUnit.Label()),
				"Meter on DC volts between the unit's supply wire and ground.",
				"Unplug the pack again.",
			},
			Tools:     []string{"multimeter", "smoke stopper"},
			Materials: []string{w.Library.Label(w.Fit.Pack)},
			Cautions:  []string{cautionShort},
			Reading:   reading,
		})
	}
}

// unitPlug is the connector at the unit, empty where it has none.
func (w *writer) unitPlug() string {
	if run, ok := netlist.AirUnit(w.Case); ok && run.Plug != nil {
		return run.Plug.Connector
	}
	return ""
}

// powerUp is the first plug-in, and the updates that had to wait for it.
func (w *writer) powerUp() {
	if !w.hasAir {
		return
	}
	from, _ := w.Fit.FeedOf(fleet.NodeAirUnit)
	step := Step{ID: "power-up:" + from + ":" + w.Fit.Pack, Phase: Power, Title: "First power-up, with a fan on the unit",
		Do: []string{
			"Antennas on, fan running, unit plugged in.",
			"Pack through the smoke stopper. Watch and smell; unplug at once if anything gets hot that should not.",
			"Set the lowest transmit power for the bench.",
		},
		Tools: []string{"fan", "smoke stopper"}, Materials: []string{w.Library.Label(w.Fit.Pack)},
		Cautions: []string{cautionHot, cautionRadio, cautionShort}, RunSeconds: w.airUnit.BenchSecondsNoAir}
	if r := w.airUnit.Radio; r != nil && r.BenchMW != nil {
		step.Do[2] = fmt.Sprintf("Set %s for the bench.", r.BenchMW)
	}
	if w.hasGoggles {
		if guide := w.Guide(w.goggles.Guides); guide.Menu(gear.MenuPower) != "" {
			step.Do[2] += " In the goggles' menu: " + guide.Menu(gear.MenuPower) + "."
		}
	}
	if kind, ok := gear.Find[*gear.Connector](w.Library, w.unitPlug()); ok && w.rewired() {
		step.Do = slices.Insert(step.Do, 1, "The unit's plug, "+plugged(kind))
	}
	w.add(step)
	if w.newUnit && w.updateOnPack {
		w.updates(&w.airUnit.Device, w.air, Power)
	}
}

func (w *writer) check() {
	if w.hasAir && w.hasGoggles {
		w.add(Step{
			ID:       "check:picture",
			Phase:    Check,
			Title:    "Check the picture",
			Do:       []string{"A clear picture in the goggles, the right way up.", "Antennas and plugs still tight."},
			Cautions: []string{cautionHot},
		})
	}
	w.checkHeat()
	w.checkBoard()
	w.setUp()
	if turn := w.Fit.BoardTurned(); turn != 0 {
		w.add(Step{
			ID:    fmt.Sprintf("check:yaw:%s", turn),
			Phase: Check,
			Title: fmt.Sprintf("Set the board's yaw alignment to %s", turn),
			Do: []string{"The flight board is turned for access: set the alignment, then tilt the quad by hand and see " +
				"that the horizon follows."},
			Cautions: []string{cautionProps},
		})
	}
	if w.Fit.Board != "" {
		w.checkSticks()
		w.checkVoltage()
	}
	w.add(Step{
		ID:       WeighStep,
		Phase:    Check,
		Title:    "Close the frame and weigh it",
		Do:       []string{"Screws, antenna plugs, wires tied. Weigh it as it flies."},
		Tools:    []string{"scale"},
		Cautions: []string{cautionMaiden},
		Reading:  &Reading{Label: "all-up weight", Unit: "g", Min: new(1.0), Expected: "what the scale says"},
	})
}

// checkSticks checks sticks, switches and the failsafe.
func (w *writer) checkSticks() {
	w.add(Step{ID: SticksStep, Phase: Check, Title: "Check every stick and switch",
		Do: []string{
			"Every stick to both ends, the right way round; every switch on its mode. The flight board's screen here shows " +
				"it live.",
			"Note how far the shortest of the four sticks goes.",
		},
		Cautions: []string{cautionFail, cautionProps},
		Reading: &Reading{
			Label:    "shortest travel of the four sticks",
			Unit:     "µs",
			Min:      new(float64(leastTravelUS)),
			Expected: "1000, and no less than " + strconv.Itoa(leastTravelUS),
		}})
	w.add(Step{
		ID:    FailsafeStep,
		Phase: Check,
		Title: "Test the failsafe",
		Do: []string{
			"Props off. Arm as far as it lets you, then switch the controller off.",
			"The failsafe must come in, as it is set: motors off, or the way home; and the goggles say so.",
		},
		Cautions: []string{cautionFail, cautionProps},
		Reading: &Reading{Label: "what the motors did", Expected: failsafeIn, Choices: []string{failsafeIn, "ran on"},
			Wrong: "Unplug it. Set what the board does without the sticks, and what the receiver sends then; it must not fly."},
	})
}

func float(v *unit.Volts) *float64 {
	if v == nil {
		return nil
	}
	return new(float64(*v))
}

// setUp lists what of the flight board and in the goggles is to be set anew.
func (w *writer) setUp() {
	plan := setup.PlanOf(w.Case)
	step := Step{
		ID:       "set-up",
		Phase:    Check,
		Title:    "Set up the flight board and the goggles",
		Tools:    []string{"USB data cable"},
		Cautions: []string{cautionFail, cautionProps, cautionCable},
	}
	for _, r := range plan.Rows {
		if !r.Same {
			step.Do = append(step.Do, fmt.Sprintf("%s: %s, %s.", strings.ToUpper(r.Label[:1])+r.Label[1:], r.Wanted, r.Why))
		}
	}
	if len(step.Do) > 0 {
		step.Do = append([]string{"Keep the board's settings first. The flight board's screen here reads it, shows what " +
			"differs and can set it."},
			step.Do...)
	}
	if len(plan.Goggles) > 0 && (w.newUnit || len(step.Do) > 0) {
		for _, setting := range plan.Goggles {
			says := "In the goggles: " + setting.Says
			if setting.Menu != "" {
				says += " (" + setting.Menu + ")"
			}
			step.Do = append(step.Do, says+".")
		}
	}
	if len(step.Do) > 0 {
		w.add(step)
	}
}

// checkVoltage asks whether the OSD's data flows: the battery's voltage, as it is
// read in the goggles, must be one the pack can have.
func (w *writer) checkVoltage() {
	for _, node := range power.Trace(w.Case).Nodes {
		if node.ID == fleet.NodeBoard && w.hasAir && node.Sees.Full != nil && node.Sees.Lowest != nil {
			w.add(Step{ID: VoltageStep, Phase: Check, Title: "Read the battery in the goggles",
				Do: []string{
					"The voltage on screen is the flight board's: where it shows and is right, the OSD's data flows.",
				},
				Cautions: []string{cautionHot},
				Reading: &Reading{
					Label:    "battery voltage on screen",
					Unit:     "V",
					Min:      float(node.Sees.Lowest),
					Max:      float(node.Sees.Full),
					Expected: fmt.Sprintf("%s to %s", node.Sees.Lowest, node.Sees.Full),
				}})
		}
	}
}
