package decide

import (
	"cmp"
	"context"
	"math"
	"slices"
	"time"

	"yokeswap/core/facts/fleet"
)

// job is what is done on one bench day: quads that cannot be parted.
type job struct {
	quads  []int
	before uint64 // jobs that have to be done first
	worth  int64  // gained once it is done
}

// sequencer puts the jobs of a choice in order.
type sequencer struct {
	t     *table
	point *Point
	jobs  []job
	purse Purse
	from  time.Time
	every int // days between bench days
	late  int // days a delivery takes that does not say
	known map[uint64]state
	// joined says that a quad waits for all that leave it something.
	joined bool
}

// state is what some jobs come to.
type state struct {
	lines        []BillLine
	cost, brings float64
}

func newSequencer(t *table, p *Point, purse Purse, days Calendar) *sequencer {
	s := &sequencer{t: t, point: p, purse: purse, from: days.From, every: cmp.Or(days.Every, BenchEvery),
		late: DeliveryDays}
	longest := -1
	for _, l := range t.bill(p) {
		if l.Days != nil && l.Buy > 0 {
			longest = max(longest, *l.Days)
		}
	}
	if longest >= 0 {
		s.late = longest
	}
	s.part()
	return s
}

// part makes jobs of the quads that are changed: those that need each other done first are one.
func (s *sequencer) part() {
	s.jobs, s.known = nil, map[uint64]state{}
	var changed []int
	for i, pick := range s.point.picks {
		if pick > 0 {
			changed = append(changed, i)
		}
	}
	n := len(changed)
	first := make([][]bool, n) // [a][b]: b before a
	for a := range first {
		first[a] = make([]bool, n)
		for b := range first[a] {
			first[a][b] = a != b && s.waitsFor(changed[a], changed[b])
		}
	}
	for k := range n { // and what those wait for
		for a := range n {
			for b := range n {
				first[a][b] = first[a][b] || first[a][k] && first[k][b]
			}
		}
	}
	of := make([]int, n)
	for a := range n {
		of[a] = len(s.jobs)
		for b := range a {
			if first[a][b] && first[b][a] {
				of[a] = of[b]
			}
		}
		if of[a] == len(s.jobs) {
			s.jobs = append(s.jobs, job{})
		}
		j := &s.jobs[of[a]]
		j.quads = append(j.quads, changed[a])
		q := &s.t.quads[changed[a]]
		is, _ := s.t.worth(s.point.scenario, q, s.point.picks[changed[a]])
		was, _ := s.t.worth(s.point.scenario, q, 0)
		j.worth += max(0, is-was)
	}
	for a := range n {
		for b := range n {
			if first[a][b] && of[a] != of[b] {
				s.jobs[of[a]].before |= 1 << of[b]
			}
		}
	}
}

// waitsFor says whether a quad can only be changed once another has been: it takes the unit that
// flies there, or has goggles updated that the other flies with as they are, and no longer in the
// end.
func (s *sequencer) waitsFor(at, other int) bool {
	way, there := s.way(at), s.t.quads[other].ways[0]
	if way.kit != "" && way.kit == there.kit {
		return true
	}
	return s.breaks(at, other) && s.way(other).goggles() != way.goggles() || s.joined && s.leaves(other, at)
}

// leaves says whether a quad leaves over what another draws on.
func (s *sequencer) leaves(from, to int) bool {
	draws := s.t.quads[to].buyings[s.point.picks[to]].draws
	for model, n := range s.t.quads[from].buyings[s.point.picks[from]].draws {
		if n < 0 && draws[model] > 0 {
			return true
		}
	}
	return false
}

// breaks says whether changing a quad has goggles updated that another cannot fly with then.
func (s *sequencer) breaks(at, other int) bool {
	way, q := s.way(at), &s.t.quads[other]
	g := way.goggles()
	return g != "" && q.flies && q.ways[0].goggles() == g && s.updates(way) && !q.holdsWith(q.ways[0], *way.fit.Goggles)
}

// updates says whether a way wants its goggles otherwise than they are.
func (s *sequencer) updates(way *Way) bool {
	kit, ok := s.t.index.Piece(way.goggles())
	return ok && updated(kit, way.fit.Goggles)
}

func (s *sequencer) way(quad int) *Way { return s.t.quads[quad].ways[s.point.picks[quad]] }

