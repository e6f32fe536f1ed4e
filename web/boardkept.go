package web

import (
	"context"
	"encoding/json"
	"fmt"
	"strings"
	"time"

	"yokeswap/core/work/setup"
	"yokeswap/msp"
	"yokeswap/store"
)

// BoardKept is a snapshot in the list.
type BoardKept struct {
	ID      int64              `json:"id"`
	At      time.Time          `json:"at"`
	Why     string             `json:"why"`
	Name    string             `json:"name" doc:"what the user calls it; empty: nothing yet"`
	Runs    string             `json:"runs" doc:"flight firmware and release"`
	Text    bool               `json:"text" doc:"it was kept in the board's own text as well"`
	Differs []setup.Difference `json:"differs" doc:"against the snapshot before it"`
}

func (s *server) keepBoard(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body BoardAddress
}) (*answer[[]BoardKept], error) {
	if _, err := s.planned(in.Quad); err != nil {
		return nil, err
	}
	err := s.withBoard(ctx, in.Body, func(ctx context.Context, client *msp.Client) error {
		state, err := msp.ReadBoard(ctx, client)
		if err != nil {
			return err
		}
		_, err = s.store.KeepBoard(in.Quad, "kept by hand", state, "", time.Now())
		return err
	})
	if err != nil {
		return nil, err
	}
	return s.kept(in.Quad, 0)
}

// BoardName is what a snapshot is to be called.
type BoardName struct {
	Name string `json:"name" maxLength:"80" doc:"empty: no name"`
}

func (s *server) nameBoard(_ context.Context, in *struct {
	Quad string `path:"quad"`
	ID   int64  `path:"id"`
	Body BoardName
}) (*answer[[]BoardKept], error) {
	name := strings.Join(strings.Fields(in.Body.Name), " ")
	ok, err := s.store.NameBoard(in.Quad, in.ID, name)
	if err != nil {
		return nil, problem(err)
	}
	if !ok {
		return nil, notFound("snapshot", fmt.Sprint(in.ID))
	}
	return s.kept(in.Quad, 0)
}

func (s *server) keptBoards(_ context.Context, in *struct {
	Quad   string `path:"quad"`
	Before int64  `query:"before" doc:"those before this one; absent: the newest"`
}) (*answer[[]BoardKept], error) {
	return s.kept(in.Quad, in.Before)
}

func (s *server) kept(quad string, before int64) (*answer[[]BoardKept], error) {
	c, err := s.planned(quad)
	if err != nil {
		return nil, err
	}
	list, err := s.store.Boards(quad, before, store.DefaultPage)
	if err != nil {
		return nil, problem(err)
	}
	out := []BoardKept{}
	for i, b := range list {
		k := BoardKept{
			ID:      b.ID,
			At:      b.At,
			Why:     b.Why,
			Name:    b.Name,
			Runs:    b.State.Variant + " " + string(b.State.Version),
			Text:    b.Text != "",
			Differs: []setup.Difference{},
		}
		if i+1 < len(list) {
			k.Differs = setup.Between(list[i+1].State, b.State, runsOf(c, b.State.Variant))
		}
		out = append(out, k)
	}
	return reply(out), nil
}

func (s *server) keptBoard(quad string, id int64) (store.BoardSnapshot, error) {
	b, ok, err := s.store.Board(quad, id)
	if err != nil {
		return b, problem(err)
	}
	if !ok {
		return b, notFound("snapshot", fmt.Sprint(id))
	}
	return b, nil
}

// betweenBoards compares two snapshots of a quad's board.
func (s *server) betweenBoards(_ context.Context, in *struct {
	Quad string `path:"quad"`
	A    int64  `query:"a" required:"true"`
	B    int64  `query:"b" required:"true"`
}) (*answer[[]setup.Difference], error) {
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	a, err := s.keptBoard(in.Quad, in.A)
	if err != nil {
		return nil, err
	}
	b, err := s.keptBoard(in.Quad, in.B)
	if err != nil {
		return nil, err
	}
	return reply(setup.Between(a.State, b.State, runsOf(c, b.State.Variant))), nil
}

func (s *server) exportBoard(_ context.Context, in *struct {
	Quad string `path:"quad"`
	ID   int64  `path:"id"`
}) (*download, error) {
	b, err := s.keptBoard(in.Quad, in.ID)
	if err != nil {
		return nil, err
	}
	text, err := json.MarshalIndent(b, "", "  ")
	if err != nil {
		return nil, problem(err)
	}
	return &download{
		ContentType:        "application/json",
		ContentDisposition: fmt.Sprintf(`attachment; filename="%s-board-%d.json"`, in.Quad, in.ID),
		Body:               append(text, '\n'),
	}, nil
}
