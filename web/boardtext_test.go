package web_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/console"
	"yokeswap/core/work/settext"
	"yokeswap/demo"
	"yokeswap/msp"
	"yokeswap/web"
)

// withText is a client with a stand-in for the board of a quad that reboots at once.
func withText(t *testing.T, quad, faults string) (post func(path string, body map[string]any, into any) int, address string) {
	c := newClient(t, "")
	status, text := c.do("POST", "/api/quads/"+quad+"/board/stand-in", `{"faults":{"rebootMS":60,"saveMS":5`+faults+`}}`)
	require.Equal(t, 200, status, text)
	var ports web.BoardPorts
	require.NoError(t, json.Unmarshal([]byte(text), &ports))
	return func(path string, body map[string]any, into any) int {
		out, err := json.Marshal(body)
		require.NoError(t, err)
		status, text := c.do("POST", "/api/quads/"+quad+"/board/text/"+path, string(out))
		require.NoError(t, json.Unmarshal([]byte(text), into), text)
		return status
	}, ports.StandIn
}

// The bundle of a maker is held against the board, what may be loaded is, failsafe and
// arming are read again, and what was kept is loaded back.
func TestABundleIsLoadedAndTakenBack(t *testing.T) {
	t.Parallel()
	post, at := withText(t, "quern", "")
	var view web.BoardTextView
	require.Equal(t, 200, post("compare", map[string]any{"text": demo.Bundle, "address": at}, &view))
	assert.Equal(t, "TNSY 4.5.3", view.Runs)
	require.Empty(t, view.Refused)
	held := map[string]string{}
	for _, row := range view.Rows {
		if row.Held != "" {
			held[row.Key] = row.Held
		}
	}
	assert.Len(t, held, 4, "%v", held)
	assert.Contains(t, held["motor 1"], "motors")
	assert.Contains(t, held["pin lamp"], "pins")
	assert.Contains(t, held["send-region"], "region")
	assert.Contains(t, held["swirl-guard"], "nobody has stated")

	var problem struct{ Detail string }
	assert.Equal(t, 422, post("load", map[string]any{"text": demo.Bundle, "address": at, "propsOff": false}, &problem))
	assert.Contains(t, problem.Detail, "props off")

	var done console.Loaded
	require.Equal(t, 200, post("load", map[string]any{"text": demo.Bundle, "address": at, "propsOff": true}, &done))
	require.Equal(t, msp.Set, done.Outcome, done.Says)
	assert.Contains(t, done.Sent, "failsafe-does is return")
	assert.NotContains(t, strings.Join(done.Sent, "\n"), "motor")
	again := map[string]string{}
	for _, row := range done.Aftermath.Again {
		again[row.Key] = row.Found
	}
	assert.Equal(t, "flies home (return)", again["failsafe-does"])
	assert.Equal(t, "aux1", again["switch arm"])

	require.Equal(t, 200, post("compare", map[string]any{"text": demo.Bundle, "address": at}, &view))
	for i := range view.Rows {
		assert.False(t, view.Rows[i].Loads, view.Rows[i].Label)
	}

	var kept []web.BoardKept
	require.Equal(t, 200, post("keep", map[string]any{"address": at}, &kept))
	require.Len(t, kept, 2)
	assert.True(t, kept[0].Text && kept[1].Text)
	require.Equal(t, 200, post("compare", map[string]any{"snapshot": kept[1].ID, "against": kept[0].ID}, &view))
	assert.Positive(t, loads(&view.Compared))
	require.Equal(t, 200, post("load", map[string]any{"snapshot": kept[1].ID, "address": at, "propsOff": true}, &done))
	require.Equal(t, msp.Set, done.Outcome, done.Says)
	require.Equal(t, 200, post("compare", map[string]any{"snapshot": kept[1].ID, "address": at}, &view))
	assert.Zero(t, loads(&view.Compared), "all is as it was: %v", view.Says)
}

func loads(c *settext.Compared) (n int) {
	for i := range c.Rows {
		if c.Rows[i].Loads {
			n++
		}
	}
	return n
}

// Line by line: only what was picked is sent, and nothing that is held back.
func TestLinesOfATextArePicked(t *testing.T) {
	t.Parallel()
	post, at := withText(t, "quern", "")
	var view web.BoardTextView
	require.Equal(t, 200, post("compare", map[string]any{"text": demo.Bundle, "address": at}, &view))
	line := map[string]int{}
	for _, row := range view.Rows {
		line[row.Key] = row.Line
	}
	var done console.Loaded
	for _, picked := range [][]int{{line["motor 1"]}, {line["roll-rate"], line["send-region"]}, {line["units"]}, {999}} {
		require.Equal(t, 200, post("load", map[string]any{"text": demo.Bundle, "address": at, "propsOff": true, "lines": picked}, &done))
		assert.Equal(t, msp.Unchanged, done.Outcome)
		assert.Contains(t, done.Says, "held back")
		assert.Empty(t, done.Sent)
	}
	require.Equal(t, 200, post("load", map[string]any{"text": demo.Bundle, "address": at, "propsOff": true,
		"lines": []int{line["roll-rate"]}}, &done))
	assert.Equal(t, msp.Set, done.Outcome, done.Says)
	assert.Equal(t, []string{"roll-rate is 72"}, done.Sent)
}

