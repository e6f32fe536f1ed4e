package diagnose_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/diagnose"
	"yokeswap/core/work/setup"
)

func planned(change func(*fleet.Fit)) fleet.Case {
	fit := fleet.Fit{
		AirUnit:    &fleet.Slot{Kit: "first"},
		Goggles:    &fleet.Slot{Kit: "new-eyes"},
		Controller: &fleet.Slot{Kit: "old-hand"},
		Board:      "board",
		Pack:       "lipo-4",
		PackLead:   sample.Lead(),
		Feeds: []fleet.Feed{
			{To: fleet.NodeAirUnit, From: "board.10v"},
		},
		Wiring:   fleet.Wiring{Wires: sample.Wired()},
		Antennas: sample.Pair(),
		Mounting: sample.Seat(),
		Flight:   sample.Flight(),
	}
	change(&fit)
	return sample.Case(
		sample.Set(),
		[]fleet.Kit{sample.Own("first", "1.1", ""), sample.Own("new-eyes", "5.2", "b"), sample.Own("old-hand", "", "")},
		fit,
	)
}

func find(
	t *testing.T,
	symptom string,
	c fleet.Case,
	board *setup.Comparison,
	answers map[string]diagnose.Answer,
) diagnose.Diagnosis {
	j := swap.Judge(c)
	d, ok := diagnose.Find(symptom, c, &j, board, answers)
	require.True(t, ok)
	return d
}

func order(d diagnose.Diagnosis) (ids []string) {
	for _, c := range d.Causes {
		ids = append(ids, c.ID)
	}
	return ids
}

// Without facts of its own a quad gets what builders look at first, in their order
// (common practice).
func TestTheTradesOrder(t *testing.T) {
	d := find(t, "no-osd", planned(func(*fleet.Fit) {}), nil, nil)
	assert.Equal(t, []string{"swapped", "osd-off", "msp-off", "dialect", "unplaced", "custom-osd", "no-canvas"}, order(d))
	assert.Equal(t, "Look first whether RX and TX are swapped.", d.Says)
}

// The quad's own facts go before: a fault planted in each gate is ranked first.
func TestThePlantedFaultIsFoundFirst(t *testing.T) {
	for _, c := range []struct {
		symptom, cause string
		change         func(*fleet.Fit)
	}{
		{"no-osd", "swapped", func(f *fleet.Fit) { f.Wires[1].To, f.Wires[2].To = "rx1", "tx1" }},
		{"no-osd", "dialect", func(f *fleet.Fit) { f.Runs.ID = "flies-superset" }},
		{"no-osd", "no-canvas", func(f *fleet.Fit) { f.Runs.Version = "4.2" }},
		{"odd-osd", "grid", func(f *fleet.Fit) { f.OSD.Grid = "50x18" }},
		{"dead-sticks", "variant", func(f *fleet.Fit) { f.Sticks.Board = fleet.Fast }},
		{"dead-sticks", "rc-wires", func(f *fleet.Fit) { f.Wires = f.Wires[:3] }},
		{"no-picture", "unpowered", func(f *fleet.Fit) { f.Feeds[0].From = "board.5v" }},
		{"no-picture", "firmware-pair", func(f *fleet.Fit) { f.AirUnit.Firmware = "1.0" }},
		{"off-in-flight", "sag", func(f *fleet.Fit) { f.Feeds[0].From = "board.5v" }},
		{"weak-range", "carbon", func(f *fleet.Fit) { *f.Antennas.CarbonMM = 5 }},
	} {
		d := find(t, c.symptom, planned(c.change), nil, nil)
		assert.Equal(t, c.cause, d.Causes[0].ID, "%s: %+v", c.symptom, d.Causes)
		assert.Equal(t, diagnose.Likely, d.Causes[0].Standing)
		assert.NotEmpty(t, d.Causes[0].Because)
	}
}

// Answers narrow the list, and the board is asked instead of the builder.
func TestAnswersAndTheBoardNarrowIt(t *testing.T) {
	c := planned(func(*fleet.Fit) {})
	d := find(t, "no-osd", c, nil, map[string]diagnose.Answer{"swapped": diagnose.No, "custom-osd": diagnose.Yes})
	assert.Equal(t, "custom-osd", d.Causes[0].ID)
	assert.Equal(t, "It is this: custom OSD is off in the goggles.", d.Says)
	assert.Equal(t, "swapped", d.Causes[len(d.Causes)-1].ID)

	found, _ := setup.Of(c)
	found.Features = 1 << 3
	board := setup.Compare(c, found)
	d = find(t, "no-osd", c, &board, nil)
	assert.Equal(t, "osd-off", d.Causes[0].ID)
	assert.Equal(t, diagnose.Found, d.Causes[0].Standing)
	assert.Contains(t, d.Causes[0].Because[0], "the board has feature osd on off, the plan wants on")
	for _, cause := range d.Causes[1:] {
		if cause.ID == "msp-off" || cause.ID == "unplaced" {
			assert.Equal(t, diagnose.RuledOut, cause.Standing, cause.ID)
		}
	}
	right, _ := setup.Of(c)
	clean := setup.Compare(c, right)
	none := map[string]diagnose.Answer{}
	for _, cause := range find(t, "no-osd", c, &clean, nil).Causes {
		none[cause.ID] = diagnose.No
	}
	assert.Contains(t, find(t, "no-osd", c, &clean, none).Says, "None of the usual causes")
}

