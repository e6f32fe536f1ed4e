// Package bench turns a swap into the sheet a builder works through: steps in
// bench order with tools, materials, cautions and readings, and it says how
// far a run has come.
//
// The order is common practice: goggles first, because everything hangs on
// them; the unit updated and activated on the bench before it is buried in
// the frame; feeds next; the meter before the first plug-in; a fan before the
// unit heats up; goggles bound before the controller.
package bench

import (
	"encoding/json"
	"hash/fnv"
	"slices"
	"strconv"
	"strings"

	"yokeswap/core/facts/firmware"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/plans/swap"
)

// The phases of a bench day, in order.
const (
	Prepare  = swap.PhasePrepare
	Firmware = swap.PhaseFirmware
	Build    = swap.PhaseBuild
	Feed     = swap.PhaseFeed
	Meter    = swap.PhaseMeter
	Power    = swap.PhasePower
	Bind     = swap.PhaseBind
	Check    = swap.PhaseCheck
	Flight   = swap.PhaseFlight
)

// Step is one thing to do. Its id stays the same as long as what is to be
// done stays the same, so that ticks survive a change elsewhere in the plan.
type Step struct {
	ID        string     `json:"id"`
	Phase     swap.Phase `json:"phase"`
	Title     string     `json:"title"`
	Do        []string   `json:"do"`
	Tools     []string   `json:"tools,omitempty"`
	Materials []string   `json:"materials,omitempty"`
	Cautions  []string   `json:"cautions,omitempty"`
	Reading   *Reading   `json:"reading,omitempty"`
	// Reads is what the step does to a device owned: what is read off it
	// afterwards becomes its state.
	Reads *DeviceStep `json:"reads,omitempty"`
	// Mates is the piece of kit whose antenna plugs go on at this step: a tick
	// counts one mating.
	Mates string `json:"mates,omitempty"`
	// RunSeconds is how long the unit may run without moving air.
	RunSeconds *int `json:"runSeconds,omitempty"`
	// Minutes is about how long it takes; absent: not stated.
	Minutes *int `json:"minutes,omitempty"`
	// Alone: once begun it goes on by itself, and ends by itself.
	Alone bool `json:"alone,omitempty"`
	// Uses are the pieces of kit it wants at hand beside the quad, such as goggles.
	Uses []string `json:"uses,omitempty"`
	// Meanwhile are the steps that can be done while this one goes on by itself, by their titles.
	Meanwhile []string `json:"meanwhile,omitempty"`
	// TookMinutes is how long such steps took before, one at the least; absent: a time is stated, or
	// none was taken.
	TookMinutes *int `json:"tookMinutes,omitempty"`
	// Held says why the step must not be done yet.
	Held string `json:"held,omitempty"`

	flies string // of what is tried with all that flies: a mark of that
}

// key is what a step is recorded under: its id, and of what is tried with all that flies a mark of
// that, for with something else on the quad it has not been tried.
func (s *Step) key() string {
	if s.flies == "" {
		return s.ID
	}
	return s.ID + triedWith + s.flies
}

// StepID is the id of the step that something is recorded under.
func StepID(key string) string {
	id, _, _ := strings.Cut(key, triedWith)
	return id
}

// triedWith is between a step's id and the mark of what flies.
const triedWith = "@"

// DeviceStep is a step that changes what a piece of kit carries.
type DeviceStep struct {
	Kit     string           `json:"kit"`
	Label   string           `json:"label"`
	Do      string           `json:"do"` // "update", "mode" or "activate"
	Release firmware.Version `json:"release,omitempty"`
	Mode    string           `json:"mode,omitempty"`
}

// Sheet is the bench sheet of one swap.
type Sheet struct {
	Quad      string   `json:"quad"`
	Name      string   `json:"name"`
	From      string   `json:"from"`
	To        string   `json:"to"`
	Steps     []Step   `json:"steps"`
	Tools     []string `json:"tools"`
	Materials []string `json:"materials"`
	// Minutes is what the updates take that state how long they do; Untimed is how many
	// do not.
	Minutes int `json:"minutes"`
	Untimed int `json:"untimed"`
	// Day is about how long all of it takes, as far as it was ever timed.
	Day Day `json:"day"`
	// Holds are the verdicts that keep steps from being done: change the plan
	// first.
	Holds []Holding `json:"holds"`
}

