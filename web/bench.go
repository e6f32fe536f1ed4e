package web

import (
	"context"
	"fmt"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
	"yokeswap/core/work/setup"
	"yokeswap/format"
	"yokeswap/store"
)

func (s *server) registerBench(api huma.API) {
	huma.Get(api, "/api/quads/{quad}/bench", func(_ context.Context, in *struct {
		Quad string `path:"quad"`
	}) (*answer[bench.Run], error) {
		return s.run(in.Quad)
	})
	huma.Post(api, "/api/quads/{quad}/bench", s.confirm)
	huma.Post(api, "/api/quads/{quad}/finish", s.finish)
	huma.Get(api, "/api/goggles/{kit}", func(_ context.Context, in *struct {
		Kit string `path:"kit"`
	}) (*answer[setup.GogglesList], error) {
		snap, err := s.store.Snapshot()
		if err != nil {
			return nil, problem(err)
		}
		list, ok := setup.ListFor(snap.Library, snap.Index, in.Kit)
		if !ok {
			return nil, notFound("goggles", in.Kit)
		}
		return reply(list), nil
	})
}

func (s *server) sheet(quad string) (bench.Sheet, error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return bench.Sheet{}, err
	}
	q, ok := snap.Fleet.Quad(quad)
	if !ok {
		return bench.Sheet{}, notFound("quad", quad)
	}
	c := fleet.NewCase(snap.Library, snap.Index, q)
	return bench.NewSheet(
		c,
		swap.Judge(c),
		swap.Describe(fleet.NowCase(snap.Library, snap.Index, q)),
		swap.Describe(c),
	), nil
}

func (s *server) run(quad string) (*answer[bench.Run], error) {
	run, err := s.timed(quad)
	if err != nil {
		return nil, problem(err)
	}
	return reply(run), nil
}

// timed is a quad's run, with how long such steps took before.
func (s *server) timed(quad string) (bench.Run, error) {
	sheet, err := s.sheet(quad)
	if err != nil {
		return bench.Run{}, err
	}
	records, err := s.store.Records(quad)
	if err != nil {
		return bench.Run{}, err
	}
	ticks, err := s.store.Ticks()
	if err != nil {
		return bench.Run{}, err
	}
	sheet.Time(bench.Learn(ticks))
	return bench.NewRun(sheet, records), nil
}

// confirm ticks a step, takes a tick back, or records a reading.
func (s *server) confirm(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body struct {
		Step  string           `json:"step"`
		Done  bool             `json:"done"`
		Value *float64         `json:"value,omitempty"`
		Read  firmware.Version `json:"read,omitempty" doc:"the release read off a changed device; absent: it shows none"`
	}
}) (*answer[bench.Run], error) {
	sheet, err := s.sheet(in.Quad)
	if err != nil {
		return nil, problem(err)
	}
	if step, ok := sheet.Step(in.Body.Step); ok && step.Reads != nil && in.Body.Done {
		return s.confirmDevice(ctx, in.Quad, step, in.Body.Read)
	}
	err = s.store.Confirm(deed(ctx, "ticked at the bench"), in.Quad, func(records []bench.Record) (bench.Record, error) {
		run := bench.NewRun(sheet, records)
		record, err := run.Confirm(in.Body.Step, in.Body.Done, in.Body.Value, time.Now())
		if err != nil {
			return record, huma.Error409Conflict(err.Error())
		}
		return record, nil
	})
	if err != nil {
		return nil, problem(err)
	}
	return s.run(in.Quad)
}

// confirmDevice records what was read off a device after a step of the sheet:
// the kit follows, and with it the rest of the sheet.
func (s *server) confirmDevice(
	ctx context.Context, quad string, step *bench.Step, read firmware.Version,
) (*answer[bench.Run], error) {
	if step.Held != "" {
		return nil, huma.Error409Conflict(step.Held)
	}
	do := step.Reads
	taken := fleet.Taken{Kit: do.Kit, Do: do.Do, Planned: do.Release, Read: read, Mode: do.Mode, At: now()}
	err := s.store.Update(deed(ctx, "read at the bench"), func(st *stock.Stock) error {
		if err := st.Take(taken); err != nil {
			return notFound("piece of kit", do.Kit)
		}
		return format.TakeHead(st)
	})
	if err != nil {
		return nil, problem(err)
	}
	return s.run(quad)
}

// finish ends a swap: next becomes now, and the run goes into the log.
// finishedSwap is what a finished swap is called in the history.
const finishedSwap = "finished the swap"

// nothingPlanned is the answer where a swap is wanted and none is planned.
func nothingPlanned(q *fleet.Quad) error {
	return huma.Error409Conflict("Nothing is planned for " + q.Label() + ": it flies as it is.")
}

func (s *server) finish(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body struct {
		Revision int64 `json:"revision" doc:"of the quad, as read"`
		Anyway   bool  `json:"anyway,omitempty" doc:"although steps are left"`
	}
}) (*answer[[]store.Note], error) {
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	if c.Quad.Next == nil {
		return nil, nothingPlanned(c.Quad)
	}
	sheet, err := s.sheet(in.Quad)
	if err != nil {
		return nil, problem(err)
	}
	records, err := s.store.Records(in.Quad)
	if err != nil {
		return nil, problem(err)
	}
	if run := bench.NewRun(sheet, records); run.Done < len(run.States) && !in.Body.Anyway {
		return nil, huma.Error409Conflict(fmt.Sprintf("%d of %d steps are not done. Do them, or finish "+
			"it anyway.", len(run.States)-run.Done, len(run.States)))
	}
	ref := stock.Ref{Kind: stock.KindQuad, ID: in.Quad}
	err = s.store.Finish(deed(ctx, finishedSwap), in.Quad, func(records []bench.Record) bench.Outcome {
		run := bench.NewRun(sheet, records)
		return run.Outcome()
	}, time.Now(), store.Expect{Ref: ref, Revision: in.Body.Revision})
	if err != nil {
		return nil, problem(err)
	}
	return s.notes(in.Quad, 0)
}
