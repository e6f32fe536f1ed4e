package core_test

import (
	"context"
	"encoding"
	"encoding/json"
	"fmt"
	"maps"
	"reflect"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"
	"yokeswap/core/plans/decide"

	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/gates/channels"
	"yokeswap/core/gates/mount"
	"yokeswap/core/gates/pins"
	"yokeswap/core/gates/power"
	"yokeswap/core/measure/unit"
	"yokeswap/core/plans/route"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
	"yokeswap/core/work/hours"
	"yokeswap/core/work/prove"
	"yokeswap/core/work/settext"
	"yokeswap/core/work/setup"
	"yokeswap/core/work/tasks"
	"yokeswap/core/work/turns"
	"yokeswap/demo"
	"yokeswap/internal/builds"
)

// Every field has a reader: somewhere in the demo and in builds from its gear,
// another value of it changes a level, a number that is compared, a step, a row of a
// bill or a picture. A field that is asked for and never used is a question nobody
// should have to answer.

// saysNothing are the fields that name an entry or say where its values are from;
// they are shown as they are.
var saysNothing = []string{
	"id",
	"name",
	"source",
	"valueSources",
	"license",
	"title",
	"format",
	"version",
	"note",
	"made",
	"gearPacks",
}

// fields finds the fields of a type as they stand in a file: where each stands, nested
// ones with dots and entries of lists as [], and which field of which definition of
// the schema it is. One definition is used in several places, a fit as now and next.
func fields(t reflect.Type, path string, add func(path, field string)) {
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	marshals := reflect.TypeFor[json.Marshaler]()
	texts := reflect.TypeFor[encoding.TextMarshaler]()
	if t.Implements(marshals) || reflect.PointerTo(t).Implements(marshals) || t.Implements(texts) ||
		reflect.PointerTo(t).Implements(texts) {
		return
	}
	switch t.Kind() {
	case reflect.Slice, reflect.Map:
		fields(t.Elem(), path+"[]", add)
	case reflect.Struct:
		for i := range t.NumField() {
			f := t.Field(i)
			name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
			switch {
			case name == "-" || !f.IsExported():
			case f.Anonymous && name == "":
				fields(f.Type, path, add)
			case !slices.Contains(saysNothing, name):
				add(path+"."+name, t.String()+"."+name)
				fields(f.Type, path+"."+name, add)
			}
		}
	}
}

// place is one value of a field in a tree.
type place struct {
	set   func(v any) // nil takes it out
	value any
	quad  int // the quad of the fleet it stands in, or everyQuad
}

// everyQuad is where another value may be noticed at any quad.
const everyQuad = -1

// places lists the values of all fields in a decoded file.
func places(v any, path string, quad int, add func(path string, p place)) {
	switch x := v.(type) {
	case map[string]any:
		for _, key := range slices.Sorted(maps.Keys(x)) {
			at := path + "." + key
			add(at, place{set: func(v any) {
				if v == nil {
					delete(x, key)
				} else {
					x[key] = v
				}
			}, value: x[key], quad: quad})
			places(x[key], at, quad, add)
		}
	case []any:
		for i := range x {
			if path == "fleet.quads" {
				quad = i
			}
			places(x[i], path+"[]", quad, add)
		}
	}
}

// others are values to try in place of one; seen are those the same field has
// elsewhere.
func others(v any, seen []any) (list []any) {
	switch x := v.(type) {
	case float64:
		list = append(list, x*20, x/20, x+1, 0.0, x*2)
	case bool:
		list = append(list, !x)
	case map[string]any:
		list = append(list, scaled(x, 20), scaled(x, 0.05))
	case []any:
		if len(x) > 1 {
			list = append(list, x[1:])
		}
	}
	for _, other := range seen {
		if !reflect.DeepEqual(other, v) {
			list = append(list, other)
		}
	}
	return append(list, nil)
}

// scaled is a copy with all numbers multiplied.
func scaled(v any, by float64) any {
	switch x := v.(type) {
	case float64:
		return x * by
	case map[string]any:
		other := map[string]any{}
		for key, inside := range x {
			other[key] = scaled(inside, by)
		}
		return other
	case []any:
		var other []any
		for _, inside := range x {
			other = append(other, scaled(inside, by))
		}
		return other
	}
	return v
}

