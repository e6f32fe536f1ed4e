package web_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/web"
)

// Where an antenna stands, how far the camera looks up and which plate is left off are picked over
// HTTP and read back; an antenna that is not there, or comes before its turn, is refused with the
// reason and changes nothing.
func TestStandsTiltAndPlatesArePressed(t *testing.T) {
	t.Parallel()
	c := newClient(t, "")
	at := func() web.QuadView { return get[web.QuadView](c, "/api/quads/quern") }
	pick := func(patch string) (int, string) { return post(c, "quern", at().Revision, patch) }
	done := func(patch string) {
		t.Helper()
		status, text := pick(patch)
		require.Equal(t, 200, status, "%s: %s", patch, text)
	}
	done(`{"tiltDeg":15}`)
	assert.InDelta(t, 15, float64(at().Mount.Room.Shot.TiltDeg), 0)
	done(`{"leaveOff":{"plate":"top"}}`)
	assert.True(t, at().Mount.Room.Plates[1].Off)
	done(`{"leaveOff":{"plate":"top","on":true}}`)
	assert.False(t, at().Mount.Room.Plates[1].Off)
	done(`{"cut":{"mm":26}}`)
	assert.Contains(t, at().Mount.Room.Standoffs.Words, "cut to 26 mm")
	done(`{"cut":{}}`)
	assert.False(t, at().Mount.Room.Standoffs.Cut)
	done(`{"stand":{"antenna":2,"xMM":-90,"yMM":-21,"zMM":18,"turnDeg":-140,"riseDeg":25}}`)
	assert.InDelta(t, -21, float64(at().Mount.Room.Rods[1].Stand.YMM), 0)
	assert.Nil(t, at().Mount.Room.Next)

	before := at().Revision
	for patch, why := range map[string]string{
		`{"cut":{"mm":-4}}`: "standoff",
		`{"stand":{"antenna":3,"xMM":0,"yMM":0,"zMM":0,"turnDeg":0,"riseDeg":0}}`: "there is no antenna 3",
		`{"stand":{"antenna":0,"xMM":0,"yMM":0,"zMM":0,"turnDeg":0,"riseDeg":0}}`: "counted from 1",
	} {
		status, text := pick(patch)
		assert.Equal(t, 422, status, text)
		assert.Contains(t, text, why)
	}
	assert.Equal(t, before, at().Revision)
	done(`{"stand":{"antenna":1,"xMM":0,"yMM":0,"zMM":0,"turnDeg":0,"riseDeg":0,"out":true}}`)
	status, text := pick(`{"stand":{"antenna":2,"xMM":0,"yMM":0,"zMM":0,"turnDeg":0,"riseDeg":0}}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "comes after another that has no place yet")
	next := at().Mount.Room.Next
	require.NotNil(t, next)
	assert.Equal(t, 1, next.Antenna)
	status, text = pick(`{"tiltDeg":120}`)
	assert.Equal(t, 422, status, text)
}

// A bracket that is had holds the unit by its model: over HTTP it is planned, bought at its price, and
// refused where the way is none a bracket has.
func TestABracketIsPlannedAndBought(t *testing.T) {
	t.Parallel()
	c := newClient(t, "")
	at := func() web.QuadView { return get[web.QuadView](c, "/api/quads/hopper") }
	status, text := post(c, "hopper", at().Revision, `{"hold":{"part":"airUnit","way":"tape","bracket":"sleeve-two"}}`)
	assert.Equal(t, 422, status, text)
	assert.Contains(t, text, "bracket")
	status, text = post(c, "hopper", at().Revision, `{"hold":{"part":"airUnit","way":"bracket","bracket":"sleeve-two"}}`)
	require.Equal(t, 200, status, text)
	assert.Equal(t, "the Sleeve for the Two", at().Mount.Held[0].Words)
	_, text = c.do("GET", "/api/shopping", "")
	assert.Contains(t, text, "Sleeve for the Two")
}
