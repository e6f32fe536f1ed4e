package mount

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
)

// checkBracket asks whether a bracket that has a model goes around what it holds, and onto the frame.
func (s *seat) checkBracket(h *fleet.Hold, label string) (findings []verdict.Finding) {
	b, there := s.Bracket(h)
	if !there {
		return nil
	}
	var missing []verdict.Missing
	ask := func(lacks bool, field, words string) {
		if lacks {
			missing = append(missing, verdict.GearValue(&b.Entry, field, words))
		}
	}
	ask(b.Way == "", "way", "whether it is a bracket, a cage or a clip")
	ask(b.For == nil, "for", "what it is made around")
	ask(b.Frames == nil && !b.Without(gear.NoFrames), "frames", "frames it goes on, or that it goes on any")
	if len(missing) > 0 {
		findings = append(findings, verdict.CannotTell(verdict.Mount, CodeBracket, label, missing...))
	}
	unfit := func(format string, args ...any) {
		findings = append(findings, verdict.Finding{Code: CodeBracket, Level: verdict.Unfit,
			Says: fmt.Sprintf(format, args...)})
	}
	for _, model := range s.modelsOf(h.Part) {
		if b.For != nil && !slices.Contains(b.For, model) {
			unfit("%s is made around %s, not around %s: it does not hold it.", b.Label(), s.labels(b.For),
				s.Library.Label(model))
		}
	}
	if s.frame != nil && b.Frames != nil && !slices.Contains(b.Frames, s.frame.ID) {
		unfit("%s goes on %s, not on %s.", b.Label(), s.labels(b.Frames), s.frame.Label())
	}
	return findings
}

// modelsOf are the models of a part that can be held.
func (s *seat) modelsOf(part string) []string {
	switch {
	case part == fleet.NodeAirUnit && s.hasUnit:
		return []string{s.airUnit.ID}
	case part == fleet.NodeCamera && s.camera.Of != nil:
		return []string{s.camera.Of.ID}
	case part == fleet.NodeAntennas && s.Fit.Antennas != nil:
		return s.Fit.Antennas.Models
	case part == fleet.NodeReceiver:
		if r, ok := s.PlacedReceiver(); ok {
			return []string{r.ID}
		}
	}
	if placed, on := s.Fit.Part(part); on {
		return []string{placed.Model}
	}
	return nil
}

func (s *seat) labels(models []string) string {
	list := make([]string, len(models))
	for i, model := range models {
		list[i] = s.Library.Label(model)
	}
	return strings.Join(list, ", ")
}

// brackets hold the unit otherwise: those made around it that go on the frame.
func (s *seat) brackets() (list []fleet.Hold) {
	for _, b := range gear.All[*gear.Bracket](s.Library) {
		goes := b.Without(gear.NoFrames) || slices.Contains(b.Frames, s.frame.ID)
		if b.Way == "" || b.Way == string(fleet.HeldByCage) || !goes || !slices.Contains(b.For, s.airUnit.ID) ||
			s.held != nil && s.held.Bracket == b.ID {
			continue
		}
		h := fleet.Hold{Part: fleet.NodeAirUnit, Way: fleet.Way(b.Way), Bracket: b.ID}
		if s.held != nil {
			h.NearProps = s.held.NearProps
		}
		list = append(list, h)
	}
	return list
}