// world is all the program says and draws of a fleet, part by part, the cheap first.
type world struct {
	sets []*gear.Set
	lib  *gear.Library
	f    *fleet.Index
	quad int // what is said of each quad is said of this one alone, unless it is everyQuad
}

var parts = []func(w world) any{
	func(w world) any { return w.each(func(c fleet.Case) any { return swap.Judge(c) }) },
	func(w world) any {
		return w.each(func(c fleet.Case) any {
			says := []any{
				power.Feeds(c),
				pins.Soldering(c),
				pins.Continuity(c),
				pins.Headers(c),
				pins.DrawOutline(c),
				mount.RoomOf(c),
				setup.PlanOf(c),
				swap.Places(c),
			}
			for _, gate := range swap.Gates {
				if gate.Draw != nil {
					says = append(says, gate.Draw(c))
				}
			}
			return says
		})
	},
	func(w world) any { return swap.NewBoard(w.lib, w.f, nil) },
	func(w world) any {
		return w.quads(func(q *fleet.Quad) any {
			return []any{
				antenna.Compare(w.lib, w.f, q),
				mount.Weigh(w.lib, w.f, q, nil),
				pins.Compare(w.lib, w.f, q),
				swap.FromAnalog(w.lib, w.f, q),
				bench.NewSheet(fleet.NewCase(w.lib, w.f, q), swap.Judge(fleet.NewCase(w.lib, w.f, q)), "", ""),
			}
		})
	},
	func(w world) any {
		return w.quads(func(q *fleet.Quad) any { return ofText(fleet.NewCase(w.lib, w.f, q)) })
	},
	func(w world) any {
		items := swap.Shopping(w.lib, w.f)
		return []any{items, swap.NewBill(items, w.f.Fleet)}
	},
	func(w world) any { // what each scenario has to be bought, and sold
		var bills []any
		for i := range w.f.Scenarios {
			under := w.f.Under(&w.f.Scenarios[i])
			under.Quads = slices.DeleteFunc(under.Quads, func(q fleet.Quad) bool {
				return !slices.ContainsFunc(w.f.Scenarios[i].Quads, func(o fleet.ScenarioQuad) bool { return o.Quad == q.ID })
			})
			index := fleet.NewIndex(under)
			terms := change.TermsOf(w.lib, index)
			terms.Used = w.f.Scenarios[i].Used
			bills = append(bills, swap.ShoppingBy(w.lib, index, terms), decide.Sales(w.lib, index))
		}
		return bills
	},
	func(w world) any {
		return w.quads(func(q *fleet.Quad) any {
			if len(q.InTurn) == 0 {
				return nil
			}
			sheet, _ := turns.Of(&stock.Stock{Sets: w.sets, Fleet: w.f.Fleet}, q.ID)
			return sheet
		})
	},
	func(w world) any { return antenna.Sets(w.lib, w.f) },
	func(w world) any {
		r := w.route()
		plan, err := route.Solve(r)
		back, backErr := route.WayBack(r, route.Homes(w.f.Taken))
		return []any{plan, fmt.Sprint(err), back, fmt.Sprint(backErr), route.Record(w.lib, w.f)}
	},
	func(w world) any {
		var pilots []channels.Pilot
		for i := range w.f.Quads[:min(len(w.f.Quads), 6)] {
			if pilot, ok := channels.Of(fleet.NewCase(w.lib, w.f, &w.f.Quads[i])); ok {
				pilots = append(pilots, pilot)
			}
		}
		return channels.Find(pilots)
	},
	func(w world) any { // what is set in goggles, and how they are worn
		var lists []any
		for i := range w.f.Kit {
			if list, ok := setup.ListFor(w.lib, w.f, w.f.Kit[i].ID); ok {
				lists = append(lists, list)
			}
		}
		return lists
	},
	func(w world) any {
		d, err := swap.NewDeadline(w.f.By, "2026-01-01", swap.NewBill(swap.Shopping(w.lib, w.f), w.f.Fleet), nil)
		return []any{d, fmt.Sprint(err)}
	},
	proofs,
	func(w world) any { return hours.Units(w.lib, w.f) },
	func(w world) any { return tasks.List(w.lib, w.f, "2026-06-01") },
	func(w world) any { return w.each(func(c fleet.Case) any { return decide.BoughtWhole(c) }) },
	func(w world) any {
		return w.each(func(c fleet.Case) any { return []any{swap.JudgeWithFixes(c), swap.Depths(c)} })
	},
	decided,
}

