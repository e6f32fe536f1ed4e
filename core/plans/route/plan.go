package route

import (
	"cmp"
	"fmt"
	"math/bits"
	"strings"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Plan is the answer to a request.
type Plan struct {
	Says  string `json:"says"`
	Links []Link `json:"links"` // one for each want, in its order
	Steps []Step `json:"steps"` // in the order to take them
	Lanes []Lane `json:"lanes"` // who can fly after each step
	// Devices are all that take part, with what each ends on.
	Devices []Target `json:"devices"`
	// Notes say what is taken for unknown, and why.
	Notes []string `json:"notes"`
	// Doors are the devices nothing brings back to what they carry today.
	Doors []string `json:"doors"`
	// Bounded: the search was cut off; there may be a better plan.
	Bounded bool `json:"bounded"`
	// OrderBounded: too many orders to try all; goggles go first.
	OrderBounded bool `json:"orderBounded"`
}

// Link is one want and what becomes of it.
type Link struct {
	Quad        string       `json:"quad"`
	QuadName    string       `json:"quadName"`
	Goggles     string       `json:"goggles"`
	GogglesName string       `json:"gogglesName"`
	Weight      fleet.Weight `json:"weight"`
	Before      bool         `json:"before"` // links on what is carried today
	Met         bool         `json:"met"`
	Mode        string       `json:"mode,omitempty"`
	Gained      []string     `json:"gained"`
	Lost        []string     `json:"lost"`
	Says        string       `json:"says"`
	Conflict    *Conflict    `json:"conflict,omitempty"` // absent: it is met, or has to be asked for

	has *gear.Pairing // what holds at the end
}

// Lane is one quad through the steps.
type Lane struct {
	Quad  string `json:"quad"`
	Name  string `json:"name"`
	Bench bool   `json:"bench"` // its next unit is not on it yet: the swap comes first
	Turns []Turn `json:"turns"` // in order, the first before any step
}

// Turn is what a quad flies with from a number of steps on.
type Turn struct {
	After int      `json:"after"` // steps carried out
	Flies []string `json:"flies"` // the goggles wanted that link
}

// Solve finds the best plan for a request. The errors name what in the request
// points nowhere.
func Solve(r Request) (Plan, error) {
	r, err := r.withTurns()
	if err != nil {
		return Plan{}, err
	}
	p, err := prepare(r)
	if err != nil {
		return Plan{}, err
	}
	s := p.solve(cmp.Or(r.Budget, DefaultBudget))
	w := newWriter(r, p, s)
	plan := Plan{Bounded: s.bounded, Links: w.links(), Steps: []Step{}, Lanes: []Lane{}}
	explained := 0
	w.explain(plan.Links, func(int) bool { explained++; return explained <= MostExplained })
	if err := r.gone(); err != nil {
		return Plan{}, err
	}
	plan.Devices = w.targets(plan.Links)
	plan.Notes = append(w.notes(), w.turnsLost()...)
	plan.Steps, plan.OrderBounded = w.steps()
	plan.Lanes = w.lanes(plan.Steps)
	plan.Doors = w.doors(plan.Steps)
	plan.Says = sentence(plan)
	return plan, r.gone()
}

// Bare is the plan of Solve without the reasons why, who can fly when, and its sentence.
func Bare(r Request) (Plan, error) {
	r, err := r.withTurns()
	if err != nil {
		return Plan{}, err
	}
	p, err := prepare(r)
	if err != nil {
		return Plan{}, err
	}
	s := p.solve(cmp.Or(r.Budget, DefaultBudget))
	w := newWriter(r, p, s)
	plan := Plan{Bounded: s.bounded, Links: w.links()}
	plan.Devices = w.targets(plan.Links) // which says the mode that goggles end in
	plan.Steps, plan.OrderBounded = w.steps()
	plan.Doors = w.doors(plan.Steps)
	return plan, r.gone()
}

// Steps are those of the plan alone.
func Steps(r Request) ([]Step, error) {
	plan, err := Bare(r)
	return plan.Steps, err
}

// writer turns a solution into words.
type writer struct {
	Request
	*problem
	solution
	at      map[string]firmware.Version // device key to its target
	working map[string]bool             // devices that take part in a link that works
	rests   map[string]string           // goggles to the mode they end in
	home    map[string]firmware.State   // on the way back: where each device shall stand
	devices map[string]*device
	units   map[string][]*fleet.Kit // that are free, by model; made when first asked for
	hands   []*fleet.Kit            // controllers, likewise
}

func newWriter(r Request, p *problem, s solution) *writer {
	r.spent = new(int)
	w := &writer{
		Request:  r,
		problem:  p,
		solution: s,
		at:       map[string]firmware.Version{},
		working:  map[string]bool{},
		rests:    map[string]string{},
		devices:  map[string]*device{},
	}
	for _, d := range w.everyDevice() {
		w.devices[d.key] = d
	}
	return w
}

// links says what becomes of each want.
func (w *writer) links() []Link {
	links := make([]Link, len(w.Wants))
	for i, want := range w.Wants {
		links[i] = Link{
			Quad:        want.Quad,
			QuadName:    want.Quad,
			Goggles:     want.Goggles,
			GogglesName: want.Goggles,
			Weight:      want.Weight,
			Gained:      []string{},
			Lost:        []string{},
		}
		if q, ok := w.Fleet.Quad(want.Quad); ok {
			links[i].QuadName = q.Label()
		}
		if kit, ok := w.Fleet.Piece(want.Goggles); ok {
			links[i].GogglesName = kit.Label()
		}
	}
	for _, r := range w.refused {
		links[r.want].Says = r.says
	}
	after, before := make([][]uint64, len(w.shared)), make([][]uint64, len(w.shared))
	for i, d := range w.shared {
		after[i] = d.choices[w.ofShared[i]].masks
		before[i] = d.staying()
		w.at[d.key] = d.choices[w.ofShared[i]].version
	}
	for g, group := range w.groups {
		chosen := &group.unit.choices[w.ofUnits[g]]
		staying := choice{masks: group.staying()}
		for _, m := range group.members {
			w.at[m.key] = chosen.version
			for k, i := range m.wants {
				want := &group.wants[k]
				w.fill(&links[i], want.pair.bestOf(want.holding(&staying, before)), want.pair.bestOf(want.holding(chosen, after)))
				w.sinceSwap(&links[i], m.key)
				w.notRead(&links[i], m.label, &group.unit, &w.shared[want.goggles].device)
				if links[i].Met {
					w.working[m.key], w.working[w.shared[want.goggles].key] = true, true
					if want.controller >= 0 {
						w.working[w.shared[want.controller].key] = true
					}
				}
			}
		}
	}
	return links
}

// staying is what a device allows on the release it carries.
func (d *sharedDevice) staying() []uint64 {
	return onCurrent(&d.device, len(d.pairs))
}

func (g *group) staying() []uint64 { return onCurrent(&g.unit, len(g.pairs)) }

// onCurrent finds the choice of staying. Pruning drops it only where another
// choice covers it at no more cost, and staying costs nothing.
func onCurrent(d *device, pairs int) []uint64 {
	for _, c := range d.choices {
		if c.cost == (cost{}) {
			return c.masks
		}
	}
	return make([]uint64, pairs)
}

// notRead says of a link that is not met that it is not known, where a device of it has
// not been read.
func (w *writer) notRead(l *Link, unit string, own, goggles *device) {
	switch {
	case l.Met:
	case own.unread:
		l.Says = "unknown: nobody has read what " + unit + " carries"
	case goggles.unread:
		l.Says = "unknown: nobody has read what " + goggles.label + " carries"
	}
}

// sinceSwap puts a link whose unit is not on the quad yet beside what the quad
// carries today, with the same goggles.
func (w *writer) sinceSwap(l *Link, unit string) {
	quad, _ := w.Fleet.Quad(l.Quad)
	c := fleet.NowCase(w.Library, w.Fleet, quad)
	model, air, ok := c.AirUnit()
	if ok && air.KitID == unit {
		return
	}
	l.Before, l.Gained, l.Lost = false, []string{}, []string{}
	goggles, gogglesPair, hasGoggles := fleet.Resolve[*gear.Goggles](c, &fleet.Slot{Kit: l.Goggles})
	if !ok || !hasGoggles {
		return
	}
	if s := statementOn(w.Library, model.ID, air.Current, goggles.ID, gogglesPair.Current); s != nil {
		l.Before = true
		if l.has != nil {
			l.Lost, l.Gained = s.Beyond(l.has), l.has.Beyond(s)
		}
	}
}

func (w *writer) fill(l *Link, had, has *gear.Pairing) {
	l.Before, l.Met, l.has = had != nil, has != nil, has
	switch {
	case l.Met:
		l.Says = "links"
		if has.Mode != "" {
			l.Mode = has.Mode
			if goggles, ok := gear.Find[*gear.Goggles](w.Library, has.Goggles); ok {
				if m, ok := goggles.Mode(has.Mode); ok {
					l.Mode = m.Label()
				}
			}
			l.Says = "links in mode " + l.Mode
		}
	case l.Before:
		l.Says = "links today, and no longer after this route"
	default:
		l.Says = "does not link on this route"
	}
	if had != nil && has != nil {
		l.Lost, l.Gained = had.Beyond(has), has.Beyond(had)
	}
}

// bestOf is the statement with the most valued features among those that hold.
func (p *pair) bestOf(mask uint64) *gear.Pairing {
	var best *statement
	for m := mask; m != 0; m &= m - 1 {
		s := &p.statements[bits.TrailingZeros64(m)]
		if best == nil || s.features > best.features {
			best = s
		}
	}
	if best == nil {
		return nil
	}
	return best.Pairing
}

// ends is where a device stands after the steps.
func (w *writer) ends(d *device, steps []Step) firmware.State {
	at := d.stands
	for _, s := range steps {
		if s.Device != d.key {
			continue
		}
		switch s.Do {
		case Update:
			at.Version = s.To
			at.Mode = d.chart.KeptMode(at.Mode, s.To)
		case Mode:
			at.Mode = s.Mode
		case Activate:
			at.Activated = true
		}
	}
	return at
}

// sentence says the plan in words.
func sentence(p Plan) string {
	if len(p.Links) == 0 {
		return "Nothing is wanted yet."
	}
	met := 0
	for _, l := range p.Links {
		if l.Met {
			met++
		}
	}
	devices := map[string]bool{}
	for _, s := range p.Steps {
		devices[s.Device] = true
	}
	says := []string{fmt.Sprintf("%d of %d wanted links work", met, len(p.Links))}
	if met == 0 {
		says[0] = fmt.Sprintf("None of the %d wanted links can be had with what is here: look at what stands in the way "+
			"of each",
			len(p.Links))
		if len(p.Links) == 1 {
			says[0] = "The wanted link cannot be had with what is here: look at what stands in its way"
		}
	}
	if len(p.Steps) == 0 && met == 0 {
		return says[0] + "."
	}
	switch len(p.Steps) {
	case 0:
		return says[0] + " with nothing to update."
	case 1:
		says = append(says, "after 1 step")
	default:
		says = append(says, fmt.Sprintf("after %d steps on %d devices", len(p.Steps), len(devices)))
	}
	switch len(p.Doors) {
	case 0:
		says = append(says, "each of which can be brought back")
	case 1:
		says = append(says, "1 of which cannot be brought back")
	default:
		says = append(says, fmt.Sprintf("%d of which cannot be brought back", len(p.Doors)))
	}
	return strings.Join(says, ", ") + "."
}
