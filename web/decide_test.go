package web_test

import (
	"encoding/json"
	"fmt"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
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
		if os.Getenv("SOAK") == "" && slices.Contains([]string{"quern", "damsel", "wallower"}, quad) {
			continue // those with most ways are pressed in the longer run
		}
		_, entry := entryOf(c, "quad", quad)
		for _, one := range get[web.CandidatesView](c, "/api/quads/"+quad+"/candidates").Candidates {
			plans := append(one.Found.Plans, one.Found.Hanging...)
			for _, with := range one.With { // goggles to buy
				plans = append(plans, append(with.Found.Plans, with.Found.Hanging...)...)
			}
			for _, plan := range plans {
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
	assert.Greater(t, taken, 50)
}

// The rest of a plan: what is found for the unit that is planned, taken, leaves nothing more to change.
func TestTheRestOfAPlan(t *testing.T) {
	c := newClient(t, "")
	for _, quad := range []string{"sluice", "brayer"} {
		found := get[web.WholeView](c, "/api/quads/"+quad+"/whole")
		revision, _ := entryOf(c, "quad", quad)
		require.Equal(t, revision, found.Revision)
		plans := append(found.Found.Plans, found.Found.Hanging...)
		require.NotEmpty(t, plans, quad)
		if len(plans[0].Steps) > 0 {
			status, text := takeWhole(t, c, quad, revision, plans[0])
			require.Equal(t, 200, status, text)
		}
		again := get[web.WholeView](c, "/api/quads/"+quad+"/whole").Found
		assert.Empty(t, append(again.Plans, again.Hanging...)[0].Steps, quad)
	}
	status, _ := c.do("GET", "/api/quads/nobody/whole", "")
	assert.Equal(t, 404, status)
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
	inOrderAndBesideTheSchools(t, c)
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

// The same question has the same answer as a bill, as a sequence and beside the other schools.
func inOrderAndBesideTheSchools(t *testing.T, c client) {
	asked := "budget=400&school=used-middle"
	d := get[web.FleetDecision](c, "/api/decide?"+asked)
	require.True(t, d.Used && d.Sell && !d.OneGoggles)
	spends, changed := 0.0, 0
	for _, l := range d.Bill {
		if !l.Sold {
			spends += l.Amount
		}
	}
	for _, q := range d.Quads {
		if !q.Leave {
			changed++
		}
	}
	o := get[web.OrderView](c, "/api/decide/order?"+asked+"&by=2999-01-01")
	assert.Equal(t, decide.Purse{Now: 400, Month: 60, Stated: true}, o.Purse)
	assert.Equal(t, decide.BenchEvery, o.Every)
	daily := get[web.OrderView](c, "/api/decide/order?"+asked+"&every=1")
	assert.Equal(t, 1, daily.Every)
	for i := range daily.Stages { // whoever has a bench day each day waits for parts alone
		assert.LessOrEqual(t, daily.Stages[i].BenchOn, o.Stages[i].BenchOn)
	}
	for _, every := range []string{"-1", "91", "x"} {
		status, _ := c.do("GET", "/api/decide/order?"+asked+"&every="+every, "")
		assert.Equal(t, 422, status, every)
	}
	status, text := c.do("GET", "/api/decide/order?budget=400&currency=CHF", "")
	assert.Equal(t, 422, status, "what there is is stated in another currency: %s", text)
	require.NotNil(t, o.Holds)
	assert.True(t, *o.Holds)
	for _, s := range o.Stages {
		spends -= s.Amount
		changed -= len(s.Quads)
	}
	assert.InDelta(t, 0, spends, 0.01)
	assert.Zero(t, changed)
	for _, by := range []string{"2001-01-01", "2026-02-30", "soon"} {
		status, text := c.do("GET", "/api/decide/order?"+asked+"&by="+by, "")
		assert.Equal(t, 422, status, text)
	}
	beside := get[web.SchoolsView](c, "/api/decide/schools?budget=400")
	require.Len(t, beside.Schools, 5)
	plans := map[string]bool{}
	for _, s := range beside.Schools {
		require.True(t, s.Found, s.School.ID)
		plans[fmt.Sprint(s.Quads)] = true
		if s.School.ID == "used-middle" {
			assert.InDelta(t, d.Points[d.Chosen].Money, s.Money, 1e-9)
		}
	}
	assert.Len(t, plans, 5, "each school makes another plan of the demo")
	own := get[web.FleetDecision](c, "/api/decide?"+asked+"&used=no&sell=no&weights=none.picture:3")
	assert.False(t, own.Used || own.Sell)
	at := slices.IndexFunc(own.Purposes, func(p decide.Purpose) bool { return p.ID == fleet.NoPurpose })
	assert.Equal(t, decide.Weights{decide.Picture: 3}, own.Purposes[at].Weights)
}

// A rate is stated, and what was left out for want of one is there.
func TestWhatThereIsToSpend(t *testing.T) {
	c := newClient(t, "")
	for _, quad := range []string{"quern", "damsel", "wallower", "fantail", "hopper", "brayer"} {
		revision, _ := entryOf(c, "quad", quad)
		status, text := c.do("DELETE", fmt.Sprintf("/api/entries/quad/%s?revision=%d", quad, revision), "")
		require.Equal(t, 200, status, text)
	}
	foreign := get[web.FleetDecision](c, "/api/decide?budget=400&currency=CHF")
	require.NotEmpty(t, foreign.Foreign)
	purse := foreign.Purse
	more := web.Purse{Means: purse.Means, Rates: append(slices.Clone(purse.Rates),
		fleet.Rate{Currency: "CHF", Worth: 1.05, In: "EUR"}, fleet.Rate{Currency: "CHF", Worth: 0.9, In: "GBP"})}
	body, err := json.Marshal(map[string]any{"was": purse, "is": more})
	require.NoError(t, err)
	status, text := c.do("PUT", "/api/means", string(body))
	require.Equal(t, 200, status, text)
	assert.Empty(t, get[web.FleetDecision](c, "/api/decide?budget=400&currency=CHF").Foreign)
	status, _ = c.do("PUT", "/api/means", string(body))
	assert.Equal(t, 409, status, "what was shown is no longer so")
	more.Rates = append(more.Rates, fleet.Rate{Currency: "EUR", Worth: 2, In: "EUR"})
	body, err = json.Marshal(map[string]any{"was": get[web.FleetDecision](c, "/api/decide").Purse, "is": more})
	require.NoError(t, err)
	status, text = c.do("PUT", "/api/means", string(body))
	assert.Equal(t, 422, status, text)
}

// Two quads are held against each other as they fly or as they are planned; a quad that is not
// there, and one against itself, are refused by name.
func TestTwoQuadsOverHTTP(t *testing.T) {
	c := newClient(t, "")
	none := get[web.AgainstView](c, "/api/against")
	assert.Len(t, none.Quads, 9)
	assert.Empty(t, none.Measures)
	words := func(v web.AgainstView, id string) []string {
		at := slices.IndexFunc(v.Measures, func(m decide.Measure) bool { return m.ID == id })
		require.GreaterOrEqual(t, at, 0, id)
		return v.Measures[at].Words
	}
	flying := get[web.AgainstView](c, "/api/against?one=quern&other=fantail")
	assert.Equal(t, []string{"41 Mb/s", "52 Mb/s"}, words(flying, "bitrate"))
	assert.Equal(t, "Fantail", flying.Sides[1].Name)
	planned := get[web.AgainstView](c, "/api/against?one=quern&other=fantail&planned=true")
	assert.NotEqual(t, flying.Sides[0].Flies, planned.Sides[0].Flies, "Quern gets another unit")
	for path, want := range map[string]struct {
		status int
		says   string
	}{
		"/api/against?one=quern&other=nobody": {404, "nobody"},
		"/api/against?one=quern&other=quern":  {422, "pick two"},
	} {
		status, text := c.do("GET", path, "")
		assert.Equal(t, want.status, status, path)
		assert.Contains(t, text, want.says)
	}
}

// Buying a quad ready-made stands among what could go on one, and whatever it costs.
func TestAReadyMadeQuadIsACandidate(t *testing.T) {
	t.Parallel()
	c := newClient(t, "")
	found := 0
	for _, one := range get[web.CandidatesView](c, "/api/quads/whip/candidates").Candidates {
		if one.Ready == nil {
			continue
		}
		found++
		assert.Equal(t, decide.ReadyMade, one.Origin)
		assert.Contains(t, one.Ready.Says[0], "In it: Aldine T")
	}
	assert.Equal(t, 2, found)
	body := `{"id":"own-whole","name":"Own whole","source":{"kind":"measured"}}`
	status, text := c.do("PUT", "/api/entries/readyQuad/own-whole?revision=0", body)
	require.Equal(t, 200, status, text)
	for _, one := range get[web.CandidatesView](c, "/api/quads/whip/candidates").Candidates {
		if one.Key == "ready:own-whole" {
			assert.Equal(t, verdict.Unknown, one.Level)
			assert.Nil(t, one.Ready.Price)
			found++
		}
	}
	assert.Equal(t, 3, found)
}

// One that was bought is taken in with one press: what its sheet says is in it is on it, its air unit
// is a piece of kit, and what nobody has looked at is asked. It goes back as one change.
func TestAReadyMadeQuadIsTakenIn(t *testing.T) {
	t.Parallel()
	c := newClient(t, "")
	body := func(ready, like string) map[string]any {
		return map[string]any{"name": "Scutch", "analog": false, "ready": ready, "like": like}
	}
	begun := sent[web.Begun](c, "/api/begin/quad", body("scutch-5", "whip"))
	entry := func(kind, id string, is any) {
		_, text := entryOf(c, kind, id)
		require.NoError(t, json.Unmarshal(text, is), "%s %s", kind, id)
	}
	var q, whip fleet.Quad
	var made gear.ReadyQuad
	var kit fleet.Kit
	entry("quad", begun.Quad, &q)
	entry("readyQuad", "scutch-5", &made)
	entry("quad", "whip", &whip)
	require.NotNil(t, q.Now.AirUnit)
	entry("kit", q.Now.AirUnit.Kit, &kit)
	assert.Equal(t, made.AirUnit, kit.Model)
	assert.Empty(t, kit.Firmware)
	assert.Equal(t, []string{made.Board, made.Frame, made.Pack, made.Receiver},
		[]string{q.Now.Board, q.Now.Frame, q.Now.Pack, q.Now.Receiver})
	assert.Equal(t, made.Antennas, q.Now.Antennas.Models)
	assert.Equal(t, whip.Purpose, q.Purpose)
	assert.Equal(t, whip.NextFit().Goggles.Kit, q.Now.Goggles.Kit)
	assert.Equal(t, made.HoverA, q.HoverA)
	require.NotNil(t, q.AUWG)
	assert.Greater(t, *q.AUWG, *made.MassG)
	assert.Nil(t, q.Next)
	view := get[web.SlotsView](c, "/api/quads/"+begun.Quad+"/slots?today=true")
	assert.NotEqual(t, verdict.Fits, view.Level, "nobody has looked at how it is wired")
	status, text := c.do("POST", "/api/undo", fmt.Sprintf(`{"change":%d}`, begun.Change))
	require.Equal(t, 200, status, text)
	_, gone := entryOf(c, "quad", begun.Quad)
	assert.Nil(t, gone)
	_, gone = entryOf(c, "kit", kit.ID)
	assert.Nil(t, gone)
	for _, wrong := range []map[string]any{body("nix", ""), body("scutch-5", "nix")} {
		text, err := json.Marshal(wrong)
		require.NoError(t, err)
		status, said := c.do("POST", "/api/begin/quad", string(text))
		assert.Equal(t, 422, status)
		assert.Contains(t, said, "nix")
	}
}
