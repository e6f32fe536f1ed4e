package format

import (
	"encoding/json"
	"slices"
	"strings"

	"yokeswap/core/facts/gear"
)

// checkOpen holds what an entry leaves open against its kind: the values must be its own,
// what is said of them must be what they take, and a range stands in the place of a value.
func checkOpen(ps *Problems, path string, item gear.Item) {
	head := item.Head()
	for i := range head.Ranges {
		r := &head.Ranges[i]
		at := path + "." + indexed("ranges", i)
		switch {
		case slices.ContainsFunc(head.Ranges[:i], func(o gear.Range) bool { return o.Value == r.Value }):
			ps.add(at+".value", "a range of %s stands already", r.Value)
		case r.Low >= r.High:
			ps.add(at, "low %g is not below high %g: the ends are swapped, or it is one number", r.Low, r.High)
		case gear.TextAt(item, r.Value) != "":
			ps.add(at+".value", "%s is stated as %s already: state one number or a range", r.Value, gear.TextAt(item, r.Value))
		case isField(ps, at+".value", item, "ranges", r.Value):
			pinned(ps, at+".low", item, gear.Pin{Path: r.Value, Is: r.Low})
			pinned(ps, at+".high", item, gear.Pin{Path: r.Value, Is: r.High})
		}
	}
	for i := range head.Variants {
		v := &head.Variants[i]
		at := path + "." + indexed("variants", i)
		switch {
		case v.Revision == "" && v.Region == "":
			ps.add(at, "it hangs on nothing: say the revision of the hardware or the region it is set to")
		case (v.Number == nil) == (v.Text == ""):
			ps.add(at, "say what %s is there, as a number or as a word", v.Value)
		case isField(ps, at+".value", item, "variants", v.Value):
			pinned(ps, at, item, gear.Pin{Path: v.Value, Is: v.Is()})
		}
	}
}

// isField says whether a value of an entry can be said a second time: one of those that its
// form offers there.
func isField(ps *Problems, path string, item gear.Item, list, value string) bool {
	at := slices.IndexFunc(Forms(), func(f Form) bool { return f.Kind == string(item.Kind()) })
	for _, group := range Forms()[at].Groups {
		for _, field := range group.Fields {
			named := func(c Choice) bool { return c.Value == value }
			if field.Path == list && slices.ContainsFunc(field.Fields[0].Options, named) {
				return true
			}
		}
	}
	ps.add(path, "%q is no single value of the kind %s", value, item.Kind())
	return false
}

// pinned finds a value that the field does not take: of another type, or beyond what the
// schema allows.
func pinned(ps *Problems, path string, item gear.Item, pin gear.Pin) {
	other, err := gear.Pinned(item, pin)
	if err != nil {
		ps.add(path, "%v is nothing %s takes", pin.Is, pin.Path)
		return
	}
	head := other.Head()
	head.Ranges, head.Variants = nil, nil
	text, err := json.Marshal(other)
	if err != nil {
		ps.add(path, "%v is nothing %s takes", pin.Is, pin.Path)
		return
	}
	set := &gear.Set{ID: "one", Title: "one entry"}
	_, err = ReadEntry(string(item.Kind()), text, set, nil)
	wrong, _ := err.(Problems)
	for _, p := range wrong {
		if strings.HasPrefix(p.Path, pin.Path) {
			ps.add(path, "%s: %s", pin.Path, p.Says)
		}
	}
}
