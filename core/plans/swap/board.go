package swap

import (
	"context"
	"fmt"
	"strings"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
)

// Row is one quad on the yoke board.
type Row struct {
	Quad    string              `json:"quad"`
	Name    string              `json:"name"`
	Use     string              `json:"use"`
	Now     string              `json:"now"`
	Next    string              `json:"next"`
	Stays   bool                `json:"stays"`          // next is as now
	Planned bool                `json:"planned"`        // a swap is planned, whether it is left out or not
	Left    bool                `json:"left,omitempty"` // the swap is left out: the quad is judged as it is now
	Level   verdict.Level       `json:"level"`
	Gates   []GateLevel         `json:"gates"`
	Goggles []link.GogglesReach `json:"goggles"`
	// Flies is the best answer over the goggles brought; Needs says what else
	// stands in the way.
	Flies link.Reach `json:"flies"`
	Needs string     `json:"needs,omitempty"`
}

// GateLevel is one knot of the board.
type GateLevel struct {
	Gate  verdict.Gate  `json:"gate"`
	Level verdict.Level `json:"level"`
	Says  string        `json:"says,omitempty"` // the worst finding, as much as there is room for; absent where it fits
}

// Device is a pair of goggles or a controller that can be brought or left.
type Device struct {
	Kit      string    `json:"kit"`
	Name     string    `json:"name"`
	Kind     gear.Kind `json:"kind"`
	Brought  bool      `json:"brought"`
	Firmware string    `json:"firmware"`
}

// Board is the whole fleet at a glance.
type Board struct {
	Title   string   `json:"title"`
	Says    string   `json:"says"`
	Devices []Device `json:"devices"`
	Gates   []Column `json:"gates"` // of every row, in order
	Rows    []Row    `json:"rows"`
}

// Column is a gate as a column of the board.
type Column struct {
	Gate  verdict.Gate `json:"gate"`
	Title string       `json:"title"`
}

// LeaveSwap stands for leaving out the planned swap of a quad.
func LeaveSwap(quad string) string { return "swap:" + quad }

// NewBoard judges every quad's next fit, with the goggles and controllers
// that are brought. Left lists the kit left at home and, by LeaveSwap, the
// swaps left out: those quads are judged as they are now. All else is brought.
func NewBoard(lib *gear.Library, f *fleet.Index, left []string) Board {
	var none Memory
	b, _ := none.Board(context.Background(), lib, f, left)
	return b
}

// Board is NewBoard with what is remembered of quads that nothing has changed for. Its
// error is the context's, where that ends before all are judged; those that are stay
// remembered.
func (m *Memory) Board(ctx context.Context, lib *gear.Library, f *fleet.Index, left []string) (Board, error) {
	b := Board{Title: f.Title, Devices: []Device{}, Gates: make([]Column, len(Gates))}
	for i, g := range Gates {
		b.Gates[i] = Column{g.Name, g.Title}
	}
	home := map[string]bool{}
	for _, id := range left {
		home[id] = true
	}
	var goggles []string
	for i := range f.Kit {
		kit := &f.Kit[i]
		item, _ := lib.Item(kit.Model)
		switch item.(type) {
		case *gear.Goggles, *gear.Controller:
			b.Devices = append(b.Devices, Device{Kit: kit.ID, Name: kit.Label(), Kind: item.Kind(),
				Brought: !home[kit.ID], Firmware: string(kit.Firmware)})
			if item.Kind() == gear.KindGoggles {
				goggles = append(goggles, kit.ID)
			}
		}
	}
	m.on(groundOf(lib, f), len(f.Quads))
	b.Rows = make([]Row, len(f.Quads))
	Each(ctx, len(f.Quads), func(i int) {
		q := &f.Quads[i]
		swapLeft := home[LeaveSwap(q.ID)]
		b.Rows[i] = newRow(q, swapLeft, m.of(lib, f, q, swapLeft, goggles), b.Devices)
	})
	if err := ctx.Err(); err != nil {
		return Board{}, err
	}
	b.Says = b.sentence()
	return b, nil
}

