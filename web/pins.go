package web

import (
	"context"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/gates/pins"
	"yokeswap/core/gates/power"
	"yokeswap/core/plans/swap"
	"yokeswap/format"
)

// WiringView is all the pins gate shows of a quad beside its findings.
type WiringView struct {
	Picture   pins.Picture       `json:"picture"`
	Changes   []pins.Change      `json:"changes" doc:"the next wiring held against today's"`
	Repins    []pins.Repin       `json:"repins"`
	Headers   []pins.Header      `json:"headers"`
	Ports     pins.PortPlan      `json:"ports"`
	HasPorts  bool               `json:"hasPorts" doc:"the ports could be planned"`
	Soldering pins.List          `json:"soldering"`
	Pairs     []pins.Pair        `json:"pairs"`
	Taken     []string           `json:"taken" doc:"what a swap from analog takes out and frees"`
	Parts     []pins.PartPicture `json:"parts" doc:"what is wired beside the air unit"`
	Off       pins.Off           `json:"off" doc:"what of today's wiring comes off"`
	Today     pins.Table         `json:"today" doc:"the wiring that is there, pin by pin"`
	Table     pins.Table         `json:"table" doc:"the planned wiring, pin by pin"`
	// Outline is absent where nobody has placed the board's pads.
	Outline *pins.OutlinePicture `json:"outline,omitempty" doc:"the wires from pad to pad"`
	Depths  []swap.DepthOption   `json:"depths" doc:"the ways to wire the unit and bring the sticks, side by side"`
}

// netlistPath is where a quad's netlist is written and read.
const netlistPath = "/wiring.csv"

// SupplyView is what the power gate shows beside its path.
type SupplyView struct {
	power.Path
	Feeds []power.FeedOption `json:"feeds"`
}

func (s *server) registerPins(api huma.API) {
	file := func(name, contentType string, write func(fleet.Case) ([]byte, error)) {
		huma.Register(api, huma.Operation{
			Method:      http.MethodGet,
			Path:        "/api/quads/{quad}/" + name,
			OperationID: name,
		}, func(_ context.Context, in *struct {
			Quad string `path:"quad"`
		}) (*download, error) {
			c, err := s.caseOf(in.Quad)
			if err != nil {
				return nil, problem(err)
			}
			text, err := write(c)
			if err != nil {
				return nil, problem(err)
			}
			return &download{
				ContentType:        contentType,
				ContentDisposition: `attachment; filename="` + in.Quad + "-" + name + `"`,
				Body:               text,
			}, nil
		})
	}
	huma.Register(api, huma.Operation{
		Method:      http.MethodPost,
		Path:        "/api/quads/{quad}" + netlistPath,
		OperationID: "take-wiring",
	}, s.takeWiring)
	file(strings.TrimPrefix(netlistPath, "/"), "text/csv; charset=utf-8", func(c fleet.Case) ([]byte, error) {
		return format.Netlist(pins.DrawAll(c))
	})
	file("soldering.csv", "text/csv; charset=utf-8", func(c fleet.Case) ([]byte, error) {
		return format.SolderingList(pins.Soldering(c))
	})
	file("circuit.net", "text/plain; charset=utf-8", func(c fleet.Case) ([]byte, error) {
		return format.Circuit(c), nil
	})
	file("wiring.svg", "image/svg+xml", func(c fleet.Case) ([]byte, error) {
		return format.Drawing(pins.Draw(c)), nil
	})
}

// WiringTaken is what a netlist would make of a quad's wiring.
type WiringTaken struct {
	Patch fleet.Patch `json:"patch"`
	Says  string      `json:"says" doc:"the patch in words; empty: the wiring is that already"`
}

// takeWiring reads a netlist for a quad. Nothing is changed: the patch is applied as any
// other.
func (s *server) takeWiring(_ context.Context, in *struct {
	Quad    string `path:"quad"`
	RawBody []byte `contentType:"text/csv"`
}) (*answer[WiringTaken], error) {
	c, err := s.caseOf(in.Quad)
	if err != nil {
		return nil, problem(err)
	}
	patch, err := format.ReadNetlist(in.RawBody, c)
	if err != nil {
		return nil, problem(err)
	}
	return &answer[WiringTaken]{Body: WiringTaken{Patch: patch, Says: change.Words(c, patch)}}, nil
}

// caseOf is a quad's next fit.
func (s *server) caseOf(quad string) (fleet.Case, error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return fleet.Case{}, err
	}
	q, ok := snap.Fleet.Quad(quad)
	if !ok {
		return fleet.Case{}, notFound("quad", quad)
	}
	return fleet.NewCase(snap.Library, snap.Index, q), nil
}

func wiringOf(c fleet.Case) WiringView {
	w := WiringView{
		Picture:   pins.Draw(c),
		Changes:   pins.Compare(c.Library, c.Fleet, c.Quad),
		Repins:    pins.Repins(c),
		Headers:   pins.Headers(c),
		Soldering: pins.Soldering(c),
		Pairs:     pins.Continuity(c),
		Taken:     swap.FromAnalog(c.Library, c.Fleet, c.Quad),
		Parts:     pins.DrawParts(c),
		Off:       pins.TakeOff(c.Library, c.Fleet, c.Quad),
		Depths:    swap.Depths(c),
		Outline:   pins.DrawOutline(c),
		Today:     pins.NewTable(fleet.NowCase(c.Library, c.Fleet, c.Quad)),
		Table:     pins.NewTable(c),
	}
	w.Ports, w.HasPorts = pins.Ports(c)
	if !w.HasPorts {
		w.Ports = pins.PortPlan{Ports: []pins.Assigned{}, Lost: []pins.Lost{}, Freed: []string{}}
	}
	return w
}
