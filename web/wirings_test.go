package web_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
	"yokeswap/web"
)

// Five wirings that come up (common practice), each entered into an empty folder as the
// forms and the pin table send it, come out as a netlist, what to solder and what to take
// off, pairs to meter and steps.

// enter saves an entry as its form does; where names its source.
func (c client) enter(kind, id, body string) {
	c.t.Helper()
	var entry map[string]any
	require.NoError(c.t, json.Unmarshal([]byte(body), &entry), body)
	if kind != "spare" {
		entry["id"] = id
	}
	if kind != "quad" && kind != "kit" && kind != "spare" {
		entry["source"] = map[string]any{"kind": "measured"}
	}
	text, err := json.Marshal(entry)
	require.NoError(c.t, err)
	status, answer := c.do("PUT", fmt.Sprintf("/api/entries/%s/%s?revision=0", kind, id), string(text))
	require.Equal(c.t, 200, status, "%s %s: %s", kind, id, answer)
}

// trade takes entries from the trade shelf.
func (c client) trade(ids ...string) {
	c.t.Helper()
	for _, id := range ids {
		status, answer := c.do("POST", "/api/trade/"+id, "{}")
		require.Equal(c.t, 200, status, "%s: %s", id, answer)
	}
}

// wire puts pins of a part on places of the board, one press each.
func (c client) wire(today bool, node string, places map[int]string) web.QuadView {
	c.t.Helper()
	for pin, place := range places {
		view := get[web.QuadView](c, "/api/quads/quad")
		body := fmt.Sprintf(`{"revision":%d,"today":%t,"node":%q,"pin":%d,"place":%q}`, view.Revision, today, node, pin, place)
		status, answer := c.do("POST", "/api/quads/quad/wire", body)
		require.Equal(c.t, 200, status, "pin %d: %s", pin, answer)
	}
	return get[web.QuadView](c, "/api/quads/quad")
}

// plan applies a patch, as a pick or a fix does.
func (c client) plan(patch any) web.QuadView {
	c.t.Helper()
	text, err := json.Marshal(patch)
	require.NoError(c.t, err)
	view := get[web.QuadView](c, "/api/quads/quad")
	status, answer := c.do("POST", "/api/quads/quad/next", fmt.Sprintf(`{"revision":%d,"patch":%s}`, view.Revision, text))
	require.Equal(c.t, 200, status, answer)
	return get[web.QuadView](c, "/api/quads/quad")
}

// nets are the wires of a part in the netlist that is handed out: "2 ground".
func (c client) nets(node string) (list []string) {
	c.t.Helper()
	view := get[web.QuadView](c, "/api/quads/quad")
	for _, part := range view.Pins.Table.Parts {
		if part.Node != node {
			continue
		}
		for _, pin := range part.Pins {
			if pin.Place != "" {
				list = append(list, fmt.Sprintf("%d %s", pin.N, pin.Place))
				assert.Equal(c.t, verdict.Fits, pin.Level, "%s pin %d: %s", part.Label, pin.N, pin.Says)
			}
		}
	}
	for _, file := range []string{"wiring.csv", "circuit.net"} {
		status, text := c.do("GET", "/api/quads/quad/"+file, "")
		require.Equal(c.t, 200, status)
		for _, net := range list {
			_, place, _ := strings.Cut(net, " ")
			if place == "batt" && file == "circuit.net" {
				place = "plus" // the pack's own
			}
			assert.Contains(c.t, strings.ToLower(text), strings.ToLower(place), "%s in %s", place, file)
		}
	}
	return list
}

// steps are the titles of the bench sheet, in order.
func (c client) steps() (titles []string) {
	for _, step := range get[bench.Run](c, "/api/quads/quad/bench").Steps {
		titles = append(titles, step.Title)
	}
	return titles
}

