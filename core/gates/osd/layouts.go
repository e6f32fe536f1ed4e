package osd

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
)

// Proposal is a layout that a plan could use.
type Proposal struct {
	Label  string
	Note   string
	Layout fleet.Layout
}

// mostProposals bounds how many layouts of other quads are proposed.
const mostProposals = 2

// usualLayout is what most want to see, where most have it, on the grid of old (common practice).
var usualLayout = fleet.Layout{Grid: builtInGrid, Elements: []fleet.Placed{
	{ID: "warnings", X: 9, Y: 10},
	{ID: "link-quality", X: 1, Y: 12},
	{ID: "battery-voltage", X: 1, Y: 13},
	{ID: "flight-mode", X: 22, Y: 12},
	{ID: "flight-time", X: 22, Y: 13},
}}

// Layouts proposes where the elements of the OSD could stand, where a plan says nothing of it: as
// on it today and on the quads there are, brought onto the grid these goggles show, and as is usual.
//
// Source: common practice.
func Layouts(c fleet.Case) (list []Proposal) {
	v, ok := newView(c)
	if !ok || c.FitName != fleet.FitNext || c.Fit.OSD != nil {
		return nil
	}
	add := func(l *fleet.Layout, note string) {
		next, _ := v.convert(v.shown(l))
		same := slices.IndexFunc(list, func(p Proposal) bool {
			return slices.EqualFunc(p.Layout.Elements, next.Elements, alike)
		})
		switch {
		case len(next.Elements) == 0:
		case same >= 0:
			list[same].Note += ", " + strings.TrimPrefix(note, asOn)
		default:
			list = append(list, Proposal{v.words(&next), note, next})
		}
	}
	if own := c.Quad.Now.OSD; own != nil {
		add(own, asOn+c.Quad.Label()+" today")
	}
	for i := range c.Fleet.Quads {
		q := &c.Fleet.Quads[i]
		if q.ID != c.Quad.ID && q.Now.OSD != nil && len(list) < mostProposals {
			add(q.Now.OSD, asOn+q.Label())
		}
	}
	add(&usualLayout, "as is usual")
	return list
}

// asOn stands before the quads that have a layout.
const asOn = "as on "

func alike(a, b fleet.Placed) bool {
	return a.ID == b.ID && a.X == b.X && a.Y == b.Y && slices.Equal(a.Profiles, b.Profiles)
}

// mostWords is how many elements are named; of the others it is said how many.
const mostWords = 5

// words are a layout in one line.
func (v *view) words(l *fleet.Layout) string {
	names := make([]string, 0, mostWords)
	for _, e := range l.Elements[:min(len(l.Elements), mostWords)] {
		names = append(names, v.label(e.ID))
	}
	more := ""
	if n := len(l.Elements) - len(names); n > 0 {
		more = fmt.Sprintf(" and %d more", n)
	}
	return strings.Join(names, ", ") + more + " on " + l.Grid.Words()
}
