package swap

import (
	"reflect"
	"strings"
	"sync"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
)

// Memory keeps what was found of each quad for the yoke board, for as long as nothing
// it was found from has changed: the library, the kit and the loose parts, the region, the
// quad itself, and what the plans of other quads leave of parts and units it asks for. It
// may be used by many goroutines; its zero value is empty.
type Memory struct {
	mu     sync.Mutex
	ground ground
	kept   map[keptKey]*remembered
}

// ground is what all quads are judged on. Entries are replaced, never written through,
// so that the same lists are the same facts.
type ground struct {
	library *gear.Library
	kit     *fleet.Kit
	kits    int
	spares  *fleet.Spare
	spare   int
	region  string
}

func groundOf(lib *gear.Library, f *fleet.Index) ground {
	g := ground{library: lib, kits: len(f.Kit), spare: len(f.Spares), region: f.Region}
	if g.kits > 0 {
		g.kit = &f.Kit[0]
	}
	if g.spare > 0 {
		g.spares = &f.Spares[0]
	}
	return g
}

type keptKey struct {
	quad string
	left bool // its swap is left out: it is judged as it is now
}

// remembered is what was found of a quad, and from what.
type remembered struct {
	quad  fleet.Quad
	asked *fleet.Asked
	found found
}

// found is what the board shows of a quad, whatever is brought.
type found struct {
	now, next string
	level     verdict.Level
	gates     []GateLevel
	goggles   []link.GogglesReach
	notOwned  string
}

// keptBeyond is how many quads that are no more are remembered before all is let go.
const keptBeyond = 1000

// on makes sure that what is kept stands on this ground.
func (m *Memory) on(g ground, quads int) {
	m.mu.Lock()
	defer m.mu.Unlock()
	if m.kept == nil || m.ground != g || len(m.kept) > 2*quads+keptBeyond {
		m.ground, m.kept = g, map[keptKey]*remembered{}
	}
}

// of gives what is found of a quad; left: as it is now, its swap left out.
func (m *Memory) of(lib *gear.Library, f *fleet.Index, q *fleet.Quad, left bool, goggles []string) found {
	key := keptKey{q.ID, left}
	m.mu.Lock()
	r := m.kept[key]
	m.mu.Unlock()
	if r != nil && reflect.DeepEqual(r.quad, *q) && r.asked.Still(f) {
		return r.found
	}
	recording, asked := f.Recording()
	c := fleet.NewCase(lib, recording, q)
	if left {
		c = c.Carrying(&q.Now)
	}
	r = &remembered{quad: *q, asked: asked, found: find(c, goggles)}
	m.mu.Lock()
	defer m.mu.Unlock()
	m.kept[key] = r
	return r.found
}

// glance is as much of a sentence as the board has room for, whole clauses of it where
// they go; the gate says it all.
func glance(says string) string {
	const most, least = 76, 38
	runes := []rune(says)
	if len(runes) <= most {
		return says
	}
	cut := string(runes[:most])
	end := len(cut)
	if space := strings.LastIndexByte(cut, ' '); space > 0 {
		end = space
	}
	for _, mark := range []string{"; ", ": ", ", ", ". "} {
		if at := strings.LastIndex(cut, mark); at >= least {
			end = at
			break
		}
	}
	return cut[:end] + " …"
}

func find(c fleet.Case, goggles []string) found {
	j := Judge(c)
	out := found{
		now:     Describe(fleet.NowCase(c.Library, c.Fleet, c.Quad)),
		next:    Describe(c),
		level:   j.Level,
		gates:   make([]GateLevel, len(j.Gates)),
		goggles: make([]link.GogglesReach, len(goggles)),
	}
	for i, g := range j.Gates {
		out.gates[i] = GateLevel{Gate: g.Gate, Level: g.Level}
		if g.Level != verdict.Fits {
			out.gates[i].Says = glance(worstWords(g))
		}
	}
	for i, kit := range goggles {
		out.goggles[i] = link.ReachOf(c, kit)
	}
	out.notOwned, _ = NotOwned(c)
	return out
}
