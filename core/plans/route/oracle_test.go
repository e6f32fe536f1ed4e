package route

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/crillab/gophersat/maxsat"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
)

// instance makes a random fleet: models with chains, doors and rollbacks,
// random pairings with features, modes and controllers, random wants.
func instance(seed uint64, quads, goggles int) Request {
	r := rand.New(rand.NewPCG(seed, 7))
	versions := []firmware.Version{"1.0", "1.0.6", "1.0.10", "1.1", "2.0"}
	ranges := []firmware.Range{"*", "<=1.0.6", ">=1.0.10", ">=1.1", "1.1", ">=1.0.6 <2", ">=2.0"}
	pick := func(list []firmware.Range) firmware.Range { return list[r.IntN(len(list))] }
	dev := func(id string, modes ...string) gear.Device {
		d := gear.Device{Entry: gear.Entry{ID: id}}
		if r.IntN(3) == 0 {
			d.Activation = &gear.Activation{Needed: true, Firmware: pick(ranges)}
		}
		for _, v := range versions[:2+r.IntN(4)] {
			rel := gear.Release{
				Version: v,
				From:    pick([]firmware.Range{"*", "*", ">=1.0.6", ">=1.0.10"}),
				OneWay:  r.IntN(4) == 0,
			}
			if len(d.Releases) > 0 && r.IntN(3) == 0 {
				rel.RollbackTo = []firmware.Version{d.Releases[len(d.Releases)-1].Version}
			}
			if r.IntN(4) == 0 {
				rel.Install = &gear.Install{Activated: d.Activation != nil && r.IntN(2) == 0}
				if len(modes) > 0 {
					rel.Install.Mode = modes[r.IntN(len(modes))]
				}
			}
			d.Releases = append(d.Releases, rel)
		}
		return d
	}
	set := &gear.Set{}
	for i := range 4 {
		set.AirUnits = append(set.AirUnits, gear.AirUnit{Device: dev(fmt.Sprintf("unit-%d", i))})
		set.Controllers = append(set.Controllers, gear.Controller{Device: dev(fmt.Sprintf("hand-%d", i))})
		set.Goggles = append(
			set.Goggles,
			gear.Goggles{
				Device: dev(fmt.Sprintf("eyes-%d", i), "a", "b"),
				Modes:  []gear.Mode{{ID: "a"}, {ID: "b", Firmware: pick(ranges)}},
			},
		)
	}
	features := []string{"recording", "power control", "flip"}
	for a := range 4 {
		for g := range 4 {
			for s := range r.IntN(4) {
				p := gear.Pairing{
					AirUnit:         fmt.Sprintf("unit-%d", a),
					Goggles:         fmt.Sprintf("eyes-%d", g),
					Controllers:     []gear.ControllerRange{},
					AirFirmware:     pick(ranges),
					GogglesFirmware: pick(ranges),
					Mode:            []string{"", "a", "b"}[r.IntN(3)],
				}
				p.ID = fmt.Sprintf("p-%d-%d-%d", a, g, s)
				for h := range 4 {
					if r.IntN(2) == 0 {
						p.Controllers = append(p.Controllers, gear.ControllerRange{ID: fmt.Sprintf("hand-%d", h), Firmware: pick(ranges)})
					}
				}
				for _, f := range features {
					if r.IntN(2) == 0 {
						p.Features = append(p.Features, f)
					}
				}
				if !slices.ContainsFunc(set.Pairings, func(o gear.Pairing) bool {
					return o.AirUnit == p.AirUnit && o.Goggles == p.Goggles && o.Contradicts(&p) != ""
				}) {
					set.Pairings = append(set.Pairings, p)
				}
			}
		}
	}
	lib := gear.NewLibrary(set)
	f := &fleet.Fleet{}
	own := func(id, model string) {
		item, _ := lib.Item(model)
		releases := item.(gear.Linked).AsDevice().Releases
		f.Kit = append(
			f.Kit,
			fleet.Kit{ID: id, Model: model, Firmware: releases[r.IntN(len(releases))].Version, Activated: new(r.IntN(3) > 0)},
		)
		if item.Kind() == gear.KindGoggles {
			f.Kit[len(f.Kit)-1].Mode = []string{"", "a"}[r.IntN(2)]
		}
	}
	for i := range goggles {
		own(fmt.Sprintf("g%d", i), fmt.Sprintf("eyes-%d", r.IntN(4)))
	}
	for i := range 2 {
		own(fmt.Sprintf("h%d", i), fmt.Sprintf("hand-%d", r.IntN(4)))
	}
	q := Request{Library: lib, Values: features, KeepWayBack: r.IntN(8) == 0}
	for i := range quads {
		own(fmt.Sprintf("u%d", i), fmt.Sprintf("unit-%d", r.IntN(4)))
		quad := fleet.Quad{ID: fmt.Sprintf("q%d", i), Now: fleet.Fit{AirUnit: &fleet.Slot{Kit: fmt.Sprintf("u%d", i)}}}
		if r.IntN(3) > 0 {
			quad.Now.Controller = &fleet.Slot{Kit: fmt.Sprintf("h%d", r.IntN(2))}
		}
		f.Quads = append(f.Quads, quad)
		for g := range goggles {
			if few := 3; goggles < few || r.IntN(3) == 0 {
				q.Wants = append(
					q.Wants,
					fleet.Want{
						Quad:    quad.ID,
						Goggles: fmt.Sprintf("g%d", g),
						Weight:  []fleet.Weight{fleet.Must, fleet.Wish}[r.IntN(2)],
					},
				)
			}
		}
	}
	q.Fleet = fleet.NewIndex(f)
	return q
}

