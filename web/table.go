package web

import (
	"context"
	"fmt"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/sheet"
	"yokeswap/core/facts/stock"
)

func (s *server) registerTables(api huma.API) {
	huma.Post(api, readPath+"table", s.readTable, func(o *huma.Operation) { o.SkipValidateBody = true })
	huma.Post(api, "/api/table", s.takeTable)
}

// readTable finds what a table of kit, parts and prices says. Nothing is changed.
func (s *server) readTable(_ context.Context, in *struct {
	RawBody []byte `contentType:"text/plain"`
}) (*answer[sheet.Table], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	var known []sheet.Named
	for _, item := range snap.Library.Items() {
		if !item.Kind().Thing() {
			continue
		}
		head := item.Head()
		known = append(known, sheet.Named{ID: head.ID, Label: name(snap.Library, item)})
	}
	table, err := sheet.ReadTable(string(in.RawBody), known)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	return reply(table), nil
}

// TableTaken is what came of a table.
type TableTaken struct {
	Rows    int   `json:"rows"`
	Entries int   `json:"entries" doc:"how many entries were changed"`
	Change  int64 `json:"change"  doc:"to take it back with"`
}

// takeTable takes rows of a table in, all of them or none.
func (s *server) takeTable(ctx context.Context, in *struct {
	Body struct {
		Rows []stock.TakenRow `json:"rows" minItems:"1" maxItems:"2000"`
		More bool             `json:"more" doc:"the counts are what has come, not all there are"`
	}
}) (*answer[TableTaken], error) {
	out := TableTaken{Rows: len(in.Body.Rows)}
	var err error
	out.Change, err = s.change(ctx, "took a table in", func(st *stock.Stock) error {
		seen := map[stock.Ref]bool{}
		for i, row := range in.Body.Rows {
			changed, err := st.TakeRow(row, in.Body.More)
			if err != nil {
				return huma.Error422UnprocessableEntity(fmt.Sprintf("row %d: %v; nothing was changed", i+1, err))
			}
			for _, ref := range changed {
				seen[ref] = true
				if err := takeAgain(st, ref); err != nil {
					return huma.Error422UnprocessableEntity(fmt.Sprintf("row %d, %s: %v; nothing was changed", i+1, ref.ID, err))
				}
			}
		}
		out.Entries = len(seen)
		return nil
	})
	if err != nil {
		return nil, problem(err)
	}
	return reply(out), nil
}
