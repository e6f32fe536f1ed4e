package fabricate

import (
	"fmt"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/plane"
	"yokeswap/core/measure/solid"
	"yokeswap/core/measure/unit"
)

// parts are all that can be made.
var parts = []part{adapterPlate, cameraPlate, antennaHolder, unitBracket}

// edgeDiameters is how far from the middle of a hole the edge is, in diameters of the screw
// (common practice; from memory).
const edgeDiameters = 2.0

var adapterPlate = part{
	id:    "adapter-plate",
	title: "Adapter plate",
	about: "Joins the holes of the frame to those of the unit. The heads of the frame's screws lie under the unit: take " +
		"low ones.",
	params: []Param{
		mm("fromXMM", "holes of the frame, across", 5, 60),
		mm("fromYMM", "holes of the frame, along", 5, 60),
		usual(mm("fromScrewMM", "their screws", 1.6, 4), 2),
		mm("toXMM", "holes of the unit, across", 5, 60),
		mm("toYMM", "holes of the unit, along", 5, 60),
		usual(mm("toScrewMM", "screws of the unit", 1.6, 4), 2),
		usual(Param{ID: "turnDeg", Label: "the unit turned by", Unit: "°", Least: -90, Most: 90}, 0),
		usual(mm("thickMM", "thickness", 0.8, 10), 2),
		playMM,
		wallMM,
	},
	offer: func(c fleet.Case, v values) {
		v.ofBay(c)
		if u, _, ok := c.AirUnit(); ok && u.Mount != nil && len(u.Mount.Patterns) > 0 {
			v.pattern("to", u.Mount.Patterns[0])
		}
	},
	draw: drawAdapter,
}

// pattern notes the holes of a pattern, and its screw where it is a metric one.
func (v values) pattern(of string, h gear.Holes) {
	v[of+"XMM"], v[of+"YMM"] = float64(h.XMM), float64(h.YMM)
	var size float64
	if _, err := fmt.Sscanf(h.Screw, "M%g", &size); err == nil {
		v[of+"ScrewMM"] = size
	}
}

// ofBay notes the first holes of the bay the unit is planned into.
func (v values) ofBay(c fleet.Case) {
	if frame, ok := c.Frame(); ok {
		if bay, ok := frame.Bay(c.Fit.Bay); ok && len(bay.Patterns) > 0 {
			v.pattern("from", bay.Patterns[0])
		}
	}
}

func drawAdapter(v values) (m Made, problems []Problem) {
	from, wrong := v.through("fromScrewMM")
	to, more := v.through("toScrewMM")
	if problems = append(wrong, more...); len(problems) > 0 {
		return m, problems
	}
	turn := unit.Degrees(v["turnDeg"])
	drills := append(corners(v.mm("fromXMM"), v.mm("fromYMM"), from, 0),
		corners(v.mm("toXMM"), v.mm("toYMM"), to, turn)...)
	edge := unit.Millimetres(edgeDiameters * max(v["fromScrewMM"], v["toScrewMM"]))
	plate, err := plane.Join(
		plane.Rect(0, 0, v.mm("fromXMM")+2*edge, v.mm("fromYMM")+2*edge, edge),
		plane.Rect(0, 0, v.mm("toXMM")+2*edge, v.mm("toYMM")+2*edge, edge).Turned(turn))
	if err != nil {
		return m, []Problem{{Says: err.Error()}}
	}
	sheet, problems := pierced("the plate", v.mm("thickMM"), plate, drills)
	m.Sheets = []Sheet{sheet}
	m.Bodies = []solid.Body{{Shape: sheet.Shape, To: v.mm("thickMM")}}
	m.Notes = []string{fmt.Sprintf("Screws into the unit go through %g mm of plate and no deeper than its threads.",
		v["thickMM"])}
	return m, problems
}

var cameraPlate = part{
	id:    "camera-plate",
	title: "Camera side plate",
	about: "One of a pair that stands on the bottom plate in the place of the frame's cage: as far apart as the " +
		"camera is wide. Print it twice; the foot points outwards.",
	params: []Param{
		mm("cameraMM", "width of the camera", 10, 40),
		mm("heightMM", "middle of the camera over the bottom plate", 5, 40),
		usual(mm("lengthMM", "length along the quad", 6, 50), 20),
		usual(Param{ID: "perSide", Label: "screws of the camera on each side", Least: 1, Most: 2, Whole: true}, 1),
		usual(mm("apartMM", "those two apart", 3, 20), 8),
		usual(mm("screwMM", "screws of the camera", 1.6, 4), 2),
		usual(mm("thickMM", "thickness", 0.8, 6), 2),
		usual(mm("footMM", "width of the foot", 6, 20), 9),
		usual(mm("footScrewMM", "screws of the foot", 1.6, 4), 3),
		usual(mm("footApartMM", "those two apart along the quad", 4, 40), 10),
		playMM,
		wallMM,
	},
	offer: func(c fleet.Case, v values) {
		if on := c.Camera(); on.Camera != nil {
			if on.WidthMM != nil {
				v["cameraMM"] = float64(*on.WidthMM)
			}
			if on.PerSide != nil {
				v["perSide"] = float64(*on.PerSide)
			}
		}
		if frame, ok := c.Frame(); ok && frame.CameraDownMM != nil {
			v["heightMM"] = float64(*frame.CameraDownMM)
		}
	},
	draw: drawCameraPlate,
}

