package decide

import (
	"context"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/gates/control"
	"yokeswap/core/gates/link"
	"yokeswap/core/gates/mount"
	"yokeswap/core/measure/unit"
	"yokeswap/core/plans/swap"
)

// Origin says where a unit would come from.
type Origin string

// The origins.
const (
	Today     Origin = "today"     // it is on the quad as it flies
	Owned     Origin = "owned"     // and on no quad
	Elsewhere Origin = "elsewhere" // on another quad, or planned for it
	ToBuy     Origin = "to-buy"
	ReadyMade Origin = "ready" // a quad bought whole
)

// Candidate is one unit that could be on a quad, with its best whole plan held against today;
// or leaving the quad as it is.
type Candidate struct {
	Key    string `json:"key"` // stays the same as long as it is the same thing
	Label  string `json:"label"`
	Origin Origin `json:"origin"`
	From   string `json:"from,omitempty"` // the quad it is on, or planned for
	// Level is the worst gate after the plan; without one, of the unit put in as it is.
	Level   verdict.Level `json:"level"`
	Found   Found         `json:"found"`
	Outcome Outcome       `json:"outcome"`
	// With is its best plan with each of the goggles that are not owned and can be bought.
	With []Company `json:"with"`
	// Ranks are its places where candidates are sorted, by what: "gate", "price", "mass",
	// "hover", "front", "behind", "bitrate", "lag".
	Ranks map[string]int `json:"ranks"`
	// Ready is what a quad bought whole costs and what is to be said of it; absent: it is none.
	Ready *Ready `json:"ready,omitempty"`

	patch fleet.Patch // puts the unit in
	cut   bool        // not all was looked at, with what is owned or with goggles to buy
}

// Company is a best plan with goggles that are not owned.
type Company struct {
	Model string `json:"model"`
	Label string `json:"label"`
	Found Found  `json:"found"`
}

// Outcome is what a fit gives, and against today. What is absent is not known.
type Outcome struct {
	MassG       *unit.Grams             `json:"massG,omitempty"` // more than today
	BeforeG     *unit.Grams             `json:"-"`
	AllG        *unit.Grams             `json:"-"`                 // what it weighs then
	Records     *bool                   `json:"records,omitempty"` // in place of an action camera
	HoverMin    *float64                `json:"hoverMin,omitempty"`
	FlightTime  *float64                `json:"flightTime,omitempty"` // a share of today's
	Bands       []Band                  `json:"bands"`
	BitrateMbps *unit.MegabitsPerSecond `json:"bitrateMbps,omitempty"` // at most
	RangeKM     *unit.Kilometres        `json:"rangeKM,omitempty"`     // at most, as the pairing states it
	SticksLagMS *float64                `json:"sticksLagMS,omitempty"`
	Gained      []string                `json:"gained"`
	Lost        []string                `json:"lost"`
	Goggles     []string                `json:"goggles"`    // owned ones it flies with, by name
	NotGoggles  []string                `json:"notGoggles"` // owned ones it never does
	Unsure      []string                `json:"unsure"`     // owned ones of which that is not known
	Controllers []string                `json:"controllers"`
	OneWay      *int                    `json:"oneWay,omitempty"` // steps without a way back
	Bench       *BenchTime              `json:"bench,omitempty"`  // absent: there is no plan to do

	untouched bool   // nothing is done
	flies     *bool  // its link stands; nil: not known
	middle    *bool  // its unit is to be had new and used; nil: no price is stated
	pairs     []pair // the goggles owned
}

// BenchTime is about how long a plan takes at the bench.
type BenchTime struct {
	Minutes int `json:"minutes"`
	Guessed int `json:"guessed"` // of them, for steps that nobody has timed
}

// Timing says how long a planned fit takes at the bench.
type Timing func(fleet.Case) BenchTime

// Band is what becomes of the range on one band, in front of the goggles and behind them.
type Band struct {
	Label  string   `json:"label"`
	Front  *float64 `json:"front,omitempty"` // a share of today's
	Behind *float64 `json:"behind,omitempty"`
}

// Candidates are all units a quad could carry, and leaving it as it is, each with its best
// whole plan and how long that takes, where anybody can say. It ends with the context.
func Candidates(ctx context.Context, c fleet.Case, takes Timing) []Candidate {
	list := units(c)
	trials := make([]trial, len(list)-1)
	for i := range trials {
		trials[i] = trial{at: c, one: &list[i+1]}
	}
	tryAll(ctx, trials, madeAtFirst, madeInAll)
	for i := range list {
		if best := list[i].Found.Best(); best != nil && takes != nil {
			q := *c.Quad
			q.Next = &best.Fit
			list[i].Outcome.Bench = new(takes(fleet.NewCase(c.Library, c.Fleet, &q)))
		}
	}
	list = append(list, BoughtWhole(c)...)
	rank(list)
	return list
}

