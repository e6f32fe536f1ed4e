package control

import (
	"errors"
	"fmt"
	"maps"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
)

// Sample is what a flight board said while a switch was flipped.
type Sample struct {
	Channels []int   `json:"channels"` // in µs, the sticks first
	Armed    bool    `json:"armed"`
	Volts    float64 `json:"volts"`
	Held     bool    `json:"held,omitempty"` // the board holds its arming off
}

// Flip is a switch that was found by flipping it.
type Flip struct {
	Aux       int          `json:"aux"`       // from 1
	Positions []int        `json:"positions"` // where it stood, in µs, lowest first
	Range     fleet.Switch `json:"range"`     // around the position it was flipped to
	Says      string       `json:"says"`
}

const (
	// leastFlipUS is how far a channel goes where its switch is flipped; what moves less is
	// a jitter (common practice; the value is from memory).
	leastFlipUS = 200
	// samePositionUS is how far apart two readings of one position may lie (from memory).
	samePositionUS = 100
	// packVolts is what no board on USB alone reads: more is a pack (from memory).
	packVolts = 5.5
)

// What keeps a switch from being found.
var (
	ErrArmed   = errors.New("the board is armed: disarm it, props off, and begin again")
	ErrPack    = errors.New("a pack is connected: unplug it and begin again, on USB alone")
	ErrNotHeld = errors.New("the board does not hold its arming off: a flipped switch could start the motors; have it " +
		"held, or type the range")
	ErrNoFlip    = errors.New("no switch moved: flip it from end to end")
	ErrManyFlips = errors.New("several switches moved")
)

// FindFlip finds the auxiliary channel that went from one position to another, and the
// range around where it ended: to halfway between that position and its neighbours, in the
// board's steps. It refuses what was read while the board was armed, on a pack, or free to
// arm.
func FindFlip(mode string, samples []Sample) (Flip, error) {
	longest := 0
	for _, s := range samples {
		switch {
		case s.Armed:
			return Flip{}, ErrArmed
		case s.Volts > packVolts:
			return Flip{}, ErrPack
		case !s.Held:
			return Flip{}, ErrNotHeld
		}
		longest = max(longest, len(s.Channels))
	}
	var found []Flip
	for at := sticks; at < longest; at++ {
		var readings []int
		for _, s := range samples {
			if at < len(s.Channels) {
				readings = append(readings, s.Channels[at])
			}
		}
		if slices.Max(readings)-slices.Min(readings) >= leastFlipUS {
			found = append(found, newFlip(mode, at-sticks+1, readings))
		}
	}
	switch len(found) {
	case 0:
		return Flip{}, ErrNoFlip
	case 1:
		return found[0], nil
	}
	names := make([]string, len(found))
	for i, f := range found {
		names[i] = fmt.Sprintf("AUX %d", f.Aux)
	}
	return Flip{}, fmt.Errorf("%w, %s: flip one alone", ErrManyFlips, change.And(names))
}

func newFlip(mode string, aux int, readings []int) Flip {
	positions := positionsOf(readings)
	last := nearest(positions, readings[len(readings)-1])
	if first := nearest(positions, readings[0]); first == last { // flipped there and back
		last = farthest(positions, positions[first])
	}
	from, to := 900, 2100
	if last > 0 {
		from = BoardSteps((positions[last-1] + positions[last]) / 2)
	}
	if last < len(positions)-1 {
		to = BoardSteps((positions[last] + positions[last+1]) / 2)
	}
	f := Flip{Aux: aux, Positions: positions, Range: fleet.Switch{Mode: mode, Aux: aux, FromUS: from, ToUS: to}}
	f.Says = fmt.Sprintf("AUX %d moved, between %d and %d µs: %s is on from %d to %d.", aux, positions[0],
		positions[len(positions)-1], modeWords(mode), from, to)
	return f
}

// positionsOf are the places a switch stood at: readings that lie close are one.
func positionsOf(readings []int) (positions []int) {
	sorted := slices.Clone(readings)
	slices.Sort(sorted)
	start := 0
	for i := 1; i <= len(sorted); i++ {
		if i == len(sorted) || sorted[i]-sorted[i-1] > samePositionUS {
			positions = append(positions, sorted[(start+i-1)/2])
			start = i
		}
	}
	return positions
}

// nearest is the place of the position next to a reading.
func nearest(positions []int, us int) (at int) {
	for i, p := range positions {
		if max(p-us, us-p) < max(positions[at]-us, us-positions[at]) {
			at = i
		}
	}
	return at
}

// farthest is the place of the position farthest from another.
func farthest(positions []int, us int) (at int) {
	for i, p := range positions {
		if max(p-us, us-p) > max(positions[at]-us, us-positions[at]) {
			at = i
		}
	}
	return at
}

// Modes are the ids of the modes that the flight firmware of a fit has, in order; none where
// it is not stated.
func Modes(c fleet.Case) []string {
	modes := []string{}
	if runs := c.Fit.Runs; runs != nil {
		if firmware, ok := gear.Find[*gear.FlightFirmware](c.Library, runs.ID); ok {
			modes = slices.AppendSeq(modes, maps.Keys(firmware.Modes))
		}
	}
	slices.Sort(modes)
	return modes
}

// Putting is a mode put on a range, and what the gate says of that range.
type Putting struct {
	Patch    fleet.Patch       `json:"patch"`
	Findings []verdict.Finding `json:"findings" doc:"what the range brings: what was said before it is not said again"`
	Refused  bool              `json:"refused" doc:"the range does not fit: it is not put into the plan"`
}

// Put is the sticks of a fit with a mode on another range. Only what the range brings is
// held against it: what is wrong without any switch for the mode is not its fault. Where
// the fit states no sticks there is nothing to put it into.
func Put(c fleet.Case, s fleet.Switch) (Putting, bool) {
	if c.Fit.Sticks == nil {
		return Putting{}, false
	}
	without := *c.Fit.Sticks
	without.Switches = slices.DeleteFunc(
		slices.Clone(without.Switches),
		func(o fleet.Switch) bool { return o.Mode == s.Mode },
	)
	next := without
	next.Switches = append(slices.Clone(without.Switches), s)
	p := Putting{Patch: fleet.Patch{Sticks: &next}, Findings: []verdict.Finding{}}
	for _, f := range brought(c.With(fleet.Patch{Sticks: &without}), c.With(p.Patch)) {
		p.Findings = append(p.Findings, f)
		p.Refused = p.Refused || f.Level == verdict.Unfit
	}
	return p, true
}

// brought is what the switches of a fit bring that those of another do not; what cannot be
// told where something of the way of the sticks is not stated.
func brought(before, after fleet.Case) []verdict.Finding {
	h, ok := newHands(after)
	if !ok || len(h.missing) > 0 {
		return Check(after)
	}
	was, _ := newHands(before)
	said := was.checkSwitches()
	findings := slices.DeleteFunc(h.checkSwitches(), func(f verdict.Finding) bool {
		return slices.ContainsFunc(said, func(b verdict.Finding) bool { return b.Code == f.Code && b.Says == f.Says })
	})
	return verdict.Complete(verdict.Control, after.Quad.Label(), findings, dangers)
}
