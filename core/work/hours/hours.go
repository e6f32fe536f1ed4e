// Package hours adds up what air units have flown: minutes in the air, crashes, and on which quads, from the
// outings that are noted with the quads.
package hours

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// UnitHours is what one air unit has flown.
type UnitHours struct {
	Kit     string  `json:"kit,omitempty"` // empty: nobody has said which unit was on the quad
	Name    string  `json:"name"`
	Flights int     `json:"flights"`
	Minutes float64 `json:"minutes"`
	Untimed int     `json:"untimed"` // flights whose minutes nobody has counted: it has flown longer than that
	Crashes int     `json:"crashes"`
	// SinceCrash are the minutes flown after the day of the last crash; absent: it has had none.
	SinceCrash *float64    `json:"sinceCrash,omitempty"`
	Says       string      `json:"says"`
	Plugs      string      `json:"plugs,omitempty"` // how often its antenna plugs were on and off; empty: not counted
	Lines      []FlownLine `json:"lines"`           // the newest first
}

// FlownLine is one outing.
type FlownLine struct {
	Quad string `json:"quad"`
	Name string `json:"name"` // of the quad
	At   int    `json:"at"`   // its place among the outings of the quad
	fleet.Outing
}

// Units are all units that have flown, the one with the most minutes first.
func Units(lib *gear.Library, f *fleet.Index) []UnitHours {
	byKit := map[string]*UnitHours{}
	var order []string
	for i := range f.Kit { // one whose plugs are counted, though nobody has noted a flight
		if kit := &f.Kit[i]; kit.Matings != nil && *kit.Matings > 0 && plugs(lib, kit) != "" {
			byKit[kit.ID], order = &UnitHours{Kit: kit.ID, Name: kit.Label(), Lines: []FlownLine{}}, append(order, kit.ID)
		}
	}
	for i := range f.Quads {
		q := &f.Quads[i]
		for k, o := range q.Outings {
			u := byKit[o.AirUnit]
			if u == nil {
				u = &UnitHours{Kit: o.AirUnit, Name: nameOf(f, o.AirUnit), Lines: []FlownLine{}}
				byKit[o.AirUnit], order = u, append(order, o.AirUnit)
			}
			u.Lines = append(u.Lines, FlownLine{q.ID, q.Label(), k, o})
		}
	}
	list := make([]UnitHours, 0, len(order))
	for _, kit := range order {
		u := byKit[kit]
		u.add()
		if piece, ok := f.Piece(kit); ok {
			u.Plugs = plugs(lib, piece)
		}
		list = append(list, *u)
	}
	slices.SortStableFunc(list, func(a, b UnitHours) int {
		return cmp.Or(cmp.Compare(b.Minutes, a.Minutes), cmp.Compare(b.Flights, a.Flights))
	})
	return list
}

// plugs says how often the antenna plugs of a unit were on and off, and what they survive; empty: nobody
// counts, or it is no unit with such plugs.
func plugs(lib *gear.Library, kit *fleet.Kit) string {
	unit, ok := gear.Find[*gear.AirUnit](lib, kit.Model)
	if !ok || kit.Matings == nil || unit.Radio == nil {
		return ""
	}
	says := fmt.Sprintf("Its antenna plugs have been on and off %s", change.Count(*kit.Matings, "time"))
	if plug, known := gear.Find[*gear.Connector](lib, unit.Radio.Plug); known && plug.Matings != nil {
		says += fmt.Sprintf("; %s survives about %d", plug.Label(), *plug.Matings)
	}
	return says + "."
}

func nameOf(f *fleet.Index, kit string) string {
	if piece, ok := f.Piece(kit); ok {
		return piece.Label()
	}
	return cmp.Or(kit, "unit not stated")
}

// add adds a unit's lines up.
func (u *UnitHours) add() {
	slices.SortStableFunc(u.Lines, func(a, b FlownLine) int { return cmp.Compare(b.On, a.On) })
	last := ""
	var quads []string
	for _, l := range u.Lines {
		u.Flights++
		if l.Crash {
			u.Crashes++
			last = max(last, l.On)
		}
		if !slices.Contains(quads, l.Name) {
			quads = append(quads, l.Name)
		}
		if l.Minutes == nil {
			u.Untimed++
			continue
		}
		u.Minutes += *l.Minutes
	}
	if last != "" {
		since := 0.0
		for _, l := range u.Lines {
			if l.On > last && l.Minutes != nil {
				since += *l.Minutes
			}
		}
		u.SinceCrash = &since
	}
	u.Says = u.sentence(quads)
}

func (u *UnitHours) sentence(quads []string) string {
	whole := int(math.Round(u.Minutes))
	flown := fmt.Sprintf("%d min", whole)
	if whole >= 60 {
		flown = fmt.Sprintf("%d h %02d", whole/60, whole%60)
	}
	if u.Flights == 0 {
		return "No flight is noted."
	}
	says := fmt.Sprintf("%s in the air on %s", flown, change.And(quads))
	if u.Untimed > 0 {
		says += fmt.Sprintf(", and %s nobody has timed", change.Count(u.Untimed, "flight"))
	}
	switch u.Crashes {
	case 0:
		return says + "; no crash."
	case 1:
		return says + "; 1 crash."
	}
	return fmt.Sprintf("%s; %d crashes.", says, u.Crashes)
}
