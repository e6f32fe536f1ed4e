package bench

import (
	"fmt"
	"math"
	"reflect"
	"slices"
	"strings"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/gates/mount"
)

// replaceUnit takes the old unit out and puts the new one in.
func (w *writer) replaceUnit() {
	old, _, hadOld := fleet.NowCase(w.Library, w.Fleet, w.Quad).AirUnit()
	title := "Take out the analog camera and transmitter"
	if hadOld {
		title = "Take out the " + old.Label()
	}
	if hadOld || w.Quad.Now.Analog != "" {
		w.add(Step{ID: "remove", Phase: Build, Title: title,
			Do: w.removal(), Tools: []string{"hex drivers", "tweezers"}, Cautions: w.removalCautions()})
	}
	w.prepareFrame()
	step := Step{ID: fitting + w.air.Label, Phase: Build, Title: "Put the " + w.airUnit.Label() + " into the frame",
		Do: []string{
			cardIn(w.Guide(w.airUnit.Guides)),
			"Camera and antennas on; leave USB and bind button within reach until the end.",
		},
		Tools: []string{"hex drivers"}, Materials: []string{w.airUnit.Label()}, Mates: w.air.KitID}
	if w.returns != nil && !fleet.MovesOver(&w.Quad.Now, w.Fit) {
		step.Mates = ""
		step.Do[1] = "Its camera and antennas are on it still: see that the plugs sit. Leave USB and bind button within " +
			"reach."
	}
	step.Do = append(step.Do, w.opened()...)
	if hidden := mount.Hidden(w.Case); len(hidden) > 0 {
		step.Do = append(step.Do,
			fmt.Sprintf("Once the frame is closed, %s cannot be reached: leave it open until the unit is updated, activated "+
				"and bound.",
				strings.Join(hidden, ", ")))
	}
	w.screwDown(&step)
	w.add(step)
}

// removal is how the old video comes off. A unit that comes back keeps its antennas on:
// each time their plugs go on and off wears them.
func (w *writer) removal() []string {
	if _, inTurn := w.Quad.TurnFit(w.Quad.NextTurn); !inTurn || fleet.MovesOver(&w.Quad.Now, w.Fit) {
		return []string{"Unplug the pack.", "Take off the antennas, lift the plug's latch, and note where each wire went."}
	}
	return []string{
		"Unplug the pack.",
		"Its camera and antennas stay on it. Lift the plug's latch and pull the plug, never the wires.",
		"What comes off with it goes into one bag with it, marked with the quad's name: it comes back together.",
	}
}

// opened says how the unit's case is opened, where its antenna plugs are reached.
func (w *writer) opened() []string {
	if guide := w.Guide(w.airUnit.Guides); guide.Open != "" {
		return []string{"Where its case has to be opened for the antenna plugs: " + guide.Open + "."}
	}
	return nil
}

// cardIn says when the memory card goes in, and where.
func cardIn(g gear.Guide) string {
	if g.Card == "" {
		return "Memory card, if it takes one, in before the frame is closed."
	}
	return "Memory card in before the frame is closed: " + g.Card + "."
}

// removalCautions are those of taking the old video out: an iron only where it is
// soldered in.
func (w *writer) removalCautions() []string {
	now := w.Quad.Now
	if now.Analog == "" && now.HarnessTo != "" && len(now.Wires) == 0 {
		return []string{cautionPacks}
	}
	return []string{cautionIron}
}

// otherBoard says whether the plan exchanges the flight board. Where it is not stated
// what the quad has today, what it shall have is taken to be on it.
func (w *writer) otherBoard() bool {
	now := &w.Quad.Now
	return w.Fit.Board != "" && w.Fit.Board != now.Board && (now.Board != "" || now.Without(fleet.NoBoard))
}

// changeBoard is another flight board: out with the old, in with the new, set up from
// factory state.
func (w *writer) changeBoard() {
	if !w.otherBoard() {
		return
	}
	is := w.Fit.Board
	label := w.Library.Label(is)
	do := []string{
		"Unplug the pack. Note how the motor wires and the cable to the ESCs lie, and which way the arrow points.",
		"Lift the old board off; it goes into the drawer.",
	}
	w.add(Step{
		ID:    "board:" + is,
		Phase: Build,
		Title: "Fit the " + label,
		Do: append(do,
			"Set the new one in, its arrow to the front or turned as planned, on soft mounts where it had them.",
			"Check the order of the wires in the ESC cable against the board's own marking before it is plugged in, and that "+
				"the motor wires are long enough."),
		Tools:     []string{"hex drivers", toolIron, "loupe"},
		Materials: []string{label},
		Cautions:  []string{cautionIron, cautionProps},
	})
}

