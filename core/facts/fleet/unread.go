package fleet

import (
	"reflect"

	"yokeswap/core/facts/gear"
)

// Unread are the entries that a fit rests on, near or far, and that are stored and cannot
// be read: what the fit, its kit and the gear they name speak of. A statement about links
// that cannot be read may be about any quad. Nothing that rests on them is known, so that
// losing an entry is never better than having it.
func (c Case) Unread() (list []gear.Unread) {
	unread := c.Library.AllUnread()
	if len(unread) == 0 {
		return nil
	}
	named := map[string]bool{}
	var walk func(v reflect.Value)
	visit := func(id string) {
		if named[id] {
			return
		}
		named[id] = true
		if kit, ok := c.Fleet.Piece(id); ok {
			walk(reflect.ValueOf(kit))
		}
		if item, ok := c.Library.Item(id); ok {
			walk(reflect.ValueOf(item))
		}
	}
	walk = func(v reflect.Value) { gear.EachText(v, visit) }
	walk(reflect.ValueOf(c.Fit))
	walk(reflect.ValueOf(&c.Quad.Now)) // which the fit is held against
	visit(c.Fleet.Region)
	for _, u := range unread {
		if named[u.ID] || u.Kind == string(gear.KindPairing) {
			list = append(list, u)
		}
	}
	return list
}

// Names visits the ids in a fit and in the kit it names, and whatever text beside them.
func (c Case) Names(visit func(id string)) {
	gear.EachText(reflect.ValueOf(c.Fit), func(id string) {
		visit(id)
		if kit, ok := c.Fleet.Piece(id); ok {
			gear.EachText(reflect.ValueOf(kit), visit)
		}
	})
}