// Holding is a finding that keeps steps from being done, with the name of its gate.
type Holding struct {
	Title string `json:"title"`
	verdict.Finding
}

// WeighStep is the step at which the quad is weighed after the swap.
const WeighStep = "check:close"

// FailsafeStep is the id of the step that tries the failsafe.
const FailsafeStep = "check:failsafe"

// SticksStep and VoltageStep are the checks whose readings a flight board that is
// read live can give.
const (
	SticksStep  = "check:sticks"
	VoltageStep = "check:voltage"
)

// NewSheet writes the sheet for a quad's next fit, as it is judged.
func NewSheet(c fleet.Case, j swap.Judgement, from, to string) Sheet {
	w := newWriter(j.At(verdict.Power, c))
	w.prepare()
	w.firmware()
	w.build()
	w.headers()
	w.wire()
	w.wireParts()
	w.pairs()
	w.meterParts()
	w.meter()
	w.powerUp()
	w.bind()
	w.checkParts()
	w.check()
	w.firstFlight()

	s := Sheet{
		Quad:      c.Quad.ID,
		Name:      c.Quad.Label(),
		From:      from,
		To:        to,
		Steps:     w.steps,
		Tools:     []string{},
		Materials: []string{},
		Holds:     []Holding{},
		Untimed:   w.untimed,
	}
	s.holdBy(j, w.touched())
	s.meanwhile(w)
	s.uses(w)
	s.mark(c.Fit)
	for _, step := range s.Steps {
		s.Tools = appendNew(s.Tools, step.Tools...)
		if step.Minutes != nil {
			s.Minutes += *step.Minutes
		}
		s.Materials = appendNew(s.Materials, step.Materials...)
	}
	return s
}

// mark marks the failsafe's try and the first flight with what flies.
func (s *Sheet) mark(f *fleet.Fit) {
	var antennas []string
	if f.Antennas != nil {
		antennas = f.Antennas.Models
	}
	flies := fnv.New32a()
	_ = json.NewEncoder(flies).Encode([]any{f.AirUnit, f.Goggles, f.Controller, f.Receiver, f.Board, f.Runs, antennas})
	for i := range s.Steps {
		if step := &s.Steps[i]; step.ID == FailsafeStep || step.Phase == Flight {
			step.flies = strconv.FormatUint(uint64(flies.Sum32()), 36)
		}
	}
}

// holdBy keeps steps from being done while a gate is shut, as the register of gates has
// it: first what is said of the quad itself, then what is said of any.
func (s *Sheet) holdBy(j swap.Judgement, touched bool) {
	for _, always := range []bool{false, true} {
		for _, gate := range swap.Gates {
			if h := gate.Holds; h != nil && h.Always == always && (always || touched) {
				s.hold(j.Gate(gate.Name), *h)
			}
		}
	}
}

func (s *Sheet) hold(gate swap.GateVerdict, by swap.Hold) {
	var worst *verdict.Finding
	for i := range gate.Findings {
		f := &gate.Findings[i]
		if !by.From.WorseThan(f.Level) {
			s.Holds = append(s.Holds, Holding{gate.Title, *f})
			if worst == nil || f.Level.WorseThan(worst.Level) {
				worst = f
			}
		}
	}
	if worst == nil {
		return
	}
	for i := range s.Steps {
		if slices.Contains(by.Phases, s.Steps[i].Phase) && s.Steps[i].Held == "" {
			s.Steps[i].Held = "Held by the " + gate.Title + " gate: " + worst.Says
		}
	}
}

// Step looks up a step by its id.
func (s *Sheet) Step(id string) (*Step, bool) {
	for i := range s.Steps {
		if s.Steps[i].ID == id {
			return &s.Steps[i], true
		}
	}
	return nil, false
}

func appendNew(list []string, more ...string) []string {
	for _, m := range more {
		if !slices.Contains(list, m) {
			list = append(list, m)
		}
	}
	return list
}

// toolIron marks the steps at which something is soldered.
const toolIron = "soldering iron"

// Soldered says whether the step takes the iron.
func (s Step) Soldered() bool { return slices.Contains(s.Tools, toolIron) }