// Texts of something else, cut ones and boards that speak none are named, and the board is
// left as it was.
func TestTextsAndBoardsThatDoNotFit(t *testing.T) {
	t.Parallel()
	post, at := withText(t, "quern", "")
	for _, c := range []struct{ name, text, says string }{
		{"another release", strings.Replace(demo.Bundle, "4.5.3", "4.6.0", 1), "another release"},
		{"another board", strings.Replace(demo.Bundle, "bramble-f7", "thistle-f4", 1), "another board"},
		{"another firmware", strings.Replace(demo.Bundle, "TNSY", "CRIE", 1), "another flight firmware"},
		{"cut in the middle", demo.Bundle[:len(demo.Bundle)/2], "It is cut"},
		{"none at all", "", "It is cut"},
	} {
		var view web.BoardTextView
		require.Equal(t, 200, post("compare", map[string]any{"text": c.text, "address": at}, &view), c.name)
		assert.Contains(t, view.Refused, c.says, c.name)
		var done console.Loaded
		require.Equal(t, 200, post("load", map[string]any{"text": c.text, "address": at, "propsOff": true}, &done), c.name)
		assert.Equal(t, msp.Unchanged, done.Outcome, c.name)
		assert.Contains(t, done.Says, c.says, c.name)
	}
	var problem struct{ Detail string }
	assert.Equal(t, 422, post("compare", map[string]any{"text": "a\x00b", "address": at}, &problem))
	assert.Equal(t, 404, post("compare", map[string]any{"text": "x", "against": 77}, &problem))

	other, corrie := withText(t, "fantail", "")
	assert.Equal(t, 422, other("keep", map[string]any{"address": corrie}, &problem))
	assert.Contains(t, problem.Detail, "Nobody has stated how this flight firmware is talked to")

	mute, silent := withText(t, "quern", `,"noText":true`)
	assert.Equal(t, 502, mute("keep", map[string]any{"address": silent}, &problem))
	assert.Contains(t, problem.Detail, "does not answer in its settings text")
	half, torn := withText(t, "quern", `,"cutText":true`)
	var view web.BoardTextView
	require.Equal(t, 200, half("compare", map[string]any{"text": demo.Bundle, "address": torn}, &view))
	assert.Contains(t, view.Refused, "What the board told is not whole")
}

// What was kept in the board's own text goes out as a file.
func TestAKeptTextGoesOut(t *testing.T) {
	t.Parallel()
	c := newClient(t, "")
	_, text := c.do("POST", "/api/quads/quern/board/stand-in", `{"faults":{"rebootMS":60}}`)
	var ports web.BoardPorts
	require.NoError(t, json.Unmarshal([]byte(text), &ports))
	_, text = c.do("POST", "/api/quads/quern/board/text/keep", `{"address":"`+ports.StandIn+`"}`)
	var kept []web.BoardKept
	require.NoError(t, json.Unmarshal([]byte(text), &kept), text)
	status, text := c.do("GET", fmt.Sprintf("/api/quads/quern/board/snapshots/%d/text", kept[0].ID), "")
	assert.Equal(t, 200, status)
	assert.Contains(t, text, "craft-name is Quern")
	naming := fmt.Sprintf("/api/quads/quern/board/snapshots/%d/name", kept[0].ID)
	status, text = c.do("PUT", naming, `{"name":"  as   bought "}`)
	require.Equal(t, 200, status, text)
	require.NoError(t, json.Unmarshal([]byte(text), &kept))
	assert.Equal(t, "as bought", kept[0].Name)
	status, _ = c.do("PUT", "/api/quads/whip/board/snapshots/1/name", `{"name":"not its own"}`)
	assert.Equal(t, 404, status)
	_, text = c.do("POST", "/api/quads/quern/board/keep", `{"address":"`+ports.StandIn+`"}`)
	require.NoError(t, json.Unmarshal([]byte(text), &kept))
	status, text = c.do("GET", fmt.Sprintf("/api/quads/quern/board/snapshots/%d/text", kept[0].ID), "")
	assert.Equal(t, 422, status, text)
	assert.False(t, kept[0].Text)
}
