package prove

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
)

// CodeProven is whether a quad is proven as it flies today.
const CodeProven verdict.Code = "prove.proven"

// Standing is whether a quad is proven as it flies today: after failsafe and range were tried on
// the ground it was flown along a course and read, or its first flight after a swap went as it should,
// and nothing that counts is another since.
type Standing struct {
	Quad string `json:"quad"`
	Name string `json:"name"`
	// On is the day of the flight that proved it (yyyy-mm-dd), Flight which it was; empty: none did.
	On      string          `json:"on,omitempty"`
	Flight  string          `json:"flight,omitempty"`
	State   string          `json:"state"` // in words
	Finding verdict.Finding `json:"finding"`
}

// states are the levels of a standing in words.
var states = map[verdict.Level]string{
	verdict.Fits: "proven", verdict.Change: "to prove again", verdict.Unknown: "not proven",
}

// unproves are the conditions that make a quad unproven again where they are others (common
// practice).
var unproves = []condition{
	ofUnit,
	ofItsFirmware,
	ofItsAntennas,
	{"flight board", "carried.board", true, "",
		orNone(labels(func(c *fleet.Carried) []string { return []string{c.Board} }))},
	{"release on the board", "carried.boardFirmware", true, "carried.board",
		orNone(own(func(t *fleet.TestFlight) string { return string(t.Carried.BoardFirmware) }))},
}

// orNone is what a flight says of its board, or that there is none.
func orNone(of func(book, *fleet.TestFlight) string) func(book, *fleet.TestFlight) string {
	return func(at book, t *fleet.TestFlight) string {
		if t.Carried.Without(fleet.NoBoard) {
			return "none"
		}
		return of(at, t)
	}
}

// Standings says of each quad that carries a digital unit today whether it is proven. A flight
// without a day may be the latest.
func Standings(lib *gear.Library, f *fleet.Fleet) []Standing {
	list := []Standing{}
	for i := range f.Quads {
		if q := &f.Quads[i]; f.Carries(q).AirUnit != "" {
			list = append(list, standing(book{lib, f}, q))
		}
	}
	return list
}

func standing(names book, q *fleet.Quad) Standing {
	s := Standing{Quad: q.ID, Name: q.Label()}
	flights := flightsOf(names.fleet, q)
	at := slices.IndexFunc(flights, func(t *fleet.TestFlight) bool {
		return t.On != "" && t.Checked != nil && *t.Checked && (wasRead(t) || t.Course == "")
	})
	if at < 0 {
		s.Finding = verdict.Finding{Level: verdict.Unknown, Says: fmt.Sprintf("No flight of %s is noted that has a day, "+
			"was read, and had failsafe and range tried on the ground before it; nor was its first flight ticked off on the "+
			"bench sheet.", s.Name)}
	} else {
		s.On, s.Flight = flights[at].On, flights[at].ID
		s.since(names, q, flights[:at+1])
	}
	s.State = states[s.Finding.Level]
	s.Finding.Code, s.Finding.Subject, s.Finding.Source = CodeProven, s.Name, verdict.Practice
	return s
}

// flightsOf are the flights of a quad with its first one, the latest first, those of one day as they
// were noted, and before them those of no day.
func flightsOf(f *fleet.Fleet, q *fleet.Quad) (list []*fleet.TestFlight) {
	if q.FlownIn != nil {
		list = append(list, new(q.FlownIn.Flight(q.ID)))
	}
	for i := range f.TestFlights {
		if t := &f.TestFlights[i]; t.Quad == q.ID {
			list = append(list, t)
		}
	}
	slices.Reverse(list)
	slices.SortStableFunc(list, func(a, b *fleet.TestFlight) int {
		if (a.On == "") != (b.On == "") {
			return strings.Compare(a.On, b.On)
		}
		return strings.Compare(b.On, a.On)
	})
	return list
}

// wasRead says whether anything was read at a spot.
func wasRead(t *fleet.TestFlight) bool {
	return slices.ContainsFunc(t.Reads, func(r fleet.SpotReads) bool { return len(r.Passes) > 0 })
}

// since holds what a quad carries today against the flight that proved it, the last of a list, and
// those after it.
func (s *Standing) since(names book, q *fleet.Quad, flights []*fleet.TestFlight) {
	proof := flights[len(flights)-1]
	today := &fleet.TestFlight{ID: "today", Quad: q.ID, Carried: names.fleet.Carries(q)}
	var others []string
	var missing []verdict.Missing
	for _, t := range slices.Backward(flights) {
		for _, c := range conditions(unproves, names, []*fleet.TestFlight{t}, []*fleet.TestFlight{today}) {
			switch {
			case c.Before == "":
				missing = append(missing, lacksThen(q, c.field, c.What, t))
			case c.After == "":
				missing = append(missing, names.lacksToday(q, c.field, c.What))
			case !c.Alike && !c.With:
				others = append(others, fmt.Sprintf("%s: %s on %s, now %s", c.What, c.Before, t.Label(), c.After))
			}
		}
	}
	f := &s.Finding
	f.Says = fmt.Sprintf("%s was proven on %s. ", s.Name, proof.On)
	if len(others)+len(missing) == 0 {
		f.Level = verdict.Fits
		f.Says += "Unit, antennas, board and the releases on both are the same today."
		return
	}
	if len(others) > 0 {
		f.Level = verdict.Change
		f.Says += "Since then others: " + strings.Join(slices.Compact(others), "; ") + ". Try failsafe and range on the " +
			"ground, propellers off, then fly it the same way again. "
	}
	if len(missing) > 0 {
		f.Level = verdict.Unknown
		f.Says += "Whether all is the same cannot be told. Not stated: "
		var words []string
		for _, m := range missing {
			if !slices.Contains(words, m.Label) {
				f.Missing, words = append(f.Missing, m), append(words, m.Label)
			}
		}
		f.Says += change.And(words) + "."
	}
	f.Says = strings.TrimSpace(f.Says)
}

// lacksThen is where a value is stated of a flight: with the quad where it is its first.
func lacksThen(q *fleet.Quad, field, what string, t *fleet.TestFlight) verdict.Missing {
	if t.Course != "" {
		return lacks(field, what, t)[0]
	}
	field = "flownIn." + strings.TrimPrefix(field, "carried.")
	return verdict.Missing{Of: "quad", ID: q.ID, Field: field, Label: what + " on " + t.Label()}
}

// lacksToday is where a value is stated that is not known of a quad as it flies today.
func (b book) lacksToday(q *fleet.Quad, field, what string) verdict.Missing {
	m := verdict.Missing{Of: "quad", ID: q.ID, Field: statedAt[field], Label: what + " of " + q.Label() + " today"}
	if kit, owned := b.fleet.Piece(q.Now.AirUnit.Kit); owned && field == "carried.airFirmware" {
		m.Of, m.ID, m.Field = "kit", kit.ID, "firmware"
	}
	return m
}

// statedAt are the fields of a quad that say what it carries.
var statedAt = map[string]string{
	"carried.airUnit":       "now.airUnit",
	"carried.airFirmware":   "now.airUnit.kit",
	"carried.antennas":      "now.antennas.models",
	"carried.board":         "now.board",
	"carried.boardFirmware": "now.runs.version",
}
