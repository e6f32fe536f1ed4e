package decide

import (
	"cmp"
	"context"
	"math"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
)

// Way is one thing that can be done with a quad: leave it, or a whole plan.
type Way struct {
	Key    string        `json:"key"` // of its candidate
	Label  string        `json:"label"`
	Origin Origin        `json:"origin"`
	From   string        `json:"from,omitempty"`
	Level  verdict.Level `json:"level"`
	// FindOut are the values it hangs on.
	FindOut []string      `json:"findOut,omitempty"`
	Steps   []string      `json:"steps"`
	Patches []fleet.Patch `json:"patches"`

	outcome Outcome
	fit     fleet.Fit
	needs   map[string]int // parts beyond those on it today, by model
	kit     string         // air unit, by kit id
}

// goggles are those it is flown with, by kit id; empty: none that are owned.
func (w *Way) goggles() string {
	if w.fit.Goggles == nil {
		return ""
	}
	return w.fit.Goggles.Kit
}

// Kit is the air unit it takes, by kit id; empty: one to buy, or none.
func (w *Way) Kit() string { return w.kit }

// Ways are what can be done with each quad of a fleet, each by itself.
type Ways struct {
	Quads []QuadWays

	library *gear.Library
	index   *fleet.Index
}

// QuadWays are those of one quad.
type QuadWays struct {
	Quad string
	Ways []Way // the first leaves it
	Out  []Out
	All  bool // nothing that could matter was left untried

	alone fleet.Case // the quad as if nobody else had a claim on anything
	flies bool       // it links today
}

// Out is a unit that has no plan on a quad, and the gates that forbid it.
type Out struct {
	Label string   `json:"label"`
	Gates []string `json:"gates"`
	Says  string   `json:"says"` // the first of what stands against it
}

// WaysOf tries every unit on every quad. Each is tried as if nobody else had a claim on what is
// owned: who gets what is decided together. It ends with the context.
func WaysOf(ctx context.Context, lib *gear.Library, index *fleet.Index) (Ways, error) {
	out := Ways{library: lib, index: index}
	for i := range index.Quads {
		q := index.Quads[i]
		own := *index.Fleet
		own.Quads = []fleet.Quad{q}
		alone := fleet.NewIndex(&own)
		c := fleet.NewCase(lib, alone, &own.Quads[0])
		today := swap.Lazily(fleet.NowCase(lib, alone, &own.Quads[0])).Gate(0)
		ways := QuadWays{Quad: q.ID, Ways: []Way{}, Out: []Out{}, All: true, alone: c, flies: standingOf(&today) < hangs}
		for _, one := range Candidates(ctx, c) {
			ways.take(c, &one)
		}
		if err := ctx.Err(); err != nil {
			return out, err
		}
		ways.alike(c)
		ways.named(index)
		out.Quads = append(out.Quads, ways)
	}
	return out, nil
}

// take adds the ways of a candidate: leaving it, or its plans, of those alike in goggles the
// best.
func (w *QuadWays) take(c fleet.Case, one *Candidate) {
	w.All = w.All && one.Found.All
	if one.Key == leaveKey {
		w.Ways = append(w.Ways, newWay(fleet.NowCase(c.Library, c.Fleet, c.Quad), one, nil))
		return
	}
	var slots []fleet.Slot
	for _, plan := range slices.Concat(one.Found.Plans, one.Found.Hanging) {
		if plan.Cost.Hides.WorseThan(verdict.Fails) {
			continue // found out first, then planned
		}
		var goggles fleet.Slot
		if plan.Fit.Goggles != nil {
			goggles = *plan.Fit.Goggles
		}
		if !slices.Contains(slots, goggles) {
			slots = append(slots, goggles)
			w.Ways = append(w.Ways, newWay(c.Carrying(&plan.Fit), one, &plan))
		}
	}
	if len(slots) > 0 {
		return
	}
	out := Out{Label: one.Label, Gates: []string{}, Says: "what forbids it could not be shown"}
	switch {
	case len(one.Found.Hanging) > 0:
		out.Says = "every plan hides a danger behind what is not known"
	case !one.Found.All:
		out.Says = "none was found, and not all was tried"
	}
	for _, f := range one.Found.Forbids {
		out.Gates = append(out.Gates, f.Title)
		if len(f.Findings) > 0 && len(out.Gates) == 1 {
			out.Says = f.Findings[0].Says
		}
	}
	w.Out = append(w.Out, out)
}

func newWay(c fleet.Case, one *Candidate, plan *Plan) Way {
	w := Way{Key: one.Key, Label: one.Label, Origin: one.Origin, From: one.From, Level: one.Level, outcome: one.Outcome,
		Steps: []string{}, Patches: []fleet.Patch{}, fit: *c.Fit, needs: change.Needs(c)}
	if s := c.Fit.AirUnit; s != nil {
		w.kit = s.Kit
	}
	if plan == nil {
		return w
	}
	w.Level, w.outcome = plan.Level, outcomeOf(c)
	for _, s := range plan.Steps {
		w.Steps, w.Patches = append(w.Steps, s.Says), append(w.Patches, s.Patch)
	}
	for _, m := range plan.FindOut {
		if !slices.Contains(w.FindOut, m.Label) {
			w.FindOut = append(w.FindOut, m.Label)
		}
	}
	return w
}

