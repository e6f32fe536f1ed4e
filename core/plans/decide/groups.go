package decide

import (
	"encoding/json"
	"reflect"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
)

// A fit falls into groups that are changed together. What a gate says hangs on some of them
// alone, so that it is asked once for all fits that are the same in those.

// group is one of them.
type group int

const (
	unitSlot group = iota
	gogglesSlot
	controllerSlot
	receiver
	board
	pack
	regulators
	feeds
	capacitor
	parts
	cable
	solder
	ports
	antennas
	mounting
	runs
	layout
	sticks
	rest
	groups
)

// fields are those of a fit that fall into each group. A test holds that each is in one.
var fields = [groups][]string{
	unitSlot:       {"AirUnit"},
	gogglesSlot:    {"Goggles"},
	controllerSlot: {"Controller"},
	receiver:       {"Receiver", "ReceiverCable"},
	board:          {"Board"},
	pack:           {"Pack", "PackLead"},
	regulators:     {"Regulators", "Loads"},
	feeds:          {"Feeds", "Jumpers"},
	capacitor:      {"CapacitorUF", "CapacitorV"},
	parts:          {"Parts"},
	cable:          {"Harness", "HarnessTo", "BranchTo", "Beside", "Headers"},
	solder:         {"Wires", "Moved", "Depth"},
	ports:          {"Ports"},
	antennas:       {"Antennas"},
	mounting:       {"Mounting"},
	runs:           {"Runs", "Features"},
	layout:         {"OSD"},
	sticks:         {"Sticks"},
	rest:           {"Analog", "Nones", "Revisions", "UpsideDown"},
}

// indices are where those fields lie.
var indices = func() (at [groups][][]int) {
	for g, names := range fields {
		for _, name := range names {
			field, _ := reflect.TypeFor[fleet.Fit]().FieldByName(name)
			at[g] = append(at[g], field.Index)
		}
	}
	return at
}()

// values are pointers to the fields of a group.
func (g group) values(f *fleet.Fit) []any {
	fit, list := reflect.ValueOf(f).Elem(), make([]any, len(indices[g]))
	for i, at := range indices[g] {
		list[i] = fit.FieldByIndex(at).Addr().Interface()
	}
	return list
}

// same says whether two fits are the same in a group. Fits that differ little share the rest.
func (g group) same(a, b reflect.Value) bool {
	return !slices.ContainsFunc(indices[g], func(at []int) bool {
		x, y := a.FieldByIndex(at), b.FieldByIndex(at)
		return !shared(x, y) && !reflect.DeepEqual(x.Addr().Interface(), y.Addr().Interface())
	})
}

// shared says whether two values are seen to be the same without looking into them.
func shared(x, y reflect.Value) bool {
	switch x.Kind() {
	case reflect.String:
		return x.String() == y.String()
	case reflect.Slice:
		return x.Len() == y.Len() && x.Pointer() == y.Pointer()
	case reflect.Pointer, reflect.Map:
		return x.Pointer() == y.Pointer()
	}
	return false
}

// key is a fit by the numbers of its groups.
type key [groups]int16

// numbers gives each value of a group a number, by how it is written in the open formats.
type numbers struct {
	at [groups]map[string]int16
}

// of are the numbers of a fit.
func (n *numbers) of(f *fleet.Fit) (k key) {
	for g := range groups {
		k[g] = n.number(g, f)
	}
	return k
}

// near are the numbers of a fit that differs from another in some groups at most.
func (n *numbers) near(f *fleet.Fit, from *node, in []group) key {
	is, was, k := reflect.ValueOf(f).Elem(), reflect.ValueOf(from.at.Fit).Elem(), from.key
	for _, g := range in {
		if !g.same(is, was) {
			k[g] = n.number(g, f)
		}
	}
	return k
}

// number is that of a group of a fit.
func (n *numbers) number(g group, f *fleet.Fit) int16 {
	text, err := json.Marshal(g.values(f))
	if err != nil {
		panic(err) // plain data
	}
	number, known := n.at[g][string(text)]
	if !known {
		if n.at[g] == nil {
			n.at[g] = map[string]int16{}
		}
		number = int16(len(n.at[g]))
		n.at[g][string(text)] = number
	}
	return number
}

// blind are the groups a gate does not look at, neither when it checks nor when it proposes. A
// test changes each and asks the gate again.
var blind = map[verdict.Gate][]group{
	verdict.Link:    {regulators, feeds, capacitor, parts, cable, solder, ports, antennas, layout, sticks},
	verdict.Power:   {controllerSlot, antennas, mounting, layout, sticks, runs},
	verdict.Pins:    {gogglesSlot, capacitor, antennas, mounting, layout, sticks, runs},
	verdict.Mount:   {gogglesSlot, controllerSlot, runs, layout, sticks, feeds, cable, solder, ports},
	verdict.Antenna: {regulators, feeds, capacitor, parts, cable, solder, ports, pack, runs, layout, sticks},
	verdict.OSD:     {controllerSlot, regulators, capacitor, antennas, mounting, pack, parts, sticks},
	verdict.Control: {gogglesSlot, regulators, capacitor, antennas, mounting, layout, pack, parts},
}

// seenBy is a fit as far as a gate looks at it.
func (k key) seenBy(gate verdict.Gate) key {
	for _, g := range blind[gate] {
		k[g] = 0
	}
	return k
}

// wired are the groups that go when what they lead to goes.
var wired = []group{receiver, regulators, feeds, parts, cable, solder, ports}

// touches are the groups that a field of a patch may change, with what goes along. A test tries
// what the gates propose.
var touches = map[string][]group{
	"AirUnit":       append([]group{unitSlot, mounting}, wired...),
	"Goggles":       {gogglesSlot},
	"Controller":    {controllerSlot, rest},
	"Receiver":      append([]group{rest, mounting}, wired...),
	"Board":         append([]group{board, rest, runs}, wired...),
	"Pack":          {pack},
	"Feed":          {feeds, regulators},
	"Feeds":         {feeds, regulators},
	"Regulator":     {feeds, regulators},
	"Jumper":        {feeds},
	"CapacitorUF":   {capacitor},
	"CapacitorV":    {capacitor},
	"Wiring":        wired,
	"Parts":         append([]group{mounting}, wired...),
	"ReceiverCable": wired,
	"Antennas":      {antennas},
	"Mounting":      {mounting},
	"Place":         {mounting},
	"Stand":         {antennas},
	"TiltDeg":       {mounting},
	"LeaveOff":      {mounting},
	"Cut":           {mounting},
	"Hold":          {mounting},
	"Runs":          {runs},
	"OSD":           {layout},
	"Sticks":        {sticks},
	"Features":      {runs},
}

// touched are the groups that a patch may change.
func touched(p *fleet.Patch) (list []group) {
	v := reflect.ValueOf(p).Elem()
	for i := range v.NumField() {
		if !v.Field(i).IsZero() {
			list = append(list, touches[v.Type().Field(i).Name]...)
		}
	}
	return list
}

// unseenBy says whether a patch changes nothing that a gate looks at.
func unseenBy(gate verdict.Gate, p *fleet.Patch) bool {
	return !slices.ContainsFunc(touched(p), func(g group) bool { return !slices.Contains(blind[gate], g) })
}
