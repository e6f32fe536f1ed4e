package web

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/work/album"
	"yokeswap/format/picture"
)

// AlbumView is the photos of a quad, laid out.
type AlbumView struct {
	Quad   string             `json:"quad"`
	Name   string             `json:"name"`
	Groups []album.PhotoGroup `json:"groups"`
	// LetGo are those put away: they can be taken back, until they are deleted.
	LetGo []album.Photo `json:"letGo"`
	// Things are what a photo can be taken of: the quad, a step of its sheet, a plug, a fault.
	Things []album.PhotoThing `json:"things"`
	// Pins are what can be marked, in words.
	Pins []string `json:"pins"`
}

// photosPath ends the address that takes a photo as it is.
const photosPath = "/photos"

func (s *server) registerPhotos(api huma.API) {
	const all = "/api/quads/{quad}" + photosPath
	const one = all + "/{id}"
	huma.Get(api, all, s.album)
	huma.Post(api, all, s.keepPhoto, func(o *huma.Operation) {
		o.MaxBodyBytes, o.SkipValidateBody = picture.LargestBytes+1, true
	})
	huma.Put(api, one, s.sayPhoto)
	huma.Delete(api, one, s.dropPhoto)
	huma.Get(api, one+"/picture", s.photoBody)
}

func (s *server) album(_ context.Context, in *struct {
	Quad string `path:"quad"`
}) (*answer[AlbumView], error) {
	return s.albumOf(in.Quad)
}

func (s *server) albumOf(quad string) (*answer[AlbumView], error) {
	things, err := s.things(quad)
	if err != nil {
		return nil, problem(err)
	}
	photos, err := s.store.Photos(quad)
	if err != nil {
		return nil, problem(err)
	}
	snap, q, err := s.quadOf(quad)
	if err != nil {
		return nil, err
	}
	view := AlbumView{Quad: q.ID, Name: q.Label(), Things: things, LetGo: []album.Photo{},
		Pins: album.Pins(fleet.NewCase(snap.Library, snap.Index, q))}
	var kept []album.Photo
	for _, p := range photos {
		if p.LetGo {
			view.LetGo = append(view.LetGo, p)
		} else {
			kept = append(kept, p)
		}
	}
	view.Groups = album.Groups(kept)
	return reply(view), nil
}

// things are what a photo of a quad can be of.
func (s *server) things(quad string) ([]album.PhotoThing, error) {
	snap, q, err := s.quadOf(quad)
	if err != nil {
		return nil, err
	}
	sheet, err := s.sheet(quad)
	if err != nil {
		return nil, err
	}
	return album.Things(fleet.NewCase(snap.Library, snap.Index, q), &sheet), nil
}

// keepPhoto takes a photo in: upright, small, and without where and when it was taken.
func (s *server) keepPhoto(_ context.Context, in *struct {
	Quad    string       `path:"quad"`
	Of      album.Of     `query:"of" required:"true" enum:"quad,step,plug,fault"`
	Key     string       `query:"key" maxLength:"200" doc:"which step or plug"`
	Moment  album.Moment `query:"moment" enum:"before,after," doc:"by the swap; empty: not said"`
	Words   string       `query:"words" maxLength:"400"`
	RawBody []byte       `contentType:"application/octet-stream"`
}) (*answer[AlbumView], error) {
	things, err := s.things(in.Quad)
	if err != nil {
		return nil, problem(err)
	}
	at := slices.IndexFunc(things, func(t album.PhotoThing) bool { return t.Of == in.Of && t.Key == in.Key })
	if at < 0 {
		return nil, notFound(string(in.Of)+" of "+in.Quad, in.Key)
	}
	s.photos.Lock()
	taken, err := picture.Take(in.RawBody)
	s.photos.Unlock()
	if err != nil {
		return nil, huma.Error422UnprocessableEntity("The photo is not kept: " + err.Error() + ".")
	}
	_, err = s.store.KeepPhoto(in.Quad, album.Photo{Of: in.Of, Key: in.Key, Label: things[at].Label, Moment: in.Moment,
		Words: strings.TrimSpace(in.Words), At: time.Now(), Wide: taken.Wide, High: taken.High}, taken.JPEG)
	if err != nil {
		return nil, problem(err)
	}
	return s.albumOf(in.Quad)
}

// sayPhoto keeps what is said of a photo and marked on it, and whether it is let go of.
func (s *server) sayPhoto(_ context.Context, in *struct {
	Quad string `path:"quad"`
	ID   int64  `path:"id"`
	Body struct {
		Moment album.Moment      `json:"moment" enum:"before,after,"`
		Words  string            `json:"words" maxLength:"400"`
		Marks  []album.PhotoMark `json:"marks"`
		LetGo  bool              `json:"letGo,omitempty" doc:"put away, until it is taken back or deleted"`
	}
}) (*answer[AlbumView], error) {
	if _, _, err := s.quadOf(in.Quad); err != nil {
		return nil, err
	}
	if err := album.CheckMarks(in.Body.Marks); err != nil {
		return nil, huma.Error422UnprocessableEntity(fmt.Sprintf("Nothing was changed: %s.", err))
	}
	ok, err := s.store.SayPhoto(in.Quad, in.ID, album.Photo{Moment: in.Body.Moment, Marks: in.Body.Marks,
		Words: strings.TrimSpace(in.Body.Words), LetGo: in.Body.LetGo})
	if err != nil {
		return nil, problem(err)
	}
	if !ok {
		return nil, notFound("photo", strconv.FormatInt(in.ID, 10))
	}
	return s.albumOf(in.Quad)
}

// dropPhoto deletes a photo that was let go of before.
func (s *server) dropPhoto(_ context.Context, in *struct {
	Quad string `path:"quad"`
	ID   int64  `path:"id"`
}) (*answer[AlbumView], error) {
	ok, err := s.store.DropPhoto(in.Quad, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	if !ok {
		return nil, notFound("photo that was let go of", strconv.FormatInt(in.ID, 10))
	}
	return s.albumOf(in.Quad)
}

// shown is a photo as it is kept: it never changes.
type shown struct {
	ContentType  string `header:"Content-Type"`
	CacheControl string `header:"Cache-Control"`
	Body         []byte
}

func (s *server) photoBody(_ context.Context, in *struct {
	Quad string `path:"quad"`
	ID   int64  `path:"id"`
}) (*shown, error) {
	body, ok, err := s.store.PhotoBody(in.Quad, in.ID)
	if err != nil {
		return nil, problem(err)
	}
	if !ok {
		return nil, notFound("photo", strconv.FormatInt(in.ID, 10))
	}
	return &shown{http.DetectContentType(body), "private, max-age=31536000, immutable", body}, nil
}
