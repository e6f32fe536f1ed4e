package mount

import (
	"fmt"
	"math"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

// Rod is an antenna where it stands.
type Rod struct {
	Label      string              `json:"label"`
	Foot       [3]unit.Millimetres `json:"foot"` // x forward, y to the left, z up
	Tip        [3]unit.Millimetres `json:"tip"`
	DiameterMM unit.Millimetres    `json:"diameterMM"`
	Clashes    bool                `json:"clashes"`
	Stand      fleet.Stand         `json:"stand"`
	Lies       string              `json:"lies"` // in words
	// Lead is the way of its lead; absent: that cannot be told.
	Lead *LeadWay `json:"lead,omitempty"`

	rod space.Rod
}

// LeadWay is what the lead of an antenna has to do.
type LeadWay struct {
	NeedMM   unit.Millimetres  `json:"needMM"`
	HasMM    *unit.Millimetres `json:"hasMM,omitempty"`
	RadiusMM unit.Millimetres  `json:"radiusMM"` // it is bent around
	LeastMM  unit.Millimetres  `json:"leastMM"`  // it may be bent around
}

// rods are the antennas where they stand, with what is not stated of them; none where nobody has
// said where.
func (s *seat) rods() (list []Rod, missing []verdict.Missing) {
	standings, whole := s.Standings()
	if len(standings) == 0 {
		return nil, nil // the antenna gate asks for them
	}
	if !whole {
		missing = append(missing, verdict.FitValue(s.Case, "antennas.stands",
			"where each antenna of "+s.Quad.Label()+" stands"))
	}
	for i, on := range standings {
		if on.Rod == nil {
			missing = append(missing, verdict.GearValue(&on.Entry, "rodMM", "length and diameter beyond its foot"))
			continue
		}
		rod := Rod{Label: on.Label(), Stand: on.Stand, DiameterMM: *on.RodDiameterMM, rod: *on.Rod}
		for k := range 3 {
			rod.Foot[k], rod.Tip[k] = unit.Millimetres(on.Rod.Foot[k]), unit.Millimetres(on.Rod.Tip[k])
		}
		if way, lacks := s.leadWay(i, &on); len(lacks) == 0 {
			rod.Lead = way
		}
		list = append(list, rod)
	}
	return list, once(missing)
}

// stands says whether it is said where antennas stand.
func (s *seat) stands() bool { return s.Fit.Antennas != nil && len(s.Fit.Antennas.Stands) > 0 }

// nextStand is where the next antenna without a place could stand: behind all that lies there, low,
// pointing up and back, away from the one before (common practice: two about 60° apart).
func (s *seat) nextStand(r *Room) *fleet.StandAt {
	a := s.Fit.Antennas
	if a == nil || len(a.Stands) >= len(a.Models) {
		return nil
	}
	tail := unit.Millimetres(0)
	for i := range r.Blocks {
		tail = min(tail, r.Blocks[i].Min[space.X])
	}
	n := len(a.Stands)
	next := fleet.StandAt{Antenna: n + 1, Stand: fleet.Stand{XMM: tail - 10, YMM: 15, ZMM: 15, TurnDeg: 145, RiseDeg: 30}}
	if n%2 != 0 {
		next.YMM, next.TurnDeg = -next.YMM, -next.TurnDeg
	}
	return &next
}

// outlet is where the plug of an antenna lies and the way it comes off; missing is what that
// cannot be told without.
func (s *seat) outlet(i int) (at, off [3]float64, missing []verdict.Missing) {
	if !s.hasUnit {
		missing = append(missing, verdict.FitValue(s.Case, "airUnit", "digital air unit of "+s.Quad.Label()))
		return at, off, missing
	}
	place, placed := s.Fit.PlaceOf(fleet.NodeAirUnit)
	if !placed {
		missing = append(missing, verdict.FitValue(s.Case, "places", "where "+s.airUnit.Label()+" lies"))
	}
	if s.airUnit.Radio == nil || i >= len(s.airUnit.Radio.Outlets) {
		missing = append(missing, s.unitValue("radio.outlets", "where its antenna plugs lie"))
	}
	if len(missing) > 0 {
		return at, off, missing
	}
	o := s.airUnit.Radio.Outlets[i]
	sin, cos := math.Sincos(float64(place.Quarters) * math.Pi / 2)
	x, y := float64(o.XMM), float64(o.YMM)
	at = [3]float64{float64(place.XMM) + cos*x - sin*y, float64(place.YMM) + sin*x + cos*y, float64(place.ZMM + o.ZMM)}
	side := sides[turned(o.Side, place.Quarters)]
	off[side.axis] = float64(side.way)
	return at, off, nil
}

// plug is the rigid end of an antenna, of itself or of the adapter on it, as it lies on its
// outlet: a straight one stands off it, a right-angled one lies along the case, to where the
// antenna is.
func (s *seat) plug(i int, on *fleet.Standing) (rod space.Rod, leaves [3]float64, missing []verdict.Missing) {
	at, off, missing := s.outlet(i)
	of, barrel, angled := &on.Entry, on.BarrelMM, on.RightAngle
	if adapter, ok := gear.Find[*gear.Adapter](s.Library, s.Fit.Antennas.Adapter); ok {
		of, barrel, angled = &adapter.Entry, adapter.BarrelMM, adapter.RightAngle
	}
	if barrel == nil {
		missing = append(missing, verdict.GearValue(of, "barrelMM", "length of the barrel"))
	}
	if angled == nil {
		missing = append(missing, verdict.GearValue(of, "rightAngle", "plug, straight or right-angled"))
	}
	if len(missing) > 0 {
		return rod, leaves, missing
	}
	leaves = off
	if *angled {
		foot := [3]float64{float64(on.Stand.XMM), float64(on.Stand.YMM), float64(on.Stand.ZMM)}
		leaves = along(at, foot, off)
	}
	rod = space.Rod{Foot: at, Radius: plugRadius}
	for k := range 3 {
		rod.Tip[k] = at[k] + float64(*barrel)*leaves[k]
	}
	return rod, leaves, nil
}

// plugRadius is half the thickness of a small coax plug (from memory).
const plugRadius = 1.5

// along is the way from one place to another as far as it lies across a direction; any where it
// does not.
func along(from, to, off [3]float64) (way [3]float64) {
	var on, square float64
	for k := range 3 {
		way[k] = to[k] - from[k]
		on += way[k] * off[k]
	}
	for k := range 3 {
		way[k] -= on * off[k]
		square += way[k] * way[k]
	}
	if square < 1e-9 {
		return [3]float64{off[2], off[0], off[1]} // off lies along an axis
	}
	for k := range 3 {
		way[k] /= math.Sqrt(square)
	}
	return way
}

// leadWay is what the lead of an antenna has to do from its plug to its foot.
func (s *seat) leadWay(i int, on *fleet.Standing) (*LeadWay, []verdict.Missing) {
	plug, leaves, missing := s.plug(i, on)
	if on.BendMM == nil {
		missing = append(missing, verdict.GearValue(&on.Entry, "bendMM", "least radius of its lead"))
	}
	if on.LeadMM == nil {
		missing = append(missing, verdict.GearValue(&on.Entry, "leadMM", "length of the lead"))
	}
	if len(missing) > 0 {
		return nil, missing
	}
	stand := on.Stand
	lead := space.Lead{From: plug.Tip, Leaves: leaves, Radius: float64(*on.BendMM),
		To:      [3]float64{float64(stand.XMM), float64(stand.YMM), float64(stand.ZMM)},
		Arrives: space.Direction(stand.TurnDeg, stand.RiseDeg)}
	long, radius := lead.Way()
	return &LeadWay{NeedMM: unit.Millimetres(long), HasMM: on.LeadMM, RadiusMM: unit.Millimetres(radius),
		LeastMM: *on.BendMM}, nil
}

// checkStanding asks whether the leads of antennas reach where they stand, are bent no tighter
// than they may be, and whether their plugs have room.
func (s *seat) checkStanding(r *Room) (findings []verdict.Finding) {
	standings, _ := s.Standings()
	var missing []verdict.Missing
	for i := range standings {
		on := &standings[i]
		if on.LeadMM != nil && *on.LeadMM == 0 {
			continue // it stands on its plug
		}
		plug, _, lacks := s.plug(i, on)
		if len(lacks) == 0 {
			findings = append(findings, r.checkPlugRoom(on, plug)...)
			if on.LeadMM != nil {
				findings = append(findings, r.checkLeadThrough(on, plug)...)
			}
		}
		way, lacks := s.leadWay(i, on)
		missing = append(missing, lacks...)
		if len(lacks) == 0 {
			findings = append(findings, way.check(on.Label())...)
		}
	}
	if len(missing) > 0 {
		findings = append(findings, verdict.CannotTell(verdict.Mount, CodeLead, s.Quad.Label(), once(missing)...))
	}
	return toldOnce(findings)
}

// toldOnce leaves out what is told of another of the same model already.
func toldOnce(findings []verdict.Finding) (list []verdict.Finding) {
	for _, f := range findings {
		if !slices.ContainsFunc(list, func(g verdict.Finding) bool { return g.Says == f.Says }) {
			list = append(list, f)
		}
	}
	return list
}

// otherAntennas are the antennas that go straight onto the unit, where those of the plan do not
// lie as they stand.
func (s *seat) otherAntennas() (list []fleet.Antennas) {
	if !s.stands() || s.airUnit.Radio == nil {
		return nil
	}
	r, _ := s.room()
	if !slices.ContainsFunc(s.checkStanding(&r), func(f verdict.Finding) bool { return f.Level == verdict.Unfit }) {
		return nil
	}
	for _, a := range gear.All[*gear.Antenna](s.Library) {
		if !a.Onto(&s.airUnit.Radio.AntennaPort) || slices.Contains(s.Fit.Antennas.Models, a.ID) {
			continue
		}
		models := slices.Repeat([]string{a.ID}, len(s.Fit.Antennas.Models))
		list = append(list, s.Fit.Antennas.Carrying(models, ""))
	}
	return list
}

// check holds the way of a lead against the lead.
func (w *LeadWay) check(label string) (findings []verdict.Finding) {
	if unit.Over(w.NeedMM, *w.HasMM) {
		findings = append(findings, verdict.Finding{Code: CodeLead, Level: verdict.Unfit, Source: verdict.Practice,
			Compares: []verdict.Compare{{
				What:   "antenna lead",
				Needed: fmt.Sprintf("%.0f mm with bends", float64(w.NeedMM)),
				There:  w.HasMM.String(),
			}},
			Says: fmt.Sprintf("The lead of %s is %s; from its plug to its foot it wants %.0f mm with its bends.", label,
				w.HasMM, float64(w.NeedMM))})
	}
	if unit.Over(w.LeastMM, w.RadiusMM) {
		findings = append(findings, verdict.Finding{Code: CodeBend, Level: verdict.Caution, Source: verdict.Practice,
			Compares: []verdict.Compare{{
				What:   "bend of the lead",
				Needed: w.LeastMM.String(),
				There:  fmt.Sprintf("%.1f mm", float64(w.RadiusMM)),
			}},
			Says: fmt.Sprintf("The lead of %s is bent around %.1f mm between plug and foot, it may be around %s: it kinks; "+
				"turn the antenna, or put its foot further off.", label, float64(w.RadiusMM), w.LeastMM)})
	}
	return findings
}

// checkPlugRoom asks whether anything lies where a plug goes.
func (r *Room) checkPlugRoom(on *fleet.Standing, plug space.Rod) (findings []verdict.Finding) {
	for i := range r.Blocks {
		b := &r.Blocks[i]
		if b.Part == fleet.NodeAirUnit {
			continue
		}
		if in := b.struckBy(plug); in > 0 {
			kind, other := "straight", "a right-angled one lies along the case."
			if on.RightAngle != nil && *on.RightAngle {
				kind, other = "right-angled", "a straight one stands off the case."
			}
			findings = append(findings, verdict.Finding{Code: CodePlugRoom, Level: verdict.Unfit, Source: verdict.Practice,
				Subject: on.Label(), Part: b.Part,
				Says: fmt.Sprintf("The %s plug of %s does not go on: %s is in its way; %s%s", kind, on.Label(), b.Label, other,
					b.drawn())})
		}
	}
	return findings
}

// crossings says what antennas run into, and which of them a propeller strikes.
func (r *Room) crossings() (findings []verdict.Finding) {
	for i := range r.Rods {
		rod := &r.Rods[i]
		for k := range r.Blocks {
			if b := &r.Blocks[k]; b.struckBy(rod.rod) > 0 && !rod.footOn(b) {
				rod.Clashes, b.Clashes = true, b.Part != ""
				findings = append(findings, verdict.Finding{Code: CodeRoom, Level: verdict.Unfit, Source: verdict.Practice,
					Subject: rod.Label, Part: b.Part,
					Says: fmt.Sprintf("%s and %s want the same room: turn the antenna or move its foot.%s", rod.Label, b.Label,
						b.drawn())})
			}
		}
		for k := range r.Rounds {
			round := &r.Rounds[k]
			if rod.rod.InDisc(round.disc) == 0 {
				continue
			}
			rod.Clashes, round.Clashes = true, true
			f := verdict.Finding{Code: CodeStruck, Level: verdict.Unfit, Source: verdict.Practice, Subject: rod.Label,
				Says: fmt.Sprintf("%s stands in what %s sweeps: it is struck when the motors start.", rod.Label, round.Label)}
			if !round.Propeller {
				f.Code, f.Says = CodeRoom, fmt.Sprintf("%s and %s want the same room: turn the antenna or move its foot.",
					rod.Label, round.Label)
			}
			findings = append(findings, f)
		}
	}
	return findings
}

// footOn says whether an antenna stands on a block of the frame, or in an opening of it: it is fixed there.
func (r *Rod) footOn(b *Block) bool {
	foot := space.Rod{Foot: r.rod.Foot, Tip: r.rod.Foot, Radius: r.rod.Radius}
	return b.Part == "" && foot.In(b.box) > 0
}
