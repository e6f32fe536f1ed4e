package web_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/work/bench"
	"yokeswap/core/work/diagnose"
	"yokeswap/core/work/setup"
	"yokeswap/msp"
	"yokeswap/web"
)

// The antennas of goggles are changed from the picture; what is meanwhile
// otherwise is not written over.
func TestAntennasOfGogglesAreChanged(t *testing.T) {
	c := newClient(t, "")
	put := func(body string) int {
		status, _ := c.do("PUT", "/api/kit/visor-c-1/antennas/1", body)
		return status
	}
	level := func() verdict.Level {
		judgement := get[web.QuadView](c, "/api/quads/fantail").Judgement
		return judgement.Gate(verdict.Antenna).Level
	}
	require.Equal(t, verdict.Fits, level())
	picture := get[web.QuadView](c, "/api/quads/fantail").Antenna.Picture
	assert.Equal(t, "visor-c-1", picture.Goggles)
	require.Len(t, picture.Ports, 2)
	assert.Equal(t, 200, put(`{"was":"crown-dual","model":"crown-patch"}`))
	assert.Equal(t, 409, put(`{"was":"crown-dual","model":"crown-patch"}`), "another tab has changed it")
	assert.Equal(t, 409, put(`{"was":"crown-patch","model":"crown-l"}`), "none is owned")
	assert.Equal(t, 200, put(`{"was":"crown-patch","model":""}`))
	assert.Equal(t, verdict.Caution, level(), "one antenna of two")
	status, _ := c.do("PUT", "/api/kit/nobody/antennas/1", `{"was":"","model":""}`)
	assert.Equal(t, 404, status)
}

