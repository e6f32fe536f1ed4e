package diagnose_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/work/diagnose"
)

// A part beside the air unit has a symptom of its own: what is said of its wires explains
// it, and not that the OSD is blank; and the other way round.
func TestAPartThatDoesNotWork(t *testing.T) {
	quad := planned(func(f *fleet.Fit) {
		f.Parts = []fleet.PlacedPart{
			{ID: "gps", Model: "gps", Cable: fleet.Cable{Wires: []fleet.Wire{
				{Pin: 1, To: "5v"}, {Pin: 2, To: "ground"}, {Pin: 3, To: "rx4"}, {Pin: 4, To: "tx4"},
			}}},
			{ID: "buzzer", Model: "buzzer", Cable: fleet.Cable{Wires: []fleet.Wire{{Pin: 1, To: "5v"}}}},
		}
	})
	gps := find(t, "part:gps", quad, nil, nil)
	assert.Equal(t, "the gps does not work", gps.Symptom)
	assert.Equal(t, "part-crossed", gps.Causes[0].ID)
	assert.Equal(t, diagnose.Likely, gps.Causes[0].Standing)
	for _, c := range find(t, "no-osd", quad, nil, nil).Causes {
		assert.NotEqual(t, diagnose.Likely, c.Standing, "%s: the GPS is not the air unit", c.ID)
	}
	buzzer := find(t, "part:buzzer", quad, nil, nil)
	assert.Equal(t, "part-loose", buzzer.Causes[0].ID)
	assert.Contains(t, buzzer.Causes[0].Because[0], "The buzzer of buzzer is wired to nothing")
	assert.Equal(t, []string{"part-loose", "part-power", "part-setup"}, order(buzzer), "it has no serial line")

	crossed := planned(func(f *fleet.Fit) {
		f.Wires[1].To, f.Wires[2].To = f.Wires[2].To, f.Wires[1].To
		f.Parts = []fleet.PlacedPart{{ID: "buzzer", Model: "buzzer", Cable: fleet.Cable{Wires: []fleet.Wire{
			{Pin: 1, To: "5v"}, {Pin: 2, To: "buzzer"},
		}}}}
	})
	for _, c := range find(t, "part:buzzer", crossed, nil, nil).Causes {
		assert.Equal(t, diagnose.Possible, c.Standing, c.ID)
	}
	_, ok := diagnose.Find("part:nix", quad, nil, nil, nil)
	assert.False(t, ok)
	assert.Len(t, diagnose.Symptoms(quad), 13)
}
