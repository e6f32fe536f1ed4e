package osd

import (
	"fmt"
	"slices"

	"yokeswap/core/facts/fleet"
	"yokeswap/core/facts/gear"
	"yokeswap/core/facts/verdict"
	"yokeswap/core/gates/pins"
)

// The findings of this gate.
const (
	CodeUnknown  verdict.Code = "osd.unknown"
	CodeNoBoard  verdict.Code = "osd.no-board"
	CodeDialect  verdict.Code = "osd.dialect"
	CodePort     verdict.Code = "osd.port"
	CodeBuiltIn  verdict.Code = "osd.no-canvas"
	CodeAdvice   verdict.Code = "osd.advice"
	CodeLayout   verdict.Code = "osd.layout"
	CodeOverlap  verdict.Code = "osd.overlap"
	CodeElements verdict.Code = "osd.elements"
	CodeNoData   verdict.Code = "osd.picture-only"
	CodeFits     verdict.Code = "osd.fits"
)

// Check judges whether the data of the flight board shows in the goggles.
func Check(c fleet.Case) []verdict.Finding {
	return verdict.Complete(verdict.OSD, c.Quad.Label(), check(c), nil)
}

// withoutData is what is to say where nothing of the flight board is to show: no board,
// whether stated or not, or the picture alone is wired. False where there is more.
func withoutData(c fleet.Case) ([]verdict.Finding, bool) {
	if _, _, ok := c.AirUnit(); ok && c.Fit.Board == "" && !c.Fit.Without(fleet.NoBoard) {
		return []verdict.Finding{verdict.CannotTell(verdict.OSD, CodeUnknown, c.Quad.Label(),
			verdict.FitValue(c, "board", "flight board of "+c.Quad.Label()+", or that it has none"))}, true
	}
	if c.Fit.Depth == fleet.PictureOnly {
		return []verdict.Finding{{Code: CodeNoData, Level: verdict.Fits, Source: verdict.Practice,
			Says: "Only the picture is wired, on purpose: nothing of the flight board shows in the goggles, only the unit's " +
				"own readings."}}, true
	}
	if _, _, ok := c.AirUnit(); ok && c.Fit.Board == "" {
		return []verdict.Finding{{Code: CodeNoBoard, Level: verdict.Caution, Source: verdict.Practice,
			Says: "There is no flight board: the goggles show the unit's own readings alone."}}, true
	}
	return nil, false
}

func check(c fleet.Case) []verdict.Finding {
	if findings, all := withoutData(c); all {
		return findings
	}
	v, ok := newView(c)
	if !ok {
		return []verdict.Finding{verdict.CannotTell(verdict.OSD, CodeUnknown, c.Quad.Label(), v.missing...)}
	}
	findings := v.checkDialect()
	if len(findings) > 0 && findings[0].Level == verdict.Unfit {
		return findings
	}
	port, wired, said := pins.MSPWiredTo(c)
	switch {
	case !said:
		findings = append(findings,
			verdict.CannotTell(verdict.OSD, CodePort, c.Quad.Label(),
				verdict.FitValue(v.Case, "wires", "how the air unit's UART is wired to the board")))
	case wired:
	default:
		findings = append(findings, verdict.Finding{Code: CodePort, Level: verdict.Change, Source: verdict.Practice,
			Says: "The unit's RX and TX are not crossed to one serial port: nothing of the flight board shows until they " +
				"are. The pins gate says how."})
	}
	if advice := v.runs.Advice(v.version); advice != nil {
		findings = append(findings, verdict.Finding{
			Code:    CodeAdvice,
			Level:   verdict.Caution,
			Subject: v.runs.Label(),
			Source:  v.runs.Source.String(),
			Says:    fmt.Sprintf("%s %s: %s.", v.runs.Label(), v.version, advice.Why),
		})
	}
	findings = append(findings, v.checkLayout()...)
	if len(findings) == 0 {
		findings = append(findings, verdict.Finding{
			Code:   CodeFits,
			Level:  verdict.Fits,
			Source: verdict.Practice,
			Says:   v.fits(port),
		})
	}
	return findings
}

