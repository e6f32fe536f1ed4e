// Package recipe follows the recipes of CONTRIBUTING.md: it adds a toy kind of gear and a
// toy gate to a copy of the program, in an overlay, and drives both through file, store,
// API and verdict. Where a recipe is no longer true, this fails.
package recipe

import (
	"bufio"
	"encoding/json"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// edit puts text behind (or, with before, in front of) the first place where an anchor
// stands in a file.
type edit struct {
	file, anchor, put string
	before            bool
}

// kind is what a kind of gear takes: its type, its list in a set, its row, its schema.
var kind = []edit{
	{
		file:   "core/facts/gear/library.go",
		anchor: "`json:\"pairings,omitempty\"`\n",
		put:    "\tTags []Tag `json:\"tags,omitempty\"`\n",
	},
	{
		file:   "core/facts/gear/kinds.go",
		anchor: "\t{KindPairing, \"pairings\"",
		put:    "\t{KindTag, \"tags\", \"name tag\", \"name tags\", list[Tag](func(s *Set) *[]Tag { return &s.Tags })},\n",
		before: true,
	},
	{
		file:   "docs/format/gear-pack.schema.json",
		anchor: "    \"pairings\": {\n",
		put:    "    \"tags\": {\"type\": \"array\", \"items\": {\"$ref\": \"#/$defs/tag\"}, \"maxItems\": 10000},\n",
		before: true,
	},
	{
		file:   "docs/format/gear-pack.schema.json",
		anchor: "  \"$defs\": {\n",
		put: `    "tag": {"type": "object", "properties": {
      "id": {"$ref": "#/$defs/id"},
      "name": {"title": "name", "type": "string", "x-group": "about", "x-needed": true},
      "source": {"$ref": "#/$defs/source", "x-group": "about"},
      "massG": {"title": "mass", "type": "number", "x-unit": "g", "x-group": "seat, camera and weight"}
    }, "required": ["id", "source"], "additionalProperties": false},
`,
	},
}

const tagType = `package gear

import "yokeswap/core/measure/unit"

// KindTag is a name tag.
const KindTag Kind = "tag"

// Tag is a name tag.
type Tag struct {
	Entry
	MassG *unit.Grams ` + "`json:\"massG,omitempty\"`" + `
}

// Kind says what it is.
func (*Tag) Kind() Kind { return KindTag }
`

// gate is what a gate takes beside its folder: its name, its row, and its place in the
// view of a quad. The interface adds a row with its picture.
var gate = []edit{
	{file: "core/facts/verdict/verdict.go", anchor: "\tControl Gate = \"control\"\n", put: "\tNoise   Gate = \"noise\"\n"},
	{
		file:   "core/plans/swap/gates.go",
		anchor: "\t\"yokeswap/core/gates/mount\"\n",
		put:    "\t\"yokeswap/core/gates/noise\"\n",
	},
	{
		file:   "core/plans/swap/gates.go",
		anchor: "\t{\n\t\tName:       verdict.Control,",
		put: "\t{Name: verdict.Noise, Title: \"noise\", Question: \"Is it too loud?\", Check: noise.Check, " +
			"Candidates: noise.Candidates},\n",
		before: true,
	},
	{file: "web/fleet.go", anchor: "\tSettings  setup.Plan ", put: "\tNoise string `json:\"noise\"`\n", before: true},
}

const noiseGate = `// Package noise is a toy.
package noise

import (
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
)

// Check asks for the weight, because heavy quads are loud.
func Check(c fleet.Case) []verdict.Finding {
	findings := []verdict.Finding{{Code: "noise.quiet", Level: verdict.Fits, Says: c.Quad.Label() + " is quiet."}}
	if c.Quad.AUWG == nil {
		findings[0] = verdict.CannotTell(verdict.Noise, "noise.unknown", c.Quad.Label(),
			verdict.Missing{Of: "quad", ID: c.Quad.ID, Field: "auwG", Label: "weight of " + c.Quad.Label()})
	}
	return verdict.Complete(verdict.Noise, c.Quad.Label(), findings, nil)
}

// Candidates has none.
func Candidates(fleet.Case) []verdict.Candidate { return nil }
`

func TestTheRecipesAreTrue(t *testing.T) {
	if testing.Short() {
		t.Skip("short: builds the program anew")
	}
	dir := t.TempDir()
	root, err := filepath.Abs("../..")
	require.NoError(t, err)
	replace := map[string]string{}
	write := func(file, text string) {
		at := filepath.Join(dir, strings.ReplaceAll(file, "/", "_"))
		require.NoError(t, os.WriteFile(at, []byte(text), 0o600))
		replace[filepath.Join(root, file)] = at
	}
	assert.LessOrEqual(t, follow(t, root, kind, write), 3, "files a kind touches beside its own")
	assert.LessOrEqual(
		t,
		follow(t, root, gate, write)+1,
		4,
		"files a gate touches beside its own, ui/src/swap/gates.ts too",
	)
	write("core/facts/gear/tag.go", tagType)
	write("core/gates/noise/noise.go", noiseGate)
	table, err := json.Marshal(map[string]any{"Replace": replace})
	require.NoError(t, err)
	overlay := filepath.Join(dir, "overlay.json")
	require.NoError(t, os.WriteFile(overlay, table, 0o600))
	program := filepath.Join(dir, "yokeswap")
	build := exec.Command("go", "build", "-gcflags=yokeswap/...=-N -l", "-ldflags=-s -w", // built sooner
		"-overlay", overlay, "-o", program, "./cmd/yokeswap")
	build.Dir = root
	out, err := build.CombinedOutput()
	require.NoError(t, err, "%s", out)

	serve := exec.Command(program, "demo", "--listen", "127.0.0.1:0", "--data", filepath.Join(dir, "data"))
	lines, err := serve.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, serve.Start())
	t.Cleanup(func() { _ = serve.Process.Kill(); _ = serve.Wait() })
	first, err := bufio.NewReader(lines).ReadString('\n')
	require.NoError(t, err)
	at := strings.TrimSuffix(strings.Fields(first)[4], "/")

	status, text := ask(t, http.MethodPut, at+"/api/entries/tag/brass?revision=0",
		`{"id":"brass","name":"Brass tag","source":{"kind":"measured"},"massG":2.5}`)
	require.Equal(t, 200, status, text)
	_, text = ask(t, http.MethodGet, at+"/api/forms", "")
	assert.Contains(t, text, `"word":"name tag"`, "its form is there")
	_, text = ask(t, http.MethodGet, at+"/api/export/gear/own", "")
	assert.Contains(t, text, `"massG": 2.5`, "it goes out in a file")
	status, file := ask(t, http.MethodPost, at+"/api/import?apply=true&base=2", text)
	require.Equal(t, 200, status, file)
	status, text = ask(
		t,
		http.MethodPut,
		at+"/api/entries/tag/tin?revision=0",
		`{"id":"tin","source":{"kind":"measured"},"massG":"much"}`,
	)
	assert.Equal(t, 422, status, "its schema holds: %s", text)

	_, text = ask(t, http.MethodGet, at+"/api/quads/rynd", "")
	assert.Contains(t, text, "Rynd is quiet.")
	assert.Contains(t, text, `"question":"Is it too loud?"`)
	_, text = ask(t, http.MethodGet, at+"/api/board", "")
	assert.Contains(t, text, `{"gate":"noise","title":"noise"}`, "its column")
}

// follow carries the edits of a recipe out and counts the files.
func follow(t *testing.T, root string, edits []edit, write func(file, text string)) int {
	texts := map[string]string{}
	for _, e := range edits {
		text, there := texts[e.file]
		if !there {
			raw, err := os.ReadFile(filepath.Join(root, e.file))
			require.NoError(t, err)
			text = string(raw)
		}
		at := strings.Index(text, e.anchor)
		require.GreaterOrEqual(t, at, 0, "%s has no %q", e.file, e.anchor)
		if !e.before {
			at += len(e.anchor)
		}
		texts[e.file] = text[:at] + e.put + text[at:]
	}
	for file, text := range texts {
		write(file, text)
	}
	return len(texts)
}

func ask(t *testing.T, method, url, body string) (status int, text string) {
	request, err := http.NewRequestWithContext(t.Context(), method, url, strings.NewReader(body))
	require.NoError(t, err)
	if body != "" {
		request.Header.Set("Content-Type", "application/json")
	}
	response, err := http.DefaultClient.Do(request)
	require.NoError(t, err)
	defer response.Body.Close()
	raw, err := io.ReadAll(response.Body)
	require.NoError(t, err)
	return response.StatusCode, string(raw)
}