// sequence is an order of some jobs.
type sequence struct {
	day  int   // of the last bench day, from the first day on
	ask  int   // when the last order went out
	lost int64 // worth waited for, in points and days
	jobs []int
}

// best is the order in which the least worth is waited for. Where a quad would have to be changed before the
// one that leaves it something, they are changed together.
func (s *sequencer) best(ctx context.Context) (order []int, exact bool) {
	if order, exact = s.soonest(ctx); len(order) == len(s.jobs) {
		return order, exact
	}
	together := *s
	together.joined = true
	together.part()
	if other, also := together.soonest(ctx); len(other) == len(together.jobs) {
		*s = together
		return other, also
	}
	return order, exact
}

// early says whether some jobs buy by itself what in the end comes with something else.
func (s *sequencer) early(done uint64) bool {
	end := s.after(uint64(1)<<len(s.jobs) - 1).lines
	return slices.ContainsFunc(s.after(done).lines, func(l BillLine) bool {
		return l.drawn > 0 && slices.ContainsFunc(end, func(e BillLine) bool { return e.key == l.key && e.Buy < l.Buy })
	})
}

// soonest is the order in which the least worth is waited for, in points and days: of all orders by
// dynamic programming over the jobs that are done (Held and Karp 1962), those kept that no other of
// the same jobs beats; of more than mostStages the job that gives most next.
func (s *sequencer) soonest(ctx context.Context) (order []int, exact bool) {
	if len(s.jobs) > mostStages {
		return s.greedy(), false
	}
	kept := map[uint64][]sequence{0: {{day: -1}}}
	full := uint64(1)<<len(s.jobs) - 1
	var top []int
	for done := range full {
		if ctx.Err() != nil {
			return top, false
		}
		for _, seq := range kept[done] {
			if len(seq.jobs) > len(top) {
				top = seq.jobs
			}
			for k := range s.jobs {
				if done&(1<<k) != 0 || s.jobs[k].before&^done != 0 {
					continue
				}
				if next, ok := s.then(seq, done, k); ok {
					kept[done|1<<k] = insert(kept[done|1<<k], next)
				}
			}
		}
		delete(kept, done)
	}
	least := int64(math.MaxInt64)
	for _, seq := range kept[full] {
		if seq.lost < least {
			least, top = seq.lost, seq.jobs
		}
	}
	return top, true
}

// insert keeps a sequence where none of the same jobs is at least as soon and as good.
func insert(list []sequence, s sequence) []sequence {
	beats := func(a, b *sequence) bool { return a.day <= b.day && a.ask <= b.ask && a.lost <= b.lost }
	if slices.ContainsFunc(list, func(o sequence) bool { return beats(&o, &s) }) {
		return list
	}
	return append(slices.DeleteFunc(list, func(o sequence) bool { return beats(&s, &o) }), s)
}

// greedy does next what gives most of what can be done.
func (s *sequencer) greedy() []int {
	seq, done := sequence{day: -1}, uint64(0)
	for range s.jobs {
		best, at := sequence{}, -1
		for k := range s.jobs {
			if done&(1<<k) != 0 || s.jobs[k].before&^done != 0 {
				continue
			}
			next, ok := s.then(seq, done, k)
			if ok && (at < 0 || cmp.Or(next.day-best.day, cmp.Compare(s.jobs[at].worth, s.jobs[k].worth)) < 0) {
				best, at = next, k
			}
		}
		if at < 0 {
			break
		}
		seq, done = best, done|1<<at
	}
	return seq.jobs
}

// then is a sequence with one job more; false where there is never money for it.
func (s *sequencer) then(seq sequence, done uint64, k int) (sequence, bool) {
	ask, ok := s.payable(seq.ask, seq.day, done, done|1<<k)
	if !ok || s.early(done|1<<k) {
		return seq, false
	}
	next := sequence{ask: seq.ask, jobs: append(slices.Clip(seq.jobs), k)}
	there := 0
	if buys, days, _ := s.buys(done, k); buys {
		next.ask, there = ask, ask+days
	}
	next.day = max(seq.day+1, there)
	if rest := next.day % s.every; rest > 0 {
		next.day += s.every - rest
	}
	next.lost = seq.lost + s.jobs[k].worth*int64(next.day)
	return next, true
}

// mostYears is how long money is waited for.
const mostYears = 10

