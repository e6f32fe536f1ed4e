package decide

import (
	"context"
	"reflect"
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
	bought  string         // goggles it was found for, by model; empty: those there are
	with    string         // the same in words
	// alike is the same number for ways of a quad with pieces of kit of which one stands for the
	// other; zero: its piece stands for none.
	alike int
}

// call names a way by its unit, and the goggles it was found for.
func (w *Way) call(key, label string) {
	w.Key, w.Label = key, label+w.with
	if w.bought != "" {
		w.Key += "+model:" + w.bought
	}
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

	alone fleet.Case  // the quad as if nobody else had a claim on anything
	flies bool        // it links today
	ready []Candidate // that could be bought whole in its place, and link
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
	return (*Ways)(nil).After(ctx, lib, index)
}

// After are the ways after something was changed: quads of which nothing was keep theirs.
func (w *Ways) After(ctx context.Context, lib *gear.Library, index *fleet.Index) (Ways, error) {
	out := Ways{library: lib, index: index, Quads: make([]QuadWays, len(index.Quads))}
	var trials []trial
	lists := make([][]Candidate, len(index.Quads))
	for i := range index.Quads {
		q := &out.Quads[i]
		if before, ok := w.still(lib, index, &index.Quads[i]); ok {
			*q = before
			continue
		}
		*q = newQuadWays(lib, index, &index.Quads[i])
		lists[i] = units(q.alone)
		for k := range lists[i][1:] {
			trials = append(trials, trial{at: q.alone, one: &lists[i][k+1]})
		}
	}
	tryAll(ctx, trials, madeAtFirst, madeInAll)
	if err := ctx.Err(); err != nil {
		return out, err
	}
	for i := range out.Quads {
		q := &out.Quads[i]
		for k := range lists[i] {
			q.take(q.alone, &lists[i][k])
		}
		if len(lists[i]) > 0 {
			if err := q.routed(ctx); err != nil {
				return out, err
			}
			q.alike(q.alone)
		}
		q.named(index)
	}
	return out, nil
}

// still are the ways of a quad where neither it nor anything it could take was changed.
func (w *Ways) still(lib *gear.Library, index *fleet.Index, q *fleet.Quad) (QuadWays, bool) {
	if w == nil || w.library != lib {
		return QuadWays{}, false
	}
	a, b := w.index.Fleet, index.Fleet
	if a.Region != b.Region || change.TermsOf(lib, w.index) != change.TermsOf(lib, index) ||
		!reflect.DeepEqual([]any{unsold(a.Kit), a.Spares, a.Rates}, []any{unsold(b.Kit), b.Spares, b.Rates}) {
		return QuadWays{}, false
	}
	at := slices.IndexFunc(w.Quads, func(o QuadWays) bool { return o.Quad == q.ID })
	before, ok := w.index.Quad(q.ID)
	if at < 0 || !ok {
		return QuadWays{}, false
	}
	was, is := *before, *q
	was.Purpose, was.Weight, was.Name, is.Purpose, is.Weight, is.Name = "", nil, "", "", nil, ""
	out := w.Quads[at]
	out.Ways = slices.Clone(out.Ways)
	return out, reflect.DeepEqual(was, is)
}

// unsold are pieces of kit whatever is said of selling them.
func unsold(kit []fleet.Kit) []fleet.Kit {
	list := slices.Clone(kit)
	for i := range list {
		list[i].Sell = false
	}
	return list
}

// newQuadWays is a quad as if nobody else had a claim on anything.
func newQuadWays(lib *gear.Library, index *fleet.Index, q *fleet.Quad) QuadWays {
	own := *index.Fleet
	own.Quads = []fleet.Quad{*q}
	alone := fleet.NewIndex(&own)
	today := swap.Lazily(fleet.NowCase(lib, alone, &own.Quads[0])).Gate(0)
	c := fleet.NewCase(lib, alone, &own.Quads[0])
	return QuadWays{
		Quad:  q.ID,
		Ways:  []Way{},
		Out:   []Out{},
		All:   true,
		alone: c,
		flies: standingOf(&today) < hangs,
		ready: slices.DeleteFunc(BoughtWhole(c), func(one Candidate) bool { return !one.stands() }),
	}
}

