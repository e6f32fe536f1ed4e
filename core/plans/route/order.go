package route

import (
	"cmp"
	"slices"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// The bounds of the search for an order. They are counts of work, not times, so
// that the same request gives the same plan everywhere.
const (
	mostOrders  = 60_000  // orders of the shared devices' steps, times quads and states
	exactSteps  = 7       // so many steps are tried in every order
	mostRefined = 400_000 // quads times steps looked at while moving steps about
)

// craft is a quad on its way through the steps: what it wants, and its unit.
type craft struct {
	quad  *fleet.Quad
	unit  string // device key
	bench bool
	must  bool
	wants []craftWant
}

type craftWant struct {
	pair           *pair
	goggles        string
	name           string
	controller     string
	controllerPair string // the controller's model
	modes          *gear.Goggles
}

// flies lists the goggles a quad links with, given what each device carries
// and which have still to be activated.
func (c *craft) flies(at func(device string) firmware.Version, unactivated map[string]bool) []string {
	out := []string{}
	for _, w := range c.wants {
		if unactivated[c.unit] || unactivated[w.goggles] || unactivated[w.controller] {
			continue
		}
		for _, s := range w.pair.statements {
			if !s.AirFirmware.Holds(at(c.unit)) || !s.GogglesFirmware.Holds(at(w.goggles)) {
				continue
			}
			if mode, ok := w.modes.Mode(s.Mode); s.Mode != "" && (!ok || !mode.Firmware.Holds(at(w.goggles))) {
				continue
			}
			if w.controller != "" && !slices.ContainsFunc(s.Controllers, func(h gear.ControllerRange) bool {
				return h.ID == w.controllerPair && h.Firmware.Holds(at(w.controller))
			}) {
				continue
			}
			out = append(out, w.name)
			break
		}
	}
	return out
}

// crafts lists the quads of the request.
func (w *writer) crafts() []*craft {
	var list []*craft
	byQuad := map[string]*craft{}
	for _, g := range w.groups {
		for _, m := range g.members {
			for k, i := range m.wants {
				want := w.Wants[i]
				quad, _ := w.Fleet.Quad(want.Quad)
				c := byQuad[want.Quad]
				if c == nil {
					c = &craft{quad: quad, unit: m.key}
					now := quad.Now.AirUnit
					c.bench = now == nil || now.Kit != m.key
					byQuad[want.Quad] = c
					list = append(list, c)
				}
				c.must = c.must || want.Weight == fleet.Must
				in := &g.wants[k]
				gogglesPair := w.shared[in.goggles]
				cw := craftWant{pair: in.pair, goggles: gogglesPair.key, name: gogglesPair.label}
				cw.modes, _ = gear.Find[*gear.Goggles](w.Library, gogglesPair.model.ID)
				if in.controller >= 0 {
					cw.controller, cw.controllerPair = w.shared[in.controller].key, w.shared[in.controller].model.ID
				}
				c.wants = append(c.wants, cw)
			}
		}
	}
	place := make(map[string]int, len(w.Fleet.Quads))
	for i := range w.Fleet.Quads {
		place[w.Fleet.Quads[i].ID] = i
	}
	slices.SortStableFunc(list, func(a, b *craft) int { return cmp.Compare(place[a.quad.ID], place[b.quad.ID]) })
	return list
}

// chain is the steps of one device, in order.
type chain struct {
	key   string
	steps []Step
}

func (w *writer) chainOf(d *device) chain {
	c := chain{key: d.key}
	goal := firmware.State{Version: w.at[d.key], Activated: d.wakes && w.working[d.key]}
	var way []firmware.Step
	if w.home != nil {
		way, _ = w.homeward(d)
	} else if d.toBuy || d.unread { // nobody knows what it is on
		if goal.Version.Known() {
			way = append(way, firmware.Step{To: goal.Version})
		}
		if goal.Activated {
			way = append(way, firmware.Step{Activate: true})
		}
	} else {
		way, _ = d.chart.Way(d.stands, goal)
	}
	for _, s := range way {
		c.steps = append(c.steps, d.step(d.label, s))
	}
	return c
}

// rest puts the goggles into the modes they shall end in. That comes last: the
// mode goggles are in decides nothing before they are bound.
func (w *writer) rest(steps []Step) []Step {
	for _, d := range w.shared {
		at, to := w.ends(&d.device, steps), w.rests[d.key]
		if d.modes == nil || to == "" || to == at.Mode {
			continue
		}
		way, _ := d.chart.Way(at, firmware.State{Version: at.Version, Mode: to})
		for _, s := range way {
			steps = append(steps, d.step(d.label, s))
		}
	}
	return steps
}

// steps orders the updates, so that must-fly quads are dark after the fewest
// steps, then all quads, then tools are changed least. A quad is dark after a
// step when none of the goggles wanted links with it; quads that fly neither
// before the first step nor after the last do not count.
//
// It begins with the shared devices' steps in the best order found (goggles
// first where nothing speaks against it) and each unit where its quad is dark
// the shortest, and then refines that step by step.
func (w *writer) steps() ([]Step, bool) {
	var shared, units []chain
	for _, d := range w.shared {
		if c := w.chainOf(&d.device); len(c.steps) > 0 {
			shared = append(shared, c)
		}
	}
	slices.SortStableFunc(shared, func(a, b chain) int {
		return cmp.Compare(a.steps[0].Role, b.steps[0].Role) * -1
	}) // goggles first
	for _, g := range w.groups {
		for _, m := range g.members {
			if c := w.chainOf(w.devices[m.key]); len(c.steps) > 0 {
				units = append(units, c)
			}
		}
	}
	o := &ordering{writer: w, shared: shared, crafts: w.crafts(), sleeping: w.unactivated()}
	o.descend(nil, make([]int, len(shared)))
	steps, bounded := o.refine(o.arrange(units))
	return w.rest(steps), bounded
}

// ordering searches the orders of the shared devices' steps.
type ordering struct {
	*writer
	shared   []chain
	crafts   []*craft
	sleeping map[string]bool
	tried    int   // quads looked at in states between steps
	best     []int // which chain steps next
	price    [3]int
}

// descend tries every order that goes on from the one begun; taken counts the
// steps of each chain in it.
func (o *ordering) descend(order []int, taken []int) {
	if o.tried > mostOrders || o.gone() != nil {
		return
	}
	done := true
	for i := range o.shared {
		if taken[i] == len(o.shared[i].steps) {
			continue
		}
		done = false
		taken[i]++
		o.descend(append(order, i), taken)
		taken[i]--
	}
	if !done {
		return
	}
	first := o.tried == 0
	o.tried += max(1, len(o.crafts)*(len(order)+1))
	price := [3]int{0, 0, o.toolChanges(order)}
	states := o.states(order)
	for _, c := range o.crafts {
		_, dark := o.flip(c, states)
		price[1] += dark
		if c.must {
			price[0] += dark
		}
	}
	if first || slices.Compare(price[:], o.price[:]) < 0 {
		o.best, o.price = slices.Clone(order), price
	}
}

func (o *ordering) toolChanges(order []int) int {
	changes, taken, last := 0, make([]int, len(o.shared)), ""
	for _, i := range order {
		if tool := toolOf(o.shared[i].steps[taken[i]]); tool != "" && tool != last {
			changes++
			last = tool
		}
		taken[i]++
	}
	return changes
}

func toolOf(s Step) string {
	if len(s.Tools) > 0 {
		return s.Tools[0]
	}
	return ""
}

// flip finds after how many shared steps a quad's unit is best updated, and for
// how many of the states between the shared steps the quad is dark then. Among
// the best it takes the last: goggles first.
func (o *ordering) flip(c *craft, states []map[string]firmware.Version) (after, dark int) {
	current, target := o.current(c.unit), o.at[c.unit]
	darkAt := func(state map[string]firmware.Version, unit firmware.Version) int {
		if len(c.flies(o.view(state, c.unit, unit), nil)) == 0 {
			return 1
		}
		return 0
	}
	first, last := darkAt(states[0], current), darkAt(states[len(states)-1], target)
	if first == 1 && last == 1 {
		return len(states) - 1, 0 // it never flies: nothing to keep flyable
	}
	old, fresh := make([]int, len(states)), make([]int, len(states))
	total := 0
	for i, s := range states {
		old[i], fresh[i] = darkAt(s, current), darkAt(s, target)
		total += old[i]
	}
	after, dark = len(states)-1, total // never flipped; only if nothing changes
	if current.Compare(target) == 0 && current.Known() {
		return after, dark
	}
	best, sum := -1, 0
	for _, f := range fresh {
		sum += f
	}
	// Flipped in state t: old up to and with t, new after; the state itself counts once, as
	// the better.
	for t := range states {
		cost := sum - fresh[t] + min(old[t], fresh[t])
		if best < 0 || cost <= dark {
			best, after, dark = t, t, cost
		}
		sum += old[t] - fresh[t]
	}
	return after, dark
}

// states gives what the shared devices carry before the first of the steps and
// after each.
func (o *ordering) states(order []int) []map[string]firmware.Version {
	at := map[string]firmware.Version{}
	states := []map[string]firmware.Version{copyOf(at)}
	taken := make([]int, len(o.shared))
	for _, i := range order {
		if s := o.shared[i].steps[taken[i]]; s.Do == Update {
			at[s.Device] = s.To
		}
		taken[i]++
		states = append(states, copyOf(at))
	}
	return states
}

func copyOf(m map[string]firmware.Version) map[string]firmware.Version {
	out := make(map[string]firmware.Version, len(m))
	for k, v := range m {
		out[k] = v
	}
	return out
}

// current is what a device carries today.
func (w *writer) current(key string) firmware.Version {
	if d, ok := w.devices[key]; ok {
		return d.current
	}
	return ""
}

func (w *writer) view(
	state map[string]firmware.Version, unit string, v firmware.Version,
) func(string) firmware.Version {
	return func(key string) firmware.Version {
		if key == unit {
			return v
		}
		if at, ok := state[key]; ok {
			return at
		}
		return w.current(key)
	}
}

// arrange puts the units' steps between the shared ones: where their quads are
// dark the shortest, must-fly quads first, the same tool together.
func (o *ordering) arrange(units []chain) []Step {
	slots, states := make([][]chain, len(o.best)+1), o.states(o.best)
	of := map[string][]*craft{} // by unit
	for _, c := range o.crafts {
		of[c.unit] = append(of[c.unit], c)
	}
	for _, u := range units {
		slot := len(o.best)
		for _, c := range of[u.key] {
			slot, _ = o.flip(c, states)
		}
		slots[slot] = append(slots[slot], u)
	}
	must := func(u chain) int {
		if slices.ContainsFunc(of[u.key], func(c *craft) bool { return c.must }) {
			return 0
		}
		return 1
	}
	steps, taken := []Step{}, make([]int, len(o.shared))
	for i, slot := range slots {
		slices.SortStableFunc(slot, func(a, b chain) int {
			return cmp.Or(must(a)-must(b), cmp.Compare(toolOf(a.steps[0]), toolOf(b.steps[0])))
		})
		for _, u := range slot {
			steps = append(steps, u.steps...)
		}
		if i < len(o.best) {
			c := o.best[i]
			steps = append(steps, o.shared[c].steps[taken[c]])
			taken[c]++
		}
	}
	return steps
}

// asleep is the devices that have still to be activated.
func (w *writer) unactivated() map[string]bool {
	list := map[string]bool{}
	for key, d := range w.devices {
		if d.wakes {
			list[key] = true
		}
	}
	return list
}

// take follows a step in what the devices carry and which still sleep.
func take(s Step, at map[string]firmware.Version, unactivated map[string]bool) {
	switch s.Do {
	case Update:
		at[s.Device] = s.To
	case Activate:
		delete(unactivated, s.Device)
	}
}

// byDevice finds the places of each device's steps.
func byDevice(steps []Step) map[string][]int {
	at := map[string][]int{}
	for i, s := range steps {
		at[s.Device] = append(at[s.Device], i)
	}
	return at
}

// touching are the steps that touch what a quad flies with, in their order, and which of
// its devices have still to be activated.
func (w *writer) touching(c *craft, at map[string][]int) (touched []int, sleeps map[string]bool) {
	keys := []string{c.unit}
	for _, want := range c.wants {
		keys = append(keys, want.goggles, want.controller)
	}
	sleeps = map[string]bool{}
	for _, key := range keys {
		touched = append(touched, at[key]...)
		if d, ok := w.devices[key]; ok && d.wakes {
			sleeps[key] = true
		}
	}
	slices.Sort(touched)
	return slices.Compact(touched), sleeps
}

// lanes says who can fly after each step. A quad is looked at again only where a step
// touches what it flies with.
func (w *writer) lanes(steps []Step) []Lane {
	lanes := []Lane{}
	at := byDevice(steps)
	for _, c := range w.crafts() {
		lane := Lane{Quad: c.quad.ID, Name: c.quad.Label(), Bench: c.bench}
		touched, sleeps := w.touching(c, at)
		carries := map[string]firmware.Version{}
		lane.turn(0, c.flies(w.view(carries, "", ""), sleeps))
		for _, i := range touched {
			take(steps[i], carries, sleeps)
			lane.turn(i+1, c.flies(w.view(carries, "", ""), sleeps))
		}
		lanes = append(lanes, lane)
	}
	return lanes
}

// turn notes what a quad flies with after a number of steps, where that is another.
func (l *Lane) turn(after int, flies []string) {
	if n := len(l.Turns); n == 0 || !slices.Equal(l.Turns[n-1].Flies, flies) {
		l.Turns = append(l.Turns, Turn{after, flies})
	}
}

// Flies are the goggles a quad links with after a number of steps.
func (l *Lane) Flies(after int) []string {
	flies := []string{}
	for _, turn := range l.Turns {
		if turn.After <= after {
			flies = turn.Flies
		}
	}
	return flies
}
