package antenna

import (
	"cmp"
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/radio"
	"yokeswap/core/measure/unit"
)

// Candidates lists the antennas the quad could carry instead: pairs of one model,
// those owned in the number needed, and those to buy.
func Candidates(c fleet.Case) (list []verdict.Candidate) {
	p := newPair(c)
	if !p.hasUnit || p.unit.port == nil || p.unit.port.Antennas == nil {
		return nil
	}
	n := *p.unit.port.Antennas
	if aim, ok := Aim(c); ok {
		list = append(list, verdict.Candidate{Effort: verdict.Setting, Patch: fleet.Patch{Antennas: &aim}})
	}
	for _, a := range gear.All[*gear.Antenna](c.Library) {
		next := fleet.Antennas{}
		if c.Fit.Antennas != nil {
			next = *c.Fit.Antennas
		}
		next = next.Carrying(slices.Repeat([]string{a.ID}, n), "")
		cand := verdict.Candidate{Effort: verdict.Wire}
		if !a.Onto(p.unit.port) {
			adapter := p.adapterFor(a, p.unit.port)
			if adapter == nil {
				continue
			}
			next.Adapter = adapter.ID
		}
		if c.Fit.Antennas != nil && slices.Equal(c.Fit.Antennas.Models, next.Models) &&
			c.Fit.Antennas.Adapter == next.Adapter {
			continue
		}
		if c.Fleet.SpareCount(a.ID, c.Quad.ID) < n {
			cand.Effort = verdict.Part
		}
		cand.Patch = fleet.Patch{Antennas: &next}
		cand.Gains = newPair(c.With(cand.Patch)).against(p)
		list = append(list, cand)
	}
	return list
}

// Aim is how a plan's antennas are to stand where it does not say: as far apart and as far from
// carbon as builders aim at (common practice). False where nothing is left to say.
func Aim(c fleet.Case) (fleet.Antennas, bool) {
	a := c.Fit.Antennas
	if c.FitName != fleet.FitNext || a == nil || len(a.Models) == 0 || len(a.Stands) > 0 {
		return fleet.Antennas{}, false
	}
	next, more := *a, false
	if a.AngleDeg == nil && len(a.Models) > 1 {
		next.AngleDeg, more = new(goodAngle), true
	}
	if a.CarbonMM == nil {
		next.CarbonMM, more = new(carbonRoom), true
	}
	return next, more
}

// Set is what to screw on one pair of goggles.
type Set struct {
	Goggles string   `json:"goggles"`
	Name    string   `json:"name"`
	Now     []string `json:"now"` // what is on them, by name
	Best    []string `json:"best"`
	// BetterDB is what the quads flown with them gain on the average.
	BetterDB unit.Decibels `json:"betterDB"`
	// Buy is what would do best if money is no matter, Thrift what brings most for
	// each unit of money; absent: nothing is better, or has no price.
	Buy    *Purchase `json:"buy,omitempty"`
	Thrift *Purchase `json:"thrift,omitempty"`
	Says   string    `json:"says"`
}

// Purchase is a full set of one model to be bought.
type Purchase struct {
	Label    string        `json:"label"`
	Count    int           `json:"count"`
	DB       unit.Decibels `json:"dB"` // over the best of what is owned
	Price    *float64      `json:"price,omitempty"`
	Currency string        `json:"currency,omitempty"`
}

// owned is an antenna model with how many there are in the drawer.
type owned struct {
	antenna *gear.Antenna
	count   int
	score   unit.Decibels
}

// Sets finds, for each pair of goggles a quad is to be flown with, the best
// antennas of those in the drawer and on those goggles, and the best to be
// bought. Each antenna hears for itself, so the best set is the best antennas one
// by one; its worth is the mean over the quads of gain less polarisation loss,
// with a missing band as 20 dB.
func Sets(lib *gear.Library, f *fleet.Index) []Set { return SetsFor(lib, f, "") }

// SetsFor are those of one pair of goggles; of all where it is empty.
func SetsFor(lib *gear.Library, f *fleet.Index, only string) []Set {
	list := []Set{}
	for i := range f.Kit {
		kit := &f.Kit[i]
		if only != "" && kit.ID != only {
			continue
		}
		goggles, ok := gear.Find[*gear.Goggles](lib, kit.Model)
		if !ok || goggles.Receive == nil || goggles.Receive.Antennas == nil {
			continue
		}
		var links []*pair
		for q := range f.Quads {
			c := fleet.NewCase(lib, f, &f.Quads[q])
			if c.Fit.Goggles == nil || c.Fit.Goggles.Kit != kit.ID {
				continue
			}
			if p := newPair(c); p.hasUnit && len(p.unit.missing) == 0 {
				links = append(links, p)
			}
		}
		if len(links) == 0 {
			continue
		}
		list = append(list, bestSet(lib, f, kit, goggles, links))
	}
	return list
}

