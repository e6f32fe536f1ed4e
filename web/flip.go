package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/gates/control"
)

// FlipView is a switch that was found, and what the plan would be with it.
type FlipView struct {
	Flip control.Flip `json:"flip"`
	control.Putting
}

func (s *server) registerFlip(api huma.API) {
	huma.Post(api, "/api/quads/{quad}/flip", s.flip)
}

// flip finds the switch that was flipped, and judges the plan with its range, or with the
// one it was dragged to.
func (s *server) flip(_ context.Context, in *struct {
	Quad string `path:"quad"`
	Body struct {
		Mode    string           `json:"mode" maxLength:"64"`
		Samples []control.Sample `json:"samples" maxItems:"3000"`
		FromUS  *int             `json:"fromUS,omitempty" minimum:"900" maximum:"2100" doc:"the range, where it was dragged"`
		ToUS    *int             `json:"toUS,omitempty" minimum:"900" maximum:"2100"`
	}
}) (*answer[FlipView], error) {
	c, err := s.caseOf(in.Quad)
	if err != nil {
		return nil, problem(err)
	}
	found, err := control.FindFlip(in.Body.Mode, in.Body.Samples)
	if err != nil {
		return nil, huma.NewError(http.StatusUnprocessableEntity, err.Error())
	}
	if in.Body.FromUS != nil && in.Body.ToUS != nil {
		found.Range.FromUS, found.Range.ToUS = control.BoardSteps(*in.Body.FromUS), control.BoardSteps(*in.Body.ToUS)
	}
	put, ok := control.Put(c, found.Range)
	if !ok {
		return nil, huma.NewError(http.StatusUnprocessableEntity,
			"The plan says nothing of the sticks yet: state their order and ends first.")
	}
	return reply(FlipView{Flip: found, Putting: put}), nil
}
