package web

import (
	"cmp"
	"context"
	"fmt"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/gates/link"
	"yokeswap/core/plans/route"
	"yokeswap/store"
)

// links is the map of links today and after: the route's steps, or one update that is asked
// about.
func (s *server) links(ctx context.Context, in *struct {
	Kit string           `query:"kit" doc:"a piece of kit that might be updated; absent: what the route does"`
	To  firmware.Version `query:"to"  doc:"the release it would carry; absent: as it is"`
}) (*ready[link.Map], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	question := fmt.Sprintf("links %s %s", in.Kit, in.To)
	return answered(ctx, s.answers, snap, question, func(ctx context.Context) (*link.Map, error) {
		after, err := afterUpdates(ctx, snap, in.Kit, in.To)
		if err != nil {
			return nil, err
		}
		m := link.NewMap(snap.Library, snap.Index, after)
		return &m, nil
	})
}

// afterUpdates is the fleet once a piece of kit carries another release, or once the route
// has been gone.
func afterUpdates(
	ctx context.Context, snap *store.Snapshot, kit string, to firmware.Version,
) (*fleet.Index, error) {
	if kit == "" {
		request := routeRequest(snap)
		request.Context = ctx
		steps, err := route.Steps(request)
		if err != nil {
			return nil, err
		}
		done, _, err := route.After(request, steps)
		return done.Fleet, err
	}
	piece, ok := snap.Index.Piece(kit)
	if !ok {
		return nil, notFound("kit", kit)
	}
	other := *piece
	other.Firmware = cmp.Or(to, piece.Firmware)
	return snap.Index.WithPiece(&other), nil
}
