package fleet

// UnitScrews is how many screws hold an air unit (common practice).
const UnitScrews = 4

// HeaderModels are the headers of all cables of a fit.
func (f *Fit) HeaderModels() []string {
	list := f.Wiring.models()
	if f.ReceiverCable != nil {
		list = append(list, f.ReceiverCable.models()...)
	}
	for i := range f.Parts {
		list = append(list, f.Parts[i].models()...)
	}
	return list
}

// Loose counts the loose parts of a fit by model: what comes out of the drawer
// when it is built, and goes back when it is taken apart. Standoffs are not
// counted: how many there are is the frame's affair.
func (f *Fit) Loose() map[string]int {
	parts := map[string]int{}
	add := func(model string, n int) {
		if model != "" {
			parts[model] += n
		}
	}
	addAll := func(models []string) {
		for _, model := range models {
			add(model, 1)
		}
	}
	for _, r := range f.Regulators {
		add(r.Model, 1)
	}
	for _, p := range f.Parts {
		add(p.Model, 1)
		addAll(p.Harnesses())
	}
	add(f.Receiver, 1)
	if f.ReceiverCable != nil {
		addAll(f.ReceiverCable.Harnesses())
	}
	addAll(f.HeaderModels())
	add(f.Board, 1)
	addAll(f.Cable().Harnesses())
	add(f.Plate, 1)
	add(f.Camera, 1)
	add(f.Screw, UnitScrews)
	add(f.Washer, UnitScrews)
	for _, h := range f.Holdings {
		add(h.Bracket, 1)
	}
	if a := f.Antennas; a != nil {
		for _, model := range a.Models {
			add(model, 1)
		}
		add(a.Adapter, len(a.Models)) // one for each antenna
	}
	return parts
}