// dear are how many of the parts are asked only of what the others do not notice.
const dear = 2

// proofs are the flights along each course, the first held against the others, and what they prove.
func proofs(w world) any {
	list := []any{prove.Standings(w.lib, w.f.Fleet)}
	for i := range w.f.Courses {
		var flights []*fleet.TestFlight
		for k := range w.f.TestFlights {
			if t := &w.f.TestFlights[k]; t.Course == w.f.Courses[i].ID {
				flights = append(flights, t)
				list = append(list, prove.Cautions(t))
			}
		}
		if len(flights) > 1 {
			list = append(list, prove.Compare(w.lib, w.f.Fleet, &w.f.Courses[i], flights[:1], flights[1:]))
		}
	}
	return list
}

// decided is what a fleet of a few quads is best made of, for two schools, and in which order.
func decided(w world) any {
	if len(w.f.Quads) > fewQuads {
		return nil
	}
	ctx := context.Background()
	ways, err := decide.WaysOf(ctx, w.lib, w.f)
	if err != nil {
		return err.Error()
	}
	var says []any
	for _, id := range []string{"purpose", "used-middle"} {
		school, ok := decide.SchoolOf(id)
		if !ok {
			return "no school " + id
		}
		weighed, err := ways.Weigh(ctx, school.Question(nil))
		if err != nil {
			return err.Error()
		}
		says = append(says, weighed.Within(halfThousand))
		if purse, ok := weighed.Purse(halfThousand); ok {
			says = append(says, weighed.Order(ctx, halfThousand, purse, decide.Calendar{From: time.Date(2026, 1, 1, 0, 0, 0, 0, time.UTC)}))
		}
	}
	return says
}

const (
	fewQuads     = 2
	halfThousand = 50_000 // hundredths
)

// ofText is what a board of the quad tells as it comes, and the demo's bundle held against
// it.
func ofText(c fleet.Case) any {
	if c.Fit.Runs == nil {
		return nil
	}
	runs, ok := gear.Find[*gear.FlightFirmware](c.Library, c.Fit.Runs.ID)
	if !ok || runs.Text == nil {
		return nil
	}
	told, err := settext.Write(runs.Text, settext.Text{
		Firmware: runs.Variant,
		Version:  c.Fit.Runs.Version,
		Board:    c.Fit.Board,
		Lines:    settext.Factory(runs.Text),
	})
	board, readErr := settext.Read(runs.Text, told)
	bundle, bundleErr := settext.Read(runs.Text, demo.Bundle)
	swapped := strings.NewReplacer("send-region is harrow", "send-region is none", "send-region is none", "send-region is harrow")
	far, _ := settext.Read(runs.Text, swapped.Replace(told))
	home, _ := settext.Read(runs.Text, swapped.Replace(demo.Bundle))
	today, todayErr := setup.TellsText(c, demo.Bundle)
	return []any{runs.Text.Speaks(), told, board, bundle, settext.Compare(c, runs.Text, board, bundle),
		settext.Compare(c, runs.Text, far, home), today, fmt.Sprint(err, readErr, bundleErr, todayErr)}
}

func (w world) route() route.Request {
	f := w.f.Fleet
	return route.Request{
		Library:     w.lib,
		Fleet:       w.f,
		Wants:       f.Wants,
		Values:      f.Values,
		KeepWayBack: f.KeepWayBack,
		NotOffered:  route.NotOffered(f.Taken),
	}
}

// ofQuads is what a part says, quad by quad; those it was not asked about say nothing.
type ofQuads []any

const notAsked = "not asked"

func (w world) quads(do func(q *fleet.Quad) any) ofQuads {
	list := make(ofQuads, len(w.f.Quads))
	var wait sync.WaitGroup
	for i := range w.f.Quads {
		if w.quad != everyQuad && w.quad != i {
			list[i] = notAsked
			continue
		}
		wait.Go(func() {
			defer func() {
				if stopped := recover(); stopped != nil {
					list[i] = "stopped"
				}
			}()
			list[i] = do(&w.f.Quads[i])
		})
	}
	wait.Wait()
	return list
}