// The story of the demo: a quad planned onto a digital unit is read from the
// stand-in, shows three differences, is set, rebooted and read back clean; a cut
// cable ends with settings that can be put back.
func TestTheBoardIsReadSetAndReadBack(t *testing.T) {
	c := newClient(t, "")
	post := func(path, body string) (int, string) { return c.do("POST", "/api/quads/rynd/board/"+path, body) }
	decode := func(text string, into any) { require.NoError(t, json.Unmarshal([]byte(text), into), text) }
	status, text := post("stand-in", `{"faults":{}}`)
	require.Equal(t, 200, status, text)
	var ports web.BoardPorts
	decode(text, &ports)
	assert.Equal(t, ports.StandIn, get[web.BoardPorts](c, "/api/quads/rynd/board").StandIn)
	at := `"address":"` + ports.StandIn + `"`

	status, text = post("read", `{`+at+`}`)
	require.Equal(t, 200, status, text)
	var view web.BoardView
	decode(text, &view)
	assert.Equal(t, 3, view.Comparison.Differences(), "%+v", view.Comparison.Rows)

	status, text = post("set", `{`+at+`,"propsOff":false}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "Take the props off")

	var report web.BoardReport
	post("stand-in", `{"faults":{"cutAfter":3}}`)
	status, text = post("set", `{`+at+`,"propsOff":true}`)
	require.Equal(t, 200, status, text)
	decode(text, &report)
	assert.Equal(t, msp.NotSaved, report.Outcome)
	assert.True(t, report.Restore)
	assert.Contains(t, report.Says, "reads as it was")

	status, text = post("set", `{`+at+`,"propsOff":true}`)
	require.Equal(t, 200, status, text)
	report = web.BoardReport{}
	decode(text, &report)
	assert.Equal(t, msp.Set, report.Outcome, text)
	require.NotNil(t, report.Comparison)
	assert.Zero(t, report.Comparison.Differences())

	kept := get[[]web.BoardKept](c, "/api/quads/rynd/board/snapshots")
	require.Len(t, kept, 2)
	status, text = post("restore", fmt.Sprintf(`{%s,"propsOff":true,"snapshot":%d}`, at, kept[1].ID))
	require.Equal(t, 200, status, text)
	decode(text, &report)
	assert.Equal(t, msp.Set, report.Outcome, text)
	_, text = post("read", `{`+at+`}`)
	decode(text, &view)
	assert.Equal(t, 3, view.Comparison.Differences(), "as it was before")
	kept = get[[]web.BoardKept](c, "/api/quads/rynd/board/snapshots")
	require.Len(t, kept, 3)
	assert.NotEmpty(t, kept[0].Differs)
	_, text = c.do("GET", fmt.Sprintf("/api/quads/rynd/board/snapshots/%d", kept[0].ID), "")
	assert.Contains(t, text, `"variant": "TNSY"`)

	assert.Equal(t, kept[0].Differs,
		get[[]setup.Difference](c, fmt.Sprintf("/api/quads/rynd/board/between?a=%d&b=%d", kept[1].ID, kept[0].ID)))
	status, _ = c.do("GET", "/api/quads/rynd/board/between?a=1&b=999", "")
	assert.Equal(t, 404, status)

	// The superset too: its own port function, and other numbers for the rest.
	_, text = c.do("POST", "/api/quads/fantail/board/stand-in", `{"faults":{}}`)
	decode(text, &ports)
	_, text = c.do("POST", "/api/quads/fantail/board/read", `{"address":"`+ports.StandIn+`"}`)
	view = web.BoardView{}
	decode(text, &view)
	assert.Equal(t, "CRIE", view.State.Variant)
	assert.Contains(t, view.Comparison.Rows, setup.Row{
		Code:   setup.CodePort,
		Label:  "UART 3",
		Wanted: "digital",
		Found:  "digital",
		Same:   true,
		Why:    "the air unit's UART is wired to it",
	})

	status, text = post("live", `{`+at+`}`)
	require.Equal(t, 200, status, text)
	var live web.BoardLive
	require.NoError(t, json.Unmarshal([]byte(text), &live))
	assert.Contains(t, live.Known, "flip-over", "the modes that can be put on a switch are the firmware's")
	post("stand-in", `{"faults":{"variant":"OTHR"}}`)
	_, text = post("set", `{`+at+`,"propsOff":true}`)
	assert.Contains(t, text, "nothing is written")
	status, _ = post("stand-in", `{"stop":true,"faults":{}}`)
	require.Equal(t, 200, status)
	status, text = post("read", `{`+at+`,"confirmed":true}`)
	assert.Equal(t, 502, status)
	assert.Contains(t, text, "Check the cable and the port")
	status, text = c.do("POST", "/api/quads/whip/board/stand-in", `{"faults":{}}`)
	assert.Equal(t, 409, status, text)
}

// Picture, but no OSD: the planted fault is found, by the wiring of one quad and by
// asking the board of another.
func TestThePlantedFaultIsFound(t *testing.T) {
	c := newClient(t, "")
	first := func(path string) diagnose.Cause { return get[web.FaultView](c, path).Diagnosis.Causes[0] }
	assert.Equal(t, "swapped", first("/api/quads/damsel/fault?symptom=no-osd").ID)
	assert.Equal(t, diagnose.Possible, first("/api/quads/brayer/fault?symptom=no-osd").Standing)
	assert.Equal(t, "osd-off", first("/api/quads/brayer/fault?symptom=no-osd&no=swapped").ID)
	_, text := c.do("POST", "/api/quads/brayer/board/stand-in", `{"osdOff":true,"faults":{}}`)
	var ports web.BoardPorts
	require.NoError(t, json.Unmarshal([]byte(text), &ports))
	status, text := c.do("POST", "/api/quads/brayer/fault?symptom=no-osd", `{"address":"`+ports.StandIn+`"}`)
	require.Equal(t, 200, status, text)
	var view web.FaultView
	require.NoError(t, json.Unmarshal([]byte(text), &view))
	assert.True(t, view.BoardRead)
	asked := view.Diagnosis.Causes[0]
	assert.Equal(t, "osd-off", asked.ID)
	assert.Equal(t, diagnose.Found, asked.Standing)
	status, _ = c.do("GET", "/api/quads/brayer/fault?symptom=gremlins", "")
	assert.Equal(t, 404, status)
	status, text = c.do("POST", "/api/quads/brayer/log", `{"says":"It was this: the OSD feature is off."}`)
	assert.Equal(t, 200, status, text)
	assert.Len(t, get[web.FaultView](c, "/api/quads/brayer/fault").Log, 1)
}

// A swap is finished when its steps are done, or when one says so anyway: next is
// now, the run is in the log, and the board answers anew.
func TestASwapIsFinished(t *testing.T) {
	c := newClient(t, "")
	view := get[web.QuadView](c, "/api/quads/hopper")
	finish := func(anyway bool, revision int64) (int, string) {
		return c.do("POST", "/api/quads/hopper/finish", fmt.Sprintf(`{"revision":%d,"anyway":%t}`, revision, anyway))
	}
	status, text := finish(false, view.Revision)
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "steps are not done")
	status, text = c.do("POST", "/api/quads/hopper/bench", `{"step":"check:close","done":true,"value":431}`)
	require.Equal(t, 200, status, text)
	status, _ = finish(true, view.Revision-1)
	assert.Equal(t, 409, status, "changed meanwhile")
	status, text = finish(true, view.Revision)
	require.Equal(t, 200, status, text)
	assert.Contains(t, text, "Swap finished, Pellow Mini to Aldine Two: 1 of")
	assert.Contains(t, text, "all-up weight 431 g")
	after := get[web.QuadView](c, "/api/quads/hopper")
	assert.Equal(t, "Aldine Two", after.Now.AirUnit)
	assert.Equal(t, after.Now, after.Next)
	assert.Zero(t, get[bench.Run](c, "/api/quads/hopper/bench").Done)
	status, text = finish(true, after.Revision)
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "Nothing is planned for Hopper")
}

// Bad input to the board's calls: named, nothing hangs, nothing is written.
func TestBadInputToTheBoard(t *testing.T) {
	c := newClient(t, "")
	for _, bad := range []struct {
		path, body string
		status     int
		says       string
	}{
		{"read", `{"address":""}`, 422, "length"},
		{"read", `{"address":"pigeon:loft","confirmed":true}`, 502, "expected serial:NAME or tcp:HOST:PORT"},
		{"read", `{"address":"tcp:198.51.100.7:8741","confirmed":true}`, 502, "not on this machine or in its own network"},
		{"read", `{"address":"serial:/dev/none"}`, 422, "plug the board in"},
		{"set", `{"address":"tcp:127.0.0.1:1","confirmed":true,"propsOff":true}`, 200, "nothing was written"},
		{"restore", `{"address":"tcp:127.0.0.1:1","propsOff":true,"snapshot":99}`, 404, "no snapshot"},
		{"stand-in", `{"faults":{"gremlins":true}}`, 422, "unexpected property"},
	} {
		status, text := c.do("POST", "/api/quads/rynd/board/"+bad.path, bad.body)
		assert.Equal(t, bad.status, status, "%s %s: %s", bad.path, bad.body, text)
		assert.Contains(t, text, bad.says)
	}
	for _, path := range []string{
		"/api/quads/nobody/board",
		"/api/quads/nobody/board/snapshots",
		"/api/quads/nobody/fault",
	} {
		status, _ := c.do("GET", path, "")
		assert.Equal(t, 404, status, path)
	}
	assert.Empty(t, get[[]web.BoardKept](c, "/api/quads/rynd/board/snapshots"))
}

// One board at a time: a second request is refused at once, with who is talked to
// since when, and never waits.
func TestASecondBoardIsRefusedAtOnce(t *testing.T) {
	c := newClient(t, "")
	status, text := c.do("POST", "/api/quads/rynd/board/stand-in", `{"faults":{"slowMS":150}}`)
	require.Equal(t, 200, status, text)
	var ports web.BoardPorts
	require.NoError(t, json.Unmarshal([]byte(text), &ports))
	body := `{"address":"` + ports.StandIn + `"}`
	done := make(chan int)
	go func() {
		status, _ := c.do("POST", "/api/quads/rynd/board/read", body)
		done <- status
	}()
	time.Sleep(300 * time.Millisecond)
	began := time.Now()
	status, text = c.do("POST", "/api/quads/quern/board/read", body)
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "Busy with board "+ports.StandIn+" since")
	assert.Less(t, time.Since(began), time.Second)
	assert.Equal(t, 200, <-done, "the first goes on")
	status, _ = c.do("POST", "/api/quads/rynd/board/read", body)
	assert.Equal(t, 200, status, "and then the line is free")
}

// A switch is found by flipping it, and judged before it goes into the plan: a range for
// arming that lies in another mode's is refused.
func TestAFlippedSwitchGoesIntoThePlan(t *testing.T) {
	c := newClient(t, "")
	body := func(mode string, more string) string {
		still := `{"channels":[1500,1500,1000,1500,1000,1000,1000,1000],"armed":false,"volts":0,"held":true}`
		moved := `{"channels":[1500,1500,1000,1500,1000,1000,1000,2000],"armed":false,"volts":0,"held":true}`
		return fmt.Sprintf(`{"mode":%q,"samples":[%s,%s]%s}`, mode, still, moved, more)
	}
	status, text := c.do("POST", "/api/quads/rynd/flip", body("return-home", ""))
	require.Equal(t, 200, status, text)
	var found web.FlipView
	require.NoError(t, json.Unmarshal([]byte(text), &found))
	assert.Equal(t, 4, found.Flip.Aux)
	assert.Contains(t, found.Flip.Says, "return home is on from 1500 to 2100")
	quad := get[web.QuadView](c, "/api/quads/rynd")
	patch, err := json.Marshal(found.Patch)
	require.NoError(t, err)
	status, text = c.do("POST", "/api/quads/rynd/next", fmt.Sprintf(`{"revision":%d,"patch":%s}`, quad.Revision, patch))
	require.Equal(t, 200, status, text)
	assert.Contains(t, text, `"return-home"`)

	status, text = c.do("POST", "/api/quads/rynd/flip", body("arm", `,"fromUS":900,"toUS":2100`))
	require.Equal(t, 200, status, text)
	require.NoError(t, json.Unmarshal([]byte(text), &found))
	assert.True(t, found.Refused, "armed wherever the switch stands: %s", text)
	status, text = c.do(
		"POST",
		"/api/quads/rynd/flip",
		`{"mode":"arm","samples":[{"channels":[1500],"armed":true,"volts":0}]}`,
	)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "the board is armed")
	status, text = c.do("POST", "/api/quads/rynd/flip", strings.ReplaceAll(body("arm", ""), `,"held":true`, ""))
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "does not hold its arming off")
}

// A board is told to hold its arming off before a switch is flipped; one that does not know
// how is not read on, and the props come first.
func TestABoardHoldsItsArmingOff(t *testing.T) {
	c := newClient(t, "")
	_, text := c.do("POST", "/api/quads/rynd/board/stand-in", `{"faults":{}}`)
	var ports web.BoardPorts
	require.NoError(t, json.Unmarshal([]byte(text), &ports))
	look := func(more string) (int, web.BoardLive, string) {
		status, text := c.do("POST", "/api/quads/rynd/board/live", fmt.Sprintf(`{"address":%q%s}`, ports.StandIn, more))
		var live web.BoardLive
		_ = json.Unmarshal([]byte(text), &live)
		return status, live, text
	}
	status, live, text := look("")
	require.Equal(t, 200, status, text)
	assert.False(t, live.Held, "nobody has asked")
	status, _, text = look(`,"hold":true`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "props are off")
	status, live, text = look(`,"hold":true,"propsOff":true`)
	require.Equal(t, 200, status, text)
	assert.True(t, live.Held)
	_, live, _ = look(`,"hold":false`)
	assert.False(t, live.Held)
	_, _ = c.do("POST", "/api/quads/rynd/board/stand-in", `{"faults":{"noHold":true}}`)
	status, _, text = look(`,"hold":true,"propsOff":true`)
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "could start the motors")
}

// hopper is the demo's quad as it is stored, with its revision.
func hopper(c client) (q fleet.Quad, revision int64) {
	for _, e := range get[web.Shelf](c, "/api/shelf?kind=quad").Entries {
		if e.ID == "hopper" {
			body, err := json.Marshal(e.Entry)
			require.NoError(c.t, err)
			require.NoError(c.t, json.Unmarshal(body, &q))
			return q, e.Revision
		}
	}
	c.t.Fatal("no hopper")
	return q, 0
}

// What a board says is noted as on the quad today, what is asked for of it alone; then it
// is what is noted.
func TestABoardsWordIsNotedAsToday(t *testing.T) {
	c := newClient(t, "")
	_, text := c.do("POST", "/api/quads/hopper/board/stand-in", `{"faults":{}}`)
	var ports web.BoardPorts
	require.NoError(t, json.Unmarshal([]byte(text), &ports), text)
	was, revision := hopper(c)
	bare := was
	bare.Now.Flight = fleet.Flight{Runs: was.Now.Runs}
	body, err := json.Marshal(bare)
	require.NoError(t, err)
	status, text := c.do("PUT", fmt.Sprintf("/api/entries/quad/hopper?revision=%d", revision), string(body))
	require.Equal(t, 200, status, text)

	take := func(keys string) (int, string) {
		return c.do("POST", "/api/quads/hopper/board/today", fmt.Sprintf(`{"address":%q,"take":[%s]}`, ports.StandIn, keys))
	}
	status, text = take(`"order","switches"`)
	require.Equal(t, 200, status, text)
	q, _ := hopper(c)
	assert.Equal(t, was.Now.Sticks.Order, q.Now.Sticks.Order)
	assert.NotEmpty(t, q.Now.Sticks.Switches)
	assert.Nil(t, q.Now.OSD, "it was not asked for")
	status, text = take(`"osd","ports","features"`)
	require.Equal(t, 200, status, text)
	var view web.BoardView
	require.NoError(t, json.Unmarshal([]byte(text), &view))
	for _, tell := range view.Tells {
		assert.True(t, tell.Same, "%+v", tell)
	}
	status, text = take(`"colour"`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "nothing was changed")
}

// Kept settings tell of today as the board does, and a text as far as it goes, with no board
// on the line.
func TestKeptSettingsAreNotedAsToday(t *testing.T) {
	c := newClient(t, "")
	_, text := c.do("POST", "/api/quads/hopper/board/stand-in", `{"faults":{}}`)
	var ports web.BoardPorts
	require.NoError(t, json.Unmarshal([]byte(text), &ports), text)
	status, text := c.do("POST", "/api/quads/hopper/board/keep", fmt.Sprintf(`{"address":%q}`, ports.StandIn))
	require.Equal(t, 200, status, text)
	kept := get[[]web.BoardKept](c, "/api/quads/hopper/board/snapshots")[0].ID
	was, revision := hopper(c)
	bare := was
	bare.Now.Flight, bare.Now.Ports = fleet.Flight{Runs: was.Now.Runs}, nil
	body, err := json.Marshal(bare)
	require.NoError(t, err)
	status, text = c.do("PUT", fmt.Sprintf("/api/entries/quad/hopper?revision=%d", revision), string(body))
	require.Equal(t, 200, status, text)
	told := func(ask string) (list []setup.Tell) {
		status, text = c.do("POST", "/api/quads/hopper/board/told", ask)
		require.Equal(t, 200, status, text)
		var out web.BoardTells
		require.NoError(t, json.Unmarshal([]byte(text), &out))
		return out.Tells
	}
	open := func(list []setup.Tell) (keys []string) {
		for _, tell := range list {
			if !tell.Same {
				keys = append(keys, tell.Key)
			}
		}
		return keys
	}
	assert.Equal(t, []string{"ports", "features", "order", "switches", "osd"}, open(told(fmt.Sprintf(`{"snapshot":%d}`, kept))))
	assert.Equal(t, []string{"ports", "switches"},
		open(told(fmt.Sprintf(`{"snapshot":%d,"take":["order","features","osd"]}`, kept))),
		"from what was kept, with no board on the line")
	q, _ := hopper(c)
	assert.Equal(t, was.Now.Sticks.Order, q.Now.Sticks.Order)
	assert.Contains(t, q.Now.Features, "osd")

	list := told(`{"text":"; settings of TNSY 4.5.3\nport 6 carries satellites","take":["runs","ports"]}`)
	assert.Empty(t, open(list), "from a text alone, and noted")
	q, _ = hopper(c)
	assert.Contains(t, q.Now.Ports, fleet.Port{UART: 6, Use: fleet.UseGPS})
	assert.Equal(t, firmware.Version("4.5.3"), q.Now.Runs.Version)
	for ask, why := range map[string]string{
		`{"text":"one and only line"}`:                                "does not say",
		`{"text":"; settings of TNSY 4.5.3","take":["osd"]}`:          "nothing was changed",
		fmt.Sprintf(`{"snapshot":%d,"take":["runs","colour"]}`, kept): "nothing was changed",
	} {
		status, text = c.do("POST", "/api/quads/hopper/board/told", ask)
		assert.Equal(t, 422, status, ask)
		assert.Contains(t, text, why)
	}
	// With nothing noted that brings the sticks, the receivers that would come as the board is set
	// to are offered, and the one picked is noted.
	bare, revision = hopper(c)
	bare.Now.AirUnit, bare.Now.Controller, bare.Now.Receiver, bare.Now.Ports = nil, nil, "", nil
	body, err = json.Marshal(bare)
	require.NoError(t, err)
	status, text = c.do("PUT", fmt.Sprintf("/api/entries/quad/hopper?revision=%d", revision), string(body))
	require.Equal(t, 200, status, text)
	picks := func(ask string) (list []setup.TellPick) {
		for _, tell := range told(ask) {
			if tell.Key == setup.TellsReceiver {
				list = tell.Picks
			}
		}
		return list
	}
	offered := picks(fmt.Sprintf(`{"snapshot":%d}`, kept))
	require.NotEmpty(t, offered)
	assert.Empty(t, picks(fmt.Sprintf(`{"snapshot":%d,"take":[%q]}`, kept, offered[0].Key)), "it is noted")
	q, _ = hopper(c)
	assert.Equal(t, offered[0].Key, "receiver:"+q.Now.Receiver)

	status, _ = c.do("POST", "/api/quads/hopper/board/told", `{"snapshot":9999}`)
	assert.Equal(t, 404, status)
}
