package web

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/work/setup"
)

// BoardTold asks what kept settings, or a settings text, say of what is on a quad today, and
// what of it is noted.
type BoardTold struct {
	Snapshot int64    `json:"snapshot,omitempty" doc:"the kept settings asked about; absent: the text"`
	Text     string   `json:"text,omitempty"     maxLength:"1048576"`
	Take     []string `json:"take,omitempty"     maxItems:"10"       doc:"keys of what is noted or picked"`
}

// BoardTells is what is said of a quad's today.
type BoardTells struct {
	Tells []setup.Tell `json:"tells"`
}

func (s *server) boardTold(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body BoardTold
}) (*answer[BoardTells], error) {
	tells := func(c fleet.Case) ([]setup.Tell, error) {
		list, err := setup.TellsText(c, in.Body.Text)
		if err != nil {
			return nil, huma.Error422UnprocessableEntity("Nothing can be read of this text: " + err.Error() + ".")
		}
		return list, nil
	}
	if in.Body.Snapshot != 0 {
		kept, err := s.keptBoard(in.Quad, in.Body.Snapshot)
		if err != nil {
			return nil, err
		}
		tells = func(c fleet.Case) ([]setup.Tell, error) { return setup.Tells(c, kept.State), nil }
	}
	if len(in.Body.Take) > 0 {
		if err := s.noteTold(ctx, in.Quad, in.Body.Take, tells); err != nil {
			return nil, err
		}
	}
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	list, err := tells(fleet.NowCase(c.Library, c.Fleet, c.Quad))
	if err != nil {
		return nil, err
	}
	return reply(BoardTells{list}), nil
}

// noteTold notes some of what is told of a quad's today, each on what the others have left.
func (s *server) noteTold(
	ctx context.Context, quad string, take []string, tells func(fleet.Case) ([]setup.Tell, error),
) error {
	err := s.store.Update(deed(ctx, "noted what the board says"), func(st *stock.Stock) error {
		for _, key := range take {
			q, ok := st.Fleet.Quad(quad)
			if !ok {
				return notFound("quad", quad)
			}
			list, err := tells(fleet.NowCase(st.Library(), fleet.NewIndex(st.Fleet), q))
			if err != nil {
				return err
			}
			patch, ok := setup.PatchOf(list, key)
			if !ok {
				return huma.Error422UnprocessableEntity(
					fmt.Sprintf("the board tells nothing of %q that can be noted; nothing was changed", key),
				)
			}
			if err := st.Note(quad, patch); err != nil {
				return err
			}
		}
		return takeAgain(st, stock.Ref{Kind: stock.KindQuad, ID: quad})
	})
	return problem(err)
}