func (v *view) fits(port int) string {
	how := "the unit's own layout"
	if v.screen.Canvas {
		how = "a canvas of " + v.screen.Grid.Words()
	}
	return fmt.Sprintf("%d elements show over UART %d, on %s.", len(v.Fit.OSD.Elements), port, how)
}

// checkDialect holds what the flight firmware speaks against what the unit understands
// (common practice: a superset has a port function of its own for digital goggles, which
// speaks the common dialect; without it the display shows nonsense, and some units never
// understand a superset; other firmware speaks MAVLink, or the common dialect in a
// compatibility mode).
func (v *view) checkDialect() []verdict.Finding {
	f := verdict.Finding{Code: CodeDialect, Level: verdict.Caution, Subject: v.airUnit.Label(), Source: verdict.Practice,
		Danger: verdict.Fails}
	as := v.spoken.as
	switch {
	case v.spoken.dialect == "":
		f.Level, f.Source = verdict.Unfit, v.airUnit.SourceOf("osd.dialects").String()
		f.Says = fmt.Sprintf("%s speaks %s, which %s does not understand: the display stays blank or shows nonsense.",
			v.runs.Label(), v.runs.Dialect.Words(), v.airUnit.Label())
		if later := v.speaksLater(); later != nil {
			f.Says += fmt.Sprintf(" Its %s speaks %s on %s; %s is on it.", later.Label(), later.Dialect.Words(),
				later.Firmware, v.version)
		}
	case as != nil:
		f.Says = fmt.Sprintf("%s speaks %s of itself; in its %s it speaks %s, which %s understands: set the port "+
			"to that, and see the data before the first flight.",
			v.runs.Label(), v.runs.Dialect.Words(), as.Label(), as.Dialect.Words(), v.airUnit.Label())
	case v.spoken.dialect == gear.MAVLink:
		f.Danger = verdict.Inconvenient
		f.Says = fmt.Sprintf("The data comes over MAVLink: %s draws its own layout from it, and the goggles' menu "+
			"changes no tuning.", v.airUnit.Label())
	default:
		return nil
	}
	return []verdict.Finding{f}
}

// speaksLater is a compatibility mode the unit understands, on other releases than the one
// the board runs; nil: there is none.
func (v *view) speaksLater() *gear.SpeaksAs {
	for i := range v.runs.SpeaksAs {
		if as := &v.runs.SpeaksAs[i]; slices.Contains(v.airUnit.OSD.Dialects, as.Dialect) {
			return as
		}
	}
	return nil
}

// checkLayout holds the layout against what the goggles show.
func (v *view) checkLayout() (findings []verdict.Finding) {
	l := v.Fit.OSD
	if l == nil {
		return []verdict.Finding{verdict.CannotTell(verdict.OSD, CodeUnknown, v.Quad.Label(),
			verdict.FitValue(v.Case, "osd", "OSD layout of "+v.Quad.Label()))}
	}
	lost := v.losses()
	if !v.screen.Canvas {
		f := verdict.Finding{Code: CodeBuiltIn, Level: verdict.Caution, Source: verdict.Practice,
			Says: fmt.Sprintf("No canvas: %s. The unit's own layout shows %d of %d elements.", v.screen.NoCanvas,
				len(v.used().Elements)-len(lost), len(v.used().Elements))}
		findings = append(findings, f)
	}
	if len(lost) > 0 {
		f := verdict.Finding{
			Code:   CodeElements,
			Level:  verdict.Caution,
			Source: verdict.Practice,
			Says:   fmt.Sprintf("Of today's layout these do not show: %s.", labels(lost)),
		}
		for _, loss := range lost {
			there := loss.Why
			if loss.Instead != "" {
				there += "; " + loss.Instead + " tells nearly the same"
			}
			f.Compares = append(f.Compares, verdict.Compare{What: loss.Label, Needed: "shown", There: there})
		}
		findings = append(findings, f)
	}
	if l.Grid != v.screen.Grid {
		findings = append(findings, verdict.Finding{Code: CodeLayout, Level: verdict.Change, Source: verdict.Practice,
			Compares: []verdict.Compare{{What: "grid", Needed: v.screen.Grid.Words(), There: l.Grid.Words()}},
			Says: fmt.Sprintf("The layout is made for %s, the goggles show %s: as it is, it sits in a corner.",
				l.Grid.Words(), v.screen.Grid.Words())})
	} else if words := v.unsound(l); words != "" {
		findings = append(findings, verdict.Finding{
			Code:   CodeOverlap,
			Level:  verdict.Change,
			Source: verdict.Practice,
			Says:   words,
		})
	}
	return findings
}

