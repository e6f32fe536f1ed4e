package fleet

import "slices"

// Scenario is a plan for the fleet that is kept beside the one there is: what the quads would get.
type Scenario struct {
	ID   string `json:"id"`
	Name string `json:"name,omitempty"`
	Note string `json:"note,omitempty"`
	Made string `json:"made,omitempty"` // yyyy-mm-dd
	// Quads are those it says something of; others stay as they are planned.
	Quads []ScenarioQuad `json:"quads,omitempty"`
	// Sells are the pieces of kit that would be sold; Used says that used things are bought as well.
	Sells []string `json:"sells,omitempty"`
	Used  bool     `json:"used,omitempty"`
}

// ScenarioQuad is what a scenario has for a quad.
type ScenarioQuad struct {
	Quad string `json:"quad"`
	Next *Fit   `json:"next,omitempty"` // absent: it stays as it flies
}

// Label is the name, or the id where no name is given.
func (s *Scenario) Label() string { return orID(s.Name, s.ID) }

// Scenario looks up a scenario.
func (f *Fleet) Scenario(id string) (*Scenario, bool) {
	for i := range f.Scenarios {
		if f.Scenarios[i].ID == id {
			return &f.Scenarios[i], true
		}
	}
	return nil, false
}

// Under is the fleet as a scenario would have it planned. They share what is not planned.
func (f *Fleet) Under(s *Scenario) *Fleet {
	out := *f
	out.Kit = slices.Clone(f.Kit)
	for i := range out.Kit {
		out.Kit[i].Sell = slices.Contains(s.Sells, out.Kit[i].ID)
	}
	out.Quads = append([]Quad(nil), f.Quads...)
	for i := range s.Quads {
		q, ok := out.Quad(s.Quads[i].Quad)
		if !ok {
			continue
		}
		q.Next, q.NextTurn = nil, ""
		if next := s.Quads[i].Next; next != nil {
			q.Next = new(next.Clone())
		}
	}
	return &out
}

// Planned is what is planned for a fleet, as a scenario.
func (f *Fleet) Planned() Scenario {
	var s Scenario
	for i := range f.Quads {
		one := ScenarioQuad{Quad: f.Quads[i].ID}
		if next := f.Quads[i].Next; next != nil {
			one.Next = new(next.Clone())
		}
		s.Quads = append(s.Quads, one)
	}
	for i := range f.Kit {
		if f.Kit[i].Sell {
			s.Sells = append(s.Sells, f.Kit[i].ID)
		}
	}
	return s
}
