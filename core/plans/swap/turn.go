package swap

import (
	"context"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
)

// Turn is a gate of a quad whose level a change of the gear or the fleet turns.
type Turn struct {
	Quad string        `json:"quad"`
	Name string        `json:"name"`
	Gate verdict.Gate  `json:"gate"`
	Was  verdict.Level `json:"was"`
	Is   verdict.Level `json:"is"`
}

// Turns holds the verdicts on all quads against those after a change; quads that come or go
// with it have nothing to be held against. Its error is the context's, where that ends first.
func Turns(
	ctx context.Context,
	lib *gear.Library,
	f *fleet.Index,
	libAfter *gear.Library,
	after *fleet.Index,
) ([]Turn, error) {
	turns := []Turn{}
	was, is := judgeAll(ctx, lib, f), judgeAll(ctx, libAfter, after)
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	at := map[string]int{}
	for i := range after.Quads {
		at[after.Quads[i].ID] = i
	}
	for i := range f.Quads {
		q := &f.Quads[i]
		k, stays := at[q.ID]
		if !stays {
			continue
		}
		for n, g := range was[i].Gates {
			if level := is[k].Gates[n].Level; level != g.Level {
				turns = append(turns, Turn{q.ID, q.Label(), g.Gate, g.Level, level})
			}
		}
	}
	return turns, nil
}
