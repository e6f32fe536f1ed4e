package osd

import (
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Picture shows the layout as it is today and as it is to be.
type Picture struct {
	Before  *Drawn `json:"before,omitempty"` // today's; absent: not stated
	After   *Drawn `json:"after,omitempty"`  // absent: the screen is not known
	Screen  Screen `json:"screen"`
	Lost    []Loss `json:"lost"`
	Missing string `json:"missing,omitempty"`
	// Planned: the layout after is in the plan; else it is what a conversion gives.
	Planned bool `json:"planned"`
	// More lists what could be put on as well, each where the first place is free in
	// every profile; what finds none is left out.
	More []Cell `json:"more"`
}

// Drawn is a layout with what each element looks like.
type Drawn struct {
	Grid     gear.Grid `json:"grid"`
	Columns  int       `json:"columns"`
	Rows     int       `json:"rows"`
	Elements []Cell    `json:"elements"`
}

// Cell is one element as it looks.
type Cell struct {
	fleet.Placed
	Label  string `json:"label"`
	Shows  string `json:"shows"`
	Width  int    `json:"width"`
	Height int    `json:"height"`
	Over   bool   `json:"over"` // lies over another, or falls off the grid
}

// Draw makes the picture of a fit's OSD.
func Draw(c fleet.Case) Picture {
	pic := Picture{Lost: []Loss{}, More: []Cell{}}
	v, ok := newView(c)
	if v.runs != nil {
		if l := c.Quad.Now.OSD; l != nil {
			pic.Before = v.draw(*l)
		}
	}
	if !ok {
		pic.Missing = "Not known: " + v.missing[0].Label + "."
		return pic
	}
	pic.Screen = v.screen
	if c.Fit.OSD == nil {
		return pic
	}
	pic.Lost = v.losses()
	after, differs := v.converted()
	if pic.Planned = !differs; pic.Planned {
		after = *c.Fit.OSD
	}
	pic.After = v.draw(after)
	taken := newCells(pic.After.Columns, pic.After.Rows)
	for _, e := range pic.After.Elements {
		taken.take(box{e.X, e.Y, e.Width, e.Height}, everyProfile)
	}
	for i := range v.runs.Elements {
		e := &v.runs.Elements[i]
		if !v.screen.Shows(e.ID) || contains(&after, e.ID) {
			continue
		}
		w, h := e.Size()
		if spot, ok := taken.nearest(box{1, 2, w, h}, everyProfile); ok { // under the usual first row
			pic.More = append(pic.More, v.cell(fleet.Placed{ID: e.ID, X: spot.x, Y: spot.y}))
		}
	}
	return pic
}

func contains(l *fleet.Layout, id string) bool {
	for _, e := range l.Elements {
		if e.ID == id {
			return true
		}
	}
	return false
}

func (v *view) draw(l fleet.Layout) *Drawn {
	d := &Drawn{Grid: l.Grid, Elements: []Cell{}}
	d.Columns, d.Rows, _ = l.Grid.Size()
	for i, e := range l.Elements {
		cell := v.cell(e)
		cell.Over = v.falls(&l, e) || slices.ContainsFunc(slices.Delete(slices.Clone(l.Elements), i, i+1),
			func(o fleet.Placed) bool { return v.clash(e, o) })
		d.Elements = append(d.Elements, cell)
	}
	return d
}

func (v *view) cell(e fleet.Placed) Cell {
	c := Cell{Placed: e, Label: v.label(e.ID)}
	c.Width, c.Height = v.sizes(e.ID)
	if el, ok := v.runs.Element(e.ID); ok {
		c.Shows = el.Sample(v.Quad.Label())
	}
	return c
}
