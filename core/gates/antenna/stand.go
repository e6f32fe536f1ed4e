package antenna

import (
	"fmt"
	"math"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/space"
	"yokeswap/core/measure/unit"
)

// standing is how the antennas stand to each other and to carbon: as it follows from where each
// stands, else as it is stated; nil: not known.
type standing struct {
	angle  *unit.Degrees
	carbon *unit.Millimetres
	// block is the nearest plate where no outline of it is drawn; empty: it is, or nobody has said where
	// they stand.
	block string
}

// standing works out how the antennas stand. missing is what that cannot be told without, where
// it is said where they stand.
func (p *pair) standing() (s standing, missing []verdict.Missing) {
	a := p.Fit.Antennas
	if len(a.Stands) == 0 {
		return standing{angle: a.AngleDeg, carbon: a.CarbonMM}, nil
	}
	list, whole := p.Standings()
	if !whole {
		return s, []verdict.Missing{verdict.FitValue(p.Case, "antennas.stands",
			"where each antenna of "+p.Quad.Label()+" stands")}
	}
	for i := range list {
		if list[i].Rod == nil {
			missing = append(missing, verdict.GearValue(&list[i].Entry, "rodMM", "length and diameter beyond its foot"))
			return s, missing
		}
		for k := range i {
			between := unit.Degrees(math.Round(float64(list[i].Rod.Between(*list[k].Rod))))
			if s.angle == nil || between < *s.angle {
				s.angle = &between
			}
		}
	}
	plates, missing := p.plates()
	if len(missing) > 0 {
		return s, missing
	}
	least := math.Inf(1)
	for k, on := range p.PlatesOn() {
		for i := range list {
			apart := max(0, list[i].Radiating().ApartFromSlab(plates[k])-list[i].Rod.Radius)
			if apart >= least {
				continue
			}
			if least, s.block = apart, ""; len(on.Outline) == 0 {
				s.block = on.Label()
			}
		}
	}
	s.carbon = new(unit.Millimetres(math.Round(least*10) / 10))
	return s, nil
}

// plates are those of the frame.
func (p *pair) plates() (list []space.Slab, missing []verdict.Missing) {
	frame, ok := p.Frame()
	if !ok {
		return nil, []verdict.Missing{verdict.FitValue(p.Case, "frame", "frame of "+p.Quad.Label())}
	}
	if len(frame.Plates) == 0 {
		return nil, []verdict.Missing{verdict.GearValue(&frame.Entry, "plates", "plates")}
	}
	for _, plate := range p.PlatesOn() {
		slab, known := plate.Slab()
		if !known {
			return nil, []verdict.Missing{verdict.GearValue(&frame.Entry, "plates."+plate.ID,
				"width, height and thickness of its "+plate.Label())}
		}
		list = append(list, slab)
	}
	return list, nil
}

// How far what is written down may be from where the antennas stand (from memory).
const (
	writtenAngle  unit.Degrees     = 5
	writtenCarbon unit.Millimetres = 5
)

// otherwise says where what is written down differs from where they stand.
func (s standing) otherwise(a *fleet.Antennas) (list []string) {
	if s.angle != nil && a.AngleDeg != nil && math.Abs(float64(*s.angle-*a.AngleDeg)) > float64(writtenAngle) {
		list = append(list, fmt.Sprintf("Written down is an angle of %s between the antennas; as they stand it is %.0f°.",
			a.AngleDeg, float64(*s.angle)))
	}
	if s.carbon != nil && a.CarbonMM != nil && math.Abs(float64(*s.carbon-*a.CarbonMM)) > float64(writtenCarbon) {
		list = append(list, fmt.Sprintf("Written down are %s to carbon; as they stand it is %s.", a.CarbonMM, s.carbon))
	}
	return list
}

// secured says what the antennas would lose in a crash; asked for where it is said where they
// stand. What nobody has said is no better than what is not done.
func secured(a *fleet.Antennas) string {
	if len(a.Stands) == 0 {
		return ""
	}
	yes := func(b *bool) bool { return b != nil && *b }
	var lacks []string
	if !yes(a.Locked) {
		lacks = append(lacks, "their plugs are not locked: glue, a clip or a clamp keeps them on")
	}
	if !yes(a.Relief) {
		lacks = append(lacks, "their leads have no strain relief: tie them down before the plug")
	}
	switch a.Gives {
	case fleet.GivesHolder, fleet.GivesPlug, fleet.GivesLead:
	case fleet.GivesSocket:
		lacks = append(lacks, "in a crash the unit's own socket gives: let the holder or the plug give before it")
	default:
		lacks = append(lacks, "nobody has said what gives first in a crash: let it be the holder or the plug, not the "+
			"unit's socket")
	}
	if len(lacks) == 0 {
		return ""
	}
	return "Antennas: " + strings.Join(lacks, "; ") + "."
}

// drawn says what the outline of the nearest plate would tell; empty: it is drawn.
func (s standing) drawn() string {
	if s.block == "" {
		return ""
	}
	return fmt.Sprintf(" No outline of its %s is drawn: it counts as a full block, and with an outline they may be "+
		"further off.", s.block)
}
