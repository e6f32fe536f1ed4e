package setup

import (
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/gates/osd"
)

// GogglesSetting is one thing to set in the goggles' menu.
type GogglesSetting struct {
	Sets string `json:"sets"`           // which setting: "mode", or one of the menus of a guide
	Says string `json:"says"`           // what it is set to
	Menu string `json:"menu,omitempty"` // the way there, as far as the goggles' guide says
}

// settingMode is the mode goggles link in.
const settingMode = "mode"

// inGoggles lists what is set in the goggles' menu for a fit (common practice).
func inGoggles(c fleet.Case) []GogglesSetting {
	list := []GogglesSetting{}
	if _, _, ok := c.AirUnit(); !ok {
		return list
	}
	var guide gear.Guide
	goggles, state, owned := c.Goggles()
	if owned {
		guide = c.Guide(goggles.Guides)
	}
	add := func(sets, says, menu string) { list = append(list, GogglesSetting{sets, says, menu}) }
	if owned && state.ToMode != "" {
		label := state.ToMode
		if mode, ok := goggles.Mode(state.ToMode); ok {
			label = mode.Label()
		}
		add(settingMode, "mode "+label, guide.Menu(state.ToMode))
	}
	if region, ok := gear.Find[*gear.Region](c.Library, c.Fleet.Region); ok {
		add(gear.MenuRegion, "region "+region.Label(), guide.Menu(gear.MenuRegion))
	}
	if owned && goggles.Receive != nil && len(goggles.Receive.Bands) > 1 {
		if both := sends(c).Shared(goggles.Receive); len(both) > 0 {
			says := "band " + gear.BandWords(both)
			if len(both) > 1 {
				says = "a band that both work on, " + gear.BandWords(both) + ", and their antennas with them"
			}
			add(gear.MenuBand, says, guide.Menu(gear.MenuBand))
		}
	}
	add(gear.MenuOSD, "custom OSD on", guide.Menu(gear.MenuOSD))
	if screen := osd.Draw(c).Screen; screen.Canvas {
		add("canvas", "canvas on, "+screen.Grid.Words(), guide.Menu(gear.MenuOSD))
	}
	if s := c.Fit.Sticks; s != nil && c.Fit.Receiver == "" && s.Unit != "" {
		add(gear.MenuRC, "RC protocol "+string(s.Unit), guide.Menu(gear.MenuRC))
	}
	return list
}

// sends is what the air unit of a fit sends with; nil where it is not stated.
func sends(c fleet.Case) *gear.AntennaPort {
	if unit, _, ok := c.AirUnit(); ok && unit.Radio != nil {
		return &unit.Radio.AntennaPort
	}
	return nil
}

// GogglesList is all that is to be set in one pair of goggles, to be printed.
type GogglesList struct {
	Kit      string       `json:"kit"`
	Name     string       `json:"name"`
	Firmware string       `json:"firmware"` // that is on them; empty: not known
	Rows     []GogglesRow `json:"rows"`
	Worn     Worn         `json:"worn"`
}

// GogglesRow is a setting with the quads that want it.
type GogglesRow struct {
	GogglesSetting
	Quads []string `json:"quads"`
	// Differs: other quads flown with these goggles want it otherwise, so that it is set
	// anew before each.
	Differs bool `json:"differs"`
}

// ListFor gathers what every quad planned to fly with a pair of goggles wants set in them;
// false where the kit is no goggles.
func ListFor(lib *gear.Library, f *fleet.Index, kitID string) (GogglesList, bool) {
	kit, ok := f.Piece(kitID)
	if !ok {
		return GogglesList{}, false
	}
	goggles, is := gear.Find[*gear.Goggles](lib, kit.Model)
	if !is {
		return GogglesList{}, false
	}
	list := GogglesList{Kit: kitID, Name: kit.Label(), Firmware: string(kit.Firmware), Rows: []GogglesRow{},
		Worn: wornOf(lib, kit, goggles)}
	for i := range f.Quads {
		c := fleet.NewCase(lib, f, &f.Quads[i])
		if slot := c.Fit.Goggles; slot == nil || slot.Kit != kitID {
			continue
		}
		for _, setting := range inGoggles(c) {
			list.add(setting, c.Quad.Label())
		}
		list.Worn.hold(c)
	}
	for i := range list.Rows {
		list.Rows[i].Differs = slices.ContainsFunc(list.Rows, func(r GogglesRow) bool {
			return r.Sets == list.Rows[i].Sets && r.Says != list.Rows[i].Says
		})
	}
	return list, true
}

func (l *GogglesList) add(setting GogglesSetting, quad string) {
	at := slices.IndexFunc(l.Rows, func(r GogglesRow) bool { return r.GogglesSetting == setting })
	if at < 0 {
		l.Rows = append(l.Rows, GogglesRow{GogglesSetting: setting})
		at = len(l.Rows) - 1
	}
	l.Rows[at].Quads = append(l.Rows[at].Quads, quad)
}
