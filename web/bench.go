package web

import (
	"context"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/bench"
	"yokeswap/core/fleet"
	"yokeswap/core/swap"
)

func (s *server) registerBench(api huma.API) {
	huma.Get(api, "/api/quads/{quad}/bench", func(_ context.Context, in *struct {
		Quad string `path:"quad"`
	}) (*answer[bench.Run], error) {
		return s.run(in.Quad)
	})
	huma.Post(api, "/api/quads/{quad}/bench", s.confirm)
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
	return bench.NewSheet(c, swap.Describe(fleet.NowCase(snap.Library, snap.Index, q)), swap.Describe(c)), nil
}

func (s *server) run(quad string) (*answer[bench.Run], error) {
	sheet, err := s.sheet(quad)
	if err != nil {
		return nil, problem(err)
	}
	records, err := s.store.Records(quad)
	if err != nil {
		return nil, problem(err)
	}
	return reply(bench.NewRun(sheet, records)), nil
}

// confirm ticks a step, takes a tick back, or records a reading.
func (s *server) confirm(_ context.Context, in *struct {
	Quad string `path:"quad"`
	Body struct {
		Step  string   `json:"step"`
		Done  bool     `json:"done"`
		Value *float64 `json:"value,omitempty"`
	}
}) (*answer[bench.Run], error) {
	sheet, err := s.sheet(in.Quad)
	if err != nil {
		return nil, problem(err)
	}
	err = s.store.Confirm(in.Quad, func(records []bench.Record) (bench.Record, error) {
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