// leaveKey is the key of leaving a quad as it flies.
const leaveKey = "leave"

// leave is the quad as it flies.
func leave(c fleet.Case) Candidate {
	now := fleet.NowCase(c.Library, c.Fleet, c.Quad)
	j := swap.Judge(now)
	one := Candidate{
		Key:    leaveKey,
		Label:  "leave it: " + swap.Describe(now),
		Origin: Today,
		Level:  j.Level,
		Found:  Found{Plans: []Plan{}, Hanging: []Plan{}, All: true},
	}
	one.Outcome = outcomeOf(now)
	one.Outcome.untouched = true
	if c.Quad.Now.AirUnit == nil {
		one.Outcome.flies = new(false)
	}
	return one
}

// units are what there is to choose from: leaving the quad, pieces of kit, and models to buy.
func units(c fleet.Case) []Candidate {
	list := []Candidate{leave(c)}
	today := ""
	if s := c.Quad.Now.AirUnit; s != nil {
		today = s.Kit
	}
	alike := map[string]bool{}
	for i := range c.Fleet.Kit {
		kit := &c.Fleet.Kit[i]
		if _, ok := gear.Find[*gear.AirUnit](c.Library, kit.Model); !ok {
			continue
		}
		one := Candidate{Key: "kit:" + kit.ID, Label: kit.Label(), Origin: Owned,
			patch: fleet.Patch{AirUnit: &fleet.Slot{Kit: kit.ID}}}
		holder, held := c.Fleet.Holder(kit.ID, c.Quad.ID)
		flier, flies := c.Fleet.Flier(kit.ID, c.Quad.ID)
		turns, inTurn := c.Fleet.InTurnOn(kit.ID, c.Quad.ID)
		switch {
		case kit.ID == today:
			one.Origin = Today
		case inTurn:
			one.Origin, one.From = Elsewhere, turns.Label()+", in turn"
		case held:
			one.Origin, one.From = Elsewhere, holder.Label()
		case flies:
			one.Origin, one.From = Elsewhere, flier.Label()
		case alike[kit.Alike()]:
			continue // one stands for those that are like it
		default:
			alike[kit.Alike()] = true
		}
		list = append(list, one)
	}
	for _, model := range gear.All[*gear.AirUnit](c.Library) {
		list = append(list, Candidate{Key: "model:" + model.ID, Label: model.Label(), Origin: ToBuy,
			patch: fleet.Patch{AirUnit: &fleet.Slot{Model: model.ID}}})
	}
	for i := range list {
		list[i].With = []Company{}
	}
	return list
}

// trial is a unit that is tried on a quad.
type trial struct {
	at     fleet.Case
	one    *Candidate
	memory *memory
}

// How many fits are made in each search at first; and in all those together that this was not enough
// for: half a minute on two processors. A fleet of which much is not stated has many of them.
const (
	madeAtFirst = 2_000
	madeInAll   = 250_000
)

// tryAll tries each unit with little work, and with more those it was not enough for.
func tryAll(ctx context.Context, trials []trial, atFirst, inAll int) {
	swap.Each(ctx, len(trials), func(i int) {
		trials[i].memory = newMemory(atFirst)
		if trials[i].tryOn(ctx); !trials[i].one.cut {
			trials[i].memory = nil
		}
	})
	again := slices.DeleteFunc(slices.Clone(trials), func(t trial) bool { return !t.one.cut })
	if len(again) == 0 {
		return
	}
	limit := min(mostMade, max(atFirst, inAll/len(again)))
	swap.Each(ctx, len(again), func(i int) {
		again[i].memory.limit = limit
		again[i].tryOn(ctx)
	})
}

// tryOn finds the best whole plan for a unit, and what it gives.
func (t *trial) tryOn(ctx context.Context) {
	c, one, m := t.at, t.one, t.memory
	one.With = []Company{}
	one.patch = change.Settle(c, one.patch)
	one.Found = forGoal(ctx, c, one.patch, m, MostPlans, true)
	one.cut = !one.Found.All
	for _, g := range gogglesToBuy(c) {
		if !one.Found.gogglesMatter() {
			break
		}
		goal := one.patch
		goal.Goggles = &fleet.Slot{Model: g.ID}
		company := Company{Model: g.ID, Label: g.Label(), Found: forGoal(ctx, c, goal, m, 1, false)}
		one.cut = one.cut || !company.Found.All
		if company.Found.Best() != nil {
			one.With = append(one.With, company)
		}
	}
	at := c.With(one.patch)
	if best := one.Found.Best(); best != nil {
		at = c.Carrying(&best.Fit)
		one.Level = best.Level
	} else {
		one.Level = swap.Judge(at).Level
	}
	one.Outcome = outcomeOf(at)
}