func TestEveryCauseSaysHowToTellIt(t *testing.T) {
	quad := planned(func(*fleet.Fit) {})
	j := swap.Judge(quad)
	assert.Len(t, diagnose.Symptoms(quad), 11)
	for _, s := range diagnose.Symptoms(quad) {
		d, ok := diagnose.Find(s.ID, quad, &j, nil, nil)
		require.True(t, ok)
		assert.GreaterOrEqual(t, len(d.Causes), 2, s.ID)
		seen := map[string]bool{}
		for _, c := range d.Causes {
			assert.False(t, seen[c.ID], c.ID)
			seen[c.ID] = true
			for _, text := range []string{c.Label, c.Test, c.Question, c.Fix} {
				assert.NotEmpty(t, text, c.ID)
			}
		}
	}
	_, ok := diagnose.Find("gremlins", quad, &j, nil, nil)
	assert.False(t, ok)
}

// A board proves only what it shows: another difference is not taken for the cause.
func TestTheBoardProvesOnlyWhatItShows(t *testing.T) {
	c := planned(func(*fleet.Fit) {})
	for _, k := range []struct {
		symptom, cause string
		change         func(*setup.State)
		standing       diagnose.Standing
	}{
		{"no-osd", "msp-off", func(s *setup.State) { s.Ports[0].Functions = 0 }, diagnose.Found},
		{"no-osd", "msp-off", func(s *setup.State) { s.Ports[2].Functions = 0 }, diagnose.RuledOut}, // that of the sticks
		{"dead-sticks", "rx-port", func(s *setup.State) { s.Ports[2].Functions = 0 }, diagnose.Found},
		{"dead-sticks", "rx-port", func(s *setup.State) { s.Ports[0].Functions = 0 }, diagnose.RuledOut},
		{"dead-sticks", "provider", func(s *setup.State) { s.Provider = 9 }, diagnose.Found},
		{"dead-sticks", "provider", func(s *setup.State) { s.RXMap = "TAER" }, diagnose.RuledOut},
		{"no-osd", "unplaced", func(s *setup.State) { clear(s.OSD) }, diagnose.Found},
		{"no-osd", "unplaced", func(s *setup.State) { s.OSD[0].X++ }, diagnose.RuledOut},
		{"odd-osd", "misplaced", func(s *setup.State) { s.OSD[0].X++ }, diagnose.Found},
		{"no-osd", "no-canvas", func(s *setup.State) { s.Version = "4.6" }, diagnose.Possible},
		{"no-osd", "dialect", func(s *setup.State) { s.Variant = "OTHR" }, diagnose.Possible},
	} {
		found, _ := setup.Of(c)
		k.change(&found)
		board := setup.Compare(c, found)
		for _, cause := range find(t, k.symptom, c, &board, nil).Causes {
			if cause.ID == k.cause {
				assert.Equal(t, k.standing, cause.Standing, "%s %s", k.symptom, k.cause)
			}
		}
	}
}

// A question about a light, a menu or a plug is asked in the words of the device's own
// guide.
func TestQuestionsAreAskedInTheDevicesOwnWords(t *testing.T) {
	c := planned(func(*fleet.Fit) {})
	unit, _, _ := c.AirUnit()
	unit.Guides = []gear.Guide{
		{Language: "en", USB: "at the side", Lights: []gear.Light{{Shows: "pink, blinking", Means: gear.Searching}}},
	}
	goggles, _, _ := c.Goggles()
	goggles.Guides = []gear.Guide{{Language: "en", Menus: []gear.MenuPath{{Sets: gear.MenuOSD, Path: "View, Board data"}}}}
	text := ""
	for _, symptom := range []string{"no-picture", "no-osd", "not-seen"} {
		for _, cause := range find(t, symptom, c, nil, nil).Causes {
			text += cause.Test + " " + cause.Question + " " + cause.Fix + "\n"
		}
	}
	assert.Contains(t, text, "Does the first show pink, blinking?")
	assert.Contains(t, text, "On the first it is at the side.")
	assert.Contains(t, text, ": View, Board data.")
}
