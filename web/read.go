package web

import (
	"context"
	"fmt"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/sheet"
	"yokeswap/core/facts/stock"
	"yokeswap/format"
	"yokeswap/format/inwords"
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
	text := string(in.RawBody)
	form, _ := format.FormOf(in.Kind)
	connectors := map[string]string{}
	names := gearNames(snap.Library)
	for id, name := range names[string(gear.KindConnector)] {
		connectors[strings.ToLower(name)] = id
	}
	reading, err := sheet.Read(kind, text, connectors, inwords.Read(form, text, names)...)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	for i := range reading.Found {
		reading.Found[i].With = form.With(reading.Found[i].Field)
	}
	return reply(reading), nil
}

// gearNames are the names of all gear there is, and of the connectors of the trade shelf that
// nothing else is called by: those are copied as they are taken.
func gearNames(lib *gear.Library) inwords.Names {
	names, taken := inwords.Names{}, map[string]bool{}
	for _, item := range lib.Items() {
		names.Put(string(item.Kind()), item.Head().ID, name(lib, item))
		taken[strings.ToLower(item.Head().Label())] = true
	}
	for i := range trade.Shelf().Connectors {
		if c := &trade.Shelf().Connectors[i]; !taken[strings.ToLower(c.Label())] {
			names.Put(string(gear.KindConnector), c.ID, c.Label())
		}
	}
	return names
}

// entrySheet is a piece of gear as a sheet in words, which can be read back.
func (s *server) entrySheet(_ context.Context, in *struct {
	Kind string `path:"kind" doc:"of gear"`
	ID   string `path:"id"`
}) (*download, error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	item, there := snap.Entry(stock.Ref{Kind: in.Kind, ID: in.ID}).(gear.Item)
	form, known := format.FormOf(in.Kind)
	if !there || !known {
		return nil, huma.Error404NotFound("there is no gear of that kind called " + in.ID)
	}
	text, err := inwords.Write(form, item, gearNames(snap.Library))
	if err != nil {
		return nil, err
	}
	return &download{
		ContentType:        "text/plain; charset=utf-8",
		ContentDisposition: fmt.Sprintf(`inline; filename="%s.txt"`, in.ID),
		Body:               []byte(text),
	}, nil
}
