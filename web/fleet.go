package web

import (
	"cmp"
	"context"
	"fmt"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/control"
	"yokeswap/core/gates/link"
	"yokeswap/core/gates/osd"
	"yokeswap/core/gates/power"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/setup"
	"yokeswap/format"
	"yokeswap/store"
)

// Health is the state of the server.
type Health struct {
	Status   string `json:"status"`
	Version  string `json:"version"`
	Database string `json:"database" enum:"ok,read-only,full,locked,damaged,not there"`
	Says     string `json:"says,omitempty" doc:"what is wrong, and what to do"`
}

func (s *server) registerHealth(api huma.API) {
	huma.Get(api, "/api/health", func(_ context.Context, _ *struct{}) (*answer[Health], error) {
		condition, err := s.store.Health()
		v := Health{Status: "ok", Version: s.options.Version, Database: string(condition)}
		if err != nil {
			v.Status, v.Says = "trouble", err.Error()
		}
		return reply(v), nil
	})
}

// answer wraps a response body.
type answer[T any] struct{ Body T }

func reply[T any](body T) *answer[T] { return &answer[T]{body} }

// FitView is a fit in words.
type FitView struct {
	AirUnit    string `json:"airUnit"`
	Goggles    string `json:"goggles"`
	GogglesKit string `json:"gogglesKit" doc:"empty: none, or none owned"`
	Controller string `json:"controller"`
	Pack       string `json:"pack"`
	Feed       string `json:"feed"`
	Board      string `json:"board"`
}

// QuadView is one quad with its two fits, the verdicts on the next one, and
// what the pictures show.
type QuadView struct {
	ID        string          `json:"id"`
	Name      string          `json:"name"`
	Use       string          `json:"use"`
	Revision  int64           `json:"revision"`
	Now       FitView         `json:"now"`
	Next      FitView         `json:"next"`
	NowLevel  string          `json:"nowLevel"`
	Planned   bool            `json:"planned" doc:"a swap is planned; else next is as it is now"`
	Judgement swap.Judgement  `json:"judgement"`
	Places    []swap.Place    `json:"places"`
	Power     SupplyView      `json:"power"`
	Link      link.Picture    `json:"link"`
	Pins      WiringView      `json:"pins"`
	Antenna   AntennaView     `json:"antenna"`
	Mount     MountView       `json:"mount"`
	OSD       osd.Picture     `json:"osd"`
	Control   control.Picture `json:"control"`
	Settings  setup.Plan      `json:"settings"`
}

func (s *server) registerFleet(api huma.API) {
	huma.Get(api, "/api/board", s.board, holds[BoardPage](api))
	huma.Get(api, "/api/quads/{quad}", func(ctx context.Context, in *struct {
		Quad string `path:"quad"`
	}) (*ready[QuadView], error) {
		return s.quadView(ctx, in.Quad)
	}, holds[QuadView](api))
	huma.Post(api, "/api/quads/{quad}/next", s.plan, holds[QuadView](api))
	huma.Post(api, "/api/quads/{quad}/now", s.note, holds[QuadView](api))
	huma.Post(api, "/api/quads/{quad}/wire", s.solder, holds[QuadView](api))
}

// BoardPage is the yoke board, or a part of its rows.
type BoardPage struct {
	swap.Board
	Of int `json:"of" doc:"how many rows there are in all"`
}

// board is the yoke board; the sentence speaks of all quads, the rows are those asked for.
func (s *server) board(ctx context.Context, in *struct {
	Left  string `query:"left" doc:"ids of goggles and controllers left at home, separated by commas"`
	From  int    `query:"from" minimum:"0" doc:"the first row"`
	Count int    `query:"count" minimum:"0" maximum:"10000" doc:"how many rows; absent: 200"`
}) (*ready[BoardPage], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	count := cmp.Or(in.Count, rowsAtOnce)
	question := fmt.Sprintf("board %s from %d count %d", in.Left, in.From, count)
	return answered(ctx, s.answers, snap, question, func(ctx context.Context) (*BoardPage, error) {
		board, err := s.memory.Board(ctx, snap.Library, snap.Index, strings.Split(in.Left, ","))
		if err != nil {
			return nil, err
		}
		page := BoardPage{Board: board}
		page.Of = len(page.Rows)
		from := min(in.From, page.Of)
		page.Rows = page.Rows[from:min(from+count, page.Of)]
		return &page, nil
	})
}