// take adds the ways of a candidate: leaving it, or its plans, of those alike in goggles the
// best.
func (w *QuadWays) take(c fleet.Case, one *Candidate) {
	w.All = w.All && one.Found.All && !one.cut
	if one.Key == leaveKey {
		w.Ways = append(w.Ways, newWay(fleet.NowCase(c.Library, c.Fleet, c.Quad), one, nil))
		return
	}
	before := len(w.Ways)
	w.plans(c, one, "", one.Found)
	for _, company := range one.With {
		w.plans(c, one, company.Model, company.Found)
	}
	if len(w.Ways) > before {
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

// plans adds the plans of a candidate with goggles that are bought for it, or with those there
// are where no model is named.
func (w *QuadWays) plans(c fleet.Case, one *Candidate, goggles string, found Found) {
	var slots []fleet.Slot
	for _, plan := range slices.Concat(found.Plans, found.Hanging) {
		if plan.Cost.Hides.WorseThan(verdict.Fails) {
			continue // found out first, then planned
		}
		var slot fleet.Slot
		if plan.Fit.Goggles != nil {
			slot = *plan.Fit.Goggles
		}
		if slices.Contains(slots, slot) || goggles != "" && slot.Model != goggles {
			continue
		}
		slots = append(slots, slot)
		way := newWay(c.Carrying(&plan.Fit), one, &plan)
		if goggles != "" {
			way.bought, way.with = goggles, " with "+c.Library.Label(goggles)
			way.call(one.Key, one.Label)
		}
		w.Ways = append(w.Ways, way)
	}
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

// routed leaves out the ways that no firmware route brings about even where nothing else is wanted.
func (w *QuadWays) routed(ctx context.Context) error {
	var kept []Way
	for i := range w.Ways {
		way := &w.Ways[i]
		if i > 0 && way.kit != "" && way.goggles() != "" {
			planned := *w.alone.Fleet.Fleet
			quad := *w.alone.Quad
			quad.Next = &way.fit
			planned.Quads = []fleet.Quad{quad}
			wants := []fleet.Want{{Quad: quad.ID, Goggles: way.goggles(), Weight: fleet.Must}}
			places, err := conflictOf(ctx, w.alone.Library, &planned, wants)
			if err != nil {
				return err
			}
			if len(places) > 0 {
				w.Out = append(w.Out, Out{Label: way.Label, Gates: []string{}, Says: "no firmware route brings it about with the " +
					"goggles it would fly with"})
				continue
			}
		}
		kept = append(kept, *way)
	}
	w.Ways = kept
	return nil
}

// alike adds the ways of each further piece of kit that is like one that was tried: there are as
// many of them as there are pieces.
func (w *QuadWays) alike(c fleet.Case) {
	for at, way := range slices.Clone(w.Ways) {
		tried, ok := c.Fleet.Piece(way.kit)
		if !ok || way.Origin != Owned {
			continue
		}
		w.Ways[at].alike, way.alike = at, at // the first leaves it
		for i := range c.Fleet.Kit {
			kit := &c.Fleet.Kit[i]
			own := c.Quad.Now.AirUnit != nil && c.Quad.Now.AirUnit.Kit == kit.ID
			if kit.ID == tried.ID || own || kit.Alike() != tried.Alike() {
				continue
			}
			w.Ways = append(w.Ways, way.carrying(c, kit))
		}
	}
}

// carrying is a way with another piece of kit that is like its own.
func (w Way) carrying(c fleet.Case, kit *fleet.Kit) Way {
	was := w.kit
	w.kit = kit.ID
	w.call("kit:"+kit.ID, kit.Label())
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
		if way.kit == "" || way.Origin == Today {
			continue
		}
		way.Origin, way.From = Owned, ""
		if turns, ok := index.InTurnOn(way.kit, w.Quad); ok {
			way.Origin, way.From = Elsewhere, turns.Label()+", in turn"
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
