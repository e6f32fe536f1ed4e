package web

import (
	"context"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/gates/channels"
)

// mostPilots bounds who can be asked about at once.
const mostPilots = 16

// TogetherView is who can fly at the same time, and on which channels.
type TogetherView struct {
	Quads  []Named       `json:"quads"`
	Plans  []Named       `json:"plans" doc:"systems a guest can fly, by their band plans"`
	Plan   channels.Plan `json:"plan"`
	Absent []string      `json:"absent" doc:"quads whose channels are not stated"`
}

func (s *server) registerTogether(api huma.API) {
	huma.Get(api, "/api/together", func(_ context.Context, in *struct {
		Quads  string `query:"quads" doc:"ids of the quads that fly, separated by commas"`
		Guests string `query:"guests" doc:"band plans of guests, one for each, separated by commas"`
	}) (*answer[TogetherView], error) {
		return s.together(listOf(in.Quads), listOf(in.Guests))
	})
}

func listOf(text string) (list []string) {
	for _, part := range strings.Split(text, ",") {
		if part != "" {
			list = append(list, part)
		}
	}
	return list
}

func (s *server) together(quads, guests []string) (*answer[TogetherView], error) {
	if len(quads)+len(guests) > mostPilots {
		return nil, huma.Error422UnprocessableEntity("more than 16 pilots are not looked at together")
	}
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	v := TogetherView{Quads: []Named{}, Plans: []Named{}, Absent: []string{}}
	for i := range snap.Fleet.Quads {
		q := &snap.Fleet.Quads[i]
		v.Quads = append(v.Quads, Named{ID: q.ID, Name: q.Label(), Note: q.Use})
	}
	for _, p := range gear.All[*gear.BandPlan](snap.Library) {
		v.Plans = append(v.Plans, Named{ID: p.ID, Name: p.Label()})
	}
	var pilots []channels.Pilot
	for _, id := range quads {
		q, ok := snap.Fleet.Quad(id)
		if !ok {
			return nil, problem(notFound("quad", id))
		}
		pilot, ok := channels.Of(fleet.NewCase(snap.Library, snap.Index, q))
		if !ok {
			v.Absent = append(v.Absent, q.Label())
			continue
		}
		pilots = append(pilots, pilot)
	}
	for i, id := range guests {
		plan, ok := gear.Find[*gear.BandPlan](snap.Library, id)
		if !ok {
			return nil, problem(notFound("band plan", id))
		}
		pilots = append(pilots, channels.OnPlan("guest "+string(rune('A'+i)), plan, ""))
	}
	v.Plan = channels.Find(pilots)
	return reply(v), nil
}
