package swap

import (
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/gates/mount"
	"yokeswap/core/measure/unit"
)

// Alternative is a set of antennas the unit could carry, beside the one of the plan.
type Alternative struct {
	Label   string        `json:"label"`
	Count   int           `json:"count"`
	Adapter string        `json:"adapter,omitempty"` // through which it goes on
	Planned bool          `json:"planned"`           // the plan has it
	MassG   *unit.Grams   `json:"massG,omitempty"`   // of all, with adapters; absent: not known
	Price   *float64      `json:"price,omitempty"`   // of what has to be bought; absent: not known
	Money   string        `json:"money,omitempty"`   // three letters of ISO 4217
	Plug    string        `json:"plug"`              // "straight, 8 mm"
	LeadMM  *LeadBeside   `json:"lead,omitempty"`    // absent: that cannot be told
	Gains   string        `json:"gains"`             // against the plan: "+2.1 dB on 5.8 GHz"; empty: not known
	Antenna verdict.Level `json:"antenna"`           // what its gate says
	Mount   verdict.Level `json:"mount"`             // what the room says
	Says    string        `json:"says"`              // the worst of both, in words
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
	a := Alternative{Label: c.Library.Label(on.Models[0]), Count: len(on.Models), Patch: patch}
	with := c.With(patch)
	a.weighAndPrice(c, on)
	if model, ok := gear.Find[*gear.Antenna](c.Library, on.Models[0]); ok {
		a.Plug = plugWords(model.BarrelMM, model.RightAngle)
	}
	if adapter, ok := gear.Find[*gear.Adapter](c.Library, on.Adapter); ok {
		a.Adapter, a.Plug = adapter.Label(), plugWords(adapter.BarrelMM, adapter.RightAngle)
	}
	for _, rod := range mount.RoomOf(with).Rods {
		if w := rod.Lead; w != nil && w.HasMM != nil && (a.LeadMM == nil || w.NeedMM > a.LeadMM.NeedMM) {
			a.LeadMM = &LeadBeside{w.NeedMM, *w.HasMM}
		}
	}
	own, room := antenna.Check(with), roomFor(mount.Check(with))
	a.Antenna, a.Mount = verdict.Worst(own), verdict.Worst(room)
	if both := slices.Concat(own, room); a.Antenna != verdict.Fits || a.Mount != verdict.Fits {
		a.Says = worstOf(both).Says
	}
	return a
}

// roomFor are the findings of the mount gate that antennas bring about; that they fit, where
// there is none.
func roomFor(findings []verdict.Finding) (list []verdict.Finding) {
	about := []verdict.Code{mount.CodeLead, mount.CodeBend, mount.CodePlugRoom, mount.CodeStruck, mount.CodeRoom}
	for _, f := range findings {
		if slices.Contains(about, f.Code) {
			list = append(list, f)
		}
	}
	if len(list) == 0 {
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
	add := func(id string, grams *unit.Grams, offer *gear.Offer) {
		if grams == nil {
			weighed = false
		} else {
			mass += *grams
		}
		switch {
		case had(c, id)+c.Fleet.SpareCount(id, c.Quad.ID) >= a.Count:
		case offer == nil || offer.Price == nil || a.Money != "" && offer.Currency != a.Money:
			priced = false
		default:
			price, a.Money = price+*offer.Price, offer.Currency
		}
	}
	for _, id := range on.Models {
		if m, ok := gear.Find[*gear.Antenna](c.Library, id); ok {
			add(id, m.MassG, m.Offer)
		}
		if m, ok := gear.Find[*gear.Adapter](c.Library, on.Adapter); ok {
			add(on.Adapter, m.MassG, m.Offer)
		}
	}
	if weighed {
		a.MassG = &mass
	}
	if priced {
		a.Price = &price
	}
}

// had is how many of an antenna or adapter the quad carries today.
func had(c fleet.Case, id string) (n int) {
	on := c.Quad.Now.Antennas
	if on == nil {
		return 0
	}
	for _, model := range on.Models {
		if model == id || on.Adapter == id {
			n++
		}
	}
	return n
}