// alike adds the ways of each further piece of kit that is like one that was tried: there are as
// many of them as there are pieces.
func (w *QuadWays) alike(c fleet.Case) {
	for _, way := range slices.Clone(w.Ways) {
		tried, ok := c.Fleet.Piece(way.kit)
		if !ok || way.Origin != Owned {
			continue
		}
		for i := range c.Fleet.Kit {
			kit := &c.Fleet.Kit[i]
			own := c.Quad.Now.AirUnit != nil && c.Quad.Now.AirUnit.Kit == kit.ID
			if kit.ID == tried.ID || own || kit.Alike() != tried.Alike() {
				continue
			}
			w.Ways = append(w.Ways, way.with(c, kit))
		}
	}
}

// with is a way with another piece of kit that is like its own.
func (w Way) with(c fleet.Case, kit *fleet.Kit) Way {
	was := w.kit
	w.Key, w.Label, w.kit = "kit:"+kit.ID, kit.Label(), kit.ID
	w.fit = w.fit.Clone()
	w.fit.AirUnit.Kit = kit.ID
	patches := w.Patches
	w.Patches, w.Steps = nil, nil
	for _, p := range patches {
		if p.AirUnit != nil && p.AirUnit.Kit == was {
			slot := *p.AirUnit
			slot.Kit = kit.ID
			p.AirUnit = &slot
		}
		w.Patches, w.Steps = append(w.Patches, p), append(w.Steps, change.Words(c, p))
		c = c.With(p)
	}
	return w
}

// named says of each unit that is owned on which quad of the whole fleet it flies.
func (w *QuadWays) named(index *fleet.Index) {
	for i := range w.Ways {
		way := &w.Ways[i]
		if way.kit == "" || way.Origin != Owned {
			continue
		}
		for k := range index.Quads {
			q := &index.Quads[k]
			if s := q.Now.AirUnit; s != nil && s.Kit == way.kit && q.ID != w.Quad {
				way.Origin, way.From = Elsewhere, q.Label()
			}
		}
	}
}

// holdsWith says whether a way goes with its goggles in another state than it plans for them. Where
// that cannot be told it does not; a quad that is left and does not link today has nothing to lose.
func (w *QuadWays) holdsWith(way *Way, goggles fleet.Slot) bool {
	if way.goggles() == "" || *way.fit.Goggles == goggles || way.Key == leaveKey && !w.flies {
		return true
	}
	fit := way.fit
	fit.Goggles = &goggles
	v := swap.Lazily(w.alone.Carrying(&fit)).Gate(0)
	return standingOf(&v) < hangs
}

// prices are what parts cost in one currency, in hundredths.
type prices struct {
	library  *gear.Library
	currency string
	dearest  map[gear.Kind]int64 // of what has a price, by kind
	part     int64               // of all parts that are no devices
	assumed  []string            // models counted at another's price
	foreign  []string            // models priced in another currency
}

func newPrices(lib *gear.Library, currency string) *prices {
	p := &prices{library: lib, currency: currency, dearest: map[gear.Kind]int64{}}
	for _, item := range lib.Items() {
		price, ok := p.stated(item)
		if !ok {
			continue
		}
		p.dearest[item.Kind()] = max(p.dearest[item.Kind()], price)
		if _, device := item.(gear.Linked); !device && item.Kind() != gear.KindBoard && item.Kind() != gear.KindFrame {
			p.part = max(p.part, price)
		}
	}
	return p
}

func (p *prices) stated(item gear.Item) (int64, bool) {
	offer := item.Head().Offer
	if offer == nil || offer.Price == nil || offer.Currency != p.currency {
		return 0, false
	}
	return int64(math.Round(*offer.Price * 100)), true
}

// of is what one of a model costs. Where no price is stated it counts as the dearest of its
// kind, so that leaving a price out never makes a plan cheaper than the rest of its kind; false
// where it has one in another currency, or none of its kind has any.
func (p *prices) of(model string) (int64, bool) {
	item, ok := p.library.Item(model)
	if !ok {
		p.assumed = append(p.assumed, model)
		return p.part, p.part > 0
	}
	if price, ok := p.stated(item); ok {
		return price, true
	}
	if offer := item.Head().Offer; offer != nil && offer.Price != nil {
		p.foreign = append(p.foreign, model)
		return 0, false
	}
	if plate, ok := item.(*gear.Plate); ok && plate.Printed {
		return 0, true
	}
	p.assumed = append(p.assumed, model)
	if _, device := item.(gear.Linked); device {
		return p.dearest[item.Kind()], p.dearest[item.Kind()] > 0
	}
	price := cmp.Or(p.dearest[item.Kind()], p.part)
	return price, price > 0
}
