package web_test

import (
	"encoding/json"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/web"
)

// For quads that state much and little, whatever can be drawn from what is stated, with what is missing
// filled in, comes out as each kind of file; what cannot is said in words.
func TestPartsAreMadeFromWhatAQuadStates(t *testing.T) {
	t.Parallel()
	c := newClient(t, "")
	drawn := 0
	for _, quad := range []string{"quern", "fantail", "sluice"} {
		var view web.MakeView
		_, text := c.do("GET", "/api/quads/"+quad+"/make", "")
		require.NoError(t, json.Unmarshal([]byte(text), &view), text)
		for _, offer := range view.Offers {
			var list []string
			for _, p := range offer.Params {
				value := map[string]float64{"unitXMM": 32, "unitYMM": 32, "heightMM": 14, "cameraMM": 19, "fromXMM": 20,
					"fromYMM": 20, "toXMM": 30.5, "toYMM": 30.5}[p.ID]
				if p.Value != nil {
					value = *p.Value
				}
				number, err := json.Marshal(value)
				require.NoError(t, err)
				list = append(list, p.ID+":"+string(number))
			}
			of := url.QueryEscape(strings.Join(list, ","))
			var made web.MadeView
			_, text := c.do("GET", "/api/make/"+offer.Part+"?of="+of, "")
			require.NoError(t, json.Unmarshal([]byte(text), &made), text)
			for name, begins := range map[string]string{"part.stl": "binary, millimetres", "part.3mf": "PK", "part.svg": "<svg",
				"part.dxf": "  0\r\nSECTION", "template.svg": "<svg"} {
				status, text := c.do("GET", "/api/make/"+offer.Part+"/"+name+"?of="+of, "")
				if len(made.Problems) > 0 {
					assert.Equal(t, 422, status, text)
					assert.Contains(t, text, "It cannot be drawn")
					continue
				}
				require.Equal(t, 200, status, "%s %s %s: %s", quad, offer.Part, name, text)
				assert.True(t, strings.HasPrefix(text, begins), "%s %s", offer.Part, name)
				drawn++
			}
		}
	}
	assert.Greater(t, drawn, 40)
}

// What is no dimension is refused with what was expected.
func TestADimensionThatIsNone(t *testing.T) {
	t.Parallel()
	c := newClient(t, "")
	for path, want := range map[string]string{
		"/api/make/adapter-plate?of=fromXMM:wide":           `fromXMM: expected a number, got \"wide\"`,
		"/api/make/adapter-plate/part.stl?of=fromXMM:20":    "holes of the frame, along has to be entered",
		"/api/make/adapter-plate/part.exe?of=fromXMM:20":    "expected",
		"/api/make/spoon/part.stl?of=":                      "there is no part",
		"/api/make/adapter-plate/part.stl?of=fromXMM:NaN":   "expected 5 to 60 mm",
		"/api/make/adapter-plate/part.stl?of=fromXMM:1e400": "expected",
	} {
		status, text := c.do("GET", path, "")
		assert.Equal(t, 422, status, path)
		assert.Contains(t, text, want, path)
	}
}
