package web

import (
	"context"
	"fmt"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/measure/unit"
	"yokeswap/core/work/fabricate"
	"yokeswap/format/drawing"
	"yokeswap/format/printing"
)

// MakeView is what can be made for a quad.
type MakeView struct {
	Quad   string            `json:"quad"`
	Name   string            `json:"name"`
	Offers []fabricate.Offer `json:"offers"`
}

// MadeView is a part as drawn from its dimensions, or what keeps it from being drawn.
type MadeView struct {
	Title     string              `json:"title"`
	Problems  []fabricate.Problem `json:"problems"`
	Sheets    []MadeSheet         `json:"sheets"`
	VolumeMM3 float64             `json:"volumeMM3"`
	MassG     unit.Grams          `json:"massG" doc:"about, printed full of a usual plastic"`
	Notes     []string            `json:"notes"`
}

// MadeSheet is one flat piece of it.
type MadeSheet struct {
	Name    string           `json:"name"`
	XMM     unit.Millimetres `json:"xMM"`
	YMM     unit.Millimetres `json:"yMM"`
	ThickMM unit.Millimetres `json:"thickMM"`
	WallMM  unit.Millimetres `json:"wallMM" doc:"at its thinnest"`
}

func (s *server) registerMake(api huma.API) {
	huma.Get(api, "/api/quads/{quad}/make", s.makeable)
	huma.Get(api, "/api/quads/{quad}/seat", s.seatFor)
	huma.Post(api, platePath, s.readPlate, func(o *huma.Operation) { o.SkipValidateBody = true })
	huma.Get(api, "/api/make/{part}", s.makePart)
	huma.Get(api, "/api/make/{part}/{file}", s.makeFile)
}

func (s *server) makeable(_ context.Context, in *struct {
	Quad string `path:"quad"`
}) (*answer[MakeView], error) {
	snap, q, err := s.quadOf(in.Quad)
	if err != nil {
		return nil, err
	}
	c := fleet.NewCase(snap.Library, snap.Index, q)
	return reply(MakeView{q.ID, q.Label(), fabricate.Offers(c)}), nil
}

// dimensions reads "fromXMM:20,toXMM:25.5".
func dimensions(of string) (map[string]float64, error) {
	list := map[string]float64{}
	for pair := range strings.SplitSeq(of, ",") {
		if pair == "" {
			continue
		}
		name, text, _ := strings.Cut(pair, ":")
		value, err := strconv.ParseFloat(text, 64)
		if err != nil {
			return nil, huma.Error422UnprocessableEntity(fmt.Sprintf("%s: expected a number, got %q", name, text))
		}
		list[name] = value
	}
	return list, nil
}

func (s *server) makePart(_ context.Context, in *struct {
	Part string `path:"part"`
	Of   string `query:"of" maxLength:"2000" doc:"its dimensions, as fromXMM:20,toXMM:25.5; usual ones can be left out"`
}) (*answer[MadeView], error) {
	of, err := dimensions(in.Of)
	if err != nil {
		return nil, err
	}
	made, problems := fabricate.Draw(in.Part, of)
	view := MadeView{
		Title:    made.Title,
		Problems: append([]fabricate.Problem{}, problems...),
		Sheets:   []MadeSheet{},
		Notes:    append([]string{}, made.Notes...),
	}
	if len(problems) > 0 {
		return reply(view), nil
	}
	for i := range made.Sheets {
		sheet := &made.Sheets[i]
		minX, minY, maxX, maxY := sheet.Shape.Box()
		view.Sheets = append(view.Sheets,
			MadeSheet{sheet.Name, maxX - minX, maxY - minY, sheet.ThickMM, sheet.Shape.LeastWall()})
	}
	view.VolumeMM3, view.MassG = made.VolumeMM3(), made.MassG()
	return reply(view), nil
}

// makeFiles are the files a part is written as, by their endings.
var makeFiles = map[string]struct {
	is    string
	write func(m *fabricate.Made) ([]byte, error)
}{
	"part.stl": {"model/stl", func(m *fabricate.Made) ([]byte, error) { return printing.STL(m.Title, m.Bodies), nil }},
	"part.3mf": {"model/3mf", func(m *fabricate.Made) ([]byte, error) { return printing.ThreeMF(m.Title, m.Bodies) }},
	"part.svg": {"image/svg+xml", func(m *fabricate.Made) ([]byte, error) { return []byte(drawing.SVG(m, false)), nil }},
	"part.dxf": {"image/vnd.dxf", func(m *fabricate.Made) ([]byte, error) { return []byte(drawing.DXF(m)), nil }},
	"template.svg": {"image/svg+xml", func(m *fabricate.Made) ([]byte, error) {
		return []byte(drawing.SVG(m, true)), nil
	}},
}

func (s *server) makeFile(_ context.Context, in *struct {
	Part string `path:"part"`
	File string `path:"file" enum:"part.stl,part.3mf,part.svg,part.dxf,template.svg"`
	Of   string `query:"of" maxLength:"2000" doc:"its dimensions, as fromXMM:20,toXMM:25.5"`
}) (*download, error) {
	of, err := dimensions(in.Of)
	if err != nil {
		return nil, err
	}
	made, problems := fabricate.Draw(in.Part, of)
	if len(problems) > 0 {
		says := make([]string, len(problems))
		for i, p := range problems {
			says[i] = p.Says
		}
		return nil, huma.Error422UnprocessableEntity("It cannot be drawn: " + strings.Join(says, "; ") + ".")
	}
	file := makeFiles[in.File]
	text, err := file.write(&made)
	if err != nil {
		return nil, problem(err)
	}
	name := strings.Replace(in.File, "part", in.Part, 1)
	return &download{
		ContentType:        file.is,
		ContentDisposition: fmt.Sprintf(`attachment; filename="%s"`, name),
		Body:               text,
	}, nil
}
