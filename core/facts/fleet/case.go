package fleet

import (
	"slices"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/gear"
)

// Case is what a gate judges: one fit of one quad, within its fleet and
// library.
type Case struct {
	Library *gear.Library
	Fleet   *Index
	Quad    *Quad
	Fit     *Fit
	// FitName is FitNow or FitNext; it names missing fields.
	FitName string
}

// The names of a quad's fits.
const (
	FitNow  = "now"
	FitNext = "next"
)

// NewCase judges a quad's next fit.
func NewCase(lib *gear.Library, f *Index, q *Quad) Case {
	return under(Case{Library: lib, Fleet: f, Quad: q, Fit: q.plan(), FitName: FitNext})
}

// NowCase judges a quad's present fit.
func NowCase(lib *gear.Library, f *Index, q *Quad) Case {
	return under(Case{Library: lib, Fleet: f, Quad: q, Fit: &q.Now, FitName: FitNow})
}

// under is the case with what the region flown in and the revisions of its gear settle.
func under(c Case) Case {
	if c.Library.LeavesOpen() {
		c.Library = c.Library.Under(c.Fleet.Region, c.Revision)
	}
	return c
}

// KitOf is the piece of kit of a model in the fit; nil where there is none.
func (c Case) KitOf(model string) *Kit {
	for _, slot := range []*Slot{c.Fit.AirUnit, c.Fit.Goggles, c.Fit.Controller} {
		if slot == nil || slot.Kit == "" {
			continue
		}
		if kit, ok := c.Fleet.Piece(slot.Kit); ok && kit.Model == model {
			return kit
		}
	}
	return nil
}

// Revision is the revision of the hardware of a model in the fit; empty: not stated.
func (c Case) Revision(model string) string {
	if kit := c.KitOf(model); kit != nil && kit.Revision != "" {
		return kit.Revision
	}
	if at := slices.IndexFunc(c.Fit.Revisions, func(r RevisionOf) bool { return r.Model == model }); at >= 0 {
		return c.Fit.Revisions[at].Revision
	}
	return ""
}

// Guide is how a device is handled, in the language of the fleet.
func (c Case) Guide(guides []gear.Guide) gear.Guide { return gear.GuideIn(guides, c.Fleet.Language) }

// With is the case with a patch applied to its fit.
func (c Case) With(p Patch) Case {
	return c.Carrying(new(c.Fit.With(p)))
}

// Sharing is With for those who only read (see Fit.Sharing).
func (c Case) Sharing(p Patch) Case {
	return c.Carrying(new(c.Fit.Sharing(p)))
}

// Carrying is the case with another fit.
func (c Case) Carrying(fit *Fit) Case {
	c.Fit = fit
	return under(c)
}

// Flown is the case with other goggles and another controller, nil: as they are. It shares
// all else with the case, so that it costs nothing to ask about many.
func (c Case) Flown(goggles, controller *Slot) Case {
	fit := *c.Fit
	if goggles != nil {
		fit.Goggles = goggles
	}
	if controller != nil {
		fit.Controller = controller
		fit.None = slices.DeleteFunc(slices.Clone(fit.None), func(n string) bool { return n == NoController })
	}
	return c.Carrying(&fit)
}

// State is a device in a fit: what it is, what it carries and what is planned
// for it.
type State struct {
	Label     string // the kit's name, or the model's
	KitID     string // empty where the device is not owned
	ModelID   string
	Current   firmware.Version // empty: not known, or not among the releases its gear lists
	Read      firmware.Version // as read off the device, listed or not
	Target    firmware.Version // what it will carry: the plan, else the current one
	Mode      string           // the current mode, goggles only
	ToMode    string           // the mode it will be in
	Activated *bool            // nil: not known
	Locked    *bool            // to a former owner's account; nil: not known
}

// Unlisted says whether the device carries a release its gear does not list: it
// is treated as one nobody has read.
func (s State) Unlisted() bool { return s.Read != s.Current }

// Stands is where the device stands, for its chart.
func (s State) Stands() firmware.State {
	return firmware.State{Version: s.Read, Mode: s.Mode, Activated: s.Activated != nil && *s.Activated}
}

// Owned says whether the device is a piece of kit.
func (s State) Owned() bool { return s.KitID != "" }

// Updating says whether the plan puts another release on the device.
func (s State) Updating() bool {
	return s.Target.Known() && (!s.Current.Known() || s.Target.Compare(s.Current) != 0)
}

// Slot gives back the slot that leads to this state, with another plan.
func (s State) Slot(target firmware.Version, mode string) *Slot {
	slot := &Slot{Kit: s.KitID, Firmware: target, Mode: mode}
	if !s.Owned() {
		slot.Model = s.ModelID
	}
	if s.Current.Known() && target.Compare(s.Current) == 0 {
		slot.Firmware = ""
	}
	if mode == s.Mode {
		slot.Mode = ""
	}
	return slot
}

// Resolve finds the device of a slot. It answers false where the slot is
// empty or names nothing of that type.
func Resolve[T gear.Linked](c Case, slot *Slot) (T, State, bool) {
	var none T
	if slot == nil {
		return none, State{}, false
	}
	s := State{ModelID: slot.Model, Target: slot.Firmware, ToMode: slot.Mode}
	if slot.Kit != "" {
		kit, ok := c.Fleet.Piece(slot.Kit)
		if !ok {
			return none, State{}, false
		}
		s.KitID, s.ModelID, s.Label = kit.ID, kit.Model, kit.Label()
		s.Read, s.Mode, s.Activated, s.Locked = kit.Firmware, kit.Mode, kit.Activated, kit.Locked
	}
	model, ok := gear.Find[T](c.Library, s.ModelID)
	if !ok {
		return none, State{}, false
	}
	if model.AsDevice().Offers(s.Read) {
		s.Current = s.Read
	}
	if s.Label == "" {
		s.Label = model.Head().Label()
	}
	if !s.Owned() {
		s.Activated = new(false) // a device still to be bought comes unactivated
	}
	if !s.Target.Known() {
		s.Target = s.Current
	}
	if s.ToMode == "" {
		s.ToMode = s.Mode
	}
	return model, s, true
}

// AirUnit is the air unit of the fit.
func (c Case) AirUnit() (*gear.AirUnit, State, bool) { return Resolve[*gear.AirUnit](c, c.Fit.AirUnit) }

// Goggles are the goggles of the fit.
func (c Case) Goggles() (*gear.Goggles, State, bool) { return Resolve[*gear.Goggles](c, c.Fit.Goggles) }

// Controller is the controller of the fit.
func (c Case) Controller() (*gear.Controller, State, bool) {
	return Resolve[*gear.Controller](c, c.Fit.Controller)
}
