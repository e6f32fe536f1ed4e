package web_test

import (
	"fmt"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/facts/verdict"
	"yokeswap/core/work/prove"
	"yokeswap/web"
)

// A flight is begun with what the quad carries, read spot by spot, held against another and
// taken back; what makes no sense is refused and nothing is changed.
func TestAFlightIsFlownAndHeldAgainstAnother(t *testing.T) {
	c := newClient(t, "")
	status, text := c.do("POST", "/api/flights", `{"quad":"whip","course":"post-mill"}`)
	require.Equal(t, http.StatusOK, status, text)
	list := get[web.FlightsView](c, "/api/flights")
	require.Len(t, list.Courses, 1)
	require.Len(t, list.Courses[0].Flights, 3)
	id := list.Courses[0].Flights[0].ID
	view := get[web.FlightView](c, "/api/flights/"+id)
	assert.Equal(t, "aldine-two", view.Flight.Carried.AirUnit)
	assert.Equal(t, "visor-c", view.Flight.Carried.Goggles, "what it carries now")
	assert.Len(t, view.Cautions, 3, "failsafe and range come first")

	read := func(body string) int {
		view := get[web.FlightView](c, "/api/flights/"+id)
		status, _ := c.do("POST", "/api/flights/"+id+"/read", fmt.Sprintf(`{"revision":%d,%s}`, view.Revision, body))
		return status
	}
	for i, spot := range view.Course.Spots {
		require.Equal(t, http.StatusOK, read(fmt.Sprintf(`"spot":%q,"pass":1,"lowestMbps":%d,"freezes":0`, spot.ID, 30+i)))
	}
	proof := get[prove.Proof](c, "/api/proof?before=whip-2026-03-14&after="+id)
	assert.Equal(t, 6, proof.Rate.Better)
	assert.InDelta(t, 1.0/64, proof.Rate.Chance, 1e-9)
	assert.Equal(t, verdict.Caution, proof.Level, "no pack, no weather, no check is stated")
	require.Equal(t, http.StatusOK, read(`"spot":"ridge","pass":1`))
	assert.Equal(t, 1, get[prove.Proof](c, "/api/proof?before=whip-2026-03-14&after="+id).Rate.Open, "a reading taken out")

	before := get[web.FlightView](c, "/api/flights/"+id)
	for _, bad := range []string{`"spot":"moon","pass":1,"freezes":0`, `"spot":"ridge","pass":0`,
		`"spot":"ridge","pass":1,"lowestMbps":-3`, `"spot":"ridge","pass":1,"freezes":-1`} {
		assert.Equal(t, http.StatusUnprocessableEntity, read(bad), bad)
	}
	assert.Equal(t, before, get[web.FlightView](c, "/api/flights/"+id))
	for address, want := range map[string]int{
		"/api/proof?before=whip-2026-03-14":                             http.StatusUnprocessableEntity,
		"/api/proof?before=whip-2026-03-14&after=whip-2026-03-14":       http.StatusUnprocessableEntity,
		"/api/proof?before=whip-2026-03-14&after=nobody":                http.StatusNotFound,
		"/api/proof?before=whip-2026-03-14,whip-2026-05-12&after=" + id: http.StatusOK,
		"/api/flights/nobody":                                           http.StatusNotFound,
	} {
		status, text := c.do("GET", address, "")
		assert.Equal(t, want, status, "%s: %s", address, text)
	}
	status, _ = c.do("POST", "/api/flights/"+id+"/read", `{"revision":1,"spot":"ridge","pass":1,"freezes":0}`)
	assert.Equal(t, http.StatusConflict, status, "a stale sheet is refused")

	// A course keeps the spots that flights have read; a flight can be taken out, and put back.
	takeOut := func(kind, id string) (int, string) {
		shelf := get[web.Shelf](c, "/api/shelf?kind="+kind)
		for _, e := range shelf.Entries {
			if e.ID == id {
				return c.do("DELETE", fmt.Sprintf("/api/entries/%s/%s?revision=%d", kind, id, e.Revision), "")
			}
		}
		return 0, "it is not on the shelf"
	}
	status, text = takeOut("course", "post-mill")
	assert.Equal(t, http.StatusConflict, status, text)
	status, text = takeOut("testFlight", id)
	require.Less(t, status, 300, text)
	assert.Len(t, get[web.FlightsView](c, "/api/flights").Courses[0].Flights, 2)
}
