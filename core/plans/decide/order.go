package decide

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"yokeswap/core/facts/fleet"
)

// Order is a choice as a sequence: what is ordered when, what is done on which bench day, and what
// flies after each.
type Order struct {
	Stages []Stage `json:"stages"`
	// Sells is what nobody needs from today on.
	Sells []string `json:"sells"`
	// Exact says that no other sequence gives more worth sooner; else one was built step by step.
	Exact bool `json:"exact"`
	// Short is what is missing in the end, where what there is never suffices; the stages end there.
	Short float64 `json:"short"`
	Every int     `json:"every"` // days between bench days
	// Holds says whether all is done by the day asked for; absent: none was.
	Holds *bool  `json:"holds,omitempty"`
	Says  string `json:"says"`
}

// Stage is one bench day.
type Stage struct {
	Quads   []StageQuad `json:"quads"`
	Buys    []string    `json:"buys"`  // each with its number
	Comes   []string    `json:"comes"` // goggles and controllers that are new
	Updates []string    `json:"updates"`
	Sells   []string    `json:"sells"` // what nobody needs any more after it
	Amount  float64     `json:"amount"`
	Left    float64     `json:"left"` // once it is paid
	// OrderOn, ThereOn and BenchOn are days, yyyy-mm-dd; OrderOn is empty where nothing is bought.
	OrderOn string `json:"orderOn,omitempty"`
	ThereOn string `json:"thereOn,omitempty"`
	BenchOn string `json:"benchOn"`
	// Assumed says that a delivery time is not stated and was taken for the longest that is.
	Assumed bool `json:"assumed"`
	// Flies counts the quads that fly digital after it, Waits names those that do not until their turn.
	Flies int      `json:"flies"`
	Waits []string `json:"waits"`
}

// StageQuad is a quad that is changed on a bench day.
type StageQuad struct {
	Quad  string `json:"quad"`
	Name  string `json:"name"`
	Label string `json:"label"`
}

// BenchEvery and MostEvery are how many days lie between bench days where nobody says and at most,
// DeliveryDays what is taken for a delivery where none on the bill states its time (from memory: a
// free day a week, two weeks of post).
const (
	BenchEvery   = 7
	MostEvery    = 90
	DeliveryDays = 14
)

// mostStages is how many bench days are put in order exactly, mostJobs how many at all.
const (
	mostStages = 14
	mostJobs   = 60
)

// Purse is what there is to spend on a sequence, in the currency of the question.
type Purse struct {
	Now    float64 `json:"now"`    // today
	Month  float64 `json:"month"`  // more each month
	Stated bool    `json:"stated"` // by the fleet; else the budget counts as there today
}

// Purse is what the fleet says there is to spend; where it says nothing the budget, in hundredths,
// counts as there today. False where no rate is stated for the currency it is stated in.
func (w *Weighed) Purse(budget int64) (p Purse, ok bool) {
	f := w.table.index.Fleet
	if f.Means == nil || f.Means.Now == nil {
		return Purse{Now: float64(budget) / 100}, true
	}
	rate, ok := f.RateOf(f.Means.Currency, w.Currency())
	p = Purse{Now: *f.Means.Now * rate, Stated: true}
	if f.Means.Month != nil {
		p.Month = *f.Means.Month * rate
	}
	return p, ok
}

// Calendar is when things can be done. By is the day all shall be done by; zero: none is asked for.
// Every is how many days lie between two bench days, 1 to MostEvery; 0: BenchEvery.
type Calendar struct {
	From, By time.Time
	Every    int
}

// Order puts the choice within a budget into the order that gives most worth soonest: what is
// ordered as soon as there is money for it, one bench day as often as the calendar says, no unit taken
// off a quad that has nothing else yet, no goggles updated under a quad that still needs them as they
// are. Each thing is bought for what it is in the end, so that no step makes another useless. It
// ends with the context.
func (w *Weighed) Order(ctx context.Context, budget int64, purse Purse, days Calendar) Order {
	out := Order{Stages: []Stage{}, Sells: []string{}, Every: cmp.Or(days.Every, BenchEvery), Exact: true,
		Says: "Nothing is to be done."}
	at := w.within(budget)
	if at < 0 {
		return out
	}
	s := newSequencer(w.table, &w.points[at], purse, days)
	for _, kit := range s.spare(0) {
		out.Sells = append(out.Sells, kit.Label())
	}
	if len(s.jobs) == 0 {
		return out
	}
	if len(s.jobs) > mostJobs {
		out.Exact = false
		out.Says = fmt.Sprintf("More than %d bench days are not put in order: ask for less at once.", mostJobs)
		return out
	}
	order, exact := s.best(ctx)
	out.Exact = exact
	out.Stages, out.Short = s.stages(order)
	out.hold(days.By, w.table.prices.terms.Currency)
	return out
}

