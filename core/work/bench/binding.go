package bench

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/gear"
)

// bind links goggles, then controller: the other way round can drop the goggles
// (common practice). What is pressed and what lights up is each device's own.
func (w *writer) bind() {
	w.bindReceiver()
	if !w.hasAir || !w.hasGoggles {
		return
	}
	unit, goggles := w.Guide(w.airUnit.Guides), w.Guide(w.goggles.Guides)
	step := Step{
		ID:    "bind:goggles:" + w.gogglesState.KitID + ":" + w.air.Label,
		Phase: Bind,
		Title: fmt.Sprintf("Bind %s to %s", w.gogglesState.Label, w.air.Label),
		Do: []string{
			"Goggles in the right mode, then into bind" + gesture(goggles) + ".",
			"Then the unit" + gesture(unit) + ".",
		},
		Tools:    []string{"bind pin", "fan"},
		Cautions: []string{cautionHot, cautionProps},
	}
	if w.returns != nil {
		step.Do = slices.Insert(step.Do, 0, stillBound(w.gogglesState.Label, w.goggles.BoundTo))
	}
	step.Do = append(step.Do, signs(w.gogglesState.Label, goggles)...)
	step.Do = append(step.Do, signs(w.air.Label, unit)...)
	step.Do = append(step.Do, "Wait for the picture. Fan on; one device at a time.")
	w.add(step)
	if w.usesHand {
		w.bindController(unit)
	}
}

func (w *writer) bindController(unit gear.Guide) {
	controller := w.Guide(w.controller.Guides)
	step := Step{
		ID:    "bind:controller:" + w.controllerState.KitID + ":" + w.air.Label,
		Phase: Bind,
		Title: fmt.Sprintf("Bind %s to %s", w.controllerState.Label, w.air.Label),
		Do: []string{
			"Only now, after the goggles: the other way round can drop them.",
			"The controller into bind" + gesture(controller) + ".",
			"Then the unit again" + gesture(unit) + ".",
		},
		Tools:    []string{"bind pin", "fan"},
		Cautions: []string{cautionHot, cautionProps},
	}
	if w.returns != nil {
		step.Do = slices.Insert(step.Do, 0, stillBound(w.controllerState.Label, w.controller.BoundTo))
	}
	step.Do = append(step.Do, signs(w.controllerState.Label, controller)...)
	w.add(step)
}

// stillBound says of a unit that comes back whether it has to be bound at all.
func stillBound(label string, boundTo *int) string {
	switch {
	case boundTo == nil:
		return fmt.Sprintf("It has been bound before. Look first: nobody has stated whether %s stays bound to more than one "+
			"unit.", label)
	case *boundTo > 1:
		return fmt.Sprintf("It has been bound before, and %s stays bound to %d units: where the two find each other, "+
			"this is done.", label, *boundTo)
	}
	return fmt.Sprintf("%s stays bound to one unit only: it is bound at each turn.", label)
}

// bindReceiver binds a separate receiver that is new on the quad, in a step of its own.
// Its shrink waits for the check of the sticks (common practice).
func (w *writer) bindReceiver() {
	model := w.Fit.Receiver
	receiver, ok := gear.Find[*gear.Receiver](w.Library, model)
	if !ok || model == w.Quad.Now.Receiver {
		return
	}
	guide := w.Guide(receiver.Guides)
	step := Step{
		ID:       "bind:receiver:" + model,
		Phase:    Bind,
		Title:    "Bind the " + receiver.Label(),
		Do:       []string{"The receiver into bind" + gesture(guide) + "."},
		Cautions: []string{cautionProps},
	}
	step.Do = append(step.Do, signs(receiver.Label(), guide)...)
	if !w.BuiltIn() {
		step.Do = append(step.Do, "Shrink goes over it after the sticks have been checked, not before.")
	}
	w.add(step)
}

// gesture is what is pressed, and where; nothing where the device's guide does not say.
func gesture(g gear.Guide) string {
	says := ""
	if g.Bind != "" {
		says = ": " + g.Bind
	}
	if g.Button != "" {
		says += fmt.Sprintf(" (its button: %s)", g.Button)
	}
	if path := g.Menu(gear.MenuBind); path != "" {
		says += ", in the menu: " + path
	}
	if says == "" {
		return ", as its own manual has it"
	}
	return says
}

// signs are the lights to wait for.
func signs(label string, g gear.Guide) (list []string) {
	searching, linked := g.Light(gear.Searching), g.Light(gear.LinkedUp)
	switch {
	case searching != "" && linked != "":
		return []string{fmt.Sprintf("%s shows %s while it searches, %s once it is linked.", label, searching, linked)}
	case searching != "":
		return []string{fmt.Sprintf("%s shows %s while it searches.", label, searching)}
	case linked != "":
		return []string{fmt.Sprintf("%s shows %s once it is linked.", label, linked)}
	}
	return nil
}

// plugItIn says where the cable for the desktop tool goes.
func (w *writer) plugItIn(step *Step, d *gear.Device) {
	if guide := w.Guide(d.Guides); guide.USB != "" {
		step.Do = append(step.Do, "Its own USB is "+guide.USB+".")
	}
}
