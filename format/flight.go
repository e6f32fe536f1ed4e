package format

import (
	"maps"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// checkFlightFirmware finds numbers and elements that stand twice.
func checkFlightFirmware(ps *Problems, path string, f *gear.FlightFirmware) {
	for i, a := range f.Avoid {
		checkRange(ps, path+"."+indexed("avoid", i)+".firmware", a.Firmware)
	}
	for i, as := range f.SpeaksAs {
		checkRange(ps, path+"."+indexed("speaksAs", i)+".firmware", as.Firmware)
	}
	for _, list := range []struct {
		name    string
		numbers map[string]int
	}{{"functions", f.Functions}, {"features", f.Features}, {"providers", f.Providers}, {"modes", f.Modes}} {
		taken := map[int]string{}
		for _, name := range slices.Sorted(maps.Keys(list.numbers)) {
			n := list.numbers[name]
			if other, twice := taken[n]; twice {
				ps.add(path+"."+list.name+"."+name, "%d is the number of %s already", n, other)
			}
			taken[n] = name
		}
	}
	checkSettingsText(ps, path+".text", f.Text)
	seen, places := map[string]string{}, map[int]string{}
	for i, e := range f.Elements {
		at := path + "." + indexed("elements", i)
		once(ps, seen, at+".id", e.ID)
		if e.Index == nil {
			continue
		}
		if other, twice := places[*e.Index]; twice {
			ps.add(at+".index", "%d is the place of %s already", *e.Index, other)
		}
		places[*e.Index] = e.ID
	}
}

// checkSettingsText finds forms that say nothing or something twice, and words and values
// that stand twice.
func checkSettingsText(ps *Problems, path string, t *gear.SettingsText) {
	if t == nil {
		return
	}
	for i, l := range t.Lines {
		at := path + "." + indexed("lines", i) + ".form"
		for _, open := range []string{"{name}", "{value}"} {
			if strings.Count(l.Form, open) > 1 {
				ps.add(at, "%s stands more than once in %q", open, l.Form)
			}
		}
		if says := strings.Contains(l.Form, "{value}"); says == (l.Value != "") {
			ps.add(at, "expected either {value} in the form or a value beside it, got %q and %q", l.Form, l.Value)
		}
	}
	words := map[string]string{}
	for i, w := range t.Words {
		once(ps, words, path+"."+indexed("words", i)+".name", w.Name)
		values := map[string]string{}
		for k, v := range w.Values {
			once(ps, values, path+"."+indexed("words", i)+"."+indexed("values", k)+".is", v.Is)
		}
	}
}

// checkFlight finds elements off their grid or there twice, a channel order that
// names a stick twice, and switches that go backwards.
func checkFlight(ps *Problems, path string, f *fleet.Flight) {
	if l := f.OSD; l != nil {
		columns, rows, ok := l.Grid.Size()
		if !ok {
			ps.add(path+".osd.grid", "expected columns and rows such as 53x20, got %q", l.Grid)
		}
		seen := map[string]string{}
		for i, e := range l.Elements {
			at := path + ".osd." + indexed("elements", i)
			once(ps, seen, at+".id", e.ID)
			if ok && (e.X >= columns || e.Y >= rows) {
				ps.add(at, "%d, %d lies outside a grid of %s; both count from 0", e.X, e.Y, l.Grid.Words())
			}
		}
	}
	s := f.Sticks
	if s == nil {
		return
	}
	for i, c := range s.Order {
		if slices.Contains([]rune(s.Order)[:i], c) {
			ps.add(path+".sticks.order", "%c stands twice in %s; each of A, E, T and R once", c, s.Order)
			break
		}
	}
	if s.MinUS != nil && s.MaxUS != nil && *s.MinUS >= *s.MaxUS {
		ps.add(path+".sticks.minUS", "%d is not below maxUS %d: the ends are swapped", *s.MinUS, *s.MaxUS)
	}
	for i, w := range s.Switches {
		if w.FromUS >= w.ToUS {
			ps.add(
				path+".sticks."+indexed("switches", i)+".fromUS",
				"%d is not below toUS %d: the range is empty",
				w.FromUS,
				w.ToUS,
			)
		}
	}
}