func (w world) each(do func(c fleet.Case) any) ofQuads {
	return w.quads(func(q *fleet.Quad) any { return do(fleet.NewCase(w.lib, w.f, q)) })
}

// part is what one of the parts says: as a whole, or quad by quad.
func (w world) part(t *testing.T, i int) (said []string) {
	says := parts[i](w)
	each, ok := says.(ofQuads)
	if !ok {
		each = ofQuads{says}
	}
	for _, one := range each {
		text, err := json.Marshal(one)
		require.NoError(t, err)
		said = append(said, string(text))
	}
	return said
}

func tree(t *testing.T, v any) (out any) {
	text, err := json.Marshal(v)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(text, &out))
	return out
}

// differs says whether another world says or draws anything else in the parts that are asked, and the
// first of them. A value that makes no sense at all may stop the world; that is no reading.
func differs(t *testing.T, before [][]string, w world, asked []int) (part int, yes bool) {
	defer func() {
		if recover() != nil {
			yes = false
		}
	}()
	for _, i := range asked {
		says := w.part(t, i)
		if len(says) != len(before[i]) {
			return i, true
		}
		for n := range says {
			if says[n] != before[i][n] && !slices.Contains([]string{`"not asked"`, `"stopped"`}, says[n]) {
				return i, true
			}
		}
	}
	return 0, false
}

// corpus is a stock, with what is said of it.
type corpus struct {
	*stock.Stock
	says [][]string
}

func newCorpus(t *testing.T, more func(st *stock.Stock)) corpus {
	st := builds.Demo()
	more(st)
	c := corpus{Stock: st}
	w := world{st.Sets, gear.NewLibrary(st.Sets...), fleet.NewIndex(st.Fleet), everyQuad}
	for i := range parts {
		c.says = append(c.says, w.part(t, i))
	}
	return c
}

