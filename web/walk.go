package web

import (
	"context"
	"time"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/plans/route"
	"yokeswap/format"
	"yokeswap/store"
)

// BackView is the way back.
type BackView struct {
	Whole int64      `json:"whole" doc:"revision of everything it was planned on"`
	Began bool       `json:"began" doc:"it leads back from here, steps are carried out; else from the route's end"`
	Back  route.Back `json:"back"`
}

// recordRead takes a step of the real route: what was read off the device after
// it. The kit's state follows, whatever the plan said, and the answer is the
// route from there.
func (s *server) recordRead(ctx context.Context, in *struct {
	Body struct {
		Device     string           `json:"device"`
		Do         route.Do         `json:"do" enum:"update,mode,activate"`
		Planned    firmware.Version `json:"planned,omitempty" doc:"update: the release planned"`
		Firmware   firmware.Version `json:"firmware,omitempty" doc:"update: as read; absent: it shows none"`
		Mode       string           `json:"mode,omitempty" doc:"mode: the one switched to"`
		NotOffered bool             `json:"notOffered,omitempty" doc:"the tool did not offer the release; nothing was done"`
		Revision   int64            `json:"revision" doc:"of the whole, as the route was planned on"`
	}
}) (*ready[RouteView], error) {
	b := in.Body
	taken := fleet.Taken{
		Kit:        b.Device,
		Do:         string(b.Do),
		Planned:    b.Planned,
		Read:       b.Firmware,
		Mode:       b.Mode,
		NotOffered: b.NotOffered,
		At:         now(),
	}
	return s.walk(ctx, b.Revision, func(st *stock.Stock) error {
		if err := st.Take(taken); err != nil {
			return notFound("piece of kit", b.Device)
		}
		return format.TakeHead(st)
	})
}

// offered takes back that a release was not offered.
func (s *server) offered(ctx context.Context, in *struct {
	Body struct {
		Device   string           `json:"device"`
		Release  firmware.Version `json:"release"`
		Revision int64            `json:"revision" doc:"of the whole"`
	}
}) (*ready[RouteView], error) {
	return s.walk(ctx, in.Body.Revision, func(st *stock.Stock) error {
		st.Offered(in.Body.Device, in.Body.Release)
		return nil
	})
}

// walk changes what of the route has been carried out and answers with the
// route from there.
func (s *server) walk(ctx context.Context, revision int64, change func(*stock.Stock) error) (*ready[RouteView], error) {
	seen := store.Expect{Ref: store.Everything, Revision: revision}
	if err := s.store.Update(deed(ctx, "walked the route"), change, seen); err != nil {
		return nil, problem(err)
	}
	return s.routeView(ctx)
}

func now() string { return time.Now().UTC().Format(time.RFC3339) }

// closeRoute forgets the steps taken, and with them the way back.
func (s *server) closeRoute(ctx context.Context, in *struct {
	Body struct {
		Revision int64 `json:"revision" doc:"of the whole"`
	}
}) (*ready[RouteView], error) {
	return s.walk(ctx, in.Body.Revision, func(st *stock.Stock) error {
		st.CloseRoute()
		return nil
	})
}

// backView is the way back to where the devices stood before the route: from
// here where steps have been carried out, else from the route's end.
func (s *server) backView(ctx context.Context) (*ready[BackView], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	return answered(
		ctx,
		s.answers,
		snap,
		"back",
		func(ctx context.Context) (*BackView, error) { return backOf(ctx, snap) },
	)
}

func backOf(ctx context.Context, snap *store.Snapshot) (v *BackView, err error) {
	request := routeRequest(snap)
	request.Context = ctx
	v = &BackView{Whole: snap.Revision}
	homes := route.Homes(snap.Fleet.Taken)
	if v.Began = len(homes) > 0; !v.Began {
		steps, err := route.Steps(request)
		if err != nil {
			return nil, err
		}
		if request, homes, err = route.After(request, steps); err != nil {
			return nil, err
		}
	}
	v.Back, err = route.WayBack(request, homes)
	return v, err
}
