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
