package web

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
	"yokeswap/core/plans/begin"
	"yokeswap/core/plans/swap"
	"yokeswap/format"
	"yokeswap/store"
	"yokeswap/trade"
)

// Begun is a quad that was made.
type Begun struct {
	Quad   string `json:"quad"   doc:"its id"`
	Change int64  `json:"change" doc:"to take it back with"`
}

// PairView answers whether the air unit and the goggles of a quad's plan link.
type PairView struct {
	Quad     string            `json:"quad"`
	Name     string            `json:"name"`
	Level    verdict.Level     `json:"level"`
	Findings []verdict.Finding `json:"findings"`
	// Controller is the model that is to go through the air unit.
	Controller *Named `json:"controller,omitempty"`
}

// SlotsView is a quad as a picture to fill.
type SlotsView struct {
	Quad     string             `json:"quad"`
	Name     string             `json:"name"`
	Revision int64              `json:"revision"`
	Today    bool               `json:"today"`
	Analog   bool               `json:"analog"   doc:"it carries analog video today"`
	Slots    []begin.Slot       `json:"slots"`
	After    string             `json:"after"    doc:"the place of the plan to fill once those of today are; empty: none"`
	Gates    []swap.GateVerdict `json:"gates"`
	Level    verdict.Level      `json:"level"`
}

func (s *server) registerBegin(api huma.API) {
	huma.Post(api, "/api/begin/link", s.askLink)
	huma.Post(api, "/api/begin/quad", s.beginQuad)
	huma.Get(api, "/api/quads/{quad}/pair", s.pair)
	huma.Get(api, "/api/quads/{quad}/slots", s.slots)
	huma.Get(api, "/api/quads/{quad}/picks", s.picks)
	huma.Get(api, "/api/kit/{kit}/antennas", s.antennaPicks)
	huma.Post(api, "/api/kit/{kit}/antennas", s.putAntennas)
	huma.Get(api, "/api/quads/{quad}/ask", s.asks, holds[AskView](api))
	huma.Post(api, "/api/quads/{quad}/slots/{slot}", s.fill)
	huma.Post(api, "/api/quads/{quad}/statement", s.state)
	huma.Get(api, "/api/entries/{kind}/{id}/sheet", s.entrySheet)
	huma.Post(api, readPath+"{kind}", s.readSheet, func(o *huma.Operation) { o.SkipValidateBody = true })
	huma.Get(api, "/api/links", s.links, holds[link.Map](api))
	huma.Post(api, "/api/links/{unit}/{goggles}", s.stateOf)
	huma.Get(api, "/api/trade", tradeShelf)
	huma.Post(api, "/api/trade/{id}", s.takeFromTrade)
}

// askLink makes what the link question needs and the quad that asks it.
func (s *server) askLink(ctx context.Context, in *struct{ Body begin.LinkQuestion }) (*answer[Begun], error) {
	return s.begun(ctx, "asked whether two link", func(st *stock.Stock) (string, error) { return begin.Link(st, in.Body) })
}

func (s *server) beginQuad(ctx context.Context, in *struct {
	Body struct {
		Name   string `json:"name" minLength:"1" maxLength:"200"`
		Analog bool   `json:"analog" doc:"it carries analog video today"`
		Like   string `json:"like,omitempty" doc:"a quad to copy, by its id; of one bought whole, one it is flown like"`
		Ready  string `json:"ready,omitempty" doc:"a quad bought whole, by the id of its entry"`
	}
}) (*answer[Begun], error) {
	return s.begun(ctx, "began", func(st *stock.Stock) (string, error) {
		switch {
		case in.Body.Ready != "":
			return begin.Ready(st, in.Body.Name, in.Body.Ready, in.Body.Like)
		case in.Body.Like != "":
			return begin.QuadLike(st, in.Body.Name, in.Body.Like)
		}
		return begin.Quad(st, in.Body.Name, in.Body.Analog), nil
	})
}

// begun writes what was made, read again as if it came in a file.
func (s *server) begun(
	ctx context.Context,
	does string,
	make func(*stock.Stock) (string, error),
) (*answer[Begun], error) {
	quad := ""
	change, err := s.change(ctx, does, func(st *stock.Stock) (err error) {
		return made(st, func() (string, error) {
			quad, err = make(st)
			return quad, err
		})
	})
	if err != nil {
		return nil, problem(err)
	}
	return reply(Begun{quad, change}), nil
}

// made makes a quad, or changes one, and reads it and all that was made with it again, as
// if it came in a file.
func made(st *stock.Stock, make func() (quad string, err error)) error {
	return madeFor(st, func() (stock.Ref, error) {
		quad, err := make()
		return stock.Ref{Kind: stock.KindQuad, ID: quad}, err
	})
}

// madeFor makes an entry or changes one, and reads it and all that was made with it again.
func madeFor(st *stock.Stock, make func() (stock.Ref, error)) error {
	before := refs(st)
	made, err := make()
	if err != nil {
		return huma.Error422UnprocessableEntity(err.Error() + "; nothing was changed")
	}
	for ref, is := range refs(st) {
		if was, there := before[ref]; (!there || was != is) && ref.Kind != stock.KindQuad {
			if err := takeAgain(st, ref); err != nil {
				return err
			}
		}
	}
	return takeAgain(st, made)
}