// The goals as one number for the oracles; each part stays below a hundred on
// the sizes they are asked for.
const (
	perStep, perTouch, perDoor   = 1, 100, 10_000
	perFeature, perWish, perMust = 1_000_000, 100_000_000, 10_000_000_000
)

func weightOf(w fleet.Weight) int {
	if w == fleet.Must {
		return perMust
	}
	return perWish
}

// worth turns our score into what the oracles count: what is won, less costs.
func worth(s score) int {
	mask := int64(1)<<part - 1
	low := -s.low
	return int(s.high>>(2*part))*perMust + int(s.high>>part&mask)*perWish + int(s.high&mask)*perFeature -
		int(low>>(2*part))*perDoor - int(low>>part&mask)*perTouch - int(low&mask)*perStep
}

// dead stands for a device left on a release it cannot be activated on.
const dead firmware.Version = "dead"

// option is one release of a device with its price, straight from the gear.
type option struct {
	version firmware.Version
	price   int
}

func options(r Request, kitID string) (list []option) {
	kit, _ := r.Fleet.Piece(kitID)
	item, _ := r.Library.Item(kit.Model)
	device := item.(gear.Linked)
	stands := firmware.State{Version: kit.Firmware, Mode: kit.Mode, Activated: *kit.Activated}
	list = append(list, option{kit.Firmware, 0})
	if _, ok := device.Chart().Way(stands, firmware.State{Activated: true}); !ok {
		list[0].version = dead
	}
	for _, rel := range device.AsDevice().Releases {
		if rel.Version == list[0].version {
			continue
		}
		steps, ok := device.Chart().Way(stands, firmware.State{Version: rel.Version, Activated: true})
		if !ok {
			continue
		}
		o := option{rel.Version, perTouch}
		doors := 0
		for _, s := range steps {
			if !s.Activate {
				o.price += perStep
			}
			if s.OneWay {
				doors++
			}
		}
		if doors == 0 || !r.KeepWayBack {
			o.price += doors * perDoor
			list = append(list, o)
		}
	}
	return list
}

// pairingsOf a want, with what each is worth when it holds.
func pairingsOf(r Request, w fleet.Want) (list []*gear.Pairing, air, eyes, hand string) {
	quad, _ := r.Fleet.Quad(w.Quad)
	air, eyes = quad.Now.AirUnit.Kit, w.Goggles
	if quad.Now.Controller != nil {
		hand = quad.Now.Controller.Kit
	}
	a, _ := r.Fleet.Piece(air)
	g, _ := r.Fleet.Piece(eyes)
	return r.Library.Pairings(a.Model, g.Model), air, eyes, hand
}