// inOrder says that titles come one after another, with others between them.
func inOrder(t *testing.T, titles []string, wanted ...string) {
	t.Helper()
	at := 0
	for _, want := range wanted {
		found := slices.IndexFunc(titles[at:], func(title string) bool { return strings.HasPrefix(title, want) })
		require.GreaterOrEqual(t, found, 0, "%q, after %q, in\n%s", want, titles[:at], strings.Join(titles, "\n"))
		at += found + 1
	}
}

// together are the pairs of pins that the meter must find connected.
func together(pairs []pins.Pair) (list []string) {
	for _, p := range pairs {
		if p.Connected {
			list = append(list, fmt.Sprintf("%d-%d", p.A, p.B))
		}
	}
	return list
}

func labels(depths []swap.DepthOption) (list []string) {
	for _, d := range depths {
		list = append(list, d.Label+", "+d.Sticks)
	}
	return list
}

const sixPins = `["supply","ground","uart-rx","uart-tx","rc-ground","rc-out"]`

// A header on bare pads: the unit goes onto the plug that another unit came off.
func TestByHandAHeaderOnPads(t *testing.T) {
	c := emptyClient(t)
	c.trade("trade-sh-6", "trade-header-sh-6")
	c.enter("board", "board", `{"name":"board","pads":[{"id":"batt","kind":"pack"},
		{"id":"9v","kind":"regulated","topology":"step-down","outV":9,"maxA":3}],
		"uarts":[{"id":1,"tx":true,"rx":true,"hardware":true,"invert":"software"},
			{"id":2,"tx":true,"rx":true,"hardware":true,"invert":"software"}],
		"plugs":[{"id":"hd","connector":"trade-sh-6","pins":["9v","ground","tx1","rx1","ground","rx2"]}]}`)
	c.enter("airUnit", "padded", `{"name":"Padded","input":{"minV":7,"maxV":17,"peakW":8},"rcOut":{"inverted":true,"protocol":"sbus"},
		"plug":{"none":["connector"],"pitchMM":1,"pins":`+sixPins+`}}`)
	c.enter("harness", "loom", `{"name":"loom","from":"trade-sh-6","to":"trade-sh-6","wires":[{"from":1,"to":1},
		{"from":2,"to":2},{"from":3,"to":3},{"from":4,"to":4},{"from":5,"to":5},{"from":6,"to":6}]}`)
	c.enter("kit", "unit", `{"model":"padded"}`)
	c.enter("spare", "trade-header-sh-6", `{"model":"trade-header-sh-6","count":1}`)
	c.enter("quad", "quad", `{"name":"quad","now":{"none":["analog"],"board":"board"}}`)
	view := c.plan(map[string]any{"airUnit": map[string]any{"kit": "unit"},
		"wiring": map[string]any{"harness": "loom", "harnessTo": "hd"}})
	offered := false
	for _, f := range view.Judgement.Gate(verdict.Pins).Findings {
		for _, fix := range f.Fixes {
			offered = offered || fix.Patch.Wiring != nil && fix.Patch.Wiring.Header != nil
		}
	}
	require.True(t, offered, "bare pads: a header is offered, %v", view.Judgement.Gate(verdict.Pins).Findings)
	view = c.plan(map[string]any{"wiring": map[string]any{
		"harness": "loom", "harnessTo": "hd", "header": map[string]any{"model": "trade-header-sh-6"},
		"ports": []any{map[string]any{"uart": 1, "use": "msp"}, map[string]any{"uart": 2, "use": "rc"}},
	}})
	assert.Equal(t, []string{"1 9v", "2 ground", "3 tx1", "4 rx1", "5 ground", "6 rx2"}, c.nets("airUnit"))
	assert.Empty(t, view.Pins.Soldering.Wires, "the header is soldered, no wire is")
	assert.Len(t, view.Pins.Pairs, 15)
	assert.Equal(t, []string{"2-5"}, together(view.Pins.Pairs))
	inOrder(t, c.steps(), "Put the Padded into the frame", "Solder the Header for SH", "Plug the loom", "Meter pin 1 to pin 2",
		"Meter pin 5 to pin 6", "Meter across the battery leads", "Meter the supply before", "First power-up")
	turned := c.plan(map[string]any{"wiring": map[string]any{"harness": "loom", "harnessTo": "hd",
		"header": map[string]any{"model": "trade-header-sh-6", "turned": true}}})
	assert.Equal(t, verdict.Unfit, turned.Judgement.Gate(verdict.Pins).Level, "the wrong way round it burns")
}

