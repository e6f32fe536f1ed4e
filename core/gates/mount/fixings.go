package mount

import (
	"fmt"
	"reflect"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// Fixing is a set of small parts that a plan takes beside the screws into the unit.
type Fixing struct {
	For   string `json:"for"`             // what it holds: "the adapter plate"
	Model string `json:"model,omitempty"` // of the library; empty: none there does, or none is known
	Label string `json:"label"`
	Count int    `json:"count"`
	Note  string `json:"note,omitempty"`
}

// nuts are the heights of hexagon nuts (ISO 4032, the greatest).
var nuts = map[string]unit.Millimetres{"M1.6": 1.3, "M2": 1.6, "M2.5": 2, "M3": 2.4, "M4": 3.2}

// past is how far a screw may stand out beyond its nut (from memory).
const past unit.Millimetres = 3

// Fixings are the screws, nuts and spacers a plan takes beside the screws into the unit: the
// second set of an adapter plate, and what a camera wants in its cage.
func Fixings(c fleet.Case) []Fixing {
	s := newSeat(c)
	if len(s.missing) > 0 {
		return nil
	}
	return append(s.plateFixings(), s.cameraFixings()...)
}

// plateFixings hold an adapter plate that comes in on the frame.
func (s *seat) plateFixings() []Fixing {
	now := s.Quad.Now.Mounting
	if s.plate == nil || now.Plate == s.Fit.Plate && now.Frame == s.Fit.Frame && now.Bay == s.Fit.Bay {
		return nil
	}
	const of = "the adapter plate"
	size := s.plate.From.Screw
	for _, p := range s.bay.Patterns {
		if size == "" && p.Same(s.plate.From) {
			size = p.Screw
		}
	}
	if size == "" {
		return []Fixing{{
			For:   of,
			Label: "screw and nut for " + of,
			Count: fleet.UnitScrews,
			Note:  "their size is not stated",
		}}
	}
	list := []Fixing{{For: of, Label: size + " nut", Count: fleet.UnitScrews}}
	screw := Fixing{For: of, Label: size + " screw for " + of, Count: fleet.UnitScrews}
	nut, known := nuts[size]
	if !known || s.bay.PlateMM == nil || s.plate.ThickMM == nil {
		screw.Note = "its length is not stated: through the plate, the frame and the nut"
		return append(list, screw)
	}
	least := *s.bay.PlateMM + *s.plate.ThickMM + nut
	screw.Label = fmt.Sprintf("%s screw for %s, %s to %s", size, of, least, least+past)
	if found := s.screwOf(size, least, least+past); found != nil {
		screw.Model, screw.Label = found.ID, found.Label()
	}
	return append(list, screw)
}

// screwOf is a screw of a size and between two lengths: an owned one, else the shortest; nil
// where the library has none.
func (s *seat) screwOf(size string, least, most unit.Millimetres) *gear.Screw {
	plan := ScrewPlan{Size: size, LeastMM: least, MostMM: most}
	plan.pick(s)
	found, _ := gear.Find[*gear.Screw](s.Library, plan.Use)
	return found
}

// cameraFixings are what a camera wants that comes into its cage: spacers to both sides where
// the cage is wider, and longer screws where something lies between.
func (s *seat) cameraFixings() (list []Fixing) {
	const of = "the camera"
	cam, held, wide := s.camera.Camera, (*fleet.Hold)(nil), s.frame.CageMM
	if h, other := s.HoldingOf(fleet.NodeCamera); other && h.Way != fleet.HeldByScrews {
		held, wide = h, h.InsideMM
	}
	caged := held == nil || held.Way == fleet.HeldByCage || held.Way == fleet.HeldByBracket
	if cam == nil || !caged || !s.cameraMoves(held) {
		return nil
	}
	perSide := 1
	if cam.PerSide != nil {
		perSide = *cam.PerSide
	}
	size := cam.Screw
	gap := unit.Millimetres(0)
	if wide != nil && cam.WidthMM != nil {
		gap = unit.Less(*wide, *cam.WidthMM)
	}
	if unit.Over(gap, cageSlack) {
		spacer := Fixing{For: of, Count: 2 * perSide, Label: fmt.Sprintf("spacer of %s for %s", gap/2, of)}
		for _, w := range gear.All[*gear.Washer](s.Library) {
			if size != "" && w.Size == size && w.ThickMM != nil && !unit.Over(unit.Less(*w.ThickMM, gap/2), 0.1) &&
				!unit.Over(unit.Less(gap/2, *w.ThickMM), 0.1) {
				spacer.Model, spacer.Label = w.ID, w.Label()
			}
		}
		list = append(list, spacer)
	}
	if len(list) == 0 && held == nil {
		return nil // it goes in as it came
	}
	screw := Fixing{For: of, Count: 2 * perSide, Label: "screw for " + of,
		Note: "through its cage and the spacer, no deeper than the thread in its case"}
	if size != "" {
		screw.Label = size + " screw for " + of
	}
	return append(list, screw)
}

// cameraMoves says whether the plan puts another camera in, or holds it otherwise.
func (s *seat) cameraMoves(held *fleet.Hold) bool {
	now := fleet.NowCase(s.Library, s.Fleet, s.Quad)
	was, had := now.HoldingOf(fleet.NodeCamera)
	if !had || was.Way == fleet.HeldByScrews {
		was = nil
	}
	before := now.Camera()
	return before.Of == nil || before.Of.ID != s.camera.Of.ID || now.Fit.Frame != s.Fit.Frame ||
		!reflect.DeepEqual(was, held)
}