// unsound says what overlaps or falls off the grid; empty where nothing does.
func (v *view) unsound(all *fleet.Layout) string {
	l := v.shown(all) // what is not drawn lies on nothing
	for i, e := range l.Elements {
		if v.falls(&l, e) {
			return fmt.Sprintf("%s falls off the grid of %s.", v.label(e.ID), l.Grid.Words())
		}
		for _, o := range l.Elements[:i] {
			if v.clash(e, o) {
				return fmt.Sprintf("%s lies over %s.", v.label(e.ID), v.label(o.ID))
			}
		}
	}
	return ""
}

// falls says whether an element reaches beyond the grid.
func (v *view) falls(l *fleet.Layout, e fleet.Placed) bool {
	columns, rows, _ := l.Grid.Size()
	b := v.box(e)
	return b.x+b.w > columns || b.y+b.h > rows
}

// clash says whether two elements lie over each other in a profile, and are not meant to.
func (v *view) clash(e, o fleet.Placed) bool {
	return e.ProfileBits()&o.ProfileBits() != 0 && !v.within(e.ID, o.ID) && !v.within(o.ID, e.ID) &&
		v.box(e).overlaps(v.box(o))
}

// Candidates proposes the converted layout, and releases that draw a canvas or are
// not warned of.
func Candidates(c fleet.Case) (list []verdict.Candidate) {
	v, ok := newView(c)
	if !ok {
		return nil
	}
	if next, ok := v.converted(); ok {
		list = append(list, verdict.Candidate{Effort: verdict.Setting, Patch: fleet.Patch{OSD: &next}})
	}
	if l := Layouts(c); len(l) > 0 {
		list = append(list, verdict.Candidate{Effort: verdict.Setting, Patch: fleet.Patch{OSD: &l[0].Layout}})
	}
	if from := v.runs.CanvasFrom; v.version.Compare(from) < 0 {
		list = append(list, verdict.Candidate{Costs: "its settings are loaded anew: save them first", Effort: verdict.Setting,
			Patch: fleet.Patch{Runs: &fleet.Runs{ID: v.runs.ID, Version: from}}})
	}
	if as := v.speaksLater(); as != nil && v.spoken.dialect == "" {
		for _, version := range as.Firmware.Named() {
			if as.Firmware.Holds(version) {
				list = append(list, verdict.Candidate{Costs: "its settings are loaded anew: save them first",
					Effort: verdict.Setting, Patch: fleet.Patch{Runs: &fleet.Runs{ID: v.runs.ID, Version: version}}})
			}
		}
	}
	device := func(
		d *gear.Device, s fleet.State, slot fleet.Slot, patch func(*fleet.Slot) fleet.Patch, holds func(*gear.Release) bool,
	) {
		for i := range d.Releases {
			if r := &d.Releases[i]; holds(r) && r.Version.Compare(s.Target) != 0 {
				slot.Firmware = r.Version
				list = append(list, verdict.Candidate{Effort: verdict.Setting, Patch: patch(&slot)})
				return
			}
		}
	}
	if v.Fit.AirUnit != nil {
		device(&v.airUnit.Device, v.air, *v.Fit.AirUnit, func(s *fleet.Slot) fleet.Patch {
			return fleet.Patch{AirUnit: new(*s)}
		}, func(r *gear.Release) bool { return v.airUnit.OSD.Canvas.Holds(r.Version) })
	}
	return list
}

// converted is the layout on the grid the goggles show, with only what they show;
// false where it is that already.
func (v *view) converted() (fleet.Layout, bool) {
	l := v.Fit.OSD
	if l == nil || l.Grid == v.screen.Grid && v.unsound(l) == "" {
		return fleet.Layout{}, false
	}
	next, _ := v.convert(v.shown(l))
	return next, true
}
