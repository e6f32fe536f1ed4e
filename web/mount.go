package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/gates/mount"
	"yokeswap/core/measure/unit"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
	"yokeswap/format"
)

// MountView is what the mount gate shows beside its findings.
type MountView struct {
	Picture mount.Picture `json:"picture"`
	Weight  mount.Weight  `json:"weight"`
	Room    mount.Room    `json:"room"`
	Balance mount.Balance `json:"balance"`
	// Antennas are those of the plan, by name, in their order.
	Antennas []string `json:"antennas"`
	// Held are the parts of the plan with what holds them.
	Held []fleet.Holdable `json:"held"`
}

// ShoppingView is the parts to have before the bench day.
type ShoppingView struct {
	Items []swap.Item `json:"items"`
	Bill  swap.Bill   `json:"bill"`
}

// measured is the weight the bench has read after the swap; nil where it has not.
func (s *server) measured(quad string) (measured *unit.Grams, err error) {
	records, err := s.store.Records(quad)
	for _, r := range records {
		if r.Step == bench.WeighStep && r.Done && r.Value != nil {
			measured = new(unit.Grams(*r.Value))
		}
	}
	return measured, err
}

func mountOf(c fleet.Case, measured *unit.Grams) MountView {
	weight := mount.Weigh(c.Library, c.Fleet, c.Quad, measured)
	antennas := []string{}
	if c.Fit.Antennas != nil {
		for _, id := range c.Fit.Antennas.Models {
			antennas = append(antennas, c.Library.Label(id))
		}
	}
	return MountView{
		Antennas: antennas,
		Picture:  mount.Draw(c),
		Weight:   weight,
		Balance:  mount.BalanceOf(c, weight.AllG()),
		Room:     mount.RoomOf(c),
		Held:     c.Holdables(),
	}
}

func (s *server) registerShopping(api huma.API) {
	huma.Get(api, "/api/shopping", func(_ context.Context, _ *struct{}) (*answer[ShoppingView], error) {
		snap, err := s.store.Snapshot()
		if err != nil {
			return nil, problem(err)
		}
		items := swap.Shopping(snap.Library, snap.Index)
		return reply(ShoppingView{items, swap.NewBill(items, snap.Fleet)}), nil
	})
	huma.Register(
		api,
		huma.Operation{Method: http.MethodGet, Path: "/api/shopping.csv", OperationID: "shopping-csv"},
		func(_ context.Context, _ *struct{}) (*download, error) {
			snap, err := s.store.Snapshot()
			if err != nil {
				return nil, problem(err)
			}
			text, err := format.ShoppingList(swap.Shopping(snap.Library, snap.Index))
			if err != nil {
				return nil, problem(err)
			}
			return &download{
				ContentType:        "text/csv; charset=utf-8",
				ContentDisposition: `attachment; filename="shopping.csv"`,
				Body:               text,
			}, nil
		},
	)
}

// seatFor looks for a place for a part of a quad's plan.
func (s *server) seatFor(_ context.Context, in *struct {
	Quad string `path:"quad"`
	Part string `query:"part" required:"true" doc:"airUnit, board, receiver, camera, pack, or the id of a part"`
}) (*answer[mount.Seat], error) {
	snap, q, err := s.quadOf(in.Quad)
	if err != nil {
		return nil, err
	}
	return reply(mount.FindSeat(fleet.NewCase(snap.Library, snap.Index, q), in.Part)), nil
}
