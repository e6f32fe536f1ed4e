package web

import (
	"context"
	"fmt"
	"maps"
	"math"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/plans/decide"
	"yokeswap/core/work/bench"
	"yokeswap/core/work/day"
	"yokeswap/store"
)

// CandidatesView is every unit a quad could carry, side by side.
type CandidatesView struct {
	Quad       string             `json:"quad"`
	Name       string             `json:"name"`
	Revision   int64              `json:"revision" doc:"of the quad"`
	Candidates []decide.Candidate `json:"candidates" doc:"the first is leaving it as it flies"`
}

func (s *server) registerDecide(api huma.API) {
	huma.Get(api, "/api/quads/{quad}/candidates", s.candidates, holds[CandidatesView](api))
	huma.Get(api, "/api/quads/{quad}/whole", s.wholePlans, holds[WholeView](api))
	huma.Post(api, "/api/quads/{quad}/whole", s.planWhole, holds[QuadView](api))
	huma.Get(api, "/api/decide", s.decideFleet, holds[FleetDecision](api))
	huma.Get(api, "/api/decide/order", s.decideOrder, holds[OrderView](api))
	huma.Get(api, "/api/decide/schools", s.decideSchools, holds[SchoolsView](api))
	huma.Post(api, "/api/decide", s.planFleet)
}

// candidates tries every unit on a quad.
func (s *server) candidates(ctx context.Context, in *struct {
	Quad string `path:"quad"`
}) (*ready[CandidatesView], error) {
	snap, q, err := s.quadOf(in.Quad)
	if err != nil {
		return nil, err
	}
	ticks, err := s.store.Ticks()
	if err != nil {
		return nil, problem(err)
	}
	what := fmt.Sprintf("candidates %s after %d ticks", q.ID, len(ticks))
	return answered(ctx, s.answers, snap, what, func(ctx context.Context) (*CandidatesView, error) {
		c := fleet.NewCase(snap.Library, snap.Index, q)
		view := CandidatesView{Quad: q.ID, Name: q.Label(),
			Candidates: decide.Candidates(ctx, c, day.Timing(bench.Learn(ticks))),
			Revision:   snap.RevisionOf(stock.Ref{Kind: stock.KindQuad, ID: q.ID})}
		return &view, ctx.Err()
	})
}

// WholeView is what would make a quad fit as it is planned: whole plans, or what forbids one.
type WholeView struct {
	Revision int64        `json:"revision" doc:"of the quad"`
	Found    decide.Found `json:"found"`
}

// wholePlans finds what would make a quad fit with the unit that is planned for it.
func (s *server) wholePlans(ctx context.Context, in *struct {
	Quad string `path:"quad"`
}) (*ready[WholeView], error) {
	snap, q, err := s.quadOf(in.Quad)
	if err != nil {
		return nil, err
	}
	return answered(ctx, s.answers, snap, "whole "+q.ID, func(ctx context.Context) (*WholeView, error) {
		view := WholeView{
			Revision: snap.RevisionOf(stock.Ref{Kind: stock.KindQuad, ID: q.ID}),
			Found:    decide.For(ctx, fleet.NewCase(snap.Library, snap.Index, q), fleet.Patch{}),
		}
		return &view, ctx.Err()
	})
}

// planWhole applies all changes of a whole plan to a quad's next fit, as one.
func (s *server) planWhole(ctx context.Context, in *struct {
	Quad string `path:"quad"`
	Body struct {
		Revision int64         `json:"revision" doc:"of the quad, as read"`
		Patches  []fleet.Patch `json:"patches" minItems:"1" maxItems:"64" doc:"in their order"`
	}
}) (*ready[QuadView], error) {
	return s.changeQuad(ctx, in.Quad, in.Body.Revision, "planned as a whole", func(st *stock.Stock) error {
		for _, patch := range in.Body.Patches {
			if err := st.Plan(in.Quad, patch); err != nil {
				return refused(err)
			}
		}
		return nil
	})
}

