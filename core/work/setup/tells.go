package setup

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/gates/control"
)

// Tell is one thing a board says of what is on a quad today, beside what is noted of it.
type Tell struct {
	Key   string `json:"key"`
	Label string `json:"label"`
	Noted string `json:"noted"`
	Is    string `json:"is"` // on the board
	Same  bool   `json:"same"`
	Note  string `json:"note,omitempty"` // why it cannot be taken over, or what is left out
	// Patch notes it; nil: there is nothing to take over.
	Patch *fleet.Patch `json:"-"`
	Takes bool         `json:"takes"` // it can be taken over
	// Picks are what it may be, where what is told does not say which.
	Picks []TellPick `json:"picks,omitempty"`
}

// TellPick is a thing that what is told may be.
type TellPick struct {
	Key   string      `json:"key"` // by which it is noted
	Label string      `json:"label"`
	Patch fleet.Patch `json:"-"`
}

// PatchOf is what notes what is told by a key, that of a row or of what was picked for it.
func PatchOf(list []Tell, key string) (fleet.Patch, bool) {
	for _, t := range list {
		if t.Key == key && t.Patch != nil {
			return *t.Patch, true
		}
		for _, p := range t.Picks {
			if p.Key == key {
				return p.Patch, true
			}
		}
	}
	return fleet.Patch{}, false
}

// settled marks those that can be taken over.
func settled(list []Tell) []Tell {
	for i := range list {
		list[i].Takes = list[i].Patch != nil && !list[i].Same
	}
	return list
}

// The things a board tells.
const (
	TellsRuns     = "runs"
	TellsPorts    = "ports"
	TellsOrder    = "order"
	TellsSwitches = "switches"
	TellsOSD      = "osd"
	TellsReceiver = "receiver"
	TellsFeatures = "features"
)

const notNoted = "not noted"

// Tells reads a board as the truth of what is on a quad today: its flight firmware, what
// each port does, the order of the channels, the switches and the OSD's layout. The words
// of the board's numbers are those of the flight firmware that calls itself as it does; a
// board of another is told as such, and nothing more.
func Tells(c fleet.Case, found State) []Tell {
	runs, ok := runsOf(c, found)
	list := []Tell{tellRuns(c, found, runs)}
	if !ok {
		return list
	}
	t := telling{c, found, runs}
	list = append(list, t.ports())
	list = append(list, t.receiver()...)
	list = append(list, t.features(), t.order(), t.switches())
	if !found.Without(LacksOSD) {
		list = append(list, t.osd())
	}
	return settled(list)
}

// receiver is what the sticks come as, where they come in on a serial port: that belongs to
// the receiver or the unit they come from, and is not noted of the quad.
func (t telling) receiver() []Tell {
	bit, ok := t.runs.Features[gear.FeatureRXSerial]
	if ok && t.found.Features&(1<<bit) == 0 {
		return nil
	}
	tell := Tell{Key: TellsReceiver, Label: "what the sticks come as", Noted: notNoted, Is: providerOf(t.runs, t.found)}
	if tell.Is == "" {
		tell.Is = fmt.Sprintf("number %d, which the firmware's sheet has no name for", t.found.Provider)
	}
	if name, ok := control.Protocol(t.Case, t.runs); ok { // two may go by one number
		tell.Noted, tell.Same = name, t.runs.Providers[name] == t.found.Provider
	}
	if !tell.Same {
		tell.Note = "pick the receiver that is on it, or enter what it speaks"
		tell.Picks = t.receivers()
	}
	return []Tell{tell}
}

// receivers are those of the shelf that would come as the board is set to.
func (t telling) receivers() (list []TellPick) {
	for _, r := range t.Receivers() {
		patch := t.Receive(r.ID)
		name, ok := control.Protocol(t.With(patch), t.runs)
		if ok && t.runs.Providers[name] == t.found.Provider {
			list = append(list, TellPick{TellsReceiver + ":" + r.ID, r.Label(), patch})
		}
	}
	return list
}

// features are those that are on, of those the firmware's sheet has a name for, and which of
// them what is on the quad takes are off.
func (t telling) features() Tell {
	on := []string{}
	for _, name := range slices.Sorted(maps.Keys(t.runs.Features)) {
		if t.found.Features&(1<<t.runs.Features[name]) != 0 {
			on = append(on, name)
		}
	}
	var off []string
	for _, f := range featuresOf(t.Case, t.runs) {
		if !slices.Contains(on, f.name) {
			off = append(off, f.name+": "+f.why)
		}
	}
	tell := Tell{Key: TellsFeatures, Label: "features that are on", Noted: featureWords(t.Fit.Features),
		Is: featureWords(on), Patch: &fleet.Patch{Features: on}}
	tell.Same = t.Fit.Features != nil && tell.Noted == tell.Is
	if len(off) > 0 {
		tell.Note = "to be switched on: " + strings.Join(off, "; ")
	}
	return tell
}

func featureWords(on []string) string {
	switch {
	case on == nil:
		return notNoted
	case len(on) == 0:
		return "none"
	}
	return strings.Join(slices.Sorted(slices.Values(on)), ", ")
}

