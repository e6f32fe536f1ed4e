package web

import (
	"context"
	"fmt"
	"math"
	"strconv"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/measure/unit"
	"yokeswap/format/drawing"
)

// platePath is where a drawing of a plate is read.
const platePath = "/api/drawings/plate"

// farthestMM is how far from its origin a frame reaches at most, as its file has it.
const farthestMM = 500

// readPlate reads the outline of a frame's plate from a drawing. Nothing is changed.
func (s *server) readPlate(_ context.Context, in *struct {
	Forward drawing.Forward `query:"forward" required:"true" enum:"right,up,left,down" doc:"of the drawing"`
	Rear    string          `query:"rearMM" maxLength:"20" doc:"its rear edge, in mm; empty: its middle lies at 0"`
	RawBody []byte          `contentType:"text/plain"`
}) (*answer[drawing.Drawn], error) {
	var rear *unit.Millimetres
	if in.Rear != "" {
		mm, err := strconv.ParseFloat(in.Rear, 64)
		if err != nil || math.IsNaN(mm) || math.Abs(mm) > farthestMM {
			return nil, huma.Error422UnprocessableEntity(fmt.Sprintf("rearMM: expected a number from -%[1]d to %[1]d, got %[2]q",
				farthestMM, in.Rear))
		}
		rear = new(unit.Millimetres(mm))
	}
	drawn, err := drawing.Plate(in.RawBody, in.Forward, rear)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity("The drawing is not read: " + err.Error() + ".")
	}
	return reply(drawn), nil
}
