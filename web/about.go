package web

import (
	"context"

	"github.com/danielgtaylor/huma/v2"
)

// About is what runs here and where it keeps things.
type About struct {
	Version  string `json:"version"`
	Folder   string `json:"folder" doc:"where the database and its copies are"`
	Revision int64  `json:"revision" doc:"how many changes have been kept"`
	Kit      int    `json:"kit"`
	Quads    int    `json:"quads"`
	Gear     int    `json:"gear"`
}

func (s *server) registerAbout(api huma.API) {
	huma.Get(api, "/api/about", func(_ context.Context, _ *struct{}) (*answer[About], error) {
		snap, err := s.store.Snapshot()
		if err != nil {
			return nil, problem(err)
		}
		return reply(About{
			Version:  s.options.Version,
			Folder:   s.store.Dir(),
			Revision: snap.Revision,
			Kit:      len(snap.Fleet.Kit),
			Quads:    len(snap.Fleet.Quads),
			Gear:     len(snap.Library.Items()),
		}), nil
	})
}
