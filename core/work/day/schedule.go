package day

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/change"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
)

// ironThing is the one soldering iron.
const ironThing = "iron"

// guesses are how long a step of a phase takes that nobody has stated or timed, in minutes (from
// memory).
var guesses = map[swap.Phase]int{
	bench.Prepare:  5,
	bench.Firmware: 6,
	bench.Build:    8,
	bench.Feed:     6,
	bench.Meter:    1,
	bench.Power:    3,
	bench.Bind:     4,
	bench.Check:    4,
	bench.Flight:   6,
}

// choresOf are the steps of a sheet as a day sees them.
func choresOf(s bench.Sheet) []Chore {
	list := make([]Chore, len(s.Steps))
	places := map[string]int{}
	for i := range s.Steps {
		places[s.Steps[i].Title] = i
	}
	for i := range s.Steps {
		step := &s.Steps[i]
		is := Chore{ID: step.ID, Title: step.Title, Alone: step.Alone, Held: step.Held, once: step.Reads != nil,
			takes: slices.Clone(step.Uses)}
		switch {
		case step.Minutes != nil:
			is.Minutes = max(1, *step.Minutes)
		case step.TookMinutes != nil:
			is.Minutes = *step.TookMinutes
		default:
			is.Minutes, is.Guessed = guesses[step.Phase], true
		}
		if step.Soldered() {
			is.takes = append(is.takes, ironThing)
		}
		for _, title := range step.Meanwhile {
			if place, left := places[title]; left {
				is.meanwhile = append(is.meanwhile, place)
			}
		}
		list[i] = is
	}
	return list
}

// Spell is a stretch of steps of one quad that hands are at, one after the other.
type Spell struct {
	Quad  string  `json:"quad"`
	Name  string  `json:"name"`
	From  int     `json:"from"` // minutes from the beginning
	To    int     `json:"to"`
	Steps []Stint `json:"steps"`
	// Alone: these go on by themselves.
	Alone bool `json:"alone"`
}

// Schedule is a day at the bench with two quads.
type Schedule struct {
	Hands   int     `json:"hands"`
	Minutes int     `json:"minutes"` // until the last of it is done
	Spells  []Spell `json:"spells"`  // in the order they begin
	Says    string  `json:"says"`
	// Working says how it comes to that, a sentence each.
	Working []string `json:"working"`
	Held    int      `json:"held"` // steps that are held
}

// Of lays two sheets over each other for so many pairs of hands, one or two. No order that keeps that
// of each sheet ends earlier.
func Of(one, other bench.Sheet, hands int) Schedule {
	sheets := [2]bench.Sheet{one, other}
	p := newProblem(choresOf(one), choresOf(other), hands)
	best := p.shortest()
	plan := Schedule{Hands: hands, Minutes: best.ends, Spells: []Spell{}}
	slots := best.slots()
	for _, slot := range slots {
		if slot.Held != "" {
			plan.Held++
		}
		sheet := sheets[slot.Quad]
		if last := plan.lastOf(slot); last != nil && last.Quad == sheet.Quad && last.To == slot.From {
			last.Steps, last.To = append(last.Steps, slot), slot.To
			continue
		}
		plan.Spells = append(plan.Spells, Spell{Quad: sheet.Quad, Name: sheet.Name, From: slot.From, To: slot.To,
			Steps: []Stint{slot}, Alone: slot.Alone})
	}
	plan.say(p, sheets, slots)
	return plan
}

// lastOf is the spell a slot may go on with: of those like it the last.
func (p *Schedule) lastOf(slot Stint) *Spell {
	for i := len(p.Spells) - 1; i >= 0; i-- {
		if p.Spells[i].Alone == slot.Alone && (p.Hands == 1 || p.Spells[i].Steps[0].Quad == slot.Quad) {
			return &p.Spells[i]
		}
	}
	return nil
}

// say puts a day and how it comes about into words.
func (p *Schedule) say(of *problem, sheets [2]bench.Sheet, slots []Stint) {
	after := [2]int{of.after(0).ends, of.after(1).ends}
	p.Says = fmt.Sprintf("About %s for %s and %s", hours(p.Minutes), sheets[0].Name, sheets[1].Name)
	if saved := min(after[0], after[1]) - p.Minutes; saved > 0 {
		p.Says += fmt.Sprintf(", %s less than one after the other.", hours(saved))
	} else {
		p.Says += ": one after the other is as short."
	}
	alone := func(sheet int) string { return hours(newProblem(of.sheets[sheet], nil, 1).shortest().ends) }
	p.Working = []string{
		fmt.Sprintf("By itself %s takes %s, %s %s.", sheets[0].Name, alone(0), sheets[1].Name, alone(1)),
		fmt.Sprintf("One after the other: %s with %s first, %s with %s first.", hours(after[0]), sheets[0].Name,
			hours(after[1]), sheets[1].Name),
	}
	busy, guessed, shared := 0, 0, 0
	taken := map[string]int{}
	for _, s := range slots {
		took := s.To - s.From
		if !s.Alone {
			busy += took
		}
		if s.Guessed {
			guessed += took
		}
		if s.once && took < s.Minutes {
			shared += s.Minutes
		}
		for _, thing := range s.takes {
			taken[thing] += took
		}
	}
	p.Working = append(p.Working, beside(slots, sheets)...)
	if p.Hands > 1 {
		p.Working = append(p.Working, waits(slots, sheets)...)
	}
	p.Working = append(p.Working, fmt.Sprintf("Hands are wanted for %s of it, the iron for %s.", hours(busy),
		hours(taken[ironThing])))
	if shared > 0 {
		p.Working = append(p.Working, fmt.Sprintf("What both want of one device is done once: %s less.", hours(shared)))
	}
	if guessed > 0 {
		p.Working = append(p.Working, fmt.Sprintf("%s of it are guesses: tick the steps as they are done, and they are "+
			"learned.", hours(guessed)))
	}
}

// waits says how long each quad waits for what the other has.
func waits(slots []Stint, sheets [2]bench.Sheet) (list []string) {
	for quad := range sheets {
		until, idle := 0, 0
		for _, s := range slots {
			if s.Quad == quad {
				idle += max(0, s.From-until)
				until = max(until, s.To)
			}
		}
		if idle > 0 {
			list = append(list, fmt.Sprintf("%s waits %s for what the other has in use.", sheets[quad].Name, hours(idle)))
		}
	}
	return list
}

// beside says of what goes on by itself what is done meanwhile.
func beside(slots []Stint, sheets [2]bench.Sheet) (list []string) {
	for _, s := range slots {
		if !s.Alone || s.From == s.To {
			continue
		}
		var names []string
		for _, o := range slots {
			if !o.Alone && o.From < s.To && o.To > s.From {
				names = append(names, sheets[o.Quad].Name)
			}
		}
		slices.Sort(names)
		if names = slices.Compact(names); len(names) == 0 {
			continue
		}
		list = append(list, fmt.Sprintf("While “%s” goes on by itself (%s), work goes on with %s.", s.Title,
			hours(s.To-s.From), change.And(names)))
	}
	return list
}

// hours are minutes in words.
func hours(minutes int) string {
	if minutes < 60 {
		return fmt.Sprintf("%d min", minutes)
	}
	return fmt.Sprintf("%d h %02d min", minutes/60, minutes%60)
}
