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

// Way is a way out that has been tried: with it the failed want is met and
// every other want that was met still is, but for those it gives up.
type Way struct {
	Says  string `json:"says"`
	Costs string `json:"costs,omitempty"`
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
		need := fmt.Sprintf("%s on %s and %s on %s", air.Label, s.AirFirmware, eyes.Label, s.GogglesFirmware)
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
	return fmt.Sprintf("%s with %s needs %s", quad.Label(), eyes.Label, strings.Join(needs, ", or "))
}

// ways tries what would let the failed want be met beside all others: giving up
// the wants in its way, another air unit, a separate receiver.
func (w *writer) ways(failed int, against, met []int) []Way {
	var ways []Way
	keep := append([]int{failed}, met...)
	if len(against) > 0 {
		rest := slices.DeleteFunc(slices.Clone(keep), func(k int) bool { return slices.Contains(against, k) })
		if feasible(w.Request, rest) {
			var give []string
			for _, k := range against {
				quad, _ := w.Fleet.Quad(w.Wants[k].Quad)
				kit, _ := w.Fleet.Piece(w.Wants[k].Goggles)
				give = append(give, quad.Label()+" with "+kit.Label())
			}
			ways = append(ways, Way{Says: "give up " + strings.Join(give, " and ")})
		}
	}
	quad, _ := w.Fleet.Quad(w.Wants[failed].Quad)
	own := []int{failed} // the quad's own wants: asked first, they settle most tries
	for _, k := range met {
		if w.Wants[k].Quad == quad.ID {
			own = append(own, k)
		}
	}
	try := func(says, costs string, patch fleet.Patch) {
		changed := w.Request
		changed.Fleet = patched(w.Fleet, quad.ID, patch)
		if patch.Receiver != nil {
			changed.Wants = slices.Clone(w.Wants)
			for i := range changed.Wants {
				if changed.Wants[i].Quad == quad.ID {
					changed.Wants[i].Controller = ""
				}
			}
		}
		if feasible(changed, own) && feasible(changed, keep) {
			ways = append(ways, Way{Says: says, Costs: costs})
		}
	}
	fit := quad.NextFit()
	for _, unit := range gear.All[*gear.AirUnit](w.Library) {
		if fit.AirUnit != nil && fit.AirUnit.Model == unit.ID {
			continue
		}
		slot, costs := &fleet.Slot{Model: unit.ID}, "to buy"
		for i := range w.Fleet.Kit {
			kit := &w.Fleet.Kit[i]
			if _, taken := w.Fleet.Holder(kit.ID, quad.ID); kit.Model == unit.ID && !taken && (fit.AirUnit == nil || fit.AirUnit.Kit != kit.ID) {
				slot, costs = &fleet.Slot{Kit: kit.ID}, "owned: "+kit.Label()
				break
			}
		}
		try("fit "+unit.Label()+" to "+quad.Label(), costs, fleet.Patch{AirUnit: slot})
	}
	if receivers := gear.All[*gear.Receiver](w.Library); fit.Receiver == "" && (fit.Controller != nil || w.Wants[failed].Controller != "") && len(receivers) > 0 {
		try("fit a separate receiver to "+quad.Label(), "", fleet.Patch{Receiver: new(receivers[0].ID)})
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
