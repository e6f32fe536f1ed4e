package gear

import "cmp"
import "yokeswap/core/measure/unit"

// Input is the supply a part wants. Outside the window a part dies (above) or
// switches off (below).
type Input struct {
	MinV *unit.Volts `json:"minV,omitempty"`
	MaxV *unit.Volts `json:"maxV,omitempty"`
	// FromCells and ToCells are its ends where the sheet states them in cells of lithium
	// polymer, in the place of volts.
	FromCells *int `json:"fromCells,omitempty"`
	ToCells   *int `json:"toCells,omitempty"`
	// AbsoluteMaxV is what a short peak may reach; absent: no more than MaxV.
	AbsoluteMaxV *unit.Volts `json:"absoluteMaxV,omitempty"`
	// CeramicUF is the ceramic capacitance across its input.
	CeramicUF *unit.Microfarads `json:"ceramicUF,omitempty"`
	TypicalW  *unit.Watts       `json:"typicalW,omitempty"`
	PeakW     *unit.Watts       `json:"peakW,omitempty"`
}

// Topology is the way a regulator works.
type Topology string

// The topologies.
const (
	StepDown  Topology = "step-down"  // output below input; needs dropout in hand
	StepUp    Topology = "step-up"    // output above input; passes a higher input through
	BuckBoost Topology = "buck-boost" // either way
)

// Converter turns one voltage into another: a regulated pad of a flight board
// or a regulator of its own.
type Converter struct {
	Topology   Topology    `json:"topology,omitempty"`
	Input      Input       `json:"input,omitzero"`
	OutV       *unit.Volts `json:"outV,omitempty"`
	ToleranceV *unit.Volts `json:"toleranceV,omitempty"` // plus or minus; absent: anything up to a tenth of OutV
	MaxA       *unit.Amps  `json:"maxA,omitempty"`
	// PeakA is what it gives for PeakS seconds; absent: no more than MaxA.
	PeakA      *unit.Amps  `json:"peakA,omitempty"`
	PeakS      *float64    `json:"peakS,omitempty"`
	DropoutV   *unit.Volts `json:"dropoutV,omitempty"` // step-down: input must exceed output by this
	Efficiency *float64    `json:"efficiency,omitempty"`
}

// Regulator is a regulator of its own, wired into a quad.
type Regulator struct {
	Entry
	Converter
	MassG *unit.Grams `json:"massG,omitempty"`
}

// Receiver is a separate receiver for the sticks.
type Receiver struct {
	Entry
	Input     Input    `json:"input,omitzero"`
	Protocols []string `json:"protocols,omitempty"`
	Plug      *Plug    `json:"plug,omitempty"` // its pins or pads, each one of PartPins
	// FullDuplex: it needs both pads of its port; Inverted: its signal is.
	FullDuplex *bool    `json:"fullDuplex,omitempty"`
	Inverted   *bool    `json:"inverted,omitempty"`
	LatencyMS  *float64 `json:"latencyMS,omitempty"` // how late the sticks come
	// RangeKM is how far it is stated to be flown, in sight of both antennas.
	RangeKM *unit.Kilometres `json:"rangeKM,omitempty"`
	// FromMHz and ToMHz are the ends of what its radio uses.
	FromMHz  *unit.Megahertz   `json:"fromMHz,omitempty"`
	ToMHz    *unit.Megahertz   `json:"toMHz,omitempty"`
	Sends    *Sender           `json:"sends,omitempty"` // telemetry back to the controller; absent: not stated
	MassG    *unit.Grams       `json:"massG,omitempty"`
	Guides   []Guide           `json:"guides,omitempty"`
	Outline  *Outline          `json:"outline,omitempty"` // where its pads lie
	HeightMM *unit.Millimetres `json:"heightMM,omitempty"`
	KeepFree []KeepFree        `json:"keepFree,omitempty"` // what has to stay free beside it
}

// Board is a flight board.
type Board struct {
	Entry
	Input Input  `json:"input,omitzero"`
	Pads  []Pad  `json:"pads,omitempty"`
	UARTs []UART `json:"uarts,omitempty"`
	Plugs []Plug `json:"plugs,omitempty"`
	// Signals are its pads beside ground, power and serial ports, each one of Signals.
	Signals []string `json:"signals,omitempty"`
	// BuiltIn is the model of the receiver that is built into it; absent: none is. It is
	// fed and wired on the board.
	BuiltIn string      `json:"builtIn,omitempty"`
	MassG   *unit.Grams `json:"massG,omitempty"`
	// Patterns are its holes, HeightMM how high it stands with what is on it, both sides
	// together.
	Patterns []Holes           `json:"patterns,omitempty"`
	HeightMM *unit.Millimetres `json:"heightMM,omitempty"`
	// USBSide is the side of its USB, seen from above with its arrow to the front.
	USBSide Side    `json:"usbSide,omitempty"`
	Guides  []Guide `json:"guides,omitempty"`
	// Outline is where its pads lie; absent: nobody has placed them.
	Outline  *Outline   `json:"outline,omitempty"`
	KeepFree []KeepFree `json:"keepFree,omitempty"` // what has to stay free beside it
}

