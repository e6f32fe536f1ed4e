package format

import (
	"maps"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
)

// CheckStock finds everything in a stock that points at nothing.
func CheckStock(s *stock.Stock) error {
	var all Problems
	for _, set := range s.Sets {
		if ps, ok := checkPairings(set, s).(Problems); ok {
			all = append(all, ps...)
		}
	}
	if ps, ok := checkModels(s.Fleet, s).(Problems); ok {
		all = append(all, ps...)
	}
	return all.orNil()
}

// checkPairings finds what a gear pack names and the library does not have, and
// pairings in modes that are none.
func checkPairings(s *gear.Set, st *stock.Stock) error {
	lib := st.Library()
	ps := Document{Set: s}.checkGear(st)
	for i := range s.Pairings {
		p := &s.Pairings[i]
		if goggles, ok := gear.Find[*gear.Goggles](lib, p.Goggles); ok && p.Mode != "" {
			if _, has := goggles.Mode(p.Mode); !has {
				ps.add(indexed("pairings", i)+".mode", "expected a mode of %s, %q is none", goggles.Label(), p.Mode)
			}
		}
	}
	for key, n := range lib.PairingCounts() {
		if n > gear.MostPairings {
			ps.add(
				"pairings",
				"%d statements about %s with %s: more than %d are not taken",
				n,
				lib.Label(key[0]),
				lib.Label(key[1]),
				gear.MostPairings,
			)
		}
	}
	ps = append(ps, checkConnectors(s, lib)...)
	return ps.orNil()
}

// checkModels finds what a fleet names and the library does not have, or has as another
// kind, and feeds from pads the board lacks.
func checkModels(f *fleet.Fleet, st *stock.Stock) error {
	lib := st.Library()
	ps := Document{Fleet: f}.checkGear(st)
	kit, models := map[string]gear.Kind{}, map[string]string{}
	for i, k := range f.Kit {
		item, ok := lib.Item(k.Model)
		if !ok {
			continue
		}
		kit[k.ID], models[k.ID] = item.Kind(), k.Model
		goggles, isGoggles := item.(*gear.Goggles)
		if k.Mode == "" {
			continue
		}
		if !isGoggles {
			ps.add(indexed("kit", i)+".mode", "only goggles have a mode")
		} else if _, has := goggles.Mode(k.Mode); !has {
			ps.add(indexed("kit", i)+".mode", "expected a mode of %s, %q is none", goggles.Label(), k.Mode)
		}
	}
	for i, w := range f.Wants {
		if kind, known := kit[w.Goggles]; known && kind != gear.KindGoggles {
			ps.add(indexed("wants", i)+".goggles", "expected goggles, %q is %s", w.Goggles, withArticle(string(kind)))
		}
		if kind, known := kit[w.Controller]; known && kind != gear.KindController {
			ps.add(indexed("wants", i)+".controller", "expected a controller, %q is %s", w.Controller, withArticle(string(kind)))
		}
	}
	for i := range f.Quads {
		q := &f.Quads[i]
		checkPlaces(&ps, indexed("quads", i)+".now", &q.Now, lib, kit, models)
		if q.Next != nil {
			checkPlaces(&ps, indexed("quads", i)+".next", q.Next, lib, kit, models)
		}
		for k := range q.InTurn {
			checkPlaces(&ps, indexed("quads", i)+"."+indexed("inTurn", k)+".fit", &q.InTurn[k].Fit, lib, kit, models)
		}
	}
	checkSpots(&ps, f, st)
	for i := range f.Scenarios {
		for k := range f.Scenarios[i].Quads {
			if next := f.Scenarios[i].Quads[k].Next; next != nil {
				checkPlaces(&ps, indexed("scenarios", i)+"."+indexed("quads", k)+".next", next, lib, kit, models)
			}
		}
	}
	return ps.orNil()
}

func checkPlaces(
	ps *Problems, path string, f *fleet.Fit, lib *gear.Library, kit map[string]gear.Kind, models map[string]string,
) {
	checkSlots(ps, path, f, lib, kit)
	checkPins(ps, path, f, lib, models)
	board, hasBoard := gear.Find[*gear.Board](lib, f.Board)
	for i, feed := range f.Feeds {
		pad, isPad := fleet.PadOf(feed.From)
		if !isPad {
			continue
		}
		if !hasBoard {
			ps.add(path+"."+indexed("feeds", i)+".from", "%q is a pad, but this fit has no flight board", feed.From)
		} else if _, ok := board.Pad(pad); !ok {
			ps.add(path+"."+indexed("feeds", i)+".from", "expected a pad of %s, %q is none", board.Label(), pad)
		}
	}
	for _, pad := range slices.Sorted(maps.Keys(f.Jumpers)) {
		if hasBoard {
			checkJumper(ps, path+".jumpers."+pad, board, pad, f.Jumpers[pad])
		} else {
			ps.add(path+".jumpers."+pad, "this fit has no flight board")
		}
	}
}

// checkSlots finds kit and models of another kind than their slot.
func checkSlots(ps *Problems, path string, f *fleet.Fit, lib *gear.Library, kit map[string]gear.Kind) {
	for _, s := range []struct {
		name string
		slot *fleet.Slot
		kind gear.Kind
	}{
		{"airUnit", f.AirUnit, gear.KindAirUnit},
		{"goggles", f.Goggles, gear.KindGoggles},
		{"controller", f.Controller, gear.KindController},
	} {
		if s.slot == nil {
			continue
		}
		if kind, known := kit[s.slot.Kit]; known && kind != s.kind {
			ps.add(
				path+"."+s.name+".kit",
				"expected %s, %q is %s",
				withArticle(string(s.kind)),
				s.slot.Kit,
				withArticle(string(kind)),
			)
		}
		if item, known := lib.Item(s.slot.Model); known && item.Kind() != s.kind {
			ps.add(path+"."+s.name+".model", "expected the id of %s, %q is %s", withArticle(string(s.kind)), s.slot.Model,
				withArticle(string(item.Kind())))
		}
	}
}

// checkJumper finds a jumper that the board does not have, and a choice that is none.
func checkJumper(ps *Problems, path string, board *gear.Board, pad, choice string) {
	if port, sends, serial := gear.SerialPin(pad); serial && !sends {
		checkInverter(ps, path, board, port, choice)
		return
	}
	found, ok := board.Pad(pad)
	switch {
	case !ok || found.Kind != gear.PadJumper:
		ps.add(path, "expected a jumper pad of %s", board.Label())
	case !slices.Contains(found.Choices, choice):
		ps.add(path, "expected one of its choices, %q is none", choice)
	}
}

// checkInverter finds a jumper of an inverter that the port does not have, and a
// choice that is none.
func checkInverter(ps *Problems, path string, b *gear.Board, port int, choice string) {
	u, ok := b.UART(port)
	switch {
	case !ok || u.Invert != gear.InvertJumper:
		ps.add(path, "expected a port of %s whose inverter is set by a jumper, UART %d is none", b.Label(), port)
	case choice != fleet.Inverted && choice != fleet.Plain:
		ps.add(path, "expected %s or %s, got %q", fleet.Inverted, fleet.Plain, choice)
	}
}
