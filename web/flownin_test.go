package web_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/work/bench"
	"yokeswap/web"
)

// A swap whose sheet is ticked to its end, the first flight with readings within their limits, leaves
// a quad that is proven as it flies; finished without its first flight, or with other antennas planned
// after it, it does not.
func TestAQuadIsFlownInByItsSheet(t *testing.T) {
	t.Parallel()
	for _, how := range []string{"whole", "without its flight", "changed after it"} {
		whole := how == "whole"
		c := newClient(t, "")
		status, text := post(c, "brayer", get[web.QuadView](c, "/api/quads/brayer").Revision, `{"tiltDeg":20}`)
		require.Equal(t, 200, status, text)
		for {
			run := get[bench.Run](c, "/api/quads/brayer/bench")
			at := slices.IndexFunc(run.States, func(s bench.StepState) bool { return s.ID == run.Next })
			if at < 0 || how == "without its flight" && run.States[at].Phase == bench.Flight {
				break
			}
			step := run.States[at].Step
			body := fmt.Sprintf(`{"step":%q,"done":true`, step.ID)
			if step.Reading != nil {
				body += fmt.Sprintf(`,"value":%g`, within(step.Reading))
			}
			if step.Reads != nil {
				body += fmt.Sprintf(`,"read":%q`, step.Reads.Release)
			}
			status, text := c.do("POST", "/api/quads/brayer/bench", body+"}")
			require.Equal(t, 200, status, "%s: %s", step.ID, text)
		}
		if how == "changed after it" {
			revision := get[web.QuadView](c, "/api/quads/brayer").Revision
			status, text = post(c, "brayer", revision, `{"antennas":{"models":["teasel","teasel"]}}`)
			require.Equal(t, 200, status, text)
		}
		run := get[bench.Run](c, "/api/quads/brayer/bench")
		require.Equal(t, whole, run.Done == len(run.States), "%d of %d", run.Done, len(run.States))
		revision := get[web.QuadView](c, "/api/quads/brayer").Revision
		status, text = c.do("POST", "/api/quads/brayer/finish", fmt.Sprintf(`{"revision":%d,"anyway":%t}`, revision, !whole))
		require.Equal(t, 200, status, text)
		for _, s := range get[web.FlightsView](c, "/api/flights").Standings {
			if s.Quad == "brayer" {
				assert.Equal(t, whole, s.State == "proven", "%s: %s", how, s.Finding.Says)
				assert.Equal(t, whole, s.On != "")
			}
		}
	}
}

// within is a value that keeps the limits of a reading.
func within(r *bench.Reading) float64 {
	switch {
	case len(r.Choices) > 0:
		return float64(slices.Index(r.Choices, r.Expected))
	case r.Min != nil && r.Max != nil:
		return (*r.Min + *r.Max) / 2
	case r.Max != nil:
		return *r.Max
	case r.Min != nil:
		return *r.Min
	}
	return 1
}
