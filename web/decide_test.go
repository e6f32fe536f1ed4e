package web_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/plans/decide"
	"yokeswap/web"
)

// A whole plan is a promise: taken over HTTP, every gate stands as it said, and nothing is to be
// bought beyond what it named. So for each unit on each quad of the demo, by every way.
func TestAWholePlanTakenGivesWhatItSaid(t *testing.T) {
	c := newClient(t, "")
	board := get[web.BoardPage](c, "/api/board")
	taken := 0
	for _, row := range board.Rows {
		quad := row.Quad
		_, entry := entryOf(c, "quad", quad)
		for _, one := range get[web.CandidatesView](c, "/api/quads/"+quad+"/candidates").Candidates {
			for _, plan := range append(one.Found.Plans, one.Found.Hanging...) {
				if len(plan.Steps) == 0 {
					continue // it is so already
				}
				revision, _ := entryOf(c, "quad", quad)
				status, text := takeWhole(t, c, quad, revision, plan)
				require.Equal(t, 200, status, "%s, %s: %s", quad, one.Key, text)
				var after web.QuadView
				require.NoError(t, json.Unmarshal([]byte(text), &after))
				for i, g := range after.Judgement.Gates {
					assert.Equal(t, plan.Gates[i].Level, g.Level, "%s, %s: %s", quad, one.Key, g.Gate)
				}
				taken++
				revision, _ = entryOf(c, "quad", quad)
				status, text = c.do("PUT", fmt.Sprintf("/api/entries/quad/%s?revision=%d", quad, revision), string(entry))
				require.Equal(t, 200, status, text)
			}
		}
	}
	assert.Greater(t, taken, 100)
}

func takeWhole(t *testing.T, c client, quad string, revision int64, plan decide.Plan) (int, string) {
	var body struct {
		Revision int64         `json:"revision"`
		Patches  []fleet.Patch `json:"patches"`
	}
	body.Revision = revision
	for _, s := range plan.Steps {
		body.Patches = append(body.Patches, s.Patch)
	}
	text, err := json.Marshal(body)
	require.NoError(t, err)
	return c.do("POST", "/api/quads/"+quad+"/whole", string(text))
}

// A plan that has gone stale is not taken, and neither is half of one.
func TestAWholePlanIsTakenWholeOrNotAtAll(t *testing.T) {
	c := newClient(t, "")
	revision, entry := entryOf(c, "quad", "damsel")
	status, _ := c.do("POST", "/api/quads/damsel/whole", fmt.Sprintf(`{"revision":%d,"patches":[]}`, revision))
	assert.Equal(t, 422, status)
	status, _ = c.do("POST", "/api/quads/damsel/whole",
		fmt.Sprintf(`{"revision":%d,"patches":[{"pack":""},{"airUnit":{"kit":"nobody"}}]}`, revision))
	assert.Equal(t, 422, status)
	_, after := entryOf(c, "quad", "damsel")
	assert.JSONEq(t, string(entry), string(after))
	status, _ = c.do("POST", "/api/quads/damsel/whole", fmt.Sprintf(`{"revision":%d,"patches":[{"pack":""}]}`, revision-1))
	assert.Equal(t, 409, status)
}

// A decision for the fleet is taken in one press: each quad stands as it said, no unit is on two
// of them, and all of it is one change that can be taken back.
func TestADecisionForTheFleetIsTakenInOnePress(t *testing.T) {
	c := newClient(t, "")
	nothing := get[web.FleetDecision](c, "/api/decide")
	require.GreaterOrEqual(t, nothing.Chosen, 0, "a budget of nothing: what costs nothing")
	assert.Zero(t, nothing.Points[nothing.Chosen].Money)
	d := get[web.FleetDecision](c, "/api/decide?budget=400")
	require.NotEmpty(t, d.Quads)
	assert.Equal(t, nothing.Points, d.Points, "the curve is the same whatever the budget")
	var body struct {
		Quads []web.QuadDecision `json:"quads"`
	}
	done := 0
	for _, q := range d.Quads {
		body.Quads = append(body.Quads, web.QuadDecision{Quad: q.Quad, Revision: d.Revisions[q.Quad], Leave: q.Leave,
			Patches: q.Way.Patches})
		if !q.Leave {
			done++
		}
	}
	require.Positive(t, done)
	text, err := json.Marshal(body)
	require.NoError(t, err)
	status, answer := c.do("POST", "/api/decide", string(text))
	require.Equal(t, 200, status, answer)
	for _, q := range d.Quads {
		view := get[web.QuadView](c, "/api/quads/"+q.Quad)
		assert.Equal(t, q.Leave, !view.Planned, q.Name)
		if !q.Leave {
			assert.Equal(t, q.Way.Level, view.Judgement.Level, q.Name)
		}
	}
	status, _ = c.do("POST", "/api/decide", string(text))
	assert.Equal(t, 409, status, "what was read before is stale")
	changes := get[web.Changes](c, "/api/changes")
	assert.Contains(t, changes.Changes[0].Says, "planned the fleet")
}

// What is asked amiss is named, and nothing is decided.
func TestADecisionAskedAmiss(t *testing.T) {
	c := newClient(t, "")
	for _, query := range []string{
		"budget=-99999999",
		"budget=many",
		"currency=euro",
		"weights=films.beauty:3",
		"weights=films.picture:12",
		"weights=ships.picture:1",
		"school=nobody",
		"used=perhaps",
	} {
		status, text := c.do("GET", "/api/decide?"+query, "")
		assert.Equal(t, 422, status, "%s: %s", query, text)
	}
}