// gogglesMatter says whether other goggles could open what is shut: not where all gates that forbid a
// plan look past them.
func (f *Found) gogglesMatter() bool {
	looks := func(o Forbid) bool { return !slices.Contains(blind[o.Gate], gogglesSlot) }
	return len(f.Forbids) == 0 || slices.ContainsFunc(f.Forbids, looks)
}

// gogglesToBuy are the goggles nobody owns that have a price.
func gogglesToBuy(c fleet.Case) (list []*gear.Goggles) {
	for _, g := range gear.All[*gear.Goggles](c.Library) {
		owned := slices.ContainsFunc(c.Fleet.Kit, func(k fleet.Kit) bool { return k.Model == g.ID })
		if !owned && len(g.Bought()) > 0 {
			list = append(list, g)
		}
	}
	return list
}

// Best is the best plan, one that hangs on something where there is no other; nil where there
// is none.
func (f *Found) Best() *Plan {
	for _, list := range [][]Plan{f.Plans, f.Hanging} {
		if len(list) > 0 {
			return &list[0]
		}
	}
	return nil
}

// outcomeOf holds a fit against today.
func outcomeOf(c fleet.Case) Outcome {
	q := *c.Quad
	q.Next = c.Fit
	o := Outcome{
		Bands:       []Band{},
		Gained:      []string{},
		Lost:        []string{},
		Goggles:     []string{},
		NotGoggles:  []string{},
		Unsure:      []string{},
		Controllers: []string{},
	}
	weight := mount.Weigh(c.Library, c.Fleet, &q, nil)
	o.BeforeG, o.AllG, o.Records = weight.BeforeG, weight.AllG(), link.Records(c)
	o.MassG, o.HoverMin, o.FlightTime = weight.ChangeG, weight.HoverMinNext, weight.FlightTime
	for _, b := range antenna.Compare(c.Library, c.Fleet, &q) {
		o.Bands = append(o.Bands, Band{b.Label, b.Factor, b.BehindFactor})
	}
	is, holds := link.Holding(c)
	if holds && is.Limits != nil {
		o.BitrateMbps, o.RangeKM = is.Limits.BitrateMbps, is.Limits.RangeKM
	}
	if was, held := link.Holding(fleet.NowCase(c.Library, c.Fleet, c.Quad)); holds && held {
		o.Gained, o.Lost = is.Beyond(was), was.Beyond(is)
	}
	o.SticksLagMS = control.Draw(c).NextMS
	if unit, _, ok := c.AirUnit(); ok {
		o.middle = middle(&unit.Entry)
	}
	o.fliesWith(c)
	switch v := swap.Lazily(c).Gate(0); standingOf(&v) {
	case open, warned:
		o.OneWay, o.flies = new(doorsOf(&v)), new(true)
	case shut:
		o.flies = new(false)
	}
	return o
}

// middle says whether one of a model is to be had new and used; nil where no price is stated.
func middle(e *gear.Entry) *bool {
	deals := e.Bought()
	if len(deals) == 0 {
		return nil
	}
	of := func(kind gear.DealKind) bool {
		return slices.ContainsFunc(deals, func(d gear.Deal) bool { return d.Kind == kind })
	}
	return new(of(gear.DealNew) && of(gear.DealUsed))
}

// pair is goggles that are owned, and how far a fit links with them.
type pair struct {
	kit, label string
	reach      link.Reach
}

// sort sorts the goggles owned by whether the fit links with them, but for those that are sold.
func (o *Outcome) sort(sold []string) {
	o.Goggles, o.NotGoggles, o.Unsure = []string{}, []string{}, []string{}
	for _, p := range o.pairs {
		list := &o.Unsure
		switch p.reach {
		case link.ReachNow, link.ReachAfter:
			list = &o.Goggles
		case link.ReachNever:
			list = &o.NotGoggles
		}
		if !slices.Contains(sold, p.kit) {
			*list = append(*list, p.label)
		}
	}
}

// fliesWith sorts the goggles owned by whether the fit links with them, and names what the
// sticks go through there.
func (o *Outcome) fliesWith(c fleet.Case) {
	for i := range c.Fleet.Kit {
		kit := &c.Fleet.Kit[i]
		if _, ok := gear.Find[*gear.Goggles](c.Library, kit.Model); !ok {
			continue
		}
		r := link.ReachOf(c, kit.ID)
		o.pairs = append(o.pairs, pair{kit.ID, kit.Label(), r.Reach})
		links := r.Reach == link.ReachNow || r.Reach == link.ReachAfter
		if links && r.Controller != "" && !slices.Contains(o.Controllers, r.Controller) {
			o.Controllers = append(o.Controllers, r.Controller)
		}
	}
	o.sort(nil)
}