// checkBoard checks what a new flight board does before it ever arms.
func (w *writer) checkBoard() {
	if !w.otherBoard() {
		return
	}
	w.add(Step{ID: "board-up:" + w.Fit.Board, Phase: Check, Title: "Set the new flight board up from factory state",
		Do: []string{
			"It knows nothing of this quad: ports, receiver, modes, failsafe, OSD, craft name and yaw alignment are set " +
				"anew, none of the old board's settings fit unseen.",
			"Level the accelerometer on a flat bench. Tilt the quad by hand: the horizon must follow.",
			"Props off: turn each motor alone and see that it is the right one and turns the right way.",
		},
		Tools: []string{"USB data cable"}, Cautions: []string{cautionFail, cautionProps, cautionCable}})
}

// moveUnit puts a unit that stays on the quad into its other place.
func (w *writer) moveUnit() {
	now, next := w.Quad.Now.Mounting, w.Fit.Mounting
	if now.Frame == next.Frame && now.Bay == next.Bay && now.Plate == next.Plate && now.Drill == next.Drill &&
		now.Standoff == next.Standoff && reflect.DeepEqual(now.StandoffCutMM, next.StandoffCutMM) {
		return
	}
	w.prepareFrame()
	step := Step{
		ID:    fmt.Sprintf("seat:%s:%s:%s", next.Frame, next.Bay, next.Plate),
		Phase: Build,
		Title: "Move the " + w.airUnit.Label() + " to its new place",
		Do:    []string{"Unplug the pack. Free the camera cable and the antenna leads before the screws."},
		Tools: []string{"hex drivers"},
	}
	w.screwDown(&step)
	w.add(step)
}

// exchangeCamera puts another camera on the unit in place of its own, or its own again.
func (w *writer) exchangeCamera() {
	is := w.Fit.Camera
	if is == w.Quad.Now.Camera || w.newUnit && is == "" {
		return
	}
	step := Step{
		ID:    "camera:" + is,
		Phase: Build,
		Title: "Put its own camera back on the " + w.airUnit.Label(),
		Do: []string{
			"Unplug the pack. Lift the camera's plug straight up, never by its cable.",
			"Snap the other one on straight until it seats. Lay its cable in a wide bow: it must not be bent hard.",
			"Look at the picture before the frame is closed.",
		},
		Tools:    []string{"hex drivers", "tweezers"},
		Cautions: []string{cautionPacks},
	}
	if is != "" {
		step.Title = fmt.Sprintf("Put the %s on the %s", w.Library.Label(is), w.airUnit.Label())
		step.Materials = []string{w.Library.Label(is)}
	}
	w.add(step)
}

// prepareFrame drills new holes, cuts standoffs and puts other ones in.
func (w *writer) prepareFrame() {
	pic := mount.Draw(w.Case)
	if pic.Drilled && !w.Quad.Now.Drill {
		w.add(Step{
			ID:    "drill:" + w.Fit.Bay + ":" + pic.Holds,
			Phase: Build,
			Title: "Drill four holes of " + pic.Holds + " into the " + pic.Bay,
			Do: []string{
				"Everything electric out of the frame or covered: carbon dust conducts.",
				"Mark it with the unit itself, tape over the spot, wood behind it.",
				"A small hole first, then the size of the screw, slowly, wet. Clean up and break the edges.",
			},
			Tools:    []string{"drill", "centre punch"},
			Cautions: []string{cautionCarbon},
		})
	}
	w.cutStandoffs()
	if on := w.Fit.Standoff; on != "" && on != w.Quad.Now.Standoff {
		w.add(Step{
			ID:    "standoffs:" + on,
			Phase: Build,
			Title: "Change the standoffs for " + w.Library.Label(on),
			Do: []string{
				"One at a time, so that the frame keeps its shape.",
				"Look at each wire and cable afterwards: what they carry lies at another height now.",
			},
			Tools:     []string{"hex drivers"},
			Materials: []string{fmt.Sprintf("%d × %s", mount.StandoffCount(w.Case), w.Library.Label(on))},
		})
	}
}

