package fleet

import (
	"slices"

	"yokeswap/core/measure/unit"
)

// Mounting is where the air unit sits and what holds it.
type Mounting struct {
	Frame  string            `json:"frame,omitempty"`
	Bay    string            `json:"bay,omitempty"`
	Plate  string            `json:"plate,omitempty"`  // adapter plate between unit and frame
	SoftMM *unit.Millimetres `json:"softMM,omitempty"` // soft mounts under it; absent: none
	Screw  string            `json:"screw,omitempty"`  // chosen for the unit
	Washer string            `json:"washer,omitempty"` // one under each of those screws
	// Places are where parts lie; absent: nobody has said.
	Places []Spot `json:"places,omitempty"`
	// Holdings are the parts that are held in another way than by their own screws.
	Holdings []Hold `json:"holdings,omitempty"`
	// LeftOff are the plates of the frame that are not put on.
	LeftOff []string `json:"leftOff,omitempty"`
	// Camera replaces the air unit's own; absent: its own.
	Camera string `json:"camera,omitempty"`
	// Standoff replaces the frame's own standoffs.
	Standoff string `json:"standoff,omitempty"`
	// StandoffCutMM is what the standoffs are cut to, all of them; absent: they are not cut.
	StandoffCutMM *unit.Millimetres `json:"standoffCutMM,omitempty"`
	// Drill: the unit gets new holes in the plate of its bay.
	Drill bool `json:"drill,omitempty"`
	// TiltDeg is how far the camera is to look up.
	TiltDeg *unit.Degrees `json:"tiltDeg,omitempty"`
	// PropMM is the diameter of the propellers it flies with.
	PropMM *unit.Millimetres `json:"propMM,omitempty"`
	// Air is what moves over the unit in flight; empty: not stated.
	Air Air `json:"air,omitempty"`
	// MetalUnder: metal lies against it that leads its heat away.
	MetalUnder *bool `json:"metalUnder,omitempty"`
	// BoardTurnDeg is how far the flight board is turned from its arrow, for access.
	BoardTurnDeg *unit.Degrees `json:"boardTurnDeg,omitempty"`
	// AnalogG is the mass of the analog camera and transmitter together.
	AnalogG *unit.Grams `json:"analogG,omitempty"`
	// ActionG is the mass of an action camera it carries beside.
	ActionG *unit.Grams `json:"actionG,omitempty"`
}

// BoardTurned is how far the flight board is turned to the right from its arrow: what is stated, else
// as it lies.
func (m *Mounting) BoardTurned() unit.Degrees {
	if m.BoardTurnDeg != nil {
		return *m.BoardTurnDeg
	}
	lies, _ := m.BoardLies()
	return lies
}

// BoardLies is how far the flight board lies turned to the right, from 0 to under 360; false where
// nobody has said where it lies.
func (m *Mounting) BoardLies() (unit.Degrees, bool) {
	place, placed := m.PlaceOf(NodeBoard)
	return unit.Degrees((4 - place.Quarters) % 4 * 90), placed
}

// Off says whether a plate of the frame is left off.
func (m *Mounting) Off(plate string) bool { return plate != "" && slices.Contains(m.LeftOff, plate) }

// LeaveOff leaves a plate of the frame off, or puts it on again.
type LeaveOff struct {
	Plate string `json:"plate"`
	On    bool   `json:"on,omitempty"`
}

// Cut is what all standoffs are cut to, or that they are not.
type Cut struct {
	MM *unit.Millimetres `json:"mm,omitempty"` // absent: they are not cut
}

// Air is how the air of the flight reaches a unit.
type Air string

// The ways of air.
const (
	AirOpen   Air = "open"   // it lies in the wind
	AirSlots  Air = "slots"  // some comes through openings
	AirClosed Air = "closed" // none reaches it
)
