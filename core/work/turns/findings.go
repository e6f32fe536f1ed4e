package turns

import (
	"cmp"
	"fmt"
	"reflect"
	"slices"
	"strings"

	"yokeswap/core/facts/change"
	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/netlist"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/antenna"
	"yokeswap/core/gates/pins"
	"yokeswap/core/plans/swap"
	"yokeswap/core/work/bench"
	"yokeswap/core/work/setup"
)

// The findings about turning.
const (
	CodeWayBack  verdict.Code = "turn.way-back"
	CodeIron     verdict.Code = "turn.iron"
	CodeRepin    verdict.Code = "turn.repin"
	CodeMixedUp  verdict.Code = "turn.mixed-up"
	CodeUpdates  verdict.Code = "turn.updates"
	CodeBinding  verdict.Code = "turn.binding"
	CodeMoves    verdict.Code = "turn.moves"
	CodeSettings verdict.Code = "turn.settings"
)

// findings says what each turn costs beside its steps. The last two legs are those of a
// life in which everything has been done once.
func findings(there, again, backAgain lived) []verdict.Finding {
	list := slices.Concat(
		wayBack(there, again),
		iron(again, backAgain),
		repins(again, backAgain),
		mixedUp(there.fit),
		updates(again, backAgain),
		binding(again),
		moves(there, again, backAgain),
		settings(again, backAgain),
	)
	list = verdict.Complete("", there.fit.Quad.Label(), list, map[verdict.Code]verdict.Danger{
		CodeWayBack: verdict.Fails,
		CodeBinding: verdict.Inconvenient,
	})
	slices.SortStableFunc(list, func(a, b verdict.Finding) int {
		return cmp.Or(b.Danger.Rank()-a.Danger.Rank(), b.Level.Rank()-a.Level.Rank())
	})
	return list
}

// wayBack says whether what flies today still does once it has been turned there and back,
// gate by gate: what is amiss today hides nothing that is worse then.
func wayBack(there, again lived) []verdict.Finding {
	f := verdict.Finding{Code: CodeWayBack, Level: verdict.Fits,
		Says: fmt.Sprintf("After the turn and back, %s flies as it does today.", there.from)}
	for i, was := range there.today.Gates {
		is := again.today.Gates[i]
		if !is.Level.WorseThan(was.Level) || !is.Level.WorseThan(f.Level) {
			continue
		}
		why := worst(swap.Judgement{Gates: []swap.GateVerdict{is}})
		f.Level, f.Danger = is.Level, why.Danger
		f.Says = fmt.Sprintf("Once %s has been on, %s no longer flies as it does today: %s", there.to, there.from, why.Says)
	}
	return []verdict.Finding{f}
}

// stepsWith are the titles of the steps of some legs for which something holds, each once.
func stepsWith(holds func(bench.Step) bool, legs ...lived) (titles []string) {
	for _, leg := range legs {
		for _, step := range leg.sheet.Steps {
			if holds(step) && !slices.Contains(titles, step.Title) {
				titles = append(titles, step.Title)
			}
		}
	}
	return titles
}

// iron says whether anything is soldered at each turn.
func iron(legs ...lived) []verdict.Finding {
	for _, leg := range legs {
		if has, stated := wired(leg.fit); has && !stated {
			return []verdict.Finding{{Code: CodeIron, Level: verdict.Unknown,
				Says: fmt.Sprintf("Nobody has stated how %s is wired: what each turn does to it is not known.", leg.to),
				Missing: []verdict.Missing{{Of: "quad", ID: leg.fit.Quad.ID, Field: leg.stands + "harness",
					Label: "the cable of " + leg.to}}}}
		}
	}
	soldered := stepsWith(bench.Step.Soldered, legs...)
	if len(soldered) == 0 {
		return []verdict.Finding{{Code: CodeIron, Level: verdict.Fits,
			Says: "Nothing is soldered at a turn: both go onto plugs."}}
	}
	return []verdict.Finding{{Code: CodeIron, Level: verdict.Caution,
		Says: fmt.Sprintf("Each turn takes the iron: %s. Pads do not stand that often; a header on the pads of a unit "+
			"makes a plug of them.", strings.Join(soldered, "; "))}}
}

