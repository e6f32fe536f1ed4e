package assign

import (
	"context"
	"slices"
)

// climber is a whole choice that is bettered step by step: an option for another at one place, or at two
// where the first takes what the second has (local search).
type climber struct {
	*Problem
	picks []int
	used  []int
	money int64
	worth int64
}

// rate is what worth has to bring at least: so many hundredths are as good as so much worth.
type rate struct{ money, worth int64 }

// climbs is from how many choices it is climbed.
const climbs = 4

// climb betters some choices of a front at the rates that lie between them, and takes in all that it
// comes by.
func (p *Problem) climb(ctx context.Context, f *front) error {
	all := slices.Clone(*f)
	some := min(climbs, len(all))
	for i := range some {
		from := all[i*(len(all)-1)/max(1, some-1)] // the cheapest, the worthiest, and between
		if err := ctx.Err(); err != nil {
			return err
		}
		c := p.climber(from)
		for _, r := range f.rates() {
			for c.step(r) {
				if at := f.within(c.money); at < 0 || (*f)[at].worth < c.worth {
					f.take(whole{c.money, c.worth, c.label(), nil})
				}
			}
		}
	}
	return nil
}

// climber is one that begins from a choice for all places.
func (p *Problem) climber(from whole) *climber {
	c := &climber{Problem: p, picks: make([]int, len(p.Places)), used: make([]int, len(p.Things)),
		money: from.money, worth: from.worth}
	for at, l := len(p.Places)-1, from.fore; at >= 0; at, l = at-1, l.before {
		c.picks[at] = l.pick
		c.draw(&p.Places[at][l.pick], 1)
	}
	return c
}

func (c *climber) draw(o *Option, times int) {
	for _, u := range o.Uses {
		c.used[u.Thing] += times * u.Count
	}
}

// label is the choice as it stands.
func (c *climber) label() *label {
	l := &label{}
	for _, pick := range c.picks {
		l = &label{pick: pick, before: l}
	}
	l.money, l.worth = c.money, c.worth
	return l
}

// beyond is what is paid for what is drawn on beyond what there is, and the first thing of which there
// is no more; below zero: none.
func (c *climber) beyond() (money int64, lacks int) {
	for t, n := range c.used {
		if over := int64(n - c.Things[t].Have); over > 0 {
			if c.Things[t].Price < 0 {
				return 0, t
			}
			money += over * c.Things[t].Price
		}
	}
	return money, -1
}

// step takes the step that brings most at a rate; false where none brings anything.
func (c *climber) step(r rate) bool {
	was, _ := c.beyond()
	var best []change
	most := int64(0)
	try := func(steps ...change) {
		now, _ := c.beyond()
		money, worth := now-was, int64(0)
		for _, s := range steps {
			is, had := &c.Places[s.place][s.option], &c.Places[s.place][c.picks[s.place]]
			money, worth = money+is.Money-had.Money, worth+is.Worth-had.Worth
		}
		if gain := worth*r.money - money*r.worth; gain > most {
			best, most = slices.Clone(steps), gain
		}
	}
	for i := range c.Places {
		c.each(i, func(one change) {
			_, lacks := c.beyond()
			if lacks < 0 {
				try(one)
				return
			}
			for j := range c.Places {
				if j == i || !c.Places[j][c.picks[j]].draws(lacks) {
					continue
				}
				c.each(j, func(other change) {
					if _, lacks := c.beyond(); lacks < 0 {
						try(one, other)
					}
				})
			}
		})
	}
	for _, s := range best {
		is, had := &c.Places[s.place][s.option], &c.Places[s.place][c.picks[s.place]]
		c.draw(had, -1)
		c.draw(is, 1)
		c.money, c.worth, c.picks[s.place] = c.money+is.Money-had.Money, c.worth+is.Worth-had.Worth, s.option
	}
	now, _ := c.beyond()
	c.money += now - was
	return len(best) > 0
}

// change is another option for a place.
type change struct{ place, option int }

// each puts each other option of a place in its place, for as long as something is done.
func (c *climber) each(place int, do func(change)) {
	had := &c.Places[place][c.picks[place]]
	c.draw(had, -1)
	for o := range c.Places[place] {
		if o == c.picks[place] {
			continue
		}
		c.draw(&c.Places[place][o], 1)
		do(change{place, o})
		c.draw(&c.Places[place][o], -1)
	}
	c.draw(had, 1)
}

func (o *Option) draws(thing int) bool {
	return slices.ContainsFunc(o.Uses, func(u Use) bool { return u.Thing == thing })
}

// rates are those at which the choices of a front are as good as the next, and two at its ends.
func (f front) rates() []rate {
	list := []rate{{1, 1_000_000_000}}
	every := len(f)/24 + 1
	for i := every; i < len(f); i += every {
		list = append(list, rate{f[i].money - f[i-every].money, f[i].worth - f[i-every].worth})
	}
	return append(list, rate{1_000_000, 1})
}
