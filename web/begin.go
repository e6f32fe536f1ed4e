package web

import (
	"context"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
	"yokeswap/core/plans/begin"
	"yokeswap/core/plans/swap"
	"yokeswap/store"
	"yokeswap/trade"
)

// Begun is a quad that was made.
type Begun struct {
	Quad   string `json:"quad" doc:"its id"`
	Change int64  `json:"change" doc:"to take it back with"`
}

// PairView answers whether the air unit and the goggles of a quad's plan link.
type PairView struct {
	Quad     string            `json:"quad"`
	Name     string            `json:"name"`
	Level    verdict.Level     `json:"level"`
	Findings []verdict.Finding `json:"findings"`
}

// SlotsView is a quad as a picture to fill.
type SlotsView struct {
	Quad     string             `json:"quad"`
	Name     string             `json:"name"`
	Revision int64              `json:"revision"`
	Today    bool               `json:"today"`
	Analog   bool               `json:"analog" doc:"it carries analog video today"`
	Slots    []begin.Slot       `json:"slots"`
	Gates    []swap.GateVerdict `json:"gates"`
	Level    verdict.Level      `json:"level"`
}

func (s *server) registerBegin(api huma.API) {
	huma.Post(api, "/api/begin/link", s.askLink)
	huma.Post(api, "/api/begin/quad", s.beginQuad)
	huma.Get(api, "/api/quads/{quad}/pair", s.pair)
	huma.Get(api, "/api/quads/{quad}/slots", s.slots)
	huma.Post(api, "/api/quads/{quad}/slots/{slot}", s.fill)
}

// askLink makes what the link question needs and the quad that asks it.
func (s *server) askLink(ctx context.Context, in *struct{ Body begin.LinkQuestion }) (*answer[Begun], error) {
	return s.begun(ctx, "asked whether two link", func(st *stock.Stock) (string, error) { return begin.Link(st, in.Body) })
}

func (s *server) beginQuad(ctx context.Context, in *struct {
	Body struct {
		Name   string `json:"name" minLength:"1" maxLength:"200"`
		Analog bool   `json:"analog" doc:"it carries analog video today"`
	}
}) (*answer[Begun], error) {
	return s.begun(ctx, "began", func(st *stock.Stock) (string, error) {
		return begin.Quad(st, in.Body.Name, in.Body.Analog), nil
	})
}

// begun writes what was made, read again as if it came in a file.
func (s *server) begun(ctx context.Context, does string, make func(*stock.Stock) (string, error)) (*answer[Begun], error) {
	quad := ""
	err := s.store.Update(deed(ctx, does), func(st *stock.Stock) (err error) {
		return made(st, func() (string, error) {
			quad, err = make(st)
			return quad, err
		})
	})
	if err != nil {
		return nil, problem(err)
	}
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	return reply(Begun{quad, snap.Revision}), nil
}

// made makes a quad, or changes one, and reads it and all that was made with it again, as
// if it came in a file.
func made(st *stock.Stock, make func() (quad string, err error)) error {
	before := refs(st)
	quad, err := make()
	if err != nil {
		return huma.Error422UnprocessableEntity(err.Error() + "; nothing was changed")
	}
	for ref := range refs(st) {
		if !before[ref] && ref.Kind != stock.KindQuad {
			if err := takeAgain(st, ref); err != nil {
				return err
			}
		}
	}
	return takeAgain(st, stock.Ref{Kind: stock.KindQuad, ID: quad})
}

// refs are the entries of a stock.
func refs(st *stock.Stock) map[stock.Ref]bool {
	all := map[stock.Ref]bool{}
	for _, item := range st.Library().Items() {
		all[stock.Ref{Kind: string(item.Kind()), ID: item.Head().ID}] = true
	}
	for i := range st.Fleet.Kit {
		all[stock.Ref{Kind: stock.KindKit, ID: st.Fleet.Kit[i].ID}] = true
	}
	return all
}

func (s *server) pair(_ context.Context, in *struct {
	Quad string `path:"quad"`
}) (*answer[PairView], error) {
	snap, q, err := s.quadOf(in.Quad)
	if err != nil {
		return nil, err
	}
	v := PairView{Quad: q.ID, Name: q.Label()}
	judged := swap.JudgeWithFixes(fleet.NewCase(snap.Library, snap.Index, q))
	v.Findings = link.OfPair(judged.Gate(verdict.Link).Findings)
	v.Level = verdict.Worst(v.Findings)
	return reply(v), nil
}

func (s *server) quadOf(id string) (*store.Snapshot, *fleet.Quad, error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, nil, problem(err)
	}
	q, ok := snap.Fleet.Quad(id)
	if !ok {
		return nil, nil, notFound("quad", id)
	}
	return snap, q, nil
}

func (s *server) slots(_ context.Context, in *struct {
	Quad  string `path:"quad"`
	Today bool   `query:"today" doc:"what is on it today; else the plan"`
}) (*answer[SlotsView], error) {
	snap, q, err := s.quadOf(in.Quad)
	if err != nil {
		return nil, err
	}
	return reply(slotsOf(snap, q, in.Today)), nil
}

func slotsOf(snap *store.Snapshot, q *fleet.Quad, today bool) SlotsView {
	c := fleet.NewCase(snap.Library, snap.Index, q)
	if today {
		c = fleet.NowCase(snap.Library, snap.Index, q)
	}
	j := swap.Judge(c)
	return SlotsView{
		Quad:     q.ID,
		Name:     q.Label(),
		Revision: snap.RevisionOf(stock.Ref{Kind: stock.KindQuad, ID: q.ID}),
		Today:    today,
		Analog:   q.Now.Analog != "",
		Slots:    begin.Slots(c, trade.Shelf()),
		Gates:    j.Gates,
		Level:    j.Level,
	}
}

// fill puts something into a slot; what it takes is made with it.
func (s *server) fill(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Slot string `path:"slot"`
	Body struct {
		Revision int64      `json:"revision" doc:"of the quad, as read"`
		Today    bool       `json:"today"`
		Take     begin.Take `json:"take"`
	}
}) (*answer[SlotsView], error) {
	ref := stock.Ref{Kind: stock.KindQuad, ID: in.Quad}
	err := s.store.Update(deed(ctx, "put something in"), func(st *stock.Stock) error {
		if _, ok := st.Fleet.Quad(in.Quad); !ok {
			return notFound("quad", in.Quad)
		}
		return made(st, func() (string, error) {
			return in.Quad, begin.Fill(st, trade.Shelf(), in.Quad, in.Body.Today, in.Slot, in.Body.Take)
		})
	}, store.Expect{Ref: ref, Revision: in.Body.Revision})
	if err != nil {
		return nil, problem(err)
	}
	return s.slots(ctx, &struct {
		Quad  string `path:"quad"`
		Today bool   `query:"today" doc:"what is on it today; else the plan"`
	}{in.Quad, in.Body.Today})
}
