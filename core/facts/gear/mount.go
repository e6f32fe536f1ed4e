package gear

import (
	"math"
	"slices"

	"yokeswap/core/measure/unit"
)

// Holes is a pattern of four holes.
type Holes struct {
	XMM   unit.Millimetres `json:"xMM"`             // from left to right
	YMM   unit.Millimetres `json:"yMM"`             // from front to rear
	Screw string           `json:"screw,omitempty"` // such as "M2"
	// DepthMM is how deep a screw may go into the thread; of an air unit.
	DepthMM *unit.Millimetres `json:"depthMM,omitempty"`
}

// Same says whether two patterns lie over each other, as they are or with a quarter
// turn.
func (h Holes) Same(o Holes) bool { return h.Over(o) || h.Turned(1).Over(o) }

// Over says whether two patterns lie over each other as they are.
func (h Holes) Over(o Holes) bool {
	near := func(a, b unit.Millimetres) bool { return a-b < 0.3 && b-a < 0.3 }
	return near(h.XMM, o.XMM) && near(h.YMM, o.YMM)
}

// Turned is a pattern turned by quarters.
func (h Holes) Turned(quarters int) Holes {
	if quarters%2 != 0 {
		h.XMM, h.YMM = h.YMM, h.XMM
	}
	return h
}

// String is the pattern as people say it: "25.5×25.5".
func (h Holes) String() string { return trimMM(h.XMM) + "×" + trimMM(h.YMM) }

func trimMM(l unit.Millimetres) string {
	s := l.String()
	return s[:len(s)-len(" mm")]
}

// Side is a side of a unit or a frame.
type Side string

// Sides are all of them.
var Sides = []Side{"front", "right", "rear", "left", "top", "bottom"}

// around are the sides in the order a turn to the right takes them.
var around = Sides[:4]

// Turned is where a side comes to lie when what it belongs to is turned to the
// right, seen from above; to the nearest quarter.
func (s Side) Turned(by unit.Degrees) Side {
	at := slices.Index(around, s)
	if at < 0 {
		return s // top and bottom stay
	}
	quarters := int(math.Round(float64(by)/90)) % 4
	return around[(at+quarters+4)%4]
}

// UnitMount is how an air unit is fixed and reached.
type UnitMount struct {
	Patterns []Holes           `json:"patterns,omitempty"`
	HeightMM *unit.Millimetres `json:"heightMM,omitempty"`
	// Access says on which side things are: usb, bind, card, and where the camera's lead comes out: camera.
	Access map[string]Side `json:"access,omitempty"`
}

// Camera is the camera of an air unit.
type Camera struct {
	WidthMM    *unit.Millimetres `json:"widthMM,omitempty"`
	HeightMM   *unit.Millimetres `json:"heightMM,omitempty"`
	FrontMM    *unit.Millimetres `json:"frontMM,omitempty"` // from the screws to the front of its body, the lens apart
	BackMM     *unit.Millimetres `json:"backMM,omitempty"`  // from the screws to its back, plug and cable included
	LensMM     *unit.Millimetres `json:"lensMM,omitempty"`  // from the screws to the front of the lens
	CableMM    *unit.Millimetres `json:"cableMM,omitempty"` // to the module
	PerSide    *int              `json:"perSide,omitempty"` // screws
	Screw      string            `json:"screw,omitempty"`
	RecordsOwn *bool             `json:"records,omitempty"` // it can replace an action camera
	MassG      *unit.Grams       `json:"massG,omitempty"`   // where that is not in the unit's
	// ViewXDeg and ViewYDeg are how wide and how high it sees, from edge to edge of its picture.
	ViewXDeg *unit.Degrees `json:"viewXDeg,omitempty"`
	ViewYDeg *unit.Degrees `json:"viewYDeg,omitempty"`
}

// CameraModel is a camera that is had alone and goes onto an air unit in the place of the
// one it came with.
type CameraModel struct {
	Entry
	Camera
	// Units are the models of the air units it works with; absent: not stated.
	Units []string `json:"units,omitempty"`
}

// Kind of a camera.
func (*CameraModel) Kind() Kind { return KindCamera }

