package fleet

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

// Antennas is what a quad carries on its air unit, and how it is placed.
type Antennas struct {
	Models  []string `json:"models,omitempty"` // one for each antenna
	Adapter string   `json:"adapter,omitempty"`
	// AngleDeg is the angle between two antennas; CarbonMM how far they stay from
	// carbon; ControlMM how far from the antenna of the sticks.
	AngleDeg  *unit.Degrees     `json:"angleDeg,omitempty"`
	CarbonMM  *unit.Millimetres `json:"carbonMM,omitempty"`
	ControlMM *unit.Millimetres `json:"controlMM,omitempty"`
	Placed    string            `json:"placed,omitempty"` // "protected" or "clear"
	Why       string            `json:"why,omitempty"`    // they stand as they do
	Stands    []Stand           `json:"stands,omitempty"` // where each stands, in their order
	// Locked: their plugs are kept from coming off, with glue, a clip or a clamp; Relief: their
	// leads are tied down before the plug.
	Locked *bool `json:"locked,omitempty"`
	Relief *bool `json:"relief,omitempty"`
	Gives  Joint `json:"gives,omitempty"` // in a crash; empty: not stated
}

// Stand is where an antenna stands, from the origin of the frame, and where it points.
type Stand struct {
	XMM     unit.Millimetres `json:"xMM"`     // of its foot, forward
	YMM     unit.Millimetres `json:"yMM"`     // to the left
	ZMM     unit.Millimetres `json:"zMM"`     // up
	TurnDeg unit.Degrees     `json:"turnDeg"` // it points to the left of forward by
	RiseDeg unit.Degrees     `json:"riseDeg"` // and up from the level by
}

// Words say where it stands and points: "92 mm back, 20 mm to the left, 16 mm up, pointing 145° to
// the left of forward and 30° up".
func (s *Stand) Words() string {
	foot := Spot{XMM: s.XMM, YMM: s.YMM, ZMM: s.ZMM}
	to, points := "left", s.TurnDeg
	if points < 0 {
		to, points = "right", -points
	}
	way, rise := "up", s.RiseDeg
	if rise < 0 {
		way, rise = "down", -rise
	}
	return fmt.Sprintf("%s, pointing %s to the %s of forward and %s %s", foot.Words(), points, to, rise, way)
}

// StandAt puts an antenna somewhere, or leaves open where any stands.
type StandAt struct {
	Stand
	Antenna int  `json:"antenna"` // counted from 1
	Out     bool `json:"out,omitempty"`
}

// NoStand says why an antenna cannot be put somewhere; empty: it can.
func (f *Fit) NoStand(at StandAt) string {
	switch a := f.Antennas; {
	case a == nil || at.Antenna > len(a.Models):
		return fmt.Sprintf("there is no antenna %d", at.Antenna)
	case at.Antenna < 1:
		return "antennas are counted from 1"
	case at.Antenna > len(a.Stands)+1 && !at.Out:
		return fmt.Sprintf("antenna %d comes after another that has no place yet", at.Antenna)
	}
	return ""
}

// stand puts an antenna somewhere, where it can be (see NoStand).
func (f *Fit) stand(at StandAt) {
	if f.NoStand(at) != "" {
		return
	}
	f.Antennas = f.Antennas.clone()
	switch n := len(f.Antennas.Stands); {
	case at.Out:
		f.Antennas.Stands = nil
	case at.Antenna <= n:
		f.Antennas.Stands[at.Antenna-1] = at.Stand
	default:
		f.Antennas.Stands = append(f.Antennas.Stands, at.Stand)
	}
}

// Joint is what gives first when an antenna is hit.
type Joint string

// The joints.
const (
	GivesHolder Joint = "holder" // it bends or lets the antenna go
	GivesPlug   Joint = "plug"   // it comes off
	GivesLead   Joint = "lead"   // it tears
	GivesSocket Joint = "socket" // of the unit: it is torn off its board
)

// Standing is an antenna where it stands.
type Standing struct {
	*gear.Antenna
	Stand Stand
	Rod   *space.Rod // nil: its length or its diameter is not stated
}

// Count is how many of a model, or of the adapter, they take.
func (a *Antennas) Count(id string) (n int) {
	for _, model := range a.Models {
		if model == id || a.Adapter == id {
			n++
		}
	}
	return n
}

// Carrying are the antennas with others in their place. Where it is said how each stands, what was
// written down of their angle and distance was of those before.
func (a Antennas) Carrying(models []string, adapter string) Antennas {
	a.Models, a.Adapter = models, adapter
	if len(a.Stands) > 0 {
		a.AngleDeg, a.CarbonMM = nil, nil
	}
	a.Stands = slices.Clip(a.Stands[:min(len(a.Stands), len(models))]) // fewer leave places free
	return a
}

// Radiating is the part of its rod that radiates.
func (s *Standing) Radiating() space.Rod {
	rod := *s.Rod
	if s.RadiatesMM == nil || s.RodMM == nil || *s.RodMM <= 0 {
		return rod
	}
	idle := max(0, 1-float64(*s.RadiatesMM / *s.RodMM))
	for i := range rod.Foot {
		rod.Foot[i] += idle * (rod.Tip[i] - rod.Foot[i])
	}
	return rod
}

// Standings are the antennas of the unit where they stand; whole is false where some of them
// have no place.
func (c Case) Standings() (list []Standing, whole bool) {
	a := c.Fit.Antennas
	if a == nil {
		return nil, true
	}
	for i, s := range a.Stands {
		if i == len(a.Models) {
			break
		}
		model, ok := gear.Find[*gear.Antenna](c.Library, a.Models[i])
		if !ok {
			continue
		}
		on := Standing{Antenna: model, Stand: s}
		if model.RodMM != nil && model.RodDiameterMM != nil {
			on.Rod = new(space.NewRod([3]unit.Millimetres{s.XMM, s.YMM, s.ZMM}, *model.RodMM, *model.RodDiameterMM,
				s.TurnDeg, s.RiseDeg))
		}
		list = append(list, on)
	}
	return list, len(a.Stands) >= len(a.Models)
}

func (a *Antennas) clone() *Antennas {
	if a == nil {
		return nil
	}
	out := *a
	out.Models, out.Stands = slices.Clone(a.Models), slices.Clone(a.Stands)
	out.Locked, out.Relief = clone(a.Locked), clone(a.Relief)
	return &out
}
