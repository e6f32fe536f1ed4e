package web

import (
	"context"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/diagnose"
	"yokeswap/core/setup"
	"yokeswap/core/swap"
	"yokeswap/msp"
	"yokeswap/store"
)

// FaultView is a symptom narrowed down for one quad.
type FaultView struct {
	Quad      string              `json:"quad" doc:"its name"`
	Symptoms  []diagnose.Named    `json:"symptoms"`
	Diagnosis *diagnose.Diagnosis `json:"diagnosis,omitempty" doc:"absent: no symptom is picked"`
	BoardRead bool                `json:"boardRead" doc:"the flight board was read for this"`
	Log       []store.Note        `json:"log" doc:"of the quad, the newest first"`
}

func (s *server) registerFault(api huma.API) {
	huma.Get(api, "/api/quads/{quad}/fault", s.fault)
}

// fault narrows a symptom down by the quad's facts, the answers so far and, where an
// address is given, its flight board.
func (s *server) fault(ctx context.Context, in *struct {
	Quad    string `path:"quad"`
	Symptom string `query:"symptom"`
	Yes     string `query:"yes" doc:"causes a test has found, separated by commas"`
	No      string `query:"no" doc:"causes a test has ruled out, separated by commas"`
	Address string `query:"address" doc:"of the flight board, to ask it"`
}) (*answer[FaultView], error) {
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	v := FaultView{Quad: c.Quad.Label(), Symptoms: diagnose.Symptoms()}
	if v.Log, err = s.store.LogOf(in.Quad, 0, store.DefaultPage); err != nil {
		return nil, problem(err)
	}
	if in.Symptom == "" {
		return reply(v), nil
	}
	var board *setup.Comparison
	if in.Address != "" {
		err := s.withBoard(ctx, in.Address, func(ctx context.Context, client *msp.Client) error {
			state, err := msp.ReadBoard(ctx, client)
			if err == nil {
				comparison := setup.Compare(c, state)
				board, v.BoardRead = &comparison, true
			}
			return err
		})
		if err != nil {
			return nil, err
		}
	}
	answers := map[string]diagnose.Answer{}
	for said, list := range map[diagnose.Answer]string{diagnose.Yes: in.Yes, diagnose.No: in.No} {
		for id := range strings.SplitSeq(list, ",") {
			answers[id] = said
		}
	}
	judgement := swap.Judge(c)
	d, ok := diagnose.Find(in.Symptom, &judgement, board, answers)
	if !ok {
		return nil, notFound("symptom", in.Symptom)
	}
	v.Diagnosis = &d
	return reply(v), nil
}