// FleetDecision is what can be done with the whole fleet for the money.
type FleetDecision struct {
	decide.FleetPlan
	Budget     float64               `json:"budget"`
	School     string                `json:"school" doc:"that was asked"`
	Used       bool                  `json:"used"`
	Sell       bool                  `json:"sell"`
	OneGoggles bool                  `json:"oneGoggles"`
	Purse      Purse                 `json:"purse" doc:"as the fleet states it"`
	Schools    []decide.School       `json:"schools"`
	Purposes   []decide.Purpose      `json:"purposes" doc:"what counts for each, as asked"`
	Criteria   []decide.CriterionRow `json:"criteria"`
	Revisions  map[string]int64      `json:"revisions" doc:"of the quads, as read"`
	Fleet      int64                 `json:"fleetRevision" doc:"of the fleet's head, as read"`
}

// Asks is how a decision is asked for. Weights are asked as "films.picture:4,races.grams:0".
type Asks struct {
	Budget   float64 `query:"budget" minimum:"-10000000" maximum:"10000000" doc:"below zero: it has to bring that"`
	Currency string  `query:"currency" pattern:"^([A-Z]{3})?$" doc:"absent: the fleet's, else that of most prices"`
	School   string  `query:"school" maxLength:"40" doc:"absent: each by what it is flown for"`
	Weights  string  `query:"weights" maxLength:"2000" doc:"those changed: films.picture:4,races.grams:0"`
	Used     string  `query:"used" enum:"yes,no" doc:"whether used things are bought; absent: as the school has it"`
	Sell     string  `query:"sell" enum:"yes,no" doc:"whether units left over are sold; absent: as the school has it"`
	One      string  `query:"one" enum:"yes,no" doc:"whether goggles of one model fly all; absent: as the school has it"`
}

// question is what is asked of core, by which school.
func (a *Asks) question() (q decide.Question, school decide.School, err error) {
	school, ok := decide.SchoolOf(a.School)
	if !ok {
		return q, school, fmt.Errorf("there is no school %q", a.School)
	}
	changed, err := weightsOf(a.Weights, &school)
	if err != nil {
		return q, school, err
	}
	q = school.Question(changed)
	q.Currency = a.Currency
	for _, choice := range []struct {
		said string
		is   *bool
	}{{a.Used, &q.Used}, {a.Sell, &q.Sell}, {a.One, &q.OneGoggles}} {
		if choice.said != "" {
			*choice.is = choice.said == "yes"
		}
	}
	return q, school, nil
}

// decideFleet is the trade-off of money against worth.
func (s *server) decideFleet(ctx context.Context, in *Asks) (*ready[FleetDecision], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	question, school, err := in.question()
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	text := fmt.Sprintf("decide %+v", *in)
	return answered(ctx, s.answers, snap, text, func(ctx context.Context) (*FleetDecision, error) {
		plan, err := s.ways.within(ctx, snap, question, in.Budget)
		if err != nil {
			return nil, err
		}
		view := FleetDecision{
			FleetPlan:  plan,
			Budget:     in.Budget,
			School:     school.ID,
			Used:       question.Used,
			Sell:       question.Sell,
			OneGoggles: question.OneGoggles,
			Purse:      purseOf(snap.Fleet),
			Schools:    decide.Schools,
			Criteria:   decide.Criteria,
			Revisions:  map[string]int64{},
			Fleet:      snap.RevisionOf(store.FleetHead),
		}
		for _, p := range decide.Purposes {
			if w, ok := question.Weights[p.ID]; ok {
				p.Weights = w
			}
			view.Purposes = append(view.Purposes, p)
		}
		for _, q := range plan.Quads {
			view.Revisions[q.Quad] = snap.RevisionOf(stock.Ref{Kind: stock.KindQuad, ID: q.Quad})
		}
		return &view, nil
	})
}

// OrderView is a choice as a sequence over months.
type OrderView struct {
	decide.Order
	Currency string       `json:"currency"`
	Purse    decide.Purse `json:"purse"`
}