// repins says whether crimps move at each turn.
func repins(legs ...lived) []verdict.Finding {
	for _, leg := range legs {
		if len(pins.PlannedMoves(leg.fit)) > 0 {
			harness, _ := leg.fit.Harness()
			return []verdict.Finding{{Code: CodeRepin, Level: verdict.Caution,
				Says: fmt.Sprintf("The crimps of the %s move at each turn, and a crimp that is moved often lets go: a cable "+
					"for each unit stays as it is.", harness.Label())}}
		}
	}
	return nil
}

// mixedUp says what happens where a unit goes onto the cable of the other: the plugs are
// alike, their pins are not.
func mixedUp(c fleet.Case) (list []verdict.Finding) {
	now, next := nowOf(c), c
	if plugOf(now) == "" || plugOf(now) != plugOf(next) || reflect.DeepEqual(now.Fit.Cable(), next.Fit.Cable()) ||
		now.Fit.Harness == "" || next.Fit.Harness == "" {
		return nil
	}
	for _, pair := range [][2]fleet.Case{{now, next}, {next, now}} {
		unit, other := pair[0], pair[1]
		fit := unit.Fit.Clone()
		fit.Wiring = other.Fit.Wiring
		fit.Header = unit.Fit.Header // it stays on its own pads
		wrong := unit
		wrong = wrong.Carrying(&fit)
		judged := swap.Judge(wrong)
		for _, f := range judged.Gate(verdict.Pins).Findings {
			if f.Level == verdict.Unfit && f.Danger == verdict.Destroys {
				list = append(list, verdict.Finding{
					Code:    CodeMixedUp,
					Level:   verdict.Caution,
					Danger:  verdict.Destroys,
					Subject: swap.Describe(unit),
					Source:  f.Source,
					Says: fmt.Sprintf("%s goes onto the cable of %s too, and must not: %s Mark both, and look before each plug "+
						"goes in.", swap.Describe(unit), swap.Describe(other), f.Says),
				})
				break
			}
		}
	}
	return list
}

// wired says whether a fit has an air unit, and whether it is stated how that is wired:
// soldered to its pads, or through a cable onto its plug.
func wired(c fleet.Case) (has, stated bool) {
	if _, _, has = c.AirUnit(); !has {
		return false, true
	}
	run, ok := netlist.AirUnit(c)
	if !ok || run.Plug == nil || !run.Said() {
		return true, false
	}
	return true, run.Plug.Pads() || run.Plug.Connector != "" && c.Fit.Harness != ""
}

// plugOf is the connector at the unit of a fit; empty where it has none, or nobody states it.
func plugOf(c fleet.Case) string {
	if run, ok := netlist.AirUnit(c); ok && run.Plug != nil {
		return run.Plug.Connector
	}
	return ""
}

// updates says what is put on a device, or switched, at each turn.
func updates(legs ...lived) []verdict.Finding {
	done := stepsWith(func(s bench.Step) bool { return s.Reads != nil }, legs...)
	if len(done) == 0 {
		return []verdict.Finding{{Code: CodeUpdates, Level: verdict.Fits, Says: "No release or mode changes at a turn."}}
	}
	minutes := 0
	for _, leg := range legs {
		minutes += leg.sheet.Minutes
	}
	f := verdict.Finding{Code: CodeUpdates, Level: verdict.Caution,
		Says: fmt.Sprintf("Each turn there and back changes what devices carry: %s.", strings.Join(done, "; "))}
	if minutes > 0 {
		f.Says += fmt.Sprintf(" That is about %d minutes.", minutes)
	}
	return []verdict.Finding{f}
}

// binding says of the goggles and the controller that both fits share whether they stay
// bound to both units.
func binding(d lived) (list []verdict.Finding) {
	before := nowOf(d.fit)
	unit, _, has := d.fit.AirUnit()
	if was, _, had := before.AirUnit(); !has || !had || unit == nil || was == nil {
		return nil
	}
	if g, state, ok := d.fit.Goggles(); ok {
		if _, other, also := before.Goggles(); also && sameDevice(state, other) {
			list = append(list, staysBound(g.Head(), state.Label, g.BoundTo))
		}
	}
	if k, state, ok := d.fit.Controller(); ok && d.fit.Fit.Receiver == "" && before.Fit.Receiver == "" {
		if _, other, also := before.Controller(); also && sameDevice(state, other) {
			list = append(list, staysBound(k.Head(), state.Label, k.BoundTo))
		}
	}
	return list
}

