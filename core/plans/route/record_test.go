package route_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
	"yokeswap/core/plans/route"
)

// Each step carried out says what was read, and whether that is what was planned.
func TestTheRecordSaysWhatWasRead(t *testing.T) {
	for _, c := range []struct {
		taken  fleet.Taken
		says   string
		asPlan bool
	}{
		{fleet.Taken{Kit: "first", Do: "update", From: "1.0", Planned: "1.1", Read: "1.1"}, "the one: carries 1.1", true},
		{
			fleet.Taken{Kit: "first", Do: "update", Planned: "1.1", Read: "1.0.6"},
			"the one: carries 1.0.6, 1.1 was planned",
			false,
		},
		{
			fleet.Taken{Kit: "first", Do: "update", Planned: "1.1"},
			"the one: shows no release, 1.1 was planned",
			false,
		},
		{fleet.Taken{Kit: "first", Do: "update", Read: "1.0"}, "the one: carries 1.0", false},
		{
			fleet.Taken{Kit: "first", Do: "update", Planned: "1.1", NotOffered: true},
			"the one: 1.1 was not offered",
			false,
		},
		{fleet.Taken{Kit: "first", Do: "activate"}, "the one: activated", true},
		{fleet.Taken{Kit: "old-eyes", Do: "mode", Mode: "b"}, "old-eyes: switched to mode Second", true},
		{fleet.Taken{Kit: "gone", Do: "mode", Mode: "b"}, "gone: switched to mode b", true},
	} {
		set := sample.Set()
		set.Goggles[0].Modes[1].Name = "Second"
		kit := []fleet.Kit{{ID: "first", Name: "the one", Model: "first"}, sample.Own("old-eyes", "4.6", "b")}
		f := fleet.NewIndex(&fleet.Fleet{Kit: kit, Taken: []fleet.Taken{c.taken}})
		list := route.Record(gear.NewLibrary(set), f)
		if assert.Len(t, list, 1) {
			assert.Equal(t, c.says, list[0].Says)
			assert.Equal(t, c.asPlan, list[0].AsPlan, c.says)
			assert.Equal(t, c.taken, list[0].Taken)
		}
	}
	assert.Empty(t, route.Record(gear.NewLibrary(sample.Set()), fleet.NewIndex(&fleet.Fleet{})))
}
