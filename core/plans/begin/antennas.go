package begin

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
)

// AntennaPick is antennas that could be on a piece of kit, a whole set.
type AntennaPick struct {
	Key   string `json:"key"`
	Label string `json:"label"`
	Note  string `json:"note,omitempty"`
}

// keyBox picks what comes in the box.
const keyBox = "box"

// AntennaPicks are the antennas that could be on a piece of kit, as many of one model as it has
// plugs: those that come in its box, those that are described, those of the shelf; not those
// whose plug is stated and does not go on. None where it is not stated how many it has.
func AntennaPicks(lib *gear.Library, shelf *gear.Set, kit *fleet.Kit) (list []AntennaPick) {
	port := portOf(lib, kit.Model)
	if port == nil || port.Antennas == nil || *port.Antennas == 0 {
		return nil
	}
	if boxed := lib.BoxedAntennas(kit.Model); len(boxed) > 0 {
		label := lib.Label(boxed[0])
		if len(boxed) > 1 {
			label = fmt.Sprintf("%s and %d more", label, len(boxed)-1)
		}
		list = append(list, AntennaPick{keyBox, label, "come in its box"})
	}
	add := func(way string, a *gear.Antenna, note string) {
		if a.Plug == "" || port.Plug == "" || a.Onto(port) {
			list = append(list, AntennaPick{way + ":" + a.ID, fmt.Sprintf("%d × %s", *port.Antennas, a.Label()), note})
		}
	}
	for _, a := range gear.All[*gear.Antenna](lib) {
		add("model", a, "")
	}
	for _, a := range shelfAntennas(lib, shelf, port) {
		add("shelf", &a, "from the trade shelf")
	}
	return list
}

// PutAntennas puts antennas on a piece of kit, one of its picks by its key.
func PutAntennas(st *stock.Stock, shelf *gear.Set, id, key string) error {
	at := slices.IndexFunc(st.Fleet.Kit, func(k fleet.Kit) bool { return k.ID == id })
	if at < 0 {
		return fmt.Errorf("there is no piece of kit %q", id)
	}
	lib := st.Library()
	kit := st.Fleet.Kit[at]
	if !slices.ContainsFunc(AntennaPicks(lib, shelf, &kit), func(p AntennaPick) bool { return p.Key == key }) {
		return fmt.Errorf("%q is nothing that can be put on %s", key, kit.Label())
	}
	port := portOf(lib, kit.Model)
	way, model, _ := strings.Cut(key, ":")
	switch way {
	case keyBox:
		kit.Antennas = lib.BoxedAntennas(kit.Model)
	case "shelf":
		for _, a := range shelfAntennas(lib, shelf, port) {
			if a.ID == model {
				if err := Copy(st, &a); err != nil {
					return err
				}
			}
		}
		fallthrough
	default:
		kit.Antennas = slices.Repeat([]string{model}, *port.Antennas)
	}
	f := *st.Fleet
	f.Kit = slices.Clone(f.Kit)
	f.Kit[at] = kit
	st.Fleet = &f
	return nil
}

// shelfAntennas are the antennas of the shelf that are not in the library yet, each of those
// without a plug of its own as one that goes onto the port.
func shelfAntennas(lib *gear.Library, shelf *gear.Set, port *gear.AntennaPort) (list []gear.Antenna) {
	if shelf == nil {
		return nil
	}
	for i := range shelf.Antennas {
		a := plugged(lib, &shelf.Antennas[i], port)
		if _, taken := lib.Item(a.ID); !taken {
			list = append(list, a)
		}
	}
	return list
}

// plugged is an antenna kind of no maker as one with the plug of a port: those are sold with
// every plug. It is the kind itself where either plug is open.
func plugged(lib *gear.Library, a *gear.Antenna, port *gear.AntennaPort) gear.Antenna {
	out := *a
	if a.Plug != "" || port == nil || port.Plug == "" {
		return out
	}
	out.Plug, out.PlugSex = port.Plug, port.PlugSex.Other()
	out.Name = a.Label() + ", on " + lib.Label(port.Plug)
	out.ID = ID(out.Name, func(string) bool { return false })
	out.ValueSources = map[string]gear.Source{
		"plug": {Kind: gear.Practice, Text: "picked as one that goes on: look at yours"},
	}
	for field, source := range a.ValueSources {
		out.ValueSources[field] = source
	}
	return out
}

// portOf is where the antennas of a model go on; nil: nowhere, or it is not stated.
func portOf(lib *gear.Library, model string) *gear.AntennaPort {
	if g, ok := gear.Find[*gear.Goggles](lib, model); ok {
		return g.Receive
	}
	if u, ok := gear.Find[*gear.AirUnit](lib, model); ok && u.Radio != nil {
		return &u.Radio.AntennaPort
	}
	return nil
}
