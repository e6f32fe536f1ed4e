package route

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/fleet"
	"yokeswap/core/gear"
)

// Conflict is the smallest set of wants that exclude each other, with the facts
// that make them, and what would resolve it.
type Conflict struct {
	Wants []int    `json:"wants"` // places in the request, the failed one first
	Facts []string `json:"facts"`
	Ways  []Way    `json:"ways"`
}

// bought is what a way costs where something has to be bought.
const bought = "to buy"

// Way is a way out that has been tried: with it the failed want is met and
// every other want that was met still is, but for those it gives up.
type Way struct {
	Says  string `json:"says"`
	Costs string `json:"costs,omitempty"`
	Buys  bool   `json:"buys"` // something has to be bought for it
}

// explain gives every want that failed its conflict.
func (w *writer) explain(links []Link) {
	var met []int
	for i, l := range links {
		if l.Met {
			met = append(met, i)
		}
	}
	refused := map[int]bool{}
	for _, r := range w.refused {
		refused[r.want] = true
	}
	for i := range links {
		if links[i].Met {
			continue
		}
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

// feasible asks whether all these wants can be met at once.
func feasible(r Request, wants []int) bool {
	sub := r
	sub.Wants, sub.Values = nil, nil
	for _, i := range wants {
		want := r.Wants[i]
		want.Weight = fleet.Must
		sub.Wants = append(sub.Wants, want)
	}
	p, err := prepare(sub)
	if err != nil || len(p.refused) > 0 {
		return false
	}
	s := p.solve(DefaultBudget)
	return int(s.score.high>>(2*part)) == len(wants)
}

// smallest finds the fewest wants, the failed one among them, that cannot all
// be met: the failed one alone, then with one other, with two others, and
// beyond that a set of which none can be spared. Only wants that share a device
// with the set can matter.
func (w *writer) smallest(failed int, met []int) []int {
	if !feasible(w.Request, []int{failed}) {
		return []int{failed}
	}
	near := w.near(failed, met)
	for _, a := range near {
		if !feasible(w.Request, []int{failed, a}) {
			return []int{failed, a}
		}
	}
	const mostPairs = 400
	tried := 0
	for i, a := range near {
		for _, b := range near[i+1:] {
			if tried++; tried > mostPairs {
				break
			}
			if !feasible(w.Request, []int{failed, a, b}) {
				return []int{failed, a, b}
			}
		}
	}
	set := append([]int{failed}, met...)
	if feasible(w.Request, set) {
		return []int{failed} // dearer than what was chosen, not excluded by it
	}
	for i := len(set) - 1; i > 0; i-- { // take out whatever is not needed for the conflict
		without := slices.Delete(slices.Clone(set), i, i+1)
		if !feasible(w.Request, without) {
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
	goggles, eyes, _ := fleet.Resolve[*gear.Goggles](c, &fleet.Slot{Kit: want.Goggles})
	var needs []string
	for _, s := range w.Library.Pairings(unit.ID, goggles.ID) {
		if s.Never {
			continue
		}
		need := fmt.Sprintf("%s on %s and %s on %s", air.Label, s.AirFirmware, eyes.Label, s.GogglesFirmware)
		if mode, ok := goggles.Mode(s.Mode); ok {
			need += " in mode " + mode.Label()
		}
		if controller, hand, flown, _ := sticks(c, want); flown {
			at := slices.IndexFunc(s.Controllers, func(h gear.ControllerRange) bool { return h.ID == controller.ID })
			if at < 0 {
				continue
			}
			need += fmt.Sprintf(" and %s on %s", hand.Label, s.Controllers[at].Firmware)
		}
		needs = append(needs, need)
	}
	if len(needs) == 0 {
		return fmt.Sprintf("%s with %s: no statement holds with its controller", quad.Label(), eyes.Label)
	}
	return fmt.Sprintf("%s with %s needs %s; now %s carries %s and %s %s%s", quad.Label(), eyes.Label,
		strings.Join(needs, ", or "),
		air.Label, carries(air), eyes.Label, carries(eyes), inMode(goggles, eyes))
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
	ways = append(ways, w.controllers(failed, quad, keep)...)
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
	for _, unit := range gear.All[*gear.AirUnit](w.Library) {
		if fit.AirUnit != nil && fit.AirUnit.Model == unit.ID {
			continue
		}
		slot, costs := &fleet.Slot{Model: unit.ID}, bought
		for i := range w.Fleet.Kit {
			if kit := &w.Fleet.Kit[i]; kit.Model == unit.ID && free(kit) {
				slot, costs = &fleet.Slot{Kit: kit.ID}, "owned: "+kit.Label()
				break
			}
		}
		way := Way{Says: "fit " + unit.Label() + " to " + quad.Label(), Costs: costs}
		ways = append(ways, w.tried(way, quad.ID, fleet.Patch{AirUnit: slot}, own, keep)...)
	}
	return ways
}

// separate puts a separate receiver in for the sticks.
func (w *writer) separate(failed int, quad *fleet.Quad, own, keep []int) []Way {
	fit := quad.NextFit()
	receivers := gear.All[*gear.Receiver](w.Library)
	through := fit.Controller != nil || w.Wants[failed].Controller != ""
	if fit.Receiver != "" || !through || len(receivers) == 0 {
		return nil
	}
	receiver, costs := receivers[0], bought
	for _, r := range receivers {
		if w.Fleet.SpareCount(r.ID, quad.ID) > 0 {
			receiver, costs = r, "nothing to buy"
			break
		}
	}
	way := Way{Says: "fit a separate receiver to " + quad.Label() + ", the " + receiver.Label(), Costs: costs}
	return w.tried(way, quad.ID, fleet.Patch{Receiver: new(receiver.ID)}, own, keep)
}

// tried is the way where the wants can be met with a quad changed; else nothing.
func (w *writer) tried(way Way, quad string, patch fleet.Patch, own, keep []int) []Way {
	changed := w.Request
	changed.Fleet = patched(w.Fleet, quad, patch)
	if patch.Receiver != nil {
		changed.Wants = slices.Clone(w.Wants)
		for i := range changed.Wants {
			if changed.Wants[i].Quad == quad {
				changed.Wants[i].Controller = ""
			}
		}
	}
	if !feasible(changed, own) || !feasible(changed, keep) {
		return nil
	}
	way.Buys = way.Costs == bought
	return []Way{way}
}

// toBuy puts what needs nothing bought first.
func toBuy(w Way) int {
	if w.Buys {
		return 1
	}
	return 0
}

// controllers tries the other controllers owned for a failed want.
func (w *writer) controllers(failed int, quad *fleet.Quad, keep []int) (ways []Way) {
	if fit := quad.NextFit(); fit.Receiver != "" && w.Wants[failed].Controller == "" {
		return nil
	}
	for i := range w.Fleet.Kit {
		kit := &w.Fleet.Kit[i]
		if _, ok := gear.Find[*gear.Controller](w.Library, kit.Model); !ok || kit.ID == w.Wants[failed].Controller {
			continue
		}
		changed := w.Request
		changed.Wants = slices.Clone(w.Wants)
		changed.Wants[failed].Controller = kit.ID
		if feasible(changed, keep) {
			ways = append(ways, Way{Says: "fly " + quad.Label() + " with " + kit.Label(), Costs: "nothing to buy"})
		}
	}
	return ways
}

// patched is the fleet with one quad's next fit changed.
func patched(x *fleet.Index, quadID string, p fleet.Patch) *fleet.Index {
	f := *x.Fleet
	f.Quads = slices.Clone(f.Quads)
	for i := range f.Quads {
		if f.Quads[i].ID == quadID {
			f.Quads[i].Next = new(f.Quads[i].NextFit().With(p))
		}
	}
	return fleet.NewIndex(&f)
}