// rowsAtOnce is how many rows of the board are answered where nobody says.
const rowsAtOnce = 200

// plan applies a pick or a fix to a quad's next fit.
func (s *server) plan(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body struct {
		Revision int64       `json:"revision" doc:"of the quad, as read"`
		Patch    fleet.Patch `json:"patch"`
	}
}) (*ready[QuadView], error) {
	return s.changeQuad(ctx, in.Quad, in.Body.Revision, "planned", func(st *stock.Stock) error {
		return refused(st.Plan(in.Quad, in.Body.Patch))
	})
}

// refused is why a patch is not applied, as the one who asks for it has to read it.
func refused(err error) error {
	if err == nil {
		return nil
	}
	return huma.Error422UnprocessableEntity(err.Error())
}

// note applies a patch to what a quad carries today.
func (s *server) note(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body struct {
		Revision int64       `json:"revision" doc:"of the quad, as read"`
		Patch    fleet.Patch `json:"patch"`
	}
}) (*ready[QuadView], error) {
	return s.changeQuad(ctx, in.Quad, in.Body.Revision, "noted what is there", func(st *stock.Stock) error {
		return refused(st.Note(in.Quad, in.Body.Patch))
	})
}

// solder puts the wire of one pin on a place of the board, today or in the plan.
func (s *server) solder(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body struct {
		Revision int64  `json:"revision" doc:"of the quad, as read"`
		Today    bool   `json:"today" doc:"what is there today; else the plan"`
		Node     string `json:"node" doc:"airUnit, receiver, or the id of a part"`
		Pin      int    `json:"pin" minimum:"1"`
		Place    string `json:"place" doc:"of the board; empty takes the wire off"`
	}
}) (*ready[QuadView], error) {
	return s.changeQuad(ctx, in.Quad, in.Body.Revision, "wired", func(st *stock.Stock) error {
		q, ok := st.Fleet.Quad(in.Quad)
		if !ok {
			return notFound("quad", in.Quad)
		}
		c := fleet.NewCase(st.Library(), fleet.NewIndex(st.Fleet), q)
		if in.Body.Today {
			c = fleet.NowCase(st.Library(), fleet.NewIndex(st.Fleet), q)
		}
		patch, err := netlist.Solder(c, in.Body.Node, in.Body.Pin, in.Body.Place)
		switch {
		case err != nil:
			return huma.Error422UnprocessableEntity(err.Error() + "; nothing was changed")
		case in.Body.Today:
			return st.Note(in.Quad, patch)
		}
		return st.Plan(in.Quad, patch)
	})
}

// changeQuad writes a change of a quad, read again as if it came in a file; a stale
// revision is answered with how the two differ.
func (s *server) changeQuad(
	ctx context.Context, quad string, revision int64, does string, change func(*stock.Stock) error,
) (*ready[QuadView], error) {
	ref := stock.Ref{Kind: stock.KindQuad, ID: quad}
	err := s.store.Update(deed(ctx, does), func(st *stock.Stock) error {
		if _, ok := st.Fleet.Quad(quad); !ok {
			return notFound("quad", quad)
		}
		if err := change(st); err != nil {
			return err
		}
		return takeAgain(st, ref)
	}, store.Expect{Ref: ref, Revision: revision})
	if conflict, ok := problem(err).(*Conflict); ok {
		s.describe(conflict, ref, change)
		return nil, conflict
	}
	if err != nil {
		return nil, problem(err)
	}
	return s.quadView(ctx, quad)
}