// Three depths of wiring, each with its ports and its wires; with a receiver of its own
// the sticks' pair stays off.
func TestByHandThreeDepths(t *testing.T) {
	c := emptyClient(t)
	c.trade("trade-sh-6", "trade-board-f7-10")
	c.enter("airUnit", "six", `{"name":"Six","input":{"minV":7,"maxV":17,"peakW":8},"rcOut":{"inverted":true,"protocol":"sbus"},
		"plug":{"connector":"trade-sh-6","pins":`+sixPins+`}}`)
	c.enter("harness", "tails", `{"name":"tails","from":"trade-sh-6","none":["to"],"wires":[{"from":1,"colour":"red"},
		{"from":2,"colour":"black"},{"from":3,"colour":"white"},{"from":4,"colour":"grey"},{"from":5,"colour":"brown"},
		{"from":6,"colour":"yellow"}]}`)
	c.enter("receiver", "own-receiver", `{"name":"Own receiver","protocols":["sbus"],"inverted":true,"fullDuplex":false,
		"input":{"minV":4.5,"maxV":5.5,"peakW":0.5},"plug":{"none":["connector"],"pins":["supply","ground","uart-tx"]}}`)
	c.enter("controller", "sticks", `{"name":"Sticks"}`)
	c.enter("kit", "sticks-1", `{"model":"sticks"}`)
	c.enter("spare", "own-receiver", `{"model":"own-receiver","count":1}`)
	c.enter("quad", "quad", `{"name":"quad","now":{"none":["analog","receiver"],"board":"trade-board-f7-10"},
		"next":{"board":"trade-board-f7-10","airUnit":{"model":"six"},"harness":"tails"}}`)
	c.wire(false, "airUnit", map[int]string{1: "10v", 2: "ground", 3: "tx1", 4: "rx1", 5: "ground", 6: "rx2"})
	assert.Equal(t, []string{"1 10v", "2 ground", "3 tx1", "4 rx1", "5 ground", "6 rx2"}, c.nets("airUnit"))
	depths := get[web.QuadView](c, "/api/quads/quad").Pins.Depths
	for _, want := range []struct {
		label  string
		wires  int
		own    int // wires of the receiver beside it
		adrift int // ends of the cable that have to be insulated
	}{
		{"picture alone", 2, 3, 4},
		{"picture and data", 4, 3, 2},
		{"picture, data and sticks", 6, 0, 0},
	} {
		at := slices.IndexFunc(depths, func(d swap.DepthOption) bool { return d.Label == want.label })
		require.GreaterOrEqual(t, at, 0, "%s in %v", want.label, labels(depths))
		assert.Equal(t, want.wires+want.own, depths[at].Wires, want.label)
		view := c.plan(depths[at].Patch)
		assert.Len(t, view.Pins.Soldering.Wires, want.wires, want.label)
		assert.Len(t, view.Pins.Off.Insulate, want.adrift, want.label)
		inOrder(t, c.steps(), fmt.Sprintf("Solder %d wires of the air unit", want.wires), "Meter pin 1 to pin 2", "First power-up")
	}
	at := slices.IndexFunc(depths, func(d swap.DepthOption) bool {
		return d.Sticks == "Own receiver" && d.Label == "picture and data"
	})
	require.GreaterOrEqual(t, at, 0, "the receiver from the drawer, in %v", labels(depths))
	c.plan(depths[at].Patch)
	view := c.wire(false, "receiver", map[int]string{1: "5v", 2: "ground", 3: "rx3"})
	assert.Equal(t, []string{"1 5v", "2 ground", "3 rx3"}, c.nets("receiver"))
	assert.Len(t, view.Pins.Soldering.Wires, 7)
	inOrder(t, c.steps(), "Solder 4 wires of the air unit", "Wire the Own receiver", "Insulate", "Bind the Own receiver")
}

