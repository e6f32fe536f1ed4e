package web

import (
	"cmp"
	"context"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/format"
)

// About is what runs here and where it keeps things.
type About struct {
	Version  string `json:"version"`
	Folder   string `json:"folder" doc:"where the database and its copies are"`
	Revision int64  `json:"revision" doc:"how many changes have been kept"`
	Kit      int    `json:"kit"`
	Quads    int    `json:"quads"`
	Gear     int    `json:"gear"`
	// Language is the one guides are read in, Languages those there are.
	Language  string   `json:"language"`
	Languages []string `json:"languages"`
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

			Language:  cmp.Or(snap.Fleet.Language, gear.DefaultLanguage),
			Languages: gear.Languages(snap.Library),
		}), nil
	})
	huma.Put(api, "/api/language", func(ctx context.Context, in *struct {
		Body struct {
			Was      string `json:"was" doc:"the language that was shown as chosen"`
			Language string `json:"language" pattern:"^[a-z]{2}$"`
		}
	}) (*answer[Health], error) {
		err := s.store.Update(deed(ctx, "chose the language"), func(st *stock.Stock) error {
			if cmp.Or(st.Fleet.Language, gear.DefaultLanguage) != in.Body.Was {
				return huma.Error409Conflict("Another language has been chosen meanwhile: look again.")
			}
			st.SetLanguage(in.Body.Language)
			return format.TakeHead(st)
		})
		if err != nil {
			return nil, problem(err)
		}
		return reply(Health{Status: "ok", Version: s.options.Version, Database: "ok"}), nil
	})
}
