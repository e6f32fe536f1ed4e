package web

import (
	"context"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/plans/swap"
	"yokeswap/core/work/diagnose"
	"yokeswap/core/work/setup"
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
	huma.Post(api, "/api/quads/{quad}/fault", s.faultAsking)
}

// FaultQuestion is a symptom and the answers so far.
type FaultQuestion struct {
	Quad    string `path:"quad"`
	Symptom string `query:"symptom"`
	Yes     string `query:"yes" doc:"causes a test has found, separated by commas"`
	No      string `query:"no" doc:"causes a test has ruled out, separated by commas"`
}

// fault narrows a symptom down by the quad's facts and the answers so far.
func (s *server) fault(_ context.Context, in *FaultQuestion) (*answer[FaultView], error) {
	return s.narrowed(in, nil)
}

// faultAsking asks the flight board too.
func (s *server) faultAsking(ctx context.Context, in *struct {
	FaultQuestion
	Body BoardAddress
}) (*answer[FaultView], error) {
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	var comparison setup.Comparison
	err = s.withBoard(ctx, in.Body, func(ctx context.Context, client *msp.Client) error {
		state, err := msp.ReadBoard(ctx, client)
		if err == nil {
			comparison = setup.Compare(c, state)
		}
		return err
	})
	if err != nil {
		return nil, err
	}
	return s.narrowed(&in.FaultQuestion, &comparison)
}

// narrowed is what is left of a symptom's causes; board is nil where it was not asked.
func (s *server) narrowed(in *FaultQuestion, board *setup.Comparison) (*answer[FaultView], error) {
	c, err := s.planned(in.Quad)
	if err != nil {
		return nil, err
	}
	v := FaultView{Quad: c.Quad.Label(), Symptoms: diagnose.Symptoms(c), BoardRead: board != nil}
	s.tellLater()
	if v.Log, err = s.store.LogOf(in.Quad, 0, store.DefaultPage); err != nil {
		return nil, problem(err)
	}
	if in.Symptom == "" {
		return reply(v), nil
	}
	answers := map[string]diagnose.Answer{}
	for said, list := range map[diagnose.Answer]string{diagnose.Yes: in.Yes, diagnose.No: in.No} {
		for id := range strings.SplitSeq(list, ",") {
			answers[id] = said
		}
	}
	judgement := swap.Judge(c)
	d, ok := diagnose.Find(in.Symptom, c, &judgement, board, answers)
	if !ok {
		return nil, notFound("symptom", in.Symptom)
	}
	v.Diagnosis = &d
	return reply(v), nil
}
