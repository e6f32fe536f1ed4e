package route

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Conflict is the smallest set of wants that exclude each other, with the facts
// that make them, and what would resolve it.
type Conflict struct {
	Wants []int    `json:"wants"` // places in the request, the failed one first
	Facts []string `json:"facts"`
	Ways  []Way    `json:"ways"`
}

// toBuyFor is what a way costs where something has to be bought, as far as a price is stated.
func toBuyFor(item gear.Item) string {
	costs := "to buy"
	if o := item.Head().Offer; o != nil && o.Price != nil {
		costs += fmt.Sprintf(" for %.2f %s", *o.Price, o.Currency)
	}
	if o := item.Head().UsedOffer(); o != nil && o.Price != nil {
		costs += fmt.Sprintf(", used for %.2f %s", *o.Price, o.Currency)
	}
	return costs
}

// Way is a way out that has been tried: with it the failed want is met and
// every other want that was met still is, but for those it gives up.
type Way struct {
	Says  string `json:"says"`
	Costs string `json:"costs,omitempty"`
	Buys  bool   `json:"buys"` // something has to be bought for it
}

// MostExplained is how many wants that failed a plan explains by itself; more than
// anybody reads at once. Why explains any of the others.
const MostExplained = 40

// Why explains why a want fails in the plan for all; nil where it does not.
func Why(r Request, want int) (*Conflict, error) {
	r, err := r.withTurns()
	if err != nil {
		return nil, err
	}
	p, err := prepare(r)
	if err != nil {
		return nil, err
	}
	w := newWriter(r, p, p.solve(cmp.Or(r.Budget, DefaultBudget)))
	links := w.links()
	if want < 0 || want >= len(links) {
		return nil, fmt.Errorf("wants[%d]: there are %d wants", want, len(links))
	}
	w.explain(links, func(i int) bool { return i == want })
	return links[want].Conflict, nil
}

// explain gives the wants that failed and are asked for their conflicts.
func (w *writer) explain(links []Link, asked func(i int) bool) {
	stand := w.standing(links)
	refused := map[int]bool{}
	for _, r := range w.refused {
		refused[r.want] = true
	}
	for i := range links {
		if links[i].Met || w.enough() || !asked(i) {
			continue // what takes too long is explained when it is asked for
		}
		met := stand.beside(w.Wants[i].Quad)
		c := &Conflict{Wants: []int{i}, Facts: []string{}, Ways: []Way{}}
		if !refused[i] {
			c.Wants = w.smallest(i, met)
			for _, k := range c.Wants {
				c.Facts = append(c.Facts, w.fact(k))
			}
		}
		c.Ways = append(c.Ways, w.ways(i, c.Wants[1:], met)...)
		links[i].Conflict = c
	}
}

// enough says whether explaining has taken all the work it may, or nobody waits for it.
func (w *writer) enough() bool { return *w.spent > mostLooks || w.Request.gone() != nil }

// standing are met wants that stand for all of them: of quads alike, with the same
// wants met, the wants of one. Where those can be met so can the others, since each
// unit is set for itself. What a fleet takes to explain so grows with its kinds of
// quads, not with their number.
type standing struct {
	all   []int            // one quad of each kind
	kind  map[string]int   // quad to its kind
	first []string         // kind to the quad that stands for it
	own   map[string][]int // quad to its met wants
}

func (w *writer) standing(links []Link) standing {
	s := standing{kind: map[string]int{}, own: map[string][]int{}}
	kinds := map[string]int{}
	for g, group := range w.groups {
		for _, m := range group.members {
			key := fmt.Sprint(g)
			var own []int
			for k, i := range m.wants {
				if links[i].Met {
					own = append(own, i)
					key += fmt.Sprint(" ", k)
				}
			}
			if len(own) == 0 {
				continue
			}
			quad := w.Wants[own[0]].Quad
			kind, seen := kinds[key]
			if !seen {
				kind = len(s.first)
				kinds[key] = kind
				s.first = append(s.first, quad)
				s.all = append(s.all, own...)
			}
			s.kind[quad], s.own[quad] = kind, own
		}
	}
	slices.Sort(s.all)
	return s
}

// beside are the met wants that stand for all, with all of one quad's own.
func (s *standing) beside(quad string) []int {
	own := s.own[quad]
	if len(own) == 0 || s.first[s.kind[quad]] == quad {
		return s.all
	}
	list := append(slices.Clone(s.all), own...)
	slices.Sort(list)
	return list
}

