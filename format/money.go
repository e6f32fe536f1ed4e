package format

import (
	"time"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// checkDeals checks what an entry costs and what comes with it.
func checkDeals(ps *Problems, path string, e *gear.Entry) {
	if e.Offer != nil {
		checkDay(ps, path+".offer.seen", e.Offer.Seen)
	}
	checkPieces(ps, path, "box", e.Box)
	ids := map[string]string{}
	for i := range e.Deals {
		d := &e.Deals[i]
		at := path + "." + indexed("deals", i)
		once(ps, ids, at+".id", d.ID)
		checkDay(ps, at+".seen", d.Seen)
		checkPieces(ps, at, "with", d.With)
		if d.Kind != gear.DealUsed && d.Locked != nil {
			ps.add(at+".locked", "only a used one has a former owner")
		}
		if d.Kind == gear.DealResale && d.Bundle() {
			ps.add(at+".with", "what one of one's own brings is stated by itself")
		}
	}
}

// checkPieces finds a model that stands twice in a list.
func checkPieces(ps *Problems, path, field string, list []gear.Pieces) {
	models := map[string]bool{}
	for i, p := range list {
		if models[p.Model] {
			ps.add(path+"."+indexed(field, i)+".model", "%s stands already: state how many there are", p.Model)
		}
		models[p.Model] = true
	}
}

// checkDay finds a day the calendar does not have.
func checkDay(ps *Problems, path, day string) {
	if day == "" {
		return
	}
	if _, err := time.Parse(time.DateOnly, day); err != nil {
		ps.add(path, "%s is no day of the calendar", day)
	}
}

// checkRates checks what currencies are said to be worth.
func checkRates(ps *Problems, f *fleet.Fleet) {
	seen := map[string]bool{}
	for i, r := range f.Rates {
		at := indexed("rates", i)
		checkDay(ps, at+".seen", r.Seen)
		switch {
		case r.Currency == r.In:
			ps.add(at+".in", "a currency is worth itself")
		case seen[r.Pair()]:
			ps.add(at, "what %s is worth in %s is stated already", r.Currency, r.In)
		}
		seen[r.Pair()] = true
	}
}

// checkScenarios checks the plans kept beside the one there is.
func checkScenarios(ps *Problems, f *fleet.Fleet) {
	ids := map[string]string{}
	for i := range f.Scenarios {
		s := &f.Scenarios[i]
		at := indexed("scenarios", i)
		once(ps, ids, at+".id", s.ID)
		checkDay(ps, at+".made", s.Made)
		quads := map[string]string{}
		for k := range s.Quads {
			quad := at + "." + indexed("quads", k)
			once(ps, quads, quad+".quad", s.Quads[k].Quad)
			if s.Quads[k].Next != nil {
				checkFit(ps, quad+".next", s.Quads[k].Next)
			}
		}
	}
}