// decideOrder puts a choice in order, from today on.
func (s *server) decideOrder(ctx context.Context, in *struct {
	Asks
	Every int    `query:"every" minimum:"0" maximum:"90" doc:"days between two bench days; absent: 7"`
	By    string `query:"by" pattern:"^([0-9]{4}-[0-9]{2}-[0-9]{2})?$" doc:"the day it shall be done by"`
}) (*ready[OrderView], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	question, _, err := in.question()
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	today := today()
	by, err := dayFrom(in.By, today)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	text := fmt.Sprintf("order %+v %s", *in, today.Format(time.DateOnly))
	return answered(ctx, s.answers, snap, text, func(ctx context.Context) (*OrderView, error) {
		weighed, err := s.ways.weigh(ctx, snap, question)
		if err != nil {
			return nil, err
		}
		budget := hundredths(in.Budget)
		purse, ok := weighed.Purse(budget)
		if !ok {
			return nil, huma.Error422UnprocessableEntity("What there is to spend is stated in another currency than asked: " +
				"state what that is worth in " + weighed.Currency() + ".")
		}
		view := OrderView{Currency: weighed.Currency(), Purse: purse}
		view.Order = weighed.Order(ctx, budget, purse, decide.Calendar{From: today, By: by, Every: in.Every})
		return &view, ctx.Err()
	})
}

// today is the day it is here.
func today() time.Time {
	now := time.Now()
	return time.Date(now.Year(), now.Month(), now.Day(), 0, 0, 0, 0, time.UTC)
}

// dayFrom reads a day that has not passed; zero where none is named.
func dayFrom(text string, today time.Time) (day time.Time, err error) {
	if text == "" {
		return day, nil
	}
	if day, err = time.Parse(time.DateOnly, text); err != nil {
		return day, fmt.Errorf("%s is no day of the calendar", text)
	}
	if day.Before(today) {
		return day, fmt.Errorf("%s has passed: state a day from %s on", text, today.Format(time.DateOnly))
	}
	return day, nil
}

// SchoolsView is what each school makes of the fleet within a budget.
type SchoolsView struct {
	Currency string              `json:"currency"`
	Budget   float64             `json:"budget"`
	Schools  []decide.SchoolPlan `json:"schools"`
}

// decideSchools holds all schools against each other.
func (s *server) decideSchools(ctx context.Context, in *struct {
	Budget   float64 `query:"budget" minimum:"-10000000" maximum:"10000000" doc:"below zero: it has to bring that"`
	Currency string  `query:"currency" pattern:"^([A-Z]{3})?$"`
}) (*ready[SchoolsView], error) {
	snap, err := s.store.Snapshot()
	if err != nil {
		return nil, problem(err)
	}
	text := fmt.Sprintf("schools %+v", *in)
	return answered(ctx, s.answers, snap, text, func(ctx context.Context) (*SchoolsView, error) {
		view := SchoolsView{Budget: in.Budget}
		for i := range decide.Schools {
			question := decide.Schools[i].Question(nil)
			question.Currency = in.Currency
			plan, err := s.ways.within(ctx, snap, question, in.Budget)
			if err != nil {
				return nil, err
			}
			view.Currency = plan.Currency
			view.Schools = append(view.Schools, decide.Schools[i].Of(&plan))
		}
		return &view, nil
	})
}

// weightsOf reads weights that are changed over those of a school; those of a purpose that are not
// named stay.
func weightsOf(text string, school *decide.School) (map[fleet.Purpose]decide.Weights, error) {
	changed := map[fleet.Purpose]decide.Weights{}
	for part := range strings.SplitSeq(text, ",") {
		if part == "" {
			continue
		}
		name, value, _ := strings.Cut(part, ":")
		purpose, criterion, _ := strings.Cut(name, ".")
		n, err := strconv.Atoi(value)
		at := slices.IndexFunc(decide.Purposes, func(p decide.Purpose) bool { return string(p.ID) == purpose })
		known := slices.ContainsFunc(decide.Criteria, func(c decide.CriterionRow) bool { return string(c.ID) == criterion })
		if err != nil || n < 0 || n > 9 || at < 0 || !known {
			return nil, fmt.Errorf("the weight %q is not a purpose, a criterion and a number from 0 to 9", part)
		}
		id := decide.Purposes[at].ID
		if changed[id] == nil {
			changed[id] = decide.Weights{}
			maps.Copy(changed[id], school.WeightsOf(decide.Purposes[at]))
		}
		changed[id][decide.Criterion(criterion)] = n
	}
	return changed, nil
}

