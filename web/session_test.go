package web_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/glebarez/sqlite"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gorm.io/gorm"

	"yokeswap/core/facts/stock"
	"yokeswap/demo"
	"yokeswap/store"
	"yokeswap/web"
)

func TestAKeyIsMadeToBeTyped(t *testing.T) {
	seen := map[string]bool{}
	for range 200 {
		key := web.NewKey()
		assert.Regexp(t, regexp.MustCompile(`^([a-z]{5}-){7}[a-z]{5}$`), key)
		assert.False(t, seen[key])
		seen[key] = true
	}
}

// A browser elsewhere is let in by the key, typed as people type, and then known by a
// session of its own, which can be ended; the key in an address does nothing.
func TestAKeyIsAskedWhereOthersReachIt(t *testing.T) {
	key := web.NewKey()
	c := newClient(t, key)
	status, _ := c.do("GET", "/api/health", "", "Host", "bench.example")
	assert.Equal(t, 401, status)
	status, _ = c.do("GET", "/api/health?key="+key, "")
	assert.Equal(t, 401, status, "never in an address")
	status, _ = c.do("GET", "/api/health", "", "Authorization", "Bearer "+key)
	assert.Equal(t, 401, status, "the key itself opens nothing but the door")
	response, err := http.Post(c.server.URL+"/api/session", "application/json", strings.NewReader(
		`{"key":"`+strings.ToUpper(strings.ReplaceAll(key, "-", "  "))+`","name":"the phone"}`))
	require.NoError(t, err)
	response.Body.Close()
	require.Equal(t, 200, response.StatusCode)
	require.Len(t, response.Cookies(), 1)
	cookie := response.Cookies()[0]
	assert.True(t, cookie.HttpOnly)
	assert.Equal(t, http.SameSiteStrictMode, cookie.SameSite)
	as := web.SessionCookie + "=" + cookie.Value
	status, _ = c.do("GET", "/api/health", "", "Cookie", as)
	assert.Equal(t, 200, status)
	status, text := c.do("PUT", "/api/region", `{"was":"harrow-shire","region":""}`, "Cookie", as)
	assert.Equal(t, 200, status, text)
	_, text = c.do("GET", "/api/events?count=1", "", "Cookie", as)
	assert.Contains(t, text, `"who":"the phone"`)

	var list []store.Session
	_, text = c.do("GET", "/api/sessions", "", "Cookie", as)
	require.NoError(t, json.Unmarshal([]byte(text), &list))
	require.Len(t, list, 1)
	assert.NotContains(t, text, cookie.Value)
	status, _ = c.do("DELETE", fmt.Sprintf("/api/sessions/%d", list[0].ID), "", "Cookie", as)
	assert.Less(t, status, 300)
	status, _ = c.do("GET", "/api/health", "", "Cookie", as)
	assert.Equal(t, 401, status, "it was ended")
}

func TestGuessingAKeyIsSlow(t *testing.T) {
	c := newClient(t, web.NewKey())
	counts := map[int]int{}
	for range 50 {
		status, _ := c.do("POST", "/api/session", `{"key":"lusab"}`)
		counts[status]++
	}
	assert.Equal(t, 5, counts[401])
	assert.Equal(t, 45, counts[429])
}

// What a page elsewhere, or a hand on the address bar, can make the program open: nothing.
func TestNothingIsOpenedThatNobodyNamed(t *testing.T) {
	c := newClient(t, "")
	opened := 0
	trap := httptest.NewServer(http.HandlerFunc(func(http.ResponseWriter, *http.Request) { opened++ }))
	defer trap.Close()
	at := "tcp:" + strings.TrimPrefix(trap.URL, "http://")
	status, _ := c.do("GET", "/api/quads/quern/fault?symptom=no-osd&address="+at, "")
	assert.Less(t, status, 500)
	for _, address := range []string{at, "serial:/etc/passwd", "serial:/dev/../etc/passwd", "tcp:192.0.2.1:80", "file:/etc/passwd"} {
		for _, path := range []string{"read", "live", "keep"} {
			status, text := c.do("POST", "/api/quads/quern/board/"+path, `{"address":"`+address+`"}`)
			assert.Equal(t, 422, status, "%s %s: %s", path, address, text)
		}
		status, _ = c.do("POST", "/api/quads/quern/fault?symptom=no-osd", `{"address":"`+address+`"}`)
		assert.Equal(t, 422, status)
		status, _ = c.do("POST", "/api/quads/quern/board/set", `{"propsOff":true,"address":"`+address+`"}`)
		assert.Equal(t, 422, status)
	}
	assert.Zero(t, opened)
	status, text := c.do("POST", "/api/quads/quern/board/read", `{"confirmed":true,"address":"serial:/etc/passwd"}`)
	assert.Equal(t, 422, status, text)
	status, text = c.do("POST", "/api/quads/quern/board/read", `{"confirmed":true,"address":"tcp:192.0.2.1:80"}`)
	assert.Equal(t, 502, status, "not even then: %s", text)
	status, _ = c.do("POST", "/api/quads/quern/board/read", `{"confirmed":true,"address":"`+at+`"}`)
	assert.Equal(t, 502, status, "a board that is none, but said to be one")
	assert.Contains(t, text, "not on this machine")
}

// The board is as it is whatever the disk does: what happened is told, kept and written
// once that can be done.
func TestWhatHappenedToABoardIsToldWhateverTheDiskDoes(t *testing.T) {
	dir := t.TempDir()
	st, err := store.Open(dir)
	require.NoError(t, err)
	require.NoError(t, st.Update(store.Deed{}, func(s *stock.Stock) error { return demo.Load(s) }))
	var lines bytes.Buffer
	server := httptest.NewServer(web.New(st, web.Options{Log: slog.New(slog.NewTextHandler(&lines, nil))}))
	t.Cleanup(func() { server.Close(); st.Close() })
	c := client{t, server}
	run := sqlOf(t, dir)
	run(
		`CREATE TRIGGER no_log BEFORE INSERT ON events WHEN NEW.says LIKE 'Flight board%' BEGIN SELECT RAISE(ABORT, 'no room'); END`,
	)
	var ports web.BoardPorts
	_, text := c.do("POST", "/api/quads/rynd/board/stand-in", `{"faults":{}}`)
	require.NoError(t, json.Unmarshal([]byte(text), &ports))
	status, text := c.do("POST", "/api/quads/rynd/board/set", `{"propsOff":true,"address":"`+ports.StandIn+`"}`)
	require.Equal(t, 200, status, text)
	assert.Contains(t, text, `"outcome":"set"`)
	assert.Contains(t, text, "could not be written into the log yet")
	assert.Contains(t, lines.String(), "the log cannot be written")
	_, text = c.do("GET", "/api/quads/rynd/log", "")
	assert.NotContains(t, text, "Flight board, set")
	run(`DROP TRIGGER no_log`)
	_, text = c.do("GET", "/api/quads/rynd/log", "")
	assert.Contains(t, text, "Flight board, set")
}

// sqlOf runs statements on the database in a folder, beside the program.
func sqlOf(t *testing.T, dir string) func(string) {
	db, err := gorm.Open(sqlite.Open(filepath.Join(dir, store.FileName) + "?_pragma=busy_timeout(5000)"))
	require.NoError(t, err)
	raw, err := db.DB()
	require.NoError(t, err)
	t.Cleanup(func() { raw.Close() })
	return func(sql string) { require.NoError(t, db.Exec(sql).Error) }
}