// takeAgain reads a changed entry as if it came in a file, so that a patch can
// bring in nothing that a file could not.
func takeAgain(st *stock.Stock, ref stock.Ref) error {
	text, err := format.Write(st.Entry(ref))
	if err != nil {
		return err
	}
	return format.TakeEntry(st, ref, text)
}

// describe fills a conflict with how the entry there differs from the one that
// would have been written.
func (s *server) describe(c *Conflict, ref stock.Ref, change func(*stock.Stock) error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return
	}
	mine := snap.Fork()
	if change(mine) == nil {
		c.Differences = append(c.Differences, stock.Compare(snap.Entry(ref), mine.Entry(ref))...)
	}
}

func (s *server) quadView(ctx context.Context, id string) (*ready[QuadView], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	q, ok := snap.Fleet.Quad(id)
	if !ok {
		return nil, notFound("quad", id)
	}
	measured, err := s.measured(id)
	if err != nil {
		return nil, problem(err)
	}
	question := "quad " + id
	if measured != nil {
		question += fmt.Sprint(" at ", float64(*measured))
	}
	return answered(ctx, s.answers, snap, question, func(context.Context) (*QuadView, error) {
		v := viewOf(snap, q)
		v.Mount = mountOf(v.Judgement.At(verdict.Mount, fleet.NewCase(snap.Library, snap.Index, q)), measured)
		return &v, nil
	})
}

// viewOf is a quad as it is shown, but for its weight.
func viewOf(snap *store.Snapshot, q *fleet.Quad) QuadView {
	now, next := fleet.NowCase(snap.Library, snap.Index, q), fleet.NewCase(snap.Library, snap.Index, q)
	judged := swap.JudgeWithFixes(next)
	at := func(gate verdict.Gate) fleet.Case { return judged.At(gate, next) }
	return QuadView{
		ID:        q.ID,
		Name:      q.Label(),
		Use:       q.Use,
		Revision:  snap.RevisionOf(stock.Ref{Kind: stock.KindQuad, ID: q.ID}),
		Now:       fitView(now),
		Next:      fitView(next),
		NowLevel:  string(swap.Judge(now).Level),
		Planned:   q.Next != nil,
		Judgement: judged,
		Places:    swap.Places(next),
		Power:     SupplyView{power.Trace(at(verdict.Power)), power.Feeds(next)},
		Link:      link.Draw(at(verdict.Link)),
		Pins:      wiringOf(at(verdict.Pins)),
		Antenna:   antennasOf(at(verdict.Antenna)),
		OSD:       osd.Draw(at(verdict.OSD)),
		Control:   control.Draw(at(verdict.Control)),
		Settings:  setup.PlanOf(next),
	}
}

func fitView(c fleet.Case) FitView {
	v := FitView{
		AirUnit:    swap.Describe(c),
		Goggles:    "none",
		Controller: "none",
		Pack:       "none",
		Feed:       "not said",
		Board:      "none",
	}
	if _, s, ok := c.Goggles(); ok {
		v.Goggles, v.GogglesKit = s.Label, s.KitID
	}
	if _, s, ok := c.Controller(); ok {
		v.Controller = s.Label
	}
	if c.Fit.Receiver != "" {
		v.Controller = c.Library.Label(c.Fit.Receiver) + ", separate"
	}
	if c.Fit.Pack != "" {
		v.Pack = c.Library.Label(c.Fit.Pack)
	}
	if c.Fit.Board != "" {
		v.Board = c.Library.Label(c.Fit.Board)
	}
	for _, node := range power.Trace(c).Nodes {
		if node.ID == fleet.NodeAirUnit && node.From != "" {
			v.Feed = node.From
		}
	}
	if c.Fit.AirUnit == nil {
		v.Feed = "no air unit"
	}
	return v
}