// A pre-made bundle that goes into a plug of the board, and three receivers to choose from.
func TestByHandABundleWithThreeReceivers(t *testing.T) {
	c := emptyClient(t)
	c.trade("trade-sh-6", "trade-sh-4")
	c.enter("receiver", "on-board", `{"name":"Built in","protocols":["sbus"],"inverted":false}`)
	c.enter("controller", "sticks", `{"name":"Sticks"}`)
	c.enter("kit", "sticks-1", `{"model":"sticks"}`)
	c.enter("receiver", "small", `{"name":"Small","protocols":["sbus"],"inverted":false,"fullDuplex":true,
		"input":{"minV":4.4,"maxV":5.6,"peakW":0.6},
		"plug":{"connector":"trade-sh-4","pins":["supply","ground","uart-rx","uart-tx"]}}`)
	c.enter("spare", "small", `{"model":"small","count":1}`)
	c.enter("board", "aio", `{"name":"Aio","pads":[{"id":"batt","kind":"pack"},
		{"id":"9v","kind":"regulated","topology":"step-down","outV":9,"maxA":3},
		{"id":"4v5","kind":"regulated","topology":"step-down","outV":4.5,"maxA":0.5}],
		"uarts":[{"id":1,"tx":true,"rx":true,"hardware":true,"invert":"software"},
			{"id":2,"tx":true,"rx":true,"hardware":true,"invert":"software"},
			{"id":3,"tx":true,"rx":true,"hardware":true,"invert":"software"},
			{"id":4,"hardware":true,"invert":"none","builtIn":true}],
		"builtIn":"on-board",
		"plugs":[{"id":"hd","connector":"trade-sh-6","pins":["9v","ground","tx1","rx1","ground","rx2"]},
			{"id":"receiver","connector":"trade-sh-4","pins":["4v5","ground","tx3","rx3"]}]}`)
	c.enter("airUnit", "six", `{"name":"Six","input":{"minV":7,"maxV":17,"peakW":8},"rcOut":{"inverted":true,"protocol":"sbus"},
		"plug":{"connector":"trade-sh-6","pins":`+sixPins+`}}`)
	c.enter("harness", "bundle", `{"name":"bundle","from":"trade-sh-6","to":"trade-sh-6","wires":[{"from":1,"to":1,"colour":"red"},
		{"from":2,"to":2,"colour":"black"},{"from":3,"to":3,"colour":"white"},{"from":4,"to":4,"colour":"grey"},
		{"from":5,"to":5,"colour":"brown"},{"from":6,"to":6,"colour":"yellow"}]}`)
	c.enter("harness", "four", `{"name":"four","from":"trade-sh-4","to":"trade-sh-4","wires":[{"from":1,"to":1},{"from":2,"to":2},
		{"from":3,"to":3},{"from":4,"to":4}]}`)
	c.enter("quad", "quad", `{"name":"quad","now":{"none":["analog"],"board":"aio"},
		"next":{"board":"aio","airUnit":{"model":"six"},"harness":"bundle","harnessTo":"hd",
			"ports":[{"uart":1,"use":"msp"},{"uart":2,"use":"rc"}]}}`)
	view := get[web.QuadView](c, "/api/quads/quad")
	assert.Equal(t, []string{"1 9v", "2 ground", "3 tx1", "4 rx1", "5 ground", "6 rx2"}, c.nets("airUnit"))
	assert.Empty(t, view.Pins.Soldering.Wires, "plugged, nothing is soldered")
	ways := map[string]bool{}
	for _, d := range view.Pins.Depths {
		ways[d.Sticks] = true
		after := c.plan(d.Patch)
		assert.Equal(t, d.Level, after.Judgement.Level, "%s, %s: as it was said", d.Label, d.Sticks)
		c.nets("airUnit")
	}
	assert.True(t, ways["Small"] && ways["Built in"] && len(ways) >= 3, "%v", ways)
	c.plan(map[string]any{"receiver": "small", "receiverCable": map[string]any{"harness": "four", "harnessTo": "receiver"}})
	assert.Equal(t, []string{"1 4v5", "2 ground", "3 tx3", "4 rx3"}, c.nets("receiver"))
	inOrder(t, c.steps(), "Plug the bundle", "Meter pin 1 to pin 2", "Bind the Small", "Check every stick")
}

