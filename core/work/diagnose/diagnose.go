// Package diagnose goes from a symptom to its likely causes, ranked by what is
// known of the quad itself, each with a test that tells it apart.
package diagnose

import (
	"fmt"
	"slices"
	"strings"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/setup"
)

// Named is a symptom that can be picked.
type Named struct {
	ID    string `json:"id"`
	Label string `json:"label"`
}

// Symptoms lists what can be picked for a quad: the usual ones, and that a part which is
// wired beside the air unit does not work.
func Symptoms(q fleet.Case) []Named {
	list := make([]Named, 0, len(symptoms))
	for _, s := range symptoms {
		list = append(list, Named{s.id, s.label})
	}
	for i := range q.Fit.Parts {
		s := ofPart(q, &q.Fit.Parts[i])
		list = append(list, Named{s.id, s.label})
	}
	return list
}

// find is the symptom of an id; false where the quad can have none such.
func find(q fleet.Case, id string) (symptom, bool) {
	if at := slices.IndexFunc(symptoms, func(s symptom) bool { return s.id == id }); at >= 0 {
		return symptoms[at], true
	}
	if node, ok := strings.CutPrefix(id, partPrefix); ok {
		if placed, there := q.Fit.Part(node); there {
			return ofPart(q, placed), true
		}
	}
	return symptom{}, false
}

// Answer is what a test said.
type Answer string

// The answers.
const (
	Yes Answer = "yes" // it is this
	No  Answer = "no"  // it is not
)

// Standing is where a cause stands.
type Standing string

// The standings, in the order they are shown.
const (
	Found    Standing = "found"    // a test or the board says so
	Likely   Standing = "likely"   // the quad's own facts point to it
	Possible Standing = "possible" // nothing speaks for or against it
	RuledOut Standing = "ruled-out"
)

var standings = []Standing{Found, Likely, Possible, RuledOut}

// Cause is a cause with where it stands, and why.
type Cause struct {
	ID       string   `json:"id"`
	Label    string   `json:"label"`
	Standing Standing `json:"standing"`
	Because  []string `json:"because"` // what the quad's facts, the board or a test say
	Test     string   `json:"test"`
	Question string   `json:"question"` // yes: it is this; no: it is not
	Fix      string   `json:"fix"`
	Caution  string   `json:"caution,omitempty"`
	// AskBoard: the board can be asked instead of the builder.
	AskBoard bool `json:"askBoard"`
}

// Diagnosis is what is behind a symptom, the likeliest first.
type Diagnosis struct {
	Symptom string  `json:"symptom"`
	Says    string  `json:"says"`
	Causes  []Cause `json:"causes"`
}

// Find ranks the causes of a symptom for a judged quad. Board is what was read off
// its flight board, nil where it was not. Answers are what tests have said, by
// cause. It is false where there is no such symptom.
//
// A yes, or a board that differs in the setting, finds a cause. A no, or a board
// that was read and does not differ, rules it out. Else what a gate says of the
// quad makes it likely, the worse the finding the more; then comes what builders
// look at first.
func Find(
	id string,
	q fleet.Case,
	j *swap.Judgement,
	board *setup.Comparison,
	answers map[string]Answer,
) (Diagnosis, bool) {
	seen, ok := find(q, id)
	if !ok {
		return Diagnosis{}, false
	}
	d := Diagnosis{Symptom: seen.label, Causes: []Cause{}}
	type ranked struct {
		cause Cause
		worst int
	}
	var list []ranked
	for _, c := range seen.causes {
		out, worst := c.stand(q, j, board, answers[c.id])
		list = append(list, ranked{out, worst})
	}
	slices.SortStableFunc(list, func(a, b ranked) int {
		if by := slices.Index(standings, a.cause.Standing) - slices.Index(standings, b.cause.Standing); by != 0 {
			return by
		}
		return b.worst - a.worst
	})
	for _, r := range list {
		d.Causes = append(d.Causes, r.cause)
	}
	d.Says = d.sentence()
	return d, true
}