// PadKind says what a power pad carries.
type PadKind string

// The kinds of pad.
const (
	PadPack      PadKind = "pack"      // the pack's voltage, unregulated
	PadRegulated PadKind = "regulated" // the output of a regulator on the board
	PadJumper    PadKind = "jumper"    // one of several, chosen by a solder jumper
	PadSame      PadKind = "same"      // another pad's rail: what hangs on both is one load
)

// Pad is a power pad of a flight board.
type Pad struct {
	ID   string  `json:"id"`
	Name string  `json:"name,omitempty"`
	Kind PadKind `json:"kind"`
	Converter
	Choices []string `json:"choices,omitempty"` // jumper: "pack" or ids of other pads
	Default string   `json:"default,omitempty"` // jumper: as delivered
	SameAs  string   `json:"sameAs,omitempty"`  // same: the pad whose rail it is
	// AliveOnUSB: it gives its voltage with only USB plugged in.
	AliveOnUSB *bool `json:"aliveOnUSB,omitempty"`
}

// Leads is the pad this one leads to, or "pack": as its jumper is soldered, or the one whose
// rail it is; empty: that is not said, or the pad makes what it gives.
func (p *Pad) Leads(jumpers map[string]string) string {
	switch p.Kind {
	case PadJumper:
		return cmp.Or(jumpers[p.ID], p.Default)
	case PadSame:
		return p.SameAs
	}
	return ""
}

// Label is the pad's name, or its id.
func (p *Pad) Label() string {
	if p.Name != "" {
		return p.Name
	}
	return p.ID
}

// Pad looks up a pad by its id.
func (b *Board) Pad(id string) (*Pad, bool) {
	for i := range b.Pads {
		if b.Pads[i].ID == id {
			return &b.Pads[i], true
		}
	}
	return nil, false
}

// Chemistry is the chemistry of a pack's cells.
type Chemistry string

// The chemistries.
const (
	LiPo   Chemistry = "lipo"   // lithium polymer
	LiHV   Chemistry = "lihv"   // lithium polymer charged to 4.35 V
	LiIon  Chemistry = "liion"  // cylindrical lithium-ion
	LiFePO Chemistry = "lifepo" // iron phosphate
)

// Pack is a flight pack.
type Pack struct {
	Entry
	Chemistry       Chemistry          `json:"chemistry,omitempty"`
	Cells           *int               `json:"cells,omitempty"`    // in series
	Parallel        *int               `json:"parallel,omitempty"` // absent counts as one
	CapacityMAH     unit.MilliampHours `json:"capacityMAH,omitempty"`
	MilliohmPerCell *unit.Milliohms    `json:"milliohmPerCell,omitempty"`
	MassG           *unit.Grams        `json:"massG,omitempty"`
	// LengthMM is from its front to its rear, as it lies on a quad; WidthMM across; HeightMM up.
	LengthMM *unit.Millimetres `json:"lengthMM,omitempty"`
	WidthMM  *unit.Millimetres `json:"widthMM,omitempty"`
	HeightMM *unit.Millimetres `json:"heightMM,omitempty"`
	// KeepFree is what has to stay free beside it, as for a strap; absent: nothing is asked for.
	KeepFree []KeepFree `json:"keepFree,omitempty"`
}

// LeftInPack is the share of its charge that stays in a pack (common practice: a fifth).
const LeftInPack = 0.2

// nominalV is the voltage of a cell over a discharge, in volts (common practice).
var nominalV = map[Chemistry]float64{LiPo: 3.7, LiHV: 3.8, LiIon: 3.6, LiFePO: 3.2}

// NominalV is the voltage of one of the pack's cells over a discharge, in volts; 0: its
// chemistry is not stated.
func (p *Pack) NominalV() float64 { return nominalV[p.Chemistry] }

// Energy is what a pack holds in watt-hours; false where it is not stated.
func (p *Pack) Energy() (wattHours float64, ok bool) {
	if p.Cells == nil || p.CapacityMAH <= 0 || p.NominalV() == 0 {
		return 0, false
	}
	return float64(p.CapacityMAH) / 1000 * float64(*p.Cells) * p.NominalV(), true
}

// Capacitor is a low-ESR electrolytic for the battery leads.
type Capacitor struct {
	Entry
	UF     *unit.Microfarads `json:"uf,omitempty"`
	RatedV *unit.Volts       `json:"ratedV,omitempty"`
	MassG  *unit.Grams       `json:"massG,omitempty"`
}

// Kind of a capacitor.
func (*Capacitor) Kind() Kind { return KindCapacitor }

// Kind of a regulator.
func (*Regulator) Kind() Kind { return KindRegulator }

// Kind of a receiver.
func (*Receiver) Kind() Kind { return KindReceiver }

// Kind of a board.
func (*Board) Kind() Kind { return KindBoard }

// Kind of a pack.
func (*Pack) Kind() Kind { return KindPack }