// ways keeps what can be done with each quad, and what of it is worth most by what was last asked,
// until something is changed: another budget finds it there.
type ways struct {
	mu       sync.Mutex
	revision int64
	kept     *decide.Ways
	weighed  map[string]*decide.Weighed
}

// mostWeighed is how many questions are kept.
const mostWeighed = 16

// within is what is worth most within a budget.
func (w *ways) within(
	ctx context.Context, snap *store.Snapshot, q decide.Question, budget float64,
) (decide.FleetPlan, error) {
	weighed, err := w.weigh(ctx, snap, q)
	if err != nil {
		return decide.FleetPlan{}, err
	}
	return weighed.Within(hundredths(budget)), nil
}

// weigh is the trade-off by a question.
func (w *ways) weigh(ctx context.Context, snap *store.Snapshot, q decide.Question) (*decide.Weighed, error) {
	w.mu.Lock()
	defer w.mu.Unlock()
	if w.kept == nil || w.revision != snap.Revision {
		found, err := w.kept.After(ctx, snap.Library, snap.Index)
		if err != nil {
			return nil, err
		}
		w.kept, w.revision, w.weighed = &found, snap.Revision, nil
	}
	asked := fmt.Sprintf("%+v", q)
	weighed, known := w.weighed[asked]
	if !known {
		var err error
		if weighed, err = w.kept.Weigh(ctx, q); err != nil {
			return nil, err
		}
		if w.weighed == nil || len(w.weighed) >= mostWeighed {
			w.weighed = map[string]*decide.Weighed{}
		}
		w.weighed[asked] = weighed
	}
	return weighed, nil
}

// QuadDecision is what was decided for one quad.
type QuadDecision struct {
	Quad     string        `json:"quad"`
	Revision int64         `json:"revision" doc:"as read"`
	Leave    bool          `json:"leave" doc:"it stays as it flies: what was planned for it is dropped"`
	Patches  []fleet.Patch `json:"patches" maxItems:"64"`
}

// planFleet takes a decision: each quad's whole plan, or none where it is left, as one change.
func (s *server) planFleet(ctx context.Context, in *struct {
	Body struct {
		Quads []QuadDecision `json:"quads" minItems:"1" maxItems:"10000"`
		Sells []string       `json:"sells,omitempty" maxItems:"10000" doc:"kit that is to be sold"`
	}
}) (*answer[Health], error) {
	expect := quadsAsRead(in.Body.Quads)
	err := s.store.Update(deed(ctx, "planned the fleet"), func(st *stock.Stock) error {
		if err := planQuads(st, in.Body.Quads); err != nil {
			return err
		}
		if err := st.Sell(in.Body.Sells); err != nil {
			return refused(err)
		}
		for _, q := range in.Body.Quads {
			if err := takeAgain(st, stock.Ref{Kind: stock.KindQuad, ID: q.Quad}); err != nil {
				return err
			}
		}
		return nil
	}, expect...)
	if err != nil {
		return nil, problem(err)
	}
	return reply(Health{Status: "ok", Version: s.options.Version, Database: "ok"}), nil
}

// planQuads plans what was decided for each quad.
func planQuads(st *stock.Stock, quads []QuadDecision) error {
	for _, q := range quads {
		if _, ok := st.Fleet.Quad(q.Quad); !ok {
			return notFound("quad", q.Quad)
		}
		if q.Leave {
			if err := st.Leave(q.Quad); err != nil {
				return err
			}
		}
		for _, patch := range q.Patches {
			if err := st.Plan(q.Quad, patch); err != nil {
				return refused(err)
			}
		}
	}
	return nil
}

// quadsAsRead says in which state the quads of a decision were read.
func quadsAsRead(quads []QuadDecision) []store.Expect {
	expect := make([]store.Expect, len(quads))
	for i, q := range quads {
		expect[i] = store.Expect{Ref: stock.Ref{Kind: stock.KindQuad, ID: q.Quad}, Revision: q.Revision}
	}
	return expect
}

func hundredths(amount float64) int64 { return int64(math.Round(amount * 100)) }