// bitsOf are the bits of some features; what the firmware's sheet has no name for has none.
func bitsOf(runs *gear.FlightFirmware, on []string) (bits uint32) {
	for _, name := range on {
		if n, ok := runs.Features[name]; ok {
			bits |= 1 << n
		}
	}
	return bits
}

// runsOf is the flight firmware that calls itself as the board does: the one noted where
// that is one of them.
func runsOf(c fleet.Case, found State) (*gear.FlightFirmware, bool) {
	if r := c.Fit.Runs; r != nil {
		if f, ok := gear.Find[*gear.FlightFirmware](c.Library, r.ID); ok && f.Variant == found.Variant {
			return f, true
		}
	}
	for _, f := range gear.All[*gear.FlightFirmware](c.Library) {
		if f.Variant != "" && f.Variant == found.Variant {
			return f, true
		}
	}
	return nil, false
}

func tellRuns(c fleet.Case, found State, runs *gear.FlightFirmware) Tell {
	t := Tell{Key: TellsRuns, Label: "flight firmware", Noted: notNoted, Is: found.Variant + " " + string(found.Version)}
	if r := c.Fit.Runs; r != nil {
		t.Noted = strings.TrimSpace(c.Library.Label(r.ID) + " " + string(r.Version))
	}
	if runs == nil {
		t.Note = fmt.Sprintf(
			"no flight firmware on the shelf calls itself %s: nothing else the board says can be read",
			found.Variant,
		)
		return t
	}
	t.Is = strings.TrimSpace(runs.Label() + " " + string(found.Version))
	r := c.Fit.Runs
	if !found.Version.Known() { // what is noted of the same firmware says more
		t.Note = "which release is not said"
		if t.Same = r != nil && r.ID == runs.ID; t.Same {
			return t
		}
	}
	t.Same = r != nil && r.ID == runs.ID && r.Version.Known() && r.Version.Compare(found.Version) == 0
	t.Patch = &fleet.Patch{Runs: &fleet.Runs{ID: runs.ID, Version: found.Version}}
	return t
}

// telling reads one board with the words of its firmware.
type telling struct {
	fleet.Case
	found State
	runs  *gear.FlightFirmware
}

// uses are what a fit calls what a port does.
func (t telling) uses() []use {
	return []use{
		{gear.FunctionMSP, fleet.UseMSP}, {gear.FunctionDigital, fleet.UseMSP},
		{gear.FunctionMAVLink, fleet.UseMSP}, {gear.FunctionRC, t.sticks()},
		{gear.FunctionGPS, fleet.UseGPS}, {gear.FunctionTelemetry, fleet.UseTelemetry},
		{gear.FunctionVTX, fleet.UseVTXControl},
	}
}

// use is a function of a serial port and what a fit calls it.
type use struct {
	function string
	as       fleet.Use
}

// ports are what each serial port does, in the uses a fit knows.
func (t telling) ports() Tell {
	uses := t.uses()
	var ports []fleet.Port
	board, hasBoard := t.Board()
	beyond := 0
	for _, p := range t.found.Ports {
		for _, u := range uses {
			n, known := t.runs.Functions[u.function]
			port := fleet.Port{UART: p.ID + 1, Use: u.as}
			if !known || p.Functions&(1<<n) == 0 || slices.Contains(ports, port) {
				continue
			}
			if _, there := uartOf(board, port.UART); hasBoard && !there { // its USB, as boards list it
				beyond++
				continue
			}
			ports = append(ports, port)
		}
	}
	ports = append(ports, t.otherwise(ports)...)
	tell := Tell{Key: TellsPorts, Label: "serial ports", Noted: portWords(t.Fit.Ports), Is: portWords(ports)}
	tell.Same = tell.Noted == tell.Is
	if beyond > 0 {
		tell.Note = fmt.Sprintf("%s on a port that the board's sheet does not have is left out", change.Count(beyond, "use"))
	}
	w := t.Fit.Wiring
	w.Ports = ports
	tell.Patch = &fleet.Patch{Wiring: &w}
	return tell
}

// otherwise are the ports noted for something a board cannot tell, as long as it tells of
// no use there.
func (t telling) otherwise(told []fleet.Port) (list []fleet.Port) {
	for _, p := range t.Fit.Noted() {
		used := slices.ContainsFunc(told, func(q fleet.Port) bool { return q.UART == p.UART })
		if p.Use == fleet.UseOther && !used {
			list = append(list, p)
		}
	}
	return list
}

func uartOf(board *gear.Board, id int) (*gear.UART, bool) {
	if board == nil {
		return nil, false
	}
	return board.UART(id)
}

// sticks is what a port with the serial receiver on it is for on this quad.
func (t telling) sticks() fleet.Use {
	if _, _, hasUnit := t.AirUnit(); hasUnit && t.Fit.Receiver == "" {
		return fleet.UseRC
	}
	return fleet.UseReceiver
}

