// Package turns says what it takes to fly one quad with two units in turn: what has to be
// done at each turn and what the first time only, whether the way back is still open, and
// what wears out or is forgotten on the way.
//
// Method: the turn is lived through. On a stock of its own the turn is planned, its steps
// are taken, it is finished, then turned back, and turned once more: what is on the sheet
// the second time is what each turn asks for. Nothing is judged here that a gate judges;
// what is said of a turn is common practice.
package turns

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/stock"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/link"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
)

// Sheet is what is said of all fits a quad carries in turn.
type Sheet struct {
	Quad    string `json:"quad"`
	Name    string `json:"name"`
	Now     string `json:"now"`     // what it carries
	Planned string `json:"planned"` // what is planned, where that is no fit in turn and can be kept so; else empty
	Turns   []Pair `json:"turns"`
}

// Pair is the fit now and one that it takes turns with.
type Pair struct {
	ID      string `json:"id"`
	Label   string `json:"label"`
	Planned bool   `json:"planned"` // the turn to it
	Flown   bool   `json:"flown"`   // it has been on the quad
	// Level is the worst of both ways and of what is said of turning.
	Level    verdict.Level     `json:"level"`
	There    Way               `json:"there"`
	Back     Way               `json:"back"`
	Findings []verdict.Finding `json:"findings"`
}

// Way is one direction of a turn.
type Way struct {
	To    string        `json:"to"`
	Level verdict.Level `json:"level"` // of the quad as it then flies
	// Worst is the gravest thing a gate says of it; absent: it fits.
	Worst *bench.Holding `json:"worst,omitempty"`
	Steps []TurnStep     `json:"steps"`
	Tools []string       `json:"tools"` // at each turn
	// Minutes is what the updates of each turn take, as far as they say how long.
	Minutes int `json:"minutes"`
}

// TurnStep is a step of the bench sheet; the pairs of pins that are metered stand for one.
type TurnStep struct {
	ID       string `json:"id"`
	Title    string `json:"title"`
	EachTime bool   `json:"eachTime"` // else the first time only
}

// Of lives through the turns of a quad; false where there is no such quad.
func Of(st *stock.Stock, quad string) (Sheet, bool) {
	q, ok := st.Fleet.Quad(quad)
	if !ok {
		return Sheet{}, false
	}
	c := fleet.NewCase(st.Library(), fleet.NewIndex(st.Fleet), q)
	s := Sheet{Quad: q.ID, Name: q.Label(), Now: swap.Describe(nowOf(c)), Turns: []Pair{}}
	if q.Next != nil && q.NextTurn == "" {
		s.Planned = swap.Describe(c)
	}
	for i := range q.InTurn {
		s.Turns = append(s.Turns, pair(st, q, &q.InTurn[i]))
	}
	return s, true
}

func nowOf(c fleet.Case) fleet.Case { return fleet.NowCase(c.Library, c.Fleet, c.Quad) }

// pair lives through one turn: there, back, and there again.
func pair(st *stock.Stock, q *fleet.Quad, t *fleet.TurnFit) Pair {
	life := life{stock: st.Fork(), quad: q.ID, turn: t.ID}
	if q.NextTurn != t.ID {
		life.drop()
	}
	life.buy()
	there := life.leg(true)
	back := life.leg(true)
	again := life.leg(false)
	backAgain := life.leg(false)
	again.stands, backAgain.stands = "inTurn."+t.ID+".fit.", "now."
	if q.NextTurn == t.ID {
		again.stands = "next."
	}
	p := Pair{
		ID:      t.ID,
		Label:   there.to,
		Planned: q.NextTurn == t.ID,
		Flown:   t.Flown,
		There:   there.way(again),
		Back:    back.way(backAgain),
	}
	p.Findings = findings(there, again, backAgain)
	p.Level = verdict.WorstOf(p.There.Level, p.Back.Level, verdict.Worst(p.Findings))
	return p
}

// Plan plans to turn a quad to one of its fits. Goggles and controller are left as they
// are where they link with it like that; else they go back to what the fit was flown with,
// the mode before the release.
func Plan(st *stock.Stock, quad, turn string) error {
	if err := st.PlanTurn(quad, turn); err != nil {
		return err
	}
	q, _ := st.Fleet.Quad(quad)
	f := fleet.NewIndex(st.Fleet)
	for _, back := range []struct{ mode, release bool }{{}, {mode: true}, {release: true}} {
		fit := q.Next.Clone()
		for _, slot := range []*fleet.Slot{fit.Goggles, fit.Controller} {
			if slot != nil && !back.mode {
				slot.Mode = ""
			}
			if slot != nil && !back.release {
				slot.Firmware = ""
			}
		}
		c := fleet.NewCase(st.Library(), f, q)
		c = c.Carrying(&fit)
		if linksSo(swap.Judge(c)) {
			q.Next = &fit
			break
		}
	}
	return nil
}

