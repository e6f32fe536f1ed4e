package mount

import (
	"fmt"
	"math"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

// atCamera is what the side of a unit that its camera lead comes out of is called.
const atCamera = "camera"

// checkCameraLead asks whether the camera's lead reaches from where the unit lies to where the camera
// lies, straight and with its bends; where either has no place, the bay's own way is all there is.
func (s *seat) checkCameraLead(r *Room) []verdict.Finding {
	unitAt, cameraAt := r.of(fleet.NodeAirUnit), r.of(fleet.NodeCamera)
	if unitAt == nil || cameraAt == nil || s.camera.Camera == nil {
		return nil
	}
	cable := s.camera.CableMM
	if cable == nil {
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeCable, s.Quad.Label(),
			s.cameraValue("cableMM", "camera cable"))}
	}
	least, most := s.cameraWay(unitAt, cameraAt)
	switch {
	case unit.Over(least, *cable):
		return []verdict.Finding{{Code: CodeCable, Level: verdict.Unfit, Source: verdict.Practice, Part: fleet.NodeCamera,
			Compares: []verdict.Compare{{What: "camera cable", Needed: fmt.Sprintf("%.0f mm with bends", float64(least)),
				There: cable.String()}},
			Says: fmt.Sprintf("The camera cable is %s; from where %s lies to where the camera does it wants %.0f mm with its "+
				"bends.", cable, unitAt.Label, float64(least))}}
	case unit.Over(most, *cable):
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeCable, s.Quad.Label(),
			s.unitValue("mount.access", "side its camera lead comes out of"))}
	}
	return nil
}

// cameraWay is what the camera's lead wants between where the unit and the camera lie, from the side
// it comes out of: the least and the most where that is not stated.
func (s *seat) cameraWay(unitAt, cameraAt *Block) (least, most unit.Millimetres) {
	to := cameraAt.face(turned("rear", cameraAt.Place.Quarters))
	least = unit.Millimetres(math.Inf(1))
	stated, known := s.mount.Access[atCamera]
	for _, side := range gear.Sides {
		if known && side != stated {
			continue
		}
		wants := bend * distance(unitAt.face(turned(side, unitAt.Place.Quarters)), to)
		least, most = min(least, wants), max(most, wants)
	}
	return least, most
}

// outOfCable says whether the camera's lead does not reach once a part lies at a block of a room.
func (s *seat) outOfCable(r *Room, b *Block) bool {
	unitAt, cameraAt := r.of(fleet.NodeAirUnit), r.of(fleet.NodeCamera)
	switch b.Part {
	case fleet.NodeAirUnit:
		unitAt = b
	case fleet.NodeCamera:
		cameraAt = b
	default:
		return false
	}
	if unitAt == nil || cameraAt == nil || s.camera.Camera == nil || s.camera.CableMM == nil {
		return false
	}
	least, _ := s.cameraWay(unitAt, cameraAt)
	return unit.Over(least, *s.camera.CableMM)
}

// of is the block of a part; nil where it has no place.
func (r *Room) of(part string) *Block {
	for i := range r.Blocks {
		if b := &r.Blocks[i]; b.Part == part && b.Place != nil {
			return b
		}
	}
	return nil
}

// face is the middle of a side of a block.
func (b *Block) face(side gear.Side) (at [3]unit.Millimetres) {
	to := sides[side]
	for i := range at {
		at[i] = (b.Min[i] + b.Max[i]) / 2
	}
	if at[to.axis] = b.Max[to.axis]; to.way < 0 {
		at[to.axis] = b.Min[to.axis]
	}
	return at
}

// distance of two places.
func distance(a, b [3]unit.Millimetres) unit.Millimetres {
	x, y, z := a[space.X]-b[space.X], a[space.Y]-b[space.Y], a[space.Z]-b[space.Z]
	return unit.Millimetres(math.Sqrt(float64(x*x + y*y + z*z)))
}