func holds(r Request, p *gear.Pairing, eyes, hand string, at map[string]firmware.Version, air string) bool {
	g, _ := r.Fleet.Piece(eyes)
	goggles, _ := gear.Find[*gear.Goggles](r.Library, g.Model)
	for _, id := range []string{air, eyes, hand} {
		if at[id] == dead {
			return false
		}
	}
	if !p.AirFirmware.Holds(at[air]) || !p.GogglesFirmware.Holds(at[eyes]) {
		return false
	}
	if mode, ok := goggles.Mode(p.Mode); p.Mode != "" && (!ok || !mode.Firmware.Holds(at[eyes])) {
		return false
	}
	if hand == "" {
		return true
	}
	h, _ := r.Fleet.Piece(hand)
	return slices.ContainsFunc(
		p.Controllers,
		func(c gear.ControllerRange) bool { return c.ID == h.Model && c.Firmware.Holds(at[hand]) },
	)
}

// bruteForce tries every release of every device with every other.
func bruteForce(r Request) int {
	var kit []string
	for i := range r.Fleet.Kit {
		kit = append(kit, r.Fleet.Kit[i].ID)
	}
	best, first := 0, true
	at := map[string]firmware.Version{}
	var try func(i, price int)
	try = func(i, price int) {
		if i < len(kit) {
			for _, o := range options(r, kit[i]) {
				at[kit[i]] = o.version
				try(i+1, price+o.price)
			}
			return
		}
		won := 0
		for _, w := range r.Wants {
			list, air, eyes, hand := pairingsOf(r, w)
			most := -1
			for _, p := range list {
				if holds(r, p, eyes, hand, at, air) {
					most = max(most, len(p.Features))
				}
			}
			if most >= 0 {
				won += weightOf(w.Weight) + most*perFeature
			}
		}
		if first || won-price > best {
			best, first = won-price, false
		}
	}
	try(0, 0)
	return best
}

// goal is one of the goals in their order: literals to make true, with what
// each is worth.
type goal struct {
	worth   int // of one, in the oracles' number
	lits    []maxsat.Lit
	weights []int
}

func (g *goal) add(l maxsat.Lit, weight int) {
	if weight > 0 {
		g.lits, g.weights = append(g.lits, l), append(g.weights, weight)
	}
}

// maxSAT gives the same instance to a general library: a variable a release, a
// variable a statement of a want. The goals are solved one after another, each
// held by a hard constraint for the next (one weighted sum of all of them is
// more than the library finishes).
func maxSAT(r Request) int {
	var hard []maxsat.Constr
	goals := []goal{
		{worth: perMust},
		{worth: perWish},
		{worth: perFeature},
		{worth: perDoor},
		{worth: perTouch},
		{worth: perStep},
	}
	name := func(kit string, v firmware.Version) string { return kit + "@" + string(v) }
	total := 0
	for i := range r.Fleet.Kit {
		id := r.Fleet.Kit[i].ID
		var one []maxsat.Lit
		for _, o := range options(r, id) {
			for _, other := range one {
				hard = append(hard, maxsat.HardClause(other.Negation(), maxsat.Not(name(id, o.version))))
			}
			one = append(one, maxsat.Var(name(id, o.version)))
			for k, price := range []int{o.price / perDoor, o.price % perDoor / perTouch, o.price % perTouch} {
				goals[3+k].add(maxsat.Not(name(id, o.version)), price)
				total -= price * goals[3+k].worth
			}
		}
		hard = append(hard, maxsat.HardClause(one...))
	}
	for i, w := range r.Wants {
		list, air, eyes, hand := pairingsOf(r, w)
		met := fmt.Sprintf("met-%d", i)
		some := []maxsat.Lit{maxsat.Not(met)}
		for k, p := range list {
			use := fmt.Sprintf("use-%d-%d", i, k)
			for _, other := range some[1:] {
				hard = append(hard, maxsat.HardClause(other.Negation(), maxsat.Not(use)))
			}
			some = append(some, maxsat.Var(use))
			for _, id := range []string{air, eyes, hand} {
				if id == "" {
					continue // a separate receiver, or none needed
				}
				clause := []maxsat.Lit{maxsat.Not(use)}
				for _, o := range options(r, id) {
					if oneHolds(r, p, id, o.version, air, eyes, hand) {
						clause = append(clause, maxsat.Var(name(id, o.version)))
					}
				}
				hard = append(hard, maxsat.HardClause(clause...))
			}
			goals[2].add(maxsat.Var(use), len(p.Features))
		}
		hard = append(hard, maxsat.HardClause(some...))
		if w.Weight == fleet.Must {
			goals[0].add(maxsat.Var(met), 1)
		} else {
			goals[1].add(maxsat.Var(met), 1)
		}
	}
	for _, g := range goals {
		if len(g.lits) == 0 {
			continue
		}
		problem, all := slices.Clone(hard), 0
		for i, l := range g.lits {
			problem = append(problem, maxsat.WeightedClause([]maxsat.Lit{l}, g.weights[i]))
			all += g.weights[i]
		}
		_, missed := maxsat.New(problem...).Solve()
		total += (all - missed) * g.worth
		hard = append(hard, maxsat.HardPBConstr(g.lits, g.weights, all-missed))
	}
	return total
}

