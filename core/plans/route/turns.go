package route

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// A want can be of a fit that a quad carries in turn. To the search that fit is a quad
// of its own: it stays as it is, its unit is not free, and no swap stands before it.

// TurnID names a fit in turn among the quads of a plan.
func TurnID(quad, turn string) string { return quad + "/" + turn }

// withTurns is the request with the wanted fits in turn as quads of their own.
func (r Request) withTurns() (Request, error) {
	if !slices.ContainsFunc(r.Wants, func(w fleet.Want) bool { return w.Turn != "" }) {
		return r, nil
	}
	f := *r.Fleet.Fleet
	f.Quads = slices.Clone(f.Quads)
	r.Wants = slices.Clone(r.Wants)
	added := map[string]bool{}
	for i := range r.Wants {
		want := &r.Wants[i]
		if want.Turn == "" {
			continue
		}
		quad, ok := r.Fleet.Quad(want.Quad)
		if !ok {
			return r, fmt.Errorf("wants[%d].quad: there is no quad %q", i, want.Quad)
		}
		t, ok := quad.TurnFit(want.Turn)
		if !ok {
			return r, fmt.Errorf("wants[%d].turn: %s has no fit %q in turn", i, quad.Label(), want.Turn)
		}
		id := TurnID(quad.ID, t.ID)
		if !added[id] {
			name := TurnLabel(r.Library, r.Fleet, quad, t)
			f.Quads = append(f.Quads, fleet.Quad{ID: id, Name: name, Use: quad.Use, Now: t.Fit})
			added[id] = true
		}
		want.Quad, want.Turn = id, ""
	}
	r.Fleet = fleet.NewIndex(&f)
	return r, nil
}

// TurnLabel is how a fit in turn is called beside the quads: by the quad and the unit.
func TurnLabel(lib *gear.Library, f *fleet.Index, quad *fleet.Quad, t *fleet.TurnFit) string {
	c := fleet.NewCase(lib, f, quad).Carrying(&t.Fit)
	if _, air, ok := c.AirUnit(); ok {
		return quad.Label() + " in turn, " + air.Label
	}
	return quad.Label() + " in turn"
}

// turnsLost says which fits in turn link today with the goggles they are flown with and no
// longer do on what the plan puts on.
func (w *writer) turnsLost() []string {
	notes := []string{}
	for i := range w.Fleet.Quads {
		quad := &w.Fleet.Quads[i]
		for k := range quad.InTurn {
			t := &quad.InTurn[k]
			c := fleet.NewCase(w.Library, w.Fleet, quad).Carrying(&t.Fit)
			unit, air, ok := c.AirUnit()
			goggles, worn, known := c.Goggles()
			if !ok || !known || w.wanted(TurnID(quad.ID, t.ID), worn.KitID) {
				continue
			}
			links := func(of, on firmware.Version) bool {
				return statementOn(w.Library, unit.ID, of, goggles.ID, on) != nil
			}
			after := func(s fleet.State) firmware.Version {
				if to, planned := w.at[s.KitID]; planned && to.Known() {
					return to
				}
				return s.Current
			}
			if links(air.Current, worn.Current) && !links(after(air), after(worn)) {
				notes = append(notes, fmt.Sprintf("%s links with %s today, and no longer on what this plan puts on: "+
					"%s on %s, %s on %s. Want that link too, or give it up knowingly.",
					TurnLabel(w.Library, w.Fleet, quad, t), worn.Label, air.Label, after(air), worn.Label, after(worn)))
			}
		}
	}
	return notes
}

// wanted says whether a link is among those asked for: then it is told there.
func (w *writer) wanted(quad, goggles string) bool {
	return slices.ContainsFunc(w.Wants, func(o fleet.Want) bool { return o.Quad == quad && o.Goggles == goggles })
}

// statementOn is the first statement that holds for two models on some releases; nil: none.
func statementOn(
	lib *gear.Library, unit string, of firmware.Version, goggles string, on firmware.Version,
) *gear.Pairing {
	for _, s := range lib.Pairings(unit, goggles) {
		if !s.Never && s.AirFirmware.Holds(of) && s.GogglesFirmware.Holds(on) {
			return s
		}
	}
	return nil
}
