package format_test

import (
	"encoding/json"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/stock"
	formatdocs "yokeswap/docs/format"
	"yokeswap/format"
	"yokeswap/internal/builds"
)

// inner are the fields that hold an id which stands within the entry itself, or within
// another that a further field names.
var inner = []string{
	"id", "mode", "fromMode", "protocol", "bay", "harnessTo", "branchTo", "sameAs", "nextTurn", "turn",
	"install.mode", "modeSwitch[].from", "modeSwitch[].to", "osd.builtIn[]", "on", "cover", "cameraCover", "leftOff[]", "leftOut[]", "spot", "instead[]", "within[]",
	"gearPacks[]", // packs that are asked for; without them the file is taken all the same
}

// Whatever names an entry says so in the schema: an id that is neither an entry's own
// nor an inner one has its x-names.
func TestEveryIDInTheSchemasNamesSomething(t *testing.T) {
	for _, name := range []string{"gear-pack", "fleet"} {
		text, err := formatdocs.Files.ReadFile(name + ".schema.json")
		require.NoError(t, err)
		var schema map[string]any
		require.NoError(t, json.Unmarshal(text, &schema))
		var walk func(path string, part any)
		walk = func(path string, part any) {
			is, ok := part.(map[string]any)
			if !ok {
				return
			}
			if _, names := is["x-names"]; is["$ref"] == "#/$defs/id" && !names {
				assert.True(t, slices.ContainsFunc(inner, func(end string) bool {
					return path == end || strings.HasSuffix(path, "."+end)
				}), "%s: %s names nothing", name, path)
			}
			for key, inside := range is {
				switch key {
				case "properties", "$defs":
					for field, schema := range inside.(map[string]any) {
						walk(path+"."+field, schema)
					}
				case "items":
					walk(path+"[]", inside)
				}
			}
		}
		walk("", schema)
	}
}

// What nothing names can be taken out and leaves the rest whole; what something names
// cannot, and would leave that behind. Both are asked of every entry of the demo.
func TestWhatIsNamedIsWhatWouldBreak(t *testing.T) {
	whole := builds.Demo()
	named, free := 0, 0
	try := func(ref stock.Ref) {
		rest := whole.Fork()
		require.True(t, rest.Remove(ref), "%s", ref)
		broken := format.CheckStock(rest)
		if broken == nil {
			text, err := format.Write(rest.Fleet)
			require.NoError(t, err)
			_, broken = format.Read(text)
		}
		users := format.Referrers(whole, ref)
		if len(users) == 0 {
			free++
			assert.NoError(t, broken, "%s is named by nothing", ref)
		} else {
			named++
			assert.Error(t, broken, "%s is named by %v", ref, users)
		}
	}
	for _, set := range whole.Sets {
		for _, list := range set.Lists() {
			for _, item := range list.Items {
				try(stock.Ref{Kind: string(item.Kind()), ID: item.Head().ID})
			}
		}
	}
	for _, kit := range whole.Fleet.Kit {
		try(stock.Ref{Kind: stock.KindKit, ID: kit.ID})
	}
	for _, quad := range whole.Fleet.Quads {
		try(stock.Ref{Kind: stock.KindQuad, ID: quad.ID})
	}
	assert.Greater(t, named, 50)
	assert.Greater(t, free, 20)
}

func TestReferrersAreInWords(t *testing.T) {
	st := builds.Demo()
	of := func(kind, id string) []string { return format.Referrers(st, stock.Ref{Kind: kind, ID: id}) }
	assert.Contains(t, of("kit", "visor-c-1"), "the quad Quern at next.goggles.kit")
	assert.Contains(t, strings.Join(of("connector", "sh-6"), "; "), " at plug.connector")
	assert.Empty(t, of("spare", "ferrule-sr"), "nothing rests on a spare")
}