// cutStandoffs cuts those that go on, or those the frame has.
func (w *writer) cutStandoffs() {
	cut, long, now := w.Fit.StandoffCutMM, w.WholeStandoffMM(), w.Quad.Now.Mounting
	if now.Standoff == w.Fit.Standoff && now.Frame == w.Fit.Frame && now.StandoffCutMM != nil {
		long = now.StandoffCutMM
	}
	if cut == nil || long != nil && *long == *cut {
		return
	}
	w.add(Step{
		ID:    fmt.Sprintf("cut:%s:%s", w.Fit.Standoff, cut),
		Phase: Build,
		Title: fmt.Sprintf("Cut %d standoffs to %s", mount.StandoffCount(w.Case), cut),
		Do: []string{
			"Off the quad, and away from open electronics: the chips conduct.",
			"A screw in the end that stays, a nut on it as a stop; saw, then file all of them to one length, square.",
			"Break the edge, run a screw into the cut end: it takes a diameter of thread at least, or it is not used.",
			"Measure each of them before it goes on.",
		},
		Tools:    []string{"fine saw", "file", "caliper", "vice"},
		Cautions: []string{cautionMetal},
		Reading: &Reading{Label: "the longest less the shortest", Unit: "mm", Max: new(0.1),
			Expected: "no more than 0.1 mm"},
	})
}

// screwDown adds what holds the unit, and how the camera is to look.
func (w *writer) screwDown(step *Step) {
	pic := mount.Draw(w.Case)
	if plan := pic.Screw; plan != nil {
		screws := plan.Label
		if chosen, ok := w.Screw(); ok {
			screws = chosen.Label()
		}
		if screws != "" {
			step.Materials = append(step.Materials, fmt.Sprintf("%d × %s", fleet.UnitScrews, screws))
			step.Do = append(step.Do,
				fmt.Sprintf("Screws of %s: a longer one than %s drives into the circuit board.", screws, plan.MostMM))
		}
	}
	if w.Fit.Washer != "" {
		step.Materials = append(step.Materials, fmt.Sprintf("%d × %s", fleet.UnitScrews, w.Library.Label(w.Fit.Washer)))
		step.Do = append(step.Do, "A washer under each head: without it the screw is too long.")
	}
	if w.Fit.Plate != "" {
		step.Materials = append(step.Materials, w.Library.Label(w.Fit.Plate))
		step.Do = append(step.Do, "The plate goes onto the frame first, on screws and nuts of its own; then the unit onto "+
			"the plate.")
	}
	if frame, ok := w.Frame(); ok {
		for _, p := range frame.Plates {
			if w.Fit.Off(p.ID) {
				step.Do = append(step.Do, "The "+p.Label()+" stays off.")
			}
		}
	}
	for _, f := range mount.Fixings(w.Case) {
		step.Materials = append(step.Materials, fmt.Sprintf("%d × %s", f.Count, f.Label))
	}
	if camera := w.Camera(); camera.Camera != nil && camera.Screw != "" {
		step.Do = append(step.Do,
			fmt.Sprintf("The camera takes %s screws, no longer than the thread in its case.", camera.Screw))
	}
	if tilt := w.Fit.TiltDeg; tilt != nil {
		does := fmt.Sprintf("Camera up by %s.", tilt)
		if pic.Tilt != nil && pic.Tilt.UpDeg < 90 {
			does += fmt.Sprintf(" Past %.0f° it touches %s, and the recording shakes.", math.Floor(float64(pic.Tilt.UpDeg)),
				pic.Tilt.Touches)
		}
		step.Do = append(step.Do, does)
	}
}