// payable is the first day from another on when what is done with one job more can be paid; false:
// not in mostYears. What units bring that are left over counts from the bench day that leaves them
// over.
func (s *sequencer) payable(from, bench int, before, after uint64) (day int, ok bool) {
	need := s.after(after).cost - s.after(0).brings - s.purse.Now
	if alone, ok := s.saved(need); ok && max(from, alone) < bench {
		return max(from, alone), true
	}
	day, ok = s.saved(need - s.after(before).brings + s.after(0).brings)
	return max(from, bench, day), ok
}

// saved is the first day on which so much has come in beyond what is there today.
func (s *sequencer) saved(need float64) (day int, ok bool) {
	const cent = 0.005
	if need <= cent {
		return 0, true
	}
	if s.purse.Month <= 0 || need > s.purse.Month*12*mostYears {
		return 0, false
	}
	return s.month(int(math.Ceil((need - cent) / s.purse.Month))), true
}

// month is the day on which so many months have gone by.
func (s *sequencer) month(n int) int { return int(s.from.AddDate(0, n, 0).Sub(s.from).Hours() / 24) }

// months is how many months have gone by on a day.
func (s *sequencer) months(day int) (n int) {
	for n = max(0, day/31-1); s.month(n+1) <= day; {
		n++
	}
	return n
}

// picks are the ways of a fleet in which only some jobs are done.
func (s *sequencer) picks(done uint64) []int {
	picks := make([]int, len(s.point.picks))
	for k := range s.jobs {
		if done&(1<<k) != 0 {
			for _, q := range s.jobs[k].quads {
				picks[q] = s.point.picks[q]
			}
		}
	}
	return picks
}

// after is what some jobs come to: what they take, with the goggles and controllers they are the
// first to want, and what the units bring that neither are carried once they are done nor are wanted
// for what is still to be done.
func (s *sequencer) after(done uint64) state {
	if is, known := s.known[done]; known {
		return is
	}
	p := Point{picks: s.picks(done), scenario: &scenario{goggles: s.point.scenario.goggles}}
	for _, bought := range s.point.scenario.bought {
		for i, pick := range p.picks {
			if q := &s.t.quads[i]; bought.serves(q.ways[pick], q.buyings[pick].draws) {
				p.scenario.bought = append(p.scenario.bought, bought)
				break
			}
		}
	}
	var is state
	for _, l := range s.t.bill(&p) {
		if !l.Sold {
			is.lines = append(is.lines, l)
			is.cost += l.Amount
		}
	}
	for _, kit := range s.spare(done) {
		is.brings += float64(s.t.sale(kit)) / 100
	}
	s.known[done] = is
	return is
}

// spare are the units, goggles and controllers that could be sold once some jobs are done.
func (s *sequencer) spare(done uint64) (list []*fleet.Kit) {
	if !s.t.question.Sell {
		return nil
	}
	now := &Point{picks: s.picks(done)}
	end := s.t.idle(s.point)
	for _, kit := range s.t.idle(now) {
		if slices.Contains(end, kit) && s.t.sale(kit) > 0 {
			list = append(list, kit)
		}
	}
	for _, id := range s.point.scenario.sold {
		if kit, ok := s.t.index.Piece(id); ok && !s.waitsOn(id, now.picks) {
			list = append(list, kit)
		}
	}
	return list
}

// waitsOn says whether a quad flies with goggles or a controller until it is changed, where some are.
func (s *sequencer) waitsOn(kit string, picks []int) bool {
	for k := range s.t.quads {
		q := &s.t.quads[k]
		if picks[k] != s.point.picks[k] && q.flies && q.ways[0].fit.FliesWith(kit) {
			return true
		}
	}
	return false
}

// buys is what a job takes beyond what is bought already, and the days until it is there.
func (s *sequencer) buys(done uint64, k int) (any bool, days int, assumed bool) {
	for _, l := range s.more(done, k) {
		if l.Days == nil {
			assumed = true
			days = max(days, s.late)
		} else {
			days = max(days, *l.Days)
		}
		any = true
	}
	return any, days, assumed
}

// more are the lines that a job adds to what is bought.
func (s *sequencer) more(done uint64, k int) (list []BillLine) {
	had := s.after(done).lines
	for _, l := range s.after(done | 1<<k).lines {
		if at := slices.IndexFunc(had, func(h BillLine) bool { return h.key == l.key }); at >= 0 {
			l.Buy, l.Amount = l.Buy-had[at].Buy, l.Amount-had[at].Amount
		}
		if l.Buy > 0 {
			list = append(list, l)
		}
	}
	return list
}
