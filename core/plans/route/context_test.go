package route

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/internal/sample"
)

// smallRequest wants one quad with one pair of goggles.
func smallRequest() Request {
	f := &fleet.Fleet{
		Kit: []fleet.Kit{sample.Own("first", "1.0", ""), sample.Own("old-eyes", "2.0", "")},
		Quads: []fleet.Quad{{ID: "q", Now: fleet.Fit{
			AirUnit: &fleet.Slot{Kit: "first"}, Nones: gear.Nones{None: []string{fleet.NoBoard}},
		}}},
	}
	return Request{
		Library: gear.NewLibrary(sample.Set()),
		Fleet:   fleet.NewIndex(f),
		Wants:   []fleet.Want{{Quad: "q", Goggles: "old-eyes", Weight: fleet.Must}},
	}
}

// A route nobody waits for any more is not worked out: each way to ask ends with its context.
func TestARouteEndsWithItsContext(t *testing.T) {
	r := smallRequest()
	gone, goes := context.WithCancel(context.Background())
	r.Context = gone
	_, err := Solve(r)
	assert.NoError(t, err, "somebody waits")
	goes()
	_, err = Solve(r)
	assert.ErrorIs(t, err, context.Canceled)
	_, err = Steps(r)
	assert.ErrorIs(t, err, context.Canceled)
	_, err = WayBack(r, map[string]firmware.State{})
	assert.ErrorIs(t, err, context.Canceled)
	r.Wants = nil
	_, err = Solve(r)
	assert.ErrorIs(t, err, context.Canceled, "whatever is wanted")
}
