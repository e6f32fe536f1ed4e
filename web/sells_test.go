package web_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/work/tasks"
	"yokeswap/web"
)

// decided is a decision as it is pressed, with what is sold.
func decided(d *web.FleetDecision) map[string]any {
	var quads []web.QuadDecision
	var sells []string
	for _, q := range d.Quads {
		quads = append(quads, web.QuadDecision{Quad: q.Quad, Revision: d.Revisions[q.Quad], Leave: q.Leave, Patches: q.Way.Patches})
	}
	for _, l := range d.Bill {
		if l.Sold {
			sells = append(sells, l.Kit)
		}
	}
	return map[string]any{"quads": quads, "sells": sells, "used": d.Used, "revision": d.Fleet, "name": "sold"}
}

func asJSON(t *testing.T, c client, path string, body any) (int, string) {
	text, err := json.Marshal(body)
	require.NoError(t, err)
	return c.do("POST", path, string(text))
}

// What a choice sells goes with it: into a scenario, into what differs, into the plan of the fleet, and onto
// the list of what is still to be done once nobody flies with it.
func TestWhatIsSoldGoesWithTheChoice(t *testing.T) {
	c := newClient(t, "")
	d := get[web.FleetDecision](c, "/api/decide?budget=400&used=yes&sell=yes")
	body := decided(&d)
	sells := body["sells"].([]string)
	require.NotEmpty(t, sells)
	status, text := asJSON(t, c, "/api/scenarios", body)
	require.Equal(t, 200, status, text)
	view := get[web.ScenariosView](c, "/api/scenarios")
	at := slices.IndexFunc(view.Scenarios, func(s web.ScenarioRow) bool { return s.Name == "sold" })
	kept := view.Scenarios[at]
	var kits []string
	for _, sale := range kept.Told.Sales {
		kits = append(kits, sale.Kit)
		assert.Empty(t, sale.Flies, sale.Label)
		assert.NotNil(t, sale.Brings, sale.Label)
	}
	assert.ElementsMatch(t, sells, kits)
	assert.Empty(t, view.Scenarios[0].Told.Sales, "it changes nothing yet")
	differs := func(view web.ScenariosView) (kits []string) {
		for _, one := range view.Differ {
			if one.Kit != "" {
				assert.Equal(t, []string{"it is sold"}, one.Is)
				kits = append(kits, one.Kit)
			}
		}
		return kits
	}
	assert.ElementsMatch(t, sells, differs(get[web.ScenariosView](c, "/api/scenarios?is="+kept.ID)))

	status, text = asJSON(t, c, "/api/scenarios/"+kept.ID+"/plan", map[string]any{"revision": view.Revision})
	require.Equal(t, 200, status, text)
	view = get[web.ScenariosView](c, "/api/scenarios?is="+kept.ID)
	assert.Len(t, view.Scenarios[0].Told.Sales, len(sells))
	assert.Empty(t, differs(view))
	told := get[web.ScenariosView](c, "/api/scenarios").Scenarios
	assert.NotEqual(t, told[0].Told.Bill, told[at].Told.Bill, "the one is bought new, the other used as well")

	status, text = asJSON(t, c, "/api/scenarios", map[string]any{"revision": view.Revision, "name": "again", "copy": kept.ID})
	require.Equal(t, 200, status, text)
	told = get[web.ScenariosView](c, "/api/scenarios").Scenarios
	assert.Equal(t, told[at].Told, told[len(told)-1].Told, "a copy sells the same")
}

// What is off the shelf is sold by no scenario any more.
func TestWhatIsGoneIsNotSold(t *testing.T) {
	c := newClient(t, "")
	sales := func() int {
		view := get[web.ScenariosView](c, "/api/scenarios")
		return len(view.Scenarios[1].Told.Sales)
	}
	require.Equal(t, 1, sales())
	revision, _ := entryOf(c, "kit", "visor-a-1")
	status, text := c.do("DELETE", fmt.Sprintf("/api/entries/kit/visor-a-1?revision=%d", revision), "")
	require.Equal(t, 200, status, text)
	assert.Equal(t, 0, sales())
}

// What is to be sold is on the list of what is to be done once nobody flies with it, with its account; off
// the shelf it is off all lists, and what is planned to be flown with is not sold.
func TestWhatIsToBeSoldIsATask(t *testing.T) {
	c := newClient(t, "")
	selling := func() (list []tasks.Open) {
		for _, o := range get[web.TasksView](c, "/api/tasks").Open {
			if strings.HasPrefix(o.Key, "sell:") {
				list = append(list, o)
			}
		}
		return list
	}
	flown, idle := "", ""
	board := get[fleet.Fleet](c, "/api/export/fleet")
	for _, k := range board.Kit {
		flies := slices.ContainsFunc(board.Quads, func(q fleet.Quad) bool { return q.Now.FliesWith(k.ID) || q.WillFlyWith(k.ID) })
		if flies {
			flown = k.ID
		} else {
			idle = k.ID
		}
	}
	require.NotEmpty(t, idle)
	leave := web.QuadDecision{Quad: board.Quads[0].ID, Leave: true, Patches: []fleet.Patch{}}
	leave.Revision, _ = entryOf(c, "quad", leave.Quad)
	status, text := asJSON(t, c, "/api/decide", map[string]any{"quads": []web.QuadDecision{leave}, "sells": []string{idle, flown}})
	require.Equal(t, 200, status, text)
	require.Len(t, selling(), 1, "%s is flown with", flown)
	assert.Equal(t, "sell:"+idle, selling()[0].Key)
	leave.Revision, _ = entryOf(c, "quad", leave.Quad)
	status, text = asJSON(t, c, "/api/decide", map[string]any{"quads": []web.QuadDecision{leave}, "sells": []string{"nothing"}})
	assert.Equal(t, 422, status)
	assert.Contains(t, text, `no piece of kit \"nothing\"`)
	status, text = asJSON(t, c, "/api/decide", map[string]any{"quads": []web.QuadDecision{leave}})
	require.Equal(t, 200, status, text)
	var kit fleet.Kit
	_, entry := entryOf(c, "kit", flown)
	require.NoError(t, json.Unmarshal(entry, &kit))
	assert.False(t, kit.Sell, "it is planned to be flown with")
	_, entry = entryOf(c, "kit", idle)
	require.NoError(t, json.Unmarshal(entry, &kit))
	assert.True(t, kit.Sell, "nobody has said otherwise")
}