// refs are the entries of a stock; those of gear as they are, which are replaced where they
// change, never written through.
func refs(st *stock.Stock) map[stock.Ref]gear.Item {
	all := map[stock.Ref]gear.Item{}
	for _, item := range st.Library().Items() {
		all[stock.Ref{Kind: string(item.Kind()), ID: item.Head().ID}] = item
	}
	for i := range st.Fleet.Kit {
		all[stock.Ref{Kind: stock.KindKit, ID: st.Fleet.Kit[i].ID}] = nil
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
	c := fleet.NewCase(snap.Library, snap.Index, q)
	if model, _, ok := c.Controller(); ok {
		v.Controller = &Named{ID: model.ID, Name: model.Label()}
	}
	judged := swap.JudgeWithFixes(c)
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
	slots := begin.Slots(c, trade.Shelf())
	for _, gate := range j.Gates {
		begin.Ask(slots, gate.Findings)
	}
	return SlotsView{
		Quad:     q.ID,
		Name:     q.Label(),
		Revision: snap.RevisionOf(stock.Ref{Kind: stock.KindQuad, ID: q.ID}),
		Today:    today,
		Analog:   q.Now.Analog != "",
		Slots:    slots,
		After:    begin.After(q),
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
	snap, q, err := s.quadOf(in.Quad)
	if err != nil {
		return nil, err
	}
	return reply(slotsOf(snap, q, in.Body.Today)), nil
}

// state notes what is stated of the pair that a quad's plan flies.
func (s *server) state(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body begin.Said
}) (*answer[Begun], error) {
	return s.begun(ctx, "stated what links", func(st *stock.Stock) (string, error) {
		q, ok := st.Fleet.Quad(in.Quad)
		if !ok {
			return "", fmt.Errorf("there is no quad %q", in.Quad)
		}
		c := fleet.NewCase(st.Library(), fleet.NewIndex(st.Fleet), q)
		unit, _, hasUnit := c.AirUnit()
		goggles, _, hasGoggles := c.Goggles()
		if !hasUnit || !hasGoggles {
			return "", fmt.Errorf("%s has no pair to speak of: it needs an air unit and goggles", q.Label())
		}
		return q.ID, begin.State(st, unit.ID, goggles.ID, in.Body)
	})
}

// TradeEntry is something on the trade shelf.
type TradeEntry struct {
	Kind   string `json:"kind"`
	ID     string `json:"id"`
	Name   string `json:"name"`
	Source string `json:"source"`
}

// tradeShelf lists what the trade shelf has of a kind, or all of it.
func tradeShelf(_ context.Context, in *struct {
	Kind string `query:"kind"`
}) (*answer[[]TradeEntry], error) {
	list := []TradeEntry{}
	for _, of := range trade.Shelf().Lists() {
		for _, item := range of.Items {
			if kind := string(item.Kind()); in.Kind == "" || in.Kind == kind {
				list = append(list, TradeEntry{kind, item.Head().ID, item.Head().Label(), item.Head().Source.String()})
			}
		}
	}
	return reply(list), nil
}

// takeFromTrade copies an entry of the trade shelf, and what it names there, to one's own.
func (s *server) takeFromTrade(ctx context.Context, in *struct {
	ID string `path:"id"`
}) (*answer[Saved], error) {
	items := format.WithNamed(trade.Shelf(), in.ID)
	if len(items) == 0 {
		return nil, notFound("entry of the trade shelf", in.ID)
	}
	change, err := s.change(ctx, "took from the trade shelf", func(st *stock.Stock) error {
		return begin.Copy(st, items...)
	})
	if err != nil {
		return nil, problem(err)
	}
	return s.saved(stock.Ref{Kind: string(items[0].Kind()), ID: in.ID}, change)
}

// links is the map of what links with what.
// stateOf notes what is stated of a pair of models, beside what is stated already or in its
// place.
func (s *server) stateOf(ctx context.Context, in *struct {
	Unit    string `path:"unit"`
	Goggles string `path:"goggles"`
	Body    struct {
		begin.Said
		Instead bool `json:"instead" doc:"in the place of all that is stated of the pair"`
	}
}) (*answer[Saved], error) {
	change, err := s.change(ctx, "stated what links", func(st *stock.Stock) error {
		lib := st.Library()
		if _, ok := gear.Find[*gear.AirUnit](lib, in.Unit); !ok {
			return notFound("air unit", in.Unit)
		}
		if _, ok := gear.Find[*gear.Goggles](lib, in.Goggles); !ok {
			return notFound("goggles", in.Goggles)
		}
		state := begin.State
		if in.Body.Instead {
			state = begin.StateInstead
		}
		if err := state(st, in.Unit, in.Goggles, in.Body.Said); err != nil {
			return huma.Error422UnprocessableEntity(err.Error() + "; nothing was changed")
		}
		return format.CheckStock(st)
	})
	if err != nil {
		return nil, problem(err)
	}
	return s.saved(stock.Ref{Kind: string(gear.KindPairing), ID: in.Unit}, change)
}