// feasible asks whether all these wants can be met at once; excluded whether it is
// proven that they cannot: neither where the search was cut off at its bound.
func feasible(r Request, wants []int) bool {
	all, _ := tryAll(r, wants)
	return all
}

func excluded(r Request, wants []int) bool {
	all, bounded := tryAll(r, wants)
	return !all && !bounded
}

func tryAll(r Request, wants []int) (all, bounded bool) {
	sub := r
	sub.Wants, sub.Values = nil, nil
	for _, i := range wants {
		want := r.Wants[i]
		want.Weight = fleet.Must
		sub.Wants = append(sub.Wants, want)
	}
	p, err := prepare(sub)
	if err != nil || len(p.refused) > 0 {
		return false, false
	}
	s := p.solveWithin(DefaultBudget, mostLooks/30)
	if r.spent != nil {
		*r.spent += s.looks
	}
	return int(s.score.high>>(2*part)) == len(wants), s.bounded
}

// smallest finds the fewest wants, the failed one among them, that cannot all
// be met: the failed one alone, then with one other, with two others, and
// beyond that a set of which none can be spared. Only wants that share a device
// with the set can matter.
func (w *writer) smallest(failed int, met []int) []int {
	if excluded(w.Request, []int{failed}) {
		return []int{failed}
	}
	near := w.near(failed, met)
	for _, a := range near {
		if w.enough() {
			break
		}
		if excluded(w.Request, []int{failed, a}) {
			return []int{failed, a}
		}
	}
	const mostPairs = 400
	tried := 0
	for i, a := range near {
		for _, b := range near[i+1:] {
			if tried++; tried > mostPairs || w.enough() {
				break
			}
			if excluded(w.Request, []int{failed, a, b}) {
				return []int{failed, a, b}
			}
		}
	}
	set := append([]int{failed}, met...)
	if !excluded(w.Request, set) {
		return []int{failed} // dearer than what was chosen, not excluded by it
	}
	for i := len(set) - 1; i > 0; i-- { // take out whatever is not needed for the conflict
		without := slices.Delete(slices.Clone(set), i, i+1)
		if excluded(w.Request, without) {
			set = without
		}
	}
	return set
}

// near lists the wants that share a unit, goggles or controller with one.
func (w *writer) near(failed int, met []int) []int {
	var same, other []int
	for _, k := range met {
		if w.Wants[k].Quad == w.Wants[failed].Quad {
			same = append(same, k)
		} else {
			other = append(other, k)
		}
	}
	return append(same, other...)
}

// fact says what a want asks of its devices.
func (w *writer) fact(i int) string {
	want := w.Wants[i]
	quad, _ := w.Fleet.Quad(want.Quad)
	c := fleet.NewCase(w.Library, w.Fleet, quad)
	unit, air, _ := c.AirUnit()
	goggles, gogglesPair, _ := fleet.Resolve[*gear.Goggles](c, &fleet.Slot{Kit: want.Goggles})
	var needs []string
	for _, s := range w.Library.Pairings(unit.ID, goggles.ID) {
		if s.Never {
			continue
		}
		need := fmt.Sprintf("%s on %s and %s on %s", air.Label, s.AirFirmware, gogglesPair.Label, s.GogglesFirmware)
		if mode, ok := goggles.Mode(s.Mode); ok {
			need += " in mode " + mode.Label()
		}
		if controller, controllerPair, flown, _ := sticks(c, want); flown {
			at := slices.IndexFunc(s.Controllers, func(h gear.ControllerRange) bool { return h.ID == controller.ID })
			if at < 0 {
				continue
			}
			need += fmt.Sprintf(" and %s on %s", controllerPair.Label, s.Controllers[at].Firmware)
		}
		needs = append(needs, need)
	}
	if len(needs) == 0 {
		return fmt.Sprintf("%s with %s: no statement holds with its controller", quad.Label(), gogglesPair.Label)
	}
	return fmt.Sprintf("%s with %s needs %s; now %s carries %s and %s %s%s", quad.Label(), gogglesPair.Label,
		strings.Join(needs, ", or "),
		air.Label, carries(air), gogglesPair.Label, carries(gogglesPair), inMode(goggles, gogglesPair))
}

// carries says what a device is on today.
func carries(s fleet.State) string {
	switch {
	case s.Read.Known():
		return string(s.Read)
	case !s.Owned():
		return "what it comes with"
	}
	return "a release nobody has read"
}

