package web_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/web"
)

// A scenario is kept from the plan there is, copied, held against it, made the plan in one press and
// taken back; names and revisions are asked for.
func TestScenarios(t *testing.T) {
	c := newClient(t, "")
	view := get[web.ScenariosView](c, "/api/scenarios")
	require.Len(t, view.Scenarios, 2, "the plan there is, and the demo's")
	post := func(path string, body map[string]any) (int, string) {
		body["revision"] = get[web.ScenariosView](c, "/api/scenarios").Revision
		text, err := json.Marshal(body)
		require.NoError(t, err)
		return c.do("POST", path, string(text))
	}
	status, text := post("/api/scenarios", map[string]any{"name": "As it was"})
	require.Equal(t, 200, status, text)
	status, _ = post("/api/scenarios", map[string]any{"name": "As it was"})
	assert.Equal(t, 422, status, "the name is taken")
	status, _ = post("/api/scenarios", map[string]any{"name": ""})
	assert.Equal(t, 422, status)
	status, _ = post("/api/scenarios", map[string]any{"name": "x", "copy": "nobody"})
	assert.Equal(t, 404, status)
	status, text = post("/api/scenarios", map[string]any{"name": "Two", "copy": "newest-for-the-gorge"})
	require.Equal(t, 200, status, text)
	status, _ = c.do("POST", "/api/scenarios", `{"revision":0,"name":"late"}`)
	assert.Equal(t, 409, status)

	view = get[web.ScenariosView](c, "/api/scenarios?than=newest-for-the-gorge")
	require.Len(t, view.Scenarios, 4)
	assert.Equal(t, view.Scenarios[0].Told, view.Scenarios[2].Told, "kept as it is planned")
	assert.Equal(t, view.Scenarios[1].Told, view.Scenarios[3].Told)
	require.Len(t, view.Differ, 2)
	assert.Equal(t, "visor-a-1", view.Differ[1].Kit)
	assert.Equal(t, []string{"it is sold"}, view.Differ[1].Than)
	assert.Equal(t, "Quern", view.Differ[0].Name)
	assert.Contains(t, view.Differ[0].Is, "new Two")
	assert.Contains(t, view.Differ[0].Than, "One of Quern")

	status, text = post("/api/scenarios/newest-for-the-gorge/plan", map[string]any{})
	require.Equal(t, 200, status, text)
	assert.False(t, get[web.QuadView](c, "/api/quads/quern").Planned)
	assert.Empty(t, get[web.ScenariosView](c, "/api/scenarios?than=newest-for-the-gorge").Differ)
	planned := get[web.ScenariosView](c, "/api/scenarios")
	assert.Equal(t, planned.Scenarios[1].Told, planned.Scenarios[0].Told)
	status, text = post("/api/scenarios/"+planned.Scenarios[2].ID+"/plan", map[string]any{})
	require.Equal(t, 200, status, text)
	assert.True(t, get[web.QuadView](c, "/api/quads/quern").Planned, "and the way back")
	assert.Contains(t, get[web.Changes](c, "/api/changes").Changes[0].Says, "planned a scenario")

	revision := get[web.ScenariosView](c, "/api/scenarios").Revision
	status, text = c.do("DELETE", fmt.Sprintf("/api/scenarios/newest-for-the-gorge?revision=%d", revision), "")
	require.Equal(t, 200, status, text)
	assert.Len(t, get[web.ScenariosView](c, "/api/scenarios").Scenarios, 3)
	status, _ = c.do("GET", "/api/scenarios?is=newest-for-the-gorge", "")
	assert.Equal(t, 404, status)
}

// A piece of kit a scenario names cannot be taken out, and it is said what names it.
func TestWhatAScenarioNames(t *testing.T) {
	c := newClient(t, "")
	revision, _ := entryOf(c, "kit", "one-sluice")
	status, text := c.do("DELETE", fmt.Sprintf("/api/entries/kit/one-sluice?revision=%d", revision), "")
	assert.NotEqual(t, 200, status, text)
	revision, _ = entryOf(c, "quad", "sluice")
	status, text = c.do("DELETE", fmt.Sprintf("/api/entries/quad/sluice?revision=%d", revision), "")
	require.Equal(t, 200, status, text)
	revision, _ = entryOf(c, "kit", "one-sluice")
	status, text = c.do("DELETE", fmt.Sprintf("/api/entries/kit/one-sluice?revision=%d", revision), "")
	assert.Equal(t, 200, status, text)
}