func sameDevice(a, b fleet.State) bool { return a.KitID == b.KitID && a.ModelID == b.ModelID }

func staysBound(of *gear.Entry, label string, to *int) verdict.Finding {
	f := verdict.Finding{Code: CodeBinding, Subject: label, Level: verdict.Fits, Source: of.SourceOf("boundTo").String()}
	switch {
	case to == nil:
		f.Level = verdict.Unknown
		f.Says = fmt.Sprintf("Nobody has stated whether %s stays bound to more than one unit; else it is bound at each turn.",
			label)
		f.Missing = []verdict.Missing{{Of: "gear", ID: of.ID, Field: "boundTo", Label: "how many units " + label +
			" stays bound to"}}
	case *to < 2:
		f.Level = verdict.Caution
		f.Says = fmt.Sprintf("%s stays bound to one unit only: it is bound at each turn.", label)
	default:
		f.Says = fmt.Sprintf("%s stays bound to %d units, so to both.", label, *to)
	}
	return f
}

// moves says what changes over from one unit to the other at each turn, and how long
// their antenna plugs stand that.
func moves(there, again, backAgain lived) []verdict.Finding {
	now, next := &there.fit.Quad.Now, there.fit.Fit
	if now.AirUnit == nil || next.AirUnit == nil {
		return nil // there is nothing that could change over
	}
	if now.Antennas == nil || next.Antennas == nil {
		of := again
		if now.Antennas == nil {
			of = backAgain
		}
		return []verdict.Finding{{Code: CodeMoves, Level: verdict.Unknown,
			Says: "Nobody has stated the antennas of both units: whether a set changes over at each turn is not known.",
			Missing: []verdict.Missing{{Of: "quad", ID: of.fit.Quad.ID, Field: of.stands + "antennas.models",
				Label: "the antennas of " + of.to}}}}
	}
	if !fleet.MovesOver(now, next) {
		return []verdict.Finding{{Code: CodeMoves, Level: verdict.Fits,
			Says: "Each unit keeps its antennas on: no antenna plug comes off at a turn."}}
	}
	var shared []string
	for _, model := range next.Antennas.Models {
		if slices.Contains(now.Antennas.Models, model) && !slices.Contains(shared, there.fit.Library.Label(model)) {
			shared = append(shared, there.fit.Library.Label(model))
		}
	}
	if a := next.Antennas.Adapter; a != "" && a == now.Antennas.Adapter {
		shared = append(shared, there.fit.Library.Label(a))
	}
	f := verdict.Finding{Code: CodeMoves, Level: verdict.Caution,
		Says: fmt.Sprintf("%s changes over from one unit to the other at each turn: a set for each unit leaves the plugs "+
			"alone.", change.And(shared))}
	if left, ok := antenna.MatingsLeft(again.fit); ok {
		f.Says += fmt.Sprintf(" The antenna plugs of %s have about %d left.", again.to, max(0, left))
		if left <= 0 {
			f.Level = verdict.Unfit
		}
	}
	return []verdict.Finding{f}
}

// settings says what of the flight board is set anew at each turn.
func settings(legs ...lived) []verdict.Finding {
	var labels []string
	var missing []verdict.Missing
	for _, leg := range legs {
		plan := setup.PlanOf(leg.fit)
		for _, m := range plan.Missing {
			if field, planned := strings.CutPrefix(m.Field, leg.fit.FitName+"."); planned && m.Of == "quad" {
				m.Field = leg.stands + field
			}
			if !slices.Contains(missing, m) {
				missing = append(missing, m)
			}
		}
		for _, row := range plan.Rows {
			if !row.Same && !slices.Contains(labels, row.Label) {
				labels = append(labels, row.Label)
			}
		}
	}
	switch {
	case len(missing) > 0:
		return []verdict.Finding{{Code: CodeSettings, Level: verdict.Unknown, Missing: missing,
			Says: "What of the flight board has to be set anew at each turn is not known."}}
	case len(labels) == 0:
		return []verdict.Finding{{Code: CodeSettings, Level: verdict.Fits, Says: "The flight board stays set as it is."}}
	}
	return []verdict.Finding{{Code: CodeSettings, Level: verdict.Caution,
		Says: fmt.Sprintf("The flight board is set anew at each turn: %s. Keep its settings with each unit once, and "+
			"they go back in one press.", strings.Join(labels, ", "))}}
}
