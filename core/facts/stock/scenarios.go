package stock

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
)

// mostScenarios is how many scenarios are kept.
const mostScenarios = 50

// KeepScenario keeps a scenario, in the place of the one of its id; without an id as a new one. It
// gives its id.
func (s *Stock) KeepScenario(kept fleet.Scenario) (string, error) {
	f := *s.Fleet
	f.Scenarios = slices.Clone(f.Scenarios)
	if kept.Name == "" {
		return "", fmt.Errorf("a scenario needs a name")
	}
	for i := range f.Scenarios {
		switch o := &f.Scenarios[i]; {
		case o.ID == kept.ID && kept.ID != "":
			*o = kept
			s.Fleet = &f
			return kept.ID, nil
		case o.Name == kept.Name:
			return "", fmt.Errorf("a scenario is called %q already: give it another name", kept.Name)
		}
	}
	if len(f.Scenarios) >= mostScenarios {
		return "", fmt.Errorf("%d scenarios are kept, and no more are taken: take one out first", mostScenarios)
	}
	for n := len(f.Scenarios) + 1; kept.ID == ""; n++ {
		id := fmt.Sprintf("scenario-%d", n)
		if _, there := f.Scenario(id); !there {
			kept.ID = id
		}
	}
	f.Scenarios = append(f.Scenarios, kept)
	s.Fleet = &f
	return kept.ID, nil
}

// DropScenario takes a scenario out; false where there is none.
func (s *Stock) DropScenario(id string) bool {
	f := *s.Fleet
	gone := drop(&f.Scenarios, func(o fleet.Scenario) bool { return o.ID == id })
	s.Fleet = &f
	return gone
}

// PlanScenario makes a scenario the plan of the fleet; false where there is none.
func (s *Stock) PlanScenario(id string) bool {
	kept, ok := s.Fleet.Scenario(id)
	if ok {
		s.Fleet = s.Fleet.Under(kept)
	}
	return ok
}

// Sell notes pieces of kit that are to be sold once nobody flies with them. Of others, those that are planned to
// be flown with are to be sold no longer.
func (s *Stock) Sell(kit []string) error {
	f := *s.Fleet
	f.Kit = slices.Clone(f.Kit)
	flown := func(id string) bool {
		return slices.ContainsFunc(f.Quads, func(q fleet.Quad) bool { return q.WillFlyWith(id) })
	}
	for _, id := range kit {
		piece, ok := f.Piece(id)
		if !ok {
			return fmt.Errorf("no piece of kit %q", id)
		}
		piece.Sell = true
	}
	for i := range f.Kit {
		f.Kit[i].Sell = f.Kit[i].Sell && (!flown(f.Kit[i].ID) || slices.Contains(kit, f.Kit[i].ID))
	}
	s.Fleet = &f
	return nil
}

// sellsNo takes a piece of kit out of what scenarios would sell.
func (s *Stock) sellsNo(kit string) {
	f := *s.Fleet
	f.Scenarios = slices.Clone(f.Scenarios)
	for i := range f.Scenarios {
		drop(&f.Scenarios[i].Sells, func(id string) bool { return id == kit })
	}
	s.Fleet = &f
}

// dropOf takes what scenarios say of a quad that is gone.
func (s *Stock) dropOf(quad string) {
	f := *s.Fleet
	f.Scenarios = slices.Clone(f.Scenarios)
	for i := range f.Scenarios {
		drop(&f.Scenarios[i].Quads, func(q fleet.ScenarioQuad) bool { return q.Quad == quad })
	}
	s.Fleet = &f
}
