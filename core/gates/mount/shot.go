package mount

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

// Shot is what the camera sees of its own quad, at the tilt it is flown at.
type Shot struct {
	TiltDeg  unit.Degrees        `json:"tiltDeg"`
	ViewXDeg unit.Degrees        `json:"viewXDeg"`
	ViewYDeg unit.Degrees        `json:"viewYDeg"`
	Lens     [3]unit.Millimetres `json:"lens"` // where it is: x forward, y to the left, z up
	Turned   unit.Degrees        `json:"turned"`
	// Seen is what lies in the picture, the farthest first.
	Seen  []Seen `json:"seen"`
	Frees string `json:"frees"` // in words: how it is got out of the shot; empty: nothing is in it
	Says  string `json:"says"`
}

// Seen is something of the quad in the picture.
type Seen struct {
	Label string `json:"label"`
	// Outlines in the picture, of each of its pieces: right and up from its middle, its edges at 1 and −1.
	Outlines [][][2]float64 `json:"outlines"`
	Where    string         `json:"where"` // "at the upper edge (6 % of the picture)"

	far float64
}

// lookAhead is how far forward a camera is tried, in millimetres.
const lookAhead unit.Millimetres = 150

// view is where the camera looks from; what is missing of it where that cannot be told. A
// camera without a place is not asked.
func (s *seat) view() (v space.View, placed bool, missing []verdict.Missing) {
	place, placed := s.Fit.PlaceOf(fleet.NodeCamera)
	cam := s.camera.Camera
	if !placed || cam == nil {
		return v, false, nil
	}
	need := func(there bool, what verdict.Missing) {
		if !there {
			missing = append(missing, what)
		}
	}
	need(cam.ViewXDeg != nil, s.cameraValue("viewXDeg", "how wide its camera sees"))
	need(cam.ViewYDeg != nil, s.cameraValue("viewYDeg", "how high its camera sees"))
	need(cam.LensMM != nil, s.cameraValue("lensMM", "how far its lens stands out"))
	need(s.Fit.TiltDeg != nil, verdict.FitValue(s.Case, "tiltDeg", "tilt the camera of "+s.Quad.Label()+" is flown at"))
	need(cam.FrontMM != nil, s.cameraValue("frontMM", "front of the camera's body"))
	need(cam.BackMM != nil, s.cameraValue("backMM", "back of the camera"))
	need(cam.HeightMM != nil, s.cameraValue("heightMM", "height of the camera"))
	if len(missing) > 0 {
		return v, true, missing
	}
	// The camera tilts around its screws, which lie halfway up its body.
	v = space.View{Turn: unit.Degrees(90 * place.Quarters), Up: *s.Fit.TiltDeg, Wide: *cam.ViewXDeg, High: *cam.ViewYDeg,
		From: [3]unit.Millimetres{place.XMM, place.YMM, place.ZMM + *cam.HeightMM/2}}
	sin, cos := math.Sincos(float64(v.Up) * math.Pi / 180)
	v = v.Moved((*cam.BackMM-*cam.FrontMM)/2 + *cam.LensMM*unit.Millimetres(cos))
	v.From[space.Z] += *cam.LensMM * unit.Millimetres(sin)
	return v, true, nil
}

// shot is what the camera sees of a room; nil where it has no place, or that cannot be told.
func (s *seat) shot(r *Room) (*Shot, []verdict.Missing) {
	v, placed, missing := s.view()
	if !placed || len(missing) > 0 {
		return nil, missing
	}
	shot := &Shot{TiltDeg: v.Up, ViewXDeg: v.Wide, ViewYDeg: v.High, Turned: v.Turn, Lens: v.From, Seen: []Seen{}}
	free, frees := unit.Millimetres(0), true
	look := func(label string, body ...space.Solid) {
		seen := Seen{Label: label}
		for _, piece := range body {
			look := v.Look(piece)
			outline := look.Seen()
			if outline == nil {
				continue
			}
			seen.Outlines, seen.far = append(seen.Outlines, outline), max(seen.far, away(v, piece))
			if frees {
				var own unit.Millimetres
				own, frees = look.FreeAfter(lookAhead)
				free = max(free, own)
			}
		}
		if len(seen.Outlines) > 0 {
			seen.Where = edgeOf(slices.Concat(seen.Outlines...)) + " (" + percent(100*space.Share(seen.Outlines...)) +
				" of the picture)"
			shot.Seen = append(shot.Seen, seen)
		}
	}
	for i := range r.Blocks {
		if b := &r.Blocks[i]; b.Part != fleet.NodeCamera {
			look(b.Label, b.solids()...)
		}
	}
	for i := range r.Rounds {
		if disc := r.Rounds[i].disc; !v.Misses(disc.Reach()) {
			look(r.Rounds[i].Label, disc.Solid())
		}
	}
	for i := range r.Rods {
		look(r.Rods[i].Label, r.Rods[i].rod.Solid())
	}
	slices.SortStableFunc(shot.Seen, func(a, b Seen) int { return cmp.Compare(b.far, a.far) })
	if len(shot.Seen) > 0 {
		shot.Frees = s.freed(free, frees)
	}
	shot.Says = shot.words()
	return shot, nil
}

