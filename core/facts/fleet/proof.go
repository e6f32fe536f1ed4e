package fleet

import (
	"slices"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/gear"
	"yokeswap/core/measure/unit"
)

// Course is flown to hold quads, or what they carry, against each other: named spots, in
// the order they are passed.
type Course struct {
	ID    string       `json:"id"`
	Name  string       `json:"name,omitempty"`
	Spots []CourseSpot `json:"spots"`
	Note  string       `json:"note,omitempty"`
}

// CourseSpot is a spot on a course.
type CourseSpot struct {
	ID   string `json:"id"`
	Name string `json:"name,omitempty"`
	// AtM is how far from the pilot it is, in metres; absent: not stated.
	AtM *unit.Metres `json:"atM,omitempty"`
	// Behind is what stands between the pilot and it.
	Behind string `json:"behind,omitempty"`
	// InSight: the quad can be seen there from where the pilot stands; absent: not stated.
	InSight *bool `json:"inSight,omitempty"`
}

// Label is the course's name.
func (c *Course) Label() string { return orID(c.Name, c.ID) }

// Label is the spot's name.
func (s *CourseSpot) Label() string { return orID(s.Name, s.ID) }

// Spot finds a spot of a course.
func (c *Course) Spot(id string) (*CourseSpot, bool) {
	for i := range c.Spots {
		if c.Spots[i].ID == id {
			return &c.Spots[i], true
		}
	}
	return nil, false
}

// TestFlight is one flight of a quad along a course, with what was read at its spots.
type TestFlight struct {
	ID     string `json:"id"`
	Name   string `json:"name,omitempty"`
	Quad   string `json:"quad"`
	Course string `json:"course"`
	On     string `json:"on,omitempty"` // yyyy-mm-dd
	// Carried is what flew, as it was on that day.
	Carried Carried `json:"carried,omitzero"`
	// PackV is the pack's voltage at take-off.
	PackV *unit.Volts `json:"packV,omitempty"`
	// PowerMW is the transmit power that was set.
	PowerMW *unit.Milliwatts `json:"powerMW,omitempty"`
	Channel string           `json:"channel,omitempty"`
	// Settings are what else was set in unit and goggles, such as "50 Mb/s" or "low latency", in any order.
	Settings []string `json:"settings,omitempty"`
	Weather  string   `json:"weather,omitempty"`
	// Checked: failsafe and range were tried on the ground before it; absent: not stated.
	Checked *bool `json:"checked,omitempty"`
	// Reader is who read the numbers; empty: not stated.
	Reader Reader `json:"reader,omitempty"`
	// LeftOut are spots of the course that were not flown, on purpose.
	LeftOut []string    `json:"leftOut,omitempty"`
	Reads   []SpotReads `json:"reads,omitempty"`
	Note    string      `json:"note,omitempty"`
}

// Carried is what flew: models, their releases, the antennas at both ends, and the flight board. What is
// absent is not stated.
type Carried struct {
	AirUnit         string           `json:"airUnit,omitempty"`
	AirFirmware     firmware.Version `json:"airFirmware,omitempty"`
	Antennas        []string         `json:"antennas,omitempty"`
	Goggles         string           `json:"goggles,omitempty"`
	GogglesFirmware firmware.Version `json:"gogglesFirmware,omitempty"`
	GogglesAntennas []string         `json:"gogglesAntennas,omitempty"`
	Board           string           `json:"board,omitempty"`
	BoardFirmware   firmware.Version `json:"boardFirmware,omitempty"` // of its flight firmware
	Pack            string           `json:"pack,omitempty"`
	gear.Nones
}

// FlownIn is the first flight after a swap, where all of it went as the bench sheet wants it: failsafe
// and range on the ground, a hover, the unit's heat, the way home where there is one.
type FlownIn struct {
	On string `json:"on"` // yyyy-mm-dd
	Carried
}

// Flight is it as a flight that was noted, without a course.
func (f *FlownIn) Flight(quad string) TestFlight {
	return TestFlight{Name: "its first flight", Quad: quad, On: f.On, Carried: f.Carried, Checked: new(true)}
}

// Reader says who read the numbers of a test flight.
type Reader string

// The readers. A pilot in the air reads nothing.
const (
	BySpotter    Reader = "spotter"
	AfterLanding Reader = "after-landing"
)

// SpotReads is what was read at one spot, pass by pass.
type SpotReads struct {
	Spot   string     `json:"spot"`
	Passes []PassRead `json:"passes,omitempty"`
}

// PassRead is what was read at one pass of a spot. What is absent was not read; no freeze
// is 0.
type PassRead struct {
	Pass    int                     `json:"pass"`
	Lowest  *unit.MegabitsPerSecond `json:"lowestMbps,omitempty"`
	Freezes *int                    `json:"freezes,omitempty"`
	Picture string                  `json:"picture,omitempty"` // in words
}

// Label is the flight's name, or its day.
func (t *TestFlight) Label() string {
	if t.Name == "" && t.On != "" {
		return t.On
	}
	return orID(t.Name, t.ID)
}

// At is what was read at a spot.
func (t *TestFlight) At(spot string) []PassRead {
	for i := range t.Reads {
		if t.Reads[i].Spot == spot {
			return t.Reads[i].Passes
		}
	}
	return nil
}

// Left says whether a spot was left out on purpose.
func (t *TestFlight) Left(spot string) bool { return slices.Contains(t.LeftOut, spot) }

// Course looks up a course.
func (f *Fleet) Course(id string) (*Course, bool) {
	for i := range f.Courses {
		if f.Courses[i].ID == id {
			return &f.Courses[i], true
		}
	}
	return nil, false
}

// TestFlight looks up a test flight.
func (f *Fleet) TestFlight(id string) (*TestFlight, bool) {
	for i := range f.TestFlights {
		if f.TestFlights[i].ID == id {
			return &f.TestFlights[i], true
		}
	}
	return nil, false
}

// Carries is what a quad carries today, as a test flight notes it.
func (f *Fleet) Carries(q *Quad) (c Carried) {
	piece := func(s *Slot) (model string, kit *Kit) {
		if s == nil {
			return "", nil
		}
		if k, ok := f.Piece(s.Kit); ok {
			return k.Model, k
		}
		return s.Model, nil
	}
	model, kit := piece(q.Now.AirUnit)
	c.AirUnit = model
	if kit != nil {
		c.AirFirmware = kit.Firmware
	}
	if q.Now.Antennas != nil && model != "" {
		c.Antennas = slices.Clone(q.Now.Antennas.Models)
	}
	c.Goggles, kit = piece(q.Now.Goggles)
	if kit != nil {
		c.GogglesFirmware, c.GogglesAntennas = kit.Firmware, slices.Clone(kit.Antennas)
	}
	if c.Board = q.Now.Board; q.Now.Runs != nil {
		c.BoardFirmware = q.Now.Runs.Version
	}
	if q.Now.Without(NoBoard) {
		c.None = []string{NoBoard}
	}
	c.Pack = q.Now.Pack
	return c
}