// changeAntennas puts other antennas on a unit that stays.
func (w *writer) changeAntennas() {
	now, next := w.Quad.Now.Antennas, w.Fit.Antennas
	if next == nil || now != nil && slices.Equal(now.Models, next.Models) && now.Adapter == next.Adapter {
		return
	}
	parts := slices.Clone(next.Models)
	if next.Adapter != "" {
		parts = append(parts, next.Adapter)
	}
	step := Step{
		ID:    "antennas:" + strings.Join(parts, "+"),
		Phase: Build,
		Title: "Change the antennas of the " + w.airUnit.Label(),
		Do: []string{"Unplug the pack.", "Lift the old plugs straight up, close to the plug, never by the lead.",
			"Press or screw the new ones on straight until they seat, then clip or glue the leads."},
		Tools:    []string{"tweezers"},
		Cautions: []string{cautionRadio},
		Mates:    w.air.KitID,
	}
	step.Do = append(step.Do, w.opened()...)
	for _, id := range parts {
		step.Materials = append(step.Materials, w.Library.Label(id))
	}
	w.add(step)
}

// standAntennas puts the antennas where the plan has them.
func (w *writer) standAntennas() {
	now, next := w.Quad.Now.Antennas, w.Fit.Antennas
	if next == nil || len(next.Stands) == 0 || now != nil && slices.Equal(now.Stands, next.Stands) {
		return
	}
	step := Step{ID: "stand-antennas", Phase: Build, Title: "Stand the antennas", Tools: []string{"tape measure"},
		Cautions: []string{cautionRadio}}
	for i := range next.Stands[:min(len(next.Stands), len(next.Models))] {
		step.Do = append(step.Do, fmt.Sprintf("Antenna %d, %s: its foot %s.", i+1, w.Library.Label(next.Models[i]),
			next.Stands[i].Words()))
	}
	step.Do = append(step.Do, "No lead is bent hard or pinched under a plate; nothing stands where a propeller turns.")
	w.add(step)
}

// holdings is a step for each part that comes to be held in another way than by its screws.
func (w *writer) holdings() {
	for _, h := range w.HeldParts() {
		if was, had := w.Quad.Now.HoldingOf(h.Part); h.Way == fleet.HeldByScrews || had && reflect.DeepEqual(was, h.Stated) {
			continue
		}
		step := Step{
			ID:        strings.TrimSuffix("hold:"+h.Part+":"+string(h.Way)+":"+h.Bracket, ":"),
			Phase:     Build,
			Title:     "Hold " + h.Label + " by " + h.Words(),
			Materials: []string{h.Wants()},
			Do:        mount.HowToHold(h.Hold),
		}
		if h.Screws != nil && *h.Screws > 0 {
			screw := "screws"
			if h.Screw != "" {
				screw = w.Library.Label(h.Screw)
			}
			step.Materials = append(step.Materials, fmt.Sprintf("%d × %s", *h.Screws, screw))
			step.Tools = []string{"hex drivers"}
		}
		step.Do = append(step.Do, "Pull at it from each side: nothing moves, no lead is pinched, the camera and every plug "+
			"are free.")
		if h.Awaits != "" {
			step.Do = append(step.Do, "This is a stop-gap until this comes: "+h.Awaits+". It stays on the quad's gates until "+
				"then.")
		}
		w.add(step)
	}
}

// checkHeat tries how hot a unit gets that does not lie in the wind.
func (w *writer) checkHeat() {
	if !w.hasAir || w.Fit.Air == "" || w.Fit.Air == fleet.AirOpen {
		return
	}
	step := Step{
		ID:    "check:heat:" + string(w.Fit.Air),
		Phase: Check,
		Title: "Try how hot the unit gets, closed up",
		Do: []string{
			"The frame closed as it flies, antennas on, the lowest power, no fan. Stay beside it with a hand near the plug.",
			"Read its case after a minute, or as long as it may run so; unplug at once if it smells or the picture goes.",
			"Let it cool, and try again with a fan before you open anything up.",
		},
		Tools:      []string{"thermometer"},
		Cautions:   []string{cautionHot, cautionRadio},
		RunSeconds: w.airUnit.BenchSecondsNoAir,
		Reading: &Reading{
			Label:    "its case",
			Unit:     "°C",
			Max:      new(hottestC),
			Expected: fmt.Sprintf("%.0f at most, by common practice", hottestC),
		},
	}
	w.add(step)
}

// hottestC is how hot a unit's case may get on the bench, in degrees Celsius: it lowers its power
// from about there (common practice; the value is from memory).
const hottestC = 80.0