// Frame is a frame with the places an air unit can go.
type Frame struct {
	Entry
	Nones                         // "rotors": it has no propellers; "duct": there is none around them
	Bays        []Bay             `json:"bays,omitempty"`
	CageMM      *unit.Millimetres `json:"cageMM,omitempty"`      // width between the camera plates
	CagePerSide *int              `json:"cagePerSide,omitempty"` // screws the cage takes on each side
	GuardMM     *unit.Millimetres `json:"guardMM,omitempty"`     // how far the cage stands out before the camera's screws
	// The camera's room from its screws: down to the bottom plate, up to the top
	// plate, and back to what stands behind it.
	CameraDownMM *unit.Millimetres `json:"cameraDownMM,omitempty"`
	CameraUpMM   *unit.Millimetres `json:"cameraUpMM,omitempty"`
	CameraBackMM *unit.Millimetres `json:"cameraBackMM,omitempty"`
	// CameraCover is the plate over the camera; empty: not stated.
	CameraCover string `json:"cameraCover,omitempty"`
	// StackPatterns are the holes that the flight board sits on, StackMM the height there is
	// for it with what lies over and under it.
	StackPatterns []Holes           `json:"stackPatterns,omitempty"`
	StackAtXMM    *unit.Millimetres `json:"stackAtXMM,omitempty"` // their middle, forward of the origin
	StackAtYMM    *unit.Millimetres `json:"stackAtYMM,omitempty"` // and to the left
	StackMM       *unit.Millimetres `json:"stackMM,omitempty"`
	BoardOpen     []Side            `json:"boardOpen,omitzero"`   // sides where the board is reached; absent: not stated
	StandoffMM    *unit.Millimetres `json:"standoffMM,omitempty"` // length of its standoffs
	StandoffSize  string            `json:"standoffSize,omitempty"`
	Standoffs     *int              `json:"standoffs,omitempty"` // how many there are
	Plates        []FramePlate      `json:"plates,omitempty"`
	Posts         []Post            `json:"posts,omitempty"`  // where standoffs stand
	Rotors        []Rotor           `json:"rotors,omitempty"` // where its propellers turn
	Duct          *Duct             `json:"duct,omitempty"`   // around each of them
	MassG         *unit.Grams       `json:"massG,omitempty"`
}

// Post is where a standoff stands, from one plate to another.
type Post struct {
	XMM        unit.Millimetres  `json:"xMM"`
	YMM        unit.Millimetres  `json:"yMM"`
	FromMM     *unit.Millimetres `json:"fromMM,omitempty"` // its foot
	ToMM       *unit.Millimetres `json:"toMM,omitempty"`   // its top
	DiameterMM *unit.Millimetres `json:"diameterMM,omitempty"`
}

// What a frame can state that it has none of.
const (
	NoRotors = "rotors"
	NoDuct   = "duct"
)

// Rotor is where a propeller turns.
type Rotor struct {
	XMM unit.Millimetres  `json:"xMM"`
	YMM unit.Millimetres  `json:"yMM"`
	ZMM *unit.Millimetres `json:"zMM,omitempty"` // the height of its blades
}

// Duct is the ring around a propeller.
type Duct struct {
	DiameterMM *unit.Millimetres `json:"diameterMM,omitempty"` // over all
	FromMM     *unit.Millimetres `json:"fromMM,omitempty"`     // its lower edge
	ToMM       *unit.Millimetres `json:"toMM,omitempty"`       // its upper edge
}

// KeepFree is room that has to stay free beside a part, for a plug or its travel.
type KeepFree struct {
	What string            `json:"what"` // such as "USB plug"
	Side Side              `json:"side"`
	MM   *unit.Millimetres `json:"mm,omitempty"` // from that side outwards
	// WideMM is how wide it is, in the middle of the side; absent: all of the side.
	WideMM *unit.Millimetres `json:"wideMM,omitempty"`
}

