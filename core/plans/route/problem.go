package route

import (
	"context"
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// Request is what shall work together.
type Request struct {
	Library     *gear.Library
	Fleet       *fleet.Index
	Wants       []fleet.Want
	Values      []string // features that matter, as the pairings name them
	KeepWayBack bool     // take no step that cannot be undone
	// NotOffered are releases a tool has been seen not to offer, by kit id.
	NotOffered map[string][]firmware.Version
	Budget     int // most nodes to search; 0 for DefaultBudget
	// Context ends the work where nobody waits for it any more; nil: somebody does.
	Context context.Context

	spent *int // looks of the searches that explain
}

// gone is why the work is to end; nil: it is not.
func (r *Request) gone() error {
	if r.Context == nil {
		return nil
	}
	return r.Context.Err()
}

// DefaultBudget is the most nodes searched where the request sets none.
const DefaultBudget = 2_000_000

// problem is a request made ready for the search.
type problem struct {
	shared  []*sharedDevice
	groups  []*group
	refused []refusal // wants that cannot be put to the search at all
	asked   *Request  // what it is made of
}

// sharedDevice is a pair of goggles or a controller.
type sharedDevice struct {
	device
	pairs []*pair // the order of its masks
	any   []uint64
	uses  []int // groups that depend on it
}

// group is a number of units alike, with all that is wanted of each.
type group struct {
	unit    device // stands for all of them
	pairs   []*pair
	wants   []wanted
	members []member
}

// member is one unit of a group; its wants are in the order of the group's.
type member struct {
	key, label string
	wants      []int // places in the request
}

// wanted is one want of a group.
type wanted struct {
	weight         fleet.Weight
	pair           *pair
	own            int // place of the pair in the unit's masks
	goggles        int // place in shared
	gogglesPair    int // place of the pair in the goggles' masks
	controller     int // place in shared; -1 where none is needed
	controllerPair int // place of the pair in the controller's masks
}

// refusal is a want that no firmware decides.
type refusal struct {
	want int
	says string
}

type pairKey struct{ air, goggles string }

type builder struct {
	Request
	problem
	pairs    map[pairKey]*pair
	bySlot   map[string]int // kit id to place in shared
	units    map[string]*group
	unitList []*group
}

// prepare turns a request into a problem.
func prepare(r Request) (*problem, error) {
	b := &builder{Request: r, pairs: map[pairKey]*pair{}, bySlot: map[string]int{}, units: map[string]*group{}}
	for i, want := range r.Wants {
		if err := b.want(i, want); err != nil {
			return nil, err
		}
		if err := r.gone(); err != nil {
			return nil, err
		}
	}
	b.choices()
	b.gather()
	b.asked = &r
	return &b.problem, nil
}

func (b *builder) want(i int, want fleet.Want) error {
	quad, ok := b.Fleet.Quad(want.Quad)
	if !ok {
		return fmt.Errorf("wants[%d].quad: there is no quad %q", i, want.Quad)
	}
	c := fleet.NewCase(b.Library, b.Fleet, quad)
	model, air, ok := c.AirUnit()
	if !ok {
		b.refused = append(b.refused, refusal{i, "unknown: no air unit is chosen for " + quad.Label()})
		return nil
	}
	goggles, gogglesPair, ok := fleet.Resolve[*gear.Goggles](c, &fleet.Slot{Kit: want.Goggles})
	if !ok {
		return fmt.Errorf("wants[%d].goggles: there are no goggles %q", i, want.Goggles)
	}
	controller, controllerPair, flown, known := sticks(c, want)
	if !known && want.Controller != "" {
		return fmt.Errorf("wants[%d].controller: there is no controller %q", i, want.Controller)
	}
	if !known {
		b.refused = append(b.refused, refusal{i, "unknown: controller, or a separate receiver, of " + quad.Label()})
		return nil
	}
	p, refused, err := b.linking(model, goggles, flown)
	if err != nil {
		return err
	}
	if refused != "" {
		b.refused = append(b.refused, refusal{i, refused})
		return nil
	}
	unit := b.unit(model, air, quad)
	w := wanted{weight: want.Weight, pair: p, controller: -1}
	w.own = place(&unit.pairs, p)
	w.goggles = b.share(&goggles.Device, gogglesPair, "goggles")
	w.gogglesPair = place(&b.shared[w.goggles].pairs, p)
	if flown {
		w.controller = b.share(&controller.Device, controllerPair, "controller")
		w.controllerPair = place(&b.shared[w.controller].pairs, p)
	}
	unit.wants = append(unit.wants, w)
	unit.members[0].wants = append(unit.members[0].wants, i)
	return nil
}

// linking is the pair of a unit and goggles, or why nothing can be said for it: it never
// links, nobody has stated whether it does, or whose sticks go through.
func (b *builder) linking(model *gear.AirUnit, goggles *gear.Goggles, flown bool) (p *pair, refused string, err error) {
	p, never, err := b.pair(model, goggles)
	switch {
	case err != nil || never != "":
		return p, never, err
	case p == nil:
		return nil, fmt.Sprintf("unknown: no statement says whether %s links with %s", model.Label(), goggles.Label()), nil
	}
	stated := func(s statement) bool { return s.Controllers != nil }
	if flown && !slices.ContainsFunc(p.statements, stated) {
		return p, fmt.Sprintf("unknown: which controllers go through %s with %s", model.Label(), goggles.Label()), nil
	}
	return p, "", nil
}

// sticks is the controller a want flies through the air unit; none is flown where
// a receiver takes the sticks or there is no flight board. Known is false where
// nobody has said how they reach the quad.
func sticks(c fleet.Case, want fleet.Want) (controller *gear.Controller, s fleet.State, flown, known bool) {
	slot := c.Fit.Controller
	switch {
	case want.Controller == fleet.SeparateReceiver, want.Controller == "" && c.Fit.Receiver != "":
		return nil, s, false, true
	case want.Controller != "":
		slot = &fleet.Slot{Kit: want.Controller}
	case slot == nil:
		return nil, s, false, c.Fit.Board == ""
	}
	controller, s, flown = fleet.Resolve[*gear.Controller](c, slot)
	return controller, s, flown, flown
}

// pair finds the statements about two models; never says why they never link.
func (b *builder) pair(air *gear.AirUnit, goggles *gear.Goggles) (p *pair, never string, err error) {
	key := pairKey{air.ID, goggles.ID}
	if p, ok := b.pairs[key]; ok {
		return p, "", nil
	}
	list := b.Library.Pairings(air.ID, goggles.ID)
	if len(list) == 0 {
		return nil, "", nil
	}
	if len(list) > gear.MostPairings {
		return nil, "", fmt.Errorf(
			"%d statements about %s with %s: more than %d are not taken",
			len(list),
			air.Label(),
			goggles.Label(),
			gear.MostPairings,
		)
	}
	p = &pair{air: air.ID, goggles: goggles.ID}
	for i, s := range list {
		if s.Never {
			never = fmt.Sprintf("%s never links with %s, whatever the firmware", air.Label(), goggles.Label())
			if s.Note != "" {
				never += ". " + strings.TrimSuffix(s.Note, ".") // whoever shows it ends the sentence
			}
		}
		valued := 0
		for _, f := range s.Features {
			if slices.Contains(b.Values, f) {
				valued++
			}
		}
		p.statements = append(p.statements, statement{s, 1 << i, valued})
	}
	if odds := b.Library.Contradiction(air.ID, goggles.ID); odds != "" && never == "" {
		never = "unknown: " + odds
	} else if odds != "" {
		never += ". But " + odds
	}
	if never != "" {
		return nil, never, nil
	}
	b.pairs[key] = p
	return p, "", nil
}

func place(list *[]*pair, p *pair) int {
	if i := slices.Index(*list, p); i >= 0 {
		return i
	}
	*list = append(*list, p)
	return len(*list) - 1
}

func (b *builder) unit(model *gear.AirUnit, s fleet.State, quad *fleet.Quad) *group {
	key := s.KitID
	if key == "" {
		key = "quad:" + quad.ID
	}
	if g, ok := b.units[key]; ok {
		return g
	}
	g := &group{unit: b.device(&model.Device, s, "airUnit")}
	g.unit.key = key
	g.members = []member{{key: key, label: s.Label}}
	b.units[key] = g
	b.unitList = append(b.unitList, g)
	return g
}

func (b *builder) share(model *gear.Device, s fleet.State, role string) int {
	key := s.KitID
	if key == "" {
		key = "model:" + s.ModelID
	}
	if i, ok := b.bySlot[key]; ok {
		return i
	}
	b.bySlot[key] = len(b.shared)
	d := &sharedDevice{device: b.device(model, s, role)}
	d.key, d.toBuy = key, false
	b.shared = append(b.shared, d)
	return len(b.shared) - 1
}

// alike is the same for devices of which one stands for the other.
func (d *device) alike() string {
	return fmt.Sprintf("%s %s %t %t %v", d.model.ID, d.stands.Version, d.toBuy, d.wakes, d.notOffered)
}

// choices fills in what each device can be brought to.
func (b *builder) choices() {
	for _, d := range b.shared {
		list := reachable(&d.device, b.KeepWayBack)
		for i := range list {
			for _, p := range d.pairs {
				list[i].masks = append(list[i].masks, sharedMask(d, p, &list[i]))
			}
		}
		d.choices = prune(list)
		d.any = make([]uint64, len(d.pairs))
		for _, c := range d.choices {
			for i, m := range c.masks {
				d.any[i] |= m
			}
		}
	}
	made := map[string][]choice{}
	for _, g := range b.unitList {
		var key strings.Builder
		key.WriteString(g.unit.alike())
		for _, p := range g.pairs {
			key.WriteString(" " + p.goggles)
		}
		if _, ok := made[key.String()]; !ok {
			list := reachable(&g.unit, b.KeepWayBack)
			for i := range list {
				for _, p := range g.pairs {
					var mask uint64
					for _, s := range p.statements {
						if !list[i].unactivated && s.AirFirmware.Holds(list[i].version) {
							mask |= s.bit
						}
					}
					list[i].masks = append(list[i].masks, mask)
				}
			}
			made[key.String()] = prune(list)
		}
		g.unit.choices = made[key.String()]
	}
}

// sharedMask is the statements of a pair that goggles or a controller allow on
// a release.
func sharedMask(d *sharedDevice, p *pair, c *choice) uint64 {
	var mask uint64
	if c.unactivated {
		return 0
	}
	goggles := d.modes
	for _, s := range p.statements {
		holds := false
		if goggles != nil {
			holds = s.GogglesFirmware.Holds(c.version)
			if s.Mode != "" && holds {
				mode, ok := goggles.Mode(s.Mode)
				holds = ok && mode.Firmware.Holds(c.version)
			}
		}
		for _, controllerPair := range s.Controllers {
			if goggles == nil && controllerPair.ID == d.model.ID {
				holds = controllerPair.Firmware.Holds(c.version)
			}
		}
		if holds {
			mask |= s.bit
		}
	}
	return mask
}

// gather puts units alike into one group and notes who depends on what.
func (b *builder) gather() {
	alike := map[string]*group{}
	for _, g := range b.unitList {
		var key strings.Builder
		key.WriteString(g.unit.alike())
		for _, w := range g.wants {
			fmt.Fprintf(&key, " %s:%d:%d", w.weight, w.goggles, w.controller)
		}
		if first, ok := alike[key.String()]; ok {
			first.members = append(first.members, g.members...)
			continue
		}
		alike[key.String()] = g
		b.groups = append(b.groups, g)
	}
	for i, g := range b.groups {
		for _, w := range g.wants {
			for _, d := range []int{w.goggles, w.controller} {
				if d >= 0 && !slices.Contains(b.shared[d].uses, i) {
					b.shared[d].uses = append(b.shared[d].uses, i)
				}
			}
		}
	}
}
