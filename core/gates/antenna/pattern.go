package antenna

import (
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/radio"
	"yokeswap/core/measure/unit"
)

// off is how much weaker an antenna is away from its strongest direction, and
// whether that is stated or only follows from the width of its beam; ok is false
// where neither is.
func off(a *gear.Antenna, by unit.Degrees) (loss unit.Decibels, stated, ok bool) {
	switch {
	case len(a.Pattern) > 0:
		return between(a.Pattern, by), true, true
	case a.BeamDeg == nil:
		return 0, false, false
	}
	return radio.BeamLoss(*a.BeamDeg, by), *a.BeamDeg >= 2*allRound, true
}

// between reads a pattern, straight from point to point and flat beyond its ends.
func between(points []gear.PatternPoint, by unit.Degrees) unit.Decibels {
	last := points[0]
	for _, p := range points {
		if p.OffDeg >= by {
			if p.OffDeg == last.OffDeg || by <= last.OffDeg {
				return p.DB
			}
			return last.DB + (p.DB-last.DB)*unit.Decibels((by-last.OffDeg)/(p.OffDeg-last.OffDeg))
		}
		last = p
	}
	return last.DB
}

// behind is the most an end does on a band straight behind it; false where the
// antenna that does it is not stated well enough to tell.
func (e *end) behind(b gear.Band) (best unit.Decibels, known bool) {
	for i, a := range e.antennas {
		g := gain(a, b)
		loss, stated, ok := off(a, 180)
		if g == nil || !ok {
			return 0, false
		}
		if does := *g + loss; i == 0 || does > best {
			best, known = does, stated
		}
	}
	return best, known
}

// directed says whether every antenna of an end looks one way.
func (e *end) directed() bool {
	for _, a := range e.antennas {
		if a.BeamDeg == nil || *a.BeamDeg >= allRound {
			return false
		}
	}
	return len(e.antennas) > 0
}

// patternStep is how far apart the points of a drawn pattern lie.
const patternStep unit.Degrees = 10

// drawPattern gives a pattern every ten degrees from 0 to 180, and where it is
// from; nil where nothing is stated.
func drawPattern(a *gear.Antenna) (points []unit.Decibels, from string) {
	for by := unit.Degrees(0); by <= 180; by += patternStep {
		loss, _, ok := off(a, by)
		if !ok {
			return nil, ""
		}
		points = append(points, loss)
	}
	switch {
	case len(a.Pattern) > 0:
		from = "as stated"
	case *a.BeamDeg >= 2*allRound:
		from = "all round"
	default:
		from = "from its beam width"
	}
	return points, from
}