// oneHolds asks whether one device alone lets a statement hold.
func oneHolds(r Request, p *gear.Pairing, id string, v firmware.Version, air, eyes, hand string) bool {
	loose := *p
	if v == dead {
		return false
	}
	switch id {
	case air:
		return p.AirFirmware.Holds(v)
	case eyes:
		loose.AirFirmware = "*"
		return holds(r, &loose, eyes, "", map[string]firmware.Version{eyes: v}, air)
	}
	kit, _ := r.Fleet.Piece(hand)
	return slices.ContainsFunc(
		p.Controllers,
		func(c gear.ControllerRange) bool { return c.ID == kit.Model && c.Firmware.Holds(v) },
	)
}

func ours(t testing.TB, r Request) int {
	p, err := prepare(r)
	require.NoError(t, err)
	s := p.solve(DefaultBudget)
	require.False(t, s.bounded)
	return worth(s.score)
}

// Outside check: trying every combination gives the same optimum.
func TestSameOptimumAsBruteForce(t *testing.T) {
	for seed := range uint64(150) {
		r := instance(seed, 1+int(seed%3), 1+int(seed%2))
		assert.Equal(t, bruteForce(r), ours(t, r), "seed %d", seed)
	}
}

// Outside check: the MaxSAT library github.com/crillab/gophersat gives the same
// optimum on 240 random fleets of mixed size.
func TestSameOptimumAsMaxSAT(t *testing.T) {
	for seed := range uint64(240) {
		r := instance(1000+seed, 2+int(seed%9), 1+int(seed%4))
		assert.Equal(t, maxSAT(r), ours(t, r), "seed %d", 1000+seed)
	}
}

// Ours and the library side by side on the same fleets, up to the largest one
// it finishes within a minute.
func BenchmarkAgainstMaxSAT(b *testing.B) {
	for _, quads := range []int{10, 100, 280, 700} {
		r := instance(uint64(quads), quads, 3)
		b.Run(fmt.Sprintf("quads=%d", quads), func(b *testing.B) {
			begin := time.Now()
			want := maxSAT(r)
			library := time.Since(begin)
			b.ResetTimer()
			for b.Loop() {
				if got := ours(b, r); got != want {
					b.Fatalf("ours %d, the library's %d", got, want)
				}
			}
			each := b.Elapsed() / time.Duration(b.N)
			b.ReportMetric(float64(library.Microseconds()), "library-µs")
			b.ReportMetric(float64(library)/float64(each), "times-faster")
		})
	}
}

func BenchmarkRoute(b *testing.B) {
	for _, quads := range []int{100, 1000, 10000} {
		r := instance(5, quads, 8)
		b.Run(fmt.Sprintf("quads=%d/goggles=8", quads), func(b *testing.B) {
			b.ReportAllocs()
			nodes := 0
			for b.Loop() {
				p, err := prepare(r)
				if err != nil {
					b.Fatal(err)
				}
				s := p.solve(DefaultBudget)
				if s.bounded {
					b.Fatal("the bound was hit")
				}
				nodes = s.nodes
			}
			b.ReportMetric(float64(nodes), "nodes")
			if quads == 1000 {
				b.ReportMetric(200, "goal-ms")
			}
		})
	}
}

// The whole answer, with conflicts, order and lanes, as the screen asks for it.
func BenchmarkSolve(b *testing.B) {
	for _, size := range [][2]int{{9, 3}, {200, 3}, {1000, 3}, {10000, 3}} {
		r := instance(11, size[0], size[1])
		b.Run(fmt.Sprintf("quads=%d/goggles=%d", size[0], size[1]), func(b *testing.B) {
			for b.Loop() {
				if _, err := Solve(r); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
