package web

import (
	"context"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/sheet"
	"yokeswap/trade"
)

// readPath is where the text of a sheet is read.
const readPath = "/api/read/"

// readSheet finds what the text of a sheet says of a thing of some kind. Nothing is changed.
func (s *server) readSheet(_ context.Context, in *struct {
	Kind    string `path:"kind" doc:"of gear"`
	RawBody []byte `contentType:"text/plain"`
}) (*answer[sheet.Reading], error) {
	kind := gear.Kind(in.Kind)
	if gear.New(kind) == nil {
		return nil, huma.Error422UnprocessableEntity("there is no kind of gear called " + in.Kind)
	}
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	connectors := map[string]string{}
	for i := range trade.Shelf().Connectors { // copied as it is taken
		c := &trade.Shelf().Connectors[i]
		connectors[strings.ToLower(c.Label())] = c.ID
	}
	for _, c := range gear.All[*gear.Connector](snap.Library) {
		connectors[strings.ToLower(c.Label())] = c.ID
	}
	reading, err := sheet.Read(kind, string(in.RawBody), connectors)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	return reply(reading), nil
}
