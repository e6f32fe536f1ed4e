package web_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/sheet"
	"yokeswap/web"
)

// post sends plain text.
func postText(c client, path, text string, out any) int {
	status, answer := c.do("POST", path, text)
	if status == 200 {
		require.NoError(c.t, json.Unmarshal([]byte(answer), out))
	}
	return status
}

// A table of a builder's drawer is read, and what is confirmed of it taken in: counts,
// prices, pieces of kit. What names nothing is asked; taken back, all is as it was.
func TestATableIsTakenIn(t *testing.T) {
	c := newClient(t, "")
	before := get[web.Shelf](c, "/api/shelf")
	var table sheet.Table
	text := "part;count;price (EUR);days;firmware\nCowl R;7;18,90;4;\nVisor C;2;;;2.2\nTallow;3;;;\nPawl 9 V step-down;1;12,00;3;\n"
	require.Equal(t, 200, postText(c, "/api/read/table", text, &table))
	require.Len(t, table.Rows, 4)
	assert.Equal(t, []string{"cowl-r", "visor-c", "", "pawl-9"},
		[]string{table.Rows[0].Model, table.Rows[1].Model, table.Rows[2].Model, table.Rows[3].Model})
	assert.True(t, table.Rows[2].Ask)
	assert.NotEmpty(t, table.Rows[2].Among)

	var rows []string
	for _, r := range table.Rows {
		if r.Model == "" {
			continue
		}
		row, err := json.Marshal(r.Row)
		require.NoError(t, err)
		rows = append(rows, strings.Replace(string(row), "{", fmt.Sprintf("{%q:%q,", "model", r.Model), 1))
	}
	body := `{"more":false,"rows":[` + strings.Join(rows, ",") + `]}`
	status, answer := c.do("POST", "/api/table", body)
	require.Equal(t, 200, status, answer)
	var taken web.TableTaken
	require.NoError(t, json.Unmarshal([]byte(answer), &taken))
	assert.Equal(t, 3, taken.Rows)
	assert.Equal(t, 5, taken.Entries, "two counts, two prices and one piece of kit")

	after := get[web.Shelf](c, "/api/shelf")
	find := func(of web.Shelf, kind, id string) string {
		for _, e := range of.Entries {
			if e.Kind == kind && e.ID == id {
				text, err := json.Marshal(e.Entry)
				require.NoError(t, err)
				return string(text)
			}
		}
		return ""
	}
	assert.Contains(t, find(after, "spare", "cowl-r"), `"count":7`)
	assert.Contains(t, find(after, "antenna", "cowl-r"), `"offer":{"currency":"EUR","days":4,"price":18.9}`)
	assert.Contains(t, find(after, "spare", "pawl-9"), `"count":1`)
	assert.Contains(t, find(after, "kit", "visor-c-2"), `"firmware":"2.2"`, "one of two was there")
	status, answer = c.do("POST", "/api/undo", fmt.Sprintf(`{"change":%d}`, taken.Change))
	require.Equal(t, 200, status, answer)
	for _, e := range [][2]string{{"spare", "cowl-r"}, {"antenna", "cowl-r"}, {"spare", "pawl-9"}, {"kit", "visor-c-2"}} {
		assert.Equal(t, find(before, e[0], e[1]), find(get[web.Shelf](c, "/api/shelf"), e[0], e[1]), e)
	}
}

func TestATableIsTakenWholeOrNotAtAll(t *testing.T) {
	c := newClient(t, "")
	before, _ := json.Marshal(get[web.Shelf](c, "/api/shelf").Entries)
	for name, c2 := range map[string]struct{ body, says string }{
		"a model nobody knows": {`{"more":false,"rows":[{"model":"cowl-r","count":1},{"model":"nothing","count":1}]}`, "row 2: there is no gear"},
		"fewer than there are": {`{"more":false,"rows":[{"model":"cowl-r","count":1},{"model":"visor-a","count":0}]}`, "by hand"},
		"no release":           {`{"more":false,"rows":[{"model":"visor-a","count":3,"firmware":"latest"}]}`, "row 1: Visor A"},
		"no currency":          {`{"more":false,"rows":[{"model":"cowl-r","price":5}]}`, "currency"},
		"a price below zero":   {`{"more":false,"rows":[{"model":"cowl-r","price":-5,"currency":"EUR"}]}`, ""},
		"no rows":              {`{"more":false,"rows":[]}`, ""},
	} {
		status, answer := c.do("POST", "/api/table", c2.body)
		assert.Equal(t, 422, status, "%s: %s", name, answer)
		assert.Contains(t, answer, c2.says, name)
	}
	after, _ := json.Marshal(get[web.Shelf](c, "/api/shelf").Entries)
	assert.JSONEq(t, string(before), string(after))
	var table sheet.Table
	assert.Equal(t, 422, postText(c, "/api/read/table", "no table", &table))
	assert.Equal(t, 422, postText(c, "/api/read/table", strings.Repeat("part,count\n", 30_000), &table))
}