func portWords(ports []fleet.Port) string {
	var words []string
	for _, p := range ports {
		words = append(words, fmt.Sprintf("UART %d: %s", p.UART, change.Use(p.Use)))
	}
	slices.Sort(words)
	if len(words) == 0 {
		return notNoted
	}
	return strings.Join(words, ", ")
}

// set is the sticks as they are noted, to be changed.
func (t telling) set() fleet.Sticks {
	if t.Fit.Sticks == nil {
		return fleet.Sticks{}
	}
	s := *t.Fit.Sticks
	s.Switches = slices.Clone(s.Switches)
	return s
}

func (t telling) order() Tell {
	s := t.set()
	tell := Tell{Key: TellsOrder, Label: "order of the channels", Noted: s.Order, Is: t.found.RXMap}
	if tell.Noted == "" {
		tell.Noted = notNoted
	}
	tell.Same = s.Order == t.found.RXMap
	if t.found.RXMap != "" {
		s.Order = t.found.RXMap
		tell.Patch = &fleet.Patch{Sticks: &s}
	}
	return tell
}

// switches are the modes on their ranges; those the firmware's sheet has no name for are
// left out and counted.
func (t telling) switches() Tell {
	names := map[int]string{}
	for name, n := range t.runs.Modes {
		names[n] = name
	}
	var list []fleet.Switch
	unnamed := 0
	for _, r := range t.found.Modes {
		if r.Empty() {
			continue
		}
		name, ok := names[r.Mode]
		if !ok {
			unnamed++
			continue
		}
		list = append(list, fleet.Switch{Mode: name, Aux: r.Aux + 1, FromUS: r.FromUS, ToUS: r.ToUS})
	}
	s := t.set()
	tell := Tell{Key: TellsSwitches, Label: "switches", Noted: switchWords(s.Switches), Is: switchWords(list)}
	tell.Same = tell.Noted == tell.Is
	if unnamed > 0 {
		tell.Note = fmt.Sprintf("%s the firmware's sheet has no name for is left out", change.Count(unnamed, "mode"))
	}
	s.Switches = list
	tell.Patch = &fleet.Patch{Sticks: &s}
	return tell
}

func switchWords(list []fleet.Switch) string {
	var words []string
	for _, s := range list {
		words = append(
			words,
			fmt.Sprintf("%s on AUX %d, %d to %d µs", strings.ReplaceAll(s.Mode, "-", " "), s.Aux, s.FromUS, s.ToUS),
		)
	}
	slices.Sort(words)
	if len(words) == 0 {
		return notNoted
	}
	return strings.Join(words, "; ")
}

// analogGrid is what a board draws on that names no canvas: the larger of the two analog
// grids, where everything of the smaller lies as well.
const analogGrid gear.Grid = "30x16"

// osd is the layout as the board has it.
func (t telling) osd() Tell {
	layout := fleet.Layout{Grid: t.found.Canvas, Elements: []fleet.Placed{}}
	if layout.Grid == "" {
		layout.Grid = analogGrid
	}
	unnamed := 0
	named := map[int]bool{}
	for i := range t.runs.Elements {
		e := &t.runs.Elements[i]
		if e.Index == nil || *e.Index >= len(t.found.OSD) {
			continue
		}
		named[*e.Index] = true
		cell := t.found.OSD[*e.Index]
		if profiles := profilesOf(cell.Profiles); len(profiles) > 0 {
			p := fleet.Placed{ID: e.ID, X: cell.X, Y: cell.Y}
			if !slices.Equal(profiles, []int{1}) {
				p.Profiles = profiles
			}
			layout.Elements = append(layout.Elements, p)
		}
	}
	for i, cell := range t.found.OSD {
		if !named[i] && cell.Profiles != 0 {
			unnamed++
		}
	}
	tell := Tell{Key: TellsOSD, Label: "OSD layout", Noted: layoutWords(t.Fit.OSD), Is: layoutWords(&layout)}
	tell.Same = t.Fit.OSD != nil && sameLayout(t.Fit.OSD, &layout)
	if unnamed > 0 {
		tell.Note = fmt.Sprintf("%s the firmware's sheet has no name for is left out", change.Count(unnamed, "element"))
	}
	tell.Patch = &fleet.Patch{OSD: &layout}
	return tell
}

func profilesOf(bits uint8) (list []int) {
	for n := range 8 {
		if bits&(1<<n) != 0 {
			list = append(list, n+1)
		}
	}
	return list
}

func layoutWords(l *fleet.Layout) string {
	if l == nil {
		return notNoted
	}
	return fmt.Sprintf("%s on %s", change.Count(len(l.Elements), "element"), l.Grid.Words())
}

func sameLayout(a, b *fleet.Layout) bool {
	at := func(l *fleet.Layout) map[string]Cell {
		cells := map[string]Cell{}
		for i := range l.Elements {
			e := &l.Elements[i]
			cells[e.ID] = Cell{X: e.X, Y: e.Y, Profiles: e.ProfileBits()}
		}
		return cells
	}
	return a.Grid == b.Grid && maps.Equal(at(a), at(b))
}