func inMode(g *gear.Goggles, s fleet.State) string {
	if m, ok := g.Mode(s.Mode); ok {
		return " in mode " + m.Label()
	}
	return ""
}

// ways tries what would let the failed want be met beside all others: giving up
// the wants in its way, another air unit, an open door, another controller, a separate
// receiver.
func (w *writer) ways(failed int, against, met []int) []Way {
	keep := append([]int{failed}, met...)
	quad, _ := w.Fleet.Quad(w.Wants[failed].Quad)
	own := []int{failed} // the quad's own wants: asked first, they settle most tries
	for _, k := range met {
		if w.Wants[k].Quad == quad.ID {
			own = append(own, k)
		}
	}
	ways := w.givingUp(against, keep)
	ways = append(ways, w.otherUnits(quad, own, keep)...)
	if w.KeepWayBack {
		open := w.Request
		open.KeepWayBack = false
		if feasible(open, own) && feasible(open, keep) {
			ways = append(ways, Way{
				Says:  "take a step that cannot be undone: one-way doors are shut in this plan",
				Costs: "nothing to buy",
			})
		}
	}
	ways = append(ways, w.otherGoggles(failed, quad, own, keep)...)
	ways = append(ways, w.controllers(failed, quad, own, keep)...)
	ways = append(ways, w.separate(failed, quad, own, keep)...)
	slices.SortStableFunc(ways, func(a, b Way) int { return toBuy(a) - toBuy(b) })
	return ways
}

// givingUp leaves out the wants that stand against the failed one.
func (w *writer) givingUp(against, keep []int) []Way {
	if len(against) == 0 {
		return nil
	}
	rest := slices.DeleteFunc(slices.Clone(keep), func(k int) bool { return slices.Contains(against, k) })
	if !feasible(w.Request, rest) {
		return nil
	}
	var give []string
	for _, k := range against {
		quad, _ := w.Fleet.Quad(w.Wants[k].Quad)
		kit, _ := w.Fleet.Piece(w.Wants[k].Goggles)
		give = append(give, quad.Label()+" with "+kit.Label())
	}
	return []Way{{Says: "give up " + strings.Join(give, " and ")}}
}

// otherUnits fits another air unit, one that is owned and free before one to buy.
func (w *writer) otherUnits(quad *fleet.Quad, own, keep []int) (ways []Way) {
	fit := quad.NextFit()
	free := func(kit *fleet.Kit) bool {
		_, taken := w.Fleet.Holder(kit.ID, quad.ID)
		return !taken && (fit.AirUnit == nil || fit.AirUnit.Kit != kit.ID)
	}
	owned := w.ownedUnits()
	for _, unit := range gear.All[*gear.AirUnit](w.Library) {
		if fit.AirUnit != nil && fit.AirUnit.Model == unit.ID {
			continue
		}
		slot, costs := &fleet.Slot{Model: unit.ID}, toBuyFor(unit)
		if at := slices.IndexFunc(owned[unit.ID], free); at >= 0 {
			kit := owned[unit.ID][at]
			slot, costs = &fleet.Slot{Kit: kit.ID}, "owned: "+kit.Label()
		}
		way := Way{Says: "fit " + unit.Label() + " to " + quad.Label(), Costs: costs, Buys: slot.Kit == ""}
		ways = append(ways, w.tried(way, quad.ID, fleet.Patch{AirUnit: slot}, own, keep)...)
	}
	return ways
}

// otherGoggles flies the quad with goggles to buy: a second pair of those it is to be flown with, on
// a release of its own, or a model nobody owns.
func (w *writer) otherGoggles(failed int, quad *fleet.Quad, own, keep []int) (ways []Way) {
	asked, _ := w.Fleet.Piece(w.Wants[failed].Goggles)
	for _, model := range gear.All[*gear.Goggles](w.Library) {
		second := asked != nil && asked.Model == model.ID
		if !second && len(w.Fleet.PiecesOf(model.ID)) > 0 {
			continue
		}
		with, id := w.Request, ""
		with.Fleet, id = w.Fleet.Owning(model.ID)
		way := Way{Says: "fly " + quad.Label() + " with a " + model.Label(), Costs: toBuyFor(model), Buys: true}
		if second {
			way.Says = "fly " + quad.Label() + " with a second " + model.Label()
		}
		ways = append(ways, w.met(way, with, own, keep, func(k int, want *fleet.Want) {
			if k == failed {
				want.Goggles = id
			}
		})...)
	}
	return ways
}

