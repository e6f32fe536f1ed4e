package route

import (
	"slices"

	"yokeswap/core/facts/firmware"
)

// refine betters an order: with few steps by trying every order, else by moving
// single steps to where they do better until none does. It says when it gave
// up for the size of the fleet.
func (o *ordering) refine(steps []Step) ([]Step, bool) {
	n := len(steps)
	if n < 2 {
		return steps, false
	}
	if n <= exactSteps {
		return o.exact(steps), false
	}
	best, price := steps, o.priceOf(steps)
	work := 0
	for better := true; better; {
		better = false
		for from := range n {
			for to := range n {
				if work += n * len(o.crafts); work > mostRefined || o.gone() != nil {
					return best, true
				}
				moved := move(best, from, to)
				if moved == nil {
					continue
				}
				if p := o.priceOf(moved); slices.Compare(p[:], price[:]) < 0 {
					best, price, better = moved, p, true
				}
			}
		}
	}
	return best, false
}

// move puts one step elsewhere; nil where that breaks its device's own order.
func move(steps []Step, from, to int) []Step {
	if from == to {
		return nil
	}
	moved := slices.Delete(slices.Clone(steps), from, from+1)
	moved = slices.Insert(moved, to, steps[from])
	for i, s := range steps[min(from, to) : max(from, to)+1] {
		if at := min(from, to) + i; at != from && s.Device == steps[from].Device {
			return nil
		}
	}
	return moved
}

// exact tries every order that keeps each device's own.
func (o *ordering) exact(steps []Step) []Step {
	best, price := steps, o.priceOf(steps)
	order, used := make([]Step, 0, len(steps)), make([]bool, len(steps))
	var try func()
	try = func() {
		if len(order) == len(steps) {
			if p := o.priceOf(order); slices.Compare(p[:], price[:]) < 0 {
				best, price = slices.Clone(order), p
			}
			return
		}
		for i, s := range steps {
			if used[i] || waits(steps, used, i) {
				continue
			}
			used[i] = true
			order = append(order, s)
			try()
			order, used[i] = order[:len(order)-1], false
		}
	}
	try()
	return best
}

// waits says whether an earlier step of the same device is still to come.
func waits(steps []Step, used []bool, i int) bool {
	for k := range i {
		if !used[k] && steps[k].Device == steps[i].Device {
			return true
		}
	}
	return false
}

// priceOf counts the steps after which must-fly quads are dark, then any quad,
// then the changes of tool.
func (o *ordering) priceOf(steps []Step) (price [3]int) {
	at := byDevice(steps)
	for _, c := range o.crafts {
		dark, flew, flies := o.darkSteps(c, steps, at)
		if !flew && !flies {
			continue
		}
		price[1] += dark
		if c.must {
			price[0] += dark
		}
	}
	last := ""
	for _, s := range steps {
		if tool := toolOf(s); tool != "" && tool != last {
			price[2]++
			last = tool
		}
	}
	return price
}

// darkSteps counts the steps after which a quad cannot fly; only those of its own devices
// can change that, at are all by device.
func (o *ordering) darkSteps(c *craft, steps []Step, at map[string][]int) (dark int, flew, flies bool) {
	touched, sleeps := o.touching(c, at)
	carries := map[string]firmware.Version{}
	view := o.view(carries, "", "")
	flies = len(c.flies(view, sleeps)) > 0
	flew = flies
	since := 0
	for _, i := range touched {
		if !flies {
			dark += i - since
		}
		take(steps[i], carries, sleeps)
		flies, since = len(c.flies(view, sleeps)) > 0, i
	}
	if !flies {
		dark += len(steps) - since
	}
	return dark, flew, flies
}
