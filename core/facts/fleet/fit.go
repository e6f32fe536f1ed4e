package fleet

import (
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
	"yokeswap/core/measure/wire"
)

// Fit is the set of parts on a quad, with the goggles and controller it is
// flown with, and how they are fed.
type Fit struct {
	Analog      string            `json:"analog,omitempty"` // what analog video it carries, if any
	AirUnit     *Slot             `json:"airUnit,omitempty"`
	Goggles     *Slot             `json:"goggles,omitempty"`
	Controller  *Slot             `json:"controller,omitempty"`
	Receiver    string            `json:"receiver,omitempty"` // model of a separate receiver
	Board       string            `json:"board,omitempty"`
	Pack        string            `json:"pack,omitempty"`
	Regulators  []PlacedRegulator `json:"regulators,omitempty"`
	Loads       []Load            `json:"loads,omitempty"`
	Parts       []PlacedPart      `json:"parts,omitempty"`
	Feeds       []Feed            `json:"feeds,omitempty"`
	Jumpers     map[string]string `json:"jumpers,omitempty"` // pad id to the choice soldered
	CapacitorUF *unit.Microfarads `json:"capacitorUF,omitempty"`
	CapacitorV  *unit.Volts       `json:"capacitorV,omitempty"` // what it is rated for
	gear.Nones
	// Revisions are the revisions of the hardware it carries, as printed on it; of kit, its
	// own says.
	Revisions []RevisionOf `json:"revisions,omitempty"`
	// UpsideDown: the camera sits upside down, and the picture is flipped.
	UpsideDown *bool `json:"upsideDown,omitempty"`
	// PackLead is the pair of leads from the pack's plug to the board, with those
	// of the pack itself.
	PackLead *Lead     `json:"packLead,omitempty"`
	Antennas *Antennas `json:"antennas,omitempty"`
	Wiring
	// ReceiverCable is how the separate receiver is wired; absent: to the port and the
	// feed that are stated for it.
	ReceiverCable *Cable `json:"receiverCable,omitempty"`
	Mounting
	Flight
}

// RevisionOf is the revision of the hardware of a model.
type RevisionOf struct {
	Model    string `json:"model"`
	Revision string `json:"revision"`
}

// Slot puts a device into a fit: a piece of kit, or a model not owned yet.
// Firmware and Mode are what is planned for it; absent means as it is.
type Slot struct {
	Kit      string           `json:"kit,omitempty"`
	Model    string           `json:"model,omitempty"`
	Firmware firmware.Version `json:"firmware,omitempty"`
	Mode     string           `json:"mode,omitempty"`
}

// PlacedRegulator is a regulator wired into the fit under an id of its own.
type PlacedRegulator struct {
	ID    string `json:"id"`
	Model string `json:"model"`
}

// Load is a further consumer, such as GPS or LEDs.
type Load struct {
	ID    string     `json:"id"`
	Name  string     `json:"name,omitempty"`
	Input gear.Input `json:"input,omitzero"`
}

// Label is the load's name, or its id.
func (l *Load) Label() string { return orID(l.Name, l.ID) }

// Feed says what a part is fed from.
//
// To is "airUnit", "receiver", "board", the id of a load, of a placed part or of a placed
// regulator. From is "pack", "board." and a pad's id, or the id of a placed regulator. A
// board that no feed names is fed from the pack, a placed part as its supply wire goes.
type Feed struct {
	To   string `json:"to"`
	From string `json:"from"`
	// Lead is the pair of wires it runs through; absent: its drop is not counted.
	Lead *Lead `json:"lead,omitempty"`
}

// Lead is a pair of wires, there and back.
type Lead struct {
	MM  *unit.Millimetres `json:"mm,omitempty"` // length, one way
	AWG *wire.Gauge       `json:"awg,omitempty"`
}

// Resistance there and back; false where length or gauge is not stated.
func (l *Lead) Resistance() (unit.Milliohms, bool) {
	if l == nil || l.MM == nil || l.AWG == nil {
		return 0, false
	}
	return 2 * l.AWG.Resistance(*l.MM), true
}

// What a fit can state that it has none of.
const (
	NoBoard      = "board"
	NoReceiver   = "receiver"
	NoAnalog     = "analog"
	NoController = "controller"
)