// whatTheDemoLacks brings in what a builder can state and the demo's fleet does not.
func whatTheDemoLacks(st *stock.Stock) {
	f := st.Fleet
	f.By = "2026-01-09"
	f.Language = "de"
	f.Wants[0].Controller = "grip-2-a"
	for _, quad := range []string{"damsel", "quern", "wallower"} {
		f.Wants = append(f.Wants, fleet.Want{Quad: quad, Goggles: "visor-c-1", Controller: "grip-2-a", Weight: fleet.Must})
	}
	f.Values = append(f.Values, "canvas OSD")
	f.Scenarios[0].Used = true
	f.Scenarios[0].Quads = append(slices.Clone(f.Scenarios[0].Quads),
		fleet.ScenarioQuad{Quad: "brayer", Next: &fleet.Fit{AirUnit: &fleet.Slot{Model: "aldine-two"}}})
	f.Taken = []fleet.Taken{
		{
			Kit:      "visor-c-1",
			Do:       "update",
			From:     "2.0",
			FromMode: "second",
			Planned:  "2.2",
			Read:     "2.2",
			At:       "2026-01-02T10:00:00Z",
		},
		{Kit: "visor-c-1", Do: "mode", From: "2.2", FromMode: "second", Mode: "first", At: "2026-01-02T10:10:00Z"},
		{Kit: "one-wallower", Do: "update", From: "1.0.2", Planned: "1.0.4", NotOffered: true, At: "2026-01-02T10:20:00Z"},
	}
	for i := range f.Kit {
		switch f.Kit[i].ID {
		case "visor-a-1":
			f.Kit[i].Sell = true
		case "compact-damsel":
			f.Kit[i].Activated = new(false)
		case "visor-c-1":
			f.Kit[i].Firmware, f.Kit[i].Mode, f.Kit[i].Activated, f.Kit[i].Adapter = "2.2", "first", new(false), "ferrule-sr"
		}
	}
	for i := range f.Quads {
		q := &f.Quads[i]
		next := q.NextFit()
		next.UpsideDown, next.Washer, next.Screw, next.Standoff, next.Drill = new(
			true,
		), "washer-m2-05", "m2-8", "post-m3-35", i%2 == 0
		next.Antennas = &fleet.Antennas{Models: []string{"cowl-r", "cowl-r"}}
		next.Holdings = holdings()
		for n := range next.Wires {
			if next.Wires[n].To == "rx1" {
				next.Wires[n].To = "tx1"
			}
		}
		if q.ID == "wallower" {
			next.Feeds = append(next.Feeds, fleet.Feed{To: "gps", From: "board.same"})
		}
		if q.ID == "brayer" {
			next.Camera = "squint-14"
		}
		if q.ID == "damsel" {
			next.LeftOff = []string{"top"}
		}
		if q.ID == "wallower" || q.ID == "hopper" { // the finder on its side, a receiver on the tail
			next.Places = []fleet.Spot{{Part: fleet.NodeReceiver, XMM: -10, YMM: 8, ZMM: 3, Quarters: 1},
				{Part: "gps", XMM: -62, ZMM: 32.5, Quarters: 1}}
			if q.ID == "hopper" {
				next.Places = next.Places[:1]
			}
		}
		if q.ID == "quern" {
			next.Depth = fleet.PictureAndData
			bag := []fleet.Spare{{Model: "post-m3-35", Count: 2}}
			q.InTurn = []fleet.TurnFit{{ID: "first", Flown: true, Ready: bag, Fit: next}, {ID: "second", Fit: q.Now.Clone()}}
			q.NextTurn = "first"
			f.Wants = append(f.Wants, fleet.Want{Quad: q.ID, Turn: "second", Goggles: "visor-a-1", Weight: fleet.Must})
		}
		if q.ID == "damsel" { // a cable over headers, at the unit's pads and at the board's row
			next.Wires, next.Beside, next.Harness, next.HarnessTo = nil, nil, "one-loom", "edge"
			next.Headers = fleet.Headers{Header: &fleet.Header{Model: "tack-6", Turned: true}, BoardHeader: &fleet.Header{Model: "tack-4"}}
		}
		if q.ID == "fantail" { // a cable that branches, and one beside it that does
			next.Harness, next.HarnessTo, next.BranchTo, next.Wires = "fork-loom", "hd", "gps", nil
			next.Beside = []fleet.Beside{{Harness: "fork-loom", HarnessTo: "hd", BranchTo: "gps"}}
			next.Parts[0].Harness, next.Parts[0].HarnessTo, next.Parts[0].BranchTo = "fork-loom", "gps", "hd"
			next.Parts[0].Beside = next.Beside
		}
		if next.OSD != nil {
			for n := range next.OSD.Elements {
				if e := &next.OSD.Elements[n]; e.ID == "crosshair" {
					e.X, e.Y = 14, 3
				} else if e.ID == "home-arrow" {
					e.X, e.Y = 14, 3
				}
			}
		}
		q.Next = &next
	}
	set := st.Sets[0]
	leaveOpen(f, set)
	for i := range set.Pairings {
		if p := &set.Pairings[i]; p.AirUnit == "pellow-mini" {
			*p = gear.Pairing{Entry: p.Entry, AirUnit: p.AirUnit, Goggles: p.Goggles, Untested: true}
		}
	}
	for i := range set.Receivers {
		set.Receivers[i].KeepFree = []gear.KeepFree{{What: "antenna", Side: "rear", MM: new(unit.Millimetres(9)), WideMM: new(unit.Millimetres(3))}}
	}
	for i := range set.Parts {
		if set.Parts[i].ID == "cairn-gps" {
			set.Parts[i].KeepFree = []gear.KeepFree{{What: "lead", Side: "left", MM: new(unit.Millimetres(5)), WideMM: new(unit.Millimetres(3))}}
			set.Parts[i].Outline.YMM = new(unit.Millimetres(25))
		}
	}
	fork := *must(set.Harnesses, "three-loom")
	fork.ID, fork.Name, fork.Branch = "fork-loom", "forking loom", &gear.Branch{To: fork.To, Wires: fork.Wires[2:]}
	fork.Wires = fork.Wires[:2]
	set.Harnesses = append(set.Harnesses, fork)
	pads := []gear.PadPlace{{At: "1", XMM: 2, YMM: 3}, {At: "2", XMM: 4, YMM: 3, Back: true}, {At: "3", XMM: 6, YMM: 3},
		{At: "4", XMM: 8, YMM: 3, Printed: "T"}}
	for i := range set.Receivers {
		set.Receivers[i].Outline = &gear.Outline{XMM: new(unit.Millimetres(9)), YMM: new(unit.Millimetres(9)), Pads: pads}
	}
	for i := range set.Parts {
		p := &set.Parts[i]
		if p.Plug != nil && len(p.Plug.Pins) <= len(pads) {
			p.Outline = &gear.Outline{XMM: new(unit.Millimetres(9)), YMM: new(unit.Millimetres(9)), Pads: pads[:len(p.Plug.Pins)]}
		}
	}
	for i := range set.AirUnits {
		for n := range set.AirUnits[i].Releases {
			if r := &set.AirUnits[i].Releases[n]; r.Version == "1.1" {
				r.Install.Activated = true
			}
		}
	}
	for i := range set.Antennas {
		a := &set.Antennas[i]
		a.RightAngle = new(true)
		for n := range a.Bands {
			a.Bands[n].FromMHz, a.Bands[n].ToMHz = new(unit.Megahertz(5650)), new(unit.Megahertz(5950))
		}
	}
	for i := range set.AirUnits {
		if camera := set.AirUnits[i].Camera; camera != nil {
			camera.MassG = new(unit.Grams(5))
		}
	}
	for i := range set.Packs {
		set.Packs[i].Parallel = new(2)
	}
	for i := range set.Boards {
		set.Boards[i].Pads = append(set.Boards[i].Pads, gear.Pad{ID: "same", Kind: gear.PadSame, SameAs: "5v"})
		for n := range set.Boards[i].UARTs {
			u := &set.Boards[i].UARTs[n]
			u.TXPrinted, u.RXPrinted, u.TXListens = fmt.Sprintf("S%d", u.ID), fmt.Sprintf("R%d", u.ID), new(true)
		}
	}
	for i := range set.FlightFirmware { // one whose compatibility mode a unit understands
		if r := &set.FlightFirmware[i]; r.ID == "sedge" {
			r.Dialect = gear.MAVLink
			r.SpeaksAs = []gear.SpeaksAs{{Dialect: gear.Common, Name: "goggles mode", Firmware: ">=2.0", Canvas: new(false)}}
		}
		for n := range set.FlightFirmware[i].Elements {
			if e := &set.FlightFirmware[i].Elements[n]; e.ID == "crosshair" {
				e.Within = []string{"home-arrow"}
			}
		}
	}
}

