package swap

import (
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/gates/mount"
	"yokeswap/core/measure/unit"
)

// Alternative is a set of antennas the unit could carry, beside the one of the plan.
type Alternative struct {
	Label   string        `json:"label"`           // "2 × A through the B"
	Planned bool          `json:"planned"`         // the plan has it
	MassG   *unit.Grams   `json:"massG,omitempty"` // of all, with adapters; absent: not known
	Price   *float64      `json:"price,omitempty"` // of what has to be bought; absent: not known
	Money   string        `json:"money,omitempty"` // three letters of ISO 4217
	Plug    string        `json:"plug"`            // "straight, 8 mm"
	LeadMM  *LeadBeside   `json:"lead,omitempty"`  // absent: that cannot be told
	Gains   string        `json:"gains"`           // against the plan: "+2.1 dB on 5.8 GHz"; empty: not known
	Antenna verdict.Level `json:"antenna"`         // what its gate says
	Mount   verdict.Level `json:"mount"`           // what the room says
	Says    string        `json:"says"`            // the worst of both, in words
	Patch   fleet.Patch   `json:"patch"`
}

// LeadBeside is the longest way a lead has and the lead.
type LeadBeside struct {
	NeedMM unit.Millimetres `json:"needMM"`
	HasMM  unit.Millimetres `json:"hasMM"`
}

// Alternatives are the antennas of the plan and those that could go on instead, side by side:
// what each weighs, costs, gains, and whether it has room.
func Alternatives(c fleet.Case) []Alternative {
	list := []Alternative{}
	if c.Fit.Antennas != nil && len(c.Fit.Antennas.Models) > 0 {
		planned := alternative(c, fleet.Patch{Antennas: c.Fit.Antennas})
		planned.Planned = true
		list = append(list, planned)
	}
	for _, cand := range antenna.Candidates(c) {
		other := alternative(c, cand.Patch)
		other.Gains = cand.Gains
		list = append(list, other)
	}
	return list
}

func alternative(c fleet.Case, patch fleet.Patch) Alternative {
	on := patch.Antennas
	models, through := change.Antennas(c.Library, on)
	a := Alternative{Label: models + through, Patch: patch}
	with := c.With(patch)
	a.weighAndPrice(c, on)
	if model, ok := gear.Find[*gear.Antenna](c.Library, on.Models[0]); ok {
		a.Plug = plugWords(model.BarrelMM, model.RightAngle)
	}
	if adapter, ok := gear.Find[*gear.Adapter](c.Library, on.Adapter); ok {
		a.Plug = plugWords(adapter.BarrelMM, adapter.RightAngle)
	}
	for _, rod := range mount.RoomOf(with).Rods {
		if w := rod.Lead; w != nil && w.HasMM != nil && (a.LeadMM == nil || w.NeedMM > a.LeadMM.NeedMM) {
			a.LeadMM = &LeadBeside{w.NeedMM, *w.HasMM}
		}
	}
	own, room := antenna.Check(with), roomFor(with)
	a.Antenna, a.Mount = verdict.Worst(own), verdict.Worst(room)
	if both := slices.Concat(own, room); a.Antenna != verdict.Fits || a.Mount != verdict.Fits {
		a.Says = worstOf(both).Says
	}
	return a
}

// roomFor is what the mount gate says of antennas. Where it is not said where they stand, their
// room cannot be told, however their leads are.
func roomFor(c fleet.Case) (list []verdict.Finding) {
	mine := map[string]bool{c.Quad.Label(): true, "": true}
	for _, id := range c.Fit.Antennas.Models {
		mine[c.Library.Label(id)] = true
	}
	about := []verdict.Code{mount.CodeLead, mount.CodeBend, mount.CodePlugRoom, mount.CodeStruck, mount.CodeRoom}
	for _, f := range mount.Check(c) {
		if slices.Contains(about, f.Code) && mine[f.Subject] {
			list = append(list, f)
		}
	}
	switch {
	case len(c.Fit.Antennas.Stands) == 0:
		list = append(list, verdict.CannotTell(verdict.Mount, mount.CodePlugRoom, c.Quad.Label(),
			verdict.FitValue(c, "antennas.stands", "where each antenna of "+c.Quad.Label()+" stands")))
	case len(list) == 0:
		list = append(list, verdict.Finding{Level: verdict.Fits})
	}
	return list
}

// worstOf is the first finding of the worst level.
func worstOf(findings []verdict.Finding) (worst verdict.Finding) {
	level := verdict.Worst(findings)
	i := slices.IndexFunc(findings, func(f verdict.Finding) bool { return f.Level == level })
	return findings[i]
}

// plugWords are a plug as it is read: "straight, 8 mm".
func plugWords(barrel *unit.Millimetres, angled *bool) string {
	words := "shape not stated"
	if angled != nil {
		words = map[bool]string{true: "right-angled", false: "straight"}[*angled]
	}
	if barrel != nil {
		words += ", " + barrel.String()
	}
	return words
}

// weighAndPrice adds up what a set weighs, and what of it has to be bought costs.
func (a *Alternative) weighAndPrice(c fleet.Case, on *fleet.Antennas) {
	var mass unit.Grams
	var price float64
	weighed, priced := true, true
	add := func(e *gear.Entry, grams *unit.Grams) {
		n := on.Count(e.ID)
		if grams == nil {
			weighed = false
		} else {
			mass += unit.Grams(n) * *grams
		}
		had := c.Fleet.SpareCount(e.ID, c.Quad.ID)
		if now := c.Quad.Now.Antennas; now != nil {
			had += now.Count(e.ID)
		}
		switch buy := max(0, n-had); {
		case buy == 0:
		case e.Offer == nil || e.Offer.Price == nil || a.Money != "" && e.Offer.Currency != a.Money:
			priced = false
		default:
			price, a.Money = price+float64(buy)**e.Offer.Price, e.Offer.Currency
		}
	}
	for i, id := range on.Models {
		if m, ok := gear.Find[*gear.Antenna](c.Library, id); ok && slices.Index(on.Models, id) == i {
			add(&m.Entry, m.MassG)
		}
	}
	if m, ok := gear.Find[*gear.Adapter](c.Library, on.Adapter); ok {
		add(&m.Entry, m.MassG)
	}
	if weighed {
		a.MassG = &mass
	}
	if priced {
		a.Price = &price
	}
}