func bestSet(lib *gear.Library, f *fleet.Index, kit *fleet.Kit, goggles *gear.Goggles, links []*pair) Set {
	s := Set{Goggles: kit.ID, Name: kit.Label(), Now: []string{}, Best: []string{}}
	on := map[string]int{}
	var now unit.Decibels
	for _, id := range kit.Antennas {
		on[id]++
		s.Now = append(s.Now, lib.Label(id))
		if a, ok := gear.Find[*gear.Antenna](lib, id); ok {
			now += worth(a, goggles, links)
		}
	}
	var have, all []owned
	for _, a := range gear.All[*gear.Antenna](lib) {
		if !a.Onto(goggles.Receive) && kit.Adapter == "" {
			continue
		}
		o := owned{a, on[a.ID] + f.SpareCount(a.ID, ""), worth(a, goggles, links)}
		all = append(all, o)
		if o.count > 0 {
			have = append(have, o)
		}
	}
	byWorth := func(a, b owned) int { return cmp.Compare(b.score, a.score) }
	slices.SortStableFunc(have, byWorth)
	slices.SortStableFunc(all, byWorth)
	var best unit.Decibels
	picked := pickSet(have, *goggles.Receive.Antennas)
	for _, o := range picked {
		s.Best = append(s.Best, o.antenna.Label())
		best += o.score
	}
	n := unit.Decibels(max(1, len(s.Best)))
	if len(kit.Antennas) > 0 {
		s.BetterDB = best/n - now/unit.Decibels(len(kit.Antennas))
	}
	s.Buy, s.Thrift = purchases(all, best/n, *goggles.Receive.Antennas)
	switch {
	case len(s.Best) == 0:
		s.Says = "No antenna owned goes onto " + s.Name + "."
	case s.BetterDB < 0.05:
		s.Says = s.Name + " carries the best of what is owned."
	default:
		s.Says = fmt.Sprintf("%s would hear %.1f dB better with what is owned.", s.Name, float64(s.BetterDB))
	}
	if len(picked) > 0 && !slices.ContainsFunc(picked, func(o owned) bool { return !narrow(o.antenna) }) {
		s.Says += " All of them look one way: the picture is lost behind."
	}
	return s
}

// narrow says whether an antenna looks one way.
func narrow(a *gear.Antenna) bool { return a.BeamDeg != nil && *a.BeamDeg < allRound }

// pickSet takes the best antennas, one by one, from a list ordered by worth. Of several
// at least one hears all round, where one is there: goggles with diversity take what
// hears best at each moment, so one that looks one way among others that do not reaches
// further in front and loses nothing behind (common practice).
func pickSet(have []owned, count int) (picked []owned) {
	for _, o := range have {
		for range min(count-len(picked), o.count) {
			picked = append(picked, o)
		}
	}
	allNarrow := !slices.ContainsFunc(picked, func(o owned) bool { return !narrow(o.antenna) })
	if len(picked) < 2 || !allNarrow {
		return picked
	}
	if i := slices.IndexFunc(have, func(o owned) bool { return !narrow(o.antenna) }); i >= 0 {
		picked[len(picked)-1] = have[i]
	}
	return picked
}

// purchases picks from models, best first, what beats the mean of a set owned: the
// best, and the one with most decibels for its price. Prices in another currency
// than the first cannot be weighed against it and are left out.
func purchases(models []owned, than unit.Decibels, count int) (best, thrift *Purchase) {
	for _, o := range models {
		buy := Purchase{Label: o.antenna.Label(), Count: count, DB: o.score - than}
		if buy.DB < 0.05 {
			break
		}
		if offer := o.antenna.Offer; offer != nil && offer.Price != nil {
			buy.Price, buy.Currency = new(*offer.Price*float64(count)), offer.Currency
		}
		if best == nil {
			best = &buy
		}
		if buy.Price == nil || thrift != nil && buy.Currency != thrift.Currency {
			continue
		}
		if thrift == nil || float64(buy.DB)**thrift.Price > float64(thrift.DB)**buy.Price {
			thrift = &buy
		}
	}
	return best, thrift
}

// worth is what an antenna on the goggles brings to the quads flown with them.
func worth(a *gear.Antenna, goggles *gear.Goggles, links []*pair) unit.Decibels {
	const noBand unit.Decibels = -20
	var sum unit.Decibels
	looked := 0
	for _, p := range links {
		for _, b := range p.unit.port.Shared(goggles.Receive) {
			looked++
			far := p.unit.best(b)
			g := gain(a, b)
			if far == nil || g == nil || !a.Polarisation.Known() || !far.Polarisation.Known() {
				sum += noBand
				continue
			}
			sum += *g - radio.PolarisationLoss(a.Polarisation, far.Polarisation)
		}
	}
	return sum / unit.Decibels(max(1, looked))
}