// ownedUnits are the units that no quad's plan has on board, by model.
func (w *writer) ownedUnits() map[string][]*fleet.Kit {
	if w.units == nil {
		w.units = map[string][]*fleet.Kit{}
		for i := range w.Fleet.Kit {
			kit := &w.Fleet.Kit[i]
			if _, taken := w.Fleet.Holder(kit.ID, ""); !taken {
				w.units[kit.Model] = append(w.units[kit.Model], kit)
			}
		}
	}
	return w.units
}

// ownedControllers are the controllers there are.
func (w *writer) ownedControllers() []*fleet.Kit {
	if w.hands == nil {
		w.hands = w.Fleet.PiecesOf(w.Library.Controllers()...)
	}
	return w.hands
}

// separate puts a separate receiver in for the sticks.
func (w *writer) separate(failed int, quad *fleet.Quad, own, keep []int) []Way {
	fit := quad.NextFit()
	receivers := gear.All[*gear.Receiver](w.Library)
	through := fit.Controller != nil || w.Wants[failed].Controller != ""
	if fit.Receiver != "" || !through || len(receivers) == 0 {
		return nil
	}
	receiver, costs, buys := receivers[0], toBuyFor(receivers[0]), true
	for _, r := range receivers {
		if w.Fleet.SpareCount(r.ID, quad.ID) > 0 {
			receiver, costs, buys = r, "nothing to buy", false
			break
		}
	}
	way := Way{Says: "fit a separate receiver to " + quad.Label() + ", the " + receiver.Label(), Costs: costs, Buys: buys}
	return w.tried(way, quad.ID, fleet.Patch{Receiver: new(receiver.ID)}, own, keep)
}

// tried is the way where the wants can be met with a quad changed; else nothing.
func (w *writer) tried(way Way, quad string, patch fleet.Patch, own, keep []int) []Way {
	changed := w.Request
	changed.Fleet = patched(w.Fleet, quad, patch)
	return w.met(way, changed, own, keep, func(_ int, want *fleet.Want) {
		if patch.Receiver != nil && want.Quad == quad {
			want.Controller = ""
		}
	})
}

// met is the way where the wants to be kept can be met once they are changed; the
// quad's own are asked first, they settle most tries.
func (w *writer) met(way Way, r Request, own, keep []int, change func(k int, want *fleet.Want)) []Way {
	r.Wants = make([]fleet.Want, len(keep))
	asked := make([]int, 0, len(own))
	for i, k := range keep {
		r.Wants[i] = w.Wants[k]
		change(k, &r.Wants[i])
		if slices.Contains(own, k) {
			asked = append(asked, i)
		}
	}
	if !feasible(r, asked) || !feasible(r, upTo(len(keep))) {
		return nil
	}
	return []Way{way}
}

func upTo(n int) []int {
	list := make([]int, n)
	for i := range list {
		list[i] = i
	}
	return list
}

// toBuy puts what needs nothing bought first.
func toBuy(w Way) int {
	if w.Buys {
		return 1
	}
	return 0
}

// controllers tries the other controllers owned for a failed want, then those nobody owns.
func (w *writer) controllers(failed int, quad *fleet.Quad, own, keep []int) (ways []Way) {
	if fit := quad.NextFit(); fit.Receiver != "" && w.Wants[failed].Controller == "" {
		return nil
	}
	holding := func(way Way, r Request, id string) {
		ways = append(ways, w.met(way, r, own, keep, func(k int, want *fleet.Want) {
			if k == failed {
				want.Controller = id
			}
		})...)
	}
	for _, kit := range w.ownedControllers() {
		if kit.ID != w.Wants[failed].Controller {
			holding(Way{Says: "fly " + quad.Label() + " with " + kit.Label(), Costs: "nothing to buy"}, w.Request, kit.ID)
		}
	}
	for _, model := range gear.All[*gear.Controller](w.Library) {
		if len(w.Fleet.PiecesOf(model.ID)) > 0 {
			continue
		}
		with, id := w.Request, ""
		with.Fleet, id = w.Fleet.Owning(model.ID)
		holding(Way{Says: "fly " + quad.Label() + " with a " + model.Label(), Costs: toBuyFor(model), Buys: true}, with, id)
	}
	return ways
}

// patched is the fleet with one quad's next fit changed.
func patched(x *fleet.Index, quadID string, p fleet.Patch) *fleet.Index {
	quad, _ := x.Quad(quadID)
	changed := *quad
	changed.Next = new(quad.NextFit().With(p))
	return x.Planning(&changed)
}
