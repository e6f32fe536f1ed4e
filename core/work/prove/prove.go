// Package prove holds test flights against each other: whether what flew after is better
// than what flew before on the spots of a course, and how sure one can be of it.
//
// Method: each spot of the course is one pair. The passes of a spot are taken together, as
// their middle value; the pairs are held against the exact sign test (Chance). A spot that
// was not read on both sides is counted as not better when the case is made, so that a
// reading left out makes nothing surer. Bit rates and frozen pictures
// are two measures, and each is said for itself. What else was not alike on the flights, or
// is not stated, is named, because it may be the reason.
//
// Source: the sign test as named there; the rest is common practice.
package prove

import (
	"errors"
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/measure/unit"
)

// How a spot compares.
const (
	Better = "better"
	Worse  = "worse"
	Same   = "same"
	Open   = "open"     // not read on both sides
	Left   = "left out" // on purpose
)

// Proof is what came out of two sides flown along a course.
type Proof struct {
	Course   string            `json:"course"`
	Name     string            `json:"name"`
	Before   ProofSide         `json:"before"`
	After    ProofSide         `json:"after"`
	Spots    []PairedSpot      `json:"spots"`
	Rate     Tally             `json:"rate"`    // by the lowest bit rate
	Freezes  Tally             `json:"freezes"` // by frozen pictures
	Alike    []Condition       `json:"conditions"`
	Foretold []Foretold        `json:"foretold"`
	Level    verdict.Level     `json:"level"`
	Findings []verdict.Finding `json:"findings"`
}

// ProofSide are the flights of one side.
type ProofSide struct {
	Label   string   `json:"label"`
	Flights []string `json:"flights"`
}

// PairedSpot is one spot of the course as it came out on both sides.
type PairedSpot struct {
	ID      string       `json:"id"`
	Label   string       `json:"label"`
	AtM     *unit.Metres `json:"atM,omitempty"`
	Behind  string       `json:"behind,omitempty"`
	Before  SpotRead     `json:"before"`
	After   SpotRead     `json:"after"`
	Rate    string       `json:"rate"`    // how it compares by bit rate
	Freezes string       `json:"freezes"` // and by frozen pictures
}

// SpotRead is what was read at a spot on one side, all passes together.
type SpotRead struct {
	Passes int `json:"passes"`
	// Lowest is the middle of the lowest bit rates of the passes; absent: not read at each.
	Lowest *unit.MegabitsPerSecond `json:"lowestMbps,omitempty"`
	// Freezes is how often the picture froze in a pass; absent: not counted at each.
	Freezes  *float64 `json:"freezes,omitempty"`
	Pictures []string `json:"pictures,omitempty"`
}

// Tally counts how the spots compare by one measure.
type Tally struct {
	Better int `json:"better"`
	Worse  int `json:"worse"`
	Same   int `json:"same"`
	Open   int `json:"open"`
	// Chance is how often chance alone does as well, spots not read counted against it.
	Chance float64 `json:"chance"`
	// More is how many spots more it takes to be sure, all of them the same way.
	More int `json:"more"`
}

func (t *Tally) add(how string) {
	switch how {
	case Better:
		t.Better++
	case Worse:
		t.Worse++
	case Same:
		t.Same++
	case Open:
		t.Open++
	}
}

// settle works out how sure the tally is, for the side it leans to.
func (t *Tally) settle() {
	most, rest := max(t.Better, t.Worse), min(t.Better, t.Worse)
	t.Chance = Chance(most, most+rest+t.Open)
	t.More = More(most, most+rest+t.Open)
}

// Sides finds the flights of two sides by their ids, and the course they are along. A flight is
// on one side, and all are along one course: only what was flown along the same one is held
// against each other.
func Sides(f *fleet.Fleet, before, after []string) (
	course *fleet.Course, was, is []*fleet.TestFlight, err error,
) {
	seen := map[string]bool{}
	for i, ids := range [][]string{before, after} {
		for _, id := range ids {
			t, ok := f.TestFlight(id)
			if !ok {
				return nil, nil, nil, &NoFlight{id}
			}
			along, ok := f.Course(t.Course)
			switch {
			case seen[id]:
				return nil, nil, nil, fmt.Errorf("%s stands twice: a flight is on one side", t.Label())
			case !ok:
				return nil, nil, nil, fmt.Errorf("%s is along no course", t.Label())
			case course != nil && along.ID != course.ID:
				return nil, nil, nil, errors.New("the flights are along two courses: only what was flown along the same one is " +
					"held against each other")
			}
			course, seen[id] = along, true
			if i == 0 {
				was = append(was, t)
			} else {
				is = append(is, t)
			}
		}
	}
	if len(was) == 0 || len(is) == 0 {
		return nil, nil, nil, errors.New("pick a flight before and one after")
	}
	return course, was, is, nil
}

