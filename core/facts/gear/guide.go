package gear

import "slices"

// Guide is how a device is handled, in one language: what its maker's sheet says of
// buttons, lights and menus.
type Guide struct {
	Language string  `json:"language"` // two letters of ISO 639-1
	Bind     string  `json:"bind,omitempty"`
	Lights   []Light `json:"lights,omitempty"`
	Button   string  `json:"button,omitempty"` // where its bind button is
	Card     string  `json:"card,omitempty"`   // where its memory card goes in
	USB      string  `json:"usb,omitempty"`    // where its plug for updates is
	Open     string  `json:"open,omitempty"`   // how its case is opened
	Update   string  `json:"update,omitempty"` // what has to be on or off meanwhile
	// Menus are the ways through its menus.
	Menus []MenuPath `json:"menus,omitempty"`
}

// Light is a sign a device gives.
type Light struct {
	Shows string    `json:"shows"` // red, steady
	Means LightSign `json:"means"`
}

// LightSign is what a light means.
type LightSign string

// The signs.
const (
	Searching LightSign = "searching" // for a partner: it is not bound, or binding
	LinkedUp  LightSign = "linked"
	Updating  LightSign = "updating"
	Faulty    LightSign = "fault"
)

// MenuPath says where in the menus something is set.
type MenuPath struct {
	Sets string `json:"sets"` // one of the Menu values, or the id of a mode
	Path string `json:"path"`
}

// What is set in menus besides modes.
const (
	MenuBind   = "bind"
	MenuOSD    = "osd"
	MenuRC     = "rc"
	MenuPower  = "power"
	MenuRegion = "region"
	MenuBand   = "band"
)

// DefaultLanguage is what guides are read in where nothing else is asked for.
const DefaultLanguage = "en"

// GuideIn picks the guide in a language, else the one in the default language, else the
// first there is; an empty one where there is none.
func GuideIn(guides []Guide, language string) Guide {
	for _, want := range []string{language, DefaultLanguage} {
		if i := slices.IndexFunc(guides, func(g Guide) bool { return g.Language == want }); i >= 0 {
			return guides[i]
		}
	}
	if len(guides) > 0 {
		return guides[0]
	}
	return Guide{}
}

// Languages are those that guides of a library are in, and the default one.
func Languages(l *Library) []string {
	list := []string{DefaultLanguage}
	for _, item := range l.Items() {
		var guides []Guide
		switch g := item.(type) {
		case Linked:
			guides = g.AsDevice().Guides
		case *Receiver:
			guides = g.Guides
		}
		for _, guide := range guides {
			if !slices.Contains(list, guide.Language) {
				list = append(list, guide.Language)
			}
		}
	}
	slices.Sort(list)
	return list
}

// Light is how a sign looks; empty where the guide does not say.
func (g *Guide) Light(means LightSign) string {
	for _, l := range g.Lights {
		if l.Means == means {
			return l.Shows
		}
	}
	return ""
}

// Menu is where something is set; empty where the guide does not say.
func (g *Guide) Menu(sets string) string {
	for _, m := range g.Menus {
		if m.Sets == sets {
			return m.Path
		}
	}
	return ""
}
