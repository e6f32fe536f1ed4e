package route

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Back is the way back: to what each device carried before the route.
type Back struct {
	Says  string   `json:"says"`
	Doors []string `json:"doors"` // what does not open again; named before the first step
	Steps []Step   `json:"steps"`
	Lanes []Lane   `json:"lanes"` // who can fly after each step
}

// Homes is where each device stood before the first step taken of it.
func Homes(taken []fleet.Taken) map[string]firmware.State {
	homes := map[string]firmware.State{}
	for _, t := range taken {
		if _, seen := homes[t.Kit]; !seen && !t.NotOffered {
			homes[t.Kit] = firmware.State{Version: t.From, Mode: t.FromMode}
		}
	}
	return homes
}

// NotOffered is the releases found not to be offered, by kit id; what was read
// on a device later is offered after all.
func NotOffered(taken []fleet.Taken) map[string][]firmware.Version {
	list := map[string][]firmware.Version{}
	for _, t := range taken {
		if t.NotOffered {
			list[t.Kit] = append(list[t.Kit], t.Planned)
		} else if t.Read.Known() {
			list[t.Kit] = slices.DeleteFunc(list[t.Kit], func(v firmware.Version) bool { return v.Compare(t.Read) == 0 })
		}
	}
	return list
}

// WayBack leads from what the fleet carries now to where the devices stood
// before (activation stays). The order strands as few quads as can be, as on
// the way out.
func WayBack(r Request, homes map[string]firmware.State) (Back, error) {
	r, err := r.withTurns()
	if err != nil {
		return Back{}, err
	}
	p, err := prepare(r)
	if err != nil {
		return Back{}, err
	}
	w := newWriter(r, p, solution{})
	w.home = homes
	for key, d := range w.devices {
		w.at[key] = d.current
		if home, ok := homes[key]; ok {
			w.at[key] = home.Version
		}
	}
	back := Back{Doors: []string{}}
	back.Steps, _ = w.steps()
	for _, d := range w.strangers() {
		back.Steps = append(back.Steps, w.chainOf(d).steps...)
	}
	for _, d := range append(w.everyDevice(), w.strangers()...) {
		if door := w.door(d); door != "" {
			back.Doors = append(back.Doors, door)
		}
	}
	back.Lanes = w.lanes(back.Steps)
	back.Says = back.sentence()
	return back, r.gone()
}

// homeward is the way from where a device stands to its home; none is needed
// where it never left.
func (w *writer) homeward(d *device) ([]firmware.Step, bool) {
	home, left := w.home[d.key]
	if !left {
		return nil, true
	}
	if !home.Version.Known() {
		return nil, !d.stands.Version.Known()
	}
	return d.chart.Way(d.stands, firmware.State{Version: home.Version, Mode: home.Mode})
}

// door says why a device cannot be brought home; empty where it can.
func (w *writer) door(d *device) string {
	if _, ok := w.homeward(d); ok {
		return ""
	}
	home := w.home[d.key]
	if !home.Version.Known() {
		return d.label + ": what it carried before is not known"
	}
	return fmt.Sprintf("%s: nothing known leads back from %s to %s", d.label, d.stands.Version, home.Version)
}

// strangers are devices that left home and take part in nothing wanted now.
func (w *writer) strangers() []*device {
	var list []*device
	for i := range w.Fleet.Kit {
		kit := &w.Fleet.Kit[i]
		_, left := w.home[kit.ID]
		if _, known := w.devices[kit.ID]; known || !left {
			continue
		}
		item, _ := w.Library.Item(kit.Model)
		if linked, ok := item.(gear.Linked); ok {
			s := fleet.State{
				KitID:     kit.ID,
				ModelID:   kit.Model,
				Label:     kit.Label(),
				Read:      kit.Firmware,
				Current:   kit.Firmware,
				Mode:      kit.Mode,
				Activated: kit.Activated,
			}
			d := w.device(linked.AsDevice(), s, string(item.Kind()))
			list = append(list, &d)
		}
	}
	return list
}

func (b *Back) sentence() string {
	var says []string
	switch n := len(b.Steps); n {
	case 0:
		says = append(says, "Nothing is to be put back")
	case 1:
		says = append(says, "One step leads back")
	default:
		says = append(says, fmt.Sprintf("%d steps lead back", n))
	}
	switch n := len(b.Doors); n {
	case 0:
	case 1:
		says = append(says, "one door does not open again")
	default:
		says = append(says, fmt.Sprintf("%d doors do not open again", n))
	}
	return strings.Join(says, "; ") + "."
}

// After is a request once steps have been taken, and where each device they
// touch stands today.
func After(r Request, steps []Step) (Request, map[string]firmware.State, error) {
	r, err := r.withTurns()
	if err != nil {
		return r, nil, err
	}
	p, err := prepare(r)
	if err != nil {
		return r, nil, err
	}
	f, homes := newWriter(r, p, solution{}).after(steps)
	r.Fleet = fleet.NewIndex(f)
	return r, homes, nil
}

func (w *writer) after(steps []Step) (*fleet.Fleet, map[string]firmware.State) {
	homes, ends := map[string]firmware.State{}, w.moved(steps)
	f := *w.Fleet.Fleet
	f.Kit = slices.Clone(f.Kit)
	for i := range f.Kit {
		kit := &f.Kit[i]
		if end, moved := ends[kit.ID]; moved {
			homes[kit.ID] = w.devices[kit.ID].stands
			kit.Firmware, kit.Mode, kit.Activated = end.Version, end.Mode, &end.Activated
		}
	}
	return &f, homes
}

// moved is where the devices that steps touch stand at the end.
func (w *writer) moved(steps []Step) map[string]firmware.State {
	ends := map[string]firmware.State{}
	for key, at := range byDevice(steps) {
		if d, ok := w.devices[key]; ok {
			own := make([]Step, len(at))
			for i, k := range at {
				own[i] = steps[k]
			}
			ends[key] = w.ends(d, own)
		}
	}
	return ends
}

// doors are the devices nothing brings back from the end of the steps.
func (w *writer) doors(steps []Step) []string {
	doors, ends, homes := []string{}, w.moved(steps), map[string]firmware.State{}
	for _, d := range w.everyDevice() {
		end, left := ends[d.key]
		if !left || !w.owns(d) {
			continue
		}
		homes[d.key] = d.stands
		moved := *d
		moved.stands = firmware.State{Version: end.Version, Mode: end.Mode}
		if door := (&writer{home: homes}).door(&moved); door != "" {
			doors = append(doors, door)
		}
	}
	return doors
}

// owns says whether a device is a piece of kit, and not what is still to be bought.
func (w *writer) owns(d *device) bool {
	_, ok := w.Fleet.Piece(d.key)
	return ok
}