// stand is where a cause stands, with the rank of the worst that points to it.
func (c *cause) stand(
	q fleet.Case, j *swap.Judgement, board *setup.Comparison, answer Answer,
) (out Cause, worst int) {
	out = Cause{
		ID:       c.id,
		Label:    c.label,
		Standing: Possible,
		Because:  []string{},
		Test:     c.test,
		Question: c.question,
		Fix:      c.fix,
		Caution:  c.caution,
		AskBoard: len(c.board) > 0,
	}
	c.tell(&out, q)
	worst = c.weigh(&out, q, j)
	c.ask(&out, board)
	switch answer {
	case Yes:
		out.Standing = Found
		out.Because = append(out.Because, "the test says so")
	case No:
		out.Standing = RuledOut
		out.Because = append(out.Because, "the test says it is not")
	}
	return out, worst
}

// menuMode stands for the mode the plan has the goggles in.
const menuMode = "mode"

// tell adds what the guides of the quad's own devices say.
func (c *cause) tell(out *Cause, q fleet.Case) {
	if unit, _, ok := q.AirUnit(); ok {
		guide := q.Guide(unit.Guides)
		if shows := guide.Light(c.light); c.light != "" && shows != "" {
			out.Question = fmt.Sprintf("Does the %s show %s?", unit.Label(), shows)
		}
		if c.usb && guide.USB != "" {
			out.Fix += fmt.Sprintf(" On the %s it is %s.", unit.Label(), guide.USB)
		}
	}
	goggles, state, ok := q.Goggles()
	if !ok || c.menu == "" {
		return
	}
	sets := c.menu
	if sets == menuMode {
		sets = state.ToMode
	}
	guide := q.Guide(goggles.Guides)
	if path := guide.Menu(sets); path != "" {
		out.Test += fmt.Sprintf(" On %s: %s.", state.Label, path)
	}
}

// weigh looks for findings of the quad's gates that point to the cause, and gives
// the rank of the worst. What is not known points nowhere.
func (c *cause) weigh(out *Cause, q fleet.Case, j *swap.Judgement) (worst int) {
	for _, g := range j.Gates {
		for _, f := range g.Findings {
			if f.Level == verdict.Fits || f.Level == verdict.Unknown || !slices.Contains(c.findings, f.Code) ||
				!c.concerns(q, f.Part) {
				continue
			}
			out.Standing = Likely
			out.Because = append(out.Because, f.Says)
			worst = max(worst, f.Level.Rank())
		}
	}
	return worst
}

// concerns says whether a finding about a part speaks of this cause: what is said of one
// part beside the air unit explains that part alone.
func (c *cause) concerns(q fleet.Case, part string) bool {
	if c.part != "" {
		return part == c.part
	}
	_, placed := q.Fit.Part(part)
	_, load := q.Fit.Load(part)
	return !placed && !load
}

// ask holds the cause against the board that was read.
func (c *cause) ask(out *Cause, board *setup.Comparison) {
	if board == nil || len(c.board) == 0 {
		return
	}
	about := false
	for _, r := range board.Rows {
		if !c.speaksOf(r) {
			continue
		}
		about = true
		if !r.Same && slices.Contains(c.board, r.Code) {
			out.Standing = Found
			out.Because = append(out.Because, "the board has "+r.Label+" on "+r.Found+", the plan wants "+r.Wanted)
		}
	}
	if about && out.Standing == Possible {
		out.Standing = RuledOut
		out.Because = append(out.Because, "the board was read, and it is not that")
	}
}

// speaksOf says whether a row is about what the cause is.
func (c *cause) speaksOf(r setup.Row) bool {
	return slices.Contains(c.board, r.Code) || slices.Contains(c.clears, r.Code)
}

func (d *Diagnosis) sentence() string {
	if len(d.Causes) == 0 {
		return ""
	}
	first := d.Causes[0]
	switch first.Standing {
	case Found:
		return "It is this: " + first.Label + "."
	case Likely:
		return "Most likely: " + first.Label + "."
	case Possible:
		return "Look first whether " + first.Label + "."
	}
	return "None of the usual causes: look at the wiring and the joints again, in good light, or ask someone to look " +
		"with you."
}
