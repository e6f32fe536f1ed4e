package format_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/format"
)

// What an entry leaves open is held against its kind when it is read, and comes back as it
// went.
func TestWhatIsLeftOpenIsChecked(t *testing.T) {
	pack := func(open string) string {
		return `{"format":"gear-pack","version":9,"id":"p","title":"p","regions":[{"id":"shire","source":{"kind":"invented"}}],
			"airUnits":[{"id":"u","source":{"kind":"invented"},"massG":40,` + open + `}]}`
	}
	for name, c := range map[string]struct{ open, path, says string }{
		"a range":          {`"ranges":[{"value":"input.peakW","low":8,"high":12}]`, "", ""},
		"by region":        {`"variants":[{"value":"radio.maxMW","region":"shire","number":25}]`, "", ""},
		"by revision":      {`"variants":[{"value":"input.maxV","revision":"B","number":17.6}]`, "", ""},
		"ends swapped":     {`"ranges":[{"value":"input.peakW","low":12,"high":8}]`, "airUnits[0].ranges[0]", "swapped"},
		"twice":            {`"ranges":[{"value":"input.peakW","low":1,"high":8},{"value":"input.peakW","low":2,"high":3}]`, "ranges[1]", "already"},
		"beside a number":  {`"ranges":[{"value":"massG","low":30,"high":50}]`, "ranges[0].value", "stated as 40 g already"},
		"no such value":    {`"ranges":[{"value":"input.peak","low":30,"high":50}]`, "ranges[0].value", "no single value"},
		"a name":           {`"variants":[{"value":"name","revision":"B","text":"x"}]`, "variants[0].value", "no single value"},
		"beyond its kind":  {`"ranges":[{"value":"input.peakW","low":-5,"high":12}]`, "ranges[0].low", "input.peakW"},
		"a word there":     {`"variants":[{"value":"input.maxV","revision":"B","text":"high"}]`, "variants[0]", "nothing input.maxV takes"},
		"hangs on nothing": {`"variants":[{"value":"input.maxV","number":17}]`, "variants[0]", "hangs on nothing"},
		"says nothing":     {`"variants":[{"value":"input.maxV","revision":"B"}]`, "variants[0]", "as a number or as a word"},
	} {
		doc, err := format.Read([]byte(pack(c.open)))
		if c.path == "" {
			require.NoError(t, err, name)
			out, err := format.Write(doc.Set)
			require.NoError(t, err, name)
			again, err := format.Read(out)
			require.NoError(t, err, name)
			assert.Equal(t, doc.Set, again.Set, name)
			continue
		}
		var problems format.Problems
		require.ErrorAs(t, err, &problems, name)
		found := false
		for _, p := range problems {
			found = found || strings.Contains(p.Path, c.path) && strings.Contains(p.Says, c.says)
		}
		assert.True(t, found, "%s: %v", name, problems)
	}
}