// hold says when all is done, and whether by the day asked for.
func (o *Order) hold(by time.Time, currency string) {
	if o.Short > 0 {
		o.Says = fmt.Sprintf("What there is never suffices: %.2f %s are missing for what comes next.", o.Short, currency)
		if !by.IsZero() {
			o.Holds = new(false)
		}
		return
	}
	last := o.Stages[len(o.Stages)-1].BenchOn
	o.Says = "All is done on " + last + "."
	if by.IsZero() {
		return
	}
	day := by.Format(time.DateOnly)
	if o.Holds = new(last <= day); *o.Holds {
		o.Says = fmt.Sprintf("All is done on %s, in time for %s.", last, day)
		return
	}
	done := 0
	for _, s := range o.Stages {
		if s.BenchOn <= day {
			done += len(s.Quads)
		}
	}
	o.Says = fmt.Sprintf("All is done on %s, not by %s: %d of the quads are by then.", last, day, done)
}

// stages tell an order, day by day; short is what is missing for the first job that is never paid.
func (s *sequencer) stages(order []int) (list []Stage, short float64) {
	seq, done := sequence{day: -1}, uint64(0)
	date := func(day int) string { return s.from.AddDate(0, 0, day).Format(time.DateOnly) }
	for _, k := range order {
		next, _ := s.then(seq, done, k)
		stage := s.stage(done, k)
		if buys, days, assumed := s.buys(done, k); buys {
			stage.OrderOn, stage.ThereOn, stage.Assumed = date(next.ask), date(next.ask+days), assumed
		}
		stage.BenchOn = date(next.day)
		have := s.purse.Now + s.purse.Month*float64(s.months(next.ask)) + s.after(done).brings
		done |= 1 << k
		stage.Left = math.Round((have-s.after(done).cost)*100) / 100
		list = append(list, stage)
		seq = next
	}
	if len(order) < len(s.jobs) {
		have := s.purse.Now + s.after(done).brings
		short = math.Inf(1)
		for k := range s.jobs {
			if done&(1<<k) == 0 && s.jobs[k].before&^done == 0 {
				short = min(short, s.after(done|1<<k).cost-have)
			}
		}
		short = math.Round(short*100) / 100
	}
	return list, short
}

// order is what is ordered of a line, in words: "1 × Visor D (used, with 4 × Crown dual)".
func (l *BillLine) order() string {
	words, more := fmt.Sprintf("%d × %s", l.Buy, l.Label), []string{}
	if l.Used {
		more = append(more, "used")
	}
	if len(l.With) > 0 {
		more = append(more, "with "+strings.Join(l.With, ", "))
	}
	if len(more) > 0 {
		words += " (" + strings.Join(more, ", ") + ")"
	}
	return words
}

// stage is what is done in a job after others, and what flies then.
func (s *sequencer) stage(done uint64, k int) Stage {
	out := Stage{Quads: []StageQuad{}, Buys: []string{}, Comes: []string{}, Updates: []string{}, Sells: []string{},
		Waits: []string{}}
	for _, l := range s.more(done, k) {
		out.Buys = append(out.Buys, l.order())
		out.Amount += l.Amount
		for _, bought := range s.point.scenario.bought {
			if bought.model == l.Model {
				out.Comes = append(out.Comes, l.Label)
			}
		}
	}
	out.Amount = math.Round(out.Amount*100) / 100
	before, after := s.updated(done), s.updated(done|1<<k)
	for _, q := range s.jobs[k].quads {
		way := s.way(q)
		out.Quads = append(out.Quads, StageQuad{s.t.quads[q].quad.ID, s.t.quads[q].quad.Label(), way.Label})
		if g := way.goggles(); after[g] && !before[g] {
			before[g] = true
			out.Updates = append(out.Updates, s.t.nameOf(g)+stateWords(way.fit.Goggles))
		}
	}
	sold := s.spare(done)
	for _, kit := range s.spare(done | 1<<k) {
		if !slices.Contains(sold, kit) {
			out.Sells = append(out.Sells, kit.Label())
		}
	}
	picks := s.picks(done | 1<<k)
	for i := range s.t.quads {
		q := &s.t.quads[i]
		way := q.ways[picks[i]]
		switch {
		case picks[i] > 0:
			if way.outcome.flies != nil && *way.outcome.flies {
				out.Flies++
			}
		case !q.flies:
		case after[way.goggles()] && !q.holdsWith(way, s.point.scenario.goggles[way.goggles()]):
			out.Waits = append(out.Waits, q.quad.Label())
		default:
			out.Flies++
		}
	}
	return out
}

// updated are the goggles that are as the choice wants them once some jobs are done.
func (s *sequencer) updated(done uint64) map[string]bool {
	list := map[string]bool{}
	for i, pick := range s.picks(done) {
		if way := s.t.quads[i].ways[pick]; pick > 0 && s.updates(way) {
			list[way.goggles()] = true
		}
	}
	return list
}

// stateWords say what goggles are brought to.
func stateWords(g *fleet.Slot) (words string) {
	if g.Firmware.Known() {
		words += " to " + string(g.Firmware)
	}
	if g.Mode != "" {
		words += " into mode " + g.Mode
	}
	return words
}