// holdings state everything that can be said of how parts are held.
func holdings() []fleet.Hold {
	return []fleet.Hold{
		{Part: fleet.NodeAirUnit, Way: fleet.HeldByBracket, ThickMM: new(unit.Millimetres(2)), MassG: new(unit.Grams(3)),
			Screws: new(4), Screw: "m2-8", SoftensC: new(60.0), Awaits: "a better one", Due: "2026-12-01"},
		{Part: fleet.NodeCamera, Way: fleet.HeldByCage, InsideMM: new(unit.Millimetres(19)), MassG: new(unit.Grams(4))},
		{Part: fleet.NodeAntennas, Way: fleet.HeldByTape, Second: fleet.HeldByTies, NearProps: new(true)},
	}
}

// leaveOpen states values that hang on the region set and on the revision of the hardware.
func leaveOpen(f *fleet.Fleet, set *gear.Set) {
	moor := set.Regions[0]
	moor.ID, moor.Name = "moor", "Moor"
	set.Regions = append(set.Regions, moor)
	for i := range set.AirUnits {
		if u := &set.AirUnits[i]; u.ID == "aldine-two" {
			u.Variants = []gear.Variant{
				{Value: "radio.bandPlan", Region: f.Region, Text: "pellow-eight"},
				{Value: "benchSecondsNoAir", Revision: "B", Number: new(7.0)},
			}
		}
	}
	for i := range set.Boards {
		set.Boards[i].Variants = []gear.Variant{{Value: "input.maxV", Revision: "B", Number: new(9.0)}}
	}
	for i := range f.Quads {
		if q := &f.Quads[i]; q.ID == "fantail" || q.ID == "hopper" {
			q.Next.Revisions = []fleet.RevisionOf{{Model: q.Now.Board, Revision: []string{"A", "B"}[i%2]}}
		}
	}
}

// must finds a harness by its id.
func must(list []gear.Harness, id string) *gear.Harness {
	return &list[slices.IndexFunc(list, func(h gear.Harness) bool { return h.ID == id })]
}
