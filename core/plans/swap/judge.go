// Package swap judges the change of a quad from its fit now to its fit next:
// it runs the gates, takes the worst, and tries out what would make it better.
package swap

import (
	"context"
	"runtime"
	"slices"
	"sync"
	"sync/atomic"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
)

// GateVerdict is what one gate says of a fit.
type GateVerdict struct {
	Gate     verdict.Gate      `json:"gate"`
	Title    string            `json:"title"`    // its name as it is written
	Question string            `json:"question"` // what it asks
	Level    verdict.Level     `json:"level"`
	Findings []verdict.Finding `json:"findings"`

	in     *fleet.Case // the world it is said for; nil: the one the library holds
	danger verdict.Danger
}

// Judgement is what all gates say of a fit.
type Judgement struct {
	Level  verdict.Level  `json:"level"`
	Danger verdict.Danger `json:"danger,omitempty"` // the greatest of all findings
	Gates  []GateVerdict  `json:"gates"`
}

// Gate is the verdict of one gate; unknown where it was not run.
func (j *Judgement) Gate(name verdict.Gate) GateVerdict {
	for _, g := range j.Gates {
		if g.Gate == name {
			return g
		}
	}
	return GateVerdict{Gate: name, Level: verdict.Unknown}
}

// At is the case as a gate judged it: what its gear leaves open, at its worst. It is drawn and
// measured by that.
func (j *Judgement) At(gate verdict.Gate, c fleet.Case) fleet.Case {
	if g := j.Gate(gate); g.in != nil {
		c.Library = g.in.Library
	}
	return c
}

// JudgeAll judges the next fits of a whole fleet, in its order, on all
// processors.
func JudgeAll(lib *gear.Library, f *fleet.Index) []Judgement {
	return judgeAll(context.Background(), lib, f)
}

func judgeAll(ctx context.Context, lib *gear.Library, f *fleet.Index) []Judgement {
	judged := make([]Judgement, len(f.Quads))
	var worlds Worlds
	Each(ctx, len(f.Quads), func(i int) { judged[i] = worlds.Lazily(fleet.NewCase(lib, f, &f.Quads[i])).all() })
	return judged
}

// Each calls do for 0 to n-1, spread over the processors, and ends with the context.
func Each(ctx context.Context, n int, do func(i int)) {
	var next atomic.Int64
	var wait sync.WaitGroup
	for range min(runtime.GOMAXPROCS(0), n) {
		wait.Go(func() {
			for i := int(next.Add(1)) - 1; i < n && ctx.Err() == nil; i = int(next.Add(1)) - 1 {
				do(i)
			}
		})
	}
	wait.Wait()
}

// CodeUnread is the finding of a fit that rests on an entry nobody can read.
const CodeUnread verdict.Code = "swap.unread"

func cannotBeRead(c fleet.Case, gate verdict.Gate, unread []gear.Unread) verdict.Finding {
	missing := make([]verdict.Missing, len(unread))
	for i, u := range unread {
		of := "gear"
		if u.Kind == "kit" || u.Kind == "quad" {
			of = u.Kind
		}
		missing[i] = verdict.Missing{
			Of:    of,
			ID:    u.ID,
			Label: "what is stored of " + u.Kind + " " + u.ID + ", which cannot be read",
		}
	}
	f := verdict.CannotTell(gate, CodeUnread, c.Quad.Label(), missing...)
	f.Danger = verdict.Destroys // whatever it said may have been that
	return f
}

// Judge runs all gates over a fit, without trying fixes. What its gear leaves open is
// judged at its worst.
func Judge(c fleet.Case) Judgement { return Lazily(c).all() }

// all is what all gates say.
func (l *Lazy) all() Judgement {
	j := Judgement{Gates: make([]GateVerdict, len(Gates))}
	levels := make([]verdict.Level, len(Gates))
	for i := range Gates {
		j.Gates[i] = l.Gate(i)
		levels[i] = j.Gates[i].Level
		if j.Gates[i].danger.WorseThan(j.Danger) {
			j.Danger = j.Gates[i].danger
		}
	}
	j.Level = verdict.WorstOf(levels...)
	return j
}

// Lazy judges a fit gate by gate, as each is asked.
type Lazy struct {
	fleet.Case
	unread []gear.Unread
	worlds []world
	opened bool
	known  *Worlds // nil: they are made anew
}

// Lazily is a fit to be judged gate by gate.
func Lazily(c fleet.Case) *Lazy { return &Lazy{Case: c, unread: c.Unread()} }

// Gate is what a gate says, by its place in the register; what the gear of the fit leaves open
// is judged at its worst.
func (l *Lazy) Gate(i int) GateVerdict {
	if l.Library.LeavesOpen() && !l.opened {
		l.worlds, l.opened = l.known.of(l.Case), true
	}
	if len(l.worlds) == 0 {
		return l.in(l.Case, i)
	}
	never := Gates[i].Never
	v, read := l.watching(l.Case, i)
	before := []judged{{nil, read, never}}
	for k := range l.worlds {
		w := &l.worlds[k]
		if slices.ContainsFunc(before, func(j judged) bool { return j.covers(w) }) {
			continue // it would say again what it said there
		}
		is, read := l.watching(w.Case, i)
		before = append(before, judged{w.chosen, read, never})
		v.worst(is, w)
	}
	return v
}

// watching is what a gate says of a fit, and what of the gear that leaves something open it
// looked up for it.
func (l *Lazy) watching(c fleet.Case, i int) (v GateVerdict, read *gear.Reads) {
	c.Library, read = c.Library.Watched()
	return l.in(c, i), read
}

// in is what a gate says of a fit as its gear is held in a library.
func (l *Lazy) in(c fleet.Case, i int) GateVerdict {
	g := &Gates[i]
	findings := g.Check(c)
	if len(l.unread) > 0 {
		findings = append(findings, cannotBeRead(c, g.Name, l.unread))
	}
	return GateVerdict{
		Gate:     g.Name,
		Title:    g.Title,
		Question: g.Question,
		Level:    verdict.Worst(findings),
		Findings: findings,
		danger:   verdict.Greatest(findings),
	}
}

// At is the case a verdict is said for: what the gear leaves open, at its worst for that gate.
func (l *Lazy) At(v *GateVerdict) fleet.Case {
	if v.in != nil {
		return *v.in
	}
	return l.Case
}