// linksSo says whether goggles and sticks link as they are planned, whatever else is amiss.
func linksSo(j swap.Judgement) bool {
	links := false
	for _, f := range j.Gate(verdict.Link).Findings {
		switch f.Code {
		case link.CodeLinks:
			links = true
		case link.CodeController, link.CodeNoWay, link.CodeNoMode:
			if f.Level.WorseThan(verdict.Caution) {
				return false
			}
		}
	}
	return links
}

// life is a stock of its own in which turns are taken.
type life struct {
	stock *stock.Stock
	quad  string
	turn  string
}

// drop leaves aside what else is planned for the quad.
func (l *life) drop() { _ = l.stock.DropPlan(l.quad) } // the quad is there

// buy makes a unit that is still to be bought a piece of kit, so that its steps are the
// same each time.
func (l *life) buy() {
	q, _ := l.stock.Fleet.Quad(l.quad)
	q.InTurn = slices.Clone(q.InTurn)
	t, _ := q.TurnFit(l.turn)
	fits := []*fleet.Fit{&t.Fit}
	if q.Next != nil {
		q.Next = new(q.Next.Clone())
		fits = append(fits, q.Next)
	}
	id := ""
	for _, fit := range fits {
		slot := fit.AirUnit
		if slot == nil || slot.Kit != "" {
			continue
		}
		if id == "" {
			id = l.stock.Fleet.Own(slot.Model)
			kit, _ := l.stock.Fleet.Piece(id)
			kit.Name, kit.Activated = l.stock.Library().Label(slot.Model), new(false) // as it comes
		}
		fit.AirUnit = &fleet.Slot{Kit: id, Firmware: slot.Firmware}
	}
}

// lived is one turn as it was taken.
type lived struct {
	from, to  string
	fit       fleet.Case     // as it was planned
	judgement swap.Judgement // where it was asked for
	today     swap.Judgement // of what was on the quad before
	sheet     bench.Sheet
	stands    string // where the builder finds what it leads to: the path of that fit
}

// leg plans the turn, takes its steps and finishes it. Once it has been judged both ways,
// its steps alone are asked for.
func (l *life) leg(judge bool) lived {
	if q, ok := l.stock.Fleet.Quad(l.quad); ok && q.NextTurn != l.turn {
		_ = Plan(l.stock, l.quad, l.turn) // nothing else is planned
	}
	c := l.planned()
	did := lived{
		from: swap.Describe(nowOf(c)),
		to:   swap.Describe(c),
		fit:  c,
	}
	if judge {
		did.judgement = swap.Judge(c)
	}
	did.today = swap.Judge(nowOf(c))
	did.sheet = bench.NewSheet(c, did.judgement, did.from, did.to)
	for _, step := range did.sheet.Steps {
		if do := step.Reads; do != nil {
			_ = l.stock.Take(fleet.Taken{Kit: do.Kit, Do: do.Do, Planned: do.Release, Read: do.Release, Mode: do.Mode})
		}
	}
	_ = l.stock.Finish(l.quad, stock.Done{}) // it is planned
	return did
}

func (l *life) planned() fleet.Case {
	q, _ := l.stock.Fleet.Quad(l.quad)
	return fleet.NewCase(l.stock.Library(), fleet.NewIndex(l.stock.Fleet), q)
}

// way is one direction; what is on its sheet once more the next time is done each time.
func (d lived) way(again lived) Way {
	w := Way{To: d.to, Level: d.judgement.Level, Worst: worst(d.judgement), Steps: []TurnStep{}}
	pairs := 0
	for _, step := range d.sheet.Steps {
		_, more := again.sheet.Step(step.ID)
		if step.MetersPair() {
			if pairs++; pairs > 1 {
				w.Steps[len(w.Steps)-1].Title = fmt.Sprintf("Meter %d pairs of the unit's pins", pairs)
				continue
			}
		}
		w.Steps = append(w.Steps, TurnStep{ID: step.ID, Title: step.Title, EachTime: more})
	}
	w.Tools, w.Minutes = again.sheet.Tools, again.sheet.Minutes
	return w
}

// worst is the gravest finding of a judgement, with the title of its gate.
func worst(j swap.Judgement) *bench.Holding {
	var is *bench.Holding
	for _, g := range j.Gates {
		for i := range g.Findings {
			f := &g.Findings[i]
			if f.Level != verdict.Fits && (is == nil || f.Level.WorseThan(is.Level)) {
				is = &bench.Holding{Title: g.Title, Finding: *f}
			}
		}
	}
	return is
}
