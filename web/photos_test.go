package web_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"net/url"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"yokeswap/core/work/album"
	"yokeswap/web"
)

func photo(t *testing.T, wide, high int) string {
	p := image.NewRGBA(image.Rect(0, 0, wide, high))
	for i := range p.Pix {
		p.Pix[i] = color.RGBA{R: uint8(i)}.R
	}
	var out bytes.Buffer
	require.NoError(t, jpeg.Encode(&out, p, nil))
	return out.String()
}

// Photos of a quad, a step, a plug and a fault are kept, laid out before beside after, marked, looked at and
// let go over HTTP; what is no photo, or of nothing there is, is refused and nothing is kept.
func TestPhotosOfAQuad(t *testing.T) {
	t.Parallel()
	c := newClient(t, "")
	const all = "/api/quads/quern/photos"
	view := get[web.AlbumView](c, all)
	assert.Empty(t, view.Groups)
	assert.NotEmpty(t, view.Pins)
	steps, plugs := 0, 0
	var step, plug album.PhotoThing
	for _, thing := range view.Things {
		switch thing.Of {
		case album.Step:
			steps, step = steps+1, thing
		case album.Plug:
			plugs, plug = plugs+1, thing
		}
	}
	require.Positive(t, steps)
	require.Positive(t, plugs)
	keep := func(of album.Of, key, moment, body string) (int, string) {
		query := url.Values{"of": {string(of)}, "key": {key}, "moment": {moment}, "words": {" as it came "}}
		return c.do("POST", all+"?"+query.Encode(), body, "Content-Type", "application/octet-stream")
	}
	for i, take := range []struct {
		of          album.Of
		key, moment string
	}{{album.Whole, "", "before"}, {album.Whole, "", "after"}, {album.Step, step.Key, ""}, {album.Plug, plug.Key, "after"},
		{album.Fault, "", ""}} {
		status, text := keep(take.of, take.key, take.moment, photo(t, 2000+i, 1000))
		require.Equal(t, 200, status, text)
		require.NoError(t, json.Unmarshal([]byte(text), &view))
	}
	require.Len(t, view.Groups, 4)
	whole := view.Groups[0]
	require.Len(t, whole.Before, 1)
	require.Len(t, whole.After, 1)
	assert.Equal(t, "as it came", whole.Before[0].Words)
	assert.Equal(t, 1400, whole.Before[0].Wide)
	assert.Equal(t, step.Label, view.Groups[1].Label)

	at := all + "/" + strconv.FormatInt(whole.Before[0].ID, 10)
	status, body := c.do("GET", at+"/picture", "")
	require.Equal(t, 200, status)
	kept, err := jpeg.DecodeConfig(bytes.NewReader([]byte(body)))
	require.NoError(t, err)
	assert.Equal(t, 1400, kept.Width)
	status, text := c.do("PUT", at, `{"moment":"after","words":"","marks":[{"x":0.5,"y":0.25,"says":"TX5"}]}`)
	require.Equal(t, 200, status, text)
	require.NoError(t, json.Unmarshal([]byte(text), &view))
	require.Len(t, view.Groups[0].After, 2)
	assert.Equal(t, "TX5", view.Groups[0].After[0].Marks[0].Says)

	for _, wrong := range []struct {
		method, path, body string
		status             int
		says               string
	}{
		{"POST", all + "?of=quad", "%PDF-1.7", 422, "no photo that can be read"},
		{"POST", all + "?of=quad", "", 400, "body is required"},
		{"POST", all + "?of=quad", photo(t, 200, 200)[:900], 422, "cut short"},
		{"POST", all + "?of=step&key=nothing", photo(t, 9, 9), 404, "nothing"},
		{"POST", all + "?of=sky", photo(t, 9, 9), 422, "of"},
		{"POST", "/api/quads/nix/photos?of=quad", photo(t, 9, 9), 404, "nix"},
		{"PUT", at, `{"moment":"","words":"","marks":[{"x":2,"y":0,"says":"a"}]}`, 422, "beside the photo"},
		{"PUT", at, `{"moment":"later","words":"","marks":[]}`, 422, "moment"},
		{"PUT", all + "/999", `{"moment":"","words":"","marks":[]}`, 404, "999"},
		{"GET", all + "/999/picture", "", 404, "999"},
		{"GET", "/api/quads/damsel/photos/" + strconv.FormatInt(whole.Before[0].ID, 10) + "/picture", "", 404, "photo"},
	} {
		var head []string
		if wrong.method == "POST" {
			head = []string{"Content-Type", "application/octet-stream"}
		}
		status, text := c.do(wrong.method, wrong.path, wrong.body, head...)
		assert.Equal(t, wrong.status, status, "%s: %s", wrong.path, text)
		assert.Contains(t, text, wrong.says)
	}
	require.Len(t, get[web.AlbumView](c, all).Groups[0].After, 2)
	status, text = c.do("DELETE", at, "")
	require.Equal(t, 404, status, text)
	assert.Contains(t, text, "let go of")
	for _, letGo := range []bool{true, false, true} {
		status, text = c.do("PUT", at, fmt.Sprintf(`{"moment":"after","words":"","marks":[],"letGo":%v}`, letGo))
		require.Equal(t, 200, status, text)
		view = get[web.AlbumView](c, all)
		put := map[bool]int{true: 1}[letGo]
		require.Len(t, view.LetGo, put)
		require.Len(t, view.Groups[0].After, 2-put)
	}
	status, text = c.do("DELETE", at, "")
	require.Equal(t, 200, status, text)
	view = get[web.AlbumView](c, all)
	require.Len(t, view.Groups[0].After, 1)
	require.Empty(t, view.LetGo)
	status, _ = c.do("DELETE", at, "")
	assert.Equal(t, 404, status)
}