// RegulatorFor is the id of a regulator wired in for a node: lower-case letters,
// digits and hyphens, and nothing of the fit has it.
func (f *Fit) RegulatorFor(node string) string {
	name := "reg-" + strings.ToLower(strings.ReplaceAll(node, NodeAirUnit, "air-unit"))
	name = name[:min(len(name), 60)]
	for n := 2; ; n++ {
		_, load := f.Load(name)
		if _, part := f.Part(name); !load && !part {
			return name
		}
		name = fmt.Sprintf("%s-%d", strings.TrimRight(name, "-0123456789"), n)
	}
}

// InverterJumper names the solder jumper of a port's inverter among the jumpers of a
// fit; its choices are Inverted and Plain.
func InverterJumper(uart int) string { return "rx" + strconv.Itoa(uart) }

// The choices of an inverter's jumper.
const (
	Inverted = "inverted"
	Plain    = "plain"
)

// The fixed names in feeds.
const (
	NodePack     = "pack"
	NodeBoard    = "board"
	NodeAirUnit  = "airUnit"
	NodeReceiver = "receiver"
	padPrefix    = "board."
)

// PadNode names a pad of the board as the source of a feed.
func PadNode(pad string) string { return padPrefix + pad }

// PadOf is the pad a feed comes from, if it comes from one.
func PadOf(from string) (string, bool) { return strings.CutPrefix(from, padPrefix) }

// FeedOf is what the node is fed from; false where nothing is said.
func (f *Fit) FeedOf(node string) (string, bool) {
	for _, feed := range f.Feeds {
		if feed.To == node {
			return feed.From, true
		}
	}
	if node == NodeBoard {
		return NodePack, true
	}
	return "", false
}

// Regulator looks up a placed regulator.
func (f *Fit) Regulator(id string) (*PlacedRegulator, bool) {
	for i := range f.Regulators {
		if f.Regulators[i].ID == id {
			return &f.Regulators[i], true
		}
	}
	return nil, false
}

// Load looks up a further consumer.
func (f *Fit) Load(id string) (*Load, bool) {
	for i := range f.Loads {
		if f.Loads[i].ID == id {
			return &f.Loads[i], true
		}
	}
	return nil, false
}

// Cycle finds a loop in what is fed from what and gives its nodes in order,
// starting and ending with the same one. It is nil where there is none.
func (f *Fit) Cycle() []string {
	for _, start := range f.Feeds {
		trail := []string{start.To}
		at := start.To
		for range len(f.Feeds) + 1 {
			from, ok := f.FeedOf(at)
			if !ok || from == NodePack {
				break
			}
			if _, isPad := PadOf(from); isPad {
				from = NodeBoard
			}
			trail = append(trail, from)
			if from == start.To {
				return trail
			}
			at = from
		}
	}
	return nil
}

// Clone is a copy that shares nothing with the fit.
func (f Fit) Clone() Fit {
	f.AirUnit, f.Goggles, f.Controller = clone(f.AirUnit), clone(f.Goggles), clone(f.Controller)
	f.CapacitorUF, f.CapacitorV, f.PackLead = clone(f.CapacitorUF), clone(f.CapacitorV), clone(f.PackLead)
	f.None, f.UpsideDown = slices.Clone(f.None), clone(f.UpsideDown)
	f.Regulators = slices.Clone(f.Regulators)
	f.Loads = slices.Clone(f.Loads)
	f.Parts = cloneParts(f.Parts)
	if f.ReceiverCable != nil {
		f.ReceiverCable = new(f.ReceiverCable.clone())
	}
	f.Feeds = slices.Clone(f.Feeds)
	f.Jumpers = maps.Clone(f.Jumpers)
	f.Revisions = slices.Clone(f.Revisions)
	f.Wiring, f.Antennas = f.Wiring.clone(), f.Antennas.clone()
	f.Flight = Flight{clone(f.Runs), f.OSD.clone(), f.Sticks.clone(), slices.Clone(f.Features)}
	return f
}

func clone[T any](p *T) *T {
	if p == nil {
		return nil
	}
	return new(*p)
}