// solids are a block as bodies: of a plate, its pieces.
func (b *Block) solids() []space.Solid {
	if b.slab != nil {
		return b.slab.Solids()
	}
	return []space.Solid{b.box.Solid()}
}

// away is how far the middle of a body is from the lens, to the micrometre: what is as far on either
// side stays in its order.
func away(v space.View, body space.Solid) (square float64) {
	for i, at := range body.Middle() {
		square += (at - float64(v.From[i])) * (at - float64(v.From[i]))
	}
	return math.Round(math.Sqrt(square)*1000) / 1000
}

// edgeOf says where in the picture an outline lies: at the edges it meets.
func edgeOf(outline [][2]float64) string {
	const edge = 1 - 1e-6
	var up, down, left, right bool
	for _, c := range outline {
		right, left = right || c[0] > edge, left || c[0] < -edge
		up, down = up || c[1] > edge, down || c[1] < -edge
	}
	var edges []string
	for _, e := range []struct {
		only bool
		word string
	}{{up && !down, "upper"}, {down && !up, "lower"}, {left && !right, "left"}, {right && !left, "right"}} {
		if e.only {
			edges = append(edges, e.word)
		}
	}
	switch {
	case len(edges) > 0:
		return "at the " + strings.Join(edges, " ") + " edge"
	case up || left:
		return "across the picture"
	}
	return "in the picture"
}

// words say what is in the shot and how it is got out of it.
func (s *Shot) words() string {
	at := fmt.Sprintf("Tilted by %s the camera sees", s.TiltDeg)
	if len(s.Seen) == 0 {
		return at + " nothing of its quad."
	}
	var seen []string
	for i := len(s.Seen) - 1; i >= 0; i-- { // the nearest first
		words := s.Seen[i].Label + " " + s.Seen[i].Where
		if !slices.Contains(seen, words) {
			seen = append(seen, words)
		}
	}
	return fmt.Sprintf("%s %s. %s", at, change.And(seen), s.Frees)
}

// freed says how far forward a camera sees nothing of its quad, and what its cage then does.
func (s *seat) freed(after unit.Millimetres, frees bool) string {
	if !frees {
		return fmt.Sprintf("No way forward, up to %s, frees it.", lookAhead)
	}
	way := fmt.Sprintf("Moved %.1f mm forward it sees none of it", math.Ceil(float64(after)*10)/10)
	if s.frame == nil || s.frame.GuardMM == nil {
		return way + "."
	}
	if guard := unit.Less(unit.Less(*s.frame.GuardMM, *s.camera.LensMM), after); guard < 0 {
		return way + fmt.Sprintf(", and the lens stands %.1f mm out before the cage: the first crash lands on it.", -guard)
	}
	return way + ", and the cage still guards the lens."
}

func percent(share float64) string {
	if share < 1 {
		return "under 1 %"
	}
	return fmt.Sprintf("%.0f %%", share)
}

// checkShot says what of the quad is in its camera's shot.
func (s *seat) checkShot(r *Room) []verdict.Finding {
	shot, missing := s.shot(r)
	switch {
	case len(missing) > 0:
		return []verdict.Finding{verdict.CannotTell(verdict.Mount, CodeShot, s.Quad.Label(), missing...)}
	case shot == nil || len(shot.Seen) == 0:
		return nil
	}
	return []verdict.Finding{{Code: CodeShot, Level: verdict.Caution, Source: verdict.Practice, Subject: "the camera",
		Part: fleet.NodeCamera, Says: shot.Says}}
}