// drawCameraPlate lays the plate flat, as it is printed: its length along x, its height along
// y; the foot stands up along its lower edge.
func drawCameraPlate(v values) (m Made, problems []Problem) {
	hole, wrong := v.through("screwMM")
	foot, more := v.through("footScrewMM")
	if problems = append(wrong, more...); len(problems) > 0 {
		return m, problems
	}
	length, thick, footWide := v.mm("lengthMM"), v.mm("thickMM"), v.mm("footMM")
	over := unit.Millimetres(edgeDiameters * v["screwMM"])
	tall := v.mm("heightMM") + over
	at := []Drill{{0, v.mm("heightMM"), hole}}
	if v["perSide"] == 2 {
		half := v.mm("apartMM") / 2
		at = []Drill{{-half, v.mm("heightMM"), hole}, {half, v.mm("heightMM"), hole}}
	}
	wall, problems := pierced("the side", thick, plane.Rect(0, tall/2, length, tall, 0), at)
	half := v.mm("footApartMM") / 2
	// The foot: across the plate is z from the wall outwards, along is x.
	base, more := pierced("the foot", thick, plane.Rect(0, footWide/2, length, footWide, 0),
		[]Drill{{-half, footWide / 2, foot}, {half, footWide / 2, foot}})
	problems = append(problems, more...)
	if len(problems) > 0 {
		return m, problems
	}
	m.Sheets = []Sheet{wall, base}
	// Drawn out along y its x is z and its y is x: a quarter turn brings the length to x.
	upright := base.Shape.Moved(0, thick).Turned(-90)
	m.Bodies = []solid.Body{
		{Shape: wall.Shape, To: thick},
		{Shape: upright, Along: solid.AlongY, To: thick},
	}
	m.Notes = []string{
		fmt.Sprintf("Two of them stand %g mm apart, the camera's width and half a millimetre of play.", v["cameraMM"]+0.5),
		"Standing on the bottom plate, holes for the feet are drilled into it: mind the edge of the carbon, and its dust.",
	}
	return m, nil
}

var antennaHolder = part{
	id:    "antenna-holder",
	title: "Antenna holder",
	about: "Two arms that spread the antennas and keep them off the carbon. Ties go through the slots.",
	params: []Param{
		usual(Param{ID: "angleDeg", Label: "angle between the antennas", Unit: "°", Least: 20, Most: 140}, 60),
		usual(mm("reachMM", "from the holes to the ends of the arms", 15, 120), 40),
		usual(mm("armMM", "width of an arm", 5, 20), 8),
		usual(mm("holesMM", "its two screws apart", 8, 60), 20),
		usual(mm("screwMM", "its screws", 1.6, 4), 3),
		usual(mm("tipMM", "hole at the end of each arm, 0 for none", 0, 10), 0),
		usual(mm("tieMM", "width of the ties", 1, 6), 2.5),
		usual(mm("thickMM", "thickness", 0.8, 10), 3),
		playMM,
		wallMM,
	},
	offer: func(c fleet.Case, v values) {
		if a := c.Fit.Antennas; a != nil {
			if a.AngleDeg != nil {
				v["angleDeg"] = float64(*a.AngleDeg)
			}
			if a.CarbonMM != nil {
				v["reachMM"] = float64(*a.CarbonMM)
			}
		}
	},
	draw: drawHolder,
}

func drawHolder(v values) (m Made, problems []Problem) {
	hole, problems := v.through("screwMM")
	if len(problems) > 0 {
		return m, problems
	}
	arm, reach, apart := v.mm("armMM"), v.mm("reachMM"), v.mm("holesMM")
	edge := unit.Millimetres(edgeDiameters * v["screwMM"])
	base := plane.Rect(0, 0, apart+2*edge, 2*edge, edge)
	pieces := []plane.Shape{base}
	slots := []plane.Shape{}
	drills := []Drill{{-apart / 2, 0, hole}, {apart / 2, 0, hole}}
	for _, side := range []float64{-1, 1} {
		turn := unit.Degrees(side * v["angleDeg"] / 2)
		from := side * -float64(apart) / 4 // the arms begin beside the middle and spread
		pieces = append(pieces, plane.Rect(0, reach/2, arm, reach+arm, arm/2).Turned(turn).Moved(unit.Millimetres(from), 0))
		tie := v.mm("tieMM") + v.mm("playMM")
		for _, along := range []unit.Millimetres{reach * 0.5, reach * 0.8} {
			for _, across := range []unit.Millimetres{-arm / 4, arm / 4} {
				slots = append(slots, plane.Rect(across, along, 1.2, tie, 0).Turned(turn).Moved(unit.Millimetres(from), 0))
			}
		}
		if v["tipMM"] > 0 {
			tip := corners(0, 2*reach, v.mm("tipMM")+v.mm("playMM"), turn)[0]
			tip.XMM += unit.Millimetres(from)
			drills = append(drills, tip)
		}
	}
	whole, err := plane.Join(pieces...)
	if err != nil {
		return m, []Problem{{Says: err.Error()}}
	}
	sheet, problems := pierced("the holder", v.mm("thickMM"), whole, drills)
	if len(problems) > 0 {
		return m, problems
	}
	if sheet.Shape, err = plane.Cut(sheet.Shape, slots...); err != nil {
		return m, []Problem{{Says: err.Error()}}
	}
	if len(sheet.Shape.Areas()) != 1 {
		problems = append(problems, Problem{"armMM", "the slots cut an arm through: wider arms or narrower ties"})
	}
	m.Sheets = []Sheet{sheet}
	m.Bodies = []solid.Body{{Shape: sheet.Shape, To: v.mm("thickMM")}}
	m.Notes = []string{"Ties hold the antennas, never their solder joints; leave a loop of lead at the plug.",
		"Carbon beside an antenna shields it: keep the ends of the arms as far off as the antennas' sheet asks."}
	return m, problems
}