// newRow is a quad's row, with what is brought.
func newRow(q *fleet.Quad, swapLeft bool, found found, devices []Device) Row {
	next := q.Next
	if next == nil {
		next = &q.Now
	}
	planned := !sameUnit(q.Now, *next)
	if swapLeft {
		next = &q.Now
	}
	row := Row{
		Quad:    q.ID,
		Name:    q.Label(),
		Use:     q.Use,
		Now:     found.now,
		Next:    found.next,
		Stays:   sameUnit(q.Now, *next),
		Planned: planned,
		Left:    swapLeft,
		Level:   found.level,
		Gates:   found.gates,
		Goggles: found.goggles,
		Flies:   link.ReachNever,
	}
	brought := map[string]bool{}
	for _, d := range devices {
		brought[d.Kit] = d.Brought
	}
	for _, reach := range found.goggles {
		if brought[reach.Goggles] && reach.Reach.Better(row.Flies) {
			row.Flies = reach.Reach
		}
	}
	row.Needs = needs(next, found, devices)
	return row
}

func sameUnit(now, next fleet.Fit) bool {
	if now.AirUnit == nil || next.AirUnit == nil {
		return now.AirUnit == next.AirUnit
	}
	return now.AirUnit.Kit == next.AirUnit.Kit && now.AirUnit.Model == next.AirUnit.Model
}

func worstWords(g GateVerdict) string {
	for _, f := range g.Findings {
		if f.Level == g.Level {
			return f.Says
		}
	}
	return ""
}

// needs says what stands in the way besides the goggles: a controller left at
// home, a part not owned, a gate that is shut.
func needs(fit *fleet.Fit, found found, devices []Device) string {
	if slot := fit.Controller; slot != nil && fit.Receiver == "" {
		for _, d := range devices {
			if d.Kit == slot.Kit && !d.Brought {
				return "its controller, " + d.Name
			}
		}
	}
	if found.notOwned != "" {
		return found.notOwned
	}
	var shut []string
	for i, g := range found.gates {
		if remedy := Gates[i].Remedy; remedy != "" && g.Level == verdict.Unfit {
			shut = append(shut, remedy)
		}
	}
	return change.And(shut)
}

// NotOwned is the first part of a fit that has still to be bought.
func NotOwned(c fleet.Case) (string, bool) {
	if s := c.Fit.AirUnit; s != nil && s.Kit == "" {
		return c.Library.Label(s.Model), true
	}
	for _, r := range c.Fit.Regulators {
		if _, fitted := c.Quad.Now.Regulator(r.ID); !fitted && c.Fleet.SpareCount(r.Model, c.Quad.ID) == 0 {
			return c.Library.Label(r.Model), true
		}
	}
	if m := c.Fit.Receiver; m != "" && m != c.Quad.Now.Receiver && !c.BuiltIn() && c.Fleet.SpareCount(m, c.Quad.ID) == 0 {
		return c.Library.Label(m), true
	}
	return "", false
}

// Describe names the video of a fit.
func Describe(c fleet.Case) string {
	if unit, _, ok := c.AirUnit(); ok {
		return unit.Label()
	}
	if c.Fit.Analog != "" {
		return c.Fit.Analog
	}
	return "nothing chosen"
}

// sentence says the board in words. Every quad is judged for itself.
func (b *Board) sentence() string {
	var brought []string
	for _, d := range b.Devices {
		if d.Kind == gear.KindGoggles && d.Brought {
			brought = append(brought, d.Name)
		}
	}
	if len(b.Rows) == 0 {
		return "No quads yet."
	}
	if len(brought) == 0 {
		return fmt.Sprintf("No goggles at the bench: none of %d %s.", len(b.Rows),
			plural(len(b.Rows), "quad flies", "quads fly"))
	}
	var now, after, part, never, unknown int
	for _, r := range b.Rows {
		switch {
		case r.Flies == link.ReachNever:
			never++
		case r.Flies == link.ReachUnknown || r.Level == verdict.Unknown:
			unknown++
		case r.Needs != "":
			part++
		case r.Level == verdict.Unfit:
			never++
		case r.Flies == link.ReachNow && r.Stays && r.Level != verdict.Change:
			now++
		default:
			after++
		}
	}
	var says []string
	add := func(n int, one, many string) {
		if n > 0 {
			says = append(says, fmt.Sprintf("%d %s", n, plural(n, one, many)))
		}
	}
	add(now, "flies now", "fly now")
	add(after, "flies after its swap or updates", "fly after a swap or updates")
	add(part, "needs something more", "need something more")
	add(never, "cannot come along", "cannot come along")
	add(unknown, "cannot be told yet", "cannot be told yet")
	return fmt.Sprintf("With %s at the bench, of %d quads: %s.", change.And(brought), len(b.Rows),
		strings.Join(says, ", "))
}

func plural(n int, one, many string) string {
	if n == 1 {
		return one
	}
	return many
}
