package begin

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
)

// Ready adds a quad that was bought whole: what its sheet says is in it is on it today, its air unit
// as a piece of kit of which nobody has read the release. It is flown with the goggles and the
// sticks of another quad, and for what that one is.
func Ready(st *stock.Stock, name, ready, like string) (string, error) {
	made, ok := gear.Find[*gear.ReadyQuad](st.Library(), ready)
	if !ok {
		return "", fmt.Errorf("there is no ready-made quad %q", ready)
	}
	flown := fleet.Fit{}
	purpose := fleet.Purpose("")
	if like != "" {
		from, ok := st.Fleet.Quad(like)
		if !ok {
			return "", fmt.Errorf("there is no quad %q", like)
		}
		flown, purpose = asOwned(from), from.Purpose
	}
	now := *fleet.ReadyMade(made, &flown)
	if now.AirUnit != nil {
		now.AirUnit = &fleet.Slot{Kit: Own(st, made.AirUnit)}
	}
	id := Quad(st, name, false)
	q, _ := st.Fleet.Quad(id)
	q.Purpose, q.Now, q.HoverA = purpose, now, made.HoverA
	if pack, ok := gear.Find[*gear.Pack](st.Library(), made.Pack); ok && made.MassG != nil && pack.MassG != nil {
		q.AUWG = new(*made.MassG + *pack.MassG)
	}
	return id, nil
}

// asOwned are the goggles and the sticks a quad is to fly with, as far as they are owned: what is planned
// for them is a plan of that quad.
func asOwned(q *fleet.Quad) (f fleet.Fit) {
	planned := q.NextFit()
	for _, slot := range []struct{ to, from **fleet.Slot }{
		{&f.Goggles, &planned.Goggles}, {&f.Controller, &planned.Controller},
	} {
		if s := *slot.from; s != nil && s.Kit != "" {
			*slot.to = &fleet.Slot{Kit: s.Kit}
		}
	}
	return f
}
