package bench

import (
	"cmp"
	"math"
	"slices"
	"strings"
	"time"

	"yokeswap/core/facts/fleet"
)

// Tick is a step that was done at the bench, and when.
type Tick struct {
	Quad, Step string
	At         time.Time
}

const (
	// longestStep is the longest time between two ticks that one step took; a longer one held a break
	// (from memory).
	longestStep = time.Hour
	// shortestStep is the shortest: what is ticked sooner was done before, and noted afterwards (from
	// memory).
	shortestStep = 5 * time.Second
)

// Learned are how long steps really took, in minutes, by what kind of step it is: the middle one of
// the times from the tick before, on the same quad, to its own.
type Learned map[string]float64

// Learn goes through ticks, the oldest first.
func Learn(ticks []Tick) Learned {
	took, last := map[string][]time.Duration{}, map[string]time.Time{}
	for _, t := range ticks {
		before, begun := last[t.Quad]
		last[t.Quad] = t.At
		if d := t.At.Sub(before); begun && d >= shortestStep && d <= longestStep {
			took[sortOf(t.Step)] = append(took[sortOf(t.Step)], d)
		}
	}
	learned := Learned{}
	for sort, times := range took {
		slices.Sort(times)
		learned[sort] = times[len(times)/2].Minutes()
	}
	return learned
}

// meanwhile says what can be built and soldered on the quad while goggles or a controller take an
// update by themselves: it needs neither until it is powered. A unit that has to be updated or
// activated first is not built in before, and what is held is not done either.
func (s *Sheet) meanwhile(w *writer) {
	var free []string
	unitFirst := slices.ContainsFunc(s.Steps, func(step Step) bool {
		_, of, _ := strings.Cut(step.ID, ":")
		return step.Phase == Firmware && w.hasAir && isOf(of+":", w.air)
	})
	for i := range s.Steps {
		step := &s.Steps[i]
		if unitFirst && strings.HasPrefix(step.ID, fitting) {
			break
		}
		if (step.Phase == Build || step.Phase == Feed) && step.Held == "" {
			free = append(free, step.Title)
		}
	}
	for i := range s.Steps {
		of, update := strings.CutPrefix(s.Steps[i].ID, "update:")
		if update && (w.hasGoggles && isOf(of, w.gogglesState) || w.usesHand && isOf(of, w.controllerState)) {
			s.Steps[i].Alone, s.Steps[i].Meanwhile = true, free
		}
	}
}

// uses says which kit each step wants beside the quad: what it is done to, and goggles and controller
// from the first time they are bound on.
func (s *Sheet) uses(w *writer) {
	var links []string
	for _, slot := range []*fleet.Slot{w.Fit.Goggles, w.Fit.Controller} {
		if slot != nil && slot.Kit != "" {
			links = append(links, slot.Kit)
		}
	}
	for i := range s.Steps {
		step := &s.Steps[i]
		switch {
		case step.Reads != nil:
			step.Uses = []string{step.Reads.Kit}
		case step.Phase == Bind || step.Phase == Check || step.Phase == Flight:
			step.Uses = links
		}
	}
}

// fitting begins the id of the step that builds the unit in.
const fitting = "fit:"

// isOf says whether the rest of an update's id names a device.
func isOf(rest string, device fleet.State) bool {
	return strings.HasPrefix(rest, cmp.Or(device.KitID, device.ModelID)+":")
}

// sortOf is what kind of step one is, by its id: "solder:first:…" is soldering, "check:picture" is a
// check of its own.
func sortOf(step string) string {
	parts := strings.SplitN(StepID(step), ":", 3)
	if len(parts) > 1 && (parts[0] == "check" || parts[0] == "flight") {
		return parts[0] + ":" + parts[1]
	}
	return parts[0]
}

// Day is about how long a sheet takes.
type Day struct {
	Minutes int `json:"minutes"`
	// Untimed are steps that say nothing of it, and of whose kind none was ever timed.
	Untimed int `json:"untimed"`
	// Learned are the steps whose time is that of such steps before.
	Learned int `json:"learned"`
}

// Time says of each step that states no time how long such steps took before, and what that
// makes of the day.
func (s *Sheet) Time(learned Learned) {
	s.Day = Day{}
	sum := 0.0
	for i := range s.Steps {
		step := &s.Steps[i]
		took, known := learned[sortOf(step.ID)]
		switch {
		case step.Minutes != nil:
			sum += float64(*step.Minutes)
		case known:
			step.TookMinutes = new(max(1, int(math.Round(took))))
			sum += took
			s.Day.Learned++
		default:
			s.Day.Untimed++
		}
	}
	s.Day.Minutes = int(math.Ceil(sum))
}