// NoFlight is the error of an id that is no test flight's.
type NoFlight struct{ ID string }

func (n *NoFlight) Error() string { return fmt.Sprintf("there is no test flight %q", n.ID) }

// Compare holds the flights after against those before. All of them are along the course.
func Compare(lib *gear.Library, f *fleet.Fleet, course *fleet.Course, before, after []*fleet.TestFlight) Proof {
	c := Proof{Course: course.ID, Name: course.Label(), Before: side(before), After: side(after), Spots: []PairedSpot{}}
	for i := range course.Spots {
		s := compareSpot(&course.Spots[i], before, after)
		c.Rate.add(s.Rate)
		c.Freezes.add(s.Freezes)
		c.Spots = append(c.Spots, s)
	}
	c.Rate.settle()
	c.Freezes.settle()
	names := book{lib, f}
	c.Alike = conditions(allConditions, names, before, after)
	c.Foretold = foretell(lib, f, before, after)
	c.Findings = c.findings(names, course, before, after)
	c.Level = verdict.Worst(c.Findings)
	return c
}

func side(flights []*fleet.TestFlight) (s ProofSide) {
	for i, t := range flights {
		s.Flights = append(s.Flights, t.ID)
		if i > 0 {
			s.Label += ", "
		}
		s.Label += t.Label()
	}
	return s
}

// compareSpot holds one spot of both sides against each other. Where a side left it out on
// purpose it is left out of both.
func compareSpot(at *fleet.CourseSpot, before, after []*fleet.TestFlight) PairedSpot {
	s := PairedSpot{ID: at.ID, Label: at.Label(), AtM: at.AtM, Behind: at.Behind, Before: read(before, at.ID),
		After: read(after, at.ID)}
	leftOut := func(flights []*fleet.TestFlight) bool {
		return len(flights) > 0 && !slices.ContainsFunc(flights, func(t *fleet.TestFlight) bool { return !t.Left(at.ID) })
	}
	if leftOut(before) || leftOut(after) {
		s.Rate, s.Freezes = Left, Left
		return s
	}
	s.Rate, s.Freezes = Open, Open
	if s.Before.Lowest != nil && s.After.Lowest != nil {
		s.Rate = order(unit.Compare(*s.After.Lowest, *s.Before.Lowest))
	}
	if s.Before.Freezes != nil && s.After.Freezes != nil {
		s.Freezes = order(-unit.Compare(unit.MegabitsPerSecond(*s.After.Freezes),
			unit.MegabitsPerSecond(*s.Before.Freezes)))
	}
	return s
}

func order(c int) string {
	switch {
	case c > 0:
		return Better
	case c < 0:
		return Worse
	}
	return Same
}

// read takes the passes of a spot together, of all flights of a side. A pass at which a
// measure was not read, or that was not noted though a later one was, leaves it open: what
// is not there could be the worst.
func read(flights []*fleet.TestFlight, spot string) (r SpotRead) {
	var rates []unit.MegabitsPerSecond
	freezes, counted, skipped := 0, 0, 0
	for _, t := range flights {
		last := 0
		for _, pass := range t.At(spot) {
			r.Passes++
			last = max(last, pass.Pass)
			if pass.Lowest != nil {
				rates = append(rates, *pass.Lowest)
			}
			if pass.Freezes != nil {
				freezes, counted = freezes+*pass.Freezes, counted+1
			}
			if pass.Picture != "" {
				r.Pictures = append(r.Pictures, pass.Picture)
			}
		}
		skipped += last - len(t.At(spot))
	}
	if r.Passes == 0 || skipped > 0 {
		return r
	}
	if len(rates) == r.Passes {
		r.Lowest = new(middle(rates))
	}
	if counted == r.Passes {
		r.Freezes = new(float64(freezes) / float64(counted))
	}
	return r
}

// middle is the median.
func middle(list []unit.MegabitsPerSecond) unit.MegabitsPerSecond {
	slices.Sort(list)
	half := len(list) / 2
	if len(list)%2 == 1 {
		return list[half]
	}
	return (list[half-1] + list[half]) / 2
}