var unitBracket = part{
	id:    "unit-bracket",
	title: "Unit bracket",
	about: "A floor with the frame's holes and a wall around the unit, open to one side for its plugs.",
	params: []Param{
		mm("unitXMM", "the unit, across", 10, 80),
		mm("unitYMM", "the unit, along", 10, 80),
		usual(mm("wallHighMM", "height of the wall", 1, 40), 6),
		usual(mm("wallThickMM", "thickness of the wall", 0.8, 6), 1.6),
		mm("fromXMM", "holes of the frame, across", 5, 60),
		mm("fromYMM", "holes of the frame, along", 5, 60),
		usual(mm("fromScrewMM", "their screws", 1.6, 4), 2),
		usual(mm("openMM", "opening at the back, 0 for none", 0, 60), 16),
		usual(mm("thickMM", "thickness of the floor", 0.8, 6), 1.6),
		playMM,
		wallMM,
	},
	offer: func(c fleet.Case, v values) {
		v.ofBay(c)
		if u, _, ok := c.AirUnit(); ok && u.Outline != nil {
			if u.Outline.XMM != nil {
				v["unitXMM"] = float64(*u.Outline.XMM)
			}
			if u.Outline.YMM != nil {
				v["unitYMM"] = float64(*u.Outline.YMM)
			}
		}
	},
	draw: drawBracket,
}

func drawBracket(v values) (m Made, problems []Problem) {
	hole, problems := v.through("fromScrewMM")
	if len(problems) > 0 {
		return m, problems
	}
	play, wallThick := v.mm("playMM"), v.mm("wallThickMM")
	inX, inY := v.mm("unitXMM")+2*play, v.mm("unitYMM")+2*play
	outX, outY := inX+2*wallThick, inY+2*wallThick
	edge := unit.Millimetres(edgeDiameters * v["fromScrewMM"])
	floor, err := plane.Join(plane.Rect(0, 0, outX, outY, 0),
		plane.Rect(0, 0, v.mm("fromXMM")+2*edge, v.mm("fromYMM")+2*edge, edge))
	if err != nil {
		return m, []Problem{{Says: err.Error()}}
	}
	base, problems := pierced("the floor", v.mm("thickMM"), floor, corners(v.mm("fromXMM"), v.mm("fromYMM"), hole, 0))
	if len(problems) > 0 {
		return m, problems
	}
	cuts := []plane.Shape{plane.Rect(0, 0, inX, inY, 0)}
	if open := v.mm("openMM"); open > 0 {
		if open >= inX {
			return m, []Problem{{"openMM", "the opening is wider than the unit: nothing would hold it there"}}
		}
		cuts = append(cuts, plane.Rect(0, -outY/2, open, 2*wallThick+1, 0))
	}
	ring, err := plane.Cut(plane.Rect(0, 0, outX, outY, 0), cuts...)
	if err != nil {
		return m, []Problem{{Says: err.Error()}}
	}
	for _, d := range base.Drills { // a screw's head under the wall
		if over, err := plane.Cut(ring, plane.Disc(d.XMM, d.YMM, d.DiameterMM)); err == nil &&
			over.AreaMM2() < ring.AreaMM2()-0.01 {
			problems = append(problems, Problem{"unitXMM", "the wall stands over a hole of the frame: another way to hold it, " +
				"or another place"})
			break
		}
	}
	m.Sheets = []Sheet{base, {Name: "the wall", ThickMM: v.mm("wallHighMM"), Shape: ring}}
	m.Bodies = []solid.Body{
		{Shape: base.Shape, To: v.mm("thickMM")},
		{Shape: ring, From: v.mm("thickMM"), To: v.mm("thickMM") + v.mm("wallHighMM")},
	}
	m.Notes = []string{"A strap or a tie goes over the unit: the wall alone keeps it from sliding.",
		"The unit gets hot: print it of something that stands 90 °C and more, and leave air over it."}
	return m, problems
}