// A compact craft: a unit with bare pads and two harnesses soldered to it.
func TestByHandTwoHarnessesOnPads(t *testing.T) {
	c := emptyClient(t)
	c.trade("trade-board-f7-10")
	c.enter("airUnit", "compact", `{"name":"Compact","input":{"minV":7,"maxV":17,"peakW":8},
		"rcOut":{"inverted":true,"protocol":"sbus"},"plug":{"none":["connector"],"pitchMM":1.2,"pins":`+sixPins+`}}`)
	c.enter("harness", "four", `{"name":"four","none":["from","to"],"wires":[{"from":1,"colour":"red"},
		{"from":2,"colour":"black"},{"from":3,"colour":"white"},{"from":4,"colour":"grey"}]}`)
	c.enter("harness", "two", `{"name":"two","none":["from","to"],"wires":[{"from":5,"colour":"brown"},
		{"from":6,"colour":"yellow"}]}`)
	c.enter("quad", "quad", `{"name":"quad","now":{"none":["analog"],"board":"trade-board-f7-10"},
		"next":{"board":"trade-board-f7-10","airUnit":{"model":"compact"},"harness":"four","beside":[{"harness":"two"}]}}`)
	view := c.wire(false, "airUnit", map[int]string{1: "10v", 2: "ground", 3: "tx1", 4: "rx1", 5: "ground", 6: "rx2"})
	assert.Equal(t, []string{"1 10v", "2 ground", "3 tx1", "4 rx1", "5 ground", "6 rx2"}, c.nets("airUnit"))
	assert.Len(t, view.Pins.Soldering.Wires, 6)
	assert.Equal(t, []string{"2-5"}, together(view.Pins.Pairs))
	inOrder(t, c.steps(), "Put the Compact into the frame", "Solder 6 wires of the air unit", "Meter pin 1 to pin 2", "First power-up")
	// The way back: what was put on comes off, wire by wire.
	status, text := c.do("POST", "/api/quads/quad/finish", fmt.Sprintf(`{"revision":%d,"anyway":true}`, view.Revision))
	require.Equal(t, 200, status, text)
	back := c.plan(map[string]any{"airUnit": map[string]any{}, "wiring": map[string]any{}})
	assert.Len(t, back.Pins.Off.Wires, 6, "%v", back.Pins.Off)
}