// Bay is one place in a frame.
type Bay struct {
	ID       string            `json:"id"`
	Name     string            `json:"name,omitempty"`
	Patterns []Holes           `json:"patterns,omitempty"`
	PlateMM  *unit.Millimetres `json:"plateMM,omitempty"`  // thickness the screws go through
	HeightMM *unit.Millimetres `json:"heightMM,omitempty"` // clear of whatever else is in it
	// Countersunk: its holes are, for screws of such heads.
	Countersunk *bool `json:"countersunk,omitempty"`
	Raised      bool  `json:"raised,omitempty"` // longer standoffs make it higher
	// SolidXMM and SolidYMM are how far its plate is solid around the middle of
	// the patterns, for new holes.
	SolidXMM  *unit.Millimetres `json:"solidXMM,omitempty"`
	SolidYMM  *unit.Millimetres `json:"solidYMM,omitempty"`
	CameraMM  *unit.Millimetres `json:"cameraMM,omitempty"`  // the camera cable's way from here
	AntennaMM *unit.Millimetres `json:"antennaMM,omitempty"` // the antenna leads' way from here
	Open      []Side            `json:"open,omitzero"`       // sides reached with the frame closed; absent: not stated
	On        string            `json:"on,omitempty"`        // the plate it is on
	AtXMM     *unit.Millimetres `json:"atXMM,omitempty"`     // the middle of its patterns, forward of the origin
	AtYMM     *unit.Millimetres `json:"atYMM,omitempty"`     // and to the left
	Cover     string            `json:"cover,omitempty"`     // the plate over it, which ends its clear height
}

// Label is the bay's name, or its id.
func (b *Bay) Label() string {
	if b.Name != "" {
		return b.Name
	}
	return b.ID
}

// StandoffCount is how many standoffs the frame has; four where it is not stated
// (common practice).
func (f *Frame) StandoffCount() int {
	if f.Standoffs != nil {
		return *f.Standoffs
	}
	return 4
}

// Bay looks up a bay by its id.
func (f *Frame) Bay(id string) (*Bay, bool) {
	i := slices.IndexFunc(f.Bays, func(b Bay) bool { return b.ID == id })
	if i < 0 {
		return nil, false
	}
	return &f.Bays[i], true
}

// Plate looks up a plate by its id.
func (f *Frame) Plate(id string) (*FramePlate, bool) {
	i := slices.IndexFunc(f.Plates, func(p FramePlate) bool { return p.ID == id })
	if i < 0 {
		return nil, false
	}
	return &f.Plates[i], true
}

// Plate joins two patterns.
type Plate struct {
	Entry
	From    Holes             `json:"from,omitzero"` // of the frame
	To      Holes             `json:"to,omitzero"`   // of the unit
	ThickMM *unit.Millimetres `json:"thickMM,omitempty"`
	MassG   *unit.Grams       `json:"massG,omitempty"`
	Printed bool              `json:"printed,omitempty"` // can be printed
}

// Screw is a screw by size and length.
type Screw struct {
	Entry
	Size     string            `json:"size,omitempty"` // such as "M2", or "#2-56" of the inch sizes
	LengthMM *unit.Millimetres `json:"lengthMM,omitempty"`
	HeadKind ScrewHead         `json:"head,omitempty"` // absent: not stated, taken as one that lies flat
}

// ScrewHead is the kind of head of a screw.
type ScrewHead string

// The heads.
const (
	HeadSocket      ScrewHead = "socket"
	HeadButton      ScrewHead = "button"
	HeadPan         ScrewHead = "pan"
	HeadCountersunk ScrewHead = "countersunk" // its length counts over all
)

// Washer is a washer that goes under the head of a screw.
type Washer struct {
	Entry
	Size    string            `json:"size,omitempty"` // of the screws it goes on, such as "M2"
	ThickMM *unit.Millimetres `json:"thickMM,omitempty"`
}

// Standoff is one of the posts between the plates of a frame.
type Standoff struct {
	Entry
	Size     string            `json:"size,omitempty"` // of its threads, such as "M3"
	LengthMM *unit.Millimetres `json:"lengthMM,omitempty"`
	MassG    *unit.Grams       `json:"massG,omitempty"`
}

// Kind of a washer.
func (*Washer) Kind() Kind { return KindWasher }

// Kind of a standoff.
func (*Standoff) Kind() Kind { return KindStandoff }

// Kind of a frame.
func (*Frame) Kind() Kind { return KindFrame }

// Kind of a plate.
func (*Plate) Kind() Kind { return KindPlate }

// Kind of a screw.
func (*Screw) Kind() Kind { return KindScrew }