// Another stack in a ducted craft: old wires off, new ones on, the ESC's cable, the set-up
// from factory state.
func TestByHandAnotherStack(t *testing.T) {
	c := emptyClient(t)
	c.trade("trade-sh-6", "trade-sh-8", "trade-board-f4")
	c.enter("board", "new-board", `{"name":"New board","pads":[{"id":"batt","kind":"pack"},
		{"id":"10v","kind":"regulated","topology":"step-down","outV":10,"maxA":3},
		{"id":"5v","kind":"regulated","topology":"step-down","outV":5,"maxA":2}],
		"uarts":[{"id":1,"tx":true,"rx":true,"hardware":true,"invert":"software"},
			{"id":2,"tx":true,"rx":true,"hardware":true,"invert":"software"},
			{"id":4,"tx":true,"rx":true,"hardware":true,"invert":"software"}],
		"signals":["motor1","motor2","motor3","motor4","current","buzzer"],
		"plugs":[{"id":"hd","connector":"trade-sh-6","pins":["10v","ground","tx1","rx1","ground","rx2"]},
			{"id":"esc","connector":"trade-sh-8","pins":["batt","ground","motor1","motor2","motor3","motor4","rx4","current"]}]}`)
	c.enter("airUnit", "six", `{"name":"Six","input":{"minV":7,"maxV":26,"peakW":8},"rcOut":{"inverted":true,"protocol":"sbus"},
		"plug":{"connector":"trade-sh-6","pins":`+sixPins+`}}`)
	c.enter("harness", "tails", `{"name":"tails","from":"trade-sh-6","none":["to"],"wires":[{"from":1,"colour":"red"},
		{"from":2,"colour":"black"},{"from":3,"colour":"white"},{"from":4,"colour":"grey"}]}`)
	c.enter("harness", "loom", `{"name":"loom","from":"trade-sh-6","to":"trade-sh-6","wires":[{"from":1,"to":1},
		{"from":2,"to":2},{"from":3,"to":3},{"from":4,"to":4},{"from":5,"to":5},{"from":6,"to":6}]}`)
	c.enter("harness", "esc-cable", `{"name":"ESC cable","from":"trade-sh-8","to":"trade-sh-8","wires":[{"from":1,"to":1},
		{"from":2,"to":2},{"from":3,"to":3},{"from":4,"to":4},{"from":5,"to":5},{"from":6,"to":6},{"from":7,"to":7},
		{"from":8,"to":8}]}`)
	c.enter("part", "esc", `{"name":"Four in one","sort":"esc","inverted":false,"input":{"minV":7,"maxV":26,"peakW":1},
		"plug":{"connector":"trade-sh-8","pins":["supply","ground","motor1","motor2","motor3","motor4","telemetry","current"]}}`)
	c.enter("flightFirmware", "flies", `{"name":"Flies","dialect":"common"}`)
	c.enter("kit", "unit", `{"model":"six"}`)
	c.enter("quad", "quad", `{"name":"quad","now":{"none":["analog"],"board":"trade-board-f4","airUnit":{"kit":"unit"},
		"harness":"tails","runs":{"id":"flies","version":"4.5"},"parts":[{"id":"esc","model":"esc"}]}}`)
	c.wire(true, "airUnit", map[int]string{1: "batt", 2: "ground", 3: "tx1", 4: "rx1"})
	view := c.wire(true, "esc", map[int]string{1: "batt", 2: "ground", 3: "motor1", 4: "motor2", 5: "motor3", 6: "motor4"})
	assert.Empty(t, view.Pins.Off.Wires, "nothing is planned")
	view = c.plan(map[string]any{"board": "new-board", "wiring": map[string]any{"harness": "loom", "harnessTo": "hd",
		"ports": []any{map[string]any{"uart": 1, "use": "msp"}, map[string]any{"uart": 2, "use": "rc"},
			map[string]any{"uart": 4, "use": "telemetry"}}},
		"parts": []any{map[string]any{"id": "esc", "model": "esc", "harness": "esc-cable", "harnessTo": "esc"}}})
	assert.Len(t, view.Pins.Off.Wires, 10, "four of the unit, six of the ESC")
	assert.Equal(t, []string{"1 10v", "2 ground", "3 tx1", "4 rx1", "5 ground", "6 rx2"}, c.nets("airUnit"))
	assert.Len(t, c.nets("esc"), 8)
	inOrder(t, c.steps(), "Take off what does not stay", "Fit the New board", "Plug the loom", "Wire the Four in one",
		"Set the new flight board up from factory state")
	status, list := c.do("GET", "/api/shopping", "")
	require.Equal(t, 200, status)
	assert.Contains(t, list, "New board")
	assert.Contains(t, list, "ESC cable")
}
